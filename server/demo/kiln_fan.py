"""What has been entered on kiln fan A: a gear coupling whose two hubs are shrunk on, the first one on the heater."""

from typing import Any

from . import blower
from .in_order import Told

FIT: dict[str, Any] = {
    "shaft_mm": [75.042, 75.041, 75.040, 75.041, 75.041, 75.040],
    "bore_mm": [74.963, 74.962, 74.964, 74.964, 74.963, 74.965],
    "shaft_at": blower.PLACES,
    "bore_at": blower.PLACES,
}
KEY: dict[str, Any] = {
    "key": {"width_mm": 20.0, "height_mm": 12.0, "length_mm": 110.0},
    "shaft_keyway": {"width_mm": 20.01, "depth_mm": 7.5},
    "hub_keyway": {"width_mm": 20.03, "depth_mm": 4.9, "length_mm": 114.0},
}
_HEAT = {
    "bore_mm": 74.962,
    "interference_mm": 0.080,
    "heat_to_c": 190.0,
    "shaft_c": 21.0,
    "ambient_c": 21.0,
    "hub": {"material": "steel", "outside_mm": 190.0, "length_mm": 114.0},
    "heater": {"kind": "induction", "power_kw": 4.5},
}
WORDS = {
    **blower.WORDS,
    "series": "Brackwater Heron",
    "size": "hogshead",
    "decision": "heat it and slide it on",
    "outcome": "seated at the mark",
    "hub_c": 22.0,
    "sealant": "Brackwater joint paste",
    "grease": "Brackwater coupling grease, batch 7",
    "reason": "interference inside the band, key free, room above it",
}
_CLOCKS = (0, 90, 180, 270)


def _ring(*values: float) -> list[dict[str, float]]:
    return [{"clock": c, "value_mm": v} for c, v in zip(_CLOCKS, values, strict=True)]


def _dials(rim: tuple[float, ...], face: tuple[float, ...]) -> dict[str, Any]:
    """Rim and face; the motor's tail foot is bolt bound toward 3 o'clock."""
    at = {"bracket_on": "stationary", "x_mm": 25.0}
    dials = [
        {"kind": "rim", "sag_mm": -0.03, **at, "readings": _ring(*rim)},
        {"kind": "face", "radius_mm": 85.0, **at, "readings": _ring(*face)},
    ]
    return {
        "dials": dials,
        "room": {"motor drive end": {"right_mm": 1.5}, "motor tail": {"right_mm": 0.10}, "fan drive end": {}, "fan tail": {}},
        "shims": {"box_mm": [0.05, 0.1, 0.2, 0.25, 0.5, 1.0, 2.0]},
    }


def _bolts(count: int, torque: float) -> dict[str, Any]:
    passes = ((1, 0.5), (2, 0.75), (3, 1.0))
    return {"pulls": [{"pass": n, "bolt": b, "reached_nm": torque * p} for n, p in passes for b in range(1, count + 1)]}


_FEET = ("motor drive end", "motor tail")
SOFT = {
    "feet": blower.soft(*_FEET, (0.02, 0.03, 0.01, 0.24)),
    "corners": {"motor tail, 3 side": [0.22, 0.24, 0.25, 0.23]},
}
FOUND = _dials((0.0, -0.22, 0.47, 0.68), (0.0, -0.01, -0.01, 0.0))
READ: dict[str, dict[str, Any]] = {
    "prepare.fit": FIT,
    "prepare.key": KEY,
    "prepare.heat": _HEAT,
    "set.soft": {"feet": blower.soft(*_FEET, (0.02, 0.02, 0.01, 0.03))},
    "set.gap": {"readings": _ring(8.05, 8.04, 8.02, 8.03), "diameter_mm": 190.0},
    "set.straightedge": {
        "readings": [{"clock": c, "feeler_mm": 0.05, "on": "stationary"} for c in _CLOCKS],
        "stationary_hub_mm": 190.0,
        "movable_hub_mm": 190.1,
    },
    # The motor grows by more than the fan: cold it stands low, and comes right when warm.
    "set.align": _dials((0.0, 0.09, 0.18, 0.09), (0.0, 0.0, -0.01, 0.0)),
    "couple.align": _dials((0.0, 0.09, 0.19, 0.10), (0.0, 0.0, -0.01, 0.0)),
    "couple.feet": _bolts(4, 310.0),
    "couple.flange": _bolts(8, 85.0),
    "couple.sleeve": {
        "readings": _ring(6.10, 6.12, 6.15, 6.13),
        "other_end": _ring(6.22, 6.20, 6.17, 6.19),
        "ends": ["motor end", "fan end"],
        "diameter_mm": 190.0,
    },
    "mount.screw": {"pulls": [{"pass": 1, "bolt": 1, "reached_nm": 40.0}]},
    "mount.screw.second": {"pulls": [{"pass": 1, "bolt": 1, "reached_nm": 40.0}]},
}
HUB = "driven"  # the fan stays: its hub goes on first
RUN = f"mount.hot.{HUB}"
ON_THE_HEATER = ((0, None), (6, 88.0), (10, 131.0))  # minutes, and what the pyrometer showed
TOLD = Told(read=READ, words=WORDS)
