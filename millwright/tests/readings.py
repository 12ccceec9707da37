"""Figures of a card, and readings that tests speak of."""

from typing import Any

FIGURES = {
    "clearance_max_mm": 0.045,
    "clearance_min_mm": 0.005,
    "set_screw_torque_nm": 25,
    "soft_foot_mm": 0.05,
    "gap_nominal_mm": 30,
    "gap_plus_minus_mm": 1,
    "offset_limit_mm": 0.4,
    "angle_limit_deg": 0.35,
    "sliding_mm_per_s": 5.6,
    "foot_bolt_torque_nm": 190,
    "element_width_mm": 26,
    "open_centre_rpm": 1200,
    "interference_min_mm": 0.02,
    "interference_max_mm": 0.06,
    "heat_clearance_mm": 0.03,
    "hub_ceiling_c": 200,
    "flange_bolts": 6,
    "flange_bolt_torque_nm": 80,
    "sleeve_spread_mm": 0.3,
    "end_gap_nominal_mm": 8,
    "end_gap_plus_minus_mm": 0.4,
    "ends_differ_mm": 0.2,
    "end_face_mm": 0.2,
    "taper_interference_mm": 0.07,
    "taper_mismatch_mm": 0.01,
    "taper_contact_percent": 80,
    "lock_nut_torque_nm": 250,
    "hub_screws": 8,
    "hub_screw_torque_nm": 35,
    "shaft_runout_mm": 0.05,
    "hub_runout_mm": 0.05,
    "flywheel_face_mm": 0.1,
    "flywheel_rim_mm": 0.2,
    "motor_turns": 0,
    "air_gap_spread_mm": 0.2,
    "rotor_runout_mm": 0.05,
}
CLOCKS = (0, 90, 180, 270)


def ring(*values: float) -> list[dict[str, float]]:
    """Readings at 12, 3, 6 and 9."""
    return [{"clock": c, "value_mm": v} for c, v in zip(CLOCKS, values, strict=True)]


def dials(low_mm: float) -> dict[str, Any]:
    """Rim and face of a machine that is low and square."""
    rim = {"kind": "rim", "bracket_on": "stationary", "x_mm": 20.0, "readings": ring(0, low_mm, 2 * low_mm, low_mm)}
    face = {"kind": "face", "bracket_on": "stationary", "x_mm": 20.0, "radius_mm": 50.0, "readings": ring(0, 0, 0, 0)}
    return {"dials": [rim, face]}


def bolts(count: int, torque: float, passes: tuple[float, ...]) -> dict[str, Any]:
    """Every bolt pulled to its torque in every pass."""
    return {
        "pulls": [{"pass": n, "bolt": b + 1, "torque_nm": torque * p} for n, p in enumerate(passes, 1) for b in range(count)]
    }


def rounds(count: int, torque: float, turned: tuple[int, ...]) -> dict[str, Any]:
    """A part round and full rounds; ``turned`` - how many screws still turned in each full round."""
    pulls = bolts(count, torque, (0.5, *(1.0 for _ in turned)))["pulls"]
    for pull in pulls:
        pull["moved"] = pull["pass"] == 1 or pull["bolt"] <= turned[pull["pass"] - 2]
    return {"pulls": pulls}


SAID: dict[str, Any] = {"output_rotation": "cw", "seen_from": "input side", "meshes": 2, "backstop_on": "input side"}
SAID_ACROSS = {**SAID, "output_rotation": "ccw", "seen_from": "output side"}


def gaps(driver: float = 3.0, load: float = 3.0) -> dict[str, Any]:
    """Even air gaps on both sides."""
    sides = (("driver", driver), ("load", load))
    return {
        "stations": [{"side": side, "clock": c, "value_mm": value} for side, value in sides for c in CLOCKS],
        "diameter_mm": 400,
    }


CONE = {"large_mm": 90.0, "small_mm": 80.0, "length_mm": 120.0}
GAP = {"readings": ring(30, 30, 30, 30), "diameter_mm": 105}
SHRUNK = {"shaft_mm": [48.04], "bore_mm": [48.0]}
DRAWN = {"shaft": CONE, "bore": CONE, "hand_tight_standout_mm": 40.78, "fitted_standout_mm": 41.62}
TRUE = {"readings": ring(0.0, 0.01, 0.02, 0.01), "kind": "rim"}
PACK = {"readings": ring(30, 30.1, 30, 30), "diameter_mm": 105}
SLEEVES: dict[str, Any] = {
    "readings": ring(4.1, 4.2, 4.2, 4.1),
    "other_end": ring(4.0, 4.1, 4.1, 4.0),
    "diameter_mm": 105,
}
BOTH_ENDS: dict[str, Any] = {"readings": ring(8.0, 8.1, 8.0, 8.0), "other_end": ring(8.0, 8.0, 8.1, 8.0), "diameter_mm": 105}
SLIP, SHRINK, TAPER = "keyed, slip fit", "keyed, interference", "tapered bore"
