"""Creating and changing lines."""

from collections.abc import Mapping
from typing import Any
from uuid import UUID

from django.db import IntegrityError, transaction
from django.http import Http404
from django.shortcuts import get_object_or_404
from django.utils import timezone

from millwright.card.catalogue_file import CatalogueSize
from millwright.card.values import Value, as_today, card_problems
from millwright.errors import Problem, UnusableInput, refuse_if_any
from millwright.job.new_entry import OutOfTurn
from millwright.line import LineSpec
from millwright.roles import Deed
from server.accounts.auth import require
from server.accounts.models import Membership
from server.catalogue.actions import save_sizes
from server.catalogue.models import CouplingSize
from server.catalogue.requests import decide, laid_over, reason_of, settled
from server.journal.write import write_down

from .history import changed
from .models import Line, LineChange


@transaction.atomic
def save_line(
    *,
    by: Membership,
    line_id: str | None,
    version: int,
    name: str,
    spec: LineSpec,
    values: Mapping[str, Value],
    reason: str = "",
) -> Line:
    """Create a line, or change one that nobody has changed since ``version``.

    A coupling size the catalogue does not have yet is put there. What stands on the card is the lead's to change, with a
    reason; anybody else's change of it waits for the lead. Raises `PermissionDenied` for an
    apprentice, `OutOfTurn` where somebody else saved meanwhile, `UnusableInput` for a name in use.
    """
    require(by, Deed.KEEP_LINES)
    values = as_today(values)
    refuse_if_any(card_problems(values))
    if line_id is None:
        line = Line(site=by.site, version=0)
    else:
        line = get_object_or_404(Line.objects.visible_to(by).select_for_update(no_key=True), pk=line_id)
        if line.version != version:
            raise OutOfTurn("Somebody changed this line meanwhile. Open it again; your figures are still here.")
        values = settled(line.values, values, by=by, reason=reason, now=timezone.now(), line=line.pk)
    was = ({"name": line.name, **line.spec}, dict(line.values)) if line_id else ({}, {})
    line.name, line.spec = name, spec.model_dump(mode="json")
    line.values = {key: value.model_dump(mode="json") for key, value in values.items()}
    line.version += 1
    try:
        with transaction.atomic():
            line.save()
    except IntegrityError:
        raise UnusableInput(Problem("name", f"There is already a line called {name}.")) from None
    changes = changed(was[0], {"name": line.name, **line.spec}, was[1], line.values) if line_id else []
    note_change(line, changes, by=by, because=reason.strip() if changes else "")
    coupling = spec.coupling
    if not CouplingSize.objects.filter(site=by.site, series=coupling.series, size=coupling.size).exists():
        new = CatalogueSize(family=coupling.family, series=coupling.series, size=coupling.size, values=dict(values))
        save_sizes(by=by, sizes=[new])
    return line


def note_change(line: Line, changes: list[dict[str, Any]], *, by: Membership, because: str = "") -> None:
    """What was changed on a line that was just saved, and how it stands since: in its history, and in the journal."""
    change = LineChange.objects.create(
        line=line,
        version=line.version,
        changes=changes,
        stands=line.digest,
        because=because,
        by=by.user.shown_name,
        role=by.role,
        at=timezone.now(),
    )
    write_down(line.site_id, [change])


@transaction.atomic
def decide_on_line(line_id: UUID, request_id: UUID, *, accept: bool, by: Membership) -> Line:
    """A request for a line: laid over its card where the lead accepts it."""
    line = get_object_or_404(Line.objects.visible_to(by).select_for_update(no_key=True), pk=line_id)
    asked = decide(request_id, accept=accept, by=by, now=timezone.now())
    if asked.line != line.pk:
        raise Http404
    if not accept:
        return line
    values = laid_over(line.card, asked)
    return save_line(
        by=by,
        line_id=str(line.pk),
        version=line.version,
        name=line.name,
        spec=line.as_spec,
        values=values,
        reason=reason_of(asked),
    )
