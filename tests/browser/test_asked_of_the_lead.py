"""A millwright asks, the lead decides: what stands on the card of a line, and on the card of a job."""

import re

from playwright.sync_api import expect

from server.plant.models import Line

from .base import BrowserTestCase

KEY = "gap_nominal_mm"


class AskedOfTheLeadTest(BrowserTestCase):
    """From the line's own sheet, and from the card beside a step."""

    def figure(self) -> float:
        return float(Line.objects.get(pk=self.job.line_id).values[KEY]["value"])

    def test_a_figure_of_the_line_waits_for_the_lead(self) -> None:
        was, at = self.figure(), f"{self.live_server_url}/lines/{self.job.line_id}"
        page = self.open_page("millwright")
        page.goto(f"{at}/edit")
        row = page.locator(f"[data-line={KEY}]")
        row.get_by_role("button", name=re.compile("^Ask to change")).click()
        row.get_by_role("textbox").first.fill(str(was * 2))
        row.get_by_role("button", name="Save value").click()
        expect(row.get_by_text("Enter the reason for the change.")).to_be_visible()
        row.get_by_label("Document").fill("Sheet 7")
        row.get_by_label("Changed because").fill("the maker’s new issue")
        row.get_by_role("button", name="Save value").click()
        page.get_by_role("button", name="Save the line").click()
        expect(page.get_by_role("heading", name="Asked of the lead")).to_be_visible()
        expect(page.get_by_text("It waits for the lead")).to_be_visible()
        expect(page.get_by_role("button", name="Change it")).to_be_hidden()
        self.assertEqual(self.figure(), was)
        lead = self.open_page("lead")
        lead.goto(at)
        expect(lead.get_by_text("the maker’s new issue")).to_be_visible()
        lead.get_by_role("button", name="Change it").click()
        expect(lead.get_by_role("heading", name="Asked of the lead")).to_be_hidden()
        expect(lead.get_by_text("the maker’s new issue (asked by Jorun Thornquist)")).to_be_visible()
        self.assertEqual(self.figure(), was * 2)

    def test_a_figure_of_a_jobs_card_is_asked_as_a_question(self) -> None:
        page = self.open_page("millwright")
        self.goto_step("set.gap", page)
        page.get_by_role("button", name="Value card").click()
        row = page.locator(f"[data-line={KEY}]")
        row.get_by_role("button", name=re.compile("^Ask to change")).click()
        row.get_by_role("textbox").first.fill("31")
        row.get_by_label("Document").fill("Sheet 7")
        row.get_by_label("Changed because").fill("the maker’s new issue")
        row.get_by_role("button", name="Save value").click()
        expect(row.get_by_role("textbox")).to_have_count(0)
        page.keyboard.press("Escape")
        expect(page.get_by_text(re.compile("Please change .* to 31 mm .*Sheet 7.* the maker’s new issue"))).to_be_visible()
        self.assertEqual(self.job.entries.latest("number").kind, "question")
