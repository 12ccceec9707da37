"""The run of a hot hub: what happened when, how long it may be carried and how soon it grips, from the events alone."""

import json
import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import datetime, timedelta
from enum import StrEnum
from typing import Any

from ..benches.heat.cooling import TOUCH_C, Cooling, HubReading, fit_cooling
from ..benches.heat.evaluate import evaluate, seat_of
from ..benches.heat.io import HeatInput, HeatResult
from ..benches.heat.slide import grips
from ..model import read_json
from ..plan.hubs.phases import MOUNTED, NEXT, SOONEST_COLD, HeatEvent, Next, Phase, after_event
from ..plan.steps import Cools
from .entry import Entry, EntryKind, happened, in_time

STILL_COUNTS = timedelta(minutes=1)  # a reading taken on the heater this shortly before it left says how hot it left
SAYS_HOW_IT_COOLS = timedelta(minutes=10)  # from touching the shaft: until then it soaks heat up, and readings fall too fast
READ_C = 0.5  # a pyrometer shows whole degrees


class Until(StrEnum):
    """What is waited for, the most pressing first."""

    GRIPS = "hub grips"
    CARRIED = "carry ends"
    HOT = "hub is hot"
    COLD = "hub is cold"


class Ready(StrEnum):
    """Whether it may leave the heater, by what was read on it last."""

    GO = "go"
    WAIT = "wait"
    SOAK = "soak"
    READ = "read it"
    OVER = "over its ceiling"


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
    ready: Ready | None = None  # while it is on the heater
    ready_until: datetime | None = None  # then the last reading is too old to say so
    soaked_at: datetime | None = None  # it has been kept at its temperature for as long as was asked
    carry_until: datetime | None = None  # from then on it leaves too little time to push it to the stop
    closes_at: datetime | None = None  # in still air the bore is down to the shaft
    grips_from: datetime | None = None  # on the shaft it may grip from then on
    grips_by: datetime | None = None  # and has gripped by then
    touch_at: datetime | None = None  # a bare hand can rest on it
    hub_c: float | None = None  # as last read
    hub_read_at: datetime | None = None
    clear_mm: float | None = None  # at the last reading; None once it is on the shaft, which draws its heat
    heating_s: float | None = None  # what it takes on the heater; None where nobody said what heater
    carry_s: float | None = None  # what the carry may take
    window_s: float | None = None  # how long it stays open in still air
    grips_least_s: float | None = None  # from touching the shaft, after the carry that was planned
    grips_most_s: float | None = None
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
                until, at = Until.CARRIED, self.carry_until or self.closes_at
            case Phase.ON if self.grips_from is not None:
                until, at = Until.GRIPS, self.grips_from
            case Phase.ON | Phase.GRIPPED:
                until, at = Until.COLD, self.touch_at
            case _:
                return None
        return (until, at) if at is not None else None


@dataclass(frozen=True, kw_only=True)
class _Read:
    """One temperature reading and where the hub was."""

    at: datetime
    hub_c: float
    phase: Phase


@dataclass(kw_only=True)
class _Log:
    """The temperatures read in the present try."""

    read: list[_Read] = field(default_factory=list)

    def of(self, *phases: Phase) -> list[_Read]:
        """Those taken while the hub was there."""
        return [one for one in self.read if one.phase in phases]


def stand_run(plan: HeatInput, events: Sequence[Entry]) -> HeatRun:
    """Where a run stands after these events, in the order of their numbers.

    An event says how many seconds before it was sent it happened, so that a device that had no network, or whose
    clock is wrong, does not shift the time. Source of the prediction: the plan's cooling, corrected by what was read in
    the air; on the shaft the two lumps of the slide.
    """
    worked_out = evaluate(plan)
    run = HeatRun(
        phase=Phase.COLD,
        tries=0,
        target_c=worked_out.heat_to_c,
        closes_at_c=worked_out.closes_at_c,
        ceiling_c=worked_out.ceiling_lowest_c,
        heating_s=worked_out.heating_s,
        carry_s=worked_out.carry_most_s,
        window_s=worked_out.window_s,
        grips_least_s=worked_out.grips_s.least,
        grips_most_s=worked_out.grips_s.most,
        cooling_s=worked_out.cool_to_touch_s,
    )
    log = _Log()
    for at, event in ((happened(e), HeatEvent.model_validate(e.inputs)) for e in in_time(events)):
        if event.event == "hub temperature":
            log.read.append(_Read(at=at, hub_c=float(event.hub_c or 0.0), phase=run.phase))
        elif (phase := after_event(run.phase, event.event)) is not None:  # said twice, the first time counts
            run = replace(run, phase=phase, **_times(run, phase, at))
            log = _Log() if phase in (Phase.COLD, Phase.HEATING) else log
    hottest = max((float(e.inputs["hub_c"]) for e in events if e.inputs.get("hub_c") is not None), default=run.ceiling_c)
    run = replace(run, too_hot_c=hottest if hottest > run.ceiling_c else None)
    return _with_prediction(_with_heater(run, plan, log), plan, worked_out, log)


def _times(run: HeatRun, phase: Phase, at: datetime) -> dict[str, Any]:
    """What coming into a phase sets of the run's times."""
    match phase:
        case Phase.HEATING:
            return {"heating_since": at, "out_at": None, "on_at": None}
        case Phase.OUT:
            return {"out_at": at, "on_at": None, "tries": run.tries + 1}
        case Phase.ON:
            return {"on_at": at if run.out_at is None else max(at, run.out_at)}
        case Phase.COLD:
            return {"heating_since": None, "out_at": None, "on_at": None}
        case Phase.GRIPPED:
            return {}


def _with_heater(run: HeatRun, plan: HeatInput, log: _Log) -> HeatRun:
    """Whether it may leave the heater: hot enough, not too hot, soaked, and read a moment ago."""
    if run.phase is not Phase.HEATING or run.heating_since is None:
        return run
    if run.heating_s is not None:
        run = replace(run, ready_at=run.heating_since + timedelta(seconds=run.heating_s))
    read = log.of(Phase.HEATING)
    if not read:
        return replace(run, ready=Ready.READ)
    last, hot_since = read[-1], None
    for one in reversed(read):
        if one.hub_c < run.target_c - READ_C:
            break
        hot_since = one.at
    soaked = None if hot_since is None else hot_since + timedelta(seconds=plan.soak_s or 0.0)
    if last.hub_c > run.ceiling_c:
        ready = Ready.OVER
    elif hot_since is None:
        ready = Ready.WAIT
    else:
        ready = Ready.SOAK if plan.soak_s and soaked is not None and last.at < soaked else Ready.GO
    return replace(run, ready=ready, ready_until=last.at + STILL_COUNTS, soaked_at=soaked)


def _with_prediction(run: HeatRun, plan: HeatInput, worked_out: HeatResult, log: _Log) -> HeatRun:
    if log.read:
        last = log.read[-1]
        per_k = plan.bore_mm * plan.hub.metal.expansion_per_k
        clear = None if run.phase in MOUNTED else per_k * (last.hub_c - worked_out.closes_at_c)
        run = replace(run, hub_c=last.hub_c, hub_read_at=last.at, clear_mm=clear)
    if (out_at := run.out_at) is None:
        return run
    cooling = _cooling(plan, worked_out, _in_air(log, out_at))
    still = cooling.reaches_s(TOUCH_C)
    touch = _touch(run, out_at, still, plan, worked_out.tau_s, log.of(*MOUNTED))
    carry = None if worked_out.push_from_c is None else cooling.reaches_s(worked_out.push_from_c)
    run = replace(
        run,
        carry_until=_after(out_at, carry),
        closes_at=_after(out_at, cooling.reaches_s(worked_out.closes_at_c)),
        touch_at=touch,
    )
    if run.on_at is None:
        return run
    times = grips(seat_of(plan), round(cooling.at_c((run.on_at - out_at).total_seconds()), 1))
    return replace(run, grips_from=_after(run.on_at, times.least), grips_by=_after(run.on_at, times.most))


def _after(start: datetime, seconds: float | None) -> datetime | None:
    return None if seconds is None else start + timedelta(seconds=seconds)


def _in_air(log: _Log, out_at: datetime) -> list[HubReading]:
    """Readings in the air since it left the heater; the last one on the heater, shortly before, as what it left with."""
    before = [one.hub_c for one in log.of(Phase.HEATING) if out_at - STILL_COUNTS <= one.at <= out_at]
    left_with = [HubReading(after_s=0.0, hub_c=before[-1])] if before else []
    air = [one for one in log.of(Phase.OUT) if one.at >= out_at]
    return left_with + [HubReading(after_s=(one.at - out_at).total_seconds(), hub_c=one.hub_c) for one in air]


def _cooling(plan: HeatInput, worked_out: HeatResult, readings: list[HubReading]) -> Cooling:
    """Through what was read in the air, with the plan's time constant as far as that says no other; else the plan's own."""
    fitted = fit_cooling(readings, plan.ambient_c, worked_out.tau_s)
    return fitted or Cooling(start_c=worked_out.heat_to_c, ambient_c=plan.ambient_c, tau_s=worked_out.tau_s)


def _touch(
    run: HeatRun, out_at: datetime, still_s: float | None, plan: HeatInput, tau_s: float, on_shaft: list[_Read]
) -> datetime | None:
    """When a bare hand can rest on it. Readings on the shaft may lengthen what still air takes and never shorten it, until
    one shows that it is cold: the shaft draws heat for minutes and then gives it back.
    """
    still, reach = _after(out_at, still_s), TOUCH_C - plan.ambient_c
    if still is None or reach <= 0:
        return still
    cold = next((one for one in on_shaft if one.hub_c <= TOUCH_C and is_believed(out_at, still, one.at)), None)
    if cold is not None:
        return cold.at
    soaked = [one for one in on_shaft if run.on_at is not None and one.at - run.on_at > SAYS_HOW_IT_COOLS]
    warm = [one for one in soaked if one.hub_c > TOUCH_C]
    if not warm:
        return still
    first, last = warm[0], warm[-1]
    fell = math.log((first.hub_c - plan.ambient_c) / (last.hub_c - plan.ambient_c))
    own_tau = max(tau_s, (last.at - first.at).total_seconds() / fell) if fell > 0 else tau_s
    return max(still, last.at + timedelta(seconds=own_tau * math.log((last.hub_c - plan.ambient_c) / reach)))


def is_believed(out_at: datetime, touch_at: datetime, at: datetime) -> bool:
    """Whether a hub can be cold by then: not long before still air lets it be, whatever a pyrometer on bright metal shows."""
    return at - out_at >= (touch_at - out_at) * SOONEST_COLD


def cooling_of(
    answers: Mapping[str, Mapping[str, Any]], entries: Sequence[Entry], now: datetime | None, plan: str, run: str
) -> Cools | None:
    """How a hub of this job cools that left the heater; None where none did or it never gets cold, or without a clock."""
    events = [entry for entry in entries if entry.kind is EntryKind.EVENT and entry.step == run]
    if plan not in answers or not events or now is None:
        return None
    given = read_json(HeatInput, json.dumps(answers[plan]))
    stands = stand_run(given, events)
    if stands.out_at is None or stands.touch_at is None:
        return None
    since_s = (now - stands.out_at).total_seconds()
    worked_out = evaluate(given)
    cooling = Cooling(start_c=worked_out.heat_to_c, ambient_c=given.ambient_c, tau_s=worked_out.tau_s)
    takes_s = (stands.touch_at - stands.out_at).total_seconds()
    return Cools(since_s=since_s, takes_s=takes_s, about_c=cooling.at_c(since_s))
