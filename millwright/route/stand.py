"""Where a job stands, from its entries and signatures alone: pure functions, nothing stored."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from functools import partial
from types import MappingProxyType

from ..card.values import ValueCard, for_its_material, value_kind
from ..line import LineSpec
from ..say import NOTHING, Words, words
from ..verdict import Verdict
from .build import build
from .changes import card_changes, physical_changes, value_card
from .entered import (
    DONE_VERDICTS,
    arrived,
    asks_to_accept,
    counting,
    held_by,
    hottest,
    latest_readings,
    ledger_of,
    locks_of,
    may_be_slip,
    open_until,
    phases_of,
    skins_of,
    unanswered,
)
from .families.register import FAMILIES
from .hubs.hot_run import cooling_of
from .hubs.keyed import as_decided
from .hubs.phases import Phase
from .ledger import LedgerLine
from .locks import FIRST_LOCK_OUT_AGAIN, LOCK_AGAIN, PROOF, START, Locks
from .state import Block, Entry, RouteNow, Signature, SignatureKind, StepNow, StepState
from .steps import Answers, Happened, JobFacts, Scope, SheetForm, Step, Terms

NEWEST = Terms()
NOTHING_LEFT: Mapping[str, Answers] = MappingProxyType({})


def stand(
    line: LineSpec,
    catalogue: ValueCard,
    entries: Sequence[Entry],
    signatures: Sequence[Signature],
    scope: Scope = Scope.FIT,
    as_left: Mapping[str, Answers] = NOTHING_LEFT,
    *,
    terms: Terms = NEWEST,
    now: datetime | None = None,
    proof_hours: float | None = None,
) -> RouteNow:
    """The route of a job as it stands after these entries and signatures.

    ``as_left``     - what the job before this one left behind, to compare with; nothing is decided by it
    ``entries``, ``signatures`` - in the order of their numbers; the two share one numbering. Readings that
    a later one of the same step has superseded change nothing but the ledger; those that wrote nothing there may be
    left out.
    ``terms``       - what the job was started under
    ``now``, ``proof_hours`` - by the site's rule a proof of the dead state holds so long; without them it does not age
    """
    last_number = max([0, *(e.number for e in entries), *(s.number for s in signatures)])
    entries = counting(entries)
    card = value_card(catalogue, entries)
    latest = latest_readings(entries)
    answers = {key: e.inputs for key, e in latest.items()}
    counted, questions = ledger_of(entries), unanswered(entries)
    locks = locks_of(entries, latest, signatures, now, proof_hours)
    facts = JobFacts(
        line=as_decided(line, answers),
        family=FAMILIES[line.coupling.family].facts,
        card=for_its_material(card),
        terms=terms,
        answers=answers,
        scope=scope,
        as_left=as_left,
        hottest_c=hottest(entries),
        arrived_c=arrived(entries),
        phases=phases_of(entries),
        cooling=partial(cooling_of, answers, entries, now),
        locks=locks,
        out={counting.line: counting.out for counting in counted},
    )
    steps = build(facts)
    accepted = {s.entry for s in signatures if s.kind is SignatureKind.AUTHORISE and s.entry is not None}
    derived = _Derived(
        job=facts,
        card=card,
        latest=latest,
        signatures=signatures,
        changed=[
            *physical_changes(facts, steps, latest, entries, accepted),
            *card_changes(catalogue, entries, line.speed_rpm),
        ],
        asked={question.step for question in questions if asks_to_accept(question) is None},
        to_accept={of for question in questions if (of := asks_to_accept(question)) is not None},
        locks=locks,
        counting=_still_to_count(steps, counted),
        titles={step.key: step.title for step in steps},
        phases=facts.phases,
        now=now,
    )
    found: dict[str, StepNow] = {}
    for step in steps:
        found[step.key] = derived.step_now(step, found)
    _lock_again(found, locks)
    stands = tuple(found.values())
    return RouteNow(
        steps=stands,
        card=card,
        provisional=_provisional(stands),
        ledger=counted,
        questions=tuple(question for question in questions if _is_open(question, found)),
        locks=locks,
        phases=facts.phases,
        held=held_by(steps, latest),
        skins=skins_of(steps, latest),
        may_be_slip=may_be_slip(entries, signatures),
        last_number=last_number,
    )


@dataclass(frozen=True, kw_only=True)
class _Derived:
    """What every step is held against."""

    job: JobFacts
    card: ValueCard
    latest: Mapping[str, Entry]
    signatures: Sequence[Signature]
    changed: Sequence[tuple[int, Happened, Words]]
    asked: set[str]  # steps
    to_accept: set[str]  # readings
    locks: Locks
    counting: Mapping[str, list[str]]
    titles: Mapping[str, str]
    phases: Mapping[str, Phase]
    now: datetime | None

    def step_now(self, step: Step, before: Mapping[str, StepNow]) -> StepNow:
        """A step as it stands, given those before it."""
        current = self.latest.get(step.key)
        held = self._held(step)
        blocked = [*held, *self._blocked(step, before)]
        stale = self._stale(step, current)
        signed = _signed(self.signatures, SignatureKind.HOLD, step.key, current)
        authorised = _signed(self.signatures, SignatureKind.AUTHORISE, step.key, current)
        now = StepNow(
            job=self.job,
            step=step,
            state=_state(step, current, bool(blocked), stale, signed, authorised, step.key in self.asked),
            blocks=tuple(blocked),
            held_by_locks=bool(held),
            stale_because=stale,
            current=current,
            signed=signed,
            authorised=authorised,
        )
        # Asked to accept it, it waits, and keeps nobody from reading better meanwhile.
        waits = any(now.may_be_accepted(reading) for reading in self.to_accept)
        return replace(now, state=StepState.WAITING) if waits else now

    def _held(self, step: Step) -> list[Block]:
        """Why nobody may have hands on the machine now."""
        if step.key == LOCK_AGAIN and not self.locks.live:
            return [Block("The locks hang. This comes again once they are off.")]
        if not step.hands_on:
            return []
        if self.locks.live:
            return [Block(FIRST_LOCK_OUT_AGAIN)]
        return [Block(f"Prove it dead again first: {self.locks.proof_due}.", PROOF)] if self.locks.proof_due else []

    def _blocked(self, step: Step, before: Mapping[str, StepNow]) -> list[Block]:
        wanted = [
            *(key for key in step.after if not before[key].settled),
            *(key for key in step.passed if not _passed(before[key])),
            *(key for key in step.once if before[key].current is None),
            *(key for key in self._plan_of(step) if key not in step.after and not before[key].settled),
            *(key for key, now in before.items() if _is_for(step, now.step) and not now.settled and key not in step.after),
        ]
        blocked = [Block(f"First: {self.titles[key]}", key) for key in wanted]
        blocked += [
            Block(f"Value missing: {kind.title}. Look in {kind.look_in}.")
            for key in step.needs
            if key not in self.card and (kind := value_kind(key))
        ]
        blocked += [Block(waits) for waits in self.counting.get(step.key, [])]
        if step.key in self.asked:
            blocked.append(Block("A question waits for the lead's answer."))
        return blocked

    def _plan_of(self, step: Step) -> tuple[str, ...]:
        """The heat a cold hub is to be heated by: not by one that was overtaken. A hub that is hot waits for nobody."""
        is_cold = self.phases.get(step.key, Phase.COLD) is Phase.COLD
        return (step.heat_plan,) if step.heat_plan and is_cold else ()

    def _stale(self, step: Step, current: Entry | None) -> Words:
        if current is None:
            return NOTHING
        if step.key == PROOF and self.locks.proof_due:
            return words("Since this was read, {what}", what=self.locks.proof_due)
        if self.now is not None and step.open_time is not None:
            until = open_until(step.open_time, current, self.latest)
            if until is not None and self.now > until:
                return words(f"The {step.open_time.what} has skinned over: wipe it off and lay it anew")
        keys = set() if step.finding else {*step.needs, *step.judged_by}  # as found it was judged by what stood then
        after = [(n, said) for n, what, said in self.changed if what in step.relies or what in keys]
        later = max((one for one in after if one[0] > current.number), key=lambda one: (one[0], str(one[1])), default=None)
        return words("Since this was read, {what}", what=later[1]) if later else NOTHING


def _is_open(question: Entry, found: Mapping[str, StepNow]) -> bool:
    """A request to accept a reading is gone once that is accepted, read again or stale."""
    reading = asks_to_accept(question)
    return reading is None or (question.step in found and found[question.step].may_be_accepted(reading))


def _is_for(step: Step, laid: Step) -> bool:
    """What was laid there has to be open still when this step is done."""
    return laid.open_time is not None and laid.open_time.used_by == step.key


def _lock_again(found: dict[str, StepNow], locks: Locks) -> None:
    """Locking out again is asked for by itself as soon as something is to be done and the locks are off; else it may be
    done, and what was locked and opened before stands as done."""
    again = found.get(LOCK_AGAIN)
    if again is None:
        return
    rough = (start := found.get(START)) is not None and start.state is StepState.OVER
    wanted = locks.live and (rough or any(now.step.hands_on and not now.settled for now in found.values()))
    if wanted:
        return
    again = replace(again, step=replace(again.step, optional=True))
    if again.state is StepState.STALE:
        again = replace(again, state=StepState.DONE, stale_because=NOTHING)
    found[LOCK_AGAIN] = again


def _passed(now: StepNow) -> bool:
    """It came out well, though something may have happened since."""
    good = now.current is not None and now.current.verdict in DONE_VERDICTS and not now.current.unproven
    return now.settled or (now.state is StepState.STALE and (good or now.authorised is not None))


def _still_to_count(steps: Sequence[Step], counted: Sequence[LedgerLine]) -> dict[str, list[str]]:
    """By step that counts out: the lines of the ledger that are open and that no later step closes."""
    found = {}
    for i, step in enumerate(steps):
        if not step.counts_out:
            continue
        later = {
            field.ledger.line
            for after in steps[i + 1 :]
            if isinstance(after.form, SheetForm)
            for field in after.form.fields
            if field.ledger is not None and field.ledger.counted == "back"
        }
        waiting = [line for line in counted if line.open and line.line not in later]
        found[step.key] = [f"Ledger: {line.what}, {line.missing} to count back." for line in waiting]
    return found


def _signed(signatures: Sequence[Signature], kind: SignatureKind, step: str, current: Entry | None) -> Signature | None:
    """The last signature of the kind that covers the current entry; a later entry leaves it behind."""
    covers = [s for s in signatures if s.kind is kind and s.step == step and s.entry == (current.id if current else None)]
    return covers[-1] if covers else None


def _state(  # noqa: PLR0911 - the states, in the order in which they hold
    step: Step,
    current: Entry | None,
    blocked: bool,
    stale: Words,
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
    if current.unproven and not step.finding:
        return StepState.CANNOT_TELL
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
