"""Bench `wear`: readings over time, the line they follow, and the days between which a limit is reached.

Only what runs now is fitted: from the last break on, and from a jump nobody noted. A line is told apart from one reading
that does not belong, from a jump and from a bend; where it is none of them, nothing is said about the time to come.
"""

from datetime import date

import numpy as np

from ...errors import Problem, problem, refuse_if_any
from ...uncertainty import NORMAL_95
from ...verdict import Check, Verdict, judge, unproven
from .days import DAYS_A_MONTH, day
from .io import Reached, Run, TrendPoint, WearInput, WearReading, WearResult
from .trend import MOST_FITTED, Fit, Found, look, taken_together
from .words import says_of, working_of

DAY_S = 86_400.0
CARRIES = 2.0  # rule of thumb: nothing is said further on than twice the time the readings cover
DRAWN_POINTS = 25
USUAL_PLUS_MINUS = {"mm": 0.1, "mm/m": 0.1, "°C": 3.0, "mm/s": 0.5, "%": 5.0, "°": 2.0}  # rule of thumb, read by hand


def evaluate(given: WearInput) -> WearResult:
    """The trend of what runs now, with its band, and the days between which the limit is reached.

    Source: weighted least squares, Student's t, Fieller's theorem. Raises `UnusableInput` for a day that has not come yet,
    or without a reading.
    """
    refuse_if_any(_problems(given))
    order = sorted(range(len(given.readings)), key=lambda i: given.readings[i].at)
    runs = _runs(given, order)
    last = order[-1]
    run = _fitted_run(given, order, runs[-1])
    found = look(run)
    check = _judged(given, given.readings[last], last in found.aside or found.why == "last off")
    reached, carries = _reached(given, found)
    return WearResult(
        bench="wear",
        verdict=_verdict(check),
        proven=check.proven if check else None,
        checks=[check] if check else [],
        says=says_of(given, found, reached, carries, check),
        working=working_of(given, found),
        latest=given.readings[last].value,
        per_month=found.line.slope * DAYS_A_MONTH if found.line else None,
        per_month_plus_minus=found.line.slope_plus_minus * DAYS_A_MONTH if found.line else None,
        reached=reached,
        carries_until=carries,
        trend=_trend(found, reached, carries),
        set_aside=list(found.aside),
        jump=found.jump,
        runs=runs,
        drawn=_thinned([given.readings[i] for i in order]),
    )


def _problems(given: WearInput) -> list[Problem]:
    text = "{day} has not come yet."
    found = [
        problem(f"readings.{i}.at", text, day=day(one.at.date()))
        for i, one in enumerate(given.readings)
        if one.at.date() > given.today
    ]
    found += [
        problem(f"breaks.{i}.at", text, day=day(one.at.date()))
        for i, one in enumerate(given.breaks)
        if one.at.date() > given.today
    ]
    if not given.readings:
        found.append(Problem("readings", "Enter a reading and its day."))
    return found


def _runs(given: WearInput, order: list[int]) -> list[Run]:
    days = [given.readings[i].at for i in order]
    breaks = sorted(given.breaks, key=lambda one: one.at)
    starts = [(days[0], ""), *((one.at, one.why) for one in breaks if days[0] < one.at)]
    ends = [*(at for at, _ in starts[1:]), None]
    runs = []
    for (start, why), end in zip(starts, ends, strict=True):
        own = [d for d in days if d >= start and (end is None or d < end)]
        if own or end is None:
            runs.append(Run(start=start, end=own[-1] if own else start, why=why))
    return runs


def _fitted_run(given: WearInput, order: list[int], run: Run) -> Fit:
    own = [i for i in order if given.readings[i].at >= run.start]
    first = given.readings[own[0]].at if own else run.start
    usual = given.plus_minus or USUAL_PLUS_MINUS[given.unit]
    whole = Fit(
        start=first,
        days=np.array([(given.readings[i].at - first).total_seconds() / DAY_S for i in own], dtype=np.float64),
        values=np.array([given.readings[i].value for i in own], dtype=np.float64),
        sigma=np.array([(given.readings[i].plus_minus or usual) / NORMAL_95 for i in own], dtype=np.float64),
        index=tuple(own),
    )
    return taken_together(whole) if len(own) > MOST_FITTED else whole


def _judged(given: WearInput, last: WearReading, off: bool) -> Check | None:
    if given.limit is None:
        return None
    half = last.plus_minus or given.plus_minus or USUAL_PLUS_MINUS[given.unit]
    check = judge(
        "wear_now",
        f"reading of {day(last.at.date())}",
        last.value,
        given.unit,
        high=given.limit,
        source=given.limit_source,
        plus_minus=half,
        signed=True,
    )
    return unproven(check) if off else check


def _verdict(check: Check | None) -> Verdict:
    return Verdict.NOT_JUDGED if check is None else Verdict(check.status.value)


def _reached(given: WearInput, found: Found) -> tuple[Reached | None, date | None]:
    """Between which days the limit is reached, and how far the readings carry at all."""
    line, run = found.line, found.run
    if line is None:
        return None, None
    until = run.days[-1] + CARRIES * (run.days[-1] - run.days[0])
    carries = run.on(until)
    if given.limit is None or found.why == "back":
        return None, carries
    first, last = line.crosses(given.limit)
    if first is None:
        return None, carries
    # What the line passed before anybody read it was passed by then, no matter when.
    begun = float(run.days[0])
    first, last = max(first, begun), None if last is None else max(last, begun)
    if first > until:
        return Reached(earliest=carries, likely=None, latest=None), carries
    earliest = run.on(float(np.floor(first)))
    if found.why == "flat":
        return Reached(earliest=earliest, likely=None, latest=None), carries
    middle = max((given.limit - line.level) / line.slope, begun)
    return Reached(
        earliest=earliest,
        likely=run.on(middle) if middle <= until else None,
        latest=run.on(float(np.ceil(last))) if last is not None and last <= until else None,
    ), carries


def _trend(found: Found, reached: Reached | None, carries: date | None) -> list[TrendPoint]:
    """The line and its band from the first reading to where the limit is reached at the latest, or as far as it carries."""
    line, run = found.line, found.run
    if line is None or carries is None:
        return []
    end = reached.latest if reached and reached.latest else carries
    far = max(float((end - run.start.date()).days), float(run.days[-1]))
    points = []
    for days in np.linspace(float(run.days[0]), far, DRAWN_POINTS):
        value, half = line.at(float(days))
        points.append(TrendPoint(at=run.on(float(days)), value=value, low=value - half, high=value + half))
    return points


def _thinned(readings: list[WearReading]) -> list[WearReading]:
    if len(readings) <= MOST_FITTED:
        return readings
    step = len(readings) / MOST_FITTED
    return [readings[int(i * step)] for i in range(MOST_FITTED - 1)] + [readings[-1]]
