"""How hot a hub has to be to slide on, how long it stays open, and what a reading on the way says of both."""

import math
from dataclasses import dataclass, replace
from typing import Literal

from pydantic import Field, model_validator

from ..errors import Problem, UnusableInput, problem, refuse_if_any
from ..metals import METALS, Material, Metal
from ..model import Model, Size
from ..say import Figure, Say, bare, deg_c, say, seconds, words
from ..verdict import AS_ENTERED, Check, Result, Status, WorkLine, judge, work, worst
from .cooling import AIR_FILM_W_M2_K, TOUCH_C, Cooling, HubReading, Temperature, fit_cooling
from .slide import FACTOR_OF_TWO, Grips, Met, Seat, coldest_that_leaves, grips, meeting

CURVE_POINTS = 24
CARRY_S = 60.0  # rule of thumb
SLIDE_S = 10.0  # rule of thumb: a practised pair of hands, nothing in the way
SLIDE_RULE = "rule of thumb: time to push it home"

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
    heat_to_c: Temperature | None = Field(default=None, ge=30, le=900, description="hotter than it has to be, to leave time")
    seat: Literal["straight", "taper"] = Field(default="straight", description="on a taper it stops where it touches")
    carry_s: float = Field(default=CARRY_S, ge=0, le=7_200, description="from the heater to the shaft")
    slide_s: float | None = Field(
        default=None, gt=0, le=3_600, description="time to push it home; a rule of thumb where not given"
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
    push_from_c: float | None  # colder than this as it touches the shaft, it leaves too little time to push it home
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


def evaluate(given: HeatInput) -> HeatResult:
    """Target temperature, how long it may be carried, the seconds it leaves on the shaft, and what stands in the way.

    Raises `UnusableInput` for a bore that is no smaller than the hub, a hub that needs no heat, ceilings below the shaft.
    Source: thermal expansion of the bore; cooling of one lump through an air film; two lumps on the shaft (`slide`).
    """
    refuse_if_any(_problems(given))
    metal = given.hub.metal
    per_k = given.bore_mm * metal.expansion_per_k
    target = given.shaft_c + (given.interference_mm + given.assembly_clearance_mm) / per_k
    if target <= max(given.ambient_c, given.shaft_c):
        text = "At {ambient} the hub slides on as it is. It needs no heat."
        raise UnusableInput(problem("interference_mm", text, ambient=deg_c(given.ambient_c, None)))
    heat_to = given.heat_to_c or target
    if heat_to < target - 1e-9 and given.seat == "straight":  # on a taper what was reached says how hot
        raise UnusableInput(problem("heat_to_c", "It has to be {target} at least.", target=deg_c(math.ceil(target))))
    closes_at = given.shaft_c + given.interference_mm / per_k
    mass, surface = _mass_kg(given), _surface_m2(given)
    cooling = Cooling(
        start_c=heat_to,
        ambient_c=given.ambient_c,
        tau_s=mass * metal.specific_heat_j_kg_k / (given.film_w_m2_k * surface),
    )
    slide = _slide(given, cooling, closes_at)
    lowest, _ = _lowest_ceiling(given)
    checks = [*_ceiling_checks(given, heat_to), *_push_checks(given, slide)]
    fitted = fit_cooling(given.readings, given.ambient_c, cooling.tau_s)
    window = cooling.reaches_s(closes_at)
    heating = _heating_s(given, heat_to, mass)
    shaft_target = None
    if target > lowest:
        gains = per_k * (lowest - given.shaft_c)
        shaft_per_k = given.bore_mm * _shaft_metal(given).expansion_per_k
        shaft_target = given.shaft_c - (given.interference_mm + given.assembly_clearance_mm - gains) / shaft_per_k
    last = given.readings[-1] if given.readings else None
    taught = sum(r.where == "air" for r in given.readings) > 1
    return HeatResult(
        bench="heat",
        verdict=worst(checks),
        checks=checks,
        says=_advice(given, heat_to, window, shaft_target, heating, slide),
        working=_working(given, target, closes_at, mass, surface, cooling, window) + _slide_working(given, slide),
        target_c=target,
        heat_to_c=heat_to,
        ceiling_lowest_c=lowest,
        within_ceiling=target <= lowest + 1e-9,
        closes_at_c=closes_at,
        tau_s=cooling.tau_s,
        window_s=window,
        cool_to_touch_s=cooling.reaches_s(TOUCH_C),
        touch_c=slide.touch_c,
        grips_s=GripTimes(least=slide.grips.least, most=slide.grips.most),
        push_from_c=slide.push_from_c,
        carry_most_s=None if slide.push_from_c is None else cooling.reaches_s(slide.push_from_c),
        slide_target_c=slide.target_c,
        mass_kg=mass,
        heating_s=heating,
        shaft_target_c=shaft_target,
        tau_fitted_s=fitted.tau_s if fitted and taught else None,
        window_fitted_s=fitted.reaches_s(closes_at) if fitted else None,
        clear_now_mm=None if last is None or last.where == "shaft" else per_k * (last.hub_c - closes_at),
        curve=_curve(fitted or cooling, window, per_k, closes_at),
        meeting=[] if given.seat == "taper" else list(meeting(seat_of(given), slide.touch_c)),
    )


@dataclass(frozen=True, kw_only=True)
class _Slide:
    """The hub as it touches the shaft and the seconds that leaves; how hot it has to touch it, and so its least target."""

    touch_c: float
    grips: Grips
    push_from_c: float | None
    target_c: float | None


def _shaft_metal(given: HeatInput) -> Metal:
    metal, shaft = given.hub.metal, given.shaft or ColdShaft()
    return Metal(
        shaft.expansion_per_k or metal.expansion_per_k,
        shaft.density_kg_m3 or metal.density_kg_m3,
        shaft.specific_heat_j_kg_k or metal.specific_heat_j_kg_k,
    )


def seat_of(given: HeatInput) -> Seat:
    """Hub and shaft where they meet."""
    return Seat(
        bore_mm=given.bore_mm,
        interference_mm=given.interference_mm,
        outside_mm=given.hub.outside_mm,
        length_mm=given.hub.length_mm,
        hub=given.hub.metal,
        shaft=_shaft_metal(given),
        shaft_c=given.shaft_c,
        ambient_c=given.ambient_c,
        film_w_m2_k=given.film_w_m2_k,
    )


def _slide(given: HeatInput, cooling: Cooling, closes_at: float) -> _Slide:
    seat, wanted = seat_of(given), given.slide_s or SLIDE_S
    ceiling, _ = _lowest_ceiling(given)
    if given.seat == "taper":
        return _Slide(
            touch_c=cooling.at_c(given.carry_s), grips=Grips(least=None, most=None), push_from_c=None, target_c=None
        )
    kept = math.exp(-given.carry_s / cooling.tau_s)  # of what it is above the air, after the carry
    push_from = coldest_that_leaves(seat, wanted, closes_at, ceiling)
    target = None if push_from is None else given.ambient_c + (push_from - given.ambient_c) / kept
    touch = cooling.at_c(given.carry_s)
    return _Slide(
        touch_c=touch,
        grips=grips(seat, touch),
        push_from_c=push_from,
        target_c=target if target is not None and target <= ceiling else None,
    )


def _push_checks(given: HeatInput, slide: _Slide) -> list[Check]:
    """Seconds to push home; short of a rule of thumb it is over only where even twice the longest is too short."""
    least, most = slide.grips.least, slide.grips.most
    if least is None or most is None:
        return []
    wanted, source = given.slide_s or SLIDE_S, SLIDE_RULE if given.slide_s is None else AS_ENTERED
    check = judge("time_to_push", "time to push it home", least, "s", low=wanted, source=source)
    if given.slide_s is None and check.status is Status.OVER and 2 * most >= wanted:
        return [replace(check, used=None, status=Status.CLOSE)]
    return [check]


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
    name, high = "heating target, hub", given.ceiling_c
    checks = [judge("ceiling", name, target, "°C", high=high, source=given.ceiling_source)]
    if given.elastomer_ceiling_c is not None and given.elastomer_ceiling_c > 0:
        name, high = "heating target, elastomer left inside", given.elastomer_ceiling_c
        checks.append(judge("elastomer_ceiling", name, target, "°C", high=high, source=AS_ENTERED))
    lowest, whose = _lowest_ceiling(given)
    if (hottest := _hottest_over(given, lowest)) is not None:
        source = given.ceiling_source if whose == "hub" else AS_ENTERED
        checks.append(judge("was_too_hot", "hub as read", hottest, "°C", high=lowest, source=source))
    return checks


def _hottest_over(given: HeatInput, lowest: float) -> float | None:
    hottest = max((reading.hub_c for reading in given.readings), default=lowest)
    return hottest if hottest > lowest else None


def say_too_hot(hub_c: float, ceiling_c: float) -> Say:
    """What to do with a hub that was read over its ceiling."""
    text = "The hub was read at {hub}, over its ceiling of {ceiling}: its metal may be spoiled."
    text += " Do not fit it before the maker has said that it may be used."
    return say("was_too_hot", text, hub=deg_c(hub_c), ceiling=deg_c(ceiling_c))


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
    given: HeatInput,
    target: float,
    window: float | None,
    shaft_target: float | None,
    heating: float | None,
    slide: _Slide,
) -> list[Say]:
    advice = []
    lowest, whose = _lowest_ceiling(given)
    ceiling = deg_c(lowest, None)
    if (hottest := _hottest_over(given, lowest)) is not None:
        advice.append(say_too_hot(hottest, lowest))
    if given.heater is not None and given.heater.air_c is not None and given.heater.air_c > lowest:
        text = "The oven is set to {air}, above the ceiling of {ceiling}: a hub forgotten in it is spoiled. Set it lower."
        advice.append(say("oven_over_ceiling", text, air=deg_c(given.heater.air_c, None), ceiling=ceiling))
    if target > lowest and whose == "elastomer":
        text = "Take the elastomer out of the hub first: it bears {ceiling}, the target is {target}."
        advice.append(say("elastomer_out", text, ceiling=ceiling, target=deg_c(target)))
    if shaft_target is not None:
        text = "The target lies above the ceiling of {ceiling}. Cool the shaft to {shaft} with the hub at the ceiling,"
        text += " measure again more closely, or ask for another fit."
        advice.append(say("over_ceiling", text, ceiling=ceiling, shaft=deg_c(shaft_target)))
    if given.heater is not None and heating is None:
        advice.append(
            say("oven_too_cold", "This oven does not get the hub to the target. Set it higher, within the ceiling.")
        )
    advice += _say_push(given, target, slide)
    if window is not None and target <= lowest:
        text = "It stays open for {window} in still air, if nothing touches it. On the cold shaft it grips in seconds."
        advice.append(say("carry", text, window=seconds(window)))
    heat = "Heat evenly, off the oven floor. No open flame. Check with a pyrometer, not by the clock alone."
    return [*advice, say("heat_evenly", heat)]


def _say_push(given: HeatInput, target: float, slide: _Slide) -> list[Say]:
    """How long there is to push it home, and the target that would leave enough."""
    least, most, wanted = slide.grips.least, slide.grips.most, given.slide_s or SLIDE_S
    if least is None or most is None:
        return []
    if least >= wanted:
        text = "From touching the shaft it grips in {least} to {most}: push it home in one go, to the stop, without a pause."
        return [say("push_home", text, least=seconds(math.floor(least)), most=seconds(math.ceil(most)))]
    text = "Only {least} to push it home once it touches the shaft, and {wanted} are wanted. {more}"
    more = words("No target within the ceiling leaves that: cool the shaft, shorten the carry, or guide it on a mandrel.")
    if slide.target_c is not None:
        more = words("Heat it to {target} instead of {now}.", target=deg_c(math.ceil(slide.target_c)), now=deg_c(target))
    return [say("too_little_time", text, least=seconds(math.floor(least)), wanted=seconds(wanted), more=more)]


def _working(
    given: HeatInput,
    target: float,
    closes_at: float,
    mass: float,
    surface: float,
    cooling: Cooling,
    window: float | None,
) -> list[WorkLine]:
    metal, gap, grip = given.hub.metal, given.assembly_clearance_mm, given.interference_mm
    wanted, rise = grip + gap, (grip + gap) / (given.bore_mm * metal.expansion_per_k)
    constants = USUAL.format(given.hub.material) if given.hub.material else AS_ENTERED
    bore = words("({bore} × {per_k}·10⁻⁶)", bore=bare(given.bore_mm, None), per_k=_per_million(metal))
    shaft, air = bare(given.shaft_c, None, "°C"), bare(given.ambient_c, None, "°C")
    grows = words("{grip} + {gap}", grip=bare(grip), gap=bare(gap))
    rises = words("{wanted} ÷ {bore}", wanted=bare(wanted), bore=bore)
    hub_to = words("{shaft} + {rise}", shaft=shaft, rise=bare(rise, 1, "K"))
    closing = words("{shaft} + {grip} ÷ {bore}", shaft=shaft, grip=bare(grip), bore=bore)
    cools = words(
        "{mass} × {heat} ÷ ({film} × {surface})",
        mass=bare(mass, 2, "kg"),
        heat=bare(metal.specific_heat_j_kg_k, None, "J/kgK"),
        film=bare(given.film_w_m2_k, None, "W/m²K"),
        surface=bare(surface, 4, "m²"),
    )
    weighs = words("{density} kg/m³ × hollow cylinder", density=bare(metal.density_kg_m3, None, "kg/m³"))
    formula = "shaft + interference ÷ (bore × expansion)"
    lines = [
        work("grows", "bore has to grow", "interference + clearance", grows, wanted),
        work("rise", f"rise ({constants})", "growth ÷ (bore × expansion)", rises, rise, "K"),
        work("target", "hub to, at least", "shaft + rise", hub_to, given.shaft_c + rise, "°C"),
        work("closes_at", "bore closes at", formula, closing, closes_at, "°C"),
        work("mass", "mass", "density × hollow cylinder", weighs, mass, "kg"),
        work("tau", "time constant, one lump in still air", "mass × heat ÷ (film × surface)", cools, cooling.tau_s, "s"),
    ]
    if window:
        ratio = words(
            "{tau} × ln[({target} − {air}) ÷ ({closes} − {air})]",
            tau=bare(cooling.tau_s, 0, "s"),
            target=bare(target, 1, "°C"),
            closes=bare(closes_at, 1, "°C"),
            air=air,
        )
        lines.append(work("window", "open in still air", "τ × ln(ratio)", ratio, window, "s"))
    return lines


def _per_million(metal: Metal) -> Figure:
    return bare(metal.expansion_per_k * 1e6, None, "1e-6/K")


def _slide_working(given: HeatInput, slide: _Slide) -> list[WorkLine]:
    carried = words("cooled in air for {carry}", carry=seconds(given.carry_s))
    lines = [
        work("touch", "hub as it touches the shaft", "air + (target − air) × e^(−carry ÷ τ)", carried, slide.touch_c, "°C")
    ]
    model = "two lumps through the air between them"
    for code, what, value in (
        ("grips_least", "grips in at least", slide.grips.least),
        ("grips_most", "grips in at most", slide.grips.most),
    ):
        if value is not None:
            lines.append(work(code, what, model, FACTOR_OF_TWO, value, "s"))
    return lines
