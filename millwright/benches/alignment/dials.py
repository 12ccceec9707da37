"""What a dial (or a laser's plane) says about the axes: one row of the fit for every reading."""

from functools import cached_property
from typing import Literal

import numpy as np
from pydantic import Field

from ...clock import ClockReading, arc_deg, at_quarters, clock_columns, different_positions, position_problem, same_place
from ...errors import Problem
from ...model import Model, Place, Size
from ...say import bare, words
from ...uncertainty import Array
from ...verdict import WorkLine, work

PLANES_APART_MM = 1.0  # two rim planes closer than this see one and the same offset


SetUp = Literal["x_mm", "radius_mm", "sag_mm"]


class Dial(Model):
    """One dial with its readings; a laser's plane is a rim dial with no sag.

    The plunger touches the hub of the shaft that does not carry the bracket; pushed in is positive.
    """

    kind: Literal["rim", "face"]
    bracket_on: Literal["stationary", "movable"]
    x_mm: Place = Field(description="where the plunger touches, + toward the movable machine")
    radius_mm: Size | None = Field(default=None, description="face dials: from the shaft centre to the plunger")
    sag_mm: float = Field(default=0.0, ge=-10, le=0, description="rim dials: shown at 6 on a stiff pipe, zeroed at 12")
    turned: Literal["both", "bracket shaft", "touched shaft"] = "both"
    positive: Literal["in", "out"] = Field(default="in", description="which way of the plunger this dial shows as plus")
    assumed: list[SetUp] = Field(default_factory=list, max_length=3, description="of the set-up, what nobody measured")
    readings: list[ClockReading] = Field(min_length=1, max_length=20_000)
    opposite: list[ClockReading] = Field(
        default_factory=list, max_length=20_000, description="a second face plunger half a turn away, clocks of the first"
    )

    @cached_property
    def clocks(self) -> list[float]:
        """Positions of the readings, degrees."""
        return [r.clock for r in self.readings]

    @cached_property
    def values_mm(self) -> list[float]:
        """The readings, plunger pushed in positive. Of two faces half their difference: the shaft's float drops out."""
        sign = 1.0 if self.positive == "in" else -1.0
        if self.opposite:
            far = {r.clock: r.value_mm for r in self.opposite}
            return [sign * (r.value_mm - far[r.clock]) / 2 for r in self.readings if r.clock in far]
        return [sign * r.value_mm for r in self.readings]

    @cached_property
    def swept_deg(self) -> float:
        """The arc of the clock that was read."""
        return arc_deg(self.places)

    @cached_property
    def places(self) -> list[float]:
        """Positions that were read, sorted, each once."""
        return different_positions(self.clocks)

    @cached_property
    def cos_sin(self) -> tuple[Array, Array]:
        """Of the positions."""
        return clock_columns(self.clocks)

    @cached_property
    def quarters(self) -> dict[int, float]:
        """Mean reading at each of 12, 3, 6 and 9 that was read."""
        return at_quarters(self.clocks, self.values_mm)


def name_of(dials: list[Dial], index: int) -> str:
    """How a dial is called in advice and working: by its kind, numbered where there are several.

    >>> rim = Dial.model_construct(kind="rim")
    >>> name_of([rim, rim], 1)
    'Rim 2'
    """
    kind = dials[index].kind
    same = [i for i, dial in enumerate(dials) if dial.kind == kind]
    return kind.capitalize() + (f" {same.index(index) + 1}" if len(same) > 1 else "")


def problems_of(dials: list[Dial]) -> list[Problem]:
    """Everything that keeps these dials from telling offset and slope in both planes."""
    found = []
    for i, dial in enumerate(dials):
        at = f"dials.{i}"
        if dial.kind == "face" and dial.radius_mm is None:
            found.append(Problem(f"{at}.radius_mm", "A face dial needs its radius: shaft centre to plunger."))
        if dial.kind == "rim" and dial.radius_mm is not None:
            found.append(Problem(f"{at}.radius_mm", "A rim dial has no use for a radius. Is this a face dial?"))
        if dial.opposite and dial.kind == "rim":
            found.append(Problem(f"{at}.opposite", "Only a face is read in two places at once, to be rid of the float."))
        elif dial.opposite and sorted(r.clock for r in dial.opposite) != sorted(dial.clocks):
            found.append(Problem(f"{at}.opposite", "Both face plungers are read at each place: one of them lacks a reading."))
        if dial.kind == "face" and dial.sag_mm:
            found.append(Problem(f"{at}.sag_mm", "Sag is taken off rim dials only."))
        if dial.turned == "touched shaft":
            found.append(
                Problem(
                    f"{at}.turned",
                    "With only the touched shaft turned the dial sees that hub's run-out and nothing of the "
                    "alignment. Turn both shafts together.",
                )
            )
        if (problem := position_problem(dial.clocks, f"{at}.readings", dial.places)) is not None:
            found.append(problem)
    return found + _cannot_tell(dials)


def _cannot_tell(dials: list[Dial]) -> list[Problem]:
    rims = [dial.x_mm for dial in dials if dial.kind == "rim"]
    if not rims:
        return [Problem("dials", "Face dials alone tell the angle, not the offset. Add a rim dial.")]
    if len(rims) < len(dials):
        return []
    if len(rims) == 1:
        return [Problem("dials", "One rim dial alone cannot tell offset from angle. Add a face dial or a second rim.")]
    if max(rims) - min(rims) < PLANES_APART_MM:
        last = len(dials) - 1
        return [Problem(f"dials.{last}.x_mm", "The two rims are at the same place along the shaft. Set them apart.")]
    return []


def rows(dials: list[Dial]) -> tuple[Array, Array]:
    """Design matrix and values: columns offset V, slope V, offset H, slope H, then one constant a dial.

    Rim, bracket on the stationary shaft: ``V(x)·cos φ + H(x)·sin φ``; on the movable shaft the sign
    turns. Face: ``radius/1000·(slope V·cos φ + slope H·sin φ)``. Sag adds ``(|sag|/2)·(cos φ − 1)``.
    """
    of_dial = np.repeat(np.arange(len(dials)), [len(dial.readings) for dial in dials])
    offset, slope, sag = np.array([sees(dial) for dial in dials])[of_dial].T
    cos, sin = (np.concatenate(columns) for columns in zip(*(dial.cos_sin for dial in dials), strict=True))
    value = np.array([value for dial in dials for value in dial.values_mm])
    design = np.zeros((len(value), 4 + len(dials)))
    design[:, 0], design[:, 1], design[:, 2], design[:, 3] = offset * cos, slope * cos, offset * sin, slope * sin
    design[np.arange(len(value)), 4 + of_dial] = 1.0
    return design, value - sag / 2 * (cos - 1)


def places_of(dials: list[Dial]) -> Array:
    """One mark for each place of each dial, in the order of `rows`."""
    of_dial = np.repeat(np.arange(len(dials)) * 1e6, [len(dial.clocks) for dial in dials])
    return same_place([clock for dial in dials for clock in dial.clocks]) + of_dial


def sees(dial: Dial) -> tuple[float, float, float]:
    """What one mm of offset and one mm/m of slope add to this dial's reading, and the size of its sag."""
    if dial.kind == "face":
        return 0.0, (dial.radius_mm or 0.0) / 1000, 0.0
    sign = 1.0 if dial.bracket_on == "stationary" else -1.0
    return sign, sign * dial.x_mm / 1000, abs(dial.sag_mm)


def working_of(dial: Dial, name: str, index: int) -> list[WorkLine]:
    """The sum on paper of one dial where it was read at the four quarters."""
    quarters = dial.quarters
    if len(quarters) < 4 or len(dial.readings) != 4:
        return []
    lines = []

    def line(code: str, what: str, formula: str, template: str, value: float, *figures: float) -> None:
        named = {name: bare(figure, signed=True) for name, figure in zip("ab", figures, strict=False)}
        lines.append(work(f"dial_{index}_{code}", what, formula, words(template, **named), value))

    down = quarters[180] - quarters[0]
    line("down", f"{name}, 6 less 12", "6 − 12", "{a} − {b}", down, quarters[180], quarters[0])
    if dial.sag_mm:
        line("sag", "take off bracket sag", "− sag", "{a} − {b}", down - dial.sag_mm, down, dial.sag_mm)
        down -= dial.sag_mm
    line("down_half", "half of it", "÷ 2", "{a} ÷ 2", down / 2, down)
    across = quarters[270] - quarters[90]
    line("across", f"{name}, 9 less 3", "9 − 3", "{a} − {b}", across, quarters[270], quarters[90])
    line("across_half", "half of it", "÷ 2", "{a} ÷ 2", across / 2, across)
    return lines
