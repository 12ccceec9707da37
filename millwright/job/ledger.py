"""The ledger: what went in and must come out, what came off and must go back; most of it written by the steps themselves."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from typing import Any

from ..plan.steps import SheetForm


@dataclass(frozen=True, kw_only=True)
class LedgerLine:
    """Something that went in and must come out, or came off and must go back."""

    line: str
    what: str
    goes: str
    out: int
    back: int

    @property
    def open(self) -> bool:
        """Still to be counted back."""
        return self.missing > 0

    @property
    def missing(self) -> int:
        """How many are still out."""
        return self.out - self.back


@dataclass(frozen=True, kw_only=True)
class Moved:
    """So many of a line, out or back; ``number`` of the entry that says so, ``step`` where it was counted."""

    number: int
    step: str
    line: str
    what: str
    goes: str
    counted: str
    count: int


@dataclass
class _Cycle:
    """A line from the first part that went out to the last that came back: by step, what was counted there last."""

    what: str
    goes: str
    out: dict[str, int] = field(default_factory=dict)
    back: dict[str, int] = field(default_factory=dict)

    @property
    def closed(self) -> bool:
        return bool(self.back) and sum(self.back.values()) >= sum(self.out.values())


def written_by(form: object, inputs: Mapping[str, Any]) -> list[dict[str, Any]]:
    """What a filled sheet writes into the ledger, in plain JSON; kept with the entry, whatever becomes of its step."""
    if not isinstance(form, SheetForm):
        return []
    return [
        {
            "line": field.ledger.line,
            "what": field.ledger.what,
            "goes": field.ledger.goes,
            "counted": field.ledger.counted,
            "count": inputs[field.key],
        }
        for field in form.fields
        if field.ledger is not None and isinstance(inputs.get(field.key), int)
    ]


def lines_of(moves: Iterable[Moved]) -> tuple[LedgerLine, ...]:
    """The ledger as it stands, from everything that was ever counted out or back.

    A step that is read again while its line is open puts its own count right. A line that was closed and opens again begins
    anew: what came back before counts no more.
    """
    found: dict[str, _Cycle] = {}
    for moved in sorted(moves, key=lambda m: m.number):
        cycle = found.get(moved.line)
        if cycle is None or (moved.counted == "out" and cycle.closed):
            cycle = found[moved.line] = _Cycle(what=moved.what, goes=moved.goes)
        (cycle.out if moved.counted == "out" else cycle.back)[moved.step] = moved.count
    lines = (
        LedgerLine(line=line, what=c.what, goes=c.goes, out=sum(c.out.values()), back=sum(c.back.values()))
        for line, c in found.items()
    )
    return tuple(line for line in lines if line.out)
