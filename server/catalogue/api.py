"""The site's coupling sizes, read and changed, in and out as a file; and what the value card can hold."""

from datetime import datetime
from typing import Literal, get_args
from uuid import UUID

from django.http import HttpRequest
from ninja import Field, Router, Schema, Status

from millwright.card.catalogue_file import CatalogueFile, CatalogueSize, read_csv, write_csv
from millwright.card.keep_lines import ALWAYS
from millwright.card.kind import ValueKind
from millwright.card.kinds import VALUE_KINDS
from millwright.card.values import Value, value_kind
from millwright.line import Drawn, Family
from millwright.model import PlainTextIn, read_json
from millwright.plan.compose import values_of_connection, values_of_family
from millwright.plan.families.facts import BACKSTOP_VALUES
from millwright.plan.families.register import FAMILIES
from millwright.plan.hubs.keyed import SCREW_TORQUE
from millwright.plan.hubs.ways import HUB_STEPS
from millwright.plan.stages.turning import ASKED, MOTOR_TURNS
from millwright.plan.upkeep import values_of
from millwright.roles import Role
from server.accounts.auth import member_of
from server.web.described import exchanges, gives
from server.web.errors import ErrorsOut
from server.web.files import as_file
from server.web.words import ChangedOut

from . import actions
from .models import CatalogueChange, CouplingSize, ValueRequest
from .requests import DecideIn, RequestOut

router = Router(tags=["couplings"])


class CouplingSizeOut(Schema):
    """One size of one series with its values."""

    family: str
    series: str
    size: str
    values: dict[str, Value]


class ValueKindOut(Schema):
    """A line of the value card: what it is called, its unit, where to look."""

    key: str
    title: str
    unit: str
    look_in: str
    low: float
    high: float
    means: list[str]
    unit_by_means: dict[str, str]
    ask: str
    by_speed: bool
    by_material: bool
    by_what: str
    words_only: bool
    written: bool
    may_be_none: bool


class CatalogueOut(Schema):
    """The site's sizes, every kind of value, which kinds each family and each way of holding a hub asks for or may have,
    and what a job on a family can be there to do."""

    sizes: list[CouplingSizeOut]
    kinds: list[ValueKindOut]
    families: list[str]
    asked_by_family: dict[str, list[str]]
    may_have_by_family: dict[str, list[str]]
    asked_by_connection: dict[str, list[str]]
    asked_with_set_screws: dict[str, list[str]] = Field(description="by how a hub is held, where it has set screws")
    asked_by_machine: dict[str, list[str]] = Field(description="by what the driven machine is drawn as")
    asked_with_backstop: list[str]


class SizeRequestOut(RequestOut):
    """Of a size of the catalogue."""

    series: str
    size: str

    @staticmethod
    def resolve_series(asked: ValueRequest) -> str:
        """Of its size."""
        return asked.size.series if asked.size else ""

    @staticmethod
    def resolve_size(asked: ValueRequest) -> str:
        """Its name."""
        return asked.size.size if asked.size else ""


class CatalogueChangeOut(Schema):
    """Who changed what on a size, and when; no changes: it was put there."""

    id: int
    changes: list[ChangedOut]
    because: str
    by: str
    role: Role
    at: datetime


class TakenIn(Schema):
    """How many sizes of a file were new or other than they stood here."""

    sizes: int


@router.get("", response=CatalogueOut, operation_id="catalogue_read", url_name="catalogue")
def read(request: HttpRequest) -> object:
    """The catalogue of this site."""
    return {
        "sizes": [size.as_core for size in CouplingSize.objects.filter(site=member_of(request).site)],
        "kinds": _kinds(),
        "families": list(get_args(Family)),
        "asked_by_family": {family: list(values_of_family(family)) for family in FAMILIES},
        "may_have_by_family": {
            family: [*known.facts.may_have, *values_of(known.facts), *ALWAYS] for family, known in FAMILIES.items()
        },
        "asked_by_connection": {
            held: [key for key in values_of_connection(held) if key != SCREW_TORQUE] for held in HUB_STEPS
        },
        "asked_with_set_screws": {
            held: [key for key in values_of_connection(held) if key == SCREW_TORQUE] for held in HUB_STEPS
        },
        "asked_by_machine": {drawn: [MOTOR_TURNS] if drawn in ASKED else [] for drawn in get_args(Drawn)},
        "asked_with_backstop": list(BACKSTOP_VALUES),
    }


@router.put(
    "/sizes",
    response={200: CouplingSizeOut, 403: ErrorsOut, 422: ErrorsOut},
    operation_id="size_save",
    url_name="size",
    openapi_extra=exchanges("CouplingSizeOut", "CouplingSizeOut"),
)
def save(request: HttpRequest, reason: PlainTextIn = "") -> object:
    """Put a size into the catalogue, or change it; lines keep the values they have. What stands is the lead's to change, with
    a reason: anybody else's change waits for the lead."""
    given, member = read_json(CatalogueSize, request.body), member_of(request)
    actions.save_sizes(by=member, sizes=[given], reason=reason[:400])
    return CouplingSize.objects.get(site=member.site, series=given.series, size=given.size).as_core


@router.get("/requests", response=list[SizeRequestOut], operation_id="size_requests", url_name="size_requests")
def requests(request: HttpRequest) -> object:
    """What the lead is asked to change in the catalogue."""
    asked = ValueRequest.objects.waiting().filter(site=member_of(request).site, size__isnull=False)
    return list(asked.select_related("size"))


@router.post(
    "/requests/{request_id}",
    response={204: None, 403: ErrorsOut, 404: ErrorsOut, 409: ErrorsOut, 422: ErrorsOut},
    operation_id="size_request_decide",
    url_name="size_request",
)
def decide(request: HttpRequest, request_id: UUID, payload: DecideIn) -> object:
    """Accept a change that was asked for, or not; the lead's."""
    actions.decide_on_size(request_id, accept=payload.accept, by=member_of(request))
    return Status(204, None)


@router.get("/changes", response=list[CatalogueChangeOut], operation_id="size_changes", url_name="size_changes")
def changes(request: HttpRequest, series: str, size: str) -> object:
    """Who changed what on a size, the latest first."""
    return list(CatalogueChange.objects.filter(of__site=member_of(request).site, of__series=series, of__size=size))


@router.get("/file", operation_id="catalogue_file", url_name="catalogue_file", openapi_extra=gives("text/csv"))
def write(request: HttpRequest, form: Literal["json", "csv"] = "json") -> object:
    """The whole catalogue as a file."""
    kept = CouplingSize.objects.filter(site=member_of(request).site)
    sizes = [size.as_core for size in kept]
    is_csv = form == "csv"
    text = write_csv(sizes) if is_csv else CatalogueFile(sizes=sizes).model_dump_json(indent=2, exclude_defaults=False)
    return as_file(text, "text/csv; charset=utf-8" if is_csv else "application/json", f"catalogue.{form}")


@router.post(
    "/file",
    response={200: TakenIn, 403: ErrorsOut, 422: ErrorsOut},
    operation_id="catalogue_read_in",
    url_name="catalogue_read_in",
    openapi_extra={"requestBody": {"content": {"text/csv": {"schema": {"type": "string"}}}, "required": True}},
)
def read_in(request: HttpRequest) -> object:
    """Take a file in: all of it, or nothing with what is wrong and where. Sizes the file does not have stay as they are."""
    text = request.body
    sizes = read_json(CatalogueFile, text).sizes if text.lstrip()[:1] == b"{" else read_csv(text)
    return {"sizes": actions.save_sizes(by=member_of(request), sizes=sizes, reason="read in from a file")}


def _kinds() -> list[ValueKind]:
    """Every line there is, and beside it the same line of a circle of bolts that may have its own."""
    named = [key for family in FAMILIES.values() for key in (*family.facts.values, *family.facts.may_have)]
    own = dict.fromkeys(key for key in (*named, *BACKSTOP_VALUES) if "@" in key)
    keys = [key for base in VALUE_KINDS for key in (base, *(k for k in own if k.split("@")[0] == base))]
    return [kind for key in keys if (kind := value_kind(key)) is not None]
