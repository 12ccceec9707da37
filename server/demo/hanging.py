"""Drives of Quillmere Maltings that hang on a shaft or hold by magnets: lines, value cards, and the jobs in hand on them.

Every figure is invented and marked as a sample.
"""

from datetime import timedelta
from typing import Any

from millwright.card.meanings import CLOCKWISE, COUNTER_CLOCKWISE
from millwright.card.values import UpTo, Value
from millwright.plan.steps import NO_BACKSTOP
from millwright.scope import Scope

from .lines import line, machine, motor_turns, sample, site_rule

GEAR_UNITS = "Brackwater gear units, sample sheet"
MAGNETS = "Brackwater magnetic drives, sample sheet"
BACKSTOPS = "Brackwater backstop kits, sample guide"


def _of(document: str, value: float, page: str, means: str = "") -> Value:
    return sample(value, page, means, document)


def _fit() -> dict[str, Value]:
    return {"clearance_max_mm": sample(0.045, "6"), "clearance_min_mm": sample(0.005, "6")}


def _circle(key: str, count: int, torque_nm: float, document: str, page: str, thread: str = "dry") -> dict[str, Value]:
    return {
        f"flange_bolts@{key}": _of(document, count, page),
        f"flange_bolt_torque_nm@{key}": _of(document, torque_nm, page, thread),
    }


def _oil(litres: float) -> dict[str, Value]:
    oil = Value(value=0, means="Brackwater gear oil 220", source=_of(GEAR_UNITS, 0, "21").source)
    return {"unit_oil": oil, "unit_oil_l": _of(GEAR_UNITS, litres, "21")}


ELEVATOR = {
    **_fit(),
    **_circle("arm", 4, 45, GEAR_UNITS, "18"),
    **_circle("outer_race", 6, 24, BACKSTOPS, "4"),
    **_oil(3.2),
    "hub_screws": _of(GEAR_UNITS, 4, "16"),
    "hub_screw_torque_nm": _of(GEAR_UNITS, 42, "16", "dry"),
    "hub_runout_mm": _of(GEAR_UNITS, 0.1, "16"),
    "arm_off_square_deg": _of(GEAR_UNITS, 25, "17"),
    "sealant_open_min": _of("Maltster face sealant, sample label", 25, "1"),
    "motor_turns": motor_turns(CLOCKWISE),
}
AUGER = {
    **_fit(),
    **_circle("adapter", 6, 38, GEAR_UNITS, "26"),
    **_oil(1.4),
    "hub_screw_torque_nm": _of(GEAR_UNITS, 68, "27", "dry"),
    "packing_turn_deg": _of(GEAR_UNITS, 60, "28"),
    "motor_turns": motor_turns(COUNTER_CLOCKWISE),
}
FAN = {
    **_fit(),
    **_circle("rotor", 8, 32, MAGNETS, "9", "glued"),
    **_circle("conductor", 8, 32, MAGNETS, "9", "glued"),
    **_circle("gap_spacers", 6, 21, MAGNETS, "9", "glued"),
    "rated_torque_nm": _of(MAGNETS, 520, "4"),
    "service_factor": _of(MAGNETS, 1.4, "5"),
    "top_speed_rpm": _of(MAGNETS, 1800, "4"),
    "hub_screws": _of(MAGNETS, 6, "8"),
    "hub_screw_torque_nm": _of(MAGNETS, 30, "8", "dry"),
    "shaft_runout_mm": site_rule(0.05, "3"),
    "hub_runout_mm": _of(MAGNETS, 0.05, "8"),
    "rotor_runout_mm": Value(
        value=0.06,
        up_to=[UpTo(rpm=1000, value=0.15), UpTo(rpm=1500, value=0.10)],
        source=_of(MAGNETS, 0, "10").source,
    ),
    "air_gap_spread_mm": _of(MAGNETS, 0.30, "11"),
    "air_gap_differ_mm": _of(MAGNETS, 0.25, "11"),
    "air_gap_least_mm": _of(MAGNETS, 2.4, "11"),
    "soft_foot_mm": site_rule(0.05, "3"),
    "foot_bolt_torque_nm": site_rule(190, "5", "oiled"),
    "motor_turns": motor_turns(CLOCKWISE),
}
HANGING: dict[str, tuple[dict[str, Any], dict[str, Value]]] = {
    "Barley elevator": (
        line(
            machine("Reducer", "gearmotor", 80.0, (220.0, 420.0), power_kw=11.0),
            machine("Elevator", "elevator", 80.0, (300.0, 700.0)),
            "shaft-mounted reducer",
            "Brackwater Dunlin",
            "bushel",
            68.0,
            160.0,
            connection="tapered bush",
            set_screws=0,
            backstop=True,
            points=[{"energy": "stored load", "point": "Buckets on the up side, blocked at the head"}],
        ),
        ELEVATOR,
    ),
    "Malt auger 3": (
        line(
            machine("Gearmotor", "gearmotor", 50.0, (200.0, 380.0), power_kw=5.5),
            machine("Auger", "auger", 50.0, (240.0, 2400.0)),
            "screw-conveyor drive",
            "Brackwater Snipe",
            "peck",
            62.0,
            120.0,
            connection="tapered wedge",
        ),
        AUGER,
    ),
    "Induced-draught fan": (
        line(
            machine("Motor", "motor", 60.0, (380.0, 760.0), power_kw=45.0),
            machine("Fan", "fan", 60.0, (420.0, 980.0)),
            "magnetic drive",
            "Brackwater Gannet",
            "tierce",
            1480.0,
            360.0,
            connection="shrink disc",
            half_key=True,
        ),
        FAN,
    ),
}
BACKSTOP: dict[str, dict[str, Any]] = {
    "receive.backstop_kit": {"kit": "BK 80-2", "unit": "Dunlin 80, 4471", "spacer": "in the kit"},
    "backstop.hold": {"load_by": "blocks", "unit_by": "its own shaft and arm, and a prop", "props": 3},
    "backstop.open": {"cover": 1},
    "backstop.cover": {"shaft": "the input shaft's far end"},
    "backstop.way": {"output_rotation": "cw", "seen_from": "input side", "meshes": 2, "backstop_on": "input side"},
    "backstop.way_again": {"output_rotation": "ccw", "seen_from": "output side", "meshes": 2, "backstop_on": "input side"},
}
PACKING: dict[str, dict[str, Any]] = {
    "receive.backstop": {"has": NO_BACKSTOP},
    "receive.seals": {"by": "one lip seal and packing", "why": "dust of the malt came past the lips last year"},
    "receive.kit": {"rings_n": 4, "studs_n": 4},
    "prepare.rings": {"joint_1": 12.0, "joint_2": 4.0, "joint_3": 8.0, "joint_4": 12.0},
    "prepare.sling": {"by": "a sling", "slings": 2},
}
MAGNETIC: dict[str, dict[str, Any]] = {
    "receive.size": {"arms": "stay on", "apart": "card pads on the copper", "says": "page 7"},
    "receive.kit": {"spacers_n": 6, "arms_n": 3},
    "mount.laid": {"pads": 6},
    "mount.halves_marked": {"match": ["G 17", "G 17"]},
}
UNEVEN: dict[str, Any] = {
    "stations": [
        *({"side": "driver", "clock": c, "value_mm": v} for c, v in ((0, 3.54), (90, 3.34), (180, 3.30), (270, 3.51))),
        *({"side": "load", "clock": c, "value_mm": v} for c, v in ((0, 2.60), (90, 2.80), (270, 2.64))),
    ],
    "diameter_mm": 360.0,
}
# Line, what is done, when it began, what is written otherwise than usual, where it stands, and what was read there last.
IN_HAND: tuple[tuple[str, str, Scope, timedelta, dict[str, dict[str, Any]], str, dict[str, Any] | None], ...] = (
    ("Barley elevator", "Fit a backstop", Scope.BACKSTOP, timedelta(hours=4), BACKSTOP, "backstop.arrow", None),
    ("Malt auger 3", "New drive, with packing", Scope.FIT, timedelta(hours=6), PACKING, "couple.nuts", None),
    ("Induced-draught fan", "Magnetic drive fitted", Scope.FIT, timedelta(hours=11), MAGNETIC, "set.align", UNEVEN),
)
