"""A true magnetic drive: where its driver stands, and the gaps a feeler finds on both sides of the rotor."""

import math
import random
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Literal

from .machine import Gauge, TrueShafts

Side = Literal["driver", "load"]


@dataclass(frozen=True, kw_only=True)
class TrueDrive:
    """The driver's axis and how far it stands away from the load; the rotor is square on the load's shaft."""

    shafts: TrueShafts
    away_mm: float = 0.0  # + the driver stands too far from the load
    nominal_mm: float = 3.0  # each gap, where it stands right
    half_rotor_mm: float = 60.0  # half the thickness between the two magnet faces

    def gap_mm(self, side: Side, clock: float, radius_mm: float) -> float:
        """Along the load's shaft, at a place round the clock.

        Source: geometry. A plate square on the driver's axis lies back by slope × height over its own middle.
        """
        phi = math.radians(clock)
        way = 1.0 if side == "driver" else -1.0
        middle = way * (self.half_rotor_mm + self.nominal_mm) + self.away_mm
        up = radius_mm * math.cos(phi) - self.shafts.v_mm(middle)
        right = radius_mm * math.sin(phi) - self.shafts.h_mm(middle)
        back = (self.shafts.slope_v_mm_per_m * up + self.shafts.slope_h_mm_per_m * right) / 1000
        return way * (middle - back) - self.half_rotor_mm


def read_gaps(
    drive: TrueDrive, places: Mapping[Side, Sequence[float]], radius_mm: float, gauge: Gauge, chance: random.Random
) -> list[dict[str, Any]]:
    """Both gaps at these places, side by side in their order."""
    return [
        {"side": side, "clock": clock, "value_mm": gauge.shows(drive.gap_mm(side, clock, radius_mm), chance)}
        for side, clocks in places.items()
        for clock in clocks
    ]
