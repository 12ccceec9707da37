"""Read the site's coupling sizes, and what the value card can hold."""

from typing import get_args

from django.http import HttpRequest
from ninja import Field, Router, Schema

from millwright.card.kind import ValueKind
from millwright.card.kinds import VALUE_KINDS
from millwright.card.values import Value, value_kind
from millwright.line import Drawn, Family
from millwright.route.build import values_of_connection, values_of_family
from millwright.route.families.facts import BACKSTOP_VALUES
from millwright.route.families.register import FAMILIES
from millwright.route.hubs.keyed import SCREW_TORQUE
from millwright.route.hubs.ways import HUB_STEPS
from millwright.route.stages.turning import ASKED, MOTOR_TURNS
from server.accounts.auth import member_of

from .models import CouplingSize

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
    words_only: bool
    written: bool


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


@router.get("", response=CatalogueOut, operation_id="catalogue_read", url_name="catalogue")
def read(request: HttpRequest) -> object:
    """The catalogue of this site."""
    return {
        "sizes": list(CouplingSize.objects.filter(site=member_of(request).site)),
        "kinds": _kinds(),
        "families": list(get_args(Family)),
        "asked_by_family": {family: list(values_of_family(family)) for family in FAMILIES},
        "may_have_by_family": {family: list(known.facts.may_have) for family, known in FAMILIES.items()},
        "asked_by_connection": {
            held: [key for key in values_of_connection(held) if key != SCREW_TORQUE] for held in HUB_STEPS
        },
        "asked_with_set_screws": {
            held: [key for key in values_of_connection(held) if key == SCREW_TORQUE] for held in HUB_STEPS
        },
        "asked_by_machine": {drawn: [MOTOR_TURNS] if drawn in ASKED else [] for drawn in get_args(Drawn)},
        "asked_with_backstop": list(BACKSTOP_VALUES),
    }


def _kinds() -> list[ValueKind]:
    """Every line there is, and beside it the same line of a circle of bolts that may have its own."""
    named = [key for family in FAMILIES.values() for key in (*family.facts.values, *family.facts.may_have)]
    own = dict.fromkeys(key for key in (*named, *BACKSTOP_VALUES) if "@" in key)
    keys = [key for base in VALUE_KINDS for key in (base, *(k for k in own if k.split("@")[0] == base))]
    return [kind for key in keys if (kind := value_kind(key)) is not None]
