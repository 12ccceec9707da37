"""A true pair of shafts with its hidden errors, and the instruments that read it: the alignment bench the other way round."""

import math
import random
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

On = Literal["stationary", "movable"]


@dataclass(frozen=True, kw_only=True)
class TrueShafts:
    """Where the movable axis really lies, and what else gets into a reading.

    Height + up, sideways + toward 3 o'clock, at x = 0 and per metre toward the movable machine.
    """

    offset_v_mm: float = 0.0
    slope_v_mm_per_m: float = 0.0
    offset_h_mm: float = 0.0
    slope_h_mm_per_m: float = 0.0
    runout_mm: float = 0.0  # of the touched hub, off centre
    runout_high_deg: float = 0.0
    float_mm: float = 0.0  # how far the shaft wanders along itself while it is turned

    def v_mm(self, x_mm: float) -> float:
        """Height of the movable axis over the stationary one."""
        return self.offset_v_mm + self.slope_v_mm_per_m * x_mm / 1000

    def h_mm(self, x_mm: float) -> float:
        """Sideways place of the movable axis."""
        return self.offset_h_mm + self.slope_h_mm_per_m * x_mm / 1000


@dataclass(frozen=True, kw_only=True)
class Gauge:
    """An instrument: what it shows to, and how much it scatters. Perfect as it stands."""

    resolution_mm: float = 0.0
    scatter_mm: float = 0.0

    def shows(self, true_mm: float, chance: random.Random) -> float:
        """One reading. ``chance`` comes in, so that a sweep can be repeated."""
        shown = true_mm + (chance.gauss(0.0, self.scatter_mm) if self.scatter_mm else 0.0)
        return round(shown / self.resolution_mm) * self.resolution_mm if self.resolution_mm else shown


@dataclass(frozen=True, kw_only=True)
class Bracket:
    """A dial on its bracket: what it touches, where, and how far the bracket hangs."""

    kind: Literal["rim", "face"]
    on: On
    x_mm: float
    radius_mm: float = 0.0
    sag_mm: float = 0.0
    turned: Literal["both", "bracket shaft"] = "both"

    def sees_mm(self, shafts: TrueShafts, clock: float, wandered_mm: float = 0.0) -> float:
        """What the plunger is pushed in, less a constant.

        Source: geometry. A plunger at φ stands a rim's height and sideways place nearer: V·cos φ + H·sin φ; from the
        other side the same the other way. A face comes nearer by its slope at the radius, and by the shaft's wandering.
        A bracket that hangs shows its sag at 6 o'clock. With its own shaft turned alone the hub's run-out passes by.
        """
        phi = math.radians(clock)
        if self.kind == "face":
            slope = shafts.slope_v_mm_per_m * math.cos(phi) + shafts.slope_h_mm_per_m * math.sin(phi)
            return self.radius_mm / 1000 * slope + wandered_mm
        way = 1.0 if self.on == "stationary" else -1.0
        seen = way * (shafts.v_mm(self.x_mm) * math.cos(phi) + shafts.h_mm(self.x_mm) * math.sin(phi))
        if self.turned == "bracket shaft":
            seen += shafts.runout_mm * math.cos(phi - math.radians(shafts.runout_high_deg))
        return seen + abs(self.sag_mm) / 2 * (math.cos(phi) - 1)


def sweep(
    shafts: TrueShafts, bracket: Bracket, clocks: Sequence[float], gauge: Gauge, chance: random.Random, zero_mm: float = 0.0
) -> list[dict[str, float]]:
    """Readings of one dial at these places, in their order, with its zero somewhere."""
    wanders = [chance.uniform(-shafts.float_mm, shafts.float_mm) for _ in clocks]
    return [
        {"clock": clock, "value_mm": gauge.shows(zero_mm + bracket.sees_mm(shafts, clock, wandered), chance)}
        for clock, wandered in zip(clocks, wanders, strict=True)
    ]


def two_faces(
    shafts: TrueShafts, bracket: Bracket, clocks: Sequence[float], gauge: Gauge, chance: random.Random
) -> tuple[list[dict[str, float]], list[dict[str, float]]]:
    """Two face plungers half a turn apart, read at the same moments: both feel the same float."""
    near, far = [], []
    for clock in clocks:
        wandered = chance.uniform(-shafts.float_mm, shafts.float_mm)
        near.append({"clock": clock, "value_mm": gauge.shows(bracket.sees_mm(shafts, clock, wandered), chance)})
        far.append({"clock": clock, "value_mm": gauge.shows(bracket.sees_mm(shafts, clock + 180, wandered), chance)})
    return near, far
