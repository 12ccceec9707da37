"""What a fitted figure is worth: half the width of its 95 % interval, from the scatter and from what the instrument shows."""

import math
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]

NORMAL_95 = 1.96  # standard normal distribution, two-sided
# Rule of thumb: how many times its own uncertainty a reading must lie off the curve through the
# others, by how many readings are left over to judge by. Few left over: ask for more.
STANDS_OUT_ABOVE = {1: 6.0, 2: 5.0}
STANDS_OUT_ELSE = 4.0
FEW = 64  # so few are looked at one by one
REPEATS_MM = 0.005  # rule of thumb: what a shop dial repeats to, where nothing is read twice to tell


@lru_cache(maxsize=256)
def student_95(spare: int) -> float:
    """How many sigmas hold 95 % where so many readings are to spare. Source: Student's t distribution.

    >>> round(student_95(2), 3), round(student_95(30), 3)
    (4.303, 2.042)
    """
    from scipy.special import stdtrit  # type: ignore[import-untyped]  # loading it takes longer than most benches run

    return float(stdtrit(spare, 0.975))


def single_plus_minus(resolution_mm: float) -> float:
    """± of one reading, 95 %: its rounding and what it repeats to (rule of thumb)."""
    return NORMAL_95 * math.sqrt(resolution_mm**2 / 12 + REPEATS_MM**2)


@dataclass(frozen=True, kw_only=True, slots=True)
class Fitted:
    """A least-squares fit. `covariance` (one sigma) and `scatter_mm` are None where no reading is to spare."""

    found: Array  # shape (k,)
    gain: Array  # shape (k, n): what each reading adds to each unknown
    scatter_mm: float | None
    covariance: Array | None  # shape (k, k)
    by_scatter: Array | None  # shape (k, k): squared half widths of 95 %
    by_floor: Array  # shape (k, k)

    def half_width(self, row: Array) -> float:
        """± of ``row @ found``, 95 %: the larger of what the scatter and what the floor gives. ``row`` - shape (k,)"""
        floor = float(row @ self.by_floor @ row)
        return math.sqrt(max(floor, 0.0 if self.by_scatter is None else float(row @ self.by_scatter @ row)))

    def half_width_of_size(self, one: Array, other: Array, a: float, b: float) -> float:
        """± of ``√(a² + b²)`` where the rows ``one`` and ``other`` gave a and b. Source: first order in the errors."""
        size = math.hypot(a, b)
        if size == 0.0:
            return max(self.half_width(one), self.half_width(other))
        return self.half_width((a * one + b * other) / size)


def fit_least_squares(design: Array, value: Array, resolution_mm: float, places: Array | None = None) -> Fitted:
    """Solve ``design @ found = value``.

    ``design`` - shape (n, k); ``value`` - shape (n,); ``resolution_mm`` - what the instrument shows
    ``places`` - shape (n,): readings of one mark were taken at one place and share their rounding

    Rounding is uniform over the resolution (resolution/√12) and does not average out by reading a place again. With
    nothing to spare the repeatability `REPEATS_MM` stands in for the scatter. One-sigma figures never fall below the
    resolution's. Source: normal equations. Squaring the condition is harmless here: positions and planes that cannot
    carry the fit have been refused, and what is left loses no digit that a dial could show.
    """
    inverse: Array = np.asarray(np.linalg.inv(design.T @ design), dtype=np.float64)
    gain = inverse @ design.T
    found = gain @ value
    spare = len(value) - design.shape[1]
    rounding = resolution_mm / math.sqrt(12)
    if spare <= 0:
        by_floor = np.multiply(NORMAL_95**2 * (rounding**2 + REPEATS_MM**2), inverse)
        return Fitted(found=found, gain=gain, scatter_mm=None, covariance=None, by_scatter=None, by_floor=by_floor)
    residual = value - design @ found
    scatter = math.sqrt(float(residual @ residual) / spare)
    return Fitted(
        found=found,
        gain=gain,
        scatter_mm=scatter,
        covariance=np.multiply(max(scatter, rounding) ** 2, inverse),
        by_scatter=np.multiply((student_95(spare) * scatter) ** 2, inverse),
        by_floor=np.multiply((NORMAL_95 * rounding) ** 2, _of_places(design, inverse, places)),
    )


def leave_one_out(design: Array, value: Array, resolution_mm: float) -> tuple[Array, NDArray[np.bool_]]:
    """How far each reading lies off the curve through all the others, and whether that is further than chance has it.

    ``design`` - shape (n, k) with n > k + 1; ``value`` - shape (n,); both answers have shape (n,)

    The scatter of the others counts as at least half the resolution, so that one 0.01 beside a
    perfect set is not called wrong. Source: externally studentised residual.
    """
    inverse = np.linalg.pinv(design)
    residual = value - design @ (inverse @ value)
    # Leaving one out without fitting anew: its leverage says how far the others alone would miss it.
    left = np.clip(1.0 - np.einsum("ij,ji->i", design, inverse), 1e-12, None)
    misses = residual / left
    spare = len(value) - 1 - design.shape[1]
    rest = np.clip(float(residual @ residual) - residual * misses, 0.0, None)
    scatter = np.maximum(np.sqrt(rest / spare), resolution_mm / 2)
    far_off = np.abs(misses) > STANDS_OUT_ABOVE.get(spare, STANDS_OUT_ELSE) * scatter / np.sqrt(left)
    return misses, far_off


def _of_places(design: Array, inverse: Array, places: Array | None) -> Array:
    """The inverse of the normal equations with each place once."""
    if places is None or (len(places) <= FEW and len(set(places.tolist())) == len(places)):
        return inverse
    _, first = np.unique(places, return_index=True)
    if len(first) == len(places) or len(first) < design.shape[1]:
        return inverse
    once = design[first]
    return np.asarray(np.linalg.inv(once.T @ once), dtype=np.float64)
