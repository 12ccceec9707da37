"""Shaft against bore: what the micrometer says about how the hub will go on."""

from collections.abc import Sequence
from enum import StrEnum
from statistics import mean
from typing import Literal

from pydantic import Field

from ..errors import Problem, problem, refuse_if_any
from ..model import Model, Size
from ..say import Say, bare, mm, say, words
from ..verdict import Band, Check, Result, WorkLine, judge, work, worst

TAPER_OR_OVAL_MM = 0.02  # rule of thumb: more spread than this on one part wants a second look
SIZE_FOR_SIZE_MM = 0.005  # rule of thumb: what a micrometer tells
TOO_TIGHT = "Measure again; then heat, rework the bore or reject the hub."
TOO_LOOSE = "Measure again; then reject the hub."
OTHER_SIZE = 0.05  # share of the diameter: shaft and bore do not differ by more


class FitKind(StrEnum):
    """Which of the pairs of readings overlap."""

    CLEARANCE = "clearance"
    INTERFERENCE = "interference"
    TRANSITION = "transition"


Station = Literal["shaft end", "middle", "machine side"]


class MicrometerPlace(Model):
    """Where along the seat, and across which clock positions, a micrometer was laid."""

    station: Station
    across: Literal["12-6", "3-9"]


class FitInput(Model):
    """Micrometer readings of shaft and bore at several stations and directions."""

    shaft_mm: list[Size] = Field(min_length=1, max_length=100)
    bore_mm: list[Size] = Field(min_length=1, max_length=100)
    shaft_at: list[MicrometerPlace] | None = Field(default=None, description="where each shaft reading was taken")
    bore_at: list[MicrometerPlace] | None = Field(default=None, description="where each bore reading was taken")
    required: Band | None = Field(default=None, description="interference wanted; a clearance is negative")


class Shape(Model):
    """What the spread of one part is made of; null where the places do not tell it."""

    oval_mm: float | None = Field(description="largest difference between the two directions at one station")
    taper_mm: float | None = Field(description="machine side less shaft end, means of both directions")


class FitResult(Result):
    """Interference on diameter: positive grips, negative is clearance."""

    interference_min_mm: float
    interference_max_mm: float
    interference_mean_mm: float
    shaft_spread_mm: float
    bore_spread_mm: float
    shaft_shape: Shape
    bore_shape: Shape
    kind: FitKind


def evaluate(given: FitInput) -> FitResult:
    """Smallest, largest and mean interference of every shaft reading against every bore reading.

    Source: geometry. The tightest pair is the biggest shaft reading in the smallest bore reading.
    """
    refuse_if_any([*_places_that_do_not_match(given), *_of_another_size(given)])
    shaft_shape, bore_shape = _shape(given.shaft_mm, given.shaft_at), _shape(given.bore_mm, given.bore_at)
    tightest = max(given.shaft_mm) - min(given.bore_mm)
    loosest = min(given.shaft_mm) - max(given.bore_mm)
    kind = _kind(loosest, tightest)
    checks = _checks(loosest, tightest, given.required)
    shaft_spread = max(given.shaft_mm) - min(given.shaft_mm)
    bore_spread = max(given.bore_mm) - min(given.bore_mm)
    return FitResult(
        bench="fit",
        verdict=worst(checks),
        checks=checks,
        says=[
            *_advice(kind, loosest, tightest, checks),
            *_say_shape("shaft", shaft_spread, shaft_shape),
            *_say_shape("bore", bore_spread, bore_shape),
        ],
        working=[
            _pair("tightest", "largest shaft", max(given.shaft_mm), "smallest bore", min(given.bore_mm)),
            _pair("loosest", "smallest shaft", min(given.shaft_mm), "largest bore", max(given.bore_mm)),
        ],
        interference_min_mm=loosest,
        interference_max_mm=tightest,
        interference_mean_mm=mean(given.shaft_mm) - mean(given.bore_mm),
        shaft_spread_mm=shaft_spread,
        bore_spread_mm=bore_spread,
        shaft_shape=shaft_shape,
        bore_shape=bore_shape,
        kind=kind,
    )


def _places_that_do_not_match(given: FitInput) -> list[Problem]:
    return [
        Problem(f"{part}_at", f"There are {len(values)} readings of the {part} and {len(places)} places.")
        for part, values, places in (
            ("shaft", given.shaft_mm, given.shaft_at),
            ("bore", given.bore_mm, given.bore_at),
        )
        if places is not None and len(places) != len(values)
    ]


def _shape(values: Sequence[float], places: Sequence[MicrometerPlace] | None) -> Shape:
    """Ovality and taper of one part. Source: geometry."""
    at: dict[str, dict[str, list[float]]] = {}
    for value, place in zip(values, places or [], strict=bool(places)):
        at.setdefault(place.station, {}).setdefault(place.across, []).append(value)
    oval = [abs(mean(d["12-6"]) - mean(d["3-9"])) for d in at.values() if len(d) == 2]
    ends = [mean(v for found in at[s].values() for v in found) for s in ("machine side", "shaft end") if s in at]
    return Shape(oval_mm=max(oval, default=None), taper_mm=ends[0] - ends[1] if len(ends) == 2 else None)


def _of_another_size(given: FitInput) -> list[Problem]:
    """A bore and a shaft that cannot belong together; the reading that is farthest off is named."""
    shaft, bore = mean(given.shaft_mm), mean(given.bore_mm)
    if abs(shaft - bore) <= OTHER_SIZE * max(shaft, bore):
        return []
    text = "{bore} in the bore and {shaft} on the shaft do not belong together: a slip, or inches for mm?"
    path = "bore_mm" if bore < shaft else "shaft_mm"
    return [problem(f"{path}.0", text, bore=mm(bore, 3), shaft=mm(shaft, 3))]


def _say_shape(part: str, spread: float, shape: Shape) -> list[Say]:
    """One sentence where the readings of a part differ more than they should."""
    if spread <= TAPER_OR_OVAL_MM:
        return []
    rule = words("(Rule of thumb: look again above {over}.)", over=mm(TAPER_OR_OVAL_MM))
    oval, taper = shape.oval_mm or 0.0, shape.taper_mm or 0.0
    if max(oval, abs(taper)) <= TAPER_OR_OVAL_MM:
        text = "The {part} readings spread {by}: taper, oval or a burr. {rule}"
        return [say("spread", text, part=part, by=mm(spread, 3), rule=rule)]
    if oval > abs(taper):
        return [say("oval", "The {part} is oval by {by}. {rule}", part=part, by=mm(oval, 3), rule=rule)]
    wide = "machine side" if taper > 0 else "shaft end"
    text = "The {part} is tapered: {by} bigger at the {wide}. {rule}"
    return [say("tapered", text, part=part, by=mm(abs(taper), 3), wide=wide, rule=rule)]


def _kind(loosest: float, tightest: float) -> FitKind:
    if tightest <= 0:
        return FitKind.CLEARANCE
    return FitKind.INTERFERENCE if loosest >= 0 else FitKind.TRANSITION


def _checks(loosest: float, tightest: float, wanted: Band | None) -> list[Check]:
    """A limit on its own is on the signed figure: a clearance keeps every upper limit on the interference."""
    if wanted is None:
        return []
    found = []
    if wanted.max_mm is not None:
        found.append(_judged("largest", "tightest pair", tightest, wanted))
    if wanted.min_mm is not None:
        found.append(_judged("smallest", "loosest pair", loosest, wanted))
    return found


def _judged(code: str, name: str, value: float, wanted: Band) -> Check:
    low, high = wanted.min_mm, wanted.max_mm
    return judge(code, name, value, "mm", low=low, high=high, source=wanted.source, signed=True, reads="fit")


def grip_word(interference_mm: float) -> str:
    """What a signed figure of a fit is called where it stands as a plus figure."""
    return "interference" if interference_mm > 0 else "clearance"


def _pair(code: str, shaft: str, shaft_mm: float, bore: str, bore_mm: float) -> WorkLine:
    """One pair on paper, as a plus figure under its word."""
    grip = shaft_mm - bore_mm
    sizes = {shaft: bare(shaft_mm), bore: bare(bore_mm)}
    first, second = (shaft, bore) if grip > 0 else (bore, shaft)
    numbers = words("{first} − {second}", first=sizes[first], second=sizes[second])
    return work(code, f"{code} pair, {grip_word(grip)}", f"{first} − {second}", numbers, abs(grip))


def _advice(kind: FitKind, loosest: float, tightest: float, checks: list[Check]) -> list[Say]:
    advice = []
    for check in checks:
        if check.status != "over" or check.value is None:
            continue
        too_tight = check.max is not None and check.value > check.max
        way, then = ("tighter", TOO_TIGHT) if too_tight else ("looser", TOO_LOOSE)
        text = "{pair}: {way} than specified by {by}. {then}"
        limit = (check.max if too_tight else check.min) or 0.0
        name = check.name.capitalize()
        advice.append(say("off_specified", text, pair=name, way=way, by=mm(abs(check.value - limit), 3), then=then))
    if max(abs(tightest), abs(loosest)) < SIZE_FOR_SIZE_MM:
        text = (
            "Size for size, within {within}. Clean, measure again at the same temperature, and decide how it is to be fitted."
        )
        return [*advice, say("size_for_size", text, within=mm(SIZE_FOR_SIZE_MM, 3))]
    match kind:
        case FitKind.CLEARANCE if -tightest < SIZE_FOR_SIZE_MM:
            text = "Size for size where it is tightest: {clear} of clearance there. Do not force it."
            says = say("size_where_tightest", text, clear=mm(-tightest, 3))
        case FitKind.CLEARANCE:
            says = say("clearance", "Slip fit: {clear} of clearance where it is tightest.", clear=mm(-tightest, 3))
        case FitKind.INTERFERENCE:
            text = "An interference fit: {tight} where it is tightest. Do not press or drive it; heat the hub, or reject it."
            says = say("interference", text, tight=mm(tightest, 3))
        case _:
            text = (
                "It slips at some places and grips at others, {tight} at the tightest. Look for a burr, then measure again."
            )
            says = say("transition", text, tight=mm(tightest, 3))
    return [*advice, says]
