"""The journal of a site: what was written beside its jobs, in its order. The database refuses to change or delete it."""

from django.db import models

from server.accounts.models import Site

from .digest import HASH


class JournalLine(models.Model):
    """Rows of one kind that were written together, each with its digest, chained to the line before."""

    site = models.ForeignKey(Site, on_delete=models.PROTECT, related_name="journal")
    number = models.PositiveIntegerField()
    what = models.CharField(max_length=40, help_text="app and model of the rows: plant.linelook")
    rows = models.JSONField(help_text="key of a row → its digest")
    chain = models.CharField(max_length=64, help_text="hash of this line and of the one before it")
    at = models.DateTimeField()

    class Meta:
        ordering = ["site", "number"]
        constraints = [
            models.UniqueConstraint(fields=["site", "number"], name="journal_number_once_a_site"),
            models.CheckConstraint(condition=models.Q(chain__regex=HASH), name="journal_chain_whole"),
        ]

    def __str__(self) -> str:
        return f"{self.what}, line {self.number}"
