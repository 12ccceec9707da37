"""Key against keyways: snug sideways, a little room on top, length against the hub."""

import math
from dataclasses import replace
from typing import Literal

from pydantic import Field

from ..errors import Problem, refuse_if_any
from ..model import Model, Size
from ..say import Say, Words, bare, mm, say, words
from ..verdict import ON_PAPER, Band, Check, Result, Status, WorkLine, judge, judge_band, work, worst

ROOM_ON_TOP = "rule of thumb: the hub must not ride on the top of the key"
SIDE_BAND = Band(min_mm=0.0, max_mm=0.05, source="rule of thumb: snug sideways")
DRESS_MM = 0.02  # rule of thumb: this much too wide a key is dressed in
MUCH_ROOM = 0.1  # rule of thumb: more room than this share of its height, and it may be the wrong key
SHORT_SHARE = 0.9  # rule of thumb: a key shorter than this share of the hub carries on too little


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
    refuse_if_any(_problems(given))
    radius = given.shaft_diameter_mm / 2
    floor = _chord(radius, given.shaft_keyway.width_mm) - given.shaft_keyway.depth_mm
    roof = _chord(radius, given.hub_keyway.width_mm) + given.hub_keyway.depth_mm
    top = roof - floor - given.key.height_mm
    side_shaft = given.shaft_keyway.width_mm - given.key.width_mm
    side_hub = given.hub_keyway.width_mm - given.key.width_mm
    length = given.key.length_mm - given.hub_keyway.length_mm
    wanted = _length_wanted(given)
    band = given.limits.side_clearance or SIDE_BAND
    checks = [
        _side_check("side_shaft", "side clearance in the shaft", side_shaft, band),
        _side_check("side_hub", "side clearance in the hub", side_hub, band),
        *_top_checks(given, top),
        *_length_checks(given, length, wanted),
    ]
    return KeyResult(
        bench="key",
        verdict=worst(checks, lacking=given.length_rule is not None and wanted is None),
        checks=checks,
        says=_advice(given, checks, wanted),
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


def _close(check: Check) -> Check:
    """The same check, near its limit without a share: a rule of thumb that is no line."""
    return replace(check, used=None, status=Status.CLOSE)


def _side_check(code: str, name: str, clearance: float, band: Band) -> Check:
    """Within the band; a little too wide is dressed in."""
    check = judge_band(code, name, clearance, band)
    low = 0.0 if band.min_mm is None else band.min_mm
    if check.status is Status.OVER and low == 0.0 and -DRESS_MM - ON_PAPER <= clearance < 0:
        return _close(check)
    return check


def _top_checks(given: KeyInput, top: float) -> list[Check]:
    """Some room, and not much of it; or the band somebody gives."""
    band = given.limits.top_clearance
    if band is not None and top > 0:
        return [judge_band("top", "room above the key", top, band)]
    check = Check(
        code="top",
        name="room above the key",
        value=top,
        unit="mm",
        min=0.0,
        max=None,
        used=0.0 if top > 0 else None,
        status=Status.INSIDE if top > 0 else Status.OVER,
        source=ROOM_ON_TOP,
    )
    return [_close(check) if top > MUCH_ROOM * given.key.height_mm else check]


def _length_checks(given: KeyInput, length: float, wanted: float | None) -> list[Check]:
    """By the rule the plant or the maker goes by; no rule named, not judged."""
    if given.limits.length_difference is not None:
        return [judge_band("length", "key longer than hub", length, given.limits.length_difference)]
    if wanted is None:
        return []
    hub = given.hub_keyway.length_mm
    longer = SLIGHTLY_MM if given.length_rule == "as long or slightly longer" else LENGTH_SLACK_MM
    low = wanted - LENGTH_SLACK_MM if given.length_rule == "half key made up" else SHORT_SHARE * hub
    source = f"rule of thumb: {given.length_rule}"
    check = judge("length", "key length", given.key.length_mm, "mm", low=low, high=wanted + longer, source=source)
    if given.length_rule == "half key made up":
        return [check]
    return [_close(check) if check.status is Status.OVER else replace(check, status=Status.INSIDE)]


def _problems(given: KeyInput) -> list[Problem]:
    ways = (("shaft_keyway", given.shaft_keyway), ("hub_keyway", given.hub_keyway))
    found = [
        Problem(f"{name}.width_mm", "A keyway cannot be wider than the shaft is thick.")
        for name, keyway in ways
        if keyway.width_mm >= given.shaft_diameter_mm
    ]
    found += [
        Problem(f"{name}.depth_mm", "A keyway cannot be deeper than half the shaft. A slip?")
        for name, keyway in ways
        if keyway.depth_mm > given.shaft_diameter_mm / 2
    ]
    if given.key.height_mm < given.shaft_keyway.depth_mm:
        text = "This key is lower than the shaft keyway is deep: it would not reach the hub. Measure both again."
        found.append(Problem("key.height_mm", text))
    return found


def _advice(given: KeyInput, checks: list[Check], wanted: float | None) -> list[Say]:
    """The worst first, one sentence a check that is not in order."""
    rank = {Status.OVER: 0, Status.CLOSE: 1}
    advice = [
        one
        for check in sorted(checks, key=lambda check: rank.get(check.status, 2))
        if check.status in rank and (one := _say_check(check)) is not None
    ]
    if given.length_rule == "half key made up":
        if wanted is None:
            text = "How long is the keyway in the shaft? The half key is made up from that."
            advice.append(say("half_key_keyway", text))
        else:
            text = "Balanced with a half key: nothing of the key, and no empty keyway, may turn out of balance."
            advice.append(say("half_key", text))
    elif given.length_rule is None:
        advice += _say_length(given.key.length_mm - given.hub_keyway.length_mm)
    return advice


def _say_check(check: Check) -> Say | None:
    value, part = check.value or 0.0, "shaft" if check.code == "side_shaft" else "hub"
    match check.code:
        case "side_shaft" | "side_hub" if value < 0 and check.status is Status.CLOSE:
            text = "The key is {by} wider than the {part}'s keyway: dress it in, blue it, and try again."
            return say("dress_key", text, by=mm(-value, 3), part=part)
        case "side_shaft" | "side_hub" if value < 0:
            text = "The key is {by} wider than the {part}'s keyway. Do not drive it in: find the burr, or another key."
            return say("key_too_wide", text, by=mm(-value, 3), part=part)
        case "side_shaft" | "side_hub":
            text = "The key has {by} of play in the {part}'s keyway. A rocking key works loose."
            return say("key_rocks", text, by=mm(value, 3), part=part) if check.status is Status.OVER else None
        case "top" if value <= 0:
            text = "The key is too high: the hub would ride on it and may crack. Dress the key, not the keyway."
            return say("key_too_high", text)
        case "top" if check.status is Status.CLOSE:
            text = "There is {by} above the key, more than a tenth of its height. Is it the right key?"
            return say("much_room", text, by=mm(value))
        case "length" if check.max is not None and value > check.max:
            return say("key_long", "The key is longer than the rule allows. Cut it, its end flush with the shaft end.")
        case "length" if check.min is not None and value < check.min:
            return say(
                "key_short", "The key is shorter than the rule allows: it carries on less. The maker's manual decides."
            )
    return None


def _say_length(longer: float) -> list[Say]:
    if longer < 0:
        text = "The key is {by} shorter than the hub. Rules differ; the maker's manual decides."
        return [say("key_shorter", text, by=mm(-longer))]
    if longer > 0:
        text = "The key is {by} longer than the hub. Keep its end flush with the shaft end."
        return [say("key_longer", text, by=mm(longer))]
    return []


def _working(given: KeyInput, floor: float, roof: float, top: float, wanted: float | None) -> list[WorkLine]:
    radius = given.shaft_diameter_mm / 2
    keyway, hub = given.shaft_keyway_length_mm, given.hub_keyway.length_mm
    lines = []
    for part, way in (("shaft", given.shaft_keyway), ("hub", given.hub_keyway)):
        sides = words("{way} − {key}", way=bare(way.width_mm), key=bare(given.key.width_mm))
        clear = way.width_mm - given.key.width_mm
        lines.append(work(f"side_{part}", f"side clearance, {part}", "keyway − key", sides, clear))
    if wanted is not None and keyway is not None and given.length_rule == "half key made up":
        half = words("({hub} + {keyway}) ÷ 2", hub=bare(hub, None), keyway=bare(keyway, None))
        lines.append(work("length", "length of key", "(hub + shaft keyway) ÷ 2", half, wanted))

    def chord(width: float, sign: str, depth: float) -> Words:
        template = f"√({{r}}² − {{half}}²) {sign} {{depth}}"
        return words(template, r=bare(radius, 2), half=bare(width / 2), depth=bare(depth, 2))

    way, own = given.shaft_keyway, given.hub_keyway
    top_sum = words("{roof} − {floor} − {key}", roof=bare(roof), floor=bare(floor), key=bare(given.key.height_mm))
    return [
        *lines,
        work(
            "floor", "shaft centre to keyway floor", "√(R² − (w/2)²) − depth", chord(way.width_mm, "−", way.depth_mm), floor
        ),
        work(
            "roof", "shaft centre to hub keyway roof", "√(R² − (w/2)²) + depth", chord(own.width_mm, "+", own.depth_mm), roof
        ),
        work("top", "room above the key", "roof − floor − key height", top_sum, top),
    ]
