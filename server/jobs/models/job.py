"""A job: a line and its value card as they were when it was started."""

import uuid
from collections.abc import Mapping, Sequence
from datetime import datetime
from functools import cached_property

from django.db import models
from django.db.models import Q
from django.shortcuts import get_object_or_404
from django.utils import timezone

from millwright.card.values import Value as CardValue
from millwright.card.values import ValueCard
from millwright.job import entry as recorded
from millwright.job import now as state
from millwright.job.stand import NOTHING_LEFT
from millwright.job.stand import stand as derived
from millwright.line import LineSpec
from millwright.plan.steps import Answers, Terms
from millwright.scope import Scope, Task
from millwright.units import LengthUnit
from server.accounts.models import Membership, Site
from server.plant.models import Line
from server.web.times import EARLIEST


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
        job: Job = get_object_or_404(self.visible_to(member).select_for_update(no_key=True), pk=job_id)
        job.site = member.site
        return job

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
    tasks = models.JSONField(default=list, help_text="what a job of upkeep is there to do")
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
        return self.stand_after([entry.as_core for entry in self.entries.all()], now=now)

    def stand_after(
        self,
        entries: Sequence[recorded.Entry],
        as_left: Mapping[str, Answers] = NOTHING_LEFT,
        now: datetime | None = None,
        signatures: Sequence[recorded.Signature] | None = None,
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
