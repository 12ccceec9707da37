"""Every entry and signature carries a hash of itself and of the one before it: what was changed behind the app shows."""

import hashlib
import json
from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from millwright.route.state import EntryKind

from .models import Entry, Job, Photograph, Signature

START = "0" * 64


@dataclass(frozen=True, kw_only=True)
class Broken:
    """The first link of a job that does not follow from what is stored."""

    number: int
    what: str


def link(before: str, row: Any) -> str:
    """The hash of an entry or signature as it is stored, and of the one before it.

    SHA-256 of JSON with sorted names and no spaces.
    """
    content: dict[str, Any] = {
        "before": before,
        "job": str(row.job_id),
        "id": str(row.id),
        "number": row.number,
        "step": row.step,
        "kind": row.kind,
        "by": row.by,
        "role": row.role,
        "at": row.at.isoformat(),
    }
    if hasattr(row, "inputs"):
        content |= {"inputs": row.inputs, "typed": row.typed, "asked": row.asked, "result": row.result}
    else:
        content |= {"entry": str(row.entry_id) if row.entry_id else None, "reason": row.reason}
    plain = json.loads(json.dumps(content))
    return hashlib.sha256(
        json.dumps(_as_stored(plain), sort_keys=True, separators=(",", ":"), ensure_ascii=False).encode()
    ).hexdigest()


def rows_of(job: Job) -> list[Entry | Signature]:
    """Entries and signatures in the order of their shared numbers."""
    rows: list[Entry | Signature] = [*job.entries.all(), *job.signatures.all()]
    return sorted(rows, key=lambda row: row.number)


@dataclass(frozen=True, kw_only=True)
class Head:
    """The last of what was entered or signed: its number, its hash, when."""

    number: int = 0
    chain: str = START
    at: datetime | None = None

    def not_before(self, now: datetime) -> datetime:
        """The server's clock, or the time of the last entry where that clock was set back since: times never run back."""
        return now if self.at is None else max(now, self.at)


def head_of(job: Job) -> Head:
    """One query; a job nothing was entered in starts from zeros."""
    lasts = (rows.order_by().values_list("number", "chain", "at") for rows in (job.entries.all(), job.signatures.all()))
    entries, signatures = lasts
    last = entries.union(signatures, all=True).order_by("-number").first()
    return Head(number=last[0], chain=last[1], at=last[2]) if last else Head()


def verify(job: Job) -> Broken | None:
    """Walk a job's chain; None where every link follows from what is stored."""
    before = START
    for expected, row in enumerate(rows_of(job), start=1):
        if row.number != expected:
            return Broken(number=expected, what="it is missing")
        if row.chain != link(before, row) or not _shows_what_was_taken(row):
            return Broken(number=row.number, what="it is not what was entered")
        before = row.chain
    return None


def _shows_what_was_taken(row: Entry | Signature) -> bool:
    """The picture of a photograph is the one whose digest stands in the chain."""
    if not isinstance(row, Entry) or row.kind != EntryKind.PHOTOGRAPH:
        return True
    picture = Photograph.objects.filter(entry=row).first()
    return picture is not None and hashlib.sha256(picture.content).hexdigest() == row.inputs["sha256"]


def verify_all() -> Iterator[tuple[Job, Broken | None]]:
    """Every job with what is wrong with it."""
    for job in Job.objects.select_related("line", "site").order_by("site__name", "number").iterator():
        yield job, verify(job)


def _as_stored(value: Any) -> Any:
    """Numbers as the database gives them back: 1.0 and 1 are one number, and there is no minus zero."""
    match value:
        case bool() | None | str():
            return value
        case float() if value.is_integer() and abs(value) < 1e15:
            return int(value)
        case dict():
            return {key: _as_stored(inner) for key, inner in value.items()}
        case list():
            return [_as_stored(inner) for inner in value]
        case _:
            return value
