"""Coupling up as it is done: a drop-out spacer and a gear coupling, to the closed record; and back once when it shakes."""

import re
from typing import Any, ClassVar

from playwright.sync_api import expect

from millwright.scope import Scope
from millwright.tests.work import Work
from server.jobs.models import Job
from tests.worked import worked

from .base import ENTER, BrowserTestCase, sign, tap

QUARTERS = ("12 o’clock", "3 o’clock", "6 o’clock", "9 o’clock")
BOLTS = 6


class CoupleUpCase(BrowserTestCase):
    """A job that stands before its coupling is closed."""

    family = ""
    at = ""
    scope: ClassVar[Scope] = Scope.FIT
    card: ClassVar[dict[str, float]] = {}
    said: ClassVar[dict[str, dict[str, Any]]] = {}  # by step, what was answered there otherwise than usual

    def prepare(self) -> None:
        work = Work(family=self.family, scope=self.scope, card=self.card)
        for step, answers in self.said.items():
            work.until(step)
            work.enter(step, {**work.fill(step), **answers})
        work.until(self.at)
        self.own: Job = worked("Mash pump", work)

    def heading(self, title: str) -> None:
        """The step on the sheet."""
        expect(self.page.get_by_role("heading", level=2, name=title, exact=True)).to_be_visible()

    def sheet(self, title: str, **counts: str) -> None:
        """A stop, filled top to bottom and entered."""
        page = self.page
        self.heading(title)
        for label, figure in counts.items():
            page.get_by_label(label.replace("_", " ")).fill(figure)
        for box in page.get_by_role("checkbox").all():
            tap(box)
        for mark in page.locator("fieldset input").all():
            mark.fill("7")
        for group in page.locator("[data-bench] [role=radiogroup]").all():
            tap(group.get_by_role("radio").first)
        for words in page.locator("[data-bench] input[type=text]:not([data-cell])").all():
            if not words.input_value():
                words.fill("T-1")
        page.get_by_role("button", name="Save", exact=True).click()

    def go_on(self) -> None:
        """To what is next."""
        self.page.get_by_role("button", name=re.compile("^(Next|See)")).click()

    def pull(self, title: str, passes: int) -> None:
        """A circle, bolt by bolt."""
        self.heading(title)
        for _ in range(BOLTS * passes):
            self.page.get_by_role("button", name=re.compile("clicked at")).click()
        expect(self.verdict()).to_have_text("Every bolt is pulled.")
        self.page.get_by_role("button", name=ENTER).click()

    def ring(self, name: str, mm: str) -> None:
        """A distance read all round."""
        for place in QUARTERS:
            self.page.get_by_label(f"{name} {place}".strip()).fill(mm)

    def close_out(self, **guard: str) -> None:
        """From the second pull to the start."""
        self.sheet("Check every torque a second time")
        self.go_on()
        self.sheet("Look over the finished coupling")
        self.go_on()
        self.sheet("Count tools and temporary parts out", Every_tool_is_back="4")
        self.go_on()
        self.sheet("Fit the guard", **guard)
        self.go_on()
        self.sheet("Locks off, each by its owner")
        self.go_on()

    def start(self, runs: str) -> None:
        """Started and watched."""
        self.heading("Start it, watch and listen")
        self.page.get_by_label("Speed, rpm").fill("1480")
        self.page.get_by_label("Watched for, min").fill("20")
        for box in self.page.get_by_role("checkbox").all():
            tap(box)
        for seen in self.page.get_by_role("radio", name="OK", exact=True).all():
            tap(seen)
        tap(self.page.get_by_role("radio", name=runs))
        self.page.get_by_role("button", name=re.compile("^Save( unfinished)?$")).click()

    def say_why(self) -> None:
        """What the job came from: it is not signed before."""
        self.sheet("Say what was found, and why")
        self.go_on()

    def sign_and_read(self) -> str:
        """What it came from, both signatures, and the record as it was issued."""
        page = self.page
        self.say_why()
        self.heading("Sign: the work was done as recorded")
        sign(page, "millwright")
        expect(page.get_by_text("Signed by Jorun Thornquist")).to_be_visible()
        lead = self.open_page("lead")
        self.goto_step("close.sign", lead, self.own)
        expect(lead.get_by_text("Closed coupling measured proven")).to_be_visible()
        sign(lead, "lead")
        expect(lead.get_by_text("Signed by Ansa Pellwright")).to_be_visible()
        page.goto(f"{self.live_server_url}/jobs/{self.own.pk}/record")
        expect(page.get_by_text("Signed and closed.")).to_be_visible()
        expect(page.get_by_text("kept as it is. Digest (SHA-256)")).to_be_visible()
        return page.get_by_role("main").inner_text()


class DropOutTest(CoupleUpCase):
    """A spacer unit, squeezed, lifted in, let spring home."""

    family, at = "disc, drop-out spacer", "couple.screws_in"
    said: ClassVar = {"receive.unit": {"screws": 8}}

    def test_to_the_closed_record_with_a_shaking_start_that_leads_back_through_the_locks(self) -> None:
        page = self.page
        self.goto_step("couple.screws_in", job=self.own)
        self.sheet("Put the squeeze screws in", In_at_the_driver_end="4", In_at_the_driven_end="4")
        expect(page.get_by_role("button", name="Ledger 2 out")).to_be_visible()
        self.go_on()
        self.sheet("Squeeze the unit just enough")
        self.go_on()
        self.sheet("Lift the unit in", Slings_on_it="1")
        self.go_on()
        self.order_is_kept()
        self.sheet("Let it spring into the pilots")
        self.go_on()
        self.sheet("Put every hub bolt in, light", In_at_the_driver_end="6", In_at_the_driven_end="6")
        self.go_on()
        for end in ("driver end", "driven end"):
            self.pull(f"Torque the hub bolts, {end}", passes=4)
            self.go_on()
        self.screws_out()
        self.go_on()
        self.closed()
        self.close_out()
        self.start("vibration, noise or heat: find out why")
        self.lock_out_again()
        self.close_out()
        self.start("runs smoothly")
        self.go_on()
        said = self.sign_and_read()
        self.assertIn("squeeze screws, driver end: 4 out, 4 back", said)
        self.assertIn("squeeze screws, driven end: 4 out, 4 back", said)
        self.assertIn("It ran rough because of", said)

    def order_is_kept(self) -> None:
        """Below a tick that is not set nothing can be ticked."""
        self.heading("Let it spring into the pilots")
        boxes = self.page.get_by_role("checkbox")
        expect(boxes.nth(0)).to_be_enabled()
        expect(boxes.nth(1)).to_be_disabled()
        tap(boxes.nth(0))
        expect(boxes.nth(1)).to_be_enabled()
        expect(boxes.nth(2)).to_be_disabled()

    def screws_out(self) -> None:
        """One too few is not taken for all of them."""
        self.sheet("Take the squeeze screws out", Out_at_the_driver_end="4", Out_at_the_driven_end="3", Slings_off_it="1")
        expect(self.verdict()).to_have_text("Not in order.")
        expect(self.page.get_by_label("Verdict").get_by_text("Out at the driven end: 3 of 4").first).to_be_visible()
        self.page.get_by_label("Out at the driven end").fill("4")
        self.page.get_by_role("button", name="Save", exact=True).click()
        expect(self.page.get_by_role("button", name="Ledger", exact=True)).to_be_visible()

    def closed(self) -> None:
        """Adapter to flange at both ends; the packs looked at."""
        self.heading("Measure adapter to spacer flange on both sides")
        for end in ("motor end", "blower end"):
            self.ring(f"{end} at", "8.00")
        self.page.get_by_role("button", name=ENTER).click()
        self.go_on()
        self.sheet("Look at both packs")
        self.go_on()

    def lock_out_again(self) -> None:
        """Nothing else is next, nothing else is taken; then everything after the work comes again."""
        page = self.page
        expect(page.get_by_text("Locks are off", exact=True)).to_be_visible()
        self.goto_step("set.align", job=self.own)
        expect(page.get_by_text("Locks are off. Lock it out again first.").first).to_be_visible()
        page.goto(f"{self.live_server_url}/jobs/{self.own.pk}")
        self.sheet("Lock it out again and prove it dead")
        sign(page, "millwright")
        self.go_on()


class GearTest(CoupleUpCase):
    """Sleeves over hubs."""

    family, at = "gear", "couple.keyways"

    def test_to_the_closed_record_over_a_hand_over(self) -> None:
        page = self.page
        self.goto_step("couple.keyways", job=self.own)
        page.get_by_role("button", name="Break / hand-over").click()
        slip = page.get_by_role("dialog", name="Break / hand-over")
        tap(slip.get_by_role("radio", name="a hand-over"))
        slip.get_by_role("button", name="Hand over").click()
        expect(slip.get_by_text("Who comes?")).to_be_visible()
        slip.get_by_label("Comes").fill("W. Okonde")
        slip.get_by_role("button", name="Hand over").click()
        expect(page.get_by_text("Prove it dead again first: Jorun Thornquist went, W. Okonde came.")).to_be_visible()
        page.goto(f"{self.live_server_url}/jobs/{self.own.pk}")
        self.sheet("Try to start once more, before hands go in")
        self.go_on()
        self.keyways()
        self.go_on()
        self.sheet("Draw the sleeves over the hubs and close them", Bolts_in_by_hand="6")
        self.go_on()
        self.pull("Torque the flange bolts", passes=3)
        self.go_on()
        self.heading("Fill it with grease")
        page.get_by_label("Grease", exact=True).fill("Maltster blue")
        fill = page.get_by_role("button", name=re.compile(r"^Hole \d+: "))
        expect(fill).to_be_enabled()
        while fill.count():
            said = fill.inner_text()
            fill.click()
            expect(page.get_by_role("button", name=said, exact=True)).to_have_count(0)
        page.get_by_role("button", name=ENTER).click()
        self.go_on()
        self.heading("Measure hub to sleeve all round")
        for end in ("motor end", "blower end"):
            self.ring(f"{end} at", "4.10")
        page.get_by_role("button", name=ENTER).click()
        self.go_on()
        self.close_out()
        self.start("runs smoothly")
        self.go_on()
        said = self.sign_and_read()
        self.assertIn("hand-over", said)
        self.assertIn("none here: both hubs shrunk on, no keyway", said)

    def keyways(self) -> None:
        """There are none, and it is said why."""
        page = self.page
        self.heading("Seal the keyways")
        page.get_by_label("Sealant").fill("none used")
        page.get_by_role("button", name="None here: The keyway of every flexible half filled to the hub face").click()
        page.get_by_label("The keyway of every flexible half filled to the hub face: why none").fill(
            "both hubs shrunk on, no keyway"
        )
        page.get_by_role("button", name="Save", exact=True).click()
