"""What the entries of a job come to, kind by kind: its readings, its ledger, its hot hubs, its locks, its questions."""

from collections.abc import Mapping, Sequence
from datetime import datetime, timedelta
from typing import Any

from ..plan.hubs.phases import Phase, phase_after
from ..plan.locks import FIRST_PROOF, LOCK_AGAIN, LOCKS_OFF, PROOF, Locks
from ..plan.steps import Holding, OpenTime, Step
from ..verdict import Verdict
from .entry import Entry, EntryKind, Signature, SignatureKind, in_time
from .ledger import LedgerLine, Moved, lines_of
from .locks import HandOver, Proof, say_hand_over, stand_locks
from .now import Held, Skins

LONGEST_MIN = 10_000  # what is open for longer than a week is not timed
DONE_VERDICTS = (Verdict.INSIDE, Verdict.CLOSE, Verdict.NOT_JUDGED)


def latest_readings(entries: Sequence[Entry]) -> dict[str, Entry]:
    """By step, what was read there last."""
    return {e.step: e for e in entries if e.kind is EntryKind.READING}


def moved_after(entries: Sequence[Entry], latest: Mapping[str, Entry]) -> dict[str, bool]:
    """The steps that were read before a machine was last moved."""
    moved = max((entry.number for entry in entries if entry.kind is EntryKind.MOVE), default=0)
    return {key: True for key, entry in latest.items() if entry.number < moved}


def locks_of(
    entries: Sequence[Entry],
    latest: Mapping[str, Entry],
    signatures: Sequence[Signature],
    now: datetime | None,
    hours: float | None,
) -> Locks:
    """Where the locks are, by what came off, what was proved and who went since."""
    signed = {s.entry for s in signatures if s.kind is SignatureKind.HOLD}

    def proved(key: str, *, is_signed: bool) -> Entry | None:
        entry = latest.get(key)
        good = entry is not None and entry.verdict in DONE_VERDICTS and (not is_signed or entry.id in signed)
        return entry if good else None

    off, again = latest.get(LOCKS_OFF), proved(LOCK_AGAIN, is_signed=True)
    proofs = [proved(FIRST_PROOF, is_signed=True), proved(PROOF, is_signed=False), again]
    return stand_locks(
        off.number if off else None,
        [Proof(number=entry.number, at=entry.at) for entry in proofs if entry is not None],
        again.number if again else None,
        [HandOver(number=e.number, words=say_hand_over(e.inputs)) for e in entries if e.kind is EntryKind.HAND_OVER],
        now,
        hours,
    )


def hottest(entries: Sequence[Entry]) -> dict[str, float]:
    """By the step of its run, the most a hub was read at."""
    found: dict[str, float] = {}
    for entry in entries:
        if entry.kind is EntryKind.EVENT and (hub_c := entry.inputs.get("hub_c")) is not None:
            found[entry.step] = max(hub_c, found.get(entry.step, hub_c))
    return found


def arrived(entries: Sequence[Entry]) -> dict[str, float]:
    """By the step of its run, what a hub was last read at before it touched the shaft; of this try, not of one before it."""
    found: dict[str, float] = {}
    last: dict[str, float] = {}
    for entry in in_time([entry for entry in entries if entry.kind is EntryKind.EVENT]):
        if (hub_c := entry.inputs.get("hub_c")) is not None:
            last[entry.step] = hub_c
        elif entry.inputs["event"] == "on the shaft" and entry.step in last:
            found[entry.step] = last[entry.step]
        elif entry.inputs["event"] == "on the heater":
            last.pop(entry.step, None)
            found.pop(entry.step, None)
    return found


def phases_of(entries: Sequence[Entry]) -> dict[str, Phase]:
    """By the step of its run, where a hot hub is."""
    events: dict[str, list[Entry]] = {}
    for entry in entries:
        if entry.kind is EntryKind.EVENT:
            events.setdefault(entry.step, []).append(entry)
    return {step: phase_after(entry.inputs["event"] for entry in in_time(run)) for step, run in events.items()}


def ledger_of(entries: Sequence[Entry]) -> tuple[LedgerLine, ...]:
    """Temporary and removed parts, each with how many went and how many are back."""
    by_hand = (_moved(e, e.inputs, step=f"by hand {e.number}") for e in entries if e.kind is EntryKind.LEDGER)
    by_steps = (_moved(e, written, step=e.step) for e in entries for written in e.ledger)
    return lines_of((*by_hand, *by_steps))


def _moved(entry: Entry, written: Mapping[str, Any], *, step: str) -> Moved:
    return Moved(
        number=entry.number,
        step=step,
        line=str(written["line"]),
        what=str(written["what"]),
        goes=str(written["goes"]),
        counted=str(written["counted"]),
        count=int(written["count"]),
    )


def held_by(steps: Sequence[Step], latest: Mapping[str, Entry]) -> tuple[Held, ...]:
    """What holds each weight for now, by the last step that said so and came out well."""
    found: dict[str, tuple[Entry, Holding, Step]] = {}
    for step in steps:
        entry = latest.get(step.key)
        if entry is None or entry.verdict not in DONE_VERDICTS:
            continue
        for holding in step.holds:
            if holding.what not in found or found[holding.what][0].number < entry.number:
                found[holding.what] = entry, holding, step
    return tuple(
        Held(
            what=what,
            by=str(entry.inputs.get(holding.asked) or holding.by),
            since=entry.at,
            step=step.key,
            until=_taken_over(what, entry, steps, latest),
        )
        for what, (entry, holding, step) in found.items()
        if holding.for_now
    )


def _taken_over(what: str, since: Entry, steps: Sequence[Step], latest: Mapping[str, Entry]) -> str:
    for step in steps:
        lasting = any(holding.what == what and not holding.for_now for holding in step.holds)
        entry = latest.get(step.key)
        if lasting and (entry is None or entry.number < since.number):
            return step.title
    return ""


def skins_of(steps: Sequence[Step], latest: Mapping[str, Entry]) -> tuple[Skins, ...]:
    """What was laid and is not used yet, and until when it is open."""
    return tuple(
        Skins(what=step.open_time.what, until=until, step=step.key)
        for step in steps
        if step.open_time is not None and (until := open_until(step.open_time, latest.get(step.key), latest)) is not None
    )


def open_until(lasts: OpenTime, laid: Entry | None, latest: Mapping[str, Entry]) -> datetime | None:
    """When what was laid skins over; None where nothing was, it is used, or nobody said how long it stays open."""
    used = latest.get(lasts.used_by)
    if laid is None or (used is not None and used.number > laid.number):
        return None
    minutes = laid.inputs.get(lasts.asked)
    return laid.at + timedelta(minutes=minutes) if isinstance(minutes, int | float) and 0 < minutes < LONGEST_MIN else None


def counting(entries: Sequence[Entry]) -> list[Entry]:
    """Without what was taken out as a slip."""
    slips = {str(e.inputs["entry"]) for e in entries if e.kind is EntryKind.SLIP}
    return [e for e in entries if e.id not in slips]


def may_be_slip(entries: Sequence[Entry], signatures: Sequence[Signature]) -> Entry | None:
    """The last reading or move of those that count, while nobody has signed it, and nothing was counted or done to a hot hub
    on top of it."""
    told = (EntryKind.READING, EntryKind.MOVE, EntryKind.LEDGER, EntryKind.EVENT)
    last = next((e for e in reversed(entries) if e.kind in told), None)
    if last is None or last.kind in (EntryKind.LEDGER, EntryKind.EVENT) or any(s.entry == last.id for s in signatures):
        return None
    return last


def unanswered(entries: Sequence[Entry]) -> list[Entry]:
    """Questions without the lead's answer."""
    answered = {str(e.inputs["question"]) for e in entries if e.kind is EntryKind.ANSWER}
    return [e for e in entries if e.kind is EntryKind.QUESTION and e.id not in answered]


def asks_to_accept(question: Entry) -> str | None:
    """The reading a question asks the lead to accept; None for any other question."""
    return question.inputs.get("accept")
