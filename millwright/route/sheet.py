"""Reads what was entered on a sheet and says whether it is complete and in order."""

import math
from collections.abc import Mapping
from datetime import date
from typing import Any

from ..errors import Problem, refuse_if_any
from ..model import is_one_line
from ..verdict import Check, Result, Verdict, said_by_hand, worst
from .steps import Field, SheetForm, Step

MOST_ROWS = 40
LONGEST_TEXT = 400
MOST_LENGTH_MM = 10_000
NOT_OK = "not ok"
CONDITIONS = ("ok", NOT_OK)


def evaluate(step: Step, form: SheetForm, answers: Mapping[str, Any]) -> Result:
    """Verdict on a filled sheet: incomplete while something wanted is missing, over where something is not in order.

    Raises `UnusableInput` for unknown names, text for a number, a choice that is not there.
    """
    _refuse_unusable(form, answers)
    lacking = _lacking(form, answers)
    checks = [_not_in_order(field) for field in form.fields if field.kind == "condition" and answers.get(field.key) == NOT_OK]
    advice = [f"{check.name} is not in order." for check in checks]
    if step.judge is not None:
        judged, says = step.judge(answers)
        checks, advice = checks + judged, advice + says
    if Verdict.OVER in {worst([c]) for c in checks} and step.on_fail:
        advice.append(step.on_fail)
    if lacking:
        advice.append("Still wanted: " + "; ".join(lacking[:4]) + ("; …" if len(lacking) > 4 else "") + ".")
    return Result(bench="sheet", verdict=worst(checks, lacking=bool(lacking)), checks=checks, advice=advice, working=[])


def _refuse_unusable(form: SheetForm, answers: Mapping[str, Any]) -> None:
    known = {field.key: field for field in form.fields}
    found = []
    for key, answer in answers.items():
        if key == "rows" and form.rows:
            found += _row_problems(form, answer)
        elif key not in known:
            found.append(Problem(key, "This name is not known here. Is it misspelt?"))
        elif (says := _unusable(known[key], answer)) is not None:
            found.append(Problem(key, says))
    refuse_if_any(found)


def _row_problems(form: SheetForm, rows: Any) -> list[Problem]:
    if not isinstance(rows, list) or len(rows) > MOST_ROWS or not all(isinstance(row, dict) for row in rows):
        return [Problem("rows", f"This wants a list of at most {MOST_ROWS} rows.")]
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
    match field.kind:
        case "tick":
            return None if isinstance(answer, bool) else "This is ticked or not."
        case "condition":
            return None if answer in CONDITIONS else "This is ok or not ok."
        case "choice":
            return None if answer in field.options else f"This is one of: {', '.join(field.options)}."
        case "text":
            usable = isinstance(answer, str) and len(answer) <= LONGEST_TEXT and is_one_line(answer)
            return None if usable else f"This wants words on one line, at most {LONGEST_TEXT} letters."
        case "date":
            return None if _is_date(answer) else "This wants a date."
        case "length" | "number":
            if isinstance(answer, bool) or not isinstance(answer, int | float) or not math.isfinite(answer):
                return "This wants a number."
            return None if abs(answer) <= MOST_LENGTH_MM * 10 else "This is bigger than what can be here. A slip?"


def _is_date(answer: Any) -> bool:
    try:
        date.fromisoformat(answer)
    except (TypeError, ValueError):
        return False
    return True


def _lacking(form: SheetForm, answers: Mapping[str, Any]) -> list[str]:
    lacking = [f.label for f in form.fields if f.required and _missing(f, answers.get(f.key))]
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
        return answer is not True
    return answer is None or (isinstance(answer, str) and not answer.strip())


def _not_in_order(field: Field) -> Check:
    return said_by_hand(field.label, "the person who looked", in_order=False)
