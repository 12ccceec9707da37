"""Writing into the journal, in the transaction of what is written down."""

from collections.abc import Sequence
from uuid import UUID

from django.db.models import Model
from django.utils import timezone

from server.accounts.models import Site

from .digest import digest, digest_of_row
from .models import JournalLine


def write_down(site_id: UUID, rows: Sequence[Model], *, without: frozenset[str] = frozenset()) -> None:
    """A line for rows of one kind that were just saved. The site is held until the transaction ends: one line at a time.

    ``without`` - columns that may change later
    """
    if not rows:
        return
    site = Site.objects.select_for_update(no_key=True).only("journal_number", "journal_head").get(pk=site_id)
    line = JournalLine(
        site_id=site_id,
        number=site.journal_number + 1,
        what=rows[0]._meta.label_lower,
        rows={str(row.pk): digest_of_row(row, without=without) for row in rows},
        at=timezone.now(),
    )
    line.chain = link(site.journal_head, line)
    line.save(force_insert=True)


def link(before: str, line: JournalLine) -> str:
    """The hash of a line and of the one before it."""
    content = {"before": before, "site": line.site_id, "number": line.number, "what": line.what, "rows": line.rows}
    return digest({**content, "at": line.at})
