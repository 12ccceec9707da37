"""Every entry and signature carries a hash of itself and of the one before it; the first stands on what the job was started
with. What was changed behind the app shows."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from server.journal.digest import START, digest
from server.journal.write import write_down

from .models import Entry, Job, Signature

STARTED_WITH = ("title", "scope", "unit", "procedure", "edition", "tasks", "spec", "card", "started_by")


def first_link(job: Any) -> str:
    """The hash of what a job was started with: all that its file holds as well."""
    started = {key: getattr(job, key) for key in STARTED_WITH}
    return digest({**started, "id": job.id, "started_at": job.started_at})


def begun(job: Job) -> Job:
    """Save a new job, its chain begun, and write it down in the journal of its site."""
    job.start = job.head = first_link(job)
    job.save(force_insert=True)
    write_down(job.site_id, [job], without=Job.CHANGES_LATER)
    return job


def link(before: str, row: Any) -> str:
    """The hash of an entry or signature as it is stored, whose it is, and of the one before it."""
    return digest({**_content(row), "before": before, "person": row.whose})


def link_without_person(before: str, row: Any) -> str:
    """`link`, as it was before it said whose a row is."""
    return digest({**_content(row), "before": before})


def follows(before: str, row: Any) -> bool:
    """The hash of a row follows from the row and from the one before it, by the rule of the day it was entered."""
    return bool(row.chain in (link(before, row), *([link_without_person(before, row)] if row.whose is None else [])))


def beginnings(job: Any) -> tuple[str, str]:
    """What the first row of a job may follow: what it was started with, or nothing, as before that was in the chain."""
    return job.start, START


def _content(row: Any) -> dict[str, Any]:
    content: dict[str, Any] = {
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
        return content | {"inputs": row.inputs, "typed": row.typed, "asked": row.asked, "result": row.result}
    return content | {"entry": str(row.entry_id) if row.entry_id else None, "reason": row.reason}


def rows_of(job: Job) -> list[Entry | Signature]:
    """Entries and signatures in the order of their shared numbers."""
    rows: list[Entry | Signature] = [*job.entries.all(), *job.signatures.all()]
    return sorted(rows, key=lambda row: row.number)


@dataclass(frozen=True, kw_only=True)
class Head:
    """The last of what was entered or signed: its number, its hash, when."""

    number: int
    chain: str
    at: datetime | None

    def not_before(self, now: datetime) -> datetime:
        """The server's clock, or the time of the last entry where that clock was set back since: times never run back."""
        return now if self.at is None else max(now, self.at)


def head_of(job: Job) -> Head:
    """As the job's row has it; the database keeps it with every entry and signature."""
    return Head(number=job.last_number, chain=job.head, at=job.head_at)


def in_one_chain(before: str, rows: list[Entry | Signature]) -> None:
    """Link rows that are not stored yet, in their order."""
    for row in rows:
        row.chain = before = link(before, row)


def runs(rows: list[Entry | Signature]) -> Iterator[list[Entry | Signature]]:
    """Rows in their order, as few lists of one kind as there can be: the database takes the next number alone."""
    some: list[Entry | Signature] = []
    for row in rows:
        if some and type(row) is not type(some[0]):
            yield some
            some = []
        some.append(row)
    if some:
        yield some
