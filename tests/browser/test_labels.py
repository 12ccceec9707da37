"""Every label that carries a sign, a side or a direction: typed as it says, judged as it says, in mm and in inch."""

import re
from dataclasses import dataclass, field

from playwright.sync_api import Error as PlaywrightError
from playwright.sync_api import Locator, expect

from server.plant.models import Line

from .base import BrowserTestCase

CLOCKS = ("12 o’clock", "3 o’clock", "6 o’clock", "9 o’clock")


@dataclass(frozen=True, kw_only=True)
class Row:
    """What is typed by its label on a quick bench, in mm and in inch, what is chosen, and what has to be said of it."""

    bench: str
    typed: dict[str, tuple[str, str]]
    chosen: dict[str, str] = field(default_factory=dict)
    set_up: bool = False
    says: str
    never: str = ""


def ring(name: str, *readings: tuple[str, str]) -> dict[str, tuple[str, str]]:
    """A reading at 12, 3, 6 and 9."""
    return {f"{name} at {clock}": reading for clock, reading in zip(CLOCKS, readings, strict=True)}


def alike(*texts: str) -> tuple[tuple[str, str], ...]:
    """Figures that are typed alike in both units."""
    return tuple((text, text) for text in texts)


def gaps(mm: str, inch: str) -> dict[str, tuple[str, str]]:
    """The same gap all round, where 3 plus or minus 0.4 is wanted."""
    limits = {"Measured on diameter": ("160", "6.3"), "Specified gap": ("3", ".12"), "plus or minus": ("0.4", ".015")}
    return {**ring("Gap", *[(mm, inch)] * 4), **limits}


ZERO = ring("Rim", *alike("0", "0", "0", "0")) | ring("Face", *alike("0", "0", "0", "0"))
SLIP = {"Min. clearance": ("0.005", ".0002"), "Max. clearance": ("0.045", ".0018")}
GRIP = {"Min. interference": ("0.02", ".0008"), "Max. interference": ("0.06", ".0024")}
SHAFT, BORE = "shaft at shaft end, across 12-6", "bore at shaft end, across 12-6"
LOOSE = {SHAFT: ("48.000", "1.8898"), BORE: ("48.020", "1.8906")}
TIGHT = {SHAFT: ("48.040", "1.8914"), BORE: ("48.000", "1.8898")}
FEET = {"Coupling to near feet": ("300", "12"), "Coupling to far feet": ("600", "24")}
DIALS = {**FEET, "Face: radius of the stem": ("50", "2")}
# The stem is pressed in at the bottom, so the shaft it touches lies low: half of 0.40.
LOW = {
    **ring("Rim", ("0", "0"), ("0.20", ".008"), ("0.40", ".016"), ("0.20", ".008")),
    **ring("Face", *alike("0", "0", "0", "0")),
}
ROWS = (
    Row(bench="fit", typed={**LOOSE, **SLIP}, says="Slip fit."),
    Row(bench="fit", typed={**TIGHT, **SLIP}, says="Not the specified fit."),
    Row(bench="fit", typed={**TIGHT, **GRIP}, says="Shrink fit."),
    Row(bench="fit", typed={**LOOSE, **GRIP}, says="Not the specified fit."),
    Row(
        bench="fit",
        typed={**TIGHT, "Max. clearance": ("0.01", ".0004"), "Max. interference": ("0.06", ".0024")},
        says="Shrink fit.",
    ),
    Row(bench="fit", typed={**LOOSE, "Max. clearance": ("0.045", ".0018")}, says="Enter both ends of the fit"),
    Row(bench="fit", typed={**LOOSE, **SLIP, "Max. clearance": ("-0.045", "-.0018")}, says="are plus figures"),
    Row(bench="gap", typed=gaps("3.3", ".13"), says="Within tolerance"),
    Row(bench="gap", typed=gaps("2.5", ".1"), says="Out of tolerance."),
    Row(bench="alignment", typed={**LOW, **DIALS}, set_up=True, says=" low and ", never=" high and "),
    Row(
        bench="alignment",
        typed={**LOW, **DIALS},
        chosen={"Plus on these dials is the stem pushed": "out"},
        set_up=True,
        says=" high and ",
        never=" low and ",
    ),
    # What a bracket hangs by at 6 it shows where nothing is out of line: taken off, nothing is left.
    Row(
        bench="alignment",
        typed={
            **ZERO,
            **ring("Rim", ("0", "0"), ("-0.02", "-.001"), ("-0.04", "-.002"), ("-0.02", "-.001")),
            **DIALS,
            "Rim: bracket sag at 6": ("-0.04", "-.002"),
        },
        set_up=True,
        says="is 0.00",
    ),
    Row(
        bench="alignment",
        typed={
            **FEET,
            "Movable shaft is high by": ("-0.30", "-.012"),
            "Movable shaft is toward 3 by": ("0.10", ".004"),
            "and rises away from the coupling by": ("0", "0"),
            "and runs toward 3 away from it by": ("0", "0"),
        },
        chosen={"Method": "From a display"},
        set_up=True,
        says=r" low and 0\.\d+ (mm|in) toward 3",
    ),
    Row(
        bench="straightedge",
        typed={
            **ring("Feeler", ("0.30", ".012"), ("0", "0"), ("0", "0"), ("0", "0")),
            "Hub diameter, stationary": ("105", "4.1"),
            "Hub diameter, movable": ("105", "4.1"),
        },
        says="low",
        never="high",
    ),
)


class LabelsTest(BrowserTestCase):
    """By hand, reading the label."""

    who = "lead"

    def cell(self, label: str) -> Locator:
        """The cell of a label, whatever unit stands behind it."""
        return self.page.get_by_role("textbox", name=re.compile(rf"^{re.escape(label)}(, |$)"))

    def test_what_is_typed_by_its_label_is_judged_as_the_label_says(self) -> None:
        page, otherwise = self.page, []
        for in_inches, unit in enumerate(("mm", "inch")):
            page.goto(f"{self.live_server_url}/benches")
            page.get_by_role("radiogroup", name="Unit of the sheet").get_by_text(unit).click()
            for row in ROWS:
                try:
                    self.type_and_hear(row, in_inches)
                except (AssertionError, PlaywrightError) as fault:
                    otherwise.append(f"{unit}, {row}: {fault}")
        self.assertEqual(otherwise, [])

    def type_and_hear(self, row: Row, in_inches: int) -> None:
        """On the quick bench of that row."""
        page = self.page
        page.goto(f"{self.live_server_url}/benches/{row.bench}")
        expect(page.get_by_label("Verdict")).not_to_be_empty()
        if page.get_by_role("button", name="Clear the sheet").count():
            page.get_by_role("button", name="Clear the sheet").click()
        if row.set_up:
            self.open_set_up()
        for group, option in row.chosen.items():
            page.get_by_role("radiogroup", name=group).get_by_text(option, exact=True).click()
        for label, texts in row.typed.items():
            self.cell(label).fill(texts[in_inches])
        said = page.get_by_label("Verdict")
        expect(said).to_contain_text(re.compile(row.says))
        if row.never:
            expect(said).not_to_contain_text(re.compile(row.never))

    def test_a_card_typed_by_its_labels_holds_what_they_say(self) -> None:
        page, line = self.page, self.job.line
        for unit, texts, held in (
            ("mm", ("0.008", "0.030"), (0.008, 0.030)),
            ("inch", (".0005", ".0020"), (0.0127, 0.0508)),
        ):
            page.goto(f"{self.live_server_url}/lines/{line.pk}/edit")
            page.get_by_role("radiogroup", name="Unit of the sheet").get_by_text(unit, exact=True).click()
            for key, label, text in zip(
                ("clearance_max_mm", "clearance_min_mm"), ("Max. clearance", "Min. clearance"), texts[::-1], strict=True
            ):
                row = page.locator(f"[data-line={key}]")
                row.get_by_role("button", name=f"Change {label}").click()
                row.get_by_role("textbox", name=label).fill(text)
                row.get_by_label("Document").fill("Drawing of the hub")
                row.get_by_label("Changed because").fill("measured")
                row.get_by_role("button", name="Save value").click()
                expect(row).to_contain_text(text.rstrip("0"))
                expect(row).not_to_contain_text("−")
            page.get_by_role("button", name="Save the line").click()
            expect(page.get_by_role("heading", name=line.name, exact=True, level=1)).to_be_visible()
            card = Line.objects.get(pk=line.pk).card
            self.assertEqual((card["clearance_min_mm"].value, card["clearance_max_mm"].value), held)

    def test_a_least_above_its_most_is_refused_and_both_lines_are_named(self) -> None:
        page, line = self.page, self.job.line
        page.goto(f"{self.live_server_url}/lines/{line.pk}/edit")
        row = page.locator("[data-line=clearance_min_mm]")
        for unit, text, said in (
            ("mm", "0.05", "Min. clearance, 0.05 mm, has to be less than Max. clearance, 0.045 mm."),
            ("inch", ".0025", "Min. clearance, 0.0025 in, has to be less than Max. clearance, 0.00177 in."),
            ("inch", "-.0005", "Min. clearance is a plus figure."),
        ):
            page.get_by_role("radiogroup", name="Unit of the sheet").get_by_text(unit, exact=True).click()
            row.get_by_role("button", name="Change Min. clearance").click()
            row.get_by_role("textbox", name="Min. clearance").fill(text)
            row.get_by_label("Document").fill("Drawing of the hub")
            row.get_by_label("Changed because").fill("measured")
            row.get_by_role("button", name="Save value").click()
            page.get_by_role("button", name="Save the line").click()
            expect(page.get_by_role("alert").get_by_text(said)).to_be_visible()
            expect(row).to_contain_text(said)
            expect(row.get_by_role("button", name="Change Min. clearance")).to_be_focused()
