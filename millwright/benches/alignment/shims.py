"""Stacks of shims from the thicknesses in the box, chosen for all feet together: the least left at feet and coupling."""

import itertools
import math
from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import combinations_with_replacement
from typing import Annotated

import numpy as np
from pydantic import Field

from ...model import Model
from ...say import Say, mm, say
from ...uncertainty import Array

MOST_PIECES = 4  # rule of thumb: a stack of more is springy
MAKES_IT_MM = 0.05  # a stack farther off than this is none
ALIKE_MM = 0.002  # rule of thumb: stacks that leave no more than this difference are alike; the fewer pieces go
NEAREST = 16  # so many stacks are tried under each foot, the nearest ones
MOST_SWEEPS = 6


Thickness = Annotated[float, Field(gt=0, le=100, description="mm")]


class ShimBox(Model):
    """The thicknesses at hand, mm, and what lies under each foot now."""

    box_mm: list[Thickness] = Field(min_length=1, max_length=16)
    under: dict[str, Annotated[list[Thickness], Field(max_length=12)]] = Field(default_factory=dict)


class ShimStack(Model):
    """What is to lie under a foot after the move, and how far it is too high. No pieces: the box does not make it."""

    name: str
    was_mm: list[float]
    pieces_mm: list[float] | None
    misses_mm: float


@dataclass(frozen=True, kw_only=True)
class Shimmed:
    """A foot that is to be shimmed: where it stands, on which machine, by how much."""

    name: str
    machine: str  # "stationary" or "movable"
    x_mm: float
    shim_mm: float


@lru_cache(maxsize=32)
def _totals(box: tuple[float, ...], at_hand: tuple[float, ...]) -> tuple[tuple[float, tuple[float, ...]], ...]:
    """Every thickness that at most four pieces make, thinnest first, each with its fewest pieces.

    ``box`` - thicknesses, each as often as wanted; ``at_hand`` - single pieces besides, each once
    """
    single = Counter(at_hand)
    found: dict[float, tuple[float, ...]] = {}
    for pieces in range(MOST_PIECES + 1):
        for stack in combinations_with_replacement(sorted({*box, *at_hand}, reverse=True), pieces):
            if all(stack.count(piece) <= there for piece, there in single.items()):
                found.setdefault(round(sum(stack), 6), stack)
    return tuple(sorted(found.items()))


def nearest_stacks(
    wanted_mm: float, box_mm: Sequence[float], at_hand_mm: Sequence[float] = ()
) -> list[tuple[float, tuple[float, ...]]]:
    """The stacks of at most four pieces that come nearest to a thickness, nearest first: (thickness, pieces).

    >>> nearest_stacks(0.46, [0.05, 0.1, 0.2, 0.4, 0.5])[0]
    (0.45, (0.4, 0.05))
    """
    endless = tuple(sorted({round(mm, 4) for mm in box_mm}))
    single = tuple(sorted(piece for mm in at_hand_mm if (piece := round(mm, 4)) not in endless))
    totals = _totals(endless, single)
    return sorted(totals, key=lambda made: (abs(made[0] - wanted_mm), len(made[1])))[:NEAREST]


def stacks_under(feet: Sequence[Shimmed], shims: ShimBox) -> list[ShimStack]:
    """What goes under each foot, chosen together: the largest error at any foot and at the coupling as small as can be.

    A foot from under which more would have to come than lies there has none. A box that does not come within
    `MAKES_IT_MM` makes no stack for that foot.
    Source: geometry, a machine goes as one piece along the line through its feet; two feet at a time are tried against
    each other until nothing gets better.
    """
    wanted = {foot.name: sum(shims.under.get(foot.name, [])) + foot.shim_mm for foot in feet}
    can = [foot for foot in feet if wanted[foot.name] > -ALIKE_MM]
    tried = {foot.name: _near(max(wanted[foot.name], 0.0), shims, foot.name) for foot in can}
    makes = [foot for foot in can if abs(tried[foot.name][0][0] - wanted[foot.name]) <= MAKES_IT_MM]
    chosen = _together(makes, wanted, tried)
    stacks = []
    for foot in can:
        thick, pieces = tried[foot.name][chosen.get(foot.name, 0)]
        stacks.append(
            ShimStack(
                name=foot.name,
                was_mm=shims.under.get(foot.name, []),
                pieces_mm=list(pieces) if foot in makes else None,
                misses_mm=thick - wanted[foot.name],
            )
        )
    return stacks


def _near(wanted_mm: float, shims: ShimBox, name: str) -> list[tuple[float, tuple[float, ...]]]:
    return nearest_stacks(wanted_mm, shims.box_mm, shims.under.get(name, []))


def _together(
    feet: Sequence[Shimmed], wanted: Mapping[str, float], tried: Mapping[str, list[tuple[float, tuple[float, ...]]]]
) -> dict[str, int]:
    """Which of the stacks tried under each foot: by name, the place in its list."""
    misses = [np.array([thick - wanted[foot.name] for thick, _ in tried[foot.name]]) for foot in feet]
    pieces = [np.array([len(stack) for _, stack in tried[foot.name]]) for foot in feet]
    at_coupling, _ = errors_at_coupling(feet)
    chosen = [0] * len(feet)

    def worth(i: int, j: int) -> Array:
        """What each pair of stacks under two feet leaves, the others as they are: steps of `ALIKE_MM`, then pieces."""
        rest = [k for k in range(len(feet)) if k not in (i, j)]
        others = [misses[k][chosen[k]] for k in rest]
        one, other = misses[i][:, None], misses[j][None, :]
        coupling = sum(at_coupling[k] * miss for k, miss in zip(rest, others, strict=True))
        coupling = np.abs(coupling + at_coupling[i] * one + at_coupling[j] * other)
        largest = np.maximum(np.maximum(np.abs(one), np.abs(other)), coupling)
        largest = np.maximum(largest, max(map(abs, others), default=0.0))
        count = pieces[i][:, None] + pieces[j][None, :]
        return np.asarray(np.ceil(largest / ALIKE_MM - 1e-9) * 1000 + count + largest)

    pairs = list(itertools.combinations(range(len(feet)), 2))
    for _ in range(MOST_SWEEPS):
        before = list(chosen)
        for i, j in pairs:
            table = worth(i, j)
            best = np.unravel_index(int(np.argmin(table)), table.shape)
            chosen[i], chosen[j] = int(best[0]), int(best[1])
        if chosen == before:
            break
    return {foot.name: at for foot, at in zip(feet, chosen, strict=True)}


def errors_at_coupling(feet: Sequence[Shimmed]) -> tuple[list[float], list[float]]:
    """What one mm too much under each foot adds to the offset at the coupling (mm) and to the slope (mm/m).

    Source: geometry, the line through the feet of a machine by least squares; what lifts the stationary machine lowers
    the other against it.
    """
    offset, slope = [0.0] * len(feet), [0.0] * len(feet)
    for machine, sign in (("movable", 1.0), ("stationary", -1.0)):
        mine = [i for i, foot in enumerate(feet) if foot.machine == machine]
        places = np.array([feet[i].x_mm for i in mine])
        if len(mine) == 0:
            continue
        spread = places - places.mean()
        turns = spread / float(spread @ spread) if float(spread @ spread) > 1.0 else np.zeros(len(mine))
        for k, i in enumerate(mine):
            slope[i] = sign * float(turns[k]) * 1000
            offset[i] = sign * (1 / len(mine) - float(turns[k]) * float(places.mean()))
    return offset, slope


def left_by_shims(feet: Sequence[Shimmed], stacks: Sequence[ShimStack]) -> tuple[float, float] | None:
    """Offset in mm and slope in mm/m that the stacks leave at the coupling; None where one of them cannot be made."""
    misses = {stack.name: stack.misses_mm for stack in stacks if stack.pieces_mm is not None}
    if not feet or len(misses) < len(feet):
        return None
    offset, slope = errors_at_coupling(feet)
    left = [misses[foot.name] for foot in feet]
    return math.fsum(map(float.__mul__, offset, left)), math.fsum(map(float.__mul__, slope, left))


def say_shims(stacks: Sequence[ShimStack]) -> list[Say]:
    """Which foot the box makes no stack for, and by how much it misses."""
    text = "The shim box makes nothing within {within} for {foot}: the nearest it makes is {off} {way}."
    return [
        say(
            "box_misses",
            text,
            within=mm(MAKES_IT_MM),
            foot=stack.name,
            off=mm(abs(stack.misses_mm), 3),
            way="too high" if stack.misses_mm > 0 else "too low",
        )
        for stack in stacks
        if stack.pieces_mm is None
    ]
