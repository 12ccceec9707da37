"""A real browser on a real server: what a user does, by clicks and keys."""

import os
from typing import Any, ClassVar

from django.contrib.staticfiles.testing import StaticLiveServerTestCase
from playwright.sync_api import Browser, Locator, Page, Playwright, expect, sync_playwright

from server.jobs.models import Job
from tests.site import PASSWORD, build_two_sites

# Playwright's loop runs in this thread; the ORM is only used here between its calls.
os.environ["DJANGO_ALLOW_ASYNC_UNSAFE"] = "true"

FLAGS = ["--no-sandbox", "--disable-gpu", "--disable-background-networking", "--disable-component-update", "--disable-sync"]
PATIENCE_MS = 20_000
expect.set_options(timeout=PATIENCE_MS)


class BrowserTestCase(StaticLiveServerTestCase):
    """One browser a class, one signed-in page a test."""

    playwright: ClassVar[Playwright]
    browser: ClassVar[Browser]
    who = "millwright"
    size: ClassVar[dict[str, int]] = {"width": 1280, "height": 800}

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.playwright = sync_playwright().start()
        cls.browser = cls.playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)

    @classmethod
    def tearDownClass(cls) -> None:
        cls.browser.close()
        cls.playwright.stop()
        super().tearDownClass()

    def setUp(self) -> None:
        self.job: Job = build_two_sites()
        self.faults: list[str] = []
        self.prepare()
        self.page = self.sign_in(self.who)

    def prepare(self) -> None:
        """What must be there before anybody signs in."""

    def tearDown(self) -> None:
        for context in self.browser.contexts:
            context.close()
        self.assertEqual(self.faults, [], "the page threw, or broke its own content policy")

    def open_page(self) -> Page:
        """A fresh page in a context of its own; what goes wrong in it fails the test."""
        page = self.browser.new_context(viewport=self.size, accept_downloads=True).new_page()
        page.set_default_timeout(PATIENCE_MS)
        page.on("pageerror", lambda error: self.faults.append(str(error)))
        page.on("console", lambda m: self.faults.append(m.text) if "Content Security Policy" in m.text else None)
        return page

    def sign_in(self, username: str) -> Page:
        """A page on the floor."""
        page = self.open_page()
        page.goto(self.live_server_url)
        page.get_by_label("Name").fill(username)
        page.get_by_label("Password").fill(PASSWORD)
        page.get_by_role("button", name="Sign in").click()
        expect(page.get_by_role("heading", name="Open jobs")).to_be_visible()
        return page

    def goto_step(self, step: str, page: Page | None = None, job: Job | None = None) -> None:
        """A step of the blower job, by its address."""
        (page or self.page).goto(f"{self.live_server_url}/jobs/{(job or self.job).pk}/steps/{step}")

    def verdict(self, page: Page | None = None) -> Locator:
        """The verdict's sentence."""
        return (page or self.page).get_by_label("Verdict").get_by_role("heading", level=2)

    def fill_ring(self, name: str, values: dict[str, str], page: Page | None = None) -> None:
        """Readings typed into the cells of a ring."""
        for place, text in values.items():
            (page or self.page).get_by_label(f"{name} at {place}").fill(text)


RIM = {"12 o’clock": "0", "3 o’clock": "0.18", "6 o’clock": "0.60", "9 o’clock": "0.42"}
FACE = {"12 o’clock": "0", "3 o’clock": "0.02", "6 o’clock": "0.05", "9 o’clock": "0.03"}
IN_LINE = dict.fromkeys(RIM, "0.00")


def as_words(value: Any) -> str:
    """A figure as a hand types it."""
    return f"{value:g}" if isinstance(value, int | float) else str(value)
