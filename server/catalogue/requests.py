"""What stands on a card is the lead's to change, wherever it stands; anybody else asks."""

from collections.abc import Mapping
from datetime import datetime
from typing import Any
from uuid import UUID

from django.shortcuts import get_object_or_404
from ninja import Schema

from millwright.card.changed import values_changed
from millwright.card.standing import otherwise
from millwright.card.values import Value
from millwright.errors import Problem, UnusableInput
from millwright.job.new_entry import OutOfTurn
from millwright.roles import Deed, Role
from server.accounts.auth import require
from server.accounts.models import Membership
from server.web.words import ChangedOut

from .models import CouplingSize, ValueRequest


class RequestOut(Schema):
    """Values that stand and that somebody asks the lead to change."""

    id: UUID
    changes: list[ChangedOut]
    reason: str
    by: str
    role: Role
    at: datetime


class DecideIn(Schema, extra="forbid"):
    """What the lead says to a request."""

    accept: bool


WHY = "Enter the reason for changing what stands. The history shows it."


def settled(
    was: Mapping[str, Any],
    values: Mapping[str, Value],
    *,
    by: Membership,
    reason: str,
    now: datetime,
    line: UUID | None = None,
    size: CouplingSize | None = None,
) -> dict[str, Value]:
    """The card as this person may leave it: to the lead as given, to anybody else with what stood as it stood and the rest as
    a request that waits. ``was`` - the card as it stands, as plain JSON.

    Raises `UnusableInput` at "reason" where something that stands is changed and nobody said why.
    """
    changed = otherwise(was, values)
    if not changed:
        return dict(values)
    if not reason.strip():
        raise UnusableInput(Problem("reason", WHY))
    if by.as_role.may(Deed.CHANGE_THE_CARD):
        return dict(values)
    stood = {key: Value.model_validate(was[key]) for key in changed if key in was}
    asked = {key: value and value.model_dump(mode="json") for key, value in changed.items()}
    ValueRequest.objects.create(
        site=by.site,
        line=line,
        size=size,
        values=asked,
        changes=values_changed(
            {key: was[key] for key in changed if key in was}, {k: v for k, v in asked.items() if v is not None}
        ),
        reason=reason.strip(),
        by=by.user.shown_name,
        role=by.role,
        at=now,
    )
    return {**values, **stood}


def decide(request_id: UUID, *, accept: bool, by: Membership, now: datetime) -> ValueRequest:
    """The request, decided on. What is accepted is still to be laid over the card.

    Raises `PermissionDenied` for anybody but the lead, `OutOfTurn` where somebody decided meanwhile.
    """
    require(by, Deed.CHANGE_THE_CARD)
    asked = get_object_or_404(ValueRequest.objects.select_for_update().filter(site=by.site), pk=request_id)
    if asked.accepted is not None:
        raise OutOfTurn(f"{asked.decided_by} decided on this already.")
    asked.accepted, asked.decided_by, asked.decided_at = accept, by.user.shown_name, now
    asked.save(update_fields=["accepted", "decided_by", "decided_at"])
    return asked


def laid_over(card: Mapping[str, Value], asked: ValueRequest) -> dict[str, Value]:
    """A card with what was asked for."""
    given = {key: Value.model_validate(value) for key, value in asked.values.items() if value is not None}
    return {**{key: value for key, value in card.items() if key not in asked.values}, **given}


def reason_of(asked: ValueRequest) -> str:
    """Why it was changed, and who asked."""
    return f"{asked.reason} (asked by {asked.by})"[:400]
