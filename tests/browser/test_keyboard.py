"""The whole blower job with nothing but the keyboard: the mouse is never touched."""

import re
from typing import Any
from urllib.parse import urlsplit

from playwright.sync_api import Page, TimeoutError, expect

from server.jobs.models import Job
from server.plant.models import Line
from tests.site import PASSWORD

from .base import FACE, IN_LINE, RIM, BrowserTestCase

FOCUSED = """() => {
  const a = document.activeElement
  const label = a.getAttribute('aria-label') || a.labels?.[0]?.textContent || a.textContent || ''
  const group = a.closest('[role=radiogroup]')
  return {
    tag: a.tagName.toLowerCase(), type: a.type || '', name: label.trim(), value: a.value || '',
    isMain: a.hasAttribute('data-enter-goes-here'), isCell: a.hasAttribute('data-cell'),
    onBench: a.closest('[data-bench]') !== null,
    isChecked: a.type === 'radio' ? group.querySelector('input:checked') !== null : a.checked === true,
  }
}"""
KEY = {
    "Key width": "14",
    "Key height": "9",
    "Key length": "60",
    "Shaft keyway, width": "14.01",
    "Shaft keyway, depth at the side": "5.4",
    "Hub keyway, width": "14.03",
    "Hub keyway, depth": "3.8",
}
FIT = {"shaft at shaft end, across 12-6": "48.011", "bore at shaft end, across 12-6": "48.029"}
LIKE = {"Series marked": "Brackwater Plover", "Size marked": "firkin"}
WORDS = {
    "receive.like": LIKE,
    "receive.element": {"Hardness marked": "92"},
    "prepare.distance": {"Distance between": "31"},
    "mount.hub": {"Stand-out of the shaft end": "0"},
    "couple.gap_again": {"Gap, at one place": "30.2"},
}


def ring(name: str, values: dict[str, str]) -> dict[str, str]:
    """Readings by the name of their cell."""
    return {f"{name} at {place}": text for place, text in values.items()}


READINGS: dict[str, dict[str, str]] = {
    "prepare.fit": FIT,
    "prepare.key": KEY,
    "set.soft": {"Rise, motor": "0.02"},
    "set.gap": ring("Gap", dict.fromkeys(RIM, "30.2")),
    "couple.gap": ring("Gap", dict.fromkeys(RIM, "30.2")),
    "set.straightedge": ring("Feeler", dict.fromkeys(RIM, "0")),
    "couple.align": {**ring("Rim", IN_LINE), **ring("Face", IN_LINE)},
}
FOUND = {**ring("Rim", RIM), **ring("Face", FACE)}


class KeyboardTest(BrowserTestCase):
    """Tab, Enter, Space and letters."""

    starts_on_the_floor = True

    def prepare(self) -> None:
        line = self.job.line
        self.own = Line.objects.create(site=line.site, name="Steep aeration blower 3", spec=line.spec, values=line.values)

    def test_the_whole_job_from_the_floor_to_the_record(self) -> None:
        keys = self.page.keyboard
        keys.press("/")
        keys.type("blower 3")
        self.tab_to("button", "Open Steep aeration blower 3")
        keys.press("Enter")
        expect(self.page.get_by_role("button", name="Start a job")).to_be_visible()
        self.tab_to("input", "What is to be done")
        keys.type("New coupling")
        self.tab_to("button", "Start a job")
        keys.press("Enter")
        expect(self.page.get_by_role("heading", name="Read the documents and dress for the job")).to_be_visible()
        self.tab_to("input", "The maker")
        while (key := self.step()) != "close.sign":
            self.goes_on = False
            if key == "set.align":
                self.find_it_over_move_and_read_again()
            else:
                self.do(key)
            if not self.goes_on:
                self.focus_on_next()
                keys.press("Enter")
            self.wait_for(f"() => !location.pathname.endsWith('{key}') && !/^(Next|Save)/.test(({FOCUSED})().name)")
        job = Job.objects.get(line=self.own)
        self.sign_as_lead(job, "close.sign")
        self.assertTrue(job.stand().closed)

    def step(self) -> str:
        """The step that is on the screen."""
        return urlsplit(self.page.url).path.rsplit("/", 1)[-1]

    def focused(self) -> dict[str, Any]:
        """What has the focus."""
        return dict(self.page.evaluate(FOCUSED))

    def tab_to(self, tag: str, name: str, page: Page | None = None) -> None:
        """Tab until something of this tag and name has the focus."""
        page = page or self.page
        for _ in range(150):
            found = page.evaluate(FOCUSED)
            if found["tag"] == tag and found["name"].startswith(name):
                return
            page.keyboard.press("Tab")
        self.fail(f"no {tag} called {name} is reached by Tab")

    def do(self, key: str) -> None:
        """One step: whatever the focus comes to is filled, until the main button has it."""
        family = ".".join(key.split(".")[:2])
        if key == "close.hand":
            self.page.keyboard.type(PASSWORD)
            return self.page.keyboard.press("Enter")
        if key in ("mount.screw", "couple.screw", "couple.feet"):
            self.pull_every_bolt()
        else:
            self.fill(READINGS.get(family, {}), WORDS.get(key, WORDS.get(family)), is_bench=family in READINGS)
        self.goes_on = self.focused()["name"] == "Save and go on"
        self.page.keyboard.press("Enter")
        if key == "safe.try":
            self.page.wait_for_function(f"() => ({FOCUSED})().name === 'Your password'")
            self.page.keyboard.type(PASSWORD)
            self.page.keyboard.press("Enter")
        elif key == "couple.align":
            expect(self.page.get_by_text("Lead’s signature needed.")).to_be_visible()
            self.sign_as_lead(Job.objects.get(line=self.own), key)
            expect(self.page.get_by_role("button", name=re.compile("^Next"))).to_be_visible()
            self.tab_to("button", "Next")
        return None

    def fill(self, readings: dict[str, str], words: dict[str, str] | None, *, is_bench: bool) -> None:
        """Tick, choose, type and go on, until the main button has the focus."""
        keys = self.page.keyboard
        answers = {**readings, **(words or {})}
        for presses in range(400):
            at = self.focused()
            if at["isMain"]:
                return
            if presses == 200:  # all the way round: the server judges first what was typed
                self.wait_for("() => document.querySelector('[data-enter-goes-here]')?.disabled === false")
            text = next((t for name, t in answers.items() if at["name"].startswith(name)), None)
            wanted = at["type"] == "checkbox" or (at["type"] == "radio" and not is_bench)  # a bench's choices are its own
            if wanted and not at["isChecked"]:
                keys.press("Space")
            elif at["isCell"] and (text is not None or not is_bench) and at["value"] != (text or "20"):
                keys.type(text or "20")
                keys.press("Enter")
                continue
            elif at["type"] == "text" and at["onBench"] and not at["isCell"] and not at["value"]:
                keys.type(text or "T-1")
            elif at["type"] == "date":
                keys.type("03312027")
            keys.press("Tab")
        self.fail(f"the main button of {self.step()} is not reached by Tab")

    def pull_every_bolt(self) -> None:
        """Each at its turn, by Enter on the big button; the last click leads to the main button."""
        self.tab_to("button", "Bolt 1: clicked at")
        for _ in range(80):
            if self.focused()["isMain"]:
                return
            self.page.keyboard.press("Enter")
        self.fail("the main button does not get the focus after the last pull")

    def find_it_over_move_and_read_again(self) -> None:
        """As found, a move, everything it made stale, as left."""
        page, keys = self.page, self.page.keyboard
        self.fill(FOUND, None, is_bench=True)
        keys.press("Enter")
        expect(page.get_by_text("Entered so far")).to_be_visible()
        expect(self.verdict()).to_have_text("Misaligned: move the motor.")
        self.tab_to("button", "Record the move")
        keys.press("Enter")
        self.tab_to("button", "Save the move")
        keys.press("Enter")
        expect(page.get_by_text("Since this was read, the machines were moved: read it again.")).to_be_visible()
        for title, key in (("Set the gap", "set.gap"), ("Align", "set.align")):
            self.tab_to("a", title)
            keys.press("Enter")
            expect(page.get_by_text("Since this was read, the machines were moved: read it again.")).to_be_visible()
            readings = READINGS.get(key, READINGS["couple.align"])
            self.tab_to("input", next(iter(readings)))
            self.fill(readings, None, is_bench=True)
            self.tab_to("button", "Save and go on")
            keys.press("Tab")  # the other one: save, and look at it
            keys.press("Enter")
            self.focus_on_next()

    def focus_on_next(self) -> None:
        """After an entry the focus waits on what comes next."""
        self.wait_for(f"() => /^(Next|See)/.test(({FOCUSED})().name)")

    def wait_for(self, holds: str) -> None:
        """Until it is so on the page; else it is told where the hand is."""
        try:
            self.page.wait_for_function(holds)
        except TimeoutError:
            self.fail(f"{self.step()}: the focus is on {self.focused()}")

    def sign_as_lead(self, job: Job, step: str) -> None:
        """The lead, on a device of their own, by keys as well."""
        page = self.open_page("lead")
        self.goto_step(step, page, job)
        expect(page.get_by_role("button", name="Sign as lead")).to_be_visible()
        self.tab_to("input", "Your password", page)
        page.keyboard.type(PASSWORD)
        page.keyboard.press("Enter")
        expect(page.get_by_text("Signed by Ansa Pellwright")).to_be_visible()

    def test_enter_goes_clockwise_minus_turns_the_sign_escape_brings_it_back(self) -> None:
        page, keys = self.page, self.page.keyboard
        self.goto_step("set.align")
        page.get_by_role("button", name="New readings").press("Enter")
        page.get_by_label("Rim at 12 o’clock").focus()
        for text in [*RIM.values(), *FACE.values()]:
            keys.type(text)
            keys.press("Enter")
        expect(page.locator("[data-enter-goes-here]")).to_be_focused()
        page.get_by_label("Face at 9 o’clock").focus()
        keys.press("Shift+Enter")
        expect(page.get_by_label("Face at 6 o’clock")).to_be_focused()
        keys.press("End")  # marked as a whole it would be typed over
        keys.press("-")
        expect(page.get_by_label("Face at 6 o’clock")).to_have_value("-0.05")
        keys.press("Escape")
        expect(page.get_by_label("Face at 6 o’clock")).to_have_value("0.05")
        page.get_by_label("Face at 6 o’clock").fill(".1")
        page.get_by_label("Face at 6 o’clock").select_text()
        keys.type("-2")
        expect(page.get_by_label("Face at 6 o’clock")).to_have_value("-2")
