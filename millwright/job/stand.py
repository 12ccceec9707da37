"""Where a job stands, from its entries and signatures alone: pure functions, nothing stored."""

from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from functools import partial
from types import MappingProxyType

from ..card.values import ValueCard, for_its_material, stated, value_kind
from ..line import LineSpec
from ..plan.compose import composed
from ..plan.families.register import FAMILIES
from ..plan.hubs.keyed import as_decided
from ..plan.hubs.phases import Phase
from ..plan.locks import FIRST_LOCK_OUT_AGAIN, LOCK_AGAIN, PROOF, START, Locks
from ..plan.route import Route
from ..plan.steps import Answers, Happened, JobFacts, Step, Terms
from ..say import NOTHING, Words, words
from ..scope import Scope
from ..verdict import Verdict
from .changes import card_changes, physical_changes, value_card
from .entry import Entry, Signature, SignatureKind
from .hot_run import cooling_of
from .latest import (
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
    moved_after,
    open_until,
    phases_of,
    skins_of,
    unanswered,
)
from .ledger import LedgerLine
from .now import Block, RouteNow, StepNow, StepState

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
        card=stated(for_its_material(card)),
        terms=terms,
        answers=answers,
        scope=scope,
        as_left=as_left,
        hottest_c=hottest(entries),
        arrived_c=arrived(entries),
        phases=phases_of(entries),
        moved_after=moved_after(entries, latest),
        cooling=partial(cooling_of, answers, entries, now),
        locks=locks,
        out={counting.line: counting.out for counting in counted},
    )
    route = composed(facts)
    steps = route.steps
    accepted = {s.entry for s in signatures if s.kind is SignatureKind.AUTHORISE and s.entry is not None}
    derived = _Derived(
        job=facts,
        card=card,
        route=route,
        latest=latest,
        signed={(s.kind, s.step, s.entry): s for s in signatures},
        changed=_last_of_each(
            [
                *physical_changes(facts, steps, latest, entries, accepted),
                *card_changes(catalogue, entries, line.speed_rpm),
            ]
        ),
        asked={question.step for question in questions if asks_to_accept(question) is None},
        to_accept={of for question in questions if (of := asks_to_accept(question)) is not None},
        locks=locks,
        counting=_still_to_count(route, counted),
        phases=facts.phases,
        now=now,
    )
    found = derived.steps_now()
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
    route: Route
    card: ValueCard
    latest: Mapping[str, Entry]
    signed: Mapping[tuple[SignatureKind, str, str | None], Signature]  # by what it says, the step and the entry it covers
    changed: Mapping[Happened | str, tuple[int, Words]]  # by what happened, or the line of the card: when last, in what words
    asked: set[str]  # steps
    to_accept: set[str]  # readings
    locks: Locks
    counting: Mapping[str, list[str]]
    phases: Mapping[str, Phase]
    now: datetime | None

    def steps_now(self) -> dict[str, StepNow]:
        """Every step as it stands, given those before it."""
        found: dict[str, StepNow] = {}
        unsettled: set[str] = set()
        for step in self.route.steps:
            now = found[step.key] = self._step_now(step, found, unsettled)
            if not now.settled:
                unsettled.add(step.key)
        return found

    def _step_now(self, step: Step, before: Mapping[str, StepNow], unsettled: Collection[str]) -> StepNow:
        current = self.latest.get(step.key)
        held = self._held(step)
        blocked = [*held, *self._blocked(step, before, unsettled)]
        stale = self._stale(step, current)
        covered = current.id if current else None
        signed = self.signed.get((SignatureKind.HOLD, step.key, covered))
        authorised = self.signed.get((SignatureKind.AUTHORISE, step.key, covered))
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

    def _blocked(self, step: Step, before: Mapping[str, StepNow], unsettled: Collection[str]) -> list[Block]:
        wanted = [key for key in step.after if key in unsettled]
        wanted += [key for key in step.passed if not _passed(before[key])]
        wanted += [key for key in step.once if before[key].current is None]
        beside = (*self._plan_of(step), *self.route.laid_for.get(step.key, ()))
        wanted += [key for key in beside if key in unsettled and key not in step.after]
        blocked = [Block(f"First: {self.route.titles[key]}", key) for key in wanted]
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
        lines = () if step.finding else (*step.needs, *step.judged_by)  # as found it was judged by what stood then
        may: tuple[Happened | str, ...] = (*step.relies, *lines)
        after = [change for what in may if (change := self.changed.get(what)) and change[0] > current.number]
        later = max(after, key=_last, default=None)
        return words("Since this was read, {what}", what=later[1]) if later else NOTHING


def _is_open(question: Entry, found: Mapping[str, StepNow]) -> bool:
    """A request to accept a reading is gone once that is accepted, read again or stale."""
    reading = asks_to_accept(question)
    return reading is None or (question.step in found and found[question.step].may_be_accepted(reading))


def _last_of_each(changes: Iterable[tuple[int, Happened | str, Words]]) -> dict[Happened | str, tuple[int, Words]]:
    found: dict[Happened | str, tuple[int, Words]] = {}
    for number, what, said in changes:
        found[what] = max((number, said), found.get(what, (0, NOTHING)), key=_last)
    return found


def _last(change: tuple[int, Words]) -> tuple[int, str]:
    return change[0], str(change[1])


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


def _still_to_count(route: Route, counted: Sequence[LedgerLine]) -> dict[str, list[str]]:
    """By step that counts out: the lines of the ledger that are open and that no later step closes."""
    return {
        key: [
            f"Ledger: {line.what}, {line.missing} to count back." for line in counted if line.open and line.line not in later
        ]
        for key, later in route.closed_after.items()
    }


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
    return tuple(
        n.step.leaves_provisional
        for n in now
        if n.step.leaves_provisional and n.current is not None and state[n.step.settled_by] is not StepState.DONE
    )
