"""The two limits of an alignment, side by side: what the coupling survives and what the machines run well at."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from pydantic import Field, model_validator

from ...model import Model, Size
from ...say import Say, bare, say, words
from ...units import angle_deg, angle_mm_per_m
from ...verdict import AS_ENTERED, Check, WorkLine, judge, work


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
    no_more: bool = Field(default=False, description="the papers give no more than this: the rest is not judged")
    source: str = AS_ENTERED

    @model_validator(mode="after")
    def _gap_difference_has_a_diameter(self) -> "AlignmentLimits":
        if (self.gap_difference_mm is None) != (self.diameter_mm is None):
            raise ValueError("A gap difference and its diameter belong together: give both.")
        return self

    def has_angle(self) -> bool:
        """Whether any limit on the angle is given."""
        return (self.angle_mm_per_m, self.angle_deg, self.gap_difference_mm) != (None, None, None)

    def least_offset_mm(self) -> float | None:
        """The smallest offset limit given. Source: geometry, the swing is twice the offset."""
        return min((x for x in (self.offset_mm, self.swing_mm and self.swing_mm / 2) if x), default=None)

    def least_angle_mm_per_m(self) -> float | None:
        """The smallest angle limit given, in mm/m. Source: geometry."""
        given = [self.angle_mm_per_m] if self.angle_mm_per_m is not None else []
        if self.angle_deg is not None:
            given.append(angle_mm_per_m(self.angle_deg))
        if self.gap_difference_mm is not None and self.diameter_mm is not None:
            given.append(1000 * self.gap_difference_mm / self.diameter_mm)
        return min(given, default=None)


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


@dataclass(frozen=True, kw_only=True)
class Measured:
    """A size and its ±, None where no ± is known."""

    size: float
    plus_minus: float | None = None

    def times(self, factor: float) -> "Measured":
        """In another unit."""
        return Measured(size=self.size * factor, plus_minus=self.plus_minus and self.plus_minus * factor)


@dataclass(frozen=True, kw_only=True)
class AtCoupling:
    """What is judged: the size of the offset in mm, of the slope in mm/m, of the angle at each flexing plane in mm/m."""

    offset: Measured
    slope: Measured
    flex: Sequence[Measured] = ()


class Allowed(Model):
    """What one side's limits allow at most; null where it gives none."""

    against: Literal["coupling", "running target"]
    offset_mm: float | None
    angle_mm_per_m: float | None


def alignment_checks(
    limits: AlignmentLimits | None, target: RunningTarget | None, speed_rpm: float | None, found: AtCoupling
) -> list[Check]:
    """Both planes together against the coupling's limits and, beside them, the running target.

    Where the limits count at the flexing planes, the larger angle is held against them, and the halves slide over each
    other by that angle alone.
    """
    at_planes = limits is not None and limits.at == "flexing planes" and bool(found.flex)
    angle = max(found.flex, key=lambda at: at.size) if at_planes else found.slope
    checks = [] if limits is None else _coupling_checks(limits, found, angle, at_planes=at_planes)
    if target is not None and speed_rpm is not None:
        high = running_offset_mm(target.sliding_mm_per_s, speed_rpm)
        held = _Held(against="running target", source=target.source)
        where = " at a flexing plane" if at_planes else ""
        if not at_planes:
            checks.append(held.hold("running_offset", "offset", "running, offset", found.offset, "mm", high))
        most = 1000 * high / target.radius_mm
        checks.append(held.hold("running_angle", "angle", f"running, angle{where}", angle, "mm/m", most))
    return checks


@dataclass(frozen=True, kw_only=True)
class _Held:
    """Whose limits they are."""

    against: str
    source: str

    def hold(self, code: str, quantity: str, name: str, value: Measured, unit: str, high: float) -> Check:
        return judge(
            code,
            name,
            value.size,
            unit,
            high=high,
            source=self.source,
            quantity=quantity,
            against=self.against,
            plus_minus=value.plus_minus,
        )


def _coupling_checks(limits: AlignmentLimits, found: AtCoupling, angle: Measured, *, at_planes: bool) -> list[Check]:
    held = _Held(against="coupling", source=limits.source)
    where, code = (" at a flexing plane", "flex_") if at_planes else ("", "")
    checks = []
    if limits.offset_mm is not None:
        checks.append(held.hold("offset", "offset", "coupling, offset", found.offset, "mm", limits.offset_mm))
    if limits.swing_mm is not None:
        name = "coupling, TIR"
        checks.append(held.hold("swing", "swing", name, found.offset.times(2), "mm", limits.swing_mm))
    if limits.angle_mm_per_m is not None:
        checks.append(held.hold(f"{code}angle", "angle", f"coupling, angle{where}", angle, "mm/m", limits.angle_mm_per_m))
    if limits.angle_deg is not None:
        name = f"coupling, angle in degrees{where}"
        held_deg = Measured(size=angle_deg(angle.size), plus_minus=angle.plus_minus and math.degrees(angle.plus_minus / 1000))
        checks.append(held.hold(f"{code}angle_deg", "angle", name, held_deg, "°", limits.angle_deg))
    if limits.gap_difference_mm is not None and limits.diameter_mm is not None:
        name, on = f"coupling, gap difference{where}", angle.times(limits.diameter_mm / 1000)
        checks.append(held.hold(f"{code}gap_difference", "angle", name, on, "mm", limits.gap_difference_mm))
    return checks


def allowed(limits: AlignmentLimits | None, target: RunningTarget | None, speed_rpm: float | None) -> list[Allowed]:
    """The most each side allows, for a drawing."""
    found = []
    if limits is not None:
        most = limits.least_angle_mm_per_m()
        found.append(Allowed(against="coupling", offset_mm=limits.least_offset_mm(), angle_mm_per_m=most))
    if target is not None and speed_rpm is not None:
        high = running_offset_mm(target.sliding_mm_per_s, speed_rpm)
        angle = 1000 * high / target.radius_mm
        found.append(Allowed(against="running target", offset_mm=high, angle_mm_per_m=angle))
    return found


def running_working(target: RunningTarget | None, speed_rpm: float | None) -> list[WorkLine]:
    """The offset the running target allows."""
    if target is None or speed_rpm is None:
        return []
    high = running_offset_mm(target.sliding_mm_per_s, speed_rpm)
    numbers = words(
        "{slide} ÷ (2π × {speed} ÷ 60)",
        slide=bare(target.sliding_mm_per_s, None, "mm/s"),
        speed=bare(speed_rpm, None, "rpm"),
    )
    return [work("running_offset", "offset the running target allows", "sliding ÷ (2π × speed ÷ 60)", numbers, high)]


def say_not_judged(limits: AlignmentLimits | None, target: RunningTarget | None) -> list[Say]:
    """Of what the papers give no limit for."""
    if limits is None or not limits.no_more or target is not None or limits.has_angle():
        return []
    return [say("angle_not_judged", "The angle is not judged: the papers give no limit for it.")]


def what_is_lacking(limits: AlignmentLimits | None, target: RunningTarget | None, speed_rpm: float | None) -> bool:
    """True where some limit was given, but not both an offset and an angle limit."""
    if target is not None and speed_rpm is not None:
        return False
    if limits is None or limits.no_more:
        return False
    if limits.at != "coupling middle":
        return not limits.has_angle()
    has_offset = limits.offset_mm is not None or limits.swing_mm is not None
    return has_offset != limits.has_angle()
