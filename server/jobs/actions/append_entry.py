"""Append an entry to a job."""

from collections.abc import Mapping
from datetime import datetime
from typing import Any
from uuid import UUID

from django.db import transaction

from millwright.errors import Problem, UnusableInput, refuse_if_any
from millwright.route.entry import OutOfTurn, check
from millwright.route.state import EntryKind
from millwright.units import LengthUnit, read_length_mm
from server.accounts.models import Membership

from ..models import Entry, Job

TYPED_AGREES_MM = 1e-6


@transaction.atomic
def append_entry(
    job: Job,
    *,
    id: UUID,
    by: Membership,
    step: str,
    kind: EntryKind,
    inputs: Mapping[str, Any],
    typed: Mapping[str, str],
    unit: LengthUnit,
    now: datetime,
) -> Entry:
    """The entry, evaluated by the core and appended. The same id sent again gives the entry that stands.

    Raises `OutOfTurn` where the step is blocked or the job is closed, `UnusableInput` for bad inputs.
    """
    job = Job.objects.select_for_update().get(pk=job.pk)
    stands = Entry.objects.filter(pk=id).first()
    if stands is not None:
        if stands.job_id != job.pk or stands.step != step or stands.kind != kind:
            raise OutOfTurn("Something else was already entered under this number.")
        return stands
    route = job.stand()
    if route.closed and kind is not EntryKind.NOTE:
        raise OutOfTurn("This record is signed and closed. Start a new job; a note may still be added.")
    refuse_if_any(_typed_problems(inputs, typed, unit))
    checked = check(route, step, kind, inputs, by.as_role)
    job.last_number += 1
    job.save(update_fields=["last_number"])
    return Entry.objects.create(
        id=id,
        job=job,
        number=job.last_number,
        step=step,
        kind=kind,
        inputs=checked.inputs,
        typed=typed,
        result=checked.result,
        by=by.user.shown_name,
        role=by.role,
        at=now,
    )


def _typed_problems(inputs: Mapping[str, Any], typed: Mapping[str, str], unit: LengthUnit) -> list[Problem]:
    """What was typed must read as the value beside it: the record shows both."""
    found = []
    for path, text in typed.items():
        value, read = _at(inputs, path), read_length_mm(text, unit)
        if read is None or not isinstance(value, int | float) or abs(value - read) > TYPED_AGREES_MM:
            found.append(Problem(path, f"“{text[:40]}” was typed; that is not the value sent with it."))
    return found


def _at(inputs: Any, path: str) -> Any:
    for step in path.split("."):
        try:
            inputs = inputs[int(step)] if isinstance(inputs, list) else inputs[step]
        except (KeyError, IndexError, ValueError, TypeError):
            raise UnusableInput(Problem(path, "Nothing was entered at this place.")) from None
    return inputs
