"""Run-out in two places: made from a known shaft and hub, told apart again; and what the stages of the loop say."""

import json
import math
import unittest
from typing import Any

from hypothesis import assume, given
from hypothesis import strategies as st

from millwright.benches.register import as_dict, evaluate_json
from millwright.errors import UnusableInput

TENTH_OF_A_MICRON = 0.0001
CLOCKS = (0, 45, 90, 135, 180, 225, 270, 315)
size = st.floats(0.03, 0.5)
turn = st.floats(0, 359)


def sine(*parts: tuple[float, float]) -> list[dict[str, float]]:
    """A ring that runs out by the sum of these: size, mm, and high spot, degrees."""
    return [{"clock": c, "value_mm": sum(mm * math.cos(math.radians(c - high)) for mm, high in parts)} for c in CLOCKS]


def runout(first: list[dict[str, float]], **more: Any) -> dict[str, Any]:
    """The bench on a rim."""
    return as_dict(evaluate_json("runout", json.dumps({"readings": first, "limit_mm": 0.05, "kind": "rim", **more})))


class BlameTest(unittest.TestCase):
    """Whose fault it is."""

    @given(mm=size, high=turn)
    def test_a_hub_that_only_follows_its_shaft_is_not_to_blame(self, mm: float, high: float) -> None:
        said = runout(sine((mm, high)), second={"on": "shaft", "readings": sine((mm, high))})
        self.assertEqual(said["blame"]["cause"], "the shaft")

    @given(mm=size, high=turn)
    def test_a_hub_that_runs_out_on_a_true_shaft_is(self, mm: float, high: float) -> None:
        said = runout(sine((mm, high)), second={"on": "shaft", "readings": sine((0.0, 0.0))})
        self.assertEqual(said["blame"]["cause"], "the hub")
        self.assertAlmostEqual(said["blame"]["own_mm"], mm, delta=TENTH_OF_A_MICRON)

    @given(shaft=st.tuples(size, turn), own=st.tuples(size, turn))
    def test_the_hubs_own_part_comes_back_whatever_the_shaft_does(
        self, shaft: tuple[float, float], own: tuple[float, float]
    ) -> None:
        said = runout(sine(shaft, own), second={"on": "shaft", "readings": sine(shaft)})["blame"]
        self.assertAlmostEqual(said["own_mm"], own[0], delta=TENTH_OF_A_MICRON)
        apart = (said["own_deg"] - own[1] + 180) % 360 - 180
        self.assertAlmostEqual(apart, 0, delta=0.5)

    @given(mm=size, high=turn)
    def test_two_planes_alike_are_off_centre_and_two_planes_opposed_are_cocked(self, mm: float, high: float) -> None:
        rim = "rim further along"
        self.assertEqual(
            runout(sine((mm, high)), second={"on": rim, "readings": sine((mm, high))})["blame"]["cause"], "off centre"
        )
        self.assertEqual(
            runout(sine((mm, high)), second={"on": rim, "readings": sine((mm, high + 180))})["blame"]["cause"], "cocked"
        )

    @given(st.tuples(size, turn), st.tuples(size, turn))
    def test_two_planes_that_differ_and_share_are_told_both_and_the_lean_is_their_difference(
        self, both: tuple[float, float], lean: tuple[float, float]
    ) -> None:
        near = sine(both, (lean[0] / 2, lean[1] + 180))
        far = sine(both, (lean[0] / 2, lean[1]))
        found = runout(near, second={"on": "rim further along", "readings": far, "distance_mm": 60})["blame"]
        self.assertAlmostEqual(found["own_mm"], lean[0], delta=TENTH_OF_A_MICRON)
        share = lean[0] / both[0]
        wanted = "cocked" if share > 3.1 else "off centre" if share < 0.32 else "off centre and cocked"
        if not (0.32 <= share <= 0.35 or 2.9 <= share <= 3.1):
            self.assertEqual(found["cause"], wanted)

    def test_what_the_dial_cannot_show_is_not_told_apart(self) -> None:
        said = runout(sine((0.004, 0)), second={"on": "shaft", "readings": sine((0.003, 90))})
        self.assertEqual(said["blame"]["cause"], "cannot tell")

    @given(mm=size, high=turn, by=turn)
    def test_turned_readings_turn_the_high_spot_and_change_nothing_else(self, mm: float, high: float, by: float) -> None:
        assume(by > 1)
        one, two = runout(sine((mm, high))), runout(sine((mm, high + by)))
        self.assertAlmostEqual((two["high_spot_deg"] - one["high_spot_deg"] - by + 180) % 360, 180, delta=0.01)
        self.assertAlmostEqual(one["eccentricity_mm"], two["eccentricity_mm"], delta=TENTH_OF_A_MICRON)


class LoopTest(unittest.TestCase):
    """Half tight, tapped, tight."""

    def test_half_tight_it_says_where_the_blow_goes_and_tight_it_does_not(self) -> None:
        crooked = sine((0.06, 120))
        self.assertIn("soft mallet", " ".join(runout(crooked, stage="half tight")["advice"]))
        self.assertNotIn("mallet", " ".join(runout(crooked, stage="tight")["advice"]))

    def test_a_second_place_with_a_limit_of_its_own_is_judged_by_that(self) -> None:
        second = {"on": "face", "readings": sine((0.0225, 90))}  # 0.045 over a turn
        for own, verdict in ((None, "close"), (0.03, "over"), (0.1, "inside")):
            found = runout(sine((0.01, 0)), second={**second, "limit_mm": own})
            self.assertEqual(found["verdict"], verdict, own)

    def test_face_is_judged_too_and_lacking_it_is_incomplete(self) -> None:
        true, out = sine((0.005, 0)), sine((0.08, 0))
        self.assertEqual(runout(true, must_have=["face"])["verdict"], "incomplete")
        self.assertEqual(runout(true, must_have=["face"], second={"on": "face", "readings": out})["verdict"], "over")
        # the shaft beside it is compared, not judged by the hub's limit
        self.assertNotEqual(runout(true, second={"on": "shaft", "readings": out})["verdict"], "over")

    def test_what_tightening_shifted_is_the_difference_of_the_two_readings(self) -> None:
        said = runout(sine((0.02, 0), (0.03, 90)), before=sine((0.02, 0)), stage="tight")
        self.assertAlmostEqual(said["shifted_mm"], 0.03, delta=TENTH_OF_A_MICRON)
        self.assertAlmostEqual(said["shifted_deg"], 90, delta=0.5)

    def test_a_face_beside_a_face_is_refused_where_it_was_chosen(self) -> None:
        with self.assertRaises(UnusableInput) as refused:
            runout(sine((0.01, 0)), kind="face", second={"on": "face", "readings": sine((0.01, 0))})
        self.assertEqual([p.path for p in refused.exception.problems], ["second.on"])


class KeyLengthTest(unittest.TestCase):
    """Schools of key length: judged only where one is named."""

    def key(self, length: float, **more: Any) -> dict[str, Any]:
        """A key in a hub 60 long, a shaft keyway as given."""
        given = {
            "shaft_diameter_mm": 48,
            "key": {"width_mm": 14, "height_mm": 9, "length_mm": length},
            "shaft_keyway": {"width_mm": 14.01, "depth_mm": 5.4},
            "hub_keyway": {"width_mm": 14.03, "depth_mm": 3.8, "length_mm": 60},
            **more,
        }
        return as_dict(evaluate_json("key", json.dumps(given)))

    def test_each_school_judges_by_its_own_rule(self) -> None:
        for length, rule, keyway, verdict in (
            (50.0, None, None, "inside"),
            (60.0, "as long as the hub", None, "inside"),
            (62.0, "as long as the hub", None, "close"),
            (62.0, "as long or slightly longer", None, "inside"),
            (57.0, "as long or slightly longer", None, "inside"),
            (53.0, "as long or slightly longer", None, "close"),
            (70.0, "half key made up", 80.0, "inside"),
            (60.0, "half key made up", 80.0, "over"),
            (60.0, "half key made up", None, "incomplete"),
        ):
            with self.subTest(length=length, rule=rule):
                more = {k: v for k, v in (("length_rule", rule), ("shaft_keyway_length_mm", keyway)) if v is not None}
                said = self.key(length, **more)
                self.assertEqual(said["verdict"] if rule else "inside", verdict)
                self.assertEqual(
                    any(c["code"] == "length" for c in said["checks"]), rule is not None and verdict != "incomplete"
                )

    def test_a_made_up_half_key_leaves_as_much_empty_keyway_as_key_stands_out(self) -> None:
        wanted = self.key(60.0, length_rule="half key made up", shaft_keyway_length_mm=80.0)["length_wanted_mm"]
        self.assertAlmostEqual(wanted - 60.0, 80.0 - wanted)


class TaperWaysTest(unittest.TestCase):
    """A taper is the same taper however it is stated."""

    def test_every_way_of_stating_it_comes_to_the_same(self) -> None:
        by_diameters = {"large_mm": 90.0, "small_mm": 80.0, "length_mm": 120.0}
        ways = [("1 in", 12.0), ("inches per foot", 1.0), ("degrees", math.degrees(2 * math.atan(1 / 24)))]
        for way, value in ways:
            with self.subTest(way):
                stated = {"large_mm": 90.0, "length_mm": 120.0, "stated": {"way": way, "value": value}}
                given = {"shaft": by_diameters, "bore": stated, "interference_mm": 0.07}
                said = as_dict(evaluate_json("taper", json.dumps(given)))
                self.assertEqual(said["touches_first"], "evenly")
                self.assertAlmostEqual(said["mismatch_mm"], 0, delta=TENTH_OF_A_MICRON)
                self.assertAlmostEqual(said["said_shaft"][way], value, delta=1e-6)

    def test_two_ways_at_once_or_none_and_a_point_are_refused(self) -> None:
        whole = {"large_mm": 90.0, "small_mm": 80.0, "length_mm": 120.0}
        stated = {"way": "1 in", "value": 12.0}
        for bore, path in (
            ({**whole, "stated": stated}, "bore"),
            ({"large_mm": 90.0, "length_mm": 120.0}, "bore"),
            ({"large_mm": 9.0, "length_mm": 120.0, "stated": stated}, "bore.stated.value"),
        ):
            with self.subTest(path=path), self.assertRaises(UnusableInput) as refused:
                evaluate_json("taper", json.dumps({"shaft": whole, "bore": bore, "interference_mm": 0.07}))
            self.assertEqual(refused.exception.problems[0].path, path)
