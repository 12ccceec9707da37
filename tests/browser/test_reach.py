"""What is always in reach: value card, ledger, questions; and the benches without a job."""

import json
import re
from pathlib import Path
from tempfile import TemporaryDirectory

from playwright.sync_api import Locator, expect

from millwright.benches.register import as_dict, evaluate_json
from server.plant.models import Line
from tests.site import PASSWORD, as_if_started_with

from .base import FACE, RIM, BrowserTestCase


class ReachTest(BrowserTestCase):
    """Value card, ledger, stop and ask."""

    who = "lead"

    def test_a_missing_value_blocks_its_step_until_it_is_on_the_card_with_its_paper(self) -> None:
        as_if_started_with(self.job, card={k: v for k, v in self.job.card.items() if k != "gap_nominal_mm"})
        page = self.page
        self.goto_step("set.gap")
        expect(page.get_by_text("Value missing: Gap between hub faces.")).to_be_visible()
        page.get_by_role("button", name="Value card 1 missing").click()
        slip = page.get_by_role("dialog", name="Value card")
        slip.get_by_role("button", name="Enter Gap between hub faces").click()
        slip.get_by_role("textbox", name="Gap between hub faces").fill("1 3/16 in")
        slip.get_by_role("button", name="Save value").click()
        expect(slip.get_by_text("Accepted by: the mean of the readings or every reading?")).to_be_visible()
        slip.get_by_text("every reading", exact=True).click()
        slip.get_by_role("button", name="Save value").click()
        expect(slip.get_by_text("Enter the document.")).to_be_visible()
        slip.get_by_label("Document").fill("Order drawing 7")
        slip.get_by_role("button", name="Save value").click()
        expect(slip.get_by_text("maker's manual: Order drawing 7")).to_be_visible()
        page.keyboard.press("Escape")
        expect(page.get_by_text("Value missing")).to_be_hidden()
        self.fill_ring("Gap", dict.fromkeys(RIM, "30.1"))
        expect(self.verdict()).to_have_text("Within tolerance.")

    def test_missing_values_are_typed_down_a_column_from_one_document_where_the_step_waits_for_them(self) -> None:
        page = self.page
        missing = ("gap_nominal_mm", "gap_plus_minus_mm")
        as_if_started_with(self.job, card={k: v for k, v in self.job.card.items() if k not in missing})
        self.goto_step("set.gap")
        expect(page.get_by_text("Value missing: Gap, plus or minus.")).to_be_visible()
        page.get_by_label("Document").fill("Order drawing 7")
        page.get_by_label("Gap between hub faces").fill("30")
        page.get_by_label("Gap, plus or minus").fill("about 1")
        page.get_by_text("the mean of the readings", exact=True).click()
        page.get_by_role("radiogroup", name="The figure is").get_by_text("mm", exact=True).click()
        page.reload()
        expect(page.get_by_label("Gap, plus or minus")).to_have_value("about 1")
        page.get_by_role("button", name="Save 2 values").click()
        expect(page.get_by_text("Enter a figure in mm.")).to_be_visible()
        page.get_by_label("Gap, plus or minus").fill("1")
        page.get_by_role("button", name="Save value").click()
        expect(page.get_by_text("Value missing")).to_be_hidden()
        self.fill_ring("Gap", dict.fromkeys(RIM, "30.1"))
        expect(self.verdict()).to_have_text("Within tolerance.")

    def test_growth_along_the_shafts_is_a_line_nobody_has_to_fill_and_with_it_the_cold_gap_is_another(self) -> None:
        page = self.page
        self.goto_step("set.gap")
        page.get_by_role("button", name="Value card").click()
        slip = page.get_by_role("dialog", name="Value card")
        expect(slip.get_by_text("Shafts grow toward each other")).to_be_hidden()
        slip.get_by_role("button", name="More values").click()
        slip.get_by_role("button", name="Enter Shafts grow toward each other when warm by").click()
        slip.get_by_role("textbox", name="Shafts grow toward each other").fill("1.5")
        slip.get_by_label("Document").fill("Blower manual")
        slip.get_by_role("button", name="Save value").click()
        expect(slip.get_by_text("maker's manual: Blower manual")).to_be_visible()
        page.keyboard.press("Escape")
        expect(self.verdict()).to_have_text("Read again.")
        self.fill_ring("Gap", dict.fromkeys(RIM, "30.2"))  # 30 ± 1 warm is 31.5 ± 1 cold
        expect(self.verdict()).to_have_text("Out of tolerance.")
        expect(page.get_by_text("Open the gap by 1.30 mm")).to_be_visible()

    def test_what_was_counted_out_is_open_until_it_is_counted_back(self) -> None:
        page = self.page
        self.goto_step("close.sign")
        page.get_by_role("button", name="Ledger").click()
        slip = page.get_by_role("dialog", name="Ledger")
        slip.get_by_label("What", exact=True).fill("set screw, motor hub")
        slip.get_by_text("removed, must go back").click()
        slip.get_by_role("button", name="Add to ledger").click()
        expect(slip.get_by_text("removed, must go back; 1 out, 0 back")).to_be_visible()
        page.keyboard.press("Escape")
        expect(page.get_by_text("set screw, motor hub: 1 to count back")).to_be_visible()
        page.get_by_role("button", name="Ledger 1 out").click()
        slip.get_by_role("button", name="Return 1").click()
        expect(slip.get_by_text("closed", exact=True)).to_be_visible()

    def test_a_question_waits_for_the_lead_and_the_answer_opens_the_step(self) -> None:
        apprentice = self.open_page("apprentice")
        self.goto_step("set.align", apprentice)
        apprentice.get_by_role("button", name="Ask the lead", exact=True).click()
        apprentice.get_by_label("Question").fill("Pipe at 6 is in the way. Three places enough?")
        apprentice.get_by_role("button", name="Ask", exact=True).click()
        expect(apprentice.get_by_text("A question waits for the lead's answer.")).to_be_visible()
        self.goto_step("set.align")
        self.page.get_by_label("Answer").fill("Yes, spread them over 70° or more.")
        self.page.get_by_role("button", name="Answer").click()
        expect(apprentice.get_by_text("Yes, spread them over 70° or more.")).to_be_visible()
        expect(apprentice.get_by_text("A question waits")).to_be_hidden()

    def test_a_lead_accepts_what_is_over_with_a_reason_and_the_record_shows_it(self) -> None:
        page = self.page
        self.goto_step("set.align")
        page.get_by_role("button", name="Accept with a reason").click()
        accept = page.get_by_role("button", name="Accept with this reason")
        expect(accept).to_be_disabled()
        page.get_by_label("Reason").fill("spare blower, runs an hour a week")
        expect(accept).to_be_disabled()
        page.get_by_label("Your password").fill("somebody else's")
        accept.click()
        expect(page.get_by_text("This is not your password.")).to_be_visible()
        page.get_by_label("Your password").fill(PASSWORD)
        accept.click()
        expect(page.get_by_text("Accepted out of tolerance by Ansa Pellwright")).to_be_visible()
        page.get_by_role("link", name="Job 2").click()
        expect(page.get_by_role("cell", name=re.compile("spare blower, runs an hour a week"))).to_be_visible()

    def test_who_may_not_accept_asks_the_lead_who_sends_it_back_or_accepts_it(self) -> None:
        apprentice = self.open_page("apprentice")

        def ask(why: str) -> None:
            apprentice.get_by_role("button", name="Ask the lead to accept").click()
            apprentice.get_by_label("Why it could be accepted").fill(why)
            apprentice.get_by_role("button", name="Ask the lead", exact=True).last.click()
            expect(apprentice.get_by_text(re.compile("^The lead was asked to accept it"))).to_be_visible()

        def on_the_floor() -> Locator:
            self.page.goto(f"{self.live_server_url}/")
            self.page.get_by_role("button", name=re.compile("^Questions to the lead")).click()
            return self.page.get_by_role("listitem").filter(has_text="Steep aeration blower 2")

        self.goto_step("set.align", apprentice)
        ask("The pipe pulls; nothing moves it further.")
        expect(apprentice.get_by_role("button", name="New readings")).to_be_enabled()
        expect(on_the_floor().get_by_text("the lead is asked to accept it")).to_be_visible()
        on_the_floor().get_by_role("button", name=re.compile("^Carry on")).click()
        expect(self.page.get_by_text("The pipe pulls; nothing moves it further.")).to_be_visible()
        self.page.get_by_role("button", name="Send it back").click()
        self.page.get_by_label("What is to be done").fill("Loosen the pipe first.")
        self.page.get_by_role("button", name="Send it back").last.click()
        expect(apprentice.get_by_text("Loosen the pipe first.")).to_be_visible()
        ask("Loosened. It stays.")
        self.page.get_by_role("button", name="Accept with a reason").click()
        expect(self.page.get_by_role("dialog").get_by_text("Asked: Loosened. It stays.")).to_be_visible()
        self.page.get_by_label("Reason").fill("until the pipe is changed in May")
        self.page.get_by_label("Your password").fill(PASSWORD)
        self.page.get_by_role("button", name="Accept with this reason").click()
        expect(apprentice.get_by_text("until the pipe is changed in May")).to_be_visible()
        expect(on_the_floor()).to_have_count(0)

    def test_an_apprentice_is_told_who_signs(self) -> None:
        apprentice = self.open_page("apprentice")
        self.goto_step("safe.try", apprentice)
        apprentice.get_by_label("Tried by").fill("Wim")
        apprentice.get_by_role("button", name="Save", exact=True).click()
        expect(
            apprentice.get_by_text("Millwright’s or lead’s signature needed. You are signed in as apprentice.")
        ).to_be_visible()


class QuickBenchTest(BrowserTestCase):
    """Any bench without a job: the same screens, the same core."""

    who = "apprentice"

    def test_run_out_by_hand_out_as_csv_and_in_again(self) -> None:
        page = self.page
        page.goto(f"{self.live_server_url}/benches/runout")
        self.fill_ring("Rim", {"12 o’clock": "0.015", "3 o’clock": "0.026", "6 o’clock": "-0.015", "9 o’clock": "-0.026"})
        expect(self.verdict()).to_have_text("Read. No limit to judge by.")
        expect(page.get_by_text("TIR 0.052 mm.")).to_be_visible()
        page.get_by_label("Run-out limit, TIR").fill("0.05")
        expect(self.verdict()).to_have_text("Runs out: high spot at 2 o’clock.")
        expect(page.get_by_role("img", name="High spot at 2 o’clock")).to_be_visible()
        with page.expect_download() as download:
            page.get_by_role("button", name="Rim: CSV out").click()
        text = Path(download.value.path()).read_text()
        self.assertEqual(text.splitlines()[:2], ["clock,value_mm", "0.0,0.015"])
        with TemporaryDirectory() as folder:
            good, bad = Path(folder) / "good.csv", Path(folder) / "bad.csv"
            good.write_text(text.replace("90.0,0.026", "90.0,0.016"))
            bad.write_text("clock,value_mm\n0,0\n90,oops\n")
            page.get_by_label("Rim: CSV file of readings").set_input_files(bad)
            expect(page.get_by_text("line 3: Enter two numbers")).to_be_visible()
            expect(page.get_by_label("Rim at 3 o’clock")).to_have_value("0.026")
            page.get_by_label("Rim: CSV file of readings").set_input_files(good)
            expect(page.get_by_label("Rim at 3 o’clock")).to_have_value("0.016")
        expect(self.verdict()).to_have_text("Cannot tell yet.")

    def test_a_gap_without_limit_or_diameter_is_kept_as_a_file_and_opened_again(self) -> None:
        page = self.page
        page.goto(f"{self.live_server_url}/benches")
        page.get_by_role("link", name="Gap Gap on the axis").click()
        self.fill_ring("Gap", {"12 o’clock": "3.0", "3 o’clock": "3.2", "6 o’clock": "3.4", "9 o’clock": "3.2"})
        expect(self.verdict()).to_have_text("Read. No limit to judge by.")
        expect(page.get_by_text("Mean gap 3.20 mm, spread 0.40 mm, widest at 6 o’clock.")).to_be_visible()
        expect(angle := page.get_by_text("÷ 200.0 × 1000")).to_be_hidden()
        with page.expect_download() as download:
            page.get_by_role("button", name="Keep as a file").click()
        kept = Path(download.value.path()).read_bytes()
        given = json.loads(kept)["input"]
        page.get_by_label("Measured on diameter").fill("200")
        expect(angle).to_be_visible()
        page.get_by_role("button", name="Clear the sheet").click()
        expect(page.get_by_label("Gap at 6 o’clock")).to_have_value("")
        wrong = kept.replace(b'"gap"', b'"heat"', 1)
        page.get_by_label("File of this bench").set_input_files({"name": "a.json", "mimeType": "", "buffer": wrong})
        expect(page.get_by_text("This file belongs to another bench: heat.")).to_be_visible()
        page.get_by_label("File of this bench").set_input_files({"name": "a.json", "mimeType": "", "buffer": kept})
        expect(page.get_by_label("Gap at 6 o’clock")).to_have_value("3.4")
        self.assertEqual(as_dict(evaluate_json("gap", json.dumps(given)))["mean_mm"], 3.2)

    def test_alignment_with_feet_of_ones_own_at_five_places(self) -> None:
        page = self.page
        page.goto(f"{self.live_server_url}/benches/alignment")
        page.get_by_role("button", name="Rim: add a reading at 1:30").click()
        self.fill_ring("Rim", {**RIM, "half past 1": "0.04"})
        self.fill_ring("Face", FACE)
        expect(page.get_by_text("Enter the distances of the movable machine’s feet.")).to_be_visible()
        page.get_by_label("Coupling to near feet").fill("12 in")
        page.get_by_label("Coupling to far feet").fill("24 in")
        expect(page.get_by_text("A face dial needs its radius: shaft centre to plunger.")).to_be_visible()
        page.get_by_label("Face: radius of the stem").fill("2 in")
        expect(page.get_by_text("Read. Limits are missing.")).to_be_visible()
        page.get_by_label("Coupling, offset limit").fill("0.1")
        page.get_by_label("Coupling, angle limit").fill("0.1")
        expect(self.verdict()).to_have_text("Misaligned: move the movable machine.")
        expect(page.get_by_text("Near foot: add")).to_be_visible()

    def test_a_job_read_in_wrongly_changes_nothing_and_says_where(self) -> None:
        lead, before = self.open_page("lead"), Line.objects.count()
        lead.goto(self.live_server_url)
        with TemporaryDirectory() as folder:
            foreign = Path(folder) / "job.json"
            foreign.write_text('{"format": "young-anvil job", "version": 1, "title"')
            lead.get_by_label("Job file").set_input_files(foreign)
            expect(lead.get_by_text("Nothing was read in. line 1: The file breaks off or is damaged here")).to_be_visible()
        self.assertEqual(Line.objects.count(), before)
