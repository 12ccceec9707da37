"""Is the reading any good: what a set of dial readings looks like when something is wrong with how it was taken."""

import itertools
from collections import defaultdict

import numpy as np

from ...clock import SAME_PLACE_DEG, clock_columns, say_clock
from ...model import Model
from ...say import Say, mm, say
from ...uncertainty import Array, Fitted
from .dials import Dial, sees

CLOSES_WITHIN_MM = 0.02  # rule of thumb: two hundredths on a shop dial
REPEATS_WITHIN_MM = 0.015  # rule of thumb: a reading and a half of a shop dial
MOST_BY_HAND = 144  # more than this is a sweep: turned one way, by an instrument without a travel
STANDS_STILL = 3  # so many neighbouring readings alike at one end of the travel
CANDIDATES_DEG = tuple(range(0, 360, 30))


def faults_of(dial: Dial, name: str, closure_mm: float | None) -> list[Say]:
    """What the readings of one dial look like, in words; the likeliest first. Empty where nothing looks wrong."""
    by_hand = len(dial.clocks) <= MOST_BY_HAND
    return [
        *_closure(dial, name, closure_mm),
        *_back_to_start(dial, name),
        *(_backlash(dial, name) if by_hand else []),
        *(_out_of_travel(dial, name) if by_hand else []),
    ]


def _closure(dial: Dial, name: str, closure_mm: float | None) -> list[Say]:
    if closure_mm is None or abs(closure_mm) <= CLOSES_WITHIN_MM:
        return []
    said, by = "{dial}: 12 + 6 and 3 + 9 differ by {by}.", mm(abs(closure_mm))
    adds = {0: 1, 180: 1, 90: -1, 270: -1}
    for clock, value in dial.quarters.items():
        turned = closure_mm - 2 * adds[clock] * value
        if abs(value) > CLOSES_WITHIN_MM and abs(turned) <= CLOSES_WITHIN_MM:
            text = f"{said} With the sign of {{clock}} turned it closes: was it {{turned}}?"
            return [say("sign_of_reading", text, dial=name, by=by, clock=say_clock(clock), turned=mm(-value, signed=True))]
    return [say("does_not_close", f"{said} Look for a loose bracket or a swapped sign, then read again.", dial=name, by=by)]


def _back_to_start(dial: Dial, name: str) -> list[Say]:
    first, last = dial.readings[0], dial.readings[-1]
    same = abs((first.clock - last.clock + 180) % 360 - 180) <= SAME_PLACE_DEG
    misses = dial.values_mm[-1] - dial.values_mm[0]
    if len(dial.readings) < 3 or not same or abs(misses) <= REPEATS_WITHIN_MM:
        return []
    text = "{dial}: back at {clock} it shows {off}. A loose bracket, or the dial was touched."
    return [say("does_not_come_back", text, dial=name, clock=say_clock(first.clock), off=mm(misses, signed=True))]


def _backlash(dial: Dial, name: str) -> list[Say]:
    """The same places read turning on and turning back, where the two differ."""
    if len(set(dial.clocks)) == len(dial.clocks):
        return []
    on: dict[float, list[float]] = defaultdict(list)
    back: dict[float, list[float]] = defaultdict(list)
    values = dial.values_mm
    for i, (one, two) in enumerate(itertools.pairwise(dial.clocks), start=1):
        turned = (two - one + 180) % 360 - 180
        (on if turned > 0 else back)[round(dial.clocks[i] % 360, 2)].append(values[i])
    both = [clock for clock in on if clock in back]
    if len(both) < 2:
        return []
    apart = [sum(on[c]) / len(on[c]) - sum(back[c]) / len(back[c]) for c in both]
    mean = sum(apart) / len(apart)
    if abs(mean) <= REPEATS_WITHIN_MM or any(a * mean <= 0 for a in apart):
        return []
    text = "{dial}: turning back it reads {apart} apart from turning on. Backlash: always turn the same way."
    return [say("backlash", text, dial=name, apart=mm(abs(mean)))]


def _out_of_travel(dial: Dial, name: str) -> list[Say]:
    """Neighbouring readings that stand still at the largest or smallest value where the others still move."""
    values = dial.values_mm
    if len(values) < STANDS_STILL + 2 or max(values) - min(values) <= CLOSES_WITHIN_MM:
        return []
    order = sorted(range(len(values)), key=lambda i: dial.clocks[i] % 360)
    ring = [values[i] for i in order]
    for end in (max(ring), min(ring)):
        alike = [abs(v - end) < 1e-9 for v in ring]
        if STANDS_STILL <= _longest_run(alike) < len(ring):
            text = "{dial}: several readings side by side are {end}. Is the dial at the end of its travel?"
            return [say("end_of_travel", text, dial=name, end=mm(end, signed=True))]
    return []


def _longest_run(flags: list[bool]) -> int:
    """Round the ring, so twice along it."""
    runs = [len(list(group)) for key, group in itertools.groupby(flags + flags) if key]
    return min(max(runs, default=0), len(flags))


class NextReading(Model):
    """The one further reading that would help most; the dial counted from 0."""

    dial: int
    clock: float


def best_next_reading(dials: list[Dial], design: Array, fitted: Fitted) -> NextReading:
    """Where one more reading takes most off the uncertainty of offset and slope.

    Source: the covariance of the least-squares fit with the further row in it.
    """
    inverse = fitted.gain @ fitted.gain.T  # of the normal equations
    best, best_left = NextReading(dial=0, clock=0.0), float("inf")
    for i, dial in enumerate(dials):
        offset, slope, _ = sees(dial)
        cos, sin = clock_columns(CANDIDATES_DEG)
        rows = np.zeros((len(CANDIDATES_DEG), design.shape[1]))
        rows[:, 0], rows[:, 1], rows[:, 2], rows[:, 3] = offset * cos, slope * cos, offset * sin, slope * sin
        rows[:, 4 + i] = 1.0
        turned = rows @ inverse
        takes = (turned[:, :4] ** 2).sum(axis=1) / (1.0 + np.einsum("ij,ij->i", turned, rows))
        at = int(np.argmax(np.round(takes, 12)))
        left = -float(takes[at])
        if left < best_left - 1e-12:
            best, best_left = NextReading(dial=i, clock=float(CANDIDATES_DEG[at])), left
    return best
