"""Run-out of a shaft or hub: how much, where the high spot is, how much of it is oval, and whose fault it is."""

from typing import Literal

from pydantic import Field

from ...clock import RESOLUTION_MM, ClockFit, ClockReading, StandsOut, find_stands_out, fit_clock, say_stands_out, say_toward
from ...clock import working as clock_working
from ...errors import Problem, refuse_if_any
from ...model import Model, Size
from ...say import Say, bare, mm, say, words
from ...verdict import (
    AS_ENTERED,
    ON_PAPER,
    Check,
    Result,
    Status,
    Verdict,
    WorkLine,
    all_proven,
    judge,
    unproven,
    work,
    worst,
)
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
    limit_mm: Size | None = Field(default=None, description="on the total reading")
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
    sine_total_mm: float  # total run-out of the once-per-turn part alone
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
    fit = _fit_of(given, given.readings)
    out = find_stands_out(clock, value, resolution_mm=given.resolution_mm)
    total = max(value) - min(value)
    second = _second(given)
    name = f"total run-out, {given.kind}"
    first = judge("total", name, total, "mm", high=given.limit_mm, source=given.limit_source)
    limit = given.limit_mm
    swings = limit is not None and first.status is not Status.OVER and 2 * fit.size_mm > limit + ON_PAPER
    checks = [unproven(first) if swings else first, *_second_check(given, second)]
    found = _blame(given, fit, second)
    shifted = runout_between(_fit_of(given, given.before), fit) if given.before else None
    return RunoutResult(
        bench="runout",
        verdict=worst(checks, lacking=bool(_lacking(given))),
        proven=all_proven(checks),
        checks=checks,
        says=say_stands_out(out) + _advice(given, checks, fit, second, found, shifted),
        working=_working(given, clock, value, fit, second, found),
        total_mm=total,
        sine_total_mm=2 * fit.size_mm,
        eccentricity_mm=fit.size_mm,
        high_spot_deg=fit.peak_deg,
        oval_mm=fit.oval_mm,
        stands_out=out,
        second=second,
        blame=found,
        shifted_mm=shifted.size_mm if shifted else None,
        shifted_deg=shifted.high_deg if shifted else None,
    )


def _fit_of(given: RunoutInput, readings: list[ClockReading]) -> ClockFit:
    clock, value = [r.clock for r in readings], [r.value_mm for r in readings]
    return fit_clock(clock, value, resolution_mm=given.resolution_mm, with_oval=True)


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
    name = f"total run-out, {PLANES[second.on]}"
    return [judge("second_total", name, second.total_mm, "mm", high=high, source=given.limit_source)]


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
    second: SecondResult | None,
    found: Blame | None,
    shifted: RunoutOf | None,
) -> list[Say]:
    advice = []
    over = worst(checks) is Verdict.OVER
    if over:
        rim_is_over = worst(checks[:1]) is Verdict.OVER
        advice.append(_say_high_spot(given, fit.peak_deg if rim_is_over or second is None else second.high_spot_deg))
    elif checks[0].proven is False:
        text = "The sine through these readings swings {sine} in all, more than the limit: the high spot lies between them."
        advice.append(say("sine_over", f"{text} Read at more places.", sine=mm(2 * fit.size_mm, 3)))
    is_oval = fit.oval_mm is not None and fit.oval_mm > fit.size_mm and over
    if is_oval:
        advice.append(say("oval", "More of it is oval than off centre: turning the hub will not cure it."))
    if found is not None:
        advice.append(say_blame(found))
    elif over and not is_oval and given.stage != "half tight" and given.second is None and given.kind == "rim":
        text = "A second ring tells what runs out: on the shaft beside the hub, or on the rim further along."
        advice.append(say("second_ring", text))
    if shifted is not None:
        advice.append(_say_shifted(given, shifted))
    advice += [say("still_to_read", "Still to read: the {plane}.", plane=PLANES[wanted]) for wanted in _lacking(given)]
    return advice


def _say_high_spot(given: RunoutInput, high_deg: float) -> Say:
    match given.stage:
        case "half tight":
            code, what = "tap_true", "Turn it to 12, one blow with a soft mallet on the hub's edge from above, read again."
        case "bare shaft":
            code, what = "bent_shaft", "Dirt or a burr under the plunger? If not, the shaft is bent or its bearing loose."
        case _:
            code, what = "find_out", "Find out why before anything is tightened: dirt, a burr, a bent shaft or a cocked hub."
    return say(code, "The high spot is at {high}. {what}", high=say_toward(high_deg), what=what)


def _say_shifted(given: RunoutInput, shifted: RunoutOf) -> Say:
    if shifted.size_mm <= given.resolution_mm:
        return say("tightening_left_it", "Tightening did not shift it by more than the dial shows.")
    text = "Tightening shifted it by {by} toward {toward}."
    return say("tightening_shifted_it", text, by=mm(shifted.size_mm, 3), toward=say_toward(shifted.high_deg))


def _working(
    given: RunoutInput,
    clock: list[float],
    value: list[float],
    fit: ClockFit,
    second: SecondResult | None,
    found: Blame | None,
) -> list[WorkLine]:
    reads = words("{most} − {least}", most=bare(max(value), signed=True), least=bare(min(value), signed=True))
    sine = words("√({up}² + {right}²)", up=bare(fit.up_mm, 4, signed=True), right=bare(fit.right_mm, 4, signed=True))
    lines = [
        work("total", "total run-out", "largest − smallest", reads, max(value) - min(value)),
        *clock_working(clock, value, fit),
        work("off_centre", "off centre by", "√(up² + right²)", sine, fit.size_mm),
    ]
    if second is not None:
        where, what = f"high at {second.high_spot_deg:.0f}°", f"{PLANES[second.on]}, off centre by"
        lines.append(work("second_off_centre", what, "√(up² + right²)", where, second.eccentricity_mm))
    if found is not None:
        formula = "hub less shaft, as arrows" if found.on_shaft else "second less first, as arrows"
        lines.append(work("between", "between the two", formula, f"high at {found.own_deg:.0f}°", found.own_mm))
    if given.second is not None and given.second.distance_mm and found is not None and not found.on_shaft:
        slope = found.own_mm / given.second.distance_mm * 1000
        leans = words("{own} ÷ {apart} × 1000", own=bare(found.own_mm, 4), apart=bare(given.second.distance_mm, None))
        lines.append(work("leans", "it leans by", "between ÷ distance", leans, slope, "mm/m"))
    return lines
