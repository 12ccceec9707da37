"""Shaft against bore: what the micrometer says about how the hub will go on."""

from enum import StrEnum
from statistics import mean

from pydantic import Field

from ..model import Model, Size
from ..verdict import Band, Check, Result, WorkLine, judge, judge_band, worst

TAPER_OR_OVAL_MM = 0.02  # rule of thumb: more spread than this on one part wants a second look


class FitKind(StrEnum):
    """Which of the pairs of readings overlap."""

    CLEARANCE = "clearance"
    INTERFERENCE = "interference"
    TRANSITION = "transition"


class FitInput(Model):
    """Micrometer readings of shaft and bore at several stations and directions."""

    shaft_mm: list[Size] = Field(min_length=1, max_length=100)
    bore_mm: list[Size] = Field(min_length=1, max_length=100)
    required: Band | None = Field(default=None, description="interference wanted; a clearance is negative")


class FitResult(Result):
    """Interference on diameter: positive grips, negative is clearance."""

    interference_min_mm: float
    interference_max_mm: float
    interference_mean_mm: float
    shaft_spread_mm: float
    bore_spread_mm: float
    kind: FitKind


def evaluate(given: FitInput) -> FitResult:
    """Smallest, largest and mean interference of every shaft reading against every bore reading.

    Source: geometry. The tightest pair is the biggest shaft reading in the smallest bore reading.
    """
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
        advice=_advice(kind, tightest, checks, shaft_spread, bore_spread),
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
        kind=kind,
    )


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


def _advice(kind: FitKind, tightest: float, checks: list[Check], shaft_spread: float, bore_spread: float) -> list[str]:
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
    advice.append(says[kind])
    for part, spread in (("shaft", shaft_spread), ("bore", bore_spread)):
        if spread > TAPER_OR_OVAL_MM:
            advice.append(
                f"The {part} readings spread {spread:.3f} mm: taper, oval or a burr. "
                f"(Rule of thumb: look again above {TAPER_OR_OVAL_MM:.2f} mm.)"
            )
    return advice
