"""Machine lines: name and, as the core's `LineSpec`, everything the work needs to know."""

import uuid
from typing import cast

from django.db import models
from django.db.models import Q

from millwright.card.values import Value, ValueCard, as_today
from millwright.keep.past import Leaks, Look, Noise
from millwright.line import LineSpec
from server.accounts.models import Membership, Site, User
from server.journal.digest import digest
from server.web.times import EARLIEST

NOT_PLACED = 1_000_000  # behind every line that has its place


class LineQuerySet(models.QuerySet["Line"]):
    """Lines a member may see."""

    def visible_to(self, member: Membership) -> "LineQuerySet":
        """Those of the member's site."""
        return self.filter(site=member.site)


class Line(models.Model):
    """A driver, a coupling and a driven machine."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    site = models.ForeignKey(Site, on_delete=models.CASCADE, related_name="lines")
    name = models.CharField(max_length=80)
    spec = models.JSONField(help_text="millwright.line.LineSpec")
    values = models.JSONField(default=dict, help_text="millwright.card.values.ValueCard")
    version = models.PositiveIntegerField(default=1, help_text="counts saves: two windows do not overwrite each other")
    walk = models.PositiveIntegerField(
        default=NOT_PLACED, help_text="its place on the round through the hall; lines of one place go by name"
    )
    changed_at = models.DateTimeField(auto_now=True)

    objects = LineQuerySet.as_manager()

    class Meta:
        ordering = ["name"]
        constraints = [models.UniqueConstraint(fields=["site", "name"], name="line_name_once_per_site")]

    def __str__(self) -> str:
        return self.name

    @property
    def as_spec(self) -> LineSpec:
        """The specification as the core knows it."""
        return LineSpec.model_validate(self.spec)

    @property
    def digest(self) -> str:
        """Hash of what it is and of its card, as they stand."""
        return digest({"name": self.name, "spec": self.spec, "values": self.values})

    @property
    def card(self) -> ValueCard:
        """The values of this line's coupling and feet, with their sources."""
        return as_today({key: Value.model_validate(value) for key, value in self.values.items()})


class LookQuerySet(models.QuerySet["LineLook"]):
    """Looks, and which of them count."""

    def counting(self) -> "LookQuerySet":
        """Those that nobody took out as a slip, and that no calendar contradicts."""
        return self.filter(slip__isnull=True, at__gte=EARLIEST)


class LineLook(models.Model):
    """What a round read of a line while it ran. Its id is made by the device; the database refuses to change or delete it."""

    id = models.UUIDField(primary_key=True)
    line = models.ForeignKey(Line, on_delete=models.PROTECT, related_name="looks")
    at = models.DateTimeField(help_text="when it was read")
    wear_mm = models.FloatField(null=True)
    leaks = models.CharField(max_length=20, blank=True)
    noise = models.CharField(max_length=20, blank=True)
    temperature_c = models.FloatField(null=True)
    vibration_mm_per_s = models.FloatField(null=True)
    hours = models.FloatField(null=True, help_text="of the hour meter")
    note = models.CharField(max_length=400, blank=True)
    typed = models.JSONField(default=dict)
    person = models.ForeignKey(User, null=True, on_delete=models.PROTECT, related_name="+")
    by = models.CharField(max_length=150)
    role = models.CharField(max_length=12)
    entered_at = models.DateTimeField()

    objects = LookQuerySet.as_manager()

    class Meta:
        ordering = ["at", "entered_at"]
        indexes = [models.Index(fields=["line", "-at"], name="look_latest_of_line")]
        constraints = [models.CheckConstraint(condition=Q(at__gte=EARLIEST), name="look_of_these_days")]

    def __str__(self) -> str:
        return f"{self.line}, {self.at:%Y-%m-%d}"

    @property
    def as_core(self) -> Look:
        """The look as the core knows it."""
        return Look(
            at=self.at,
            wear_mm=self.wear_mm,
            leaks=cast(Leaks | None, self.leaks or None),
            noise=cast(Noise | None, self.noise or None),
            temperature_c=self.temperature_c,
            vibration_mm_per_s=self.vibration_mm_per_s,
            hours=self.hours,
            note=self.note,
            by=self.by,
        )


class LookSlip(models.Model):
    """A look that was a slip: it stays, struck through, and counts for nothing. Never changed."""

    look = models.OneToOneField(LineLook, primary_key=True, on_delete=models.PROTECT, related_name="slip")
    because = models.CharField(max_length=400)
    person = models.ForeignKey(User, null=True, on_delete=models.PROTECT, related_name="+")
    by = models.CharField(max_length=150)
    role = models.CharField(max_length=12)
    at = models.DateTimeField()

    class Meta:
        constraints = [models.CheckConstraint(condition=~Q(because=""), name="look_slip_with_a_reason")]

    def __str__(self) -> str:
        return f"{self.look}, a slip"


class LineChange(models.Model):
    """What somebody changed on a line: machines, coupling, values. The database refuses to change or delete it."""

    line = models.ForeignKey(Line, on_delete=models.CASCADE, related_name="changes")
    version = models.PositiveIntegerField()
    changes = models.JSONField(help_text="a list of what, was, now; in words")
    stands = models.CharField(max_length=64, default="", help_text="hash of the line as it stands since")
    because = models.CharField(max_length=400, blank=True)
    by = models.CharField(max_length=150)
    role = models.CharField(max_length=12)
    at = models.DateTimeField()

    class Meta:
        ordering = ["-version"]
        constraints = [models.UniqueConstraint(fields=["line", "version"], name="line_change_once_per_version")]

    def __str__(self) -> str:
        return f"{self.line}, version {self.version}"
