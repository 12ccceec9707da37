"""Gap, straightedge and alignment: the schools of acceptance, and what bad readings look like."""

import json
import math
import unittest
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from millwright.benches.register import as_dict, evaluate_json
from millwright.errors import UnusableInput

QUARTERS = (0, 90, 180, 270)
FEET: dict[str, Any] = {
    "stationary_feet": [],
    "movable_feet": [{"name": "near", "x_mm": 300.0}, {"name": "far", "x_mm": 600.0}],
}


def ask(bench: str, **given_: Any) -> dict[str, Any]:
    """The bench's answer."""
    return as_dict(evaluate_json(bench, json.dumps(given_)))


def ring(*values: float) -> list[dict[str, float]]:
    """Readings at 12, 3, 6 and 9."""
    return [{"clock": c, "value_mm": v} for c, v in zip(QUARTERS, values, strict=True)]


def dial(kind: str, readings: list[dict[str, float]], **more: Any) -> dict[str, Any]:
    """A dial with its bracket on the stationary shaft."""
    radius = {"radius_mm": 50.0} if kind == "face" else {}
    return {"kind": kind, "bracket_on": "stationary", "x_mm": 20.0, **radius, "readings": readings, **more}


def align(rim: list[dict[str, float]], face: list[dict[str, float]], **more: Any) -> dict[str, Any]:
    """Rim and face on a machine with two pairs of feet."""
    return ask("alignment", dials=[dial("rim", rim), dial("face", face)], **{**FEET, **more})


class GapTest(unittest.TestCase):
    """One set of readings, judged by every school."""

    def gap(self, *values: float, **accept: Any) -> dict[str, Any]:
        """Caliper readings on 160 mm."""
        return ask("gap", readings=ring(*values), diameter_mm=160.0, accept=accept)

    def test_each_school_looks_at_its_own_figure(self) -> None:
        readings = (3.2, 3.0, 2.8, 3.0)
        rows: dict[str, tuple[dict[str, Any], str]] = {
            "the mean is inside": ({"mean": {"min_mm": 2.8, "max_mm": 3.2}}, "inside"),
            "one reading is outside": ({"each": {"min_mm": 2.9, "max_mm": 3.3}}, "over"),
            "the spread is 0.4": ({"spread": {"max_mm": 0.3}}, "over"),
            "the angle is 2.5 mm/m": ({"angle": {"max_mm_per_m": 3.0}}, "close"),
            "nothing to judge by": ({}, "not judged"),
        }
        for why, (accept, verdict) in rows.items():
            with self.subTest(why):
                self.assertEqual(self.gap(*readings, **accept)["verdict"], verdict)

    def test_a_bar_is_added_to_every_feeler(self) -> None:
        feelers = ask("gap", readings=ring(0.2, 0.1, 0.0, 0.1), diameter_mm=160.0, bar_mm=3.0)
        self.assertAlmostEqual(feelers["mean_mm"], 3.1, delta=1e-9)
        self.assertAlmostEqual(feelers["angle_mm_per_m"], self.gap(3.2, 3.1, 3.0, 3.1)["angle_mm_per_m"], delta=1e-9)

    def test_says_which_way_to_go_and_where_it_opens(self) -> None:
        wide = self.gap(3.6, 3.5, 3.4, 3.5, mean={"min_mm": 2.8, "max_mm": 3.2}, angle={"max_mm_per_m": 1.0})
        self.assertIn("Close the gap by 0.50 mm", wide["advice"][0])
        self.assertIn("opens at 12 o'clock", " ".join(wide["advice"]))

    @settings(max_examples=60)
    @given(st.floats(-5, 5), st.floats(-5, 5), st.floats(2, 8), st.floats(40, 300))
    def test_a_tilted_hub_comes_back_as_its_tilt(self, v: float, h: float, gap: float, diameter: float) -> None:
        clocks = (10, 100, 190, 280, 340)
        turned = [math.radians(c) for c in clocks]
        values = [gap - diameter / 2000 * (v * math.cos(t) + h * math.sin(t)) for t in turned]
        readings = [{"clock": c, "value_mm": x} for c, x in zip(clocks, values, strict=True)]
        found = ask("gap", readings=readings, diameter_mm=diameter)
        self.assertAlmostEqual(found["angle_v_mm_per_m"], v, delta=1e-6)
        self.assertAlmostEqual(found["angle_h_mm_per_m"], h, delta=1e-6)
        self.assertAlmostEqual(found["mean_mm"], gap, delta=1e-6)


class StraightedgeTest(unittest.TestCase):
    """Feelers over hubs of any two sizes."""

    @settings(max_examples=60)
    @given(st.floats(-0.5, 0.5), st.floats(-0.5, 0.5), st.floats(80, 200), st.floats(-0.4, 0.4))
    def test_the_offset_comes_back_whatever_the_hubs_measure(self, v: float, h: float, hub: float, differ: float) -> None:
        readings = []
        for clock in QUARTERS:
            t = math.radians(clock)
            step = v * math.cos(t) + h * math.sin(t) + differ / 2
            readings.append({"clock": clock, "feeler_mm": abs(step), "on": "stationary" if step > 0 else "movable"})
        found = ask("straightedge", readings=readings, stationary_hub_mm=hub, movable_hub_mm=hub + differ)
        self.assertAlmostEqual(found["offset_v_mm"], v, delta=1e-6)
        self.assertAlmostEqual(found["offset_h_mm"], h, delta=1e-6)

    def test_steps_that_do_not_close_ask_for_the_hubs_to_be_measured_again(self) -> None:
        readings = [{"clock": c, "feeler_mm": 0.2, "on": "stationary"} for c in QUARTERS]
        found = ask("straightedge", readings=readings, stationary_hub_mm=105.0, movable_hub_mm=105.0)
        self.assertIn("Measure the hubs again", found["advice"][0])

    def test_places_on_one_line_across_tell_only_half(self) -> None:
        readings = [{"clock": c, "feeler_mm": 0.1, "on": "movable"} for c in (0, 180)]
        with self.assertRaises(UnusableInput) as caught:
            ask("straightedge", readings=readings, stationary_hub_mm=105.0, movable_hub_mm=105.0)
        self.assertIn("quarter turn", caught.exception.problems[0].message)


class LimitsTest(unittest.TestCase):
    """One limit said in several ways is one limit."""

    def used(self, **limits: Any) -> dict[str, float]:
        """Share of each check for a machine 0.1 low and 1 mm/m out of square."""
        readings = ring(0.0, 0.12, 0.24, 0.12), ring(0.0, 0.05, 0.10, 0.05)
        return {c["code"]: c["used"] for c in align(*readings, limits=limits)["checks"]}

    def test_degrees_slope_and_gap_difference_agree(self) -> None:
        slope = 4.0
        angle = math.degrees(math.atan(slope / 1000))
        all_three = self.used(
            offset_mm=0.4, angle_mm_per_m=slope, angle_deg=angle, gap_difference_mm=slope / 1000 * 160, diameter_mm=160.0
        )
        shares = [all_three[code] for code in ("angle", "angle_deg", "gap_difference")]
        self.assertAlmostEqual(max(shares), min(shares), delta=1e-5)  # tangent and angle part company at the sixth place

    def test_a_swing_of_twice_the_offset_is_the_same_limit(self) -> None:
        both = self.used(offset_mm=0.4, swing_mm=0.8, angle_deg=1.0)
        self.assertAlmostEqual(both["offset"], both["swing"], delta=1e-9)

    def test_half_of_a_pair_of_limits_is_not_enough_to_judge(self) -> None:
        still = ring(0, 0, 0, 0)
        self.assertEqual(align(still, still, limits={"offset_mm": 0.4})["verdict"], "incomplete")
        self.assertEqual(align(still, still)["verdict"], "not judged")

    def test_the_running_target_tightens_with_speed(self) -> None:
        still = ring(0.0, 0.02, 0.04, 0.02), ring(0, 0, 0, 0)
        target = {"sliding_mm_per_s": 5.6, "radius_mm": 50.0}
        slow, fast = (align(*still, running_target=target, speed_rpm=rpm)["checks"][0] for rpm in (750, 3000))
        self.assertAlmostEqual(fast["max"], slow["max"] / 4, delta=1e-9)
        # 5.6 mm/s at 3000 rpm, 314.16 rad/s
        self.assertAlmostEqual(fast["max"], 5.6 / 314.159, delta=1e-5)


class BadReadingsTest(unittest.TestCase):
    """What is wrong with a set of readings is said with the dial's name and the place."""

    def test_a_set_that_does_not_close_names_its_dial(self) -> None:
        found = align(ring(0.0, 0.18, 0.60, 0.50), ring(0, 0, 0, 0))
        self.assertEqual([round(c, 6) for c in found["closure_mm"]], [-0.08, 0.0])
        self.assertIn("Rim: 12 + 6 and 3 + 9 differ by 0.08 mm.", found["advice"][0])

    def test_one_of_eight_is_singled_out_with_its_dial(self) -> None:
        rim = [{"clock": c, "value_mm": round(0.2 * math.cos(math.radians(c)), 2)} for c in range(0, 360, 45)]
        rim[3]["value_mm"] += 0.1
        found = ask("alignment", dials=[dial("rim", rim), dial("face", ring(0, 0, 0, 0))], **FEET)
        self.assertEqual([(s["dial"], s["clock"]) for s in found["stands_out"]], [(0, 135.0)])
        self.assertIn("half past 4 on rim", found["advice"][0])

    def test_only_the_brackets_shaft_turned_is_said_and_only_the_touched_one_is_refused(self) -> None:
        readings = ring(0.0, 0.1, 0.2, 0.1)
        still = dial("face", ring(0, 0, 0, 0))
        found = ask("alignment", dials=[dial("rim", readings, turned="bracket shaft"), still], **FEET)
        self.assertIn("run-out of the touched hub is in the reading", " ".join(found["advice"]))
        with self.assertRaises(UnusableInput) as caught:
            ask("alignment", dials=[dial("rim", readings, turned="touched shaft"), still], **FEET)
        self.assertEqual([p.path for p in caught.exception.problems], ["dials.0.turned"])

    def test_more_uncertain_than_what_is_left_is_not_called_inside_without_a_word(self) -> None:
        shaky = [
            {"clock": c, "value_mm": v}
            for c, v in zip(range(0, 360, 45), (0, 0.03, -0.03, 0.03, 0, -0.03, 0.03, -0.03), strict=True)
        ]
        found = ask(
            "alignment",
            dials=[dial("rim", shaky), dial("face", ring(0, 0, 0, 0))],
            limits={"offset_mm": 0.02, "angle_deg": 1},
            **FEET,
        )
        self.assertIn("uncertain by", " ".join(found["advice"]))

    def test_growth_and_a_cold_target_exclude_each_other_and_an_unknown_foot_is_named(self) -> None:
        still = ring(0, 0, 0, 0)
        with self.assertRaises(UnusableInput) as caught:
            align(still, still, growth={"near": 0.1, "nowhere": 0.1}, target={"offset_v_mm": 0.1})
        self.assertEqual({p.path for p in caught.exception.problems}, {"target", "growth.nowhere"})
