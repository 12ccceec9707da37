"""What an entry answered: kept beside it, so that a record says what was asked then, whatever the route asks today."""

from collections.abc import Mapping
from dataclasses import asdict
from typing import Any

from .ledger import written_by
from .steps import BenchForm, SheetForm, Step

AFTERWARDS = "filled in afterwards, from the route as it was then"  # an entry older than this habit
FIELD_KEPT = ("key", "kind", "label", "detail", "unit", "options", "none_of", "expected", "expected_of")


def asked_of(step: Step, inputs: Mapping[str, Any] | None = None) -> dict[str, Any]:
    """A step as it was asked, in plain JSON; with the ``inputs`` it was answered with, also what they wrote into the ledger.

    Stage, title and kind of form; of a bench its name, the limits and presets in force with their sources, and what it was
    compared with; of a sheet every field with its sentence and unit, so that a tick stays a tick of that sentence.
    """
    head = headed(step)
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


def headed(step: Step) -> dict[str, Any]:
    """Where something was entered that the step did not ask for: a note, a move, an event, a count."""
    return {"stage": step.stage.value, "title": step.title, "form": step.form.kind}


def _kept(field: Mapping[str, Any]) -> dict[str, Any]:
    """Of a field what a record or a reader of it needs; what is empty is left out."""
    return {key: list(value) if key == "options" else value for key in FIELD_KEPT if (value := field[key])}
