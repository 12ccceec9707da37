"""What happened to the machines and on the value card, entry by entry: what makes earlier readings stale."""

from collections.abc import Mapping, Sequence

from ..card.kind import ValueKind
from ..card.values import Value, ValueCard, stands_on, value_kind
from .state import Entry, EntryKind
from .steps import Fact, Happened, Step


def value_card(catalogue: ValueCard, entries: Sequence[Entry]) -> ValueCard:
    """The catalogue's values with those entered in the job laid over them, the latest last."""
    card = dict(catalogue)
    for entry in entries:
        if entry.kind is EntryKind.VALUE:
            card[str(entry.inputs["key"])] = Value.model_validate(entry.inputs["value"])
    return card


def physical_changes(
    steps: Sequence[Step], latest: Mapping[str, Entry], entries: Sequence[Entry]
) -> list[tuple[int, Happened, str]]:
    """Every physical change: the number of the entry, what it is known by, and what happened in words."""
    found = [(e.number, what, what) for e in entries if e.kind is EntryKind.MOVE for what in _moves(e)]
    for step in steps:
        entry = latest.get(step.key)
        if entry is not None:
            upset = step.upsets(entry.inputs) if step.upsets else frozenset()
            found += [(entry.number, str(what), str(what)) for what in step.changes | upset]
    return found


def _moves(entry: Entry) -> list[Happened]:
    """A move shifts the machine and slackens its feet; with shims under a foot, it may have become a soft one."""
    shimmed = any(foot.get("shim_mm") for foot in entry.inputs.get("feet", []))
    return [Fact.MACHINES, Fact.FEET, *([Fact.SHIMMED] if shimmed else [])]


def card_changes(catalogue: ValueCard, entries: Sequence[Entry], speed_rpm: float) -> list[tuple[int, str, str]]:
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
    return value.means if kind.words_only else f"{value.at(speed_rpm):g} {kind.unit_as(value.means)}".strip()
