"""The wear mark over the years: how far it went from its zero, since the set that is in was new."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime

from ..meaning import Of, When
from .past import KeptLine, PastJob, reads_of
from .points import Point, called

BY_STROBE_MM = 0.2  # rule of thumb: ± of a mark read by strobe as it runs
BY_RULE_MM = 0.1  # rule of thumb: ± of a mark read at rest
WAYS = {"grows": 1.0, "shrinks": -1.0}  # which way the figure at the mark goes with wear


@dataclass(frozen=True, kw_only=True)
class _Mark:
    at: datetime
    value: float
    plus_minus: float
    where: str
    job: str = ""
    is_zero: bool = False
    way: float | None = None


def worn(line: KeptLine, jobs: Sequence[PastJob], renewed: Sequence[datetime]) -> list[Point]:
    """Wear at each reading of the mark, in order of time.

    ``renewed`` - when a set was new, in UTC without a zone. Zero is what was noted as it was put in, else the first reading
    after that; where nobody noted which way the figure goes with wear, either way counts as wear.
    """
    zero: float | None = None
    way: float | None = None
    points, begun = [], list(renewed)
    for mark in sorted(_marks(line, jobs), key=lambda one: one.at):
        at = mark.at.astimezone(UTC).replace(tzinfo=None)
        if begun and at >= begun[0]:
            begun, zero, way = [one for one in begun if one > at], None, None
        if mark.is_zero or zero is None:
            zero, way = mark.value, mark.way
        gone = mark.value - zero
        wear = abs(gone) if way is None else gone * way
        points.append(Point(at=mark.at, value=wear, plus_minus=mark.plus_minus, where=mark.where, job=mark.job))
    return points


def _marks(line: KeptLine, jobs: Sequence[PastJob]) -> list[_Mark]:
    marks = [
        _Mark(
            at=read.at,
            value=value,
            plus_minus=BY_STROBE_MM if meant.when is When.AFTER_RUNNING else BY_RULE_MM,
            where=called(job),
            job=job.id,
            is_zero=meant.new,
            way=WAYS.get(str(read.inputs.get("grows"))),
        )
        for job, read in reads_of(jobs, Of.WEAR_MARK)
        if (meant := read.of(Of.WEAR_MARK)) is not None and (value := read.figure(meant.field)) is not None
    ]
    looks = (look for look in line.looks if look.wear_mm is not None)
    return [
        *marks,
        *(_Mark(at=k.at, value=k.wear_mm or 0.0, plus_minus=BY_STROBE_MM, where="round") for k in looks),
    ]
