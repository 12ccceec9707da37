"""The moves of one machine, or of both, that bring the axes together and keep the room there is."""

import itertools
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import Any

import numpy as np
from pydantic import Field

from ...errors import Problem
from ...model import Model
from ...say import Words, mm, words
from ...uncertainty import Array
from .feet import Axis, Foot

NO_END = 1e3  # mm: where nobody names a bound
SLACK_MM = 1e-7  # what a second solve may add to the largest move of the first
NOTICED_MM = 0.0005  # less missing room than this is rounding
SAME_PLACE_MM = 1e-6


class Room(Model):
    """How far one foot can go: down by what can be taken out, toward 9 and toward 3. Not named: no end."""

    shim_mm: float | None = Field(default=None, le=200, description="most that can be taken out from under it")
    left_mm: float | None = Field(default=None, le=200, description="slide toward 9 o'clock")
    right_mm: float | None = Field(default=None, le=200, description="slide toward 3 o'clock")
    stays: bool = Field(default=False, description="this foot is not touched")


class PlannedMove(Model):
    """One foot's move: + shim is added, + slide is toward 3 o'clock."""

    name: str
    machine: str  # "stationary" or "movable"
    shim_mm: float
    slide_mm: float


@dataclass(frozen=True, kw_only=True)
class Plan:
    """The moves; or None, and what room would have to be made where."""

    moves: list[PlannedMove] | None
    missing: list[Words]


def problems_of_room(stationary: list[Foot], movable: list[Foot], room: dict[str, Room]) -> list[Problem]:
    """Room for a foot that is not there, or less than none."""
    names = {foot.name for foot in [*stationary, *movable]}
    found = []
    for name, has in room.items():
        if name not in names:
            found.append(Problem(f"room.{name}", f"No foot is called {name}."))
        for which in ("shim_mm", "left_mm", "right_mm"):
            value = getattr(has, which)
            if value is not None and value < 0:
                found.append(Problem(f"room.{name}.{which}", "Room is 0 or more."))
    return found


def plan_moves(stationary: list[Foot], movable: list[Foot], left: Axis, room: dict[str, Room]) -> Plan:
    """Moves of the named stationary feet and the movable feet after which the axes meet.

    Each machine moves as one stiff piece: its shims lie on a line along the shaft, and so do its slides. Feet of the
    stationary machine that ``room`` does not name stay; movable ones not named have no end. One machine is moved where one
    suffices, the movable one first; then as few feet as can be.
    Source: geometry for one machine; for both linear programming, the largest move as small as can be, then the sum.
    """
    problem = _Problem(stationary, movable, left, room)
    for alone in (problem.movable_alone, problem.stationary_alone):
        if (found := alone()) is not None:
            return Plan(moves=found, missing=[])
    if problem.smallest_largest_move(problem.low, problem.high) is None:
        return Plan(moves=None, missing=problem.missing_room())
    best: tuple[float, Array, Array] | None = None
    for _, together in itertools.groupby(problem.untouched(), key=lambda feet: len(feet)):
        for feet in together:
            low, high = problem.without(feet)
            largest = problem.smallest_largest_move(low, high)
            if largest is not None and (best is None or largest < best[0] - SLACK_MM):
                best = largest, low, high
        if best is not None:
            break
    return Plan(moves=problem.moves(problem.least_sum(*best)) if best else None, missing=[])


def _linprog(**given: Any) -> Any:
    """scipy's solver, loaded when it is first wanted: loading it takes longer than most benches run."""
    from scipy.optimize import linprog  # type: ignore[import-untyped]

    return linprog(method="highs", **given)


class _Problem:
    """Both planes as one linear programme.

    Unknowns: height and slope of each machine's move, vertical then horizontal (8), then one bound for each move.
    Moves stand in the order of the feet, shims first, then slides.
    """

    def __init__(self, stationary: list[Foot], movable: list[Foot], left: Axis, room: dict[str, Room]) -> None:
        self.feet = [(foot, "stationary", 0) for foot in stationary] + [(foot, "movable", 2) for foot in movable]
        self.room = room
        self.left = left
        self.rows = np.array([self._row(foot, first, plane) for plane in (0, 4) for foot, _, first in self.feet]).reshape(
            -1, 8
        )
        self.low, self.high = self._bounds()
        self.meet, self.meets = self._axes_meet()

    @staticmethod
    def _row(foot: Foot, first: int, plane: int) -> Array:
        row = np.zeros(8)
        row[plane + first], row[plane + first + 1] = 1.0, foot.x_mm / 1000
        return row

    def _bounds(self) -> tuple[Array, Array]:
        low, high = [], []
        for plane in ("shim", "slide"):
            for foot, machine, _ in self.feet:
                has = self.room.get(foot.name)
                if has is not None and has.stays:
                    low.append(0.0)
                    high.append(0.0)
                elif has is None:
                    end = 0.0 if machine == "stationary" else NO_END
                    low.append(-end)
                    high.append(end)
                elif plane == "shim":
                    low.append(-(NO_END if has.shim_mm is None else has.shim_mm))
                    high.append(NO_END)
                else:
                    low.append(-(NO_END if has.left_mm is None else has.left_mm))
                    high.append(NO_END if has.right_mm is None else has.right_mm)
        return np.array(low), np.array(high)

    def _axes_meet(self) -> tuple[Array, Array]:
        """What is left + the movable machine's move − the stationary one's = 0, in height and slope of both planes.

        A machine none of whose feet are given does not move; one with a single foot keeps its slope.
        """
        rows, right = [], []
        for plane, at in ((0, self.left.v_mm), (4, self.left.h_mm)):
            for term, value in ((0, at(0.0)), (1, at(1000.0) - at(0.0))):
                row = np.zeros(8)
                row[plane + 2 + term], row[plane + term] = 1.0, -1.0
                rows.append(row)
                right.append(-value)
        for machine, first in (("stationary", 0), ("movable", 2)):
            feet = sum(name == machine for _, name, _ in self.feet)
            for term in {0: (0, 1), 1: (1,)}.get(feet, ()):
                for plane in (0, 4):
                    row = np.zeros(8)
                    row[plane + first + term] = 1.0
                    rows.append(row)
                    right.append(0.0)
        return np.array(rows), np.array(right)

    def movable_alone(self) -> list[PlannedMove] | None:
        """The movable machine goes all the way; None where its room, or a single foot, does not allow it."""
        return self._alone("movable", -1.0)

    def stationary_alone(self) -> list[PlannedMove] | None:
        """The same of the machine that usually stays."""
        return self._alone("stationary", 1.0)

    def _alone(self, machine: str, sign: float) -> list[PlannedMove] | None:
        at: tuple[Callable[[float], float], ...] = (self.left.v_mm, self.left.h_mm)
        values = np.array([sign * line(foot.x_mm) if name == machine else 0.0 for line in at for foot, name, _ in self.feet])
        if sum(name == machine for _, name, _ in self.feet) < 2 and any(abs(line(1000) - line(0)) > SLACK_MM for line in at):
            return None
        kept = np.all(values >= self.low - SLACK_MM) and np.all(values <= self.high + SLACK_MM)
        return self.moves(values) if kept else None

    def untouched(self) -> Iterator[tuple[str, ...]]:
        """Sets of feet that may stay as they are while both machines move, the largest first.

        A machine that moves as one piece can stand still at one place along the shaft.
        """
        pivots: dict[str, dict[float, list[str]]] = {"stationary": {}, "movable": {}}
        for foot, machine, _ in self.feet:
            pivots[machine].setdefault(round(foot.x_mm / SAME_PLACE_MM) * SAME_PLACE_MM, []).append(foot.name)
        choices = [[(), *(tuple(names) for names in places.values())] for places in pivots.values()]
        sets = [one + other for one, other in itertools.product(*choices)]
        yield from sorted(sets, key=len, reverse=True)

    def without(self, feet: tuple[str, ...]) -> tuple[Array, Array]:
        """The bounds where these feet stay."""
        stays = np.array([foot.name in feet for _ in (0, 1) for foot, _, _ in self.feet])
        return np.where(stays, 0.0, self.low), np.where(stays, 0.0, self.high)

    def smallest_largest_move(self, low: Array, high: Array) -> float | None:
        """The largest move when it is as small as can be; None where the bounds do not allow any."""
        n = len(self.rows)
        one = np.ones((n, 1))
        limits = np.vstack(
            [
                np.hstack([self.rows, -one]),
                np.hstack([-self.rows, -one]),
                np.hstack([self.rows, 0 * one]),
                np.hstack([-self.rows, 0 * one]),
            ]
        )
        found = _linprog(
            c=np.append(np.zeros(8), 1.0),
            A_ub=limits,
            b_ub=np.concatenate([np.zeros(2 * n), high, -low]),
            A_eq=np.hstack([self.meet, np.zeros((len(self.meet), 1))]),
            b_eq=self.meets,
            bounds=[(None, None)] * 8 + [(0, None)],
        )
        return float(found.x[-1]) if found.status == 0 else None

    def least_sum(self, largest: float, low: Array, high: Array) -> Array:
        """The moves of the smallest sum among those no larger than that."""
        n = len(self.rows)
        reach = largest + SLACK_MM
        limits = np.vstack([np.hstack([self.rows, -np.eye(n)]), np.hstack([-self.rows, -np.eye(n)])])
        most, least = np.minimum(high, reach), np.maximum(low, -reach)
        stay = np.vstack([np.hstack([self.rows, np.zeros((n, n))]), np.hstack([-self.rows, np.zeros((n, n))])])
        found = _linprog(
            c=np.concatenate([np.zeros(8), np.ones(n)]),
            A_ub=np.vstack([limits, stay]),
            b_ub=np.concatenate([np.zeros(2 * n), most, -least]),
            A_eq=np.hstack([self.meet, np.zeros((len(self.meet), n))]),
            b_eq=self.meets,
            bounds=[(None, None)] * 8 + [(0, None)] * n,
        )
        return np.asarray(self.rows @ found.x[:8])

    def moves(self, values: Array) -> list[PlannedMove]:
        """The solution by feet; what is rounding is zero."""
        n = len(self.feet)
        clean = np.where(np.abs(values) < SLACK_MM * 10, 0.0, values)
        return [
            PlannedMove(name=foot.name, machine=machine, shim_mm=float(clean[i]), slide_mm=float(clean[n + i]))
            for i, (foot, machine, _) in enumerate(self.feet)
        ]

    def missing_room(self) -> list[Words]:
        """The least more room that would make it possible, in words. Feet of nobody's room stay where they are."""
        n = len(self.rows)
        extra = np.eye(n)
        limits = np.vstack(
            [
                np.hstack([self.rows, -extra, np.zeros((n, n))]),
                np.hstack([-self.rows, np.zeros((n, n)), -extra]),
            ]
        )
        named = np.array(
            [foot.name in self.room and not self.room[foot.name].stays for _ in (0, 1) for foot, _, _ in self.feet]
        )
        more = [(0.0, None if can else 0.0) for can in named]
        found = _linprog(
            c=np.concatenate([np.zeros(8), np.ones(2 * n)]),
            A_ub=limits,
            b_ub=np.concatenate([self.high, -self.low]),
            A_eq=np.hstack([self.meet, np.zeros((len(self.meet), 2 * n))]),
            b_eq=self.meets,
            bounds=[(None, None)] * 8 + more + more,
        )
        if found.status != 0:
            return []
        up, down = found.x[8 : 8 + n], found.x[8 + n :]
        feet = len(self.feet)
        lacks: list[tuple[float, str]] = []
        for i, (foot, _, _) in enumerate(self.feet):
            for value, what in (
                (down[i], f"to take out under {foot.name}"),
                (up[feet + i], f"for {foot.name} to slide toward 3"),
                (down[feet + i], f"for {foot.name} to slide toward 9"),
            ):
                if value > 0:
                    lacks.append((float(value), what))
        noticed = [(value, what) for value, what in lacks if value > NOTICED_MM]
        places = 2 if noticed else 4
        return [words("{more} more {what}", more=mm(value, places), what=what) for value, what in noticed or lacks]
