"""What every bench has in common, and what each refuses: asked through the same door as the shell."""

import json
import unittest
from typing import Any

from millwright.benches.register import BENCHES, as_dict, evaluate_json
from millwright.errors import UnusableInput

RIM = {
    "kind": "rim",
    "bracket_on": "stationary",
    "x_mm": 30.0,
    "readings": [{"clock": c, "value_mm": v} for c, v in ((0, 0.0), (90, -0.06), (180, -0.12), (270, -0.06))],
}
FACE = {**RIM, "kind": "face", "radius_mm": 80.0}
FEET = {"stationary_feet": [], "movable_feet": [{"name": "front", "x_mm": 320.0}, {"name": "rear", "x_mm": 820.0}]}
GAP = {"readings": RIM["readings"], "diameter_mm": 160.0}
KEY = {
    "shaft_diameter_mm": 50,
    "key": {"width_mm": 14, "height_mm": 9, "length_mm": 70},
    "shaft_keyway": {"width_mm": 14, "depth_mm": 5.3},
    "hub_keyway": {"width_mm": 14, "depth_mm": 3.8, "length_mm": 70},
}
A_THOUSANDTH_NM = 0.001
BOLTS = {"bolts": 4, "torque_nm": 100.0, "passes": [0.5, 1.0], "pattern": "star"}


def ask(bench: str, given: object) -> dict[str, Any]:
    """The bench's answer as the shell would print it."""
    return as_dict(evaluate_json(bench, json.dumps(given)))


def at(*readings: tuple[float, float]) -> list[dict[str, float]]:
    """Clock readings."""
    return [{"clock": c, "value_mm": v} for c, v in readings]


class RefusalsTest(unittest.TestCase):
    """Bad input is refused where it was typed."""

    def refused(self, bench: str, given: object) -> list[str]:
        """Paths of the problems."""
        with self.assertRaises(UnusableInput) as caught:
            ask(bench, given)
        self.assertTrue(all(problem.message.strip().endswith((".", "?")) for problem in caught.exception.problems))
        return [problem.path for problem in caught.exception.problems]

    def test_names_the_place_of_what_cannot_be_right(self) -> None:
        rows: list[tuple[str, str, object, str]] = [
            ("letters for a number", "fit", {"shaft_mm": ["x"], "bore_mm": [50]}, "shaft_mm.0"),
            ("true for a number", "fit", {"shaft_mm": [True], "bore_mm": [50]}, "shaft_mm.0"),
            ("absurd size", "fit", {"shaft_mm": [1e9], "bore_mm": [50]}, "shaft_mm.0"),
            (
                "negative diameter",
                "gap",
                {**GAP, "readings": at((0, 3), (90, 3), (180, 3)), "diameter_mm": -5},
                "diameter_mm",
            ),
            ("misspelt key", "key", {**KEY, "shaft_diametre_mm": 50}, "shaft_diametre_mm"),
            ("keyway wider than shaft", "key", {**KEY, "shaft_diameter_mm": 12}, "shaft_keyway.width_mm"),
            ("two places only", "clock", {"readings": at((0, 1), (180, 2), (360, 1))}, "readings"),
            ("all in one arc", "runout", {"readings": at((80, 0), (82, 1), (84, 2)), "limit_mm": 1}, "readings"),
            (
                "limits the wrong way round",
                "fit",
                {"shaft_mm": [5], "bore_mm": [5], "required": {"min_mm": 1, "max_mm": 0}},
                "required",
            ),
            ("limit of nothing", "runout", {"readings": RIM["readings"], "limit_mm": 0}, "limit_mm"),
            (
                "one side only",
                "straightedge",
                {
                    "readings": [{"clock": 0, "feeler_mm": 0.1, "on": "movable"}],
                    "stationary_hub_mm": 100,
                    "movable_hub_mm": 100,
                },
                "readings",
            ),
            ("one rim alone", "alignment", {**FEET, "dials": [RIM]}, "dials"),
            ("faces alone", "alignment", {**FEET, "dials": [FACE, FACE]}, "dials"),
            ("rims at one place", "alignment", {**FEET, "dials": [RIM, {**RIM, "bracket_on": "movable"}]}, "dials.1.x_mm"),
            ("sag upward", "alignment", {**FEET, "dials": [{**RIM, "sag_mm": 0.1}, FACE]}, "dials.0.sag_mm"),
            (
                "feet at one place",
                "alignment",
                {
                    "dials": [RIM, FACE],
                    "stationary_feet": [],
                    "movable_feet": [{"name": "a", "x_mm": 300.0}, {"name": "b", "x_mm": 300.0}],
                },
                "movable_feet.1.x_mm",
            ),
            ("growth of no foot", "alignment", {**FEET, "dials": [RIM, FACE], "growth": {"nose": 0.1}}, "growth.nose"),
            ("pull of no bolt", "tighten", {**BOLTS, "pulls": [{"pass": 1, "bolt": 5, "torque_nm": 50}]}, "pulls.0.bolt"),
            ("a pass above full", "tighten", {**BOLTS, "passes": [1.2]}, "passes.0"),
        ]
        for why, bench, given, path in rows:
            with self.subTest(why):
                self.assertIn(path, self.refused(bench, given))

    def test_tells_every_problem_at_once(self) -> None:
        self.assertEqual(
            set(self.refused("key", {**KEY, "key": {"width_mm": -1, "height_mm": "x", "length_mm": 70}})),
            {"key.width_mm", "key.height_mm"},
        )

    def test_refuses_a_bare_nan_and_broken_json(self) -> None:
        for text in ('{"shaft_mm": [NaN], "bore_mm": [50]}', '{"shaft_mm": [50], '):
            with self.subTest(text), self.assertRaises(UnusableInput):
                evaluate_json("fit", text)


class VerdictTest(unittest.TestCase):
    """Share of the allowance, and the worst check."""

    def test_a_limit_met_exactly_on_paper_is_close(self) -> None:
        for spread, status in ((0.1, "inside"), (0.2, "close"), (0.2 + 1e-6, "over")):
            readings = at((0, 3.0), (90, 3.0), (180, 3.0 + spread), (270, 3.0))
            result = ask("gap", {"readings": readings, "diameter_mm": 100.0, "accept": {"spread": {"max_mm": 0.2}}})
            self.assertEqual(result["checks"][0]["status"], status, spread)

    def test_the_verdict_is_the_worst_check_and_over_beats_incomplete(self) -> None:
        dials = {**FEET, "dials": [RIM, FACE]}
        self.assertEqual(ask("alignment", dials)["verdict"], "not judged")
        self.assertEqual(ask("alignment", {**dials, "limits": {"offset_mm": 5.0}})["verdict"], "incomplete")
        self.assertEqual(ask("alignment", {**dials, "limits": {"offset_mm": 0.001}})["verdict"], "over")
        both = {**dials, "limits": {"offset_mm": 5.0, "angle_deg": 3.0}}
        self.assertEqual(ask("alignment", both)["verdict"], "inside")

    def test_every_judged_limit_says_where_it_comes_from(self) -> None:
        source = "maker's manual: Sheet 7, page 2"
        result = ask("runout", {"readings": RIM["readings"], "limit_mm": 0.5, "limit_source": source})
        self.assertEqual(result["checks"][0]["source"], source)


class AdviceTest(unittest.TestCase):
    """What the numbers look like, in words."""

    def test_a_reading_that_does_not_close_is_called_out_by_its_dial(self) -> None:
        bad = {**RIM, "readings": at((0, 0.0), (90, -0.06), (180, -0.12), (270, 0.06))}
        result = ask("alignment", {**FEET, "dials": [bad, FACE]})
        self.assertAlmostEqual(result["closure_mm"][0], -0.12)
        self.assertIn("Rim: 12 + 6 and 3 + 9 differ by 0.12 mm", " ".join(result["advice"]))

    def test_turning_only_the_brackets_shaft_is_said_to_hold_the_run_out(self) -> None:
        result = ask("alignment", {**FEET, "dials": [{**RIM, "turned": "bracket shaft"}, FACE]})
        self.assertIn("run-out of the touched hub", " ".join(result["advice"]))

    def test_more_uncertain_than_the_room_left_is_said(self) -> None:
        result = ask("alignment", {**FEET, "dials": [RIM, FACE], "limits": {"offset_mm": 0.039, "angle_deg": 1.0}})
        self.assertIn("more than is left of its limit", " ".join(result["advice"]))

    def test_a_bolt_passed_over_is_named(self) -> None:
        pulls = [{"pass": 1, "bolt": b, "reached_nm": 50.0} for b in (1, 2)]
        result = ask("tighten", {**BOLTS, "pulls": pulls})
        self.assertIn("bolt 3 was passed over", " ".join(result["advice"]))
        self.assertEqual((result["verdict"], result["next"]["bolt"]), ("incomplete", 3))

    def test_a_pull_outside_its_band_is_over_until_it_is_pulled_again(self) -> None:
        pulls = [{"pass": p, "bolt": b, "reached_nm": t} for p, t in ((1, 50.0), (2, 100.0)) for b in (1, 3, 2, 4)]
        pulls[-1]["reached_nm"] = 110.0
        self.assertEqual(ask("tighten", {**BOLTS, "pulls": pulls})["verdict"], "over")
        again = ask("tighten", {**BOLTS, "pulls": [*pulls, {"pass": 2, "bolt": 4, "reached_nm": 100.0}]})
        self.assertEqual(again["verdict"], "over")  # it clicked on a bolt that was tighter already
        slackened = {"pass": 2, "bolt": 4, "reached_nm": 100.0, "slackened": True}
        anew = ask("tighten", {**BOLTS, "pulls": [*pulls, slackened]})
        self.assertEqual((anew["verdict"], anew["next"]), ("inside", None))

    def test_an_extension_lowers_the_setting_by_what_it_adds_to_the_lever(self) -> None:
        wrench = {"min_nm": 20.0, "max_nm": 200.0, "length_mm": 400.0}
        # 100 mm at 60 degrees adds 50 mm to a lever of 400: 90 x 400 / 450; square to the wrench it adds nothing
        for angle, setting in ((0.0, 72.0), (60.0, 80.0), (90.0, 90.0)):
            found = ask(
                "tighten", {**BOLTS, "torque_nm": 90.0, "wrench": wrench, "extension_mm": 100.0, "extension_angle_deg": angle}
            )
            self.assertAlmostEqual(found["set_nm"], setting, delta=A_THOUSANDTH_NM)

    def test_a_wrench_that_cannot_be_set_so_low_is_over(self) -> None:
        wrench = {"min_nm": 60.0, "max_nm": 300.0}
        self.assertEqual(ask("tighten", {**BOLTS, "wrench": wrench})["verdict"], "over")


class RegistryTest(unittest.TestCase):
    """The registry is the door for shell, API and client."""

    def test_every_bench_has_a_schema_of_input_and_result(self) -> None:
        for bench in BENCHES.values():
            with self.subTest(bench.name):
                self.assertFalse(bench.input.model_json_schema()["additionalProperties"])
                self.assertIn("verdict", bench.result.model_json_schema(mode="serialization")["properties"])
