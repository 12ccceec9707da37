"""The run of a hot hub: what happened when, and how long it may be carried, from the events alone."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from enum import StrEnum
from typing import Any

from ...mounting.cooling import TOUCH_C, Cooling, HubReading, fit_cooling
from ...mounting.heat import HeatInput, HeatResult, evaluate
from ..state import Entry, happened, in_time
from .phases import MOUNTED, NEXT, HeatEvent, Next, Phase, after_event

STILL_COUNTS = timedelta(minutes=1)  # a reading taken on the heater this shortly before it left says how hot it left


class Until(StrEnum):
    """What is waited for, the most pressing first."""

    CARRIED = "carry ends"
    HOT = "hub is hot"
    COLD = "hub is cold"


@dataclass(frozen=True, kw_only=True)
class HeatRun:
    """A run as it stands. Times None where that has not happened, or never will."""

    phase: Phase
    tries: int
    target_c: float
    closes_at_c: float
    heating_since: datetime | None = None
    out_at: datetime | None = None
    on_at: datetime | None = None
    ceiling_c: float
    too_hot_c: float | None = None  # the hottest it was ever read, where that is over its ceiling
    closes_at: datetime | None = None  # in still air the bore is down to the shaft; on the shaft it grips in seconds
    touch_at: datetime | None = None  # a bare hand can rest on it
    hub_c: float | None = None  # as last read
    hub_read_at: datetime | None = None
    clear_mm: float | None = None  # at the last reading; None once it is on the shaft, which draws its heat
    heating_s: float | None = None  # what it takes on the heater; None where nobody said what heater
    window_s: float | None = None  # what the carry may take
    cooling_s: float | None = None  # until a bare hand can rest on it
    ready_at: datetime | None = None  # on the heater since it went on

    @property
    def may(self) -> Mapping[Phase, tuple[Next, ...]]:
        """What may happen in each phase, the one expected first: a device that waits for its server goes on by it."""
        return NEXT

    @property
    def waits(self) -> tuple[Until, datetime] | None:
        """What is waited for now and when it comes, where that is known."""
        match self.phase:
            case Phase.HEATING:
                until, at = Until.HOT, self.ready_at
            case Phase.OUT:
                until, at = Until.CARRIED, self.closes_at
            case Phase.ON | Phase.GRIPPED:
                until, at = Until.COLD, self.touch_at
            case _:
                return None
        return (until, at) if at is not None else None


def stand_run(plan: HeatInput, events: Sequence[Entry]) -> HeatRun:
    """Where a run stands after these events, in the order of their numbers.

    An event says how many seconds before it was sent it happened, so that a device that had no network, or whose
    clock is wrong, does not shift the time. Source of the prediction: the plan's cooling, corrected by what was read.
    """
    worked_out = evaluate(plan)
    run = HeatRun(
        phase=Phase.COLD,
        tries=0,
        target_c=worked_out.target_c,
        closes_at_c=worked_out.closes_at_c,
        ceiling_c=worked_out.ceiling_lowest_c,
        heating_s=worked_out.heating_s,
        window_s=worked_out.window_s,
        cooling_s=worked_out.cool_to_touch_s,
    )
    read: list[tuple[datetime, float]] = []
    for at, event in ((happened(e), HeatEvent.model_validate(e.inputs)) for e in in_time(events)):
        if event.event == "hub temperature":
            read.append((at, float(event.hub_c or 0.0)))
        elif (phase := after_event(run.phase, event.event)) is not None:  # said twice, the first time counts
            run = replace(run, phase=phase, **_times(run, phase, at))
            read = [] if phase in (Phase.COLD, Phase.HEATING) else read
    hottest = max((float(e.inputs["hub_c"]) for e in events if e.inputs.get("hub_c") is not None), default=run.ceiling_c)
    run = replace(run, too_hot_c=hottest if hottest > run.ceiling_c else None)
    return _with_prediction(run, plan, worked_out, read)


def _times(run: HeatRun, phase: Phase, at: datetime) -> dict[str, Any]:
    """What coming into a phase sets of the run's times."""
    match phase:
        case Phase.HEATING:
            return {"heating_since": at, "out_at": None, "on_at": None}
        case Phase.OUT:
            return {"out_at": at, "on_at": None, "tries": run.tries + 1}
        case Phase.ON:
            return {"on_at": at}
        case Phase.COLD:
            return {"heating_since": None, "out_at": None, "on_at": None}
        case Phase.GRIPPED:
            return {}


def _with_prediction(run: HeatRun, plan: HeatInput, worked_out: HeatResult, read: list[tuple[datetime, float]]) -> HeatRun:
    if read:
        at, hub = read[-1]
        per_k = plan.bore_mm * plan.hub.metal.expansion_per_k
        on_the_shaft = run.phase in MOUNTED
        clear = None if on_the_shaft else per_k * (hub - worked_out.closes_at_c)
        run = replace(run, hub_c=hub, hub_read_at=at, clear_mm=clear)
    if run.heating_since is not None and run.heating_s is not None and run.phase is Phase.HEATING:
        run = replace(run, ready_at=run.heating_since + timedelta(seconds=run.heating_s))
    if run.out_at is None:
        return run
    cooling = _cooling(plan, worked_out, _after_it_left(read, run.out_at))
    closes, touch = cooling.reaches_s(worked_out.closes_at_c), cooling.reaches_s(TOUCH_C)
    return replace(
        run,
        closes_at=None if closes is None else run.out_at + timedelta(seconds=closes),
        touch_at=None if touch is None else run.out_at + timedelta(seconds=touch),
    )


def _after_it_left(read: list[tuple[datetime, float]], out_at: datetime) -> list[HubReading]:
    """Readings since it left the heater; the last one before counts as the one it left with."""
    before = [c for at, c in read if out_at - STILL_COUNTS <= at < out_at]
    left_with = [HubReading(after_s=0.0, hub_c=before[-1])] if before else []
    return left_with + [HubReading(after_s=(at - out_at).total_seconds(), hub_c=c) for at, c in read if at >= out_at]


def _cooling(plan: HeatInput, worked_out: HeatResult, readings: list[HubReading]) -> Cooling:
    """Through two readings or more; through one with the plan's time constant; else the plan's own."""
    fitted = fit_cooling(readings, plan.ambient_c)
    if fitted is not None:
        return fitted
    start = worked_out.target_c
    if readings and readings[-1].hub_c > plan.ambient_c:
        last = readings[-1]
        start = plan.ambient_c + (last.hub_c - plan.ambient_c) * math.exp(last.after_s / worked_out.tau_s)
    return Cooling(start_c=start, ambient_c=plan.ambient_c, tau_s=worked_out.tau_s)
