"""The chains of all jobs, some jobs at a time: a million rows in a minute or two."""

import hashlib
import json
import logging
import os
from collections import defaultdict
from collections.abc import Iterator
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass
from functools import partial
from itertools import islice
from multiprocessing import get_context
from operator import itemgetter
from typing import Any
from uuid import UUID

import django
from django.db import connections
from django.db.models import TextField
from django.db.models.functions import Cast, Mod

from millwright.job.entry import EntryKind, SignatureKind
from millwright.plan.stages.close_out import CLOSING
from server.jobs.chain import beginnings, first_link
from server.jobs.models import Entry, Job, Photograph, Signature
from server.journal.digest import canonical, canonical_again, canonical_mostly, digest_of_stored

from .broken import NOTHING_SEALED, Broken, Sealed, held_against

logger = logging.getLogger(__name__)
AT_A_TIME = 100  # jobs
MANY = 50_000  # entries: below that one core is done before another has begun
OF_BOTH = ("job_id", "number", "id", "step", "kind", "by", "role", "at", "person_id", "whose", "chain")
Row = dict[str, Any]
MISSING, CHANGED = "it is missing", "it is not what was entered"


def verify_jobs(seal: Sealed = NOTHING_SEALED, **only: Any) -> Iterator[tuple[Job, list[Broken]]]:
    """Every job with what is wrong with it; ``only`` - a filter. One that cannot be read is named, and takes no other with
    it."""
    jobs = iter(Job.objects.filter(**only).select_related("line", "site").order_by("pk").iterator(AT_A_TIME))
    while some := list(islice(jobs, AT_A_TIME)):
        rows, pictures = _rows_of(some), _pictures(some)
        for job in some:
            where = f"{job.site.name}, {job.line.name}, job {job.number}"
            try:
                yield job, list(_wrong(job, sorted(rows[job.pk], key=itemgetter("number")), pictures, seal, where))
            except Exception:
                logger.exception("%s cannot be read", where)
                yield job, [Broken(where=where, what="it cannot be read")]


@dataclass(frozen=True, kw_only=True)
class Walked:
    """What came of some jobs: their ids, and what is wrong with them."""

    ids: set[str]
    broken: list[Broken]


def walk(seal: Sealed = NOTHING_SEALED, **only: Any) -> Walked:
    """`verify_jobs`, to its end."""
    found = [(str(job.pk), wrong) for job, wrong in verify_jobs(seal, **only)]
    return Walked(ids={key for key, _ in found}, broken=[one for _, wrong in found for one in wrong])


def walk_all(seal: Sealed = NOTHING_SEALED) -> Walked:
    """Every job. Where there are very many rows each core walks a part of them."""
    cores = os.cpu_count() or 1
    if cores == 1 or not Entry.objects.order_by()[MANY : MANY + 1].exists():
        return walk(seal)
    connections.close_all()  # no connection is shared by two processes
    with ProcessPoolExecutor(cores, get_context("spawn"), initializer=django.setup) as pool:
        parts = list(pool.map(partial(_part, seal, cores), range(cores)))
    return Walked(ids=set().union(*(part.ids for part in parts)), broken=[one for part in parts for one in part.broken])


def _part(seal: Sealed, parts: int, which: int) -> Walked:
    return walk(seal, pk__in=Job.objects.annotate(part=Mod("number", parts)).filter(part=which).values("pk"))


def _wrong(job: Job, rows: list[Row], pictures: dict[str, str], seal: Sealed, where: str) -> Iterator[Broken]:
    if job.start != first_link(job):
        yield Broken(where=where, what="it is not as it was started: its card, its line, what is to be done or who began it")
    before, hashes = set(beginnings(job)), {0: job.start}
    for expected, row in enumerate(rows, start=1):
        if row["number"] != expected:
            yield Broken(where=where, what=f"number {expected}: {MISSING}")
            return
        as_entered = _follows(before, row) and _is_theirs(row, job) and _shows_what_was_taken(row, pictures)
        if not as_entered:
            yield Broken(where=where, what=f"number {expected}: {CHANGED}")
            return
        before, hashes[expected] = {row["chain"]}, row["chain"]
    if job.last_number != len(rows):
        gone = min(job.last_number, len(rows)) + 1
        yield Broken(where=where, what=f"number {gone}: {MISSING if job.last_number > len(rows) else CHANGED}")
    elif job.head != hashes[len(rows)]:
        yield Broken(where=where, what="its chain ends with another entry than was made last")
    yield from _closed_otherwise(job, rows, where)
    yield from _taken_over_otherwise(job, rows, where)
    yield from held_against(seal, seal.jobs.get(str(job.pk)), hashes, where)


def _closed_otherwise(job: Job, rows: list[Row], where: str) -> Iterator[Broken]:
    """Closed by its signature and cancelled by its own, and by nothing else."""
    closing = [row for row in rows if row["kind"] == SignatureKind.HOLD and row["step"] == CLOSING and "reason" in row]
    cancelled = [row for row in rows if row["kind"] == SignatureKind.CANCEL]
    said = {(row["by"], row["reason"]) for row in cancelled}
    if bool(cancelled) != bool(job.cancelled_by) or (cancelled and (job.cancelled_by, job.cancelled_because) not in said):
        yield Broken(where=where, what="whether it was cancelled, by whom and why is not what was signed")
    elif not cancelled and job.closed_at not in ({row["at"] for row in closing} or {None}):
        yield Broken(where=where, what="when its record was closed is not what was signed")


def _taken_over_otherwise(job: Job, rows: list[Row], where: str) -> Iterator[Broken]:
    """A job from a file counts here since the signature that took it over."""
    last = (job.read_in or {}).get("numbers", 0)
    taken = {row["at"] for row in rows if row["kind"] == SignatureKind.TAKE_OVER and row["number"] > last}
    if job.taken_over_at not in (taken or {None}):
        yield Broken(where=where, what="since when it counts here is not what was signed")


def _follows(before: set[str], row: Row) -> bool:
    plain: Row = {"job": str(row["job_id"]), "id": str(row["id"]), "at": row["at"].isoformat()}
    plain |= {key: row[key] for key in ("number", "step", "kind", "by", "role")}
    if row["whose"] is not None:
        plain["person"] = row["whose"]
    if "inputs" not in row:
        plain |= {"entry": str(row["entry_id"]) if row["entry_id"] else None, "reason": row["reason"]}
        return row["chain"] in {digest_of_stored({**plain, "before": one}, {}) for one in before}
    mostly = {key: canonical_mostly(row[key]) for key in ("inputs", "result")}
    mostly |= {key: canonical_again(row[key]) for key in ("typed", "asked")}
    if row["chain"] in {digest_of_stored({**plain, "before": one}, mostly) for one in before}:
        return True
    exactly = {key: canonical(row[key]) for key in ("inputs", "result", "typed", "asked")}
    return row["chain"] in {digest_of_stored({**plain, "before": one}, exactly) for one in before}


def _is_theirs(row: Row, job: Job) -> bool:
    """Whose it is stands beside it, but for what came with a file: people of another plant are none of this one."""
    came = row["person_id"] is None and job.read_in is not None and row["number"] <= job.read_in.get("numbers", row["number"])
    return came or row["whose"] in (None, row["person_id"])


def _shows_what_was_taken(row: Row, pictures: dict[str, str]) -> bool:
    """The picture of a photograph is the one whose digest stands in the chain."""
    if row["kind"] != EntryKind.PHOTOGRAPH:
        return True
    return bool(pictures.get(str(row["id"])) == json.loads(row["inputs"])["sha256"])


def _rows_of(jobs: list[Job]) -> dict[UUID, list[Row]]:
    """All that was entered and signed in these jobs; JSON as text, which is read as fast as a million rows want it."""
    found: dict[UUID, list[Row]] = defaultdict(list)
    as_text = {f"{key}_text": Cast(key, TextField()) for key in ("inputs", "typed", "asked", "result")}
    for row in Entry.objects.filter(job__in=jobs).order_by().annotate(**as_text).values(*OF_BOTH, *as_text):
        found[row["job_id"]].append({key.removesuffix("_text"): value for key, value in row.items()})
    for row in Signature.objects.filter(job__in=jobs).order_by().values(*OF_BOTH, "entry_id", "reason"):
        found[row["job_id"]].append(row)
    return found


def _pictures(jobs: list[Job]) -> dict[str, str]:
    """The digest of every picture that is stored, by its entry."""
    stored = Photograph.objects.filter(entry__job__in=jobs).values_list("entry_id", "content").iterator(20)
    return {str(entry): hashlib.sha256(content).hexdigest() for entry, content in stored}
