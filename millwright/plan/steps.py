"""What a step is: its words, what it wants entered, what it relies on and what it changes."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from typing import Any, Literal

from ..card.meanings import BOTH_AT_ONCE
from ..card.values import ValueCard, of_hub
from ..line import SIDES, LineSpec, Side
from ..meaning import Meaning
from ..model import Model
from ..roles import Role
from ..scope import Scope, Task
from ..sketch.shapes import Sketch
from ..verdict import Judged
from .families.facts import OUTER_RACE, Circle, FamilyFacts, Part
from .fields import Field
from .hints import NONE as NO_HINTS
from .hubs.phases import Phase
from .locks import Locks


class Stage(StrEnum):
    """The stages of a job in working order."""

    LOCK_OUT = "Lock out"
    RECEIVE = "Receive"
    FOUND = "As found"
    TAKE_OFF = "Take off"
    PREPARE = "Prepare"
    MOUNT = "Mount hubs"
    SET = "Set & align"
    COUPLE = "Couple up"
    BACKSTOP = "Fit the backstop"
    KEEP = "Upkeep"
    CLOSE = "Close out"


@dataclass(frozen=True)
class Happened:
    """Something that happened to what was read. ``code`` tells it from everything else, ``words`` end a sentence."""

    code: str
    words: str = field(compare=False)


class Fact:
    """A physical thing that a reading relies on and a later action can change. Families and circles have their own."""

    MACHINES = Happened("machines", "the machines were moved")
    FEET = Happened("feet", "the feet were torqued or slackened")
    FIRST_HUB = Happened("first hub", "the first hub was moved on its shaft")
    SECOND_HUB = Happened("second hub", "the second hub was moved on its shaft")
    FIRST_FIT = Happened("first fit", "shaft and bore of the first hub were measured again")
    SECOND_FIT = Happened("second fit", "shaft and bore of the second hub were measured again")
    FIRST_HEAT = Happened("first heat", "the heat for the first hub was calculated again")
    SECOND_HEAT = Happened("second heat", "the heat for the second hub was calculated again")
    FIRST_MISSED = Happened("first missed", "the first hub missed its mark")
    SECOND_MISSED = Happened("second missed", "the second hub missed its mark")
    FIRST_REFUSED = Happened("first refused", "it was decided that the first hub does not go on like this")
    SECOND_REFUSED = Happened("second refused", "it was decided that the second hub does not go on like this")
    SHIMMED = Happened("shimmed", "a foot was shimmed")
    FASTENERS = Happened("fasteners", "a bolt or screw was pulled again")
    SECOND_PULL = Happened("second pull", "the torques were checked a second time again")
    PARTS = Happened("parts", "it was decided anew which parts go in")
    COUNTED_OUT = Happened("counted out", "something was counted out")
    LOCKS_OFF = Happened("locks off", "the locks came off")
    LOCKED_AGAIN = Happened("locked again", "it was locked out again")


@dataclass(frozen=True, kw_only=True)
class BenchForm:
    """The step wants readings for a bench. ``preset`` is enforced, ``suggest`` only fills the form.

    ``compare`` - earlier readings this one is held against, by the bench's own names. It is enforced as well, and nothing
    under such a name is taken from whoever enters the reading.
    """

    bench: str
    preset: Mapping[str, Any] = field(default_factory=dict)
    compare: Mapping[str, Any] = field(default_factory=dict)
    suggest: Model = NO_HINTS
    kind: Literal["bench"] = "bench"


@dataclass(frozen=True, kw_only=True)
class SheetForm:
    """The step wants ticks and figures; with ``rows`` as many rows of those as are needed.

    ``ordered`` - a tick is dead until the one above it is set
    """

    fields: tuple[Field, ...] = ()
    ordered: bool = False
    rows: tuple[Field, ...] = ()
    suggested_rows: tuple[Mapping[str, Any], ...] = ()
    row_name: str = ""
    kind: Literal["sheet"] = "sheet"


@dataclass(frozen=True, kw_only=True)
class SignForm:
    """The step wants a signature and nothing else."""

    kind: Literal["sign"] = "sign"


def form_as_shown(form: BenchForm | SheetForm | SignForm, *, compares: bool = True) -> Mapping[str, Any]:
    """As whoever fills it sees it. ``compares`` - what it is compared with may be seen"""
    match form:
        case BenchForm():
            hints = form.suggest.model_dump(mode="json", exclude_none=True)
            parts = {"preset": form.preset, "compare": form.compare if compares else {}, "suggest": hints}
            return {"kind": form.kind, "bench": form.bench, **parts}
        case SheetForm():
            fields, rows = ([vars(field) for field in some] for some in (form.fields, form.rows))
            return {**vars(form), "fields": fields, "rows": rows}
        case _:
            return {"kind": form.kind}


# The steps that jobs of any family have, as they are since: a job keeps the edition it was started under.
WITH_REASON = 2
EDITION = AFTER_THE_MICROMETER = COVERED_AT_BREAKS = 3


Answers = Mapping[str, Any]
HAS_BACKSTOP = "receive.backstop"  # where it is asked whether its gear unit has one
NO_BACKSTOP, STAYS_IN, FITTED_NOW = BACKSTOPS = ("no", "yes, and it stays in", "yes, it is fitted now")


@dataclass(frozen=True, kw_only=True)
class Holding:
    """What holds a weight from the moment a step is done: it is shown until something that stays has taken it over.

    ``what``    - the weight, in a sentence: "gear unit", "load"
    ``by``      - what holds it from then on; with ``asked`` the answer to that field of the step says so
    ``for_now`` - a sling, a prop, a hand: not what is to hold it in the end
    """

    what: str
    by: str = ""
    asked: str = ""
    for_now: bool = True


@dataclass(frozen=True, kw_only=True)
class OpenTime:
    """What was laid and skins over: after so many minutes the step is to be done anew.

    ``what``    - what was laid, in a sentence: "sealant"
    ``asked``   - the field of the step that says how many minutes
    ``used_by`` - the step that has to be done within them
    """

    what: str
    asked: str
    used_by: str


# What is worked out when it is wanted, of the job as it then stands: a route is remembered, and holds no job.
Judge = Callable[["JobFacts", Answers], Judged]
Lacks = Callable[["JobFacts", Answers], list[str]]
Upsets = Callable[["JobFacts", Answers], frozenset[Happened]]
Draw = Callable[["JobFacts"], Sketch]
MeansBy = Callable[[Answers], tuple[Meaning, ...]]


@dataclass(frozen=True, kw_only=True)
class Instruction:
    """What a stop of a procedure says, and the step that is made of it."""

    title: str  # verb first
    why: str
    tool: str = ""
    caution: str = ""
    on_fail: str = ""
    photograph: str = ""  # what a picture proves better than words
    sketch: Draw | None = None  # what to look for, drawn for this line; worked out only where it is shown
    means: tuple[Meaning, ...] = ()  # what a reading here is of, whatever the step is called
    means_by: MeansBy | None = None  # and what else, by what was answered
    needs: tuple[str, ...] = ()  # keys of the value card
    judged_by: tuple[str, ...] = ()  # further keys: what is judged by them where they are filled
    relies: frozenset[Happened] = frozenset()
    changes: frozenset[Happened] = frozenset()
    upsets: Upsets | None = None  # what it changes beside, by what was answered
    over_changes: frozenset[Happened] = frozenset()  # what it changes where it is over and nobody has accepted that
    hold: Role | None = None
    no_return: bool = False
    finding: bool = False  # judged, but over its limit it holds nothing up: it is as it was found
    may_authorise: bool = False  # a lead may accept an over-limit value with a reason
    judge: Judge | None = None
    lacks: Lacks | None = None  # what by these answers is wanted beside the sheet, in words
    holds: tuple[Holding, ...] = ()
    open_time: OpenTime | None = None


@dataclass(frozen=True, kw_only=True)
class Step(Instruction):
    """One step of the route."""

    key: str
    stage: Stage
    form: BenchForm | SheetForm | SignForm
    after: tuple[str, ...] = ()  # must be done and fresh; filled by `order.arrange` alone, like the two below
    passed: tuple[str, ...] = ()  # must have come out well, though it may have gone stale since
    once: tuple[str, ...] = ()  # must have been read, however it stands now
    moves: bool = False  # moves of the machine are recorded here
    hands_on: bool = True  # hands on the machine: not while the locks are off, nor before the dead state is proved
    counts_out: bool = False  # waits until every line of the ledger is closed that no later step closes
    must_pass: bool = False  # in a `Reread`, what follows wants it well, not only read
    optional: bool = False  # may be left out
    leaves_provisional: str = ""
    settled_by: str = ""  # the step that ends what this one leaves provisional
    second_to: str = ""  # the step that another person has answered, each for himself, without seeing what the other said
    waits_for: str = ""  # the run of a hot hub that has to be cold first
    run: str = ""  # the run of a hot hub that is shown here too: what is ticked here it waits for before it leaves the heater
    readied_by: str = ""  # of a run: the step with that `run`
    heat_plan: str = ""  # the step whose heat bench this run of a hot hub goes by; with it, events are taken here


@dataclass(frozen=True, kw_only=True)
class Terms:
    """What a job was started under, and goes by to its end.

    ``procedure`` - the version of the family's procedure; None for the newest
    ``edition``   - of the steps that jobs of every family have
    ``tasks``     - of a job of upkeep, what it is there to do
    """

    procedure: int | None = None
    edition: int = EDITION
    tasks: tuple[Task, ...] = ()


@dataclass(frozen=True, kw_only=True)
class Cools:
    """A hub that left the heater: how long ago, seconds, and how long still air takes until a bare hand can rest on it."""

    since_s: float
    takes_s: float
    about_c: float  # what it is at now, by still air


@dataclass(frozen=True, kw_only=True)
class JobFacts:
    """What the route of one job is built from, besides what was entered."""

    line: LineSpec
    family: FamilyFacts  # what is known of the line's coupling
    card: ValueCard
    terms: Terms = Terms()
    answers: Mapping[str, Answers] = field(default_factory=dict)  # latest answers of each sheet step
    scope: Scope = Scope.FIT
    as_left: Mapping[str, Answers] = field(default_factory=dict)  # readings the job before this one left behind
    hottest_c: Mapping[str, float] = field(default_factory=dict)  # by the step of its run, the most a hub was read at
    arrived_c: Mapping[str, float] = field(default_factory=dict)  # by the step of its run, as a hub was read before the shaft
    phases: Mapping[str, Phase] = field(default_factory=dict)  # by the step of its run, where a hot hub is
    cooling: Callable[[str, str], Cools | None] = lambda plan, run: None  # by the steps of its plan and its run
    moved_after: Mapping[str, bool] = field(default_factory=dict)  # steps read before a machine was last moved
    locks: Locks = field(default_factory=Locks)
    out: Mapping[str, int] = field(default_factory=dict)  # by line of the ledger, how many went out

    def first(self) -> Side:
        """The side whose hub is fixed first: the one that cannot slide afterwards, else that of the machine that stays."""
        if len(self.family.hubs) == 1:
            return self.family.hubs[0]
        fixed = [side for side in SIDES if not self.line.hub(side).slides]
        return fixed[0] if len(fixed) == 1 else self.line.stationary

    def second(self) -> Side:
        """The other side; the same where only one hub is mounted."""
        return self.order()[-1]

    def order(self) -> list[Side]:
        """The sides in the order their hubs go on."""
        first = self.first()
        return [first, *(side for side in self.family.hubs if side != first)]

    @property
    def circles(self) -> tuple[Circle, ...]:
        """The circles of fasteners this coupling has."""
        if self.scope is Scope.BACKSTOP:
            return (OUTER_RACE,)
        own = (circle for circle in self.family.circles if circle.only is None or circle.only(self))
        return (*own, *([OUTER_RACE] if self.fits_backstop else []))

    @property
    def fits_backstop(self) -> bool:
        """A backstop goes into its gear unit in this job."""
        return self.scope is Scope.BACKSTOP or self._backstop() == FITTED_NOW

    @property
    def keeps_backstop(self) -> bool:
        """There is one already, and it stays in."""
        return self._backstop() == STAYS_IN

    def _backstop(self) -> object:
        fits = self.scope in (Scope.FIT, Scope.REFIT)
        return self.answers.get(HAS_BACKSTOP, {}).get("has") if fits else None

    @property
    def couples(self) -> bool:
        """Two machines are coupled in this job: there is a coupling to be looked at and an alignment to be read."""
        return not self.family.hangs and self.scope is not Scope.BACKSTOP

    @property
    def parts(self) -> tuple[Part, ...]:
        """The parts of its kit."""
        return tuple(part for part in self.family.parts if part.only is None or part.only(self))

    @property
    def closes_by_hub(self) -> bool:
        """The gap is closed by sliding the second hub; else the machine is moved up to it."""
        by = self.card.get("set_screws_by")
        both_at_once = by is not None and by.means == BOTH_AT_ONCE
        return self.family.closes_by_hub and self.line.hub(self.second()).slides and not both_at_once

    def hub_fact(self, side: Side) -> Happened:
        """The place of this hub on its shaft, as a fact that readings rely on."""
        return Fact.FIRST_HUB if side == self.first() else Fact.SECOND_HUB

    def fit_fact(self, side: Side) -> Happened:
        """What was measured of this hub and its shaft: a decision and a temperature rest on it."""
        return Fact.FIRST_FIT if side == self.first() else Fact.SECOND_FIT

    def refused_fact(self, side: Side) -> Happened:
        """That this hub was not to go on as it was: it is measured again."""
        return Fact.FIRST_REFUSED if side == self.first() else Fact.SECOND_REFUSED

    def missed_fact(self, side: Side) -> Happened:
        """That this hub was not drawn up to its mark: the next try wants another temperature."""
        return Fact.FIRST_MISSED if side == self.first() else Fact.SECOND_MISSED

    def heat_fact(self, side: Side) -> Happened:
        """The temperature worked out for this hub: a run goes by it."""
        return Fact.FIRST_HEAT if side == self.first() else Fact.SECOND_HEAT

    def key(self, key: str, side: Side) -> str:
        """The line of the value card this hub goes by."""
        return of_hub(self.card, key, side)

    def limit(self, key: str) -> float:
        """A figure of the card at the speed of this line. It must be there."""
        return self.card[key].at(self.line.speed_rpm)
