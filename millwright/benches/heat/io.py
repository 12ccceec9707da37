"""What the heat bench is given and what it answers: hub, shaft, heater, ceilings; times, temperatures, curve."""

from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field, model_validator

from ...metals import METALS, Material, Metal
from ...model import Model
from ...verdict import AS_ENTERED, Result
from .cooling import AIR_FILM_W_M2_K, HubReading, Temperature
from .slide import Grips, Met

HubSize = Annotated[float, Field(ge=1, le=10_000, description="mm")]
CARRY_S = 60.0  # rule of thumb
SLIDE_S = 10.0  # rule of thumb: a practised pair of hands, nothing in the way
SLIDE_RULE = "rule of thumb: time to push it to the stop"


class HeatedHub(Model):
    """The hub as a hollow cylinder; its metal by name, or by its three constants."""

    material: Material | None = None
    expansion_per_k: float | None = Field(default=None, gt=1e-6, le=1e-4)
    density_kg_m3: float | None = Field(default=None, gt=500, le=25_000)
    specific_heat_j_kg_k: float | None = Field(default=None, gt=50, le=5_000)
    outside_mm: HubSize
    length_mm: HubSize

    @model_validator(mode="after")
    def _metal_is_known(self) -> "HeatedHub":
        constants = (self.expansion_per_k, self.density_kg_m3, self.specific_heat_j_kg_k)
        if self.material is None and None in constants:
            raise ValueError("Name the material, or give expansion_per_k, density_kg_m3 and specific_heat_j_kg_k.")
        return self

    @property
    def metal(self) -> Metal:
        """The constants: as given, else those of the named material."""
        usual = METALS[self.material] if self.material else Metal(0.0, 0.0, 0.0)
        return Metal(
            self.expansion_per_k or usual.expansion_per_k,
            self.density_kg_m3 or usual.density_kg_m3,
            self.specific_heat_j_kg_k or usual.specific_heat_j_kg_k,
        )


class ColdShaft(Model):
    """The shaft's metal where it is another one than the hub's; what is not given is the hub's."""

    expansion_per_k: float | None = Field(default=None, gt=1e-6, le=1e-4)
    density_kg_m3: float | None = Field(default=None, gt=500, le=25_000)
    specific_heat_j_kg_k: float | None = Field(default=None, gt=50, le=5_000)


class Heater(Model):
    """An oven by its air, an induction heater by its power."""

    kind: Literal["oven", "induction"]
    air_c: Temperature | None = Field(default=None, ge=30, le=600, description="oven: what it is set to")
    power_kw: float | None = Field(default=None, gt=0, le=500, description="induction heater")
    efficiency: float = Field(default=0.7, gt=0, le=1, description="induction: share of the power that heats the hub")

    @model_validator(mode="after")
    def _has_its_figure(self) -> "Heater":
        if self.kind == "oven" and self.air_c is None:
            raise ValueError("An oven needs air_c: what it is set to.")
        if self.kind == "induction" and self.power_kw is None:
            raise ValueError("An induction heater needs power_kw.")
        return self


class HeatInput(Model):
    """A bore, what it has to clear, and the hub that is heated. `bore_mm` and interference as measured at `shaft_c`."""

    bore_mm: HubSize
    interference_mm: float = Field(ge=-5, le=20, description="the largest, shaft less bore")
    assembly_clearance_mm: float = Field(ge=0, le=10, description="wanted while sliding on")
    shaft_c: Temperature = Field(ge=-200, le=300)
    hub: HeatedHub
    ceiling_c: Temperature = Field(ge=30, le=900, description="most the hub may have")
    ceiling_source: str = AS_ENTERED
    ambient_c: Temperature = Field(ge=-50, le=80)
    film_w_m2_k: float = Field(default=AIR_FILM_W_M2_K, gt=0, le=1_000)
    elastomer_ceiling_c: Temperature | None = Field(default=None, ge=-50, le=400, description="of an element left inside")
    heater: Heater | None = None
    shaft: ColdShaft | None = None
    heat_to_c: Temperature | None = Field(default=None, ge=30, le=900, description="hotter than it has to be, to leave time")
    seat: Literal["straight", "taper"] = Field(default="straight", description="on a taper it stops where it touches")
    carry_s: float = Field(default=CARRY_S, ge=0, le=7_200, description="from the heater to the shaft")
    slide_s: float | None = Field(
        default=None, gt=0, le=3_600, description="time to push it to the stop; a rule of thumb where not given"
    )
    soak_s: float | None = Field(default=None, gt=0, le=86_400, description="how long it is to be kept at its temperature")
    readings: list[HubReading] = Field(default_factory=list, max_length=500)


class CurvePoint(Model):
    """The hub so long after it left the heater: how hot, and how far its bore stands clear of the shaft."""

    after_s: float
    hub_c: float
    clear_mm: float


class GripTimes(Model):
    """Seconds from touching the shaft to grip, least and most; null where it never grips."""

    least: float | None
    most: float | None


class HeatResult(Result):
    """Times null where it never happens, 0 where it is so already. `clear_now_mm` is null once it is on the shaft."""

    target_c: float  # the least
    heat_to_c: float  # the target, or what was chosen above it
    ceiling_lowest_c: float
    within_ceiling: bool
    closes_at_c: float
    tau_s: float
    window_s: float | None
    cool_to_touch_s: float | None
    touch_c: float
    grips_s: GripTimes
    push_from_c: float | None  # colder than this as it touches the shaft, it leaves too little time to push it to the stop
    carry_most_s: float | None  # until it has come down to that
    slide_target_c: float | None
    mass_kg: float
    heating_s: float | None
    shaft_target_c: float | None
    tau_fitted_s: float | None
    window_fitted_s: float | None
    clear_now_mm: float | None
    curve: list[CurvePoint]
    meeting: list[Met]  # hub and shaft from the touch to the grip, centred


@dataclass(frozen=True, kw_only=True)
class Slide:
    """The hub as it touches the shaft and the seconds that leaves; how hot it has to touch it, and so its least target."""

    touch_c: float
    grips: Grips
    push_from_c: float | None
    target_c: float | None


def lowest_ceiling(given: HeatInput) -> tuple[float, str]:
    """Of hub and elastomer the one that bears less, and which it is."""
    if given.elastomer_ceiling_c is not None and given.elastomer_ceiling_c < given.ceiling_c:
        return given.elastomer_ceiling_c, "elastomer"
    return given.ceiling_c, "hub"


def hottest_over(given: HeatInput, lowest: float) -> float | None:
    """The most it was read at, where that is over the ceiling."""
    hottest = max((reading.hub_c for reading in given.readings), default=lowest)
    return hottest if hottest > lowest else None
