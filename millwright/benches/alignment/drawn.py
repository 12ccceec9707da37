"""The geometry of the alignment drawing: side view over plan, along the shaft to scale, across exaggerated.

Worked out once and drawn twice, on the sheet and on paper. Drawing units, `WIDTH` across; of each view the origin lies in
the middle of the coupling on the axis of the machine that stays, x to the right, y downward. Driver stands left, driven
right, whichever of the two is moved.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ...say import Figure, Words, bare, mm
from .axis import Line
from .feet import Foot, FootMove
from .limits import Allowed

WIDTH = 740.0
MARGIN = 20.0
ROOM = 20.0  # how far, in drawing units, the largest displacement is drawn
LEAST_REACH_MM = 240.0  # a machine with no feet, or with feet close by, is drawn this long
BEYOND_FEET = 1.06
ROOM_BEYOND = 1.12
BODY_FROM = 0.72  # of the way to its nearest foot
HUB_AND_SHAFT_MM = 70.0  # at least so much of them is seen between hub face and body
MOST_TIMES = 500.0  # beyond this a machine that is in line would look as if it were not
NOTHING_TO_SHOW_MM = 1e-6
USUAL_TIMES = 100.0
TALLEST = 58.0  # a band wider than this would leave the view
SHOWN_FROM_MM = 0.0005

Side = Literal["left", "right"]
Plane = Literal["v", "h"]


@dataclass(frozen=True, kw_only=True, slots=True)
class DrawnMachine:
    """One machine along the shaft, in drawing units from the middle: hub face, where its body begins and ends, feet."""

    face: float
    near: float
    far: float
    feet: list[float]


@dataclass(frozen=True, kw_only=True, slots=True)
class Layout:
    """How both machines are placed; ``per_mm`` drawing units a mm along the shaft, ``centre`` the middle of the coupling."""

    movable_on: Side
    per_mm: float
    centre: float
    movable: DrawnMachine
    stationary: DrawnMachine

    @property
    def way(self) -> float:
        """Which way of x leads from the coupling to the movable machine."""
        return -1.0 if self.movable_on == "left" else 1.0

    def x(self, from_coupling_mm: float) -> float:
        """A place along the shaft, + toward the movable machine."""
        return self.way * from_coupling_mm * self.per_mm


@dataclass(frozen=True, kw_only=True, slots=True)
class Ray:
    """A straight axis: how far down it lies at the middle, and by how much more a drawing unit to the right."""

    drop: float
    shear: float


@dataclass(frozen=True, kw_only=True, slots=True)
class DrawnMove:
    """The move of a foot in this view: where it stands, which way the arrow points, how far. No arrow where it stays."""

    x: float
    points: Literal["up", "down", ""]
    words: Words


@dataclass(frozen=True, kw_only=True, slots=True)
class DrawnPlane:
    """A flexing plane of a spacer and the angle it takes."""

    x: float
    drop: float
    words: Words


@dataclass(frozen=True, kw_only=True, slots=True)
class DrawnView:
    """Side view or plan: where the movable axis lies, as it will run and as it was read cold, and what to move."""

    plane: Plane
    axis: Ray
    cold: Ray | None
    words: Words
    moves: list[DrawnMove]
    flex: list[DrawnPlane]


@dataclass(frozen=True, kw_only=True, slots=True)
class Drawn:
    """The whole drawing. ``band``: half its height at the coupling and at the far end of the movable machine."""

    layout: Layout
    times: float
    band: list[float] | None
    views: list[DrawnView]


def layout_of(stationary_mm: Sequence[float], movable_mm: Sequence[float], face_mm: float, movable_on: Side) -> Layout:
    """Both machines by how far their feet stand from the coupling, mm, and how far its hub faces or flexing planes do.

    >>> layout_of([], [300.0, 600.0], 0.0, "left").movable.feet[0] < 0
    True
    """
    movable, stationary = (max([LEAST_REACH_MM, *feet]) * ROOM_BEYOND for feet in (movable_mm, stationary_mm))
    per_mm = (WIDTH - 2 * MARGIN) / (movable + stationary)
    left = movable if movable_on == "left" else stationary
    way = -1.0 if movable_on == "left" else 1.0

    def machine(feet: Sequence[float], to: float) -> DrawnMachine:
        far = max([LEAST_REACH_MM, *feet]) * BEYOND_FEET
        near = max(face_mm + HUB_AND_SHAFT_MM, min(feet, default=far) * BODY_FROM)
        return DrawnMachine(
            face=to * face_mm * per_mm, near=to * near * per_mm, far=to * far * per_mm, feet=[to * x * per_mm for x in feet]
        )

    return Layout(
        movable_on=movable_on,
        per_mm=per_mm,
        centre=MARGIN + left * per_mm,
        movable=machine(movable_mm, way),
        stationary=machine(stationary_mm, -way),
    )


def exaggeration(largest_mm: float, per_mm: float) -> float:
    """A round factor (1, 2, 5 × 10ⁿ) that draws the largest displacement no farther than there is room.

    >>> exaggeration(0.1, 0.5), exaggeration(1.0, 0.5), exaggeration(0.0, 0.5)
    (200.0, 20.0, 100.0)
    """
    if largest_mm < NOTHING_TO_SHOW_MM:
        return USUAL_TIMES
    wanted = ROOM / (largest_mm * per_mm)
    power = 10.0 ** math.floor(math.log10(wanted))
    step = max(s for s in (1.0, 2.0, 5.0) if s * power <= wanted * (1 + 1e-9))
    return min(MOST_TIMES, max(1.0, step * power))


def draw(
    layout: Layout,
    *,
    left: Line,
    read: Line,
    movable_feet: Sequence[Foot],
    moves: Sequence[FootMove],
    allowed: Sequence[Allowed] = (),
    flex: Sequence[tuple[float, float, float]] = (),
) -> Drawn:
    """The drawing of what was read: ``left`` is where the movable axis will run, ``read`` where it was read cold.

    ``flex`` - place of each flexing plane, mm, and the angle it takes upward and toward 3 o'clock, mm/m
    """
    far_mm = max((abs(foot.x_mm) for foot in movable_feet), default=0.0)
    largest = max(abs(axis(x)) for axis in (left.v_mm, left.h_mm) for x in (0.0, far_mm))
    times = exaggeration(largest, layout.per_mm)
    return Drawn(
        layout=layout,
        times=times,
        band=_band(allowed, layout, times),
        views=[_view(plane, layout, times, left, read, moves, flex) for plane in ("v", "h")],
    )


def _view(
    plane: Plane,
    layout: Layout,
    times: float,
    left: Line,
    read: Line,
    moves: Sequence[FootMove],
    flex: Sequence[tuple[float, float, float]],
) -> DrawnView:
    # Looking from behind the movable machine up is up; in plan 3 o'clock is down where it stands left, up where right.
    down = -1.0 if plane == "v" else -layout.way
    offset, slope = _of(left, plane)
    axis = _ray(left, plane, layout, times, down)
    cold = _ray(read, plane, layout, times, down)
    way, opens = _in_words(plane, offset, slope)
    return DrawnView(
        plane=plane,
        axis=axis,
        cold=None if math.isclose(cold.drop, axis.drop) and math.isclose(cold.shear, axis.shear) else cold,
        words=Words(f"{{offset}} {way}, {opens} {{slope}}", {"offset": mm(abs(offset)), "slope": _per_100(slope)}),
        moves=[_move(x, move, plane, down) for x, move in zip(layout.movable.feet, moves, strict=False)],
        flex=[
            DrawnPlane(
                x=layout.x(x_mm),
                drop=axis.drop + axis.shear * layout.x(x_mm) if x_mm > 0 else 0.0,
                words=Words("{angle}", {"angle": _per_100(up if plane == "v" else across)}),
            )
            for x_mm, up, across in flex
        ],
    )


def _of(line: Line, plane: Plane) -> tuple[float, float]:
    return (line.offset_v_mm, line.slope_v_mm_per_m) if plane == "v" else (line.offset_h_mm, line.slope_h_mm_per_m)


def _ray(line: Line, plane: Plane, layout: Layout, times: float, down: float) -> Ray:
    offset, slope = _of(line, plane)
    return Ray(drop=down * offset * layout.per_mm * times, shear=down * layout.way * slope * times / 1000)


def _in_words(plane: Plane, offset: float, slope: float) -> tuple[str, str]:
    """Which way it lies, and where the coupling gapes: a shaft that rises away from it opens it at the bottom."""
    if plane == "v":
        return "high" if offset >= 0 else "low", "opens at top" if slope < 0 else "opens at bottom"
    return "to 3" if offset >= 0 else "to 9", "opens at 3" if slope < 0 else "opens at 9"


def _per_100(slope_mm_per_m: float) -> Figure:
    """An angle as the trade reads it off a drawing, whichever way it opens."""
    return Figure(abs(slope_mm_per_m) / 10, "mm/100", 3)


def _move(x: float, move: FootMove, plane: Plane, down: float) -> DrawnMove:
    by = move.shim_mm if plane == "v" else move.slide_mm
    shown = Words("{by}", {"by": bare(by, 2, signed=True) if plane == "v" else bare(abs(by), 2)})
    if abs(by) <= SHOWN_FROM_MM:
        return DrawnMove(x=x, points="", words=shown)
    return DrawnMove(x=x, points="down" if by * down > 0 else "up", words=shown)


def _band(allowed: Sequence[Allowed], layout: Layout, times: float) -> list[float] | None:
    """Where the movable axis may lie: at the coupling by the offset, farther out by the angle as well."""
    offsets = [limits.offset_mm for limits in allowed if limits.offset_mm is not None]
    angles = [limits.angle_mm_per_m for limits in allowed if limits.angle_mm_per_m is not None]
    if not offsets or not angles:
        return None
    far_mm, across = abs(layout.movable.far) / layout.per_mm, layout.per_mm * times
    near, far = min(offsets) * across, (min(offsets) + min(angles) * far_mm / 1000) * across
    return [min(TALLEST, near), min(TALLEST, far)]
