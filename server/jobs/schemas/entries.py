"""What is appended to a job: entries and signatures, as they are sent and as they stand."""

from datetime import datetime
from typing import Any, Literal
from uuid import UUID

from ninja import Field, Schema

from millwright.job.entry import EntryKind, SignatureKind
from millwright.model import NameIn, PlainTextIn
from millwright.roles import Role
from millwright.units import LengthUnit
from server.web.shown import Shown

from ..photographs import MOST_SENT


class ReadWithIn(Schema, extra="forbid"):
    """An instrument of the register, by what it is and its name."""

    kind: NameIn = Field(max_length=20)
    name: NameIn = Field(min_length=1, max_length=60)


class EntryIn(Schema, extra="forbid"):
    """An entry to append. `typed` holds what was typed, by path into `inputs`, where lengths were typed."""

    id: UUID
    step: NameIn = Field(max_length=60)
    kind: EntryKind
    inputs: dict[str, Any]
    typed: dict[str, str] = {}
    unit: LengthUnit = "mm"
    image: str = Field(default="", max_length=MOST_SENT, description="of a photograph: JPEG, PNG or WebP in base64")
    as_it_is: bool = Field(default=False, description="taken although its ± leaves open whether it is within its limit")
    instruments: list[ReadWithIn] = Field(default=[], max_length=8, description="of a reading: what it was read with")
    by: str | None = Field(default=None, description="username of whoever entered it; refused for anybody else's session")


class SignatureIn(Schema, extra="forbid"):
    """A signature; `entry` is the reading the signer saw, `password` the signer's own, at this moment."""

    id: UUID
    step: NameIn = Field(max_length=60)
    kind: Literal[SignatureKind.HOLD, SignatureKind.AUTHORISE]
    entry: UUID | None = None
    reason: PlainTextIn = Field(default="", max_length=400)
    password: str = Field(default="", max_length=200)
    by: str | None = Field(default=None, description="username of whoever signed; refused for anybody else's session")


class EntryOut(Shown):
    """An entry as it was appended."""

    id: UUID
    number: int
    step: str
    kind: EntryKind
    label: str = Field(default="", description="what it is called among those of its step")
    bench: str | None = Field(description="of a reading: its bench, or that it was a sheet")
    slip: bool = Field(default=False, description="taken out as a slip: it counts for nothing")
    left_out: bool = Field(default=False, description="a sweep that was read again: its readings are not in this answer")
    inputs: dict[str, Any]
    typed: dict[str, str]
    result: dict[str, Any] | None
    by: str
    role: Role
    at: datetime


class SignatureOut(Shown):
    """A signature as it was given."""

    id: UUID
    number: int
    kind: SignatureKind
    step: str
    entry: UUID | None = Field(validation_alias="entry_id")
    reason: str
    by: str
    role: Role
    at: datetime
