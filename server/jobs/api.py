"""The floor, jobs, one route for all entries and one for signatures."""

import logging
from collections import Counter
from typing import Any
from uuid import UUID

from django.db.models import Count, Max, Prefetch, Q
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router, Status

from millwright.job.latest import asks_to_accept
from millwright.job.now import StepState
from millwright.roles import Deed
from server.accounts.actions import prove_identity
from server.accounts.auth import member_named, member_of, require
from server.catalogue.models import ValueRequest
from server.plant.models import Line
from server.web.described import gives
from server.web.errors import ErrorsOut, called

from .actions.append_entry import Sent, append_entry
from .actions.cancel_job import cancel_job
from .actions.sign import sign
from .actions.start_job import start_job
from .actions.take_over_job import take_over_job
from .covered import entry_seen_by
from .models import Job, Photograph, of_this_site
from .photographs import KEPT_HERE
from .schemas.entries import EntryIn, EntryOut, SignatureIn, SignatureOut
from .schemas.floor import FloorLine, HistoryJob
from .schemas.jobs import CancelIn, JobIn, JobOut, TakeOverIn
from .show import hot_hub, job_out, standing

logger = logging.getLogger(__name__)
OF_A_PAST_JOB = ("id", "number", "title", "started_at", "started_by", "closed", "cancelled_because")
router = Router(tags=["jobs"])
REFUSALS = {403: ErrorsOut, 404: ErrorsOut, 409: ErrorsOut, 422: ErrorsOut}


@router.get("", response=list[FloorLine], operation_id="floor_read", url_name="floor")
def floor(request: HttpRequest) -> object:
    """Every line of the site with its open job. Five queries, however many lines and however long their history."""
    lines = (
        Line.objects.visible_to(member_of(request))
        .only("name", "spec")
        .annotate(
            last_closed=Max("jobs__closed_at", filter=Q(jobs__cancelled_by="") & of_this_site("jobs__")),
            jobs_so_far=Count("jobs", distinct=True),
        )
    )
    in_hand = Job.objects.which_are(closed=False).select_related("site").prefetch_related("entries", "signatures")
    asked = Counter(ValueRequest.objects.waiting().filter(site=member_of(request).site).values_list("line", flat=True))
    with_jobs = lines.prefetch_related(Prefetch("jobs", queryset=in_hand, to_attr="in_hand"))
    return [_floor_line(line, asked[line.pk]) for line in with_jobs]


def _floor_line(line: Any, asked: int) -> dict[str, object]:
    job: Job | None = next(iter(line.in_hand), None)
    return {
        "id": line.id,
        "name": line.name,
        "spec": line.spec,
        "job": _in_hand(job) if job else None,
        "last_closed": line.last_closed,
        "jobs": line.jobs_so_far,
        "asked": asked,
    }


def _in_hand(job: Job) -> dict[str, object]:
    """A job on the floor; one that cannot be read takes no page down."""
    try:
        return _shown(job)
    except Exception:
        logger.exception("job %s of %s cannot be shown", job.number, job.line_id)
        return {
            "id": job.id,
            "number": job.number,
            "title": job.title,
            "read_in": job.is_paper,
            "at": None,
            "hot_hub": None,
            "held": [],
            "stages": [],
            "now": timezone.now(),
            "to_sign": [],
            "questions": 0,
            "to_accept": [],
        }


def _shown(job: Job) -> dict[str, object]:
    route, entries = job.stand(), list(job.entries.all())
    return {
        "id": job.id,
        "number": job.number,
        "title": job.title,
        "read_in": job.is_paper,
        "at": standing(route, {str(e.id): e for e in entries}),
        "hot_hub": hot_hub(route, entries),
        "held": route.held,
        "stages": list(dict.fromkeys(n.step.stage for n in route.steps)),
        "now": timezone.now(),
        "to_sign": [n.step.title for n in route.steps if n.state is StepState.TO_SIGN],
        "questions": len(route.questions),
        "to_accept": [now.step.title for q in route.questions if asks_to_accept(q) and (now := route.find(q.step))],
    }


@router.get("/of-line/{line_id}", response=list[HistoryJob], operation_id="line_jobs", url_name="line_jobs")
def of_line(request: HttpRequest, line_id: UUID) -> object:
    """The jobs of a line, the latest first."""
    jobs = Job.objects.visible_to(member_of(request)).filter(line_id=line_id).defer("spec", "card")
    return [{**{key: getattr(job, key) for key in OF_A_PAST_JOB}, "read_in": job.is_paper} for job in jobs]


@router.post("/of-line/{line_id}", response={201: JobOut, **REFUSALS}, operation_id="job_start")
def start(request: HttpRequest, line_id: UUID, payload: JobIn) -> object:
    """Start a job. 409 where the line has an open one."""
    member = member_of(request)
    line = get_object_or_404(Line.objects.visible_to(member), pk=line_id)
    job = start_job(
        line,
        by=member,
        title=payload.title.strip(),
        scope=payload.scope,
        unit=payload.unit,
        tasks=payload.tasks,
        now=timezone.now(),
    )
    return Status(201, job_out(job, member.user.shown_name))


@router.get("/{job_id}", response={200: JobOut, 404: ErrorsOut}, operation_id="job_read", url_name="job")
def read(request: HttpRequest, job_id: UUID) -> object:
    """A whole job as it stands."""
    member = member_of(request)
    jobs = Job.objects.visible_to(member).select_related("line", "site").prefetch_related("entries", "signatures")
    job = get_object_or_404(jobs, pk=job_id)
    with called(str(job)):
        return job_out(job, member.user.shown_name)


@router.post("/{job_id}/cancel", response={200: JobOut, **REFUSALS}, operation_id="job_cancel", url_name="job_cancel")
def cancel(request: HttpRequest, job_id: UUID, payload: CancelIn) -> object:
    """Cancel a job; the lead's, with a reason. It stays on record."""
    member = member_of(request)
    return job_out(cancel_job(job_id, by=member, reason=payload.reason, now=timezone.now()), member.user.shown_name)


@router.post(
    "/{job_id}/take-over",
    response={200: JobOut, **REFUSALS, 429: ErrorsOut},
    operation_id="job_take_over",
    url_name="job_take_over",
)
def take_over(request: HttpRequest, job_id: UUID, payload: TakeOverIn) -> object:
    """Take over a job that was read in from a file; the lead's, signed with the password."""
    member = member_of(request)
    require(member, Deed.TAKE_OVER_JOBS)
    get_object_or_404(Job.objects.visible_to(member), pk=job_id)
    prove_identity(request, member.user, payload.password)
    return job_out(take_over_job(job_id, by=member, now=timezone.now()), member.user.shown_name)


@router.post("/{job_id}/entries", response={201: EntryOut, **REFUSALS}, operation_id="entry_append", url_name="entries")
def enter(request: HttpRequest, job_id: UUID, payload: EntryIn) -> object:
    """Append an entry; sent again with the same id, it is the entry that stands. 409 out of turn."""
    by = member_named(request, payload.by)
    instruments = [(one.kind, one.name) for one in payload.instruments]
    sent = Sent(**payload.model_dump(exclude={"by", "instruments"}), instruments=instruments)
    return Status(201, append_entry(job_id, sent, by=by, now=timezone.now()))


@router.post(
    "/{job_id}/signatures",
    response={201: SignatureOut, **REFUSALS, 429: ErrorsOut},
    operation_id="signature_append",
    url_name="signatures",
)
def put_signature(request: HttpRequest, job_id: UUID, payload: SignatureIn) -> object:
    """Sign a hold point or authorise an over-limit value. 409 says what is stale or open."""
    by = member_named(request, payload.by)
    get_object_or_404(Job.objects.visible_to(by), pk=job_id)
    prove_identity(request, by.user, payload.password)
    given = payload.model_dump(exclude={"password", "by"})
    return Status(201, sign(job_id, now=timezone.now(), by=by, **given))


@router.get(
    "/{job_id}/photographs/{entry_id}",
    response={404: ErrorsOut},
    operation_id="photograph_read",
    url_name="photograph",
    openapi_extra=gives(KEPT_HERE),
)
def photograph(request: HttpRequest, job_id: UUID, entry_id: UUID) -> object:
    """The picture of an entry, a JPEG. It never changes."""
    mine = Photograph.objects.filter(entry__job__in=Job.objects.visible_to(member_of(request)).filter(pk=job_id))
    content = bytes(get_object_or_404(mine, pk=entry_id).content)
    return HttpResponse(content, content_type=KEPT_HERE, headers={"Cache-Control": "private, max-age=31536000, immutable"})


@router.get("/{job_id}/entries/{entry_id}", response={200: EntryOut, 404: ErrorsOut}, operation_id="entry_read")
def read_entry(request: HttpRequest, job_id: UUID, entry_id: UUID) -> object:
    """One entry. 404 as well where it is covered until a second person has answered."""
    return entry_seen_by(member_of(request), job_id, entry_id)
