"""More dials than needed, held against each other: do they tell of the same axis, and if not, which of them does not."""

import math
from dataclasses import dataclass

import numpy as np

from ...clock import clock_columns
from ...model import Model
from ...say import Say, say
from ...uncertainty import REPEATS_MM, Array
from .dials import Dial, name_of, sees
from .worth import TAPE_MM

PRIOR_READINGS = 4  # rule of thumb: so many readings' weight has what a dial usually repeats to
# Rule of thumb: mean square of what the dials miss each other by, in their own ±, above which they contradict; by
# chance alone less than one set in ten thousand does.
CONTRADICTS_ABOVE = 10.0
CLEARLY = 9.0  # one explanation fits this many times better than the next


class Contradicts(Model):
    """The dial that does not agree with the others, counted from 0; null where they do not say which."""

    dial: int | None
    sign_turned: bool


@dataclass(frozen=True, kw_only=True)
class _Seen:
    """What each dial says by itself, one row a dial: its sine up and to the right, and how it sees the axis."""

    sines: Array  # shape (n, 2)
    sees: Array  # shape (n, 2): of one mm offset, of one mm/m slope
    sigma: Array  # shape (n,)

    def misfit(self, keep: list[int], turned: int | None = None) -> float | None:
        """Mean square of what the kept dials miss one common axis by, in sigmas; None where they cannot tell an axis."""
        spare = 2 * len(keep) - 4
        signs = np.array([[-1.0 if i == turned else 1.0] for i in keep])
        weighed = self.sees[keep] / self.sigma[keep, None]
        if spare <= 0 or np.linalg.matrix_rank(weighed, tol=1e-6) < 2:
            return None
        value = signs * self.sines[keep] / self.sigma[keep, None]
        axis, *_ = np.linalg.lstsq(weighed, value, rcond=None)
        return float(np.sum((value - weighed @ axis) ** 2)) / spare


def find_contradiction(dials: list[Dial], design: Array, value: Array, resolution_mm: float) -> Contradicts | None:
    """Which dial the others speak against; None where they agree, or there is none to spare.

    ``design``, ``value`` - `dials.rows` of these dials
    Leaving one dial out tells it from four dials on; of three, only a turned sign can be told. Source: least squares
    of each dial alone, then of all of them together, in the ± of each (readings, bracket sag and tape).
    """
    if len(dials) < 3:
        return None
    seen, everything = _seen(dials, design, value, resolution_mm), list(range(len(dials)))
    together = seen.misfit(everything)
    if together is None or together <= CONTRADICTS_ABOVE:
        return None
    turned = _best({i: seen.misfit(everything, turned=i) for i in everything})
    left_out = _best({i: seen.misfit([j for j in everything if j != i]) for i in everything})
    if turned is not None and left_out in (None, turned):
        return Contradicts(dial=turned, sign_turned=True)
    return Contradicts(dial=left_out, sign_turned=False)


def _best(misfits: dict[int, float | None]) -> int | None:
    """The one explanation that makes the rest agree, and does so clearly better than any other."""
    told = sorted((misfit, i) for i, misfit in misfits.items() if misfit is not None)
    if not told or told[0][0] > CONTRADICTS_ABOVE:
        return None
    if len(told) > 1 and told[1][0] <= max(CONTRADICTS_ABOVE, CLEARLY * told[0][0]):
        return None
    return told[0][1]


def _seen(dials: list[Dial], design: Array, value: Array, resolution_mm: float) -> _Seen:
    sines, variances, squares, spare, at = [], [], 0.0, 0, 0
    for dial in dials:
        n = len(dial.clocks)
        cos, sin = clock_columns(dial.clocks)
        own = np.column_stack([np.ones_like(cos), cos, sin])
        inverse = np.linalg.inv(own.T @ own)
        found = inverse @ (own.T @ value[at : at + n])
        misses = value[at : at + n] - own @ found
        squares, spare = squares + float(misses @ misses), spare + n - 3
        sines.append(found[1:])
        variances.append((inverse[1, 1] + inverse[2, 2]) / 2)
        at += n
    usual = resolution_mm**2 / 12 + REPEATS_MM**2
    single = (squares + PRIOR_READINGS * usual) / (spare + PRIOR_READINGS)
    looks = np.array([sees(dial)[:2] for dial in dials])
    axis, *_ = np.linalg.lstsq(looks, np.array(sines), rcond=None)
    tape = TAPE_MM / 1000 * math.hypot(*axis[1])
    sag = np.array([resolution_mm / 2 if dial.sag_mm else 0.0 for dial in dials])
    return _Seen(sines=np.array(sines), sees=looks, sigma=np.sqrt(single * np.array(variances) + (tape**2 + sag**2) / 4))


def say_contradiction(dials: list[Dial], found: Contradicts | None) -> list[Say]:
    """What to do about it."""
    if found is None:
        return []
    if found.dial is None:
        text = "The dials contradict each other and do not show which one is wrong. Check stem positions, brackets and signs."
        return [say("dials_contradict", f"{text} Read again.")]
    name = name_of(dials, found.dial)
    if found.sign_turned:
        text = "{dial} contradicts the others; with its sign turned all agree. Was the stem pushed in read as minus?"
        return [say("dial_sign_turned", text, dial=name)]
    text = "{dial} contradicts the others, which agree. Check its bracket, stem position and readings."
    return [say("dial_contradicts", text, dial=name)]
