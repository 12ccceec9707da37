"""Shafts that stand as they truly stand, and the dials on them: what tests of the alignment bench are read from."""

import json
import random
from typing import Any

from hypothesis import strategies as st

from millwright.benches.register import as_dict, evaluate_json
from millwright.rig.machine import Bracket, Gauge, TrueShafts, sweep

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
