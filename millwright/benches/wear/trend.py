"""A straight line through readings over time, told apart from one reading that does not belong, a jump and a bend."""

from dataclasses import dataclass, replace
from datetime import date, datetime, timedelta
from typing import Literal

import numpy as np

from ...uncertainty import NORMAL_95, STANDS_OUT_ABOVE, STANDS_OUT_ELSE, Array, student_95
from .io import Jump

FEWEST = 4  # rule of thumb: with three, one bad reading is not seen
LEFT_BEFORE_A_JUMP = 2  # and after it: one alone is a reading that does not belong
MOST_FITTED = 400  # more are taken together, neighbours with neighbours
Why = Literal["few", "one day", "last off", "two off", "bend", "flat", "back", ""]
Other = tuple[Literal["off", "jump", "bend"], int]


@dataclass(frozen=True, kw_only=True)
class Line:
    """A weighted straight line. Days count from ``start``.

    ``k`` - how many sigmas hold 95 %: the larger of what the ± of the readings and what their scatter gives
    """

    start: datetime
    level: float
    slope: float
    covariance: Array  # shape (2, 2), one sigma of the readings' own ±
    k: float
    misfit: float  # weighted sum of squares

    def at(self, days: float) -> tuple[float, float]:
        """Value and half width of 95 %."""
        row = np.array([1.0, days])
        return self.level + self.slope * days, self.k * float(np.sqrt(row @ self.covariance @ row))

    def crosses(self, limit: float) -> tuple[float | None, float | None]:
        """Days at which the upper and the lower edge of the band are at ``limit``; None where an edge never is.

        Source: Fieller's theorem. The set of days whose value may be the limit is bounded where the slope is proven.
        """
        (vaa, vab), (_, vbb) = self.k**2 * self.covariance
        off = self.level - limit
        a, b, c = self.slope**2 - vbb, 2 * (self.slope * off - vab), off**2 - vaa
        inside = b * b - 4 * a * c
        if inside < 0 or a == 0:
            return None, None
        roots = sorted(((-b - np.sqrt(inside)) / (2 * a), (-b + np.sqrt(inside)) / (2 * a)))
        if a > 0:  # proven to go one way or the other
            return float(roots[0]), float(roots[1])
        # Not proven to grow: the upper edge still comes up to the limit some day, the lower never.
        return (float(roots[1]), None) if self.slope > -np.sqrt(vbb) else (None, None)

    @property
    def slope_plus_minus(self) -> float:
        """± of the slope a day, 95 %."""
        return self.k * float(np.sqrt(self.covariance[1, 1]))

    @property
    def grows(self) -> bool:
        """The slope is proven to be up."""
        return self.slope > self.slope_plus_minus

    @property
    def shrinks(self) -> bool:
        """The slope is proven to be down."""
        return -self.slope > self.slope_plus_minus


@dataclass(frozen=True, kw_only=True)
class Fit:
    """The readings that are fitted: days, values, one sigma, and where each stood in what was given."""

    start: datetime
    days: Array
    values: Array
    sigma: Array
    index: tuple[int, ...]

    def only(self, kept: np.ndarray) -> "Fit":
        """Those of them."""
        index = tuple(i for i, keep in zip(self.index, kept, strict=True) if keep)
        return replace(self, days=self.days[kept], values=self.values[kept], sigma=self.sigma[kept], index=index)

    def on(self, days: float) -> date:
        """The day so many days from its start."""
        return (self.start + timedelta(days=days)).date()


@dataclass(frozen=True, kw_only=True)
class Found:
    """What the readings of the run come to. ``why`` nothing is said of the time to come; empty where something is."""

    run: Fit
    line: Line | None = None
    aside: tuple[int, ...] = ()
    jump: Jump | None = None
    why: Why = ""


def taken_together(run: Fit) -> Fit:
    """Neighbours taken together by their median. The ± of one stays that of one: what an instrument is off does not average
    out."""
    parts = np.array_split(np.arange(len(run.days)), MOST_FITTED)

    def middle(of: Array) -> Array:
        return np.array([np.median(of[part]) for part in parts], dtype=np.float64)

    index = tuple(run.index[int(part[len(part) // 2])] for part in parts)
    return replace(run, days=middle(run.days), values=middle(run.values), sigma=middle(run.sigma), index=index)


def fit_line(run: Fit) -> Line:
    """Weighted least squares; at least three readings on two days."""
    design = np.column_stack([np.ones_like(run.days), run.days]) / run.sigma[:, None]
    covariance: Array = np.asarray(np.linalg.inv(design.T @ design), dtype=np.float64)
    level, slope = covariance @ design.T @ (run.values / run.sigma)
    residual = run.values / run.sigma - design @ np.array([level, slope])
    misfit, spare = float(residual @ residual), len(run.days) - 2
    k = max(NORMAL_95, student_95(spare) * float(np.sqrt(misfit / spare)))
    return Line(start=run.start, level=float(level), slope=float(slope), covariance=covariance, k=k, misfit=misfit)


def look(run: Fit) -> Found:
    """The line through a run; where something else explains the readings better, that."""
    if len(run.days) < FEWEST:
        return Found(run=run, why="few")
    if run.days[-1] == run.days[0]:
        return Found(run=run, why="one day")
    line = fit_line(run)
    other = _better_than_a_line(run, line)
    match other:
        case None:
            return Found(run=run, line=line, why=_why_not(line))
        case ("bend", _):
            return Found(run=run, line=None, why="bend")
        case ("jump", at):
            jump = _jump(run, at)
            after = look(run.only(np.arange(len(run.days)) >= at))
            return replace(after, jump=after.jump or jump)
        case (_, at):
            return _without(run, at)


def _without(run: Fit, at: int) -> Found:
    """One reading set aside. The last one may be the first of a jump: nothing is said before it is read again."""
    aside = (run.index[at],)
    rest = run.only(np.arange(len(run.days)) != at)
    if at == len(run.days) - 1:
        return Found(run=rest, aside=aside, why="last off")
    if len(rest.days) < FEWEST:
        return Found(run=rest, aside=aside, why="few")
    line = fit_line(rest)
    if _better_than_a_line(rest, line) is not None:
        return Found(run=rest, aside=aside, why="two off")
    return Found(run=rest, line=line, aside=aside, why=_why_not(line))


def _why_not(line: Line) -> Why:
    return "" if line.grows else "back" if line.shrinks else "flat"


def _better_than_a_line(run: Fit, line: Line) -> Other | None:
    """One reading off, a jump or a bend, where it takes away more of the misfit than chance does; the best of them.

    Each adds one unknown to the line. Source: likelihood ratio, held against the rule of thumb of `STANDS_OUT_ABOVE`.
    """
    n = len(run.days)
    spare = n - 3
    if spare < 1:
        return None
    ahead = np.arange(n)
    named: list[Other] = [("off", i) for i in range(n)]
    columns = [(ahead == i).astype(float) for i in range(n)]
    for k in range(LEFT_BEFORE_A_JUMP, n - LEFT_BEFORE_A_JUMP + 1):
        named.append(("jump", k))
        columns.append((ahead >= k).astype(float))
    named.append(("bend", 0))
    columns.append(((run.days - run.days.mean()) / max(float(np.ptp(run.days)), 1.0)) ** 2)
    gains = _taken_away(run, np.array(columns))
    best = int(np.argmax(gains))
    left = max(1.0, (line.misfit - gains[best]) / spare)
    threshold = STANDS_OUT_ABOVE.get(spare, STANDS_OUT_ELSE)
    return named[best] if gains[best] > threshold**2 * left else None


def _taken_away(run: Fit, columns: Array) -> Array:
    """By how much each column, added to the line, lowers the misfit. ``columns`` - shape (m, n). Source: geometry, the
    part of the residual along the part of the column that no line explains."""
    design = np.column_stack([np.ones_like(run.days), run.days]) / run.sigma[:, None]
    base, _ = np.linalg.qr(design)
    y = run.values / run.sigma
    residual = y - base @ (base.T @ y)
    weighed = columns / run.sigma
    own = weighed - (weighed @ base) @ base.T
    size = np.einsum("ij,ij->i", own, own)
    gains = np.zeros(len(columns))
    told = size > 1e-9 * np.einsum("ij,ij->i", weighed, weighed).clip(1e-30)
    gains[told] = (own[told] @ residual) ** 2 / size[told]
    return gains


def _jump(run: Fit, at: int) -> Jump:
    after = (np.arange(len(run.days)) >= at).astype(float)
    design = np.column_stack([np.ones_like(run.days), run.days, after]) / run.sigma[:, None]
    covariance = np.linalg.pinv(design.T @ design)
    found = covariance @ design.T @ (run.values / run.sigma)
    return Jump(
        after=run.on(run.days[at - 1]),
        before=run.on(run.days[at]),
        by=float(found[2]),
        plus_minus=NORMAL_95 * float(np.sqrt(covariance[2, 2])),
    )
