"""The record of a job, as one structure that both the page and the PDF show."""

from collections import Counter
from collections.abc import Iterator, Mapping
from datetime import datetime
from typing import Any
from uuid import UUID

from ninja import Field, Schema
from pydantic import computed_field

from millwright.benches import in_order
from millwright.card.values import Value, lines_of, say_value, value_kind
from millwright.figures_in_words import lines, say_figure
from millwright.route.fields import NONE_HERE
from millwright.route.state import EntryKind, RouteNow, SignatureKind, StepNow, StepState
from millwright.route.summary import Read, summary
from millwright.verdict import Status, Verdict
from server.jobs.chain import head_of
from server.jobs.models import Entry, Job, Signature

from .drawing import alignment_svg

SAID_BY_THE_LABEL = {EntryKind.EVENT: frozenset({"event", "ago_s"}), EntryKind.HAND_OVER: frozenset({"what"})}
MOST_IN_A_COLUMN = 40  # letters
GONE = "No longer part of the route"  # heading over what was entered in steps that a later decision took out


class Figure(Schema):
    """One figure: where, what, and as typed where that was written another way."""

    label: str
    value: str
    typed: str

    @computed_field  # type: ignore[prop-decorator]  # as pydantic has it
    @property
    def is_words(self) -> bool:
        """Not a number: set in the text face."""
        return not self.value[:1].strip("+-−.").isdigit() and not self.value[:2].strip("+-−.").isdigit()

    @computed_field  # type: ignore[prop-decorator]
    @property
    def goes_across(self) -> bool:
        """More words than a column holds."""
        return self.is_words and len(self.value) > MOST_IN_A_COLUMN


class CheckLine(Schema):
    """A judged figure in words: what it was, its limit, how it stands to it, whose limit."""

    name: str
    found: str
    value: str
    limit: str
    status: Status
    source: str
    overtaken: str = ""  # why it no longer stands; said in the summary only


class Reading(Schema):
    """One reading, move or remark of a step. `ticked` and `not_ticked` are sentences of a sheet;
    `rings` names the clock readings that go out as CSV, in their order."""

    id: UUID
    kind: EntryKind
    label: str
    verdict: Verdict | None
    figures: list[Figure]
    ticked: list[str]
    not_ticked: list[str]
    checks: list[CheckLine]
    advice: list[str]
    rings: list[str]
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
    state: StepState | None
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
    summary: list[CheckLine]
    card: list[CardLine]
    steps: list[RecordStep]
    ledger: list[Figure]
    chain: str = Field(default="", description="hash of what was entered and signed, up to the last of it")
    cancelled: str = ""
    read_in: str = Field(default="", description="of a job from a file: who read it in, when, from where")
    digest: str = Field(default="", description="of the record as it was issued; empty while it is open")
    issued_at: datetime | None = None
    added_since: list[RecordStep] = Field(default=[], description="notes to a record that was closed already")


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
        closed=job.signed,
        open_things=[] if job.closed else route.why_not_signed_off(),
        chain=head_of(job).chain,
        cancelled=f"Cancelled by {job.cancelled_by}: {job.cancelled_because}" if job.cancelled_by else "",
        read_in=_read_in(job),
        summary=_summary(entries, route),
        card=_card(route),
        steps=_steps(job, route, entries, signatures),
        ledger=[Figure(label=line.what, value=f"{line.out} out, {line.back} back", typed=line.goes) for line in route.ledger],
    )


def _read_in(job: Job) -> str:
    """Where a job from a file came from, and what that is worth."""
    if not job.read_in:
        return ""
    came = job.read_in
    return (
        f"Read in by {came['by']}, {came['at'][:16].replace('T', ' ')} UTC, from a file of {came['site']}; "
        f"names and times are as the file says. SHA-256 of the file {came['digest']}"
    )


def _summary(entries: list[Entry], route: RouteNow) -> list[CheckLine]:
    why = {now.step.key: now.stale_because for now in route.steps}
    read = [Read(step=e.step, title=_title(e), result=e.result, overtaken=why.get(e.step, GONE)) for e in entries if e.result]
    return [
        _check_line(
            line.left,
            name=line.what,
            found="" if line.found is None else say_figure(line.found, line.left["unit"]),
            overtaken=line.overtaken,
        )
        for line in summary(read)
    ]


def _check_line(check: Mapping[str, Any], *, name: str = "", found: str = "", overtaken: str = "") -> CheckLine:
    unit = check["unit"]
    return CheckLine(
        name=name or check["name"],
        found=found,
        value="" if check["value"] is None else say_figure(check["value"], unit),
        limit=_limit(check["min"], check["max"], check["unit"]),
        status=check["status"],
        source=check["source"],
        overtaken=overtaken,
    )


def _limit(low: float | None, high: float | None, unit: str) -> str:
    if low is not None and high is not None:
        return f"{say_figure(low, unit)} to {say_figure(high, unit)}"
    if high is not None:
        return f"at most {say_figure(high, unit)}"
    return f"at least {say_figure(low, unit)}" if low is not None else ""


def _card(route: RouteNow) -> list[CardLine]:
    return [
        CardLine(
            title=kind.title,
            value=say_value(route.card[key], kind),
            means="" if route.card[key].means in kind.unit_by_means else route.card[key].means,
            source=route.card[key].source.say(),
            sample=route.card[key].source.kind == "sample",
        )
        for key, kind in lines_of(route.card)
    ]


def _steps(job: Job, route: RouteNow, entries: list[Entry], signatures: list[Signature]) -> list[RecordStep]:
    """The route as it stands, and after it whatever was entered that is no longer part of it: nothing is left out."""
    of_route = {now.step.key for now in route.steps}
    facts: list[Entry | Signature] = [*entries, *signatures]
    gone = list(dict.fromkeys(fact.step for fact in facts if fact.step not in of_route))
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
        title=_title(mine[-1]) if mine else key,
        state=None,
        stale_because="",
        readings=_readings(job, mine),
        signatures=_signed([s for s in signatures if s.step == key]),
    )


def _step(job: Job, now: StepNow, entries: list[Entry], signatures: list[Signature]) -> RecordStep:
    """A step under the title it had when it was last entered."""
    return RecordStep(
        key=now.step.key,
        stage=now.step.stage.value,
        title=_title(entries[-1]) if entries else now.step.title,
        state=now.state,
        stale_because=now.stale_because,
        readings=_readings(job, entries),
        signatures=_signed(signatures),
    )


def _title(entry: Entry) -> str:
    return str(entry.asked.get("title", entry.step))


def _readings(job: Job, entries: list[Entry]) -> list[Reading]:
    readings = [e for e in entries if e.kind == EntryKind.READING]
    return [_reading(job, e, _label(e, readings)) for e in entries]


def _signed(signatures: list[Signature]) -> list[Signed]:
    return [Signed(kind=s.as_core.kind, by=s.by, role=s.role, at=s.at, reason=s.reason) for s in signatures]


def _label(entry: Entry, readings: list[Entry]) -> str:
    """As found for the first reading of a step, as left for the last, where there are several."""
    if entry.kind == EntryKind.EVENT:
        return str(entry.inputs["event"])
    if entry.kind == EntryKind.HAND_OVER:
        return str(entry.inputs["what"])
    if entry.kind != EntryKind.READING:
        return {EntryKind.MOVE: "moved", EntryKind.VALUE: "value"}.get(EntryKind(entry.kind), entry.kind)
    if len(readings) == 1:
        return "as read"
    if entry is readings[0]:
        return "as found"
    return "as left" if entry is readings[-1] else f"reading {readings.index(entry) + 1}"


def _reading(job: Job, entry: Entry, label: str) -> Reading:
    """One entry, read by what it was asked."""
    result: dict[str, Any] = entry.result or {}
    is_sheet = entry.kind == EntryKind.READING and result.get("bench", "sheet") == "sheet"
    ticks = [f for f in entry.asked.get("fields", []) if f["kind"] == "tick"] if is_sheet else []
    none = [f for f in ticks if entry.inputs.get(f["key"]) == NONE_HERE]
    return Reading(
        id=entry.id,
        kind=EntryKind(entry.kind),
        label=label,
        verdict=result.get("verdict"),
        figures=_sheet_figures(entry) if is_sheet else _figures(entry),
        ticked=[f["label"] for f in ticks if entry.inputs.get(f["key"]) is True],
        not_ticked=[f["label"] for f in ticks if entry.inputs.get(f["key"]) is not True and f not in none],
        checks=[_check_line(check) for check in result.get("checks", [])],
        advice=result.get("advice", []) if result.get("verdict") in ("over", "incomplete") else [],
        rings=list(rings_of(entry)),
        by=entry.by,
        role=entry.role,
        at=entry.at,
        drawing=alignment_svg(job.as_spec, result) if result.get("bench") == "alignment" else None,
    )


def rings_of(entry: Entry) -> dict[str, list[dict[str, float]]]:
    """Clock readings of a bench entry by name, in their order; none where it holds none."""
    if (entry.result or {}).get("bench", "sheet") == "sheet":
        return {}
    first, other = entry.inputs.get("ends") or ("readings", "other end")
    rings = [
        {"kind": name, "readings": entry.inputs.get(key, [])} for name, key in ((first, "readings"), (other, "other_end"))
    ]
    dials = entry.inputs.get("dials") or rings
    found = {f"{dial['kind']} {i}" if i > 1 else dial["kind"]: dial["readings"] for i, dial in _numbered(dials)}
    return {name: readings for name, readings in found.items() if readings and "value_mm" in readings[0]}


def _numbered(dials: list[dict[str, Any]]) -> Iterator[tuple[int, dict[str, Any]]]:
    """Each dial with how many of its kind came up to it."""
    seen: Counter[str] = Counter()
    for dial in dials:
        seen[dial["kind"]] += 1
        yield seen[dial["kind"]], dial


def _figures(entry: Entry) -> list[Figure]:
    """Of a bench, but for what the step itself gave it; of a move, a count, a note: everything."""
    if entry.kind == EntryKind.VALUE:
        return _value_figures(entry)
    if entry.kind == EntryKind.PHOTOGRAPH:
        caption = entry.inputs["caption"]
        return [Figure(label="shows", value=caption, typed="")] if caption else []
    bench = (entry.result or {}).get("bench")
    inputs = in_order(bench, entry.inputs) if bench else entry.inputs
    given = frozenset(entry.asked.get("preset", {})) if bench else SAID_BY_THE_LABEL.get(EntryKind(entry.kind), frozenset())
    return [Figure(label=text, value=value, typed=entry.typed.get(path, "")) for path, text, value in lines(inputs, given)]


def _value_figures(entry: Entry) -> list[Figure]:
    """A figure put on the card, what stood there before, and why it was changed."""
    kind = value_kind(str(entry.inputs["key"]))
    value = Value.model_validate(entry.inputs["value"])
    was = Value.model_validate(entry.inputs["was"]) if entry.inputs.get("was") else None
    if kind is None:
        return [Figure(label=str(entry.inputs["key"]), value=f"{value.value:g}", typed=value.typed)]
    found = [Figure(label=kind.title, value=say_value(value, kind), typed=value.typed)]
    found += [Figure(label="from", value=value.source.say(), typed="")]
    if was is not None:
        found += [Figure(label="before", value=f"{say_value(was, kind)}, {was.source.say()}", typed="")]
        found += [Figure(label="changed because", value=str(entry.inputs.get("reason", "")), typed="")]
    return found


def _sheet_figures(entry: Entry) -> list[Figure]:
    """In the order of the sheet as it was asked; a row is one figure. What nobody asked is shown under its own name."""
    asked, columns = entry.asked.get("fields", []), entry.asked.get("rows", [])
    found = [
        Figure(label=f"{entry.asked.get('row_name', 'row')} {i}", value=_row(row, columns), typed="")
        for i, row in enumerate(entry.inputs.get("rows") or [], start=1)
    ]
    known = {key for field in asked for key in (field["key"], f"{field['key']}_why")}
    others = [key for key in entry.inputs if key not in known and key != "rows"]
    unasked = [{"key": key, "kind": "", "label": key.replace("_", " ")} for key in others]
    for field in [*asked, *unasked]:
        answer = entry.inputs.get(field["key"])
        if answer in (None, "") or (field["kind"] == "tick" and answer != NONE_HERE):
            continue
        value = _sheet_value(field, answer, entry.inputs)
        found.append(Figure(label=field["label"], value=value, typed=entry.typed.get(field["key"], "")))
    return found


def _sheet_value(field: Mapping[str, Any], answer: Any, inputs: Mapping[str, Any]) -> str:
    """An answer in words: a figure with its unit, a count beside what it had to be, marks by place, why there is none."""
    if field["kind"] == "tick":
        return f"none here: {inputs.get(field['key'] + '_why', '')}"
    if isinstance(answer, list):
        return ", ".join(f"{place} {mark}" for place, mark in zip(field.get("options", []), answer, strict=False))
    if not isinstance(answer, int | float) or isinstance(answer, bool):
        return str(answer)
    of = f" of {field['expected']}" if field.get("expected") is not None else ""
    return f"{answer:g}{of} {field.get('unit', '')}".strip()


def _row(row: Mapping[str, Any], columns: list[dict[str, Any]]) -> str:
    """A row in one line, by the columns as they were asked."""
    labels = {column["key"]: column["label"].lower() for column in columns} or {key: key for key in row}
    return ", ".join(f"{label} {row[key]}" for key, label in labels.items() if row.get(key))
