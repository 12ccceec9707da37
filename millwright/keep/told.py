"""What a job comes to, years later: why it was needed, what went in and out, what was pulled and filled, how long it took."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import timedelta
from itertools import pairwise

from ..meaning import Of, When
from .past import PastJob, Read
from .series import alignments
from .summary import Read as Summed
from .summary import SummaryLine, summary

LONGEST_AT_ONE_STEP = timedelta(hours=4)  # rule of thumb: more than that between two entries, and nobody was there
HOUR_S = 3600.0


@dataclass(frozen=True, kw_only=True)
class PartTold:
    """A part or set that went in or out, by its number; ``fate`` of what came out."""

    way: str  # "in" or "out"
    number: str
    fate: str = ""


@dataclass(frozen=True, kw_only=True)
class TorqueTold:
    """A circle and what it was pulled to."""

    what: str
    torque_nm: float
    bolts: int


@dataclass(frozen=True, kw_only=True)
class GreaseTold:
    """What was filled."""

    product: str
    grams: float | None
    batch: str


@dataclass(frozen=True, kw_only=True)
class Told:
    """One job in a row of the line's history."""

    reason: str
    found: str
    parts: tuple[PartTold, ...]
    torques: tuple[TorqueTold, ...]
    greases: tuple[GreaseTold, ...]
    who: tuple[str, ...]
    hours: Mapping[str, float]  # by stage
    summary: tuple[SummaryLine, ...]


def told(job: PastJob) -> Told:
    """What one job comes to. ``job`` - with everything that was read in it."""
    why = job.last(Of.REASON)
    return Told(
        reason=reason_of(job),
        found=str(why.inputs.get("found") or "") if why else "",
        parts=tuple(_parts(job)),
        torques=tuple(_torques(job)),
        greases=tuple(_greases(job)),
        who=tuple(dict.fromkeys(read.by for read in job.reads if read.by)),
        hours=hours_by_stage(job),
        summary=tuple(summary(_summed(read) for read in job.reads)),
    )


def reason_of(job: PastJob) -> str:
    """What a job came from; empty where it is older than the question."""
    why = job.last(Of.REASON)
    return str(why.inputs.get("cause", "")) if why else ""


def _summed(read: Read) -> Summed:
    return Summed(step=read.step, title=read.title, result={"bench": read.bench, "checks": list(read.checks)})


def _parts(job: PastJob) -> list[PartTold]:
    found = []
    old = job.last(Of.ELEMENT_OUT)
    if old is not None:
        found.append(PartTold(way="out", number=str(old.inputs.get("number") or ""), fate=str(old.inputs.get("fate") or "")))
    last = {read.step: read for read in job.reads if read.of(Of.ELEMENT_IN)}
    return found + [PartTold(way="in", number=number) for read in last.values() if (number := read.said_of(Of.ELEMENT_IN))]


def _latest(job: PastJob, bench: str) -> list[Read]:
    """Of every step on this bench the last reading, in the order they were begun."""
    kept: dict[str, Read] = {}
    for read in job.reads:
        if read.bench == bench:
            kept[read.step] = read
    return list(kept.values())


def _torques(job: PastJob) -> list[TorqueTold]:
    return [
        TorqueTold(what=read.title, torque_nm=float(read.inputs["torque_nm"]), bolts=int(read.inputs["bolts"]))
        for read in _latest(job, "tighten")
        if "torque_nm" in read.inputs and "bolts" in read.inputs
    ]


def _greases(job: PastJob) -> list[GreaseTold]:
    return [
        GreaseTold(
            product=str(read.inputs.get("product") or ""),
            grams=read.figure("grams"),
            batch=str(read.inputs.get("batch") or ""),
        )
        for read in _latest(job, "grease")
    ]


def hours_by_stage(job: PastJob) -> dict[str, float]:
    """Hours from lock-out to guard, by stage: the time up to an entry is that entry's stage's.

    Source: the entries' own times. What is longer than `LONGEST_AT_ONE_STEP` counts as nothing: a night, a break.
    """
    begun = next((i for i, entered in enumerate(job.times) if entered.is_of(Of.LOCKED_OUT)), None)
    ends = [i for i, entered in enumerate(job.times) if entered.is_of(Of.GUARD_ON)]
    if begun is None or not ends:
        return {}
    found: dict[str, float] = {}
    before = job.times[begun].at
    for entered in job.times[begun : ends[-1] + 1]:
        took = entered.at - before
        if took <= LONGEST_AT_ONE_STEP:
            found[entered.stage] = found.get(entered.stage, 0.0) + took.total_seconds() / HOUR_S
        before = entered.at
    return found


@dataclass(frozen=True, kw_only=True)
class Wandered:
    """An alignment as one job left it, and as the next one found it."""

    left_in: int
    found_in: int
    by_mm: float
    plus_minus_mm: float | None
    moved: bool | None  # further than its ±; None where nobody can tell


def wandered(jobs: Sequence[PastJob]) -> list[Wandered]:
    """How far each alignment went between being left and being found: as a whole, up and across together.

    Source: geometry, the distance between the two offsets. It is told to have moved where that is more than both ± together.
    """
    read = alignments(jobs)
    found = []
    for (left_job, left), (found_job, later) in pairwise(read):
        if (
            left_job is found_job
            or not later.of(Of.ALIGNMENT, when=(When.FOUND,))
            or left.offset is None
            or later.offset is None
        ):
            continue
        by = ((left.offset[0] - later.offset[0]) ** 2 + (left.offset[1] - later.offset[1]) ** 2) ** 0.5
        halves = [_plus_minus(one) for one in (left, later)]
        known = [half for half in halves if half is not None]
        both = sum(half**2 for half in known) ** 0.5 if len(known) == len(halves) else None
        moved = None if both is None else by > both
        found.append(Wandered(left_in=left_job.number, found_in=found_job.number, by_mm=by, plus_minus_mm=both, moved=moved))
    return found


def _plus_minus(read: Read) -> float | None:
    return next((c["plus_minus"] for c in read.checks if c["code"] == "offset" and c.get("plus_minus") is not None), None)
