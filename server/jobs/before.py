"""What the jobs before this one left on its line, to compare with."""

from typing import Any

from django.db.models import Q

from millwright.job.entry import EntryKind
from millwright.keep.past import RENEWS
from millwright.plan.stages.as_found import LEFT_BEHIND
from millwright.plan.stages.change_element import LIFE
from millwright.plan.steps import Answers
from millwright.scope import Scope

from .means import left_behind
from .models import Entry, Job


def left_before(job: Job) -> dict[str, Answers]:
    """The last readings that closed jobs of this line left behind, by what they are kept under.

    A query or two; none where a new coupling is fitted, which no older reading is compared with.
    """
    if job.scope == Scope.FIT:
        return {}
    life = {LIFE: found} if job.scope == Scope.ELEMENT and (found := _life(job)) else {}
    before = Job.objects.counted().filter(line=job.line_id, number__lt=job.number)
    wanted = left_behind() | Q(kind=EntryKind.SLIP)
    rows = list(Entry.objects.filter(wanted, job__in=before).order_by("job__number", "number").defer("result", "typed"))
    slips = {e.inputs["entry"] for e in rows if e.kind == EntryKind.SLIP}
    read = (e for e in rows if str(e.pk) not in slips)
    left = {one.of.value: e.inputs for e in read for one in e.means if one.when in LEFT_BEHIND.get(one.of, ())}
    return {**life, **left}


def _life(job: Job) -> dict[str, Any]:
    """Since when the element that is in has run, and what its mark showed last; empty where no job put it in."""
    put_in = Job.objects.counted().filter(line=job.line_id, number__lt=job.number, scope__in=[s.value for s in RENEWS])
    fitted = put_in.order_by("-closed_at").first()
    if fitted is None or fitted.closed_at is None:
        return {}
    marks = job.line.looks.counting().filter(wear_mm__isnull=False, at__gte=fitted.closed_at, at__lte=job.started_at)
    mark = marks.order_by("-at").first()
    return {
        "since": fitted.closed_at.date().isoformat(),
        "days": (job.started_at - fitted.closed_at).days,
        "job": fitted.number,
        **({"mark_mm": mark.wear_mm, "read": mark.at.date().isoformat()} if mark else {}),
    }
