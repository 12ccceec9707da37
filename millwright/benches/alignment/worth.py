"""What an alignment is worth: the ± of offsets, angles and moves, with what tape and bracket add at the feet."""

import math

from ...uncertainty import Array, Fitted
from .axis import Line
from .dials import Dial, sees

TAPE_MM = 1.0  # rule of thumb: to what a tape tells a distance along the shaft, or a radius


Row = tuple[float, float, float, float]  # over offset V, slope V, offset H, slope H


def up_at(x_mm: float) -> Row:
    """The height of the axis at a place."""
    return 1.0, x_mm / 1000, 0.0, 0.0


def across_at(x_mm: float) -> Row:
    """The sideways place of the axis."""
    return 0.0, 0.0, 1.0, x_mm / 1000


UP, UP_SLOPE, ACROSS, ACROSS_SLOPE = up_at(0.0), (0.0, 1.0, 0.0, 0.0), across_at(0.0), (0.0, 0.0, 0.0, 1.0)


def _of_four(covariance: Array | None) -> list[list[float]] | None:
    return None if covariance is None else covariance[:4, :4].tolist()


def _variance(covariance: list[list[float]], row: Row) -> float:
    """``row @ covariance @ row``, written out: so few figures are quicker one by one."""
    a, b, c, d = row
    m, n, o, p = covariance
    twice = a * (b * m[1] + c * m[2] + d * m[3]) + b * (c * n[2] + d * n[3]) + c * d * o[3]
    return a * a * m[0] + b * b * n[1] + c * c * o[2] + d * d * p[3] + 2 * twice


class Worth:
    """The ± of figures that are worked out from one fit of dials.

    ``fitted``        - the fit of `dials.rows`: offset V, slope V, offset H, slope H, then one constant a dial
    ``resolution_mm`` - what the dials show; the sag of a bracket was read with one of them
    """

    def __init__(self, dials: list[Dial], fitted: Fitted, axis: Line, resolution_mm: float) -> None:
        self.fitted = fitted
        self._one_sigma, self._scatter = _of_four(fitted.covariance), _of_four(fitted.by_scatter)
        self._floor = fitted.by_floor[:4, :4].tolist()
        self._axis, self._dials, self._resolution_mm = axis, dials, resolution_mm
        self._set_up: list[list[float]] | None = None

    def sigma(self, row: Row) -> float | None:
        """One sigma of a row over the four unknowns, None where no reading is to spare."""
        return None if self._one_sigma is None else math.sqrt(_variance(self._one_sigma, row))

    def of(self, row: Row) -> float:
        """± of a row over the four unknowns, 95 %: the larger of what the scatter and what the floor gives."""
        floor = _variance(self._floor, row)
        return math.sqrt(floor if self._scatter is None else max(floor, _variance(self._scatter, row)))

    def of_size(self, one: Row, other: Row, a: float, b: float) -> float:
        """± of the combined size of two figures that came out as a and b. Source: first order in the errors."""
        size = math.hypot(a, b)
        if size == 0.0:
            return max(self.of(one), self.of(other))
        p, q, r, t = ((a * x + b * y) / size for x, y in zip(one, other, strict=True))
        return self.of((p, q, r, t))

    def of_foot(self, row: Row) -> float:
        """± of a move: readings, dial positions, radius, sag and the place of the foot itself, as independent errors."""
        if self._set_up is None:
            self._set_up = self._by_set_up()
        slope = self._axis.slope_v_mm_per_m if row[0] else self._axis.slope_h_mm_per_m
        own = TAPE_MM * slope / 1000
        a, b, c, d = row
        by_set_up = sum((a * e[0] + b * e[1] + c * e[2] + d * e[3]) ** 2 for e in self._set_up)
        return math.sqrt(self.of(row) ** 2 + own**2 + by_set_up)

    def _by_set_up(self) -> list[list[float]]:
        """How far each error of the set-up, as large as it may be, moves each of the four unknowns; one row an error.

        Source: first order, the fit of what such an error adds to the readings.
        """
        axis, errors, at = self._axis, [], 0
        for dial in self._dials:
            cos, sin = dial.cos_sin
            gain = self.fitted.gain[:4, at : at + len(cos)]
            tilt = TAPE_MM / 1000 * (axis.slope_v_mm_per_m * cos + axis.slope_h_mm_per_m * sin)
            sign, _, sag = sees(dial)
            errors.append((gain @ (tilt if dial.kind == "face" else sign * tilt)).tolist())
            if sag:
                errors.append((gain @ (self._resolution_mm / 2 * (cos - 1))).tolist())
            at += len(cos)
        return errors
