"""What a round reads, taken in: one look at a line at a time, or a file of them."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import UTC, datetime, timedelta
from itertools import pairwise
from uuid import UUID

from django.db import IntegrityError, transaction
from django.shortcuts import get_object_or_404
from ninja import Schema

from millwright.benches.wear.days import day
from millwright.errors import Problem, UnusableInput, problem, refuse_if_any
from millwright.job.new_entry import OutOfTurn
from millwright.keep.marks import BY_STROBE_MM
from millwright.keep.past import Look
from millwright.keep.points import Point
from millwright.keep.series import wear_of
from millwright.roles import Deed
from millwright.say import Figure
from millwright.units import LengthUnit, read_length_mm, read_temperature_c
from server.accounts.models import Membership
from server.journal.write import write_down
from server.plant.models import Line, LineLook, LookSlip
from server.web.times import time_problems

from ..due.summary import keep_up
from ..read import kept_lines, past_jobs

TYPED_AGREES = 1e-6
GOES_BACK = "goes back"  # a figure that is asked about, and taken once it is confirmed
LONGEST_AGO = timedelta(days=60)
READ_AS_TYPED = ("wear_mm", "temperature_c", "vibration_mm_per_s")
FIGURES = ("wear_mm", "temperature_c", "vibration_mm_per_s", "hours")


class LookOut(Schema):
    """What a round read of a line."""

    id: UUID
    at: datetime
    wear_mm: float | None
    leaks: str
    noise: str
    temperature_c: float | None
    vibration_mm_per_s: float | None
    hours: float | None
    note: str
    by: str


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
        refuse_if_any([one for _, one in goes_back(line, [look])])
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


def goes_back(line: Line, fresh: Sequence[Look]) -> list[tuple[Look, Problem]]:
    """A mark does not grow back, and an hour meter does not run back: which of these looks say so, or make one that is there
    say so. Read again, or confirm."""
    kept = kept_lines([line])[line.pk]
    looks = sorted((*kept.looks, *fresh), key=lambda one: one.at)
    of = {id(one) for one in fresh}
    metered = [one for one in looks if one.hours is not None]
    found = [
        (now if id(now) in of else was, _ran_back(was, now))
        for was, now in pairwise(metered)
        if of & {id(was), id(now)} and (was.hours or 0) > (now.hours or 0)
    ]
    if all(one.wear_mm is None for one in fresh):
        return found
    wear = wear_of(replace(kept, looks=tuple(looks)), past_jobs([line.pk])[line.pk])
    renewed = max((one.at for one in wear.breaks), default=None)
    same = [p for p in wear.points if renewed is None or p.at.astimezone(UTC).replace(tzinfo=None) >= renewed]
    by_time = {one.at: one for one in fresh if one.wear_mm is not None}
    for was, now in pairwise(same):
        told = by_time.get(now.at) or by_time.get(was.at)
        if told is not None and was.value - now.value > 2 * BY_STROBE_MM:
            found.append((told, _grew_back(was, now)))
    return found


def _ran_back(was: Look, now: Look) -> Problem:
    text = "The hour meter showed {was} on {day} and {now} after it. Read it again, or confirm that it is as read."
    figures = {"was": Figure(was.hours or 0, "h", 0), "now": Figure(now.hours or 0, "h", 0)}
    return problem("hours", text, GOES_BACK, **figures, day=day(was.at.date()))


def _grew_back(was: Point, now: Point) -> Problem:
    text = "Wear was {was} on {day} and {now} after it: it does not grow back. Read it again, or confirm that it is as read."
    figures = {"was": Figure(was.value, "mm", 2), "now": Figure(now.value, "mm", 2)}
    return problem("wear_mm", text, GOES_BACK, **figures, day=day(was.at.date()))


@transaction.atomic
def take_out(look_id: UUID, *, by: Membership, because: str, now: datetime) -> LineLook:
    """A look was a slip: it stays, struck through, and nothing goes by it. Whoever entered it does that, or the lead.

    Raises `Http404` for a look the member may not see, `OutOfTurn` where it is another's or is out already, `UnusableInput`
    without a reason.
    """
    look = get_object_or_404(LineLook.objects.select_related("line"), pk=look_id, line__in=Line.objects.visible_to(by))
    if not may_take_out(look, by):
        raise OutOfTurn(f"{look.by} entered it, and takes it out; or the lead does.")
    if not because.strip():
        raise UnusableInput(Problem("because", "Enter what went wrong. The history shows it."))
    said = {"person": by.user, "by": by.user.shown_name, "role": by.role, "at": now}
    slip, made = LookSlip.objects.get_or_create(look=look, defaults={"because": because.strip(), **said})
    if not made:
        raise OutOfTurn(f"{slip.by} took it out already.")
    write_down(look.line.site_id, [slip])
    keep_up(look.line)
    return look


def may_take_out(look: LineLook, by: Membership) -> bool:
    """One's own, or anybody's to the lead."""
    return look.person_id == by.user_id or by.as_role.may(Deed.ANSWER)
