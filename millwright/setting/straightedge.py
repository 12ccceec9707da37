"""Straightedge and feelers over both hubs: the offset, corrected for hubs of unequal size."""

import math
from typing import Literal

import numpy as np
from pydantic import Field

from ..clock import MAX_CONDITION, RESOLUTION_MM, clock_columns, different_positions, least_squares, say_clock
from ..errors import Problem, UnusableInput
from ..model import Clock, Model, Size
from ..verdict import AS_ENTERED, Result, WorkLine, judge, worst

HUBS_DO_NOT_AGREE_MM = 0.05  # rule of thumb: two feelers' worth


class FeelerReading(Model):
    """The feeler that slides under the edge, over the hub that is lower there."""

    clock: Clock
    feeler_mm: float = Field(ge=0, le=100)
    on: Literal["stationary", "movable"]


class OffsetLimit(Model):
    """The most the axes may be apart."""

    offset_mm: Size
    source: str = AS_ENTERED


class StraightedgeInput(Model):
    """Feelers under a straightedge laid over both hubs, without turning the shafts."""

    readings: list[FeelerReading] = Field(min_length=1, max_length=100)
    stationary_hub_mm: Size
    movable_hub_mm: Size
    limit: OffsetLimit | None = None
    resolution_mm: float = Field(default=RESOLUTION_MM, gt=0, le=1)


class StraightedgeResult(Result):
    """Where the movable axis lies: + up, + toward 3 o'clock."""

    offset_v_mm: float
    offset_h_mm: float
    offset_mm: float
    offset_v_sigma_mm: float | None
    offset_h_sigma_mm: float | None


def evaluate(given: StraightedgeInput) -> StraightedgeResult:
    """Offset from feelers under a straightedge.

    Raises `UnusableInput` where only one side, or only opposite sides, were read.
    Source: geometry. Step(φ) = V·cos φ + H·sin φ + (movable − stationary hub)/2; the mean is held.
    """
    cos, sin = clock_columns([r.clock for r in given.readings])
    design = np.column_stack([cos, sin])
    places = different_positions([r.clock for r in given.readings])
    if len(places) < 2 or np.linalg.cond(design) > MAX_CONDITION:
        raise UnusableInput(_one_sided(places))
    uneven = (given.movable_hub_mm - given.stationary_hub_mm) / 2
    step = np.array([r.feeler_mm if r.on == "stationary" else -r.feeler_mm for r in given.readings])
    (up, right), _, covariance = least_squares(design, step - uneven, given.resolution_mm)
    offset = math.hypot(up, right)
    checks = []
    if given.limit is not None:
        checks.append(judge("offset by straightedge", offset, "mm", high=given.limit.offset_mm, source=given.limit.source))
    return StraightedgeResult(
        bench="straightedge",
        verdict=worst(checks),
        checks=checks,
        advice=_advice(given, float(up), float(right), step, uneven),
        working=_working(given, uneven, float(up), float(right), offset),
        offset_v_mm=float(up),
        offset_h_mm=float(right),
        offset_mm=offset,
        offset_v_sigma_mm=None if covariance is None else math.sqrt(covariance[0, 0]),
        offset_h_sigma_mm=None if covariance is None else math.sqrt(covariance[1, 1]),
    )


def _one_sided(places: list[float]) -> Problem:
    if len(places) == 1:
        return Problem("readings", f"Only {say_clock(places[0])} was read. Read a quarter turn away from it as well.")
    return Problem("readings", "These places lie on one line across the hub. Read a quarter turn away as well.")


def _advice(
    given: StraightedgeInput, up: float, right: float, step: np.ndarray[tuple[int], np.dtype[np.float64]], uneven: float
) -> list[str]:
    advice = [
        f"The movable machine is {abs(up):.2f} mm {'high' if up > 0 else 'low'} "
        f"and {abs(right):.2f} mm toward {3 if right > 0 else 9} o'clock."
    ]
    quarters = {round(r.clock % 360 / 90) % 4 for r in given.readings if r.clock % 90 == 0}
    if len(quarters) == len(given.readings) == 4 and abs(float(step.mean()) - uneven) > HUBS_DO_NOT_AGREE_MM:
        advice.insert(
            0,
            f"The four steps do not close: their mean says the hubs differ by {2 * float(step.mean()):.2f} mm, "
            f"the diameters say {2 * uneven:.2f}. Measure the hubs again.",
        )
    return advice


def _working(given: StraightedgeInput, uneven: float, up: float, right: float, offset: float) -> list[WorkLine]:
    lines = []
    if uneven:
        lines.append(
            WorkLine(
                what="step from unequal hubs",
                formula="(movable − stationary hub) ÷ 2",
                numbers=f"({given.movable_hub_mm:.3f} − {given.stationary_hub_mm:.3f}) ÷ 2",
                value=uneven,
                unit="mm",
            )
        )
    signed = [r.feeler_mm if r.on == "stationary" else 0.0 - r.feeler_mm for r in given.readings]
    steps = ", ".join(f"{step:+.2f}" for step in signed)
    return [
        *lines,
        WorkLine(what="up", formula="steps × cos, least squares", numbers=steps, value=up, unit="mm"),
        WorkLine(what="toward 3", formula="steps × sin, least squares", numbers=steps, value=right, unit="mm"),
        WorkLine(
            what="offset",
            formula="√(up² + right²)",
            numbers=f"√({up:+.3f}² + {right:+.3f}²)",
            value=offset,
            unit="mm",
        ),
    ]
