"""Air gaps of a magnetic drive: how even they are on both sides of the rotor, and the move that makes them so."""

import math

import numpy as np

from ...clock import MAX_CONDITION, clock_columns, position_problem, same_place
from ...errors import Problem, UnusableInput, refuse_if_any
from ...sketch import forces
from ...sketch.shapes import Sketch
from ...uncertainty import fit_least_squares, leave_one_out, single_plus_minus
from ...verdict import Check, all_proven, judge, say_cannot_tell, touching, worst
from ..alignment.feet import Foot, problems_of_feet
from .io import (
    DRIVER,
    LOAD,
    MEANS,
    RIGHT,
    SIDES,
    SLOPES,
    UP,
    AirGapInput,
    AirGapResult,
    AirGapSince,
    FootOfDriver,
    Gaps,
    Station,
    StationStandsOut,
)
from .words import say_moves, say_since, say_stands_out, say_touching, working_of

AS_THE_SPREAD = "rule of thumb: no more than the spread on a side"
FULL_TURN_DEG = 360.0


def evaluate(given: AirGapInput) -> AirGapResult:
    """Means, spreads and slope from both sides together, and the driver's move along the shaft and at its feet."""
    refuse_if_any(problems_of_feet([], given.movable_feet, None))
    gaps = _fit(given.stations, given, "stations")
    checks, out = _checks(given, gaps), _stands_out(gaps, given.resolution_mm)
    driver, load = gaps.mean_mm
    slide = (load - driver) / 2
    since = _since(given, gaps)
    feet = [_foot(gaps, foot) for foot in given.movable_feet]
    return AirGapResult(
        bench="airgap",
        verdict=worst(checks),
        proven=all_proven(checks),
        checks=checks,
        says=[
            *say_touching(gaps),
            *say_stands_out(out),
            *say_moves(checks, slide, gaps),
            *say_cannot_tell(checks),
            *say_since(since),
        ],
        working=working_of(given, gaps, slide),
        mean_driver_mm=driver,
        mean_load_mm=load,
        spread_driver_mm=gaps.spread_mm("driver"),
        spread_load_mm=gaps.spread_mm("load"),
        slide_axial_mm=slide,
        slide_axial_plus_minus_mm=gaps.fitted.half_width((LOAD - DRIVER) / 2),
        angle_v_mm_per_m=gaps.axis.slope_v_mm_per_m,
        angle_h_mm_per_m=gaps.axis.slope_h_mm_per_m,
        feet=feet,
        stands_out=out,
        since=since,
        drawn=_drawn(gaps, feet, slide),
    )


def _drawn(gaps: Gaps, feet: list[FootOfDriver], slide: float) -> Sketch:
    """Side view and plan, with the gaps the fit has at both ends of each."""
    (driver, load), (up, right) = gaps.mean_mm, (float(part) for part in gaps.fitted.found[2:])
    # From above, what lies to the left, at 9 o'clock, is at the top.
    moves: tuple[tuple[forces.Plane, float, list[tuple[str, float]]], ...] = (
        ("v", up, [(foot.name, foot.shim_mm) for foot in feet if foot.shim_known]),
        ("h", -right, [(foot.name, foot.slide_mm) for foot in feet if foot.slide_known]),
    )
    planes = [
        forces.GapsInPlane(plane=plane, driver=(driver + part, driver - part), load=(load - part, load + part), feet=named)
        for plane, part, named in moves
    ]
    return forces.air_gaps(planes, driver, load, slide)


def _foot(gaps: Gaps, foot: Foot) -> FootOfDriver:
    """Source: geometry, the slope times the place along the shaft, turned about x = 0."""
    reach_m, (up, right) = abs(foot.x_mm) / 1000, gaps.lean_known
    return FootOfDriver(
        name=foot.name,
        shim_mm=-gaps.axis.v_mm(foot.x_mm),
        slide_mm=-gaps.axis.h_mm(foot.x_mm),
        shim_plus_minus_mm=reach_m * gaps.slope_plus_minus(UP),
        slide_plus_minus_mm=reach_m * gaps.slope_plus_minus(RIGHT),
        shim_known=up,
        slide_known=right,
    )


def _fit(stations: list[Station], given: AirGapInput, path: str) -> Gaps:
    """Both sides in one fit: a mean for each, one lean for both. Source: linear least squares.

    The plates are one piece with the driver's shaft, so what the lean adds on one side it takes away on the other.
    Raises `UnusableInput` for one side alone, or places that cannot carry the fit.
    """
    clock = [station.clock for station in stations]
    missing = [side for side in SIDES if not any(station.side == side for station in stations)]
    if missing:
        raise UnusableInput(Problem(path, f"Read both sides: there is no gap of the {missing[0]} side."))
    if (problem := position_problem(clock, path)) is not None:
        raise UnusableInput(problem)
    way = np.array([1.0 if station.side == "driver" else -1.0 for station in stations])
    cos, sin = clock_columns(clock)
    design = np.column_stack([way > 0, way < 0, way * cos, way * sin]).astype(np.float64)
    if len(stations) < MEANS + SLOPES or np.linalg.cond(design) > MAX_CONDITION:
        text = "These places do not tell where the driver leans. Read one more, on the side that has the fewest."
        raise UnusableInput(Problem(path, text))
    places = same_place(clock) + np.where(way > 0, 0.0, FULL_TURN_DEG * 1000)
    value = np.array([station.value_mm for station in stations])
    fitted = fit_least_squares(design, value, given.resolution_mm, places)
    return Gaps(stations=stations, fitted=fitted, design=design, diameter_mm=given.diameter_mm)


def _checks(given: AirGapInput, gaps: Gaps) -> list[Check]:
    single = single_plus_minus(given.resolution_mm)
    least = min(station.value_mm for station in gaps.stations)
    checks = [touching("touches", "smallest gap", least, "rotor and plate do not touch")] if least <= 0 else []
    for side in SIDES:
        name, spread = f"spread of the gap, {side} side", gaps.spread_mm(side)
        high, source, both = given.spread_max_mm, given.spread_source, math.sqrt(2) * single
        checks.append(judge(f"spread_{side}", name, spread, "mm", high=high, source=source, plus_minus=both))
    driver, load = gaps.mean_mm
    high, source = given.differ_max_mm or given.spread_max_mm, given.differ_source
    if given.differ_max_mm is None:
        source = AS_THE_SPREAD
    by = gaps.fitted.half_width(DRIVER - LOAD)
    checks.append(
        judge("means_differ", "the two means differ by", driver - load, "mm", high=high, source=source, plus_minus=by)
    )
    if given.least_mm is not None:
        low, source = given.least_mm, given.least_source
        checks.append(judge("least", "smallest gap", least, "mm", low=low, source=source, plus_minus=single))
    return checks


def _stands_out(gaps: Gaps, resolution_mm: float) -> list[StationStandsOut]:
    """Gaps that lie off what the others say, from six on; only where the others carry the fit without it."""
    n = len(gaps.stations)
    if n < MEANS + SLOPES + 2:
        return []
    value = np.array([station.value_mm for station in gaps.stations])
    misses, far_off = leave_one_out(gaps.design, value, resolution_mm)
    return [
        StationStandsOut(index=int(i), side=gaps.stations[i].side, clock=gaps.stations[i].clock, residual_mm=float(misses[i]))
        for i in np.flatnonzero(far_off)
        if np.linalg.cond(np.delete(gaps.design, i, axis=0)) <= MAX_CONDITION
    ]


def _since(given: AirGapInput, gaps: Gaps) -> AirGapSince | None:
    """Now, less the reading before; nothing where that one cannot be worked out."""
    if given.before is None:
        return None
    try:
        then = _fit(given.before.stations, given, "before")
    except UnusableInput:
        return None
    (driver, load), (driver_then, load_then) = gaps.mean_mm, then.mean_mm
    turned = gaps.axis.less(then.axis)
    return AirGapSince(
        mean_driver_mm=driver - driver_then,
        mean_load_mm=load - load_then,
        angle_v_mm_per_m=turned.slope_v_mm_per_m,
        angle_h_mm_per_m=turned.slope_h_mm_per_m,
    )
