"""A job as a documented, versioned JSON file, written and read back without loss (docs/formats.md)."""

import base64
import hashlib
import json
from collections.abc import Mapping
from datetime import datetime
from typing import Any, Final, Literal
from uuid import UUID

from django.db import IntegrityError, transaction
from django.db.models import Max
from ninja import Field, Schema

from millwright.card.values import Value
from millwright.errors import Problem, UnusableInput
from millwright.line import LineSpec
from millwright.model import NameIn, PlainTextIn, read_json
from millwright.roles import Deed, Role
from millwright.route.entry import OutOfTurn
from millwright.route.stages.close_out import CLOSING
from millwright.route.state import EntryKind, SignatureKind
from millwright.route.steps import Scope, Task
from millwright.units import LengthUnit
from server.accounts.auth import require
from server.accounts.models import Membership
from server.jobs.chain import START, head_of, link
from server.jobs.models import Entry, Job, Photograph, Signature
from server.jobs.photographs import MOST_SENT, kept_as
from server.plant.models import Line

from .replay import Replay, Taken

FORMAT: Final = "young-anvil job"
VERSION: Final = 2
MOST_NUMBERS: Final = 20_000
MOST_JOBS: Final = 1_000_000
READ_TOO: Final = 1  # without `asked`: filled in from the route, and marked so


class FileEntry(Schema, extra="forbid"):
    """An entry in the file."""

    id: UUID
    number: int = Field(ge=1, le=MOST_NUMBERS)
    step: str = Field(max_length=60)
    kind: EntryKind
    inputs: dict[str, Any]
    typed: dict[str, str]
    asked: dict[str, Any] = {}
    result: dict[str, Any] | None
    image: str = Field(default="", max_length=MOST_SENT, description="of a photograph: its JPEG in base64")
    by: NameIn = Field(max_length=150)
    role: Role
    at: datetime


class FileSignature(Schema, extra="forbid"):
    """A signature in the file."""

    id: UUID
    number: int = Field(ge=1, le=MOST_NUMBERS)
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
    number: int = Field(ge=1, le=MOST_JOBS)
    title: NameIn = Field(min_length=1, max_length=120)
    line: NameIn = Field(min_length=1, max_length=80)
    site: NameIn
    scope: Scope = Scope.FIT
    unit: LengthUnit = "mm"
    procedure: int = Field(default=1, ge=1, le=10_000)
    edition: int = Field(default=1, ge=1, le=10_000)
    tasks: list[Task] = []
    spec: LineSpec
    card: dict[str, Value]
    started_by: NameIn = Field(max_length=150)
    started_at: datetime
    chain: str = ""
    cancelled_by: PlainTextIn = Field(default="", max_length=150)
    cancelled_because: PlainTextIn = Field(default="", max_length=400)
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
        unit=job.sheet,
        procedure=job.procedure,
        edition=job.edition,
        tasks=[Task(task) for task in job.tasks],
        line=job.line.name,
        site=job.site.name,
        spec=job.as_spec,
        card={key: Value.model_validate(value) for key, value in job.card.items()},
        started_by=job.started_by,
        started_at=job.started_at,
        chain=head_of(job).chain,
        cancelled_by=job.cancelled_by,
        cancelled_because=job.cancelled_because,
        entries=[_entry_out(e) for e in job.entries.select_related("photograph")],
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
        image=base64.b64encode(e.photograph.content).decode() if core.kind is EntryKind.PHOTOGRAPH else "",
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
def read_job(text: bytes, *, by: Membership, now: datetime) -> Job:
    """Read a job file into this site; the line is found by name or made. All of it, or nothing.

    It is worked through again as it was entered: what nobody could have entered or signed is refused, every reading is
    judged again and must say the same. Names and times are as the file says; who read it in stands with the job.
    Raises `UnusableInput` with line or path and reason, `OutOfTurn` where the job is here already.
    """
    require(by, Deed.READ_IN_JOBS)
    given = _read_file(text)
    if Job.objects.filter(pk=given.id).exists():
        raise OutOfTurn("This job is here already. Nothing was read in.")
    taken = Replay(given, now, in_turn=given.version == VERSION).run()
    line, made = Line.objects.get_or_create(
        site=by.site,
        name=given.line,
        defaults={
            "spec": given.spec.model_dump(mode="json"),
            "values": {key: value.model_dump(mode="json") for key, value in given.card.items()},
        },
    )
    closed_at = _closed_at(given)
    if not made and closed_at is None and Job.objects.which_are(closed=False).filter(line=line).exists():
        raise OutOfTurn(f"{line.name} has an open job, and the job in the file is open too. Nothing was read in.")
    job = Job.objects.create(
        id=given.id,
        site=by.site,
        line=line,
        number=_free_number(by, given.number),
        title=given.title,
        scope=given.scope.value,
        unit=given.unit,
        procedure=given.procedure,
        edition=given.edition,
        tasks=[task.value for task in given.tasks],
        spec=given.spec.model_dump(mode="json"),
        card={key: value.model_dump(mode="json") for key, value in given.card.items()},
        started_by=given.started_by,
        started_at=given.started_at,
        read_in={
            "by": by.user.shown_name,
            "at": now.isoformat(),
            "site": given.site,
            "digest": hashlib.sha256(text).hexdigest(),
        },
    )
    try:
        with transaction.atomic():
            _keep(job, given, taken)
    except IntegrityError:
        raise UnusableInput(Problem("entries", "Some of these entries are here already, in another job.")) from None
    if closed_at is not None:
        job.closed_at = closed_at
        job.cancelled_by, job.cancelled_because = given.cancelled_by, given.cancelled_because
        job.save(update_fields=["closed_at", "cancelled_by", "cancelled_because"])
    return job


def _closed_at(given: FileJob) -> datetime | None:
    """When its record was signed; of a cancelled one, whose file does not say when, the last time in it."""
    signed = [s.at for s in given.signatures if s.step == CLOSING and s.kind is SignatureKind.HOLD]
    if signed or not given.cancelled_by:
        return max(signed, default=None)
    return max([given.started_at, *(e.at for e in given.entries), *(s.at for s in given.signatures)])


def _keep(job: Job, given: FileJob, taken: Mapping[str, Taken]) -> None:
    """Entries and signatures in the order of their numbers, each chained to the one before it."""
    before = START
    rows: list[Entry | Signature] = [
        *(Entry(job=job, **{**e.model_dump(exclude={"image"}), **vars(taken[str(e.id)])}) for e in given.entries),
        *(Signature(job=job, entry_id=s.entry, **s.model_dump(exclude={"entry"})) for s in given.signatures),
    ]
    rows.sort(key=lambda row: row.number)
    for row in rows:
        row.chain = before = link(before, row)
    Entry.objects.bulk_create(row for row in rows if isinstance(row, Entry))
    Signature.objects.bulk_create(row for row in rows if isinstance(row, Signature))
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
