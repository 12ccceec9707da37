"""Aligning with a foot that has no room, with growth, with a laser; and a move that is looked at before it is made."""

import random
import re
from contextlib import redirect_stdout
from io import StringIO

from playwright.sync_api import expect

from scripts.gateway import Gateway
from scripts.laser import AS_FOUND, Pair, sweep_once
from server.demo import blower
from tests.site import PASSWORD, Member

from .base import ENTER, FACE, RIM, BrowserTestCase, tap


class AlignTest(BrowserTestCase):
    """Steep aeration blower 2, found over its limits."""

    def read_again(self) -> None:
        """The readings as found, typed again."""
        self.goto_step("set.align")
        self.page.get_by_role("button", name="New readings").click()
        self.fill_ring("Rim", RIM)
        self.fill_ring("Face", FACE)
        expect(self.verdict()).to_have_text("Misaligned: move the motor.")

    def test_what_cannot_be_told_stands_so_on_every_sheet_until_somebody_takes_it_as_it_is(self) -> None:
        page = self.page
        first, second = blower.MOVED["dials"]
        readings = [dict(reading) for reading in first["readings"]]
        readings[1]["value_mm"] += 0.06  # 12 + 6 and 3 + 9 differ
        unsure = {"dials": [{**first, "readings": readings}, second]}
        self.assertEqual(Member("millwright").enter(self.job, "set.align", unsure)[0], 201)  # no verdict was seen
        self.goto_step("set.align")
        expect(self.verdict()).to_have_text("Cannot tell yet.")
        expect(page.get_by_role("link", name="Align the motor")).to_contain_text("cannot tell yet")
        self.goto_step("couple.feet")
        expect(page.get_by_text("First: Align the motor").first).to_be_visible()
        self.goto_step("set.align")
        page.get_by_role("button", name="Take it as it is").click()
        expect(self.verdict()).to_have_text("Taken as it is: cannot tell yet.")
        page.get_by_role("button", name="Next: Torque the feet of the motor").click()
        expect(page.get_by_role("button", name="Bolt 1, next")).to_be_visible()

    def test_a_foot_without_room_is_planned_round_or_said_to_be_impossible(self) -> None:
        page = self.page
        self.read_again()
        expect(page.get_by_label("Verdict").get_by_text("Motor tail: add 0.59")).to_be_visible()
        page.get_by_role("button", name=re.compile("^Room and shims")).click()
        page.get_by_label("motor tail, room toward 3").fill("0.05")
        expect(page.get_by_text("0.13 mm more for motor tail to slide toward 3")).to_be_visible()
        page.get_by_text("both machines", exact=True).click()
        expect(page.get_by_text("Not possible with the room there is")).to_be_hidden()
        expect(page.get_by_role("row", name=re.compile("^blower drive end")).get_by_text("shim")).to_be_visible()
        expect(self.verdict()).to_have_text("Misaligned: move both machines.")
        tail = page.get_by_role("row", name=re.compile("^blower tail"))
        tap(tail.get_by_role("checkbox"))
        expect(tail.get_by_text("shim 0.00, slide 0.00")).to_be_visible()
        page.get_by_label("motor tail, room toward 3").fill("-1")
        expect(page.get_by_text("Room is 0 or more.")).to_be_visible()
        page.get_by_label("motor tail, room toward 3").fill("0.05")
        page.get_by_role("button", name=ENTER).click()
        expect(page.get_by_text("Entered so far")).to_be_visible()
        page.reload()
        page.get_by_role("button", name=re.compile("^Room and shims")).click()
        expect(page.get_by_label("motor tail, room toward 3")).to_have_value("0.05")

    def test_read_once_more_both_sweeps_count_and_are_there_after_a_reload(self) -> None:
        page = self.page
        self.read_again()
        page.get_by_role("button", name="Read it once more").click()
        expect(page.get_by_label("Rim at 6 o’clock")).to_have_value("")
        self.fill_ring("Rim", {**RIM, "6 o’clock": "0.64"})
        self.fill_ring("Face", FACE)
        expect(page.get_by_text("1 kept, all count alike")).to_be_visible()
        page.reload()
        expect(page.get_by_label("Rim at 6 o’clock")).to_have_value("0.64")
        page.get_by_role("button", name=ENTER).click()
        expect(page.get_by_role("button", name="New readings")).to_be_visible()
        entry = self.job.entries.filter(step="set.align").latest("number")
        sixes = [r["value_mm"] for r in entry.inputs["dials"][0]["readings"] if r["clock"] == 180]
        self.assertEqual(sorted(sixes), [0.60, 0.64])
        self.assertAlmostEqual(entry.result["offset_v_mm"] + 0.02 * entry.result["slope_v_mm_per_m"], -0.32, delta=0.001)
        expect(page.get_by_text("1 kept, all count alike")).to_be_visible()

    def test_what_another_instrument_shows_on_its_screen_is_judged_and_moved_by_alike(self) -> None:
        page, said = self.page, self.page.get_by_label("Verdict")
        self.goto_step("set.align")
        page.get_by_role("button", name="New readings").click()
        self.open_set_up()
        page.get_by_text("From a display", exact=True).click()
        page.get_by_label("Movable shaft is high by").fill("-0.30")
        page.get_by_label("Movable shaft is toward 3 by").fill("4 thou")
        page.get_by_label("and rises away from the coupling by").fill("0.5")
        expect(said.get_by_text("Offset and slope in both views.")).to_be_visible()
        page.get_by_label("and runs toward 3 away from it by").fill("-0.2")
        # −(−0.30 + 0.5 × 0.300), −(0.1016 − 0.2 × 0.586)
        expect(said.get_by_text("Motor drive end: add 0.15")).to_be_visible()
        expect(said.get_by_text("Motor tail: add 0.01 mm, slide 0.02 mm to 3")).to_be_visible()
        page.get_by_label("Its offset holds at").fill("100")
        expect(said.get_by_text("Motor drive end: add 0.20")).to_be_visible()
        page.get_by_role("button", name=ENTER).click()
        expect(page.get_by_text("Entered so far")).to_be_visible()
        page.reload()
        expect(page.get_by_label("Movable shaft is toward 3 by")).to_have_value("4 thou")
        page.get_by_role("button", name="Record the move").click()
        expect(page.get_by_role("dialog").get_by_text("After it:")).to_be_visible()
        page.goto(f"{self.live_server_url}/jobs/{self.job.pk}/record")
        expect(page.get_by_text("shown offset v").first).to_be_visible()

    def test_growth_is_counted_in_and_the_dials_cold_are_told(self) -> None:
        page = self.page
        self.read_again()
        page.get_by_role("button", name=re.compile("^Growth")).click()
        for foot in ("motor drive end", "motor tail"):
            page.get_by_label(f"{foot}, height to the shaft").fill("250")
            page.get_by_label(f"{foot}, cold").fill("20")
            page.get_by_label(f"{foot}, running").fill("60")
        expect(page.get_by_text("cold, as read")).to_be_visible()
        expect(page.get_by_label("Verdict").get_by_text("Motor drive end: add 0.34")).to_be_visible()
        page.get_by_role("button", name=re.compile("^Target readings, cold")).click()
        expect(page.get_by_text(re.compile(r"Dial 1:.*12.*0\.00"))).to_be_visible()

    def test_a_move_shows_what_is_left_to_go_and_what_will_be_read_after_it(self) -> None:
        page = self.page
        self.read_again()
        page.get_by_role("button", name="Record the move").click()
        slip = page.get_by_role("dialog", name="Record what was moved")
        expect(slip.get_by_label("motor drive end, shim")).to_have_value("0.45")
        expect(slip.get_by_text(re.compile(r"After it: 0\.0\d"))).to_be_visible()
        slip.get_by_label("dial at this foot now").first.fill("0.05")
        expect(slip.get_by_text("0.10 mm to go toward 3")).to_be_visible()
        slip.get_by_label("motor drive end, shim").fill("0")
        expect(slip.get_by_text(re.compile(r"After it: 0\.0\d"))).to_be_hidden()

    def test_a_laser_streams_its_sweep_into_the_step_and_it_is_entered_as_a_reading(self) -> None:
        page = self.page
        self.goto_step("set.align")
        page.get_by_role("button", name="New readings").click()
        self.open_set_up()
        page.get_by_text("Laser", exact=True).click()
        page.get_by_role("button", name="Take a sweep from the laser").click()
        expect(page.get_by_text("waiting for the instrument")).to_be_visible()
        gateway = Gateway(self.live_server_url, "millwright", PASSWORD)
        with redirect_stdout(StringIO()):
            sweep_once(gateway, self.job.line.name, Pair(chance=random.Random(4)), 40.0, 10, 0.0)
        expect(page.get_by_text(re.compile(r"within 40° of the clock. Spread them over 70° or more"))).to_be_visible()
        page.get_by_role("button", name="Start the sweep anew").click()
        with redirect_stdout(StringIO()):
            sweep_once(gateway, self.job.line.name, Pair(chance=random.Random(4)), 180.0, 40, 0.0)
        expect(page.get_by_text(re.compile("80 readings over 180°"))).to_be_visible()
        expect(self.verdict()).to_have_text("Misaligned: move the motor.")
        page.get_by_role("button", name="Sweep is done").click()
        page.get_by_role("button", name=ENTER).click()
        expect(page.get_by_role("button", name="New readings")).to_be_visible()
        entry = self.job.entries.filter(step="set.align").latest("number")
        self.assertEqual([len(dial["readings"]) for dial in entry.inputs["dials"]], [40, 40])
        # the planes of the laser, not the places of the dials that were on before
        self.assertAlmostEqual(entry.result["slope_v_mm_per_m"], AS_FOUND.slope_v_mm_per_m, delta=0.1)
        self.assertAlmostEqual(entry.result["offset_v_mm"], AS_FOUND.offset_v_mm, delta=0.02)


class SoftFootQuickTest(BrowserTestCase):
    """The soft foot bench on its own."""

    who = "apprentice"

    def test_a_springing_foot_is_told_from_one_that_wants_a_shim(self) -> None:
        page = self.page
        page.goto(f"{self.live_server_url}/benches/softfoot")
        for foot, rise in (("near foot, 9", "0.02"), ("near foot, 3", "0"), ("far foot, 9", "0.2"), ("far foot, 3", "0.01")):
            page.get_by_label(f"Rise, {foot} side").fill(rise)
        page.get_by_label("Most a foot may rise").fill("2 thou")
        expect(self.verdict()).to_have_text("Soft foot: far foot, 9 side.")
        page.get_by_label("near, 9 o’clock side").fill("0")
        expect(page.get_by_text("Feeler under all four corners of far foot, 9 side.")).to_be_visible()
        for corner in ("near, 3", "far, 3", "far, 9"):
            page.get_by_label(f"{corner} o’clock side").fill("0")
        expect(page.get_by_text("it springs. No shim cures that.")).to_be_visible()


class BracketTest(BrowserTestCase):
    """The sag of a bracket, measured once."""

    def test_a_sag_is_kept_with_its_bracket_and_put_in_when_that_is_chosen(self) -> None:
        page = self.page
        page.goto(f"{self.live_server_url}/benches/alignment")
        self.open_set_up()
        page.get_by_label("Rim: bracket sag at 6").fill("-0.06")
        page.get_by_role("button", name="Keep this sag with its bracket").click()
        page.get_by_label("Bracket it was measured on").fill("Long bracket")
        page.get_by_role("button", name="Keep it").click()
        expect(page.get_by_text("hangs −0.06").or_(page.get_by_text("hangs -0.06"))).to_be_visible()
        other = self.open_page("lead")
        self.goto_step("set.align", other)
        other.get_by_role("button", name="New readings").click()
        self.open_set_up(other)
        other.get_by_role("button", name=re.compile("Bracket")).last.click()
        other.get_by_role("option", name="Long bracket").click()
        expect(other.get_by_label("Rim: bracket sag at 6")).to_have_value("-0.06")
