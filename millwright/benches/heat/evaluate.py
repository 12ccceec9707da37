"""How hot a hub has to be to slide on, how long it stays open, and what a reading on the way says of both."""

import math
from dataclasses import replace

from ...errors import Problem, UnusableInput, problem, refuse_if_any
from ...metals import Metal
from ...say import deg_c
from ...verdict import AS_ENTERED, Check, Status, judge, worst
from .cooling import TOUCH_C, Cooling, fit_cooling
from .io import (
    SLIDE_RULE,
    SLIDE_S,
    ColdShaft,
    CurvePoint,
    GripTimes,
    HeatInput,
    HeatResult,
    Slide,
    hottest_over,
    lowest_ceiling,
)
from .slide import Grips, Seat, coldest_that_leaves, grips, meeting
from .words import advice_of, slide_working, working_of

CURVE_POINTS = 24
SHORTEST_TAU_S = 1.0  # a slip of the keys: a hub of a few grams takes minutes


def evaluate(given: HeatInput) -> HeatResult:
    """Target temperature, how long it may be carried, the seconds it leaves on the shaft, and what stands in the way.

    Raises `UnusableInput` for a bore that is no smaller than the hub, ceilings below the shaft,
    a hub that needs no heat or keeps none.
    Source: thermal expansion of the bore; cooling of one lump through an air film; two lumps on the shaft (`slide`).
    """
    refuse_if_any(_problems(given))
    metal = given.hub.metal
    per_k = given.bore_mm * metal.expansion_per_k
    target = given.shaft_c + (given.interference_mm + given.assembly_clearance_mm) / per_k
    if target <= max(given.ambient_c, given.shaft_c):
        text = "At {ambient} the hub slides on cold. It needs no heat."
        raise UnusableInput(problem("interference_mm", text, ambient=deg_c(given.ambient_c, None)))
    heat_to = given.heat_to_c or target
    if heat_to < target - 1e-9 and given.seat == "straight":  # on a taper what was reached says how hot
        raise UnusableInput(problem("heat_to_c", "It has to be {target} at least.", target=deg_c(math.ceil(target))))
    closes_at = given.shaft_c + given.interference_mm / per_k
    mass, surface = _mass_kg(given), _surface_m2(given)
    tau = mass * metal.specific_heat_j_kg_k / (given.film_w_m2_k * surface)
    if tau < SHORTEST_TAU_S:
        raise UnusableInput(Problem("hub.outside_mm", "A hub with so thin a wall keeps no heat. A slip?"))
    cooling = Cooling(start_c=heat_to, ambient_c=given.ambient_c, tau_s=tau)
    slide = _slide(given, cooling, closes_at)
    lowest, _ = lowest_ceiling(given)
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
        says=advice_of(given, heat_to, window, shaft_target, heating, slide),
        working=working_of(given, target, closes_at, mass, surface, cooling, window) + slide_working(given, slide),
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


def _slide(given: HeatInput, cooling: Cooling, closes_at: float) -> Slide:
    seat, wanted = seat_of(given), given.slide_s or SLIDE_S
    ceiling, _ = lowest_ceiling(given)
    if given.seat == "taper":
        return Slide(touch_c=cooling.at_c(given.carry_s), grips=Grips(least=None, most=None), push_from_c=None, target_c=None)
    kept = math.exp(-given.carry_s / cooling.tau_s)  # of what it is above the air, after the carry
    push_from = coldest_that_leaves(seat, wanted, closes_at, ceiling)
    target = None if push_from is None or not kept else given.ambient_c + (push_from - given.ambient_c) / kept
    touch = cooling.at_c(given.carry_s)
    return Slide(
        touch_c=touch,
        grips=grips(seat, touch),
        push_from_c=push_from,
        target_c=target if target is not None and target <= ceiling else None,
    )


def _push_checks(given: HeatInput, slide: Slide) -> list[Check]:
    """Seconds to push home; short of a rule of thumb it is over only where even twice the longest is too short."""
    least, most = slide.grips.least, slide.grips.most
    if least is None or most is None:
        return []
    wanted, source = given.slide_s or SLIDE_S, SLIDE_RULE if given.slide_s is None else AS_ENTERED
    check = judge("time_to_push", "time to push it to the stop", least, "s", low=wanted, source=source)
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


def _ceiling_checks(given: HeatInput, target: float) -> list[Check]:
    name, high = "heating target, hub", given.ceiling_c
    checks = [judge("ceiling", name, target, "°C", high=high, source=given.ceiling_source)]
    if given.elastomer_ceiling_c is not None and given.elastomer_ceiling_c > 0:
        name, high = "heating target, elastomer left inside", given.elastomer_ceiling_c
        checks.append(judge("elastomer_ceiling", name, target, "°C", high=high, source=AS_ENTERED))
    lowest, whose = lowest_ceiling(given)
    if (hottest := hottest_over(given, lowest)) is not None:
        source = given.ceiling_source if whose == "hub" else AS_ENTERED
        checks.append(judge("was_too_hot", "hub as read", hottest, "°C", high=lowest, source=source))
    return checks


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
