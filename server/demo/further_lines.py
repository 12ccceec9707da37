"""A line of Quillmere Maltings for every other family, with its value card. Every figure is an invented sample."""

from typing import Any

from millwright.card.meanings import CLOCKWISE, COUNTER_CLOCKWISE, FILLED, GAP_EACH, GAP_MEAN, GAP_MM
from millwright.card.values import Value

from .lines import line, machine, motor_turns, sample, site_rule


def _card(
    *, rated: float, top: float, gap: float | None, angle: float, offset: float | None, foot_bolts: float, **more: Value
) -> dict[str, Value]:
    """What every card of these has, and what its family adds."""
    if gap is not None:
        more |= {"gap_nominal_mm": sample(gap, "7", GAP_MEAN), "gap_plus_minus_mm": sample(0.8, "7", GAP_MM)}
    if offset is not None:
        more["offset_limit_mm"] = sample(offset, "9", "offset")
    return {
        "rated_torque_nm": sample(rated, "4"),
        "service_factor": sample(1.5, "5"),
        "top_speed_rpm": sample(top, "4"),
        "clearance_max_mm": sample(0.045, "6"),
        "clearance_min_mm": sample(0.005, "6"),
        "set_screw_torque_nm": sample(20, "8", "dry"),
        "soft_foot_mm": site_rule(0.05, "3"),
        "angle_limit_deg": sample(angle, "9"),
        "sliding_mm_per_s": site_rule(5.6, "2, grade ordinary"),
        "foot_bolt_torque_nm": site_rule(foot_bolts, "5", "oiled"),
        **more,
    }


def _bolts(count: int, torque_nm: float, circle: str = "") -> dict[str, Value]:
    return {
        f"flange_bolts{circle}": sample(count, "7"),
        f"flange_bolt_torque_nm{circle}": sample(torque_nm, "8", "dry"),
    }


# Each line as its machines, its coupling and its isolation points; then the value card it is registered with.
FURTHER: dict[str, tuple[dict[str, Any], dict[str, Value]]] = {
    "Yeast pump": (
        line(
            machine("Motor", "motor", 28.0, (190.0, 350.0), power_kw=5.5),
            machine("Pump", "pump", 28.0, (170.0, 330.0)),
            "jaw, straight",
            "Brackwater Teal",
            "pin",
            1455.0,
            65.0,
        ),
        _card(
            rated=75,
            top=4500,
            gap=16,
            angle=0.5,
            offset=0.3,
            foot_bolts=45,
            element_width_mm=sample(14, "7"),
            element_opening_mm=sample(22, "7"),
            open_centre_rpm=sample(1750, "10"),
            motor_turns=motor_turns(CLOCKWISE),
        ),
    ),
    "Germination fan 4": (
        line(
            machine("Motor", "motor", 42.0, (260.0, 520.0), power_kw=22.0),
            machine("Fan", "fan", 42.0, (320.0, 760.0)),
            "jaw, in shear with spacer",
            "Brackwater Whimbrel",
            "anker",
            1475.0,
            110.0,
        ),
        _card(rated=310, top=3600, gap=140, angle=0.5, offset=0.4, foot_bolts=120, **_bolts(6, 24)),
    ),
    "Wort circulation pump": (
        line(
            machine("Motor", "motor", 38.0, (240.0, 460.0), power_kw=11.0),
            machine("Pump", "pump", 38.0, (210.0, 400.0)),
            "disc, single pack",
            "Brackwater Sanderling",
            "firkin",
            2930.0,
            95.0,
        ),
        _card(
            rated=80,
            top=6000,
            gap=9,
            angle=0.3,
            offset=None,
            foot_bolts=80,
            motor_turns=motor_turns(COUNTER_CLOCKWISE),
            **_bolts(3, 18),
        ),
    ),
    "Cooling tower fan": (
        line(
            machine("Motor", "motor", 48.0, (1335.0, 1575.0), power_kw=18.5),
            machine("Bevel box", "machine", 48.0, (1255.0, 1495.0)),
            "composite tube",
            "Brackwater Redshank",
            "butt",
            1470.0,
            140.0,
        ),
        _card(
            rated=420,
            top=1800,
            gap=2150,
            angle=0.5,
            offset=None,
            foot_bolts=190,
            end_gap_nominal_mm=sample(12, "7", GAP_EACH),
            end_gap_plus_minus_mm=sample(0.6, "7", GAP_MM),
            ends_differ_mm=sample(0.4, "7"),
            end_face_mm=sample(0.5, "9"),
            **_bolts(6, 42),
        ),
    ),
    "Husk mill": (
        line(
            machine("Motor", "motor", 60.0, (320.0, 640.0), power_kw=30.0),
            machine("Mill", "mill", 60.0, (280.0, 720.0)),
            "tyre",
            "Brackwater Turnstone",
            "hogshead",
            980.0,
            190.0,
        ),
        _card(
            rated=700,
            top=2000,
            gap=38,
            angle=0.8,
            offset=0.8,
            foot_bolts=190,
            split_gap_max_mm=sample(4, "11"),
            ring_clear_mm=sample(0.2, "11"),
            rerun_minutes=sample(30, "12"),
            **_bolts(8, 30),
        ),
    ),
    "Malt crusher": (
        line(
            machine("Motor", "motor", 70.0, (360.0, 760.0), power_kw=37.0),
            machine("Crusher", "mill", 70.0, (320.0, 840.0)),
            "claw with elastomer blocks",
            "Brackwater Ruff",
            "puncheon",
            740.0,
            220.0,
        ),
        _card(rated=1200, top=1500, gap=6, angle=0.2, offset=0.4, foot_bolts=250, **_bolts(8, 50)),
    ),
    "Sluice winch": (
        line(
            machine("Motor", "motor", 48.0, (260.0, 480.0), power_kw=7.5),
            machine("Winch", "drum", 48.0, (240.0, 620.0)),
            "rigid",
            "Brackwater Rail",
            "kilderkin",
            720.0,
            120.0,
        ),
        _card(
            rated=400,
            top=1000,
            gap=None,
            angle=0.02,
            offset=0.05,
            foot_bolts=120,
            shaft_runout_mm=site_rule(0.05, "3"),
            **_bolts(6, 60),
        ),
    ),
}
ROLLER_MILL = _card(
    rated=620,
    top=2800,
    gap=4,
    angle=0.25,
    offset=0.3,
    foot_bolts=190,
    grease_product=Value(value=0, means="Brackwater grid grease", source=sample(0, "13").source),
    grease_g=sample(180, "13"),
    filled=Value(value=0, means=FILLED[0], source=sample(0, "13").source),
    **_bolts(8, 28),
)
GENERATOR = {
    **_card(rated=2600, top=2000, gap=60, angle=0.5, offset=0.8, foot_bolts=320),
    "hub_screws": sample(3, "16"),
    "hub_screw_torque_nm": sample(90, "16", "dry"),
    "hub_runout_mm": sample(0.06, "16"),
    "flywheel_face_mm": sample(0.15, "13"),
    "flywheel_rim_mm": sample(0.2, "13"),
    **_bolts(8, 90, "@bolt_ring"),
    **_bolts(12, 45, "@clamp_ring"),
}
CARDS = {"Roller mill": ROLLER_MILL, "Standby generator": GENERATOR}
