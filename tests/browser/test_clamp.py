"""A hub held by screws: tapped true, tightened until nothing moves; and a coupling taken off as found."""

import re
from typing import Any

from playwright.sync_api import Locator, Route, expect

from server.jobs.models import Job
from tests.site import as_if_started_with, job_of

from .base import ENTER, BrowserTestCase, tap

TRUE = {"12 o’clock": "0", "3 o’clock": "0.01", "6 o’clock": "0.02", "9 o’clock": "0.01"}
SCREWS = 8
SAMPLE = {"kind": "sample", "document": "Brackwater couplings, sample sheet", "issue": "2", "page": "9"}


class ClampTest(BrowserTestCase):
    """Chilled-water pump 1, its hub half tight and not running true."""

    who = "lead"

    def setUp(self) -> None:
        super().setUp()
        self.pump = job_of("Chilled-water pump 1")

    def stands(self, screw: int, page_key: str) -> None:
        """The next screw is that one; a key says what it did."""
        expect(self.page.get_by_role("button", name=f"Screw {screw} stood still")).to_be_visible()
        self.page.keyboard.press(page_key)

    def test_tapped_true_then_round_and_round_until_a_whole_round_moves_nothing(self) -> None:
        page = self.page
        self.goto_step("mount.true.driven", job=self.pump)
        expect(self.verdict()).to_have_text("Runs out: high spot at 117°, near 4 o’clock.")
        expect(page.get_by_text("Turn it 117° back, against the clock")).to_be_visible()
        page.get_by_role("button", name="New readings").click()
        self.fill_ring("Rim", TRUE)
        expect(self.verdict()).to_have_text("Not complete yet.")
        self.fill_ring("Face of it", TRUE)
        expect(page.get_by_text("Runs true: no blow")).to_be_visible()
        page.get_by_role("button", name=ENTER).click()
        page.get_by_role("button", name=re.compile("^Next: Tighten the clamp ring")).click()
        expect(page.get_by_role("button", name="Bolt 1: clicked at 17.5")).to_be_visible()
        for _ in range(SCREWS):
            page.keyboard.press(" ")
        for screw in range(1, SCREWS + 1):
            expect(page.get_by_role("button", name=f"Screw {screw} stood still")).to_be_focused()
            self.stands(screw, "m" if screw == 3 else " ")
        expect(self.verdict()).to_have_text("Round 3: screw 1.")
        page.reload()
        for screw in range(1, SCREWS + 1):
            self.stands(screw, " ")
        expect(self.verdict()).to_have_text("Tight: a full round moved nothing.")
        page.get_by_role("button", name=ENTER).click()
        expect(page.get_by_role("button", name=re.compile("^Next: Look at the seat"))).to_be_visible()
        entry = self.pump.entries.get(step="mount.clamp.driven")
        self.assertEqual((entry.result["verdict"], len(entry.inputs["pulls"])), ("inside", 3 * SCREWS))
        self.assertEqual([p["bolt"] for p in entry.inputs["pulls"] if p.get("moved") and p["pass"] > 1], [3])

    def test_a_figure_of_one_hub_and_a_limit_by_speed_are_put_on_the_card(self) -> None:
        page = self.page
        self.goto_step("mount.clamp.driven", job=self.pump)
        page.get_by_role("button", name="Value card").click()
        page.get_by_role("button", name="Change Hub run-out, TIR").click()
        page.get_by_role("button", name="Another figure up to a speed").click()
        page.get_by_label("Up to").last.fill("3000")
        page.get_by_label("Document").fill("Pump drawing 12")
        page.get_by_role("button", name="Save value").click()
        expect(page.get_by_text("Enter the reason for the change. The record shows it.")).to_be_visible()
        page.get_by_label("Changed because").fill("limit by speed")
        page.get_by_role("button", name="Save value").click()
        expect(page.get_by_text("Enter an rpm and a figure for each speed.")).to_be_visible()
        page.get_by_role("textbox", name=re.compile("^figure")).last.fill("0.07")
        page.get_by_role("button", name="Save value").click()
        expect(page.get_by_text("up to 3000 rpm 0.07")).to_be_visible()
        page.get_by_role("button", name="Change Max. clearance", exact=True).click()
        page.get_by_text("driver", exact=True).click()
        page.get_by_role("textbox", name="Max. clearance").fill("0.04")
        page.get_by_label("Document").fill("Pump drawing 12")
        page.get_by_label("Changed because").fill("bored closer")
        held: list[Route] = []
        page.route("**/entries", lambda route: held.append(route), times=1)
        with page.expect_request("**/entries"):
            page.get_by_role("button", name="Save value").click()
        page.get_by_role("button", name="Change Angle limit of the coupling", exact=True).click()
        held[0].continue_()
        expect(page.get_by_text("Max. clearance, driver hub")).to_be_visible()
        page.get_by_role("button", name="Another figure for a material of the element").click()
        page.get_by_label("For this material of the element").fill("92 shore A")
        page.get_by_label("Document").fill("Pump drawing 12")
        page.get_by_label("Changed because").fill("limit by material")
        page.get_by_role("button", name="Save value").click()
        expect(page.get_by_text("Enter the material of the element and its figure.")).to_be_visible()
        page.get_by_role("textbox", name=re.compile("^figure")).last.fill("0.4")
        page.get_by_role("button", name="Save value").click()
        expect(page.get_by_text("92 shore A 0.4")).to_be_visible()
        page.get_by_role("button", name="Change Soft foot limit", exact=True).click()
        tap(page.get_by_role("radio", name="there is none"))
        page.get_by_label("Document").fill("Pump manual")
        page.get_by_label("Changed because").fill("looked again")
        page.get_by_role("button", name="Save value").click()
        page.get_by_label("It is not needed, because").fill("feet are machined in one plane")
        page.get_by_role("button", name="Save value").click()
        expect(page.get_by_text("none given: feet are machined in one plane")).to_be_visible()
        page.keyboard.press("Escape")
        self.goto_step("mount.true.driven", job=self.pump)
        expect(page.get_by_text("on the card was changed from 0.03 mm to 0.07 mm").first).to_be_visible()


class InchCardTest(BrowserTestCase):
    """The value card on an inch sheet: what is put back untouched is what stood there."""

    who = "lead"

    def prepare(self) -> None:
        up_to = [{"rpm": 3000.0, "value": 0.1016}]
        runout = {"value": 0.0762, "means": "", "typed": "", "up_to": up_to, "source": SAMPLE}
        tolerance = {"value": 1.0, "means": "mm", "typed": "", "up_to": [], "source": SAMPLE}
        card = {**self.job.card, "hub_runout_mm": runout, "gap_plus_minus_mm": tolerance}
        as_if_started_with(self.job, card=card)

    def put(self, line: Locator) -> None:
        """A line that stands is put back with its paper and a reason."""
        line.get_by_label("Document").fill("Coupling sheet 3")
        line.get_by_label("Changed because").fill("looked up again")
        line.get_by_role("button", name="Save value").click()
        expect(line.get_by_role("button", name="Save value")).to_be_hidden()

    def value(self, key: str) -> dict[str, Any]:
        """What was last put on the card there."""
        entry = self.job.entries.filter(kind="value", inputs__key=key).latest("number")
        return dict(entry.inputs["value"])

    def test_a_figure_by_speed_is_shown_in_inches_and_put_back_as_it_is_however_often(self) -> None:
        page = self.page
        self.goto_step("set.gap")
        tap(page.get_by_role("radio", name="inch"))
        page.get_by_role("button", name="Value card").click()
        slip = page.get_by_role("dialog", name="Value card")
        line = slip.get_by_role("listitem").filter(has_text="Hub run-out")
        for _ in range(3):
            expect(line.get_by_text("0.003 in above that")).to_be_visible()
            line.get_by_role("button", name="Change Hub run-out, TIR").click()
            expect(line.get_by_role("textbox", name="Hub run-out")).to_have_value("0.003")
            expect(line.get_by_role("textbox", name=re.compile("^figure"))).to_have_value("0.004")
            self.put(line)
        line.get_by_role("button", name="Change Hub run-out, TIR").click()
        for typed, told in (("a bit", "Enter a figure in inches."), ("99", "is between 0.00008 in and 0.19685 in. A slip?")):
            line.get_by_role("textbox", name="Hub run-out").fill(typed)
            line.get_by_label("Document").fill("Coupling sheet 3")
            line.get_by_label("Changed because").fill("a slip")
            line.get_by_role("button", name="Save value").click()
            expect(line.get_by_text(told)).to_be_visible()
        line.get_by_role("button", name="Change Hub run-out, TIR").click()
        stands = self.value("hub_runout_mm")
        self.assertEqual((stands["value"], stands["up_to"]), (0.0762, [{"rpm": 3000.0, "value": 0.1016}]))
        line.get_by_role("button", name="Change Hub run-out, TIR").click()
        line.get_by_role("textbox", name=re.compile("^figure")).fill(".002")
        self.put(line)
        expect(line.get_by_text("up to 3000 rpm 0.002")).to_be_visible()
        expect(line.get_by_text("Was 0.003 in; up to 3000 rpm 0.004 in, changed by Ansa Pellwright")).to_be_visible()
        self.assertEqual(self.value("hub_runout_mm")["up_to"], [{"rpm": 3000.0, "value": 0.0508}])
        page.keyboard.press("Escape")
        expect(slip).to_be_hidden()

    def test_a_tolerance_of_one_percent_is_one_percent(self) -> None:
        page = self.page
        self.goto_step("set.gap")
        tap(page.get_by_role("radio", name="inch"))
        page.get_by_role("button", name="Value card").click()
        line = page.get_by_role("dialog", name="Value card").get_by_role("listitem").filter(has_text="Gap, plus or minus")
        line.get_by_role("button", name=re.compile("^Change Gap, plus or minus")).click()
        line.get_by_text("percent of the gap", exact=True).click()
        line.get_by_label("Document").fill("Coupling sheet 3")
        line.get_by_role("button", name="Save value").click()
        expect(line.get_by_text("Enter a figure in percent of the gap.")).to_be_visible()
        line.get_by_role("textbox", name="Gap, plus or minus").fill("1")
        self.put(line)
        expect(line.get_by_text("1 percent of the gap")).to_be_visible()
        stands = self.value("gap_plus_minus_mm")
        self.assertEqual((stands["value"], stands["means"], stands["typed"]), (1.0, "percent of the gap", ""))


class CardTest(BrowserTestCase):
    """Who fills the card and who changes it."""

    def test_what_stands_on_the_card_is_the_leads_to_change(self) -> None:
        page = self.page
        self.goto_step("set.gap")
        page.get_by_role("button", name="Value card").click()
        slip = page.get_by_role("dialog", name="Value card")
        expect(slip.get_by_text("Gap between hub faces")).to_be_visible()
        expect(slip.get_by_role("button", name=re.compile("^Change"))).to_have_count(0)
        entered = slip.get_by_role("button", name=re.compile("^Enter")).filter(visible=True)
        expect(entered).to_have_count(1)  # which way the motor of a blower turns
        slip.get_by_role("button", name="More values").click()
        expect(entered.nth(1)).to_be_visible()


class TakeOffTest(BrowserTestCase):
    """A job that takes a coupling off."""

    starts_on_the_floor = True

    def test_a_coupling_is_taken_off_as_found_first(self) -> None:
        page = self.page
        page.get_by_role("link", name="Roller mill").click()
        page.get_by_label("What is to be done").fill("Grid looked at")
        page.get_by_text("take it off", exact=True).click()
        page.get_by_role("button", name="Start a job", exact=True).click()
        expect(page.get_by_role("heading", name="Read the documents and dress for the job")).to_be_visible()
        job = Job.objects.get(line__name="Roller mill", closed_at=None)
        self.goto_step("off.hub.driver", job=job)
        expect(page.get_by_text("First: Note where everything is before it moves")).to_be_visible()
        page.get_by_role("button", name="Take off").first.click()
        expect(page.get_by_text("no way back after this").first).to_be_visible()
        expect(page.get_by_text("optional")).to_be_visible()
