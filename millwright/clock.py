"""Readings taken round the clock: a mean and a once-per-turn sine, with what they are worth."""

import itertools
import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

import numpy as np
from pydantic import Field

from .errors import Problem, UnusableInput
from .model import Clock, Model, Reading
from .say import Say, Words, bare, mm, say, words
from .uncertainty import Array, Fitted, fit_least_squares, leave_one_out
from .verdict import Result, Verdict, WorkLine, work

RESOLUTION_MM = 0.01  # what a shop dial shows
# Rule of thumb. Four even positions have 1.4; three over a 60° arc have 29, and there a reading
# uncertain by 0.01 mm already leaves up or right uncertain by 0.09 mm.
MAX_CONDITION = 30.0
NEVER_BELOW_DEG = 5.0
ALWAYS_FROM_DEG = 70.0
SAME_PLACE_DEG = 0.01
POSITIONS_TO_SINGLE_OUT = 5
FEW = 36  # with more places than this the others carry the fit whichever one is left out


class ClockReading(Model):
    """One reading at one place round the clock."""

    clock: Clock
    value_mm: Reading


class StandsOut(Model):
    """A reading that lies off the curve through the others."""

    index: int
    clock: float
    residual_mm: float


@dataclass(frozen=True, kw_only=True)
class ClockFit:
    """``mean + up·cos φ + right·sin φ``; sigma and scatter are None where no reading is left to judge by.

    `oval_mm` is the amplitude of the twice-per-turn part where it was fitted too.
    """

    mean_mm: float
    up_mm: float  # + toward 12 o'clock
    right_mm: float  # + toward 3 o'clock
    scatter_mm: float | None  # one sigma of a single reading
    up_sigma_mm: float | None
    right_sigma_mm: float | None
    mean_plus_minus_mm: float
    size_plus_minus_mm: float
    oval_mm: float | None = None

    @property
    def size_mm(self) -> float:
        """Amplitude of the sine."""
        return math.hypot(self.up_mm, self.right_mm)

    @property
    def peak_deg(self) -> float:
        """Where the sine is largest, degrees clockwise from 12."""
        return math.degrees(math.atan2(self.right_mm, self.up_mm)) % 360


def clock_columns(clock: Sequence[float] | Array) -> tuple[Array, Array]:
    """cos and sin of clock positions in degrees."""
    phi = np.radians(np.asarray(clock, dtype=float))
    return np.cos(phi), np.sin(phi)


def different_positions(clock: Sequence[float]) -> list[float]:
    """The positions, sorted, each once; 360 is 0."""
    if len(clock) > FEW:  # a sweep: to the nearest hundredth is near enough, and quick
        return [float(place) * SAME_PLACE_DEG for place in np.unique(same_place(clock))]
    found: list[float] = []
    for place in sorted(c % 360 for c in clock):
        if not found or place - found[-1] > SAME_PLACE_DEG:
            found.append(place)
    if len(found) > 1 and found[0] + 360 - found[-1] <= SAME_PLACE_DEG:
        found.pop()
    return found


def arc_deg(places: Sequence[float]) -> float:
    """The smallest arc that holds all of the sorted positions."""
    gaps = [b - a for a, b in itertools.pairwise(places)] + [places[0] + 360 - places[-1]]
    return 360 - max(gaps)


def position_problem(clock: Sequence[float], path: str, places: Sequence[float] | None = None) -> Problem | None:
    """Why these positions cannot carry a sine, or None where they can. ``places`` - the different ones, where known."""
    places = different_positions(clock) if places is None else places
    if len(places) < 3:
        have = {0: "none", 1: "only one", 2: "only two"}[len(places)]
        return Problem(path, f"Read at three or more different places round the shaft; there is {have}.")
    arc = arc_deg(places)
    if arc >= ALWAYS_FROM_DEG:
        return None
    cos, sin = clock_columns(places)
    condition = np.linalg.cond(np.column_stack([np.ones_like(cos), cos, sin]))
    if arc <= NEVER_BELOW_DEG or condition > MAX_CONDITION:
        return Problem(
            path, f"All readings lie within {arc:.0f}° of the clock. Spread them over {ALWAYS_FROM_DEG:.0f}° or more."
        )
    return None


def fit_clock(
    clock: Sequence[float],
    value_mm: Sequence[float],
    *,
    resolution_mm: float = RESOLUTION_MM,
    path: str = "readings",
    with_oval: bool = False,
) -> ClockFit:
    """Fit ``value = mean + up·cos φ + right·sin φ`` to readings round one turn.

    ``clock``         - shape (n,), degrees clockwise from 12 o'clock; n ≥ 3, any spacing
    ``value_mm``      - shape (n,), dial readings; plunger pushed in is positive
    ``resolution_mm`` - what the instrument shows; no sigma is smaller than it allows
    ``path``          - named in the refusal
    ``with_oval``     - fit ``c2·cos 2φ + s2·sin 2φ`` as well, where five different, well spread positions were read

    Raises `UnusableInput` when the positions cannot carry the fit.
    Source: linear least squares. At 12, 3, 6 and 9 it is the sum done on paper:
    up = (v12 − v6)/2, right = (v3 − v9)/2.

    >>> fit = fit_clock([0, 90, 180, 270], [0.00, 0.06, 0.20, 0.14])
    >>> f"{fit.up_mm:+.3f} {fit.right_mm:+.3f}"
    '-0.100 -0.040'
    """
    if (problem := position_problem(clock, path)) is not None:
        raise UnusableInput(problem)
    cos, sin = clock_columns(clock)
    design = np.column_stack([np.ones_like(cos), cos, sin])
    if with_oval and (both := _with_oval(clock, design)) is not None:
        design = both
    fitted = fit_least_squares(design, np.asarray(value_mm, dtype=float), resolution_mm, same_place(clock))
    return _clock_fit(fitted)


def _with_oval(clock: Sequence[float], design: Array) -> Array | None:
    """The design with a twice-per-turn sine in it; None where the positions do not carry one."""
    if len(different_positions(clock)) < POSITIONS_TO_SINGLE_OUT:
        return None
    _, cos, sin = design.T
    both = np.column_stack([design, cos * cos - sin * sin, 2 * cos * sin])
    return both if np.linalg.cond(both) <= MAX_CONDITION else None


def _clock_fit(fitted: Fitted) -> ClockFit:
    found, covariance = fitted.found, fitted.covariance
    mean, up, right = np.eye(len(found))[:3]
    return ClockFit(
        mean_mm=float(found[0]),
        up_mm=float(found[1]),
        right_mm=float(found[2]),
        scatter_mm=fitted.scatter_mm,
        up_sigma_mm=None if covariance is None else math.sqrt(covariance[1, 1]),
        right_sigma_mm=None if covariance is None else math.sqrt(covariance[2, 2]),
        mean_plus_minus_mm=fitted.half_width(mean),
        size_plus_minus_mm=fitted.half_width_of_size(up, right, float(found[1]), float(found[2])),
        oval_mm=math.hypot(float(found[3]), float(found[4])) if len(found) > 3 else None,
    )


def same_place(clock: Sequence[float] | Array) -> Array:
    """One mark for each place round the clock, to the nearest hundredth of a degree; 360 is 0."""
    turned = np.round(np.mod(np.asarray(clock, dtype=float), 360) / SAME_PLACE_DEG)
    return np.asarray(turned % round(360 / SAME_PLACE_DEG), dtype=np.float64)


def find_stands_out(
    clock: Sequence[float], value_mm: Sequence[float], *, resolution_mm: float = RESOLUTION_MM
) -> list[StandsOut]:
    """Readings that lie off the sine through all the others (leave one out), from five positions on.

    Source: `leave_one_out`.
    """
    n = len(clock)
    if n < POSITIONS_TO_SINGLE_OUT or len(different_positions(clock)) < POSITIONS_TO_SINGLE_OUT:
        return []
    cos, sin = clock_columns(clock)
    design = np.column_stack([np.ones_like(cos), cos, sin])
    misses, far_off = leave_one_out(design, np.asarray(value_mm, dtype=float), resolution_mm)
    return [
        StandsOut(index=int(i), clock=float(clock[int(i)]), residual_mm=float(misses[i]))
        for i in np.flatnonzero(far_off)
        if n > FEW or position_problem([c for j, c in enumerate(clock) if j != i], "") is None
    ]


def say_clock(degrees: float) -> str:
    """A clock position in words.

    >>> say_clock(90), say_clock(0), say_clock(225), say_clock(10)
    ("3 o'clock", "12 o'clock", 'half past 7', '10°')
    """
    turned = degrees % 360
    if abs(turned - round(turned / 30) * 30) < 0.5:
        return f"{round(turned / 30) % 12 or 12} o'clock"
    if abs(turned - (turned // 30) * 30 - 15) < 0.5:
        return f"half past {int(turned // 30) or 12}"
    return f"{turned:.0f}°"


def say_toward(degrees: float) -> str:
    """A direction that was worked out, as a hand would point: with the nearest hour.

    >>> say_toward(90), say_toward(117)
    ("3 o'clock", "117°, near 4 o'clock")
    """
    said = say_clock(degrees)
    return f"{said}, near {say_clock(round(degrees / 30) * 30)}" if said.endswith("°") else said


def say_stands_out(found: Sequence[StandsOut], dial: str = "") -> list[Say]:
    """Advice for readings that stand out, one sentence each."""
    where = f" on {dial}" if dial else ""
    return [
        say(
            "stands_out",
            "The reading at {clock}{where} is {off} off the others. Read it again.",
            clock=say_clock(one.clock),
            where=where,
            off=mm(abs(one.residual_mm)),
        )
        for one in found
    ]


class WideReading(Model):
    """One reading at one place round the clock, of a dial or of an inside micrometer."""

    clock: Clock
    value_mm: float = Field(ge=-5_000, le=5_000)


class ClockInput(Model):
    """Readings round one turn of a shaft."""

    readings: list[WideReading] = Field(min_length=1, max_length=20_000)
    resolution_mm: float = Field(default=RESOLUTION_MM, gt=0, le=1, description="what the instrument shows")


class ClockResult(Result):
    """The sine through the readings; sigma null where nothing is left to judge by."""

    mean_mm: float
    up_mm: float
    right_mm: float
    size_mm: float
    peak_deg: float
    scatter_mm: float | None
    up_sigma_mm: float | None
    right_sigma_mm: float | None
    stands_out: list[StandsOut]


def evaluate(given: ClockInput) -> ClockResult:
    """Mean, up and right part of readings round the clock, and which of them stands out."""
    clock = [r.clock for r in given.readings]
    value = [r.value_mm for r in given.readings]
    fit = fit_clock(clock, value, resolution_mm=given.resolution_mm)
    out = find_stands_out(clock, value, resolution_mm=given.resolution_mm)
    return ClockResult(
        bench="clock",
        verdict=Verdict.NOT_JUDGED,
        checks=[],
        says=say_stands_out(out),
        working=working(clock, value, fit),
        mean_mm=fit.mean_mm,
        up_mm=fit.up_mm,
        right_mm=fit.right_mm,
        size_mm=fit.size_mm,
        peak_deg=fit.peak_deg,
        scatter_mm=fit.scatter_mm,
        up_sigma_mm=fit.up_sigma_mm,
        right_sigma_mm=fit.right_sigma_mm,
        stands_out=out,
    )


def at_quarters(clock: Sequence[float], value_mm: Sequence[float]) -> dict[int, float]:
    """Mean reading at each of 12, 3, 6 and 9 that was read, by degrees."""
    near: Iterable[int] = range(len(clock))
    if len(clock) > FEW:  # of a sweep only those that stand near a quarter are looked at
        place = np.mod(np.asarray(clock, dtype=float), 90)
        near = (int(i) for i in np.flatnonzero(np.minimum(place, 90 - place) <= SAME_PLACE_DEG))
    found: dict[int, list[float]] = {}
    for i in near:
        quarter = round(clock[i] % 360 / 90)
        if abs(clock[i] % 360 - quarter * 90) <= SAME_PLACE_DEG:
            found.setdefault(quarter % 4 * 90, []).append(value_mm[i])
    return {quarter: sum(values) / len(values) for quarter, values in found.items()}


def working(clock: Sequence[float], value_mm: Sequence[float], fit: ClockFit, unit: str = "mm") -> list[WorkLine]:
    """The sum on paper where the four quarters were read and nothing else, the fit in words elsewhere."""
    quarters = at_quarters(clock, value_mm)
    up: tuple[str, Words | str]
    right: tuple[str, Words | str]
    if len(quarters) == 4 and len(clock) == 4:
        at = {quarter: bare(value, signed=True) for quarter, value in quarters.items()}
        up = "(12 − 6) ÷ 2", words("({top} − {bottom}) ÷ 2", top=at[0], bottom=at[180])
        right = "(3 − 9) ÷ 2", words("({three} − {nine}) ÷ 2", three=at[90], nine=at[270])
    else:
        up = right = ("least squares round the clock", f"{len(clock)} readings")
    return [
        work("up", "toward 12", up[0], up[1], fit.up_mm, unit),
        work("right", "toward 3", right[0], right[1], fit.right_mm, unit),
    ]
