"""Takes the pictures in docs/screenshots/ from the demo data; run by ./anvil shots, not found by the test run."""

import re

from django.conf import settings
from playwright.sync_api import expect

from millwright.tests.work import Work
from server.plant.models import Line
from tests.site import job_of
from tests.worked import worked

from .base import FACE, RIM, BrowserTestCase

FOLDER = settings.ROOT / "docs" / "screenshots"
SETTLED_MS = 400


class Shots(BrowserTestCase):
    """One picture a main view, 1280x800; the one most used upright as well."""

    def shot(self, name: str, path: str) -> None:
        """Go there, wait, take it."""
        if path:
            self.page.goto(f"{self.live_server_url}{path}")
        expect(self.page.locator("h2, main li").first).to_be_visible()
        self.page.wait_for_timeout(SETTLED_MS)
        self.page.screenshot(path=FOLDER / f"{name}.png")

    def test_take_them(self) -> None:
        """All of them, in the order of the README."""
        steps = f"/jobs/{self.job.pk}/steps"
        closed = job_of("Steep aeration blower 2", closed=True).pk
        self.shot("floor", "/")
        self.shot("benches", "/benches")
        self.shot("catalogue", "/catalogue?series=Brackwater+Plover&size=firkin")
        self.shot("line-editor", f"/lines/{self.job.line_id}/edit")
        self.shot("fit", f"{steps}/prepare.fit.driver")
        fan, drum = (job_of(name).pk for name in ("Kiln fan A", "Drum turner"))
        self.shot("heat", f"/jobs/{fan}/steps/prepare.heat.driven")
        self.shot("taper", f"/jobs/{drum}/steps/prepare.taper.driver")
        self.shot("tighten", f"/jobs/{closed}/steps/couple.feet")
        self.draw_in()
        self.shot("record", f"/jobs/{closed}/record")
        self.page.goto(f"{self.live_server_url}{steps}/set.align")
        self.page.get_by_role("button", name="New readings").click()
        self.fill_ring("Rim", RIM)
        self.fill_ring("Face", FACE)
        expect(self.verdict()).to_have_text("Misaligned: move the motor.")
        self.to_top()
        self.shot("align", "")
        self.page.set_viewport_size({"width": 820, "height": 1180})
        self.shot("align-upright", "")
        self.page.set_viewport_size({"width": 1280, "height": 800})
        self.shot("backstop", f"/jobs/{job_of('Barley elevator').pk}/steps/backstop.way_again")
        self.page.get_by_role("button", name="Screen").click()
        self.shot("airgap", f"/jobs/{job_of('Induced-draught fan').pk}/steps/set.align")
        self.page.get_by_role("button", name="Screen").click()
        self.soft_foot()
        self.kept()

    def draw_in(self) -> None:
        """Close-fit bolts, half of them through."""
        work = Work(family="disc, three-part")
        work.until("couple.draw_driver_end")
        self.page.goto(f"{self.live_server_url}/jobs/{worked('Chilled-water pump 4', work).pk}/steps/couple.draw_driver_end")
        following = self.page.get_by_role("button", name=re.compile(r"^Hole \d+: "))
        for _ in range(20):
            said = following.inner_text()
            following.click()
            expect(self.page.get_by_role("button", name=said, exact=True)).to_have_count(0)
        self.shot("couple-up", "")

    def to_top(self) -> None:
        """The head of the sheet in view again."""
        self.page.get_by_role("button", name="Note").scroll_into_view_if_needed()
        self.page.mouse.move(600, 400)
        self.page.mouse.wheel(0, -5000)
        self.page.wait_for_timeout(SETTLED_MS)

    def soft_foot(self) -> None:
        """One foot soft, felt at its corners."""
        self.page.goto(f"{self.live_server_url}/jobs/{self.job.pk}/steps/set.soft")
        self.page.get_by_role("button", name="New readings").click()
        for side, rise in {"drive end, 9": "0.02", "drive end, 3": "0.01", "tail, 9": "0.03", "tail, 3": "0.18"}.items():
            self.page.get_by_label(f"Rise, motor {side} side").fill(rise)
        for corner, air in {"near, 9": "0.06", "near, 3": "0.14", "far, 3": "0.18", "far, 9": "0.07"}.items():
            self.page.get_by_label(f"{corner} o’clock side").fill(air)
        expect(self.verdict()).to_have_text("Soft foot: motor tail, 3 side.")
        self.shot("softfoot", "")

    def kept(self) -> None:
        """What is due, the years of a line, what repeats, and a stop of a round on an upright tablet."""
        crusher = Line.objects.get(name="Malt crusher").pk
        self.shot("due", "/due")
        self.page.goto(f"{self.live_server_url}/lines/{crusher}/history")
        self.page.get_by_role("region", name="Wear at the mark").evaluate("el => el.scrollIntoView()")
        self.shot("history", "")
        self.shot("reasons", "/reasons")
        self.page.set_viewport_size({"width": 820, "height": 1180})
        self.page.goto(f"{self.live_server_url}/rounds?line={crusher}")
        self.page.get_by_text("none", exact=True).click()
        self.page.get_by_text("as usual", exact=True).click()
        self.page.get_by_label("Wear mark, by strobe").fill("5.6")
        self.shot("round", "")
        self.page.set_viewport_size({"width": 1280, "height": 800})
