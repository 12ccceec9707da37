"""The one door for jobs from files: a file says what was entered, everything else is worked out here."""

import hashlib
import json
from collections.abc import Mapping
from datetime import datetime
from typing import Any

from django.db import IntegrityError, transaction
from django.db.models import Max

from millwright.card.values import card_problems
from millwright.errors import Problem, UnusableInput, refuse_if_any
from millwright.job.entry import EntryKind, SignatureKind
from millwright.job.new_entry import OutOfTurn
from millwright.model import read_json
from millwright.plan.stages.close_out import CLOSING
from millwright.roles import Deed, Role
from server.accounts.auth import require
from server.accounts.models import Membership
from server.jobs.chain import beginnings, begun, first_link, follows, in_one_chain, link_without_person, runs
from server.jobs.models import Entry, Job, Photograph, Signature
from server.jobs.photographs import kept_as
from server.journal.digest import START
from server.plant.actions import note_change
from server.plant.models import Line

from .job_file import FORMAT, READ_TOO, VERSION, FileEntry, FileJob
from .replay import NotJudgedHere, Replay, Taken, as_a_paper

Rows = list[Entry | Signature]
NOT_FINISHED = "Read in as a paper: it was not finished in its file."
BEHIND_IT = "This is not what was entered: the hash beside it does not follow from it and from what stands before it."


@transaction.atomic
def read_job(text: bytes, *, by: Membership, now: datetime) -> Job:
    """Read a job file into this site; the line is found by name or made. All of it, or nothing.

    Its chain is walked, then it is worked through again as it was entered: what nobody could have entered or signed is
    refused, and what it was asked, what it comes to and what is done by it is worked out here. What cannot be judged here is
    kept as a paper. Either way nothing goes by it until a lead of this site takes it over.
    Raises `UnusableInput` with line or path and reason, `OutOfTurn` where the job is here already.
    """
    require(by, Deed.READ_IN_JOBS)
    given = _read_file(text)
    if Job.objects.filter(pk=given.id).exists():
        raise OutOfTurn("This job is here already. Nothing was read in.")
    refuse_if_any([Problem(f"card.{p.path}", p.message) for p in card_problems(given.card)])
    job = _job(given, json.loads(text), by)
    _refuse_broken(given, job)
    replay = Replay(given, now)
    try:
        taken, why = replay.run(), ""
    except NotJudgedHere as paper:
        taken, why = as_a_paper(given), str(paper)
    job.line = _line(given, by)
    job.read_in = {
        "by": by.user.shown_name,
        "at": now.isoformat(),
        "site": given.site,
        "number": given.number,
        "digest": hashlib.sha256(text).hexdigest(),
        "chain": given.chain,
        "why_not_judged": why,
    }
    rows = _rows(given, job, taken)
    _end(job, given, rows, why, by, now)
    job.read_in["numbers"] = len(rows)
    _refuse_two_open(job)
    try:
        with transaction.atomic():
            begun(job)
            _keep(job, rows, given)
    except IntegrityError:
        raise UnusableInput(Problem("entries", "Some of these entries are here already, in another job.")) from None
    job.refresh_from_db()
    return job


def _job(given: FileJob, held: Mapping[str, Any], by: Membership) -> Job:
    """The job, not stored yet; line and card word for word as the file has them, which is what its chain stands on."""
    return Job(
        id=given.id,
        site=by.site,
        number=_free_number(by, given.number),
        title=given.title,
        scope=given.scope.value,
        unit=given.unit,
        procedure=given.procedure,
        edition=given.edition,
        tasks=[task.value for task in given.tasks],
        spec=held["spec"],
        card=held["card"],
        started_by=given.started_by,
        started_at=given.started_at,
    )


def _line(given: FileJob, by: Membership) -> Line:
    """The line of this name; made where there is none, and its history says from what."""
    line = Line.objects.filter(site=by.site, name=given.line).first()
    if line is None:
        spec, card = given.spec.model_dump(mode="json"), {k: v.model_dump(mode="json") for k, v in given.card.items()}
        line = Line.objects.create(site=by.site, name=given.line, spec=spec, values=card)
        note_change(line, [], by=by, because="made for a job that was read in from a file")
    return line


def _refuse_two_open(job: Job) -> None:
    if job.closed_at is None and Job.objects.which_are(closed=False).filter(line=job.line).exists():
        raise OutOfTurn(f"{job.line.name} has an open job, and the job in the file is open too. Nothing was read in.")


def _refuse_broken(given: FileJob, job: Job) -> None:
    """The chain of a file is compared: row by row, or by its end where its version has no more. The first one has none."""
    if given.version == 1:
        return
    job.start = first_link(job)
    before: tuple[str, ...] = beginnings(job)
    end = START if given.version == VERSION - 1 else job.start
    places = {e.number: f"entries.{i}" for i, e in enumerate(given.entries)}
    places |= {s.number: f"signatures.{i}" for i, s in enumerate(given.signatures)}
    for row in _rows(given, job, {}):
        if given.version == VERSION:
            if not any(follows(one, row) for one in before):
                raise UnusableInput(Problem(places[row.number], BEHIND_IT))
            before, end = (row.chain,), row.chain
        else:
            end = link_without_person(end, row)
    if given.chain != end:
        text = "This is not the whole job as it was entered: the hash at its end does not follow from what stands before it."
        raise UnusableInput(Problem("chain", text))


def _rows(given: FileJob, job: Job, taken: Mapping[str, Taken]) -> Rows:
    """Entries and signatures in the order of their numbers; of an entry what was taken of it, else as the file has it."""
    rows: Rows = [
        *(
            Entry(job=job, **{**e.model_dump(exclude={"image"}), **(vars(taken[str(e.id)]) if taken else {})})
            for e in given.entries
        ),
        *(Signature(job=job, entry_id=s.entry, **s.model_dump(exclude={"entry"})) for s in given.signatures),
    ]
    return sorted(rows, key=lambda row: row.number)


def _end(job: Job, given: FileJob, rows: Rows, why_not: str, by: Membership, now: datetime) -> None:
    """Closed as in its file, or cancelled; a paper that was not finished is nothing to go on with. The chain ends there."""
    closed = [s.at for s in given.signatures if s.step == CLOSING and s.kind is SignatureKind.HOLD]
    last = max([given.started_at, *(row.at for row in rows)])
    signed = [row for row in rows if row.kind == SignatureKind.CANCEL]
    if not signed and (given.cancelled_by or given.cancelled_because) and (closed or given.version == VERSION):
        raise UnusableInput(Problem("cancelled_by", "Nobody signed that this job was cancelled."))
    if given.cancelled_by and not signed:  # an older file: its job was cancelled without a signature
        end = {"by": given.cancelled_by, "role": Role.LEAD.value, "reason": given.cancelled_because or "not said", "at": last}
    elif why_not and not closed and not signed:
        end = {"by": by.user.shown_name, "role": by.role, "reason": NOT_FINISHED, "at": max(now, last)}
        end |= {"person": by.user, "whose": by.user_id}
    else:
        end = {}
    if end:
        rows.append(Signature(job=job, number=len(rows) + 1, kind=SignatureKind.CANCEL.value, **end))
        signed = rows[-1:]
    if signed and isinstance(signed[0], Signature):
        job.cancelled_by, job.cancelled_because = signed[0].by, signed[0].reason
    job.closed_at = signed[0].at if signed else max(closed, default=None)
    before: tuple[str, ...] = beginnings(job)
    for row in rows:
        if not row.chain or not any(follows(one, row) for one in before):
            in_one_chain(first_link(job), rows)  # what was taken here is not word for word what the file has
            return
        before = (row.chain,)


def _keep(job: Job, rows: Rows, given: FileJob) -> None:
    for some in runs(rows):
        type(some[0])._default_manager.bulk_create(some)  # type: ignore[arg-type]
    Photograph.objects.bulk_create(
        Photograph(entry_id=e.id, content=_picture(f"entries.{i}", e))
        for i, e in enumerate(given.entries)
        if e.kind is EntryKind.PHOTOGRAPH
    )


def _picture(path: str, e: FileEntry) -> bytes:
    try:
        return kept_as(e.image, str(e.inputs.get("sha256")))
    except UnusableInput as refused:
        raise UnusableInput(*(Problem(f"{path}.{p.path}", p.message) for p in refused.problems)) from None


def _read_file(text: bytes) -> FileJob:
    try:
        head: Any = json.loads(text)
    except UnicodeDecodeError:
        raise UnusableInput(Problem("line 1", "This is not a text file.")) from None
    except json.JSONDecodeError as broken:
        raise UnusableInput(
            Problem(f"line {broken.lineno}", f"The file breaks off or is damaged here: {broken.msg}.")
        ) from None
    except (RecursionError, ValueError):
        raise UnusableInput(Problem("line 1", "No job is nested this deep, and no figure in one is this long.")) from None
    if not isinstance(head, dict) or head.get("format") != FORMAT:
        raise UnusableInput(Problem("format", "This is not a job written by Young Anvil."))
    if head.get("version") not in (*READ_TOO, VERSION):
        known = ", ".join(map(str, READ_TOO))
        said = f"This file is of version {str(head.get('version'))[:20]}; {known} and {VERSION} are read here."
        raise UnusableInput(Problem("version", said))
    return read_json(FileJob, text)


def _free_number(by: Membership, wanted: int) -> int:
    mine = Job.objects.filter(site=by.site)
    if not mine.filter(number=wanted).exists():
        return wanted
    return int(mine.aggregate(last=Max("number"))["last"] or 0) + 1
