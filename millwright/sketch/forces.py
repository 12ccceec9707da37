"""What benches of hanging and magnetic drives found, drawn: an arm with its force, gaps beside a rotor, a gear train."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ..say import Figure, mm, words
from .shapes import Anchor, Label, Path, Sketch, Window, box, circle, label, line, outline, ring, turned_round

ARM_LONG, ROD_LONG, FORCE_LONG = 150.0, 130.0, 74.0
HEAD = 10.0


def _arrow(x1: float, y1: float, x2: float, y2: float) -> list[Path]:
    """A line that ends in a head."""
    along = math.atan2(y2 - y1, x2 - x1)
    tip = (x2, y2)
    barbs = [
        (x2 - HEAD * math.cos(along + turn), y2 - HEAD * math.sin(along + turn))
        for turn in (math.radians(28), -math.radians(28))
    ]
    return [line(x1, y1, x2, y2, "look here"), outline([tip, *barbs], "look here")]


def torque_arm(angle_deg: float, arm_mm: float, force: Figure, torque: Figure) -> Sketch:
    """The unit on its shaft, its arm to the pin, the rod to the anchor; the force along the rod."""
    x, y = 150.0, 120.0
    pin = (x + ARM_LONG, y)
    away = math.radians(angle_deg)
    # Seen from the pin the arm lies back toward the shaft; the rod leaves it at the angle between them.
    dx, dy = -math.cos(away), math.sin(away)
    anchor = (pin[0] + ROD_LONG * dx, pin[1] + ROD_LONG * dy)
    tail = (pin[0] + (ROD_LONG - FORCE_LONG) * 0.2 * dx - 26, pin[1] + (ROD_LONG - FORCE_LONG) * 0.2 * dy)
    head = (tail[0] + FORCE_LONG * dx, tail[1] + FORCE_LONG * dy)
    corner = [(pin[0] - 22 * math.cos(a), pin[1] + 22 * math.sin(a)) for a in [away * i / 12 for i in range(13)]]
    arc = Path(d="M" + "L".join(f"{px:.1f} {py:.1f}" for px, py in corner), ink="thin")
    ground = box(anchor[0] - 34, anchor[1] + 6, anchor[0] + 34, anchor[1] + 18, "cut")
    right: Anchor = "start"
    return Sketch(
        title=f"Torque arm at {angle_deg:g}° to its rod; the anchor takes {force}",
        width=520,
        height=286,
        paths=(
            outline([(x - 66, y - 56), (x + 50, y - 44), (x + 50, y + 44), (x - 66, y + 56)], "part"),
            ring(x, y, 20, 36, "cut other"),
            circle(x, y, 20, "part"),
            box(x, y - 6, pin[0], y + 6, "part"),
            circle(*pin, 8, "part"),
            line(*pin, *anchor, "line"),
            circle(*anchor, 6, "part"),
            ground,
            arc,
            line(x - 90, y, pin[0] + 40, y, "centre"),
            *_arrow(*tail, *head),
        ),
        labels=(
            label(x, y - 70, "torque {torque}", anchor="middle", torque=torque),
            label(x + ARM_LONG * 0.66, y - 14, "arm {arm}", anchor="middle", arm=mm(arm_mm, 0)),
            label(pin[0] + 16, y - 14, "{angle}", anchor=right, angle=Figure(angle_deg, "°", 0)),
            Label(x=372, y=52, words=label(0, 0, "{force}", force=force).words, big=True),
            label(372, 72, "on the anchor, along the rod"),
            label(anchor[0] + 42, anchor[1] + 16, "anchor"),
        ),
    )


Plane = Literal["v", "h"]
PLANES: dict[Plane, tuple[str, str, str]] = {
    "v": ("Side view", "top", "bottom"),
    "h": ("From above", "9 o'clock side", "3 o'clock side"),
}
MIDDLE, HALF_ROTOR, NOMINAL, HALF_HIGH = 430.0, 36.0, 44.0, 36.0
ROOM = 26.0  # how far the largest difference is drawn
EVEN_MM = 0.005
PLATE = 14.0
LEANS = 0.4  # of what the plates lean, so that the driver stays on the sheet
VIEW_HIGH = 136.0


@dataclass(frozen=True, kw_only=True)
class GapsInPlane:
    """Both gaps at the two ends of one view, and what each foot does in it: name, place, move, and toward what."""

    plane: Plane
    driver: tuple[float, float]
    load: tuple[float, float]
    feet: Sequence[tuple[str, float]]


def air_gaps(planes: Sequence[GapsInPlane], mean_driver: float, mean_load: float, along: float) -> Sketch:
    """Side view over plan: the rotor between its plates, every difference from the common mean drawn larger."""
    mean = (mean_driver + mean_load) / 2
    worst = max((abs(gap - mean) for plane in planes for gap in (*plane.driver, *plane.load)), default=0.0)
    per_mm = min(ROOM / max(worst, EVEN_MM), 2000.0)
    times = per_mm / (NOMINAL / max(abs(mean), 0.5))
    paths: list[Path] = []
    labels: list[Label] = []
    for i, plane in enumerate(planes):
        drawn, said = _gaps_in(plane, i * VIEW_HIGH, mean, per_mm, mean_driver, mean_load)
        paths += drawn
        labels += said
    note = "Differences drawn × {times}. Dashed: both plates where the gaps are even. Driver {along} along the shaft."
    return Sketch(
        title="Air gaps on both sides of the rotor, side view and from above, differences exaggerated",
        width=760,
        height=len(planes) * VIEW_HIGH + 24,
        paths=tuple(paths),
        labels=tuple(labels),
        note=words(note, times=Figure(times, "", 0), along=mm(along, signed=True)),
        narrow=Window(left=MIDDLE - 206, width=412),  # without driver and load: their moves are in the verdict
    )


def _gaps_in(
    plane: GapsInPlane, top: float, mean: float, per_mm: float, mean_driver: float, mean_load: float
) -> tuple[list[Path], list[Label]]:
    y = top + 76
    high, low = y - HALF_HIGH, y + HALF_HIGH
    left, right = MIDDLE - HALF_ROTOR, MIDDLE + HALF_ROTOR

    def off(gap: float) -> float:
        return NOMINAL + max(-NOMINAL, min(NOMINAL, (gap - mean) * per_mm))

    l1, l2 = (left - off(gap) for gap in plane.driver)
    r1, r2 = (right + off(gap) for gap in plane.load)
    plate, lean = (l1 + l2) / 2 - PLATE, LEANS * (l2 - l1) / (2 * HALF_HIGH)

    def along(x: float, up: float) -> tuple[float, float]:
        return x, y + up + (plate - x) * lean  # square on the plates, as far as it is shown

    title, upper, lower = PLANES[plane.plane]
    paths = [
        outline([(l1 - PLATE, high), (l1, high), (l2, low), (l2 - PLATE, low)], "cut"),
        outline([(r1, high), (r1 + PLATE, high), (r2 + PLATE, low), (r2, low)], "cut"),
        outline([(l1 - PLATE, high - 8), (r1 + PLATE, high - 8), (r1 + PLATE, high), (l1 - PLATE, high)], "part"),
        outline([(l2 - PLATE, low), (r2 + PLATE, low), (r2 + PLATE, low + 8), (l2 - PLATE, low + 8)], "part"),
        box(left, high + 8, MIDDLE - 4, low - 8, "cut other"),
        box(MIDDLE + 4, high + 8, right, low - 8, "cut other"),
        box(MIDDLE - 4, y - 8, right + 190, y + 8, "part"),
        outline([along(170, -28), along(262, -28), along(262, 28), along(170, 28)], "part"),
        outline([along(262, -7), along(plate, -7), along(plate, 7), along(262, 7)], "part"),
        line(left - NOMINAL, high - 14, left - NOMINAL, low + 14, "hidden"),
        line(right + NOMINAL, high - 14, right + NOMINAL, low + 14, "hidden"),
        line(130, y, 740, y, "centre"),
    ]
    labels = [
        label(8, top + 18, title),
        label(216, along(216, 5)[1], "driver", anchor="middle"),
        label(right + 150, y - 14, "load", anchor="middle"),
        label(MIDDLE, high - 14, upper, anchor="middle"),
        label(MIDDLE, low + 24, lower, anchor="middle"),
        label(min(l1 - PLATE, left - NOMINAL) - 6, high + 14, "{gap}", anchor="end", gap=mm(plane.driver[0])),
        label(min(l2 - PLATE, left - NOMINAL) - 6, low, "{gap}", anchor="end", gap=mm(plane.driver[1])),
        label(max(r1 + PLATE, right + NOMINAL) + 6, high + 14, "{gap}", gap=mm(plane.load[0])),
        label(max(r2 + PLATE, right + NOMINAL) + 6, low, "{gap}", gap=mm(plane.load[1])),
    ]
    if plane.plane == "v":
        driver, load = (label(0, 0, "{gap}", gap=mm(gap)).words for gap in (mean_driver, mean_load))
        labels += [
            label(MIDDLE - 140, top + 9, "driver side, mean", anchor="middle"),
            Label(x=MIDDLE - 140, y=top + 33, words=driver, anchor="middle", big=True),
            label(MIDDLE + 140, top + 9, "load side, mean", anchor="middle"),
            Label(x=MIDDLE + 140, y=top + 33, words=load, anchor="middle", big=True),
        ]
    for i, (name, move) in enumerate(plane.feet[:4]):
        what = "shim" if plane.plane == "v" else "toward 3" if move >= 0 else "toward 9"
        by = mm(move, signed=True) if plane.plane == "v" else mm(abs(move))
        labels.append(label(8, y - 26 + i * 30, f"{name},"))
        labels.append(label(8, y - 11 + i * 30, f"{what} {{by}}", by=by))
    return paths, labels


def gear_train(turns: Sequence[str], free: str, side: str) -> Sketch:
    """The wheels from the output to the backstop, each with the way it turns, seen from the backstop's side."""
    n = len(turns)
    r = min(60.0, 300.0 / n)
    y = 110.0
    paths: list[Path] = []
    labels: list[Label] = [label(8, 20, f"seen from the {side}")]
    for i, way in enumerate(turns):
        x = 20 + r + i * 2 * r
        paths += [circle(x, y, r - 1, "part"), circle(x, y, 7, "solid")]
        paths += turned_round(x, y, r - 16, 300, 60, clockwise=way == "cw")
        called = ("output and backstop" if n == 1 else "output") if i == 0 else "backstop" if i == n - 1 else ""
        labels.append(label(x, y + r + 18, called, anchor="middle"))
    labels.append(label(8, 220, f"free way of the backstop: {free}"))
    return Sketch(
        title=f"Gear train from the output to the backstop, seen from the {side}; free way {free}",
        width=max(300.0, 40 + n * 2 * r),
        height=232,
        paths=tuple(paths),
        labels=tuple(one for one in labels if one.words.template),
    )
