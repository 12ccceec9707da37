"""Lengths the way people write them, and the few conversions between units. The only place that converts."""

import math
import re
from typing import Literal

LengthUnit = Literal["mm", "in"]
AngleUnit = Literal["mm/m", "°"]

MM_PER_INCH = 25.4  # exact, by definition of the international inch
INCHES_PER_THOU = 0.001
MM_PER_MICRON = 0.001

_NUMBER = re.compile(r"(?P<sign>[+\-−–]?)\s*(?P<digits>\d+[.,]?\d*|[.,]\d+)")
MOST_LETTERS = 60  # nobody types a longer figure
_FRACTION = re.compile(r"(?P<sign>[+\-−–]?)\s*(?:(?P<whole>\d+)[\s-]+)?(?P<top>\d+)\s*/\s*(?P<bottom>\d+)")
_TEMPERATURE = re.compile(r"(?P<sign>[+\-−–]?)\s*(?P<digits>\d+[.,]?\d*|[.,]\d+)\s*°?\s*(?P<scale>[CFcf])?")
_UNITS = {
    "mm": 1.0,
    "in": MM_PER_INCH,
    "inch": MM_PER_INCH,
    "inches": MM_PER_INCH,
    '"': MM_PER_INCH,
    "”": MM_PER_INCH,
    "thou": MM_PER_INCH * INCHES_PER_THOU,
    "mil": MM_PER_INCH * INCHES_PER_THOU,
    "mils": MM_PER_INCH * INCHES_PER_THOU,
    "µm": MM_PER_MICRON,
    "μm": MM_PER_MICRON,
    "um": MM_PER_MICRON,
    "micron": MM_PER_MICRON,
    "microns": MM_PER_MICRON,
}


LBF_FT_NM = 1.3558179483314004  # exact, by definition of pound, inch and standard gravity
_THOUSAND_OR_DECIMAL = re.compile(r"[+\-−–]?\s*[1-9]\d{0,2},\d{3}(?!\d)")
_TORQUE = re.compile(r"(?P<digits>\d+[.,]?\d*|[.,]\d+)\s*(?P<unit>.*)")
_TORQUES = {"": 1.0, "nm": 1.0}
_TORQUES |= dict.fromkeys(("lbft", "lbfft", "lbsft", "ftlb", "ftlbf", "ftlbs"), LBF_FT_NM)
_TORQUES |= dict.fromkeys(("lbin", "lbfin", "lbsin", "inlb", "inlbf", "inlbs"), LBF_FT_NM / 12)
_ANGLE = re.compile(r"(?P<sign>[+\-−–]?)\s*(?P<digits>\d+[.,]?\d*|[.,]\d+)\s*(?P<unit>.*)")
_SLOPES = {"mm/m": 1.0, "/100": 10.0, "mm/100": 10.0, "mm/100mm": 10.0, "thou/in": 1.0, "thou/inch": 1.0, "mils/in": 1.0}
_DEGREES = ("°", "deg", "degree", "degrees")


def is_thousand_or_decimal(text: str) -> bool:
    """A comma and exactly three digits: some write a thousand so, some one and three places. Asked about, never guessed.

    >>> is_thousand_or_decimal("1,000"), is_thousand_or_decimal("1,25"), is_thousand_or_decimal("0,050 mm")
    (True, False, False)
    """
    return _THOUSAND_OR_DECIMAL.match(text.strip()) is not None


def read_torque_nm(text: str) -> float | None:
    """A torque as people write it; None where it is none.

    ``text`` - "25", "25 N·m", "18 lb ft", "18 ft-lb", "216 lbf in"
    Source: definition of the pound and the inch.

    >>> read_torque_nm("25"), round(read_torque_nm("18 lb ft") or 0, 3), read_torque_nm("tight")
    (25.0, 24.405, None)
    """
    match = _TORQUE.fullmatch(text.strip().lower())
    if match is None or len(text) > MOST_LETTERS or is_thousand_or_decimal(text):
        return None
    unit = re.sub(r"[\s·.*\-]", "", match["unit"])
    return round(float(match["digits"].replace(",", ".")) * _TORQUES[unit], 9) if unit in _TORQUES else None


def read_angle_mm_per_m(text: str, unit: AngleUnit, sheet: LengthUnit = "mm") -> float | None:
    """An angle as people write it, as a slope in mm/m; None where it is none.

    ``text``  - "0.35°", "0.35 deg", "0.5 mm/m", "0.05 /100", "2 thou/in", "0.2 on 140": a gap on a diameter
    ``unit``  - what a bare number means; ``sheet`` - what lengths without a unit mean

    >>> read_angle_mm_per_m("0.2 on 140", "°"), read_angle_mm_per_m("0.05 /100", "mm/m"), read_angle_mm_per_m("askew", "°")
    (1.428571429, 0.5, None)
    """
    text = text.strip().lower()
    if len(text) > MOST_LETTERS or is_thousand_or_decimal(text):
        return None
    gap, on, diameter = text.partition(" on ")
    if on:
        opens, across = read_length_mm(gap, sheet), read_length_mm(diameter, sheet)
        return None if opens is None or across is None or across <= 0 else round(1000 * opens / across, 9)
    match = _ANGLE.fullmatch(text)
    if match is None:
        return None
    value = float(match["digits"].replace(",", ".")) * (-1 if match["sign"] in ("-", "−", "–") else 1)
    named = match["unit"].replace(" ", "").replace("per", "/")
    if named in _DEGREES or (not named and unit == "°"):
        return round(angle_mm_per_m(value), 9)
    return round(value * _SLOPES.get(named, 1.0), 9) if named in ("", *_SLOPES) else None


def read_length_mm(text: str, unit: LengthUnit) -> float | None:
    """Read a length as people write it; None where it is not one.

    ``text`` - "0.05", "-0,05", "2 thou", ".015 in", "1/64", '1 1/2"', "12 µm"
    ``unit`` - what a bare number means: the unit the sheet is set to

    A bare fraction is always inches: nobody writes sixty-fourths of a millimetre.
    Source: definition of the inch.

    >>> read_length_mm("2 thou", "mm"), read_length_mm("1/64", "mm"), read_length_mm(".015 in", "mm")
    (0.0508, 0.396875, 0.381)
    >>> read_length_mm("0,05", "mm"), read_length_mm("0.002", "in"), read_length_mm("a bit", "mm")
    (0.05, 0.0508, None)
    """
    text = text.strip().lower()
    fraction = _FRACTION.match(text)
    match = fraction or _NUMBER.match(text)
    if match is None or len(text) > MOST_LETTERS or is_thousand_or_decimal(text):
        return None
    named = text[match.end() :].strip().rstrip(".")
    if named and named not in _UNITS:
        return None
    if fraction:
        bottom = int(fraction["bottom"])
        if bottom == 0:
            return None
        size = int(fraction["whole"] or 0) + int(fraction["top"]) / bottom
        factor = _UNITS[named] if named else MM_PER_INCH
    else:
        size = float(match["digits"].replace(",", "."))
        factor = _UNITS[named] if named else _UNITS[unit]
    return round((-size if match["sign"] in ("-", "−", "–") else size) * factor, 9)


def read_temperature_c(text: str) -> float | None:
    """Degrees Celsius as people write them; None where it is no temperature.

    Source: definition of the Fahrenheit scale.

    >>> read_temperature_c("166"), read_temperature_c("330 F"), read_temperature_c("warm")
    (166.0, 165.555555556, None)
    """
    match = _TEMPERATURE.fullmatch(text.strip())
    if match is None or len(text) > MOST_LETTERS or is_thousand_or_decimal(text):
        return None
    degrees = float(match["digits"].replace(",", ".")) * (-1 if match["sign"] in ("-", "−", "–") else 1)
    return round((degrees - 32) * 5 / 9, 9) if (match["scale"] or "").upper() == "F" else degrees


def angle_mm_per_m(angle_deg: float) -> float:
    """A small angle in degrees as a slope in mm/m. Source: geometry (tangent).

    >>> round(angle_mm_per_m(1.0), 3)
    17.455
    """
    return 1000.0 * math.tan(math.radians(angle_deg))


def angle_deg(slope_mm_per_m: float) -> float:
    """A slope in mm/m as an angle in degrees: the inverse of `angle_mm_per_m`."""
    return math.degrees(math.atan(slope_mm_per_m / 1000.0))


TaperWay = Literal["1 in", "inches per foot", "degrees"]
INCHES_PER_FOOT = 12.0


def taper_stated(way: TaperWay, value: float) -> float:
    """A taper as people state it, as change of diameter per length.

    ``way`` - "1 in" 12; "inches per foot" on diameter; "degrees" between the two sides
    Source: geometry.

    >>> round(taper_stated("1 in", 12), 6), round(taper_stated("inches per foot", 1), 6)
    (0.083333, 0.083333)
    """
    match way:
        case "1 in":
            return 1.0 / value
        case "inches per foot":
            return value / INCHES_PER_FOOT
        case "degrees":
            return 2.0 * math.tan(math.radians(value) / 2.0)


def taper_said(taper: float) -> dict[TaperWay, float]:
    """A change of diameter per length in every way people state it: the inverse of `taper_stated`."""
    return {
        "1 in": 1.0 / taper,
        "inches per foot": taper * INCHES_PER_FOOT,
        "degrees": math.degrees(2.0 * math.atan(taper / 2.0)),
    }
