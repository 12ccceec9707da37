"""What was entered and signed in a job so far. A worker remembers what it has read of it: the chain says whether that
still stands, so that only what came since is read again."""

from collections import OrderedDict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from threading import Lock
from typing import Any
from uuid import UUID

from django.db import transaction
from django.db.models import Q

from millwright.job.entry import Entry, EntryKind, Signature
from millwright.roles import Role
from millwright.verdict import Verdict, is_unproven

from .models import Entry as StoredEntry
from .models import Job
from .models import Signature as StoredSignature

MOST = 128  # jobs a worker remembers


@dataclass(frozen=True, kw_only=True)
class SoFar:
    """All that was entered up to a number, less what no route asks any more.

    ``head``    - the hash of its last row, which holds all those before it
    ``ids``     - of every entry, those left out as well
    ``entries`` - without readings that a later one of the same step has superseded, unless they wrote into the ledger
    """

    number: int
    head: str
    ids: frozenset[str]
    entries: Sequence[Entry]
    signatures: Sequence[Signature]


NOTHING = SoFar(number=0, head="", ids=frozenset(), entries=(), signatures=())
_remembered: OrderedDict[UUID, SoFar] = OrderedDict()
_storing = Lock()


def so_far(job: Job) -> SoFar:
    """What was entered and signed in a job, as its row has it. No query where this worker has read it all before, one to
    three where it has not.

    ``job`` - just read, or held: what is entered after that is not among it
    """
    known = _remembered.get(job.pk, NOTHING)
    if known.number != job.last_number or known.head != job.head:
        known = _since(job, known) or _anew(job)
        _remember(job.pk, known)
    return known


def and_then(seen: SoFar, row: StoredEntry | StoredSignature) -> None:
    """Remember a row that was appended to what had been seen, once it is stored for good."""
    if (now := _with(seen, row.number, row.chain, [row.as_core])) is not None:
        transaction.on_commit(lambda: _remember(row.job_id, now))


def _remember(job: UUID, known: SoFar) -> None:
    with _storing:
        _remembered[job] = known
        _remembered.move_to_end(job)
        if len(_remembered) > MOST:
            _remembered.popitem(last=False)


def _since(job: Job, known: SoFar) -> SoFar | None:
    """With what came since; None where what is remembered is not what stands there, or something was taken out of it."""
    if not 0 < known.number < job.last_number:
        return None
    since = Q(number__gte=known.number, number__lte=job.last_number)  # the last one known as well, to see that it stands
    rows = list(job.entries.filter(since).order_by("number").values(*OF_A_ROUTE, "inputs", "chain"))
    signed = list(job.signatures.filter(since)) if len(rows) <= job.last_number - known.number else []
    chain = {**{row["number"]: row["chain"] for row in rows}, **{s.number: s.chain for s in signed}}
    if chain.get(known.number) != known.head:
        return None
    came: list[Entry | Signature] = [
        *(_entry(row, row["inputs"]) for row in rows if row["number"] > known.number),
        *(one.as_core for one in signed if one.number > known.number),
    ]
    return _with(known, job.last_number, job.head, came)


def _with(known: SoFar, number: int, head: str, came: Sequence[Entry | Signature]) -> SoFar | None:
    """None where something was taken out: what it had superseded stands again, and is not remembered."""
    entered = [row for row in came if isinstance(row, Entry)]
    if any(entry.kind is EntryKind.SLIP for entry in entered):
        return None
    entries = [*known.entries, *entered]
    wanted = _asked_for(entries)
    return SoFar(
        number=number,
        head=head,
        ids=known.ids | {entry.id for entry in entered},
        entries=[entry for entry in entries if entry.id in wanted],
        signatures=[*known.signatures, *(row for row in came if isinstance(row, Signature))],
    )


def _anew(job: Job) -> SoFar:
    """All of it. What nobody asks for is not read: a sweep can be thousands of readings."""
    stored = job.entries.filter(number__lte=job.last_number)
    entries = [_entry(row, {"entry": row["inputs__entry"]}) for row in stored.order_by("number").values(*OF_A_ROUTE)]
    wanted = _asked_for(entries)
    left_out = [entry.id for entry in entries if entry.id not in wanted]
    inputs = dict(stored.exclude(pk__in=left_out).order_by().values_list("id", "inputs"))
    return SoFar(
        number=job.last_number,
        head=job.head,
        ids=frozenset(entry.id for entry in entries),
        entries=[replace(entry, inputs=inputs[UUID(entry.id)]) for entry in entries if entry.id in wanted],
        signatures=[signature.as_core for signature in job.signatures.filter(number__lte=job.last_number)],
    )


def _asked_for(entries: Sequence[Entry]) -> set[str]:
    """The ids of what a route still asks."""
    slips = {entry.inputs["entry"] for entry in entries if entry.kind is EntryKind.SLIP}
    latest = {e.step: e.id for e in entries if e.kind is EntryKind.READING and e.id not in slips}
    kept = {entry.id for entry in entries if entry.kind is not EntryKind.READING or entry.ledger}
    return {*kept, *latest.values()}


OF_A_ROUTE = (
    "id", "number", "step", "kind", "by", "role", "at", "result__verdict", "result__proven", "result__as_it_is",
    "asked__ledger", "inputs__entry",
)  # fmt: skip


def _entry(row: Mapping[str, Any], inputs: Mapping[str, Any]) -> Entry:
    verdict = row["result__verdict"]
    said = {"verdict": verdict, "proven": row["result__proven"], "as_it_is": row["result__as_it_is"]}
    return Entry(
        id=str(row["id"]),
        number=row["number"],
        step=row["step"],
        kind=EntryKind(row["kind"]),
        inputs=inputs,
        verdict=Verdict(verdict) if verdict else None,
        by=row["by"],
        role=Role(row["role"]),
        at=row["at"],
        unproven=verdict is not None and is_unproven(said),
        ledger=row["asked__ledger"] or (),
    )
