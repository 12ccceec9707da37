"""Where the movable machine's axis lies relative to the stationary one, from dials or a laser, and the move that cures it."""

import math
from collections.abc import Sequence
from dataclasses import asdict, dataclass, replace

from ...clock import find_stands_out
from ...errors import Problem, refuse_if_any
from ...metals import METALS
from ...say import Say, bare, say, words
from ...uncertainty import Array, Fitted, fit_least_squares
from ...verdict import Check, WorkLine, all_proven, judge, say_cannot_tell, unproven, work, worst
from . import dials
from .axis import Line
from .contradiction import find_contradiction, say_contradiction
from .dials import Dial
from .drawn import Layout, draw, layout_of
from .expected import after_moves, readings_at
from .feet import FootMove, foot_moves, hot_lift, problems_of_feet
from .growth import all_growth, problems_of_warmth
from .io import AlignmentInput, AlignmentResult, AsRead, Axis, CouplingPlanes, DialStandsOut, FlexAngle, Preview
from .limits import AtCoupling, Measured, alignment_checks, allowed, running_working, say_not_judged, what_is_lacking
from .moves import Plan, PlannedMove, plan_moves, problems_of_room
from .quality import best_next_reading, faults_of
from .shims import Shimmed, ShimStack, left_by_shims, say_shims, stacks_under
from .words import Shift, say_assumed, say_next_reading, say_plan, say_stands_out_by_dial, say_warm
from .worth import ACROSS, ACROSS_SLOPE, UP, UP_SLOPE, Row, Worth, across_at, up_at


def evaluate(given: AlignmentInput) -> AlignmentResult:
    """Offset and slope in both planes, their uncertainty, checks and the moves of the feet.

    Raises `UnusableInput` where the dials cannot tell all four numbers.
    Source: one linear least-squares problem over all readings of all dials (contract of the bench).
    """
    refuse_if_any([*_cannot_be_read(given), *_problems(given)])
    solved = _solve(given, given.resolution_mm)
    axis, worth = solved.axis, solved.worth
    shift, predicted = _shift(given, solved), _predicted(given)
    growth = all_growth(given.growth, given.warmth)
    left = _left_when_running(given, axis, growth)
    contradicts = None if solved.rows is None else find_contradiction(given.dials, *solved.rows, given.resolution_mm)
    found = _at_coupling(left, worth, _flex_planes(given.coupling))
    checks = alignment_checks(given.limits, given.running_target, given.speed_rpm, found)
    if contradicts is not None:
        checks = [unproven(check) for check in checks]
    feet = foot_moves(given.movable_feet, left, worth)
    out = [
        DialStandsOut(dial=i, **s.model_dump())
        for i, dial in enumerate(given.dials)
        for s in find_stands_out(dial.clocks, dial.values_mm, resolution_mm=given.resolution_mm)
    ]
    closure = [closure_mm(dial) for dial in given.dials]
    flex, may_be = _flex(given.coupling, axis), allowed(given.limits, given.running_target, given.speed_rpm)
    plan = None if given.room is None else plan_moves(given.stationary_feet, given.movable_feet, left, given.room)
    shimmed = _shimmed(given, plan, feet)
    stacks = [] if given.shims is None else stacks_under(shimmed, given.shims)
    verdict = worst(checks, lacking=what_is_lacking(given.limits, given.running_target, given.speed_rpm))
    cannot_tell = say_cannot_tell(checks)
    helps = None
    if cannot_tell and solved.rows and worth:
        helps = best_next_reading(given.dials, solved.rows[0], worth.fitted)
    says = [
        *say_contradiction(given.dials, contradicts),
        *_advice(given, out, closure),
        *say_assumed(given.dials),
        *cannot_tell,
        *([say_next_reading(given.dials, helps)] if helps else []),
        *say_plan(plan),
        *say_shims(stacks),
        *(shift.say(given.before_is) if shift else []),
        *say_warm(predicted, axis),
        *say_not_judged(given.limits, given.running_target),
    ]
    checks += _shims_checks(given, verdict == "over", shimmed, stacks)
    return AlignmentResult(
        bench="alignment",
        verdict=worst(checks, lacking=what_is_lacking(given.limits, given.running_target, given.speed_rpm)),
        proven=all_proven(checks) if contradicts is None else False,
        checks=checks,
        says=says,
        working=_working(given, axis, left, feet, growth),
        **asdict(axis),
        offset_mm=math.hypot(axis.offset_v_mm, axis.offset_h_mm),
        swing_mm=2 * math.hypot(axis.offset_v_mm, axis.offset_h_mm),
        slope_mm_per_m=math.hypot(axis.slope_v_mm_per_m, axis.slope_h_mm_per_m),
        offset_v_sigma_mm=solved.sigma(UP),
        slope_v_sigma_mm_per_m=solved.sigma(UP_SLOPE),
        offset_h_sigma_mm=solved.sigma(ACROSS),
        slope_h_sigma_mm_per_m=solved.sigma(ACROSS_SLOPE),
        scatter_mm=None if worth is None else worth.fitted.scatter_mm,
        left_offset_v_mm=left.offset_v_mm,
        left_offset_h_mm=left.offset_h_mm,
        left_slope_v_mm_per_m=left.slope_v_mm_per_m,
        left_slope_h_mm_per_m=left.slope_h_mm_per_m,
        feet=feet,
        closure_mm=closure,
        swept_deg=[dial.swept_deg for dial in given.dials],
        flex=flex,
        allowed=may_be,
        stands_out=out,
        contradicts=contradicts,
        growth_mm=growth,
        target_readings=readings_at(given.dials, axis.less(left), solved.rows),  # measured, less what is left
        plan=plan.moves if plan else None,
        stacks=stacks,
        suggested=_suggested(plan, feet, stacks),
        preview=_preview(given, axis),
        predicted=Axis(**asdict(predicted)) if predicted else None,
        shifted_v_mm=shift.moved.offset_v_mm if shift else None,
        shifted_h_mm=shift.moved.offset_h_mm if shift else None,
        next_reading=helps,
        drawn=draw(
            _layout(given),
            left=left,
            read=axis,
            movable_feet=given.movable_feet,
            moves=feet,
            allowed=may_be,
            flex=[(plane.x_mm, plane.angle_v_mm_per_m, plane.angle_h_mm_per_m) for plane in flex],
        ),
    )


def _layout(given: AlignmentInput) -> Layout:
    face = given.coupling.flex_planes_mm[1] if given.coupling else 0.0
    stationary, movable = ([abs(foot.x_mm) for foot in feet] for feet in (given.stationary_feet, given.movable_feet))
    return layout_of(stationary, movable, face, given.movable_on)


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
    elif given.limits is not None and given.limits.at == "flexing planes":
        found.append(Problem("coupling", "These limits count at the flexing planes: enter where the coupling flexes."))
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


def _flex_planes(coupling: CouplingPlanes | None) -> list[tuple[float, float]]:
    """Of each flexing plane where the other one is, and how far, mm: that sets its angle."""
    if coupling is None:
        return []
    x1, x2 = coupling.flex_planes_mm
    return [(x2, x2 - x1), (x1, x2 - x1)]


def _at_coupling(left: Line, worth: Worth | None, planes: list[tuple[float, float]]) -> AtCoupling:
    """What is judged, each with its own ±."""

    def measured(one: Row, other: Row, a: float, b: float) -> Measured:
        return Measured(size=math.hypot(a, b), plus_minus=None if worth is None else worth.of_size(one, other, a, b))

    return AtCoupling(
        offset=measured(UP, ACROSS, left.offset_v_mm, left.offset_h_mm),
        slope=measured(UP_SLOPE, ACROSS_SLOPE, left.slope_v_mm_per_m, left.slope_h_mm_per_m),
        flex=[measured(up_at(x), across_at(x), left.v_mm(x), left.h_mm(x)).times(1000 / apart) for x, apart in planes],
    )


def _advice(given: AlignmentInput, out: list[DialStandsOut], closure: list[float | None]) -> list[Say]:
    """What is wrong with the readings, before anything is moved by them."""
    advice = say_stands_out_by_dial(given.dials, out)
    for i, (dial, misses) in enumerate(zip(given.dials, closure, strict=True)):
        advice += faults_of(dial, dials.name_of(given.dials, i), misses)
    if any(dial.turned == "bracket shaft" for dial in given.dials):
        text = "Only the bracket's shaft was turned: the run-out of the touched hub is in the reading."
        advice.append(say("run_out_in_it", f"{text} Turn both shafts together to be rid of it."))
    return advice


@dataclass(frozen=True, kw_only=True)
class Solved:
    """The axis; what it is worth and the rows of the fit where readings were fitted."""

    axis: Line
    worth: Worth | None = None
    rows: tuple[Array, Array] | None = None

    def sigma(self, row: Row) -> float | None:
        """One sigma of a row over the four unknowns, None where a screen shows none or nothing is to spare."""
        return None if self.worth is None else self.worth.sigma(row)

    def can_tell_mm(self, x_mm: float) -> float:
        """± of the axis at a place, 0 where a screen shows none."""
        return 0.0 if self.worth is None else max(self.worth.of(up_at(x_mm)), self.worth.of(across_at(x_mm)))


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
    fitted: Fitted = fit_least_squares(design, value, resolution_mm, dials.places_of(read.dials))
    ov, sv, oh, sh = (float(x) for x in fitted.found[:4])
    axis = Line(offset_v_mm=ov, slope_v_mm_per_m=sv, offset_h_mm=oh, slope_h_mm_per_m=sh)
    return Solved(axis=axis, worth=Worth(read.dials, fitted, axis, resolution_mm), rows=(design, value))


def _shift(given: AlignmentInput, now: Solved) -> Shift | None:
    """How the axis lies now, less how it lay at the earlier reading; looked at wherever it matters."""
    if given.before is None or _cannot_be_read(given.before):
        return None
    before = _solve(given.before, given.resolution_mm)
    places = {"coupling": 0.0, **{foot.name: foot.x_mm for foot in [*given.stationary_feet, *given.movable_feet]}}
    if given.coupling is not None:
        places |= {f"flexing plane {i}": x for i, x in enumerate(given.coupling.flex_planes_mm, start=1)}
    can_tell = {name: math.hypot(now.can_tell_mm(x), before.can_tell_mm(x)) for name, x in places.items()}
    return Shift(now.axis.less(before.axis), places, can_tell)


def _predicted(given: AlignmentInput) -> Line | None:
    """Where the axis was to lie warm: as it was left cold, and what the feet were said to rise."""
    if given.warm is None or _cannot_be_read(given.warm.cold):
        return None
    offset, slope = hot_lift(given.stationary_feet, given.movable_feet, given.warm.growth)
    cold = _solve(given.warm.cold, given.resolution_mm).axis
    return replace(cold, offset_v_mm=cold.offset_v_mm + offset, slope_v_mm_per_m=cold.slope_v_mm_per_m + slope)


def _shimmed(given: AlignmentInput, plan: Plan | None, feet: list[FootMove]) -> list[Shimmed]:
    """The feet that get shims: those of the plan where there is one, else the movable machine's."""
    x = {foot.name: foot.x_mm for foot in [*given.stationary_feet, *given.movable_feet]}
    moved = {m.machine for m in plan.moves if m.shim_mm} if plan and plan.moves else set()
    if plan and plan.moves and moved:
        return [
            Shimmed(name=m.name, machine=m.machine, x_mm=x[m.name], shim_mm=m.shim_mm)
            for m in plan.moves
            if m.machine in moved
        ]
    return [Shimmed(name=foot.name, machine="movable", x_mm=x[foot.name], shim_mm=foot.shim_mm) for foot in feet]


def _suggested(plan: Plan | None, feet: list[FootMove], stacks: Sequence[ShimStack]) -> list[PlannedMove]:
    """The move as it will be made: what the pieces under a foot come to, not what they were to come to."""
    misses = {stack.name: stack.misses_mm for stack in stacks}
    moves = (plan.moves if plan else None) or [
        PlannedMove(name=foot.name, machine="movable", shim_mm=foot.shim_mm, slide_mm=foot.slide_mm) for foot in feet
    ]
    return [move.model_copy(update={"shim_mm": move.shim_mm + misses.get(move.name, 0.0)}) for move in moves]


def _shims_checks(
    given: AlignmentInput, is_over: bool, shimmed: Sequence[Shimmed], stacks: Sequence[ShimStack]
) -> list[Check]:
    """What the stacks would leave at the coupling; nothing where it does not have to be moved."""
    leave = left_by_shims(shimmed, stacks)
    if given.limits is None or leave is None or not is_over:
        return []
    offset, slope, source = *leave, given.limits.source
    checks = []
    if (high := given.limits.least_offset_mm()) is not None:
        checks.append(judge("shims_offset", "offset the shims leave", abs(offset), "mm", high=high, source=source))
    if (high := given.limits.least_angle_mm_per_m()) is not None:
        checks.append(judge("shims_angle", "angle the shims leave", abs(slope), "mm/m", high=high, source=source))
    return checks


def _preview(given: AlignmentInput, axis: Line) -> Preview | None:
    if not given.made:
        return None
    after = after_moves(axis, given.stationary_feet, given.movable_feet, given.made)
    return Preview(**asdict(after), readings=readings_at(given.dials, after))


def _working(given: AlignmentInput, axis: Line, left: Line, feet: list[FootMove], growth: dict[str, float]) -> list[WorkLine]:
    lines = [line for i, dial in enumerate(given.dials) for line in dials.working_of(dial, dials.name_of(given.dials, i), i)]
    if given.shown is not None and given.shown.x_mm:
        lines.append(work("screen", "the display's offset holds at", "offset here − slope × distance", "", given.shown.x_mm))
    how = "all dials in one fit" if given.dials else "as the display shows"
    for way, plane, offset, slope in (
        ("up", "v", axis.offset_v_mm, axis.slope_v_mm_per_m),
        ("toward 3", "h", axis.offset_h_mm, axis.slope_h_mm_per_m),
    ):
        lines.append(work(f"slope_{plane}", f"slope, {way}", f"{how}, {plane.upper()}", "", slope, "mm/m"))
        lines.append(work(f"offset_{plane}", f"offset at the coupling, {way}", f"{how}, {plane.upper()}", "", offset, "mm"))
    for name, by in given.warmth.items():
        numbers = words(
            "{height} × {per_k}·10⁻⁶ × ({hot} − {cold})",
            height=bare(by.height_mm, None),
            per_k=bare(METALS[by.material].expansion_per_k * 1e6, None, "1e-6/K"),
            hot=bare(by.hot_c, None, "°C"),
            cold=bare(by.cold_c, None, "°C"),
        )
        lines.append(work("growth", f"growth, {name}", "height × expansion × warming", numbers, growth[name]))
    if left.offset_v_mm != axis.offset_v_mm or left.slope_v_mm_per_m != axis.slope_v_mm_per_m:
        lines.append(work("left_when_running", "left when running, up", "measured + growth − target", "", left.offset_v_mm))
    for foot, move in zip(given.movable_feet, feet, strict=True):
        for what, code, offset, slope, value in (
            (f"{foot.name}, shim", "shim", left.offset_v_mm, left.slope_v_mm_per_m, move.shim_mm),
            (f"{foot.name}, slide to 3", "slide", left.offset_h_mm, left.slope_h_mm_per_m, move.slide_mm),
        ):
            numbers = words(
                "−({offset} {slope} × {x} ÷ 1000)",
                offset=bare(offset, signed=True),
                slope=bare(slope, 3, "mm/m", signed=True),
                x=bare(foot.x_mm, None),
            )
            lines.append(work(code, what, "−(offset + slope × distance)", numbers, value))
    return [*lines, *running_working(given.running_target, given.speed_rpm)]
