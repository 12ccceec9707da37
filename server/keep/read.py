"""A line's past as the core knows it, read from the database: a handful of queries, however many lines."""

from collections import defaultdict
from collections.abc import Iterable, Mapping
from datetime import datetime
from typing import Any
from uuid import UUID

from django.db.models import Prefetch

from millwright.card.values import stated
from millwright.job.entry import EntryKind
from millwright.keep.past import Entered, KeptLine, PastJob, Postponed, Read
from millwright.plan.upkeep import renewed_by, tasks_of
from millwright.scope import Scope
from server.jobs.means import meant_by
from server.jobs.models import Entry, Job
from server.plant.models import Line, LineLook

from .models import Postponement

# All that is asked of a reading: the figures of an alignment's sweep are not.
ALIGNMENT = "alignment"
READ = (
    "job_id",
    "number",
    "step",
    "at",
    "by",
    "result__bench",
    "result__checks",
    "asked__title",
    "asked__stage",
    "asked__means",
)
OFFSETS = ("result__offset_v_mm", "result__offset_h_mm")
TIMED = ("job_id", "at", "kind", "step", "asked__stage", "asked__means")


def kept_lines(lines: Iterable[Line]) -> dict[UUID, KeptLine]:
    """What is known of each line besides its jobs. Two queries."""
    ids = [line.pk for line in lines]
    looks: dict[UUID, list[LineLook]] = defaultdict(list)
    for look in LineLook.objects.counting().filter(line__in=ids):
        looks[look.line_id].append(look)
    put_off: dict[UUID, list[Postponement]] = defaultdict(list)
    for one in Postponement.objects.filter(line__in=ids):
        put_off[one.line_id].append(one)
    return {
        line.pk: KeptLine(
            spec=(spec := line.as_spec),
            card=stated(line.card),
            tasks=tasks_of(spec),
            renewed_by=renewed_by(spec),
            looks=tuple(look.as_core for look in looks[line.pk]),
            postponed=tuple(
                Postponed(kind=p.kind, since=p.since, until=p.until, reason=p.reason, by=p.by) for p in put_off[line.pk]
            ),
        )
        for line in lines
    }


def past_jobs(line_ids: Iterable[UUID], *, whole: bool = False, since: datetime | None = None) -> dict[UUID, list[PastJob]]:
    """The signed jobs of these lines, with every reading that counts. Three queries.

    ``since`` - only jobs closed since then
    ``whole`` - with the times of all that was entered as well, for how long it took
    """
    signed = Job.objects.counted().filter(line__in=list(line_ids)).order_by("started_at")
    jobs = list(signed if since is None else signed.filter(closed_at__gte=since))
    entered = Entry.objects.filter(job__in=jobs)
    slips = {str(entry) for entry in entered.filter(kind=EntryKind.SLIP).values_list("inputs__entry", flat=True)}
    readings = entered.filter(kind=EntryKind.READING).order_by("job_id", "number")
    if slips:
        readings = readings.exclude(pk__in=slips)
    reads: dict[UUID, list[tuple[int, Read]]] = defaultdict(list)
    for row in readings.exclude(result__bench=ALIGNMENT).values(*READ, "inputs"):
        reads[row["job_id"]].append((row["number"], _read(row, row["inputs"])))
    for row in readings.filter(result__bench=ALIGNMENT).values(*READ, *OFFSETS):
        reads[row["job_id"]].append((row["number"], _read(row, {})))
    moves: dict[UUID, list[datetime]] = defaultdict(list)
    moved = entered.filter(kind=EntryKind.MOVE)
    for key, at in (moved.exclude(pk__in=slips) if slips else moved).values_list("job_id", "at"):
        moves[key].append(at)
    times: dict[UUID, list[Entered]] = defaultdict(list)
    if whole:
        for row in entered.order_by("number").values(*TIMED):
            means = meant_by(row["step"], row["asked__means"], {}) if row["kind"] == EntryKind.READING else ()
            times[row["job_id"]].append(Entered(at=row["at"], stage=row["asked__stage"] or "", means=means))
    found: dict[UUID, list[PastJob]] = {line: [] for line in line_ids}
    for job in jobs:
        in_order = [read for _, read in sorted(reads[job.pk], key=lambda one: one[0])]
        found[job.line_id].append(
            PastJob(
                number=job.number,
                id=str(job.pk),
                title=job.title,
                scope=Scope(job.scope),
                started=job.started_at,
                closed=job.closed_at or job.started_at,
                reads=tuple(in_order),
                moves=tuple(moves[job.pk]),
                times=tuple(times[job.pk]),
            )
        )
    return found


def _read(row: Mapping[str, Any], inputs: Mapping[str, Any]) -> Read:
    up, across = row.get("result__offset_v_mm"), row.get("result__offset_h_mm")
    return Read(
        step=row["step"],
        at=row["at"],
        inputs=inputs,
        means=meant_by(row["step"], row["asked__means"], inputs),
        bench=row["result__bench"] or "",
        checks=row["result__checks"] or (),
        offset=(up, across) if isinstance(up, int | float) and isinstance(across, int | float) else None,
        by=row["by"],
        title=row["asked__title"] or row["step"],
        stage=row["asked__stage"] or "",
    )


def in_walking_order(lines: Any) -> Any:
    """The order of the round through the hall, with what each line was last read at."""
    latest = LineLook.objects.counting().order_by("line_id", "-at", "-entered_at").distinct("line_id")
    return lines.order_by("walk", "name").prefetch_related(Prefetch("looks", queryset=latest, to_attr="last_looks"))
