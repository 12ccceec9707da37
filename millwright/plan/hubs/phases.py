"""Where a hot hub is, what may happen to it next, and what somebody says happened: the one table of it."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import Literal

from pydantic import Field

from ...model import Model

SOONEST_COLD = 0.5  # rule of thumb: no hub on its shaft is cold in less than half of what still air takes


class Phase(StrEnum):
    """Where the hub is."""

    COLD = "cold"
    HEATING = "on the heater"
    OUT = "on its way"
    ON = "on the shaft"
    GRIPPED = "gripped"


Event = Literal["on the heater", "hub temperature", "out of the heater", "on the shaft", "gripped", "pulled off"]
READING: Event = "hub temperature"  # moves nothing


class HeatEvent(Model):
    """Something that happened to a hub that is shrunk on; `ago_s`: how long before it was sent."""

    event: Event
    hub_c: float | None = Field(default=None, ge=-100, le=900)
    ago_s: float = Field(default=0.0, ge=0, le=86_400)


@dataclass(frozen=True, kw_only=True)
class Next:
    """What may happen next, what its button says, where the hub is then. The first of a phase is the one expected."""

    event: Event
    words: str
    to: Phase


_OFF = Next(event="pulled off", words="Pulled off, reheat", to=Phase.COLD)
NEXT: Mapping[Phase, tuple[Next, ...]] = {
    Phase.COLD: (
        Next(event="on the heater", words="Hub on heater", to=Phase.HEATING),
        Next(event="out of the heater", words="Already out of heater", to=Phase.OUT),
    ),
    Phase.HEATING: (
        Next(event="out of the heater", words="Hub out of heater", to=Phase.OUT),
        Next(event="pulled off", words="Heater off, cool down", to=Phase.COLD),
    ),
    Phase.OUT: (
        Next(event="on the shaft", words="Hub on shaft", to=Phase.ON),
        Next(event="on the heater", words="Back on heater", to=Phase.HEATING),
        _OFF,
    ),
    Phase.ON: (Next(event="gripped", words="Hub grips", to=Phase.GRIPPED), _OFF),
    Phase.GRIPPED: (_OFF,),
}
MOUNTED = (Phase.ON, Phase.GRIPPED)


def after_event(phase: Phase, event: Event) -> Phase | None:
    """Where the hub is after this; None where it cannot have happened. A temperature leaves it where it is."""
    if event == READING:
        return phase
    return next((step.to for step in NEXT[phase] if step.event == event), None)


def phase_after(events: Iterable[Event]) -> Phase:
    """Where the hub is after these; one that cannot have happened is passed over.

    >>> phase_after(["on the heater", "out of the heater", "out of the heater", "on the shaft"])
    <Phase.ON: 'on the shaft'>
    """
    phase = Phase.COLD
    for event in events:
        phase = after_event(phase, event) or phase
    return phase
