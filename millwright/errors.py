"""What is wrong with an input, in words for the person who typed it."""

from collections.abc import Iterable
from dataclasses import asdict, dataclass
from typing import Any

from .say import Part, Words, words


@dataclass(frozen=True)
class Problem:
    """One thing to put right: a path into the caller's JSON ("dials.0.x_mm") and a sentence; `says` holds its figures.

    ``code`` - what kind of a problem it is, where somebody acts on that
    """

    path: str
    message: str
    says: Words | None = None
    code: str = ""


def problem(path: str, template: str, code: str = "", /, **parts: Part) -> Problem:
    """A problem whose sentence holds figures; ``parts`` as in `say.words`."""
    says = words(template, **parts)
    return Problem(path, str(says), says, code)


def as_json(found: Problem) -> dict[str, Any]:
    """A problem as plain JSON types."""
    plain: dict[str, Any] = {"path": found.path, "message": found.message}
    return plain | ({"says": asdict(found.says)} if found.says else {}) | ({"code": found.code} if found.code else {})


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
