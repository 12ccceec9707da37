"""What a line has been through, on one page: its jobs in rows, its readings over the years, its drawings as left."""

import logging
from collections.abc import Sequence
from datetime import date, datetime
from typing import Any
from uuid import UUID

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Field, Router, Schema

from millwright.benches.register import as_dict
from millwright.benches.wear.io import WearInput
from millwright.figures_in_words import say_figure
from millwright.keep.past import PastJob
from millwright.keep.series import LEFT, Series, series_of
from millwright.keep.told import Told, told
from millwright.meaning import Of, When
from millwright.say import NOTHING
from millwright.scope import Scope
from millwright.verdict import Status
from server.accounts.auth import member_of
from server.accounts.models import Membership
from server.jobs.means import is_of
from server.jobs.models import Entry, Job
from server.plant.models import Line
from server.reports.checks import limit_of, value_of
from server.reports.drawing import drawing_of
from server.web.described import gives
from server.web.errors import ErrorsOut
from server.web.files import as_file
from server.web.words import Said

from ..aside import papers_of, sieved
from ..read import kept_lines, past_jobs
from ..rounds.looks import LookOut, may_take_out
from .as_csv import told_lines, written

logger = logging.getLogger(__name__)
router = Router(tags=["history"])
MOST_LOOKS = 200
OF_A_LOOK = tuple(LookOut.model_fields)
MISSING = {404: ErrorsOut}


class PartOut(Schema):
    """A part or set that went in or out."""

    way: str
    number: str
    fate: str


class TorqueOut(Schema):
    """A circle, and what it was pulled to."""

    what: str
    torque_nm: float
    bolts: int


class GreaseOut(Schema):
    """What was filled."""

    product: str
    grams: float | None
    batch: str


class FigureOut(Schema):
    """One judged figure of a job, as found and as left."""

    what: str
    found: Said
    left: Said
    limit: Said
    source: str = Field(description="of the limit")
    status: Status


class PastJobOut(Schema):
    """One job in a row."""

    id: UUID
    number: int
    title: str
    scope: Scope
    started: datetime
    closed: datetime
    reason: str
    found: str
    parts: list[PartOut]
    torques: list[TorqueOut]
    greases: list[GreaseOut]
    who: list[str]
    hours: dict[str, float]
    figures: list[FigureOut]


class SeriesPointOut(Schema):
    """One reading of a series, and where it was taken."""

    at: datetime
    value: float
    where: str
    job: str


class SeriesOut(Schema):
    """Readings over the years, what they were fitted from, and what they come to."""

    key: str
    title: str
    unit: str
    limit: float | None
    source: str
    points: list[SeriesPointOut]
    given: WearInput
    trend: dict[str, Any] = Field(description="what the bench `wear` says of them")


class DrawnOut(Schema):
    """Something the last job left, drawn: bolts as seated, holes as filled, marks as read."""

    title: str
    drawing: str
    drawing_title: str


class AsLeftOut(Schema):
    """How a job left the machines, drawn."""

    job: UUID
    number: int
    found: bool
    title: str
    at: datetime
    by: str
    drawing: str
    drawing_title: str
    figures: list[FigureOut]
    also: list[DrawnOut] = Field(description="what else that job left, drawn")


class AsideOut(Schema):
    """A job that is shown, and that nothing here goes by."""

    id: UUID
    number: int
    title: str
    closed: datetime
    said: str = Field(description="why: read in and not taken over, not judged here, or not to be read")


class LookSlipOut(Schema):
    """Who took a look out, and why."""

    because: str
    by: str
    at: datetime


class PastLookOut(LookOut):
    """A look of a round; one that was a slip is shown struck through."""

    slip: LookSlipOut | None
    may_take_out: bool = Field(description="whoever is signed in may say that it was a slip")


class HistoryOut(Schema):
    """A line's history."""

    name: str
    today: date
    jobs: list[PastJobOut]
    aside: list[AsideOut] = Field(description="jobs that nothing here goes by")
    series: list[SeriesOut]
    as_left: AsLeftOut | None
    looks: list[PastLookOut] = Field(description="of rounds, the latest first; not all where there are very many")


@router.get("/{line_id}", response={200: HistoryOut, **MISSING}, operation_id="history_read", url_name="history")
def read(request: HttpRequest, line_id: UUID) -> object:
    """Everything a line has been through, the latest job first."""
    member = member_of(request)
    line = get_object_or_404(Line.objects.visible_to(member), pk=line_id)
    today = timezone.localdate()
    kept, jobs = kept_lines([line])[line.pk], past_jobs([line.pk], whole=True)[line.pk]

    def shown(some: Sequence[PastJob]) -> tuple[list[Any], list[Any]]:
        rows = [_job(job, told(job)) for job in reversed(some)]
        return rows, [out for one in series_of(kept, some) if (out := _series(one, today)) is not None]

    (rows, series), broken = sieved(jobs, shown)
    return {
        "name": line.name,
        "today": today,
        "jobs": rows,
        "aside": [*papers_of([line.pk])[line.pk], *broken],
        "series": series,
        "as_left": _as_left(line),
        "looks": _looks(line, member),
    }


def _looks(line: Line, member: Membership) -> list[dict[str, Any]]:
    found = line.looks.select_related("slip").order_by("-at", "-entered_at")[:MOST_LOOKS]
    shown = [(look, getattr(look, "slip", None)) for look in found]
    return [
        {
            **{key: getattr(look, key) for key in OF_A_LOOK},
            "slip": slip,
            "may_take_out": not slip and may_take_out(look, member),
        }
        for look, slip in shown
    ]


@router.get(
    "/{line_id}/csv", response=MISSING, operation_id="history_csv", url_name="history_csv", openapi_extra=gives("text/csv")
)
def as_csv(request: HttpRequest, line_id: UUID) -> object:
    """A line's history as CSV: a row a figure, a part, a torque, a grease, a look of a round."""
    line = get_object_or_404(Line.objects.visible_to(member_of(request)), pk=line_id)
    return as_file(written(told_lines([line])), "text/csv; charset=utf-8", "history.csv")


def _job(job: PastJob, come_to: Told) -> dict[str, Any]:
    return {
        "id": job.id,
        "number": job.number,
        "title": job.title,
        "scope": job.scope,
        "started": job.started,
        "closed": job.closed,
        "reason": come_to.reason,
        "found": come_to.found,
        "parts": come_to.parts,
        "torques": come_to.torques,
        "greases": come_to.greases,
        "who": come_to.who,
        "hours": come_to.hours,
        "figures": [
            {
                "what": line.what,
                "found": NOTHING if line.found is None else say_figure(line.found, line.left["unit"]),
                "left": value_of(line.left),
                "limit": limit_of(line.left),
                "source": line.left["source"],
                "status": line.left["status"],
            }
            for line in come_to.summary
        ],
    }


def _series(one: Series, today: date) -> dict[str, Any] | None:
    trend = one.trend(today)
    if trend is None:
        return None
    return {
        "key": one.key,
        "title": one.title,
        "unit": one.unit,
        "limit": one.limit,
        "source": one.source,
        "points": one.points[-len(trend.drawn) :],
        "given": one.given(today).model_copy(update={"readings": trend.drawn}),
        "trend": as_dict(trend),
    }


def _as_left(line: Line) -> dict[str, Any] | None:
    """The last alignment a signed job left, drawn as it was read; of the last job that can be read."""
    slips = Entry.objects.filter(job__line=line).slips()
    read = Entry.objects.filter(
        is_of(Of.ALIGNMENT, when=(When.FOUND, *LEFT)), job__in=Job.objects.counted().filter(line=line)
    ).exclude(pk__in=slips)
    for entry in read.select_related("job").order_by("-job__number", "-number").distinct("job__number"):
        try:
            return _drawn_as_left(entry, slips)
        except Exception:
            logger.exception("job %s cannot be read", entry.job.number)
    return None


def _drawn_as_left(entry: Entry, slips: list[str]) -> dict[str, Any]:
    drawing = drawing_of(entry.job, entry)
    others = Entry.objects.filter(job=entry.job, kind="reading").exclude(pk__in=slips).exclude(result__bench="alignment")
    latest = others.order_by("step", "-number").distinct("step")
    also = [(one, drawn) for one in latest if (drawn := drawing_of(entry.job, one)) is not None]
    return {
        "job": entry.job_id,
        "number": entry.job.number,
        "found": any(one.when is When.FOUND for one in entry.means),
        "title": entry.asked.get("title", entry.step),
        "at": entry.at,
        "by": entry.by,
        "drawing": drawing.svg if drawing else "",
        "drawing_title": drawing.title if drawing else "",
        "figures": [
            {
                "what": c["name"],
                "found": NOTHING,
                "left": value_of(c),
                "limit": limit_of(c),
                "source": c["source"],
                "status": c["status"],
            }
            for c in (entry.result or {}).get("checks", [])
            if c["value"] is not None
        ],
        "also": [
            {"title": one.asked.get("title", one.step), "drawing": drawn.svg, "drawing_title": drawn.title}
            for one, drawn in sorted(also, key=lambda pair: pair[0].number)
        ],
    }
