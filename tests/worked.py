"""A job of any family, worked on so far as a test wants it: in memory first, then entered as its people would."""

from uuid import UUID, uuid4

from django.utils import timezone

from millwright.job.entry import Entry, Signature
from millwright.tests.work import SECOND, Work
from server.accounts.models import Membership, Site
from server.jobs.actions.append_entry import Sent, append_entry
from server.jobs.actions.sign import sign
from server.jobs.actions.start_job import start_job
from server.jobs.models import Job
from server.plant.models import Line


def registered(name: str, work: Work) -> Line:
    """The line of such a job, registered under that name, with its card."""
    return Line.objects.create(
        site=Site.objects.get(name="Quillmere Maltings"),
        name=name,
        spec=work.line.model_dump(mode="json"),
        values={key: value.model_dump(mode="json") for key, value in work.card.items()},
    )


def worked(name: str, work: Work) -> Job:
    """The job in the database, on a line of that name made for it."""
    line = registered(name, work)
    lead, millwright = (Membership.objects.get(site=line.site, user__username=who) for who in ("lead", "millwright"))
    job = start_job(line, by=lead, title="Worked so far", now=timezone.now(), scope=work.scope)
    ids: dict[str, UUID] = {}
    made: list[Entry | Signature] = [*work.entries, *work.signatures]
    for item in sorted(made, key=lambda one: one.number):
        if isinstance(item, Entry):
            ids[item.id] = uuid4()
            sent = Sent(id=ids[item.id], step=item.step, kind=item.kind, inputs=item.inputs, as_it_is=not item.unproven)
            by = lead if item.by == SECOND else millwright
            append_entry(job.pk, sent, by=by, now=timezone.now())
        else:
            covers = ids[item.entry] if item.entry else None
            sign(job.pk, id=uuid4(), by=lead, step=item.step, kind=item.kind, entry=covers, reason="why", now=timezone.now())
    return job
