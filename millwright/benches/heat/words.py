"""What is said of a heat: what to do, and how its figures come about."""

import math

from ...metals import Metal
from ...say import Figure, Say, bare, deg_c, say, seconds, words
from ...verdict import AS_ENTERED, WorkLine, work
from .cooling import Cooling
from .io import SLIDE_S, HeatInput, Slide, hottest_over, lowest_ceiling
from .slide import FACTOR_OF_TWO

USUAL = "usual physical constant of {}"


def say_too_hot(hub_c: float, ceiling_c: float) -> Say:
    """What to do with a hub that was read over its ceiling."""
    text = "The hub was read at {hub}, over its ceiling of {ceiling}: its metal may be spoiled."
    text += " Do not fit it before the maker has said that it may be used."
    return say("was_too_hot", text, hub=deg_c(hub_c), ceiling=deg_c(ceiling_c))


def advice_of(
    given: HeatInput,
    target: float,
    window: float | None,
    shaft_target: float | None,
    heating: float | None,
    slide: Slide,
) -> list[Say]:
    """What to do, most pressing first."""
    advice = []
    lowest, whose = lowest_ceiling(given)
    ceiling = deg_c(lowest, None)
    if (hottest := hottest_over(given, lowest)) is not None:
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


def _say_push(given: HeatInput, target: float, slide: Slide) -> list[Say]:
    """How long there is to push it home, and the target that would leave enough."""
    least, most, wanted = slide.grips.least, slide.grips.most, given.slide_s or SLIDE_S
    if least is None or most is None:
        return []
    if least >= wanted:
        text = "From touching the shaft it grips in {least} to {most}: push it to the stop in one go, without a pause."
        return [say("push_home", text, least=seconds(math.floor(least)), most=seconds(math.ceil(most)))]
    text = "Only {least} to push it on once it touches the shaft, and {wanted} are needed. {more}"
    more = words("No target within the ceiling leaves that: cool the shaft, shorten the carry, or guide it on a mandrel.")
    if slide.target_c is not None:
        more = words("Heat it to {target} instead of {now}.", target=deg_c(math.ceil(slide.target_c)), now=deg_c(target))
    return [say("too_little_time", text, least=seconds(math.floor(least)), wanted=seconds(wanted), more=more)]


def working_of(
    given: HeatInput,
    target: float,
    closes_at: float,
    mass: float,
    surface: float,
    cooling: Cooling,
    window: float | None,
) -> list[WorkLine]:
    """How target and window come about."""
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


def slide_working(given: HeatInput, slide: Slide) -> list[WorkLine]:
    """How the seconds on the shaft come about."""
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
