"""The gap between hub faces: on the axis, its spread, and the angle it shows."""

import math

from pydantic import Field, model_validator

from ..clock import (
    RESOLUTION_MM,
    ClockFit,
    ClockReading,
    StandsOut,
    find_stands_out,
    fit_clock,
    say_clock,
    say_stands_out,
    say_toward,
)
from ..clock import working as clock_working
from ..model import Model, Size
from ..verdict import AS_ENTERED, Band, Check, Result, Verdict, WorkLine, judge, judge_band, worst


class MaxSpread(Model):
    """The most that largest and smallest reading may differ."""

    max_mm: Size
    source: str = AS_ENTERED


class MaxAngle(Model):
    """The most the faces may stand askew."""

    max_mm_per_m: float = Field(gt=0, le=500)
    source: str = AS_ENTERED


class GapAccept(Model):
    """The rules this gap is accepted by; any of them may stand together."""

    mean: Band | None = Field(default=None, description="the gap on the axis")
    each: Band | None = Field(default=None, description="every reading for itself")
    spread: MaxSpread | None = None
    angle: MaxAngle | None = None


class GapInput(Model):
    """Caliper, feeler or bar-and-feeler readings between the hub faces, at places round the clock."""

    readings: list[ClockReading] = Field(min_length=1, max_length=20_000)
    diameter_mm: Size = Field(description="of the circle the readings were taken on")
    bar_mm: Size | None = Field(default=None, description="spacer bar; readings are then feelers over it")
    accept: GapAccept = Field(default_factory=GapAccept)
    resolution_mm: float = Field(default=RESOLUTION_MM, gt=0, le=1)

    @model_validator(mode="after")
    def _gaps_are_not_negative(self) -> "GapInput":
        if self.bar_mm is None and any(r.value_mm < 0 for r in self.readings):
            raise ValueError("A gap cannot be less than nothing.")
        return self


class GapResult(Result):
    """Gap on the axis and the slope of the movable shaft (+ rises, + toward 3, away from the coupling)."""

    mean_mm: float
    min_mm: float
    max_mm: float
    spread_mm: float
    angle_v_mm_per_m: float
    angle_h_mm_per_m: float
    angle_mm_per_m: float
    wide_at_deg: float
    stands_out: list[StandsOut]


def evaluate(given: GapInput) -> GapResult:
    """Gap on the axis, spread, and angle of the movable shaft from gap readings round the clock.

    Source: geometry. A gap wider at 6 than at 12 by d over the diameter D means that the movable
    shaft rises away from the coupling by d/D.
    """
    clock = [r.clock for r in given.readings]
    value = [r.value_mm + (given.bar_mm or 0.0) for r in given.readings]
    fit = fit_clock(clock, value, resolution_mm=given.resolution_mm)
    out = find_stands_out(clock, value, resolution_mm=given.resolution_mm)
    per_m = -2 / given.diameter_mm * 1000
    angle_v, angle_h = fit.up_mm * per_m, fit.right_mm * per_m
    angle = math.hypot(angle_v, angle_h)
    checks = _checks(given, value, fit.mean_mm, angle)
    verdict = worst(checks)
    return GapResult(
        bench="gap",
        verdict=verdict,
        checks=checks,
        advice=say_stands_out(out) + _advice(given, fit, verdict, checks),
        working=_working(given, clock, value, fit, angle),
        mean_mm=fit.mean_mm,
        min_mm=min(value),
        max_mm=max(value),
        spread_mm=max(value) - min(value),
        angle_v_mm_per_m=angle_v,
        angle_h_mm_per_m=angle_h,
        angle_mm_per_m=angle,
        wide_at_deg=fit.peak_deg,
        stands_out=out,
    )


def _checks(given: GapInput, value: list[float], mean: float, angle: float) -> list[Check]:
    accept, checks = given.accept, []
    if accept.mean is not None:
        checks.append(judge_band("gap on the axis", mean, accept.mean))
    if accept.each is not None:
        each = [
            judge_band(f"gap at {say_clock(r.clock)}", v, accept.each) for r, v in zip(given.readings, value, strict=True)
        ]
        checks.append(max(each, key=lambda check: check.used or 0.0))
    if accept.spread is not None:
        spread = max(value) - min(value)
        checks.append(judge("spread of the gap", spread, "mm", high=accept.spread.max_mm, source=accept.spread.source))
    if accept.angle is not None:
        checks.append(judge("angle", angle, "mm/m", high=accept.angle.max_mm_per_m, source=accept.angle.source))
    return checks


def _advice(given: GapInput, fit: ClockFit, verdict: Verdict, checks: list[Check]) -> list[str]:
    advice = []
    wanted = given.accept.mean or given.accept.each
    if wanted is not None and wanted.min_mm is not None and wanted.max_mm is not None:
        middle = (wanted.min_mm + wanted.max_mm) / 2
        off = fit.mean_mm - middle
        if any(c.status == "over" and c.unit == "mm" and "spread" not in c.name for c in checks):
            way = "Close" if off > 0 else "Open"
            advice.append(f"{way} the gap by {abs(off):.2f} mm to reach the middle of the band, {middle:.2f} mm.")
    if verdict is Verdict.OVER and any(c.status == "over" and c.name in ("angle", "spread of the gap") for c in checks):
        advice.append(f"The gap opens at {say_toward(fit.peak_deg)}. Take the angle out, then read the gap again.")
    if given.bar_mm is not None:
        advice.append("Push the bar in to the same depth at every place.")
    return advice


def _working(given: GapInput, clock: list[float], value: list[float], fit: ClockFit, angle: float) -> list[WorkLine]:
    lines = []
    if given.bar_mm is not None:
        lines.append(
            WorkLine(
                what="bar under every feeler",
                formula="bar + feeler",
                numbers=f"{given.bar_mm:.3f} + …",
                value=given.bar_mm,
                unit="mm",
            )
        )
    lines.append(
        WorkLine(
            what="gap on the axis",
            formula="mean of the sine" if len(value) != 4 else "mean round the clock",
            numbers=f"{len(value)} readings",
            value=fit.mean_mm,
            unit="mm",
        )
    )
    lines.append(
        WorkLine(
            what="spread",
            formula="largest − smallest",
            numbers=f"{max(value):.3f} − {min(value):.3f}",
            value=max(value) - min(value),
            unit="mm",
        )
    )
    lines += clock_working(clock, value, fit)
    lines.append(
        WorkLine(
            what="angle",
            formula="2 × √(up² + right²) ÷ diameter",
            numbers=f"2 × {fit.size_mm:.4f} ÷ {given.diameter_mm:.1f} × 1000",
            value=angle,
            unit="mm/m",
        )
    )
    return lines
