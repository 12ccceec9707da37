"""What has been entered on chilled-water pump 1: the pump's hub half tight in its clamp ring, not running true yet."""

from typing import Any

from millwright.route.steps import Step

from . import blower, kiln_fan

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
_WORDS = {
    "series": "Brackwater D",
    "size": "140",
    "play_mm": 0.12,
    "reason": "clearance inside the band, hub tried on dry: slides and turns",
}
CLAMPED = "driven"
NOT_TRUE = f"mount.true.{CLAMPED}"
FIRST_READING = {
    "readings": _ring(0.0, 0.05, 0.03, -0.01),
    "kind": "rim",
    "second": {"on": "face", "readings": _ring(0.0, 0.02, 0.02, 0.0)},
}


def fill(step: Step) -> dict[str, Any]:
    """A step as it was done on the pump."""
    name, _, side = step.key.rpartition(".")
    match name:
        case "prepare.fit":
            return {**_FITS[side], "shaft_at": kiln_fan.FIT["shaft_at"][:3], "bore_at": kiln_fan.FIT["bore_at"][:3]}
        case "prepare.shaft":
            return {"readings": _SHAFTS[side], "kind": "rim"}
        case "prepare.key":
            return _KEY
    dry = {"surface": "clean and dry"} if side == CLAMPED else {}
    return blower.fill(step, {**_WORDS, **dry})
