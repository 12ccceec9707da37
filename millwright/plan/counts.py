"""Rows that count out what is there, and back what went out."""

from collections.abc import Callable
from dataclasses import replace

from ..card.values import source_of
from .circles import line_of
from .families.facts import COUNT
from .fields import TEMPORARY, Counted, Field, Goes, out, slug
from .steps import JobFacts


def out_all(key: str, label: str, what: str, goes: Goes, *circles: str) -> Callable[[JobFacts], Field]:
    """A count that opens a line of the ledger, of a thing each bolt of these circles has one of: as many as the card says."""

    def row(job: JobFacts) -> Field:
        lines = [line_of(job, job.family.circle(circle), COUNT) for circle in circles]
        asked = out(key, label, what, goes, least=1)
        if not all(line in job.card for line in lines):
            return asked
        expected = sum(round(job.card[line].value) for line in lines)
        return replace(asked, detail="", expected=expected, expected_of=source_of(job.card, lines[0]))

    return row


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
