"""The stream of a job for whoever has it open, and the word of a device that it is there."""

import json
from collections.abc import AsyncIterator
from uuid import UUID

from django.core.handlers.asgi import ASGIRequest
from django.db import connection
from django.http import HttpRequest, HttpResponse, StreamingHttpResponse
from django.shortcuts import get_object_or_404
from ninja import Field, Router, Schema, Status

from millwright.model import NameIn
from server.accounts.auth import member_of
from server.web.described import gives
from server.web.errors import ErrorsOut

from ..models import Job
from .hub import CHANNEL, hub

router = Router(tags=["live"])


class HereIn(Schema, extra="forbid"):
    """Where a device is: at which step, and whether something stands typed there that is not entered; or that it left."""

    device: NameIn = Field(max_length=40)
    step: NameIn = Field(default="", max_length=60)
    typing: bool = False
    left: bool = False


@router.get(
    "/{job_id}/live",
    response={204: None, 404: ErrorsOut},
    operation_id="job_live",
    url_name="live",
    openapi_extra=gives("text/event-stream"),
)
def live(request: HttpRequest, job_id: UUID) -> object:
    """Events while the job is open: `hello`, `changed` with the number of what came, `here` with who has it open.

    204 where this server cannot stream: then ask every few seconds.
    """
    get_object_or_404(Job.objects.visible_to(member_of(request)), pk=job_id)
    if not isinstance(request, ASGIRequest):
        return HttpResponse(status=204)
    connection.close()  # what was asked was answered: a page that is open for hours keeps none of the pool's
    headers = {"Cache-Control": "no-store", "X-Accel-Buffering": "no"}
    return StreamingHttpResponse(_events(str(job_id)), content_type="text/event-stream", headers=headers)


async def _events(job: str) -> AsyncIterator[str]:
    async for event in hub().stream(job):
        yield event


@router.post("/{job_id}/here", response={204: None, 404: ErrorsOut, 422: ErrorsOut}, operation_id="job_here", url_name="here")
def here(request: HttpRequest, job_id: UUID, payload: HereIn) -> object:
    """Tell whoever else has the job open. Nothing is stored."""
    member = member_of(request)
    get_object_or_404(Job.objects.visible_to(member), pk=job_id)
    said = {"device": payload.device, "step": payload.step, "typing": payload.typing, "name": member.user.shown_name}
    news = {"job": str(job_id), **({"left": payload.device} if payload.left else {"here": said})}
    with connection.cursor() as cursor:
        cursor.execute("SELECT pg_notify(%s, %s)", [CHANNEL, json.dumps(news)])
    return Status(204, None)
