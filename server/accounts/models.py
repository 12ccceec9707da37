"""Sites, users, memberships, and failed sign-ins."""

import uuid

from django.contrib.auth.models import AbstractUser
from django.db import models

from millwright.roles import Role


class Site(models.Model):
    """A plant. Everything a user sees belongs to one."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4)
    name = models.CharField(max_length=80, unique=True)
    proof_hours = models.PositiveSmallIntegerField(
        null=True, help_text="how long a proof of the dead state holds by this site's rule; none where only breaks count"
    )

    lock_minutes = models.PositiveSmallIntegerField(
        null=True, default=30, help_text="a device nobody used for so long asks who is there; none where it never does"
    )

    journal_number = models.PositiveIntegerField(default=0, help_text="the last line of its journal")
    journal_head = models.CharField(max_length=64, default="0" * 64, help_text="and the hash of that line")

    def __str__(self) -> str:
        return self.name


class User(AbstractUser):
    """Somebody who signs in."""

    @property
    def shown_name(self) -> str:
        """How this person is named in records."""
        return self.get_full_name() or self.username


class Membership(models.Model):
    """What a user is at a site."""

    class Roles(models.TextChoices):
        """The core's roles, in the database's words."""

        APPRENTICE = Role.APPRENTICE.value
        MILLWRIGHT = Role.MILLWRIGHT.value
        LEAD = Role.LEAD.value

    user = models.ForeignKey(User, on_delete=models.CASCADE, related_name="memberships")
    site = models.ForeignKey(Site, on_delete=models.CASCADE, related_name="memberships")
    role = models.CharField(max_length=12, choices=Roles.choices)

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["user", "site"], name="membership_once_per_site"),
            models.CheckConstraint(condition=models.Q(role__in=[r.value for r in Role]), name="membership_role_known"),
        ]

    def __str__(self) -> str:
        return f"{self.user}, {self.role} at {self.site}"

    @property
    def as_role(self) -> Role:
        """The role as the core knows it."""
        return Role(self.role)


class FailedSignIn(models.Model):
    """A wrong password, kept to slow down guessing."""

    username = models.CharField(max_length=150)
    address = models.GenericIPAddressField(null=True)
    session = models.CharField(max_length=40, default="", help_text="of whoever was to sign; empty where it was a sign-in")
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        indexes = [
            models.Index(fields=["username", "at"]),
            models.Index(fields=["address", "at"]),
            models.Index(fields=["session", "at"]),
        ]

    def __str__(self) -> str:
        return f"{self.username} at {self.at:%Y-%m-%d %H:%M}"
