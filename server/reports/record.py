"""The record of a job, as one structure that both the page and the PDF show."""

from datetime import datetime
from typing import Any
from uuid import UUID

from ninja import Schema

from millwright.plain import lines
from millwright.route.state import EntryKind, RouteNow, SignatureKind, StepNow, StepState
from millwright.route.steps import BenchForm
from millwright.values import VALUE_KINDS
from millwright.verdict import Check, Verdict
from server.jobs.models import Entry, Job, Signature

from .drawing import alignment_svg


class Figure(Schema):
    """One figure: where, what, and as typed where that was written another way."""

    label: str
    value: str
    typed: str


class Reading(Schema):
    """One reading, move or remark of a step."""

    id: UUID
    kind: EntryKind
    label: str
    verdict: Verdict | None
    figures: list[Figure]
    checks: list[Check]
    advice: list[str]
    by: str
    role: str
    at: datetime
    drawing: str | None


class Signed(Schema):
    """A signature, and the reason where something over its limit was accepted."""

    kind: SignatureKind
    by: str
    role: str
    at: datetime
    reason: str


class RecordStep(Schema):
    """A step with everything that was entered in it."""

    key: str
    stage: str
    title: str
    state: StepState
    stale_because: str
    readings: list[Reading]
    signatures: list[Signed]


class CardLine(Schema):
    """A line of the value card."""

    title: str
    value: str
    means: str
    source: str
    sample: bool


class RecordOut(Schema):
    """The whole record."""

    number: int
    title: str
    line: str
    site: str
    what: str
    started_by: str
    started_at: datetime
    closed: bool
    open_things: list[str]
    card: list[CardLine]
    steps: list[RecordStep]
    ledger: list[Figure]


def record_of(job: Job) -> RecordOut:
    """The record of a job as it stands; what is open or stale is said at its head."""
    route = job.stand()
    entries, signatures = list(job.entries.all()), list(job.signatures.all())
    spec = job.as_spec
    coupling = spec.coupling
    return RecordOut(
        number=job.number,
        title=job.title,
        line=job.line.name,
        site=job.site.name,
        what=f"{spec.driver.name} to {spec.driven.name}, {coupling.family} coupling, {coupling.series} {coupling.size}",
        started_by=job.started_by,
        started_at=job.started_at,
        closed=route.closed,
        open_things=[] if route.closed else route.why_not_signed_off(),
        card=_card(route),
        steps=[
            _step(job, now, [e for e in entries if e.step == now.step.key], [s for s in signatures if s.step == now.step.key])
            for now in route.steps
        ],
        ledger=[Figure(label=line.what, value=f"{line.out} out, {line.back} back", typed=line.goes) for line in route.ledger],
    )


def _card(route: RouteNow) -> list[CardLine]:
    return [
        CardLine(
            title=VALUE_KINDS[key].title,
            value=f"{value.value:g} {VALUE_KINDS[key].unit}",
            means=value.means,
            source=value.source.say(),
            sample=value.source.kind == "sample",
        )
        for key, value in route.card.items()
        if key in VALUE_KINDS
    ]


def _step(job: Job, now: StepNow, entries: list[Entry], signatures: list[Signature]) -> RecordStep:
    readings = [e for e in entries if e.kind == EntryKind.READING]
    return RecordStep(
        key=now.step.key,
        stage=now.step.stage.value,
        title=now.step.title,
        state=now.state,
        stale_because=now.stale_because,
        readings=[_reading(job, now, e, _label(e, readings)) for e in entries],
        signatures=[Signed(kind=s.as_core.kind, by=s.by, role=s.role, at=s.at, reason=s.reason) for s in signatures],
    )


def _label(entry: Entry, readings: list[Entry]) -> str:
    """As found for the first reading of a step, as left for the last, where there are several."""
    if entry.kind != EntryKind.READING:
        return {EntryKind.MOVE: "moved", EntryKind.VALUE: "value"}.get(EntryKind(entry.kind), entry.kind)
    if len(readings) == 1:
        return "as read"
    if entry is readings[0]:
        return "as found"
    return "as left" if entry is readings[-1] else f"reading {readings.index(entry) + 1}"


def _reading(job: Job, now: StepNow, entry: Entry, label: str) -> Reading:
    form = now.step.form
    preset = frozenset(form.preset) if isinstance(form, BenchForm) else frozenset()
    names = {f.key: f.label for f in (*form.fields, *form.rows)} if form.kind == "sheet" else {}
    result: dict[str, Any] = entry.result or {}
    is_alignment = isinstance(form, BenchForm) and form.bench == "alignment" and bool(result)
    return Reading(
        id=entry.id,
        kind=EntryKind(entry.kind),
        label=label,
        verdict=result.get("verdict"),
        figures=[
            Figure(label=names.get(path.rsplit(".", 1)[-1], text), value=value, typed=entry.typed.get(path, ""))
            for path, text, value in lines(entry.inputs, preset)
        ],
        checks=result.get("checks", []),
        advice=result.get("advice", []) if result.get("verdict") in ("over", "incomplete") else [],
        by=entry.by,
        role=entry.role,
        at=entry.at,
        drawing=alignment_svg(job.as_spec, result) if is_alignment else None,
    )
