"""What somebody reads and answers whose work comes out well: by bench, by step and by field."""

import json
from collections.abc import Callable, Mapping
from typing import Any

from millwright.benches.register import as_dict, evaluate_json
from millwright.plan.hints import GreaseHints
from millwright.plan.steps import BenchForm

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
CONE = {"large_mm": 90.0, "small_mm": 80.0, "length_mm": 120.0}
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


def half_turns(preset: Mapping[str, Any]) -> dict[str, Any]:
    """Each bolt half a turn, then every one clicks, then a round that turns nothing."""
    pulls: list[dict[str, Any]] = []
    while True:
        found = as_dict(evaluate_json("tighten", json.dumps({**preset, "pulls": pulls})))
        if found["next"] is None:
            return {"pulls": pulls}
        turn = found["next"]
        pulls.append({"pass": turn["pass"], "bolt": turn["bolt"], "turned": turn["pass"] < 3, "clicked": turn["pass"] > 1})


def step_by_step(bench: str, given: Mapping[str, Any]) -> dict[str, Any]:
    """What the bench says comes next, until nothing does."""
    log: list[Any] = []
    while (following := as_dict(evaluate_json(bench, json.dumps({**given, "log": log})))["next"]) is not None:
        log.append(following)
    return {**given, "log": log}


def rounds(count: int, torque: float, turned: tuple[int, ...]) -> dict[str, Any]:
    """A part round and full rounds; ``turned`` - how many screws still turned in each full round."""
    pulls = bolts(count, torque, (0.5, *(1.0 for _ in turned)))["pulls"]
    for pull in pulls:
        pull["moved"] = pull["pass"] == 1 or pull["bolt"] <= turned[pull["pass"] - 2]
    return {"pulls": pulls}


def rounds_at_full_torque(count: int, torque: float, turned: tuple[int, ...]) -> dict[str, Any]:
    """Round after round at full torque; ``turned`` - how many screws still turned in each."""
    pulls = bolts(count, torque, tuple(1.0 for _ in turned))["pulls"]
    for pull in pulls:
        pull["moved"] = pull["bolt"] <= turned[pull["pass"] - 1]
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


def arm(preset: Mapping[str, Any]) -> dict[str, Any]:
    """An arm near square; the torque beside it where the line has no power."""
    return {"arm_mm": 550.0, "angle_deg": 84.0, **({} if "power_kw" in preset else {"torque_nm": 1800.0})}


BY_BENCH: dict[str, Callable[[Mapping[str, Any]], dict[str, Any]]] = {
    "airgap": lambda preset: gaps(),
    "torque_arm": arm,
    "fitted": lambda preset: step_by_step("fitted", preset),
}
TRUE = {"readings": ring(0.0, 0.01, 0.02, 0.01), "kind": "rim"}
READINGS: dict[str, dict[str, Any]] = {
    "prepare.fit": {"shaft_mm": [48.01], "bore_mm": [48.03]},
    "prepare.key": {
        "key": {"width_mm": 14, "height_mm": 9, "length_mm": 60},
        "shaft_keyway": {"width_mm": 14.01, "depth_mm": 5.4},
        "hub_keyway": {"width_mm": 14.03, "depth_mm": 3.8, "length_mm": 60},
    },
    "set.soft": {"feet": [{"name": name, "rise_mm": 0.02} for name in ("a", "b", "c", "d")]},
    "set.gap": {"readings": ring(30, 30, 30, 30), "diameter_mm": 105},
    "couple.gap": {"readings": ring(30, 30, 30, 30), "diameter_mm": 105},
    "set.straightedge": {
        "readings": [{"clock": c, "feeler_mm": 0.0, "on": "movable"} for c in CLOCKS],
        "stationary_hub_mm": 105,
        "movable_hub_mm": 105,
    },
    "couple.over_halves": {
        "readings": [{"clock": c, "feeler_mm": 0.0, "on": "movable"} for c in CLOCKS],
        "stationary_hub_mm": 105,
        "movable_hub_mm": 105,
    },
    "set.align": dials(0.0),
    "couple.align": dials(0.0),
    "couple.sleeve": {"readings": ring(4.1, 4.2, 4.2, 4.1), "diameter_mm": 105},
    "couple.dial": {"kind": "face", "readings": ring(0.0, 0.02, 0.04, 0.02)},
    "prepare.taper": {"shaft": CONE, "bore": CONE, "contact": [[1.0] * 8] * 4},
    "mount.draw": {"shaft": CONE, "bore": CONE, "hand_tight_standout_mm": 40.78, "fitted_standout_mm": 41.62},
    "prepare.shaft": TRUE,
    "couple.true": TRUE,
    "mount.true": {**TRUE, "second": {"on": "face", "readings": ring(0.0, 0.0, 0.01, 0.0)}},
    "mount.runout": {**TRUE, "second": {"on": "face", "readings": ring(0.0, 0.0, 0.01, 0.0)}},
    "mount.clamp": rounds(8, 35, (8, 3, 0)),
    "prepare.flywheel_face": {"kind": "face", "readings": ring(0.0, 0.02, 0.04, 0.02)},
    "prepare.flywheel_rim": {"kind": "rim", "readings": ring(0.0, 0.02, 0.04, 0.02)},
    "off.gap": {"readings": ring(30, 30, 30, 30), "diameter_mm": 105},
    "off.align": dials(0.0),
    "found.align": dials(0.0),
    "found.sleeve": {"readings": ring(4.1, 4.2, 4.2, 4.1), "diameter_mm": 105},
    "found.dial": {"kind": "face", "readings": ring(0.0, 0.02, 0.04, 0.02)},
    "backstop.way": SAID,
    "backstop.way_again": SAID_ACROSS,
    "mount.centre": {"readings": ring(0.0, 0.01, 0.02, 0.01)},
    "prepare.heat": {
        "bore_mm": 48.0,
        "interference_mm": 0.04,
        "assembly_clearance_mm": 0.01,
        "heat_to_c": 198.0,
        "shaft_c": 20.0,
        "ambient_c": 20.0,
        "hub": {"material": "steel", "outside_mm": 105, "length_mm": 60},
    },
}
PACK = {"readings": ring(30, 30.1, 30, 30), "diameter_mm": 105}
SLEEVES: dict[str, Any] = {
    "readings": ring(4.1, 4.2, 4.2, 4.1),
    "other_end": ring(4.0, 4.1, 4.1, 4.0),
    "diameter_mm": 105,
}
BOTH_ENDS: dict[str, Any] = {"readings": ring(8.0, 8.1, 8.0, 8.0), "other_end": ring(8.0, 8.0, 8.1, 8.0), "diameter_mm": 105}
SHRUNK = {"shaft_mm": [48.04], "bore_mm": [48.0]}
LOCKED = {"energy": "electric", "point": "motor isolator", "lock": "L-7", "tag": "T-7", "who": "Jorun Thornquist"}
WORDS = {
    "surface": "clean and dry",
    "series": "Brackwater Avocet",
    "size": "rundlet",
    "hub_c": 24,
    "torque_nm": 250,
    "distance_mm": 30,
    "standout_mm": 0,
}


SHEETS: dict[str, dict[str, Any]] = {
    "receive.carried": {"driver": "two bearings of its own", "driven": "one bearing: it floats"},
    "couple.touch": {f"at_{place}_mm": 0 for place in (12, 3, 6, 9)},
    "receive.unit": {"screws": 8},
    "receive.flywheel": {"bush_mm": 48},
    "prepare.place": {"distance_mm": 30, "float_mm": 2},
    "couple.gap_again": {"gap_mm": 30, "driver_mm": 8, "driven_mm": 8},
    "off.marks": {"standout_driver_mm": 0, "standout_driven_mm": 0},
    "off.new": {"number": "lot 12"},
    "couple.blocks": {"set": "lot 12"},
    "backstop.arrow": {"race": "clockwise", "housing": "clockwise"},
    "backstop.free": {"free": "clockwise", "other": "locks at once"},
    "backstop.closed": {},
    "prepare.rings": {"joint_1": 12, "joint_2": 4, "joint_3": 8, "joint_4": 12},
    "close.run_in": {"what": "run under load", "minutes": 60, "load": 80},
}


def _read_on(form: BenchForm, key: str) -> dict[str, Any]:
    """What is read on a bench."""
    if key.endswith(".closed"):
        return {**BOTH_ENDS, "ends": form.preset["ends"]} if "ends" in form.preset else PACK
    if key.endswith(".sleeve") and "ends" in form.preset:
        return {**SLEEVES, "ends": form.preset["ends"]}
    if form.bench in BY_BENCH:
        return BY_BENCH[form.bench](form.preset)
    if form.bench == "grease":
        assert isinstance(form.suggest, GreaseHints)
        usual = {"routine": "low in, high out", "product": form.preset.get("wanted_product", "Maltster blue")}
        return step_by_step("grease", {"holes": form.suggest.holes, **usual, **form.preset})
    if key.split(".")[1] == "rerun":
        return rounds_at_full_torque(form.preset["bolts"], form.preset["torque_nm"], (2, 0))
    if form.preset.get("passes") == "half turns":
        return half_turns(form.preset)
    if form.bench == "tighten" and not form.preset.get("until_still"):
        return bolts(form.preset["bolts"], form.preset["torque_nm"], tuple(form.preset["passes"]))
    return READINGS[key] if key in READINGS else READINGS[key.rsplit(".", 1)[0]]


SLIP, SHRINK, TAPER = "keyed, slip fit", "keyed, interference", "tapered bore"
