"""The gap between hub faces: on the axis, its spread, and the angle it shows."""

import math
from dataclasses import dataclass
from typing import Annotated

from pydantic import Field

from ..clock import (
    RESOLUTION_MM,
    ClockFit,
    StandsOut,
    find_stands_out,
    fit_clock,
    position_problem,
    say_clock,
    say_stands_out,
    say_toward,
)
from ..clock import working as clock_working
from ..errors import Problem, refuse_if_any
from ..model import Clock, Model, Size
from ..say import Say, bare, mm, per_m, say, words
from ..uncertainty import single_plus_minus
from ..verdict import (
    AS_ENTERED,
    Band,
    Check,
    Result,
    Status,
    WorkLine,
    all_proven,
    judge,
    judge_band,
    say_cannot_tell,
    work,
    worst,
)

NOTICED_MM = 0.02  # rule of thumb: two readings of a caliper or feeler
SPREAD, ANGLE, DIFFER = "spread of the gap", "angle", "the two ends differ by"
EndName = Annotated[str, Field(min_length=1, max_length=60)]


class GapReading(Model):
    """A distance at one place round the clock; between far flanges it is more than a dial's travel."""

    clock: Clock
    value_mm: float = Field(ge=-100, le=10_000)


class MaxSpread(Model):
    """The most that largest and smallest reading may differ."""

    max_mm: Size
    source: str = AS_ENTERED


class MaxDiffer(Model):
    """The most the gaps at the two ends of a spacer may differ."""

    max_mm: Size
    source: str = AS_ENTERED


class MaxAngle(Model):
    """The most the faces may stand askew."""

    max_mm_per_m: float = Field(gt=0, le=500)
    source: str = AS_ENTERED


class KeepClear(Model):
    """Shaft ends that stand out into the gap, and what has to be left between them."""

    standing_out_mm: float = Field(gt=0, le=10_000, description="of both ends together")
    min_mm: Size
    source: str = AS_ENTERED


class GapAccept(Model):
    """The rules this gap is accepted by; any of them may stand together."""

    mean: Band | None = Field(default=None, description="the gap on the axis")
    each: Band | None = Field(default=None, description="every reading for itself")
    spread: MaxSpread | None = None
    angle: MaxAngle | None = None
    clear: KeepClear | None = None
    differ: MaxDiffer | None = Field(default=None, description="the two ends of a spacer against each other")


class GapAsLeft(Model):
    """The same gap as it was when the record before this one was closed."""

    readings: list[GapReading] = Field(min_length=1, max_length=400)
    other_end: list[GapReading] = Field(default_factory=list, max_length=400)


class GapInput(Model):
    """Caliper, feeler or bar-and-feeler readings between the hub faces, at places round the clock."""

    readings: list[GapReading] = Field(min_length=1, max_length=20_000)
    diameter_mm: Size = Field(description="of the circle the readings were taken on")
    bar_mm: Size | None = Field(default=None, description="spacer bar; readings are then feelers over it")
    ends: tuple[EndName, EndName] | None = Field(default=None, description="a spacer: the names of its ends, as read")
    other_end: list[GapReading] = Field(default_factory=list, max_length=20_000, description="at the second of them")
    as_left: GapAsLeft | None = None
    accept: GapAccept = Field(default_factory=GapAccept)
    resolution_mm: float = Field(default=RESOLUTION_MM, gt=0, le=1)


class EndFound(Model):
    """A gap: on the axis, its spread, and the slope it shows of the movable shaft (+ rises, + toward 3, away from it)."""

    mean_mm: float
    min_mm: float
    max_mm: float
    spread_mm: float
    angle_v_mm_per_m: float
    angle_h_mm_per_m: float
    angle_mm_per_m: float
    wide_at_deg: float


class GapSince(Model):
    """What has become of the gap since it was left: now, less then."""

    mean_mm: float
    spread_mm: float


class GapResult(EndFound, Result):
    """The first end, or the only gap there is; the other end beside it."""

    stands_out: list[StandsOut]
    other_end: EndFound | None
    ends_differ_mm: float | None  # first end less the other
    since: list[GapSince]  # first end, then the other, where something was left to compare with


@dataclass(frozen=True)
class _End:
    """Readings of one end, worked out."""

    name: str  # as said after a comma; empty where there is only one
    clock: list[float]
    value: list[float]
    fit: ClockFit
    diameter_mm: float
    second: bool = False

    @property
    def spread_mm(self) -> float:
        return max(self.value) - min(self.value)

    @property
    def slope_mm_per_m(self) -> tuple[float, float]:
        """Of the movable shaft, up and toward 3. Source: geometry, d over the diameter D."""
        per_m = -2 / self.diameter_mm * 1000
        return self.fit.up_mm * per_m, self.fit.right_mm * per_m

    @property
    def angle_mm_per_m(self) -> float:
        return math.hypot(*self.slope_mm_per_m)

    @property
    def angle_plus_minus(self) -> float:
        return self.fit.size_plus_minus_mm * 2 / self.diameter_mm * 1000

    def named(self, what: str) -> str:
        return f"{what}, {self.name}" if self.name else what

    def code(self, code: str) -> str:
        """The same code for the only end there is and the first of two; the second's is marked."""
        return f"other_{code}" if self.second else code


def _problems(given: GapInput) -> list[Problem]:
    if given.ends is not None and not given.other_end:
        return [Problem("other_end", f"Measure the other end too: {given.ends[1]}.")]
    if given.ends is None and given.other_end:
        return [Problem("ends", "Name the two ends that were measured.")]
    return []


def _end(given: GapInput, readings: list[GapReading], name: str, path: str) -> _End:
    clock = [r.clock for r in readings]
    value = [r.value_mm + (given.bar_mm or 0.0) for r in readings]
    fit = fit_clock(clock, value, resolution_mm=given.resolution_mm, path=path)
    return _End(name, clock, value, fit, given.diameter_mm, second=path == "other_end")


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
    out = find_stands_out(end.clock, end.value, resolution_mm=given.resolution_mm)
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
            *(one for e in ends for one in _say_closed(e)),
            *_say_stands_out(given, ends),
            *(one for e in ends for one in _advice(given, e, checks)),
            *say_cannot_tell(checks),
            *_say_differ(ends, checks),
            *_say_since(ends, since),
            *([bar] if given.bar_mm is not None else []),
        ],
        working=[line for e in ends for line in _working(given, e)],
        **_found(end).model_dump(),
        stands_out=out,
        other_end=_found(other) if other else None,
        ends_differ_mm=end.fit.mean_mm - other.fit.mean_mm if other else None,
        since=since,
    )


def _found(end: _End) -> EndFound:
    angle_v, angle_h = end.slope_mm_per_m
    return EndFound(
        angle_v_mm_per_m=angle_v,
        angle_h_mm_per_m=angle_h,
        mean_mm=end.fit.mean_mm,
        min_mm=min(end.value),
        max_mm=max(end.value),
        spread_mm=end.spread_mm,
        angle_mm_per_m=end.angle_mm_per_m,
        wide_at_deg=end.fit.peak_deg,
    )


def _checks(given: GapInput, ends: list[_End]) -> list[Check]:
    single_mm = single_plus_minus(given.resolution_mm)
    checks = [check for end in ends for check in _checks_of(given.accept, end, single_mm)]
    if given.accept.differ is not None and len(ends) == 2:
        differ, limit = ends[0].fit.mean_mm - ends[1].fit.mean_mm, given.accept.differ
        both = math.hypot(*(end.fit.mean_plus_minus_mm for end in ends))
        checks.append(judge("ends_differ", DIFFER, differ, "mm", high=limit.max_mm, source=limit.source, plus_minus=both))
    return checks


def _checks_of(accept: GapAccept, end: _End, single_mm: float) -> list[Check]:
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
        both = math.sqrt(2) * single_mm
        checks.append(
            judge(end.code("spread"), end.named(SPREAD), end.spread_mm, "mm", high=high, source=source, plus_minus=both)
        )
    if accept.clear is not None:
        free = end.fit.mean_mm - accept.clear.standing_out_mm
        low, source = accept.clear.min_mm, accept.clear.source
        name = end.named("free between the shaft ends")
        checks.append(judge(end.code("clear"), name, free, "mm", low=low, source=source, plus_minus=mean_mm))
    if accept.angle is not None:
        high, source, by = accept.angle.max_mm_per_m, accept.angle.source, end.angle_plus_minus
        checks.append(
            judge(end.code("angle"), end.named(ANGLE), end.angle_mm_per_m, "mm/m", high=high, source=source, plus_minus=by)
        )
    return checks


def _closed(end: _End) -> Check:
    """The hubs touch: over, whatever the limits."""
    least = min(end.value)
    return Check(
        code=end.code("closed"),
        name=end.named("smallest gap"),
        value=least,
        unit="mm",
        min=0.0,
        max=None,
        used=None,
        status=Status.OVER,
        source="rule of thumb: hubs do not touch",
    )


def _say_closed(end: _End) -> list[Say]:
    closed = [clock for clock, value in zip(end.clock, end.value, strict=True) if value <= 0]
    if not closed:
        return []
    at = end.named(f"The hubs touch at {say_clock(closed[0])}")
    return [say("closed", "{at}. Move the machine back before it is turned, then read again.", at=at)]


def _since(given: GapInput, ends: list[_End]) -> list[GapSince]:
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


def _say_since(ends: list[_End], since: list[GapSince]) -> list[Say]:
    says = []
    for end, now in zip(ends, since, strict=False):
        at = f" ({end.name})" if end.name else ""
        if max(abs(now.mean_mm), abs(now.spread_mm)) <= NOTICED_MM:
            says.append(say("as_it_was_left", "As it was left, as near as the readings show{at}.", at=at))
            continue
        text = "Since it was left the gap has changed by {mean}, its spread by {spread}{at}."
        mean, spread = mm(now.mean_mm, signed=True), mm(now.spread_mm, signed=True)
        says.append(say("changed_since_left", text, mean=mean, spread=spread, at=at))
    return says


def _say_differ(ends: list[_End], checks: list[Check]) -> list[Say]:
    if not any(check.code == "ends_differ" and check.status is Status.OVER for check in checks):
        return []
    wide, narrow = sorted(ends, key=lambda end: -end.fit.mean_mm)
    off = (wide.fit.mean_mm - narrow.fit.mean_mm) / 2
    text = "One element is pressed, the other stretched: the spacer sits {off} too near the {end}. Shift it, or a hub."
    return [say("spacer_off_middle", text, off=mm(off), end=narrow.name)]


def _say_stands_out(given: GapInput, ends: list[_End]) -> list[Say]:
    return [
        one
        for end in ends
        for one in say_stands_out(find_stands_out(end.clock, end.value, resolution_mm=given.resolution_mm), end.name)
    ]


def _advice(given: GapInput, end: _End, checks: list[Check]) -> list[Say]:
    """The distance by the mean, the angle by where it opens: each has its own cure."""
    over = {check.code for check in checks if check.status is Status.OVER}
    advice = []
    askew = bool(over & {end.code("angle"), end.code("spread")})
    wanted = given.accept.mean or given.accept.each
    if wanted is not None and over & {end.code("mean"), end.code("each")}:
        low, high = wanted.min_mm, wanted.max_mm
        fits = _in_band(end.fit.mean_mm, wanted)
        if fits:
            askew = True
        elif low is not None and high is not None:
            middle = (low + high) / 2
            off = end.fit.mean_mm - middle
            text = "{way} the gap{at} by {by} to reach the middle of the tolerance, {middle}."
            way, at = "Close" if off > 0 else "Open", f" at the {end.name}" if end.name else ""
            advice.append(say("set_distance", text, way=way, at=at, by=mm(abs(off)), middle=mm(middle)))
        else:
            off = end.fit.mean_mm - (high if high is not None else low or 0.0)
            text = "{way} the gap{at} by at least {by}."
            way, at = "Close" if off > 0 else "Open", f" at the {end.name}" if end.name else ""
            advice.append(say("set_distance", text, way=way, at=at, by=mm(abs(off))))
    if askew:
        opens = end.named(f"The gap opens at {say_toward(end.fit.peak_deg)}")
        text = "{opens}, {per_m}: that is angle, not distance. Take the angle out, then read the gap again."
        advice.append(say("take_out_angle", text, opens=opens, per_m=per_m(end.angle_mm_per_m)))
    return advice


def _in_band(value: float, band: Band) -> bool:
    return (band.min_mm is None or value >= band.min_mm) and (band.max_mm is None or value <= band.max_mm)


def _working(given: GapInput, end: _End) -> list[WorkLine]:
    value, fit, lines = end.value, end.fit, []
    if given.bar_mm is not None:
        bar = words("{bar} + feeler", bar=bare(given.bar_mm))
        lines.append(work(end.code("bar"), end.named("bar under every feeler"), "bar + feeler", bar, given.bar_mm))
    mean = "mean of the sine" if len(value) != 4 else "mean round the clock"
    lines.append(work(end.code("mean"), end.named("mean gap"), mean, f"{len(value)} readings", fit.mean_mm))
    numbers = words("{most} − {least}", most=bare(max(value)), least=bare(min(value)))
    lines.append(work(end.code("spread"), end.named("spread"), "largest − smallest", numbers, end.spread_mm))
    lines += clock_working(end.clock, value, fit)
    on = bare(given.diameter_mm, 1)
    numbers = words("2 × {sine} ÷ {on} × 1000", sine=bare(fit.size_mm, 4), on=on)
    formula = "2 × √(up² + right²) ÷ diameter"
    lines.append(work(end.code("angle"), end.named("angle"), formula, numbers, end.angle_mm_per_m, "mm/m"))
    if given.accept.angle is not None:
        limit = given.accept.angle.max_mm_per_m
        numbers = words("{limit} ÷ 1000 × {on}", limit=bare(limit, 2, "mm/m"), on=on)
        what = "angle limit, as a gap difference here"
        lines.append(work(end.code("angle_limit"), what, "limit × diameter", numbers, limit / 1000 * given.diameter_mm))
    return lines
