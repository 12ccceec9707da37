"""The value card: figures by speed and by hub, what is refused; and stacks of shims from the box."""

import itertools
import unittest
from collections import Counter
from typing import Any

from hypothesis import assume, given, settings
from hypothesis import strategies as st

from millwright.benches.alignment.evaluate import evaluate
from millwright.benches.alignment.io import AlignmentInput
from millwright.benches.alignment.shims import (
    ALIKE_MM,
    MAKES_IT_MM,
    MOST_PIECES,
    ShimBox,
    Shimmed,
    nearest_stacks,
    say_shims,
    stacks_under,
)
from millwright.card.kinds import VALUE_KINDS
from millwright.card.values import (
    Source,
    UpTo,
    Value,
    as_today,
    card_problems,
    lines_of,
    of_hub,
    say_value,
    value_kind,
    value_problems,
)
from millwright.errors import UnusableInput
from millwright.job.entry import EntryKind
from millwright.plan.families.register import FAMILIES
from millwright.plan.hubs.ways import HUB_STEPS
from millwright.roles import Role

from .work import Work

SAMPLE = Source(kind="sample", document="Trial sheet", issue="2", page="4")
BOX = [0.05, 0.1, 0.2, 0.25, 0.5, 1.0]


def value(figure: float, **more: Any) -> Value:
    """A figure from the trial sheet."""
    return Value(value=figure, source=SAMPLE, **more)


class BySpeedTest(unittest.TestCase):
    """A limit that depends on the speed."""

    @given(
        rpms=st.lists(st.integers(100, 6000), min_size=1, max_size=6, unique=True),
        speed=st.floats(1, 8000),
        order=st.randoms(use_true_random=False),
    )
    def test_the_step_that_holds_is_the_next_one_up_whatever_order_they_were_typed_in(
        self, rpms: list[int], speed: float, order: Any
    ) -> None:
        steps = [UpTo(rpm=rpm, value=rpm / 1000) for rpm in rpms]
        order.shuffle(steps)
        reached = sorted(rpm for rpm in rpms if rpm >= speed)
        wanted = reached[0] / 1000 if reached else 99.0
        self.assertEqual(value(99.0, up_to=steps).at(speed), wanted)

    def test_it_is_said_with_its_unit_and_its_speeds_in_order(self) -> None:
        by_speed = value(0.03, up_to=[UpTo(rpm=1800, value=0.05), UpTo(rpm=1000, value=0.08)])
        said = say_value(by_speed, VALUE_KINDS["hub_runout_mm"])
        self.assertEqual(str(said), "0.03 mm; up to 1000 rpm 0.08 mm; up to 1800 rpm 0.05 mm")


class FitOnTheCardTest(unittest.TestCase):
    """A clearance is a plus figure under its word, whatever the age of the card; the sign is the core's alone."""

    def judged(self, card: dict[str, float], shaft_mm: float, bore_mm: float) -> dict[str, Any]:
        """The sheet of the first hub with this fit on the card of its line, and what it says of these readings."""
        work = Work()
        for key in ("clearance_min_mm", "clearance_max_mm"):
            del work.card[key]
        work.card |= {key: value(figure) for key, figure in card.items()}
        work.until("prepare.fit.driver")
        work.enter("prepare.fit.driver", {"shaft_mm": [shaft_mm], "bore_mm": [bore_mm]})
        return dict(work.judged(work.entries[-1]))

    def test_typed_as_its_lines_are_called_a_fit_is_judged_as_they_say(self) -> None:
        slip, grips = {"clearance_min_mm": 0.005, "clearance_max_mm": 0.045}, {"transition_interference_mm": 0.01}
        for card, bore, verdict in (
            (slip, 48.02, "inside"),
            (slip, 48.05, "over"),
            (slip, 48.001, "over"),
            (slip, 47.98, "over"),  # 0.020 of interference on a hub that is to slip
            ({"clearance_max_mm": 0.03, **grips}, 47.995, "inside"),
            ({"clearance_max_mm": 0.03, **grips}, 47.985, "over"),
            ({"fit_min_mm": -0.045, "fit_max_mm": -0.005}, 48.02, "inside"),  # a card from before, interference as plus
            ({"fit_min_mm": -0.045, "fit_max_mm": -0.005}, 47.98, "over"),
            ({"fit_min_mm": 0.045, "fit_max_mm": 0.005}, 48.02, "inside"),  # typed when its lines said clearance
            ({"fit_min_mm": 0.045, "fit_max_mm": 0.005}, 47.98, "over"),
        ):
            with self.subTest(card=card, bore=bore):
                self.assertEqual(self.judged(card, 48.0, bore)["verdict"], verdict)

    def test_a_card_from_before_shows_plus_figures_and_what_was_typed_for_them(self) -> None:
        for fits, shown in (
            ({"fit_min_mm@driven": (-0.0457, "-.0018 in"), "fit_max_mm@driven": (-0.0051, "−.0002 in")},
             {"clearance_max_mm@driven": (0.0457, ".0018 in"), "clearance_min_mm@driven": (0.0051, ".0002 in")}),
            ({"fit_min_mm": (0.0381, ".0015 in"), "fit_max_mm": (0.0, "0 in")},
             {"clearance_max_mm": (0.0381, ".0015 in"), "clearance_min_mm": (0.0, "0 in")}),
            ({"fit_min_mm": (-0.02, ""), "fit_max_mm": (0.018, "")},
             {"clearance_max_mm": (0.02, ""), "transition_interference_mm": (0.018, "")}),
        ):  # fmt: skip
            today = as_today({key: value(mm, typed=typed) for key, (mm, typed) in fits.items()})
            self.assertEqual({key: (v.value, v.typed) for key, v in today.items()}, shown)
            self.assertEqual(as_today(today), today)

    def test_a_least_that_is_not_below_its_most_is_refused_when_it_is_saved_and_both_lines_are_named(self) -> None:
        for low, high, names in (
            ("clearance_min_mm", "clearance_max_mm", ("Min. clearance, 0.045 mm", "Max. clearance, 0.005 mm")),
            ("interference_min_mm@driven", "interference_max_mm", ("Min. interference, driven hub", "Max. interference")),
        ):
            crossed = {low: value(0.045), high: value(0.005)}
            [problem] = card_problems(crossed)
            self.assertEqual(problem.path, f"values.{low}.value")
            for name in names:
                self.assertIn(name, problem.message)
            self.assertEqual(card_problems({low: value(0.005), high: value(0.045)}), [])
        work = Work()
        put = {"key": "clearance_min_mm", "value": value(0.05).model_dump(mode="json"), "reason": "new drawing"}
        with self.assertRaises(UnusableInput) as caught:
            work.enter("prepare.fit.driver", put, EntryKind.VALUE, Role.LEAD)
        self.assertIn("has to be less than Max. clearance, 0.045 mm", caught.exception.problems[0].message)
        for key in ("clearance_min_mm", "clearance_max_mm"):
            self.assertIn("is a plus figure", value_problems(key, value(-0.02))[0].message)


class ByHubTest(unittest.TestCase):
    """A figure of one hub only."""

    def test_a_hub_goes_by_its_own_figure_and_else_by_the_shared_one(self) -> None:
        card = {"hub_screws": value(8), "hub_screws@driven": value(6)}
        self.assertEqual(of_hub(card, "hub_screws", "driven"), "hub_screws@driven")
        self.assertEqual(of_hub(card, "hub_screws", "driver"), "hub_screws")
        self.assertEqual([key for key, _ in lines_of(card)], ["hub_screws", "hub_screws@driven"])
        kind = value_kind("hub_screws@driven")
        assert kind is not None
        self.assertEqual(kind.title, f"{VALUE_KINDS['hub_screws'].title}, driven hub")

    def test_what_is_no_line_of_the_card_is_none(self) -> None:
        for key in ("hub_screws@gearbox", "weight", "weight@driver", "@driver", ""):
            self.assertIsNone(value_kind(key), key)


class RefusedTest(unittest.TestCase):
    """What is wrong with a figure is said where it is."""

    def test_every_slip_is_named_by_its_place(self) -> None:
        rows: list[tuple[str, Value, list[str]]] = [
            ("hub_screws", value(8), []),
            ("hub_screws", value(800), ["value"]),
            ("hub_screw_torque_nm", value(35), ["means"]),
            ("hub_screw_torque_nm", value(35, means="wet"), ["means"]),
            ("hub_screw_torque_nm@driver", value(35, means="dry"), []),
            ("hub_runout_mm", value(0.03, up_to=[UpTo(rpm=900, value=0.05)]), []),
            ("hub_runout_mm", value(0.03, up_to=[UpTo(rpm=900, value=50)]), ["up_to.0.value"]),
            ("hub_screws", value(8, up_to=[UpTo(rpm=900, value=6)]), ["up_to"]),
            ("weight", value(8), [""]),
        ]
        for key, figure, paths in rows:
            with self.subTest(key=key, paths=paths):
                self.assertEqual([p.path for p in value_problems(key, figure)], paths)

    def test_everything_a_coupling_asks_for_is_a_line_of_the_card(self) -> None:
        asked = {key for family in FAMILIES.values() for key in family.facts.values}
        asked |= {key for hub in HUB_STEPS.values() for key in hub.values}
        asked |= {key for family in FAMILIES.values() for key in family.facts.may_have}
        self.assertEqual([key for key in asked if value_kind(key) is None], [])
        for kind in VALUE_KINDS.values():
            self.assertEqual(kind.low < kind.high, not kind.words_only, kind.key)
            self.assertEqual(bool(kind.means) or kind.written, bool(kind.ask), kind.key)
            self.assertTrue(kind.look_in, kind.key)


class TypedTest(unittest.TestCase):
    """What was typed on the card is the value beside it."""

    def test_what_was_typed_reads_as_the_value_and_only_a_length_keeps_it(self) -> None:
        source = Source(kind="sample", document="x")
        rows: tuple[tuple[str, float, str, str, list[str]], ...] = (
            ("hub_runout_mm", 0.0508, ".002 in", "", []),
            ("hub_runout_mm", 0.0508, ".003 in", "", ["typed"]),
            ("hub_runout_mm", 0.0508, "a bit", "", ["typed"]),
            ("gap_plus_minus_mm", 25.4, "1 in", "percent of the gap", ["typed"]),
            ("gap_plus_minus_mm", 25.4, "1 in", "mm", []),
            ("gap_plus_minus_mm", 1.0, "", "percent of the gap", []),
            ("hub_screw_torque_nm", 24.40472307, "18 lb ft", "dry", []),
            ("hub_screw_torque_nm", 18.0, "18 lb ft", "dry", ["typed"]),
            ("hub_ceiling_c", 176.666666667, "350 F", "", []),
        )
        for key, value, typed, means, wrong in rows:
            with self.subTest(key, value=value, typed=typed):
                found = value_problems(key, Value(value=value, typed=typed, means=means, source=source))
                self.assertEqual([p.path for p in found], wrong)
                self.assertTrue(all(typed in p.message for p in found))

    def test_a_figure_out_of_its_range_is_told_between_what_it_lies_in_its_own_unit(self) -> None:
        source = Source(kind="sample", document="x")
        found = value_problems("gap_plus_minus_mm", Value(value=80.0, means="percent of the gap", source=source))
        self.assertIn("between 0.01 and 50 percent of the gap", found[0].message)


class ShimsTest(unittest.TestCase):
    """Stacks of at most four pieces, those of all feet chosen together."""

    def feet(self, *shims_mm: float) -> list[Shimmed]:
        """Feet of the movable machine at 200 and 700."""
        return [
            Shimmed(name=name, machine="movable", x_mm=x, shim_mm=mm)
            for name, x, mm in zip(("front", "rear"), (200.0, 700.0), shims_mm, strict=False)
        ]

    @given(wanted=st.floats(0, 3), at_hand=st.lists(st.sampled_from([0.07, 0.3, 0.81]), max_size=4))
    def test_a_single_piece_is_used_once_and_no_stack_of_what_there_is_comes_nearer(
        self, wanted: float, at_hand: list[float]
    ) -> None:
        _, found = nearest_stacks(wanted, BOX, at_hand)[0]
        single = Counter(mm for mm in at_hand if mm not in BOX)
        self.assertFalse([mm for mm, there in single.items() if found.count(mm) > there])
        pieces = [*BOX, *single]
        stacks = [s for n in range(MOST_PIECES + 1) for s in itertools.combinations_with_replacement(pieces, n)]
        nearest = min(abs(sum(s) - wanted) for s in stacks if all(s.count(mm) <= there for mm, there in single.items()))
        self.assertLessEqual(abs(sum(found) - wanted), nearest + 1e-9)

    def test_the_move_that_is_suggested_is_what_the_pieces_come_to(self) -> None:
        shown = {"offset_v_mm": -0.31, "slope_v_mm_per_m": -0.42, "offset_h_mm": 0.1, "slope_h_mm_per_m": 0.0}
        feet = [{"name": "near", "x_mm": 300}, {"name": "far", "x_mm": 600}]
        under = {"near": [0.5], "far": [0.25, 0.1]}
        asked = {"movable_feet": feet, "stationary_feet": [], "shown": shown, "shims": {"box_mm": list(BOX), "under": under}}
        for room in (None, {"near": {"shim_mm": 2.0}}):
            found = evaluate(AlignmentInput.model_validate({**asked, "room": room}))
            self.assertTrue(all(stack.pieces_mm for stack in found.stacks))
            comes_to = {s.name: sum(s.pieces_mm or []) - sum(s.was_mm) for s in found.stacks}
            for move in found.suggested:
                self.assertAlmostEqual(move.shim_mm, comes_to[move.name], places=9)

    @settings(max_examples=30)
    @given(
        front=st.floats(0, 2), rear=st.floats(0, 2), box=st.lists(st.sampled_from(BOX), min_size=2, max_size=3, unique=True)
    )
    def test_no_pair_of_stacks_leaves_less_at_feet_and_coupling(self, front: float, rear: float, box: list[float]) -> None:
        found = stacks_under(self.feet(front, rear), ShimBox(box_mm=box))
        totals = sorted({sum(s) for n in range(MOST_PIECES + 1) for s in itertools.combinations_with_replacement(box, n)})
        assume(all(min(abs(t - mm) for t in totals) <= MAKES_IT_MM for mm in (front, rear)))

        def left(one: float, other: float) -> float:
            at_coupling = one + (other - one) * (0.0 - 200.0) / 500.0
            return max(abs(one), abs(other), abs(at_coupling))

        least = min(left(a - front, b - rear) for a in totals for b in totals)
        self.assertLessEqual(left(found[0].misses_mm, found[1].misses_mm), least + ALIKE_MM)

    def test_what_lies_under_a_foot_already_counts_and_less_than_nothing_cannot_be(self) -> None:
        box = ShimBox(box_mm=BOX, under={"rear": [0.5, 0.3]})
        (stack,) = stacks_under(self.feet(-0.3, -0.3), box)
        self.assertEqual((stack.name, stack.pieces_mm, round(stack.misses_mm, 6)), ("rear", [0.5], 0))

    def test_a_wish_the_box_cannot_meet_has_no_stack_and_says_how_far_it_misses(self) -> None:
        (stack,) = stacks_under(self.feet(9.0), ShimBox(box_mm=[1.0, 2.0]))
        self.assertEqual((stack.pieces_mm, stack.misses_mm), (None, -1.0))
        self.assertIn("nearest it makes is 1.000 mm too low", str(say_shims([stack])[0]))
