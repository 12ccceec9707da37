"""Years after: what is due is done or put off, a round is walked without a network, a label is scanned, a line is told."""

import re
from datetime import timedelta
from typing import Any

from django.utils import timezone
from playwright.sync_api import Locator, expect

from millwright.scope import Scope
from server.accounts.models import Membership
from server.demo.build import Work
from server.jobs.models import Job
from server.plant.models import Line, LineLook
from tests.site import Member

from .base import BrowserTestCase, tap, until
from .test_dead_network import StoppableCase

CRUSHER, DRUM, MILL = "Malt crusher", "Drum turner", "Roller mill"


class DueTest(BrowserTestCase):
    """The list of what is due."""

    who = "lead"

    def row(self, name: str, what: str) -> Locator:
        """One thing on the list."""
        return self.page.get_by_role("listitem").filter(has_text=f"{name}: {what}")

    def test_a_short_job_is_started_from_the_list_and_moves_the_next_day(self) -> None:
        page = self.page
        page.goto(f"{self.live_server_url}/due")
        row = self.row(MILL, "grease it")
        expect(row).to_contain_text("every 6 months")
        before = row.locator(".day").inner_text()
        row.get_by_role("button", name="Start a job").click()
        slip = page.get_by_role("dialog", name=MILL)
        expect(slip.get_by_role("checkbox", name=re.compile("^Grease it"))).to_be_checked()
        tap(slip.get_by_role("checkbox", name=re.compile("^Pull the bolts again")))
        expect(slip.get_by_label("What is to be done")).to_have_value("Greased, bolts pulled again")
        slip.get_by_role("button", name="Start the job").click()
        expect(page.get_by_role("heading", name="Read the documents and dress for the job")).to_be_visible()
        job = Job.objects.get(line__name=MILL, closed_at=None)
        self.assertEqual((job.scope, job.tasks), (Scope.UPKEEP, ["grease it", "pull the bolts again"]))
        lead, millwright = (Membership.objects.get(user__username=name) for name in ("lead", "millwright"))
        Work(job, millwright, lead, timezone.now()).until(None)
        page.goto(f"{self.live_server_url}/due")
        expect(self.row(MILL, "grease it").locator(".day")).not_to_have_text(before)
        expect(self.row(MILL, "grease it")).to_contain_text(f"job {job.number}")

    def test_the_lead_puts_it_off_and_the_reason_is_read_beside_it(self) -> None:
        page = self.page
        page.goto(f"{self.live_server_url}/due")
        page.get_by_role("button", name=f"Put off: {DRUM}, grease it").click()
        slip = page.get_by_role("dialog")
        slip.get_by_label("Until").fill("2020-01-01")
        slip.get_by_label("Reason").fill("barley first")
        slip.get_by_role("button", name="Put it off").click()
        expect(slip.get_by_text("Choose a day that is still to come")).to_be_visible()
        later = timezone.localdate() + timedelta(days=12)
        slip.get_by_label("Until").fill(later.isoformat())
        slip.get_by_role("button", name="Put it off").click()
        expect(slip).to_be_hidden()
        expect(self.row(DRUM, "grease it")).to_contain_text("in 12 days")
        expect(self.row(DRUM, "grease it")).to_contain_text("put off by Ansa Pellwright: barley first")

    def test_an_address_for_the_calendar_is_shown_once(self) -> None:
        page = self.page
        page.goto(f"{self.live_server_url}/due")
        page.get_by_role("button", name="In my calendar").click()
        mine = page.get_by_role("dialog").locator("section").filter(has_text="My address")
        mine.get_by_role("button", name="Make an address").click()
        address = mine.get_by_label("The address, shown this once").input_value()
        answer = self.open_page().request.get(address)
        self.assertIn("BEGIN:VCALENDAR", answer.text())
        mine.get_by_role("button", name="Revoke it").click()
        expect(mine.get_by_text("None yet.")).to_be_visible()
        self.assertEqual(self.open_page().request.get(address).status, 404)


class RoundTest(StoppableCase):
    """A walk through the hall."""

    def stop(self, name: str) -> None:
        """The sheet of that line is open."""
        expect(self.page.get_by_role("heading", name=name, level=2)).to_be_visible()

    def test_it_is_walked_with_the_network_dead_and_arrives_when_it_is_back(self) -> None:
        page = self.page
        page.goto(f"{self.live_server_url}/rounds")
        self.stop(CRUSHER)
        before = LineLook.objects.count()
        self.stop_server("/api/rounds")
        page.reload()
        self.stop(CRUSHER)
        tap(page.get_by_role("radio", name="none"))
        tap(page.get_by_role("radio", name="as usual", exact=True))
        page.get_by_label("Wear mark, by strobe").fill("5.7")
        page.get_by_role("button", name="Save and on to the next").click()
        self.stop(MILL)
        tap(page.get_by_role("radio", name="sweats"))
        page.get_by_role("button", name="Save and on to the next").click()
        expect(page.get_by_text("Not sent yet: 2. Kept on this device.")).to_be_visible()
        page.reload()
        expect(page.get_by_text("Not sent yet: 2. Kept on this device.")).to_be_visible()
        self.assertEqual(LineLook.objects.count(), before)
        self.start_server()
        expect(page.get_by_text("Not sent yet: 2. Kept on this device.")).to_be_hidden()
        until(lambda: LineLook.objects.count() == before + 2, page)
        looks = {look.line.name: look for look in LineLook.objects.select_related("line").order_by("-entered_at")[:2]}
        self.assertEqual((looks[CRUSHER].wear_mm, looks[CRUSHER].leaks, looks[CRUSHER].noise), (5.7, "none", "as usual"))
        self.assertEqual((looks[MILL].leaks, looks[MILL].by), ("sweats", "Jorun Thornquist"))
        page.goto(f"{self.live_server_url}/due")
        expect(page.get_by_role("listitem").filter(has_text=f"{MILL}: seen on the round")).to_contain_text("leaks: sweats")

    def test_a_mark_that_goes_back_is_asked_about_and_what_was_typed_is_kept(self) -> None:
        page = self.page
        line = Line.objects.get(name=CRUSHER)
        page.goto(f"{self.live_server_url}/rounds?line={line.pk}")
        page.get_by_label("Unit of the sheet").get_by_text("inch").click()
        page.get_by_label("Wear mark, by strobe").fill("0.15")
        page.get_by_role("button", name="Save and on to the next").click()
        expect(page.get_by_text("does not grow back")).to_be_visible()
        expect(page.get_by_text("Wear was 0.0")).to_be_visible()
        expect(page.get_by_label("Wear mark, by strobe")).to_have_value("0.15")
        page.get_by_role("button", name="It is as read").click()
        self.stop(MILL)
        self.assertAlmostEqual(line.looks.latest("entered_at").wear_mm or 0, 3.81)
        self.assertEqual(line.looks.latest("entered_at").typed, {"wear_mm": "0.15 in"})


class LineTest(BrowserTestCase):
    """What a line has been through, and its label."""

    who = "lead"

    def test_the_label_scanned_by_its_address_opens_the_line_with_what_is_due_and_as_it_was_left(self) -> None:
        page = self.page
        line = Line.objects.get(name=CRUSHER)
        answer = page.request.get(f"{self.live_server_url}/api/labels/{line.pk}.svg")
        address = re.search(r"https?://[^<\s]+", answer.text().split("<title>")[1])
        assert address is not None
        page.set_viewport_size({"width": 820, "height": 1180})
        page.goto(address[0])
        expect(page.get_by_role("heading", name=CRUSHER, level=1)).to_be_visible()
        expect(page.get_by_text("coupling, offset")).to_be_visible()
        expect(page.get_by_role("listitem").filter(has_text="Look it over:")).to_contain_text("late")
        expect(page.get_by_text(re.compile("^Wear at the mark: limit reached .* to "))).to_be_visible()
        page.get_by_role("button", name="Do what is due").click()
        expect(page.get_by_role("checkbox", name=re.compile("^Look it over"))).to_be_checked()
        page.keyboard.press("Escape")
        page.get_by_role("button", name=re.compile("^Start a job: Malt crusher, look it over")).wait_for()

    def test_its_history_draws_the_trend_and_lays_two_jobs_side_by_side(self) -> None:
        page = self.page
        line = Line.objects.get(name=CRUSHER)
        page.goto(f"{self.live_server_url}/lines/{line.pk}/history")
        wear = page.get_by_role("region", name="Wear at the mark")
        expect(wear.get_by_role("img", name=re.compile("The limit is reached between"))).to_be_visible()
        wear.get_by_role("button", name=re.compile("readings in figures")).click()
        expect(wear.get_by_role("row").nth(1)).to_contain_text("round")
        expect(page.get_by_text("lot 31, scrap, and marked so")).to_be_visible()
        rows = page.get_by_role("table").last.get_by_role("row")
        expect(rows.filter(has_text="Torque the ring screws")).to_contain_text("50")
        page.get_by_label("File of readings").set_input_files(
            {"name": "old.csv", "mimeType": "text/csv", "buffer": b"at,wear_mm,wear_in\n2020-01-01,3,0.1\n"}
        )
        expect(page.get_by_role("alert")).to_contain_text("two units")

    def test_a_look_that_was_a_slip_is_taken_out_by_keys_and_stays_struck_through(self) -> None:
        page, line = self.page, Line.objects.get(name=CRUSHER)
        page.goto(f"{self.live_server_url}/lines/{line.pk}/history")
        page.get_by_role("button", name="It was a slip").first.press("Enter")
        expect(page.get_by_label("What went wrong")).to_be_focused()
        page.keyboard.type("read at the mill")
        page.keyboard.press("Tab")
        page.keyboard.press("Enter")
        expect(page.get_by_text("read at the mill")).to_be_visible()
        expect(page.locator("s")).to_have_count(1)
        expect(page.get_by_role("button", name="Take it out")).to_be_hidden()
        self.assertEqual(line.looks.count() - line.looks.counting().count(), 1)

    def test_readings_typed_with_their_days_say_when_the_limit_is_reached(self) -> None:
        page = self.page
        page.goto(f"{self.live_server_url}/benches/wear")
        today = timezone.localdate()
        for i, figure in enumerate(("1.0", "1.5", "2.0", "2.5"), start=1):
            page.get_by_label(f"Day {i}").fill((today - timedelta(days=400 - 100 * i)).isoformat())
            page.get_by_label(f"Reading {i}, mm").fill(figure)
        page.get_by_label("Limit, at most, mm").fill("4")
        expect(self.verdict()).to_have_text("Below its limit.")
        expect(page.get_by_text(re.compile("^(The limit is reached between|Not before) "))).to_be_visible()
        page.get_by_label("Day 4").fill((today + timedelta(days=2)).isoformat())
        expect(page.get_by_text("has not come yet")).to_be_visible()

    def test_an_instrument_that_is_withdrawn_is_not_offered_any_more(self) -> None:
        page = self.page

        def offered() -> list[str]:
            register: Any = Member("lead").get("/api/instruments/wrenches").json()
            return [one["name"] for one in register if one["usable"]]

        self.assertEqual(offered(), ["Wrench 3"])
        page.goto(f"{self.live_server_url}/instruments")
        page.get_by_role("button", name="Withdraw Wrench 3").click()
        page.get_by_label("Reason").fill("dropped from the crane")
        page.get_by_role("button", name="Withdraw it").click()
        expect(page.get_by_text(re.compile("by .*: dropped from the crane"))).to_be_visible()
        self.assertEqual(offered(), [])
        page.get_by_role("button", name="Wrench 5: back from calibration").click()
        page.get_by_label("Calibrated until").fill((timezone.localdate() + timedelta(days=300)).isoformat())
        page.get_by_role("button", name="Put it back in use").click()
        expect(page.get_by_role("listitem").filter(has_text="Wrench 5")).to_contain_text("in 10 months")
        self.assertEqual(offered(), ["Wrench 5"])
