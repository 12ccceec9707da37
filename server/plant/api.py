"""Lines of the site: one to read, create and change. The list with its jobs is the floor, in `jobs`."""

from datetime import datetime
from uuid import UUID

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Field, Router, Schema, Status

from millwright.card.values import Value
from millwright.line import LineSpec
from millwright.model import Name, PlainText, read_json
from millwright.plan.compose import scopes_of
from millwright.plan.upkeep import tasks_of
from millwright.roles import Role
from millwright.scope import Scope, Task
from server.accounts.auth import member_of
from server.catalogue.models import ValueRequest
from server.catalogue.requests import DecideIn, RequestOut
from server.web.errors import ErrorsOut
from server.web.words import ChangedOut

from . import actions
from .models import Line

router = Router(tags=["lines"])


class LineIn(Schema, extra="forbid"):
    """A line as it is to be. `version` is the one that was read; 0 for a new line."""

    name: Name = Field(min_length=1, max_length=80)
    version: int = 0
    spec: LineSpec
    values: dict[str, Value]
    reason: PlainText = Field(default="", max_length=400, description="why something that stands on the card is changed")


class LineOut(Schema):
    """A line as it stands."""

    id: UUID
    name: str
    version: int
    changed_at: datetime
    spec: LineSpec
    values: dict[str, Value]
    scopes: list[Scope] = Field(description="what a job can be there to do on it")
    tasks: list[Task] = Field(description="what a job of upkeep can be there to do on it")
    requests: list[RequestOut] = Field(description="what the lead is asked to change on its card")


class LineChangeOut(Schema):
    """What somebody changed on a line. The first of a line, when it was made, has no changes."""

    version: int
    changes: list[ChangedOut]
    because: str
    by: str
    role: Role
    at: datetime


def line_out(line: Line) -> dict[str, object]:
    """A line for the client."""
    spec = line.as_spec
    return {
        "id": line.id,
        "name": line.name,
        "version": line.version,
        "changed_at": line.changed_at,
        "spec": spec,
        "values": line.card,
        "scopes": scopes_of(spec),
        "tasks": tasks_of(spec),
        "requests": list(ValueRequest.objects.waiting().filter(line=line.pk)),
    }


REFUSALS = {403: ErrorsOut, 404: ErrorsOut, 409: ErrorsOut, 422: ErrorsOut}
WANTS_LINE = {"requestBody": {"content": {"application/json": {"schema": {"$ref": "#/components/schemas/LineIn"}}}}}


@router.post("", response={201: LineOut, **REFUSALS}, operation_id="line_create", url_name="lines", openapi_extra=WANTS_LINE)
def create(request: HttpRequest) -> object:
    """Create a line of one's own."""
    return Status(201, line_out(_save(request, None)))


@router.get("/{line_id}", response={200: LineOut, 404: ErrorsOut}, operation_id="line_read", url_name="line")
def read(request: HttpRequest, line_id: UUID) -> object:
    """One line."""
    return line_out(get_object_or_404(Line.objects.visible_to(member_of(request)), pk=line_id))


@router.get("/{line_id}/changes", response={200: list[LineChangeOut], 404: ErrorsOut}, operation_id="line_changes")
def changes(request: HttpRequest, line_id: UUID) -> object:
    """Who changed what on a line, the latest first."""
    line = get_object_or_404(Line.objects.visible_to(member_of(request)), pk=line_id)
    return list(line.changes.all())


@router.put("/{line_id}", response={200: LineOut, **REFUSALS}, operation_id="line_change", openapi_extra=WANTS_LINE)
def change(request: HttpRequest, line_id: UUID) -> object:
    """Change a line. 409 where somebody else changed it meanwhile."""
    return line_out(_save(request, str(line_id)))


def _save(request: HttpRequest, line_id: str | None) -> Line:
    # Read by the core's own door, so that a slip is refused in the same words as on a bench.
    given = read_json(LineIn, request.body)
    return actions.save_line(
        by=member_of(request),
        line_id=line_id,
        version=given.version,
        name=given.name.strip(),
        spec=given.spec,
        values=given.values,
        reason=given.reason,
    )


@router.post(
    "/{line_id}/requests/{request_id}",
    response={200: LineOut, **REFUSALS},
    operation_id="line_request_decide",
    url_name="line_request",
)
def decide(request: HttpRequest, line_id: UUID, request_id: UUID, payload: DecideIn) -> object:
    """Accept a change of the card that was asked for, or not; the lead's."""
    return line_out(actions.decide_on_line(line_id, request_id, accept=payload.accept, by=member_of(request)))
