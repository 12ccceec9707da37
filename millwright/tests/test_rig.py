"""Readings made by the forward model from any true position come back as that position; moves made bring it home."""

import json
import math
import random
import unittest
from collections.abc import Sequence
from dataclasses import replace
from typing import Any

import numpy as np
from hypothesis import assume, given, settings
from hypothesis import strategies as st

from millwright.benches import as_dict, evaluate_json
from millwright.errors import UnusableInput
from millwright.rig.machine import Bracket, Gauge, TrueShafts, sweep, two_faces

HUNDREDTH_OF_A_MICRON = 1e-5
QUARTERS = (0, 90, 180, 270)
ANY_PLACES = (15, 80, 130, 215, 300)
PERFECT = Gauge()
RIM = Bracket(kind="rim", on="stationary", x_mm=40)
FACE = Bracket(kind="face", on="stationary", x_mm=30, radius_mm=60)
BACK = Bracket(kind="rim", on="movable", x_mm=-70)
FEET: list[dict[str, Any]] = [{"name": "front", "x_mm": 300.0}, {"name": "rear", "x_mm": 700.0}]
FIXED: list[dict[str, Any]] = [{"name": "pump front", "x_mm": -300.0}, {"name": "pump rear", "x_mm": -650.0}]

small = st.floats(-1.5, 1.5)
shafts = st.builds(
    TrueShafts, offset_v_mm=small, slope_v_mm_per_m=small, offset_h_mm=small, slope_h_mm_per_m=small, float_mm=st.just(0.0)
)


def dial(truth: TrueShafts, bracket: Bracket, clocks: tuple[float, ...] = QUARTERS, zero: float = 0.0) -> dict[str, Any]:
    """A perfect dial on a true machine, as the bench is given it."""
    readings = sweep(truth, bracket, clocks, PERFECT, random.Random(1), zero)
    given = {
        "kind": bracket.kind,
        "bracket_on": bracket.on,
        "x_mm": bracket.x_mm,
        "turned": bracket.turned,
        "readings": readings,
    }
    return given | ({"radius_mm": bracket.radius_mm} if bracket.kind == "face" else {"sag_mm": bracket.sag_mm})


def align(dials: list[dict[str, Any]], **more: Any) -> dict[str, Any]:
    """The alignment bench."""
    given = {"dials": dials, "stationary_feet": FIXED, "movable_feet": FEET, **more}
    return as_dict(evaluate_json("alignment", json.dumps(given)))


def from_first(rings: list[list[dict[str, float]]]) -> list[list[float]]:
    """Every ring as it reads from its first place."""
    return [[r["value_mm"] - ring[0]["value_mm"] for r in ring] for ring in rings]


def axis(found: dict[str, Any]) -> list[float]:
    """The four numbers."""
    return [found[name] for name in ("offset_v_mm", "slope_v_mm_per_m", "offset_h_mm", "slope_h_mm_per_m")]


def truly(truth: TrueShafts) -> list[float]:
    """The four true numbers."""
    return [truth.offset_v_mm, truth.slope_v_mm_per_m, truth.offset_h_mm, truth.slope_h_mm_per_m]


class ComesBackTest(unittest.TestCase):
    """What the forward model hides, the bench finds."""

    @given(truth=shafts, places=st.sampled_from([QUARTERS, ANY_PLACES, (0, 60, 120)]), zero=small)
    def test_any_method_any_places_any_zero_find_the_true_position(
        self, truth: TrueShafts, places: tuple[float, ...], zero: float
    ) -> None:
        for brackets in ((RIM, FACE), (RIM, BACK), (RIM, FACE, BACK)):
            found = align([dial(truth, bracket, places, zero) for bracket in brackets])
            np.testing.assert_allclose(axis(found), truly(truth), atol=HUNDREDTH_OF_A_MICRON)

    @given(truth=shafts, sag=st.floats(-0.3, 0))
    def test_the_sag_of_a_bracket_drops_out_where_it_is_known(self, truth: TrueShafts, sag: float) -> None:
        hangs = Bracket(kind="rim", on="stationary", x_mm=40, sag_mm=sag)
        found = align([dial(truth, hangs), dial(truth, FACE)])
        np.testing.assert_allclose(axis(found), truly(truth), atol=HUNDREDTH_OF_A_MICRON)

    @given(truth=shafts, wanders=st.floats(0.05, 1.0), seed=st.integers(0, 99))
    def test_two_faces_are_rid_of_the_float_that_spoils_one(self, truth: TrueShafts, wanders: float, seed: int) -> None:
        floating = TrueShafts(**{**truth.__dict__, "float_mm": wanders})
        near, far = two_faces(floating, FACE, ANY_PLACES, PERFECT, random.Random(seed))
        face = {"kind": "face", "bracket_on": "stationary", "x_mm": 30, "radius_mm": 60, "readings": near, "opposite": far}
        np.testing.assert_allclose(axis(align([dial(truth, RIM), face])), truly(truth), atol=HUNDREDTH_OF_A_MICRON)

    @given(truth=shafts)
    def test_a_dial_that_counts_the_other_way_is_read_as_it_is_set_up(self, truth: TrueShafts) -> None:
        out = dial(truth, RIM)
        out = out | {"positive": "out", "readings": [{**r, "value_mm": -r["value_mm"]} for r in out["readings"]]}
        np.testing.assert_allclose(axis(align([out, dial(truth, FACE)])), truly(truth), atol=HUNDREDTH_OF_A_MICRON)

    @given(truth=shafts, run=st.floats(0.1, 0.5), high=st.floats(0, 359))
    def test_run_out_gets_in_only_where_the_bracket_alone_is_turned(self, truth: TrueShafts, run: float, high: float) -> None:
        crooked = TrueShafts(**{**truth.__dict__, "runout_mm": run, "runout_high_deg": high})
        both = align([dial(crooked, RIM), dial(crooked, FACE)])
        np.testing.assert_allclose(axis(both), truly(truth), atol=HUNDREDTH_OF_A_MICRON)
        alone = Bracket(kind="rim", on="stationary", x_mm=40, turned="bracket shaft")
        found = align([dial(crooked, alone), dial(crooked, FACE)])
        off = math.hypot(found["offset_v_mm"] - truth.offset_v_mm, found["offset_h_mm"] - truth.offset_h_mm)
        self.assertAlmostEqual(off, run, delta=1e-4)
        self.assertIn("run-out of the touched hub", " ".join(found["advice"]))

    def test_a_scattered_sweep_is_within_what_it_says_of_itself(self) -> None:
        chance, truth = random.Random(3), TrueShafts(offset_v_mm=0.2, slope_h_mm_per_m=-0.4)
        gauge, hits = Gauge(resolution_mm=0.01, scatter_mm=0.01), 0
        for _ in range(200):
            dials = []
            for bracket in (RIM, BACK):
                readings = sweep(truth, bracket, range(0, 360, 30), gauge, chance)
                dials.append({"kind": "rim", "bracket_on": bracket.on, "x_mm": bracket.x_mm, "readings": readings})
            found = align(dials)
            hits += abs(found["offset_v_mm"] - 0.2) <= 2 * found["offset_v_sigma_mm"]
        self.assertGreater(hits, 180)  # two sigma: 95 of 100


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

    @settings(max_examples=25)
    @given(truth=shafts)
    def test_no_search_finds_a_plan_whose_largest_move_is_smaller(self, truth: TrueShafts) -> None:
        room: dict[str, Any] = {foot["name"]: {} for foot in FEET + FIXED}
        plan = align(self.both(truth), room=room)["plan"]
        largest = max(max(abs(m["shim_mm"]), abs(m["slide_mm"])) for m in plan)
        # Brute force, one plane at a time: where the stationary machine goes decides where the movable one has to go.
        smallest = 0.0
        for offset, slope in ((truth.offset_v_mm, truth.slope_v_mm_per_m), (truth.offset_h_mm, truth.slope_h_mm_per_m)):
            a, b = np.meshgrid(np.linspace(-1.5, 1.5, 61), np.linspace(-1.5, 1.5, 61))
            b = b + slope / 2
            a = a + offset / 2
            moves = [np.abs(a + b * f["x_mm"] / 1000) for f in FIXED]
            moves += [np.abs(a - offset + (b - slope) * f["x_mm"] / 1000) for f in FEET]
            smallest = max(smallest, float(np.max(moves, axis=0).min()))
        self.assertLessEqual(largest, smallest + 1e-6)

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


class LimitsTest(unittest.TestCase):
    """A spacer takes its angle at each flexing plane."""

    def test_a_spacer_is_judged_by_the_larger_angle_of_its_planes(self) -> None:
        truth = TrueShafts(offset_v_mm=0.3)
        limits = {"angle_mm_per_m": 2.0, "at": "flexing planes"}
        found = align([dial(truth, RIM), dial(truth, FACE)], limits=limits, coupling={"flex_planes_mm": [-100, 100]})
        check = found["checks"][0]
        self.assertAlmostEqual(check["value"], 0.3 / 0.2)  # 0.3 mm over 200 mm, level shafts
        self.assertEqual((len(found["checks"]), found["verdict"]), (1, "inside"))

    def test_warmth_grows_by_height_expansion_and_warming(self) -> None:
        warm = {"height_mm": 250, "cold_c": 20, "hot_c": 60, "material": "cast iron"}
        found = align([dial(TrueShafts(), RIM), dial(TrueShafts(), FACE)], warmth={"front": warm, "rear": warm})
        self.assertAlmostEqual(found["growth_mm"]["front"], 250 * 10.5e-6 * 40)
        self.assertAlmostEqual(found["feet"][0]["shim_mm"], -0.105, places=4)


class FaultsTest(unittest.TestCase):
    """What readings look like when something went wrong."""

    def said(self, readings: Sequence[tuple[float, float]]) -> str:
        """The advice on a rim with these readings, beside a good face."""
        rim = {"kind": "rim", "bracket_on": "stationary", "x_mm": 40}
        given = rim | {"readings": [{"clock": c, "value_mm": v} for c, v in readings]}
        return " ".join(align([given, dial(TrueShafts(), FACE)])["advice"])

    def test_each_fault_is_called_by_its_name(self) -> None:
        truth = TrueShafts(offset_v_mm=-0.3, offset_h_mm=0.1)
        true = {c: RIM.sees_mm(truth, c) - RIM.sees_mm(truth, 0) for c in range(0, 360, 30)}
        quarters = [(c, true[c]) for c in QUARTERS]
        self.assertEqual(self.said(quarters), "")
        swapped = [(c, -v if c == 270 else v) for c, v in quarters]
        self.assertIn("With the sign of 9 o'clock turned it closes", self.said(swapped))
        self.assertIn("loose bracket", self.said([*quarters, (360, 0.06)]))
        stopped = [(c, min(v, 0.4)) for c, v in true.items()]
        self.assertIn("end of its travel", self.said(stopped))
        there_and_back = list(true.items()) + [(c, v + 0.05) for c, v in reversed(list(true.items()))][1:]
        self.assertIn("Backlash", self.said(there_and_back))

    def test_where_it_cannot_be_told_the_reading_that_would_help_is_named(self) -> None:
        chance, truth = random.Random(5), TrueShafts(offset_v_mm=0.05)
        rough = Gauge(resolution_mm=0.05, scatter_mm=0.02)
        dials = []
        for bracket in (RIM, BACK):
            readings = sweep(truth, bracket, (0, 30, 60, 90), rough, chance)
            dials.append({"kind": "rim", "bracket_on": bracket.on, "x_mm": bracket.x_mm, "readings": readings})
        found = align(dials, limits={"offset_mm": 0.08, "angle_mm_per_m": 9}, resolution_mm=0.05)
        self.assertRegex(found["next_reading"] or "", r"a further reading at .* on the rim [12]")


class SoftFootTest(unittest.TestCase):
    """Feet that do not stand flat."""

    def softfoot(self, corners: list[float] | None, rise: float = 0.24) -> dict[str, Any]:
        """Rear right is soft."""
        rises = {"front left": 0.02, "front right": 0.0, "rear right": rise, "rear left": 0.01}
        feet = [{"name": name, "rise_mm": mm} for name, mm in rises.items()]
        given = {"feet": feet, "limit_mm": 0.05, "corners": {"rear right": corners} if corners else {}}
        return as_dict(evaluate_json("softfoot", json.dumps(given)))

    def test_each_kind_wants_its_own_cure(self) -> None:
        rows: list[tuple[list[float] | None, str, float]] = [
            ([0.24, 0.23, 0.24, 0.25], "parallel", 0.24),
            ([0.05, 0.30, 0.30, 0.05], "angled", 0.05),
            ([0.0, 0.0, 0.01, 0.0], "springing", 0.0),
            (None, "unknown", 0.24),
        ]
        for corners, kind, shim in rows:
            with self.subTest(kind):
                found = self.softfoot(corners)
                foot = next(f for f in found["feet"] if f["name"] == "rear right")
                self.assertEqual((found["worst"], foot["kind"]), ("rear right", kind))
                self.assertAlmostEqual(foot["shim_mm"], shim)
                self.assertTrue(all(f["shim_mm"] == 0 for f in found["feet"] if f["name"] != "rear right"))
        self.assertIn("springs as well", " ".join(self.softfoot([0.1, 0.1, 0.1, 0.1])["advice"]))
        self.assertEqual(self.softfoot([0.1] * 4, rise=0.04)["advice"], [])

    def test_corners_of_a_foot_that_is_not_there_and_names_used_twice_are_refused(self) -> None:
        feet = [{"name": "a", "rise_mm": 0.1}, {"name": "a", "rise_mm": 0.1}]
        with self.assertRaises(UnusableInput) as refused:
            evaluate_json("softfoot", json.dumps({"feet": feet, "limit_mm": 0.05, "corners": {"b": [0, 0, 0, 0]}}))
        self.assertEqual([p.path for p in refused.exception.problems], ["feet.1.name", "corners.b"])


class ShiftTest(unittest.TestCase):
    """What torquing the feet did."""

    @given(before=shafts, up=st.floats(-0.3, 0.3), side=st.floats(-0.3, 0.3))
    def test_the_shift_is_what_was_done_to_the_machine(self, before: TrueShafts, up: float, side: float) -> None:
        assume(abs(math.hypot(up, side) - 0.02) > 1e-6)
        after = replace(before, offset_v_mm=before.offset_v_mm + up, offset_h_mm=before.offset_h_mm + side)
        first = [dial(before, RIM), dial(before, FACE)]
        found = align([dial(after, RIM), dial(after, FACE)], before={"dials": first})
        self.assertAlmostEqual(found["shifted_v_mm"], up, delta=HUNDREDTH_OF_A_MICRON)
        self.assertAlmostEqual(found["shifted_h_mm"], side, delta=HUNDREDTH_OF_A_MICRON)
        said = " ".join(found["advice"])
        noticed = math.hypot(up, side) > 0.02
        self.assertEqual(("moved it" in said, "did not move it" in said), (noticed, not noticed))

    @given(cold=shafts, rise=st.floats(-0.4, 0.4), surprise=st.floats(-0.3, 0.3))
    def test_a_hot_check_finds_what_the_growth_figures_missed(self, cold: TrueShafts, rise: float, surprise: float) -> None:
        assume(abs(abs(surprise) - 0.02) > 1e-6)
        warm = replace(cold, offset_v_mm=cold.offset_v_mm + rise + surprise)
        said_to_rise = {"front": rise, "rear": rise}
        check = {"cold": {"dials": [dial(cold, RIM), dial(cold, FACE)]}, "growth": said_to_rise}
        found = align([dial(warm, RIM), dial(warm, FACE)], warm=check)
        self.assertAlmostEqual(
            found["offset_v_mm"] - found["predicted"]["offset_v_mm"], surprise, delta=HUNDREDTH_OF_A_MICRON
        )
        words = "than predicted" if abs(surprise) > 0.02 else "where it was predicted"
        self.assertIn(words, " ".join(found["advice"]))

    @given(truth=shafts, at=st.floats(-400, 400))
    def test_figures_off_a_screen_say_the_same_as_the_readings_they_came_from(self, truth: TrueShafts, at: float) -> None:
        read = [dial(truth, RIM), dial(truth, FACE)]
        shown = {
            "offset_v_mm": truth.v_mm(at),
            "slope_v_mm_per_m": truth.slope_v_mm_per_m,
            "offset_h_mm": truth.h_mm(at),
            "slope_h_mm_per_m": truth.slope_h_mm_per_m,
            "x_mm": at,
        }
        by_dials, by_screen = align(read), align([], shown=shown, before={"dials": read})
        for one, other in zip(by_dials["feet"], by_screen["feet"], strict=True):
            self.assertAlmostEqual(one["shim_mm"], other["shim_mm"], delta=HUNDREDTH_OF_A_MICRON)
            self.assertAlmostEqual(one["slide_mm"], other["slide_mm"], delta=HUNDREDTH_OF_A_MICRON)
        self.assertAlmostEqual(by_screen["shifted_v_mm"], 0, delta=HUNDREDTH_OF_A_MICRON)
        self.assertIsNone(by_screen["offset_v_sigma_mm"])
        for wrong, path in (({"shown": shown}, "shown"), ({}, "dials")):
            with self.assertRaises(UnusableInput) as refused:
                align(read if wrong else [], **wrong)
            self.assertEqual([problem.path for problem in refused.exception.problems], [path])

    def test_a_foot_that_stays_is_not_moved_and_the_others_make_up_for_it(self) -> None:
        truth = TrueShafts(offset_v_mm=0.3, slope_h_mm_per_m=0.5)
        both = [dial(truth, RIM), dial(truth, FACE)]
        room: dict[str, Any] = {foot["name"]: {} for foot in FEET + FIXED} | {"rear": {"stays": True}}
        plan = align(both, room=room)["plan"]
        rear = next(move for move in plan if move["name"] == "rear")
        self.assertEqual((rear["shim_mm"], rear["slide_mm"]), (0.0, 0.0))
        alone = align(both, room={"front": {"stays": True}, "rear": {"stays": True}})
        self.assertIsNone(alone["plan"])
