"""A machine watched while it is jacked: by a dial at each foot, or by a laser whose heads stay where they are."""

import json
import math
import random
import unittest
from dataclasses import asdict
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from millwright.benches.alignment.axis import Line
from millwright.benches.alignment.expected import after_moves
from millwright.benches.alignment.feet import Foot
from millwright.benches.alignment.moves import PlannedMove
from millwright.benches.register import evaluate_json
from millwright.rig.machine import Bracket, Gauge, TrueShafts, sweep

FEET = [Foot(name="drive end", x_mm=300), Foot(name="tail", x_mm=700)]
PLANES = (120.0, -90.0)
MOVES = st.floats(-0.8, 0.8)


def watch(way: str, clock: float, made: tuple[float, float], wanted: tuple[float, float], **more: Any) -> dict[str, Any]:
    """What the bench says after these moves of the two feet, read by the simulated pair."""
    moves = [
        PlannedMove(name=f.name, machine="movable", **{"slide_mm": 0.0, "shim_mm": 0.0} | {_OF[way]: mm})
        for f, mm in zip(FEET, made, strict=True)
    ]
    then = Line(offset_v_mm=0.2, slope_v_mm_per_m=-0.4, offset_h_mm=-0.3, slope_h_mm_per_m=0.7)
    planes = []
    for x in PLANES:
        bracket = Bracket(kind="rim", on="stationary", x_mm=x)
        first, now = (
            sweep(TrueShafts(**asdict(line)), bracket, [clock], Gauge(), random.Random(1))
            for line in (then, after_moves(then, [], FEET, moves))
        )
        planes.append({"x_mm": x, "first": first, "now": now})
    feet = [
        {"name": f.name, "x_mm": f.x_mm, "shim_mm": 9.0, "slide_mm": 9.0} | {_OF[way]: w}
        for f, w in zip(FEET, wanted, strict=True)
    ]
    return evaluate_json("jack", json.dumps({"feet": feet, "planes": planes, **more})).model_dump()


_OF = {"slide": "slide_mm", "lift": "shim_mm"}


class JackTest(unittest.TestCase):
    """What is left to go."""

    @given(made=st.tuples(MOVES, MOVES), wanted=st.tuples(MOVES, MOVES), off=st.floats(-20, 20), far=st.booleans())
    def test_the_laser_sees_every_foot_go_wherever_its_heads_stand(
        self, made: Any, wanted: Any, off: float, far: bool
    ) -> None:
        for way, at in (("slide", 90.0), ("lift", 0.0)):
            said = watch(way, (at + 180 * far + off) % 360, made, wanted)
            self.assertEqual(said["way"], way)
            for foot, moved, want in zip(said["feet"], made, wanted, strict=True):
                self.assertTrue(math.isclose(foot["moved_mm"], moved, abs_tol=1e-9))
                self.assertTrue(math.isclose(foot["left_mm"], want - moved, abs_tol=1e-9))

    def test_a_dial_at_the_foot_goes_before_the_laser_and_a_foot_without_either_is_not_guessed(self) -> None:
        feet = [
            {"name": "a", "x_mm": 300, "shim_mm": 0, "slide_mm": 0.2, "dial_mm": 0.195, "side": "3"},
            {"name": "b", "x_mm": 700, "shim_mm": 0, "slide_mm": 0.3},
        ]
        said = evaluate_json("jack", json.dumps({"feet": feet})).model_dump()
        self.assertEqual([(f["there"], f["left_mm"] is None) for f in said["feet"]], [(True, False), (False, True)])

    def test_a_foot_that_has_not_moved_is_not_there_and_nobody_is_told_to_tighten(self) -> None:
        def watched(apart: float, wanted: float) -> dict[str, Any]:
            """Nothing moved; planes so far apart, one reading each."""
            still = [{"clock": 90, "value_mm": 0.1}]
            planes = [{"x_mm": x, "first": still, "now": still} for x in (apart / 2, -apart / 2)]
            feet = [{"name": f.name, "x_mm": f.x_mm, "shim_mm": 0, "slide_mm": wanted} for f in FEET]
            return evaluate_json("jack", json.dumps({"feet": feet, "planes": planes})).model_dump()

        for apart, wanted in ((200, 0.06), (200, 0.03), (2, 0.498), (2, 4.0)):
            said = watched(apart, wanted)
            tail = said["feet"][1]
            self.assertIsNot(tail["there"], True, (apart, wanted))
            self.assertGreater(tail["plus_minus_mm"], 0.05)
            self.assertNotIn("Tighten", " ".join(said["advice"]))
        self.assertIn("Cannot tell whether tail is there", " ".join(watched(200, 0.03)["advice"]))

    def test_a_foot_that_is_to_move_and_that_nothing_watches_keeps_everybody_from_tightening(self) -> None:
        there = {"name": "a", "x_mm": 300, "shim_mm": 0, "slide_mm": 0.2, "dial_mm": 0.2, "side": "3"}
        for slide, says in ((0.3, "Nothing watches b"), (0.0, "Tighten crosswise")):
            feet = [there, {"name": "b", "x_mm": 700, "shim_mm": 0, "slide_mm": slide}]
            said = evaluate_json("jack", json.dumps({"feet": feet})).model_dump()
            self.assertIn(says, " ".join(said["advice"]))

    def test_a_laser_tells_nothing_of_the_feet_of_the_other_machine(self) -> None:
        other = {"name": "pump tail", "x_mm": -600, "shim_mm": 0, "slide_mm": 0.1}
        planes = [
            {"x_mm": x, "first": [{"clock": 90, "value_mm": 0}], "now": [{"clock": 90, "value_mm": 0.1}]} for x in PLANES
        ]
        for dial, left in ((None, None), (0.1, 0.0)):
            given = {"feet": [{**other, "dial_mm": dial, "side": "3"}], "planes": planes}
            said = evaluate_json("jack", json.dumps(given)).model_dump()
            self.assertEqual(said["feet"][0]["left_mm"], left)

    def test_heads_that_cannot_see_the_move_or_were_turned_are_told_so(self) -> None:
        for clock in (45.0, 300.0 + 15):
            with self.assertRaisesRegex(Exception, "Turn them to 3 or 9"):
                watch("slide", clock, (0.1, 0.1), (0.1, 0.1))
        turned = [{"x_mm": x, "first": [{"clock": 90, "value_mm": 0}], "now": [{"clock": 99, "value_mm": 0}]} for x in PLANES]
        with self.assertRaisesRegex(Exception, "turned meanwhile"):
            watch("slide", 90.0, (0.1, 0.1), (0.1, 0.1), planes=turned)
        with self.assertRaisesRegex(Exception, "two planes; there is one"):
            watch("slide", 90.0, (0.1, 0.1), (0.1, 0.1), planes=turned[:1])
