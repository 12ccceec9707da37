"""The blue check: how much of a tapered fit bears, and what it looks like where it does not."""

import math
from enum import StrEnum

CONTACT_WANTED = 0.80  # rule of thumb; the maker or the plant may ask for more
FULL = 0.75  # a cell bluer than this counts as full, below BARE as bare
BARE = 0.25
DIFFERS = 0.5  # one half of the map bluer than the other by this much: it bears there
LEAST = 0.3  # rule of thumb: a ring or a strip less blue than this is bare, whatever the rest


class Pattern(StrEnum):
    """What the blue shows."""

    EVEN = "even"
    LARGE_END = "large end only"
    SMALL_END = "small end only"
    MIDDLE_BARE = "bare in the middle"
    ONE_SIDE = "one side"
    STRIPE = "bare along a line"
    PATCHY = "patchy"
    LARGE_END_BARE = "bare at the large end"
    SMALL_END_BARE = "bare at the small end"


SAYS = {
    Pattern.LARGE_END: "Blue at the large end only: the tapers do not match. Measure both again before anything is worked.",
    Pattern.SMALL_END: "Blue at the small end only: the tapers do not match. Measure both again before anything is worked.",
    Pattern.MIDDLE_BARE: "Bare in the middle: one of the two is hollow or barrelled along its length.",
    Pattern.ONE_SIDE: "Blue on one side only: dirt, a burr, or the hub was not on straight. Clean and try again.",
    Pattern.STRIPE: "Bare along a line: look at the keyway's edge or a high key first. Try without the key.",
    Pattern.LARGE_END_BARE: "Bare at the large end: the tapers do not match. Measure both again before anything is worked.",
    Pattern.SMALL_END_BARE: "Bare at the small end: the tapers do not match. Measure both again before anything is worked.",
    Pattern.PATCHY: "The blue is patchy: clean, thinner blue, try again; look for high spots.",
}


def contact_share(contact: list[list[float]]) -> float:
    """Share of the fit that bears, 0 to 1: the mean of the map.

    Rows near the large end stand for a little more surface; on the tapers hubs are held by, too little to count.

    >>> contact_share([[1, 1], [0.5, 0]])
    0.625
    """
    cells = [cell for row in contact for cell in row]
    return sum(cells) / len(cells)


def contact_pattern(contact: list[list[float]]) -> Pattern:
    """What the map looks like, by where it is bare. Source: rule of thumb; the hand that reads it decides.

    >>> contact_pattern([[1, 1, 1, 1], [1, 1, 1, 1], [0, 0, 0, 0], [0, 0, 0, 0]]).value
    'large end only'
    """
    rows, columns = rings(contact), strips(contact)
    if contact_share(contact) >= CONTACT_WANTED and min(rows) >= LEAST and min(columns) >= LEAST:
        return Pattern.EVEN
    half = len(rows) / 2
    upper = _mean(rows[: math.ceil(half)])
    lower = _mean(rows[math.floor(half) :])
    if upper - lower > DIFFERS:
        return Pattern.LARGE_END
    if lower - upper > DIFFERS:
        return Pattern.SMALL_END
    bare = [i for i, column in enumerate(columns) if column <= BARE]
    if bare and len(bare) <= max(1, len(columns) // 6):
        return Pattern.STRIPE
    if _is_one_side(columns):
        return Pattern.ONE_SIDE
    if len(rows) >= 3 and rows[0] >= FULL and rows[-1] >= FULL and min(rows[1:-1]) <= BARE:
        return Pattern.MIDDLE_BARE
    if len(rows) > 1 and min(rows) < LEAST and min(rows[1:-1], default=1.0) >= LEAST:
        return Pattern.LARGE_END_BARE if rows[0] < rows[-1] else Pattern.SMALL_END_BARE
    return Pattern.PATCHY


def rings(contact: list[list[float]]) -> list[float]:
    """How blue each ring is, from the large end."""
    return [sum(row) / len(row) for row in contact]


def strips(contact: list[list[float]]) -> list[float]:
    """How blue each strip along the shaft is."""
    return [sum(column) / len(column) for column in zip(*contact, strict=True)]


def say_ring(at: int, count: int) -> str:
    """Where a ring lies.

    >>> say_ring(0, 5), say_ring(4, 5), say_ring(2, 5)
    ('at the large end', 'at the small end', '3rd of 5 from the large end')
    """
    if at in (0, count - 1):
        return "at the large end" if at == 0 else "at the small end"
    return f"{at + 1}{ {2: 'nd', 3: 'rd'}.get(at + 1, 'th') } of {count} from the large end"


def _mean(values: list[float]) -> float:
    return sum(values) / len(values)


def _is_one_side(columns: list[float]) -> bool:
    """True where half of the turn bears and the other half does not."""
    n = len(columns)
    if n < 3:
        return False
    halves = [_mean([columns[(start + i) % n] for i in range(n // 2)]) for start in range(n)]
    return max(halves) - min(halves) > DIFFERS
