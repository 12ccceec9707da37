"""The ledger: what went in and must come out, what came off and must go back; most of it written by the steps themselves."""

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass
from typing import Any

from .fields import TEMPORARY, Counted, Field, slug
from .steps import JobFacts, SheetForm


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
    """So many of a line, out or back; ``number`` of the entry that says so."""

    number: int
    line: str
    what: str
    goes: str
    counted: str
    count: int


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


def lines_of(by_hand: Iterable[Moved], by_steps: Iterable[Moved]) -> tuple[LedgerLine, ...]:
    """The ledger as it stands.

    ``by_hand``  - each adds to its line
    ``by_steps`` - of the latest reading of each step; what was counted back before it last went out counts no more
    """
    found: dict[str, LedgerLine] = {}
    steps = list(by_steps)
    went_out = {moved.line: moved.number for moved in sorted(steps, key=lambda m: m.number) if moved.counted == "out"}
    since = [m for m in steps if m.counted == "out" or m.number > went_out.get(m.line, 0)]
    for moved in sorted([*by_hand, *since], key=lambda m: m.number):
        before = found.get(moved.line)
        found[moved.line] = LedgerLine(
            line=moved.line,
            what=before.what if before else moved.what,
            goes=before.goes if before else moved.goes,
            out=(before.out if before else 0) + (moved.count if moved.counted == "out" else 0),
            back=(before.back if before else 0) + (moved.count if moved.counted == "back" else 0),
        )
    return tuple(line for line in found.values() if line.out)


def back(key: str, label: str, what: str, *, detail: str = "") -> Callable[[JobFacts], Field]:
    """A count that closes a line of the ledger: as many as went out."""

    def row(job: JobFacts) -> Field:
        line = Counted(line=slug(what), what=what, goes=TEMPORARY, counted="back")
        return Field(
            key=key,
            kind="count",
            label=label,
            detail=detail,
            expected=job.out.get(line.line),
            expected_of="the ledger",
            ledger=line,
        )

    return row
