"""A line of one's own whose hubs are held by screws, from the editor to its job's route."""

import re
from pathlib import Path

from playwright.sync_api import expect

from server.jobs.models import Job
from server.plant.models import Line

from .base import BrowserTestCase


class LineEditorTest(BrowserTestCase):
    """What can be said of a line."""

    def pick(self, label: str, option: str, nth: int = 0) -> None:
        """One of a list."""
        self.page.get_by_role("button", name=re.compile(label)).nth(nth).click()
        self.page.get_by_role("option", name=option, exact=True).click()

    def test_values_typed_down_a_column_are_all_on_the_card_and_the_first_wrong_field_has_the_focus(self) -> None:
        page = self.page
        page.goto(f"{self.live_server_url}/lines/new")
        page.get_by_role("button", name=re.compile("values from one document$")).click()
        page.get_by_label("Document").fill("Manual 7")
        page.get_by_label("Soft foot limit").fill("0.05")
        page.get_by_label("Machine foot bolt torque").fill("190")
        page.get_by_role("radiogroup", name="Threads").last.get_by_text("oiled").click()
        page.get_by_role("button", name="Save 2 values").click()
        expect(page.get_by_text("maker's manual: Manual 7")).to_have_count(2)
        target = "Running target: sliding speed at the coupling"
        wide = page.get_by_label(target)
        for field in page.locator("[data-bench] li .line input").all():
            if not field.input_value():
                field.fill("1")
        for threads in page.get_by_role("radiogroup").filter(has_text="oiled").all():
            threads.get_by_text("oiled").click()
        wide.fill(".3 in/s")
        page.get_by_role("button", name=re.compile("^Save .* values")).click()
        expect(page.get_by_role("alert").filter(has_text="not saved yet")).to_be_visible()
        expect(wide).to_have_value(".3 in/s")
        page.get_by_role("button", name="Save the line").click()
        expect(page.get_by_label("Name of the line")).to_be_focused()

    def test_a_line_like_another_one_has_its_card_and_asks_for_what_is_its_own(self) -> None:
        page, line = self.page, self.job.line
        page.goto(f"{self.live_server_url}/lines/{line.pk}")
        page.get_by_role("button", name="New line like this one").click()
        expect(page.get_by_role("heading", name=f"New line like {line.name}")).to_be_visible()
        expect(page.get_by_label("Shaft diameter, mm").first).to_have_value("48")
        page.get_by_role("button", name="Save the line").click()
        expect(page.get_by_label("Name of the line")).to_be_focused()
        page.get_by_label("Name of the line").fill("Steep aeration blower 9")
        page.reload()
        expect(page.get_by_label("Name of the line")).to_have_value("Steep aeration blower 9")
        points = page.get_by_label("Isolated at")
        for nth in range(points.count()):
            expect(points.nth(nth)).to_have_value("")
            points.nth(nth).fill(f"Panel 9, {nth}")
        page.get_by_role("button", name="Save the line").click()
        expect(page.get_by_role("heading", name="Steep aeration blower 9")).to_be_visible()
        new = Line.objects.get(name="Steep aeration blower 9")
        self.assertEqual((new.values, new.spec["driver"]["feet"]), (line.values, line.spec["driver"]["feet"]))
        self.assertEqual([p["point"] for p in new.spec["isolation_points"]][:1], ["Panel 9, 0"])

    def test_a_size_of_the_catalogue_is_found_changed_with_its_history_and_taken_in_from_a_file(self) -> None:
        page = self.open_page("lead")
        page.goto(self.live_server_url)
        page.get_by_role("link", name="Catalogue").click()
        page.get_by_label("Find a size").fill("plov curved")
        page.get_by_role("button", name="Brackwater Plover firkin").click()
        expect(page.get_by_text("Size added")).to_be_visible()
        line = page.locator("[data-line=gap_nominal_mm]")
        line.get_by_role("button", name="Change").click()
        line.get_by_role("textbox", name="Gap between hub faces").fill("31")
        line.get_by_label("Document").fill("Sheet 7")
        line.get_by_label("Changed because").fill("its new issue")
        line.get_by_role("button", name="Save value").click()
        expect(page.get_by_text(re.compile("Gap between hub faces: 30.*→ 31"))).to_be_visible()
        expect(page.get_by_text(re.compile("its new issue"))).to_be_visible()
        page.get_by_label("Find a size").fill("nothing like it")
        expect(page.get_by_text("No size matches.")).to_be_visible()
        page.get_by_role("button", name="Add a size").click()
        page.get_by_role("button", name="Add the size").click()
        expect(page.get_by_text("Enter a name.").or_(page.get_by_text("Enter the series.")).first).to_be_visible()
        page.get_by_label("Series").fill("Brackwater Wren")
        page.get_by_label("Size", exact=True).fill("pin")
        page.get_by_role("button", name="Add the size").click()
        expect(page.get_by_role("heading", name="Brackwater Wren pin")).to_be_visible()
        with page.expect_download() as download:
            page.get_by_role("link", name="CSV").click()
        text = Path(download.value.path()).read_text()
        self.assertIn(",Brackwater Wren,pin,", text)
        wrong = text.replace("gap_nominal_mm,31.0", "gap_nominal_mm,wide")
        more = text.replace("Brackwater Wren,pin", "Brackwater Wren,peg")
        take = page.get_by_label("Catalogue file")
        take.set_input_files({"name": "c.csv", "mimeType": "text/csv", "buffer": wrong.encode()})
        expect(page.get_by_role("alert")).to_contain_text("Nothing was taken in. line")
        take.set_input_files({"name": "c.csv", "mimeType": "text/csv", "buffer": more.encode()})
        expect(page.get_by_text("1 size was taken in.")).to_be_visible()
        page.get_by_label("Find a size").fill("wren peg")
        expect(page.get_by_role("button", name="Brackwater Wren peg")).to_be_visible()

    def test_bush_and_shrink_disc_a_half_key_a_floating_shaft_and_growth_come_out_in_the_route(self) -> None:
        page = self.page
        page.goto(f"{self.live_server_url}/lines/new")
        page.get_by_label("Name of the line").fill("Germinator fan")
        page.get_by_label("Speed, rpm").fill("1470")
        for name in ("Motor", "Fan"):
            page.get_by_label("Name", exact=True).nth(0 if name == "Motor" else 1).fill(name)
        for cell, text in (("Shaft diameter", "60"), ("Hub outside diameter", "130"), ("Hub length", "70")):
            for nth in (0, 1):
                page.get_by_label(re.compile(f"^{cell}")).nth(nth).fill(text)
        for nth in (0, 1):
            page.get_by_label(re.compile("^Coupling to near feet")).nth(nth).fill("300")
            page.get_by_label(re.compile("^Coupling to far feet")).nth(nth).fill("640")
        page.get_by_label(re.compile("^Thermal rise, cold to hot")).first.fill("0.12")
        self.pick("Hub held by", "tapered bush")
        self.pick("Hub held by", "shrink disc", nth=1)
        page.get_by_text("half key", exact=True).nth(1).click()
        page.get_by_text("floats", exact=True).first.click()
        self.pick("Family", "tyre")
        page.get_by_label("Series").fill("Brackwater T")
        page.get_by_label("Size").fill("8")
        expect(page.get_by_text("Not entered. See the bush's or ring's own sheet; or count them.")).to_be_visible()
        page.get_by_label("Energy").first.fill("electric")
        page.get_by_label("Isolated at").first.fill("Fan isolator")
        page.get_by_role("button", name="Save the line").click()
        expect(page.get_by_text("hubs tapered bush and shrink disc")).to_be_visible()
        page.get_by_label("What is to be done").fill("New coupling")
        page.get_by_role("button", name="Start a job").click()
        expect(page.get_by_role("heading", name="Read the documents and dress for the job")).to_be_visible()
        job = Job.objects.get(line__name="Germinator fan")
        keys = [now.step.key for now in job.stand().steps]
        for key in ("mount.snug.driven", "mount.true.driven", "mount.runout.driver", "set.float.driver", "couple.tyre"):
            self.assertIn(key, keys)
        self.assertNotIn("mount.snug.driver", keys)
        self.goto_step("prepare.decide.driven", job=job)
        expect(page.get_by_text("Half key in the shaft's keyway, secured, clear of the bore")).to_be_visible()
        self.goto_step("set.align", job=job)
        page.get_by_role("button", name=re.compile("^Growth")).click()
        expect(page.get_by_text("From the line: motor drive end")).to_be_visible()
