"""Properties that hold whatever the machine: readings made from a true position come back as that position."""

import json
import math
import unittest
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from millwright.benches.register import as_dict, evaluate_json
from millwright.bolt_order import ORDERS
from millwright.units import read_length_mm

A_HUNDREDTH_OF_A_MICRON = 1e-5  # mm
OFFSET = st.floats(-2, 2)
SLOPE = st.floats(-3, 3)
START = st.floats(0, 360)


def read(true: tuple[float, ...], dial: dict[str, Any], clocks: list[float]) -> dict[str, Any]:
    """What a dial would show on a machine in the true position (offset and slope, up and toward 3)."""
    ov, sv, oh, sh = true
    readings = []
    for clock in clocks:
        phi = math.radians(clock)
        if dial["kind"] == "rim":
            sign = 1 if dial["bracket_on"] == "stationary" else -1
            x = dial["x_mm"] / 1000
            value = sign * ((ov + sv * x) * math.cos(phi) + (oh + sh * x) * math.sin(phi))
        else:
            value = dial["radius_mm"] / 1000 * (sv * math.cos(phi) + sh * math.sin(phi))
        value += abs(dial.get("sag_mm", 0)) / 2 * (math.cos(phi) - 1)
        readings.append({"clock": clock, "value_mm": value + 0.37})  # zeroed anywhere
    return {**dial, "readings": readings}


RIM = {"kind": "rim", "bracket_on": "stationary", "x_mm": 60.0, "sag_mm": -0.06}
OTHER_RIM = {"kind": "rim", "bracket_on": "movable", "x_mm": -60.0, "sag_mm": -0.09}
FACE = {"kind": "face", "bracket_on": "stationary", "x_mm": 5.0, "radius_mm": 80.0}
FEET = [{"name": "near", "x_mm": 300.0}, {"name": "far", "x_mm": 700.0}]


def align(*dials: dict[str, Any], **more: Any) -> dict[str, Any]:
    """The alignment bench on these dials."""
    given = {"dials": dials, "stationary_feet": [], "movable_feet": FEET, **more}
    return as_dict(evaluate_json("alignment", json.dumps(given)))


class AlignmentTest(unittest.TestCase):
    """Two methods, any places, one answer."""

    @settings(max_examples=60)
    @given(st.tuples(OFFSET, SLOPE, OFFSET, SLOPE), START, st.floats(25, 90), st.integers(4, 8))
    def test_the_true_position_comes_back_by_either_method(
        self, true: tuple[float, ...], start: float, step: float, places: int
    ) -> None:
        clocks = [(start + i * step) % 360 for i in range(places)]
        for second in (FACE, OTHER_RIM):
            found = align(read(true, RIM, clocks), read(true, second, clocks))
            for name, value in zip(("offset_v_mm", "slope_v_mm_per_m", "offset_h_mm", "slope_h_mm_per_m"), true, strict=True):
                self.assertAlmostEqual(found[name], value, delta=A_HUNDREDTH_OF_A_MICRON * 10)

    @settings(max_examples=40)
    @given(st.tuples(OFFSET, SLOPE, OFFSET, SLOPE))
    def test_moved_as_told_and_read_again_it_is_in_line(self, true: tuple[float, ...]) -> None:
        clocks = [0.0, 90.0, 180.0, 270.0]
        found = align(read(true, RIM, clocks), read(true, FACE, clocks))
        (near, far), length = found["feet"], 0.4
        moved = []
        for offset, slope, move in ((true[0], true[1], "shim_mm"), (true[2], true[3], "slide_mm")):
            turn = (far[move] - near[move]) / length
            moved += [offset + near[move] - turn * 0.3, slope + turn]
        again = align(read(tuple(moved), RIM, clocks), read(tuple(moved), FACE, clocks))
        self.assertLess(again["offset_mm"], A_HUNDREDTH_OF_A_MICRON)
        self.assertLess(again["slope_mm_per_m"], A_HUNDREDTH_OF_A_MICRON * 10)

    def test_growth_that_lifts_the_machine_into_line_asks_for_no_shims(self) -> None:
        clocks = [0.0, 90.0, 180.0, 270.0]
        low = (-0.2, 0.0, 0.0, 0.0)
        found = align(read(low, RIM, clocks), read(low, FACE, clocks), growth={"near": 0.2, "far": 0.2})
        self.assertTrue(all(abs(foot["shim_mm"]) < A_HUNDREDTH_OF_A_MICRON for foot in found["feet"]))
        self.assertAlmostEqual(found["offset_v_mm"], -0.2, delta=A_HUNDREDTH_OF_A_MICRON)

    def test_a_swing_is_twice_an_offset(self) -> None:
        true = (0.06, 0.0, 0.0, 0.0)
        dials = [read(true, RIM, [0, 90, 180, 270]), read(true, FACE, [0, 90, 180, 270])]
        swing = align(*dials, limits={"swing_mm": 0.10, "angle_deg": 1.0})
        offset = align(*dials, limits={"offset_mm": 0.10, "angle_deg": 1.0})
        self.assertEqual((swing["verdict"], offset["verdict"]), ("over", "inside"))


class ClockTest(unittest.TestCase):
    """The sine round the clock."""

    @settings(max_examples=60)
    @given(st.floats(0.01, 0.5), START, START)
    def test_the_high_spot_follows_a_turn_of_the_readings(self, size: float, peak: float, turn: float) -> None:
        def high_spot(by: float) -> float:
            readings = [
                {"clock": (c + by) % 360, "value_mm": size * math.cos(math.radians(c - peak))} for c in range(0, 360, 60)
            ]
            found = evaluate_json("runout", json.dumps({"readings": readings, "limit_mm": 1.0}))
            return float(as_dict(found)["high_spot_deg"])

        turned = (high_spot(turn) - high_spot(0) - turn + 180) % 360 - 180
        self.assertAlmostEqual(turned, 0, delta=0.001)

    @settings(max_examples=60)
    @given(st.integers(6, 12), st.integers(0, 11), st.sampled_from([-0.12, 0.12]))
    def test_one_wrong_reading_is_singled_out_and_a_rounded_set_is_not(self, places: int, wrong: int, by: float) -> None:
        clocks = [i * 360 / places for i in range(places)]
        values = [round(0.2 * math.cos(math.radians(c - 40)), 2) for c in clocks]
        rounded = self.out(clocks, values)
        values[wrong % places] += by
        self.assertEqual((rounded, self.out(clocks, values)), ([], [wrong % places]))

    def out(self, clocks: list[float], values: list[float]) -> list[int]:
        """Indexes of the readings that stand out."""
        readings = [{"clock": c, "value_mm": v} for c, v in zip(clocks, values, strict=True)]
        return [s["index"] for s in as_dict(evaluate_json("clock", json.dumps({"readings": readings})))["stands_out"]]


class TightenTest(unittest.TestCase):
    """Orders of bolts."""

    @given(st.integers(1, 60))
    def test_every_order_takes_every_bolt_once(self, bolts: int) -> None:
        for name, order in ORDERS.items():
            self.assertEqual(sorted(order(bolts)), list(range(1, bolts + 1)), name)

    @given(st.integers(2, 30))
    def test_crosswise_pairs_stand_opposite(self, half: int) -> None:
        order = ORDERS["star"](2 * half)
        self.assertTrue(all(abs(a - b) == half for a, b in zip(order[::2], order[1::2], strict=True)))


class LengthTest(unittest.TestCase):
    """Lengths as people write them."""

    def test_reads_what_people_write(self) -> None:
        rows = {
            "0.05": 0.05,
            "2 thou": 0.0508,
            ".015 in": 0.381,
            "1/64": 0.396875,
            '1 1/2"': 38.1,
            "−0.02": -0.02,
            "0,05": 0.05,
            "12 µm": 0.012,
            "-1/64 in": -0.396875,
            "5 ells": None,
            "1/0": None,
            "": None,
        }
        self.assertEqual({text: read_length_mm(text, "mm") for text in rows}, rows)

    @given(st.floats(-500, 500).map(lambda x: round(x, 3)))
    def test_millimetres_and_inches_of_one_length_agree(self, mm: float) -> None:
        self.assertAlmostEqual(read_length_mm(f"{mm / 25.4:.7f} in", "mm") or 0.0, mm, delta=0.0001)
