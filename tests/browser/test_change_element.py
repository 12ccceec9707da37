"""The element changed with both hubs on: started from the line, the old pack counted out, the new one in, to the record."""

from typing import ClassVar

from playwright.sync_api import expect

from millwright.scope import Scope
from millwright.tests.work import Work
from tests.worked import registered

from .base import ENTER, sign, tap
from .test_couple_up import CoupleUpCase


class ChangeTheElementTest(CoupleUpCase):
    """A single pack: nothing but the pack comes off."""

    family, at = "disc, single pack", "off.old"
    scope: ClassVar[Scope] = Scope.ELEMENT

    def test_the_old_pack_is_scrap_the_new_one_goes_in_and_one_reading_stands_for_the_alignment(self) -> None:
        page, said = self.page, self.page.get_by_label("Verdict")
        self.goto_step("off.old", job=self.own)
        page.get_by_label("Number, batch or marking on it").fill("K 7")
        self.sheet("Count the old pack out, and look at what it ran on", Packs_out="2")
        expect(said.get_by_text("Packs out, whole: 2 of 1").first).to_be_visible()
        page.get_by_label("Packs out").fill("1")
        page.get_by_role("button", name="Save", exact=True).click()
        self.go_on()
        page.get_by_label("Number, batch or marking on the new one").fill("k 7")
        self.sheet("Hold the new pack against the old")
        expect(said.get_by_text("k 7 was counted out of this line as scrap. It does not go in again.")).to_be_visible()
        page.get_by_label("Number, batch or marking on the new one").fill("K 8")
        page.get_by_role("button", name="Save", exact=True).click()
        self.go_on()
        self.moved_or_not()
        self.sheet("Put the pack on the first flange")
        self.go_on()
        self.pull("Torque the bolts of the first flange", passes=3)
        self.go_on()
        self.sheet("Bolt the second flange")
        self.go_on()
        self.pull("Torque the bolts of the second flange", passes=3)
        self.go_on()
        self.sheet("Look at the pack")
        self.go_on()
        self.heading("Measure the width of the pack all round")
        self.ring("gap at", "30.00")
        page.get_by_role("button", name=ENTER).click()
        self.go_on()
        expect(page.get_by_text("Foot bolts")).to_have_count(0)  # no foot was slackened
        self.close_out(Guard_screws_back="4")
        self.start("runs smoothly")
        self.go_on()
        record = self.sign_and_read()
        self.assertIn("scrap, and marked so", record)
        self.assertNotIn("Torque the feet", record)

    def moved_or_not(self) -> None:
        """Moved, it is all read anew; not moved, the millwright signs for it and nothing of it is asked."""
        page = self.page
        self.heading("Say whether a machine was moved")
        tap(page.get_by_role("radio", name="yes"))
        page.get_by_role("button", name="Save", exact=True).click()
        expect(page.get_by_label("Verdict").get_by_text("Say in a few words why a machine was moved.")).to_be_visible()
        expect(page.get_by_role("button", name="Set & align")).to_be_visible()
        tap(page.get_by_role("radio", name="no", exact=True))
        page.get_by_role("button", name="Save", exact=True).click()
        sign(page, "millwright")
        self.go_on()

    def test_it_is_offered_where_something_can_be_changed_with_both_hubs_on(self) -> None:
        registered("Husk elevator", Work(family="shaft-mounted reducer"))
        page = self.page = self.open_page("lead")
        for name, offered in (("Husk elevator", 0), ("Sluice winch", 0), ("Roller mill", 1)):
            page.goto(self.live_server_url)
            page.get_by_text(name).first.click()
            expect(page.get_by_text("check it", exact=True)).to_be_visible()
            expect(page.get_by_text("change the element", exact=True)).to_have_count(offered)
        page.get_by_label("What is to be done").fill("New grid")
        page.get_by_text("change the element", exact=True).click()
        page.get_by_role("button", name="Start a job", exact=True).click()
        self.heading("Read the documents and dress for the job")
        expect(page.get_by_role("button", name="Take off")).to_be_visible()
        expect(page.get_by_role("button", name="Prepare")).to_have_count(0)
