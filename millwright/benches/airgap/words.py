"""What is said of air gaps: what touches, what to move, and how the figures come about."""

from ...clock import say_clock
from ...say import Say, bare, mm, per_m, say, words
from ...verdict import Check, Status, WorkLine, work
from .io import RIGHT, SIDES, UP, AirGapInput, AirGapSince, Gaps, StationStandsOut

SPREADS = {"spread_driver", "spread_load"}
NOTICED_MM = 0.02  # rule of thumb: two readings of a feeler


def say_touching(gaps: Gaps) -> list[Say]:
    """Where rotor and plate touch."""
    touching = [station for station in gaps.stations if station.value_mm <= 0]
    if not touching:
        return []
    first = touching[0]
    text = "Rotor and plate touch on the {side} side at {clock}. Do not turn it: the actuator back to full off first."
    return [say("touches", text, side=first.side, clock=say_clock(first.clock))]


def say_stands_out(out: list[StationStandsOut]) -> list[Say]:
    """Gaps to read again."""
    text = "The {side}-side gap at {clock} is {off} off the others. Read it again."
    return [say("stands_out", text, side=one.side, clock=say_clock(one.clock), off=mm(abs(one.residual_mm))) for one in out]


def say_moves(checks: list[Check], slide: float, gaps: Gaps) -> list[Say]:
    """Along the shaft by the means, at the feet by the lean; no lean is taken out that is not known."""
    over = {check.code for check in checks if check.status is Status.OVER}
    says, is_known = [], any(gaps.lean_known)
    if not is_known and over & SPREADS:
        known = max(gaps.slope_plus_minus(UP), gaps.slope_plus_minus(RIGHT))
        text = (
            "How the driver leans is known to ±{known} only, more than it leans. Read more places before anything is shimmed."
        )
        says.append(say("lean_unknown", text, known=per_m(known)))
    if "means_differ" in over:
        way = "away from the load" if slide > 0 else "toward the load"
        says.append(say("move_along", "Move the driver {by} {way}.", by=mm(abs(slide)), way=way))
    if is_known and over & SPREADS:
        axis = gaps.axis
        text = "The driver leans {up} up, {right} toward 3 o'clock. Shim and slide its feet as shown, then read again."
        up, right = per_m(axis.slope_v_mm_per_m, signed=True), per_m(axis.slope_h_mm_per_m, signed=True)
        says.append(say("take_lean_out", text, up=up, right=right))
    return says


def say_since(since: AirGapSince | None) -> list[Say]:
    """What has become of the means since the reading before."""
    if since is None:
        return []
    if max(abs(since.mean_driver_mm), abs(since.mean_load_mm)) <= NOTICED_MM:
        return [say("as_before", "The means are as they were in the reading before.")]
    text = "Since the reading before: driver side {driver}, load side {load}."
    driver, load = mm(since.mean_driver_mm, signed=True), mm(since.mean_load_mm, signed=True)
    return [say("since", text, driver=driver, load=load)]


def working_of(given: AirGapInput, gaps: Gaps, slide: float) -> list[WorkLine]:
    """How means, spreads and lean come about."""
    (driver, load), lines = gaps.mean_mm, []
    for side, mean in zip(SIDES, (driver, load), strict=True):
        values = gaps.values(side)
        lines.append(work(f"mean_{side}", f"mean, {side} side", "mean round the clock", f"{len(values)} gaps", mean))
        numbers = words("{most} − {least}", most=bare(max(values)), least=bare(min(values)))
        spread = gaps.spread_mm(side)
        lines.append(work(f"spread_{side}", f"spread, {side} side", "largest − smallest", numbers, spread))
    numbers = words("({load} − {driver}) ÷ 2", load=bare(load), driver=bare(driver))
    lines.append(work("slide", "along the shaft, + away from the load", "(load − driver) ÷ 2", numbers, slide))
    on, axis = bare(given.diameter_mm, 1), gaps.axis
    for code, what, part, slope in (
        ("up", "lean up, + rises away from the load", gaps.fitted.found[2], axis.slope_v_mm_per_m),
        ("right", "lean toward 3", gaps.fitted.found[3], axis.slope_h_mm_per_m),
    ):
        numbers = words("−2 × {sine} ÷ {on} × 1000", sine=bare(float(part), signed=True), on=on)
        lines.append(work(code, what, "−2 × sine of both sides ÷ diameter", numbers, slope, "mm/m"))
    return lines
