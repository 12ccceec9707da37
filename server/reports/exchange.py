"""A job as a documented, versioned JSON file, written and read back without loss (docs/formats.md)."""

import json
from collections.abc import Mapping, Sequence
from datetime import datetime
from typing import Any, Final, Literal
from uuid import UUID

from django.db import IntegrityError, transaction
from django.db.models import Max
from ninja import Field, Schema

from millwright.benches import as_dict, evaluate_json
from millwright.card.values import Value
from millwright.errors import Problem, UnusableInput, refuse_if_any
from millwright.figures_in_words import COMPARED
from millwright.line import LineSpec
from millwright.model import NameIn, PlainTextIn, read_json
from millwright.roles import Role
from millwright.route.asked import AFTERWARDS, asked_of
from millwright.route.entry import OutOfTurn, evaluate
from millwright.route.stages.close_out import CLOSING
from millwright.route.stand import stand
from millwright.route.state import EntryKind, SignatureKind, StepNow
from millwright.route.steps import Scope
from server.accounts.auth import require_role
from server.accounts.models import Membership
from server.jobs.models import Entry, Job, Signature
from server.plant.models import Line

FORMAT: Final = "young-anvil job"
VERSION: Final = 2
READ_TOO: Final = 1  # without `asked`: filled in from the route, and marked so


class FileEntry(Schema, extra="forbid"):
    """An entry in the file."""

    id: UUID
    number: int = Field(ge=1)
    step: str = Field(max_length=60)
    kind: EntryKind
    inputs: dict[str, Any]
    typed: dict[str, str]
    asked: dict[str, Any] = {}
    result: dict[str, Any] | None
    by: NameIn = Field(max_length=150)
    role: Role
    at: datetime


class FileSignature(Schema, extra="forbid"):
    """A signature in the file."""

    id: UUID
    number: int = Field(ge=1)
    kind: SignatureKind
    step: str = Field(max_length=60)
    entry: UUID | None
    reason: PlainTextIn = Field(max_length=400)
    by: NameIn = Field(max_length=150)
    role: Role
    at: datetime


class FileJob(Schema, extra="forbid"):
    """The whole file."""

    format: Literal["young-anvil job"]
    version: Literal[1, 2]
    id: UUID
    number: int = Field(ge=1)
    title: NameIn = Field(min_length=1, max_length=120)
    line: NameIn = Field(min_length=1, max_length=80)
    site: NameIn
    scope: Scope = Scope.FIT
    procedure: int = Field(default=1, ge=1, le=10_000)
    spec: LineSpec
    card: dict[str, Value]
    started_by: NameIn = Field(max_length=150)
    started_at: datetime
    entries: list[FileEntry]
    signatures: list[FileSignature]


def write_job(job: Job) -> str:
    """The job as JSON text."""
    return FileJob(
        format=FORMAT,
        version=VERSION,
        id=job.id,
        number=job.number,
        title=job.title,
        scope=Scope(job.scope),
        procedure=job.procedure,
        line=job.line.name,
        site=job.site.name,
        spec=job.as_spec,
        card={key: Value.model_validate(value) for key, value in job.card.items()},
        started_by=job.started_by,
        started_at=job.started_at,
        entries=[_entry_out(e) for e in job.entries.all()],
        signatures=[_signature_out(s) for s in job.signatures.all()],
    ).model_dump_json(indent=1)


def _entry_out(e: Entry) -> FileEntry:
    core = e.as_core
    return FileEntry(
        id=e.id,
        number=e.number,
        step=e.step,
        kind=core.kind,
        inputs=e.inputs,
        typed=e.typed,
        asked=e.asked,
        result=e.result,
        by=e.by,
        role=core.role,
        at=e.at,
    )


def _signature_out(s: Signature) -> FileSignature:
    core = s.as_core
    return FileSignature(
        id=s.id,
        number=s.number,
        kind=core.kind,
        step=s.step,
        entry=s.entry_id,
        reason=s.reason,
        by=s.by,
        role=core.role,
        at=s.at,
    )


@transaction.atomic
def read_job(text: bytes, *, by: Membership) -> Job:
    """Read a job file into this site; the line is found by name or made. All of it, or nothing.

    Verdicts in the file are not trusted: every reading is evaluated again and must say the same.
    Raises `UnusableInput` with line or path and reason, `OutOfTurn` where the job is here already.
    """
    require_role(by, Role.LEAD)
    given = _with_asked(_read_file(text))
    if Job.objects.filter(pk=given.id).exists():
        raise OutOfTurn("This job is here already. Nothing was read in.")
    refuse_if_any(_problems(given))
    line, made = Line.objects.get_or_create(
        site=by.site,
        name=given.line,
        defaults={
            "spec": given.spec.model_dump(mode="json"),
            "values": {key: value.model_dump(mode="json") for key, value in given.card.items()},
        },
    )
    closed = any(s.step == CLOSING and s.kind is SignatureKind.HOLD for s in given.signatures)
    if not made and not closed and Job.objects.which_are(closed=False).filter(line=line).exists():
        raise OutOfTurn(f"{line.name} has an open job, and the job in the file is open too. Nothing was read in.")
    job = Job.objects.create(
        id=given.id,
        site=by.site,
        line=line,
        number=_free_number(by, given.number),
        title=given.title,
        scope=given.scope.value,
        procedure=given.procedure,
        spec=given.spec.model_dump(mode="json"),
        card={key: value.model_dump(mode="json") for key, value in given.card.items()},
        started_by=given.started_by,
        started_at=given.started_at,
    )
    try:
        with transaction.atomic():
            Entry.objects.bulk_create(Entry(job=job, **dict(e)) for e in given.entries)
            Signature.objects.bulk_create(
                Signature(job=job, entry_id=s.entry, **s.model_dump(exclude={"entry"})) for s in given.signatures
            )
    except IntegrityError:
        raise UnusableInput(Problem("entries", "Some of these entries are here already, in another job.")) from None
    return job


def _read_file(text: bytes) -> FileJob:
    try:
        head = json.loads(text)
    except UnicodeDecodeError:
        raise UnusableInput(Problem("line 1", "This is not a text file.")) from None
    except json.JSONDecodeError as broken:
        raise UnusableInput(
            Problem(f"line {broken.lineno}", f"The file breaks off or is damaged here: {broken.msg}.")
        ) from None
    if not isinstance(head, dict) or head.get("format") != FORMAT:
        raise UnusableInput(Problem("format", "This is not a job written by Young Anvil."))
    if head.get("version") not in (READ_TOO, VERSION):
        said = f"This file is of version {head.get('version')}; {READ_TOO} and {VERSION} are read here."
        raise UnusableInput(Problem("version", said))
    return read_json(FileJob, text)


def _free_number(by: Membership, wanted: int) -> int:
    mine = Job.objects.filter(site=by.site)
    if not mine.filter(number=wanted).exists():
        return wanted
    return int(mine.aggregate(last=Max("number"))["last"] or 0) + 1


def _problems(given: FileJob) -> list[Problem]:
    found, numbers, ids = [], set(), {e.id for e in given.entries}
    groups: dict[str, Sequence[FileEntry | FileSignature]] = {"entries": given.entries, "signatures": given.signatures}
    for group, items in groups.items():
        for i, item in enumerate(items):
            if item.number in numbers:
                found.append(Problem(f"{group}.{i}.number", f"Number {item.number} is there twice."))
            numbers.add(item.number)
    found += [
        Problem(f"signatures.{i}.entry", "The reading this signature covers is not in the file.")
        for i, s in enumerate(given.signatures)
        if s.entry is not None and s.entry not in ids
    ]
    return found or _results_that_do_not_follow(given)


def _with_asked(given: FileJob) -> FileJob:
    """A file of version 1 does not say what its entries answered: what the route asks now stands there, marked so."""
    if given.version == VERSION:
        return given
    entries = [Entry(**dict(e)).as_core for e in sorted(given.entries, key=lambda e: e.number)]
    route = stand(given.spec, given.card, entries, [], given.scope, procedure=given.procedure)
    steps = {now.step.key: now.step for now in route.steps}
    return given.model_copy(
        update={
            "entries": [
                e.model_copy(update={"asked": {**(asked_of(steps[e.step]) if e.step in steps else {}), "note": AFTERWARDS}})
                for e in given.entries
            ]
        }
    )


def _judged(now: StepNow | None, e: FileEntry) -> Mapping[str, Any] | None:
    """What the core says of a reading today; of one in a step that is no longer part of the route, what its bench says.

    None where only that step could judge it. Raises `UnusableInput` where the inputs cannot be evaluated.
    """
    if now is not None and now.step.form.kind == e.asked.get("form"):
        full, result = evaluate(now, e.inputs)
        compared = {key: e.inputs[key] for key in COMPARED if key in e.inputs}
        bench = result["bench"]
        return result if bench == "sheet" else as_dict(evaluate_json(bench, json.dumps({**full, **compared})))
    bench = e.asked.get("bench")
    return as_dict(evaluate_json(bench, json.dumps(e.inputs))) if bench else None


def _results_that_do_not_follow(given: FileJob) -> list[Problem]:
    """Readings whose verdict is not what the core says of their inputs now."""
    found: list[Problem] = []
    entries = [Entry(**dict(e)).as_core for e in sorted(given.entries, key=lambda e: e.number)]
    for i, e in enumerate(given.entries):
        if e.kind is not EntryKind.READING:
            continue
        before = [other for other in entries if other.number < e.number]
        now = stand(given.spec, given.card, before, [], given.scope, procedure=given.procedure).find(e.step)
        try:
            result = _judged(now, e)
        except UnusableInput as refused:
            found += [Problem(f"entries.{i}.inputs.{p.path}", p.message) for p in refused.problems]
            continue
        if e.result is None or (result is not None and result["verdict"] != e.result.get("verdict")):
            found.append(Problem(f"entries.{i}.result", "The result does not follow from the readings beside it."))
    return found
