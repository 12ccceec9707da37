"""Every view: nothing serious for somebody who cannot see or hold a mouse, and nothing lost on a narrow screen."""

import re

from django.conf import settings
from playwright.sync_api import Page, expect

from server.plant.models import Line
from tests.site import Member, job_of

from .base import BrowserTestCase
from .geometry import faults
from .words import odd_words

AXE = (settings.ROOT / "web" / "node_modules" / "axe-core" / "axe.min.js").read_text()
SERIOUS = {"serious", "critical"}


class AxeTest(BrowserTestCase):
    """Nothing serious or critical, a test for each kind of view so that they are dealt out."""

    who = "lead"

    def serious(self, page: Page) -> list[str]:
        """What axe finds serious or critical on the page as it stands."""
        page.evaluate(AXE)
        found = page.evaluate("axe.run(document, {resultTypes: ['violations']})")["violations"]
        return [f"{v['id']}: {v['nodes'][0]['html'][:120]}" for v in found if v["impact"] in SERIOUS]

    def look_at(self, *paths: str, heading: str = "main h2") -> None:
        """Each of these addresses, wide and narrow, once there is something on it."""
        for path in paths:
            self.page.goto(f"{self.live_server_url}{path}")
            for width, height in (SIZES[0], SIZES[-1]):
                self.page.set_viewport_size({"width": width, "height": height})
                expect(self.page.locator(heading).locator("visible=true").first).to_be_visible()
                self.assertEqual(self.serious(self.page), [], f"{path} at {width}")

    def test_the_steps_of_a_job(self) -> None:
        steps: tuple[str, ...] = (
            "safe.locks",
            "receive.kit",
            "prepare.fit.driver",
            "prepare.key.driver",
            "set.gap",
            "set.straightedge",
        )
        steps += ("set.align", "couple.feet", "close.sign")
        self.look_at(*(f"/jobs/{self.job.pk}/steps/{step}" for step in steps))

    def test_the_steps_of_other_jobs_and_the_value_card(self) -> None:
        fan, pump = job_of("Kiln fan A").pk, job_of("Chilled-water pump 1").pk
        self.look_at(*(f"/jobs/{fan}/steps/{step}" for step in ("mount.hot.driven", "prepare.heat.driven")))
        self.look_at(*(f"/jobs/{pump}/steps/{step}" for step in ("mount.true.driven", "prepare.clean.driven")))
        self.page.goto(f"{self.live_server_url}/jobs/{self.job.pk}/steps/set.align")
        self.page.get_by_role("button", name="Value card").click()
        expect(self.page.get_by_role("dialog", name="Value card")).to_be_visible()
        self.assertEqual(self.serious(self.page), [], "value card")

    def test_the_quick_benches(self) -> None:
        self.look_at("/benches", *(f"/benches/{name}" for name in ("runout", "tighten", "heat", "taper")), heading="main")

    def test_what_is_due_rounds_history_reasons_and_instruments(self) -> None:
        history = "/lines/{}/history".format(Line.objects.get(name="Malt crusher").pk)
        self.look_at("/due", "/rounds", history, "/reasons")
        self.look_at("/instruments", heading="main li")
        self.look_at("/benches/wear", heading="main")

    def test_floor_line_editor_and_record(self) -> None:
        line, closed = self.job.line_id, job_of("Steep aeration blower 2", closed=True).pk
        self.look_at(f"/lines/{line}", f"/lines/{line}/edit", "/lines/new", f"/jobs/{closed}/record")
        self.look_at("/catalogue?series=Brackwater+Plover&size=firkin")
        self.look_at("/nowhere", heading="main p")
        self.look_at("/", heading="h2")


SIZES = ((1280, 800), (1024, 768), (820, 1180), (390, 844))  # the last one narrow: what folds is looked at there


class HandAndEyeTest(BrowserTestCase):
    """At every size, with gloves and without: what is aimed at is as large as a finger, what is read is read whole."""

    who = "lead"

    def measure(self, *paths: str) -> None:
        """Each of these addresses at four sizes, in mm, and for gloves on an inch sheet, where figures are longer."""
        page = self.page
        for path in paths:
            page.goto(f"{self.live_server_url}{path}")
            expect(page.locator("main :is(h2, h3, button, a)").first).to_be_visible()
            page.evaluate("document.fonts.ready.then(() => true)")
            with self.subTest(path=path):
                self.assertEqual(odd_words(page), [])
            for gloves in (False, True):
                page.get_by_label("Unit of the sheet").get_by_text("inch" if gloves else "mm", exact=True).click()
                page.evaluate("on => { document.documentElement.dataset.gloves = on }", "on" if gloves else "off")
                for width, height in SIZES:
                    page.set_viewport_size({"width": width, "height": height})
                    page.evaluate("new Promise(done => requestAnimationFrame(() => requestAnimationFrame(done)))")
                    with self.subTest(path=path, width=width, gloves=gloves):
                        self.assertEqual(faults(page, gloves=gloves), [])

    def test_the_steps_of_a_job(self) -> None:
        steps: tuple[str, ...] = (
            "safe.locks",
            "receive.kit",
            "prepare.fit.driver",
            "prepare.key.driver",
            "set.soft",
            "set.gap",
        )
        steps += ("set.straightedge", "set.align", "couple.feet", "close.sign")
        self.measure(*(f"/jobs/{self.job.pk}/steps/{step}" for step in steps))

    def test_the_steps_of_other_jobs(self) -> None:
        looked = {
            "Kiln fan A": ("prepare.heat.driven", "mount.hot.driven"),
            "Drum turner": ("prepare.taper.driver",),
            "Chilled-water pump 1": ("mount.true.driven",),
            "Induced-draught fan": ("set.align",),
            "Barley elevator": ("backstop.way_again", "backstop.hold"),
            "Malt auger 3": ("couple.nuts",),
        }
        self.measure(*(f"/jobs/{job_of(name).pk}/steps/{step}" for name, steps in looked.items() for step in steps))

    def test_what_is_due_rounds_history_reasons_and_instruments(self) -> None:
        crusher = Line.objects.get(name="Malt crusher").pk
        self.measure("/due", "/rounds", f"/rounds?line={crusher}", "/reasons", "/instruments", "/benches/wear")
        self.measure(f"/lines/{crusher}", f"/lines/{crusher}/history")

    def test_floor_line_editor_record_and_quick_benches(self) -> None:
        line, closed = self.job.line_id, job_of("Steep aeration blower 2", closed=True).pk
        self.measure("/", f"/lines/{line}", f"/lines/{line}/edit", f"/jobs/{closed}/record", "/benches")
        self.measure("/catalogue?series=Brackwater+Plover&size=firkin", "/catalogue?new")
        self.measure(*(f"/benches/{name}" for name in ("runout", "tighten", "grease", "gap", "alignment", "backstop")))

    def test_a_line_with_six_pairs_of_feet_and_long_names(self) -> None:
        line = self.job.line
        driver = {
            **line.spec["driver"],
            "name": "Compressor drive motor 11000",
            "feet": [{"name": f"foundation pad {10001 + i}", "from_coupling_mm": 300.0 + 900 * i} for i in range(6)],
        }
        name = "Compressor at the far end of the malt house"
        own = Line.objects.create(site=line.site, name=name, spec={**line.spec, "driver": driver}, values=line.values)
        _, job = Member("lead").ask("POST", f"/api/jobs/of-line/{own.pk}", {"title": "New coupling"})
        steps = (f"/jobs/{job['id']}/steps/{step}" for step in ("set.soft", "set.align", "safe.locks"))
        self.measure(f"/lines/{own.pk}", f"/lines/{own.pk}/edit", *steps)


class ViewsTest(BrowserTestCase):
    """Narrow screens, and a line of one's own."""

    who = "lead"
    starts_on_the_floor = True

    def test_on_a_small_tablet_nothing_is_cut_off_sideways(self) -> None:
        for width in (1024, 700):
            self.page.set_viewport_size({"width": width, "height": 768})
            for path in ("/", f"/jobs/{self.job.pk}/steps/set.align", f"/jobs/{self.job.pk}/steps/safe.locks"):
                self.page.goto(f"{self.live_server_url}{path}")
                expect(self.page.locator("h2").first).to_be_visible()
                too_wide = self.page.evaluate("document.documentElement.scrollWidth - innerWidth")
                self.assertLessEqual(too_wide, 0, f"{path} at {width}")

    def test_verdict_and_main_action_stay_in_sight_at_every_size_and_the_route_opens_over_the_sheet(self) -> None:
        page, steps = self.page, f"{self.live_server_url}/jobs/{self.job.pk}/steps"
        for width, height in SIZES:
            page.set_viewport_size({"width": width, "height": height})
            for step in ("set.align", "safe.locks", "prepare.fit.driver", "set.gap"):
                page.goto(f"{steps}/{step}")
                expect(page.get_by_label("Verdict").get_by_role("heading", level=2)).to_be_visible()
                for what in ("h2", "button"):
                    box = page.get_by_label("Verdict").locator(what).first.bounding_box()
                    assert box is not None
                    at = f"{step} at {width}: {what} {box}"
                    self.assertGreaterEqual(box["y"], 0, at)
                    self.assertLessEqual(box["y"] + box["height"], height, at)
                    self.assertLessEqual(box["x"] + box["width"], width, at)
                    if what == "button":
                        self.assertGreaterEqual(box["height"], 44, at)
        route = page.get_by_role("button", name=re.compile("^5 Set & align"))
        expect(page.get_by_role("link", name=re.compile("^Align the motor"))).to_be_hidden()
        route.click()
        page.get_by_role("link", name=re.compile("^Align the motor")).click()
        expect(page.get_by_role("heading", level=2, name="Align the motor")).to_be_visible()
        expect(page.get_by_role("link", name=re.compile("^Align the motor"))).to_be_hidden()
        lift = page.get_by_role("button", name=re.compile("Checks and working"))
        working = page.get_by_label("Verdict").get_by_role("button", name="Working", exact=True)
        expect(working).to_be_hidden()
        lift.click()
        expect(working).to_be_visible()

    def test_a_line_of_ones_own_follows_the_figures_and_is_saved(self) -> None:
        page = self.page
        page.keyboard.press("n")
        page.get_by_label("Name of the line").fill("Cooling blower")
        page.get_by_role("button", name="Save the line").click()
        expect(page.get_by_role("alert")).to_contain_text("fields need attention")
        page.get_by_label("Speed, rpm").fill("1460")
        page.get_by_label("Name", exact=True).nth(1).fill("Blower")
        for side in (0, 1):
            for label, text in (
                ("Shaft diameter", "1 7/8 in"),
                ("Hub outside diameter", "105"),
                ("Hub length", "60"),
                ("Coupling to near feet", "300"),
                ("Coupling to far feet", "600"),
            ):
                page.get_by_label(f"{label}, mm").nth(side).fill(text)
        drawn = page.get_by_role("img", name="Motor and Blower to scale along the shaft")
        near, far = (page.get_by_label(f"Coupling to {which} feet, mm") for which in ("near", "far"))
        middle = [[cell.nth(side).bounding_box() for side in (0, 1)] for cell in (near, far)]
        across = [box["x"] for pair in zip(*middle, strict=True) for box in pair if box]
        self.assertEqual(sorted(across), [across[1], across[0], across[2], across[3]])  # each on its dimension line
        page.set_viewport_size({"width": 820, "height": 1180})
        expect(drawn.get_by_text("300").first).to_be_visible()
        expect(page.get_by_label("Coupling to far feet, mm").first).to_have_value("600")
        page.set_viewport_size({"width": 1280, "height": 800})
        page.get_by_label("Isolated at").fill("Panel 4")
        page.get_by_label("Series").fill("Brackwater Plover")
        page.get_by_label("Size").fill("90")
        page.get_by_role("button", name="Save the line").click()
        expect(page.get_by_role("heading", name="Cooling blower")).to_be_visible()
        expect(page.get_by_text("47.6").first).to_be_visible()
