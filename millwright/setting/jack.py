"""A machine as it is moved: how far each foot has gone and what is left, from dials at the feet or a laser that watches."""

import math
from collections.abc import Sequence
from typing import Annotated, Literal

from pydantic import Field

from ..clock import ClockReading, say_clock
from ..errors import Problem, refuse_if_any
from ..model import Model, Place, Reading
from ..verdict import Result, Verdict, WorkLine, work

Way = Literal["slide", "lift"]

THERE_MM = 0.01  # rule of thumb: one mark of a shop dial
ON_PAPER_MM = 1e-9
# Rule of thumb: heads this far from where they see the move in full show a tenth less of it.
MOST_OFF_DEG = 25.0
TURNED_DEG = 3.0  # more than this between first and last reading: the heads were turned
SEES: dict[Way, tuple[float, float]] = {"lift": (0.0, 180.0), "slide": (90.0, 270.0)}


class FootToGo(Model):
    """A foot and its move: shims + added, slide + toward 3 o'clock."""

    name: str = Field(min_length=1, max_length=60)
    x_mm: Place
    shim_mm: float = Field(ge=-50, le=50)
    slide_mm: float = Field(ge=-50, le=50)
    dial_mm: Reading | None = Field(default=None, description="dial at the side of this foot, zeroed before the move")

    def wanted_mm(self, way: Way) -> float:
        """How far it is to go in this way."""
        return self.slide_mm if way == "slide" else self.shim_mm


class WatchedPlane(Model):
    """A laser's plane, its heads left where they are: readings before the move, and the last ones."""

    x_mm: Place
    first: list[ClockReading] = Field(min_length=1, max_length=200)
    now: list[ClockReading] = Field(min_length=1, max_length=200)


class JackInput(Model):
    """The feet that are moved, and what watches them: dials at the feet, or the two planes of a laser."""

    feet: list[FootToGo] = Field(min_length=1, max_length=40)
    planes: Annotated[list[WatchedPlane], Field(max_length=2)] = Field(default_factory=list)


class FootGoing(Model):
    """How far a foot has gone and what is left; None where nothing watches it."""

    name: str
    moved_mm: float | None
    left_mm: float | None
    there: bool


class JackResult(Result):
    """Which way is watched, and each foot in the order given."""

    way: Way
    feet: list[FootGoing]


def evaluate(given: JackInput) -> JackResult:
    """What is left to go at each foot.

    Raises `UnusableInput` for heads that cannot see this move, or were turned while they watched.
    Source: geometry. A plane at φ sees lift × cos φ or slide × sin φ; the feet lie on the straight line through both planes.
    The way is the one the heads see, a slide where there are none. In a slide a dial at the foot goes before the laser. A
    laser sees one shaft against the other: it tells of the movable machine's feet, while the other machine stands still.
    """
    way = _way(given.planes)
    refuse_if_any(_problems(given, way))
    seen = [_seen(plane, way) for plane in given.planes]
    feet, lines = [], []
    for foot in given.feet:
        moved = foot.dial_mm if way == "slide" else None
        if moved is None and foot.x_mm > 0:
            moved = _at(given.planes, seen, foot.x_mm)
        wanted = foot.wanted_mm(way)
        left = None if moved is None else wanted - moved
        feet.append(
            FootGoing(
                name=foot.name, moved_mm=moved, left_mm=left, there=left is not None and abs(left) <= THERE_MM + ON_PAPER_MM
            )
        )
        if left is not None:
            lines.append(work(f"{foot.name}, left to go", "wanted − moved", f"{wanted:+.3f} − {moved:+.3f}", left))
    return JackResult(
        bench="jack",
        verdict=Verdict.NOT_JUDGED,
        checks=[],
        advice=_advice(way, feet),
        working=[*_working(given, way, seen), *lines],
        way=way,
        feet=feet,
    )


def _way(planes: Sequence[WatchedPlane]) -> Way:
    """The way the heads see best."""
    if not planes:
        return "slide"
    return min(SEES, key=lambda way: min(_apart(planes[0].first[0].clock, best) for best in SEES[way]))


def _problems(given: JackInput, way: Way) -> list[Problem]:
    if len(given.planes) == 1:
        return [Problem("planes", "A laser watches with two planes; there is one.")]
    if len(given.planes) == 2 and abs(given.planes[0].x_mm - given.planes[1].x_mm) < 1:
        return [Problem("planes.1.x_mm", "The two planes stand at the same place.")]
    found = []
    for i, plane in enumerate(given.planes):
        places = [r.clock for r in [*plane.first, *plane.now]]
        if max(_apart(place, places[0]) for place in places) > TURNED_DEG:
            found.append(Problem(f"planes.{i}", "The heads were turned meanwhile. Leave them where they are and start anew."))
        elif min(_apart(places[0], best) for best in SEES[way]) > MOST_OFF_DEG:
            found.append(
                Problem(
                    f"planes.{i}",
                    f"At {say_clock(places[0])} the heads see neither move well. Turn them to 3 or 9 for a slide, to 12 or 6 "
                    "for a lift.",
                )
            )
    return found


def _apart(a: float, b: float) -> float:
    turned = abs(a - b) % 360
    return min(turned, 360 - turned)


def _mean(readings: Sequence[ClockReading]) -> float:
    return sum(r.value_mm for r in readings) / len(readings)


def _seen(plane: WatchedPlane, way: Way) -> float:
    """How far the shaft has moved at this plane."""
    phi = math.radians(plane.first[0].clock)
    share = math.cos(phi) if way == "lift" else math.sin(phi)
    return (_mean(plane.now) - _mean(plane.first)) / share


def _at(planes: Sequence[WatchedPlane], seen: Sequence[float], x_mm: float) -> float | None:
    """The straight line through both planes, prolonged to a foot."""
    if not planes:
        return None
    (a, b), (at_a, at_b) = (plane.x_mm for plane in planes), seen
    return at_a + (at_b - at_a) * (x_mm - a) / (b - a)


def _advice(way: Way, feet: Sequence[FootGoing]) -> list[str]:
    left = [foot for foot in feet if foot.left_mm is not None and not foot.there]
    if any(foot.there for foot in feet) and not left:
        return ["Every foot that is watched is there. Tighten crosswise, and watch that it stays."]
    if not left:
        return []
    furthest = max(left, key=lambda foot: abs(foot.left_mm or 0.0))
    far = furthest.left_mm or 0.0
    toward = {"slide": ("toward 3", "toward 9"), "lift": ("up", "down")}[way][0 if far > 0 else 1]
    return [f"Furthest off: {furthest.name}, {abs(far):.2f} mm {toward}. A little at each foot in turn."]


def _working(given: JackInput, way: Way, seen: Sequence[float]) -> list[WorkLine]:
    share = "cos" if way == "lift" else "sin"
    return [
        work(
            f"moved at the plane {plane.x_mm:+.0f}",
            f"(now − first) ÷ {share} φ",
            f"({_mean(plane.now):+.3f} − {_mean(plane.first):+.3f}) ÷ {share} {plane.first[0].clock:g}°",
            moved,
        )
        for plane, moved in zip(given.planes, seen, strict=True)
    ]
