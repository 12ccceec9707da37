"""Readings over the years, each in its own series: with its limit, and the breaks that nothing is fitted across."""

from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from typing import Any

from ..benches.wear import evaluate as wear
from ..benches.wear.io import Unit, WearBreak, WearInput, WearReading, WearResult
from ..card.values import source_of
from ..meaning import GOES_BACK_IN, Of, When
from ..scope import Scope
from .marks import worn
from .past import MOUNTS, RENEWS, KeptLine, Look, PastJob, Read, reads_of
from .points import Point, called

LEFT = (When.ON_THE_WAY, When.LEFT)  # before it was closed, what was read on the way is what there is
PERCENT = 100.0


@dataclass(frozen=True, kw_only=True)
class Series:
    """One thing that is read again and again over the years."""

    key: str
    title: str
    unit: Unit
    points: tuple[Point, ...]
    breaks: tuple[WearBreak, ...]
    limit: float | None = None
    source: str = ""

    def given(self, today: date) -> WearInput:
        """As its bench takes it; what a device says is of tomorrow is left to tomorrow."""
        readings = [WearReading(at=p.at, value=p.value, plus_minus=p.plus_minus) for p in self.points if p.at.date() <= today]
        return WearInput(
            readings=readings,
            breaks=[one for one in self.breaks if one.at.date() <= today],
            limit=self.limit,
            limit_source=self.source or "no limit on the card",
            unit=self.unit,
            today=today,
        )

    def trend(self, today: date) -> WearResult | None:
        """What its readings come to; None without one."""
        given = self.given(today)
        return wear.evaluate(given) if given.readings else None


def series_of(line: KeptLine, jobs: Sequence[PastJob]) -> list[Series]:
    """Every series of a line that has a reading. ``jobs`` - those that were signed."""
    made = [
        *wearing(line, jobs),
        _closed(jobs),
        *_aligned(line, jobs),
        _turned(jobs),
        _packed(line, jobs),
        _looked(line, jobs, "Temperature", "°C", lambda look: look.temperature_c, "coupling_temperature_c"),
        _looked(line, jobs, "Vibration", "mm/s", lambda look: look.vibration_mm_per_s, "vibration_mm_per_s"),
    ]
    return [one for one in made if one is not None and one.points]


def wearing(line: KeptLine, jobs: Sequence[PastJob]) -> tuple[Series, Series]:
    """What wears until it is changed: the mark, and the play. Either may have no reading yet."""
    return wear_of(line, jobs), _play(line, jobs)


def _limit(line: KeptLine, key: str) -> tuple[float | None, str]:
    return line.limit(key), source_of(line.card, key) if key in line.card else ""


def _renewed(jobs: Iterable[PastJob]) -> tuple[WearBreak, ...]:
    """When what wears was new: the old one was counted out, or a coupling was put on."""
    found = []
    for job in jobs:
        if job.scope not in RENEWS:
            continue
        out = job.last(Of.ELEMENT_OUT)
        if out is not None and (meant := out.of(Of.ELEMENT_OUT)) is not None and meant.at == GOES_BACK_IN:
            continue
        what = "new element" if job.scope is Scope.ELEMENT else "fitted"
        found.append(WearBreak(at=out.at if out else job.started, why=f"{what}, {called(job)}"))
    return tuple(found)


def wear_of(line: KeptLine, jobs: Sequence[PastJob]) -> Series:
    """How far the wear mark went from its zero."""
    renewed = _renewed(jobs)
    limit, source = _limit(line, "wear_limit_mm")
    return Series(
        key="wear",
        title="Wear at the mark",
        unit="mm",
        points=tuple(worn(line, jobs, [one.at for one in renewed])),
        breaks=renewed,
        limit=limit,
        source=source,
    )


def _play(line: KeptLine, jobs: Sequence[PastJob]) -> Series:
    points = [
        Point(at=read.at, value=value, plus_minus=None, where=called(job), job=job.id)
        for job, read in reads_of(jobs, Of.PLAY)
        if (value := read.figure_of(Of.PLAY)) is not None
    ]
    limit, source = _limit(line, "twist_limit_mm")
    return Series(
        key="play",
        title="Play by hand, at the rim",
        unit="mm",
        points=tuple(points),
        breaks=_renewed(jobs),
        limit=limit,
        source=source,
    )


def _moved(jobs: Iterable[PastJob]) -> tuple[WearBreak, ...]:
    """When a machine was moved: what was read before and after it is not one trend."""
    found = []
    for job in jobs:
        if job.scope in MOUNTS:
            found.append(WearBreak(at=job.started, why=f"fitted, {called(job)}"))
        elif job.moves:
            found.append(WearBreak(at=min(job.moves), why=f"moved, {called(job)}"))
    return tuple(found)


def _closed(jobs: Sequence[PastJob]) -> Series:
    """The spread of the closed coupling, as found and as left: of its judged spreads the largest."""
    points, limit, source = [], None, ""
    for job, read in found_and_left(jobs, Of.CLOSED_GAP):
        spreads = [c for c in read.checks if c["unit"] == "mm" and c["value"] is not None and "spread" in c["code"]]
        spreads = spreads or [c for c in read.checks if c["code"] == "ends_differ" and c["value"] is not None]
        if not spreads:
            continue
        worst = max(spreads, key=lambda c: abs(c["value"]))
        limit, source = worst["max"], worst["source"]
        points.append(_point(job, read, worst))
    return Series(
        key="closed",
        title="Spread of the closed coupling",
        unit="mm",
        points=tuple(points),
        breaks=_moved(jobs),
        limit=limit,
        source=source,
    )


def _point(job: PastJob, read: Read, check: Mapping[str, Any]) -> Point:
    half = check.get("plus_minus") or None
    return Point(at=read.at, value=abs(check["value"]), plus_minus=half, where=called(job), job=job.id)


def found_and_left(jobs: Sequence[PastJob], of: Of) -> list[tuple[PastJob, Read]]:
    """Of each job what was read as it was found, and as it was left: nothing in between."""
    return [
        (job, read)
        for job in sorted(jobs, key=lambda one: one.started)
        for when in ((When.FOUND,), LEFT)
        if (read := job.last(of, when=when)) is not None
    ]


def alignments(jobs: Sequence[PastJob]) -> list[tuple[PastJob, Read]]:
    """Of each job the alignment as it was found, and as it was left."""
    return found_and_left(jobs, Of.ALIGNMENT)


def _aligned(line: KeptLine, jobs: Sequence[PastJob]) -> list[Series]:
    """Offset and angle, as left and as found, with the ± their own readings gave them."""
    kinds: tuple[tuple[str, str, Unit], ...] = (("offset", "Offset", "mm"), ("angle", "Angularity", "mm/m"))
    made = []
    for code, title, unit in kinds:
        points, limit, source = [], None, ""
        for job, read in alignments(jobs):
            judged = [c for c in read.checks if c["code"] == code and c["value"] is not None]
            check = next((c for c in judged if c.get("against") != "running target"), None) or next(iter(judged), None)
            if check is None:
                continue
            limit, source = check["max"], check["source"]
            points.append(_point(job, read, check))
        made.append(
            Series(
                key=code,
                title=f"{title}, as left and as found",
                unit=unit,
                points=tuple(points),
                breaks=_moved(jobs),
                limit=limit,
                source=source,
            )
        )
    return made


def turned_first_round(read: Read) -> tuple[int, int] | None:
    """Of a circle that was pulled again: how many bolts still turned in the first round, of how many."""
    pulls = read.inputs.get("pulls") or ()
    bolts = read.inputs.get("bolts")
    if not pulls or not isinstance(bolts, int):
        return None
    first: dict[object, bool] = {}
    for pull in pulls:
        first.setdefault(pull["bolt"], bool(pull.get("moved")))
    return sum(first.values()), bolts


def _turned(jobs: Sequence[PastJob]) -> Series:
    """Bolts that still turned when they were pulled again, all circles of a job together."""
    points = []
    for job in sorted(jobs, key=lambda one: one.started):
        pulled = [read for read in job.reads if read.of(Of.PULL, when=(When.AFTER_RUNNING,))]
        counted = [turned for read in pulled if (turned := turned_first_round(read)) is not None]
        if counted:
            at = max(read.at for read in pulled)
            share = PERCENT * sum(t for t, _ in counted) / sum(of for _, of in counted)
            points.append(Point(at=at, value=share, plus_minus=None, where=called(job), job=job.id))
    return Series(
        key="turned",
        title="Bolts that still turned when pulled again",
        unit="%",
        points=tuple(points),
        breaks=_renewed(jobs),
    )


@dataclass(frozen=True, kw_only=True)
class Turned:
    """How far the packing nuts were turned in all since the rings were new, at one time.

    ``new`` - whether the rings were new then
    """

    job: PastJob
    read: Read
    total_deg: float
    new: bool


def packing_turned(jobs: Sequence[PastJob]) -> list[Turned]:
    """Each time the packing nuts were followed up, in order of time."""
    found: list[Turned] = []
    turned = 0.0
    for job, read in reads_of(jobs, Of.PACKING):
        meant = read.of(Of.PACKING)
        new = meant is not None and meant.new
        turned = (0.0 if new else turned) + (read.figure_of(Of.PACKING) or 0.0)
        found.append(Turned(job=job, read=read, total_deg=turned, new=new))
    return found


def _packed(line: KeptLine, jobs: Sequence[PastJob]) -> Series:
    times = packing_turned(jobs)
    limit, source = _limit(line, "packing_total_deg")
    return Series(
        key="packing",
        title="Packing nuts turned since the rings were new",
        unit="°",
        points=tuple(
            Point(at=one.read.at, value=one.total_deg, plus_minus=None, where=called(one.job), job=one.job.id)
            for one in times
        ),
        breaks=tuple(WearBreak(at=one.read.at, why=f"new rings, {called(one.job)}") for one in times if one.new),
        limit=limit,
        source=source,
    )


def _looked(
    line: KeptLine, jobs: Sequence[PastJob], title: str, unit: Unit, read: Callable[[Look], float | None], limit_key: str
) -> Series:
    """One figure of the rounds; a job that worked on the line is a break."""
    points = tuple(
        Point(at=look.at, value=value, plus_minus=None, where="round")
        for look in line.looks
        if (value := read(look)) is not None
    )
    worked = tuple(WearBreak(at=job.closed, why=f"worked on, {called(job)}") for job in jobs if job.scope is not Scope.CHECK)
    limit, source = _limit(line, limit_key)
    return Series(
        key=title.lower(), title=f"{title} as it runs", unit=unit, points=points, breaks=worked, limit=limit, source=source
    )
