"""How hot a hub has to be to slide on, how long it stays open, and what a reading on the way says of both."""

import math
from typing import Literal

from pydantic import Field, model_validator

from ..errors import Problem, UnusableInput, refuse_if_any
from ..metals import METALS, Material, Metal
from ..model import Model, Size
from ..verdict import AS_ENTERED, Check, Result, WorkLine, judge, work, worst
from .cooling import AIR_FILM_W_M2_K, TOUCH_C, Cooling, HubReading, Temperature, fit_cooling, say_time

CURVE_POINTS = 24

USUAL = "usual physical constant of {}"


class HeatedHub(Model):
    """The hub as a hollow cylinder; its metal by name, or by its three constants."""

    material: Material | None = None
    expansion_per_k: float | None = Field(default=None, gt=1e-6, le=1e-4)
    density_kg_m3: float | None = Field(default=None, gt=500, le=25_000)
    specific_heat_j_kg_k: float | None = Field(default=None, gt=50, le=5_000)
    outside_mm: Size
    length_mm: Size

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
    """The shaft, where it is cooled and its metal is another one than the hub's."""

    expansion_per_k: float = Field(gt=1e-6, le=1e-4)


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

    bore_mm: Size
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
    readings: list[HubReading] = Field(default_factory=list, max_length=500)


class CurvePoint(Model):
    """The hub so long after it left the heater: how hot, and how far its bore stands clear of the shaft."""

    after_s: float
    hub_c: float
    clear_mm: float


class HeatResult(Result):
    """Times null where it never happens, 0 where it is so already."""

    target_c: float
    ceiling_lowest_c: float
    within_ceiling: bool
    closes_at_c: float
    tau_s: float
    window_s: float | None
    cool_to_touch_s: float | None
    mass_kg: float
    heating_s: float | None
    shaft_target_c: float | None
    tau_fitted_s: float | None
    window_fitted_s: float | None
    clear_now_mm: float | None
    curve: list[CurvePoint]


def evaluate(given: HeatInput) -> HeatResult:
    """Target temperature, the time until the bore closes, and what stands in the way.

    Raises `UnusableInput` for a bore that is no smaller than the hub, a hub that needs no heat, ceilings below the shaft.
    Source: thermal expansion of the bore; cooling of one lump through an air film (contract of the bench).
    """
    refuse_if_any(_problems(given))
    metal = given.hub.metal
    per_k = given.bore_mm * metal.expansion_per_k
    target = given.shaft_c + (given.interference_mm + given.assembly_clearance_mm) / per_k
    if target <= max(given.ambient_c, given.shaft_c):
        raise UnusableInput(
            Problem("interference_mm", f"At {given.ambient_c:g} °C the hub slides on as it is. It needs no heat.")
        )
    closes_at = given.shaft_c + given.interference_mm / per_k
    mass, surface = _mass_kg(given), _surface_m2(given)
    cooling = Cooling(
        start_c=target,
        ambient_c=given.ambient_c,
        tau_s=mass * metal.specific_heat_j_kg_k / (given.film_w_m2_k * surface),
    )
    lowest, _ = _lowest_ceiling(given)
    checks = _ceiling_checks(given, target)
    fitted = fit_cooling(given.readings, given.ambient_c)
    window = cooling.reaches_s(closes_at)
    heating = _heating_s(given, target, mass)
    shaft_target = None
    if target > lowest:
        shaft_per_k = given.bore_mm * (given.shaft.expansion_per_k if given.shaft else metal.expansion_per_k)
        gains = per_k * (lowest - given.shaft_c)
        shaft_target = given.shaft_c - (given.interference_mm + given.assembly_clearance_mm - gains) / shaft_per_k
    now = given.readings[-1].hub_c if given.readings else None
    return HeatResult(
        bench="heat",
        verdict=worst(checks),
        checks=checks,
        advice=_advice(given, target, window, shaft_target, heating),
        working=_working(given, target, closes_at, mass, surface, cooling, window),
        target_c=target,
        ceiling_lowest_c=lowest,
        within_ceiling=target <= lowest + 1e-9,
        closes_at_c=closes_at,
        tau_s=cooling.tau_s,
        window_s=window,
        cool_to_touch_s=cooling.reaches_s(TOUCH_C),
        mass_kg=mass,
        heating_s=heating,
        shaft_target_c=shaft_target,
        tau_fitted_s=fitted.tau_s if fitted else None,
        window_fitted_s=fitted.reaches_s(closes_at) if fitted else None,
        clear_now_mm=None if now is None else per_k * (now - closes_at),
        curve=_curve(fitted or cooling, window, per_k, closes_at),
    )


def _problems(given: HeatInput) -> list[Problem]:
    found = []
    if given.bore_mm >= given.hub.outside_mm:
        found.append(Problem("hub.outside_mm", "The bore is no smaller than the hub is outside."))
    if given.elastomer_ceiling_c is not None and given.elastomer_ceiling_c <= given.shaft_c:
        found.append(Problem("elastomer_ceiling_c", "This lies below the shaft's temperature. A slip?"))
    if given.ceiling_c <= given.shaft_c:
        found.append(Problem("ceiling_c", "This lies below the shaft's temperature. A slip?"))
    for i in range(1, len(given.readings)):
        if given.readings[i].after_s < given.readings[i - 1].after_s:
            found.append(Problem(f"readings.{i}.after_s", "This reading is earlier than the one before it."))
    return found


def _lowest_ceiling(given: HeatInput) -> tuple[float, str]:
    if given.elastomer_ceiling_c is not None and given.elastomer_ceiling_c < given.ceiling_c:
        return given.elastomer_ceiling_c, "elastomer"
    return given.ceiling_c, "hub"


def _ceiling_checks(given: HeatInput, target: float) -> list[Check]:
    checks = [judge("heating target, hub", target, "°C", high=given.ceiling_c, source=given.ceiling_source)]
    if given.elastomer_ceiling_c is not None and given.elastomer_ceiling_c > 0:
        checks.append(
            judge("heating target, elastomer left inside", target, "°C", high=given.elastomer_ceiling_c, source=AS_ENTERED)
        )
    lowest, whose = _lowest_ceiling(given)
    if (hottest := _hottest_over(given, lowest)) is not None:
        source = given.ceiling_source if whose == "hub" else AS_ENTERED
        checks.append(judge("hub as read", hottest, "°C", high=lowest, source=source))
    return checks


def _hottest_over(given: HeatInput, lowest: float) -> float | None:
    hottest = max((reading.hub_c for reading in given.readings), default=lowest)
    return hottest if hottest > lowest else None


def too_hot(hub_c: float, ceiling_c: float) -> str:
    """What to do with a hub that was read over its ceiling."""
    return (
        f"The hub was read at {hub_c:.0f} °C, over its ceiling of {ceiling_c:.0f} °C: its metal may be spoiled. "
        "Do not fit it before the maker has said that it may be used."
    )


def _mass_kg(given: HeatInput) -> float:
    outside, bore, length = given.hub.outside_mm / 1000, given.bore_mm / 1000, given.hub.length_mm / 1000
    return given.hub.metal.density_kg_m3 * math.pi / 4 * (outside**2 - bore**2) * length


def _surface_m2(given: HeatInput) -> float:
    """Outside, both ends and bore. Source: geometry."""
    outside, bore, length = given.hub.outside_mm / 1000, given.bore_mm / 1000, given.hub.length_mm / 1000
    return math.pi * (outside + bore) * length + math.pi / 2 * (outside**2 - bore**2)


def _heating_s(given: HeatInput, target: float, mass: float) -> float | None:
    """From the air's temperature to the target. None where the heater never gets it there.

    Oven: the same lump and film the other way round. Induction: the energy over the power that arrives, losses left out.
    """
    if given.heater is None:
        return None
    energy = mass * given.hub.metal.specific_heat_j_kg_k * (target - given.ambient_c)
    if given.heater.power_kw is not None and given.heater.kind == "induction":
        return energy / (given.heater.power_kw * 1000 * given.heater.efficiency)
    air = given.heater.air_c or 0.0
    if air <= target:
        return None
    tau = mass * given.hub.metal.specific_heat_j_kg_k / (given.film_w_m2_k * _surface_m2(given))
    return tau * math.log((air - given.ambient_c) / (air - target))


def _curve(cooling: Cooling, window: float | None, per_k: float, closes_at: float) -> list[CurvePoint]:
    until = (window or cooling.tau_s) * 1.25
    points = []
    for i in range(CURVE_POINTS + 1):
        after = until * i / CURVE_POINTS
        hub = cooling.at_c(after)
        points.append(CurvePoint(after_s=after, hub_c=hub, clear_mm=per_k * (hub - closes_at)))
    return points


def _advice(
    given: HeatInput, target: float, window: float | None, shaft_target: float | None, heating: float | None
) -> list[str]:
    advice = []
    lowest, whose = _lowest_ceiling(given)
    if (hottest := _hottest_over(given, lowest)) is not None:
        advice.append(too_hot(hottest, lowest))
    if target > lowest and whose == "elastomer":
        advice.append(f"Take the elastomer out of the hub first: it bears {lowest:g} °C, the target is {target:.0f} °C.")
    if shaft_target is not None:
        advice.append(
            f"The target lies above the ceiling of {lowest:g} °C. Cool the shaft to {shaft_target:.0f} °C with the hub at "
            "the ceiling, measure again more closely, or ask for another fit."
        )
    if given.heater is not None and heating is None:
        advice.append("This oven does not get the hub to the target. Set it higher, within the ceiling.")
    if window is not None and target <= lowest:
        advice.append(
            f"It may be carried for {say_time(window)} in still air. On the cold shaft it grips in seconds: "
            "push it home at once, without a stop."
        )
    advice.append("Heat evenly, off the oven floor. No open flame. Check with a pyrometer, not by the clock alone.")
    return advice


def _working(
    given: HeatInput,
    target: float,
    closes_at: float,
    mass: float,
    surface: float,
    cooling: Cooling,
    window: float | None,
) -> list[WorkLine]:
    metal, gap, grips = given.hub.metal, given.assembly_clearance_mm, given.interference_mm
    wanted, rise = grips + gap, target - given.shaft_c
    bore = f"({given.bore_mm:g} × {metal.expansion_per_k * 1e6:g}·10⁻⁶)"
    constants = USUAL.format(given.hub.material) if given.hub.material else AS_ENTERED
    cools = f"{mass:.2f} × {metal.specific_heat_j_kg_k:g} ÷ ({given.film_w_m2_k:g} × {surface:.4f})"
    closing = f"{given.shaft_c:g} + {grips:.3f} ÷ {bore}"
    lines = [
        work("bore has to grow", "interference + clearance", f"{grips:.3f} + {gap:.3f}", wanted),
        work(f"rise ({constants})", "growth ÷ (bore × expansion)", f"{wanted:.3f} ÷ {bore}", rise, "K"),
        work("hub to", "shaft + rise", f"{given.shaft_c:g} + {rise:.1f}", target, "°C"),
        work("bore closes at", "shaft + interference ÷ (bore × expansion)", closing, closes_at, "°C"),
        work("mass", "density × hollow cylinder", f"{metal.density_kg_m3:g} × …", mass, "kg"),
        work("time constant, one lump in still air", "mass × heat ÷ (film × surface)", cools, cooling.tau_s, "s"),
    ]
    if window:
        ratio = f"({target:.1f} − {given.ambient_c:g}) ÷ ({closes_at:.1f} − {given.ambient_c:g})"
        lines.append(work("until the bore closes", "τ × ln(ratio)", f"{cooling.tau_s:.0f} × ln[{ratio}]", window, "s"))
    return lines
