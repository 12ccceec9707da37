"""Reads what was entered on a sheet and says whether it is complete and in order."""

import math
from collections.abc import Callable, Mapping
from datetime import date
from itertools import pairwise
from typing import Any

from ..errors import Problem, refuse_if_any
from ..model import is_one_line
from ..say import say
from ..verdict import Check, Result, Status, Verdict, said_by_hand, worst
from .fields import FORMERLY, NONE_HERE, Field
from .steps import JobFacts, SheetForm, Step

MOST_ROWS = 40
LONGEST_TEXT = 400
LONGEST_MARK = 40
MOST_COUNTED = 500
MOST_LENGTH_MM = 10_000
NOT_OK = "not ok"
CONDITIONS = ("ok", NOT_OK)


def evaluate(step: Step, form: SheetForm, answers: Mapping[str, Any], job: JobFacts) -> Result:
    """Verdict on a filled sheet: incomplete while something wanted is missing, over where something is not in order.

    Raises `UnusableInput` for unknown names, text for a number, a choice that is not there.
    """
    answers = {key: FORMERLY.get(answer, answer) if isinstance(answer, str) else answer for key, answer in answers.items()}
    _refuse_unusable(form, answers)
    lacking = [*_lacking(form, answers), *(step.lacks(job, answers) if step.lacks else ())]
    named = {field.label for field in form.fields}
    checks = [check for field in form.fields for check in _of_field(field, answers.get(field.key))]
    wrong = [check.name for check in checks if check.status is Status.OVER]
    says = [say("not_in_order", "{name} is not in order." if name in named else "{name}.", name=name) for name in wrong]
    if step.judge is not None:
        judged, told = step.judge(job, answers)
        checks, says = checks + judged, says + told
    if Verdict.OVER in {worst([c]) for c in checks} and step.on_fail:
        says.append(say("on_fail", "{what}", what=step.on_fail))
    if lacking:
        what = "; ".join(lacking[:4]) + ("; …" if len(lacking) > 4 else "")
        says.append(say("still_to_fill_in", "Still to fill in: {what}.", what=what))
    return Result(bench="sheet", verdict=worst(checks, lacking=bool(lacking)), checks=checks, says=says, working=[])


def _refuse_unusable(form: SheetForm, answers: Mapping[str, Any]) -> None:
    known = {field.key: field for field in form.fields}
    known |= {why_key(field): _why(field) for field in form.fields if field.none_of}
    found = []
    for key, answer in answers.items():
        if key == "rows" and form.rows:
            found += _row_problems(form, answer)
        elif key not in known:
            found.append(Problem(key, "This name is not known here. Is it misspelt?"))
        elif (says := _unusable(known[key], answer)) is not None:
            found.append(Problem(key, says))
    refuse_if_any(found or _out_of_order(form, answers))


def _out_of_order(form: SheetForm, answers: Mapping[str, Any]) -> list[Problem]:
    """Ticks that were set while one above them was not."""
    if not form.ordered:
        return []
    ticks = [field for field in form.fields if field.kind == "tick"]
    for above, field in pairwise(ticks):
        if _missing(above, answers.get(above.key)) and not _missing(field, answers.get(field.key)):
            return [Problem(field.key, f"First: {above.label}.")]
    return []


def _row_problems(form: SheetForm, rows: Any) -> list[Problem]:
    if not isinstance(rows, list) or len(rows) > MOST_ROWS or not all(isinstance(row, dict) for row in rows):
        return [Problem("rows", f"Enter a list of at most {MOST_ROWS} rows.")]
    columns = {field.key: field for field in form.rows}
    found = []
    for i, row in enumerate(rows):
        for key, answer in row.items():
            says = _unusable(columns[key], answer) if key in columns else "This name is not known here."
            if says is not None:
                found.append(Problem(f"rows.{i}.{key}", says))
    return found


def _unusable(field: Field, answer: Any) -> str | None:
    """What is wrong with an answer; nothing given is never wrong, only incomplete."""
    if answer is None or answer == "":
        return None
    if field.kind in ("length", "number"):
        return _unusable_figure(answer)
    if field.kind == "marks":
        return _unusable_marks(field, answer)
    usable, says = _CLOSED_KINDS[field.kind](field, answer)
    return None if usable else says


def _unusable_figure(answer: Any) -> str | None:
    if isinstance(answer, bool) or not isinstance(answer, int | float) or not math.isfinite(answer):
        return "Enter a number."
    return None if abs(answer) <= MOST_LENGTH_MM * 10 else "This is bigger than what can be here. A slip?"


def _unusable_marks(field: Field, answer: Any) -> str | None:
    if not isinstance(answer, list) or len(answer) != len(field.options):
        return f"Enter a mark for each of: {', '.join(field.options)}."
    usable = all(mark is None or _is_words(mark, LONGEST_MARK) for mark in answer)
    return None if usable else f"A mark is at most {LONGEST_MARK} letters on one line."


def _is_words(answer: Any, longest: int) -> bool:
    return isinstance(answer, str) and len(answer) <= longest and is_one_line(answer)


def _is_tick(field: Field, answer: Any) -> bool:
    return isinstance(answer, bool) or (bool(field.none_of) and answer == NONE_HERE)


def _is_count(answer: Any) -> bool:
    return isinstance(answer, int) and not isinstance(answer, bool) and 0 <= answer <= MOST_COUNTED


_CLOSED_KINDS: Mapping[str, Callable[[Field, Any], tuple[bool, str]]] = {
    "tick": lambda field, answer: (_is_tick(field, answer), "This is ticked or not."),
    "condition": lambda field, answer: (
        answer in CONDITIONS or (bool(field.none_of) and answer == NONE_HERE),
        "This is ok or not ok.",
    ),
    "choice": lambda field, answer: (answer in field.options, f"This is one of: {', '.join(field.options)}."),
    "count": lambda field, answer: (_is_count(answer), f"This is counted: a whole number up to {MOST_COUNTED}."),
    "text": lambda field, answer: (
        _is_words(answer, LONGEST_TEXT),
        f"Enter one line of text, at most {LONGEST_TEXT} letters.",
    ),
    "date": lambda field, answer: (_is_date(answer), "Enter a date."),
}


def _is_date(answer: Any) -> bool:
    try:
        date.fromisoformat(answer)
    except (TypeError, ValueError):
        return False
    return True


def _lacking(form: SheetForm, answers: Mapping[str, Any]) -> list[str]:
    lacking = [f.label for f in form.fields if f.required and _missing(f, answers.get(f.key))]
    lacking += [
        f"why there is none: {f.label.lower()}"
        for f in form.fields
        if f.none_of and answers.get(f.key) == NONE_HERE and not str(answers.get(why_key(f)) or "").strip()
    ]
    if form.rows:
        rows = answers.get("rows") or []
        if not rows:
            lacking.append(f"at least one {form.row_name}")
        lacking += [
            f"{column.label.lower()} of {form.row_name} {i}"
            for i, row in enumerate(rows, start=1)
            for column in form.rows
            if column.required and _missing(column, row.get(column.key))
        ]
    return lacking


def _missing(field: Field, answer: Any) -> bool:
    if field.kind == "tick":
        return answer is not True and answer != NONE_HERE
    if field.kind == "marks":
        return not answer or any(not str(mark or "").strip() for mark in answer)
    return answer is None or (isinstance(answer, str) and not answer.strip())


def _of_field(field: Field, answer: Any) -> list[Check]:
    """What a condition, a count or marks say by themselves."""
    match field.kind:
        case "condition" if answer == NOT_OK:
            return [said_by_hand(field.key, field.label, "the person who looked", in_order=False)]
        case "count" if isinstance(answer, int) and field.expected is not None:
            name = f"{field.label}: {answer} of {field.expected}"
            return [said_by_hand(field.key, name, field.expected_of, in_order=answer == field.expected)]
        case "count" if isinstance(answer, int) and answer < field.least:
            name = f"{field.label}: {answer}, at least {field.least}"
            return [said_by_hand(field.key, name, "none is never all of them", in_order=False)]
        case "marks" if not _missing(field, answer):
            read = {str(mark).strip().casefold() for mark in answer}
            name = field.label if len(read) == 1 else f"{field.label}: they differ"
            return [said_by_hand(field.key, name, "the person who read them", in_order=len(read) == 1)]
        case _:
            return []


def why_key(field: Field) -> str:
    """Under which name the words stand, where there is nothing of it here."""
    return f"{field.key}_why"


def _why(field: Field) -> Field:
    return Field(key=why_key(field), kind="text", label=f"{field.label}: why none")
