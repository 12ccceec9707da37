"""The lines of Quillmere Maltings that have a job, and some more. Every figure is invented and marked as a sample."""

from typing import Any

from millwright.card.meanings import CLOCKWISE, GAP_EACH, GAP_MEAN, GAP_MM
from millwright.card.values import Source, UpTo, Value


def sample(value: float, page: str, means: str = "", document: str = "Brackwater couplings, sample sheet") -> Value:
    """A figure of an invented sheet."""
    return Value(value=value, means=means, source=Source(kind="sample", document=document, issue="2", page=page))


def motor_turns(way: str) -> Value:
    """Which way a motor has to turn, as the arrow on its machine says."""
    arrow = Source(kind="measured", document="Arrow on the machine's housing, followed back to the motor")
    return Value(value=0, means=way, source=arrow)


def site_rule(value: float, page: str, means: str = "") -> Value:
    """A figure of the site's own rule."""
    rules = Source(kind="site rule", document="Quillmere alignment and bolting rule", issue="4", page=page)
    return Value(value=value, means=means, source=rules)


BLOWER_VALUES: dict[str, Value] = {
    "rated_torque_nm": sample(410, "4"),
    "service_factor": sample(1.4, "5"),
    "top_speed_rpm": sample(3600, "4"),
    "clearance_max_mm": sample(0.045, "6"),
    "clearance_min_mm": sample(0.005, "6"),
    "set_screw_torque_nm": sample(25, "8", "dry"),
    "gap_nominal_mm": sample(30, "7", GAP_MEAN),
    "gap_plus_minus_mm": sample(1.0, "7", GAP_MM),
    "soft_foot_mm": site_rule(0.05, "3"),
    "offset_limit_mm": sample(0.40, "9", "offset"),
    "angle_limit_deg": sample(0.35, "9"),
    "element_width_mm": sample(26, "7"),
    "element_opening_mm": sample(58, "7"),
    "open_centre_rpm": sample(1750, "10"),
    "sliding_mm_per_s": site_rule(5.6, "2, grade ordinary"),
    "foot_bolt_torque_nm": site_rule(190, "5", "oiled"),
}


KILN_FAN_VALUES: dict[str, Value] = {
    "rated_torque_nm": sample(1900, "4"),
    "service_factor": sample(1.75, "5"),
    "top_speed_rpm": sample(2200, "4"),
    "interference_min_mm": sample(0.060, "12"),
    "interference_max_mm": sample(0.095, "12"),
    "heat_clearance_mm": sample(0.045, "13"),
    "hub_ceiling_c": sample(210, "13"),
    "set_screw_torque_nm": sample(40, "8", "dry"),
    "gap_nominal_mm": sample(8, "7", GAP_MEAN),
    "gap_plus_minus_mm": sample(0.5, "7", GAP_MM),
    "soft_foot_mm": site_rule(0.05, "3"),
    "offset_limit_mm": sample(0.25, "9", "offset"),
    "angle_limit_deg": sample(0.25, "9"),
    "flange_bolts": sample(8, "7"),
    "flange_bolt_torque_nm": sample(85, "8", "dry"),
    "sleeve_spread_mm": sample(0.30, "14"),
    "sliding_mm_per_s": site_rule(5.6, "2, grade ordinary"),
    "foot_bolt_torque_nm": site_rule(310, "5", "oiled"),
}
DRUM_TURNER_VALUES: dict[str, Value] = {
    **KILN_FAN_VALUES,
    "rated_torque_nm": sample(7400, "4"),
    "top_speed_rpm": sample(600, "4"),
    "interference_min_mm": sample(0.050, "12"),
    "interference_max_mm": sample(0.090, "12"),
    "taper_interference_mm": sample(0.070, "15"),
    "taper_mismatch_mm": sample(0.010, "15"),
    "taper_contact_percent": sample(80, "15"),
    "lock_nut_torque_nm": sample(420, "15", "oiled"),
}
PUMP_VALUES: dict[str, Value] = {
    "rated_torque_nm": sample(190, "4"),
    "service_factor": sample(1.3, "5"),
    "top_speed_rpm": sample(5200, "4"),
    "clearance_max_mm": sample(0.045, "6"),
    "clearance_min_mm": sample(0.005, "6"),
    "clearance_max_mm@driven": sample(0.030, "16"),
    "clearance_min_mm@driven": sample(0.008, "16"),
    "set_screw_torque_nm": sample(25, "8", "dry"),
    "hub_screws": sample(8, "16"),
    "hub_screw_torque_nm": sample(35, "16", "dry", "Brackwater clamp rings, sample sheet"),
    "shaft_runout_mm": site_rule(0.03, "3"),
    "hub_runout_mm": Value(
        value=0.03,
        up_to=[UpTo(rpm=1000, value=0.08), UpTo(rpm=1800, value=0.05)],
        source=Source(kind="sample", document="Brackwater clamp rings, sample sheet", issue="2", page="17"),
    ),
    "shaft_ends_mm": sample(320, "7"),
    "shaft_ends_plus_minus_mm": sample(2.0, "7"),
    "gap_nominal_mm": sample(320, "7", GAP_MEAN),
    "gap_plus_minus_mm": sample(0.6, "7", GAP_MM),
    "end_gap_nominal_mm": sample(11.5, "7", GAP_EACH),
    "end_gap_plus_minus_mm": sample(0.35, "7", GAP_MM),
    "ends_differ_mm": sample(0.25, "7"),
    "soft_foot_mm": site_rule(0.05, "3"),
    "offset_limit_mm": sample(0.20, "9", "offset"),
    "angle_limit_deg": sample(0.20, "9"),
    "flange_bolts": sample(8, "7"),
    "flange_bolt_torque_nm": sample(62, "8", "oiled"),
    "sliding_mm_per_s": site_rule(2.8, "2, grade fine"),
    "foot_bolt_torque_nm": site_rule(120, "5", "oiled"),
    "motor_turns": motor_turns(CLOCKWISE),
}
DROP_OUT_VALUES: dict[str, Value] = {
    **{key: value for key, value in PUMP_VALUES.items() if not key.startswith("hub_") and "@" not in key},
    "clearance_max_mm": sample(0.045, "6"),
    "clearance_min_mm": sample(0.005, "6"),
    "gap_nominal_mm": sample(180, "7", GAP_EACH),
    "shaft_ends_mm": sample(180, "7"),
    "flange_bolts": sample(6, "7"),
    "squeeze_most_mm": sample(3.0, "11"),
}
VALUES: dict[str, dict[str, Value]] = {
    "Chilled-water pump 2": DROP_OUT_VALUES,
    "Chilled-water pump 1": PUMP_VALUES,
    "Steep aeration blower 2": BLOWER_VALUES,
    "Kiln fan A": KILN_FAN_VALUES,
    "Drum turner": DRUM_TURNER_VALUES,
}


def machine(
    name: str, drawn_as: str, shaft: float, feet: tuple[float, ...], rises: tuple[float, ...] = (), **more: Any
) -> dict[str, Any]:
    short = name.lower()
    names = ("drive end", "tail") if len(feet) == 2 else tuple(str(i + 1) for i in range(len(feet)))
    placed: list[dict[str, Any]] = [
        {"name": f"{short} {n}", "from_coupling_mm": at} for n, at in zip(names, feet, strict=True)
    ]
    for foot, rise in zip(placed, rises, strict=False):
        foot["rise_mm"] = rise
    return {"name": name, "drawn_as": drawn_as, "shaft_diameter_mm": shaft, "feet": placed, **more}


def line(
    driver: dict[str, Any], driven: dict[str, Any], family: str, series: str, size: str, rpm: float, hub: float, **more: Any
) -> dict[str, Any]:
    connection = more.pop("connection", "keyed, slip fit")
    hubs = {"connection": connection, "diameter_mm": hub, "length_mm": round(hub * 0.6)}
    hubs |= {key: more.pop(key) for key in ("set_screws", "half_key") if key in more}
    driven_hub = {**hubs, "connection": more.pop("driven_connection", connection)}
    coupling = {"family": family, "series": series, "size": size, "driver_hub": hubs, "driven_hub": driven_hub}
    points = [{"energy": "electric", "point": f"{driver['name']} isolator"}, *more.pop("points", [])]
    return {
        "driver": driver,
        "driven": driven,
        "coupling": coupling,
        "movable": "driver",
        "speed_rpm": rpm,
        "isolation_points": points,
        **more,
    }


BLOWER = line(
    machine("Motor", "motor", 48.0, (300.0, 586.0), power_kw=37.0),
    machine("Blower", "blower", 48.0, (280.0, 640.0)),
    "jaw, curved",
    "Brackwater Plover",
    "firkin",
    1480.0,
    105.0,
    points=[{"energy": "air in the steep main", "point": "Discharge valve, blanked and vented"}],
    purpose="Damps shock when the steep valves shut; lets the blower be drawn without moving the motor.",
)

LINES: dict[str, dict[str, Any]] = {
    "Kiln fan A": line(
        machine("Motor", "motor", 75.0, (380.0, 820.0), (0.12, 0.10), power_kw=90.0),
        machine("Fan", "fan", 75.0, (420.0, 900.0), (0.03, 0.03)),
        "gear",
        "Brackwater Heron",
        "hogshead",
        990.0,
        190.0,
        connection="keyed, interference",
    ),
    "Steep aeration blower 2": BLOWER,
    "Standby generator": line(
        machine("Engine", "engine", 90.0, (400.0, 1150.0), power_kw=220.0),
        machine("Generator", "generator", 90.0, (420.0, 980.0)),
        "tyre on flywheel",
        "Brackwater Bittern",
        "puncheon",
        1500.0,
        360.0,
        connection="tapered bush",
    ),
    "Drum turner": line(
        machine("Gearmotor", "gearmotor", 90.0, (350.0, 700.0), power_kw=15.0),
        machine("Drum", "drum", 90.0, (300.0, 900.0)),
        "gear",
        "Brackwater Egret",
        "tun",
        38.0,
        210.0,
        connection="tapered bore",
        driven_connection="keyed, interference",
    ),
    "Roller mill": line(
        machine("Motor", "motor", 65.0, (320.0, 640.0), power_kw=45.0),
        machine("Mill", "mill", 65.0, (260.0, 760.0)),
        "steel grid",
        "Brackwater Godwit",
        "kilderkin",
        1470.0,
        150.0,
    ),
    "Chilled-water pump 1": line(
        machine("Motor", "motor", 55.0, (420.0, 740.0), power_kw=30.0),
        machine("Pump", "pump", 42.0, (360.0, 620.0)),
        "disc, three-part",
        "Brackwater Curlew",
        "rundlet",
        2950.0,
        128.0,
        driven_connection="clamp ring",
    ),
    "Chilled-water pump 2": line(
        machine("Motor", "motor", 55.0, (420.0, 740.0), power_kw=30.0),
        machine("Pump", "pump", 55.0, (360.0, 620.0)),
        "disc, drop-out spacer",
        "Brackwater Avocet",
        "rundlet",
        2950.0,
        128.0,
    ),
}
