"""What a round reads, taken in: one look at a line at a time, or a file of them."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from datetime import UTC, datetime, timedelta
from uuid import UUID

from django.db import IntegrityError, transaction
from django.shortcuts import get_object_or_404

from millwright.errors import Problem, problem, refuse_if_any
from millwright.keep.marks import BY_STROBE_MM
from millwright.keep.past import Look
from millwright.keep.series import wear_of
from millwright.route.entry import OutOfTurn
from millwright.say import Figure
from millwright.units import LengthUnit, read_length_mm, read_temperature_c
from millwright.wearing.days import day
from server.accounts.models import Membership
from server.journal.write import write_down
from server.plant.models import Line, LineLook
from server.web.times import time_problems

from .read import kept_lines, past_jobs

TYPED_AGREES = 1e-6
GOES_BACK = "goes_back."  # in front of the path of a figure that is asked about, and taken once it is confirmed
LONGEST_AGO = timedelta(days=60)
READ_AS_TYPED = ("wear_mm", "temperature_c", "vibration_mm_per_s")
FIGURES = ("wear_mm", "temperature_c", "vibration_mm_per_s", "hours")


@dataclass(frozen=True, kw_only=True)
class Sent:
    """What a device sent of a round. ``confirmed``: the figures that go back are as they were read."""

    id: UUID
    line: UUID
    look: Look
    typed: Mapping[str, str] = field(default_factory=dict)
    unit: LengthUnit = "mm"
    confirmed: bool = False


@transaction.atomic
def take_look(sent: Sent, *, by: Membership, now: datetime) -> LineLook:
    """The look, appended. The same id sent again gives the one that stands.

    Raises `Http404` for a line the member may not see, `UnusableInput` where a figure is in the future, is not what was
    typed, or goes back without being confirmed.
    """
    line = get_object_or_404(Line.objects.visible_to(by).select_for_update(no_key=True), pk=sent.line)
    stands = LineLook.objects.filter(pk=sent.id).first()
    if stands is not None:
        if stands.line_id != line.pk:
            raise OutOfTurn("Something else was already entered under this number.")
        return stands
    look = sent.look
    refuse_if_any([*_time_problems(look.at, now), *_empty(look), *_typed_problems(sent)])
    if not sent.confirmed:
        refuse_if_any(_goes_back(line, look))
    return _created(line, sent.id, look, dict(sent.typed), by, now)


def _created(line: Line, id: UUID, look: Look, typed: dict[str, str], by: Membership, now: datetime) -> LineLook:
    row = row_of(line, id, look, by, now)
    row.typed = typed
    try:
        with transaction.atomic():
            row.save(force_insert=True)
    except IntegrityError:
        raise OutOfTurn("Something else was already entered under this number.") from None
    write_down(line.site_id, [row])
    return row


def row_of(line: Line, id: UUID, look: Look, by: Membership, now: datetime) -> LineLook:
    """A look as it is kept, not saved yet."""
    return LineLook(
        id=id,
        line=line,
        at=look.at,
        leaks=look.leaks or "",
        noise=look.noise or "",
        note=look.note.strip(),
        person=by.user,
        by=by.user.shown_name,
        role=by.role,
        entered_at=now,
        **{key: getattr(look, key) for key in FIGURES},
    )


def _time_problems(at: datetime, now: datetime) -> list[Problem]:
    if amiss := time_problems("at", at, now):
        return amiss
    if at < now - LONGEST_AGO:
        return [Problem("at", f"{day(at.date())} is long ago. Readings of another year are read in as a file.")]
    return []


def _empty(look: Look) -> list[Problem]:
    told = [getattr(look, key) for key in FIGURES] + [look.leaks, look.noise, look.note.strip() or None]
    return [] if any(one is not None for one in told) else [Problem("wear_mm", "Nothing was read. Enter what you saw.")]


def _typed_problems(sent: Sent) -> list[Problem]:
    """What was typed must read as the value beside it."""
    found = []
    for key, text in sent.typed.items():
        value = getattr(sent.look, key, None) if key in FIGURES else None
        read = read_temperature_c(text) if key == "temperature_c" else read_length_mm(text, sent.unit)
        if key in READ_AS_TYPED and (value is None or read is None or abs(read - value) > TYPED_AGREES):
            found.append(Problem(key, f"“{text[:40]}” was typed; that is not the value sent with it."))
    return found


def _goes_back(line: Line, look: Look) -> list[Problem]:
    """A mark does not grow back, and an hour meter does not run back: read again, or confirm."""
    kept = kept_lines([line])[line.pk]
    earlier = [one for one in kept.looks if one.at <= look.at]
    found = []
    metered = [one for one in earlier if one.hours is not None]
    if look.hours is not None and metered and (metered[-1].hours or 0) > look.hours:
        last = metered[-1]
        text = "The hour meter showed {was} on {day}. Read it again, or confirm that it is as read."
        found.append(problem(f"{GOES_BACK}hours", text, was=Figure(last.hours or 0, "h", 0), day=day(last.at.date())))
    if look.wear_mm is None:
        return found
    added = replace(kept, looks=tuple(sorted((*kept.looks, look), key=lambda one: one.at)))
    wear = wear_of(added, past_jobs([line.pk])[line.pk])
    points = [p for p in wear.points if p.at <= look.at]
    renewed = max((one.at for one in wear.breaks), default=None)
    same = [p for p in points if renewed is None or p.at.astimezone(UTC).replace(tzinfo=None) >= renewed]
    if len(same) > 1 and same[-2].value - same[-1].value > 2 * BY_STROBE_MM:
        text = (
            "Wear was {was} on {day} and is {now} now: it does not grow back. Read it again, or confirm that it is as read."
        )
        was, now = Figure(same[-2].value, "mm", 2), Figure(same[-1].value, "mm", 2)
        found.append(problem(f"{GOES_BACK}wear_mm", text, was=was, day=day(same[-2].at.date()), now=now))
    return found
