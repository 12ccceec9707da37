"""Drives that hang, and drives that hold by magnets, as they are done: two people, a seal decided once, a gap made even."""

import re
from typing import Any, ClassVar

from playwright.sync_api import Page, expect

from millwright.rig.air_gap import Side, TrueDrive
from millwright.rig.machine import TrueShafts
from millwright.scope import Scope
from millwright.tests.work import Work
from server.jobs.models import Job
from tests.worked import worked

from .base import ENTER, BrowserTestCase, sign, tap
from .test_couple_up import QUARTERS, CoupleUpCase

FIRST, SECOND = "Say which way the output has to turn", "Second person: say which way the output has to turn"
FEET, PASSES = 4, 3


class TwoPeopleTest(CoupleUpCase):
    """Which way a backstop lets go, said by the millwright and by the lead."""

    family, at, scope = "shaft-mounted reducer", "backstop.way", Scope.BACKSTOP

    def say(self, page: Page, stands: str, turns: str, meshes: str) -> None:
        """What somebody sees, entered."""
        tap(page.get_by_role("radiogroup", name="Seen from the").get_by_role("radio", name=stands))
        output = page.get_by_role("radiogroup", name="Seen from there, the output has to turn")
        tap(output.get_by_role("radio", name=turns, exact=True))
        tap(page.get_by_role("radiogroup", name="Gear meshes").get_by_role("radio", name=meshes))
        tap(page.get_by_role("radiogroup", name="The backstop is on the").get_by_role("radio", name="input side"))
        expect(page.get_by_role("img", name=re.compile("^Gear train"))).to_be_visible()
        page.get_by_role("button", name=ENTER).click()

    def step(self, page: Page, key: str, title: str) -> None:
        """One of the two steps on a sheet."""
        self.goto_step(key, page, self.own)
        expect(page.get_by_role("heading", level=2, name=title, exact=True)).to_be_visible()

    def test_covered_until_the_second_is_in_then_they_disagree_then_they_agree(self) -> None:
        page, lead = self.page, self.open_page("lead")
        self.step(page, "backstop.way", FIRST)
        self.say(page, "input side", "clockwise", "2")
        expect(self.verdict()).to_have_text("Free way: clockwise.")
        self.step(page, "backstop.way_again", SECOND)
        expect(page.get_by_text("You answered the first. Another person signs in")).to_be_visible()
        self.step(lead, "backstop.way", FIRST)
        expect(self.verdict(lead)).to_have_text("Covered.")
        expect(lead.get_by_text("Jorun Thornquist has entered this.")).to_be_visible()
        expect(lead.get_by_role("radiogroup", name="Seen from the")).to_have_count(0)
        lead.get_by_role("button", name=SECOND).click()
        self.say(lead, "output side", "counter-clockwise", "3")
        expect(self.verdict(lead)).to_have_text("You do not agree.")
        expect(lead.get_by_text("Go to the unit together")).to_be_visible()

        self.step(page, "backstop.way", FIRST)
        expect(page.get_by_text("did not agree", exact=False).first).to_be_visible()
        self.say(page, "input side", "clockwise", "2")
        expect(self.verdict()).to_have_text("Free way: clockwise.")
        self.step(lead, "backstop.way_again", SECOND)
        self.say(lead, "output side", "counter-clockwise", "2")
        expect(self.verdict(lead)).to_have_text("Free way: clockwise.")
        self.step(lead, "backstop.way", FIRST)
        expect(lead.get_by_role("img", name=re.compile("backstop clockwise"))).to_be_visible()
        self.to_the_sealant()

    def to_the_sealant(self) -> None:
        """The arrow held against it; and the clock of the sealant in the strip."""
        page = self.page
        self.goto_step("backstop.arrow", page, self.own)
        self.heading("Hold the arrow of the inner race against it, and mark the housing")
        for group in page.locator("[data-bench] [role=radiogroup]").all():
            tap(group.get_by_role("radio", name="counter-clockwise"))
        page.get_by_role("button", name="Save", exact=True).click()
        expect(page.get_by_text("The arrow has to point clockwise.")).to_be_visible()
        for group in page.locator("[data-bench] [role=radiogroup]").all():
            tap(group.get_by_role("radio", name="clockwise", exact=True))
        page.get_by_role("button", name="Save", exact=True).click()
        self.go_on()
        self.sheet("Lay the bead of sealant, round every hole", Its_open_time="25")
        strip = page.get_by_role("contentinfo")
        expect(strip.get_by_role("timer", name="sealant, open time left")).to_contain_text(re.compile(r"24:\d\d"))
        expect(strip.get_by_text("load held by: blocks")).to_be_visible()
        expect(strip.get_by_text(re.compile("^gear unit held by:"))).to_be_visible()


class OpenUnitTest(CoupleUpCase):
    """A gear unit that stands open while its backstop goes in."""

    family, at, scope = "shaft-mounted reducer", "backstop.arrow", Scope.BACKSTOP

    def test_nobody_goes_on_a_break_before_its_cover_lies_on_the_opening(self) -> None:
        page = self.page
        self.goto_step("backstop.arrow", job=self.own)
        page.get_by_role("button", name="Break / hand-over").click()
        slip = page.get_by_role("dialog", name="Break / hand-over")
        slip.get_by_role("button", name="Record the break").click()
        expect(slip.get_by_text("lay its cover on before you leave it")).to_be_visible()
        tap(slip.get_by_role("checkbox", name="its cover lies on it"))
        slip.get_by_role("button", name="Record the break").click()
        expect(slip).to_be_hidden()
        expect(page.get_by_text("there was a break").first).to_be_visible()
        self.assertTrue(self.own.entries.get(kind="hand-over").inputs["covered"])


class PackingTest(BrowserTestCase):
    """A conveyor drive, sealed by packing."""

    def prepare(self) -> None:
        work = Work(family="screw-conveyor drive", held=("tapered wedge", "tapered wedge"), card={"packing_turn_deg": 60})
        self.own: Job = worked("Malt auger 4", work)

    def sheet_titles(self) -> str:
        """What the rail shows of the stage that is open."""
        return self.page.get_by_role("navigation").inner_text()

    def test_packing_is_decided_once_and_its_rings_are_counted_with_their_joints_apart(self) -> None:
        page = self.page
        self.goto_step("receive.seals", page, self.own)
        tap(page.get_by_role("radio", name="one lip seal and packing"))
        page.get_by_role("button", name=re.compile("^Save( unfinished)?$")).click()
        expect(page.get_by_role("button", name=re.compile("^Next"))).to_be_visible()
        self.goto_step("receive.kit", page, self.own)
        expect(page.get_by_label("Rings of braided packing, counted")).to_be_visible()
        expect(page.get_by_label("Lip seals, counted")).to_have_count(0)
        self.goto_step("prepare.rings", page, self.own)
        expect(page.get_by_role("heading", level=2, name="Press the packing in, ring by ring, joints apart")).to_be_visible()
        expect(page.get_by_role("img", name=re.compile("rings of packing"))).to_be_visible()
        self.assertNotIn("second lip seal", page.locator("body").inner_text())
        self.goto_step("prepare.second_seal", page, self.own)
        expect(page.get_by_role("heading", name="Drive the second lip seal into the trough end")).to_have_count(0)


class PackedTest(CoupleUpCase):
    """The nuts, and the sling that holds the unit until the trough has it."""

    family, at = "screw-conveyor drive", "couple.nuts"
    card: ClassVar[dict[str, float]] = {"packing_turn_deg": 60}

    def prepare(self) -> None:
        work = Work(family=self.family, held=("tapered wedge", "tapered wedge"), card=self.card)
        work.enter("receive.seals", {"by": "one lip seal and packing"})
        work.until(self.at)
        self.own = worked("Malt auger 4", work)

    def test_the_set_turn_is_judged_and_the_sling_stays_in_sight_until_it_is_off(self) -> None:
        page = self.page
        self.goto_step("couple.nuts", page, self.own)
        held = page.get_by_role("contentinfo").get_by_text("gear unit held by: a sling")
        expect(held).to_be_visible()
        turn = {"Each nut turned, after hand tight, by": "90", "Nuts turned alike": "4"}
        self.sheet("Packing nuts hand tight, then the set turn", **turn)
        expect(page.get_by_text("nuts turned by 90°, the card has 60°")).to_be_visible()
        page.get_by_label("Each nut turned").fill("60")
        page.get_by_role("button", name="Save", exact=True).click()
        self.go_on()
        self.sheet("Bolt the adapter to the trough end")
        self.go_on()
        expect(held).to_be_visible()
        self.sheet("Take the sling off", **{"Slings, shackles": "4"})
        expect(held).to_have_count(0)


class ArmTest(CoupleUpCase):
    """The torque arm of a reducer."""

    family, at = "shaft-mounted reducer", "couple.arm_angle"

    def test_an_arm_is_drawn_with_the_force_on_its_anchor_and_one_that_is_askew_stops_it(self) -> None:
        page = self.page
        self.goto_step("couple.arm_angle", page, self.own)
        for label, figure in (
            ("Arm, shaft to pin", "550"),
            ("Angle between arm and rod", "50"),
            ("or output torque", "1800"),
        ):
            page.get_by_label(label).fill(figure)
        expect(self.verdict()).to_have_text("Too far from square: turn the unit, or move the anchor.")
        page.get_by_label("Angle between arm and rod").fill("90")
        expect(self.verdict()).to_have_text("Near enough to square.")
        expect(page.get_by_role("img", name="Torque arm at 90° to its rod; the anchor takes 3273 N")).to_be_visible()
        page.get_by_role("button", name=ENTER).click()
        self.go_on()
        self.heading("Pin the arm, free at both ends")


class AirGapTest(CoupleUpCase):
    """The gap beside a magnet rotor, from uneven to even."""

    family, at = "magnetic drive", "set.align"
    true = TrueDrive(shafts=TrueShafts(slope_v_mm_per_m=-0.6, slope_h_mm_per_m=0.4), away_mm=0.3)

    def prepare(self) -> None:
        work = Work(family=self.family, held=("shrink disc", "shrink disc"))
        work.until(self.at)
        self.own = worked("Kiln fan B", work)

    def read(self, drive: TrueDrive) -> None:
        """Both sides, as a feeler finds them."""
        sides: tuple[tuple[Side, str], ...] = (("driver", "Driver side"), ("load", "Load side"))
        for side, name in sides:
            for place, clock in zip(QUARTERS, (0, 90, 180, 270), strict=True):
                gap = drive.gap_mm(side, clock, 200.0)
                self.page.get_by_label(f"{name} at {place}").fill(f"{gap:.2f}")
        self.page.get_by_label("Measured on diameter").fill("400")

    def test_uneven_then_moved_as_it_says_then_even_and_read_again_with_the_feet_torqued(self) -> None:
        page = self.page
        self.goto_step("set.align", page, self.own)
        self.heading("Even the air gap: move the motor")
        self.read(self.true)
        expect(self.verdict()).to_have_text("The gap is uneven: move the motor.")
        verdict = page.get_by_label("Verdict")
        expect(verdict.get_by_text("Along the shaft: 0.30")).to_be_visible()
        expect(page.get_by_role("img", name=re.compile("^Air gaps on both sides"))).to_be_visible()
        page.get_by_role("button", name=ENTER).click()
        page.get_by_role("button", name="Record the move").click()
        slip = page.get_by_role("dialog")
        said: dict[str, Any] = {"motor front, shim": "0.18", "motor rear, shim": "0.35", "Axial move": "-0.30"}
        for label, figure in said.items():
            expect(slip.get_by_label(label)).to_have_value(figure)
        slip.get_by_role("button", name="Save the move").click()
        expect(page.get_by_text("One move so far.")).to_be_visible()
        self.goto_step("set.soft", page, self.own)
        for rise in page.get_by_label(re.compile("^Rise, ")).all():
            rise.fill("0.02")
        page.get_by_role("button", name=ENTER).click()
        self.goto_step("set.align", page, self.own)
        self.read(TrueDrive(shafts=TrueShafts()))
        expect(self.verdict()).to_have_text("Even on both sides.")
        page.get_by_role("button", name=ENTER).click()
        self.go_on()
        self.feet()
        self.heading("Read the air gap again, feet torqued")
        self.read(TrueDrive(shafts=TrueShafts(), away_mm=0.02))
        expect(page.get_by_text("As they were")).to_have_count(0)
        page.get_by_role("button", name=ENTER).click()
        lead = self.open_page("lead")
        self.goto_step("couple.align", lead, self.own)
        sign(lead, "lead")
        expect(lead.get_by_text("Signed by Ansa Pellwright")).to_be_visible()

    def feet(self) -> None:
        """The foot bolts, in their passes."""
        self.heading("Torque the feet of the motor")
        for _ in range(FEET * PASSES):
            self.page.get_by_role("button", name=re.compile("clicked at")).click()
        expect(self.verdict()).to_have_text("Every bolt is pulled.")
        self.page.get_by_role("button", name=ENTER).click()
        self.go_on()
