"""Straightedge and feelers over both hubs: the offset, corrected for hubs of unequal size."""

import math
from typing import Literal

import numpy as np
from pydantic import Field

from ..clock import MAX_CONDITION, RESOLUTION_MM, clock_columns, different_positions, same_place, say_clock
from ..errors import Problem, UnusableInput
from ..model import Clock, Model, Size
from ..say import Say, bare, joined, mm, say, words
from ..uncertainty import Array, fit_least_squares
from ..verdict import AS_ENTERED, Result, WorkLine, all_proven, judge, unproven, work, worst

UP, RIGHT = np.eye(2)
DO_NOT_AGREE_MM = 0.05  # rule of thumb: two feelers' worth


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
    """Offset from feelers under a straightedge. Readings that contradict each other are not judged.

    Raises `UnusableInput` where only one side, or only opposite sides, were read.
    Source: geometry. Step(φ) = V·cos φ + H·sin φ + (movable − stationary hub)/2; the mean is held.
    """
    clock = [r.clock for r in given.readings]
    cos, sin = clock_columns(clock)
    design = np.column_stack([cos, sin])
    places = different_positions(clock)
    if len(places) < 2 or np.linalg.cond(design) > MAX_CONDITION:
        raise UnusableInput(_one_sided(places))
    uneven = (given.movable_hub_mm - given.stationary_hub_mm) / 2
    step = np.array([r.feeler_mm if r.on == "stationary" else 0.0 - r.feeler_mm for r in given.readings])
    fitted = fit_least_squares(design, step - uneven, given.resolution_mm, same_place(clock))
    up, right = (float(x) for x in fitted.found)
    offset = math.hypot(up, right)
    misses = step - uneven - design @ fitted.found
    contradict = float(np.abs(misses).max()) > DO_NOT_AGREE_MM
    checks = []
    if given.limit is not None:
        plus_minus = fitted.half_width_of_size(UP, RIGHT, up, right)
        high, source = given.limit.offset_mm, given.limit.source
        checks.append(
            judge("offset", "offset by straightedge", offset, "mm", high=high, source=source, plus_minus=plus_minus)
        )
    if contradict:
        checks = [unproven(check) for check in checks]
    covariance = fitted.covariance
    return StraightedgeResult(
        bench="straightedge",
        verdict=worst(checks, lacking=contradict),
        proven=False if contradict else all_proven(checks),
        checks=checks,
        says=_advice(given, up, right, step, uneven, misses),
        working=_working(given, uneven, up, right, offset),
        offset_v_mm=up,
        offset_h_mm=right,
        offset_mm=offset,
        offset_v_sigma_mm=None if covariance is None else math.sqrt(covariance[0, 0]),
        offset_h_sigma_mm=None if covariance is None else math.sqrt(covariance[1, 1]),
    )


def _one_sided(places: list[float]) -> Problem:
    if len(places) == 1:
        return Problem("readings", f"Only {say_clock(places[0])} was read. Read a quarter turn away from it as well.")
    return Problem("readings", "These places lie on one line across the hub. Read a quarter turn away as well.")


def _advice(given: StraightedgeInput, up: float, right: float, step: Array, uneven: float, misses: Array) -> list[Say]:
    text = "The machine that is moved is {up} {way} and {across} toward {side} o'clock."
    way, side = "high" if up > 0 else "low", "3" if right > 0 else "9"
    advice = [say("lies", text, up=mm(abs(up)), way=way, across=mm(abs(right)), side=side)]
    worst_one = int(np.abs(misses).argmax())
    if abs(float(misses[worst_one])) <= DO_NOT_AGREE_MM:
        return advice
    quarters = {round(r.clock % 360 / 90) % 4 for r in given.readings if r.clock % 90 == 0}
    mean_off = float(step.mean()) - uneven
    if len(quarters) == len(given.readings) == 4 and abs(mean_off) > DO_NOT_AGREE_MM:
        text = "The four steps do not close: by them the hubs differ by {steps}, by their diameters {hubs}."
        text += " Measure the hubs again."
        return [say("hubs_differ", text, steps=mm(2 * float(step.mean())), hubs=mm(2 * uneven)), *advice]
    text = "The steps contradict each other, by {off} at {clock}. Read there again: is the feeler over the lower hub?"
    off, clock = mm(abs(float(misses[worst_one]))), say_clock(given.readings[worst_one].clock)
    return [say("steps_contradict", text, off=off, clock=clock), *advice]


def _working(given: StraightedgeInput, uneven: float, up: float, right: float, offset: float) -> list[WorkLine]:
    lines = []
    if uneven:
        hubs = words("({a} − {b}) ÷ 2", a=bare(given.movable_hub_mm), b=bare(given.stationary_hub_mm))
        lines.append(work("uneven", "step from unequal hubs", "(movable − stationary hub) ÷ 2", hubs, uneven))
    signed = [r.feeler_mm if r.on == "stationary" else 0.0 - r.feeler_mm for r in given.readings]
    steps = joined((words("{step}", step=bare(step, 2, signed=True)) for step in signed), ", ")
    size = words("√({up}² + {right}²)", up=bare(up, signed=True), right=bare(right, signed=True))
    return [
        *lines,
        work("up", "up", "steps × cos, least squares", steps, up),
        work("right", "toward 3", "steps × sin, least squares", steps, right),
        work("offset", "offset", "√(up² + right²)", size, offset),
    ]
