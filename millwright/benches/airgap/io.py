"""What the air-gap bench is given, the gaps worked out, and what it answers."""

from dataclasses import dataclass
from typing import Literal

import numpy as np
from pydantic import Field

from ...clock import RESOLUTION_MM
from ...model import Clock, Model, Size
from ...sketch.shapes import Sketch
from ...uncertainty import Array, Fitted
from ...verdict import AS_ENTERED, Result
from ..alignment.axis import Line
from ..alignment.feet import Foot

GapSide = Literal["driver", "load"]
SIDES: tuple[GapSide, GapSide] = ("driver", "load")
MEANS, SLOPES = 2, 2
LEAST_MM = 1.0  # no drive is smaller
DRIVER, LOAD, UP, RIGHT = np.eye(MEANS + SLOPES)


class Station(Model):
    """One gap between a magnet rotor and its conductor plate, at a place round the clock."""

    side: GapSide
    clock: Clock
    value_mm: float = Field(ge=-5, le=100)


class Stations(Model):
    """An earlier reading of the same gaps."""

    stations: list[Station] = Field(min_length=1, max_length=200)


class AirGapInput(Model):
    """Both gaps with the rotor full on, at as many places as can be reached.

    The driver is the movable machine and carries both conductor plates; the rotors sit between them on the load's shaft.
    """

    stations: list[Station] = Field(min_length=1, max_length=200)
    diameter_mm: Size = Field(ge=LEAST_MM, description="of the circle the gaps were read on")
    spread_max_mm: Size | None = Field(default=None, description="largest less smallest, on each side")
    spread_source: str = AS_ENTERED
    differ_max_mm: Size | None = Field(default=None, description="the means may differ by; else as the spread")
    differ_source: str = AS_ENTERED
    least_mm: Size | None = Field(default=None, description="no gap may be smaller")
    least_source: str = AS_ENTERED
    movable_feet: list[Foot] = Field(min_length=1, max_length=12)
    before: Stations | None = None
    resolution_mm: float = Field(default=RESOLUTION_MM, gt=0, le=1)


class StationStandsOut(Model):
    """A gap that lies off what all the others say."""

    index: int
    side: GapSide
    clock: float
    residual_mm: float


class AirGapSince(Model):
    """What has become of the gaps since the reading before: now, less then."""

    mean_driver_mm: float
    mean_load_mm: float
    angle_v_mm_per_m: float
    angle_h_mm_per_m: float


class FootOfDriver(Model):
    """What takes the slope out at a foot: + shim is added, + slide is toward 3 o'clock; known where it is more than its ±."""

    name: str
    shim_mm: float
    slide_mm: float
    shim_plus_minus_mm: float
    slide_plus_minus_mm: float
    shim_known: bool
    slide_known: bool


class AirGapResult(Result):
    """Both gaps, and how the driver has to move; + along the shaft is away from the load."""

    mean_driver_mm: float
    mean_load_mm: float
    spread_driver_mm: float
    spread_load_mm: float
    slide_axial_mm: float
    slide_axial_plus_minus_mm: float
    angle_v_mm_per_m: float  # + the driver's shaft rises away from the load
    angle_h_mm_per_m: float
    feet: list[FootOfDriver]
    stands_out: list[StationStandsOut]
    since: AirGapSince | None
    drawn: Sketch


@dataclass(frozen=True)
class Gaps:
    """Readings of both sides with what was fitted to them."""

    stations: list[Station]
    fitted: Fitted
    design: Array
    diameter_mm: float

    @property
    def mean_mm(self) -> tuple[float, float]:
        return float(self.fitted.found[0]), float(self.fitted.found[1])

    @property
    def axis(self) -> Line:
        """The driver's slope. Source: geometry. Its plates lean with its shaft: the driver-side gap is wide below where it
        rises, by slope × diameter from 12 to 6; the load-side gap is wide above."""
        per_m = -2 / self.diameter_mm * 1000
        up, right = (float(part) * per_m for part in self.fitted.found[2:])
        return Line(offset_v_mm=0.0, slope_v_mm_per_m=up, offset_h_mm=0.0, slope_h_mm_per_m=right)

    def values(self, side: GapSide) -> list[float]:
        return [station.value_mm for station in self.stations if station.side == side]

    def spread_mm(self, side: GapSide) -> float:
        return max(self.values(side)) - min(self.values(side))

    @property
    def lean_known(self) -> tuple[bool, bool]:
        """Up, and toward 3: whether the driver leans there by more than the slope is known to."""
        up, right = self.axis.slope_v_mm_per_m, self.axis.slope_h_mm_per_m
        return abs(up) > self.slope_plus_minus(UP), abs(right) > self.slope_plus_minus(RIGHT)

    def slope_plus_minus(self, part: Array) -> float:
        return self.fitted.half_width(part) * 2 / self.diameter_mm * 1000
