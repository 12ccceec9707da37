"""A machine as it is moved: how far each foot has gone and what is left, from dials at the feet or a laser that watches."""

import math
from collections.abc import Callable, Sequence
from statistics import linear_regression
from typing import Annotated, Literal

from pydantic import Field

from ..clock import ClockReading, say_clock
from ..errors import Problem, refuse_if_any
from ..model import Model, Place, Reading
from ..say import Say, bare, mm, say, words
from ..uncertainty import NORMAL_95, REPEATS_MM, student_95
from ..verdict import Result, Verdict, WorkLine, work

Way = Literal["slide", "lift"]

THERE_MM = 0.01  # rule of thumb: one mark of a shop dial
ALLOWED_MM = 0.05  # rule of thumb: the thinnest shim; what is known no better than that is not known to be there
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
    dial_mm: Reading | None = Field(default=None, description="dial at this foot, zeroed before the move, pushed in is plus")
    allowed_mm: float = Field(default=ALLOWED_MM, gt=0, le=50, description="how far off it may be left")
    side: Literal["3", "9"] | None = Field(default=None, description="which side of the foot the dial stands on")

    def by_dial_mm(self, way: Way) -> float | None:
        """How far its own dial says it has slid, + toward 3: a dial on the 3 side is pushed in by it."""
        if way != "slide" or self.dial_mm is None:
            return None
        return self.dial_mm if self.side == "3" else 0.0 - self.dial_mm

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
    """How far a foot has gone and what is left, ± 95 %; None where nothing watches it."""

    name: str
    moved_mm: float | None
    left_mm: float | None
    plus_minus_mm: float | None
    there: bool | None = Field(description="null where the ± is larger than what it may be off")


class JackResult(Result):
    """Which way is watched, and each foot in the order given."""

    way: Way
    feet: list[FootGoing]


def evaluate(given: JackInput) -> JackResult:
    """What is left to go at each foot.

    Raises `UnusableInput` for heads that cannot see this move, or were turned while they watched, and for a dial at a foot
    that slides of which nobody says on which side it stands.
    Source: geometry. A plane at φ sees lift × cos φ or slide × sin φ; the feet lie on the straight line through both planes.
    The way is the one the heads see, a slide where there are none. In a slide a dial at the foot goes before the laser. A
    laser sees one shaft against the other: what the stationary machine has moved meanwhile, by the dials at its feet, is
    taken off. A foot is there within the ± of what watches it, where that is no larger than what it may be off; else it
    cannot be told.
    """
    way = _way(given.planes)
    refuse_if_any(_problems(given, way))
    watched = _Watched(given.planes, way)
    base = _stationary_moved(given, way)
    feet, lines = [], []
    for foot in given.feet:
        moved, plus_minus = foot.by_dial_mm(way), THERE_MM
        if moved is None and foot.x_mm > 0 and given.planes:
            moved, plus_minus = watched.at(foot.x_mm) + base(foot.x_mm), max(THERE_MM, watched.plus_minus(foot.x_mm))
        wanted = foot.wanted_mm(way)
        left = None if moved is None else wanted - moved
        feet.append(
            FootGoing(
                name=foot.name,
                moved_mm=moved,
                left_mm=left,
                plus_minus_mm=None if moved is None else plus_minus,
                there=left is not None and _is_there(left, plus_minus, foot.allowed_mm),
            )
        )
        if left is not None and moved is not None:
            numbers = words("{wanted} − {moved}", wanted=bare(wanted, signed=True), moved=bare(moved, signed=True))
            lines.append(work("left", f"{foot.name}, left to go", "required − moved", numbers, left))
    return JackResult(
        bench="jack",
        verdict=Verdict.NOT_JUDGED,
        checks=[],
        says=_advice(way, feet, unwatched=_unwatched(given.feet, feet, way)),
        working=[*watched.working(), *lines],
        way=way,
        feet=feet,
    )


def _is_there(left_mm: float, plus_minus_mm: float, allowed_mm: float) -> bool | None:
    if abs(left_mm) > plus_minus_mm + ON_PAPER_MM:
        return False
    return True if plus_minus_mm <= allowed_mm + ON_PAPER_MM else None


def _unwatched(given: Sequence[FootToGo], feet: Sequence[FootGoing], way: Way) -> list[str]:
    """Feet that are to go this way and that nothing watches."""
    seen = {foot.name for foot in feet if foot.left_mm is not None}
    return [foot.name for foot in given if abs(foot.wanted_mm(way)) > THERE_MM and foot.name not in seen]


def _stationary_moved(given: JackInput, way: Way) -> Callable[[float], float]:
    """How far the stationary machine has moved by the dials at its feet, prolonged to a place; without dials, not at all."""
    moved = {foot.x_mm: by for foot in given.feet if foot.x_mm < 0 and (by := foot.by_dial_mm(way)) is not None}
    if len(moved) < 2:
        return lambda _: next(iter(moved.values()), 0.0)
    slope, offset = linear_regression(list(moved), list(moved.values()))
    return lambda x_mm: float(offset + slope * x_mm)


def _way(planes: Sequence[WatchedPlane]) -> Way:
    """The way the heads see best."""
    if not planes:
        return "slide"
    return min(SEES, key=lambda way: min(_apart(planes[0].first[0].clock, best) for best in SEES[way]))


def _problems(given: JackInput, way: Way) -> list[Problem]:
    no_side = [
        Problem(f"feet.{i}.side", f"Which side of {foot.name} is the dial on, 3 or 9?")
        for i, foot in enumerate(given.feet)
        if way == "slide" and foot.dial_mm is not None and foot.side is None
    ]
    return no_side + _problems_of_planes(given, way)


def _problems_of_planes(given: JackInput, way: Way) -> list[Problem]:
    if len(given.planes) == 1:
        return [Problem("planes", "A laser watches with two planes; there is one.")]
    if len(given.planes) == 2 and abs(given.planes[0].x_mm - given.planes[1].x_mm) < 1:
        return [Problem("planes.1.x_mm", "The two planes are at the same place.")]
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


class _Watched:
    """What a laser's two planes see of a move: how far the shaft has gone at each, and to what they tell it."""

    def __init__(self, planes: Sequence[WatchedPlane], way: Way) -> None:
        self.planes, self.way = planes, way
        self.seen = [(_mean(plane.now) - _mean(plane.first)) / self._share(plane) for plane in planes]
        self.tells = [self._tells_mm(plane) for plane in planes]

    def _share(self, plane: WatchedPlane) -> float:
        phi = math.radians(plane.first[0].clock)
        return math.cos(phi) if self.way == "lift" else math.sin(phi)

    def _tells_mm(self, plane: WatchedPlane) -> float:
        """± of one plane, 95 %. Source: the scatter of both means; where neither was read twice, what a dial repeats to."""
        squares, spare, weight = 0.0, 0, 0.0
        for readings in (plane.first, plane.now):
            mean = _mean(readings)
            squares += sum((r.value_mm - mean) ** 2 for r in readings)
            spare += len(readings) - 1
            weight += 1 / len(readings)
        single = student_95(spare) * math.sqrt(squares / spare) if spare else NORMAL_95 * REPEATS_MM
        return single * math.sqrt(weight) / abs(self._share(plane))

    def _shares(self, x_mm: float) -> tuple[float, float]:
        """How much each plane says about a foot: the straight line through both, prolonged."""
        a, b = (plane.x_mm for plane in self.planes)
        far = (x_mm - a) / (b - a)
        return 1 - far, far

    def at(self, x_mm: float) -> float:
        return sum(share * seen for share, seen in zip(self._shares(x_mm), self.seen, strict=True))

    def plus_minus(self, x_mm: float) -> float:
        return math.hypot(*(share * tells for share, tells in zip(self._shares(x_mm), self.tells, strict=True)))

    def working(self) -> list[WorkLine]:
        turn = "cos" if self.way == "lift" else "sin"
        return [
            work(
                "plane",
                f"moved at plane {i}",
                f"(now − first) ÷ {turn} φ",
                words(
                    "({now} − {first}) ÷ {turn} {clock}",
                    now=bare(_mean(plane.now), signed=True),
                    first=bare(_mean(plane.first), signed=True),
                    turn=turn,
                    clock=f"{plane.first[0].clock:g}°",
                ),
                moved,
            )
            for i, (plane, moved) in enumerate(zip(self.planes, self.seen, strict=True), start=1)
        ]


def _advice(way: Way, feet: Sequence[FootGoing], *, unwatched: Sequence[str]) -> list[Say]:
    """``unwatched`` - feet that are to move and that nothing watches: nobody is told that all are there."""
    left = [foot for foot in feet if foot.left_mm is not None and foot.there is False]
    unsure = [foot for foot in feet if foot.left_mm is not None and foot.there is None]
    if unsure and not left:
        worst = max(unsure, key=lambda foot: foot.plus_minus_mm or 0.0)
        text = "Cannot tell whether {foot} is there: known to ±{by} only. Read again, planes further apart; or a dial at it."
        return [say("cannot_tell_there", text, foot=worst.name, by=mm(worst.plus_minus_mm or 0.0))]
    if any(foot.there for foot in feet) and not left:
        if unwatched:
            text = "What is watched is there. Nothing watches {feet}: put a dial there before anything is tightened."
            return [say("not_watched", text, feet=" and ".join(unwatched))]
        return [say("all_there", "Every foot that is watched is there. Tighten crosswise, and watch that it stays.")]
    if not left:
        return []
    furthest = max(left, key=lambda foot: abs(foot.left_mm or 0.0))
    far = furthest.left_mm or 0.0
    toward = {"slide": ("toward 3", "toward 9"), "lift": ("up", "down")}[way][0 if far > 0 else 1]
    text = "Farthest off: {foot}, {far} {toward}. A little at each foot in turn."
    return [say("farthest_off", text, foot=furthest.name, far=mm(abs(far)), toward=toward)]
