"""What is wrong with an input, in words for the person who typed it."""

from collections.abc import Iterable
from dataclasses import dataclass


@dataclass(frozen=True)
class Problem:
    """One thing to put right: a path into the caller's JSON ("dials.0.x_mm") and a sentence."""

    path: str
    message: str


class UnusableInput(Exception):
    """The input cannot be evaluated; `problems` says everything that is wrong with it, not the first thing only."""

    def __init__(self, *problems: Problem) -> None:
        super().__init__("; ".join(f"{p.path}: {p.message}" for p in problems))
        self.problems = problems


def refuse_if_any(problems: Iterable[Problem]) -> None:
    """Raise `UnusableInput` with all of them where there is at least one."""
    found = tuple(problems)
    if found:
        raise UnusableInput(*found)
