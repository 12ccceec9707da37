"""What every step, check and line of working has to be, whatever it says: nothing missing, no unit nobody knows."""

import json
import re
import unittest
from collections.abc import Iterator, Mapping
from typing import Any, get_args

from millwright.benches.register import BENCHES, as_dict, evaluate_json
from millwright.errors import UnusableInput
from millwright.line import Family
from millwright.plan.compose import scopes
from millwright.plan.families.register import FAMILIES
from millwright.plan.fields import Field, FieldKind
from millwright.plan.procedure import Stop
from millwright.plan.steps import BenchForm, SheetForm, Stage, Step
from millwright.roles import Role

from .dear import dear
from .work import Work, ways_of

KEY = re.compile(r"[a-z][a-z0-9_]*(@[a-z_]+)?")
UNDONE = re.compile(r"off\.|found\.")
STEP = re.compile(r"[a-z]+(\.[a-z_]+)+")
UNITS = {
    "",
    "mm",
    "mm/m",
    "mm/s",
    "°C",
    "K",
    "kg",
    "s",
    "N·m",
    "%",
    "rpm",
    "°",
    "kW",
    "degrees",
    "1 in",
    "in/ft",
    "screws",
    "min",
    "g",
    "l",
    "N",
    "o'clock",
}
PATH = re.compile(r"[a-z0-9_.@ -]*")
# And of every family, where it comes apart.
NO_WAY_BACK = {"mount.loose", "couple.collar", "couple.cover", "off.pop", "backstop.strap"}
MACHINE_MOVES_AT = {"set.soft", "set.gap", "set.straightedge", "set.align"}
# Work that is over its limit and may stand with a lead's reason; locks, heat, the key, the guard and the count never may.
LEAD_MAY_ACCEPT = {
    "receive": "like carried element",
    "backstop": "outer_race",
    "prepare": "ends distance shaft fit taper place flywheel_face flywheel_rim adapter",
    "mount": "hub seat first hot draw clamp true screw screw.second runout rotor centre conductor",
    "set": "soft gap straightedge align gap_spacers",
    "couple": "grease tyre screw flange feet align gap closed sleeve dial numbers second driver_end driven_end "
    "ring_driver bolt_ring true gap_again wrap packs teeth over_halves sleeve arm arm_angle",
    "close": "warm run_in",
    "off": "align new",
    "found": "look align closed sleeve dial",
}
SWITCHES = ("no_return", "moves", "optional", "finding", "may_authorise")


def every_step() -> Iterator[tuple[str, Step]]:
    """Every step of every family, every way of holding a hub, every scope."""
    for i, family in enumerate(get_args(Family)):
        ways = ways_of(family)
        for j, held in enumerate(ways):
            taken = scopes(FAMILIES[family].facts)
            scope = taken[(i + j) % len(taken)]
            work = Work(family=family, held=(held, ways[(j + i) % len(ways)]), scope=scope)
            for now in work.route().steps:
                yield f"{family}, {held}, {scope.value}: {now.step.key}", now.step


class StepsTest(unittest.TestCase):
    """The words and switches of a step."""

    def test_every_step_says_what_to_do_why_and_when(self) -> None:
        for where, step in every_step():
            with self.subTest(where):
                self.assertRegex(step.key, STEP)
                self.assertIsInstance(step.stage, Stage)
                self.assertTrue(step.title and step.why)
                words = (
                    step.title,
                    step.why,
                    step.tool,
                    step.caution,
                    step.on_fail,
                    step.leaves_provisional,
                    step.settled_by,
                )
                self.assertTrue(all(isinstance(word, str) for word in words), words)
                self.assertTrue(all(isinstance(getattr(step, switch), bool) for switch in SWITCHES))
                self.assertTrue(step.hold is None or isinstance(step.hold, Role))
                self.assertTrue(all(STEP.fullmatch(key) for key in (*step.after, *step.once)))
                self.assertTrue(all(KEY.fullmatch(key) for key in (*step.needs, *step.judged_by)))
                self.assertEqual(bool(step.leaves_provisional), bool(step.settled_by))

    def test_what_has_no_way_back_what_moves_a_machine_and_what_a_lead_may_accept(self) -> None:
        of_one_hub = re.compile(r"\.(driver|driven)$")
        steps = [step for _, step in every_step()]
        accepted = {f"{stage}.{what}" for stage, whats in LEAD_MAY_ACCEPT.items() for what in whats.split()}
        for switch, wanted in (("moves", MACHINE_MOVES_AT), ("may_authorise", accepted)):
            on, off = (
                {of_one_hub.sub("", step.key) for step in steps if getattr(step, switch) is state} for state in (True, False)
            )
            self.assertEqual((on, on & off), (wanted, set()), switch)
        for_good = {of_one_hub.sub("", step.key) for step in steps if step.no_return}
        self.assertEqual({key for key in for_good if not UNDONE.match(key)}, NO_WAY_BACK - {"off.pop"})
        self.assertIn("off.pop", for_good)
        for name, family in FAMILIES.items():
            undone = [stop for stop in family.procedure().undo if isinstance(stop, Stop)]
            self.assertEqual(sum(stop.no_return for stop in undone), 1, name)

    def test_every_field_asks_for_something_in_a_unit_people_know(self) -> None:
        for where, step in every_step():
            if not isinstance(step.form, SheetForm):
                continue
            with self.subTest(where):
                fields = (*step.form.fields, *step.form.rows)
                self.assertTrue(fields)
                self.assertEqual(len({field.key for field in fields}), len(fields), "two fields of one name")
                self.assertEqual(bool(step.form.rows), bool(step.form.row_name))
                for field in fields:
                    self.check(field)

    def check(self, field: Field) -> None:
        """One field."""
        self.assertRegex(field.key, KEY)
        self.assertIn(field.kind, get_args(FieldKind))
        self.assertTrue(field.label and isinstance(field.label, str), field.key)
        self.assertIsInstance(field.detail, str)
        self.assertIn(field.unit, UNITS)
        self.assertEqual(field.unit == "mm", field.kind == "length", field.key)
        self.assertEqual(bool(field.options), field.kind in ("choice", "marks"), field.key)
        self.assertIsInstance(field.required, bool)

    def test_what_a_bench_is_given_is_what_it_takes(self) -> None:
        for where, step in every_step():
            if isinstance(step.form, BenchForm):
                with self.subTest(where):
                    takes = set(BENCHES[step.form.bench].input.model_fields)
                    self.assertLessEqual({*step.form.preset, *step.form.compare}, takes)


class ResultsTest(unittest.TestCase):
    """What benches say while jobs of every family come to their end."""

    @dear
    def test_every_check_and_every_line_of_working_is_whole(self) -> None:
        seen: set[str] = set()
        for i, family in enumerate(get_args(Family)):
            ways = ways_of(family)
            work = Work(family=family, held=(ways[i % len(ways)], ways[(i + 3) % len(ways)]))
            work.until(None)
            for made in work.entries:
                if made.kind == "reading":
                    said = work.judged(made)
                    seen.add(said["bench"])
                    with self.subTest(family, step=made.step):
                        self.whole(said)
        self.assertLessEqual(
            {"alignment", "gap", "fit", "key", "heat", "taper", "runout", "tighten", "softfoot", "sheet"}, seen
        )

    def whole(self, said: Mapping[str, Any]) -> None:
        """One result."""
        self.assertTrue(all(isinstance(sentence, str) and sentence for sentence in said["advice"]))
        for check in said["checks"]:
            self.assertTrue(check["name"] and check["source"], check)
            self.assertIn(check["unit"], UNITS)
        for line in said["working"]:
            self.assertTrue(line["what"] and isinstance(line["formula"], str), line)
            self.assertIsInstance(line["numbers"], str)
            self.assertIsInstance(line["value"], int | float)
            self.assertIn(line["unit"], UNITS)

    def test_what_is_refused_is_refused_at_a_place_and_in_a_sentence(self) -> None:
        for name in BENCHES:
            rows: list[dict[str, Any]] = [{}, {"readings": []}, {"feet": [], "dials": [], "planes": [{}]}, {"nonsense": 1}]
            for nonsense in rows:
                with self.subTest(name, given=nonsense):
                    try:
                        as_dict(evaluate_json(name, json.dumps(nonsense)))
                    except UnusableInput as refused:
                        for problem in refused.problems:
                            self.assertTrue(problem.message)
                            self.assertRegex(problem.path, PATH)
