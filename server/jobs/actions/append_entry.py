"""Append an entry to a job."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime
from typing import Any
from uuid import UUID

from django.db import IntegrityError, transaction
from django.utils import timezone

from millwright.errors import Problem, UnusableInput, refuse_if_any
from millwright.figures_in_words import COMPARED
from millwright.job.entry import EntryKind
from millwright.job.new_entry import OutOfTurn, check
from millwright.model import is_plain_text
from millwright.units import LengthUnit, read_angle_mm_per_m, read_length_mm, read_temperature_c, read_torque_nm
from millwright.verdict import is_unproven
from server.accounts.models import Membership
from server.instruments.named import LAID_OVER, read_with

from ..before import left_before
from ..chain import head_of, link
from ..models import Entry, Job, Photograph
from ..papers import refuse_paper
from ..photographs import MOST_A_JOB, take
from ..so_far import and_then, so_far

TYPED_AGREES_MM = 1e-6
TAKEN = "Something else was already entered under this number."


@dataclass(frozen=True, kw_only=True)
class Sent:
    """What a device sent to be entered. ``image`` is a photograph's, in base64.

    ``instruments`` - kind and name of what it was read with
    ``as_it_is`` - whoever entered it takes it although it is not proven to be within its limit
    """

    id: UUID
    step: str
    kind: EntryKind
    inputs: Mapping[str, Any]
    typed: Mapping[str, str] = field(default_factory=dict)
    unit: LengthUnit = "mm"
    image: str = ""
    as_it_is: bool = False
    instruments: Sequence[tuple[str, str]] = ()


@transaction.atomic
def append_entry(job_id: UUID, sent: Sent, *, by: Membership, now: datetime) -> Entry:
    """The entry, evaluated by the core and appended. The same id sent again gives the entry that stands.

    Raises `Http404` for a job the member may not see, `OutOfTurn` where the step is blocked or the job is
    closed, `UnusableInput` for bad inputs.
    """
    id, step, kind, inputs = sent.id, sent.step, sent.kind, sent.inputs
    picture = take(sent.image) if kind is EntryKind.PHOTOGRAPH else None
    if picture is not None:
        inputs = {**inputs, "sha256": picture.sha256, "width": picture.width, "height": picture.height}
    job = Job.objects.locked(by, job_id)
    seen = so_far(job)
    if str(id) in seen.ids:
        return _the_same(Entry.objects.get(pk=id), step, kind, inputs)
    if job.cancelled_by:
        raise OutOfTurn(f"This job was cancelled by {job.cancelled_by}: {job.cancelled_because}")
    route = job.stand_after(seen.entries, left_before(job), now, seen.signatures)
    if route.closed and kind is not EntryKind.NOTE:
        raise OutOfTurn("This record is signed and closed. Start a new job; a note may still be added.")
    if kind is not EntryKind.NOTE:
        refuse_paper(job)
    if picture is not None and sum(entry.kind is EntryKind.PHOTOGRAPH for entry in seen.entries) >= MOST_A_JOB:
        raise OutOfTurn(f"This job has {MOST_A_JOB} photographs already, which is the most there can be.")
    refuse_if_any(typed_problems(inputs, sent.typed, sent.unit))
    refuse_if_any(text_problems(inputs))
    known = read_with(by, inputs, sent.typed, sent.instruments, timezone.localdate(now))
    refuse_if_any(known.problems)
    inputs = known.inputs
    checked = check(route, step, kind, inputs, by.as_role, by.user.shown_name)
    head = head_of(job)
    entry = Entry(
        id=id,
        job=job,
        number=head.number + 1,
        step=step,
        kind=kind,
        inputs=checked.inputs,
        typed=_typed_here(known.typed, checked.asked),
        result=as_taken(checked.result, as_it_is=sent.as_it_is),
        asked={**checked.asked, **({"instruments": list(known.instruments)} if known.instruments else {})},
        person=by.user,
        whose=by.user_id,
        by=by.user.shown_name,
        role=by.role,
        at=head.not_before(now),
    )
    entry.chain = link(head.chain, entry)
    try:
        entry.save(force_insert=True)
    except IntegrityError:
        raise OutOfTurn(TAKEN) from None  # by an entry of another job
    and_then(seen, entry)
    if picture is not None:
        Photograph.objects.create(entry=entry, content=picture.content)
    return entry


def _typed_here(typed: Mapping[str, str], asked: Mapping[str, Any]) -> dict[str, str]:
    """What was typed, less what was typed over a figure that comes from the card or from an earlier reading."""
    given = {*asked.get("preset", {}), *asked.get("compare", {})}
    return {path: text for path, text in typed.items() if path.partition(".")[0] not in given}


def as_taken(result: Mapping[str, Any] | None, *, as_it_is: bool) -> Mapping[str, Any] | None:
    """A reading that cannot tell yet and is taken as it is says so from then on."""
    return {**result, "as_it_is": True} if result and as_it_is and is_unproven(result) else result


def _the_same(stands: Entry, step: str, kind: EntryKind, inputs: Mapping[str, Any]) -> Entry:
    """What was sent twice is one entry; something else under its id is refused."""
    given_by_step = {*stands.asked.get("preset", {}), *COMPARED, *LAID_OVER}
    sent = {key: value for key, value in inputs.items() if key not in given_by_step and value is not None}
    stored = {key: stands.inputs.get(key) for key in sent}
    if (stands.step, stands.kind) != (step, kind) or sent != stored:
        raise OutOfTurn(TAKEN)
    return stands


def typed_problems(inputs: Mapping[str, Any], typed: Mapping[str, str], unit: LengthUnit) -> list[Problem]:
    """What was typed must read as the value beside it: the record shows both."""
    found = []
    for path, text in typed.items():
        value = _at(inputs, path)
        read = _read(path, text, unit)
        if read is None or not isinstance(value, int | float) or abs(value - read) > TYPED_AGREES_MM:
            found.append(Problem(path, f"“{text[:40]}” was typed; that is not the value sent with it."))
    return found


def _read(path: str, text: str, unit: LengthUnit) -> float | None:
    """What was typed at a path, by the unit at the end of its name."""
    if path.endswith("_c"):
        return read_temperature_c(text)
    if path.endswith("_nm"):
        return read_torque_nm(text)
    return read_angle_mm_per_m(text, "mm/m", unit) if path.endswith("_mm_per_m") else read_length_mm(text, unit)


def text_problems(inputs: Mapping[str, Any]) -> list[Problem]:
    """Where a text holds what is no writing."""
    return [Problem(path, "There is a control character in this text. Type it again.") for path in _unwritten(inputs)]


def _unwritten(inputs: Any, path: str = "") -> Iterator[str]:
    """Where a text holds what is no writing."""
    match inputs:
        case str() if not is_plain_text(inputs):
            yield path
        case Mapping():
            for key, inner in inputs.items():
                yield from _unwritten(inner, f"{path}.{key}".lstrip("."))
        case list():
            for i, inner in enumerate(inputs):
                yield from _unwritten(inner, f"{path}.{i}".lstrip("."))


def _at(inputs: Any, path: str) -> Any:
    """What stands at a path. A name may hold a dot itself: the foot at the D.E."""
    found = inputs
    rest = path
    while rest:
        items = enumerate(found) if isinstance(found, list) else found.items() if isinstance(found, Mapping) else ()
        step = next(((str(key), inner) for key, inner in items if rest == str(key) or rest.startswith(f"{key}.")), None)
        if step is None:
            raise UnusableInput(Problem(path, "Nothing was entered at this place."))
        rest, found = rest[len(step[0]) + 1 :], step[1]
    return found
