"""The geometry of the alignment drawing: the right way up, toward the right side, arrows where a foot has to go."""

from typing import Any, Literal
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from millwright.benches.alignment.drawn import ROOM, Drawn, DrawnView, exaggeration
from millwright.benches.alignment.evaluate import evaluate
from millwright.benches.alignment.io import AlignmentInput
from millwright.benches.register import as_dict, evaluate_json
from millwright.model import read_json

Side = Literal["left", "right"]


def drawn(movable_on: Side, *, up: float = 0.0, rises: float = 0.0, across: float = 0.0, **more: Any) -> Drawn:
    """The drawing of what a screen shows of a machine on feet 300 and 600 mm from the coupling."""
    shown = {"offset_v_mm": up, "slope_v_mm_per_m": rises, "offset_h_mm": across, "slope_h_mm_per_m": 0.0}
    feet = {
        "stationary_feet": [{"name": "pump near", "x_mm": -300}, {"name": "pump far", "x_mm": -700}],
        "movable_feet": [{"name": "near", "x_mm": 300}, {"name": "far", "x_mm": 600}],
    }
    found = evaluate(AlignmentInput.model_validate({**feet, "shown": shown, "movable_on": movable_on, **more}))
    return found.drawn


def side(of: Drawn) -> DrawnView:
    return next(view for view in of.views if view.plane == "v")


def plan(of: Drawn) -> DrawnView:
    return next(view for view in of.views if view.plane == "h")


class DrawnTest(TestCase):
    """SVG counts downward: what is high has a smaller y."""

    def test_a_machine_that_is_high_is_drawn_above_the_axis_and_called_high(self) -> None:
        for on in ("left", "right"):
            self.assertLess(side(drawn(on, up=0.2)).axis.drop, 0)
            self.assertGreater(side(drawn(on, up=-0.2)).axis.drop, 0)
        self.assertEqual(str(side(drawn("left", up=0.2)).words), "0.20 mm high, opens at bottom 0.000 mm/100")
        self.assertIn("0.20 mm low", str(side(drawn("left", up=-0.2)).words))

    def test_a_tail_that_is_high_is_drawn_high_whichever_side_the_machine_stands_on(self) -> None:
        for on in ("left", "right"):
            found = drawn(on, rises=1.0)
            axis, tail = side(found).axis, found.layout.movable.far
            self.assertLess(axis.drop + axis.shear * tail, 0)
        self.assertIn("opens at top 0.050 mm/100", str(side(drawn("left", rises=-0.5)).words))

    def test_toward_3_is_down_in_plan_where_the_machine_stands_left_and_up_where_it_stands_right(self) -> None:
        self.assertGreater(plan(drawn("left", across=0.1)).axis.drop, 0)
        self.assertLess(plan(drawn("right", across=0.1)).axis.drop, 0)
        self.assertIn("0.10 mm to 3", str(plan(drawn("left", across=0.1)).words))
        self.assertIn("0.10 mm to 9", str(plan(drawn("left", across=-0.1)).words))

    def test_an_arrow_points_where_the_foot_goes_and_stands_on_its_side(self) -> None:
        low = side(drawn("left", up=-0.3))
        self.assertEqual([move.points for move in low.moves], ["up", "up"])  # shims go in
        self.assertEqual(str(low.moves[0].words), "+0.30")
        self.assertEqual([move.points for move in side(drawn("left", up=0.3)).moves], ["down", "down"])
        to_9 = {on: plan(drawn(on, across=-0.3)).moves[0] for on in ("left", "right")}  # it goes toward 3
        self.assertEqual({on: move.points for on, move in to_9.items()}, {"left": "down", "right": "up"})
        self.assertLess(to_9["left"].x, 0)
        self.assertGreater(to_9["right"].x, 0)
        self.assertEqual([move.points for move in side(drawn("left")).moves], ["", ""])

    def test_the_cold_axis_is_drawn_where_growth_is_counted_in(self) -> None:
        self.assertIsNone(side(drawn("left", up=0.2)).cold)
        warm = side(drawn("left", up=0.2, growth={"near": 0.1, "far": 0.1}))
        assert warm.cold is not None
        self.assertGreater(warm.cold.drop, warm.axis.drop)  # it was read lower than it will run

    def test_the_band_is_the_limit_at_the_coupling_and_widens_with_the_angle(self) -> None:
        self.assertIsNone(drawn("left", up=0.05).band)
        found = drawn("left", up=0.05, limits={"offset_mm": 0.05, "angle_mm_per_m": 0.1})
        assert found.band is not None
        self.assertAlmostEqual(found.band[0], -side(found).axis.drop)  # the offset is as large as its limit
        self.assertGreater(found.band[1], found.band[0])

    def test_a_spacer_is_drawn_between_its_planes_each_with_its_angle(self) -> None:
        found = drawn("right", up=0.2, coupling={"flex_planes_mm": [-100, 100]})
        self.assertEqual(found.layout.movable.face, -found.layout.stationary.face)
        near, far = sorted(side(found).flex, key=lambda plane: plane.x)
        self.assertEqual(near.drop, 0.0)  # on the axis of the machine that stays
        self.assertAlmostEqual(far.drop, side(found).axis.drop)
        self.assertEqual(str(near.words), "0.100 mm/100")  # 0.2 over 200 mm

    @given(st.floats(-3, 3), st.floats(-5, 5), st.sampled_from(["left", "right"]))
    def test_nothing_is_drawn_farther_than_there_is_room(self, up: float, rises: float, on: Side) -> None:
        found = drawn(on, up=up, rises=rises)
        axis, to_scale = side(found).axis, (3.0 + 5.0 * 0.6) * found.layout.per_mm  # never drawn smaller than it is
        for x in (0.0, *found.layout.movable.feet):
            self.assertLessEqual(abs(axis.drop + axis.shear * x), max(ROOM, to_scale) + 1e-6)

    def test_the_factor_is_round(self) -> None:
        for largest in (0.003, 0.07, 0.4, 2.5):
            times = exaggeration(largest, 0.6)
            self.assertIn(f"{times:e}"[0], "125")
            self.assertLessEqual(times * largest * 0.6, ROOM)

    def test_the_result_holds_it_as_plain_json(self) -> None:
        given_ = '{"stationary_feet":[],"movable_feet":[{"name":"a","x_mm":300}],"shown":{"offset_v_mm":0.1,'
        given_ += '"slope_v_mm_per_m":0.0,"offset_h_mm":0.0,"slope_h_mm_per_m":0.0}}'
        self.assertEqual(as_dict(evaluate_json("alignment", given_))["drawn"]["layout"]["movable_on"], "left")
        self.assertEqual(read_json(AlignmentInput, given_).movable_on, "left")
