"""Drives that hang, and drives that hold by magnets: held against mirrors, wheels that turn and true positions."""

import json
import math
import random
import unittest
from collections.abc import Mapping, Sequence
from dataclasses import replace
from itertools import product
from typing import Any

from millwright.benches.register import as_dict, evaluate_json
from millwright.errors import UnusableInput
from millwright.rig.air_gap import Side, TrueDrive, read_gaps
from millwright.rig.machine import Gauge, TrueShafts

Places = Mapping[Side, Sequence[float]]
SIDES = ("input side", "output side")
WAYS = ("cw", "ccw")
FRONT, REAR = 350.0, 900.0
ROUND: Places = {"driver": (0, 90, 180, 270), "load": (0, 90, 180, 270)}
REACHED: Places = {"driver": (30, 90, 150), "load": (210, 270, 330)}
RADIUS = 200.0


def bench(name: str, **given: Any) -> dict[str, Any]:
    """What a bench answers."""
    return as_dict(evaluate_json(name, json.dumps(given)))


def wheels(output: int, meshes: int) -> int:
    """A train of wheels that roll on each other without slip: the rotation of the last, + as the first's."""
    turned = output
    for _ in range(meshes):
        turned = -turned  # at the mesh both rims run the same way, so the wheels turn against each other
    return turned


class BackstopTest(unittest.TestCase):
    """The way the race turns freely."""

    def test_as_wheels_that_roll_on_each_other(self) -> None:
        """Rotation as a vector along the output shaft, + toward the output side; clockwise points away from who looks."""
        for way, seen, meshes, on in product(WAYS, SIDES, range(5), SIDES):
            toward = 1 if seen == "output side" else -1
            output = toward * (-1 if way == "cw" else 1)
            shaft = wheels(output, meshes)
            clockwise = shaft * (1 if on == "output side" else -1) < 0
            found = bench("backstop", output_rotation=way, seen_from=seen, meshes=meshes, backstop_on=on)
            with self.subTest(way=way, seen=seen, meshes=meshes, on=on):
                self.assertEqual(found["shaft_rotation_seen_from_backstop"], "cw" if clockwise else "ccw")
                self.assertEqual(len(found["train"]), meshes + 1)
                self.assertEqual(found["train"][-1]["turns"], found["shaft_rotation_seen_from_backstop"])

    def test_mirror_the_side_one_stands_on_and_the_arrow_mirrors(self) -> None:
        for way, meshes, on in product(WAYS, range(4), SIDES):
            arrows = {
                bench("backstop", output_rotation=way, seen_from=seen, meshes=meshes, backstop_on=on)[
                    "shaft_rotation_seen_from_backstop"
                ]
                for seen in SIDES
            }
            self.assertEqual(arrows, set(WAYS))

    def test_two_who_stand_on_either_side_agree_and_one_who_miscounts_does_not(self) -> None:
        said = {"output_rotation": "cw", "seen_from": "input side", "meshes": 2, "backstop_on": "input side"}
        across = {**said, "output_rotation": "ccw", "seen_from": "output side"}
        self.assertEqual(bench("backstop", **across, said_before=said)["verdict"], "not judged")
        for wrong in ({"meshes": 3}, {"output_rotation": "cw"}, {"backstop_on": "output side"}, {"meshes": 4}):
            found = bench("backstop", **{**across, **wrong}, said_before=said)
            with self.subTest(wrong):
                self.assertEqual(found["verdict"], "over")
                self.assertEqual(found["says"][0]["code"], "do_not_agree")


class ArmTest(unittest.TestCase):
    """The force on the anchor."""

    def test_arm_and_rod_balance_the_torque(self) -> None:
        """Force along the rod, crossed with the arm, is the torque again."""
        for angle in (20.0, 70.0, 90.0, 130.0):
            found = bench("torque_arm", torque_nm=1800.0, arm_mm=640.0, angle_deg=angle)
            fx, fy = (found["force_n"] * part for part in (math.cos(math.radians(angle)), math.sin(math.radians(angle))))
            self.assertAlmostEqual(0.640 * fy - 0.0 * fx, 1800.0, places=6)
            self.assertEqual(found["verdict"], "inside" if abs(angle - 90) <= 24 else "over")

    def test_power_and_speed_or_the_torque_and_not_both(self) -> None:
        for given in ({}, {"power_kw": 11.0}, {"power_kw": 11.0, "output_rpm": 35.0, "torque_nm": 3000.0}):
            with self.subTest(given), self.assertRaises(UnusableInput):
                bench("torque_arm", arm_mm=550.0, angle_deg=90.0, **given)

    def test_what_nobody_builds_is_refused_or_answered(self) -> None:
        for given in (
            {"torque_nm": 99999.0, "arm_mm": 5e-324},
            {"power_kw": 11.0, "output_rpm": 5e-324, "arm_mm": 500.0},
            {"arm_mm": 0.5, "torque_nm": 1.0},
        ):
            with self.subTest(given), self.assertRaises(UnusableInput):
                bench("torque_arm", angle_deg=45.0, **given)
        self.assertEqual(bench("torque_arm", torque_nm=5e-324, arm_mm=500.0, angle_deg=45.0)["verdict"], "over")


class AirGapTest(unittest.TestCase):
    """The gaps of a magnetic drive against a driver whose place is known."""

    def drive(self, chance: random.Random) -> TrueDrive:
        return TrueDrive(
            shafts=TrueShafts(
                offset_v_mm=chance.uniform(-0.3, 0.3),
                slope_v_mm_per_m=chance.uniform(-1.0, 1.0),
                offset_h_mm=chance.uniform(-0.3, 0.3),
                slope_h_mm_per_m=chance.uniform(-1.0, 1.0),
            ),
            away_mm=chance.uniform(-0.8, 0.8),
        )

    def read(self, drive: TrueDrive, places: Any = ROUND, gauge: Gauge | None = None, **more: Any) -> dict[str, Any]:
        gaps = read_gaps(drive, places, RADIUS, gauge or Gauge(), random.Random(3))
        feet = [{"name": "front", "x_mm": FRONT}, {"name": "rear", "x_mm": REAR}]
        return bench("airgap", stations=gaps, diameter_mm=2 * RADIUS, spread_max_mm=0.2, movable_feet=feet, **more)

    def test_a_true_position_comes_back(self) -> None:
        for seed, places in product(range(20), (ROUND, REACHED, {"driver": (0, 120, 240), "load": (45,)})):
            drive = self.drive(random.Random(seed))
            found = self.read(drive, places)
            self.assertAlmostEqual(found["angle_v_mm_per_m"], drive.shafts.slope_v_mm_per_m, delta=1e-9)
            self.assertAlmostEqual(found["angle_h_mm_per_m"], drive.shafts.slope_h_mm_per_m, delta=1e-9)
            self.assertAlmostEqual(found["slide_axial_mm"], -drive.away_mm, delta=0.002)  # of a lean times an offset

    def test_moves_made_the_gaps_are_even(self) -> None:
        uneven = 0
        for seed in range(20):
            drive = self.drive(random.Random(seed))
            found = self.read(drive)
            uneven += found["verdict"] == "over"
            front, rear = found["feet"]
            moved = {
                f"slope_{way}_mm_per_m": getattr(drive.shafts, f"slope_{way}_mm_per_m")
                + (rear[key] - front[key]) / (REAR - FRONT) * 1000
                for way, key in (("v", "shim_mm"), ("h", "slide_mm"))
            }
            shafts = replace(drive.shafts, **moved)
            after = self.read(replace(drive, shafts=shafts, away_mm=drive.away_mm + found["slide_axial_mm"]))
            self.assertEqual(after["verdict"], "inside")
            self.assertLess(after["spread_driver_mm"], 0.002)
            self.assertLess(abs(after["mean_driver_mm"] - after["mean_load_mm"]), 0.004)
        self.assertGreater(uneven, 15)

    def test_the_true_position_lies_within_its_plus_minus(self) -> None:
        feeler, held = Gauge(resolution_mm=0.05, scatter_mm=0.02), 0
        for seed in range(200):
            drive = self.drive(random.Random(seed))
            gaps = read_gaps(drive, ROUND, RADIUS, feeler, random.Random(seed + 1000))
            feet = [{"name": "front", "x_mm": FRONT}, {"name": "rear", "x_mm": REAR}]
            found = bench(
                "airgap", stations=gaps, diameter_mm=2 * RADIUS, spread_max_mm=0.2, movable_feet=feet, resolution_mm=0.05
            )
            held += abs(found["slide_axial_mm"] + drive.away_mm) <= found["slide_axial_plus_minus_mm"] + 0.002
        self.assertGreaterEqual(held, 180)

    def test_one_gap_that_was_misread_is_named(self) -> None:
        drive = self.drive(random.Random(1))
        gaps = read_gaps(drive, ROUND, RADIUS, Gauge(), random.Random(1))
        gaps[5]["value_mm"] += 0.4
        feet = [{"name": "front", "x_mm": FRONT}, {"name": "rear", "x_mm": REAR}]
        found = bench("airgap", stations=gaps, diameter_mm=2 * RADIUS, spread_max_mm=0.2, movable_feet=feet)
        self.assertEqual([(one["side"], one["clock"]) for one in found["stands_out"]], [("load", 90)])

    def test_a_lean_that_is_not_known_is_not_shimmed_away(self) -> None:
        places = (("driver", 0, 3.0), ("driver", 90, 3.1), ("driver", 180, 3.25), ("load", 0, 3.0), ("load", 180, 3.25))
        gaps = [{"side": side, "clock": clock, "value_mm": value} for side, clock, value in places]  # both wide at 6
        found = bench(
            "airgap", stations=gaps, diameter_mm=400, spread_max_mm=0.2, movable_feet=[{"name": "front", "x_mm": FRONT}]
        )
        said = {one["code"] for one in found["says"]}
        self.assertEqual(("lean_unknown" in said, "take_lean_out" in said), (True, False))
        self.assertEqual([(foot["shim_known"], foot["slide_known"]) for foot in found["feet"]], [(False, False)])
        self.assertNotIn("front", json.dumps(found["drawn"]))
        known = self.read(self.drive(random.Random(4)))
        self.assertTrue(all(foot["shim_known"] and foot["slide_known"] for foot in known["feet"]))
        self.assertIn("front", json.dumps(known["drawn"]))

    def test_one_side_alone_or_one_corner_is_refused(self) -> None:
        for places in ({"driver": (0, 90, 180, 270)}, {"driver": (0, 20), "load": (10, 30)}, {"driver": (0,), "load": (90,)}):
            with self.subTest(places), self.assertRaises(UnusableInput):
                self.read(TrueDrive(shafts=TrueShafts()), places)

    def test_a_circle_smaller_than_any_drive_is_refused(self) -> None:
        gaps = read_gaps(TrueDrive(shafts=TrueShafts()), ROUND, RADIUS, Gauge(), random.Random(1))
        feet = [{"name": "front", "x_mm": FRONT}]
        with self.assertRaises(UnusableInput):
            bench("airgap", stations=gaps, diameter_mm=5e-324, spread_max_mm=0.2, movable_feet=feet)

    def test_a_gap_that_is_closed_is_over_and_is_not_turned(self) -> None:
        found = self.read(TrueDrive(shafts=TrueShafts(), nominal_mm=0.0))
        self.assertEqual((found["verdict"], found["says"][0]["code"]), ("over", "touches"))

    def test_the_reading_before_stands_beside_it(self) -> None:
        drive = TrueDrive(shafts=TrueShafts())
        before = read_gaps(replace(drive, away_mm=0.3), ROUND, RADIUS, Gauge(), random.Random(1))
        since = self.read(drive, before={"stations": before})["since"]
        self.assertAlmostEqual(since["mean_driver_mm"], -0.3, places=6)
        self.assertAlmostEqual(since["mean_load_mm"], 0.3, places=6)
