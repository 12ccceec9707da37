"""What is entered in a whole job on the steep aeration blower, step by step."""

from typing import Any

from .in_order import Told

FOUND = {
    "dials": [
        {
            "kind": "rim",
            "bracket_on": "stationary",
            "x_mm": 20.0,
            "sag_mm": -0.02,
            "readings": [
                {"clock": 0, "value_mm": 0.0},
                {"clock": 90, "value_mm": 0.18},
                {"clock": 180, "value_mm": 0.60},
                {"clock": 270, "value_mm": 0.42},
            ],
        },
        {
            "kind": "face",
            "bracket_on": "stationary",
            "x_mm": 15.0,
            "radius_mm": 50.0,
            "readings": [
                {"clock": 0, "value_mm": 0.0},
                {"clock": 90, "value_mm": 0.02},
                {"clock": 180, "value_mm": 0.05},
                {"clock": 270, "value_mm": 0.03},
            ],
        },
    ]
}


def _dials(rim: tuple[float, ...], face: tuple[float, ...]) -> dict[str, Any]:
    clocks = (0, 90, 180, 270)
    rims = [{"clock": c, "value_mm": v} for c, v in zip(clocks, rim, strict=True)]
    faces = [{"clock": c, "value_mm": v} for c, v in zip(clocks, face, strict=True)]
    first, second = FOUND["dials"]
    return {"dials": [{**first, "readings": rims}, {**second, "readings": faces}]}


MOVED = _dials((0.0, 0.00, -0.01, -0.01), (0.0, 0.0, 0.0, 0.0))
BOLTED = _dials((0.0, 0.01, 0.0, -0.01), (0.0, 0.0, 0.0, 0.0))
MOVE = {
    "feet": [
        {"name": "motor drive end", "shim_mm": 0.46, "slide_mm": 0.15},
        {"name": "motor tail", "shim_mm": 0.60, "slide_mm": 0.18},
    ],
    "note": "Shims 0.40 + 0.05 and 0.50 + 0.10, jacked over with a dial at the foot",
}


def _gap(*values: float) -> dict[str, Any]:
    return {
        "readings": [{"clock": c, "value_mm": v} for c, v in zip((0, 90, 180, 270), values, strict=True)],
        "diameter_mm": 105.0,
    }


def soft(near: str, far: str, rises: tuple[float, ...]) -> list[dict[str, Any]]:
    """How far each foot rises: near 9, near 3, far 9, far 3."""
    names = [f"{foot}, {side} side" for foot in (near, far) for side in ("9", "3")]
    return [{"name": name, "rise_mm": rise} for name, rise in zip(names, rises, strict=True)]


def _edge(*feelers: tuple[float, str]) -> dict[str, Any]:
    return {
        "readings": [{"clock": c, "feeler_mm": f, "on": on} for c, (f, on) in zip((0, 90, 180, 270), feelers, strict=True)],
        "stationary_hub_mm": 105.0,
        "movable_hub_mm": 105.0,
    }


PLACES = [
    {"station": station, "across": across}
    for across in ("12-6", "3-9")
    for station in ("machine side", "middle", "shaft end")
]
_FIT = {
    "shaft_mm": [48.012, 48.010, 48.011, 48.012, 48.011, 48.010],
    "bore_mm": [48.030, 48.028, 48.031, 48.029, 48.030, 48.030],
    "shaft_at": PLACES,
    "bore_at": PLACES,
}
_KEY = {
    "key": {"width_mm": 14.0, "height_mm": 9.0, "length_mm": 60.0},
    "shaft_keyway": {"width_mm": 14.01, "depth_mm": 5.4},
    "hub_keyway": {"width_mm": 14.03, "depth_mm": 3.8, "length_mm": 63.0},
}
FIRST_READINGS: dict[str, dict[str, Any]] = {
    "prepare.fit.driver": _FIT,
    "prepare.fit.driven": _FIT,
    "prepare.key.driver": _KEY,
    "prepare.key.driven": _KEY,
    "mount.screw": {"pulls": [{"pass": 1, "bolt": 1, "reached_nm": 25.0}]},
    "couple.screw": {"pulls": [{"pass": 1, "bolt": 1, "reached_nm": 25.2}]},
    "set.soft": {"feet": soft("motor drive end", "motor tail", (0.02, 0.01, 0.03, 0.02))},
    "set.gap": _gap(30.42, 30.40, 30.37, 30.39),
    "set.straightedge": _edge((0.30, "movable"), (0.10, "movable"), (0.32, "stationary"), (0.12, "stationary")),
    "set.align": FOUND,
    "couple.align": BOLTED,
    "couple.gap": _gap(30.21, 30.20, 30.20, 30.21),
    "couple.feet": {
        "pulls": [
            {"pass": n, "bolt": bolt, "reached_nm": 190 * share + 0.5 * (bolt - 2)}
            for n, share in enumerate((0.5, 0.75, 1.0), start=1)
            for bolt in (1, 3, 2, 4)
        ]
    },
}
AFTER_MOVE: dict[str, dict[str, Any]] = {
    "set.soft": {"feet": soft("motor drive end", "motor tail", (0.02, 0.02, 0.03, 0.01))},
    "set.gap": _gap(30.30, 30.30, 30.31, 30.30),
    "set.straightedge": _edge((0.0, "movable"), (0.0, "movable"), (0.0, "stationary"), (0.0, "stationary")),
    "set.align": MOVED,
}

WORDS = {
    "surface": "mounting paste, thin",
    "series": "Brackwater Plover",
    "size": "firkin",
    "colour": "grey-green",
    "hardness": 92.0,
    "centre": "solid centre",
    "decision": "slide it on by hand",
    "runs": "runs smoothly",
    "distance_mm": 31.0,
    "standout_mm": 0.0,
    "gap_mm": 30.2,
    "speed_rpm": 1482.0,
    "minutes": 20.0,
    "guard_screws": 8,
}
TOLD = Told(read=FIRST_READINGS, words=WORDS)
