"""What an entry answered: kept beside it, so that a record says what was asked then, whatever the route asks today."""

import json
from collections.abc import Mapping
from dataclasses import asdict, replace
from typing import Any

from pydantic import Field, JsonValue

from ..meaning import Meaning, to_keep
from ..model import Model, read_json
from ..plan.steps import BenchForm, SheetForm, Step
from .ledger import written_by

AS_THE_FILE_HAS_IT = "as_the_file_has_it"  # beside what is asked here: the words of a file, where they are others
NOT_JUDGED_HERE = "not judged here"  # an entry of a paper
AFTERWARDS = "filled in afterwards, from the route as it was then"  # an entry older than this habit
FIELD_KEPT = ("key", "kind", "label", "detail", "unit", "options", "none_of", "expected", "expected_of")


def asked_of(step: Step, inputs: Mapping[str, Any] | None = None) -> dict[str, Any]:
    """A step as it was asked, in plain JSON; with the ``inputs`` it was answered with, also what they wrote into the ledger.

    Stage, title and kind of form; of a bench its name, the limits and presets in force with their sources, and what it was
    compared with; of a sheet every field with its sentence and unit, so that a tick stays a tick of that sentence.
    """
    head = {**headed(step), "means": to_keep(meant(step, inputs or {}))}
    match step.form:
        case BenchForm() as form:
            return {**head, "bench": form.bench, "preset": dict(form.preset), "compare": dict(form.compare)}
        case SheetForm() as form:
            written = written_by(form, inputs or {})
            return {
                **head,
                "fields": [_kept(asdict(field)) for field in form.fields],
                "rows": [_kept(asdict(field)) for field in form.rows],
                "row_name": form.row_name,
                **({"ledger": written} if written else {}),
            }
        case _:
            return head


def meant(step: Step, inputs: Mapping[str, Any]) -> tuple[Meaning, ...]:
    """What a reading at this step is of, by what was answered: the step's own, and that of its single figures."""
    fields = step.form.fields if isinstance(step.form, SheetForm) else ()
    figures = tuple(replace(field.means, field=field.key) for field in fields if field.means is not None)
    return (*step.means, *(step.means_by(inputs) if step.means_by else ()), *figures)


def headed(step: Step) -> dict[str, Any]:
    """Where something was entered that the step did not ask for: a note, a move, an event, a count."""
    return {"stage": step.stage.value, "title": step.title, "form": step.form.kind}


def _kept(field: Mapping[str, Any]) -> dict[str, Any]:
    """Of a field what a record or a reader of it needs; what is empty is left out."""
    return {key: list(value) if key == "options" else value for key in FIELD_KEPT if (value := field[key])}


class AskedField(Model):
    """A field as a file has it."""

    key: str = Field(max_length=80)
    kind: str = Field(max_length=20)
    label: str = Field(default="", max_length=400)
    detail: str = Field(default="", max_length=800)
    unit: str = Field(default="", max_length=20)
    options: list[str] = Field(default_factory=list, max_length=40)
    none_of: str = Field(default="", max_length=200)
    expected: float | None = None
    expected_of: str = Field(default="", max_length=200)


class AskedInstrument(Model):
    """An instrument as a file has it."""

    kind: str = Field(max_length=40)
    name: str = Field(max_length=80)
    id: int | None = None
    said: str = Field(default="", max_length=120)


class Asked(Model):
    """What an entry of a file answered, as the file has it: what `asked_of` writes, in any of its forms."""

    stage: str = Field(default="", max_length=80)
    title: str = Field(default="", max_length=200)
    form: str = Field(default="", max_length=20)
    bench: str | None = Field(default=None, max_length=40)
    preset: dict[str, JsonValue] = Field(default_factory=dict)
    compare: dict[str, JsonValue] = Field(default_factory=dict)
    fields: list[AskedField] = Field(default_factory=list, max_length=200)
    rows: list[AskedField] = Field(default_factory=list, max_length=40)
    row_name: str = Field(default="", max_length=80)
    ledger: list[JsonValue] = Field(default_factory=list)
    means: list[dict[str, JsonValue]] = Field(default_factory=list, max_length=40)
    instruments: list[AskedInstrument] = Field(default_factory=list, max_length=12)
    note: str = Field(default="", max_length=200)
    as_the_file_has_it: dict[str, JsonValue] = Field(default_factory=dict)


def plainly(asked: Mapping[str, Any]) -> dict[str, Any]:
    """What a file says it was asked, to be shown and nothing else: it counts nothing out or back,
    and means what its step meant.

    Raises `UnusableInput` where nobody could show it.
    """
    read = read_json(Asked, json.dumps(asked)).model_dump(mode="json", exclude_defaults=True)
    return {key: value for key, value in read.items() if key not in ("ledger", "means", AS_THE_FILE_HAS_IT)}


def same_question(one: Mapping[str, Any], other: Mapping[str, Any]) -> bool:
    """Whatever words it is put in: the same form, fields, units, choices and limits."""
    return _bare(one) == _bare(other)


WORDED = frozenset({"label", "detail", "none_of", "expected_of", "source"})


def _bare(asked: Mapping[str, Any]) -> dict[str, Any]:
    kept = ("form", "bench", "preset", "fields", "rows")
    return {key: _without_words(asked[key]) for key in kept if asked.get(key)}


def _without_words(value: Any) -> Any:
    match value:
        case Mapping():
            return {key: _without_words(inner) for key, inner in value.items() if key not in WORDED}
        case list() | tuple():
            return [_without_words(inner) for inner in value]
        case _:
            return value
