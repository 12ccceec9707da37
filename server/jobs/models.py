"""Jobs, entries and signatures. The database itself refuses to change or delete the last two."""

import uuid
from collections.abc import Mapping, Sequence
from datetime import datetime
from functools import cached_property
from types import MappingProxyType
from typing import Any

from django.db import models
from django.db.models import Q
from django.shortcuts import get_object_or_404
from django.utils import timezone

from millwright.card.values import Value as CardValue
from millwright.card.values import ValueCard
from millwright.keep.past import RENEWS
from millwright.line import LineSpec
from millwright.meaning import Meaning
from millwright.roles import Role
from millwright.route import state
from millwright.route.stages.as_found import LEFT_BEHIND
from millwright.route.stages.change_element import LIFE
from millwright.route.stand import NOTHING_LEFT
from millwright.route.stand import stand as derived
from millwright.route.steps import Answers, Terms
from millwright.scope import Scope, Task
from millwright.units import LengthUnit
from millwright.verdict import Verdict, is_unproven
from server.accounts.models import Membership, Site, User
from server.journal.digest import HASH
from server.plant.models import Line
from server.web.times import EARLIEST

from .means import left_behind, meant_by

NOTHING_READ: Mapping[str, Any] = MappingProxyType({})
WHOSE = "whose it is; name and role beside it stay as they were then. None where it came with a file, which knows names only"


def of_this_site(way: str = "") -> Q:
    """Jobs that were entered here, or taken over by a lead; ``way`` - to them, from another model."""
    return Q(**{f"{way}read_in__isnull": True}) | Q(**{f"{way}taken_over_at__isnull": False})


class JobQuerySet(models.QuerySet["Job"]):
    """Jobs a member may see, and which of them are closed."""

    def visible_to(self, member: Membership) -> "JobQuerySet":
        """Those of the member's site."""
        return self.filter(site=member.site)

    def locked(self, member: Membership, job_id: uuid.UUID) -> "Job":
        """A job the member may see, held until the transaction ends: its entries get their numbers one at a time.

        Raises `Http404` where there is none.
        """
        mine = self.visible_to(member).select_related("site")
        return get_object_or_404(mine.select_for_update(of=("self",), no_key=True), pk=job_id)

    def which_are(self, *, closed: bool) -> "JobQuerySet":
        """Those whose record has been signed, or that were cancelled; or those still in hand."""
        return self.filter(closed_at__isnull=not closed)

    def counted(self) -> "JobQuerySet":
        """Those whose record has been signed, and which something may go by: entered here, or taken over by a lead."""
        return self.filter(of_this_site(), closed_at__isnull=False, cancelled_by="")

    def papers(self) -> "JobQuerySet":
        """Those from a file that nobody has taken over: to be read, and nothing goes by them."""
        return self.filter(read_in__isnull=False, taken_over_at__isnull=True)


class Job(models.Model):
    """One job on a line, with line and value card as they were when it was started."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    site = models.ForeignKey(Site, on_delete=models.PROTECT, related_name="jobs")
    line = models.ForeignKey(Line, on_delete=models.PROTECT, related_name="jobs")
    number = models.PositiveIntegerField()
    title = models.CharField(max_length=120)
    scope = models.CharField(max_length=30, default=Scope.FIT.value)
    procedure = models.PositiveSmallIntegerField(default=1, help_text="version of the family's procedure it is done by")
    edition = models.PositiveSmallIntegerField(default=1, help_text="of the steps that jobs of every family have")
    tasks = models.JSONField(default=list, help_text="millwright.route.steps.Task: what a job of upkeep is there to do")
    unit = models.CharField(max_length=2, default="mm", help_text="of its record, on the page and on paper")
    spec = models.JSONField(help_text="millwright.line.LineSpec at the start of the job")
    card = models.JSONField(help_text="millwright.card.values.ValueCard at the start of the job")
    started_by = models.CharField(max_length=150)
    started_at = models.DateTimeField()
    closed_at = models.DateTimeField(null=True, help_text="when its record was signed and closed, or it was cancelled")
    cancelled_by = models.CharField(max_length=150, blank=True)
    cancelled_because = models.CharField(max_length=400, blank=True)
    read_in = models.JSONField(null=True, help_text="of a job from a file: server.reports.exchange says what")
    taken_over_at = models.DateTimeField(null=True, help_text="of a job from a file: since when it counts here")
    start = models.CharField(max_length=64, default="", help_text="hash of what it was started with: the first link")
    last_number = models.PositiveIntegerField(default=0, help_text="of what was entered and signed; kept by the database")
    head = models.CharField(max_length=64, default="", help_text="and its hash: a cut tail shows")
    head_at = models.DateTimeField(null=True, help_text="and when that was")

    CHANGES_LATER = frozenset(
        {"closed_at", "cancelled_by", "cancelled_because", "taken_over_at", "last_number", "head", "head_at"}
    )

    objects = JobQuerySet.as_manager()

    class Meta:
        ordering = ["-number"]
        constraints = [
            models.UniqueConstraint(fields=["site", "number"], name="job_number_once_per_site"),
            models.CheckConstraint(condition=Q(unit__in=("mm", "in")), name="job_unit_known"),
            models.CheckConstraint(condition=Q(scope__in=[s.value for s in Scope]), name="job_scope_known"),
            models.UniqueConstraint(fields=["line"], condition=Q(closed_at__isnull=True), name="job_open_once_a_line"),
            models.CheckConstraint(condition=Q(started_at__gte=EARLIEST), name="job_of_these_days"),
        ]

    def __str__(self) -> str:
        return f"Job {self.number}"

    @property
    def closed(self) -> bool:
        """Its record has been signed, or it was cancelled."""
        return self.closed_at is not None

    @property
    def signed(self) -> bool:
        """Its record has been signed and closed."""
        return self.closed and not self.cancelled_by

    @property
    def is_paper(self) -> bool:
        """It came with a file, and no lead has taken it over: it is read, and nothing goes by it."""
        return self.read_in is not None and self.taken_over_at is None

    @property
    def sheet(self) -> LengthUnit:
        """The unit of its record."""
        return "in" if self.unit == "in" else "mm"

    @cached_property
    def as_spec(self) -> LineSpec:
        """The line as the core knows it."""
        return LineSpec.model_validate(self.spec)

    @property
    def terms(self) -> Terms:
        """What it was started under."""
        return Terms(procedure=self.procedure, edition=self.edition, tasks=tuple(Task(task) for task in self.tasks))

    @cached_property
    def as_card(self) -> ValueCard:
        """What stood on the card when it was started, as the core knows it."""
        return {key: CardValue.model_validate(value) for key, value in self.card.items()}

    def stand(self, now: datetime | None = None) -> state.RouteNow:
        """Where this job stands: derived from its entries and signatures, never stored."""
        loaded = "entries" in getattr(self, "_prefetched_objects_cache", {})
        entries = [entry.as_core for entry in self.entries.all()] if loaded else self.entries.for_route()
        return self.stand_after(entries, now=now)

    def stand_after(
        self,
        entries: list[state.Entry],
        as_left: Mapping[str, Answers] = NOTHING_LEFT,
        now: datetime | None = None,
        signatures: Sequence[state.Signature] | None = None,
    ) -> state.RouteNow:
        """`stand`, with what is loaded already, and what to compare it with; ``now`` as the server has it."""
        signed = [one.as_core for one in self.signatures.all()] if signatures is None else signatures
        return derived(
            self.as_spec,
            self.as_card,
            entries,
            signed,
            Scope(self.scope),
            as_left,
            terms=self.terms,
            now=now or timezone.now(),
            proof_hours=self.site.proof_hours,
        )

    def as_left(self) -> dict[str, Answers]:
        """The last readings that closed jobs of this line left behind, by what they are kept under.

        A query or two; none where a new coupling is fitted, which no older reading is compared with.
        """
        if self.scope == Scope.FIT:
            return {}
        life = {LIFE: found} if self.scope == Scope.ELEMENT and (found := self._life()) else {}
        before = Job.objects.counted().filter(line=self.line_id, number__lt=self.number)
        wanted = left_behind() | Q(kind=state.EntryKind.SLIP)
        rows = list(Entry.objects.filter(wanted, job__in=before).order_by("job__number", "number").defer("result", "typed"))
        slips = {e.inputs["entry"] for e in rows if e.kind == state.EntryKind.SLIP}
        read = (e for e in rows if str(e.pk) not in slips)
        left = {one.of.value: e.inputs for e in read for one in e.means if one.when in LEFT_BEHIND.get(one.of, ())}
        return {**life, **left}

    def _life(self) -> dict[str, Any]:
        """Since when the element that is in has run, and what its mark showed last; empty where no job put it in."""
        put_in = Job.objects.counted().filter(line=self.line_id, number__lt=self.number, scope__in=[s.value for s in RENEWS])
        job = put_in.order_by("-closed_at").first()
        if job is None or job.closed_at is None:
            return {}
        marks = self.line.looks.counting().filter(wear_mm__isnull=False, at__gte=job.closed_at, at__lte=self.started_at)
        mark = marks.order_by("-at").first()
        return {
            "since": job.closed_at.date().isoformat(),
            "days": (self.started_at - job.closed_at).days,
            "job": job.number,
            **({"mark_mm": mark.wear_mm, "read": mark.at.date().isoformat()} if mark else {}),
        }


class EntryQuerySet(models.QuerySet["Entry"]):
    """Entries, and what of them the route looks at."""

    def slips(self) -> list[str]:
        """The ids of what was taken out as a slip."""
        return list(self.filter(kind=state.EntryKind.SLIP).values_list("inputs__entry", flat=True))

    def for_route(self, *, also: uuid.UUID | None = None) -> list[state.Entry]:
        """As the core knows them, in order, without what no route ever asks: readings that a later one of the same
        step has superseded, unless they wrote into the ledger; and results in full. Two queries.

        ``also`` - the id of an entry wanted whether superseded or not
        """
        rows = list(self.order_by("number").values(*OF_A_ROUTE))
        slips = {row["inputs__entry"] for row in rows if row["kind"] == state.EntryKind.SLIP}
        readings = [row for row in rows if row["kind"] == state.EntryKind.READING]
        latest = {row["step"]: row["id"] for row in readings if str(row["id"]) not in slips}
        wanted = {also, *latest.values(), *(row["id"] for row in readings if row["asked__ledger"])}
        left_out = [row["id"] for row in readings if row["id"] not in wanted]
        inputs = dict((self.exclude(pk__in=left_out) if left_out else self).order_by().values_list("id", "inputs"))
        return [_for_route(row, inputs[row["id"]]) for row in rows if row["id"] in inputs]


OF_A_ROUTE = (
    "id", "number", "step", "kind", "by", "role", "at", "result__verdict", "result__proven", "result__as_it_is",
    "asked__ledger", "inputs__entry",
)  # fmt: skip


def _for_route(row: Mapping[str, Any], inputs: Mapping[str, Any]) -> state.Entry:
    verdict = row["result__verdict"]
    said = {"verdict": verdict, "proven": row["result__proven"], "as_it_is": row["result__as_it_is"]}
    return state.Entry(
        id=str(row["id"]),
        number=row["number"],
        step=row["step"],
        kind=state.EntryKind(row["kind"]),
        inputs=inputs,
        verdict=Verdict(verdict) if verdict else None,
        by=row["by"],
        role=Role(row["role"]),
        at=row["at"],
        unproven=verdict is not None and is_unproven(said),
        ledger=row["asked__ledger"] or (),
    )


class Entry(models.Model):
    """One appended fact. Its id is made by the client, so that a retry never doubles it."""

    id = models.UUIDField(primary_key=True)
    job = models.ForeignKey(Job, on_delete=models.PROTECT, related_name="entries")
    number = models.PositiveIntegerField()
    step = models.CharField(max_length=60)
    kind = models.CharField(max_length=10)
    inputs = models.JSONField()
    typed = models.JSONField(default=dict, help_text="path into the inputs → what was typed there")
    asked = models.JSONField(default=dict, help_text="millwright.route.asked: what it answered, as it was asked then")
    result = models.JSONField(null=True)
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
            models.CheckConstraint(condition=Q(kind__in=[k.value for k in state.EntryKind]), name="entry_kind_known"),
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
        return meant_by(self.step, self.asked.get("means"), self.inputs) if self.kind == state.EntryKind.READING else ()

    @property
    def readings(self) -> Mapping[str, Any]:
        """What a bench was given; empty of a sheet, whose answers may have the name of anything."""
        return self.inputs if self.bench not in (None, "sheet") else NOTHING_READ

    @property
    def as_core(self) -> state.Entry:
        """The entry as the core knows it."""
        result: dict[str, Any] = self.result or {}
        return state.Entry(
            id=str(self.id),
            number=self.number,
            step=self.step,
            kind=state.EntryKind(self.kind),
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
            models.CheckConstraint(condition=Q(kind__in=[k.value for k in state.SignatureKind]), name="signature_kind_known"),
            models.CheckConstraint(
                condition=Q(kind__in=("hold", "take over")) | ~Q(reason=""), name="signature_authorised_with_a_reason"
            ),
            models.CheckConstraint(condition=Q(chain__regex=HASH), name="signature_chain_whole"),
            models.CheckConstraint(condition=Q(at__gte=EARLIEST), name="signature_of_these_days"),
        ]

    def __str__(self) -> str:
        return f"{self.job}, {self.number}: {self.kind} {self.step}"

    @property
    def as_core(self) -> state.Signature:
        """The signature as the core knows it."""
        return state.Signature(
            id=str(self.id),
            number=self.number,
            kind=state.SignatureKind(self.kind),
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
