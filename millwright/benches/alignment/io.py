"""What goes into the alignment bench and what comes out of it."""

from typing import Literal

from pydantic import Field

from ...clock import RESOLUTION_MM, ClockReading, StandsOut
from ...model import Model, Place, Slope
from ...verdict import Result
from .contradiction import Contradicts
from .dials import Dial
from .drawn import Drawn, Side
from .feet import Foot, FootMove
from .growth import Warmth
from .limits import AlignmentLimits, Allowed, RunningTarget
from .moves import PlannedMove, Room
from .quality import NextReading
from .shims import ShimBox, ShimStack


class Axis(Model):
    """A wanted place of the movable axis, cold."""

    offset_v_mm: float = Field(default=0.0, ge=-100, le=100)
    slope_v_mm_per_m: Slope = 0.0
    offset_h_mm: float = Field(default=0.0, ge=-100, le=100)
    slope_h_mm_per_m: Slope = 0.0


class CouplingPlanes(Model):
    """Where the coupling flexes along the shaft."""

    flex_planes_mm: list[Place] = Field(min_length=2, max_length=2)


class Shown(Axis):
    """What an instrument of its own shows on its screen: offset and slope of the movable axis, and where it gives them."""

    x_mm: Place = Field(default=0.0, description="where along the shaft its offset holds; 0 in the middle of the coupling")


class AsRead(Model):
    """How the axes were read: by dials or a laser whose readings are here, or off another instrument's screen."""

    dials: list[Dial] = Field(default_factory=list, max_length=12)
    shown: Shown | None = None


class WarmReading(Model):
    """That this was read warm: what was left cold, and by how much each foot was said to rise."""

    cold: AsRead
    growth: dict[str, float] = Field(default_factory=dict)


class AlignmentInput(AsRead):
    """Dial or laser readings at any clock positions, or the figures of a screen, and the feet that can be moved."""

    stationary_feet: list[Foot] = Field(max_length=40)
    movable_feet: list[Foot] = Field(min_length=1, max_length=40)
    growth: dict[str, float] | None = Field(default=None, description="rise of a foot from cold to running, mm")
    target: Axis | None = Field(default=None, description="where the movable axis has to be cold")
    limits: AlignmentLimits | None = None
    running_target: RunningTarget | None = None
    speed_rpm: float | None = Field(default=None, gt=0, le=100_000)
    coupling: CouplingPlanes | None = None
    warmth: dict[str, Warmth] = Field(default_factory=dict, description="feet whose growth is worked out from temperatures")
    room: dict[str, Room] | None = Field(default=None, description="how far each foot can go")
    shims: ShimBox | None = None
    warm: WarmReading | None = Field(default=None, description="a hot check: held against what was predicted")
    before: AsRead | None = Field(default=None, description="an earlier reading to compare with")
    before_is: Literal["feet loose", "as left", "as found"] = Field(
        default="feet loose",
        description="read before the feet were torqued, left behind by the job before, or read before this one was begun",
    )
    made: list[PlannedMove] = Field(
        default_factory=list, max_length=80, description="moves to be looked at before they are made"
    )
    resolution_mm: float = Field(default=RESOLUTION_MM, gt=0, le=1)
    movable_on: Side = Field(default="left", description="driver left, driven right: where it is drawn, and nothing else")


class FlexAngle(Model):
    """The angle one flexing plane takes."""

    x_mm: float
    angle_v_mm_per_m: float
    angle_h_mm_per_m: float
    angle_mm_per_m: float


class DialStandsOut(StandsOut):
    """A reading that lies off the others of its dial."""

    dial: int


class Preview(Model):
    """Where the movable axis will lie after moves, and what the dials will show then."""

    offset_v_mm: float
    slope_v_mm_per_m: float
    offset_h_mm: float
    slope_h_mm_per_m: float
    readings: list[list[ClockReading]]


class AlignmentResult(Result):
    """Offsets and slopes as measured, cold, at x = 0; `left_` is what will be left when running as it stands."""

    offset_v_mm: float
    offset_h_mm: float
    offset_mm: float
    swing_mm: float
    slope_v_mm_per_m: float
    slope_h_mm_per_m: float
    slope_mm_per_m: float
    offset_v_sigma_mm: float | None
    offset_h_sigma_mm: float | None
    slope_v_sigma_mm_per_m: float | None
    slope_h_sigma_mm_per_m: float | None
    scatter_mm: float | None
    left_offset_v_mm: float
    left_offset_h_mm: float
    left_slope_v_mm_per_m: float
    left_slope_h_mm_per_m: float
    feet: list[FootMove]
    closure_mm: list[float | None]
    swept_deg: list[float]  # of each dial, the arc of the clock that was read
    flex: list[FlexAngle]
    allowed: list[Allowed]
    stands_out: list[DialStandsOut]
    contradicts: Contradicts | None
    growth_mm: dict[str, float]
    target_readings: list[list[ClockReading]]
    plan: list[PlannedMove] | None
    stacks: list[ShimStack]
    suggested: list[PlannedMove]  # of the plan or the feet, with the shims as the pieces make them
    preview: Preview | None
    predicted: Axis | None
    shifted_v_mm: float | None
    shifted_h_mm: float | None
    next_reading: NextReading | None
    drawn: Drawn
