"""./anvil measure --faults: worker, server, database, browser are killed in the middle of a job; what is lost is counted."""

import argparse
import random
import shutil
import sys
import threading
import time
from collections import Counter
from collections.abc import Callable
from contextlib import suppress
from pathlib import Path
from typing import Any

from playwright.sync_api import BrowserContext, Error, Page, Playwright, expect, sync_playwright

from tests.own import Cluster, Server, cluster_of_its_own, descendants, kill, server_on, session_of

STEP = "set.gap"
PLACES = ("12", "3", "6", "9")
KILLED = ("worker", "server", "database", "browser")
WITHIN_S = 1.5  # of the round's beginning: while it is typed, entered and answered
PATIENCE_MS = 60_000


class Browser:
    """One tablet: what it keeps, it keeps in a folder that outlives it."""

    def __init__(self, playwright: Playwright, folder: Path, server: Server, cookie: dict[str, Any]) -> None:
        self.playwright, self.folder, self.server, self.cookie = playwright, folder / "tablet", server, cookie
        self.page: Page
        self.context: BrowserContext
        self.open()

    def open(self) -> None:
        """At first, and again after it was killed."""
        program = next(path for name in ("chromium-headless-shell", "chromium") if (path := shutil.which(name)))
        self.context = self.playwright.chromium.launch_persistent_context(
            str(self.folder), executable_path=program, args=["--no-sandbox", "--disable-gpu"]
        )
        self.context.add_cookies([self.cookie])  # type: ignore[list-item]
        self.page = self.context.pages[0]
        self.page.set_default_timeout(PATIENCE_MS)

    def pids(self) -> list[int]:
        """Every process that works in its folder."""
        found = []
        for command in Path("/proc").glob("[0-9]*/cmdline"):
            with suppress(OSError):
                if str(self.folder).encode() in command.read_bytes():
                    found.append(int(command.parent.name))
        return [pid for found_pid in found for pid in descendants(found_pid)]


class Run:
    """So many rounds: a value of its own is typed at four places and entered, and something is killed meanwhile."""

    def __init__(self, server: Server, cluster: Cluster, browser: Browser, address: str) -> None:
        self.server, self.cluster, self.browser, self.address = server, cluster, browser, address
        self.taken: set[str] = set()  # values whose entry was acknowledged: it stands, or is kept and said to be so
        self.lost_typed: list[str] = []
        self.killed: Counter[str] = Counter()

    def round(self, n: int) -> None:
        """One kill."""
        value, what = f"{29 + n / 100:.2f}", KILLED[n % len(KILLED)]
        typed: list[str] = []
        killer = threading.Thread(target=self._kill, args=(what, random.uniform(0, WITHIN_S)))
        killer.start()
        # A browser that is gone fails what was expected of it; anything else must come.
        with suppress(Error, *((AssertionError,) if what == "browser" else ())):
            self._type_and_enter(value, typed)
        killer.join()
        self.killed[what] += 1
        if what == "browser":
            with suppress(Error):
                self.browser.context.close()
            self.browser.open()
        self.server.wait()
        self._look(value, typed)

    def _type_and_enter(self, value: str, typed: list[str]) -> None:
        page = self.browser.page
        page.get_by_role("button", name="New readings").click()
        for place in PLACES:
            page.get_by_label(f"Gap at {place} o’clock").fill(value)
            typed.append(place)
        page.get_by_role("button", name="Save").click()
        expect(self._acknowledged(page, value)).to_be_visible(timeout=PATIENCE_MS)
        self.taken.add(value)

    def _acknowledged(self, page: Page, value: str) -> Any:
        stands = page.get_by_text(f"mean gap {value} mm").first
        return page.get_by_text("Entered, not sent yet.").or_(stands).first

    def _kill(self, what: str, after_s: float) -> None:
        time.sleep(after_s)
        match what:
            case "worker":
                kill(self.server.worker())
            case "server":
                kill(descendants(self.server.process.pid))
                self.server.process.wait()
                self.server.start()
            case "database":
                kill(self.cluster.pids())
                self.cluster.start()
            case "browser":
                kill(self.browser.pids())

    def _look(self, value: str, typed: list[str]) -> None:
        """What was typed stands on the sheet, or was entered and stands in the job; then everything that waits goes in."""
        page = self.browser.page
        page.goto(self.address)
        expect(page.get_by_role("heading", name="Set the gap")).to_be_visible()
        expect(page.get_by_text("Not sent yet:")).to_be_hidden()
        entered = [reading for reading in readings() if reading == float(value)]
        if not entered and typed:
            cells = [page.get_by_label(f"Gap at {place} o’clock").input_value() for place in typed]
            self.lost_typed += [f"{value} at {place}" for place, cell in zip(typed, cells, strict=True) if cell != value]
        if clear := page.get_by_role("button", name="Discard").all():
            clear[0].click()

    def told(self) -> bool:
        """Prints the count; false where anything was lost or doubled."""
        stand = Counter(readings())
        lost = [value for value in self.taken if float(value) not in stand]
        doubled = [value for value, count in stand.items() if count > 1]
        kills = ", ".join(f"{count} of the {what}" for what, count in self.killed.items())
        print(f"kill -9: {sum(self.killed.values())} ({kills})")
        print(f"  {len(self.taken)} entries acknowledged, {len(lost)} lost {lost or ''}")
        print(f"  {len(self.lost_typed)} typed values lost {self.lost_typed or ''}")
        print(f"  {len(doubled)} entries doubled {doubled or ''}")
        return not (lost or self.lost_typed or doubled)


readings: Callable[[], list[float]]


def main() -> int:
    """Sets it up, runs it, takes it down."""
    parser = argparse.ArgumentParser(prog="./anvil measure --faults", description=__doc__)
    parser.add_argument("--rounds", type=int, default=100)
    rounds = parser.parse_args().rounds
    with cluster_of_its_own() as (cluster, folder), server_on(cluster) as server, sync_playwright() as playwright:
        address = f"{server.at}/jobs/{prepare()}/steps/{STEP}"
        browser = Browser(playwright, folder, server, session_of("millwright") | {"url": server.at})
        browser.page.goto(address)
        run = Run(server, cluster, browser, address)
        for n in range(rounds):
            run.round(n)
            print(f"\r{n + 1} of {rounds}", end="", file=sys.stderr, flush=True)
        print(file=sys.stderr)
        with suppress(Error):
            browser.context.close()
        return 0 if run.told() else 1


def prepare() -> str:
    """The open job that is worked on. From here on `readings` tells what stands in it."""
    import logging

    from django.db import OperationalError, connection

    logging.getLogger("psycopg.pool").setLevel(logging.CRITICAL)  # that connections break is what this is about
    from server.jobs.models import Entry, Job

    job = Job.objects.which_are(closed=False).get(line__name="Steep aeration blower 2")
    before = list(job.entries.values_list("pk", flat=True))

    def read() -> list[float]:
        """The first figure of each reading of the step since."""
        for _ in range(100):
            with suppress(OperationalError):
                rows = Entry.objects.filter(job=job, step=STEP, kind="reading").exclude(pk__in=before)
                return [float(inputs["readings"][0]["value_mm"]) for inputs in rows.values_list("inputs", flat=True)]
            connection.close()
            time.sleep(0.2)
        raise RuntimeError("the database does not come back")

    global readings
    readings = read
    return str(job.pk)


if __name__ == "__main__":
    sys.exit(main())
