"""In what order the bolts of a circle or a row are pulled; numbered from 1, clockwise."""

from typing import Literal

Pattern = Literal["star", "circle", "alternate"]
HALF_TURNS: Literal["half turns"] = "half turns"
RISING = (0.5, 0.75, 1.0)  # shares of the torque where no paper says others; custom of the trade


def star_order(bolts: int) -> list[int]:
    """Crosswise order, bolts numbered from 1 clockwise.

    Even count: opposite pairs, each as nearly at right angles to the one before as those left
    allow, ties to the lower number. Odd count: steps of (n − 1)/2.

    >>> star_order(8), star_order(5)
    ([1, 5, 3, 7, 2, 6, 4, 8], [1, 3, 5, 2, 4])
    """
    if bolts % 2:
        return [1 + i * ((bolts - 1) // 2) % bolts for i in range(bolts)]
    half = bolts // 2
    left, last = list(range(half)), 0
    order: list[int] = []
    while left:
        # Pairs stand 360°/bolts apart and repeat after half a turn: `half` steps are 180°.
        pair = left[0] if not order else min(left, key=lambda p: (abs(2 * (abs(p - last) % half) - half), p))
        left.remove(pair)
        order += [pair + 1, pair + 1 + half]
        last = pair
    return order


def circle_order(bolts: int) -> list[int]:
    """One after another, clockwise."""
    return list(range(1, bolts + 1))


def alternate_order(bolts: int) -> list[int]:
    """Odd numbers, then even."""
    return [*range(1, bolts + 1, 2), *range(2, bolts + 1, 2)]


ORDERS = {"star": star_order, "circle": circle_order, "alternate": alternate_order}


def name_on_circles(bolt: int, first: int) -> str:
    """A bolt of two circles numbered through, the first with ``first`` bolts.

    >>> name_on_circles(6, 6), name_on_circles(7, 6)
    ('A6', 'B1')
    """
    return f"A{bolt}" if bolt <= first else f"B{bolt - first}"
