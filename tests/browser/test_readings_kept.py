"""Nothing that was read or typed is lost by a button, a colleague, a second answer or a dead network."""

import re

from playwright.sync_api import Page, expect

from millwright.tests.work import Work
from tests.site import PASSWORD, Member
from tests.worked import worked

from .base import ENTER, FACE, IN_LINE, RIM, BrowserTestCase
from .test_dead_network import StoppableCase


class MoveTest(BrowserTestCase):
    """The blower found out of line, its readings typed and not saved."""

    def found(self, page: Page) -> None:
        """As found, with a set-up of its own."""
        self.goto_step("set.align", page)
        page.get_by_role("button", name="New readings").click()
        self.open_set_up(page)
        page.get_by_label("Rim: stem from coupling").fill("1 in")
        page.get_by_label("Face: radius of the stem").fill("3 in")
        self.fill_ring("Rim", RIM, page)
        self.fill_ring("Face", FACE, page)
        expect(self.verdict(page)).to_have_text("Misaligned: move the motor.")

    def test_the_move_saves_the_reading_it_answers_to_first_with_its_set_up(self) -> None:
        page = self.page
        before = self.job.entries.filter(step="set.align", kind="reading").count()
        self.found(page)
        page.get_by_role("button", name="Record the move").click()
        page.get_by_role("dialog").get_by_role("button", name="Save the move").click()
        expect(page.get_by_role("dialog")).to_be_hidden()
        read = list(self.job.entries.filter(step="set.align", kind="reading").order_by("number"))
        self.assertEqual(len(read), before + 1)
        rim, face = read[-1].inputs["dials"]
        self.assertEqual((rim["x_mm"], face["radius_mm"], rim["readings"][2]["value_mm"]), (25.4, 76.2, 0.6))
        self.assertGreater(self.job.entries.get(step="set.align", kind="move").number, read[-1].number)
        expect(self.verdict()).to_have_text("Read again.")
        self.open_set_up()
        expect(page.get_by_label("Rim: stem from coupling")).to_have_value("1 in")
        expect(page.get_by_label("Face: radius of the stem")).to_have_value("3 in")
        expect(page.get_by_label("Rim at 6 o’clock")).to_have_value("")
        self.fill_ring("Rim", IN_LINE)
        self.fill_ring("Face", IN_LINE)
        page.get_by_role("button", name=ENTER).click()
        expect(page.get_by_role("button", name=re.compile("^Next: "))).to_be_visible()
        page.goto(f"{self.live_server_url}/jobs/{self.job.pk}/record")
        row = page.get_by_role("row", name=re.compile("^Running, offset")).first
        expect(row).not_to_contain_text(re.compile("0.000 mm.*0.000 mm"))
        expect(page.get_by_text("out of tolerance").first).to_be_visible()

    def test_a_soft_foot_is_saved_before_its_shims_are_recorded(self) -> None:
        page = self.page
        self.goto_step("set.soft")
        page.get_by_role("button", name="New readings").click()
        for i, text in enumerate(("0.30", "0.02", "0.02", "0.02")):
            page.get_by_label(re.compile("^Rise, motor")).nth(i).fill(text)
        page.get_by_role("button", name="Record the shims").click()
        page.get_by_role("dialog").get_by_label(re.compile("shim")).first.fill("0.30")
        page.get_by_role("dialog").get_by_role("button", name="Save the shims").click()
        expect(page.get_by_role("dialog")).to_be_hidden()
        kinds = list(self.job.entries.filter(step="set.soft").order_by("number").values_list("kind", flat=True))
        self.assertEqual(kinds[-2:], ["reading", "move"])

    def test_readings_a_colleagues_move_overtook_count_once_every_one_is_typed_anew(self) -> None:
        page = self.page
        self.found(page)
        Member("lead").enter(self.job, "set.align", {"feet": [{"name": "motor tail", "shim_mm": 0.1}]}, "move")
        expect(self.verdict()).to_have_text("Read again.")
        expect(page.get_by_role("button", name=ENTER)).to_be_disabled()
        self.fill_ring("Rim", RIM)
        expect(page.get_by_role("button", name=ENTER)).to_be_disabled()
        self.fill_ring("Face", FACE)  # as they were: read again, not typed otherwise
        expect(self.verdict()).to_have_text("Misaligned: move the motor.")
        expect(page.get_by_role("button", name=ENTER)).to_be_enabled()

    def test_a_set_up_nobody_measured_stands_as_assumed_until_somebody_says_it_is_so(self) -> None:
        page = self.page
        work = Work(family="jaw, straight")
        work.until("set.align")
        job = worked("Malt screen", work)
        self.goto_step("set.align", job=job)
        self.fill_ring("Rim", RIM)
        self.fill_ring("Face", FACE)
        expect(page.get_by_text("4 of it assumed")).to_be_visible()
        expect(page.get_by_text("Assumed, not measured: stem of the rim at 20.00 mm")).to_be_visible()
        self.open_set_up()
        expect(page.get_by_text("assumed 52.50 until it is measured")).to_be_visible()
        page.get_by_label("Face: radius of the stem").fill("48")
        expect(page.get_by_text("3 of it assumed")).to_be_visible()  # both stems and the sag
        page.get_by_role("button", name=ENTER).click()
        expect(page.get_by_role("button", name="New readings")).to_be_visible()
        rim, face = job.entries.filter(step="set.align").latest("number").inputs["dials"]
        self.assertEqual((rim["assumed"], face["assumed"]), (["x_mm", "sag_mm"], ["x_mm"]))
        page.goto(f"{self.live_server_url}/jobs/{job.pk}/record")
        expect(page.get_by_text("20 mm, assumed").first).to_be_visible()
        self.goto_step("set.align", job=job)
        page.get_by_role("button", name="New readings").click()
        self.open_set_up()
        expect(page.get_by_label("Face: radius of the stem")).to_have_value("48")
        page.get_by_role("button", name=re.compile("^It is so")).click()
        expect(page.get_by_text("assumed")).to_have_count(0)


class HandsTest(BrowserTestCase):
    """Who typed it, and where the next key goes."""

    def test_what_another_person_left_half_typed_says_whose_it_is_and_is_not_thrown_away_unasked(self) -> None:
        page = self.page
        self.goto_step("set.gap")
        page.get_by_role("button", name="New readings").click()
        page.get_by_label("Gap at 12 o’clock").fill("30.11")
        page.get_by_role("button", name="millwright Jorun Thornquist").click()
        page.get_by_role("button", name="Sign out").click()
        page.get_by_label("Name").fill("apprentice")
        page.get_by_label("Password").fill(PASSWORD)
        page.get_by_role("button", name="Sign in").click()
        expect(page.get_by_role("heading", name="Open jobs")).to_be_visible()
        self.goto_step("set.gap")
        expect(page.get_by_text("Typed by Jorun Thornquist, not saved.")).to_be_visible()
        expect(page.get_by_label("Gap at 12 o’clock")).to_have_value("30.11")
        page.get_by_role("button", name="Discard").click()
        expect(page.get_by_text("Jorun Thornquist typed this, and it is not saved. Discard it?")).to_be_visible()
        page.get_by_role("button", name="Keep it").click()
        expect(page.get_by_label("Gap at 12 o’clock")).to_have_value("30.11")
        page.get_by_role("button", name="Discard").click()
        page.get_by_role("button", name="Discard what Jorun Thornquist typed").click()
        expect(page.get_by_text("Typed by")).to_have_count(0)

    def test_after_a_click_on_save_and_go_on_the_next_sheet_has_the_hand_in_its_first_field(self) -> None:
        page = self.page
        work = Work(family="jaw, straight")
        work.until("prepare.fit.driver")
        job = worked("Malt screen", work)
        self.goto_step("prepare.fit.driver", job=job)
        page.get_by_label("shaft at shaft end, across 12-6").fill("48.011")
        page.get_by_label("bore at shaft end, across 12-6").fill("48.029")
        page.get_by_role("button", name="Save and go on").click()
        expect(page.get_by_role("heading", name=re.compile("^Measure and try the key"))).to_be_visible()
        expect(page.get_by_label("Key width")).to_be_focused()
        expect(page.locator("[data-given=shaft_diameter_mm]")).to_contain_text("48.000")
        self.goto_step("prepare.fit.driver", job=job)
        page.get_by_role("button", name="New readings").click()
        expect(page.get_by_label("shaft at machine side, across 12-6")).to_be_focused()

    def test_a_sheet_nobody_has_touched_saves_nothing(self) -> None:
        page = self.page
        work = Work(family="jaw, straight")
        work.until("mount.screw")
        job = worked("Malt screen", work)
        for step in ("mount.screw", "prepare.decide.driver"):
            before = job.entries.count()
            self.goto_step(step, job=job)
            save = page.get_by_role("button", name=re.compile("^Save"))
            self.assertTrue(save.count() == 0 or save.first.is_disabled(), step)
            self.assertEqual(job.entries.count(), before)

    def test_a_wrench_is_chosen_or_typed_and_nothing_of_one_stays_with_the_other(self) -> None:
        page = self.page
        page.goto(f"{self.live_server_url}/benches/tighten")
        page.get_by_label("Bolts").fill("4")
        page.get_by_label("Full torque").fill("100")
        page.get_by_role("button", name=re.compile("Wrench")).first.click()
        page.get_by_role("option", name="Wrench 3").click()
        expect(page.locator("small").get_by_text("calibrated until")).to_be_visible()
        expect(page.get_by_label("Number or name of the wrench")).to_have_count(0)
        page.get_by_role("button", name=re.compile("Wrench 3")).first.click()
        page.get_by_role("option", name="another one, typed in").click()
        expect(page.get_by_label("Number or name of the wrench")).to_have_value("")
        expect(page.get_by_label("Calibrated until")).to_have_value("")
        page.get_by_label("Number or name of the wrench").fill("wrench 3")
        expect(page.get_by_text("wrench 3 is in the register. Choose it")).to_be_visible()


class SignInKeptTest(BrowserTestCase):
    """The first page."""

    def test_what_is_typed_stays_when_the_session_is_asked_for_once_more(self) -> None:
        page = self.open_page()
        answers: list[str] = []
        page.on("response", lambda r: answers.append(r.url) if r.url.endswith("/api/session") else None)
        page.goto(self.live_server_url)
        page.get_by_label("Name").fill("millwright")
        page.get_by_label("Password").fill("half ty")
        with page.expect_response(re.compile("/api/session$")):
            page.evaluate("navigator.serviceWorker.dispatchEvent(new Event('controllerchange'))")
        expect(page.get_by_label("Name")).to_have_value("millwright")
        expect(page.get_by_label("Password")).to_have_value("half ty")


class SignOutTest(StoppableCase):
    """Nobody is signed out without a server, and nobody believes it."""

    def test_without_a_server_signing_out_says_so(self) -> None:
        page = self.page
        page.goto(self.live_server_url)
        expect(page.get_by_role("heading", name="Open jobs")).to_be_visible()
        self.stop_server()
        page.get_by_role("button", name="millwright Jorun Thornquist").click()
        page.get_by_role("button", name="Sign out").click()
        expect(page.get_by_text("You are still signed in here as Jorun Thornquist")).to_be_visible()
