"""Where a job stands now, and every step of it."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from enum import StrEnum
from functools import cached_property

from ..card.values import ValueCard
from ..plan.backstop.fitting import COVER
from ..plan.hubs.phases import Phase
from ..plan.locks import LOCK_AGAIN, Locks
from ..plan.stages.close_out import CLOSING
from ..plan.steps import COVERED_AT_BREAKS, JobFacts, Step
from ..say import Words, words
from ..verdict import Verdict
from .entry import Entry, Signature
from .ledger import LedgerLine


class StepState(StrEnum):
    """Where one step stands."""

    BLOCKED = "blocked"
    OPEN = "open"
    INCOMPLETE = "incomplete"
    CANNOT_TELL = "cannot tell yet"
    OVER = "over"
    STALE = "stale"
    WAITING = "waiting"  # for the answer to a question
    TO_SIGN = "to sign"
    DONE = "done"


MOST_NAMED = 6  # steps that are not started: more are counted
STATE_WORDS: Mapping[StepState, str] = {
    StepState.BLOCKED: "not started",
    StepState.OPEN: "not started",
    StepState.INCOMPLETE: "in work",
    StepState.CANNOT_TELL: "cannot tell yet",
    StepState.OVER: "out of tolerance",
    StepState.STALE: "to read again",
    StepState.WAITING: "waiting for the lead",
    StepState.TO_SIGN: "to sign",
    StepState.DONE: "done",
}


@dataclass(frozen=True)
class Block:
    """Why a step takes no entry now, and the step that comes first where it is one."""

    words: str
    step: str = ""


@dataclass(frozen=True, kw_only=True)
class StepNow:
    """A step with its state and the reasons for it."""

    job: JobFacts  # as it stands
    step: Step
    state: StepState
    blocks: tuple[Block, ...]  # a step with any takes no entry
    held_by_locks: bool  # among them: the locks are off, or the dead state is to be proved again
    stale_because: Words
    current: Entry | None
    signed: Signature | None
    authorised: Signature | None

    @property
    def blocked_by(self) -> tuple[str, ...]:
        """Why it takes no entry now, in sentences."""
        return tuple(block.words for block in self.blocks)

    def may_be_accepted(self, entry: str | None) -> bool:
        """True where this reading is the current one, is out of tolerance, and a lead may accept it all the same."""
        current = self.current
        if current is None or current.id != entry or self.stale_because or self.authorised is not None:
            return False
        return self.step.may_authorise and current.verdict is Verdict.OVER and not self.step.finding

    @property
    def settled(self) -> bool:
        """Done, or left out where it may be."""
        return self.state is StepState.DONE or (self.step.optional and self.current is None)


@dataclass(frozen=True, kw_only=True)
class Held:
    """A weight that something holds for now."""

    what: str
    by: str
    since: datetime
    step: str
    until: str  # the title of the step that lets something lasting take it over; empty where no step does


@dataclass(frozen=True, kw_only=True)
class Skins:
    """Something that was laid and is open until then."""

    what: str
    until: datetime
    step: str


@dataclass(frozen=True, kw_only=True)
class RouteNow:
    """The whole route as it stands."""

    steps: tuple[StepNow, ...]
    card: ValueCard
    provisional: tuple[str, ...]
    ledger: tuple[LedgerLine, ...]
    questions: tuple[Entry, ...]  # unanswered
    locks: Locks
    phases: Mapping[str, Phase]  # by the step of its run, where a hot hub is
    held: tuple[Held, ...]
    skins: tuple[Skins, ...]
    may_be_slip: Entry | None  # the last reading or move, while nobody has signed it
    last_number: int  # of the entries and signatures it was derived from

    def next(self) -> StepNow | None:
        """The first step that is still to be settled; None where all are.

        Locking out again comes before anything else, and what the locks hold up waits for the step that proves it dead.
        """
        waiting = [now for now in self.steps if not now.settled]
        again = [now for now in waiting if now.step.key == LOCK_AGAIN]
        return next(iter([*again, *(now for now in waiting if not now.held_by_locks), *waiting]), None)

    def find(self, key: str) -> StepNow | None:
        """The step of that key, or None."""
        return next((now for now in self.steps if now.step.key == key), None)

    @cached_property
    def covered(self) -> dict[str, str]:
        """By step, whose answer is kept from everybody else until a second person has answered as well."""
        found = {}
        for now in self.steps:
            first = self.find(now.step.second_to) if now.step.second_to else None
            if first is None or first.current is None:
                continue
            if now.current is None or now.current.number < first.current.number:
                found[first.step.key] = first.current.by
        return found

    @property
    def opening(self) -> str:
        """What stands open and has to be covered whenever the work stops; empty where nothing does."""
        asked = any(now.job.terms.edition >= COVERED_AT_BREAKS for now in self.steps)
        is_open = any(line.what == COVER and line.open for line in self.ledger)
        return "The opening of the gear unit" if asked and is_open else ""

    @property
    def closed(self) -> bool:
        """The record has been signed and closed."""
        return any(now.step.key == CLOSING and now.signed is not None for now in self.steps)

    def why_not_signed_off(self) -> list[Words]:
        """Everything that keeps the record open; empty when it may be signed."""
        open_now = [now for now in self.steps if now.step.form.kind != "sign" and not now.settled]
        ahead = [now for now in open_now if now.state in (StepState.BLOCKED, StepState.OPEN)]
        if len(ahead) <= MOST_NAMED:
            ahead = []
        why = [
            words("{title}: {why}", title=now.step.title, why=now.stale_because or STATE_WORDS[now.state])
            for now in open_now
            if now not in ahead
        ]
        if ahead:
            why.append(words(f"{len(ahead)} steps not started, the first of them: {ahead[0].step.title}"))
        why += [words(f"Ledger: {line.what}, {line.missing} to count back") for line in self.ledger if line.open]
        return why + [words("Not final yet: {what}", what=what) for what in self.provisional]
