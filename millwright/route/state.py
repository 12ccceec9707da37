"""Where a job stands: the state of every step, what is provisional and what is open, from the entries alone."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from enum import StrEnum
from types import MappingProxyType
from typing import Any

from ..card.kinds import ValueKind
from ..card.values import Value, ValueCard, stands_on, value_kind
from ..line import LineSpec
from ..roles import Role
from ..verdict import Verdict
from .build import build
from .hubs.keyed import as_decided
from .stages.close_out import CLOSING
from .steps import Answers, Fact, JobFacts, Scope, Step


class EntryKind(StrEnum):
    """What an entry is. Every kind is appended, none is ever changed."""

    READING = "reading"
    MOVE = "move"
    NOTE = "note"
    QUESTION = "question"
    ANSWER = "answer"
    VALUE = "value"
    LEDGER = "ledger"
    EVENT = "event"


class SignatureKind(StrEnum):
    """What a signature says."""

    HOLD = "hold"  # a hold point is released, or the record closed
    AUTHORISE = "authorise"  # an over-limit value is accepted, with a reason


class StepState(StrEnum):
    """Where one step stands."""

    BLOCKED = "blocked"
    OPEN = "open"
    INCOMPLETE = "incomplete"
    OVER = "over"
    STALE = "stale"
    WAITING = "waiting"  # for the answer to a question
    TO_SIGN = "to sign"
    DONE = "done"


@dataclass(frozen=True, kw_only=True)
class Entry:
    """One appended fact, numbered in the order of the job."""

    id: str
    number: int
    step: str
    kind: EntryKind
    inputs: Mapping[str, Any]
    verdict: Verdict | None
    by: str
    role: Role
    at: datetime


@dataclass(frozen=True, kw_only=True)
class Signature:
    """Who signed what; `entry` is the reading it covers."""

    id: str
    number: int
    kind: SignatureKind
    step: str
    entry: str | None
    by: str
    role: Role
    at: datetime
    reason: str


@dataclass(frozen=True, kw_only=True)
class StepNow:
    """A step with its state and the reasons for it."""

    step: Step
    state: StepState
    blocked_by: tuple[str, ...]  # sentences; a step with any takes no entry
    stale_because: str
    current: Entry | None
    signed: Signature | None
    authorised: Signature | None

    @property
    def settled(self) -> bool:
        """Done, or left out where it may be."""
        return self.state is StepState.DONE or (self.step.optional and self.current is None)


@dataclass(frozen=True, kw_only=True)
class LedgerLine:
    """Something that went in and must come out, or came off and must go back."""

    line: str
    what: str
    goes: str
    out: int
    back: int

    @property
    def open(self) -> bool:
        """Still to be counted back."""
        return self.back < self.out


@dataclass(frozen=True, kw_only=True)
class RouteNow:
    """The whole route as it stands."""

    steps: tuple[StepNow, ...]
    card: ValueCard
    provisional: tuple[str, ...]
    ledger: tuple[LedgerLine, ...]
    questions: tuple[Entry, ...]  # unanswered
    last_number: int  # of the entries and signatures it was derived from

    def next(self) -> StepNow | None:
        """The first step that is still to be settled; None where all are."""
        return next((now for now in self.steps if not now.settled), None)

    def find(self, key: str) -> StepNow | None:
        """The step of that key, or None."""
        return next((now for now in self.steps if now.step.key == key), None)

    @property
    def closed(self) -> bool:
        """The record has been signed and closed."""
        return any(now.step.key == CLOSING and now.signed is not None for now in self.steps)

    def why_not_signed_off(self) -> list[str]:
        """Everything that keeps the record open; empty when it may be signed."""
        why = [
            f"{now.step.title}: {now.stale_because or now.state.value}"
            for now in self.steps
            if now.step.form.kind != "sign" and not now.settled
        ]
        why += [f"Ledger: {line.what}, {line.out - line.back} to count back" for line in self.ledger if line.open]
        return why + [f"Provisional: {what}" for what in self.provisional]


NOTHING_LEFT: Mapping[str, Answers] = MappingProxyType({})
DONE_VERDICTS = (Verdict.INSIDE, Verdict.CLOSE, Verdict.NOT_JUDGED)


def stand(
    line: LineSpec,
    catalogue: ValueCard,
    entries: Sequence[Entry],
    signatures: Sequence[Signature],
    scope: Scope = Scope.FIT,
    as_left: Mapping[str, Answers] = NOTHING_LEFT,
) -> RouteNow:
    """The route of a job as it stands after these entries and signatures.

    ``as_left`` - what the job before this one left behind, to compare with; nothing is decided by it
    ``entries``, ``signatures`` - in the order of their numbers; the two share one numbering. Readings that
    a later one of the same step has superseded change nothing and may be left out.
    """
    card = value_card(catalogue, entries)
    latest = {e.step: e for e in entries if e.kind is EntryKind.READING}
    answers = {key: e.inputs for key, e in latest.items()}
    facts = JobFacts(
        line=as_decided(line, answers),
        card=card,
        answers=answers,
        scope=scope,
        as_left=as_left,
        hottest_c=_hottest(entries),
    )
    steps = build(facts)
    changed = _changes(steps, entries)
    card_changed = _card_changes(catalogue, entries, line.speed_rpm)
    questions = _unanswered(entries)
    asked = {question.step for question in questions}
    titles = {step.key: step.title for step in steps}
    found: dict[str, StepNow] = {}
    for step in steps:
        blocked = [f"First: {titles[key]}" for key in step.after if not found[key].settled]
        blocked += [f"First: {titles[key]}" for key in step.once if found[key].current is None]
        blocked += [
            f"Value missing: {kind.title}. Look in {kind.look_in}."
            for key in step.needs
            if key not in card and (kind := value_kind(key))
        ]
        current = latest.get(step.key)
        stale = _stale(step, current, changed, card_changed)
        signed = _latest(signatures, SignatureKind.HOLD, step.key, current)
        authorised = _latest(signatures, SignatureKind.AUTHORISE, step.key, current)
        if step.key in asked:
            blocked.append("A question waits for the lead's answer.")
        found[step.key] = StepNow(
            step=step,
            state=_state(step, current, bool(blocked), stale, signed, authorised, step.key in asked),
            blocked_by=tuple(blocked),
            stale_because=stale,
            current=current,
            signed=signed,
            authorised=authorised,
        )
    now = tuple(found.values())
    return RouteNow(
        steps=now,
        card=card,
        provisional=_provisional(now),
        ledger=ledger(entries),
        questions=tuple(questions),
        last_number=max([0, *(e.number for e in entries), *(s.number for s in signatures)]),
    )


def value_card(catalogue: ValueCard, entries: Sequence[Entry]) -> ValueCard:
    """The catalogue's values with those entered in the job laid over them, the latest last."""
    card = dict(catalogue)
    for entry in entries:
        if entry.kind is EntryKind.VALUE:
            card[str(entry.inputs["key"])] = Value.model_validate(entry.inputs["value"])
    return card


def _hottest(entries: Sequence[Entry]) -> dict[str, float]:
    """By the step of its run, the most a hub was read at."""
    found: dict[str, float] = {}
    for entry in entries:
        if entry.kind is EntryKind.EVENT and (hub_c := entry.inputs.get("hub_c")) is not None:
            found[entry.step] = max(hub_c, found.get(entry.step, hub_c))
    return found


def ledger(entries: Sequence[Entry]) -> tuple[LedgerLine, ...]:
    """Temporary and removed parts, each with how many went and how many are back."""
    lines: dict[str, LedgerLine] = {}
    for entry in entries:
        if entry.kind is not EntryKind.LEDGER:
            continue
        given = entry.inputs
        key, count = str(given["line"]), int(given["count"])
        before = lines.get(key)
        lines[key] = LedgerLine(
            line=key,
            what=before.what if before else str(given["what"]),
            goes=before.goes if before else str(given["goes"]),
            out=(before.out if before else 0) + (count if given["counted"] == "out" else 0),
            back=(before.back if before else 0) + (count if given["counted"] == "back" else 0),
        )
    return tuple(lines.values())


def _changes(steps: Sequence[Step], entries: Sequence[Entry]) -> list[tuple[int, Fact, str]]:
    """Every change of a physical fact: its number, the fact, and what happened in words."""
    by_key = {step.key: step for step in steps}
    found = []
    for entry in entries:
        if entry.kind is EntryKind.MOVE:
            found += [(entry.number, fact, fact.value) for fact in (Fact.MACHINES, Fact.FEET)]
        elif entry.kind is EntryKind.READING and entry.step in by_key:
            found += [(entry.number, fact, fact.value) for fact in by_key[entry.step].changes]
    return found


def _card_changes(catalogue: ValueCard, entries: Sequence[Entry], speed_rpm: float) -> list[tuple[int, str, str]]:
    """Every change of what the card says at this line's speed: its number, the key, and what happened in words."""
    card, found = dict(catalogue), []
    for entry in entries:
        if entry.kind is not EntryKind.VALUE:
            continue
        key, value = str(entry.inputs["key"]), Value.model_validate(entry.inputs["value"])
        was, kind = stands_on(card, key), value_kind(key)
        card[key] = value
        if kind is None or (was and (was.at(speed_rpm), was.means) == (value.at(speed_rpm), value.means)):
            continue
        how = f"changed from {_at_speed(was, kind, speed_rpm)} to" if was else "put there:"
        found.append((entry.number, key, f"“{kind.title}” on the card was {how} {_at_speed(value, kind, speed_rpm)}"))
    return found


def _at_speed(value: Value, kind: ValueKind, speed_rpm: float) -> str:
    return f"{value.at(speed_rpm):g} {kind.unit_as(value.means)}".strip()


def _stale(
    step: Step, current: Entry | None, changed: list[tuple[int, Fact, str]], card_changed: list[tuple[int, str, str]]
) -> str:
    if current is None:
        return ""
    after = [(number, words) for number, fact, words in changed if fact in step.relies]
    if not step.finding:  # as found it was judged by what stood then
        keys = {*step.needs, *step.judged_by}
        after += [(number, words) for number, key, words in card_changed if key in keys]
    later = max((change for change in after if change[0] > current.number), default=None)
    return f"Since this was read, {later[1]}" if later else ""


def _latest(signatures: Sequence[Signature], kind: SignatureKind, step: str, current: Entry | None) -> Signature | None:
    """The last signature of the kind that covers the current entry; a later entry leaves it behind."""
    covers = [s for s in signatures if s.kind is kind and s.step == step and s.entry == (current.id if current else None)]
    return covers[-1] if covers else None


def _state(
    step: Step,
    current: Entry | None,
    blocked: bool,
    stale: str,
    signed: Signature | None,
    authorised: Signature | None,
    asked: bool,
) -> StepState:
    if asked:
        return StepState.WAITING
    if current is None:
        if step.form.kind == "sign" and not blocked:
            return StepState.DONE if signed else StepState.TO_SIGN
        return StepState.BLOCKED if blocked else StepState.OPEN
    if stale:
        return StepState.STALE
    if current.verdict is Verdict.OVER and authorised is None and not step.finding:
        return StepState.OVER
    if current.verdict is Verdict.INCOMPLETE:
        return StepState.INCOMPLETE
    if step.hold is not None and signed is None:
        return StepState.TO_SIGN
    return StepState.DONE


def _provisional(now: Sequence[StepNow]) -> tuple[str, ...]:
    """What a step left for later, until the step that settles it is done."""
    state = {n.step.key: n.state for n in now}
    found = [
        n.step.leaves_provisional
        for n in now
        if n.step.leaves_provisional and n.current is not None and state[n.step.settled_by] is not StepState.DONE
    ]
    moved = any(n.current is not None for n in now if n.step.key == "set.align")
    if moved and state.get("couple.feet") not in (None, StepState.DONE):
        found.append("Feet not torqued yet")
    return tuple(found)


def _unanswered(entries: Sequence[Entry]) -> list[Entry]:
    answered = {str(e.inputs["question"]) for e in entries if e.kind is EntryKind.ANSWER}
    return [e for e in entries if e.kind is EntryKind.QUESTION and e.id not in answered]
