"""What a job is made of: entries and signatures, each appended once."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from enum import StrEnum
from typing import Any

from ..plan.hubs.phases import READING
from ..roles import Role
from ..verdict import Verdict


class EntryKind(StrEnum):
    """What an entry is. Every kind is appended, none is ever changed."""

    READING = "reading"
    MOVE = "move"
    NOTE = "note"
    QUESTION = "question"
    ANSWER = "answer"
    VALUE = "value"
    HAND_OVER = "hand-over"
    LEDGER = "ledger"
    EVENT = "event"
    PHOTOGRAPH = "photograph"
    SLIP = "slip"  # the last reading or move is taken out: it stays in the record, and counts for nothing


class SignatureKind(StrEnum):
    """What a signature says."""

    HOLD = "hold"  # a hold point is released, or the record closed
    AUTHORISE = "authorise"  # an over-limit value is accepted, with a reason
    CANCEL = "cancel"  # the job ends here, with a reason
    TAKE_OVER = "take over"  # a job from a file counts here from now on


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
    unproven: bool = False  # inside on paper, not within its ±, and not taken as it is
    ledger: Sequence[Mapping[str, Any]] = ()  # what it wrote into the ledger, as `ledger.written_by` has it


def happened(entry: Entry) -> datetime:
    """When an event happened: it says how long before it was sent, so that a device without network shifts no time."""
    return entry.at - timedelta(seconds=float(entry.inputs.get("ago_s", 0.0)))


def in_time(events: Iterable[Entry]) -> list[Entry]:
    """Events in the order they happened in; they come in the order of their numbers.

    What moves a hub was taken because it followed from what stood there: a network that was slower with the one before
    does not put it in front of that. A reading stands where it was read.
    """
    moved: dict[str, datetime] = {}
    placed: list[tuple[datetime, Entry]] = []
    for entry in events:
        at = happened(entry)
        if entry.inputs["event"] != READING:
            at = moved[entry.step] = max(at, moved.get(entry.step, at))
        placed.append((at, entry))
    return [entry for _, entry in sorted(placed, key=lambda one: one[0])]


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
