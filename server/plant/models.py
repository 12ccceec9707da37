"""Machine lines: name and, as the core's `LineSpec`, everything the work needs to know."""

import uuid

from django.db import models

from millwright.card.values import Value, ValueCard
from millwright.line import LineSpec
from server.accounts.models import Membership, Site


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
    def card(self) -> ValueCard:
        """The values of this line's coupling and feet, with their sources."""
        return {key: Value.model_validate(value) for key, value in self.values.items()}


class LineChange(models.Model):
    """What somebody changed on a line: machines, coupling, values. The database refuses to change or delete it."""

    line = models.ForeignKey(Line, on_delete=models.CASCADE, related_name="changes")
    version = models.PositiveIntegerField()
    changes = models.JSONField(help_text="a list of what, was, now; in words")
    by = models.CharField(max_length=150)
    role = models.CharField(max_length=12)
    at = models.DateTimeField()

    class Meta:
        ordering = ["-version"]
        constraints = [models.UniqueConstraint(fields=["line", "version"], name="line_change_once_per_version")]

    def __str__(self) -> str:
        return f"{self.line}, version {self.version}"
