"""The brackets and wrenches of the site: read them, and keep what was measured with one, or where it was calibrated."""

from datetime import date, datetime

from django.db import transaction
from django.http import HttpRequest
from django.utils import timezone
from ninja import Field, Router, Schema
from pydantic import FiniteFloat

from millwright.benches.tighten.wrench import range_problems
from millwright.errors import refuse_if_any
from millwright.model import NameIn
from millwright.roles import Deed
from server.accounts.auth import member_of, require
from server.web.errors import ErrorsOut

from .models import Bracket, Wrench
from .register import date_problems, instruments_of, note

router = Router(tags=["instruments"])


class BracketIn(Schema, extra="forbid"):
    """A bracket with what was measured on it."""

    name: NameIn = Field(min_length=1, max_length=60)
    sag_mm: FiniteFloat = Field(ge=-10, le=0, description="shown at 6 on a stiff pipe, zeroed at 12")
    positive: Bracket.Positive = Bracket.Positive.IN


class BracketOut(BracketIn):
    """A bracket, and who measured it when."""

    measured_by: str
    measured_at: datetime
    usable: bool = Field(description="not withdrawn, and its calibration holds")


@router.get("/brackets", response=list[BracketOut], operation_id="brackets_read", url_name="brackets")
def read(request: HttpRequest) -> object:
    """Every bracket of the site, by name."""
    return list(Bracket.objects.visible_to(member_of(request)))


@router.put("/brackets", response={200: BracketOut, 403: ErrorsOut, 422: ErrorsOut}, operation_id="bracket_keep")
@transaction.atomic
def keep(request: HttpRequest, payload: BracketIn) -> object:
    """Keep a bracket's sag under its name; what stood there before is replaced."""
    member = member_of(request)
    require(member, Deed.KEEP_INSTRUMENTS)
    values = {"sag_mm": payload.sag_mm, "positive": payload.positive.value}
    made = {**values, "measured_by": member.user.shown_name, "measured_at": timezone.now()}
    bracket, _ = Bracket.objects.update_or_create(site=member.site, name=payload.name.strip(), defaults=made)
    bracket.refresh_from_db()
    note(bracket, f"hangs {payload.sag_mm:g} mm", by=member, now=timezone.now())
    return bracket


class UsableOut(Schema):
    """An instrument that a reading may be taken with today."""

    kind: str
    name: str
    calibrated_until: date | None


@router.get("/usable", response=list[UsableOut], operation_id="instruments_usable", url_name="instruments_usable")
def usable(request: HttpRequest) -> object:
    """What is in use and in date, by kind and name. Three queries, whatever was read with them."""
    return [one for one in instruments_of(member_of(request).site_id) if one.usable]


class WrenchIn(Schema, extra="forbid"):
    """A wrench with its range, its length and its calibration."""

    name: NameIn = Field(min_length=1, max_length=60)
    min_nm: FiniteFloat = Field(gt=0, le=100_000)
    max_nm: FiniteFloat = Field(gt=0, le=100_000)
    length_mm: FiniteFloat | None = Field(default=None, gt=0, le=10_000, description="drive square to the mark on the grip")
    calibrated_until: date | None = None


class WrenchOut(WrenchIn):
    """A wrench, and who wrote it down when."""

    kept_by: str
    kept_at: datetime
    usable: bool = Field(description="not withdrawn, and its calibration holds")


@router.get("/wrenches", response=list[WrenchOut], operation_id="wrenches_read", url_name="wrenches")
def read_wrenches(request: HttpRequest) -> object:
    """Every wrench of the site, by name."""
    return list(Wrench.objects.visible_to(member_of(request)))


@router.put("/wrenches", response={200: WrenchOut, 403: ErrorsOut, 422: ErrorsOut}, operation_id="wrench_keep")
@transaction.atomic
def keep_wrench(request: HttpRequest, payload: WrenchIn) -> object:
    """Keep a wrench under its name; what stood there before is replaced."""
    member = member_of(request)
    require(member, Deed.KEEP_INSTRUMENTS)
    until = date_problems("calibrated_until", payload.calibrated_until, timezone.localdate())
    refuse_if_any([*range_problems(payload.min_nm, payload.max_nm, "max_nm"), *until])
    values = payload.model_dump(exclude={"name"})
    made = {**values, "kept_by": member.user.shown_name, "kept_at": timezone.now()}
    wrench, _ = Wrench.objects.update_or_create(site=member.site, name=payload.name.strip(), defaults=made)
    wrench.refresh_from_db()
    until_when = f", calibrated until {payload.calibrated_until}" if payload.calibrated_until else ""
    note(wrench, f"{payload.min_nm:g} to {payload.max_nm:g} N·m{until_when}", by=member, now=timezone.now())
    return wrench
