"""What has been entered on the drum turner: the drum's hub shrunk on, the reducer's tapered hub missed at its first try."""

from typing import Any

from . import kiln_fan
from .in_order import Told

_BLUE = [[1.0] * 8 for _ in range(4)]
_BLUE[3][4:7] = [0.0, 0.0, 0.0]
_BLUE[2][4:7] = [0.5, 0.0, 0.5]
_BLUE[3][3] = 0.5
_CONES = {
    "shaft": {"large_mm": 90.0, "small_mm": 80.0, "length_mm": 120.0},
    "bore": {"large_mm": 89.986, "small_mm": 79.993, "length_mm": 120.0},
}
READ: dict[str, dict[str, Any]] = {
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
TAPERED = "driver"
WORDS = {
    **kiln_fan.WORDS,
    "series": "Brackwater Egret",
    "size": "tun",
    "hub_c": 21.0,
    "standout_mm": 0.0,
    f"surface@{TAPERED}": "clean and dry",
    f"hand_tight_mm@{TAPERED}": 40.78,
    f"standout_mm@{TAPERED}": 41.34,
    f"decision@{TAPERED}": "heat it and draw it up",
    f"reason@{TAPERED}": "83 % blue, tapers match within 0.01",
}
MISSED = f"mount.draw.{TAPERED}"
FIRST_TRY = {
    **_CONES,
    "hand_tight_standout_mm": 40.78,
    "fitted_standout_mm": 41.34,
    "attempt": {"hub_c": 103.0, "shaft_c": 21.0, "advance_mm": 0.56},
}
TOLD = Told(read=READ, words=WORDS)
