"""The record of a job: as a structure, as PDF, as JSON; and jobs read in from JSON."""

from contextlib import suppress
from uuid import UUID

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router, Status

from millwright.clock import ClockReading
from millwright.csv_readings import write_csv
from millwright.errors import Problem, UnusableInput
from millwright.job.new_entry import OutOfTurn
from server.accounts.auth import member_of
from server.jobs.covered import entry_seen_by, waits_for_the_second
from server.jobs.models import Job
from server.jobs.schemas.jobs import JobOut
from server.jobs.show import job_out
from server.web.described import gives
from server.web.errors import CannotBeShown, ErrorsOut, called
from server.web.files import as_file

from .exchange import read_job
from .figures import figures_of, rings_of
from .issue import shown
from .job_file import write_job
from .pdf import record_pdf
from .record_shape import FigureLine, RecordOut

router = Router(tags=["records"])
MOST_BYTES = 64_000_000
MISSING = {404: ErrorsOut}


def _job(request: HttpRequest, job_id: UUID) -> Job:
    mine = Job.objects.visible_to(member_of(request)).select_related("line", "site")
    return get_object_or_404(mine.prefetch_related("entries", "signatures"), pk=job_id)


@router.get("/{job_id}", response={200: RecordOut, **MISSING}, operation_id="record_read", url_name="record")
def read(request: HttpRequest, job_id: UUID) -> object:
    """The record as it stands; of a closed job as it was issued."""
    job = _job(request, job_id)
    with called(f"The record of job {job.number}"):
        return shown(job)


@router.get(
    "/{job_id}/pdf",
    response=MISSING,
    operation_id="record_pdf",
    url_name="record_pdf",
    openapi_extra=gives("application/pdf"),
)
def pdf(request: HttpRequest, job_id: UUID) -> object:
    """The record on paper."""
    job = _job(request, job_id)
    with called(f"The record of job {job.number}"):
        return as_file(record_pdf(job), "application/pdf", f"job-{job.number}.pdf")


@router.get(
    "/{job_id}/json",
    response={**MISSING, 409: ErrorsOut},
    operation_id="record_json",
    url_name="record_json",
    openapi_extra=gives("application/json"),
)
def as_json(request: HttpRequest, job_id: UUID) -> object:
    """The job as a JSON file that another installation reads. 409 while it would show one of two people what the other
    answered."""
    job = _job(request, job_id)
    with suppress(CannotBeShown), called(f"Job {job.number}"):  # one that cannot be shown is had as a file still
        if waits := waits_for_the_second(job.stand()):
            raise OutOfTurn(waits)
    return as_file(write_job(job), "application/json", f"job-{job.number}.json")


@router.get(
    "/{job_id}/entries/{entry_id}",
    response={200: list[FigureLine], **MISSING},
    operation_id="entry_figures",
    url_name="entry_figures",
)
def entry_figures(request: HttpRequest, job_id: UUID, entry_id: UUID) -> object:
    """Every figure of an entry in words, as the record has it."""
    return figures_of(entry_seen_by(member_of(request), job_id, entry_id))


@router.get(
    "/{job_id}/entries/{entry_id}/csv",
    response={**MISSING, 422: ErrorsOut},
    operation_id="entry_csv",
    url_name="entry_csv",
    openapi_extra=gives("text/csv"),
)
def entry_csv(request: HttpRequest, job_id: UUID, entry_id: UUID, dial: int = 0) -> object:
    """The clock readings of an entry as CSV; ``dial`` says which, where there are several."""
    entry = entry_seen_by(member_of(request), job_id, entry_id)
    rings = list(rings_of(entry).values())
    if not 0 <= dial < len(rings):
        raise UnusableInput(Problem("entry", "This entry holds no clock readings."))
    found = [ClockReading(clock=float(r["clock"]), value_mm=float(r["value_mm"])) for r in rings[dial]]
    return as_file(write_csv(found), "text/csv; charset=utf-8", "readings.csv")


@router.post(
    "",
    response={201: JobOut, 403: ErrorsOut, 409: ErrorsOut, 422: ErrorsOut},
    operation_id="record_import",
    url_name="records",
    openapi_extra={"requestBody": {"content": {"application/json": {"schema": {"type": "object"}}}}},
)
def read_in(request: HttpRequest) -> object:
    """Read a job file in, all of it or nothing; 422 says where it is wrong."""
    content = request.read(MOST_BYTES + 1)  # past the limit of every other body: what the app wrote itself can be read
    if len(content) > MOST_BYTES:
        raise UnusableInput(Problem("file", f"This file is over {MOST_BYTES // 1_000_000} MB."))
    member = member_of(request)
    return Status(201, job_out(read_job(content, by=member, now=timezone.now()), member.user.shown_name))
