"""Moves made as the bench says them bring the machine home, within the room that each foot has."""

import unittest
from typing import Any

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from millwright.errors import UnusableInput
from millwright.rig.machine import TrueShafts

from .true_shafts import FACE, FEET, FIXED, HUNDREDTH_OF_A_MICRON, RIM, align, axis, dial, from_first, shafts, truly


class MovesTest(unittest.TestCase):
    """Moves that were worked out, made, and read again."""

    def moved(self, truth: TrueShafts, moves: list[dict[str, Any]]) -> TrueShafts:
        """The shafts after feet were moved: each machine a stiff piece, its feet on a line. Independent of the core."""

        def lines(feet: list[dict[str, Any]], what: str) -> tuple[float, float]:
            at = [f["x_mm"] for f in feet]
            by = [next(m[what] for m in moves if m["name"] == f["name"]) for f in feet]
            slope = (by[1] - by[0]) / (at[1] - at[0])
            return by[0] - slope * at[0], 1000 * slope

        names = {m["name"] for m in moves}
        v, sv = lines(FEET, "shim_mm")
        h, sh = lines(FEET, "slide_mm")
        v2, sv2 = lines(FIXED, "shim_mm") if "pump front" in names else (0.0, 0.0)
        h2, sh2 = lines(FIXED, "slide_mm") if "pump front" in names else (0.0, 0.0)
        return TrueShafts(
            offset_v_mm=truth.offset_v_mm + v - v2,
            slope_v_mm_per_m=truth.slope_v_mm_per_m + sv - sv2,
            offset_h_mm=truth.offset_h_mm + h - h2,
            slope_h_mm_per_m=truth.slope_h_mm_per_m + sh - sh2,
        )

    def both(self, truth: TrueShafts) -> list[dict[str, Any]]:
        """Rim and face."""
        return [dial(truth, RIM), dial(truth, FACE)]

    @given(truth=shafts)
    def test_made_as_shown_and_read_again_nothing_is_left(self, truth: TrueShafts) -> None:
        after = self.moved(truth, align(self.both(truth))["feet"])
        np.testing.assert_allclose(axis(align(self.both(after))), [0, 0, 0, 0], atol=HUNDREDTH_OF_A_MICRON)

    @given(truth=shafts, fixed=st.tuples(*[st.floats(-0.5, 0.5)] * 4))
    def test_the_preview_shows_what_is_read_after_both_machines_were_moved(
        self, truth: TrueShafts, fixed: tuple[float, float, float, float]
    ) -> None:
        moves = [{**m, "machine": "movable", "shim_mm": m["shim_mm"] / 2} for m in align(self.both(truth))["feet"]]
        moves += [
            {"name": foot["name"], "machine": "stationary", "shim_mm": fixed[2 * i], "slide_mm": fixed[2 * i + 1]}
            for i, foot in enumerate(FIXED)
        ]
        made = [{k: m[k] for k in ("name", "machine", "shim_mm", "slide_mm")} for m in moves]
        preview = align(self.both(truth), made=made)["preview"]
        again = align(self.both(self.moved(truth, moves)))
        np.testing.assert_allclose([preview[k] for k in preview if k != "readings"], axis(again), atol=HUNDREDTH_OF_A_MICRON)
        told = [[r["value_mm"] - ring[0]["value_mm"] for r in ring] for ring in preview["readings"]]
        shown = [
            [r["value_mm"] - d["readings"][0]["value_mm"] for r in d["readings"]] for d in self.both(self.moved(truth, moves))
        ]
        np.testing.assert_allclose(told, shown, atol=HUNDREDTH_OF_A_MICRON)

    @given(truth=shafts, rise=st.floats(-0.5, 0.5), fixed=st.floats(-0.5, 0.5))
    def test_cold_target_readings_are_what_dials_show_on_a_machine_that_comes_right_when_warm(
        self, truth: TrueShafts, rise: float, fixed: float
    ) -> None:
        growth = {"front": rise, "rear": rise, "pump front": fixed, "pump rear": fixed}
        cold = TrueShafts(offset_v_mm=fixed - rise)  # low by what it will rise
        told = align(self.both(truth), growth=growth)["target_readings"]
        wanted = [d["readings"] for d in self.both(cold)]
        np.testing.assert_allclose(from_first(told), from_first(wanted), atol=HUNDREDTH_OF_A_MICRON)

    @settings(max_examples=40)
    @given(truth=shafts, room=st.floats(0.05, 3.0))
    def test_a_plan_keeps_its_room_and_brings_the_axes_together_or_says_what_room_would(
        self, truth: TrueShafts, room: float
    ) -> None:
        all_room = {
            n: {"shim_mm": room, "left_mm": room, "right_mm": room} for n in ("front", "rear", "pump front", "pump rear")
        }
        found = align(self.both(truth), room=all_room)
        if found["plan"] is None:
            self.assertIn("Not possible", " ".join(found["advice"]))
            return
        after = self.moved(truth, found["plan"])
        np.testing.assert_allclose(truly(after), [0, 0, 0, 0], atol=1e-4)
        for move in found["plan"]:
            self.assertGreaterEqual(move["shim_mm"], -room - 1e-6)
            self.assertLessEqual(abs(move["slide_mm"]), room + 1e-6)

    @given(truth=shafts)
    def test_one_machine_is_moved_where_one_suffices_the_movable_one_first(self, truth: TrueShafts) -> None:
        free: dict[str, Any] = {foot["name"]: {} for foot in FEET + FIXED}
        found = align(self.both(truth), room=free)
        moved = {m["machine"] for m in found["plan"] if abs(m["shim_mm"]) + abs(m["slide_mm"]) > 1e-6}
        self.assertLessEqual(moved, {"movable"})
        bound = {**free, **{foot["name"]: {"stays": True} for foot in FEET}}
        plan = align(self.both(truth), room=bound)["plan"]
        self.assertFalse([m for m in plan if m["machine"] == "movable" and abs(m["shim_mm"]) + abs(m["slide_mm"]) > 1e-6])
        np.testing.assert_allclose(truly(self.moved(truth, plan)), [0, 0, 0, 0], atol=1e-4)

    def test_where_both_have_to_move_as_few_feet_as_can_be_are_touched(self) -> None:
        # Half a millimetre to one side, a third either way at every foot. Both turn about their far feet, 1350 mm apart:
        # 0.5 / 1350 per mm, and 400 and 350 mm to the feet that move.
        room = {foot["name"]: {"left_mm": 0.3, "right_mm": 0.3} for foot in FEET + FIXED}
        plan = align(self.both(TrueShafts(offset_h_mm=0.5)), room=room)["plan"]
        moved = {m["name"]: abs(m["slide_mm"]) for m in plan if abs(m["shim_mm"]) + abs(m["slide_mm"]) > 1e-6}
        self.assertEqual(len(moved), 2)
        self.assertEqual({round(by, 3) for by in moved.values()}, {0.148, 0.130})

    def test_a_hair_too_little_room_is_still_said_to_be_too_little(self) -> None:
        found = align(
            self.both(TrueShafts(offset_h_mm=0.25022)),
            room={foot["name"]: {"shim_mm": 0.05, "left_mm": 0.05, "right_mm": 0.05} for foot in FEET + FIXED},
        )
        self.assertIsNone(found["plan"])
        self.assertRegex(" ".join(found["advice"]), r"Not possible .* 0\.\d+ mm more")

    def test_what_room_is_missing_is_said_where_it_is_missing(self) -> None:
        high = TrueShafts(offset_v_mm=0.5)
        found = align(self.both(high), room={"front": {"shim_mm": 0.2}, "rear": {"shim_mm": 0.5}})
        self.assertIsNone(found["plan"])
        self.assertIn("0.30 mm more to take out under front", " ".join(found["advice"]))
        shared = align(
            self.both(high), room={"front": {"shim_mm": 0.2}, "rear": {"shim_mm": 0.5}, "pump front": {}, "pump rear": {}}
        )
        self.assertIsNotNone(shared["plan"])

    def test_swapping_the_machines_mirrors_the_answer(self) -> None:
        truth = TrueShafts(offset_v_mm=0.3, offset_h_mm=-0.2)
        one = align(self.both(truth))
        mirrored = TrueShafts(offset_v_mm=-0.3, offset_h_mm=-0.2)  # seen from the other end up stays up and 3 becomes 9
        other = align(self.both(mirrored))
        self.assertAlmostEqual(one["feet"][0]["shim_mm"], -other["feet"][0]["shim_mm"])
        self.assertAlmostEqual(one["feet"][0]["slide_mm"], other["feet"][0]["slide_mm"])

    def test_bad_room_growth_and_moves_are_refused_where_they_were_typed(self) -> None:
        warm = {"height_mm": 200, "cold_c": 20, "hot_c": 60}
        rows: list[tuple[dict[str, Any], str]] = [
            ({"room": {"front": {"shim_mm": -0.1}}}, "room.front.shim_mm"),
            ({"room": {"nowhere": {}}}, "room.nowhere"),
            ({"warmth": {"nowhere": warm}}, "growth.nowhere"),
            ({"growth": {"front": 0.1}, "warmth": {"front": warm}}, "warmth.front"),
            ({"made": [{"name": "x", "machine": "movable", "shim_mm": 0.1, "slide_mm": 0}]}, "made.0.name"),
        ]
        for more, path in rows:
            with self.subTest(path), self.assertRaises(UnusableInput) as refused:
                align(self.both(TrueShafts()), **more)
            self.assertIn(path, [p.path for p in refused.exception.problems])

    def test_a_foot_that_stays_is_not_moved_and_the_others_make_up_for_it(self) -> None:
        truth = TrueShafts(offset_v_mm=0.3, slope_h_mm_per_m=0.5)
        both = [dial(truth, RIM), dial(truth, FACE)]
        room: dict[str, Any] = {foot["name"]: {} for foot in FEET + FIXED} | {"rear": {"stays": True}}
        plan = align(both, room=room)["plan"]
        rear = next(move for move in plan if move["name"] == "rear")
        self.assertEqual((rear["shim_mm"], rear["slide_mm"]), (0.0, 0.0))
        alone = align(both, room={"front": {"stays": True}, "rear": {"stays": True}})
        self.assertIsNone(alone["plan"])
