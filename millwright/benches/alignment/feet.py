"""Feet of the two machines: where they stand, how they rise when warm, and how far each has to move."""

import math
from dataclasses import dataclass
from statistics import linear_regression
from typing import Protocol

from pydantic import Field

from ...errors import Problem, problem
from ...model import Model, Place
from ...say import mm
from .worth import Worth, across_at, up_at

APART_MM = 1.0  # feet closer together along the shaft than this are one place
MAX_RISE_MM = 20.0  # more growth than this is a slip of the finger


class Foot(Model):
    """A foot, or a pair of feet across the machine, by its place along the shaft."""

    name: str = Field(min_length=1, max_length=60)
    x_mm: Place


@dataclass(frozen=True, kw_only=True, slots=True)
class FootMove:
    """What brings a foot into line: + shim is added, + slide is toward 3 o'clock.

    Each with its ±, 95 %, tape and bracket sag in it. Null where it cannot be told.
    """

    name: str
    shim_mm: float
    slide_mm: float
    shim_sigma_mm: float | None
    slide_sigma_mm: float | None
    shim_plus_minus_mm: float | None
    slide_plus_minus_mm: float | None


class Axis(Protocol):
    """Anything that has a height and a sideways place along the shaft."""

    def v_mm(self, x_mm: float, /) -> float: ...
    def h_mm(self, x_mm: float, /) -> float: ...


def problems_of_feet(stationary: list[Foot], movable: list[Foot], growth: dict[str, float] | None) -> list[Problem]:
    """Names used twice, feet at one place, growth for a foot that is not there."""
    found, names = [], set()
    for machine, feet in (("stationary_feet", stationary), ("movable_feet", movable)):
        for i, foot in enumerate(feet):
            if foot.name in names:
                found.append(Problem(f"{machine}.{i}.name", f"There is another foot called {foot.name}."))
            names.add(foot.name)
        places = [foot.x_mm for foot in feet]
        if len(feet) > 1 and max(places) - min(places) < APART_MM:
            found.append(Problem(f"{machine}.1.x_mm", "These feet are at the same place along the shaft."))
    for name, rise in (growth or {}).items():
        if name not in names:
            found.append(Problem(f"growth.{name}", f"No foot is called {name}."))
        elif not math.isfinite(rise) or abs(rise) > MAX_RISE_MM:
            found.append(problem(f"growth.{name}", "A foot does not rise by {rise}. A slip?", rise=mm(rise, None)))
    return found


def hot_lift(stationary: list[Foot], movable: list[Foot], growth: dict[str, float]) -> tuple[float, float]:
    """How far the movable axis rises over the stationary one from cold to running: mm at x = 0, and mm/m.

    Each machine's rise is a straight line through its feet, by least squares where there are more
    than two; one foot alone lifts the machine level. Feet that are not named do not grow.
    """
    offset_m, slope_m = line_through(movable, growth)
    offset_s, slope_s = line_through(stationary, growth)
    return offset_m - offset_s, slope_m - slope_s


def line_through(feet: list[Foot], growth: dict[str, float]) -> tuple[float, float]:
    """How a machine moves when its feet do, as one stiff piece: mm at x = 0, and mm/m. Feet not named stay."""
    rises = [growth.get(foot.name, 0.0) for foot in feet]
    if not any(rises):
        return 0.0, 0.0
    if len(feet) == 1:
        return rises[0], 0.0
    slope, offset = linear_regression([foot.x_mm for foot in feet], rises)
    return float(offset), float(slope) * 1000


def foot_moves(feet: list[Foot], left: Axis, worth: Worth | None) -> list[FootMove]:
    """The move at each foot that takes out what is left: − V(x) up, − H(x) sideways. Source: geometry."""
    return [
        FootMove(
            name=foot.name,
            shim_mm=-left.v_mm(foot.x_mm),
            slide_mm=-left.h_mm(foot.x_mm),
            shim_sigma_mm=None if worth is None else worth.sigma(up_at(foot.x_mm)),
            slide_sigma_mm=None if worth is None else worth.sigma(across_at(foot.x_mm)),
            shim_plus_minus_mm=None if worth is None else worth.of_foot(up_at(foot.x_mm)),
            slide_plus_minus_mm=None if worth is None else worth.of_foot(across_at(foot.x_mm)),
        )
        for foot in feet
    ]
