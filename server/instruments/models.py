"""Instruments of a site: brackets, wrenches and whatever else measures; until when each counts, and which are withdrawn."""

from typing import Any, Self

from django.db import models
from django.db.models import F, Q
from django.utils import timezone

from server.accounts.models import Membership, Site
from server.journal.digest import digest_of_row


class InstrumentQuerySet(models.QuerySet[Any]):
    """Instruments a member may use."""

    def visible_to(self, member: Membership) -> Self:
        """Those of the member's site."""
        return self.filter(site=member.site)


class Instrument(models.Model):
    """What every instrument has: until when its calibration holds, and whether it was taken out of use."""

    kind: Any
    name: Any
    calibrated_until = models.DateField(null=True)
    withdrawn_at = models.DateTimeField(null=True)
    withdrawn_by = models.CharField(max_length=150, blank=True)
    withdrawn_because = models.CharField(max_length=400, blank=True)

    class Meta:
        abstract = True

    @property
    def called(self) -> str:
        """What it is called: with what it is, where its name does not say so."""
        said = self.kind.split()[-1] in self.name.lower()
        return str(self.name) if said else f"{self.kind.capitalize()} {self.name}"

    @property
    def withdrawn(self) -> bool:
        """Not to be used until it comes back calibrated."""
        return self.withdrawn_at is not None

    @property
    def usable(self) -> bool:
        """It is in use, and its calibration holds where it has one."""
        return not self.withdrawn and (self.calibrated_until is None or self.calibrated_until >= timezone.localdate())

    @property
    def digest(self) -> str:
        """Hash of all that is known of it."""
        return digest_of_row(self)


class Bracket(Instrument):
    """A dial on its bracket, its sag measured on a stiff pipe. Measured again it is written anew, with who and when."""

    kind = "bracket"

    class Positive(models.TextChoices):
        """Which way of the plunger the dial shows as plus."""

        IN = "in", "pushed in"
        OUT = "out", "let out"

    site = models.ForeignKey(Site, on_delete=models.PROTECT, related_name="brackets")
    name = models.CharField(max_length=60)
    sag_mm = models.FloatField(help_text="shown at 6 on a stiff pipe, zeroed at 12; 0 or less")
    positive = models.CharField(max_length=3, choices=Positive.choices, default=Positive.IN)
    measured_by = models.CharField(max_length=150)
    measured_at = models.DateTimeField()

    objects = InstrumentQuerySet.as_manager()

    class Meta:
        ordering = ["name"]
        constraints = [
            models.UniqueConstraint(fields=["site", "name"], name="bracket_name_once_per_site"),
            models.CheckConstraint(condition=Q(sag_mm__lte=0) & Q(sag_mm__gte=-10), name="bracket_hangs_down"),
        ]

    def __str__(self) -> str:
        return f"{self.name}, {self.sag_mm:g} mm"


class Wrench(Instrument):
    """A torque wrench: its range, its length, and until when it is calibrated. Written anew after each calibration."""

    kind = "torque wrench"

    site = models.ForeignKey(Site, on_delete=models.PROTECT, related_name="wrenches")
    name = models.CharField(max_length=60)
    min_nm = models.FloatField()
    max_nm = models.FloatField()
    length_mm = models.FloatField(null=True, help_text="from the drive square to the mark on the grip")
    kept_by = models.CharField(max_length=150)
    kept_at = models.DateTimeField()

    objects = InstrumentQuerySet.as_manager()

    class Meta:
        ordering = ["name"]
        constraints = [
            models.UniqueConstraint(fields=["site", "name"], name="wrench_name_once_per_site"),
            models.CheckConstraint(condition=Q(min_nm__gt=0) & Q(max_nm__gt=F("min_nm")), name="wrench_has_a_range"),
        ]

    def __str__(self) -> str:
        return f"{self.name}, {self.min_nm:g} to {self.max_nm:g} N·m"


class Gauge(Instrument):
    """A dial, a laser, a micrometer: known by its number, with its calibration. Written anew after each calibration."""

    class Kind(models.TextChoices):
        """What it is."""

        DIAL = "dial"
        LASER = "laser"
        MICROMETER = "micrometer"
        PYROMETER = "pyrometer"
        STROBE = "strobe"
        VIBRATION = "vibration meter"

    site = models.ForeignKey(Site, on_delete=models.PROTECT, related_name="gauges")
    kind = models.CharField(max_length=20, choices=Kind.choices)
    name = models.CharField(max_length=60)
    kept_by = models.CharField(max_length=150)
    kept_at = models.DateTimeField()

    objects = InstrumentQuerySet.as_manager()

    class Meta:
        ordering = ["kind", "name"]
        constraints = [
            models.UniqueConstraint(fields=["site", "kind", "name"], name="gauge_name_once_per_site_and_kind"),
            models.CheckConstraint(
                condition=Q(kind__in=["dial", "laser", "micrometer", "pyrometer", "strobe", "vibration meter"]),
                name="gauge_kind_known",
            ),
        ]

    def __str__(self) -> str:
        return f"{self.kind} {self.name}"


class InstrumentChange(models.Model):
    """What became of an instrument: kept, measured, calibrated, withdrawn. The database refuses to change or delete it."""

    site = models.ForeignKey(Site, on_delete=models.PROTECT, related_name="instrument_changes")
    kind = models.CharField(max_length=20)
    name = models.CharField(max_length=60)
    what = models.CharField(max_length=200)
    stands = models.CharField(max_length=64, help_text="hash of the instrument as it stands since")
    by = models.CharField(max_length=150)
    role = models.CharField(max_length=12)
    at = models.DateTimeField()

    class Meta:
        ordering = ["-id"]
        indexes = [models.Index(fields=["site", "kind", "name"], name="instrument_changes")]

    def __str__(self) -> str:
        return f"{self.kind} {self.name}, {self.at:%Y-%m-%d}"
