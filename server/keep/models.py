"""What was put off, the summary of what is due, calendar addresses, and exports that take their time."""

import uuid
from typing import Literal

from django.db import models
from django.db.models import Q

from server.accounts.models import Membership, Site, User
from server.plant.models import Line

Sort = Literal["day", "line", "kind"]


class Postponement(models.Model):
    """Something that is due, put off by the lead. The database refuses to change or delete it."""

    line = models.ForeignKey(Line, on_delete=models.PROTECT, related_name="postponements")
    kind = models.CharField(max_length=40, help_text="millwright.keep.due.DueKind")
    since = models.DateField(null=True, help_text="when it was done last: done again, this counts no more")
    of = models.DateField(help_text="the day it was due")
    until = models.DateField()
    reason = models.CharField(max_length=400)
    by = models.CharField(max_length=150)
    role = models.CharField(max_length=12)
    at = models.DateTimeField()

    class Meta:
        ordering = ["at", "pk"]
        constraints = [
            models.CheckConstraint(condition=~Q(reason=""), name="postponed_with_a_reason"),
            models.CheckConstraint(condition=Q(until__gt=models.F("of")), name="postponed_to_a_later_day"),
        ]

    def __str__(self) -> str:
        return f"{self.line}, {self.kind}: {self.until}"


class DueQuerySet(models.QuerySet["DueItem"]):
    """What is due that a member may see."""

    def visible_to(self, member: Membership) -> "DueQuerySet":
        """That of the member's site."""
        return self.filter(site=member.site)

    def sorted_by(self, by: Sort) -> "DueQuerySet":
        """By the day, what has none first; by the line; or by what it is."""
        day = models.F("on").asc(nulls_first=True)
        if by == "day":
            return self.order_by(day, "name", "kind")
        return self.order_by("name", day, "kind") if by == "line" else self.order_by("kind", day, "name")


class DueItem(models.Model):
    """One thing that is due: derived, kept so that the database can sort by it. `rebuild` makes it anew at any time."""

    site = models.ForeignKey(Site, on_delete=models.CASCADE, related_name="due_items")
    line = models.ForeignKey(Line, null=True, on_delete=models.CASCADE, related_name="due_items")
    name = models.CharField(max_length=140, help_text="of the line, or the instrument")
    kind = models.CharField(max_length=40)
    on = models.DateField(null=True)
    since = models.DateField(null=True)
    was = models.DateField(null=True, help_text="the day it was due before it was put off")
    why = models.JSONField(help_text="millwright.say.Words: what it follows from")
    task = models.CharField(max_length=40, blank=True)
    scope = models.CharField(max_length=30, blank=True)
    postponed_by = models.CharField(max_length=150, blank=True)
    postponed_because = models.CharField(max_length=400, blank=True)

    objects = DueQuerySet.as_manager()

    class Meta:
        indexes = [models.Index(fields=["site", "on"], name="due_next_of_site")]

    def __str__(self) -> str:
        return f"{self.name}, {self.kind}: {self.on}"


class CalendarFeed(models.Model):
    """A secret address that a calendar reads what is due from. Only the hash of the secret is kept."""

    site = models.ForeignKey(Site, on_delete=models.CASCADE, related_name="calendars")
    person = models.ForeignKey(
        User, null=True, on_delete=models.CASCADE, related_name="calendars", help_text="none: the site's"
    )
    digest = models.CharField(max_length=64, unique=True)
    made_by = models.CharField(max_length=150)
    made_at = models.DateTimeField()
    revoked_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["-made_at"]
        constraints = [
            models.UniqueConstraint(
                fields=["site", "person"],
                condition=Q(revoked_at__isnull=True),
                nulls_distinct=False,
                name="calendar_once_a_person",
            )
        ]

    def __str__(self) -> str:
        return f"calendar of {self.person or self.site}"


class Export(models.Model):
    """A long file that is written in the queue, with how far it has come."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    site = models.ForeignKey(Site, on_delete=models.CASCADE, related_name="exports")
    asked_by = models.ForeignKey(User, on_delete=models.CASCADE, related_name="+")
    asked_at = models.DateTimeField()
    lines = models.PositiveIntegerField(default=0, help_text="how many there are")
    done = models.PositiveIntegerField(default=0, help_text="how many are written")
    content = models.BinaryField(null=True)
    failed = models.CharField(max_length=400, blank=True)

    class Meta:
        ordering = ["-asked_at"]

    def __str__(self) -> str:
        return f"export, {self.done} of {self.lines}"
