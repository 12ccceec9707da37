"""A stack of shims from the thicknesses in the box: as close as can be, with the fewest pieces, at most four."""

from collections import Counter
from collections.abc import Sequence
from functools import lru_cache
from itertools import combinations_with_replacement
from typing import Annotated

from pydantic import Field

from ..model import Model

MOST_PIECES = 4  # rule of thumb: a stack of more is springy
NEAR_MM = 0.006  # rule of thumb: closer than a shop dial tells


Thickness = Annotated[float, Field(gt=0, le=100, description="mm")]


class ShimBox(Model):
    """The thicknesses at hand, mm, and what lies under each foot now."""

    box_mm: list[Thickness] = Field(min_length=1, max_length=16)
    under: dict[str, Annotated[list[Thickness], Field(max_length=12)]] = Field(default_factory=dict)


class ShimStack(Model):
    """What is to lie under a foot after the move: the pieces, and how far the stack misses what is wanted."""

    name: str
    was_mm: list[float]
    pieces_mm: list[float]
    misses_mm: float


def best_stack(wanted_mm: float, box_mm: Sequence[float], at_hand_mm: Sequence[float] = ()) -> list[float]:
    """Pieces that come closest to a thickness; of those that come near enough, the fewest.

    ``wanted_mm``  - 0 or more; ``box_mm`` - thicknesses, each as often as wanted
    ``at_hand_mm`` - single pieces besides, each only as often as it is there
    Source: trying every stack of at most four pieces.

    >>> best_stack(0.46, [0.05, 0.1, 0.2, 0.4, 0.5])
    [0.4, 0.05]
    """
    endless = {round(mm, 4) for mm in box_mm}
    single = Counter(piece for mm in at_hand_mm if (piece := round(mm, 4)) not in endless)
    box = tuple(sorted({*endless, *single}, reverse=True))
    best: tuple[float, ...] = ()
    for pieces in range(MOST_PIECES + 1):
        for stack, total in _stacks(box, pieces):
            nearer = abs(total - wanted_mm) < abs(sum(best) - wanted_mm) - 1e-9
            if nearer and all(stack.count(piece) <= there for piece, there in single.items()):
                best = stack
        if abs(sum(best) - wanted_mm) <= NEAR_MM:
            break
    return list(best)


@lru_cache(maxsize=32)
def _stacks(box: tuple[float, ...], pieces: int) -> tuple[tuple[tuple[float, ...], float], ...]:
    return tuple((stack, sum(stack)) for stack in combinations_with_replacement(box, pieces))


def stack_under(name: str, shim_mm: float, shims: ShimBox) -> ShimStack | None:
    """The stack under a foot after its move; None where it would have to be less than nothing."""
    under = shims.under.get(name, [])
    wanted = sum(under) + shim_mm
    if wanted < -NEAR_MM:
        return None
    pieces = best_stack(max(wanted, 0.0), shims.box_mm, under)
    return ShimStack(name=name, was_mm=under, pieces_mm=pieces, misses_mm=sum(pieces) - wanted)
