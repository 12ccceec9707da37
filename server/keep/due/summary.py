"""The summary of what is due: made anew for a line whenever something of it changed, or for a whole site."""

import logging
from collections.abc import Iterable
from dataclasses import asdict
from datetime import date
from functools import partial
from typing import Any
from uuid import UUID

from django.db import transaction
from django.utils import timezone

from millwright.benches.wear.days import day
from millwright.keep.due import due
from millwright.keep.due_kinds import Due, DueKind, scope_of
from millwright.say import words
from millwright.scope import Scope
from server.accounts.models import Site
from server.instruments.register import instruments_of
from server.jobs.models import Job
from server.plant.models import Line, LineLook

from ..models import DueItem
from ..read import kept_lines, past_jobs

logger = logging.getLogger(__name__)
AT_A_TIME = 200  # lines


@transaction.atomic
def rebuild(lines: Iterable[Line], today: date | None = None) -> None:
    """What is due on these lines, from their jobs, cards and rounds."""
    on = today or timezone.localdate()
    given = list(lines)
    for start in range(0, len(given), AT_A_TIME):
        some = given[start : start + AT_A_TIME]
        kept, jobs = kept_lines(some), past_jobs([line.pk for line in some])
        DueItem.objects.filter(line__in=some).delete()
        DueItem.objects.bulk_create(
            _item(line, one, scope_of(one, kept[line.pk]))
            for line in some
            for one in due(kept[line.pk], jobs[line.pk], on, partial(_log, line))
        )


def _log(line: Line, kind: DueKind) -> None:
    logger.exception("%s: %s cannot be worked out", line.pk, kind)


def _item(line: Line, one: Due, scope: Scope | None) -> DueItem:
    return DueItem(
        site_id=line.site_id,
        line=line,
        name=line.name,
        kind=one.kind.value,
        on=one.on,
        since=one.since,
        was=one.was,
        why=asdict(one.why),
        task=one.task.value if one.task else "",
        scope=scope.value if scope else "",
        postponed_by=one.postponed.by if one.postponed else "",
        postponed_because=one.postponed.reason if one.postponed else "",
    )


@transaction.atomic
def rebuild_instruments(site_id: UUID) -> None:
    """When each instrument of a site is to be calibrated; one that is withdrawn is not asked for."""
    found = [
        DueItem(
            site_id=site_id,
            name=one.called,
            kind=DueKind.CALIBRATION.value,
            on=one.calibrated_until,
            why=asdict(words(f"calibrated until {day(one.calibrated_until)}: out of date it is not used")),
        )
        for one in instruments_of(site_id)
        if one.calibrated_until is not None and not one.withdrawn
    ]
    DueItem.objects.filter(site=site_id, line=None).delete()
    DueItem.objects.bulk_create(found)


def rebuild_site(site: Site) -> None:
    """Everything that is due on a site."""
    rebuild(Line.objects.filter(site=site))
    rebuild_instruments(site.pk)


def keep_up(line: Line) -> None:
    """`rebuild` for one line. A summary that cannot be made keeps nobody from closing a record: it stays as it was, and the
    log says so."""
    try:
        rebuild([line])
    except Exception:
        logger.exception("what is due on line %s could not be derived", line.pk)


def on_job(sender: object, instance: Job, **rest: object) -> None:
    """What is due on its line, once a record is closed: here, or in the file it was read in from."""
    if instance.signed and not instance.is_paper:
        keep_up(instance.line)


def on_line(sender: object, instance: Line, **rest: object) -> None:
    """A line was changed: its card says when."""
    keep_up(instance)


def on_look(sender: object, instance: LineLook, **rest: object) -> None:
    """A round was there."""
    keep_up(instance.line)


def on_instrument(sender: object, instance: Any, **rest: object) -> None:
    """An instrument was calibrated, or withdrawn."""
    rebuild_instruments(instance.site_id)
