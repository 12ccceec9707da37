"""What the gap bench is given, one end worked out, and what it answers."""

import math
from dataclasses import dataclass
from typing import Annotated

from pydantic import Field

from ...clock import RESOLUTION_MM, ClockFit, StandsOut
from ...model import Clock, Model, Size
from ...verdict import AS_ENTERED, Band, Result

EndName = Annotated[str, Field(min_length=1, max_length=60)]


class GapReading(Model):
    """A distance at one place round the clock; between far flanges it is more than a dial's travel."""

    clock: Clock
    value_mm: float = Field(ge=-100, le=10_000)


class MaxSpread(Model):
    """The most that largest and smallest reading may differ."""

    max_mm: Size
    source: str = AS_ENTERED


class MaxDiffer(Model):
    """The most the gaps at the two ends of a spacer may differ."""

    max_mm: Size
    source: str = AS_ENTERED


class MaxAngle(Model):
    """The most the faces may stand askew."""

    max_mm_per_m: float = Field(gt=0, le=500)
    source: str = AS_ENTERED


class KeepClear(Model):
    """Shaft ends that stand out into the gap, and what has to be left between them."""

    standing_out_mm: float = Field(gt=0, le=10_000, description="of both ends together")
    min_mm: Size
    source: str = AS_ENTERED


class GapAccept(Model):
    """The rules this gap is accepted by; any of them may stand together."""

    mean: Band | None = Field(default=None, description="the gap on the axis")
    each: Band | None = Field(default=None, description="every reading for itself")
    spread: MaxSpread | None = None
    angle: MaxAngle | None = None
    clear: KeepClear | None = None
    differ: MaxDiffer | None = Field(default=None, description="the two ends of a spacer against each other")


class GapAsLeft(Model):
    """The same gap as it was when the record before this one was closed."""

    readings: list[GapReading] = Field(min_length=1, max_length=400)
    other_end: list[GapReading] = Field(default_factory=list, max_length=400)


class GapInput(Model):
    """Caliper, feeler or bar-and-feeler readings between the hub faces, at places round the clock."""

    readings: list[GapReading] = Field(min_length=1, max_length=20_000)
    diameter_mm: Size | None = Field(
        default=None, description="of the circle the readings were taken on; without it no angle is told"
    )
    bar_mm: Size | None = Field(default=None, description="spacer bar; readings are then feelers over it")
    ends: list[EndName] | None = Field(
        default=None, min_length=2, max_length=2, description="a spacer: the names of its ends, as read"
    )
    other_end: list[GapReading] = Field(default_factory=list, max_length=20_000, description="at the second of them")
    as_left: GapAsLeft | None = None
    accept: GapAccept = Field(default_factory=GapAccept)
    resolution_mm: float = Field(default=RESOLUTION_MM, gt=0, le=1)


class EndFound(Model):
    """A gap: on the axis, its spread, and the slope it shows of the movable shaft (+ rises, + toward 3, away from it).

    No slope without the diameter it was read on.
    """

    mean_mm: float
    min_mm: float
    max_mm: float
    spread_mm: float
    angle_v_mm_per_m: float | None
    angle_h_mm_per_m: float | None
    angle_mm_per_m: float | None
    wide_at_deg: float


class GapSince(Model):
    """What has become of the gap since it was left: now, less then."""

    mean_mm: float
    spread_mm: float


class GapResult(EndFound, Result):
    """The first end, or the only gap there is; the other end beside it."""

    stands_out: list[StandsOut]
    other_end: EndFound | None
    ends_differ_mm: float | None  # first end less the other
    since: list[GapSince]  # first end, then the other, where something was left to compare with


@dataclass(frozen=True)
class Slope:
    """Of the movable shaft, up and toward 3, its size and the ± of that, mm/m."""

    up: float
    right: float
    size: float
    plus_minus: float


@dataclass(frozen=True)
class End:
    """Readings of one end, worked out."""

    name: str  # as said after a comma; empty where there is only one
    clock: list[float]
    value: list[float]
    fit: ClockFit
    diameter_mm: float | None
    second: bool = False

    @property
    def spread_mm(self) -> float:
        return max(self.value) - min(self.value)

    @property
    def slope(self) -> Slope | None:
        """Source: geometry, d over the diameter D."""
        if self.diameter_mm is None:
            return None
        per_m = 2 / self.diameter_mm * 1000
        up, right = -self.fit.up_mm * per_m, -self.fit.right_mm * per_m
        return Slope(up, right, math.hypot(up, right), self.fit.size_plus_minus_mm * per_m)

    def named(self, what: str) -> str:
        return f"{what}, {self.name}" if self.name else what

    def code(self, code: str) -> str:
        """The same code for the only end there is and the first of two; the second's is marked."""
        return f"other_{code}" if self.second else code
