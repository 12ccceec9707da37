"""Run-out of a shaft or hub: how much, where the high spot is, and how much of it is oval."""

from typing import Literal

from pydantic import Field

from ..clock import (
    RESOLUTION_MM,
    ClockReading,
    StandsOut,
    find_stands_out,
    fit_clock,
    fit_oval_mm,
    say_clock,
    say_stands_out,
)
from ..clock import working as clock_working
from ..model import Model, Size
from ..verdict import AS_ENTERED, Result, Verdict, WorkLine, judge, worst


class RunoutInput(Model):
    """Dial readings on a rim or a face while the part itself turns."""

    readings: list[ClockReading] = Field(min_length=1, max_length=20_000)
    limit_mm: Size = Field(description="on the total reading")
    limit_source: str = AS_ENTERED
    kind: Literal["rim", "face"] = "rim"
    resolution_mm: float = Field(default=RESOLUTION_MM, gt=0, le=1)


class RunoutResult(Result):
    """Total reading, the once-per-turn part and, from five positions on, the twice-per-turn part."""

    total_mm: float
    eccentricity_mm: float
    high_spot_deg: float
    oval_mm: float | None
    stands_out: list[StandsOut]


def evaluate(given: RunoutInput) -> RunoutResult:
    """Total reading, eccentricity, high spot and ovality of a turning part.

    Source: least squares of a once-per-turn and, where five positions allow it, a twice-per-turn sine.
    """
    clock = [r.clock for r in given.readings]
    value = [r.value_mm for r in given.readings]
    fit = fit_clock(clock, value, resolution_mm=given.resolution_mm)
    out = find_stands_out(clock, value, resolution_mm=given.resolution_mm)
    oval = fit_oval_mm(clock, value)
    total = max(value) - min(value)
    check = judge("total reading", total, "mm", high=given.limit_mm, source=given.limit_source)
    verdict = worst([check])
    advice = say_stands_out(out)
    if verdict is Verdict.OVER:
        blow = f"The high spot is at {say_clock(fit.peak_deg)}."
        advice.append(f"{blow} Find out why before anything is tightened: dirt, a burr, a bent shaft or a cocked hub.")
    if oval is not None and oval > fit.size_mm and verdict is Verdict.OVER:
        advice.append("More of it is oval than off centre: turning the hub will not cure it.")
    return RunoutResult(
        bench="runout",
        verdict=verdict,
        checks=[check],
        advice=advice,
        working=[
            WorkLine(
                what="total reading",
                formula="largest − smallest",
                numbers=f"{max(value):+.3f} − {min(value):+.3f}",
                value=total,
                unit="mm",
            ),
            *clock_working(clock, value, fit),
            WorkLine(
                what="off centre by",
                formula="√(up² + right²)",
                numbers=f"√({fit.up_mm:+.4f}² + {fit.right_mm:+.4f}²)",
                value=fit.size_mm,
                unit="mm",
            ),
        ],
        total_mm=total,
        eccentricity_mm=fit.size_mm,
        high_spot_deg=fit.peak_deg,
        oval_mm=oval,
        stands_out=out,
    )
