"""The first page of a record: machines, deviations, signatures, instruments, photographs."""

from collections.abc import Iterator, Mapping, Sequence
from typing import Any

from millwright.card.changed import NOTHING as STOOD_NOTHING
from millwright.card.values import Value, on_its_line, say_value
from millwright.job.entry import EntryKind
from millwright.job.now import RouteNow, StepNow
from millwright.job.proved import Proof, proofs
from millwright.line import Machine
from millwright.say import NOTHING, Figure, mm, words
from millwright.verdict import STATUS_WORDS, Status
from server.jobs.models import Entry, Job, Signature
from server.plant.models import LineChange
from server.web.words import ChangedOut

from .checks import limit_of, value_of
from .record_shape import Deviation, Front, Instrument, MachineLine, Picture, ProofLine, SignedStep

TAKEN = "cannot tell yet, taken as it is"
CHANGED = "value changed"
CHANGED_BEFORE = "changed before this job"
WHOLE_JOB = "The whole job"


def front_of(job: Job, route: RouteNow, entries: Sequence[Entry], signatures: Sequence[Signature]) -> Front:
    """Everything of the first page but the figures as found and as left."""
    spec = job.as_spec
    titles = {now.step.key: now.step.title for now in route.steps}
    return Front(
        machines=[_machine(spec.driver), _machine(spec.driven)],
        proofs=[ProofLine(what=one.what, stands=one.stands.value, of=list(one.of)) for one in _proofs(route, entries)],
        deviations=[*_out_of_tolerance(route, entries), *_changed_values(entries), *_started_under(job)],
        signatures=[
            SignedStep(
                step=titles.get(s.step, s.step or WHOLE_JOB),
                kind=s.as_core.kind,
                by=s.by,
                role=s.role,
                at=s.at,
                reason=s.reason,
            )
            for s in signatures
        ],
        instruments=_instruments(entries),
        pictures=[
            Picture(id=e.id, step=title_of(e), caption=e.inputs["caption"]) for e in entries if e.kind == EntryKind.PHOTOGRAPH
        ],
    )


def _proofs(route: RouteNow, entries: Sequence[Entry]) -> list[Proof]:
    return proofs(route, {str(entry.id) for entry in entries if entry.result and entry.result.get("as_it_is")})


def title_of(entry: Entry) -> str:
    """What the step was called when this was entered."""
    return str(entry.asked.get("title", entry.step))


def _machine(machine: Machine) -> MachineLine:
    parts = {"shaft": mm(machine.shaft_diameter_mm, None)}
    what = f"{machine.drawn_as}, shaft {{shaft}}"
    if machine.power_kw is not None:
        what, parts["power"] = f"{machine.drawn_as}, {{power}}, shaft {{shaft}}", Figure(machine.power_kw, "kW")
    return MachineLine(name=machine.name, what=words(what, **parts), serial=machine.serial)


def _out_of_tolerance(route: RouteNow, entries: Sequence[Entry]) -> Iterator[Deviation]:
    """Of the readings that count now: what is out of tolerance, accepted or not, and what was taken untold."""
    by_id = {str(e.id): e for e in entries}
    for now in route.steps:
        entry = by_id.get(now.current.id) if now.current else None
        result = entry.result if entry else None
        if entry is None or result is None:
            continue
        yield from (_deviation(now, check) for check in result.get("checks", []) if check["status"] == Status.OVER)
        if result.get("as_it_is"):
            unproven = next((check for check in result["checks"] if check.get("proven") is False), None)
            yield Deviation(
                step=now.step.title,
                what=unproven["name"] if unproven else "",
                value=value_of(unproven) if unproven else NOTHING,
                limit=limit_of(unproven) if unproven else NOTHING,
                said=TAKEN,
                by=entry.by,
                role=entry.role,
                at=entry.at,
            )


def _deviation(now: StepNow, check: Mapping[str, Any]) -> Deviation:
    accepted = now.authorised
    return Deviation(
        step=now.step.title,
        what=check["name"],
        value=value_of(check),
        limit=limit_of(check),
        said=f"{STATUS_WORDS['over']}, accepted" if accepted else STATUS_WORDS["over"],
        by=accepted.by if accepted else "",
        role=accepted.role if accepted else "",
        at=accepted.at if accepted else None,
        reason=accepted.reason if accepted else "",
    )


def _changed_values(entries: Sequence[Entry]) -> Iterator[Deviation]:
    """Values of the card that were changed while the job ran."""
    for entry in entries:
        if entry.kind != EntryKind.VALUE or not entry.inputs.get("was"):
            continue
        (kind, value), (_, was) = (
            on_its_line(str(entry.inputs["key"]), Value.model_validate(entry.inputs[which])) for which in ("value", "was")
        )
        if kind is None:
            continue
        yield Deviation(
            step="Value card",
            what=kind.title,
            value=say_value(value, kind),
            limit=words("was {was}", was=say_value(was, kind)),
            said=CHANGED,
            by=entry.by,
            role=entry.role,
            at=entry.at,
            reason=str(entry.inputs.get("reason", "")),
        )


def _started_under(job: Job) -> Iterator[Deviation]:
    """What was changed on its line since the job before it was started: this one is judged by it."""
    before = Job.objects.filter(line=job.line_id, started_at__lt=job.started_at).order_by("-started_at").first()
    changes = LineChange.objects.filter(line=job.line_id, at__lte=job.started_at).exclude(because="")
    if before is not None:
        changes = changes.filter(at__gt=before.started_at)
    for change in changes.order_by("version"):
        for one in (ChangedOut.model_validate(one) for one in change.changes):
            if one.was == STOOD_NOTHING:
                continue
            yield Deviation(
                step="Card of the line",
                what=one.what,
                value=one.now,
                limit=words("was {was}", was=one.was),
                said=CHANGED_BEFORE,
                by=change.by,
                role=change.role,
                at=change.at,
                reason=change.because,
            )


def _instruments(entries: Sequence[Entry]) -> list[Instrument]:
    """Wrenches by their number, with the last calibration said of each, and what else was named at the tools."""
    found: dict[tuple[str, str], Instrument] = {}
    for entry in entries:
        for what, number, calibrated in _named(entry):
            mine = found.setdefault((what, number), Instrument(what=what, number=number, calibrated="", used_in=[]))
            mine.calibrated = calibrated or mine.calibrated
            if title_of(entry) not in mine.used_in:
                mine.used_in.append(title_of(entry))
    return list(found.values())


def _named(entry: Entry) -> Iterator[tuple[str, str, str]]:
    """What, its number, and its calibration in words; empty where nothing was said of that. By the register where the server
    looked there, else as it was entered."""
    inputs, known = entry.inputs, entry.asked.get("instruments", [])
    for one in known:
        yield one["kind"], one["name"], one["said"]
    wrench: Any = inputs.get("wrench")
    until: Any = inputs.get("wrench_until")
    if isinstance(wrench, Mapping):
        wrench, until = wrench.get("name"), wrench.get("calibrated_until")
    if (number := str(wrench or "").strip()) and not known:
        yield "torque wrench", number, f"calibrated until {until}" if until else ""
    if others := str(inputs.get("instruments") or "").strip():
        yield "measuring instruments", others, "as entered with them"
