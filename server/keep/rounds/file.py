"""A file of a line's earlier readings, as CSV: taken in whole, or refused with what is wrong and in which line."""

from collections.abc import Mapping, Sequence
from dataclasses import replace
from datetime import UTC, datetime
from typing import Any
from uuid import UUID, uuid4

from django.db import transaction
from django.shortcuts import get_object_or_404

from millwright.csv_readings import rows_of
from millwright.errors import Problem, UnusableInput, refuse_if_any
from millwright.keep.past import Look
from millwright.roles import Deed
from millwright.units import MM_PER_INCH
from server.accounts.auth import require
from server.accounts.models import Membership
from server.journal.write import write_down
from server.plant.models import Line, LineLook
from server.web.times import time_problems

from ..due.summary import keep_up
from .looks import goes_back, row_of

MOST_ROWS = 20_000
MOST_PROBLEMS = 20
FROM_A_FILE = "from a file"
A_DAY = 10  # characters of a day without a time
IN_A_FILE = {  # head of a column: figure, and what a value is multiplied by
    "wear_mm": ("wear_mm", 1.0),
    "wear_in": ("wear_mm", MM_PER_INCH),
    "temperature_c": ("temperature_c", 1.0),
    "vibration_mm_per_s": ("vibration_mm_per_s", 1.0),
    "vibration_in_per_s": ("vibration_mm_per_s", MM_PER_INCH),
    "hours": ("hours", 1.0),
}


@transaction.atomic
def take_file(line_id: UUID, text: str, *, by: Membership, now: datetime, confirmed: bool = False) -> int:
    """A file of earlier readings of a line, as CSV: all of it, or nothing with what is wrong and in which line.

    ``confirmed`` - the figures that go back are as they were read: a file is asked what a tap is asked
    First column `at`, the day or the moment; then any of `IN_A_FILE`. Returns how many were taken in. Readings of a moment
    that is there already are left out.
    """
    require(by, Deed.KEEP_LINES)
    line = get_object_or_404(Line.objects.visible_to(by).select_for_update(no_key=True), pk=line_id)
    looks = read_file(text, now)
    there = set(line.looks.counting().values_list("at", flat=True))
    fresh = [look for _, look in looks if look.at not in there]
    if not confirmed:
        number = {id(look): line for line, look in looks}
        told = [replace(one, path=f"line {number[id(look)]}") for look, one in goes_back(line, fresh)]
        refuse_if_any(told[:MOST_PROBLEMS])
    write_down(line.site_id, LineLook.objects.bulk_create(row_of(line, uuid4(), look, by, now) for look in fresh))
    keep_up(line)
    return len(fresh)


def read_file(text: str, now: datetime) -> list[tuple[int, Look]]:
    """The looks of a CSV file, each with its line. Raises `UnusableInput` naming line and column, a few of them at most."""
    reader = iter(rows_of(text.lstrip("\ufeff"), ";" if ";" in text.split("\n", 1)[0] else ","))
    head = [cell.strip().lower() for cell in next(reader, [])]
    refuse_if_any(_head_problems(head))
    found: list[tuple[int, Look]] = []
    problems: list[Problem] = []
    for number, row in enumerate(reader, start=2):
        if not any(cell.strip() for cell in row):
            continue
        if len(found) >= MOST_ROWS:
            raise UnusableInput(Problem("file", f"More than {MOST_ROWS:,} readings in one file. Split it, or thin it out."))
        look = _row(number, dict(zip(head, row, strict=False)), now, problems)
        if look is not None:
            found.append((number, look))
        if len(problems) >= MOST_PROBLEMS:
            break
    refuse_if_any(problems)
    if not found:
        raise UnusableInput(Problem("file", "There is no reading in this file."))
    return found


def _head_problems(head: Sequence[str]) -> list[Problem]:
    found = []
    if not head or head[0] != "at":
        found.append(Problem("line 1", f"The first column is called at; then any of {', '.join(IN_A_FILE)}."))
        return found
    found += [
        Problem("line 1", f"No column is called {name or 'nothing'}; there are at, {', '.join(IN_A_FILE)}.")
        for name in head[1:]
        if name not in IN_A_FILE
    ]
    figures = [IN_A_FILE[name][0] for name in head[1:] if name in IN_A_FILE]
    found += [
        Problem("line 1", f"{figure.rpartition('_')[0] or figure} is there in two units. Keep one of them.")
        for figure in dict.fromkeys(figures)
        if figures.count(figure) > 1
    ]
    return found or ([] if figures else [Problem("line 1", "There is no column with a figure.")])


def _row(number: int, row: Mapping[str, str], now: datetime, problems: list[Problem]) -> Look | None:
    at = _moment(row.get("at", "").strip())
    if at is None:
        problems.append(Problem(f"line {number}", f"“{row.get('at', '')[:30]}” is no day. Write 2026-03-31, or with 14:05."))
        return None
    if amiss := time_problems(f"line {number}", at, now):
        problems += amiss
        return None
    values: dict[str, Any] = {}
    for name, (key, factor) in IN_A_FILE.items():
        cell = row.get(name, "").strip()
        if not cell:
            continue
        try:
            values[key] = float(cell.replace(",", ".")) * factor
        except ValueError:
            problems.append(Problem(f"line {number}", f"{name}: “{cell[:20]}” is no number."))
            return None
    try:
        return Look(at=at, note=FROM_A_FILE, **values)
    except ValueError:
        problems.append(Problem(f"line {number}", "A figure here is beyond anything met in practice. A slip?"))
        return None


def _moment(text: str) -> datetime | None:
    try:
        at = datetime.fromisoformat(text if len(text) > A_DAY else f"{text}T12:00")
    except ValueError:
        return None
    return at if at.tzinfo else at.replace(tzinfo=UTC)
