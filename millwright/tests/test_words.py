"""What is typed, what is asked on sheets, and how a record says it."""

import json
import unittest
from collections.abc import Mapping
from dataclasses import replace
from pathlib import Path
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from millwright.benches.register import in_order
from millwright.clock import ClockReading
from millwright.csv_readings import read_csv, write_csv
from millwright.errors import UnusableInput
from millwright.figures_in_words import lines, say_figure
from millwright.keep.summary import Read, summary
from millwright.line import LineSpec
from millwright.model import read_json
from millwright.plan import sheet
from millwright.plan.families.register import FAMILIES
from millwright.plan.fields import Field
from millwright.plan.steps import JobFacts, SheetForm, Stage, Step
from millwright.say import Figure, mm, say
from millwright.units import read_temperature_c
from millwright.verdict import Result, Verdict
from millwright.written import figure_in

from .readings import SLIP
from .work import Work

FORM = SheetForm(
    fields=(
        Field(key="done", kind="tick", label="Done"),
        Field(key="part", kind="condition", label="Part"),
        Field(key="way", kind="choice", label="Way", options=("up", "down")),
        Field(key="until", kind="date", label="Until"),
        Field(key="far_mm", kind="length", label="How far", unit="mm"),
        Field(key="words", kind="text", label="Words", required=False),
    ),
    rows=(Field(key="lock", kind="text", label="Lock"), Field(key="who", kind="text", label="Who")),
    row_name="lock",
)
STEP = Step(key="x", stage=Stage.RECEIVE, title="X", why="", form=FORM, on_fail="Put it right first.")
JOB = JobFacts(line=Work().line, family=FAMILIES["jaw, curved"].facts, card={})
FULL: dict[str, Any] = {
    "done": True,
    "part": "ok",
    "way": "up",
    "until": "2027-01-31",
    "far_mm": 3.0,
    "rows": [{"lock": "L1", "who": "A"}],
}


def read_sheet(form: SheetForm, answers: Mapping[str, Any]) -> Result:
    """What such a sheet says to these answers."""
    return sheet.evaluate(STEP, form, answers, JOB)


class SheetTest(unittest.TestCase):
    """Complete, in order, or refused where it was typed."""

    def test_complete_only_when_everything_wanted_is_there(self) -> None:
        self.assertEqual(read_sheet(FORM, FULL).verdict, Verdict.NOT_JUDGED)
        for key in ("done", "part", "way", "until", "far_mm", "rows"):
            with self.subTest(key):
                less = {k: v for k, v in FULL.items() if k != key}
                self.assertEqual(read_sheet(FORM, less).verdict, Verdict.INCOMPLETE)
        half = {**FULL, "rows": [{"lock": "L1", "who": "  "}]}
        self.assertIn("who of lock 1", " ".join(read_sheet(FORM, half).advice))

    def test_a_part_that_is_not_ok_is_over_and_says_what_to_do(self) -> None:
        found = read_sheet(FORM, {**FULL, "part": "not ok"})
        self.assertEqual(found.verdict, Verdict.OVER)
        self.assertEqual(found.advice, ["Part is not in order.", "Put it right first."])

    def test_none_is_a_word_where_words_are_asked_and_wants_a_reason_only_where_it_can_be_chosen(self) -> None:
        self.assertEqual(read_sheet(FORM, {**FULL, "words": "none"}).verdict, Verdict.NOT_JUDGED)
        key = Field(key="key", kind="tick", label="Key in", none_of="no key on this taper")
        keyed = replace(FORM, fields=(key, *FORM.fields))
        self.assertEqual(read_sheet(keyed, {**FULL, "key": "none"}).verdict, Verdict.INCOMPLETE)
        said = {**FULL, "key": "none", "key_why": "none made", "words": "none"}
        self.assertEqual(read_sheet(keyed, said).verdict, Verdict.NOT_JUDGED)

    def test_nonsense_is_named_by_its_place_all_of_it_at_once(self) -> None:
        nonsense = {
            "done": "yes",
            "part": "fine",
            "way": "sideways",
            "until": "31.1.2027",
            "far_mm": "far",
            "words": "x" * 401,
            "misspelt": 1,
            "rows": [{"lock": "L1", "tag": "T"}],
        }
        with self.assertRaises(UnusableInput) as caught:
            read_sheet(FORM, nonsense)
        paths = {p.path for p in caught.exception.problems}
        self.assertEqual(paths, {*nonsense, "rows.0.tag"} - {"rows"})
        for length in (True, float("nan"), 1e9):
            with self.assertRaises(UnusableInput):
                read_sheet(FORM, {**FULL, "far_mm": length})


class LineTest(unittest.TestCase):
    """What a line may not be."""

    def test_names_every_place_that_cannot_be(self) -> None:
        good = Work().line.model_dump(mode="json")
        rows: dict[str, dict[str, Any]] = {
            "two feet at one place": {"driver": {**good["driver"], "feet": [
                {"name": "a", "from_coupling_mm": 300}, {"name": "b", "from_coupling_mm": 300.5}]}},
            "one name twice": {"driver": {**good["driver"], "feet": [
                {"name": "a", "from_coupling_mm": 300}, {"name": "a", "from_coupling_mm": 600}]}},
            "moved without feet": {"movable": "driven"},
            "no speed": {"speed_rpm": 0},
            "a negative shaft": {"driver": {**good["driver"], "shaft_diameter_mm": -48}},
            "an unknown family": {"coupling": {**good["coupling"], "family": "rope"}},
        }  # fmt: skip
        for why, wrong in rows.items():
            with self.subTest(why), self.assertRaises(UnusableInput):
                read_json(LineSpec, json.dumps({**good, **wrong}))
        self.assertEqual(read_json(LineSpec, json.dumps(good)), Work().line)

    def test_a_hub_that_slides_is_the_second_one_wherever_the_moved_machine_stands(self) -> None:
        self.assertEqual(Work(held=(SLIP, "keyed, interference")).line.hub("driven").slides, False)


class TypedTest(unittest.TestCase):
    """Temperatures and files as people write them."""

    def test_reads_both_temperature_scales(self) -> None:
        rows = {"166": 166.0, "212 F": 100.0, "-40f": -40.0, "20 °C": 20.0, "21,5": 21.5, "hot": None, "": None, "1/2": None}
        self.assertEqual({text: read_temperature_c(text) for text in rows}, rows)

    @settings(max_examples=60)
    @given(st.lists(st.tuples(st.floats(0, 359.9), st.floats(-5, 5)), min_size=1, max_size=30))
    def test_readings_come_back_from_csv_to_the_last_digit(self, pairs: list[tuple[float, float]]) -> None:
        readings = [ClockReading(clock=c, value_mm=v) for c, v in pairs]
        self.assertEqual(read_csv(write_csv(readings).encode()), readings)

    def test_a_file_with_one_bad_line_is_refused_whole_and_every_bad_line_named(self) -> None:
        with self.assertRaises(UnusableInput) as caught:
            read_csv(b"clock,value_mm\n0,0.1\n90,high\n180,nan\n270,0.2\n900,0.1\n")
        self.assertEqual([p.path for p in caught.exception.problems], ["line 3", "line 4", "line 6"])


class RecordWordsTest(unittest.TestCase):
    """Figures in a record."""

    def test_every_figure_is_told_by_its_place_with_its_unit(self) -> None:
        dial = {"kind": "rim", "sag_mm": -0.02, "readings": [{"clock": 180, "value_mm": 0.6}]}
        rows: list[tuple[dict[str, Any], list[tuple[str, str]]]] = [
            ({"dials": [dial]}, [("rim sag", "−0.02 mm"), ("rim 6 o'clock", "0.6 mm")]),
            ({"pulls": [{"pass": 2, "bolt": 3, "torque_nm": 95.0}]}, [("pass 2, bolt 3", "95 N·m")]),
            (
                {"shaft_mm": [48.01], "shaft_at": [{"station": "middle", "across": "3-9"}]},
                [("shaft, middle, 3-9", "48.01 mm")],
            ),
            (
                {"readings": [{"clock": 90, "feeler_mm": 0.1, "on": "movable"}]},
                [("3 o'clock over the movable hub", "0.1 mm")],
            ),
            ({"shaft_c": 21.0, "heater": {"power_kw": 4.5}}, [("shaft", "21 °C"), ("heater power", "4.5 kW")]),
            ({"seated": True, "note": ""}, [("seated", "yes")]),
        ]
        for inputs, wanted in rows:
            with self.subTest(wanted[0][0]):
                self.assertEqual([(label, str(text)) for _, label, text in lines(inputs)], wanted)

    def test_a_name_with_braces_in_it_is_a_name(self) -> None:
        for name in ("foot }", "{ foot", "}{", "{by}", "{foot}"):
            said = str(say("left", "{name}: {more} left", name=name, more=mm(0.5)))
            self.assertEqual(said, f"{name}: 0.50 mm left")

    def test_figures_carry_a_true_minus_and_the_places_their_unit_deserves(self) -> None:
        rows = {
            (-0.0123, "mm"): "−0.012 mm",
            (4.36, "mm/m"): "0.436 mm/100",
            (25, "N·m"): "25.0 N·m",
            (82.8125, "%"): "82.812 %",
        }
        self.assertEqual({key: str(say_figure(*key)) for key in rows}, rows)

    def test_inputs_stand_in_the_benchs_own_order_and_what_it_no_longer_takes_stays_as_it_is(self) -> None:
        shuffled = {"bore_mm": [48.0], "shaft_mm": [48.1]}
        self.assertEqual(list(in_order("fit", shuffled)), ["shaft_mm", "bore_mm"])
        old = {"bore_mm": [48.0], "gone": 1}
        self.assertIs(in_order("fit", old), old)

    def test_the_head_of_a_record_follows_position_from_first_to_last_and_takes_bolts_by_their_last_pass(self) -> None:
        def check(name: str, value: float, used: float) -> dict[str, Any]:
            return {
                "name": name,
                "value": value,
                "unit": "mm",
                "min": None,
                "max": 1.0,
                "used": used,
                "status": "inside",
                "source": "s",
            }

        def read(title: str, bench: str, *checks: dict[str, Any]) -> Read:
            step = Step(key=title, stage=Stage.SET, title=title, why="", form=SheetForm())
            return Read(step=step.key, title=step.title, result={"bench": bench, "checks": list(checks)})

        found = summary(
            [
                read("align", "alignment", check("offset", 0.4, 0.9)),
                read("feet", "tighten", check("pass 1", 95, 0.9), check("pass 2", 190, 0.1)),
                read("align again", "alignment", check("offset", 0.02, 0.1)),
                read("fit", "fit", check("tightest", 0.1, 0.2), check("loosest", 0.2, 0.7)),
            ]
        )
        self.assertEqual(
            [(line.what, line.found, line.left["value"]) for line in found],
            [("Offset", 0.4, 0.02), ("Feet", None, 190), ("Fit", None, 0.2)],
        )


class FiguresTest(unittest.TestCase):
    """Figures of sentences, by the table that the sheet's own reader is held to as well."""

    def test_each_reads_as_the_table_says(self) -> None:
        table = json.loads((Path(__file__).resolve().parents[2] / "tests" / "figures.json").read_text())
        for row in table["figures"]:
            self.assertEqual(str(Figure(**row["figure"])), row["text"])
            for unit in ("mm", "in"):
                self.assertEqual(figure_in(Figure(**row["figure"]), unit), row[unit])
