"""What an alignment is worth: the ± of offsets, angles and moves, with what tape and bracket add at the feet."""

import math

import numpy as np

from ..clock import clock_columns
from ..uncertainty import Array, Fitted
from .axis import Line
from .dials import Dial, sees

TAPE_MM = 1.0  # rule of thumb: to what a tape tells a distance along the shaft, or a radius


def up_at(x_mm: float) -> Array:
    """The height of the axis at a place, as a row over offset V, slope V, offset H, slope H."""
    return np.array([1.0, x_mm / 1000, 0.0, 0.0])


def across_at(x_mm: float) -> Array:
    """The sideways place of the axis, as a row like `up_at`."""
    return np.array([0.0, 0.0, 1.0, x_mm / 1000])


UP, UP_SLOPE, ACROSS, ACROSS_SLOPE = np.eye(4)


class Worth:
    """The ± of figures that are worked out from one fit of dials.

    ``fitted``        - the fit of `dials.rows`: offset V, slope V, offset H, slope H, then one constant a dial
    ``resolution_mm`` - what the dials show; the sag of a bracket was read with one of them
    """

    def __init__(self, dials: list[Dial], fitted: Fitted, axis: Line, resolution_mm: float) -> None:
        self.fitted = fitted
        self._constants = np.zeros(len(dials))
        self._axis, self._dials, self._resolution_mm = axis, dials, resolution_mm
        self._set_up: Array | None = None

    def _row(self, row: Array) -> Array:
        return np.concatenate([row, self._constants])

    def sigma(self, row: Array) -> float | None:
        """One sigma of a row over the four unknowns, None where no reading is to spare."""
        if self.fitted.covariance is None:
            return None
        return math.sqrt(float(row @ self.fitted.covariance[:4, :4] @ row))

    def of(self, row: Array) -> float:
        """± of a row over the four unknowns."""
        return self.fitted.half_width(self._row(row))

    def of_size(self, one: Array, other: Array, a: float, b: float) -> float:
        """± of the combined size of two figures that came out as a and b."""
        return self.fitted.half_width_of_size(self._row(one), self._row(other), a, b)

    def of_foot(self, row: Array) -> float:
        """± of a move: readings, dial positions, radius, sag and the place of the foot itself, as independent errors."""
        if self._set_up is None:
            self._set_up = self._by_set_up()
        slope = self._axis.slope_v_mm_per_m if row[0] else self._axis.slope_h_mm_per_m
        own = TAPE_MM * slope / 1000
        by_set_up = row @ self._set_up
        return math.sqrt(self.of(row) ** 2 + own**2 + float(by_set_up @ by_set_up))

    def _by_set_up(self) -> Array:
        """How far each error of the set-up, as large as it may be, moves each of the four unknowns; shape (4, errors).

        Source: first order, the fit of what such an error adds to the readings.
        """
        axis, columns, at = self._axis, [], 0
        for dial in self._dials:
            n = len(dial.clocks)
            cos, sin = clock_columns(dial.clocks)
            tilt = (axis.slope_v_mm_per_m * cos + axis.slope_h_mm_per_m * sin) * TAPE_MM / 1000
            sign, _, sag = sees(dial)
            columns.append(self.fitted.gain[:4, at : at + n] @ (tilt if dial.kind == "face" else sign * tilt))
            if sag:
                columns.append(self.fitted.gain[:4, at : at + n] @ (self._resolution_mm / 2 * (cos - 1)))
            at += n
        return np.column_stack(columns)
