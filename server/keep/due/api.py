"""What is due on a site or a line, soonest first; and what the lead puts off."""

from datetime import date
from uuid import UUID

from django.db import transaction
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Field, Router, Schema

from millwright.errors import Problem, UnusableInput
from millwright.job.new_entry import OutOfTurn
from millwright.keep.due_kinds import DueKind
from millwright.model import PlainTextIn
from millwright.roles import Deed
from millwright.scope import Scope, Task
from server.accounts.auth import member_of, require
from server.accounts.models import Membership
from server.jobs.models import Job
from server.journal.write import write_down
from server.plant.models import Line
from server.web.errors import ErrorsOut
from server.web.words import Said

from ..models import DueItem, Postponement, Sort
from .summary import rebuild

router = Router(tags=["due"])
MOST_SHOWN = 2_000
FURTHEST_OFF_DAYS = 366


class OpenJobOut(Schema):
    """The job that is open on a line."""

    id: UUID
    number: int
    scope: Scope
    tasks: list[Task]


class DueOut(Schema):
    """One thing that is due. `on` is null where the card does not say when: `why` then says what is missing."""

    line_id: UUID | None
    name: str
    kind: DueKind
    on: date | None
    since: date | None
    was: date | None = Field(description="the day it was due before it was put off")
    why: Said
    task: Task | None
    scope: Scope | None = Field(description="the job that does it; null for a round or a calibration")
    postponed_by: str
    postponed_because: str
    open_job: OpenJobOut | None


class DueListOut(Schema):
    """What is due, and the day it is held against."""

    today: date
    items: list[DueOut]
    left_out: int = Field(description="how many more there are, behind those that are shown")


class DueCountOut(Schema):
    """How much is overdue."""

    late: int


class PutOffIn(Schema, extra="forbid"):
    """What is put off, from which day, until when and why."""

    line_id: UUID
    kind: DueKind
    of: date
    until: date
    reason: PlainTextIn = Field(max_length=400)


@router.get("", response={200: DueListOut, 404: ErrorsOut}, operation_id="due_read", url_name="due")
def read(request: HttpRequest, line: UUID | None = None, sort: Sort = "day") -> object:
    """What is due, sorted by the database; of one line, or of the site."""
    return _list(member_of(request), line, sort)


@router.get("/count", response=DueCountOut, operation_id="due_count", url_name="due_count")
def count(request: HttpRequest) -> object:
    """How much of the site is overdue: for the floor, which has no room for more."""
    return {"late": DueItem.objects.visible_to(member_of(request)).filter(on__lt=timezone.localdate()).count()}


def _list(member: Membership, line: UUID | None, sort: Sort = "day") -> dict[str, object]:
    items = DueItem.objects.visible_to(member)
    if line is not None:
        items = items.filter(line=get_object_or_404(Line.objects.visible_to(member), pk=line))
    shown = list(items.sorted_by(sort)[:MOST_SHOWN])
    in_hand = {
        job.line_id: job
        for job in Job.objects.which_are(closed=False).filter(line__in={i.line_id for i in shown if i.line_id})
    }
    return {
        "today": timezone.localdate(),
        "items": [_item(one, in_hand) for one in shown],
        "left_out": items.count() - len(shown) if len(shown) == MOST_SHOWN else 0,
    }


def _item(one: DueItem, in_hand: dict[UUID, Job]) -> dict[str, object]:
    job = in_hand.get(one.line_id) if one.line_id else None
    return {
        "line_id": one.line_id,
        "name": one.name,
        "kind": one.kind,
        "on": one.on,
        "since": one.since,
        "was": one.was,
        "why": one.why,
        "task": one.task or None,
        "scope": one.scope or None,
        "postponed_by": one.postponed_by,
        "postponed_because": one.postponed_because,
        "open_job": job,
    }


@router.post(
    "/put-off",
    response={200: DueListOut, 403: ErrorsOut, 404: ErrorsOut, 409: ErrorsOut, 422: ErrorsOut},
    operation_id="due_put_off",
    url_name="due_put_off",
)
def put_off(request: HttpRequest, payload: PutOffIn) -> object:
    """Put something off, with the reason. 409 where it is not due that day any more."""
    member = member_of(request)
    _put_off(member, payload)
    return _list(member, payload.line_id)


@transaction.atomic
def _put_off(member: Membership, given: PutOffIn) -> None:
    require(member, Deed.PUT_OFF)
    line = get_object_or_404(Line.objects.visible_to(member).select_for_update(no_key=True), pk=given.line_id)
    today = timezone.localdate()
    if not given.reason.strip():
        raise UnusableInput(Problem("reason", "Enter the reason. Whoever finds it late reads it."))
    if given.until <= max(given.of, today):
        raise UnusableInput(Problem("until", "Choose a day that is still to come, after the one it is due."))
    if (given.until - today).days > FURTHEST_OFF_DAYS:
        raise UnusableInput(Problem("until", "That is more than a year away. Change the interval on the value card instead."))
    stands = DueItem.objects.filter(line=line, kind=given.kind).first()
    if stands is None or stands.on is None or given.of not in (stands.on, stands.was):
        raise OutOfTurn("Somebody did this or put it off meanwhile. Look at the list again.")
    put_off = Postponement.objects.create(
        line=line,
        kind=given.kind.value,
        since=stands.since,
        of=stands.was or stands.on,
        until=given.until,
        reason=given.reason.strip(),
        by=member.user.shown_name,
        role=member.role,
        at=timezone.now(),
    )
    write_down(line.site_id, [put_off])
    rebuild([line])
