"""What has been entered on kiln fan A: a gear coupling whose two hubs are shrunk on, the first one on the heater."""

from typing import Any

from millwright.route.steps import Step

from . import blower

FIT = {
    "shaft_mm": [75.042, 75.041, 75.040, 75.041, 75.041, 75.040],
    "bore_mm": [74.963, 74.962, 74.964, 74.964, 74.963, 74.965],
    "shaft_at": blower.PLACES,
    "bore_at": blower.PLACES,
}
KEY = {
    "key": {"width_mm": 20.0, "height_mm": 12.0, "length_mm": 110.0},
    "shaft_keyway": {"width_mm": 20.01, "depth_mm": 7.5},
    "hub_keyway": {"width_mm": 20.03, "depth_mm": 4.9, "length_mm": 114.0},
}
_HEAT = {
    "bore_mm": 74.962,
    "interference_mm": 0.080,
    "shaft_c": 21.0,
    "ambient_c": 21.0,
    "hub": {"material": "steel", "outside_mm": 190.0, "length_mm": 114.0},
    "heater": {"kind": "induction", "power_kw": 4.5},
}
WORDS = {
    "series": "Brackwater G",
    "size": "3",
    "decision": "heat it and slide it on",
    "outcome": "home on its mark",
    "hub_c": 22.0,
    "reason": "interference inside the band, key free, room above it",
}
HUB = "driven"  # the fan stays: its hub goes on first
RUN = f"mount.hot.{HUB}"
ON_THE_HEATER = ((0, None), (6, 88.0), (10, 131.0))  # minutes, and what the pyrometer showed


def fill(step: Step) -> dict[str, Any]:
    """A step as it was done on the fan."""
    readings = {"prepare.fit": FIT, "prepare.key": KEY, "prepare.heat": _HEAT}
    if (reading := readings.get(step.key.rsplit(".", 1)[0])) is not None:
        return reading
    return blower.fill(step, WORDS)
