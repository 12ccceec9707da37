"""What has been entered on the drum turner: the drum's hub shrunk on, the reducer's tapered hub missed at its first try."""

from typing import Any

from millwright.plan.steps import Step

from . import blower, kiln_fan

_BLUE = [[1.0] * 8 for _ in range(4)]
_BLUE[3][4:7] = [0.0, 0.0, 0.0]
_BLUE[2][4:7] = [0.5, 0.0, 0.5]
_BLUE[3][3] = 0.5
_CONES = {
    "shaft": {"large_mm": 90.0, "small_mm": 80.0, "length_mm": 120.0},
    "bore": {"large_mm": 89.986, "small_mm": 79.993, "length_mm": 120.0},
}
_READINGS: dict[str, dict[str, Any]] = {
    "prepare.fit.driven": {**kiln_fan.FIT, "shaft_mm": [90.051, 90.050], "bore_mm": [89.982, 89.984]}
    | dict.fromkeys(("shaft_at", "bore_at"), kiln_fan.FIT["shaft_at"][:2]),
    "prepare.key.driven": kiln_fan.KEY
    | {
        "key": {"width_mm": 25.0, "height_mm": 14.0, "length_mm": 120.0},
        "shaft_keyway": {"width_mm": 25.01, "depth_mm": 9.0},
        "hub_keyway": {"width_mm": 25.04, "depth_mm": 5.4, "length_mm": 126.0},
    },
    "prepare.heat.driven": {
        "bore_mm": 89.982,
        "interference_mm": 0.069,
        "heat_to_c": 140.0,
        "shaft_c": 19.0,
        "ambient_c": 19.0,
        "hub": {"material": "steel", "outside_mm": 210.0, "length_mm": 126.0},
    },
    "mount.screw": {"pulls": [{"pass": 1, "bolt": 1, "reached_nm": 40.0}]},
    "prepare.taper.driver": {**_CONES, "contact": _BLUE},
    "prepare.heat.driver": {
        "bore_mm": 84.99,
        "assembly_clearance_mm": 0.01,
        "shaft_c": 21.0,
        "ambient_c": 21.0,
        "hub": {"material": "steel", "outside_mm": 210.0, "length_mm": 126.0},
    },
}
_WORDS = {"series": "Brackwater Egret", "size": "tun", "hub_c": 21.0, "standout_mm": 0.0}
_WORDS_OF_TAPER = {
    "surface": "clean and dry",
    "hand_tight_mm": 40.78,
    "standout_mm": 41.34,
    "decision": "heat it and draw it up",
    "reason": "83 % blue, tapers match within 0.01",
}
TAPERED = "driver"
MISSED = f"mount.draw.{TAPERED}"
FIRST_TRY = {
    **_CONES,
    "hand_tight_standout_mm": 40.78,
    "fitted_standout_mm": 41.34,
    "attempt": {"hub_c": 103.0, "shaft_c": 21.0, "advance_mm": 0.56},
}


def fill(step: Step) -> dict[str, Any]:
    """A step as it was done on the drum turner."""
    if step.key in _READINGS:
        return _READINGS[step.key]
    more = _WORDS_OF_TAPER if step.key.endswith(TAPERED) else {}
    return blower.fill(step, {**kiln_fan.WORDS, **_WORDS, **more})
