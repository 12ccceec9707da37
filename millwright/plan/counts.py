"""Rows that count back what went out."""

from collections.abc import Callable

from .fields import TEMPORARY, Counted, Field, slug
from .steps import JobFacts


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
