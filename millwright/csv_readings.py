"""Clock readings as CSV: a head line `clock,value_mm`, then one reading a line."""

import csv
import io
import math

from pydantic import Field

from .clock import ClockReading
from .errors import Problem, UnusableInput
from .model import Model

HEAD = ["clock", "value_mm"]
MOST_LINES = 20_000


class Readings(Model):
    """A list of clock readings on its own."""

    readings: list[ClockReading] = Field(min_length=1, max_length=MOST_LINES)


def write_csv(readings: list[ClockReading]) -> str:
    """The readings as CSV text, figures in full.

    >>> write_csv([ClockReading(clock=90, value_mm=-0.05)])
    'clock,value_mm\\n90.0,-0.05\\n'
    """
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(HEAD)
    writer.writerows((r.clock, r.value_mm) for r in readings)
    return out.getvalue()


def rows_of(text: str, delimiter: str = ",", what: str = "readings") -> list[list[str]]:
    """The rows of a CSV file. Raises `UnusableInput` where it is none: a cell without end, a control character."""
    try:
        return list(csv.reader(io.StringIO(text), delimiter=delimiter))
    except csv.Error:
        raise UnusableInput(Problem("line 1", f"This is not a text file of {what}.")) from None


def read_csv(text: bytes) -> list[ClockReading]:
    """Read what `write_csv` wrote. Raises `UnusableInput` naming the line; then nothing is read."""
    try:
        rows = rows_of(text.decode("utf-8-sig"))
    except UnicodeDecodeError:
        raise UnusableInput(Problem("line 1", "This is not a text file of readings.")) from None
    if not rows or [cell.strip() for cell in rows[0]] != HEAD:
        raise UnusableInput(Problem("line 1", f"The first line must be: {','.join(HEAD)}."))
    if len(rows) - 1 > MOST_LINES:
        raise UnusableInput(Problem(f"line {MOST_LINES + 2}", f"More than {MOST_LINES} readings."))
    readings, problems = [], []
    for number, row in enumerate(rows[1:], start=2):
        if not row:
            continue
        reading = _read_row(row)
        if reading is None:
            problems.append(Problem(f"line {number}", f"Enter two numbers, clock and mm: {','.join(row)[:60]}"))
        else:
            readings.append(reading)
    if not readings and not problems:
        problems.append(Problem("line 2", "There are no readings in this file."))
    if problems:
        raise UnusableInput(*problems)
    return readings


def _read_row(row: list[str]) -> ClockReading | None:
    try:
        clock, value = (float(cell) for cell in row)
    except ValueError:
        return None
    if not (math.isfinite(clock) and math.isfinite(value) and -360 <= clock <= 720 and abs(value) <= 100):
        return None
    return ClockReading(clock=clock, value_mm=value)
