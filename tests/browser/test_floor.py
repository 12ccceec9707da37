"""The floor, lines of one's own, quick benches and what is set once for the sheet."""

import json
import re
import tempfile
from pathlib import Path

from playwright.sync_api import expect

from server.jobs.models import Job
from server.plant.models import Line
from tests.forger import made_to_fit
from tests.site import PASSWORD, Member

from .base import ENTER, BrowserTestCase, tap


class FloorTest(BrowserTestCase):
    """A line for each family, four with a job in hand."""

    who = "lead"
    starts_on_the_floor = True

    def test_finds_by_line_coupling_and_job_and_filters_to_what_waits(self) -> None:
        page = self.page
        rows = page.get_by_role("button", name=re.compile("^(Carry on with|Open) [A-Z]"))
        expect(rows).to_have_count(17)
        expect(page.get_by_role("button", name=re.compile(", key [0-9]$"))).to_have_count(9)
        page.keyboard.press("/")
        for text, names in (("kiln", 1), ("gear", 2), ("aeration job 2", 1), ("no such line", 0)):
            page.get_by_role("searchbox").fill(text)
            expect(rows).to_have_count(names)
        page.get_by_role("searchbox").fill("")
        page.get_by_role("button", name=re.compile("^Open jobs")).click()
        expect(rows).to_have_count(9)
        Member("apprentice").enter(self.job, "set.gap", {"text": "Is 30.4 good enough?"}, "question")
        page.reload()
        page.get_by_role("button", name=re.compile("^Questions to the lead")).click()
        expect(rows).to_have_count(1)

    def test_a_number_key_opens_the_line_it_stands_beside(self) -> None:
        name = self.page.get_by_role("button", name=re.compile(", key 1$")).get_attribute("aria-label") or ""
        self.page.keyboard.press("1")
        expect(
            self.page.get_by_role("heading", level=1, name=name.removeprefix("Carry on with ").split(",")[0])
        ).to_be_visible()

    def test_a_job_read_in_from_a_file_stands_on_a_line_of_its_own_and_counts_once_a_lead_takes_it_over(self) -> None:
        written = Member("lead").get(f"/api/records/{self.job.pk}/json").json()
        text = json.dumps({**written, "line": "Borrowed blower"})
        ids = [written["id"], *(fact["id"] for fact in [*written["entries"], *written["signatures"]])]
        for i, old in enumerate(ids):
            text = text.replace(old, f"00000000-0000-4000-8000-{i:012d}")
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "job.json"
            path.write_text(json.dumps(made_to_fit(json.loads(text))))
            self.page.locator("input[type=file]").set_input_files(path)
            expect(self.page.get_by_role("heading", name="Borrowed blower")).to_be_visible()
        read_in = Job.objects.get(line__name="Borrowed blower")
        self.assertEqual(read_in.entries.count(), self.job.entries.count())
        self.page.get_by_role("link", name="To the job").click()
        expect(self.page.get_by_text("Nothing goes by it until a lead takes it over")).to_be_visible()
        self.page.get_by_role("link", name="Read its record").click()
        expect(self.page.get_by_text("Nobody has taken it over: nothing here goes by it.")).to_be_visible()
        for password, said in (("wrong", "This is not your password."), (PASSWORD, "Taken over by Ansa Pellwright")):
            self.page.get_by_label("Your password").fill(password)
            self.page.get_by_role("button", name="Take this job over").click()
            expect(self.page.get_by_text(said).first).to_be_visible()
        expect(self.page.get_by_role("button", name="Take this job over")).to_be_hidden()

    def test_a_shrunk_hub_asks_for_its_own_values_and_a_job_on_it_begins(self) -> None:
        page = self.page
        page.goto(f"{self.live_server_url}/lines/{self.job.line_id}/edit")
        expect(page.get_by_text("Max. clearance")).to_be_visible()
        expect(page.get_by_text("Max. hub temperature")).to_be_hidden()
        line = Line.objects.create(
            site=self.job.site,
            name="Steep aeration blower 4",
            spec={**self.job.spec, "coupling": {**self.job.spec["coupling"], "driver_hub": self.shrunk()}},
            values=self.job.line.values,
        )
        page.goto(f"{self.live_server_url}/lines/{line.pk}/edit")
        expect(page.get_by_text("Max. hub temperature")).to_be_visible()
        page.goto(f"{self.live_server_url}/lines/{line.pk}")
        page.get_by_label("What is to be done").fill("Motor hub shrunk on")
        page.get_by_role("button", name="Start a job").click()
        page.get_by_role("button", name="Prepare", exact=False).first.click()
        expect(page.get_by_role("link", name=re.compile("Calculate the heat, motor hub"))).to_be_visible()

    def shrunk(self) -> dict[str, object]:
        """The motor's hub, shrunk on."""
        return {**self.job.spec["coupling"]["driver_hub"], "connection": "keyed, interference"}


class SheetTest(BrowserTestCase):
    """What is set once: unit, gloves, light; and stays."""

    def test_unit_gloves_and_light_stay_through_a_reload_and_change_no_value(self) -> None:
        page = self.page
        self.goto_step("set.gap")
        tap(page.get_by_role("radio", name="inch"))
        page.get_by_role("button", name="Big buttons").click()
        page.get_by_role("button", name="Screen").click()
        page.reload()
        expect(page.get_by_label("Gap at 12 o’clock, in")).to_have_value("1.1976")
        cell = page.get_by_label("Gap at 12 o’clock, in").bounding_box()
        assert cell is not None
        self.assertGreaterEqual(cell["height"], 56)
        expect(page.locator("[data-hall=dim]").first).to_be_attached()
        tap(page.get_by_role("radio", name="mm"))
        expect(page.get_by_label("Gap at 12 o’clock, mm")).to_have_value("30.42")
        expect(page.get_by_role("button", name=ENTER)).to_be_hidden()


class QuickTest(BrowserTestCase):
    """Benches without a job: the same screens, limits typed beside them."""

    starts_on_the_floor = True

    def test_gap_is_judged_by_the_limits_typed_beside_it_and_kept_through_a_reload(self) -> None:
        page = self.page
        page.keyboard.press("b")
        page.get_by_role("link", name=re.compile("^Gap")).click()
        self.fill_ring("Gap", {"12 o’clock": "3.2", "3 o’clock": "3.0", "6 o’clock": "2.8", "9 o’clock": "3.0"})
        page.get_by_label("Measured on diameter").fill("160")
        expect(self.verdict()).to_have_text("Read. No limit to judge by.")
        page.get_by_label("Specified gap").fill("3")
        page.get_by_label("plus or minus").fill("0.2")
        expect(self.verdict()).to_have_text("Within tolerance.")
        page.get_by_label("Largest spread").fill("0.3")
        expect(self.verdict()).to_have_text("Out of tolerance.")
        page.reload()
        expect(self.verdict()).to_have_text("Out of tolerance.")
        page.get_by_role("button", name="Clear the sheet").click()
        expect(self.verdict()).to_have_text("Not read yet.")

    def test_heat_says_what_is_wrong_where_it_was_typed(self) -> None:
        page = self.page
        page.goto(f"{self.live_server_url}/benches/heat")
        for label, text in {
            "Bore, cold, mm": "75",
            "Interference, largest, mm": "0.08",
            "Sliding clearance when hot, mm": "0.04",
            "Hub outside, mm": "70",
            "Hub length, mm": "90",
            "Shaft temperature, °C": "70 F",
            "Air temperature, °C": "20",
            "Max. hub temperature, °C": "180",
        }.items():
            page.get_by_label(label).fill(text)
        expect(page.get_by_text("The bore is no smaller than the hub is outside.")).to_be_visible()
        page.get_by_label("Hub outside, mm").fill("130")
        expect(self.verdict()).to_have_text(re.compile(r"Heat the hub to 1\d\d °C\."))
        page.get_by_label("Max. temperature of an element left inside, °C").fill("90")
        expect(self.verdict()).to_have_text("Too hot for this hub.")
        expect(page.get_by_text("Take the elastomer out of the hub first")).to_be_visible()
        page.get_by_label("Shaft temperature, °C").fill("lukewarm")
        expect(page.get_by_text("Enter degrees: 166, or 330 F.")).to_be_visible()
