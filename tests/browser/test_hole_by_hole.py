"""Work that goes hole by hole: close-fit bolts drawn in, grease filled in, two circles pulled by turns."""

import re
from typing import ClassVar

from playwright.sync_api import Locator, Route, expect

from .base import ENTER, sign, tap
from .test_couple_up import BOLTS, CoupleUpCase

NEXT = re.compile(r"^Hole \d+: ")


class HoleByHoleCase(CoupleUpCase):
    """A step with a map of holes."""

    def main_button(self) -> Locator:
        """What comes next, at the map."""
        return self.page.get_by_role("button", name=NEXT)

    def follow(self, most: int) -> int:
        """What the bench says comes next, press by press, until nothing does."""
        for pressed in range(most):
            if self.main_button().count() == 0:
                return pressed
            said = self.main_button().inner_text()
            self.main_button().click()
            expect(self.page.get_by_role("button", name=said, exact=True)).to_have_count(0)
        raise AssertionError("it does not come to an end")


class FittedTest(HoleByHoleCase):
    """A three-part disc coupling: every close-fit bolt through its states."""

    family, at = "disc, three-part", "couple.draw_driver_end"

    def test_by_the_map_with_a_bolt_that_goes_hard_and_a_reload_to_the_counted_rings(self) -> None:
        page = self.page
        self.goto_step("couple.draw_driver_end", job=self.own)
        self.heading("Draw the close-fit bolts in, driver end")
        held: list[Route] = []
        expect(self.main_button()).to_be_enabled()
        page.route("**/api/benches/**", lambda route: held.append(route))
        self.main_button().click()
        page.get_by_role("button", name="Hole 3, empty, then in").click()  # before the first was answered
        for route in held:
            route.continue_()
        page.unroute("**/api/benches/**")
        expect(page.get_by_role("button", name="Hole 3, in, then drawn bare")).to_be_visible()
        page.get_by_role("button", name="Hole 3 goes hard: backed out").click()
        expect(page.get_by_label("Verdict").get_by_text("Hole 3: backed out. Shift the pack")).to_be_visible()
        page.reload()
        expect(page.get_by_role("button", name="Hole 1, in, then drawn bare")).to_be_visible()
        expect(page.get_by_role("button", name=ENTER)).to_be_visible()
        self.assertEqual(self.follow(60), 5 * BOLTS - 1)
        expect(self.verdict()).to_have_text("Every head is seated.")
        expect(page.get_by_text("Heads seated 6 of 6, rings on 6.")).to_be_visible()
        page.get_by_role("button", name=ENTER).click()
        self.go_on()
        self.sheet("Count the catch rings that are on, driver end", Catch_rings_on="5")
        expect(self.verdict()).to_have_text("Not in order.")
        page.get_by_label("Catch rings on").fill("6")
        page.get_by_role("button", name="Save", exact=True).click()
        self.go_on()
        self.heading("Lay out the close-fit bolts, driven end")
        self.goto_step("couple.draw_driver_end", job=self.own)
        page.get_by_label("Entered so far").get_by_role("button").first.click()
        expect(page.get_by_text("hole 3 in, backed out, in, drawn bare, nut off, ring on, head seated")).to_be_visible()


class GreaseTest(HoleByHoleCase):
    """A grid coupling, closed: turned so that a hole is low, filled until it shows."""

    family, at = "steel grid", "couple.grease"

    def test_turned_until_a_hole_is_low_filled_through_it_and_closed(self) -> None:
        page = self.page
        self.goto_step("couple.grease", job=self.own)
        self.heading("Fill it up and close it")
        expect(page.get_by_label("Verdict").get_by_text("No hole is low. Turn the coupling until one is")).to_be_visible()
        for _ in range(6):
            page.get_by_role("button", name="Turn the coupling clockwise").click()
        expect(page.get_by_role("button", name="Hole 1 at 6 o’clock: plug in")).to_be_visible()
        expect(page.get_by_text("No hole is low.")).to_have_count(0)
        page.get_by_role("button", name="Hole 2 at 12 o’clock: plug in").click()
        page.get_by_role("button", name="plug out", exact=True).click()
        expect(page.get_by_role("button", name="Hole 2 at 12 o’clock: plug out")).to_be_visible()
        self.assertEqual(self.follow(20), 5)
        page.get_by_label("Grease", exact=True).fill("Maltster blue")
        page.get_by_label("Batch").fill("7")
        expect(self.verdict()).to_have_text("Filled.")
        expect(page.get_by_text("2 plugs out, 2 in.")).to_be_visible()
        page.get_by_role("button", name=ENTER).click()
        self.go_on()
        self.heading("Check every torque a second time")


class ByTurnsTest(HoleByHoleCase):
    """A tyre: both rings by half turns, then nothing metal."""

    family, at = "tyre", "couple.ring_driver"
    card: ClassVar[dict[str, float]] = {"ring_clear_mm": 0.1}

    def test_both_rings_by_turns_until_a_round_turns_nothing_and_then_no_metal(self) -> None:
        page = self.page
        self.goto_step("couple.ring_driver", job=self.own)
        self.heading("Torque the ring screws, driver end, and the ring screws, driven end, by turns")
        order = [f"{ring}{n}" for n in (1, 4, 2, 5, 3, 6) for ring in "AB"]
        for name in order:
            page.get_by_role("button", name=f"Screw {name}: half a turn").click()
        page.get_by_role("button", name="Bolt B1").click()  # not its turn
        expect(page.get_by_text("Bolt A1 is next: half turns go in their order.")).to_be_visible()
        for name in order:
            expect(page.get_by_role("button", name=f"Screw {name}: half a turn")).to_be_visible()
            page.keyboard.press("k")
        page.get_by_role("button", name="Screw A1 stood still").focus()
        for name in order:
            expect(page.get_by_role("button", name=f"Screw {name} stood still")).to_be_focused()
            page.keyboard.press("Enter")
        expect(self.verdict()).to_have_text("Tight: a full round moved nothing.")
        expect(page.get_by_role("button", name="Save and go on")).to_be_focused()
        page.get_by_role("button", name=ENTER).click()
        self.go_on()
        self.heading("Look that nothing metal touches")
        said = page.get_by_text("Clamp ring to flange, at least: 0.1 mm (sample: Trial sheet)")
        expect(said).to_be_visible()
        for label in page.locator("[data-cell]").all():
            label.fill("0")
        page.get_by_role("button", name="Save", exact=True).click()
        expect(page.get_by_label("Verdict").get_by_text("Metal to metal: slacken the ring").first).to_be_visible()
        page.get_by_role("button", name="What comes first: Open the tyre and lay it over the flanges").click()
        self.sheet("Open the tyre and lay it over the flanges")
        expect(page.get_by_role("button", name="Next: Lay the rings over the beads")).to_be_visible()


class RunInTest(HoleByHoleCase):
    """A tyre that has run: locked out, opened, pulled again, and closed again before anybody signs."""

    family, at = "tyre", "close.run_in"

    def pulled_again(self, title: str) -> None:
        """Each screw once, one of them turns, then a round in which none turns."""
        self.heading(title)
        for turned in (1, 0):
            for n in range(BOLTS):
                self.page.get_by_role("button", name="It turned" if n < turned else "stood still").click()
        expect(self.verdict()).to_have_text("Tight: a full round moved nothing.")
        self.page.get_by_role("button", name=ENTER).click()
        self.go_on()

    def test_run_under_load_locked_out_pulled_again_and_closed_again(self) -> None:
        page = self.page
        self.goto_step("close.run_in", job=self.own)
        self.heading("Run it in under load")
        tap(page.get_by_role("radio", name="run under load"))
        page.get_by_role("button", name=re.compile("^Save( unfinished)?$")).click()
        expect(page.get_by_label("Verdict").get_by_text("Say how long it ran under load.")).to_be_visible()
        page.get_by_label("Ran under load for, min").fill("60")
        page.get_by_role("button", name=re.compile("^Save( unfinished)?$")).click()
        expect(page.get_by_text("Locks are off", exact=True)).to_be_visible()
        page.goto(f"{self.live_server_url}/jobs/{self.own.pk}")
        self.sheet("Lock it out again and prove it dead")
        sign(page, "millwright")
        self.go_on()
        self.sheet("Take the guard off again", Guard_screws_off="8")
        self.go_on()
        self.pulled_again("Pull the ring screws, driver end again, at full torque")
        self.pulled_again("Pull the ring screws, driven end again, at full torque")
        self.sheet("Check every torque a second time")
        self.go_on()
        self.sheet("Look over the finished coupling")
        self.go_on()
        self.sheet("Count tools and temporary parts out", Every_tool_is_back="4")
        self.go_on()
        self.sheet("Fit the guard", Guard_screws_back="8")
        self.go_on()
        self.sheet("Locks off, each by its owner")
        self.go_on()
        self.start("runs smoothly")
        self.go_on()
        self.say_why()
        self.heading("Sign: the work was done as recorded")
