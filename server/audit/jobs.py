"""The chains of all jobs, walked as two streams of rows: a million of them in a minute or two."""

import hashlib
import logging
from collections.abc import Iterable, Iterator
from itertools import groupby
from operator import itemgetter
from typing import Any
from uuid import UUID

from django.db.models import TextField
from django.db.models.functions import Cast

from millwright.route.stages.close_out import CLOSING
from millwright.route.state import EntryKind, SignatureKind
from server.jobs.chain import beginnings, first_link
from server.jobs.models import Entry, Job, Photograph, Signature
from server.journal.digest import digest_of_stored, read_stored

from .broken import NOTHING_SEALED, Broken, Sealed, held_against

logger = logging.getLogger(__name__)
AT_A_TIME = 2_000
OF_BOTH = ("job_id", "number", "id", "step", "kind", "by", "role", "at", "person_id", "whose", "chain")
Row = dict[str, Any]
MISSING, CHANGED = "it is missing", "it is not what was entered"


def verify_jobs(seal: Sealed = NOTHING_SEALED, **only: Any) -> Iterator[tuple[Job, list[Broken]]]:
    """Every job with what is wrong with it; ``only`` - a filter. One that cannot be read is named, and takes no other with
    it."""
    jobs = Job.objects.filter(**only).select_related("line", "site")
    streams = _by_job(_entries(jobs)), _by_job(_signatures(jobs))
    heads = [next(stream, None) for stream in streams]
    pictures = _pictures(jobs)
    for job in jobs.order_by("pk").iterator(AT_A_TIME):
        rows: list[Row] = []
        for i, stream in enumerate(streams):
            head = heads[i]
            if head is not None and head[0] == job.pk:
                rows += head[1]
                heads[i] = next(stream, None)
        where = f"{job.site.name}, {job.line.name}, job {job.number}"
        try:
            yield job, list(_wrong(job, sorted(rows, key=itemgetter("number")), pictures, seal, where))
        except Exception:
            logger.exception("%s cannot be read", where)
            yield job, [Broken(where=where, what="it cannot be read")]


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
    content: Row = {"job": str(row["job_id"]), "id": str(row["id"]), "at": row["at"].isoformat()}
    content |= {key: row[key] for key in ("number", "step", "kind", "by", "role")}
    if "inputs" in row:
        content |= {key: read_stored(row[key]) for key in ("inputs", "typed", "asked", "result")}
    else:
        content |= {"entry": str(row["entry_id"]) if row["entry_id"] else None, "reason": row["reason"]}
    if row["whose"] is not None:
        content["person"] = row["whose"]
    return any(row["chain"] == digest_of_stored({**content, "before": one}) for one in before)


def _is_theirs(row: Row, job: Job) -> bool:
    """Whose it is stands beside it, but for what came with a file: people of another plant are none of this one."""
    came = row["person_id"] is None and job.read_in is not None and row["number"] <= job.read_in.get("numbers", row["number"])
    return came or row["whose"] in (None, row["person_id"])


def _shows_what_was_taken(row: Row, pictures: dict[str, str]) -> bool:
    """The picture of a photograph is the one whose digest stands in the chain."""
    if row["kind"] != EntryKind.PHOTOGRAPH:
        return True
    return bool(pictures.get(str(row["id"])) == read_stored(row["inputs"])["sha256"])


def _entries(jobs: Any) -> Iterable[Row]:
    as_text = {f"{key}_text": Cast(key, TextField()) for key in ("inputs", "typed", "asked", "result")}
    rows = Entry.objects.filter(job__in=jobs).annotate(**as_text).order_by("job_id", "number")
    for row in rows.values(*OF_BOTH, *as_text).iterator(AT_A_TIME):
        yield {key.removesuffix("_text"): value for key, value in row.items()}


def _signatures(jobs: Any) -> Iterable[Row]:
    rows = Signature.objects.filter(job__in=jobs).order_by("job_id", "number")
    yield from rows.values(*OF_BOTH, "entry_id", "reason").iterator(AT_A_TIME)


def _by_job(rows: Iterable[Row]) -> Iterator[tuple[UUID, list[Row]]]:
    for job, some in groupby(rows, itemgetter("job_id")):
        yield job, list(some)


def _pictures(jobs: Any) -> dict[str, str]:
    """The digest of every picture that is stored, by its entry."""
    stored = Photograph.objects.filter(entry__job__in=jobs).values_list("entry_id", "content").iterator(20)
    return {str(entry): hashlib.sha256(content).hexdigest() for entry, content in stored}
