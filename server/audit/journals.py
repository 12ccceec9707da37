"""The journal of every site, and the rows it tells of: looks, what was put off, records as issued, changes of lines."""

import logging
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from django.db import transaction
from django.db.models import Model

from server.accounts.models import Site
from server.catalogue.models import CatalogueChange, CouplingSize
from server.instruments.models import InstrumentChange
from server.instruments.register import instruments_of
from server.jobs.models import Job
from server.journal.digest import START, digest_of_row
from server.journal.models import JournalLine
from server.journal.write import link
from server.keep.models import Postponement
from server.plant.models import Line, LineChange, LineLook, LookSlip
from server.reports.issue import digest_of
from server.reports.models import IssuedRecord

from .broken import NOTHING_SEALED, Broken, Sealed, held_against

logger = logging.getLogger(__name__)
AT_A_TIME = 1_000


@dataclass(frozen=True, kw_only=True)
class Told:
    """A kind of row that the journal tells of."""

    model: type[Model]
    site: str  # the way to its site
    called: str
    without: frozenset[str] = frozenset()

    @property
    def label(self) -> str:
        """As the journal names it."""
        return self.model._meta.label_lower


KINDS = (
    Told(model=Job, site="site", called="job", without=Job.CHANGES_LATER),
    Told(model=IssuedRecord, site="job__site", called="record as issued"),
    Told(model=LineLook, site="line__site", called="look of a round"),
    Told(model=LookSlip, site="look__line__site", called="look that was a slip"),
    Told(model=Postponement, site="line__site", called="what was put off"),
    Told(model=LineChange, site="line__site", called="change of a line"),
    Told(model=InstrumentChange, site="site", called="change of an instrument"),
    Told(model=CatalogueChange, site="of__site", called="change of the catalogue"),
)
BY_LABEL = {kind.label: kind for kind in KINDS}


def verify_journals(seal: Sealed = NOTHING_SEALED) -> Iterator[Broken]:
    """Every line of every journal, every row it tells of, and every row it does not tell of."""
    for site in Site.objects.order_by("name"):
        yield from _read(f"{site.name}, journal", _journal(site, seal))
        for kind in KINDS:
            yield from _read(f"{site.name}, {kind.called}", _untold(site, kind))
        yield from _read(f"{site.name}, lines, sizes, instruments", _stand_otherwise(site))


def _read(where: str, found: Iterator[Broken]) -> Iterator[Broken]:
    """What cannot be read is named, and takes nothing else with it."""
    try:
        with transaction.atomic():
            yield from list(found)
    except Exception:
        logger.exception("%s cannot be read", where)
        yield Broken(where=where, what="it cannot be read")


def _journal(site: Site, seal: Sealed) -> Iterator[Broken]:
    before, number, hashes = START, 0, {0: START}
    waiting: dict[str, dict[str, str]] = {}
    for number, line in enumerate(JournalLine.objects.filter(site=site).order_by("number").iterator(AT_A_TIME), start=1):
        where = f"{site.name}, journal, line {number}"
        if line.number != number:
            yield Broken(where=where, what="it is missing")
            return
        if line.chain != link(before, line):
            yield Broken(where=where, what="it is not what was written down")
            return
        before = hashes[number] = line.chain
        some = waiting.setdefault(line.what, {})
        some.update(line.rows)
        if len(some) >= AT_A_TIME:
            yield from _rows(site, line.what, waiting.pop(line.what))
    for what, some in waiting.items():
        yield from _rows(site, what, some)
    if (site.journal_number, site.journal_head) != (number, before):
        yield Broken(where=f"{site.name}, journal, line {number + 1}", what="it is missing")
    yield from held_against(seal, seal.journals.get(str(site.pk)), hashes, f"{site.name}, journal")


def _rows(site: Site, what: str, told: dict[str, str]) -> Iterator[Broken]:
    kind = BY_LABEL.get(what)
    if kind is None:
        yield Broken(where=f"{site.name}, journal, {what}", what="nothing of this kind is known here")
        return
    found = {str(key): row for key, row in kind.model._default_manager.in_bulk(list(told)).items()}
    for key, expected in told.items():
        row = found.get(key)
        if row is None:
            yield Broken(where=f"{site.name}, {kind.called} {key}", what="it is missing")
        elif not _reads(row, kind, expected):
            yield Broken(where=f"{site.name}, {kind.called}, {row}", what="it is not what was written down")


def _reads(row: Any, kind: Told, expected: str) -> bool:
    if digest_of_row(row, without=kind.without) != expected:
        return False
    return not isinstance(row, IssuedRecord) or row.digest == digest_of(row.data)


def _untold(site: Site, kind: Told) -> Iterator[Broken]:
    """Rows that stand there and were never written down."""
    told: set[str] = set()
    for rows in JournalLine.objects.filter(site=site, what=kind.label).values_list("rows", flat=True).iterator(AT_A_TIME):
        told.update(rows)
    keys = kind.model._default_manager.filter(**{kind.site: site}).values_list("pk", flat=True).iterator(AT_A_TIME)
    for key in keys:
        if str(key) not in told:
            yield Broken(where=f"{site.name}, {kind.called} {key}", what="it was put there behind the app")


def _stand_otherwise(site: Site) -> Iterator[Broken]:
    """Lines and sizes of the catalogue that are not as their last change left them."""
    lasts: tuple[tuple[Any, Any, str], ...] = (
        (Line.objects.filter(site=site), LineChange.objects.order_by("line_id", "-version").distinct("line_id"), "line_id"),
        (
            CouplingSize.objects.filter(site=site),
            CatalogueChange.objects.order_by("of_id", "-id").distinct("of_id"),
            "of_id",
        ),
    )
    for things, changes, of in lasts:
        stands = dict(changes.exclude(stands="").values_list(of, "stands"))
        for thing in things.iterator(AT_A_TIME):
            if stands.get(thing.pk, thing.digest) != thing.digest:
                yield Broken(where=f"{site.name}, {thing}", what="it is not as its last change left it")
    known = InstrumentChange.objects.filter(site=site).order_by("kind", "name", "-id").distinct("kind", "name")
    as_left = {(kind, name): digest for kind, name, digest in known.values_list("kind", "name", "stands")}
    for one in instruments_of(site.pk):
        if as_left.get((one.kind, one.name), one.digest) != one.digest:
            yield Broken(where=f"{site.name}, {one.called}", what="it is not as its last change left it")
