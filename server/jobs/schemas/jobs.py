"""A job: how it is started and cancelled, and the whole of it as it stands."""

from datetime import datetime
from uuid import UUID

from ninja import Field, Schema

from millwright.card.values import Value
from millwright.job.proved import Stands
from millwright.line import LineSpec
from millwright.model import NameIn, PlainTextIn
from millwright.plan.fields import Goes
from millwright.scope import Scope, Task
from millwright.units import LengthUnit
from server.web.shown import Shown

from .entries import EntryOut, SignatureOut
from .steps import StepOut


class JobIn(Schema, extra="forbid"):
    """A job to start."""

    title: NameIn = Field(min_length=1, max_length=120)
    scope: Scope = Scope.FIT
    unit: LengthUnit = Field(default="mm", description="of its record, on the page and on paper")
    tasks: list[Task] = Field(default=[], description="of a job of upkeep, what it is there to do")


class TakeOverIn(Schema, extra="forbid"):
    """The lead's own password, at this moment."""

    password: str = Field(default="", max_length=200)


class CancelIn(Schema, extra="forbid"):
    """Why a job is cancelled."""

    reason: PlainTextIn = Field(max_length=400)


class ReadInOut(Shown):
    """Where a job from a file came from; names and times in it are as the file says."""

    by: str
    at: datetime
    site: str
    number: int | None = Field(default=None, description="which job it is there")
    digest: str
    why_not_judged: str = Field(default="", description="why nobody could say here whether it could have been entered")
    taken_over_at: datetime | None = Field(default=None, description="since when it counts here")
    taken_over_by: str = ""


class HeldOut(Shown):
    """A weight that something holds for now, and the step that lets something lasting take it over."""

    what: str
    by: str
    since: datetime
    step: str
    until: str


class SkinsOut(Shown):
    """Something that was laid, and until when it is open."""

    what: str
    until: datetime
    step: str


class LedgerLineOut(Shown):
    """Something counted out, and how many are back."""

    line: str
    what: str
    goes: Goes
    out: int
    back: int
    open: bool


class LocksOut(Shown):
    """Whether the locks are off, and why the dead state is to be proved again."""

    live: bool
    proof_due: str


class ProofOut(Shown):
    """What the job has to prove, and what stands behind it."""

    what: str
    stands: Stands
    of: list[str] = Field(description="the steps because of which it is not proven")


class JobOut(Shown):
    """A whole job: its route as it stands and everything entered."""

    id: UUID
    number: int
    title: str
    scope: Scope
    tasks: list[Task]
    unit: LengthUnit
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
    proofs: list[ProofOut]
    opening: str = Field(description="what stands open, and is covered whenever the work stops")
    locks: LocksOut
    ledger: list[LedgerLineOut]
    questions: list[UUID]
    may_be_slip: UUID | None = Field(description="the last reading or move, while nobody has signed it")
    held: list[HeldOut]
    skins: list[SkinsOut]
    entries: list[EntryOut]
    signatures: list[SignatureOut]
