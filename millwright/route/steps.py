"""What a step is: its words, what it wants entered, what it relies on and what it changes."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from typing import Any, Literal

from ..coupling.families import FAMILIES
from ..line import SIDES, LineSpec, Side
from ..values import ValueCard
from ..verdict import Check


class Role(StrEnum):
    """Who may do what; each may do what those before it may."""

    APPRENTICE = "apprentice"
    MILLWRIGHT = "millwright"
    LEAD = "lead"

    def may_act_as(self, wanted: "Role") -> bool:
        """True where this role includes the wanted one."""
        order = list(Role)
        return order.index(self) >= order.index(wanted)


class Stage(StrEnum):
    """The stages of a job in working order."""

    MAKE_SAFE = "Make safe"
    RECEIVE = "Receive"
    PREPARE = "Prepare"
    MOUNT = "Mount hubs"
    SET = "Set & align"
    COUPLE = "Couple up"
    CLOSE = "Close out"


class Fact(StrEnum):
    """A physical thing that a reading relies on and a later action can change."""

    MACHINES = "the machines were moved"
    FEET = "the feet were torqued or slackened"
    FIRST_HUB = "the first hub was moved on its shaft"
    SECOND_HUB = "the second hub was moved on its shaft"
    FIRST_FIT = "shaft and bore of the first hub were measured again"
    SECOND_FIT = "shaft and bore of the second hub were measured again"
    FIRST_HEAT = "the heat for the first hub was worked out anew"
    SECOND_HEAT = "the heat for the second hub was worked out anew"


FieldKind = Literal["tick", "condition", "text", "length", "number", "choice", "date"]


@dataclass(frozen=True, kw_only=True)
class Field:
    """One thing a sheet asks: a tick, a part's condition (ok / not ok), words or a figure."""

    key: str
    kind: FieldKind
    label: str
    detail: str = ""
    unit: str = ""
    options: tuple[str, ...] = ()
    required: bool = True


@dataclass(frozen=True, kw_only=True)
class BenchForm:
    """The step wants readings for a bench. ``preset`` is enforced, ``suggest`` only fills the form."""

    bench: str
    preset: Mapping[str, Any] = field(default_factory=dict)
    suggest: Mapping[str, Any] = field(default_factory=dict)
    kind: Literal["bench"] = "bench"


@dataclass(frozen=True, kw_only=True)
class SheetForm:
    """The step wants ticks and figures; with ``rows`` as many rows of those as are needed."""

    fields: tuple[Field, ...] = ()
    rows: tuple[Field, ...] = ()
    suggested_rows: tuple[Mapping[str, Any], ...] = ()
    row_name: str = ""
    kind: Literal["sheet"] = "sheet"


@dataclass(frozen=True, kw_only=True)
class SignForm:
    """The step wants a signature and nothing else."""

    kind: Literal["sign"] = "sign"


Answers = Mapping[str, Any]
Judge = Callable[[Answers], tuple[list[Check], list[str]]]


@dataclass(frozen=True, kw_only=True)
class Step:
    """One step of the route."""

    key: str
    stage: Stage
    title: str  # verb first
    why: str
    form: BenchForm | SheetForm | SignForm
    tool: str = ""
    caution: str = ""
    on_fail: str = ""
    after: tuple[str, ...] = ()  # must be done and fresh
    once: tuple[str, ...] = ()  # must have been read, however it stands now
    needs: tuple[str, ...] = ()  # keys of the value card
    relies: frozenset[Fact] = frozenset()
    changes: frozenset[Fact] = frozenset()
    hold: Role | None = None
    no_return: bool = False
    moves: bool = False  # moves of the machine are recorded here
    may_authorise: bool = False  # a lead may accept an over-limit value with a reason
    leaves_provisional: str = ""
    settled_by: str = ""  # the step that ends what this one leaves provisional
    judge: Judge | None = None
    heat_plan: str = ""  # the step whose heat bench this run of a hot hub goes by; with it, events are taken here


@dataclass(frozen=True, kw_only=True)
class JobFacts:
    """What the route of one job is built from, besides what was entered."""

    line: LineSpec
    card: ValueCard
    answers: Mapping[str, Answers] = field(default_factory=dict)  # latest answers of each sheet step

    def first(self) -> Side:
        """The side whose hub is fixed first: the one that cannot slide afterwards, else that of the machine that stays."""
        fixed = [side for side in SIDES if not self.line.hub(side).slides]
        return fixed[0] if len(fixed) == 1 else self.line.stationary

    def second(self) -> Side:
        """The other side."""
        return "driven" if self.first() == "driver" else "driver"

    @property
    def closes_by_hub(self) -> bool:
        """The gap is closed by sliding the second hub; else the machine is moved up to it."""
        return FAMILIES[self.line.coupling.family].closes_by_hub and self.line.hub(self.second()).slides
