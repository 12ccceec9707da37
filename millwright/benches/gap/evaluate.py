"""The gap between hub faces: on the axis, its spread, and the angle it shows."""

import math

from ...clock import find_stands_out, fit_clock, position_problem, say_clock, say_stands_out
from ...errors import Problem, refuse_if_any
from ...say import say
from ...uncertainty import single_plus_minus
from ...verdict import Check, Status, all_proven, judge, judge_band, say_cannot_tell, touching, worst
from .io import End, EndFound, GapAccept, GapInput, GapReading, GapResult, GapSince
from .words import advice_of, say_closed, say_differ, say_since, working_of


def _problems(given: GapInput) -> list[Problem]:
    if given.ends is not None and not given.other_end:
        return [Problem("other_end", f"Measure the other end too: {given.ends[1]}.")]
    if given.ends is None and given.other_end:
        return [Problem("ends", "Name the two ends that were measured.")]
    if given.accept.angle is not None and given.diameter_mm is None:
        return [Problem("diameter_mm", "On what diameter was it measured?")]
    return []


def _end(given: GapInput, readings: list[GapReading], name: str, path: str) -> End:
    clock = [r.clock for r in readings]
    value = [r.value_mm + (given.bar_mm or 0.0) for r in readings]
    fit = fit_clock(clock, value, resolution_mm=given.resolution_mm, path=path)
    return End(name, clock, value, fit, given.diameter_mm, second=path == "other_end")


def evaluate(given: GapInput) -> GapResult:
    """Gap on the axis, spread, and angle of the movable shaft from gap readings round the clock.

    Source: geometry. A gap wider at 6 than at 12 by d over the diameter D means that the movable
    shaft rises away from the coupling by d/D.
    """
    refuse_if_any(_problems(given))
    first, second = given.ends or ("", "")
    end = _end(given, given.readings, first, "readings")
    other = _end(given, given.other_end, second, "other_end") if given.other_end else None
    ends = [end] if other is None else [end, other]
    out = [find_stands_out(e.clock, e.value, resolution_mm=given.resolution_mm) for e in ends]
    checks = _checks(given, ends)
    verdict = worst(checks)
    since = _since(given, ends)
    bar = say("bar_depth", "Push the bar in to the same depth at every place.")
    return GapResult(
        bench="gap",
        verdict=verdict,
        proven=all_proven(checks),
        checks=checks,
        says=[
            *(one for e in ends for one in say_closed(e)),
            *(one for e, found in zip(ends, out, strict=True) for one in say_stands_out(found, e.name)),
            *(one for e in ends for one in advice_of(given, e, checks)),
            *say_cannot_tell(checks),
            *say_differ(ends, checks),
            *say_since(ends, since),
            *([bar] if given.bar_mm is not None else []),
        ],
        working=[line for e in ends for line in working_of(given, e)],
        **_found(end).model_dump(),
        stands_out=out[0],
        other_end=_found(other) if other else None,
        ends_differ_mm=end.fit.mean_mm - other.fit.mean_mm if other else None,
        since=since,
    )


def _found(end: End) -> EndFound:
    slope = end.slope
    up, right, size = (slope.up, slope.right, slope.size) if slope else (None, None, None)
    return EndFound(
        angle_v_mm_per_m=up,
        angle_h_mm_per_m=right,
        mean_mm=end.fit.mean_mm,
        min_mm=min(end.value),
        max_mm=max(end.value),
        spread_mm=end.spread_mm,
        angle_mm_per_m=size,
        wide_at_deg=end.fit.peak_deg,
    )


def _checks(given: GapInput, ends: list[End]) -> list[Check]:
    single_mm = single_plus_minus(given.resolution_mm)
    checks = [check for end in ends for check in _checks_of(given.accept, end, single_mm)]
    limit = given.accept.differ
    if limit is not None and len(ends) == 2:
        differ, name = ends[0].fit.mean_mm - ends[1].fit.mean_mm, "the two ends differ by"
        both = math.hypot(*(end.fit.mean_plus_minus_mm for end in ends))
        checks.append(judge("ends_differ", name, differ, "mm", high=limit.max_mm, source=limit.source, plus_minus=both))
    return checks


def _checks_of(accept: GapAccept, end: End, single_mm: float) -> list[Check]:
    """``single_mm`` - the ± of one reading"""
    checks = [_closed(end)] if min(end.value) <= 0 else []
    mean_mm = end.fit.mean_plus_minus_mm
    if accept.mean is not None:
        checks.append(judge_band(end.code("mean"), end.named("mean gap"), end.fit.mean_mm, accept.mean, plus_minus=mean_mm))
    if accept.each is not None:
        each = [
            judge_band(end.code("each"), end.named(f"gap at {say_clock(clock)}"), value, accept.each, plus_minus=single_mm)
            for clock, value in zip(end.clock, end.value, strict=True)
        ]
        checks.append(max(each, key=lambda check: (check.status is Status.OVER, check.used or 0.0)))
    if accept.spread is not None:
        high, source = accept.spread.max_mm, accept.spread.source
        name, both = end.named("spread of the gap"), math.sqrt(2) * single_mm
        checks.append(judge(end.code("spread"), name, end.spread_mm, "mm", high=high, source=source, plus_minus=both))
    if accept.clear is not None:
        free = end.fit.mean_mm - accept.clear.standing_out_mm
        low, source = accept.clear.min_mm, accept.clear.source
        name = end.named("free between the shaft ends")
        checks.append(judge(end.code("clear"), name, free, "mm", low=low, source=source, plus_minus=mean_mm))
    if accept.angle is not None and end.slope is not None:
        high, source, by = accept.angle.max_mm_per_m, accept.angle.source, end.slope.plus_minus
        checks.append(
            judge(end.code("angle"), end.named("angle"), end.slope.size, "mm/m", high=high, source=source, plus_minus=by)
        )
    return checks


def _closed(end: End) -> Check:
    """The hubs touch: over, whatever the limits."""
    return touching(end.code("closed"), end.named("smallest gap"), min(end.value), "hubs do not touch")


def _since(given: GapInput, ends: list[End]) -> list[GapSince]:
    """Now, less as it was left; only what was left at enough places to be worked out."""
    if given.as_left is None:
        return []
    found = []
    for end, left in zip(ends, (given.as_left.readings, given.as_left.other_end), strict=False):
        if not left or position_problem([r.clock for r in left], "") is not None:
            return []
        then = _end(given, left, end.name, "as_left")
        found.append(GapSince(mean_mm=end.fit.mean_mm - then.fit.mean_mm, spread_mm=end.spread_mm - then.spread_mm))
    return found
