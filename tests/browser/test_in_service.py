"""A coupling checked in service against what was left, and a move watched with the laser."""

import json
import random
import re
from contextlib import redirect_stdout
from io import StringIO
from typing import ClassVar

from django.utils import timezone
from playwright.sync_api import expect

from millwright.line import LineSpec
from millwright.model import read_json
from millwright.rig.machine import Gauge
from millwright.scope import Scope
from millwright.tests.work import Work
from scripts.gateway import Gateway
from scripts.laser import Pair, sweep_once, watch_a_slide
from server.accounts.models import Membership
from server.demo import build, lines, pump
from server.jobs.actions.start_job import start_job
from server.jobs.models import Job
from server.plant.actions import save_line
from tests.site import PASSWORD
from tests.worked import registered

from .base import ENTER, BrowserTestCase, tap

PUMP = "Chilled-water pump 1"
PLACES = ("12 o’clock", "3 o’clock", "6 o’clock", "9 o’clock")


class PumpCase(BrowserTestCase):
    """A pump like the demo's, aligned with the laser last spring, with its coupling closed."""

    scope: ClassVar[Scope]
    until: ClassVar[str]

    def prepare(self) -> None:
        lead, millwright = (Membership.objects.get(site=self.job.site, role=role) for role in ("lead", "millwright"))
        spec = read_json(LineSpec, json.dumps(lines.LINES[PUMP]))
        line = save_line(by=lead, line_id=None, version=0, name="Pump 2", spec=spec, values=lines.VALUES[PUMP])
        now = timezone.now()
        build.align_with_the_laser(line, millwright, lead, now)
        self.pump: Job = start_job(line, by=lead, title="Again", now=now, scope=self.scope)
        build.Work(self.pump, millwright, lead, now, told=pump.LAST_SPRING).until(self.until)


class InServiceTest(PumpCase):
    """Checked, its coupling closed."""

    scope = Scope.CHECK
    until = "found.closed"

    def fill_end(self, end: str, *values: str) -> None:
        """Gaps at one end of the spacer."""
        self.fill_ring(end, dict(zip(PLACES, values, strict=True)))

    def test_both_ends_are_measured_and_held_against_each_other_and_against_what_was_left(self) -> None:
        page, said = self.page, self.page.get_by_label("Verdict")
        self.goto_step("found.closed", job=self.pump)
        self.fill_end("Motor end", "11.80", "11.75", "11.70", "11.75")
        expect(said.get_by_text("three places or more, pump end")).to_be_visible()
        self.fill_end("Pump end", "11.30", "11.30", "11.30", "11.30")
        expect(self.verdict()).to_have_text("Out of tolerance.")
        expect(said.get_by_text("the spacer sits 0.22 mm too near the pump end")).to_be_visible()
        # 11.51 and 11.49 were left in the spring
        expect(said.get_by_text("Since it was left the gap has changed by +0.24 mm")).to_be_visible()
        self.fill_end("Motor end", "11.55", "11.50", "11.50", "11.50")
        self.fill_end("Pump end", "11.48", "11.50", "11.5x", "11.50")
        expect(page.get_by_role("button", name=ENTER)).to_be_disabled()
        self.fill_end("Pump end", "11.48", "11.50", "11.50", "11.50")
        expect(said.get_by_text("As it was left, as near as the readings show (pump end)")).to_be_visible()
        page.get_by_role("button", name=ENTER).click()
        expect(page.get_by_text("Entered so far")).to_be_visible()
        page.reload()
        expect(page.get_by_label("Pump end at 12 o’clock")).to_have_value("11.48")
        entry = self.pump.entries.get(step="found.closed")
        self.assertEqual((entry.inputs["ends"], entry.result["verdict"]), (["motor end", "pump end"], "inside"))

    def test_a_line_without_an_open_job_can_be_checked_from_its_page_and_a_hanging_drive_cannot_be_aligned(self) -> None:
        registered("Husk elevator", Work(family="shaft-mounted reducer"))
        page = self.open_page("lead")
        for name, offered in (("Roller mill", True), ("Husk elevator", False)):
            page.goto(self.live_server_url)
            page.get_by_text(name).first.click()
            expect(page.get_by_text("check it", exact=True)).to_be_visible()
            self.assertEqual(page.get_by_text("align it", exact=True).count(), int(offered))
        page.get_by_label("What is to be done").fill("Looked at after a knock")
        page.get_by_text("check it", exact=True).click()
        page.get_by_role("button", name="Start a job").click()
        expect(page.get_by_role("heading", name="Read the documents and dress for the job")).to_be_visible()
        expect(page.get_by_role("button", name="As found")).to_be_visible()
        expect(page.get_by_role("button", name="Mount hubs")).to_have_count(0)


class WatchedMoveTest(PumpCase):
    """Found over its limits, its coupling closed."""

    scope = Scope.ALIGN
    until = "set.align"

    def test_the_move_is_watched_with_the_laser_until_every_foot_is_there(self) -> None:
        # Calm heads: what is shown last has to be "there", not only what a poll happened to catch on the way.
        calm = Gauge(resolution_mm=0.001, scatter_mm=0.001)
        page, pair = self.page, Pair(from_coupling_mm=240, gauge=calm, chance=random.Random(8))
        self.goto_step("set.align", job=self.pump)
        gateway = Gateway(self.live_server_url, "millwright", PASSWORD)
        self.open_set_up()
        page.get_by_role("radiogroup", name="Method").get_by_text("Laser").click()
        page.get_by_label("Plane on the movable shaft: from coupling").fill("240")
        page.get_by_label("Plane on the stationary shaft: from coupling").fill("240")
        page.get_by_role("button", name="Take a sweep from the laser").click()
        expect(page.get_by_text("waiting for the instrument")).to_be_visible()
        with redirect_stdout(StringIO()):
            sweep_once(gateway, self.pump.line.name, pair, 200.0, 60, 0.0)
        expect(page.get_by_text(re.compile("120 readings over 200°"))).to_be_visible()
        page.get_by_role("button", name="Sweep is done").click()
        page.get_by_role("button", name=ENTER).click()
        page.get_by_role("button", name="Record the move").click()
        slip = page.get_by_role("dialog", name="Record what was moved")
        slip.get_by_role("button", name="Watch the move with the laser").click()
        expect(slip.get_by_text("Waiting for the laser.")).to_be_visible()
        with redirect_stdout(StringIO()):
            watch_a_slide(gateway, self.pump.line.name, pair, 0.0)
        expect(slip.get_by_text("there", exact=True)).to_have_count(2)
        slip.get_by_label("motor tail, slide").fill("0")
        expect(slip.get_by_text(re.compile(r"0\.0\d mm to go toward 9"))).to_be_visible()

    def test_shims_that_lie_under_a_foot_are_counted_into_the_stack(self) -> None:
        page = self.page
        self.goto_step("set.align", job=self.pump)
        self.open_set_up()
        page.get_by_role("radiogroup", name="Method").get_by_text("Rim & face").click()
        self.fill_ring("Rim", dict(zip(PLACES, ("0", "0", "-0.60", "-0.60"), strict=True)))
        self.fill_ring("Face", dict.fromkeys(PLACES, "0"))
        expect(page.get_by_label("Verdict").get_by_text("Motor tail: take out 0.30")).to_be_visible()
        page.get_by_role("button", name=re.compile("^Room and shims")).click()
        page.get_by_label("motor tail, shims under it now").fill("0.50 0,30 x")
        expect(page.get_by_text("“x” is no thickness")).to_be_visible()
        page.get_by_label("motor tail, shims under it now").fill("0.50 0,30")
        expect(page.get_by_label("Verdict").get_by_text("then 0.50 mm under it")).to_be_visible()


class LookTest(PumpCase):
    """The guard off: what is seen, and whether the coupling is opened."""

    scope = Scope.ALIGN
    until = "found.look"

    def test_opened_it_is_put_together_again_by_its_own_steps_and_what_is_found_broken_is_the_lead_s(self) -> None:
        page, rail = self.page, self.page.get_by_role("navigation", name="Route")
        self.goto_step("found.look", job=self.pump)
        expect(rail.get_by_text("Sling the spacer")).to_be_hidden()
        for shape in ("Flat", "Wavy", "Bowed open"):
            expect(page.get_by_role("img", name=re.compile(f"^{shape}"))).to_be_visible()
        tap(page.get_by_role("checkbox", name="Guard off"))
        page.get_by_label("Guard screws, put into a marked box").fill("8")
        for what in ("Coupling: no cracks", "Both packs look flat", "Bolts and set screws", "Feet, shims and base"):
            page.get_by_role("radiogroup", name=re.compile(f"^{what}")).get_by_text("OK", exact=True).click()
        page.get_by_role("radiogroup", name=re.compile("^Both packs")).get_by_text("Not OK").click()
        page.get_by_text("is opened", exact=True).click()
        page.get_by_role("button", name=re.compile("^Save( unfinished)?$")).click()
        expect(self.verdict()).to_have_text("Not in order.")
        expect(page.get_by_label("Verdict").get_by_text("A damaged part is a job of its own")).to_be_visible()
        expect(page.get_by_role("button", name="Accept with this reason")).to_have_count(0)
        page.get_by_role("radiogroup", name=re.compile("^Both packs")).get_by_text("OK", exact=True).click()
        page.get_by_role("button", name=re.compile("^Save( unfinished)?$")).click()
        expect(self.verdict()).to_have_text("Done.")
        expect(rail.get_by_text("Sling the spacer")).to_be_visible()
        page.get_by_role("button", name="Couple up").click()
        expect(rail.get_by_text("Torque the close-fit bolts, driver end")).to_be_visible()
