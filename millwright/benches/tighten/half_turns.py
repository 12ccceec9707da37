"""Rounds of half turns: each bolt half a turn in its order, out of the round when it clicks, until a round turns nothing."""

from collections.abc import Sequence
from dataclasses import dataclass

from .pulls import Pull


@dataclass(frozen=True, kw_only=True)
class Rounds:
    """How far the rounds are. ``next`` is None when a round over all bolts turned nothing."""

    round: int
    waiting: list[int]  # bolts of this round that have not had their turn
    done: bool

    @property
    def next(self) -> tuple[int, int] | None:
        """Round and bolt."""
        return None if self.done else (self.round, self.waiting[0])


def rounds_of(order: Sequence[int], pulls: Sequence[Pull]) -> Rounds:
    """Where the rounds stand after these pulls, in the order they were made.

    A bolt whose wrench clicked is left out of the rounds that follow; when all have clicked, all are gone over once more.
    It is done when a round turned nothing.
    """
    clicked: set[int] = set()
    number, members, turned = 1, list(order), False
    had: set[int] = set()
    for pull in pulls:
        had.add(pull.bolt)
        turned = turned or pull.turned is not False
        if pull.clicked:
            clicked.add(pull.bolt)
        if not set(members) <= had:
            continue
        if not turned:
            return Rounds(round=number, waiting=[], done=True)
        left = [bolt for bolt in order if bolt not in clicked]
        number, members, turned, had = number + 1, left or list(order), False, set()
    return Rounds(round=number, waiting=[bolt for bolt in members if bolt not in had], done=False)
