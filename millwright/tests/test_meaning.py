"""What a reading is of stays with it, whatever its step is called."""

import re
import unittest
from datetime import date, timedelta
from functools import cache
from pathlib import Path
from typing import Any, get_args

from millwright.card.values import Source, Value
from millwright.job.entry import EntryKind
from millwright.job.formerly import formerly
from millwright.keep.due import RULES, due
from millwright.keep.due_kinds import DueKind
from millwright.keep.past import Entered, KeptLine, Look, PastJob, Read
from millwright.keep.series import series_of
from millwright.keep.told import told
from millwright.line import Family
from millwright.meaning import Of, When, kept
from millwright.plan.compose import scopes
from millwright.plan.families.register import FAMILIES
from millwright.plan.upkeep import renewed_by, tasks_of
from millwright.scope import Scope, Task

from .dear import dear
from .work import Work

ROOT = Path(__file__).parents[2]
LEFT_OUT = (".test.ts", ".test.tsx", ".pyc", "schema.d.ts")
SOURCE = Source(kind="sample", document="Trial sheet")
INTERVALS = {
    "retorque_hours": 500.0,
    "retorque_months": 12.0,
    "grease_months": 12.0,
    "inspection_months": 12.0,
    "first_inspection_months": 3.0,
    "round_days": 7.0,
    "play_months": 6.0,
    "closed_check_months": 12.0,
    "alignment_months": 24.0,
    "packing_days": 30.0,
    "packing_total_deg": 40.0,
    "oil_months": 12.0,
    "wear_limit_mm": 3.0,
    "twist_limit_mm": 3.0,
}


@cache
def done(family: str, scope: Scope) -> Work:
    """A job of that family to its end; of upkeep with all that can be done on it."""
    way = "tapered wedge" if family == "screw-conveyor drive" else "keyed, slip fit"
    tasks = tasks_of(Work(family=family, held=(way, way)).line) if scope is Scope.UPKEEP else ()
    work = Work(family=family, held=(way, way), scope=scope, tasks=tasks)
    work.until(None)
    return work


def past(work: Work, number: int = 1, **renamed: str) -> PastJob:
    """A job that was done, a month after the one before it, as it is kept.

    ``renamed`` - what every step is called instead, before its own name
    """
    reads = []
    for made in work.entries:
        if made.kind is not EntryKind.READING:
            continue
        checked = work.kept[made.id]
        result: Any = checked.result or {}
        offset = (result["offset_v_mm"], result["offset_h_mm"]) if "offset_v_mm" in result else None
        reads.append(
            Read(
                step=renamed.get("to", "") + made.step,
                at=made.at + timedelta(days=30 * number),
                inputs=made.inputs,
                means=kept(checked.asked["means"]),
                bench=result.get("bench", ""),
                checks=result.get("checks", ()),
                offset=offset,
                by=made.by,
                title=checked.asked["title"],
                stage=checked.asked["stage"],
            )
        )
    times = tuple(Entered(at=one.at, stage=one.stage, means=one.means) for one in reads)
    began, ended = reads[0].at, reads[-1].at
    scope = work.scope
    return PastJob(number=number, scope=scope, started=began, closed=ended, reads=tuple(reads), times=times, id=str(number))


def line_of(work: Work) -> KeptLine:
    """Its line, with every interval on its card, and a round that saw something."""
    card = dict(work.card) | {key: Value(value=value, source=SOURCE) for key, value in INTERVALS.items()}
    seen = Look(at=work.entries[-1].at + timedelta(days=120), leaks="drips")
    return KeptLine(spec=work.line, card=card, tasks=tasks_of(work.line), renewed_by=renewed_by(work.line), looks=(seen,))


class MeaningTest(unittest.TestCase):
    """A key is the address of a sheet, and nothing else."""

    @dear
    def test_a_step_that_is_renamed_leaves_due_series_and_record_as_they_were(self) -> None:
        for family in get_args(Family):
            for scope in (Scope.FIT, Scope.UPKEEP, Scope.CHECK):
                work = done(family, scope)
                one, other = past(work), past(work, to="something.else.")
                line, today = line_of(work), date(2027, 1, 1)
                with self.subTest(family=family, scope=scope):
                    self.assertEqual(due(line, [one], today), due(line, [other], today))
                    self.assertEqual(series_of(line, [one]), series_of(line, [other]))
                    self.assertEqual(told(one), told(other))
                    self.assertTrue(told(one).hours)

    def test_everything_that_can_be_due_comes_up_where_it_was_done_once(self) -> None:
        every: set[DueKind] = set()
        for family in get_args(Family):
            works = [done(family, scope) for scope in (Scope.FIT, Scope.UPKEEP)]
            line, jobs = line_of(works[0]), [past(work, number) for number, work in enumerate(works, start=1)]
            found = {one.kind for one in due(line, jobs, date(2030, 1, 1))}
            for task, kind in (
                (Task.RETORQUE, DueKind.RETORQUE),
                (Task.GREASE, DueKind.GREASE),
                (Task.LOOK, DueKind.INSPECTION),
                (Task.WEAR, DueKind.PLAY),
                (Task.CLOSED, DueKind.CLOSED),
                (Task.ALIGN, DueKind.ALIGNMENT),
                (Task.PACKING, DueKind.PACKING),
                (Task.OIL, DueKind.OIL),
            ):
                with self.subTest(family=family, task=task):
                    self.assertEqual(kind in found, task in line.tasks)
            every |= found
        self.assertLessEqual(set(RULES) - every, {DueKind.WORN}, "worn takes years of readings")

    @dear
    def test_what_an_entry_from_before_was_of_is_what_such_a_step_says_today(self) -> None:
        for family in get_args(Family):
            for scope in scopes(FAMILIES[family].facts):
                if scope in (Scope.ALIGN, Scope.TAKE_OFF, Scope.BACKSTOP):
                    continue
                work = done(family, scope)
                for made in work.entries:
                    if made.kind is EntryKind.READING:
                        said = set(kept(work.kept[made.id].asked["means"]))
                        with self.subTest(family=family, scope=scope, step=made.step):
                            self.assertLessEqual(set(formerly(made.step, made.inputs)), said)

    def test_by_the_answers_where_these_decide_it(self) -> None:
        out = {"number": "lot 31", "fate": "whole: it goes back in"}
        self.assertEqual([one.at for one in formerly("off.old", out)], ["goes back in"])
        self.assertEqual(formerly("close.run_in", {"what": "run under load"}), ())
        self.assertEqual(
            [one.of for one in formerly("close.run_in", {"what": "cannot be stopped for it now"})], [Of.RUN_IN_LEFT_OPEN]
        )
        self.assertEqual([one.when for one in formerly("keep.rerun.flange", {})], [When.AFTER_RUNNING])

    def test_nobody_who_reads_a_record_knows_a_step_by_its_key(self) -> None:
        keys = {step.step.key for family in get_args(Family) for step in done(family, Scope.FIT).route().steps}
        stages = "|".join(sorted({key.partition(".")[0] for key in keys}))
        named = re.compile(rf"""["'`]({stages})\.[a-z_.]+["'`]""")
        found = []
        for room in ("millwright/keep", "server", "web/src"):
            for path in (ROOT / room).rglob("*.[pt][ys]*"):
                if path.name.endswith(LEFT_OUT) or {"migrations", "demo"} & {*path.parts}:
                    continue
                found += [f"{path.relative_to(ROOT)}: {one.group()}" for one in named.finditer(path.read_text())]
        self.assertEqual(found, [])

    def test_a_word_of_a_later_version_is_left_out(self) -> None:
        said: list[dict[str, Any]] = [
            {"of": "hum", "when": "left"},
            {"of": "oil", "when": "left", "how much": 4},
            {"of": "oil", "when": "at noon"},
        ]
        self.assertEqual([one.of for one in kept(said)], [Of.OIL])
        one = kept([{"of": "wear mark", "when": "left", "field": "zero_mm", "new": True}])[0]
        self.assertEqual((one.of, one.field, one.new), (Of.WEAR_MARK, "zero_mm", True))
