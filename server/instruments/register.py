"""Every instrument of a site, whatever it is."""

from uuid import UUID

from .models import Bracket, Gauge, Instrument, Wrench


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
