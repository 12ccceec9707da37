"""What stands beside the past of a line and counts for nothing: papers nobody has taken over, jobs that cannot be read."""

import logging
from collections import defaultdict
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import TypeVar
from uuid import UUID

from millwright.job.asked import NOT_JUDGED_HERE
from millwright.keep.past import PastJob
from server.jobs.models import Job

logger = logging.getLogger(__name__)
T = TypeVar("T")
NOT_TAKEN_OVER = "Read in from a file, not taken over"


@dataclass(frozen=True, kw_only=True)
class Aside:
    """A job that is shown, and that nothing goes by; ``said`` - why."""

    id: str
    number: int
    title: str
    closed: datetime
    said: str


def papers_of(line_ids: Iterable[UUID]) -> dict[UUID, list[Aside]]:
    """Closed jobs from files that no lead has taken over, by line. One query."""
    found: dict[UUID, list[Aside]] = defaultdict(list)
    papers = Job.objects.papers().which_are(closed=True).filter(line__in=list(line_ids)).order_by("closed_at")
    for job in papers.only("number", "title", "line", "closed_at", "read_in"):
        said = f"Read in, {NOT_JUDGED_HERE}" if (job.read_in or {}).get("why_not_judged") else NOT_TAKEN_OVER
        closed = job.closed_at or job.started_at
        found[job.line_id].append(Aside(id=str(job.pk), number=job.number, title=job.title, closed=closed, said=said))
    return found


def sieved(jobs: Sequence[PastJob], work: Callable[[Sequence[PastJob]], T]) -> tuple[T, list[Aside]]:
    """What ``work`` makes of these jobs, without those that it falls over: one of them never takes more than itself."""
    try:
        return work(jobs), []
    except Exception:
        whole = [job for job in jobs if _reads(job, work)]
    broken = [job for job in jobs if job not in whole]
    return work(whole), [
        Aside(id=job.id, number=job.number, title=job.title, closed=job.closed, said=f"Job {job.number} cannot be read")
        for job in broken
    ]


def _reads(job: PastJob, work: Callable[[Sequence[PastJob]], T]) -> bool:
    try:
        work([job])
    except Exception:
        logger.exception("job %s cannot be read", job.number)
        return False
    return True
