"""What happened to the machines and on the value card, entry by entry: what makes earlier readings stale."""

from collections.abc import Collection, Mapping, Sequence

from ..card.kind import ValueKind
from ..card.values import Value, ValueCard, as_today, for_its_material, key_today, stands_on, value_kind
from ..plan.steps import Fact, Happened, JobFacts, Step
from ..say import Figure, Words, words
from ..verdict import Verdict
from .entry import Entry, EntryKind


def value_card(catalogue: ValueCard, entries: Sequence[Entry]) -> ValueCard:
    """The catalogue's values with those entered in the job laid over them, the latest last."""
    card = dict(catalogue)
    for entry in entries:
        if entry.kind is EntryKind.VALUE:
            card[str(entry.inputs["key"])] = Value.model_validate(entry.inputs["value"])
    return as_today(card)


def physical_changes(
    job: JobFacts, steps: Sequence[Step], latest: Mapping[str, Entry], entries: Sequence[Entry], accepted: Collection[str]
) -> list[tuple[int, Happened, Words]]:
    """Every physical change: the number of the entry, what it is known by, and what happened in words.

    ``accepted`` - readings that were over and that a lead accepted
    """
    found = [(e.number, what, words(what.words)) for e in entries if e.kind is EntryKind.MOVE for what in _moves(e)]
    found += [(e.number, Fact.COUNTED_OUT, words(Fact.COUNTED_OUT.words)) for e in entries if _counts_out(e)]
    for step in steps:
        entry = latest.get(step.key)
        if entry is not None:
            upset = step.upsets(job, entry.inputs) if step.upsets else frozenset()
            missed = step.over_changes if entry.verdict is Verdict.OVER and entry.id not in accepted else frozenset()
            found += [(entry.number, what, words(what.words)) for what in step.changes | upset | missed]
    return found


def _counts_out(entry: Entry) -> bool:
    by_hand = [entry.inputs] if entry.kind is EntryKind.LEDGER else []
    return any(counted.get("counted") == "out" for counted in (*by_hand, *entry.ledger))


def _moves(entry: Entry) -> list[Happened]:
    """A move shifts the machine and slackens its feet; with shims under a foot, it may have become a soft one."""
    shimmed = any(foot.get("shim_mm") for foot in entry.inputs.get("feet", []))
    return [Fact.MACHINES, Fact.FEET, *([Fact.SHIMMED] if shimmed else [])]


def card_changes(catalogue: ValueCard, entries: Sequence[Entry], speed_rpm: float) -> list[tuple[int, str, Words]]:
    """Every change of what the card says at this line's speed and for its element: number, key, what happened in words."""
    card, found = dict(catalogue), []
    for entry in entries:
        if entry.kind is not EntryKind.VALUE:
            continue
        before = for_its_material(as_today(card))
        key = str(entry.inputs["key"])
        card[key] = Value.model_validate(entry.inputs["value"])
        after = for_its_material(as_today(card))
        for line in dict.fromkeys((key_today(key), *(line for line in after if after[line].of_material))):
            was, value, kind = stands_on(before, line), after.get(line), value_kind(line)
            if kind is None or value is None or (was and _says_the_same(was, value, speed_rpm)):
                continue
            found.append((entry.number, line, _changed(was, value, kind, speed_rpm)))
    return found


def _says_the_same(was: Value, value: Value, speed_rpm: float) -> bool:
    return (was.at(speed_rpm), was.means, was.none_because) == (value.at(speed_rpm), value.means, value.none_because)


def _changed(was: Value | None, value: Value, kind: ValueKind, speed_rpm: float) -> Words:
    now = _at_speed(value, kind, speed_rpm)
    if was is None:
        return words("“{line}” on the card was put there: {now}", line=kind.title, now=now)
    text = "“{line}” on the card was changed from {was} to {now}"
    return words(text, line=kind.title, was=_at_speed(was, kind, speed_rpm), now=now)


def _at_speed(value: Value, kind: ValueKind, speed_rpm: float) -> Figure | str:
    if value.none_because:
        return "none given"
    return value.means if kind.words_only else Figure(value.at(speed_rpm), kind.unit_as(value.means))
