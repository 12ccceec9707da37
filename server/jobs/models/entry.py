"""What was entered and signed in a job. The database itself refuses to change or delete it."""

import uuid
from collections.abc import Mapping
from types import MappingProxyType
from typing import Any

from django.db import models
from django.db.models import Q

from millwright.job import entry as core
from millwright.meaning import Meaning
from millwright.roles import Role
from millwright.verdict import Verdict, is_unproven
from server.accounts.models import User
from server.journal.digest import HASH
from server.web.fast_json import FastDecoder
from server.web.times import EARLIEST

from ..means import meant_by
from .job import Job

NOTHING_READ: Mapping[str, Any] = MappingProxyType({})
WHOSE = "whose it is; name and role beside it stay as they were then. None where it came with a file, which knows names only"


class EntryQuerySet(models.QuerySet["Entry"]):
    """Entries, and which of them were taken out."""

    def slips(self) -> list[str]:
        """The ids of what was taken out as a slip."""
        return list(self.filter(kind=core.EntryKind.SLIP).values_list("inputs__entry", flat=True))


class Entry(models.Model):
    """One appended fact. Its id is made by the client, so that a retry never doubles it."""

    id = models.UUIDField(primary_key=True)
    job = models.ForeignKey(Job, on_delete=models.PROTECT, related_name="entries")
    number = models.PositiveIntegerField()
    step = models.CharField(max_length=60)
    kind = models.CharField(max_length=10)
    inputs = models.JSONField(decoder=FastDecoder)
    typed = models.JSONField(decoder=FastDecoder, default=dict, help_text="path into the inputs → what was typed there")
    asked = models.JSONField(decoder=FastDecoder, default=dict, help_text="what it answered, as it was asked then")
    result = models.JSONField(decoder=FastDecoder, null=True)
    chain = models.CharField(max_length=64, default="", help_text="hash of this and of what was entered before it")
    person = models.ForeignKey(User, null=True, on_delete=models.PROTECT, related_name="+", help_text=WHOSE)
    whose = models.BigIntegerField(null=True, help_text="number of that person where it was entered: it is in the chain")
    by = models.CharField(max_length=150)
    role = models.CharField(max_length=12)
    at = models.DateTimeField()

    label = ""  # what it is called among those of its step, where somebody has said it
    slip = False  # taken out, where somebody has said so
    left_out = False  # a sweep that is told of, not shown

    objects = EntryQuerySet.as_manager()

    class Meta:
        ordering = ["number"]
        constraints = [
            models.UniqueConstraint(fields=["job", "number"], name="entry_number_once_per_job"),
            models.CheckConstraint(condition=Q(kind__in=[k.value for k in core.EntryKind]), name="entry_kind_known"),
            models.CheckConstraint(condition=Q(role__in=[r.value for r in Role]), name="entry_role_known"),
            models.CheckConstraint(condition=Q(chain__regex=HASH), name="entry_chain_whole"),
            models.CheckConstraint(condition=Q(at__gte=EARLIEST), name="entry_of_these_days"),
        ]

    def __str__(self) -> str:
        return f"{self.job}, {self.number}: {self.step}"

    @property
    def bench(self) -> str | None:
        """Of a reading: its bench, or that it was a sheet."""
        return (self.result or {}).get("bench")

    @property
    def means(self) -> tuple[Meaning, ...]:
        """What a reading is of; empty of anything else."""
        return meant_by(self.step, self.asked.get("means"), self.inputs) if self.kind == core.EntryKind.READING else ()

    @property
    def readings(self) -> Mapping[str, Any]:
        """What a bench was given; empty of a sheet, whose answers may have the name of anything."""
        return self.inputs if self.bench not in (None, "sheet") else NOTHING_READ

    @property
    def as_core(self) -> core.Entry:
        """The entry as the core knows it."""
        result: dict[str, Any] = self.result or {}
        return core.Entry(
            id=str(self.id),
            number=self.number,
            step=self.step,
            kind=core.EntryKind(self.kind),
            inputs=self.inputs,
            verdict=Verdict(result["verdict"]) if result else None,
            by=self.by,
            role=Role(self.role),
            at=self.at,
            unproven=is_unproven(self.result),
            ledger=self.asked.get("ledger", ()),
        )


class Signature(models.Model):
    """Who signed what. Its id is made by the client, where somebody signs a step."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    job = models.ForeignKey(Job, on_delete=models.PROTECT, related_name="signatures")
    number = models.PositiveIntegerField()
    kind = models.CharField(max_length=10)
    step = models.CharField(max_length=60, blank=True, help_text="empty where the whole job is meant")
    entry = models.ForeignKey(Entry, null=True, on_delete=models.PROTECT, related_name="signatures")
    reason = models.CharField(max_length=400, blank=True)
    chain = models.CharField(max_length=64, default="", help_text="hash of this and of what was entered before it")
    person = models.ForeignKey(User, null=True, on_delete=models.PROTECT, related_name="+", help_text=WHOSE)
    whose = models.BigIntegerField(null=True, help_text="number of that person where it was entered: it is in the chain")
    by = models.CharField(max_length=150)
    role = models.CharField(max_length=12)
    at = models.DateTimeField()

    class Meta:
        ordering = ["number"]
        constraints = [
            models.UniqueConstraint(fields=["job", "number"], name="signature_number_once_per_job"),
            models.CheckConstraint(condition=Q(kind__in=[k.value for k in core.SignatureKind]), name="signature_kind_known"),
            models.CheckConstraint(
                condition=Q(kind__in=("hold", "take over")) | ~Q(reason=""), name="signature_authorised_with_a_reason"
            ),
            models.CheckConstraint(condition=Q(chain__regex=HASH), name="signature_chain_whole"),
            models.CheckConstraint(condition=Q(at__gte=EARLIEST), name="signature_of_these_days"),
        ]

    def __str__(self) -> str:
        return f"{self.job}, {self.number}: {self.kind} {self.step}"

    @property
    def as_core(self) -> core.Signature:
        """The signature as the core knows it."""
        return core.Signature(
            id=str(self.id),
            number=self.number,
            kind=core.SignatureKind(self.kind),
            step=self.step,
            entry=str(self.entry_id) if self.entry_id else None,
            by=self.by,
            role=Role(self.role),
            at=self.at,
            reason=self.reason,
        )


class Photograph(models.Model):
    """The picture of an entry: a JPEG, known by the SHA-256 that the entry holds."""

    entry = models.OneToOneField(Entry, primary_key=True, on_delete=models.PROTECT, related_name="photograph")
    content = models.BinaryField()

    def __str__(self) -> str:
        return f"photograph of {self.entry}"


class StreamReading(models.Model):
    """A reading an instrument sent. It is no entry: it counts once somebody enters the sweep as a reading."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="stream")
    step = models.CharField(max_length=60)
    device = models.CharField(max_length=60)
    seq = models.BigIntegerField()
    plane = models.PositiveSmallIntegerField()
    clock = models.FloatField()
    value_mm = models.FloatField()
    at = models.DateTimeField()

    class Meta:
        ordering = ["pk"]
        constraints = [models.UniqueConstraint(fields=["job", "step", "device", "seq"], name="stream_line_once")]

    def __str__(self) -> str:
        return f"{self.job}, {self.step}: {self.device} {self.seq}"
