"""What the tightening is given and what it answers: bolts, torque, passes, pulls; the sequence and what is next."""

import itertools
from datetime import date
from typing import Literal

from pydantic import ConfigDict, Field

from ...bolt_order import ORDERS, Pattern, name_on_circles
from ...model import Model, Name, Size, Torque
from ...verdict import Result
from .pulls import BAND_SHARE, Pull


class Wrench(Model):
    """The wrench in hand; `length_mm` from its drive square to the mark on the grip."""

    name: Name = ""
    min_nm: Torque
    max_nm: Torque
    length_mm: Size | None = None
    calibrated_until: date | None = None


class Beside(Model):
    """A second circle that is pulled by turns with the first: half a turn here, half a turn there."""

    bolts: int = Field(ge=1, le=400)
    torque_nm: Torque
    torque_source: str = "torque as entered"
    title: Name = Field(default="", max_length=120)


class TightenInput(Model):
    """A bolt circle or a row of bolts, its torque and its passes."""

    bolts: int = Field(ge=1, le=400)
    torque_nm: Torque
    torque_source: str = "torque as entered"
    passes: list[float] | Literal["half turns"] = Field(description="shares of the torque, e.g. 0.5, 0.75, 1; or half turns")
    pattern: Pattern
    wrench: Wrench | None = None
    extension_mm: Size | None = None
    extension_angle_deg: float = Field(default=0.0, ge=-180, le=180, description="between extension and wrench")
    pulled_on: date | None = Field(default=None, description="the day, against which the wrench's calibration is held")
    band_share: float = Field(default=BAND_SHARE, gt=0, le=0.5, description="how far a pull may be off its torque")
    title: Name = Field(default="", max_length=120, description="what the bolts are called")
    beside: Beside | None = Field(default=None, description="in rounds of half turns: a second circle, by turns")
    until_still: bool = Field(default=False, description="the last pass is repeated until a whole round moved nothing")
    between_rounds: str = Field(default="", max_length=200, description="what is done before the next round")
    pulls: list[Pull] | None = Field(default=None, max_length=8000, description="what was pulled, in order")

    @property
    def shares(self) -> list[float]:
        """Of the torque, by pass; half turns go to the full torque."""
        return [1.0] if isinstance(self.passes, str) else self.passes

    @property
    def order(self) -> list[int]:
        """Of every bolt; those of a second circle are numbered on and take turns with the first."""
        first = ORDERS[self.pattern](self.bolts)
        if self.beside is None:
            return first
        second = [self.bolts + bolt for bolt in ORDERS[self.pattern](self.beside.bolts)]
        return [bolt for pair in itertools.zip_longest(first, second) for bolt in pair if bolt is not None]

    def torque_of(self, bolt: int) -> float:
        """What it is pulled to in the end."""
        return self.torque_nm if self.beside is None or bolt <= self.bolts else self.beside.torque_nm

    def name_of(self, bolt: int) -> str:
        """Its number; of two circles A1, A2, … and B1, B2, …"""
        return str(bolt) if self.beside is None else name_on_circles(bolt, self.bolts)


class Turn(Model):
    """One bolt's turn: what torque it gets and what the wrench is set to for it.

    `asks_turned`: at this turn it counts whether the screw turned before the wrench clicked.
    """

    model_config = ConfigDict(populate_by_name=True)

    pass_: int = Field(alias="pass")
    bolt: int
    name: str  # of two circles with its letter
    torque_nm: float
    set_nm: float
    asks_turned: bool = False


class TightenResult(Result):
    """`next` is null when every bolt of every pass has been pulled, and does not turn where that is asked."""

    passes: list[float]
    half_turns: bool
    circles: list[int]  # bolts of each circle
    clicked: list[int]  # in rounds of half turns: bolts whose wrench clicked
    still: bool | None
    sequence: list[Turn]
    set_nm: float
    done: int
    next: Turn | None
