"""Readings as an instrument streams them: one JSON object a line."""

from dataclasses import replace
from typing import Literal

from pydantic import Field

from ...errors import Problem, UnusableInput
from ...model import Clock, Model, Name, Reading, read_json

MOST_LINES = 2_000


class StreamedReading(Model):
    """One reading of a laser's plane; `seq` counts up, so that what is sent twice is known."""

    device: Name = Field(min_length=1, max_length=60)
    seq: int = Field(ge=0, le=2**53)
    plane: Literal[0, 1] = Field(description="0 on the movable shaft's side of the coupling, 1 on the stationary one's")
    clock: Clock
    value_mm: Reading


def read_lines(text: str) -> list[StreamedReading]:
    """Every line, or none: what cannot be read is named by its line, counted from 0 ("lines.3.value_mm").

    Raises `UnusableInput` with every problem found; also for more than ``MOST_LINES`` lines, and for two devices at once.
    """
    found: list[StreamedReading] = []
    problems: list[Problem] = []
    lines = [line for line in text.splitlines() if line.strip()]
    if not 0 < len(lines) <= MOST_LINES:
        raise UnusableInput(Problem("lines", f"Send 1 to {MOST_LINES} lines at a time; there are {len(lines)}."))
    for i, line in enumerate(lines):
        try:
            found.append(read_json(StreamedReading, line))
        except UnusableInput as refused:
            problems += [replace(p, path=f"lines.{i}.{p.path}".rstrip(".")) for p in refused.problems]
    if len({reading.device for reading in found}) > 1:
        problems.append(Problem("lines", "One device sends at a time; here are two."))
    if problems:
        raise UnusableInput(*problems)
    return found
