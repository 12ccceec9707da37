"""The door for instruments that stream: a laser's readings for the step they are taken in, and what has come so far."""

from datetime import datetime, timedelta
from uuid import UUID

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Field, Router, Schema, Status

from millwright.benches.alignment.stream import read_lines
from millwright.errors import Problem, UnusableInput
from millwright.job.new_entry import OutOfTurn
from millwright.plan.steps import BenchForm
from server.accounts.auth import member_of
from server.web.errors import ErrorsOut

from .models import Job, StreamReading

router = Router(tags=["streams"])

STILL_SENDING = timedelta(seconds=10)  # a device that was heard of this lately holds its place
MOST_KEPT = 20_000


class TakenOut(Schema):
    """What became of the lines that were sent."""

    taken: int
    repeated: int


class StreamedOut(Schema):
    """One reading as it came."""

    id: int
    plane: int
    clock: float
    value_mm: float


class StreamOut(Schema):
    """What has come since, from which device, and when the last of it came."""

    readings: list[StreamedOut]
    device: str
    last_at: datetime | None
    now: datetime = Field(description="the server's clock")


def _job(request: HttpRequest, job_id: UUID) -> Job:
    return get_object_or_404(Job.objects.visible_to(member_of(request)), pk=job_id)


@router.post(
    "/{job_id}/streams/{step}",
    response={201: TakenOut, 404: ErrorsOut, 409: ErrorsOut, 422: ErrorsOut},
    operation_id="stream_append",
    url_name="stream",
    openapi_extra={"requestBody": {"content": {"application/x-ndjson": {"schema": {"type": "string"}}}}},
)
def append(request: HttpRequest, job_id: UUID, step: str) -> object:
    """Take JSON lines from an instrument. All or none; a line sent twice counts once. 409 where another one is sending."""
    job = _job(request, job_id)
    now = job.stand().find(step)
    if now is None or not isinstance(now.step.form, BenchForm) or now.step.form.bench != "alignment":
        raise UnusableInput(Problem("step", "A laser is read where the machines are aligned."))
    try:
        lines = read_lines(request.body.decode())
    except UnicodeDecodeError:
        raise UnusableInput(Problem("lines", "This is not text in UTF-8.")) from None
    device, here = lines[0].device, job.stream.filter(step=step)
    lately = here.filter(at__gt=timezone.now() - STILL_SENDING).exclude(device=device).first()
    if lately is not None:
        raise OutOfTurn(f"{lately.device} is sending for this step. Put one of the two away.")
    if here.count() + len(lines) > MOST_KEPT:
        raise OutOfTurn("The sweep is full. Start it anew.")
    before = here.count()
    StreamReading.objects.bulk_create(
        [StreamReading(job=job, step=step, at=timezone.now(), **line.model_dump()) for line in lines], ignore_conflicts=True
    )
    taken = here.count() - before
    return Status(201, {"taken": taken, "repeated": len(lines) - taken})


@router.get("/{job_id}/streams/{step}", response={200: StreamOut, 404: ErrorsOut}, operation_id="stream_read")
def read(request: HttpRequest, job_id: UUID, step: str, after: int = 0) -> object:
    """The readings that came after the one of that id."""
    here = _job(request, job_id).stream.filter(step=step)
    last = here.last()
    return {
        "readings": list(here.filter(pk__gt=after)),
        "device": last.device if last else "",
        "last_at": last.at if last else None,
        "now": timezone.now(),
    }


@router.delete("/{job_id}/streams/{step}", response={204: None, 404: ErrorsOut}, operation_id="stream_start_anew")
def start_anew(request: HttpRequest, job_id: UUID, step: str) -> object:
    """Forget what has come: a new sweep begins. What was entered as a reading stays in its entry."""
    _job(request, job_id).stream.filter(step=step).delete()
    return Status(204, None)
