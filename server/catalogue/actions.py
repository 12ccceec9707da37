"""Changing the catalogue: one size, or a whole file of them."""

from collections.abc import Sequence
from dataclasses import replace
from uuid import UUID

from django.db import transaction
from django.http import Http404
from django.utils import timezone

from millwright.card.catalogue_file import CatalogueSize
from millwright.card.changed import values_changed
from millwright.card.values import card_problems
from millwright.errors import refuse_if_any
from millwright.roles import Deed
from server.accounts.auth import require
from server.accounts.models import Membership
from server.journal.write import write_down

from .models import CatalogueChange, CouplingSize, ValueRequest
from .requests import decide, laid_over, reason_of, settled


@transaction.atomic
def save_sizes(*, by: Membership, sizes: Sequence[CatalogueSize], reason: str = "") -> int:
    """Put these sizes into the catalogue, each as it is given; how many of them were new or changed.

    Lines keep the values they have. What stands is the lead's to change, with a reason; anybody else's change waits.
    Raises `PermissionDenied` for an apprentice, `UnusableInput` for values that cannot be.
    """
    require(by, Deed.KEEP_LINES)
    refuse_if_any(
        [replace(p, path=f"sizes.{i}.{p.path}") for i, size in enumerate(sizes) for p in card_problems(size.values)]
    )
    touched = 0
    for size in sizes:
        values = {key: value.model_dump(mode="json") for key, value in size.values.items()}
        kept, is_new = CouplingSize.objects.select_for_update().get_or_create(
            site=by.site, series=size.series, size=size.size, defaults={"family": size.family, "values": values}
        )
        if not is_new:
            left = settled(kept.values, size.values, by=by, reason=reason, now=timezone.now(), size=kept)
            values = {key: value.model_dump(mode="json") for key, value in left.items()}
        changes = [] if is_new else values_changed(kept.values, values)
        if not is_new and not changes and kept.family == size.family:
            continue
        kept.family, kept.values = size.family, values
        kept.save()
        said = {"because": reason.strip() if changes else "", "by": by.user.shown_name, "role": by.role, "at": timezone.now()}
        write_down(by.site_id, [CatalogueChange.objects.create(of=kept, changes=changes, stands=kept.digest, **said)])
        touched += 1
    return touched


@transaction.atomic
def decide_on_size(request_id: UUID, *, accept: bool, by: Membership) -> ValueRequest:
    """A request for a size: laid over its values where the lead accepts it."""
    asked = decide(request_id, accept=accept, by=by, now=timezone.now())
    if asked.size is None:
        raise Http404
    if accept:
        size = asked.size.as_core
        changed = size.model_copy(update={"values": laid_over(size.values, asked)})
        save_sizes(by=by, sizes=[changed], reason=reason_of(asked))
    return asked
