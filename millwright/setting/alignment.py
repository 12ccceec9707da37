"""Where the movable machine's axis lies relative to the stationary one, from dials or a laser, and the move that cures it."""

import math
from dataclasses import asdict, dataclass, replace

from ..clock import (
    Array,
    find_stands_out,
    least_squares,
    say_clock,
)
from ..errors import Problem, refuse_if_any
from ..metals import METALS
from ..verdict import WorkLine, work, worst
from . import dials
from .alignment_io import AlignmentInput, AlignmentResult, AsRead, Axis, CouplingPlanes, DialStandsOut, FlexAngle, Preview
from .alignment_words import say_plan, say_shift, say_stands_out_by_dial, say_too_uncertain, say_warm
from .axis import Line
from .dials import Dial
from .expected import after_moves, readings_at
from .feet import FootMove, foot_moves, hot_lift, problems_of_feet
from .growth import all_growth, problems_of_warmth
from .limits import alignment_checks, what_is_lacking
from .moves import Plan, plan_moves, problems_of_room
from .quality import best_next_reading, faults_of
from .shims import ShimStack, stack_under


def evaluate(given: AlignmentInput) -> AlignmentResult:
    """Offset and slope in both planes, their uncertainty, checks and the moves of the feet.

    Raises `UnusableInput` where the dials cannot tell all four numbers.
    Source: one linear least-squares problem over all readings of all dials (contract of the bench).
    """
    refuse_if_any([*_cannot_be_read(given), *_problems(given)])
    solved = _solve(given, given.resolution_mm)
    axis, covariance = solved.axis, solved.covariance
    shifted, predicted = _shifted(given, axis), _predicted(given)
    growth = all_growth(given.growth, given.warmth)
    left = _left_when_running(given, axis, growth)
    checks = alignment_checks(
        given.limits,
        given.running_target,
        given.speed_rpm,
        math.hypot(left.offset_v_mm, left.offset_h_mm),
        math.hypot(left.slope_v_mm_per_m, left.slope_h_mm_per_m),
        [flex.angle_mm_per_m for flex in _flex(given.coupling, left)],
    )
    feet = foot_moves(given.movable_feet, left, covariance)
    out = [
        DialStandsOut(dial=i, **s.model_dump())
        for i, dial in enumerate(given.dials)
        for s in find_stands_out(dial.clocks, dial.values_mm, resolution_mm=given.resolution_mm)
    ]
    sigma = None if covariance is None else [math.sqrt(covariance[i, i]) for i in range(4)]
    closure = [closure_mm(dial) for dial in given.dials]
    plan = None if given.room is None else plan_moves(given.stationary_feet, given.movable_feet, left, given.room)
    uncertain = say_too_uncertain(checks, sigma) if sigma else []
    helps = _helps_most(given, *solved.rows) if uncertain and solved.rows else None
    return AlignmentResult(
        bench="alignment",
        verdict=worst(checks, lacking=what_is_lacking(given.limits, given.running_target, given.speed_rpm)),
        checks=checks,
        advice=[
            *_advice(given, out, closure),
            *uncertain,
            *([helps] if helps else []),
            *say_plan(plan),
            *say_shift(shifted, given.before_is),
            *say_warm(predicted, axis),
        ],
        working=_working(given, axis, left, feet, growth),
        **asdict(axis),
        offset_mm=math.hypot(axis.offset_v_mm, axis.offset_h_mm),
        swing_mm=2 * math.hypot(axis.offset_v_mm, axis.offset_h_mm),
        slope_mm_per_m=math.hypot(axis.slope_v_mm_per_m, axis.slope_h_mm_per_m),
        offset_v_sigma_mm=sigma[0] if sigma else None,
        slope_v_sigma_mm_per_m=sigma[1] if sigma else None,
        offset_h_sigma_mm=sigma[2] if sigma else None,
        slope_h_sigma_mm_per_m=sigma[3] if sigma else None,
        scatter_mm=solved.scatter_mm,
        left_offset_v_mm=left.offset_v_mm,
        left_offset_h_mm=left.offset_h_mm,
        left_slope_v_mm_per_m=left.slope_v_mm_per_m,
        left_slope_h_mm_per_m=left.slope_h_mm_per_m,
        feet=feet,
        closure_mm=closure,
        flex=_flex(given.coupling, axis),
        stands_out=out,
        growth_mm=growth,
        target_readings=readings_at(given.dials, axis.less(left), solved.rows),  # measured, less what is left
        plan=plan.moves if plan else None,
        stacks=_stacks(given, plan, feet),
        preview=_preview(given, axis),
        predicted=Axis(**asdict(predicted)) if predicted else None,
        shifted_v_mm=shifted.offset_v_mm if shifted else None,
        shifted_h_mm=shifted.offset_h_mm if shifted else None,
        next_reading=helps,
    )


def closure_mm(dial: Dial) -> float | None:
    """12 + 6 − 3 − 9, zero for a perfect set; None where one of the four was not read."""
    quarters = dial.quarters
    if len(quarters) < 4:
        return None
    return quarters[0] + quarters[180] - quarters[90] - quarters[270]


def _problems(given: AlignmentInput) -> list[Problem]:
    found = problems_of_feet(given.stationary_feet, given.movable_feet, all_growth(given.growth, given.warmth))
    found += problems_of_warmth(given.growth, given.warmth)
    found += problems_of_room(given.stationary_feet, given.movable_feet, given.room or {})
    names = {foot.name for foot in [*given.stationary_feet, *given.movable_feet]}
    found += [
        Problem(f"made.{i}.name", f"No foot is called {m.name}.") for i, m in enumerate(given.made) if m.name not in names
    ]
    under = given.shims.under if given.shims else {}
    found += [Problem(f"shims.under.{name}", f"No foot is called {name}.") for name in under if name not in names]
    if (given.growth is not None or given.warmth) and given.target is not None:
        found.append(Problem("target", "Give either the growth of the feet or a cold target, not both."))
    if given.coupling is not None:
        first, second = given.coupling.flex_planes_mm
        if second - first <= 0:
            found.append(Problem("coupling.flex_planes_mm", "The second flexing plane must lie beyond the first."))
    if given.running_target is not None and given.speed_rpm is None:
        found.append(Problem("speed_rpm", "A running target needs the speed."))
    return found


def _left_when_running(given: AlignmentInput, axis: Line, growth: dict[str, float]) -> Line:
    """What will be left when running if nothing is moved: measured, plus growth, less the cold target."""
    if given.target is not None:
        return axis.less(Line(**given.target.model_dump()))
    offset, slope = hot_lift(given.stationary_feet, given.movable_feet, growth)
    return replace(axis, offset_v_mm=axis.offset_v_mm + offset, slope_v_mm_per_m=axis.slope_v_mm_per_m + slope)


def _flex(coupling: CouplingPlanes | None, axis: Line) -> list[FlexAngle]:
    """The spacer runs from the stationary axis at x1 to the movable axis at x2."""
    if coupling is None:
        return []
    x1, x2 = coupling.flex_planes_mm
    return [
        FlexAngle(x_mm=x, angle_v_mm_per_m=v, angle_h_mm_per_m=h, angle_mm_per_m=math.hypot(v, h))
        for x, across in ((x1, x2), (x2, x1))
        for v, h in [(axis.v_mm(across) / (x2 - x1) * 1000, axis.h_mm(across) / (x2 - x1) * 1000)]
    ]


def _advice(given: AlignmentInput, out: list[DialStandsOut], closure: list[float | None]) -> list[str]:
    """What is wrong with the readings, before anything is moved by them."""
    advice = say_stands_out_by_dial(given.dials, out)
    for i, (dial, misses) in enumerate(zip(given.dials, closure, strict=True)):
        advice += faults_of(dial, dials.name_of(given.dials, i), misses)
    if any(dial.turned == "bracket shaft" for dial in given.dials):
        advice.append(
            "Only the bracket's shaft was turned: the run-out of the touched hub is in the reading. "
            "Turn both shafts together to be rid of it."
        )
    return advice


@dataclass(frozen=True, kw_only=True)
class Solved:
    """The axis; scatter, covariance and the rows of the fit where readings were fitted."""

    axis: Line
    scatter_mm: float | None = None
    covariance: Array | None = None
    rows: tuple[Array, Array] | None = None


def _cannot_be_read(read: AsRead) -> list[Problem]:
    """Why this cannot tell where the axis lies."""
    if read.shown is not None:
        return [Problem("shown", "Either readings, or what a screen shows: not both.")] if read.dials else []
    if not read.dials:
        return [Problem("dials", "dials is missing.")]
    return dials.problems_of(read.dials)


def _solve(read: AsRead, resolution_mm: float) -> Solved:
    if read.shown is not None:
        shown = Line(**read.shown.model_dump(exclude={"x_mm"}))
        at = read.shown.x_mm
        return Solved(axis=replace(shown, offset_v_mm=shown.v_mm(-at), offset_h_mm=shown.h_mm(-at)))
    design, value = dials.rows(read.dials)
    found, scatter, covariance = least_squares(design, value, resolution_mm)
    ov, sv, oh, sh = (float(x) for x in found[:4])
    axis = Line(offset_v_mm=ov, slope_v_mm_per_m=sv, offset_h_mm=oh, slope_h_mm_per_m=sh)
    return Solved(axis=axis, scatter_mm=scatter, covariance=covariance, rows=(design, value))


def _shifted(given: AlignmentInput, axis: Line) -> Line | None:
    """How the axis lies now, less how it lay at the earlier reading."""
    if given.before is None or _cannot_be_read(given.before):
        return None
    return axis.less(_solve(given.before, given.resolution_mm).axis)


def _predicted(given: AlignmentInput) -> Line | None:
    """Where the axis was to lie warm: as it was left cold, and what the feet were said to rise."""
    if given.warm is None or _cannot_be_read(given.warm.cold):
        return None
    offset, slope = hot_lift(given.stationary_feet, given.movable_feet, given.warm.growth)
    cold = _solve(given.warm.cold, given.resolution_mm).axis
    return replace(cold, offset_v_mm=cold.offset_v_mm + offset, slope_v_mm_per_m=cold.slope_v_mm_per_m + slope)


def _helps_most(given: AlignmentInput, design: Array, value: Array) -> str | None:
    found = best_next_reading(given.dials, design, value, given.resolution_mm)
    if found is None:
        return None
    name = dials.name_of(given.dials, found.dial).lower()
    return f"What would help most: a further reading at {say_clock(found.clock)} on the {name}."


def _stacks(given: AlignmentInput, plan: Plan | None, feet: list[FootMove]) -> list[ShimStack]:
    if given.shims is None:
        return []
    moves = [(m.name, m.shim_mm) for m in plan.moves if m.shim_mm or m.machine == "movable"] if plan and plan.moves else []
    wanted = moves or [(foot.name, foot.shim_mm) for foot in feet]
    stacks = [stack_under(name, shim, given.shims) for name, shim in wanted]
    return [stack for stack in stacks if stack is not None]


def _preview(given: AlignmentInput, axis: Line) -> Preview | None:
    if not given.made:
        return None
    after = after_moves(axis, given.stationary_feet, given.movable_feet, given.made)
    return Preview(**asdict(after), readings=readings_at(given.dials, after))


def _working(given: AlignmentInput, axis: Line, left: Line, feet: list[FootMove], growth: dict[str, float]) -> list[WorkLine]:
    lines = [line for i, dial in enumerate(given.dials) for line in dials.working_of(dial, dials.name_of(given.dials, i))]
    if given.shown is not None and given.shown.x_mm:
        lines.append(work("the screen's offset holds at", "offset here − slope × distance", "", given.shown.x_mm))
    how = "all dials in one fit" if given.dials else "as the screen shows"
    for way, plane, offset, slope in (
        ("up", "V", axis.offset_v_mm, axis.slope_v_mm_per_m),
        ("toward 3", "H", axis.offset_h_mm, axis.slope_h_mm_per_m),
    ):
        lines.append(work(f"slope, {way}", f"{how}, {plane}", "", slope, "mm/m"))
        lines.append(work(f"offset at the coupling, {way}", f"{how}, {plane}", "", offset, "mm"))
    for name, by in given.warmth.items():
        metal = METALS[by.material].expansion_per_k
        numbers = f"{by.height_mm:g} × {metal * 1e6:g}·10⁻⁶ × ({by.hot_c:g} − {by.cold_c:g})"
        lines.append(work(f"growth, {name}", "height × expansion × warming", numbers, growth[name]))
    if left.offset_v_mm != axis.offset_v_mm or left.slope_v_mm_per_m != axis.slope_v_mm_per_m:
        lines.append(work("left when running, up", "measured + growth − target", "", left.offset_v_mm, "mm"))
    for foot, move in zip(given.movable_feet, feet, strict=True):
        for what, offset, slope, value in (
            (f"{foot.name}, shim", left.offset_v_mm, left.slope_v_mm_per_m, move.shim_mm),
            (f"{foot.name}, slide to 3", left.offset_h_mm, left.slope_h_mm_per_m, move.slide_mm),
        ):
            numbers = f"−({offset:+.3f} {slope:+.3f} × {foot.x_mm / 1000:.3f})"
            lines.append(work(what, "−(offset + slope × distance)", numbers, value, "mm"))
    return lines
