"""Answers that are kept from everybody else until a second person has answered as well."""

from collections.abc import Mapping
from uuid import UUID

from django.http import Http404
from django.shortcuts import get_object_or_404

from millwright.job.entry import EntryKind
from millwright.job.now import RouteNow
from server.accounts.models import Membership

from .models import Entry, Job


def covered_from(route: RouteNow, reader: str) -> dict[str, str]:
    """By step, whose answer this reader is not to see until a second person has answered: one's own is never covered."""
    return {step: by for step, by in route.covered.items() if by != reader}


def is_covered(entry: Entry, covered: Mapping[str, str]) -> bool:
    """Its figures are kept from the reader."""
    return entry.kind == EntryKind.READING and entry.step in covered


def waits_for_the_second(route: RouteNow) -> str:
    """Why nobody has the job as a file yet: it would hold an answer that is covered. Empty where none is."""
    titles = [now.step.title for now in route.steps if now.step.key in route.covered]
    return f"No file before a second person has answered: {', '.join(titles)}." if titles else ""


def entry_seen_by(member: Membership, job_id: UUID, entry_id: UUID) -> Entry:
    """One entry of a job. Raises `Http404` where it is of another site, not there, or covered."""
    mine = Job.objects.visible_to(member).filter(pk=job_id)
    entry = get_object_or_404(Entry.objects.select_related("job__site", "job__line"), pk=entry_id, job__in=mine)
    if is_covered(entry, covered_from(entry.job.stand(), member.user.shown_name)):
        raise Http404
    return entry
