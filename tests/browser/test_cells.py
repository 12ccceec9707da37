"""What stands in the cells: entered readings to look at and correct, set-up kept, units, files, two windows."""

import re
import tempfile
from datetime import timedelta
from pathlib import Path

from django.utils import timezone
from playwright.sync_api import expect

from server.instruments.models import Wrench
from tests.site import Member, job_of

from .base import ENTER, IN_LINE, BrowserTestCase, tap, until


class CellsTest(BrowserTestCase):
    """The blower, found over its limit."""

    def entered(self, step: str) -> int:
        """How many readings a step has."""
        return self.job.entries.filter(step=step, kind="reading").count()

    def test_an_entered_reading_stands_in_its_cells_and_one_figure_of_it_is_corrected(self) -> None:
        page, before = self.page, self.entered("set.align")
        self.goto_step("set.align")
        expect(page.get_by_label("Rim at 6 o’clock")).to_have_value("+0.60")
        self.open_set_up()
        expect(page.get_by_label("Rim: bracket sag at 6")).to_have_value("-0.02")
        expect(page.get_by_role("button", name=ENTER)).to_be_hidden()
        page.get_by_label("Rim at 6 o’clock").fill("0.58")
        expect(page.get_by_text("12 + 6 = 3 + 9")).to_be_visible()
        expect(page.get_by_text("Rim: off by 0.020")).to_be_visible()
        page.get_by_role("button", name=ENTER).click()
        expect(page.get_by_text("As found")).to_be_visible()
        self.assertEqual(self.entered("set.align"), before + 1)
        latest = self.job.entries.filter(step="set.align", kind="reading").last()
        values = [r["value_mm"] for r in latest.inputs["dials"][0]["readings"]]
        self.assertEqual(values, [0.0, 0.18, 0.58, 0.42])

    def test_read_again_empties_the_readings_and_keeps_the_set_up(self) -> None:
        page = self.page
        self.goto_step("set.align")
        page.get_by_role("button", name="New readings").click()
        expect(page.get_by_label("Rim at 6 o’clock")).to_have_value("")
        self.open_set_up()
        expect(page.get_by_label("Face: radius of the stem")).to_have_value("50")
        page.get_by_role("button", name="Discard").click()
        expect(page.get_by_label("Rim at 6 o’clock")).to_have_value("+0.60")

    def test_a_reading_is_taken_between_the_bolts_where_the_quarters_cannot_be_reached(self) -> None:
        page = self.page
        self.goto_step("set.gap")
        page.get_by_role("button", name="New readings").click()
        ring = page.get_by_role("group", name="Gap", exact=True)
        for typed, refused in (("top", "A clock time like 1:30"), ("95°", "Too near the reading at 3 o’clock.")):
            if page.get_by_role("button", name="Gap: another place").is_visible():
                page.get_by_role("button", name="Gap: another place").click()
            page.get_by_label("Gap: place").fill(typed)
            page.get_by_role("button", name="Add", exact=True).click()
            expect(page.get_by_text(refused)).to_be_visible()
        page.get_by_label("Gap: place").fill("40°")
        page.keyboard.press("Enter")
        expect(page.get_by_label("Gap at 40°")).to_be_focused()
        page.get_by_role("button", name="Gap: another place").click()
        page.get_by_label("Gap: place").fill("4:40")
        page.get_by_role("button", name="Add", exact=True).click()
        ring.get_by_label("Gap: take the place at 140° away").click()
        for at in ("12 o’clock", "3 o’clock", "6 o’clock", "9 o’clock", "40°"):
            page.get_by_label(f"Gap at {at}").fill("30.1")
        before = self.entered("set.gap")
        page.get_by_role("button", name=ENTER).click()
        until(lambda: self.entered("set.gap") > before, page)
        latest = self.job.entries.filter(step="set.gap", kind="reading").last()
        self.assertEqual(sorted(one["clock"] for one in latest.inputs["readings"]), [0, 40, 90, 180, 270])
        page.reload()
        expect(page.get_by_label("Gap at 40°")).to_have_value("30.1")

    def test_a_slip_is_struck_through_and_what_was_read_before_counts_again(self) -> None:
        page, past = self.page, self.page.get_by_role("region", name="Entered so far")
        self.goto_step("set.align")
        page.get_by_role("button", name="New readings").click()
        for dial in ("Rim", "Face"):
            self.fill_ring(dial, IN_LINE)
        page.get_by_role("button", name=ENTER).click()
        expect(past.get_by_role("button", name=re.compile("^As it stands"))).to_be_visible()
        self.assertEqual(self.entered("set.align"), 2)
        page.reload()  # what was just saved is still being shown anew
        past.get_by_role("button", name=re.compile("^As it stands")).click()
        page.get_by_role("button", name="That was a slip").click()
        expect(page.get_by_role("dialog", name="That was a slip")).to_be_visible()
        page.get_by_label("What went wrong").fill("figures of blower 3")
        page.get_by_role("button", name="Take it out").click()
        expect(past.get_by_role("button", name=re.compile("^Slip"))).to_contain_text("figures of blower 3")
        expect(past.get_by_role("button", name=re.compile("^As read"))).to_be_visible()
        expect(self.verdict()).to_have_text("Misaligned: move the motor.")
        page.goto(f"{self.live_server_url}/jobs/{self.job.pk}/record")
        expect(page.get_by_text("slip", exact=True)).to_be_visible()
        expect(page.get_by_text("figures of blower 3")).to_be_visible()

    def test_micrometer_readings_go_back_under_their_stations(self) -> None:
        self.goto_step("prepare.fit.driver")
        expect(self.page.get_by_label("shaft at machine side, across 12-6")).to_have_value("48.012")
        expect(self.page.get_by_label("bore at shaft end, across 12-6")).to_have_value("48.031")
        self.page.get_by_label("bore at shaft end, across 12-6").fill("48.009")
        expect(self.verdict()).to_have_text("Not the specified fit.")

    def test_both_limits_stand_on_one_bar_with_their_papers(self) -> None:
        self.goto_step("set.align")
        verdict = self.page.get_by_label("Verdict")
        expect(verdict.get_by_text("8.9 × target 0.036")).to_be_visible()
        expect(verdict.get_by_text("81 % of coupling’s 0.400")).to_be_visible()
        expect(verdict.get_by_text("grade ordinary").first).to_be_visible()
        tap(self.page.get_by_role("radio", name="inch"))
        expect(verdict.get_by_text("81 % of coupling’s 0.01575")).to_be_visible()

    def test_a_dials_readings_go_out_as_csv_and_come_in_on_the_other(self) -> None:
        page = self.page
        self.goto_step("set.align")
        with page.expect_download() as download:
            page.get_by_role("button", name="Rim: CSV out").click()
        text = Path(download.value.path()).read_text()
        self.assertEqual(text.splitlines()[:3], ["clock,value_mm", "0.0,0.0", "90.0,0.18"])
        with tempfile.TemporaryDirectory() as folder:
            good, bad = Path(folder) / "good.csv", Path(folder) / "bad.csv"
            good.write_text("clock,value_mm\n0,0\n120,0.01\n240,0.02\n")
            bad.write_text("clock,value_mm\n0,0\n120,lots\n")
            page.get_by_label("Face: CSV file of readings").set_input_files(bad)
            expect(page.get_by_text("line 3: Enter two numbers, clock and mm: 120,lots")).to_be_visible()
            expect(page.get_by_label("Face at 3 o’clock")).to_have_value("+0.02")
            page.get_by_label("Face: CSV file of readings").set_input_files(good)
            expect(page.get_by_label("Face at 8 o’clock")).to_have_value("0.02")
        expect(page.get_by_label("Rim at 3 o’clock")).to_have_value("+0.18")
        expect(page.get_by_text("Face: one of the four is not read")).to_be_visible()
        dropped = page.evaluate_handle(
            "text => { const t = new DataTransfer(); t.items.add(new File([text], 'good.csv')); return t }",
            "clock,value_mm\n0,0\n120,0.03\n240,0.02\n",
        )
        page.get_by_role("group", name="Face").dispatch_event("drop", {"dataTransfer": dropped})
        expect(page.get_by_label("Face at 4 o’clock")).to_have_value("0.03")

    def test_a_column_that_is_pasted_fills_the_ring_from_there_on(self) -> None:
        page = self.page
        page.context.grant_permissions(["clipboard-read", "clipboard-write"])
        self.goto_step("set.align")
        page.get_by_role("button", name="New readings").click()

        def paste(text: str) -> None:
            page.evaluate("text => navigator.clipboard.writeText(text)", text)
            page.get_by_label("Rim at 3 o’clock").focus()
            page.keyboard.press("Control+V")

        paste("0.18\n0.60\n0.42\n0\n0.1")
        expect(page.get_by_text("5 figures are more than there are places.")).to_be_visible()
        expect(page.get_by_label("Rim at 3 o’clock")).to_have_value("")
        paste("0.18\n0.60\n0.42\n0")
        for place, figure in (("3", "0.18"), ("6", "0.60"), ("9", "0.42"), ("12", "0")):
            expect(page.get_by_label(f"Rim at {place} o’clock")).to_have_value(figure)
        expect(page.get_by_label("Face at 3 o’clock")).to_have_value("")
        page.get_by_label("Rim at 9 o’clock").fill("wide")  # at the edge of the sheet
        said, sheet = page.get_by_text("Enter a number.").bounding_box(), page.get_by_role("main").bounding_box()
        assert said and sheet
        self.assertGreaterEqual(said["x"], sheet["x"])

    def test_two_windows_both_keep_what_they_could_not_send(self) -> None:
        first, before = self.page, self.job.entries.count()
        second = first.context.new_page()
        for page, step in ((first, "set.gap"), (second, "set.straightedge")):
            self.goto_step(step, page)
            page.get_by_role("button", name="Note").click()
            page.get_by_label("What is worth knowing next time").fill(f"seen at {step}")
        first.context.set_offline(True)
        for page in (first, second):
            page.get_by_role("button", name="Add the note").click()
        expect(first.get_by_text(re.compile("Not sent yet: 2"))).to_be_visible()
        first.close()
        second.context.set_offline(False)
        expect(second.get_by_text(re.compile("Not sent yet"))).to_be_hidden()
        until(lambda: self.job.entries.filter(kind="note").count() > 1, second)
        notes = self.job.entries.filter(kind="note")
        self.assertEqual({n.inputs["text"] for n in notes}, {"seen at set.gap", "seen at set.straightedge"})
        self.assertEqual(self.job.entries.count(), before + 2)


class BoltsTest(BrowserTestCase):
    """Foot bolts where they sit, and clicks that are taken back."""

    def test_a_click_taken_back_stays_struck_through_and_is_not_entered(self) -> None:
        page = self.page
        page.goto(f"{self.live_server_url}/benches/tighten")
        page.get_by_label("Bolts").fill("4")
        page.get_by_label("Full torque").fill("100")
        page.get_by_role("button", name="Bolt 1, next").click()
        page.get_by_label("Torque reached").fill("58")
        page.get_by_role("button", name="Bolt 3: clicked at 50").click()
        expect(self.verdict()).to_have_text("A pull is outside its band.")
        page.get_by_role("button", name="Take back").click()
        expect(page.get_by_text("taken back")).to_be_visible()
        expect(self.verdict()).to_have_text("Pull bolt 3.")
        page.get_by_role("button", name="Bolt 4", exact=True).click()
        expect(page.get_by_text("Bolt 3 is next. Tap bolt 4 again to pull it out of turn.")).to_be_visible()
        page.reload()
        expect(page.get_by_text("taken back")).to_be_visible()

    def test_a_wrench_is_kept_and_on_an_extension_the_wrench_is_set_lower_than_the_bolt_gets(self) -> None:
        page = self.page
        page.goto(f"{self.live_server_url}/benches/tighten")
        page.get_by_label("Bolts").fill("4")
        page.get_by_label("Full torque").fill("100")
        page.get_by_text("straight to torque").click()
        expect(page.get_by_role("button", name="Bolt 1, next")).to_be_visible()  # the plan pushes the next button down
        page.get_by_role("button", name="Another wrench, or an extension").click()
        for label, text in (("Number or name of the wrench", "W3"), ("Its range from, N·m", "20"), ("to, N·m", "200")):
            page.get_by_label(label, exact=True).fill(text)
        page.get_by_label("Calibrated until").fill("2020-03-31")
        expect(page.get_by_text("W3 was calibrated until 2020-03-31. Take another one.")).to_be_visible()
        page.get_by_label("Calibrated until").fill((timezone.localdate() + timedelta(days=300)).isoformat())
        page.get_by_label("Crow-foot or extension, mm").fill("100")
        expect(page.get_by_text("With an extension, enter the wrench's own length.")).to_be_visible()
        expect(page.get_by_role("button", name="First correct what is marked")).to_be_disabled()
        expect(page.get_by_role("button", name="Bolt 1", exact=True)).to_be_visible()
        expect(page.get_by_label("Verdict").get_by_text("Correct what is marked on the sheet.")).to_be_visible()
        page.get_by_label("Its length, mm").fill("400")
        page.get_by_role("button", name="Keep this wrench for the site").click()
        expect(page.get_by_role("button", name="Keep this wrench for the site")).to_be_hidden()
        self.assertEqual(Wrench.objects.get(name="W3").length_mm, 400.0)
        page.get_by_label("Torque reached").fill("92")  # the wrench shows it, the bolt gets 115
        page.get_by_role("button", name="Bolt 1: clicked at 80").click()
        expect(page.get_by_text("Bolt 1 got 115 N·m in pass 1. Slacken it and pull it again.")).to_be_visible()
        page.get_by_role("button", name="Bolt 1", exact=True).click()
        page.get_by_role("button", name="Clicked again as it was").click()
        expect(page.get_by_text("Bolt 1 was pulled to 115 N·m and then clicked lower")).to_be_visible()
        page.get_by_role("button", name="Bolt 1", exact=True).click()
        page.get_by_role("button", name="Bolt 1: slackened, then clicked").click()
        expect(self.verdict()).to_have_text("Pull bolt 3.")


class RecordTest(BrowserTestCase):
    """The record's head, and readings of every dial as a file."""

    who = "apprentice"

    def test_says_in_short_what_was_found_and_what_was_left(self) -> None:
        page = self.page
        closed = job_of("Steep aeration blower 2", closed=True)
        page.goto(f"{self.live_server_url}/jobs/{closed.pk}/record")
        row = page.get_by_role("row", name=re.compile("^Running, offset"))
        expect(row.get_by_role("cell").nth(1)).to_have_text("0.322 mm")
        expect(row.get_by_role("cell").nth(2)).to_have_text("0.014 ± 0.004 mm")
        expect(page.get_by_text("energy electric, isolated at Motor isolator, lock L-41, tag T-108")).to_be_visible()
        with page.expect_download() as download:
            page.get_by_role("link", name="face as CSV").first.click()
        self.assertEqual(Path(download.value.path()).read_text().splitlines()[3], "180.0,0.05")

    def test_an_over_limit_value_accepted_by_the_lead_shows_who_and_why(self) -> None:
        self.assertEqual(Member("lead").sign(self.job, "set.align", "authorise", reason="runs slowly till Sunday")[0], 201)
        self.page.goto(f"{self.live_server_url}/jobs/{self.job.pk}/record")
        expect(self.page.get_by_text("Accepted out of tolerance by Ansa Pellwright, lead")).to_be_visible()
        expect(self.page.get_by_role("cell", name=re.compile("runs slowly till Sunday"))).to_be_visible()
        expect(self.page.get_by_text("This record is open. Still to be done:")).to_be_visible()
