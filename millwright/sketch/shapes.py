"""What a sketch is made of: paths in a few inks, dimensions and leaders. Drawing units, x to the right, y downward."""

import math
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

from ..say import NOTHING, Part, Words, words

# A part seen from outside; cut through, and the part beside it cut the other way; rubber cut through; and lines alone.
Ink = Literal["part", "cut", "cut other", "rubber", "solid", "line", "thin", "centre", "hidden", "look here"]
Anchor = Literal["start", "middle", "end"]


@dataclass(frozen=True, kw_only=True, slots=True)
class Path:
    """A line or an outline, as SVG has it."""

    d: str
    ink: Ink


@dataclass(frozen=True, slots=True)
class Point:
    """A place."""

    x: float
    y: float


@dataclass(frozen=True, kw_only=True, slots=True)
class Label:
    """Words at a place; with ``to`` a leader runs from them to what they name. ``big`` - the figure that matters."""

    x: float
    y: float
    words: Words
    anchor: Anchor = "start"
    to: Point | None = None
    big: bool = False


@dataclass(frozen=True, kw_only=True, slots=True)
class Dimension:
    """A distance between two points, arrows inside, its figure beside the line."""

    x1: float
    y1: float
    x2: float
    y2: float
    words: Words


@dataclass(frozen=True, kw_only=True, slots=True)
class Window:
    """A part of a drawing, over its whole height."""

    left: float
    width: float


@dataclass(frozen=True, kw_only=True, slots=True)
class Sketch:
    """One drawing.

    ``title``   - what it shows, for whoever cannot see it
    ``note``    - how it is drawn, said under it
    ``narrow``  - what a narrow sheet shows of it at its full size, where it has no room for the whole
    """

    title: str
    width: float
    height: float
    paths: tuple[Path, ...]
    labels: tuple[Label, ...] = ()
    dimensions: tuple[Dimension, ...] = ()
    note: Words = NOTHING
    narrow: Window | None = None


def box(x1: float, y1: float, x2: float, y2: float, ink: Ink) -> Path:
    """A rectangle between two corners."""
    return Path(d=f"M{_n(x1)} {_n(y1)}H{_n(x2)}V{_n(y2)}H{_n(x1)}Z", ink=ink)


def line(x1: float, y1: float, x2: float, y2: float, ink: Ink = "line") -> Path:
    """A straight line."""
    return Path(d=f"M{_n(x1)} {_n(y1)}L{_n(x2)} {_n(y2)}", ink=ink)


def outline(points: Iterable[tuple[float, float]], ink: Ink) -> Path:
    """A closed outline through these corners.

    >>> outline([(0, 0), (4, 0), (4, 2.5)], "part").d
    'M0 0L4 0L4 2.5Z'
    """
    return Path(d="M" + "L".join(f"{_n(x)} {_n(y)}" for x, y in points) + "Z", ink=ink)


def circle(x: float, y: float, r: float, ink: Ink) -> Path:
    """A whole circle."""
    return Path(d=f"M{_n(x - r)} {_n(y)}a{_n(r)} {_n(r)} 0 1 0 {_n(2 * r)} 0a{_n(r)} {_n(r)} 0 1 0 {_n(-2 * r)} 0Z", ink=ink)


def ring(x: float, y: float, inner: float, outer: float, ink: Ink) -> Path:
    """What lies between two circles."""
    one, other = circle(x, y, outer, ink), circle(x, y, inner, ink)
    return Path(d=one.d + other.d, ink=ink)


def around(x: float, y: float, r: float, degrees: float) -> tuple[float, float]:
    """A place on a circle, clockwise from the top.

    >>> around(0, 0, 10, 90)
    (10.0, -0.0)
    """
    turned = math.radians(degrees)
    return round(x + r * math.sin(turned), 2), round(y - r * math.cos(turned), 2)


def turned_round(x: float, y: float, r: float, start: float, end: float, *, clockwise: bool) -> list[Path]:
    """An arrow round a shaft, from one angle to another clockwise from the top; its head at the end it turns to."""
    (x1, y1), (x2, y2) = around(x, y, r, start), around(x, y, r, end)
    arc = Path(d=f"M{x1:g} {y1:g}A{r:g} {r:g} 0 0 1 {x2:g} {y2:g}", ink="look here")
    at, ahead = (end, 9) if clockwise else (start, -9)
    tip = around(x, y, r, at + ahead)
    return [arc, outline([tip, around(x, y, r - 6, at), around(x, y, r + 6, at)], "look here")]


def in_turn(x: float, y: float, r: float, n: int) -> tuple[list[tuple[float, float]], list[tuple[float, float]]]:
    """The places of ``n`` holes of one kind, the first at the top, and of as many of another kind between them."""
    step = 360 / n
    return [around(x, y, r, i * step) for i in range(n)], [around(x, y, r, (i + 0.5) * step) for i in range(n)]


def sector(x: float, y: float, inner: float, outer: float, start: float, end: float, ink: Ink) -> Path:
    """A piece of a ring, from one angle to another clockwise from the top; less than half of it."""
    (x1, y1), (x2, y2) = around(x, y, outer, start), around(x, y, outer, end)
    (x3, y3), (x4, y4) = around(x, y, inner, end), around(x, y, inner, start)
    return Path(
        d=f"M{_n(x1)} {_n(y1)}A{_n(outer)} {_n(outer)} 0 0 1 {_n(x2)} {_n(y2)}"
        f"L{_n(x3)} {_n(y3)}A{_n(inner)} {_n(inner)} 0 0 0 {_n(x4)} {_n(y4)}Z",
        ink=ink,
    )


def label(
    x: float, y: float, text: str, *, anchor: Anchor = "start", to: tuple[float, float] | None = None, **parts: Part
) -> Label:
    """Words, with the figures in them."""
    return Label(x=x, y=y, words=words(text, **parts), anchor=anchor, to=Point(*to) if to else None)


def dimension(x1: float, y1: float, x2: float, y2: float, text: str, **parts: Part) -> Dimension:
    """A distance with its figure."""
    return Dimension(x1=x1, y1=y1, x2=x2, y2=y2, words=words(text, **parts))


def _n(value: float) -> str:
    return f"{round(value, 2):g}"
