"""Coupling sizes as the site's papers give them."""

import uuid

from django.db import models

from millwright.card.catalogue_file import CatalogueSize
from server.accounts.models import Site
from server.journal.digest import digest


class CouplingSize(models.Model):
    """One size of one series, with its value card."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    site = models.ForeignKey(Site, on_delete=models.CASCADE, related_name="coupling_sizes")
    family = models.CharField(max_length=40)
    series = models.CharField(max_length=60)
    size = models.CharField(max_length=40)
    values = models.JSONField(default=dict)

    class Meta:
        ordering = ["series", "size"]
        constraints = [models.UniqueConstraint(fields=["site", "series", "size"], name="coupling_size_once_per_site")]

    def __str__(self) -> str:
        return f"{self.series} {self.size}"

    @property
    def digest(self) -> str:
        """Hash of the size as it stands."""
        return digest({"family": self.family, "series": self.series, "size": self.size, "values": self.values})

    @property
    def as_core(self) -> CatalogueSize:
        """The size as the core knows it, whatever the age of its card."""
        given = {"family": self.family, "series": self.series, "size": self.size, "values": self.values}
        return CatalogueSize.model_validate(given)


class CatalogueChange(models.Model):
    """What somebody changed on a size of the catalogue. The database refuses to change it."""

    of = models.ForeignKey(CouplingSize, on_delete=models.CASCADE, related_name="changes")
    changes = models.JSONField(help_text="a list of what, was, now; in words. Empty: the size was put there")
    stands = models.CharField(max_length=64, default="", help_text="hash of the size as it stands since")
    because = models.CharField(max_length=400, blank=True)
    by = models.CharField(max_length=150)
    role = models.CharField(max_length=12)
    at = models.DateTimeField()

    class Meta:
        ordering = ["-id"]

    def __str__(self) -> str:
        return f"{self.of}, {self.at:%Y-%m-%d}"


class RequestQuerySet(models.QuerySet["ValueRequest"]):
    """Requests, and which of them wait."""

    def waiting(self) -> "RequestQuerySet":
        """Those the lead has not decided on."""
        return self.filter(accepted__isnull=True)


class ValueRequest(models.Model):
    """Values that stand on a line or in the catalogue, and that somebody asks the lead to change."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    site = models.ForeignKey(Site, on_delete=models.CASCADE, related_name="value_requests")
    line = models.UUIDField(null=True, db_index=True, help_text="the line they stand on; none where it is a size")
    size = models.ForeignKey(CouplingSize, null=True, on_delete=models.CASCADE, related_name="requests")
    values = models.JSONField(help_text="key of the card → the value as it is to be; null where it is to go")
    changes = models.JSONField(help_text="a list of what, was, now; in words")
    reason = models.CharField(max_length=400)
    by = models.CharField(max_length=150)
    role = models.CharField(max_length=12)
    at = models.DateTimeField()
    accepted = models.BooleanField(null=True)
    decided_by = models.CharField(max_length=150, blank=True)
    decided_at = models.DateTimeField(null=True)

    objects = RequestQuerySet.as_manager()

    class Meta:
        ordering = ["at"]
        constraints = [
            models.CheckConstraint(condition=~models.Q(reason=""), name="value_request_with_a_reason"),
            models.CheckConstraint(
                condition=models.Q(line__isnull=True) ^ models.Q(size__isnull=True), name="value_request_of_one_thing"
            ),
        ]

    def __str__(self) -> str:
        return f"{self.by}, {self.at:%Y-%m-%d}"
