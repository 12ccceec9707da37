"""What comes back on a site: which lines, for which reason, how often an alignment moved, how long the work took."""

from collections import Counter, defaultdict
from collections.abc import Sequence
from dataclasses import asdict
from datetime import timedelta
from statistics import mean
from typing import Any
from uuid import UUID

from django.http import HttpRequest
from django.utils import timezone
from ninja import Field, Router, Schema

from millwright.keep.past import PastJob
from millwright.keep.told import hours_by_stage, reason_of, wandered
from millwright.plan.stages.close_out import NOTHING_WRONG, REASONS
from millwright.plan.steps import Stage
from server.accounts.auth import member_of
from server.plant.models import Line

from ..aside import Aside, papers_of, sieved
from ..read import past_jobs

router = Router(tags=["reasons"])
DAYS_A_MONTH = 30.4375


class ReasonOut(Schema):
    """How many jobs came from a reason."""

    reason: str
    jobs: int
    lines: int


class ReturningOut(Schema):
    """A line that came back: more than one job that was not planned."""

    line_id: UUID
    name: str
    jobs: int
    reasons: dict[str, int]


class WanderedOut(Schema):
    """An alignment as one job left it and the next one found it."""

    line_id: UUID
    name: str
    left_in: int
    found_in: int
    by_mm: float
    plus_minus_mm: float | None
    moved: bool | None


class StageHoursOut(Schema):
    """Hours a stage took, on average over the jobs that had it."""

    stage: str
    hours: float
    jobs: int


class LeftOutOut(Schema):
    """A job that stands in none of these numbers, and why."""

    line_id: UUID
    name: str
    job: UUID
    number: int
    said: str


class ReasonsOut(Schema):
    """What a lead looks at on Monday."""

    months: int
    jobs: int
    left_out: list[LeftOutOut]
    unsaid: int = Field(description="jobs that do not say what they came from")
    reasons: list[ReasonOut]
    returning: list[ReturningOut]
    wandered: list[WanderedOut]
    hours: list[StageHoursOut]
    timed_jobs: int


@router.get("", response=ReasonsOut, operation_id="reasons_read", url_name="reasons")
def read(request: HttpRequest, months: int = 24) -> object:
    """The jobs of the last months together: charts and the numbers under them."""
    months = min(max(months, 1), 240)
    since = timezone.now() - timedelta(days=months * DAYS_A_MONTH)
    names = dict(Line.objects.visible_to(member_of(request)).values_list("pk", "name"))
    past, left_out = _readable(past_jobs(names, whole=True, since=since))
    for line, papers in papers_of(names).items():
        left_out[line] += [one for one in papers if one.closed >= since]
    why = {line: [reason_of(job) for job in jobs] for line, jobs in past.items() if jobs}
    timed = [hours for jobs in past.values() for job in jobs if (hours := hours_by_stage(job))]
    return {
        "months": months,
        "jobs": sum(len(jobs) for jobs in past.values()),
        "left_out": [
            {"line_id": line, "name": names[line], "job": one.id, "number": one.number, "said": one.said}
            for line, some in left_out.items()
            for one in some
        ],
        "unsaid": sum(not reason for reasons in why.values() for reason in reasons),
        "reasons": _reasons(why),
        "returning": _returning(why, names),
        "wandered": [
            {"line_id": line, "name": names[line], **asdict(one)} for line, jobs in past.items() for one in wandered(jobs)
        ],
        "hours": _hours(timed),
        "timed_jobs": len(timed),
    }


def _readable(past: dict[UUID, list[PastJob]]) -> tuple[dict[UUID, list[PastJob]], dict[UUID, list[Aside]]]:
    """The jobs that these numbers can be made of, and the others."""

    def of_one(jobs: Sequence[PastJob]) -> list[PastJob]:
        for job in jobs:
            reason_of(job), hours_by_stage(job)
        wandered(jobs)
        return list(jobs)

    found = {line: sieved(jobs, of_one) for line, jobs in past.items()}
    return {line: whole for line, (whole, _) in found.items()}, {line: broken for line, (_, broken) in found.items()}


def _reasons(why: dict[UUID, list[str]]) -> list[dict[str, Any]]:
    jobs = Counter(reason for reasons in why.values() for reason in reasons if reason)
    lines = Counter(reason for reasons in why.values() for reason in set(reasons) if reason)
    return [{"reason": one, "jobs": jobs[one], "lines": lines[one]} for one in REASONS if jobs[one]]


def _returning(why: dict[UUID, list[str]], names: dict[UUID, str]) -> list[dict[str, Any]]:
    found = []
    for line, reasons in why.items():
        unplanned = Counter(reason for reason in reasons if reason and reason != NOTHING_WRONG)
        if unplanned.total() > 1:
            found.append({"line_id": line, "name": names[line], "jobs": unplanned.total(), "reasons": dict(unplanned)})
    return sorted(found, key=lambda one: (-one["jobs"], one["name"]))


def _hours(timed: list[dict[str, float]]) -> list[dict[str, Any]]:
    by_stage: dict[str, list[float]] = defaultdict(list)
    for hours in timed:
        for stage, took in hours.items():
            by_stage[stage].append(took)
    order = [stage.value for stage in Stage]
    return [
        {"stage": stage, "hours": mean(by_stage[stage]), "jobs": len(by_stage[stage])}
        for stage in sorted(by_stage, key=lambda one: order.index(one) if one in order else len(order))
    ]
