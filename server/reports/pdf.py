"""The record on paper."""

from django.conf import settings
from django.template.loader import render_to_string
from django.utils import timezone

from server.jobs.models import Job

from .record import record_of


def record_pdf(job: Job) -> bytes:
    """The record of a job as a PDF, A4."""
    from weasyprint import HTML  # half a second to load: only where paper is wanted

    record = record_of(job)
    page = render_to_string("record.html", {"record": record, "printed_at": timezone.now()})
    return HTML(string=page, base_url=str(settings.ROOT)).write_pdf()
