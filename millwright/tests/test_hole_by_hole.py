"""Benches that go hole by hole: close-fit bolts, grease; and two circles pulled by turns in rounds of half turns."""

import json
import random
import unittest
from typing import Any, get_args

from hypothesis import given, settings
from hypothesis import strategies as st

from millwright.benches import grease
from millwright.benches.fitted import STATES, FittedInput, FittedResult, evaluate
from millwright.benches.grease import Done, GreaseInput, GreaseResult, Routine
from millwright.benches.register import evaluate_json
from millwright.benches.tighten import io as tighten_io
from millwright.errors import UnusableInput
from millwright.verdict import Verdict

ROUTINES = [routine for routine in get_args(Routine) if routine != "packed by hand"]


def fitted(bolts: int, *taps: tuple[int, str], **more: Any) -> FittedResult:
    """The map after these taps."""
    return evaluate(FittedInput.model_validate({"bolts": bolts, "log": [{"hole": h, "to": to} for h, to in taps], **more}))


class FittedTest(unittest.TestCase):
    """Close-fit bolts, hole by hole."""

    def test_on_the_way_out_nut_ring_and_bolt_leave_in_that_order_and_are_never_put_back(self) -> None:
        taps: list[tuple[int, str]] = []
        while (following := fitted(4, *taps, way="out").next) is not None:
            taps.append((following.hole, following.to))
        self.assertEqual([hole for hole, to in taps if to == "tapped out"], [1, 3, 2, 4])  # opposite ones in turn
        done = fitted(4, *taps, way="out")
        self.assertEqual((done.seated, done.rings_on, done.verdict), (4, 0, Verdict.INSIDE))
        for hole, to in ((1, "ring off"), (1, "tapped out"), (1, "head seated"), (1, "backed out")):
            with self.assertRaisesRegex(UnusableInput, "Hole 1 is as it was. Next: nut off"):
                fitted(4, (hole, to), way="out")

    @given(st.integers(2, 12), st.randoms(use_true_random=False))
    def test_whoever_takes_one_state_at_a_time_ends_with_every_head_seated(self, bolts: int, chance: random.Random) -> None:
        taps: list[tuple[int, str]] = []
        while True:
            found = fitted(bolts, *taps)
            open_holes = [hole for hole in found.holes if hole.next is not None]
            self.assertEqual(found.verdict is Verdict.INCOMPLETE, bool(open_holes))
            self.assertEqual(found.rings_on, sum(h.state in ("ring on", "head seated") for h in found.holes))
            if not open_holes:
                break
            hole = chance.choice(open_holes)
            taps.append((hole.hole, str(hole.next)))
        self.assertEqual((found.seated, len(taps)), (bolts, bolts * len(STATES)))

    def test_no_state_is_jumped_and_what_is_next_is_said_at_its_place(self) -> None:
        for state in STATES[1:]:
            with self.assertRaises(UnusableInput) as refused:
                fitted(6, (1, "in"), (2, state))
            self.assertEqual(refused.exception.problems[0].path, "log.1.to")
        with self.assertRaises(UnusableInput):
            fitted(6, *((1, state) for state in STATES), (1, "in"))
        with self.assertRaises(UnusableInput) as refused:
            fitted(6, (7, "in"))
        self.assertEqual(refused.exception.problems[0].path, "log.0.hole")

    def test_opposite_holes_take_turns_and_all_are_in_before_one_is_drawn(self) -> None:
        taps: list[tuple[int, str]] = []
        while (following := fitted(6, *taps).next) is not None:
            taps.append((following.hole, following.to))
        for start in range(0, len(taps), 6):
            stage = taps[start : start + 6]
            self.assertEqual({to for _, to in stage}, {STATES[start // 6]})
            self.assertEqual([abs(a[0] - b[0]) for a, b in zip(stage[::2], stage[1::2], strict=True)], [3, 3, 3])
        self.assertEqual([c.code for c in fitted(6, *taps).checks], ["heads_seated"])
        early = fitted(3, (1, "in"), (1, "drawn bare"), (2, "in"), (3, "in"))
        self.assertIn("drawn_too_early", [check.code for check in early.checks])

    def test_a_bolt_that_goes_hard_is_backed_out_and_starts_again(self) -> None:
        found = fitted(4, (1, "in"), (2, "in"), (2, "drawn bare"), (2, "backed out"))
        self.assertEqual([hole.state for hole in found.holes], ["in", None, None, None])
        self.assertEqual(found.says[0].code, "backed_out")
        self.assertNotEqual(fitted(4, (2, "in"), (2, "backed out"), (2, "in")).says[0].code, "backed_out")
        with self.assertRaises(UnusableInput):
            fitted(4, (3, "backed out"))

    def test_heads_stand_as_the_drawing_shows(self) -> None:
        heads = [hole.head for hole in fitted(4, first_head="spacer").holes]
        self.assertEqual(heads, ["spacer", "hub", "spacer", "hub"])
        self.assertEqual({hole.head for hole in fitted(4, heads="all on the hub").holes}, {"hub"})


def filled(**given_: Any) -> GreaseResult:
    """The fill map."""
    return grease.evaluate(GreaseInput.model_validate({"routine": "low in, high out", "product": "Maltster blue", **given_}))


class GreaseTest(unittest.TestCase):
    """Grease, hole by hole."""

    @settings(max_examples=60)
    @given(
        st.lists(st.integers(0, 35), min_size=2, max_size=8, unique=True),
        st.integers(0, 35),
        st.sampled_from(ROUTINES),
    )
    def test_followed_to_its_end_it_showed_everywhere_but_where_it_was_filled_last(
        self, tens: list[int], turned: int, routine: str
    ) -> None:
        holes = [10.0 * ten for ten in tens]
        log: list[Done] = []
        while (found := filled(holes=holes, turned_deg=10.0 * turned, routine=routine, log=log)).next is not None:
            self.assertIs(found.verdict, Verdict.INCOMPLETE)
            log.append(found.next)
        self.assertIs(found.verdict, Verdict.INSIDE)
        through = [done.hole for done in log if done.what == "filled here"]
        showed = {done.hole for done in log if done.what == "showed"}
        self.assertEqual(showed, set(range(1, len(holes) + 1)) - {through[-1]})
        self.assertEqual((found.plugs_in, found.plugs_out), (len(holes), len(holes)))
        low = min(found.holes, key=lambda hole: abs(hole.clock - 180))
        self.assertEqual([hole.hole for hole in found.holes if hole.lowest], [low.hole])
        self.assertEqual(through, [low.hole])

    def test_a_plug_does_not_go_back_where_nothing_showed(self) -> None:
        for log in (["showed"], ["filled here"], ["plug out", "plug out"], ["plug out", "plug in"]):
            with self.assertRaises(UnusableInput, msg=str(log)) as refused:
                filled(holes=[0.0, 180.0], log=[{"hole": 1, "what": what} for what in log])
            self.assertEqual(refused.exception.problems[0].path, f"log.{len(log) - 1}.what")

    def test_one_plug_left_out_is_not_done(self) -> None:
        log: list[Done] = []
        while (following := filled(holes=[0.0, 180.0], log=log).next) is not None:
            log.append(following)
        short = filled(holes=[0.0, 180.0], log=log[:-1])
        self.assertEqual((short.verdict, short.plugs_out - short.plugs_in), (Verdict.INCOMPLETE, 1))

    @settings(max_examples=60)
    @given(st.lists(st.integers(0, 35), min_size=1, max_size=6, unique=True), st.data())
    def test_while_any_plug_is_out_it_is_not_done_and_says_which_goes_in(self, tens: list[int], data: Any) -> None:
        holes = [10.0 * ten for ten in tens]
        log: list[Done] = []
        while (following := filled(holes=holes, log=log).next) is not None:
            log.append(following)
        again = data.draw(st.lists(st.integers(1, len(holes)), min_size=1, max_size=3, unique=True))
        log += [Done(hole=hole, what="plug out") for hole in again]
        for left in range(len(again), 0, -1):
            found = filled(holes=holes, log=log)
            self.assertIs(found.verdict, Verdict.INCOMPLETE)
            self.assertNotIn("filled", {one.code for one in found.says})
            assert found.next is not None
            self.assertEqual((found.next.what, found.next.hole in again), ("plug in", True), left)
            log.append(found.next)
        self.assertIs(filled(holes=holes, log=log).verdict, Verdict.INSIDE)

    def test_another_grease_is_over_and_too_little_too(self) -> None:
        card = {"wanted_product": "Maltster blue", "wanted_grams": 100.0, "routine": "packed by hand", "packed": True}
        self.assertIs(filled(**card, grams=95.0).verdict, Verdict.INSIDE)
        self.assertIs(filled(**card, product="maltster BLUE ", grams=95.0).verdict, Verdict.INSIDE)
        other = filled(**card, product="Cooper grey", grams=95.0)
        self.assertEqual((other.verdict, other.says[0].code), (Verdict.OVER, "other_grease"))
        self.assertIs(filled(**card, grams=70.0).verdict, Verdict.OVER)
        self.assertIs(filled(**card, product="").verdict, Verdict.INCOMPLETE)
        self.assertIs(filled(routine="packed by hand").verdict, Verdict.INCOMPLETE)

    def test_where_no_hole_is_low_it_is_turned_first(self) -> None:
        self.assertEqual(filled(holes=[0.0, 90.0]).says[0].code, "turn_it")
        self.assertNotEqual(filled(holes=[0.0, 90.0], turned_deg=90.0).says[0].code, "turn_it")


class ByTurnsTest(unittest.TestCase):
    """Two circles, half a turn here and half a turn there."""

    @settings(max_examples=60)
    @given(st.lists(st.integers(0, 4), min_size=3, max_size=8), st.lists(st.integers(0, 4), min_size=3, max_size=8))
    def test_it_ends_when_every_screw_of_both_is_home_and_not_before(self, first: list[int], second: list[int]) -> None:
        """``first``, ``second`` - half turns each screw still takes."""
        needs = dict(enumerate([*first, *second], start=1))
        beside = {"bolts": len(second), "torque_nm": 40.0, "title": "clamp ring"}
        given_ = {"bolts": len(first), "torque_nm": 60.0, "passes": "half turns", "pattern": "star", "beside": beside}
        pulls: list[dict[str, Any]] = []
        while True:
            found = evaluate_json("tighten", json.dumps({**given_, "pulls": pulls}))
            assert isinstance(found, tighten_io.TightenResult)
            if found.next is None:
                break
            self.assertLess(len(pulls), 300)
            bolt = found.next.bolt
            self.assertEqual(found.next.torque_nm, 60.0 if bolt <= len(first) else 40.0)
            turned, needs[bolt] = needs[bolt] > 0, max(0, needs[bolt] - 1)
            pulls.append({"pass": found.next.pass_, "bolt": bolt, "turned": turned, "clicked": needs[bolt] == 0})
        self.assertEqual(set(needs.values()), {0})
        self.assertEqual((found.verdict, found.circles), (Verdict.NOT_JUDGED, [len(first), len(second)]))
        both = min(len(first), len(second))
        letters = [found.sequence[i].name[0] for i in range(2 * both)]
        self.assertEqual("".join(letters), "AB" * both)

    def test_two_circles_go_by_turns_in_half_turns_only(self) -> None:
        beside = {"bolts": 4, "torque_nm": 40.0}
        with self.assertRaises(UnusableInput) as refused:
            evaluate_json(
                "tighten",
                json.dumps({"bolts": 4, "torque_nm": 60.0, "passes": [1.0], "pattern": "star", "beside": beside}),
            )
        self.assertEqual(refused.exception.problems[0].path, "beside")

    def test_a_wrench_has_to_reach_both_torques(self) -> None:
        given_ = {"bolts": 4, "torque_nm": 60.0, "passes": "half turns", "pattern": "star", "pulls": []}
        wrench = {"name": "W3", "min_nm": 50.0, "max_nm": 100.0}
        beside = {"bolts": 4, "torque_nm": 40.0}
        one = evaluate_json("tighten", json.dumps({**given_, "wrench": wrench}))
        both = evaluate_json("tighten", json.dumps({**given_, "wrench": wrench, "beside": beside}))
        self.assertEqual((one.verdict, both.verdict), (Verdict.INCOMPLETE, Verdict.OVER))
