"""Records as they were issued: what a closed job said on the day it was closed."""

from django.db import models

from server.jobs.models import Job


class IssuedRecord(models.Model):
    """The record of a closed job as it was issued. The database refuses to change or delete it."""

    job = models.OneToOneField(Job, primary_key=True, on_delete=models.PROTECT, related_name="issued")
    data = models.JSONField(help_text="server.reports.record.RecordOut as it was")
    page = models.TextField(help_text="the page its PDF is made from")
    digest = models.CharField(max_length=64, help_text="SHA-256 of the data, written with sorted names and no spaces")
    last_number = models.PositiveIntegerField(help_text="the last entry or signature it covers")
    at = models.DateTimeField()

    def __str__(self) -> str:
        return f"{self.job}: {self.digest[:12]}"
