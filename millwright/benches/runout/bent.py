"""A bent shaft told from a cocked or off-centre hub, by run-out read in two planes."""

import math
from dataclasses import dataclass
from typing import Literal

from ...clock import ClockFit, say_toward
from ...model import Model
from ...say import Say, mm, say, words

Cause = Literal["the shaft", "the hub", "shaft and hub", "off centre", "cocked", "off centre and cocked", "cannot tell"]
MOSTLY = 1 / 3  # rule of thumb: a third of the other is not the cause


@dataclass(frozen=True, kw_only=True)
class RunoutOf:
    """A once-per-turn run-out as an arrow toward its high spot, mm."""

    up_mm: float
    right_mm: float

    @classmethod
    def of(cls, fit: ClockFit) -> "RunoutOf":
        """Of a fitted ring."""
        return cls(up_mm=fit.up_mm, right_mm=fit.right_mm)

    @classmethod
    def at(cls, size_mm: float, high_deg: float) -> "RunoutOf":
        """Of a size and a high spot."""
        phi = math.radians(high_deg)
        return cls(up_mm=size_mm * math.cos(phi), right_mm=size_mm * math.sin(phi))

    @property
    def size_mm(self) -> float:
        """How far off centre."""
        return math.hypot(self.up_mm, self.right_mm)

    @property
    def high_deg(self) -> float:
        """Clock position of the high spot."""
        return math.degrees(math.atan2(self.right_mm, self.up_mm)) % 360

    def less(self, other: "RunoutOf") -> "RunoutOf":
        """This arrow less another one."""
        return RunoutOf(up_mm=self.up_mm - other.up_mm, right_mm=self.right_mm - other.right_mm)


class Blame(Model):
    """What runs out. `own_mm`, `own_deg`: the hub's own run-out, or how the second plane differs from the first."""

    cause: Cause
    on_shaft: bool
    own_mm: float
    own_deg: float


def runout_between(before: ClockFit, after: ClockFit) -> RunoutOf:
    """The shift from one reading of a ring to the next.

    Source: geometry, the difference of the two arrows.
    """
    return RunoutOf.of(after).less(RunoutOf.of(before))


def blame(first: RunoutOf, second: RunoutOf, *, on_shaft: bool, resolution_mm: float) -> Blame:
    """What runs out, from a hub's rim and either the shaft beside it or the rim further along.

    Source: geometry. A bent shaft carries the hub with it: what the shaft shows is in the hub's reading, and the hub's
    own part is the difference of the arrows. Two planes of one rim run out alike where the hub is off centre, and
    differ where it leans. Rule of thumb: what is no bigger than the dial shows, or a third of the other, is not the cause.
    """
    own = first.less(second) if on_shaft else second.less(first)
    common = (
        second
        if on_shaft
        else RunoutOf(up_mm=(first.up_mm + second.up_mm) / 2, right_mm=(first.right_mm + second.right_mm) / 2)
    )
    return Blame(
        cause=_cause(common.size_mm, own.size_mm, on_shaft, resolution_mm),
        on_shaft=on_shaft,
        own_mm=own.size_mm,
        own_deg=own.high_deg,
    )


def _cause(common: float, own: float, on_shaft: bool, resolution: float) -> Cause:
    if max(common, own) <= resolution:
        return "cannot tell"
    if own <= max(resolution / 2, MOSTLY * common):
        return "the shaft" if on_shaft else "off centre"
    if common <= max(resolution / 2, MOSTLY * own):
        return "the hub" if on_shaft else "cocked"
    return "shaft and hub" if on_shaft else "off centre and cocked"


def say_blame(found: Blame) -> Say:
    """In one sentence, with what to do."""
    own = words("{size}, high at {high}", size=mm(found.own_mm, 3), high=say_toward(found.own_deg))
    match found.cause:
        case "the shaft":
            return say("the_shaft", "The shaft itself runs out and takes the hub with it: the hub is not to blame.")
        case "the hub":
            text = "The shaft runs true. The hub's own run-out is {own}: it sits crooked or is bored off centre."
            return say("the_hub", text, own=own)
        case "shaft and hub":
            return say("shaft_and_hub", "Both run out. Without the shaft the hub's own is {own}.", own=own)
        case "off centre":
            text = "Both planes run out alike: the hub is off centre, not cocked. Bore, or a shaft that runs out beside it."
            return say("off_centre", text)
        case "cocked":
            text = "The two planes differ by {own}: the hub is cocked, or the shaft is bent under it."
            return say("cocked", text, own=own)
        case "off centre and cocked":
            text = "Off centre in both planes, and they differ by {own}: it is cocked as well."
            return say("off_centre_and_cocked", text, own=own)
        case "cannot tell":
            return say("cannot_tell_whose", "Neither runs out by more than the dial shows: nothing to tell apart.")
