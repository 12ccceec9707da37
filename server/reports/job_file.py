"""A job as a documented, versioned JSON file: its shape, and how it is written (docs/formats.md)."""

import base64
import json
from datetime import datetime
from typing import Any, Final, Literal
from uuid import UUID

from ninja import Field, Schema

from millwright.card.values import Value
from millwright.job.entry import EntryKind, SignatureKind
from millwright.line import LineSpec
from millwright.model import NameIn, PlainTextIn
from millwright.roles import Role
from millwright.scope import Scope, Task
from millwright.units import LengthUnit
from server.jobs.chain import head_of
from server.jobs.models import Entry, Job, Signature
from server.jobs.photographs import MOST_SENT

FORMAT: Final = "young-anvil job"
VERSION: Final = 3
READ_TOO: Final = (1, 2)  # 1 knows nothing of what was asked; 2 nothing of the hash of each row
MOST_NUMBERS: Final = 20_000
MOST_JOBS: Final = 1_000_000
HASH = "^([0-9a-f]{64})?$"


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
    whose: int | None = Field(default=None, ge=0, le=2**62, description="number of that person at the plant it comes from")
    by: NameIn = Field(max_length=150)
    role: Role
    at: datetime
    chain: str = Field(default="", pattern=HASH, description="hash of this and of what was entered before it")


class FileSignature(Schema, extra="forbid"):
    """A signature in the file."""

    id: UUID
    number: int = Field(ge=1, le=MOST_NUMBERS)
    kind: SignatureKind
    step: str = Field(max_length=60)
    entry: UUID | None
    reason: PlainTextIn = Field(max_length=400)
    whose: int | None = Field(default=None, ge=0, le=2**62, description="number of that person at the plant it comes from")
    by: NameIn = Field(max_length=150)
    role: Role
    at: datetime
    chain: str = Field(default="", pattern=HASH, description="hash of this and of what was entered before it")


class FileJob(Schema, extra="forbid"):
    """The whole file."""

    format: Literal["young-anvil job"]
    version: Literal[1, 2, 3]
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
    chain: str = Field(default="", pattern=HASH, description="of the last entry or signature")
    cancelled_by: PlainTextIn = Field(default="", max_length=150)
    cancelled_because: PlainTextIn = Field(default="", max_length=400)
    entries: list[FileEntry]
    signatures: list[FileSignature]


def write_job(job: Job) -> str:
    """The job as JSON text; line and card word for word as they were started with, which is what its chain stands on.

    Nothing is checked: one that cannot be shown any more is had as a file all the same.
    """
    held: dict[str, Any] = {
        "format": FORMAT,
        "version": VERSION,
        "id": job.id,
        "number": job.number,
        "title": job.title,
        "scope": job.scope,
        "unit": job.sheet,
        "procedure": job.procedure,
        "edition": job.edition,
        "tasks": job.tasks,
        "line": job.line.name,
        "site": job.site.name,
        "spec": job.spec,
        "card": job.card,
        "started_by": job.started_by,
        "started_at": job.started_at,
        "chain": head_of(job).chain,
        "cancelled_by": job.cancelled_by,
        "cancelled_because": job.cancelled_because,
        "entries": [_entry_out(e) for e in job.entries.select_related("photograph")],
        "signatures": [_signature_out(s) for s in job.signatures.all()],
    }
    return json.dumps(FileJob.model_construct(**held).model_dump(mode="json", warnings=False), indent=1, ensure_ascii=False)


def _entry_out(e: Entry) -> FileEntry:
    held: dict[str, Any] = {
        "id": e.id,
        "number": e.number,
        "step": e.step,
        "kind": e.kind,
        "inputs": e.inputs,
        "typed": e.typed,
        "asked": e.asked,
        "result": e.result,
        "image": base64.b64encode(e.photograph.content).decode() if e.kind == EntryKind.PHOTOGRAPH else "",
        "whose": e.whose,
        "by": e.by,
        "role": e.role,
        "at": e.at,
        "chain": e.chain,
    }
    return FileEntry.model_construct(**held)


def _signature_out(s: Signature) -> FileSignature:
    held: dict[str, Any] = {
        "id": s.id,
        "number": s.number,
        "kind": s.kind,
        "step": s.step,
        "entry": s.entry_id,
        "reason": s.reason,
        "whose": s.whose,
        "by": s.by,
        "role": s.role,
        "at": s.at,
        "chain": s.chain,
    }
    return FileSignature.model_construct(**held)
