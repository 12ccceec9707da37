"""The register of everything that measures: until when each counts, what is withdrawn, and where it was used since."""

from collections import defaultdict
from datetime import date, datetime
from typing import Any, Literal
from uuid import UUID

from django.db import transaction
from django.http import Http404, HttpRequest
from django.utils import timezone
from ninja import Field, Router, Schema

from millwright.errors import Problem, UnusableInput, refuse_if_any
from millwright.model import NameIn, PlainTextIn
from millwright.roles import Deed
from server.accounts.auth import member_of, require
from server.accounts.models import Membership
from server.web.errors import ErrorsOut

from .models import Bracket, Gauge, Instrument, InstrumentChange, Wrench
from .register import date_problems, instrument, instruments_of, note
from .signals import where_used

router = Router(tags=["instruments"])
REFUSALS = {403: ErrorsOut, 404: ErrorsOut, 422: ErrorsOut}
FIRST = {Wrench.kind: "Keep its range at the bolts", Bracket.kind: "Keep its sag at the dials"}
SHOWN = ("kind", "name", "called", "calibrated_until", "withdrawn_at", "withdrawn_by", "withdrawn_because")
InstrumentKind = Literal["torque wrench", "bracket", "dial", "laser", "micrometer", "pyrometer", "strobe", "vibration meter"]


class UsedOut(Schema):
    """A reading in an open job that was taken with it."""

    job: UUID
    number: int
    line: str
    step: str


class InstrumentChangedOut(Schema):
    """What became of an instrument."""

    what: str
    by: str
    at: datetime


class InstrumentOut(Schema):
    """An instrument of the register."""

    kind: InstrumentKind
    name: str
    called: str
    calibrated_until: date | None
    withdrawn_at: datetime | None
    withdrawn_by: str
    withdrawn_because: str
    changes: list[InstrumentChangedOut] = Field(description="its history, the latest first")
    used_in: list[UsedOut] = Field(description="of one that is withdrawn: readings of open jobs that it took")


class InstrumentIn(Schema, extra="forbid"):
    """An instrument as it came back from calibration, or as it is put into the register."""

    kind: InstrumentKind
    name: NameIn = Field(min_length=1, max_length=60)
    calibrated_until: date


class WithdrawIn(Schema, extra="forbid"):
    """What is taken out of use, and why."""

    kind: InstrumentKind
    name: NameIn
    reason: PlainTextIn = Field(max_length=400)


class RegisterOut(Schema):
    """Every instrument of the site."""

    today: date
    instruments: list[InstrumentOut]


@router.get("", response=RegisterOut, operation_id="instruments_read", url_name="instruments")
def read(request: HttpRequest) -> object:
    """The whole register."""
    return _register(member_of(request))


def _register(member: Membership) -> dict[str, Any]:
    changes: dict[tuple[str, str], list[InstrumentChange]] = defaultdict(list)
    for change in InstrumentChange.objects.filter(site=member.site):
        changes[change.kind, change.name].append(change)
    return {
        "today": timezone.localdate(),
        "instruments": [
            {
                **{key: getattr(one, key) for key in SHOWN},
                "changes": changes[one.kind, one.name],
                "used_in": _used(member, one) if one.withdrawn else [],
            }
            for one in instruments_of(member.site_id)
        ],
    }


def _used(member: Membership, one: Instrument) -> list[dict[str, Any]]:
    """Readings of open jobs that this instrument took; whoever keeps readings says which."""
    answers: list[tuple[Any, Any]] = where_used.send(sender=type(one), member=member, one=one)
    return [read for _, found in answers for read in found]


@router.put("", response={200: RegisterOut, **REFUSALS}, operation_id="instrument_calibrated", url_name="instrument")
@transaction.atomic
def calibrated(request: HttpRequest, payload: InstrumentIn) -> object:
    """Put an instrument into the register, or say that it came back calibrated: then it is in use again."""
    member = member_of(request)
    require(member, Deed.KEEP_INSTRUMENTS)
    name = payload.name.strip()
    if payload.calibrated_until < timezone.localdate():
        raise UnusableInput(Problem("calibrated_until", "That day is past: an instrument out of date is not used."))
    refuse_if_any(date_problems("calibrated_until", payload.calibrated_until, timezone.localdate()))
    fresh = {"calibrated_until": payload.calibrated_until, "withdrawn_at": None, "withdrawn_by": "", "withdrawn_because": ""}
    first = FIRST.get(payload.kind)
    if first is None:
        gauge, _ = Gauge.objects.update_or_create(
            site=member.site,
            kind=payload.kind,
            name=name,
            defaults={**fresh, "kept_by": member.user.shown_name, "kept_at": timezone.now()},
        )
        gauge.refresh_from_db()
        note(gauge, f"calibrated until {payload.calibrated_until}", by=member, now=timezone.now())
        return _register(member)
    one = instrument(member.site_id, payload.kind, name)
    if one is None:
        text = f"No {payload.kind} is called {name} yet. {first} first, then it is listed here."
        raise UnusableInput(Problem("name", text))
    for key, value in fresh.items():
        setattr(one, key, value)
    one.save(update_fields=[*fresh])
    note(one, f"calibrated until {payload.calibrated_until}", by=member, now=timezone.now())
    return _register(member)


@router.post(
    "/withdraw", response={200: RegisterOut, **REFUSALS}, operation_id="instrument_withdraw", url_name="instrument_withdraw"
)
@transaction.atomic
def withdraw(request: HttpRequest, payload: WithdrawIn) -> object:
    """Take an instrument out of use at once, wherever it is: nothing is entered with it from now on. What it read in open
    jobs is named."""
    member = member_of(request)
    require(member, Deed.KEEP_INSTRUMENTS)
    if not payload.reason.strip():
        raise UnusableInput(Problem("reason", "Enter the reason: dropped, out of its band, lost."))
    one = instrument(member.site_id, payload.kind, payload.name.strip())
    if one is None:
        raise Http404
    one.withdrawn_at, one.withdrawn_by = timezone.now(), member.user.shown_name
    one.withdrawn_because = payload.reason.strip()
    one.save(update_fields=["withdrawn_at", "withdrawn_by", "withdrawn_because"])
    note(one, f"withdrawn: {one.withdrawn_because}", by=member, now=one.withdrawn_at)
    return _register(member)
