"""A real browser on a real server: what a user does, by clicks and keys."""

import os
import re
from collections.abc import Callable
from functools import cache
from multiprocessing.util import Finalize
from shutil import which
from typing import Any, ClassVar, Literal

from django.contrib.staticfiles.testing import StaticLiveServerTestCase
from playwright.sync_api import Browser, Locator, Page, expect, sync_playwright

from server.jobs.models import Job
from tests.site import PASSWORD, build_two_sites, empty, session_of

HEADLESS = next((path for name in ("chromium-headless-shell", "chromium") if (path := which(name))), "")
# Playwright's loop runs in this thread; the ORM is only used here between its calls.
os.environ["DJANGO_ALLOW_ASYNC_UNSAFE"] = "true"

FLAGS = ["--no-sandbox", "--disable-gpu", "--disable-background-networking", "--disable-component-update", "--disable-sync"]
LOOK_EVERY_MS = 50
PATIENCE_MS = 60_000  # reached by nothing but a fault: a busy machine is no reason to fail
expect.set_options(timeout=PATIENCE_MS)

# What enters a reading, whether or not it can be told yet that it keeps its limit.
ENTER = re.compile(r"^(Save|Take it as it is)$")  # and stay on the sheet


@cache
def browser() -> Browser:
    """One browser a process, for every test that runs in it."""
    playwright = sync_playwright().start()
    started = playwright.chromium.launch(executable_path=HEADLESS, args=FLAGS)

    def stop() -> None:
        started.close()
        playwright.stop()

    Finalize(None, stop, exitpriority=100)  # a worker of the parallel run leaves without atexit
    return started


class BrowserTestCase(StaticLiveServerTestCase):
    """One signed-in page a test."""

    stand_alone = True  # the tests of a class share nothing but the server
    who = "millwright"
    opens_without_server = False  # else nothing stands between the page and what a test puts in its way
    starts_on_the_floor = False  # most go straight to an address of their own
    size: ClassVar[dict[str, int]] = {"width": 1280, "height": 800}

    def setUp(self) -> None:
        empty()  # what a page that was closed had asked for may have come in since
        self.job: Job = build_two_sites()
        self.faults: list[str] = []
        self.prepare()
        self.page = self.open_page(self.who)
        if self.starts_on_the_floor:
            self.page.goto(f"{self.live_server_url}/")
            expect(self.page.get_by_role("heading", name="Open jobs")).to_be_visible()

    def prepare(self) -> None:
        """What must be there before anybody signs in."""

    def tearDown(self) -> None:
        for context in browser().contexts:
            context.close()
        self.assertEqual(self.faults, [], "the page threw, or broke its own content policy")

    def _fixture_teardown(self) -> None:
        empty()

    def open_page(self, signed_in: str = "") -> Page:
        """A fresh page in a context of its own, signed in or not; what goes wrong in it fails the test."""
        workers: Literal["allow", "block"] = "allow" if self.opens_without_server else "block"
        context = browser().new_context(viewport=self.size, accept_downloads=True, service_workers=workers)  # type: ignore[arg-type]
        if signed_in:
            name, value = session_of(signed_in)
            context.add_cookies([{"name": name, "value": value, "url": self.live_server_url}])
        page = context.new_page()
        page.set_default_timeout(PATIENCE_MS)
        page.on("pageerror", lambda error: self.faults.append(str(error)))
        page.on("console", lambda m: self.faults.append(m.text) if "Content Security Policy" in m.text else None)
        return page

    def goto_step(self, step: str, page: Page | None = None, job: Job | None = None) -> None:
        """A step of the blower job, by its address; what a late type face moves has moved by then."""
        page = page or self.page
        page.goto(f"{self.live_server_url}/jobs/{(job or self.job).pk}/steps/{step}")
        expect(page.get_by_role("main")).to_be_visible()
        page.evaluate("document.fonts.ready.then(() => true)")

    def verdict(self, page: Page | None = None) -> Locator:
        """The verdict's sentence."""
        return (page or self.page).get_by_label("Verdict").get_by_role("heading", level=2)

    def open_set_up(self, page: Page | None = None) -> None:
        """What is typed once and folds away."""
        fold = (page or self.page).get_by_role("button", name=re.compile("^Set-up"))
        if fold.get_attribute("aria-expanded") == "false":
            fold.click()

    def fill_ring(self, name: str, values: dict[str, str], page: Page | None = None) -> None:
        """Readings typed into the cells of a ring."""
        for place, text in values.items():
            (page or self.page).get_by_label(f"{name} at {place}").fill(text)


RIM = {"12 o’clock": "0", "3 o’clock": "0.18", "6 o’clock": "0.60", "9 o’clock": "0.42"}
FACE = {"12 o’clock": "0", "3 o’clock": "0.02", "6 o’clock": "0.05", "9 o’clock": "0.03"}
IN_LINE = dict.fromkeys(RIM, "0.00")


def sign(page: Page, role: str) -> None:
    """The signature of whoever is signed in, with their password."""
    page.get_by_label("Your password").fill(PASSWORD)
    page.get_by_role("button", name=f"Sign as {role}").click()


def tap(control: Locator) -> None:
    """A tick or a choice, by the label a finger meets: once it stands still and nothing lies over it."""
    if not control.is_checked():
        control.locator("xpath=ancestor::label[1]").click()
    expect(control).to_be_checked()


def until(holds: Callable[[], bool], page: Page) -> None:
    """Waits for what no locator shows."""
    for _ in range(PATIENCE_MS // LOOK_EVERY_MS):
        if holds():
            return
        page.wait_for_timeout(LOOK_EVERY_MS)
    raise AssertionError("it never came")


def as_words(value: Any) -> str:
    """A figure as a hand types it."""
    return f"{value:g}" if isinstance(value, int | float) else str(value)
