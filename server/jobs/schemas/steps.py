"""A step of a route: what it wants, how its hot hub stands, where it stands itself."""

from datetime import datetime
from typing import Annotated, Any, Literal
from uuid import UUID

from ninja import Field

from millwright.job.hot_run import Ready
from millwright.job.now import StepState
from millwright.meaning import Of
from millwright.plan.fields import FieldKind
from millwright.plan.hubs.phases import Event, Phase
from millwright.plan.steps import Stage
from millwright.roles import Role
from server.web.shown import Shown
from server.web.words import Said

from .sketch import SketchOut


class FieldOut(Shown):
    """One thing a sheet asks."""

    key: str
    kind: FieldKind
    label: str
    detail: str
    unit: str
    options: list[str]
    required: bool
    picture: str
    none_of: str
    expected: int | None
    expected_of: str
    beside: str = Field(description="of a count: the part whose row it stands in")
    of_register: str = Field(description="of a number of an instrument: the kind it is chosen by from the register")


class BenchFormOut(Shown):
    """The step wants readings for a bench; in the description it is one shape a bench (`described.py`)."""

    kind: Literal["bench"]
    bench: str
    preset: dict[str, Any]
    compare: dict[str, Any]
    suggest: dict[str, Any]


class SheetFormOut(Shown):
    """The step wants ticks and figures."""

    kind: Literal["sheet"]
    fields: list[FieldOut]
    ordered: bool
    rows: list[FieldOut]
    suggested_rows: list[dict[str, str]]
    row_name: str


class SignFormOut(Shown):
    """The step wants a signature and nothing else."""

    kind: Literal["sign"]


class NextOut(Shown):
    """What may happen to a hot hub next, what its button says, and where the hub is then."""

    event: Event
    words: str
    to: Phase


class HeatRunOut(Shown):
    """The run of a hot hub as it stands. `may`: what may happen in each phase, the one expected first."""

    may: dict[Phase, list[NextOut]]
    phase: Phase
    tries: int
    target_c: float
    closes_at_c: float
    ceiling_c: float
    too_hot_c: float | None
    heating_since: datetime | None
    out_at: datetime | None
    on_at: datetime | None
    ready: Ready | None
    ready_until: datetime | None
    soaked_at: datetime | None
    carry_until: datetime | None
    closes_at: datetime | None
    grips_from: datetime | None
    grips_by: datetime | None
    touch_at: datetime | None
    hub_c: float | None
    hub_read_at: datetime | None
    clear_mm: float | None
    heating_s: float | None
    carry_s: float | None
    window_s: float | None
    grips_least_s: float | None
    grips_most_s: float | None
    cooling_s: float | None
    ready_at: datetime | None


class BlockOut(Shown):
    """Why a step takes no entry now; `step` is the one that comes first, where it is one."""

    words: str
    step: str


class AcceptedByOut(Shown):
    """A line of the value card a step goes by: what it says, and in which paper."""

    title: str
    value: Said
    source: str


class StepOut(Shown):
    """A step and where it stands."""

    key: str
    means: list[Of] = Field(description="what a reading here is of")
    stage: Stage
    title: str
    why: str
    tool: str
    caution: str
    on_fail: str
    photograph: str
    sketch: SketchOut | None
    accepted_by: list[AcceptedByOut]
    form: Annotated[BenchFormOut | SheetFormOut | SignFormOut, Field(discriminator="kind")]
    hold: Role | None
    no_return: bool
    moves: bool
    optional: bool
    may_authorise: bool
    needs: list[str]
    hands_on: bool
    heat_plan: str
    run: str = Field(description="the run of a hot hub that is shown with this step, and waits for it")
    readied_by: str
    heat_run: HeatRunOut | None
    not_before: datetime | None = Field(description="when the hub this step waits for is cold")
    state: StepState
    blocked_by: list[BlockOut]
    stale_because: Said
    current: UUID | None
    signed: UUID | None
    authorised: UUID | None
    covered: str = Field(description="who answered it, where the answer is kept from whoever reads this")
    second_to: str = Field(description="the step that another person answers")
    reads_with: list[str] = Field(description="kinds of instruments it is read with: which of them is said with the reading")
