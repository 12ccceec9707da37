"""What a sheet can ask: a tick, a part's condition, a choice, words, a figure, a count, marks that must agree."""

from dataclasses import dataclass
from typing import Literal

from ..meaning import Meaning

FieldKind = Literal["tick", "condition", "text", "length", "number", "choice", "date", "count", "marks"]
Goes = Literal["temporary, must come out", "removed, must go back"]
Way = Literal["out", "back"]
TEMPORARY: Goes = "temporary, must come out"
REMOVED: Goes = "removed, must go back"
# What choices were called in jobs and files of an earlier version.
FORMERLY = {
    "slips on by hand": "slide it on by hand",
    "needs work": "rework the hub",
    "home on its mark": "seated at the mark",
    "stuck half way": "stuck short of the mark",
}
NONE_HERE = "none"  # answer of a tick that may not apply; words go with it


@dataclass(frozen=True, kw_only=True)
class Counted:
    """What a count writes into the ledger: a temporary part goes in and comes out again, a removed one goes back."""

    line: str
    what: str
    goes: Goes
    counted: Way


@dataclass(frozen=True, kw_only=True)
class Field:
    """One thing a sheet asks.

    ``none_of``  - of a tick or a part that may not be there: "none on this coupling"; whoever says so says why
    ``options``  - of a choice; of marks the places they are read at, which must agree
    ``expected`` - of a count: what it must come to, and ``expected_of`` whose figure that is
    ``least``    - of a count: fewer than this is never all of them
    ``ledger``   - of a count: the line it writes
    ``beside``   - of a count: the part whose row it stands in
    ``means``    - what is read here, where it is more than an answer to this sheet
    ``of_register`` - of a number of an instrument: the kind it is chosen by from the site's register
    """

    key: str
    kind: FieldKind
    label: str
    detail: str = ""
    unit: str = ""
    options: tuple[str, ...] = ()
    required: bool = True
    picture: Literal["", "disc pack"] = ""  # what to look for, drawn beside it
    none_of: str = ""
    expected: int | None = None
    expected_of: str = ""
    least: int = 0
    ledger: Counted | None = None
    beside: str = ""
    means: Meaning | None = None
    of_register: Literal["", "torque wrench"] = ""


def tick(key: str, label: str, detail: str = "", *, none_of: str = "") -> Field:
    """Done or not; with ``none_of``, or there is nothing of it here, and why."""
    return Field(key=key, kind="tick", label=label, detail=detail, none_of=none_of)


def condition(key: str, label: str, detail: str = "", *, none_of: str = "") -> Field:
    """In order or not; with ``none_of``, or this one has none, and why."""
    return Field(key=key, kind="condition", label=label, detail=detail, none_of=none_of)


def choice(key: str, label: str, *options: str, detail: str = "") -> Field:
    """One of a few."""
    return Field(key=key, kind="choice", label=label, detail=detail, options=options)


def text(key: str, label: str, detail: str = "", *, required: bool = True, means: Meaning | None = None) -> Field:
    """A few words."""
    return Field(key=key, kind="text", label=label, detail=detail, required=required, means=means)


def length(key: str, label: str, detail: str = "", *, required: bool = True, means: Meaning | None = None) -> Field:
    """A length; its key ends in _mm."""
    return Field(key=key, kind="length", label=label, detail=detail, unit="mm", required=required, means=means)


def number(
    key: str, label: str, unit: str, detail: str = "", *, required: bool = True, means: Meaning | None = None
) -> Field:
    """A figure that is no length."""
    return Field(key=key, kind="number", label=label, detail=detail, unit=unit, required=required, means=means)


def count(key: str, label: str, detail: str = "", *, expected: int | None = None, of: str = "") -> Field:
    """How many, where it is known with whose figure it must agree."""
    return Field(key=key, kind="count", label=label, detail=detail, expected=expected, expected_of=of)


def marks(key: str, label: str, *places: str, detail: str = "") -> Field:
    """Marks as they are read at two places or more; all must agree."""
    return Field(key=key, kind="marks", label=label, detail=detail, options=places)


def out(key: str, label: str, what: str, goes: Goes = TEMPORARY, *, detail: str = "", least: int = 0) -> Field:
    """A count that opens a line of the ledger; where it is known how many there are: `counts.out_all`."""
    line = Counted(line=slug(what), what=what, goes=goes, counted="out")
    said = "; ".join(filter(None, (detail, f"at least {least}" if least else "")))
    return Field(key=key, kind="count", label=label, detail=said, ledger=line, least=least)


def slug(what: str) -> str:
    """The name of a ledger line."""
    return what.lower().replace(" ", "-").replace(",", "")
