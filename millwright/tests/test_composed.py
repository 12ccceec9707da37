"""A route is checked when it is composed, and composed anew only where something says otherwise that it looked at."""

import unittest
from dataclasses import fields, replace
from typing import Any

from millwright.plan import remembered
from millwright.plan.compose import build, composed, every_route
from millwright.plan.fields import TEMPORARY, Counted, choice, count, tick
from millwright.plan.route import Miscomposed, Route, checked
from millwright.plan.steps import Holding, OpenTime, SheetForm, Stage, Step

from .dear import dear
from .work import Work

PINS_BACK = Counted(line="pins", what="pins", goes=TEMPORARY, counted="back")
WORKED_OUT_LATER = ("judge", "lacks", "upsets", "sketch", "means_by")


def sheet(key: str, *rows: Any, **more: Any) -> Step:
    """A step that asks those."""
    return Step(key=key, stage=Stage.COUPLE, title=key, why="", form=SheetForm(fields=rows), **more)


def said(route: Route) -> list[dict[str, Any]]:
    """All that a route says by itself."""
    return [{f.name: getattr(s, f.name) for f in fields(s) if f.name not in WORKED_OUT_LATER} for s in route.steps]


class CheckedTest(unittest.TestCase):
    """A slip of whoever writes a family is found before anybody works by it."""

    def test_each_slip_is_named(self) -> None:
        first = sheet("couple.first", tick("a", "A"))
        slips = {
            "couple.first is there 2 times": (first, first),
            "comes after couple.lost": (first, sheet("couple.next", tick("a", "A"), after=("couple.lost",))),
            "comes after couple.later": (sheet("couple.x", once=("couple.later",)), sheet("couple.later")),
            "names couple.run": (sheet("couple.x", run="couple.run"),),
            "names couple.end": (sheet("couple.x", leaves_provisional="light", settled_by="couple.end"),),
            "flange_bolt_torque_nn, which no card has": (sheet("couple.x", needs=("flange_bolt_torque_nn",)),),
            "flange_bolts@rimm, which no card has": (sheet("couple.x", judged_by=("flange_bolts@rimm",)),),
            "asks a 2 times": (sheet("couple.x", tick("a", "A"), tick("a", "B")),),
            "asks a_why 2 times": (sheet("couple.x", tick("a", "A", none_of="none"), tick("a_why", "B")),),
            "beside part, which is not there": (sheet("couple.x", replace(count("n", "N"), beside="part")),),
            "counts back pins, which nothing counted out": (sheet("couple.x", replace(count("n", "N"), ledger=PINS_BACK)),),
            "is held by prop": (sheet("couple.x", holds=(Holding(what="load", asked="prop"),)),),
            "is nothing to choose": (sheet("couple.x", choice("which", "Which", "the only one")),),
            "is open for min": (
                first,
                sheet("couple.x", open_time=OpenTime(what="paste", asked="min", used_by="couple.first")),
            ),
        }
        for says, steps in slips.items():
            with self.subTest(says), self.assertRaisesRegex(Miscomposed, says):
                checked(Route(steps=steps), from_its_start=True)
        self.assertEqual(checked(Route(steps=(first,))).steps, (first,))

    def test_a_count_waits_for_what_no_later_step_counts_back(self) -> None:
        back = [replace(count("n", "N"), ledger=replace(PINS_BACK, line=line)) for line in ("early", "late")]
        steps = (sheet("couple.a", back[0]), sheet("close.count", counts_out=True), sheet("close.b", back[1]))
        self.assertEqual(Route(steps=steps).closed_after, {"close.count": {"late"}})

    @dear
    def test_every_family_scope_and_way_of_holding_composes(self) -> None:
        self.assertGreater(every_route(), 700)


class RememberedTest(unittest.TestCase):
    """Remembered or composed anew, it is the same route."""

    @dear
    def test_at_every_step_it_is_what_composing_anew_gives(self) -> None:
        anew = 0
        for family in ("jaw, curved", "tyre", "disc, drop-out spacer", "shaft-mounted reducer"):
            work = Work(family=family, held=("keyed, interference", "keyed, interference"))
            while (now := work.route().next()) is not None:
                job, kept = now.job, composed(now.job)
                self.assertEqual(said(kept), said(build(job)), now.step.key)
                anew += kept is not composed(replace(job, answers={**job.answers, "of no step": {"a": 1}}))
                work.step_on()
        self.assertEqual(anew, 0, "an answer that decides nothing keeps the route")

    def test_what_was_looked_up_counts_and_nothing_else(self) -> None:
        watched = remembered.Watched({"a": {"x": 1, "y": 2}, "b": {"x": 1}}, deep=True)
        self.assertEqual((watched["a"]["x"], watched.get("c", {}), "b" in watched), (1, {}, True))
        stands = {"a": {"x": 1, "y": 2}, "b": {"x": 1}}
        for change, same in (
            ({"a": {"x": 1, "y": 3}}, True),
            ({"b": {"x": 9}}, True),
            ({"d": {}}, True),
            ({"a": {"x": 2, "y": 2}}, False),
            ({"a": {}}, False),
            ({"c": {"x": 1}}, False),
        ):
            with self.subTest(change=change):
                self.assertIs(watched.says({**stands, **change}), same)
        self.assertFalse(watched.says({"a": {"x": 1}}))
        self.assertEqual(dict(watched["b"]), {"x": 1})
        self.assertFalse(watched.says({**stands, "b": {"x": 1, "z": 2}}), "gone through as a whole")
