"""What is known of a line's past: its jobs with what was read in them, and what rounds read while it ran."""

from collections.abc import Collection, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime
from functools import cached_property
from typing import Any, Literal

from pydantic import Field

from ..card.values import ValueCard
from ..line import LineSpec
from ..meaning import Meaning, Of, When
from ..model import Model, Name, PlainText
from ..scope import Scope, Task
from .meter import HOURS_A_DAY, Meter, meter_of

Leaks = Literal["none", "sweats", "drips"]
Noise = Literal["as usual", "other than usual", "bad"]
MOUNTS = (Scope.FIT, Scope.REFIT)  # jobs that put a coupling on its shafts
RENEWS = (*MOUNTS, Scope.ELEMENT)  # and those after which what wears is new


@dataclass(frozen=True, kw_only=True)
class Read:
    """A reading that counts: when it was taken, what it is of, what was entered, and what its bench said of it.

    ``step`` - the address of its sheet: it tells readings of one sheet from those of another, and nothing else
    """

    step: str
    at: datetime
    inputs: Mapping[str, Any]
    means: tuple[Meaning, ...] = ()
    bench: str = ""
    checks: Sequence[Mapping[str, Any]] = ()
    offset: tuple[float, float] | None = None  # of an alignment: up and across, mm
    by: str = ""
    title: str = ""
    stage: str = ""

    def of(self, *wanted: Of, when: Collection[When] = tuple(When)) -> Meaning | None:
        """The first of its meanings that is one of these; None where it means none of them."""
        return next((one for one in self.means if one.of in wanted and one.when in when), None)

    def figure_of(self, *wanted: Of) -> float | None:
        """The figure that is of one of these; None where none was entered."""
        meant = self.of(*wanted)
        return self.figure(meant.field) if meant else None

    def said_of(self, *wanted: Of) -> str:
        """The words that are of one of these; empty where none were entered."""
        meant = self.of(*wanted)
        return str(self.inputs.get(meant.field) or "").strip() if meant else ""

    def figure(self, key: str) -> float | None:
        """A figure that was entered; None where it was not."""
        value = self.inputs.get(key)
        return float(value) if isinstance(value, int | float) and not isinstance(value, bool) else None


@dataclass(frozen=True, kw_only=True)
class Entered:
    """When something was entered, in which stage of the work, and what it is of."""

    at: datetime
    stage: str
    means: tuple[Meaning, ...] = ()

    def is_of(self, wanted: Of) -> bool:
        """Whether it is of this."""
        return any(one.of is wanted for one in self.means)


@dataclass(frozen=True, kw_only=True)
class PastJob:
    """A job whose record was signed. ``reads`` in the order they were entered; ``moves`` when a machine was moved."""

    number: int
    scope: Scope
    started: datetime
    closed: datetime
    reads: tuple[Read, ...] = ()
    moves: tuple[datetime, ...] = ()
    times: tuple[Entered, ...] = ()  # of every entry
    title: str = ""
    id: str = ""

    def last(self, *wanted: Of, when: Collection[When] = tuple(When)) -> Read | None:
        """The last reading that is of any of these."""
        return next((read for read in reversed(self.reads) if read.of(*wanted, when=when)), None)


class Look(Model):
    """What a round reads of a line while it runs. What was not read is null."""

    at: datetime
    wear_mm: float | None = Field(default=None, ge=-500, le=500, description="at the wear mark, by strobe")
    leaks: Leaks | None = None
    noise: Noise | None = None
    temperature_c: float | None = Field(default=None, ge=-40, le=400, description="of coupling or bearing, by pyrometer")
    vibration_mm_per_s: float | None = Field(
        default=None, ge=0, le=500, description="one figure, where an instrument gives it"
    )
    hours: float | None = Field(default=None, ge=0, le=2_000_000, description="of the hour meter")
    note: PlainText = Field(default="", max_length=400)
    by: Name = ""

    @property
    def troubles(self) -> tuple[str, ...]:
        """What was not as it should be."""
        leaks = (f"leaks: {self.leaks}",) if self.leaks not in (None, "none") else ()
        return (*leaks, *((f"noise: {self.noise}",) if self.noise not in (None, "as usual") else ()))


@dataclass(frozen=True, kw_only=True)
class Postponed:
    """Something that was put off by the lead. It holds until the thing is done: ``since`` is when it was done last."""

    kind: str
    since: date | None
    until: date
    reason: str
    by: str


@dataclass(frozen=True, kw_only=True)
class KeptLine:
    """A line as it is kept: what it is, its card, what rounds read of it, what was put off.

    ``tasks``      - what a job of upkeep can be there to do on it
    ``renewed_by`` - the job after which what wears is new
    """

    spec: LineSpec
    card: ValueCard
    tasks: tuple[Task, ...] = tuple(Task)
    renewed_by: Scope = Scope.REFIT
    looks: tuple[Look, ...] = ()  # in the order of their times
    postponed: tuple[Postponed, ...] = ()

    def limit(self, key: str) -> float | None:
        """A figure of the card at the line's speed."""
        return self.card[key].at(self.spec.speed_rpm) if key in self.card else None

    @cached_property
    def meter(self) -> Meter:
        """Its hour meter as rounds read it."""
        return meter_of([(look.at, look.hours) for look in self.looks if look.hours is not None])

    def hours_a_day(self) -> tuple[float, str]:
        """How long it runs on a usual day, and where that comes from: the hour meter, the register, or nobody says."""
        if (read := self.meter.hours_a_day) is not None:
            return read, "hour meter"
        if self.spec.hours_a_day is not None:
            return self.spec.hours_a_day, "register"
        return HOURS_A_DAY, "assumed"


def reads_of(jobs: Iterable[PastJob], *wanted: Of, when: Collection[When] = tuple(When)) -> Iterator[tuple[PastJob, Read]]:
    """Every reading that is of one of these, with its job, in order of time."""
    for job in sorted(jobs, key=lambda one: one.started):
        for read in job.reads:
            if read.of(*wanted, when=when):
                yield job, read


def last_read(jobs: Iterable[PastJob], *wanted: Of, when: Collection[When] = tuple(When)) -> tuple[PastJob, Read] | None:
    """The last of them."""
    found = list(reads_of(jobs, *wanted, when=when))
    return max(found, key=lambda one: one[1].at) if found else None
