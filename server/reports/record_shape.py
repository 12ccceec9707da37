"""What a record holds: the one structure that the page and the PDF show."""

from datetime import datetime
from uuid import UUID

from ninja import Field, Schema
from pydantic import computed_field

from millwright.job.asked import NOT_JUDGED_HERE
from millwright.job.entry import EntryKind, SignatureKind
from millwright.job.now import STATE_WORDS, StepState
from millwright.say import NOTHING
from millwright.units import LengthUnit
from millwright.verdict import STATUS_WORDS, Status, Verdict
from server.web.words import Said

MOST_IN_A_COLUMN = 40  # letters


class FigureLine(Schema):
    """One figure: where, what, and as typed where that was written another way."""

    label: str
    value: Said
    typed: str

    @computed_field  # type: ignore[prop-decorator]  # as pydantic has it
    @property
    def is_words(self) -> bool:
        """Not a number: set in the text face."""
        said = str(self.value)
        return not said[:1].strip("+-−.").isdigit() and not said[:2].strip("+-−.").isdigit()

    @computed_field  # type: ignore[prop-decorator]
    @property
    def goes_across(self) -> bool:
        """More words than a column holds."""
        return self.is_words and len(str(self.value)) > MOST_IN_A_COLUMN


class CheckLine(Schema):
    """A judged figure in words: what it was, its limit, how it stands to it, whose limit."""

    name: str
    found: Said
    value: Said
    limit: Said
    status: Status
    proven: bool | None = None
    source: str
    overtaken: Said = NOTHING  # why it no longer stands; said in the summary only

    @computed_field  # type: ignore[prop-decorator]
    @property
    def said(self) -> str:
        """How it stands, in a word: within its limit on paper but not with its ± cannot be told; what somebody looked at and
        counted is in order, though no figure judged it."""
        if self.proven is False and self.status in (Status.INSIDE, Status.CLOSE):
            return "cannot tell yet"
        looked_at = self.status is Status.NOT_JUDGED and not self.value and not self.limit
        return "in order" if looked_at else STATUS_WORDS[self.status]


class BoltRow(Schema):
    """What a bolt got, pass by pass."""

    bolt: str
    cells: list[Said]


class BoltTable(Schema):
    """The pulls of a circle: a row a bolt, a column a pass."""

    passes: list[str]
    rows: list[BoltRow]


class Reading(Schema):
    """One reading, move or remark of a step. `ticked` and `not_ticked` are sentences of a sheet;
    `rings` names the clock readings that go out as CSV, in their order."""

    id: UUID
    kind: EntryKind
    label: str
    verdict: Verdict | None
    figures: list[FigureLine]
    ticked: list[str]
    not_ticked: list[str]
    checks: list[CheckLine]
    advice: list[Said]
    as_the_file_has_it: list[str] = Field(
        default=[], description="of a job from a file: its own words, where they are others"
    )
    judged_here: bool = True  # else it stands as its file has it, and nobody says what it comes to
    as_it_is: bool = False  # taken although it cannot be told whether it is within its limit
    rings: list[str]
    pulls: BoltTable | None = None
    by: str
    role: str
    at: datetime
    drawing: str | None
    drawing_title: str = Field(default="", description="what the drawing shows")

    @computed_field  # type: ignore[prop-decorator]
    @property
    def said(self) -> str:
        """What came of it, in words; empty where nothing was to be judged or done."""
        if self.verdict is None:
            return ""
        if not self.judged_here:
            return NOT_JUDGED_HERE
        return "done" if self.verdict is Verdict.NOT_JUDGED else STATUS_WORDS[self.verdict]


class Signed(Schema):
    """A signature, and the reason where something over its limit was accepted."""

    kind: SignatureKind
    by: str
    role: str
    at: datetime
    reason: str


class RecordStep(Schema):
    """A step with everything that was entered in it."""

    key: str
    stage: str
    title: str
    state: StepState | None
    stale_because: Said
    readings: list[Reading]
    signatures: list[Signed]

    @computed_field  # type: ignore[prop-decorator]
    @property
    def said(self) -> str:
        """Where it is, in words; empty for what is no step of the route any more."""
        return STATE_WORDS[self.state] if self.state is not None else ""


class MachineLine(Schema):
    """A machine of the line, as its plate and the register have it."""

    name: str
    what: Said
    serial: str


class ProofLine(Schema):
    """What the job had to prove, and what stands behind it."""

    what: str
    stands: str
    of: list[str] = Field(description="the steps because of which it is not proven")


class Deviation(Schema):
    """What is not as the value card has it, or was taken all the same; who said so, and why."""

    step: str
    what: str
    value: Said
    limit: Said
    said: str
    by: str = ""
    role: str = ""
    at: datetime | None = None
    reason: str = ""


class Instrument(Schema):
    """An instrument with its number and its calibration, as it was entered, and the steps it was used in."""

    what: str
    number: str
    calibrated: str
    used_in: list[str]


class SignedStep(Signed):
    """A signature of the record, with what was signed."""

    step: str


class Picture(Schema):
    """A photograph of the record."""

    id: UUID
    step: str
    caption: str


class Front(Schema):
    """The first page: what a plant takes as proof, before the log."""

    machines: list[MachineLine]
    proofs: list[ProofLine] = Field(default_factory=list, description="none in a record issued before it had them")
    deviations: list[Deviation]
    signatures: list[SignedStep]
    instruments: list[Instrument]
    pictures: list[Picture]


class CardLine(Schema):
    """A line of the value card."""

    title: str
    value: Said
    means: str
    source: str
    sample: bool


class RecordOut(Schema):
    """The whole record."""

    number: int
    title: str
    scope: str = ""
    unit: LengthUnit = "mm"
    line: str
    site: str
    what: str
    started_by: str
    started_at: datetime
    closed: bool
    open_things: list[Said]
    front: Front | None = Field(default=None, description="none in a record issued before it had one")
    summary: list[CheckLine]
    card: list[CardLine]
    steps: list[RecordStep]
    ledger: list[FigureLine]
    chain: str = Field(default="", description="hash of what was entered and signed, up to the last of it")
    cancelled: str = ""
    read_in: str = Field(default="", description="of a job from a file: who read it in, when, from where")
    to_take_over: bool = Field(default=False, description="from a file: nothing goes by it until a lead takes it over")
    file_waits: str = Field(default="", description="why the job cannot be had as a file yet; empty where it can")
    digest: str = Field(default="", description="of the record as it was issued; empty while it is open")
    issued_at: datetime | None = None
    added_since: list[RecordStep] = Field(default=[], description="notes to a record that was closed already")
