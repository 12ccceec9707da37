"""Shaft against bore: what the micrometer says about how the hub will go on."""

from collections.abc import Sequence
from enum import StrEnum
from statistics import mean
from typing import Literal

from pydantic import Field

from ..errors import Problem, refuse_if_any
from ..model import Model, Size
from ..verdict import Band, Check, Result, WorkLine, judge, judge_band, worst

TAPER_OR_OVAL_MM = 0.02  # rule of thumb: more spread than this on one part wants a second look


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
    refuse_if_any(_places_that_do_not_match(given))
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
        advice=[
            *_advice(kind, tightest, checks),
            *_say_shape("shaft", shaft_spread, shaft_shape),
            *_say_shape("bore", bore_spread, bore_shape),
        ],
        working=[
            WorkLine(
                what="tightest pair",
                formula="largest shaft − smallest bore",
                numbers=f"{max(given.shaft_mm):.3f} − {min(given.bore_mm):.3f}",
                value=tightest,
                unit="mm",
            ),
            WorkLine(
                what="loosest pair",
                formula="smallest shaft − largest bore",
                numbers=f"{min(given.shaft_mm):.3f} − {max(given.bore_mm):.3f}",
                value=loosest,
                unit="mm",
            ),
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


def _say_shape(part: str, spread: float, shape: Shape) -> list[str]:
    """One sentence where the readings of a part differ more than they should."""
    if spread <= TAPER_OR_OVAL_MM:
        return []
    rule = f"(Rule of thumb: look again above {TAPER_OR_OVAL_MM:.2f} mm.)"
    oval, taper = shape.oval_mm or 0.0, shape.taper_mm or 0.0
    if max(oval, abs(taper)) <= TAPER_OR_OVAL_MM:
        return [f"The {part} readings spread {spread:.3f} mm: taper, oval or a burr. {rule}"]
    if oval > abs(taper):
        return [f"The {part} is oval by {oval:.3f} mm. {rule}"]
    wide = "machine side" if taper > 0 else "shaft end"
    return [f"The {part} is tapered: {abs(taper):.3f} mm bigger at the {wide}. {rule}"]


def _kind(loosest: float, tightest: float) -> FitKind:
    if tightest <= 0:
        return FitKind.CLEARANCE
    return FitKind.INTERFERENCE if loosest >= 0 else FitKind.TRANSITION


def _checks(loosest: float, tightest: float, wanted: Band | None) -> list[Check]:
    if wanted is None:
        return []
    if wanted.min_mm is not None and wanted.max_mm is not None:
        return [judge_band("tightest pair", tightest, wanted), judge_band("loosest pair", loosest, wanted)]
    if wanted.max_mm is not None:
        return [judge("tightest pair", tightest, "mm", high=wanted.max_mm, source=wanted.source)]
    return [judge("loosest pair", loosest, "mm", low=wanted.min_mm, source=wanted.source)]


def _advice(kind: FitKind, tightest: float, checks: list[Check]) -> list[str]:
    says = {
        FitKind.CLEARANCE: f"The hub slips on: {-tightest:.3f} mm of clearance where it is tightest.",
        FitKind.INTERFERENCE: f"The hub does not slip on: {tightest:.3f} mm of interference where it is tightest. "
        "Do not press or drive it; heat it, or refuse it.",
        FitKind.TRANSITION: f"It slips at some places and grips at others ({tightest:.3f} mm at the tightest). "
        "Look for a burr first, then measure again.",
    }
    advice = []
    for check in checks:
        if check.status != "over" or check.value is None:
            continue
        too_tight = check.max is not None and check.value > check.max
        advice.append(
            f"The {check.name} is {'tighter' if too_tight else 'looser'} than wanted. Measure again; "
            + ("then heat, rework the bore or refuse the hub." if too_tight else "then refuse the hub.")
        )
    return [*advice, says[kind]]
