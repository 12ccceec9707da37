"""./anvil measure: how fast, in one run, as ratios. Prints; asserts nothing. The figures go into docs/performance.md."""

import gzip
import json
import os
import platform
import random
import re
import statistics
import subprocess
import sys
import time
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from datetime import UTC, datetime
from http.client import HTTPConnection
from pathlib import Path
from typing import Any
from uuid import uuid4

import numpy as np

from . import honest

ROOT = Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT))
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "server.settings.measure")


def best_of(run: Callable[[], object], rounds: int = 30, times: int = 50) -> float:
    """Seconds of one call: the best of several rounds, which is the one least disturbed."""
    found = []
    for _ in range(rounds):
        start = time.perf_counter()
        for _ in range(times):
            run()
        found.append((time.perf_counter() - start) / times)
    return min(found)


def core() -> None:
    """Each bench, validation included, against a bare lstsq of the alignment's matrix."""
    from millwright.benches.alignment import dials
    from millwright.benches.register import evaluate_json
    from server.demo import blower

    feet = {"stationary_feet": [], "movable_feet": [{"name": "a", "x_mm": 300.0}, {"name": "b", "x_mm": 586.0}]}
    limits = {"limits": {"offset_mm": 0.4, "angle_deg": 0.35}}
    ring = blower.FOUND["dials"][0]["readings"]
    inputs: dict[str, dict[str, Any]] = {
        "alignment": {**blower.FOUND, **feet, **limits},
        "clock": {"readings": ring},
        "runout": {"readings": ring, "limit_mm": 1.0},
        "gap": {**blower.FIRST_READINGS["set.gap"], "accept": {"mean": {"min_mm": 29.0, "max_mm": 31.0}}},
        "straightedge": blower.FIRST_READINGS["set.straightedge"],
        "fit": blower.FIRST_READINGS["prepare.fit.driver"],
        "key": {**blower.FIRST_READINGS["prepare.key.driver"], "shaft_diameter_mm": 48.0},
        "tighten": {"bolts": 12, "torque_nm": 80.0, "passes": [0.5, 0.75, 1.0], "pattern": "star", "pulls": []},
    }
    all_dials = [dials.Dial.model_validate(d, strict=False) for d in blower.FOUND["dials"]]
    design, value = dials.rows(all_dials)
    bare = best_of(lambda: np.linalg.lstsq(design, value, rcond=None))
    print(f"core: bare numpy.linalg.lstsq of the alignment's matrix {bare * 1e6:.0f} µs")
    for name, given in inputs.items():
        text = json.dumps(given)
        taken = best_of(lambda name=name, text=text: evaluate_json(name, text))  # type: ignore[misc]
        print(f"  {name:13} {taken * 1e6:6.0f} µs   {taken / bare:5.1f} x the bare solve")


def heavy() -> None:
    """A plan for two machines that keeps the room there is, and a laser's sweep of ten thousand readings."""
    from millwright.benches.register import evaluate_json
    from millwright.rig.machine import Bracket, Gauge, TrueShafts, sweep
    from server.demo import blower

    feet = {
        "stationary_feet": [{"name": "s1", "x_mm": -280.0}, {"name": "s2", "x_mm": -640.0}],
        "movable_feet": [{"name": "m1", "x_mm": 300.0}, {"name": "m2", "x_mm": 586.0}],
    }
    room = {"m1": {"shim_mm": 0.2}, "m2": {"right_mm": 0.05}, "s1": {}, "s2": {}}
    shims = {"box_mm": [0.05, 0.1, 0.2, 0.25, 0.5, 1.0, 2.0]}
    chance, shafts = random.Random(1), TrueShafts(offset_v_mm=0.2, slope_h_mm_per_m=0.3)
    gauge = Gauge(resolution_mm=0.001, scatter_mm=0.004)
    planes = [Bracket(kind="rim", on="stationary", x_mm=x) for x in (100.0, -100.0)]
    clocks = [place * 0.04 for place in range(5000)]
    dials = [
        {"kind": "rim", "bracket_on": p.on, "x_mm": p.x_mm, "readings": sweep(shafts, p, clocks, gauge, chance)}
        for p in planes
    ]
    limits = {"limits": {"offset_mm": 0.4, "angle_deg": 0.35}}
    for name, given in (
        ("plan for two machines, shims from the box", {**blower.FOUND, **feet, "room": room, "shims": shims}),
        ("laser sweep of 10,000 readings", {"dials": dials, **feet, **limits}),
    ):
        text = json.dumps(given)
        taken = best_of(lambda text=text: evaluate_json("alignment", text), rounds=10, times=2)  # type: ignore[misc]
        print(f"  {name}: {taken * 1000:.1f} ms")


WATCH = """() => {
  window.taken = []
  let typed = 0
  addEventListener('input', () => { typed = performance.now() }, true)
  const inVerdict = (node) => (node.closest ? node : node.parentElement)?.closest('[aria-label="Verdict"]')
  new MutationObserver((changes) => {
    if (typed && changes.some((change) => inVerdict(change.target))) { taken.push(performance.now() - typed); typed = 0 }
  }).observe(document.body, {subtree: true, childList: true, characterData: true})
}"""


def screen(port: int, session: str) -> None:
    """From the last digit typed to the verdict on the screen, in the browser, on the alignment bench."""
    from playwright.sync_api import sync_playwright

    from tests.browser.base import HEADLESS

    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=HEADLESS, args=["--no-sandbox"])
        context = browser.new_context(viewport={"width": 1280, "height": 800})
        context.add_cookies([{"name": "sessionid", "value": session, "url": f"http://127.0.0.1:{port}"}])
        page = context.new_page()
        page.goto(f"http://127.0.0.1:{port}/benches/alignment")
        for ring in ("Rim", "Face"):
            for place in (12, 3, 6, 9):
                page.get_by_label(f"{ring} at {place} o’clock").fill("0")
        page.get_by_label("Face: radius of the stem").fill("60")
        page.get_by_label("Coupling to near feet").fill("300")
        page.get_by_label("Coupling to far feet").fill("586")
        page.wait_for_timeout(500)
        page.evaluate(WATCH)
        cell = page.get_by_label("Rim at 6 o’clock")
        for n in range(40):
            cell.fill(f"0.{n + 10}")
            page.wait_for_timeout(250)
        p50, p95 = quantiles(page.evaluate("window.taken"))
        browser.close()
    print(f"verdict on the screen after the last digit: p50 {p50:.0f} ms, p95 {p95:.0f} ms")


class Caller:
    """One signed-in client on a connection that stays open."""

    def __init__(self, number: int, port: int, cookie: str, token: str) -> None:
        self.number = number
        self.connection = HTTPConnection("127.0.0.1", port)
        self.headers = {"Cookie": cookie, "X-CSRFToken": token, "Content-Type": "application/json"}

    def post(self, path: str, body: str) -> float:
        """Milliseconds of one POST; anything but success ends the run."""
        start = time.perf_counter()
        self.connection.request("POST", path, body, self.headers)
        answer = self.connection.getresponse()
        content = answer.read()
        taken = (time.perf_counter() - start) * 1000
        if answer.status >= 300:
            raise SystemExit(f"{path}: {answer.status} {content[:300]!r}")
        return taken


def api() -> None:
    """Evaluating and storing an alignment entry against a floor that inserts one row, at 1 and 20 clients."""
    import django

    django.setup()
    from django.db import connection
    from django.test import Client

    connection.creation.create_test_db(verbosity=0, autoclobber=True)
    try:
        from server.accounts.models import User
        from server.demo import blower
        from tests.site import build_two_sites

        jobs = copies_of(build_two_sites(), 20)
        client = Client()
        client.force_login(User.objects.get(username="millwright"))
        token = "m" * 32
        cookie = f"sessionid={client.cookies['sessionid'].value}; csrftoken={token}"
        port = 8917
        url = os.environ["DATABASE_URL"].rsplit("/", 1)[0] + "/" + connection.settings_dict["NAME"]
        environment = {**os.environ, "DATABASE_URL": url, "DJANGO_SETTINGS_MODULE": "server.settings.measure"}
        server = subprocess.Popen(
            [
                sys.executable,
                "-m",
                "uvicorn",
                "server.asgi:application",
                "--port",
                str(port),
                "--workers",
                "2",
                "--log-level",
                "error",
                "--no-access-log",
            ],
            env=environment,
        )
        try:
            wait_for(port)
            screen(port, client.cookies["sessionid"].value)
            run_api(port, cookie, token, jobs, blower)
        finally:
            server.terminate()
            server.wait()
    finally:
        connection.close()
        connection.creation.destroy_test_db("anvil", verbosity=0)


def wait_for(port: int) -> None:
    """Until the server answers."""
    for _ in range(100):
        try:
            HTTPConnection("127.0.0.1", port).request("GET", "/")
            return
        except OSError:
            time.sleep(0.1)


def copies_of(job: Any, count: int) -> list[str]:
    """Ids of as many jobs like this one, each on a line of its own, made by reading its file in again."""
    from server.accounts.models import Membership
    from server.jobs.actions.take_over_job import take_over_job
    from server.reports.exchange import read_job
    from server.reports.job_file import write_job
    from tests.forger import made_to_fit

    lead = Membership.objects.get(user__username="lead")
    text = write_job(job)
    written = json.loads(text)
    ids = [written["id"], *(fact["id"] for fact in [*written["entries"], *written["signatures"]])]
    made = []
    for n in range(count):
        copy = text.replace(f'"line": "{written["line"]}"', f'"line": "Copy {n}"')
        for old in ids:
            copy = copy.replace(old, str(uuid4()))
        given = json.dumps(made_to_fit(json.loads(copy))).encode()
        read_in = read_job(given, by=lead, now=datetime.now(UTC))
        made.append(str(take_over_job(read_in.pk, by=lead, now=datetime.now(UTC)).pk))
    return made


def run_api(port: int, cookie: str, token: str, jobs: list[str], blower: Any) -> None:
    """The routes in turn, interleaved, so that a busy machine troubles all alike."""
    bench = json.dumps(
        {**blower.FOUND, "stationary_feet": [], "movable_feet": [{"name": "a", "x_mm": 300.0}, {"name": "b", "x_mm": 586.0}]}
    )

    def store() -> str:
        return json.dumps({"id": str(uuid4()), "step": "set.align", "kind": "reading", "inputs": blower.FOUND})

    routes: dict[str, Callable[[Caller], float]] = {
        "floor (one row)": lambda c: c.post("/api/floor", "{}"),
        "evaluate": lambda c: c.post("/api/benches/alignment", bench),
        "store": lambda c: c.post(f"/api/jobs/{jobs[c.number % len(jobs)]}/entries", store()),
        "store, one job": lambda c: c.post(f"/api/jobs/{jobs[0]}/entries", store()),
    }
    for clients, calls in ((1, 120), (20, 10)):
        taken: dict[str, list[float]] = {name: [] for name in routes}
        callers = [Caller(n, port, cookie, token) for n in range(clients)]
        for route in routes.values():
            for caller in callers:
                route(caller)
        for _ in range(calls // 5):
            for name, route in routes.items():
                with ThreadPoolExecutor(clients) as pool:
                    for times in pool.map(lambda c, route=route: [route(c) for _ in range(5)], callers):
                        taken[name] += times
        print(f"API, {clients} client{'s' if clients > 1 else ''}, ms")
        floor = quantiles(taken["floor (one row)"])
        for name, times in taken.items():
            p50, p95 = quantiles(times)
            print(f"  {name:16} p50 {p50:6.1f}  p95 {p95:6.1f}   p95 {p95 / floor[1]:.2f} x the floor")


def quantiles(times: list[float]) -> tuple[float, float]:
    """p50 and p95."""
    cuts = statistics.quantiles(times, n=20)
    return cuts[9], cuts[18]


def first_view() -> None:
    """JavaScript and CSS that the page itself names, gzipped."""
    dist = ROOT / "web" / "dist"
    names = re.findall(r'/static/(assets/[^"]+\.(?:js|css))"', (dist / "index.html").read_text())
    size = sum(len(gzip.compress((dist / name).read_bytes(), 9)) for name in set(names))
    print(f"first view: {size / 1000:.0f} kB of JavaScript and CSS, gzip ({len(set(names))} files)")


if __name__ == "__main__":
    print(f"{platform.machine()}, {os.cpu_count()} cores, Python {platform.python_version()}, numpy {np.__version__}")
    core()
    heavy()
    honest.sureness()
    honest.coverage()
    first_view()
    api()
