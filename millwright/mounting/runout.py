"""Run-out of a shaft or hub: how much, where the high spot is, how much of it is oval, and whose fault it is."""

from typing import Literal

from pydantic import Field

from ..clock import (
    RESOLUTION_MM,
    ClockFit,
    ClockReading,
    StandsOut,
    find_stands_out,
    fit_clock,
    fit_oval_mm,
    say_stands_out,
    say_toward,
)
from ..clock import working as clock_working
from ..errors import Problem, refuse_if_any
from ..model import Model, Size
from ..verdict import AS_ENTERED, Check, Result, Verdict, WorkLine, judge, work, worst
from .bent import Blame, RunoutOf, blame, runout_between, say_blame

SecondOn = Literal["face", "shaft", "rim further along"]
MustHave = Literal["face", "shaft", "rim further along"]
PLANES: dict[SecondOn, str] = {"face": "face", "shaft": "shaft beside it", "rim further along": "rim further along"}


class SecondRing(Model):
    """Readings at a second place of the same turning part, or on the shaft beside it."""

    on: SecondOn
    readings: list[ClockReading] = Field(min_length=1, max_length=20_000)
    distance_mm: Size | None = Field(default=None, description="along the shaft, between the two rims")
    limit_mm: Size | None = Field(default=None, description="on its total reading; the first ring's where not given")


class RunoutInput(Model):
    """Dial readings on a rim or a face while the part itself turns."""

    readings: list[ClockReading] = Field(min_length=1, max_length=20_000)
    limit_mm: Size = Field(description="on the total reading")
    limit_source: str = AS_ENTERED
    kind: Literal["rim", "face"] = "rim"
    resolution_mm: float = Field(default=RESOLUTION_MM, gt=0, le=1)
    second: SecondRing | None = None
    must_have: list[MustHave] = Field(default_factory=list, description="second rings that are wanted before it is judged")
    stage: Literal["bare shaft", "half tight", "tight"] | None = None
    before: list[ClockReading] = Field(default_factory=list, max_length=20_000, description="the same places, half tight")


class SecondResult(Model):
    """What the second ring says."""

    on: SecondOn
    total_mm: float
    eccentricity_mm: float
    high_spot_deg: float


class RunoutResult(Result):
    """Total reading, the once-per-turn part and, from five positions on, the twice-per-turn part."""

    total_mm: float
    eccentricity_mm: float
    high_spot_deg: float
    oval_mm: float | None
    stands_out: list[StandsOut]
    second: SecondResult | None
    blame: Blame | None
    shifted_mm: float | None
    shifted_deg: float | None


def evaluate(given: RunoutInput) -> RunoutResult:
    """Total reading, eccentricity, high spot and ovality of a turning part; with a second ring, what runs out.

    Source: least squares of a once-per-turn and, where five positions allow it, a twice-per-turn sine.
    """
    clock = [r.clock for r in given.readings]
    value = [r.value_mm for r in given.readings]
    fit = fit_clock(clock, value, resolution_mm=given.resolution_mm)
    out = find_stands_out(clock, value, resolution_mm=given.resolution_mm)
    oval = fit_oval_mm(clock, value)
    total = max(value) - min(value)
    second = _second(given)
    checks = [judge(f"total reading, {given.kind}", total, "mm", high=given.limit_mm, source=given.limit_source)]
    checks += _second_check(given, second)
    found = _blame(given, fit, second)
    shifted = runout_between(_fit_of(given, given.before), fit) if given.before else None
    return RunoutResult(
        bench="runout",
        verdict=worst(checks, lacking=bool(_lacking(given))),
        checks=checks,
        advice=say_stands_out(out) + _advice(given, checks, fit, oval, second, found, shifted),
        working=_working(given, clock, value, fit, second, found),
        total_mm=total,
        eccentricity_mm=fit.size_mm,
        high_spot_deg=fit.peak_deg,
        oval_mm=oval,
        stands_out=out,
        second=second,
        blame=found,
        shifted_mm=shifted.size_mm if shifted else None,
        shifted_deg=shifted.high_deg if shifted else None,
    )


def _fit_of(given: RunoutInput, readings: list[ClockReading]) -> ClockFit:
    return fit_clock([r.clock for r in readings], [r.value_mm for r in readings], resolution_mm=given.resolution_mm)


def _second(given: RunoutInput) -> SecondResult | None:
    ring = given.second
    if ring is None:
        return None
    if ring.on == "face" and given.kind == "face":
        refuse_if_any([Problem("second.on", "The first ring is a face already. Read the rim there, or the shaft beside it.")])
    fit = _fit_of(given, ring.readings)
    values = [r.value_mm for r in ring.readings]
    return SecondResult(
        on=ring.on, total_mm=max(values) - min(values), eccentricity_mm=fit.size_mm, high_spot_deg=fit.peak_deg
    )


def _second_check(given: RunoutInput, second: SecondResult | None) -> list[Check]:
    """The hub's own second place is judged as the first; the shaft beside it is only compared."""
    if given.second is None or second is None or second.on == "shaft":
        return []
    high = given.second.limit_mm or given.limit_mm
    return [judge(f"total reading, {PLANES[second.on]}", second.total_mm, "mm", high=high, source=given.limit_source)]


def _lacking(given: RunoutInput) -> list[MustHave]:
    return [wanted for wanted in given.must_have if given.second is None or given.second.on != wanted]


def _blame(given: RunoutInput, fit: ClockFit, second: SecondResult | None) -> Blame | None:
    if given.second is None or second is None or second.on == "face" or given.kind == "face":
        return None
    other = RunoutOf.at(second.eccentricity_mm, second.high_spot_deg)
    return blame(RunoutOf.of(fit), other, on_shaft=second.on == "shaft", resolution_mm=given.resolution_mm)


def _advice(
    given: RunoutInput,
    checks: list[Check],
    fit: ClockFit,
    oval: float | None,
    second: SecondResult | None,
    found: Blame | None,
    shifted: RunoutOf | None,
) -> list[str]:
    advice = []
    over = worst(checks) is Verdict.OVER
    if over:
        rim_is_over = worst(checks[:1]) is Verdict.OVER
        high = fit.peak_deg if rim_is_over or second is None else second.high_spot_deg
        spot = f"The high spot is at {say_toward(high)}."
        match given.stage:
            case "half tight":
                advice.append(f"{spot} Turn it to 12, one blow with a soft mallet on the hub's edge from above, read again.")
            case "bare shaft":
                advice.append(f"{spot} Dirt or a burr under the plunger? If not, the shaft is bent or its bearing loose.")
            case _:
                advice.append(
                    f"{spot} Find out why before anything is tightened: dirt, a burr, a bent shaft or a cocked hub."
                )
    is_oval = oval is not None and oval > fit.size_mm and over
    if is_oval:
        advice.append("More of it is oval than off centre: turning the hub will not cure it.")
    if found is not None:
        advice.append(say_blame(found))
    elif over and not is_oval and given.stage != "half tight" and given.second is None and given.kind == "rim":
        advice.append("A second ring tells whose fault it is: on the shaft beside the hub, or on the rim further along.")
    if shifted is not None:
        if shifted.size_mm > given.resolution_mm:
            advice.append(f"Tightening shifted it by {shifted.size_mm:.3f} mm toward {say_toward(shifted.high_deg)}.")
        else:
            advice.append("Tightening did not shift it by more than the dial shows.")
    advice += [f"Still wanted: the {PLANES[wanted]}." for wanted in _lacking(given)]
    return advice


def _working(
    given: RunoutInput,
    clock: list[float],
    value: list[float],
    fit: ClockFit,
    second: SecondResult | None,
    found: Blame | None,
) -> list[WorkLine]:
    total = work("total reading", "largest − smallest", f"{max(value):+.3f} − {min(value):+.3f}", max(value) - min(value))
    numbers = f"√({fit.up_mm:+.4f}² + {fit.right_mm:+.4f}²)"
    lines = [total, *clock_working(clock, value, fit), work("off centre by", "√(up² + right²)", numbers, fit.size_mm)]
    if second is not None:
        where = f"high at {second.high_spot_deg:.0f}°"
        lines.append(work(f"{PLANES[second.on]}, off centre by", "√(up² + right²)", where, second.eccentricity_mm))
    if found is not None:
        formula = "hub less shaft, as arrows" if found.on_shaft else "second less first, as arrows"
        lines.append(work("between the two", formula, f"high at {found.own_deg:.0f}°", found.own_mm))
    if given.second is not None and given.second.distance_mm and found is not None and not found.on_shaft:
        slope = found.own_mm / given.second.distance_mm * 1000
        lines.append(
            work("it leans by", "between ÷ distance", f"{found.own_mm:.4f} ÷ {given.second.distance_mm:g}", slope, "mm/m")
        )
    return lines
