"""Lines and their jobs as the floor and a line's history show them."""

from datetime import datetime
from uuid import UUID

from ninja import Field

from millwright.job.hot_run import Until
from millwright.job.now import StepState
from millwright.line import Drawn, Family, Side
from millwright.plan.steps import Stage
from millwright.roles import Role
from millwright.verdict import Verdict
from server.web.shown import Shown
from server.web.words import Said

from .jobs import HeldOut


class StagesDone(Shown):
    """How far an open job is."""

    stage: Stage
    step: str
    step_title: str
    state: StepState
    verdict: Verdict | None
    headline: Said
    signs: Role | None = Field(description="whose signature it waits for")
    proven: bool | None
    used: float | None
    of: str


class HotHub(Shown):
    """A hub that is hot, and what is waited for."""

    until: Until
    at: datetime


class FloorJob(Shown):
    """A job as the floor shows it."""

    id: UUID
    number: int
    title: str
    read_in: bool = Field(description="from a file, and no lead has taken it over: nothing goes by it")
    at: StagesDone | None = Field(description="none where the job cannot be shown")
    to_sign: list[str]
    questions: int
    to_accept: list[str] = Field(description="steps whose reading the lead is asked to accept")
    hot_hub: HotHub | None
    held: list[HeldOut]
    stages: list[Stage]
    now: datetime = Field(description="the server's clock")


class FloorFoot(Shown):
    """Where a foot stands."""

    from_coupling_mm: float


class FloorMachine(Shown):
    """What of a machine its small drawing shows."""

    drawn_as: Drawn
    feet: list[FloorFoot]


class FloorCoupling(Shown):
    """What a line's coupling is called."""

    family: Family
    series: str
    size: str


class FloorSpec(Shown):
    """Of a line what the floor draws and searches; a site may have thousands, so nothing else is sent with it."""

    driver: FloorMachine
    driven: FloorMachine
    coupling: FloorCoupling
    movable: Side


class FloorLine(Shown):
    """A line as the floor shows it: its drawing, its open job, when its last job was closed."""

    id: UUID
    name: str
    spec: FloorSpec
    job: FloorJob | None
    last_closed: datetime | None
    jobs: int
    asked: int = Field(description="changes of its card that wait for the lead")


class HistoryJob(Shown):
    """A job in a line's history."""

    id: UUID
    number: int
    title: str
    started_at: datetime
    started_by: str
    closed: bool
    cancelled_because: str
    read_in: bool = Field(description="from a file, and no lead has taken it over: nothing goes by it")
