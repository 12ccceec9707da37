"""Start a job on a line."""

from collections.abc import Sequence
from datetime import datetime
from typing import Any

from django.db import IntegrityError, transaction
from django.db.models import Max

from millwright.errors import Problem, UnusableInput, refuse_if_any
from millwright.job.new_entry import OutOfTurn
from millwright.line import LineSpec
from millwright.plan.compose import scopes_of
from millwright.plan.families.register import FAMILIES
from millwright.plan.steps import EDITION
from millwright.plan.upkeep import tasks_of
from millwright.roles import Deed
from millwright.scope import Scope, Task
from millwright.units import LengthUnit
from server.accounts.auth import require
from server.accounts.models import Membership, Site
from server.plant.models import Line

from ..chain import begun
from ..models import Job

WHY_NOT = {
    Scope.ALIGN: "This drive hangs on its shaft: there are no two machines to bring into line.",
    Scope.BACKSTOP: "No gear unit hangs on this line: register that it has a backstop, or is to get one.",
    Scope.ELEMENT: "Nothing of this coupling is changed with both hubs on: take it off and fit it.",
}


@transaction.atomic
def start_job(
    line: Line,
    *,
    by: Membership,
    title: str,
    now: datetime,
    scope: Scope = Scope.FIT,
    unit: LengthUnit = "mm",
    tasks: Sequence[Task] = (),
) -> Job:
    """A new job, with line and value card as they are now.

    ``tasks`` - of a job of upkeep, what it is there to do
    Raises `PermissionDenied` for an apprentice, `OutOfTurn` where the line has an open job, `UnusableInput` where
    there is nothing to be aligned, no element that can be changed with both hubs on, or nothing chosen to be done.
    """
    require(by, Deed.START_JOBS)
    Site.objects.select_for_update(no_key=True).get(pk=line.site_id)  # numbers are given out one at a time
    spec = line.as_spec
    if scope not in scopes_of(spec):
        raise UnusableInput(Problem("scope", WHY_NOT[scope]))
    refuse_if_any(_task_problems(spec, scope, tasks))
    open_job = Job.objects.which_are(closed=False).filter(line=line).first()
    if open_job is not None:
        raise OutOfTurn(f"Job {open_job.number} is open on this line. Close it first, or carry on with it.")
    last = Job.objects.filter(site=line.site).aggregate(last=Max("number"))["last"] or 0
    return _created(
        line,
        number=last + 1,
        title=title,
        scope=scope.value,
        unit=unit,
        spec=line.spec,
        card=line.values,
        procedure=FAMILIES[spec.coupling.family].newest,
        edition=EDITION,
        tasks=[task.value for task in Task if task in tasks],
        started_by=by.user.shown_name,
        started_at=now,
    )


def _task_problems(spec: LineSpec, scope: Scope, tasks: Sequence[Task]) -> list[Problem]:
    if scope is not Scope.UPKEEP:
        return [Problem("tasks", "Only a job of upkeep says what is due.")] if tasks else []
    if not tasks:
        return [Problem("tasks", "Choose what is done in this job.")]
    there = tasks_of(spec)
    return [Problem("tasks", f"There is nothing of this on this line: {task}.") for task in tasks if task not in there]


def _created(line: Line, **fields: Any) -> Job:
    """The database has the last word on one open job a line: two who start at once, or a file that is read in meanwhile."""
    try:
        with transaction.atomic():
            return begun(Job(site=line.site, line=line, **fields))
    except IntegrityError:
        raise OutOfTurn("Somebody started a job on this line just now. Carry on with it.") from None
