"""Every instrument of a site, whatever it is."""

from datetime import date, datetime
from uuid import UUID

from millwright.errors import Problem
from server.accounts.models import Membership
from server.journal.write import write_down

from .models import Bracket, Gauge, Instrument, InstrumentChange, Wrench

FURTHEST_DAYS = 3 * 366


def instruments_of(site_id: UUID) -> list[Instrument]:
    """Wrenches, brackets, then the others by what they are."""
    return [
        *Wrench.objects.filter(site=site_id),
        *Bracket.objects.filter(site=site_id),
        *Gauge.objects.filter(site=site_id),
    ]


def instrument(site_id: UUID, kind: str, name: str) -> Instrument | None:
    """The one of this kind and name; None where nobody keeps it."""
    return next((one for one in instruments_of(site_id) if (one.kind, one.name) == (kind, name)), None)


def note(one: Instrument, what: str, *, by: Membership, now: datetime) -> None:
    """What became of an instrument that was just saved: in its history, and in the journal."""
    said = {"by": by.user.shown_name, "role": by.role, "at": now}
    change = InstrumentChange.objects.create(
        site=by.site, kind=one.kind, name=one.name, what=what[:200], stands=one.digest, **said
    )
    write_down(by.site_id, [change])


def date_problems(path: str, until: date | None, today: date) -> list[Problem]:
    """No calibration holds for ever."""
    if until is not None and (until - today).days > FURTHEST_DAYS:
        return [Problem(path, "That is more than three years off. Enter the day the certificate gives.")]
    return []
