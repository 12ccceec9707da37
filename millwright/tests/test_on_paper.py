"""The sums as they are written down come out at the figures beside them: a tradesman can follow them on paper."""

import ast
import json
import math
import operator
import re
import unittest
from collections.abc import Callable
from typing import Any

from millwright.benches.register import as_dict, evaluate_json

# What is written has three decimals or so: what it comes to is off by that much.
OF_ITS_SIZE, AT_LEAST = 0.01, 0.002
SIGNS = {"×": "*", "÷": "/", "−": "-", "·10⁻⁶": "e-6", "[": "(", "]": ")", "√": "sqrt", "ln": "log", "°": ""}
SUM = re.compile(r"[\d.eE+\-*/() logsqrtcin]+")
STEPS: dict[type[ast.AST], Callable[..., float]] = {
    ast.Add: operator.add,
    ast.Sub: operator.sub,
    ast.Mult: operator.mul,
    ast.Div: operator.truediv,
    ast.Pow: operator.pow,
    ast.USub: operator.neg,
    ast.UAdd: operator.pos,
}
NAMED: dict[str, Callable[[float], float]] = {
    "sqrt": math.sqrt,
    "log": math.log,
    "cos": lambda degrees: math.cos(math.radians(degrees)),
    "sin": lambda degrees: math.sin(math.radians(degrees)),
}


def written_out(numbers: str) -> float | None:
    """What a sum comes to; None where it is words, or one figure alone."""
    text = re.sub(r"([+−-]?[\d.]+)²", r"((\1)**2)", numbers)
    text = re.sub(r"(cos|sin) ([\d.]+)", r"\1(\2)", text)
    for sign, plain in SIGNS.items():
        text = text.replace(sign, plain)
    if not SUM.fullmatch(text) or not re.search(r"[*/(]|\d ?[+-]", text):
        return None
    try:
        return _worth(ast.parse(text.strip(), mode="eval").body)
    except SyntaxError:
        return None


def _worth(node: ast.AST) -> float:
    match node:
        case ast.Constant(value=int() | float() as value):
            return float(value)
        case ast.BinOp(left=left, op=op, right=right):
            return STEPS[type(op)](_worth(left), _worth(right))
        case ast.UnaryOp(op=op, operand=operand):
            return STEPS[type(op)](_worth(operand))
        case ast.Call(func=ast.Name(id=name), args=[argument]):
            return NAMED[name](_worth(argument))
        case _:
            raise SyntaxError(ast.dump(node))


def ring(*values: float) -> list[dict[str, float]]:
    """Readings at 12, 3, 6 and 9."""
    return [{"clock": 90.0 * i, "value_mm": value} for i, value in enumerate(values)]


FEET = {
    "stationary_feet": [{"name": "fan front", "x_mm": -280.0}, {"name": "fan rear", "x_mm": -640.0}],
    "movable_feet": [{"name": "front", "x_mm": 300.0}, {"name": "rear", "x_mm": 586.0}],
}
RIM = {"kind": "rim", "bracket_on": "stationary", "x_mm": 20.0, "sag_mm": -0.02, "readings": ring(0, 0.18, 0.6, 0.42)}
FACE = {"kind": "face", "bracket_on": "stationary", "x_mm": 20.0, "radius_mm": 50.0, "readings": ring(0, 0.02, 0.05, 0.03)}
FAR = {**RIM, "bracket_on": "movable", "x_mm": -20.0, "readings": ring(0, -0.1, -0.5, -0.4)}
CONE = {"large_mm": 90.0, "small_mm": 80.0, "length_mm": 120.0}
BORE = {"large_mm": 89.98, "small_mm": 80.01, "length_mm": 118.0}
FEELERS = ((0.0, 0.1, "movable"), (90.0, 0.05, "stationary"), (180.0, 0.1, "stationary"), (270.0, 0.05, "movable"))
WORKED: dict[str, tuple[dict[str, Any], int]] = {  # with how many sums there are to follow
    "fit": ({"shaft_mm": [48.012, 48.018], "bore_mm": [48.031, 48.04]}, 2),
    "key": (
        {
            "shaft_diameter_mm": 48.0,
            "key": {"width_mm": 14.0, "height_mm": 9.0, "length_mm": 60.0},
            "shaft_keyway": {"width_mm": 14.02, "depth_mm": 5.4},
            "hub_keyway": {"width_mm": 14.03, "depth_mm": 3.8, "length_mm": 60.0},
        },
        3,
    ),
    "heat": (
        {
            "bore_mm": 74.962,
            "interference_mm": 0.08,
            "assembly_clearance_mm": 0.045,
            "shaft_c": 18.0,
            "ambient_c": 23.0,
            "hub": {"material": "steel", "outside_mm": 130.0, "length_mm": 90.0},
            "ceiling_c": 200.0,
        },
        6,
    ),
    "taper": (
        {
            "shaft": CONE,
            "bore": BORE,
            "interference_mm": 0.07,
            "hand_tight_standout_mm": 40.78,
            "fitted_standout_mm": 41.4,
            "attempt": {"hub_c": 100.0, "shaft_c": 20.0, "advance_mm": 0.62},
        },
        6,
    ),
    "runout": ({"readings": ring(0.01, 0.05, -0.02, -0.03), "limit_mm": 0.05}, 4),
    "gap": ({"readings": ring(3.2, 3.05, 2.8, 2.95), "diameter_mm": 160.0}, 3),
    "straightedge": (
        {
            "readings": [{"clock": c, "feeler_mm": mm, "on": on} for c, mm, on in FEELERS],
            "stationary_hub_mm": 105.0,
            "movable_hub_mm": 105.0,
        },
        1,
    ),
    "alignment": ({"dials": [RIM, FACE, FAR], **FEET}, 8),
    "softfoot": (
        {
            "feet": [{"name": name, "rise_mm": mm} for name, mm in (("a", 0.02), ("b", 0.18), ("c", 0.01), ("d", 0.03))],
            "limit_mm": 0.05,
            "corners": {"b": [0.06, 0.14, 0.18, 0.07]},
        },
        2,
    ),
    "tighten": (
        {
            "bolts": 4,
            "torque_nm": 90.0,
            "passes": [0.5, 1.0],
            "pattern": "star",
            "wrench": {"min_nm": 20.0, "max_nm": 200.0, "length_mm": 400.0},
            "extension_mm": 100.0,
            "extension_angle_deg": 30.0,
        },
        2,
    ),
    "jack": (
        {
            "feet": [{"name": "front", "x_mm": 300.0, "slide_mm": 0.3, "shim_mm": 0.0}],
            "planes": [
                {"x_mm": 100.0, "first": [{"clock": 80.0, "value_mm": 0.01}], "now": [{"clock": 80.0, "value_mm": 0.11}]},
                {"x_mm": -100.0, "first": [{"clock": 80.0, "value_mm": 0.02}], "now": [{"clock": 80.0, "value_mm": 0.06}]},
            ],
        },
        2,
    ),
}


class OnPaperTest(unittest.TestCase):
    """Every sum that is written as one."""

    def test_every_sum_comes_to_the_figure_beside_it(self) -> None:
        for bench, (given, sums) in WORKED.items():
            working = as_dict(evaluate_json(bench, json.dumps(given)))["working"]
            followed = [(line, worth) for line in working if (worth := written_out(line["numbers"])) is not None]
            with self.subTest(bench):
                self.assertGreaterEqual(len(followed), sums, [line["numbers"] for line in working])
            for line, worth in followed:
                with self.subTest(bench, what=line["what"], numbers=line["numbers"]):
                    near = max(OF_ITS_SIZE * abs(line["value"]), AT_LEAST)
                    self.assertAlmostEqual(worth, line["value"], delta=near)

    def test_a_sum_is_told_from_words(self) -> None:
        self.assertEqual(written_out("√(3.00² + −4.00²)"), 5.0)
        self.assertAlmostEqual(written_out("20 + 0.040 ÷ (48 × 11.5·10⁻⁶)") or 0.0, 92.46, delta=0.01)
        self.assertIsNone(written_out("4 readings"))
        self.assertIsNone(written_out(""))
