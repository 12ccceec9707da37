"""Where an instrument was used: the answer of jobs to the register."""

from typing import Any

from django.db.models import Q
from django.dispatch import receiver

from millwright.meaning import Of
from server.accounts.models import Membership
from server.instruments.models import Instrument, Wrench
from server.instruments.signals import where_used

from .means import is_of
from .models import Entry, Job


@receiver(where_used, dispatch_uid="readings of open jobs")
def read_with(sender: type[Instrument], member: Membership, one: Instrument, **_: object) -> list[dict[str, Any]]:
    """Readings of open jobs that this instrument took."""
    open_jobs = Job.objects.visible_to(member).which_are(closed=False)
    taken = Q(asked__has_key="bench") | is_of(Of.CHECKED_AGAIN)  # laid out with the tools it has read nothing yet
    named = taken & Q(asked__instruments__contains=[{"kind": one.kind, "name": one.name}])
    if isinstance(one, Wrench):  # before the register was asked, a pull or a sheet said it alone
        named |= Q(inputs__wrench__name=one.name) | (Q(inputs__wrench=one.name) & is_of(Of.CHECKED_AGAIN))
    read = Entry.objects.filter(named, job__in=open_jobs, kind="reading").select_related("job__line")
    return [
        {"job": e.job_id, "number": e.job.number, "line": e.job.line.name, "step": e.asked.get("title", e.step)} for e in read
    ]
