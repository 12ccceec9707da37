"""What has been entered on chilled-water pump 1: last spring aligned with the laser across its long spacer; now the
pump's hub half tight in its clamp ring, not running true yet."""

import random
from typing import Any

from millwright.plan.stages.as_found import CLOSED
from millwright.rig.machine import Bracket, Gauge, TrueShafts, sweep

from . import blower, kiln_fan
from .in_order import Told

_CLOCKS = (0, 90, 180, 270)


def _ring(*values: float) -> list[dict[str, float]]:
    return [{"clock": c, "value_mm": v} for c, v in zip(_CLOCKS, values, strict=True)]


_FITS = {
    "driver": {"shaft_mm": [55.012, 55.011, 55.011], "bore_mm": [55.031, 55.030, 55.032]},
    "driven": {"shaft_mm": [42.009, 42.008, 42.009], "bore_mm": [42.026, 42.025, 42.025]},
}
_SHAFTS = {"driver": _ring(0.0, 0.005, 0.01, 0.005), "driven": _ring(0.0, 0.0, 0.01, 0.01)}
_KEY = {
    "key": {"width_mm": 16.0, "height_mm": 10.0, "length_mm": 77.0},
    "shaft_keyway": {"width_mm": 16.01, "depth_mm": 6.0},
    "hub_keyway": {"width_mm": 16.03, "depth_mm": 4.3, "length_mm": 77.0},
    "length_rule": "as long or slightly longer",
}
CLAMPED = "driven"
WORDS = {
    **blower.WORDS,
    "series": "Brackwater Curlew",
    "size": "rundlet",
    "play_mm": 0.12,
    "distance_mm": 320.8,
    "reason": "clearance inside the band, hub tried on dry: slides and turns",
    f"surface@{CLAMPED}": "clean and dry",
}
READ: dict[str, dict[str, Any]] = {
    **{
        f"prepare.fit.{side}": {**fit, **{at: kiln_fan.FIT[at][:3] for at in ("shaft_at", "bore_at")}}
        for side, fit in _FITS.items()
    },
    **{f"prepare.shaft.{side}": {"readings": shaft, "kind": "rim"} for side, shaft in _SHAFTS.items()},
    "prepare.key": _KEY,
}
NOT_TRUE = f"mount.true.{CLAMPED}"
FIRST_READING = {
    "readings": _ring(0.0, 0.05, 0.03, -0.01),
    "kind": "rim",
    "second": {"on": "face", "readings": _ring(0.0, 0.02, 0.02, 0.0)},
}


_PLANES = tuple(Bracket(kind="rim", on="stationary", x_mm=x) for x in (240.0, -240.0))
_SWEPT = tuple(-20.0 + 7.5 * place for place in range(33))  # pipes in the way: two thirds of a turn


def _laser(offset_v: float, slope_v: float, offset_h: float, slope_h: float, seed: int) -> dict[str, Any]:
    """A sweep of both planes over shafts that truly stand so; mm and mm/m."""
    shafts = TrueShafts(offset_v_mm=offset_v, slope_v_mm_per_m=slope_v, offset_h_mm=offset_h, slope_h_mm_per_m=slope_h)
    gauge, chance = Gauge(resolution_mm=0.001, scatter_mm=0.003), random.Random(seed)
    return {
        "dials": [
            {
                "kind": "rim",
                "bracket_on": "stationary",
                "x_mm": plane.x_mm,
                "readings": [
                    {"clock": round(r["clock"] % 360, 2), "value_mm": round(r["value_mm"], 3)}
                    for r in sweep(shafts, plane, _SWEPT, gauge, chance)
                ],
            }
            for plane in _PLANES
        ]
    }


def _ends(driver: tuple[float, ...], driven: tuple[float, ...]) -> dict[str, Any]:
    return {"readings": _ring(*driver), "other_end": _ring(*driven), "diameter_mm": 128.0}


FOUND = _laser(-0.31, 1.15, 0.22, -0.9, seed=3)
ALIGNED: dict[str, dict[str, Any]] = {
    "found.closed": _ends((11.70, 11.62, 11.41, 11.48), (11.36, 11.44, 11.62, 11.55)),
    "found.align": FOUND,
    "set.soft": {"feet": blower.soft("motor drive end", "motor tail", (0.01, 0.02, 0.02, 0.01))},
    "set.align": _laser(0.01, 0.03, -0.01, 0.02, seed=5),
    "couple.feet": {
        "pulls": [
            {"pass": n, "bolt": b, "reached_nm": 120.0 * p} for n, p in ((1, 0.5), (2, 0.75), (3, 1.0)) for b in (1, 2, 3, 4)
        ]
    },
    "couple.align": _laser(0.02, 0.04, -0.01, 0.03, seed=6),
    "couple.closed": _ends((11.52, 11.51, 11.50, 11.51), (11.48, 11.49, 11.50, 11.49)),
}
TOLD = Told(read=READ, words=WORDS)
LAST_SPRING = Told(read=ALIGNED, words={**blower.WORDS, "coupling": CLOSED})
