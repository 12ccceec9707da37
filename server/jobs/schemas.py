"""What goes in and out of the jobs API."""

from datetime import datetime
from typing import Annotated, Any, Literal
from uuid import UUID

from ninja import Field, Schema

from millwright.card.values import Value
from millwright.line import LineSpec
from millwright.model import NameIn, PlainTextIn
from millwright.roles import Role
from millwright.route.fields import FieldKind, Goes
from millwright.route.hubs.hot_run import Ready, Until
from millwright.route.hubs.phases import Event, Phase
from millwright.route.state import EntryKind, SignatureKind, StepState
from millwright.route.steps import Scope, Stage
from millwright.sketch.shapes import Anchor, Ink
from millwright.units import LengthUnit
from millwright.verdict import Verdict
from server.web.words import Said

from .photographs import MOST_SENT


class JobIn(Schema, extra="forbid"):
    """A job to start."""

    title: NameIn = Field(min_length=1, max_length=120)
    scope: Scope = Scope.FIT


class CancelIn(Schema, extra="forbid"):
    """Why a job is cancelled."""

    reason: PlainTextIn = Field(max_length=400)


class ReadInOut(Schema):
    """Where a job from a file came from; names and times in it are as the file says."""

    by: str
    at: datetime
    site: str
    digest: str


class EntryIn(Schema, extra="forbid"):
    """An entry to append. `typed` holds what was typed, by path into `inputs`, where lengths were typed."""

    id: UUID
    step: NameIn = Field(max_length=60)
    kind: EntryKind
    inputs: dict[str, Any]
    typed: dict[str, str] = {}
    unit: LengthUnit = "mm"
    image: str = Field(default="", max_length=MOST_SENT, description="of a photograph: JPEG, PNG or WebP in base64")
    as_it_is: bool = Field(default=False, description="taken although its ± leaves open whether it is within its limit")
    by: str | None = Field(default=None, description="username of whoever entered it; refused for anybody else's session")


class SignatureIn(Schema, extra="forbid"):
    """A signature; `entry` is the reading the signer saw, `password` the signer's own, at this moment."""

    id: UUID
    step: NameIn = Field(max_length=60)
    kind: SignatureKind
    entry: UUID | None = None
    reason: PlainTextIn = Field(default="", max_length=400)
    password: str = Field(default="", max_length=200)
    by: str | None = Field(default=None, description="username of whoever signed; refused for anybody else's session")


class EntryOut(Schema):
    """An entry as it was appended."""

    id: UUID
    number: int
    step: str
    kind: EntryKind
    label: str = Field(default="", description="what it is called among those of its step")
    bench: str | None = Field(description="of a reading: its bench, or that it was a sheet")
    left_out: bool = Field(default=False, description="a sweep that was read again: its readings are not in this answer")
    inputs: dict[str, Any]
    typed: dict[str, str]
    result: dict[str, Any] | None
    by: str
    role: Role
    at: datetime


class SignatureOut(Schema):
    """A signature as it was given."""

    id: UUID
    number: int
    kind: SignatureKind
    step: str
    entry: UUID | None = Field(validation_alias="entry_id")
    reason: str
    by: str
    role: Role
    at: datetime


class FieldOut(Schema):
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


class BenchFormOut(Schema):
    """The step wants readings for a bench; in the description it is one shape a bench (`described.py`)."""

    kind: Literal["bench"]
    bench: str
    preset: dict[str, Any]
    compare: dict[str, Any]
    suggest: dict[str, Any]


class SheetFormOut(Schema):
    """The step wants ticks and figures."""

    kind: Literal["sheet"]
    fields: list[FieldOut]
    ordered: bool
    rows: list[FieldOut]
    suggested_rows: list[dict[str, str]]
    row_name: str


class SignFormOut(Schema):
    """The step wants a signature and nothing else."""

    kind: Literal["sign"]


class NextOut(Schema):
    """What may happen to a hot hub next, what its button says, and where the hub is then."""

    event: Event
    words: str
    to: Phase


class HeatRunOut(Schema):
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


class BlockOut(Schema):
    """Why a step takes no entry now; `step` is the one that comes first, where it is one."""

    words: str
    step: str


class AcceptedByOut(Schema):
    """A line of the value card a step goes by: what it says, and in which paper."""

    title: str
    value: Said
    source: str


class PathOut(Schema):
    """A line or an outline, as SVG has it, and in which ink."""

    d: str
    ink: Ink


class PointOut(Schema):
    """A place in a drawing."""

    x: float
    y: float


class LabelOut(Schema):
    """Words at a place; with `to` a leader runs from them to what they name."""

    x: float
    y: float
    words: Said
    anchor: Anchor
    to: PointOut | None


class DimensionOut(Schema):
    """A distance between two points, with its figure."""

    x1: float
    y1: float
    x2: float
    y2: float
    words: Said


class SketchOut(Schema):
    """What to look for, drawn; `title` for whoever cannot see it."""

    title: str
    width: float
    height: float
    paths: list[PathOut]
    labels: list[LabelOut]
    dimensions: list[DimensionOut]


class StepOut(Schema):
    """A step and where it stands."""

    key: str
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


class LedgerLineOut(Schema):
    """Something counted out, and how many are back."""

    line: str
    what: str
    goes: Goes
    out: int
    back: int
    open: bool


class LocksOut(Schema):
    """Whether the locks are off, and why the dead state is to be proved again."""

    live: bool
    proof_due: str


class JobOut(Schema):
    """A whole job: its route as it stands and everything entered."""

    id: UUID
    number: int
    title: str
    scope: Scope
    line_id: UUID
    line_name: str
    spec: LineSpec
    started_by: str
    started_at: datetime
    closed: bool
    cancelled_by: str
    cancelled_because: str
    read_in: ReadInOut | None
    now: datetime = Field(description="the server's clock: a device's own may be wrong")
    steps: list[StepOut]
    next: str | None = Field(description="the step that is to be done now")
    card: dict[str, Value]
    provisional: list[str]
    locks: LocksOut
    ledger: list[LedgerLineOut]
    questions: list[UUID]
    entries: list[EntryOut]
    signatures: list[SignatureOut]


class StagesDone(Schema):
    """How far an open job is."""

    stage: Stage
    step: str
    step_title: str
    state: StepState
    verdict: Verdict | None
    headline: Said
    proven: bool | None
    used: float | None
    of: str


class HotHub(Schema):
    """A hub that is hot, and what is waited for."""

    until: Until
    at: datetime


class FloorJob(Schema):
    """A job as the floor shows it."""

    id: UUID
    number: int
    title: str
    at: StagesDone | None = Field(description="none where the job cannot be shown")
    to_sign: list[str]
    questions: int
    hot_hub: HotHub | None
    stages: list[Stage]
    now: datetime = Field(description="the server's clock")


class FloorLine(Schema):
    """A line as the floor shows it: its drawing, its open job, when its last job was closed."""

    id: UUID
    name: str
    spec: LineSpec
    job: FloorJob | None
    last_closed: datetime | None
    jobs: int


class HistoryJob(Schema):
    """A job in a line's history."""

    id: UUID
    number: int
    title: str
    started_at: datetime
    started_by: str
    closed: bool
    cancelled_because: str
