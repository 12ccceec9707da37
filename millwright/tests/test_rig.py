"""Readings made by the forward model from any true position come back as that position."""

import math
import random
import unittest
from collections.abc import Sequence
from dataclasses import replace

import numpy as np
from hypothesis import assume, given
from hypothesis import strategies as st

from millwright.errors import UnusableInput
from millwright.rig.machine import Bracket, Gauge, TrueShafts, sweep, two_faces

from .true_shafts import (
    ANY_PLACES,
    BACK,
    FACE,
    HUNDREDTH_OF_A_MICRON,
    PERFECT,
    QUARTERS,
    RIM,
    align,
    axis,
    dial,
    shafts,
    small,
    truly,
)


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
        self.assertFalse(found["proven"])
        self.assertIn(found["next_reading"]["dial"], (0, 1))
        self.assertRegex(" ".join(found["advice"]), r"One more reading helps most at .* on the rim [12]")


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
