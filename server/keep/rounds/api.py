"""The round through the hall: the lines in walking order, what was read last, and what is read now."""

from datetime import date, datetime, timedelta
from typing import Any
from uuid import UUID

from django.db import transaction
from django.http import HttpRequest
from django.utils import timezone
from ninja import Field, Router, Schema, Status

from millwright.card.values import Value, source_of
from millwright.errors import Problem, UnusableInput
from millwright.keep.due_kinds import DueKind
from millwright.keep.past import Leaks, Look, Noise
from millwright.meaning import Of
from millwright.model import PlainTextIn, read_json
from millwright.plan.families.register import FAMILIES
from millwright.roles import Deed
from millwright.units import MM_PER_INCH, LengthUnit
from server.accounts.auth import member_named, member_of, require
from server.jobs.means import is_of
from server.jobs.models import Entry, Job, of_this_site
from server.jobs.schemas.floor import FloorSpec
from server.plant.models import Line, LineLook
from server.reports.paper import printed
from server.web.described import gives
from server.web.errors import ErrorsOut
from server.web.files import as_file

from ..models import DueItem
from ..read import in_walking_order
from .file import take_file
from .looks import LookOut, Sent, take_look, take_out

router = Router(tags=["rounds"])
MOST_BYTES = 8_000_000
REFUSALS = {403: ErrorsOut, 404: ErrorsOut, 409: ErrorsOut, 422: ErrorsOut}
LIMITS = {"wear_mm": "wear_limit_mm", "temperature_c": "coupling_temperature_c", "vibration_mm_per_s": "vibration_mm_per_s"}


class LimitOut(Schema):
    """What a figure may be at most, and who says so."""

    value: float
    source: str


class RoundLineOut(Schema):
    """One stop of the round. `reads`: the figures this line is read for, the first of them asked at once."""

    id: UUID
    name: str
    spec: FloorSpec
    reads: list[str]
    limits: dict[str, LimitOut]
    lamp: str = Field(description="where the lamp goes to see the wear mark running")
    last: LookOut | None
    looked_today: bool
    due: date | None
    open_job: int | None


class RoundOut(Schema):
    """The whole walk."""

    today: date
    lines: list[RoundLineOut]


class LookIn(Schema, extra="forbid"):
    """What was read. `ago_s`: how long ago by the device's own clock; or `on`, the day, where it is copied from paper."""

    id: UUID
    line_id: UUID
    by: str | None = Field(default=None, description="username of whoever read it; refused for anybody else's session")
    ago_s: float = Field(default=0, ge=0, le=5_184_000)
    on: date | None = None
    wear_mm: float | None = Field(default=None, ge=-500, le=500)
    leaks: Leaks | None = None
    noise: Noise | None = None
    temperature_c: float | None = Field(default=None, ge=-40, le=400)
    vibration_mm_per_s: float | None = Field(default=None, ge=0, le=500)
    hours: float | None = Field(default=None, ge=0, le=2_000_000)
    note: PlainTextIn = Field(default="", max_length=400)
    typed: dict[str, str] = {}
    unit: LengthUnit = "mm"
    confirmed: bool = Field(default=False, description="figures that go back are as they were read")


class WalkIn(Schema, extra="forbid"):
    """The lines in the order they are walked."""

    lines: list[UUID] = Field(max_length=10_000)


class LooksTakenOut(Schema):
    """How many readings of a file were taken in."""

    readings: int


@router.get("", response=RoundOut, operation_id="round_read", url_name="round")
def read(request: HttpRequest) -> object:
    """The lines in walking order. Six queries, however many lines."""
    return _round(member_of(request).site_id)


def _round(site_id: UUID) -> dict[str, Any]:
    lines = list(in_walking_order(Line.objects.filter(site=site_id)))
    due = dict(DueItem.objects.filter(site=site_id, kind=DueKind.ROUND).values_list("line_id", "on"))
    in_hand = dict(Job.objects.which_are(closed=False).filter(site=site_id).values_list("line_id", "number"))
    counted = Entry.objects.filter(of_this_site("job__"), job__site=site_id)
    marks = counted.filter(is_of(Of.STROBE_LIGHT), inputs__light__regex=r"\S")
    latest = marks.order_by("job__line", "-at").distinct("job__line")
    lamps = dict(latest.values_list("job__line", "inputs__light"))
    return {
        "today": timezone.localdate(),
        "lines": [_stop(line, due.get(line.pk), in_hand.get(line.pk), lamps.get(line.pk) or "") for line in lines],
    }


def _in_unit(last: LineLook, unit: LengthUnit) -> dict[str, str]:
    """What was read last, as the page has it."""
    figures = {"wear_mm": (last.wear_mm, 2), "vibration_mm_per_s": (last.vibration_mm_per_s, 1)}
    inch = {key: f"{value / MM_PER_INCH:.{places + 1}f}" for key, (value, places) in figures.items() if value is not None}
    metric = {key: f"{value:.{places}f}" for key, (value, places) in figures.items() if value is not None}
    hot = {} if last.temperature_c is None else {"temperature_c": f"{last.temperature_c:.0f}"}
    return {**(inch if unit == "in" else metric), **hot}


def _stop(line: Any, due: date | None, open_job: int | None, lamp: str) -> dict[str, Any]:
    last: LineLook | None = next(iter(line.last_looks), None)
    card = {of: Value.model_validate(line.values[of]) for of in LIMITS.values() if of in line.values}
    limits = {
        key: {"value": card[of].at(line.spec["speed_rpm"]), "source": source_of(card, of)}
        for key, of in LIMITS.items()
        if of in card
    }
    read = [key for key in (*LIMITS, "hours") if key in limits or (last is not None and getattr(last, key) is not None)]
    watched = FAMILIES[line.spec["coupling"]["family"]].facts.watched
    if "wear_mm" not in read and any(field.key == "wear_mm" for field in watched):
        read.insert(0, "wear_mm")
    return {
        "id": line.pk,
        "name": line.name,
        "spec": line.spec,
        "reads": read,
        "limits": limits,
        "lamp": lamp,
        "last": last,
        "looked_today": last is not None and timezone.localdate(last.at) == timezone.localdate(),
        "due": due,
        "open_job": open_job,
    }


@router.post(
    "/looks",
    response={201: LookOut, **REFUSALS},
    operation_id="look_enter",
    url_name="looks",
    openapi_extra={"requestBody": {"content": {"application/json": {"schema": {"$ref": "#/components/schemas/LookIn"}}}}},
)
def look(request: HttpRequest) -> object:
    """One stop of a round. The same id sent again changes nothing. A figure that goes back is refused with the code
    `goes back` until it is confirmed."""
    # Read by the core's own door, so that a slip is refused in the same words as on a bench.
    payload = read_json(LookIn, request.body)
    member, now = member_named(request, payload.by), timezone.now()
    if payload.on is not None and payload.on > timezone.localdate():
        raise UnusableInput(Problem("on", "This day has not come yet."))
    at = now - timedelta(seconds=payload.ago_s) if payload.on is None else _noon(payload.on, now)
    read = Look(
        at=at,
        wear_mm=payload.wear_mm,
        leaks=payload.leaks,
        noise=payload.noise,
        temperature_c=payload.temperature_c,
        vibration_mm_per_s=payload.vibration_mm_per_s,
        hours=payload.hours,
        note=payload.note,
    )
    sent = Sent(
        id=payload.id, line=payload.line_id, look=read, typed=payload.typed, unit=payload.unit, confirmed=payload.confirmed
    )
    return Status(201, take_look(sent, by=member, now=now))


def _noon(on: date, now: datetime) -> datetime:
    noon = timezone.make_aware(datetime(on.year, on.month, on.day, 12))  # noqa: DTZ001 - the site's own noon
    return min(noon, now)


class LookSlipIn(Schema, extra="forbid"):
    """What went wrong."""

    because: PlainTextIn = Field(max_length=400)


@router.post("/looks/{look_id}/slip", response={204: None, **REFUSALS}, operation_id="look_slip", url_name="look_slip")
def slip(request: HttpRequest, look_id: UUID, payload: LookSlipIn) -> object:
    """Take a look out as a slip: it stays in the history, struck through, and nothing goes by it."""
    take_out(look_id, by=member_of(request), because=payload.because, now=timezone.now())
    return Status(204, None)


@router.put("/walk", response={204: None, **REFUSALS}, operation_id="round_order", url_name="walk")
def walk(request: HttpRequest, payload: WalkIn) -> object:
    """Put the lines into the order they are walked; those that are not named come after them, by name."""
    member = member_of(request)
    require(member, Deed.KEEP_LINES)
    place = {line: i for i, line in enumerate(payload.lines)}
    with transaction.atomic():
        lines = list(Line.objects.visible_to(member).select_for_update(no_key=True))
        for line in lines:
            line.walk = place.get(line.pk, len(place))
        Line.objects.bulk_update(lines, ["walk"])
    return Status(204, None)


@router.post(
    "/{line_id}/file",
    response={200: LooksTakenOut, **REFUSALS},
    operation_id="looks_read_in",
    url_name="looks_read_in",
    openapi_extra={"requestBody": {"content": {"text/csv": {"schema": {"type": "string"}}}, "required": True}},
)
def read_in(request: HttpRequest, line_id: UUID, confirmed: bool = False) -> object:
    """Earlier readings of a line from a CSV file: all of it, or nothing with what is wrong and in which line. Figures that go
    back are refused with the code `goes back` until they are confirmed."""
    member = member_of(request)
    content = request.read(MOST_BYTES + 1)
    if len(content) > MOST_BYTES:
        raise UnusableInput(Problem("file", f"This file is over {MOST_BYTES // 1_000_000} MB. Split it, or thin it out."))
    try:
        text = content.decode("utf-8")
    except UnicodeDecodeError:
        raise UnusableInput(Problem("file", "This is not a text file.")) from None
    return {"readings": take_file(line_id, text, by=member, now=timezone.now(), confirmed=confirmed)}


@router.get("/sheet.pdf", operation_id="round_sheet", url_name="round_sheet", openapi_extra=gives("application/pdf"))
def sheet(request: HttpRequest, unit: LengthUnit = "mm") -> object:
    """The round on paper, to be filled in by hand where there is no tablet."""
    member = member_of(request)
    found = _round(member.site_id)
    for line in found["lines"]:
        line["shown"] = _in_unit(line["last"], unit) if line["last"] else {}
    content = printed("round.html", {**found, "site": member.site.name, "unit": unit})
    return as_file(content, "application/pdf", "round.pdf")
