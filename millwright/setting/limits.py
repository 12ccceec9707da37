"""The two limits of an alignment, side by side: what the coupling survives and what the machines run well at."""

import math
from collections.abc import Sequence
from typing import Literal

from pydantic import Field, model_validator

from ..model import Model, Size
from ..units import angle_mm_per_m
from ..verdict import AS_ENTERED, Check, judge


class AlignmentLimits(Model):
    """The coupling's limits. A limit on the swing (total reading) is twice a limit on the offset."""

    offset_mm: Size | None = None
    swing_mm: Size | None = None
    angle_mm_per_m: float | None = Field(default=None, gt=0, le=500)
    angle_deg: float | None = Field(default=None, gt=0, le=30)
    gap_difference_mm: Size | None = None
    diameter_mm: Size | None = Field(default=None, description="on which the gap difference is measured")
    at: Literal["coupling middle", "flexing planes", "angle alone"] = Field(
        default="coupling middle",
        description="what counts: offset and angle at the middle; a spacer's angle at each flexing plane; no offset at all",
    )
    source: str = AS_ENTERED

    @model_validator(mode="after")
    def _gap_difference_has_a_diameter(self) -> "AlignmentLimits":
        if (self.gap_difference_mm is None) != (self.diameter_mm is None):
            raise ValueError("A gap difference and its diameter belong together: give both.")
        return self

    def angles_mm_per_m(self) -> list[tuple[str, float]]:
        """Every angle limit given, by name, in mm/m. Source: geometry."""
        given = []
        if self.angle_mm_per_m is not None:
            given.append(("angle", self.angle_mm_per_m))
        if self.angle_deg is not None:
            given.append((f"angle, limit {self.angle_deg:g}°", angle_mm_per_m(self.angle_deg)))
        if self.gap_difference_mm is not None and self.diameter_mm is not None:
            name = f"angle, limit {self.gap_difference_mm:g} mm on {self.diameter_mm:g}"
            given.append((name, 1000 * self.gap_difference_mm / self.diameter_mm))
        return given


class RunningTarget(Model):
    """How fast the halves may slide over each other in the flexing element: the site's grade."""

    sliding_mm_per_s: float = Field(gt=0, le=1000)
    radius_mm: Size = Field(description="of the flexing element")
    source: str = AS_ENTERED


def running_offset_mm(sliding_mm_per_s: float, speed_rpm: float) -> float:
    """Offset at which the halves slide at the given speed. Source: kinematics, v = ω·offset.

    >>> round(running_offset_mm(5.6, 1480), 4)
    0.0361
    """
    return sliding_mm_per_s / (2 * math.pi * speed_rpm / 60)


def alignment_checks(
    limits: AlignmentLimits | None,
    target: RunningTarget | None,
    speed_rpm: float | None,
    offset_mm: float,
    slope_mm_per_m: float,
    flex_mm_per_m: Sequence[float] = (),
) -> list[Check]:
    """Both planes together against the coupling's limits and, beside them, the running target.

    ``flex_mm_per_m`` - angle at each flexing plane. Where the limits count there, the larger one is held against
    them, and the halves slide over each other by that angle alone.
    """
    checks = []
    at_planes = limits is not None and limits.at == "flexing planes" and len(flex_mm_per_m) > 0
    where = " at a flexing plane" if at_planes else ""
    slope_mm_per_m = max(flex_mm_per_m) if at_planes else slope_mm_per_m

    def hold(name: str, value: float, unit: str, high: float, source: str, *, against: str, quantity: str) -> None:
        checks.append(judge(name, value, unit, high=high, source=source, quantity=quantity, against=against))

    if limits is not None:
        maker = {"source": limits.source, "against": "coupling"}
        if limits.offset_mm is not None:
            hold("coupling, offset", offset_mm, "mm", limits.offset_mm, **maker, quantity="offset")
        if limits.swing_mm is not None:
            hold("coupling, swing of the dial", 2 * offset_mm, "mm", limits.swing_mm, **maker, quantity="swing")
        for name, high in limits.angles_mm_per_m():
            hold(f"coupling, {name}{where}", slope_mm_per_m, "mm/m", high, **maker, quantity="angle")
    if target is not None and speed_rpm is not None:
        high = running_offset_mm(target.sliding_mm_per_s, speed_rpm)
        source = f"{target.source}: sliding {target.sliding_mm_per_s:g} mm/s at {speed_rpm:g} rpm"
        running = {"source": source, "against": "running target"}
        if not at_planes:
            hold("running, offset", offset_mm, "mm", high, **running, quantity="offset")
        hold(f"running, angle{where}", slope_mm_per_m, "mm/m", 1000 * high / target.radius_mm, **running, quantity="angle")
    return checks


def what_is_lacking(limits: AlignmentLimits | None, target: RunningTarget | None, speed_rpm: float | None) -> bool:
    """True where some limit was given, but not both an offset and an angle limit."""
    if target is not None and speed_rpm is not None:
        return False
    if limits is None:
        return False
    if limits.at != "coupling middle":
        return not limits.angles_mm_per_m()
    has_offset = limits.offset_mm is not None or limits.swing_mm is not None
    return has_offset != bool(limits.angles_mm_per_m())
