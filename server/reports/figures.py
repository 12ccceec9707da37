"""The figures of one entry in words, read by what the entry was asked."""

import re
from collections import Counter
from collections.abc import Iterator, Mapping
from typing import Any

from millwright.benches.register import in_order
from millwright.card.values import Value, on_its_line, say_value
from millwright.figures_in_words import lines, say_pull
from millwright.job.entry import EntryKind
from millwright.plan.fields import NONE_HERE
from millwright.say import Figure, Words, joined, words
from server.jobs.models import Entry

from .record_shape import BoltRow, BoltTable, FigureLine

SAID_BY_THE_LABEL = {
    EntryKind.EVENT: frozenset({"event", "ago_s"}),
    EntryKind.HAND_OVER: frozenset({"what"}),
    EntryKind.QUESTION: frozenset({"accept"}),
    EntryKind.ANSWER: frozenset({"question"}),
    EntryKind.SLIP: frozenset({"entry"}),
}

NAMELESS = re.compile(r"\b(movable|stationary)\b")  # a bench knows no names; the line does


def is_sheet(entry: Entry) -> bool:
    """Answers of a sheet, not readings of a bench."""
    return entry.kind == EntryKind.READING and (entry.result or {}).get("bench", "sheet") == "sheet"


def figures_of(entry: Entry) -> list[FigureLine]:
    """Every figure of an entry, in the order it was asked."""
    return _sheet_figures(entry) if is_sheet(entry) else _figures(entry)


def rings_of(entry: Entry) -> dict[str, list[dict[str, float]]]:
    """Clock readings of a bench entry by name, in their order; none where it holds none."""
    read = entry.readings
    first, other = read.get("ends") or ("readings", "other end")
    rings = [{"kind": name, "readings": read.get(key, [])} for name, key in ((first, "readings"), (other, "other_end"))]
    dials = read.get("dials") or rings
    found = {f"{dial['kind']} {i}" if i > 1 else dial["kind"]: dial["readings"] for i, dial in _numbered(dials)}
    return {name: readings for name, readings in found.items() if readings and "value_mm" in readings[0]}


def pulls_of(entry: Entry) -> BoltTable | None:
    """The pulls of a circle, a row a bolt and a column a pass; None where nothing was pulled to a torque."""
    pulls: list[dict[str, Any]] = entry.readings.get("pulls") or []
    if not pulls or not {"reached_nm", "torque_nm"} & set(pulls[0]):
        return None
    passes = sorted({pull["pass"] for pull in pulls})
    bolts = sorted({pull["bolt"] for pull in pulls})
    cells = {(bolt, which): list[Words]() for bolt in bolts for which in passes}
    for pull in pulls:
        cells[pull["bolt"], pull["pass"]].append(say_pull(pull))
    return BoltTable(
        passes=[f"pass {which}" for which in passes],
        rows=[BoltRow(bolt=f"bolt {bolt}", cells=[joined(cells[bolt, which]) for which in passes]) for bolt in bolts],
    )


def _numbered(dials: list[dict[str, Any]]) -> Iterator[tuple[int, dict[str, Any]]]:
    """Each dial with how many of its kind came up to it."""
    seen: Counter[str] = Counter()
    for dial in dials:
        seen[dial["kind"]] += 1
        yield seen[dial["kind"]], dial


def _figures(entry: Entry) -> list[FigureLine]:
    """Of a bench, but for what the step itself gave it; of a move, a count, a note: everything."""
    if entry.kind == EntryKind.VALUE:
        return _value_figures(entry)
    if entry.kind == EntryKind.PHOTOGRAPH:
        caption = entry.inputs["caption"]
        return [FigureLine(label="shows", value=words("{text}", text=caption), typed="")] if caption else []
    bench = (entry.result or {}).get("bench")
    inputs = in_order(bench, entry.inputs) if bench else entry.inputs
    given = frozenset(entry.asked.get("preset", {})) if bench else SAID_BY_THE_LABEL.get(EntryKind(entry.kind), frozenset())
    if pulls_of(entry):
        given |= {"pulls"}
    line = entry.job.as_spec
    machines = {"movable": line.machine(line.movable).called, "stationary": line.machine(line.stationary).called}
    return [
        FigureLine(
            label=NAMELESS.sub(lambda which: machines[which[1]], text),
            value=words(machines[value.template]) if value.template in machines else value,
            typed=entry.typed.get(path, ""),
        )
        for path, text, value in lines(inputs, given)
    ]


def _value_figures(entry: Entry) -> list[FigureLine]:
    """A figure put on the card, what stood there before, and why it was changed."""
    key = str(entry.inputs["key"])
    kind, value = on_its_line(key, Value.model_validate(entry.inputs["value"]))
    was = on_its_line(key, Value.model_validate(entry.inputs["was"]))[1] if entry.inputs.get("was") else None
    if kind is None:
        return [FigureLine(label=key, value=words(f"{value.value:g}"), typed=value.typed)]
    found = [FigureLine(label=kind.title, value=say_value(value, kind), typed=value.typed)]
    found += [FigureLine(label="from", value=words("{text}", text=value.source.say()), typed="")]
    if was is not None:
        found += [
            FigureLine(
                label="before", value=words("{was}, {source}", was=say_value(was, kind), source=was.source.say()), typed=""
            )
        ]
        found += [
            FigureLine(label="changed because", value=words("{text}", text=str(entry.inputs.get("reason", ""))), typed="")
        ]
    return found


def _sheet_figures(entry: Entry) -> list[FigureLine]:
    """In the order of the sheet as it was asked; a row is one figure. What nobody asked is shown under its own name."""
    asked, columns = entry.asked.get("fields", []), entry.asked.get("rows", [])
    found = [
        FigureLine(label=f"{entry.asked.get('row_name', 'row')} {i}", value=words("{row}", row=_row(row, columns)), typed="")
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
        found.append(FigureLine(label=field["label"], value=value, typed=entry.typed.get(field["key"], "")))
    return found


def _sheet_value(field: Mapping[str, Any], answer: Any, inputs: Mapping[str, Any]) -> Words:
    """An answer in words: a figure with its unit, a count beside what it had to be, marks by place, why there is none."""
    if field["kind"] == "tick":
        return words("none here: {why}", why=str(inputs.get(field["key"] + "_why", "")))
    if isinstance(answer, list):
        marks = ", ".join(f"{place} {mark}" for place, mark in zip(field.get("options", []), answer, strict=False))
        return words("{marks}", marks=marks)
    if not isinstance(answer, int | float) or isinstance(answer, bool):
        return words("{answer}", answer=str(answer))
    unit = field.get("unit", "")
    if field.get("expected") is not None:
        return words("{value} of {expected}", value=Figure(answer, ""), expected=Figure(field["expected"], unit))
    return words("{value}", value=Figure(answer, unit))


def _row(row: Mapping[str, Any], columns: list[dict[str, Any]]) -> str:
    """A row in one line, by the columns as they were asked."""
    labels = {column["key"]: column["label"].lower() for column in columns} or {key: key for key in row}
    return ", ".join(f"{label} {row[key]}" for key, label in labels.items() if row.get(key))
