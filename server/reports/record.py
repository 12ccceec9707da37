"""The record of a job, read from its entries."""

from collections.abc import Mapping
from typing import Any

from millwright.card.values import lines_of, say_value
from millwright.job.asked import AS_THE_FILE_HAS_IT, NOT_JUDGED_HERE
from millwright.job.called import SLIP, called
from millwright.job.entry import EntryKind
from millwright.job.now import RouteNow, StepNow
from millwright.keep.summary import Read, summary
from millwright.line import LineSpec
from millwright.plan.families.register import FAMILIES
from millwright.plan.fields import NONE_HERE
from millwright.say import NOTHING, Words, words
from server.jobs.chain import head_of
from server.jobs.covered import is_covered, waits_for_the_second
from server.jobs.models import Entry, Job, Signature
from server.jobs.show import came_from

from .checks import figure_of, limit_of, value_of
from .drawing import drawing_of
from .figures import figures_of, is_sheet, pulls_of, rings_of
from .front import front_of, title_of
from .record_shape import CardLine, CheckLine, FigureLine, Reading, RecordOut, RecordStep, Signed

GONE = "No longer part of the route"  # heading over what was entered in steps that a later decision took out


def record_of(job: Job) -> RecordOut:
    """The record of a job as it stands; what is open or stale is said at its head."""
    route = job.stand()
    # What is covered until a second person has answered is covered on paper too, whoever prints it.
    entries = [entry for entry in job.entries.all() if not is_covered(entry, route.covered)]
    signatures = list(job.signatures.all())
    spec = job.as_spec
    coupling = spec.coupling
    return RecordOut(
        number=job.number,
        title=job.title,
        scope=job.scope,
        unit=job.sheet,
        line=job.line.name,
        site=job.site.name,
        what=f"{spec.driver.name} to {spec.driven.name}, {_kind_of(spec)}, {coupling.series} {coupling.size}",
        started_by=job.started_by,
        started_at=job.started_at,
        closed=job.signed and not job.is_paper,
        open_things=[] if job.closed else route.why_not_signed_off(),
        chain=head_of(job).chain,
        cancelled=f"Cancelled by {job.cancelled_by}: {job.cancelled_because}" if job.cancelled_by else "",
        read_in=_read_in(job, signatures),
        to_take_over=job.is_paper and not job.cancelled_by,
        file_waits=waits_for_the_second(route),
        front=front_of(job, route, entries, signatures),
        summary=_summary(entries, route),
        card=_card(route),
        steps=_steps(job, route, entries, signatures),
        ledger=[
            FigureLine(label=line.what, value=words(f"{line.out} out, {line.back} back"), typed=line.goes)
            for line in route.ledger
        ],
    )


def _kind_of(spec: LineSpec) -> str:
    """A coupling of a family; a drive is one by its own name."""
    facts = FAMILIES[spec.coupling.family].facts
    is_drive = facts.hangs or facts.set_by == "air gap"
    return spec.coupling.family if is_drive else f"{spec.coupling.family} coupling"


def _read_in(job: Job, signatures: list[Signature]) -> str:
    """Where a job from a file came from, what that is worth, and whether anything goes by it."""
    came = came_from(job, signatures)
    if came is None:
        return ""
    there = f", where it is job {came['number']}" if came.get("number") else ""
    where = (
        f"Read in by {came['by']}, {came['at'][:16].replace('T', ' ')} UTC, from a file of {came['site']}{there}; "
        f"names and times are as the file says. SHA-256 of the file {came['digest']}."
    )
    why = f"Read in, {NOT_JUDGED_HERE}: {came['why_not_judged']}. " if came.get("why_not_judged") else ""
    if came.get("taken_over_at"):
        return f"{why}{where} Taken over by {came['taken_over_by']}, {came['taken_over_at']:%Y-%m-%d %H:%M} UTC."
    return f"{why}{where} Nobody has taken it over: nothing here goes by it."


def _summary(entries: list[Entry], route: RouteNow) -> list[CheckLine]:
    labels = called(e.as_core for e in entries)
    why = {now.step.key: now.stale_because for now in route.steps}
    read = [
        Read(step=e.step, title=title_of(e), result=e.result, overtaken=why.get(e.step, words(GONE)))
        for e in entries
        if e.result and labels[str(e.id)] != SLIP
    ]
    return [
        _check_line(
            line.left,
            name=line.what,
            found=NOTHING if line.found is None else figure_of(line.left, line.found),
            overtaken=line.overtaken,
        )
        for line in summary(read)
    ]


def _check_line(check: Mapping[str, Any], *, name: str = "", found: Words = NOTHING, overtaken: Words = NOTHING) -> CheckLine:
    return CheckLine(
        name=name or check["name"],
        found=found,
        value=value_of(check),
        limit=limit_of(check),
        status=check["status"],
        proven=check.get("proven"),
        source=check["source"],
        overtaken=overtaken,
    )


def _card(route: RouteNow) -> list[CardLine]:
    return [
        CardLine(
            title=kind.title,
            value=say_value(route.card[key], kind),
            means="" if kind.words_only or route.card[key].means in kind.unit_by_means else route.card[key].means,
            source=route.card[key].source.say(),
            sample=route.card[key].source.kind == "sample",
        )
        for key, kind in lines_of(route.card)
    ]


def _steps(job: Job, route: RouteNow, entries: list[Entry], signatures: list[Signature]) -> list[RecordStep]:
    """The route as it stands, and after it whatever was entered that is no longer part of it: nothing is left out."""
    of_route = {now.step.key for now in route.steps}
    facts: list[Entry | Signature] = [*entries, *signatures]
    gone = list(dict.fromkeys(fact.step for fact in facts if fact.step and fact.step not in of_route))
    found = []
    for now in route.steps:
        mine = [e for e in entries if e.step == now.step.key]
        signed = [s for s in signatures if s.step == now.step.key]
        if mine or signed or not now.step.optional:
            found.append(_step(job, now, mine, signed))
    return found + [_by_itself(job, key, GONE, entries, signatures) for key in gone]


def steps_added(job: Job, entries: list[Entry]) -> list[RecordStep]:
    """What was added to a record after it was closed, by the step it belongs to."""
    return [_by_itself(job, key, "", entries, []) for key in dict.fromkeys(e.step for e in entries)]


def _by_itself(job: Job, key: str, stage: str, entries: list[Entry], signatures: list[Signature]) -> RecordStep:
    """A step of no route, under the title it had when it was last entered."""
    mine = [e for e in entries if e.step == key]
    return RecordStep(
        key=key,
        stage=stage,
        title=title_of(mine[-1]) if mine else key,
        state=None,
        stale_because=NOTHING,
        readings=_readings(job, mine),
        signatures=_signed([s for s in signatures if s.step == key]),
    )


def _step(job: Job, now: StepNow, entries: list[Entry], signatures: list[Signature]) -> RecordStep:
    """A step under the title it had when it was last entered."""
    return RecordStep(
        key=now.step.key,
        stage=now.step.stage.value,
        title=title_of(entries[-1]) if entries else now.step.title,
        state=now.state,
        stale_because=now.stale_because,
        readings=_readings(job, entries),
        signatures=_signed(signatures),
    )


def _readings(job: Job, entries: list[Entry]) -> list[Reading]:
    labels = called(e.as_core for e in entries)
    return [_reading(job, e, labels[str(e.id)]) for e in entries]


def _advice(result: Mapping[str, Any]) -> list[Any]:
    """What a bench said where that is worth keeping; an older result has it in plain sentences."""
    if result.get("verdict") not in ("over", "incomplete") and result.get("proven") is not False:
        return []
    said: list[Any] = result.get("says") or result.get("advice", [])
    return said


def _as_the_file_has_it(entry: Entry) -> list[str]:
    """The words of a file, where they are others than what is asked here."""
    said = entry.asked.get(AS_THE_FILE_HAS_IT)
    if not said:
        return []
    here = {field["key"]: field["label"] for field in entry.asked.get("fields", [])}
    labels = [f["label"] for f in said.get("fields", []) if f.get("label") != here.get(f["key"])]
    return [text for text in (said.get("title", ""), *labels) if text and text != entry.asked.get("title")]


def _signed(signatures: list[Signature]) -> list[Signed]:
    return [Signed(kind=s.as_core.kind, by=s.by, role=s.role, at=s.at, reason=s.reason) for s in signatures]


def _reading(job: Job, entry: Entry, label: str) -> Reading:
    """One entry, read by what it was asked."""
    result: dict[str, Any] = entry.result or {}
    drawing = drawing_of(job, entry)
    ticks = [f for f in entry.asked.get("fields", []) if f["kind"] == "tick"] if is_sheet(entry) else []
    none = [f for f in ticks if entry.inputs.get(f["key"]) == NONE_HERE]
    if label == SLIP:
        result = {}
    return Reading(
        id=entry.id,
        kind=EntryKind(entry.kind),
        label=label,
        verdict=result.get("verdict"),
        figures=figures_of(entry),
        ticked=[f["label"] for f in ticks if entry.inputs.get(f["key"]) is True],
        not_ticked=[f["label"] for f in ticks if entry.inputs.get(f["key"]) is not True and f not in none],
        checks=[_check_line(check) for check in result.get("checks", [])],
        advice=_advice(result),
        as_it_is=result.get("as_it_is", False),
        judged_here=entry.asked.get("note") != NOT_JUDGED_HERE,
        as_the_file_has_it=_as_the_file_has_it(entry),
        rings=list(rings_of(entry)),
        pulls=pulls_of(entry),
        by=entry.by,
        role=entry.role,
        at=entry.at,
        drawing=drawing.svg if drawing else None,
        drawing_title=drawing.title if drawing else "",
    )
