"""What an entry is called among those of its step: on the sheet and in the record alike."""

from collections.abc import Iterable, Mapping

from .entry import Entry, EntryKind
from .latest import counting

WORDS: Mapping[EntryKind, str] = {EntryKind.MOVE: "moved", EntryKind.VALUE: "value", EntryKind.SLIP: "taken out"}
SLIP = "slip"
LAST = "as left"


def called(entries: Iterable[Entry], last: str = LAST) -> dict[str, str]:
    """By the id of each entry, oldest first; ``last`` - how the reading that stands is called, where there are several.

    >>> called([])
    {}
    """
    known = list(entries)
    counted = counting(known)
    readings: dict[str, list[str]] = {}
    for entry in counted:
        if entry.kind is EntryKind.READING:
            readings.setdefault(entry.step, []).append(entry.id)
    slips = {entry.id for entry in known} - {entry.id for entry in counted}
    return {e.id: SLIP if e.id in slips else _called(e, readings.get(e.step, []), last) for e in known}


def _called(entry: Entry, readings: list[str], last: str) -> str:
    match entry.kind:
        case EntryKind.EVENT:
            return str(entry.inputs["event"])
        case EntryKind.HAND_OVER:
            return str(entry.inputs["what"])
        case EntryKind.READING if len(readings) == 1:
            return "as read"
        case EntryKind.READING:
            number = readings.index(entry.id) + 1
            return "as found" if number == 1 else last if number == len(readings) else f"reading {number}"
        case _:
            return WORDS.get(entry.kind, entry.kind.value)
