"""Key against keyways: snug sideways, a little room on top, length against the hub."""

import math
from typing import Literal

from pydantic import Field

from ..errors import Problem, refuse_if_any
from ..model import Model, Size
from ..verdict import Band, Check, Result, Status, WorkLine, judge, judge_band, work, worst

ROOM_ON_TOP = "rule of thumb: the hub must not ride on the top of the key"


class Key(Model):
    """The key as measured."""

    width_mm: Size
    height_mm: Size
    length_mm: Size


class ShaftKeyway(Model):
    """Depth measured at the side wall of the keyway."""

    width_mm: Size
    depth_mm: Size


class HubKeyway(ShaftKeyway):
    """Depth measured at the side wall; the length is the hub's."""

    length_mm: Size


class KeyLimits(Model):
    """Wanted ranges, where somebody gives them."""

    side_clearance: Band | None = None
    top_clearance: Band | None = None
    length_difference: Band | None = None


LengthRule = Literal["as long as the hub", "as long or slightly longer", "half key made up"]
LENGTH_SLACK_MM = 0.5  # rule of thumb: what a file takes off, and what balance does not notice
SLIGHTLY_MM = 3.0  # rule of thumb for "slightly longer"


class KeyInput(Model):
    """Key, both keyways and the shaft they sit in."""

    shaft_diameter_mm: Size
    key: Key
    shaft_keyway: ShaftKeyway
    hub_keyway: HubKeyway
    limits: KeyLimits = Field(default_factory=KeyLimits)
    length_rule: LengthRule | None = Field(default=None, description="the school the plant or the maker goes by")
    shaft_keyway_length_mm: Size | None = Field(default=None, description="wanted where a half key is made up")


class KeyResult(Result):
    """Clearances in mm; a negative one is an interference."""

    side_clearance_shaft_mm: float
    side_clearance_hub_mm: float
    top_clearance_mm: float
    length_difference_mm: float
    length_wanted_mm: float | None


def evaluate(given: KeyInput) -> KeyResult:
    """Side and top clearance of a key, and key length against hub length.

    Source: geometry. Depths at the side wall: the floor of the shaft keyway lies
    ``√(R² − (w/2)²) − depth`` from the shaft's centre, the roof of the hub's ``√(R² − (w/2)²) + depth``.
    A shaft balanced with a half key wants a key of half the hub's and half the shaft keyway's length: then as much
    key stands beyond the hub as keyway is left empty. Schools of key length differ; none is judged unless it is named.
    """
    refuse_if_any(_too_wide(given))
    radius = given.shaft_diameter_mm / 2
    floor = _chord(radius, given.shaft_keyway.width_mm) - given.shaft_keyway.depth_mm
    roof = _chord(radius, given.hub_keyway.width_mm) + given.hub_keyway.depth_mm
    top = roof - floor - given.key.height_mm
    side_shaft = given.shaft_keyway.width_mm - given.key.width_mm
    side_hub = given.hub_keyway.width_mm - given.key.width_mm
    length = given.key.length_mm - given.hub_keyway.length_mm
    wanted = _length_wanted(given)
    checks = [_room_on_top(top), *_length_check(given, wanted)]
    for name, value, band in (
        ("side clearance in the shaft", side_shaft, given.limits.side_clearance),
        ("side clearance in the hub", side_hub, given.limits.side_clearance),
        ("room above the key", top, given.limits.top_clearance),
        ("key longer than hub", length, given.limits.length_difference),
    ):
        if band is not None:
            checks.append(judge_band(name, value, band))
    return KeyResult(
        bench="key",
        verdict=worst(checks, lacking=given.length_rule is not None and wanted is None),
        checks=checks,
        advice=_advice(given, side_shaft, side_hub, top, length),
        working=_working(given, floor, roof, top, wanted),
        side_clearance_shaft_mm=side_shaft,
        side_clearance_hub_mm=side_hub,
        top_clearance_mm=top,
        length_difference_mm=length,
        length_wanted_mm=wanted,
    )


def _chord(radius: float, width: float) -> float:
    return math.sqrt(radius**2 - (width / 2) ** 2)


def _length_wanted(given: KeyInput) -> float | None:
    hub, keyway = given.hub_keyway.length_mm, given.shaft_keyway_length_mm
    if given.length_rule == "half key made up":
        return None if keyway is None else (hub + keyway) / 2
    return hub if given.length_rule else None


def _length_check(given: KeyInput, wanted: float | None) -> list[Check]:
    if wanted is None:
        return []
    longer = SLIGHTLY_MM if given.length_rule == "as long or slightly longer" else LENGTH_SLACK_MM
    band = (wanted - LENGTH_SLACK_MM, wanted + longer)
    source = f"school: {given.length_rule}; rule of thumb: within {LENGTH_SLACK_MM:g} mm"
    return [judge("key length", given.key.length_mm, "mm", low=band[0], high=band[1], source=source)]


def _too_wide(given: KeyInput) -> list[Problem]:
    return [
        Problem(f"{name}.width_mm", "A keyway cannot be wider than the shaft is thick.")
        for name, keyway in (("shaft_keyway", given.shaft_keyway), ("hub_keyway", given.hub_keyway))
        if keyway.width_mm >= given.shaft_diameter_mm
    ]


def _room_on_top(top: float) -> Check:
    return Check(
        name="any room above the key",
        value=top,
        unit="mm",
        min=0.0,
        max=None,
        used=0.0 if top > 0 else None,
        status=Status.INSIDE if top > 0 else Status.OVER,
        source=ROOM_ON_TOP,
    )


def _advice(given: KeyInput, side_shaft: float, side_hub: float, top: float, length: float) -> list[str]:
    advice = []
    if top <= 0:
        advice.append("The key is too high: the hub would ride on it and may crack. Dress the key, not the keyway.")
    for part, side in (("shaft", side_shaft), ("hub", side_hub)):
        if side < 0:
            advice.append(f"The key is {-side:.3f} mm wider than the {part}'s keyway. Find the burr or dress the key.")
    if side_shaft > 0.05 or side_hub > 0.05:
        advice.append("The key has play sideways. A rocking key works loose. (Rule of thumb: over 0.05 mm.)")
    if given.length_rule == "half key made up":
        if given.shaft_keyway_length_mm is None:
            advice.append("How long is the keyway in the shaft? The half key is made up from that.")
        else:
            advice.append("Balanced with a half key: nothing of the key, and no empty keyway, may turn out of balance.")
    elif length < 0:
        advice.append(f"The key is {-length:.2f} mm shorter than the hub. Schools differ; the maker's manual decides.")
    elif length > 0:
        advice.append(f"The key is {length:.2f} mm longer than the hub. Keep its end flush with the shaft end.")
    return advice


def _working(given: KeyInput, floor: float, roof: float, top: float, wanted: float | None) -> list[WorkLine]:
    radius = given.shaft_diameter_mm / 2
    half = "√({0:.2f}² − {1:.3f}²)"
    keyway = given.shaft_keyway_length_mm
    made_up = (
        [work("length of key", "(hub + shaft keyway) ÷ 2", f"({given.hub_keyway.length_mm:g} + {keyway:g}) ÷ 2", wanted)]
        if wanted is not None and keyway is not None
        else []
    )
    return [
        *made_up,
        WorkLine(
            what="shaft centre to keyway floor",
            formula="√(R² − (w/2)²) − depth",
            numbers=half.format(radius, given.shaft_keyway.width_mm / 2) + f" − {given.shaft_keyway.depth_mm:.2f}",
            value=floor,
            unit="mm",
        ),
        WorkLine(
            what="shaft centre to hub keyway roof",
            formula="√(R² − (w/2)²) + depth",
            numbers=half.format(radius, given.hub_keyway.width_mm / 2) + f" + {given.hub_keyway.depth_mm:.2f}",
            value=roof,
            unit="mm",
        ),
        WorkLine(
            what="room above the key",
            formula="roof − floor − key height",
            numbers=f"{roof:.3f} − {floor:.3f} − {given.key.height_mm:.3f}",
            value=top,
            unit="mm",
        ),
    ]
