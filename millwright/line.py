"""A machine line: driver, coupling, driven machine, and which of the two is moved to bring them into line."""

from typing import Literal

from pydantic import Field, ValidationInfo, model_validator

from .model import AT_THE_DOOR, Model, Name, PlainText, Size

Side = Literal["driver", "driven"]
SIDES: tuple[Side, Side] = ("driver", "driven")
Family = Literal[
    "jaw, straight",
    "jaw, curved",
    "jaw, in shear with spacer",
    "steel grid",
    "gear",
    "disc, single pack",
    "disc, three-part",
    "disc, drop-out spacer",
    "composite tube",
    "tyre",
    "tyre on flywheel",
    "claw with elastomer blocks",
    "rigid",
    "screw-conveyor drive",
    "shaft-mounted reducer",
    "magnetic drive",
]
Connection = Literal[
    "keyed, slip fit",
    "keyed, interference",
    "tapered bore",
    "tapered bush",
    "clamp ring",
    "shrink disc",
    "keyless locking ring",
    "tapered wedge",
]
Half = Literal["flexible", "rigid"]
Drawn = Literal[
    "motor",
    "gearmotor",
    "engine",
    "blower",
    "fan",
    "pump",
    "generator",
    "mill",
    "drum",
    "elevator",
    "auger",
    "gearbox",
    "compressor",
    "conveyor",
    "mixer",
    "crusher",
    "machine",
]


class MachineFoot(Model):
    """A foot, or a pair across the machine, by its distance from the coupling's middle."""

    name: Name = Field(min_length=1, max_length=40)
    from_coupling_mm: Size
    rise_mm: float | None = Field(default=None, ge=-20, le=20, description="from cold to running, measured or the maker's")


class Machine(Model):
    """One machine of the line."""

    name: Name = Field(min_length=1, max_length=60)
    drawn_as: Drawn = "machine"
    power_kw: float | None = Field(default=None, gt=0, le=100_000)
    shaft_diameter_mm: Size
    feet: list[MachineFoot] = Field(max_length=8)
    foot_bolts: int = Field(default=4, ge=0, le=40)
    serial: PlainText = Field(default="", max_length=60, description="serial or plant number, as on its plate")
    floats: bool = Field(default=False, description="the shaft floats along itself: sleeve bearings")

    @property
    def called(self) -> str:
        """The name inside a sentence: the motor, but Pump P-3."""
        return self.name.lower() if self.name[1:].islower() else self.name

    @model_validator(mode="after")
    def _feet_stand_apart(self) -> "Machine":
        names = [foot.name for foot in self.feet]
        if len(set(names)) < len(names):
            raise ValueError("Two feet of this machine have the same name.")
        places = [foot.from_coupling_mm for foot in self.feet]
        if len(places) > 1 and max(places) - min(places) < 1:
            raise ValueError("These feet are at the same place along the shaft.")
        return self


class Hub(Model):
    """How one hub is held, and its size."""

    connection: Connection = "keyed, slip fit"
    diameter_mm: Size
    length_mm: Size
    set_screws: int = Field(default=1, ge=0, le=8)
    half_key: bool = Field(default=False, description="this shaft end was balanced with a half key")
    half: Half = Field(default="flexible", description="of a gear coupling: with teeth and a sleeve, or bolted on as it is")

    @property
    def slides(self) -> bool:
        """Free on its shaft until its screws are torqued."""
        return self.connection == "keyed, slip fit"


class Coupling(Model):
    """The coupling this line is registered with."""

    family: Family
    series: Name = Field(min_length=1, max_length=60)
    size: Name = Field(min_length=1, max_length=40)
    driver_hub: Hub
    driven_hub: Hub


class IsolationPoint(Model):
    """A place where an energy source of this line is locked."""

    energy: Name = Field(min_length=1, max_length=60)
    point: Name = Field(min_length=1, max_length=80)


class LineSpec(Model):
    """Everything about a line that the work and the drawings need."""

    driver: Machine
    driven: Machine
    coupling: Coupling
    movable: Side
    speed_rpm: float = Field(gt=0, le=100_000)
    isolation_points: list[IsolationPoint] = Field(default_factory=list, max_length=20)
    backstop: bool = Field(default=False, description="a gear unit of this line has a backstop, or is to get one")
    hours_a_day: float | None = Field(default=None, gt=0, le=24, description="it runs so long on a usual day; else all day")
    purpose: PlainText = Field(default="", max_length=400, description="what the coupling is meant to do here")

    @model_validator(mode="after")
    def _the_movable_machine_has_feet(self) -> "LineSpec":
        if len(self.machine(self.movable).feet) < 2:
            raise ValueError("The machine that is moved needs two feet or more along the shaft.")
        names = [foot.name for side in SIDES for foot in self.machine(side).feet]
        if len(set(names)) < len(names):
            raise ValueError("A foot name is used on both machines. Name them apart: motor drive end, blower drive end.")
        return self

    @model_validator(mode="after")
    def _a_gear_coupling_has_teeth(self) -> "LineSpec":
        if self.coupling.family == "gear" and all(self.hub(side).half == "rigid" for side in SIDES):
            raise ValueError("A gear coupling with two rigid halves is a rigid coupling: register it as one.")
        return self

    @model_validator(mode="after")
    def _a_wedge_holds_a_conveyor_shaft(self, info: ValidationInfo) -> "LineSpec":
        held = [self.hub(side).connection for side in SIDES]
        if info.context == AT_THE_DOOR and "tapered wedge" in held and self.coupling.family != "screw-conveyor drive":
            raise ValueError("A tapered wedge holds the shaft of a screw-conveyor drive and nothing else.")
        return self

    @property
    def stationary(self) -> Side:
        """The side that stays."""
        return "driven" if self.movable == "driver" else "driver"

    def machine(self, side: Side) -> Machine:
        """The machine on a side."""
        return self.driver if side == "driver" else self.driven

    def hub(self, side: Side) -> Hub:
        """The hub on a side."""
        return self.coupling.driver_hub if side == "driver" else self.coupling.driven_hub
