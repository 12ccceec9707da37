"""Stage 5: gap, offset and angle, with the moves between the readings; and the same readings again once bolted down."""

from collections.abc import Collection
from dataclasses import replace

from ...line import SIDES
from ...meaning import Meaning, Of, When
from ...roles import Role
from ...scope import Scope
from .. import torques
from ..fields import tick
from ..hints import TightenHints
from ..order import Part, Reread, in_order
from ..steps import BenchForm, Fact, JobFacts, SheetForm, Stage, Step
from . import air_gap, before_setting
from .gap import gap_step
from .set_by import ALIGNED_BY, alignment_form, as_read, by_air_gap, by_straightedge, set_by, straightedge_form

MACHINES = frozenset({Fact.MACHINES})
FEET, MOVED_BEHIND = "couple.feet", "set.opened"


def steps(job: JobFacts, *, hidden: bool = False, near: bool = False, shut: Collection[str] = ()) -> Part:
    """Rough, soft feet, gap, straightedge, align.

    ``hidden`` - the coupling stays closed: gap and straightedge are left out where it hides the hubs
    ``near``   - the family has brought the machines near in its own way
    ``shut``   - the steps that close the coupling: moved behind them, it is opened before anything is read
    """
    hubs = {Fact.FIRST_HUB} if job.closes_by_hub else {Fact.FIRST_HUB, Fact.SECOND_HUB}
    floats = [before_setting.end_float(job, side) for side in SIDES if job.line.machine(side).floats]
    halves_come = job.family.gap_later and job.scope in (Scope.FIT, Scope.REFIT)
    gap = [gap_step(job, hubs)] if "gap_nominal_mm" in job.family.values and not halves_come else []
    laid = job.family.straightedge and job.family.takes == "offset and angle" and not by_air_gap(job)
    edge = [_straightedge(job)] if laid and not by_straightedge(job) else []
    return in_order(
        *([] if near else [_rough()]),
        *_opened(job, shut),
        Reread(
            (
                before_setting.soft_foot(job),
                *floats,
                *(replace(step, optional=hidden) for step in [*gap, *edge]),
                replace(_align(job), leaves_provisional="Feet not torqued yet", settled_by=FEET),
            )
        ),
    )


def _opened(job: JobFacts, shut: Collection[str]) -> list[Step]:
    if not job.family.opened or not any(key in job.moved_after for key in shut):
        return []
    return [
        Step(
            key=MOVED_BEHIND,
            stage=Stage.SET,
            title="Open the coupling again, as far as the readings want it",
            why="A machine was moved behind a closed coupling. Nothing behind it can be read, and what holds it is strained.",
            form=SheetForm(fields=tuple(tick(f"row_{i}", what) for i, what in enumerate(job.family.opened)), ordered=True),
        )
    ]


def _rough() -> Step:
    return Step(
        key="set.rough",
        stage=Stage.SET,
        title="Bring the machines roughly into place",
        why="Fine work on a machine that is far off is wasted.",
        tool="jack screws, straightedge, clean shims",
        changes=MACHINES,
        form=SheetForm(
            fields=(
                tick("base", "Base and feet clean, no paint or burr under a foot"),
                tick("shims", "At most four shims under a foot, none thin and many"),
                tick("jacks", "Jack screws backed off, foot bolts in and snug"),
                tick("rock", "No foot rocks when its bolt is slackened"),
            )
        ),
    )


def _align(job: JobFacts) -> Step:
    if by_straightedge(job):
        edge = _straightedge(job)
        why = "This line is aligned by straightedge alone, as its value card says; the gap shows the angle."
        title = f"Align the {job.line.machine(job.line.movable).called} by straightedge"
        means = (Meaning(of=Of.ALIGNMENT, when=When.ON_THE_WAY),)
        return replace(
            edge, key="set.align", means=means, title=title, why=why, judged_by=(ALIGNED_BY,), relies=MACHINES, finding=False
        )
    if by_air_gap(job):
        return air_gap.step(job)
    way = set_by(job)
    return Step(
        key="set.align",
        means=(Meaning(of=Of.ALIGNMENT, when=When.ON_THE_WAY),),
        stage=Stage.SET,
        title=f"Align the {job.line.machine(job.line.movable).called}",
        why="Align tightly, so that the allowance is left for operation. Vertical first, then horizontal, then read.",
        tool=way.tool,
        caution="Turn both shafts together, by hand only.",
        needs=way.needs,
        judged_by=way.judged_by,
        relies=MACHINES,
        moves=True,
        may_authorise=True,
        form=way.form,
        on_fail="Move the feet as shown, record the move, read gap, straightedge and dials again.",
    )


def _straightedge(job: JobFacts) -> Step:
    """A first figure: once dials were read it holds nothing up, and is not asked again after a move."""
    dialled = "set.align" in job.answers
    return Step(
        key="set.straightedge",
        stage=Stage.SET,
        title="Lay the straightedge over both hubs",
        why="A first figure for the offset, without turning the shafts, before the dials go on.",
        tool="straightedge and feelers",
        needs=("offset_limit_mm",),
        relies=frozenset() if dialled else MACHINES,
        finding=dialled,
        moves=True,
        may_authorise=True,
        form=straightedge_form(job),
        on_fail="Move the machine, then gap and straightedge again.",
    )


def bolted_down(job: JobFacts) -> list[Step]:
    """Feet torqued, and the dials once more: tightening pulls a machine."""
    movable, way = job.line.machine(job.line.movable), set_by(job)
    return [
        Step(
            key=FEET,
            means=(Meaning(of=Of.PULL, at="feet"),),
            stage=Stage.COUPLE,
            title=f"Torque the feet of the {movable.called}",
            why="All bolts in and hand tight first, then crosswise in rising passes, so that nothing is pulled aside.",
            tool="torque wrench in calibration",
            caution=f"{torques.thread_words(job, 'foot_bolt_torque_nm')} All bolts in and hand tight first.".strip(),
            needs=("foot_bolt_torque_nm",),
            relies=frozenset({Fact.MACHINES, torques.moved("feet")}),
            changes=frozenset({Fact.FEET, Fact.FASTENERS}),
            may_authorise=True,
            form=BenchForm(
                bench="tighten",
                preset=torques.bolts_preset(job, "foot_bolt_torque_nm", movable.foot_bolts),
                suggest=TightenHints(layout="feet"),
            ),
            on_fail="Slacken the bolt that is off and pull it again in its turn.",
        ),
        Step(
            key="couple.align",
            means=(Meaning(of=Of.ALIGNMENT),),
            stage=Stage.COUPLE,
            title=f"Read the {way.reads} again, feet torqued",
            why="Tightening pulls the machine. This is the reading that is left behind.",
            tool=way.again,
            needs=way.needs,
            judged_by=way.judged_by,
            relies=frozenset({Fact.MACHINES, Fact.FEET}),
            hold=Role.LEAD,
            may_authorise=True,
            form=way.compared(as_read(job.answers.get("set.align", {}))),
            on_fail="Slacken the feet, go back to aligning, record the move and torque the feet again.",
        ),
    ]


def feet_title(job: JobFacts) -> str:
    """The foot bolts as they are called."""
    return f"Foot bolts, {job.line.machine(job.line.movable).called}"


def warm_form(job: JobFacts) -> BenchForm:
    """The alignment bench on warm machines: no growth is added, and what was predicted stands beside it."""
    form = alignment_form(job)
    preset = {key: value for key, value in form.preset.items() if key != "growth"}
    cold = as_read(job.answers.get("couple.align", {}))
    warm = {"warm": {"cold": cold, "growth": form.preset.get("growth", {})}} if cold else {}
    return replace(form, preset=preset, compare=warm)


def read_as_found(job: JobFacts) -> Step:
    """The alignment before anything is touched, beside what the last job left; over its limit it holds nothing up."""
    way = set_by(job)
    return Step(
        key="off.align",
        means=(Meaning(of=Of.ALIGNMENT, when=When.FOUND),),
        stage=Stage.TAKE_OFF,
        title=f"Read the {way.reads} as found",
        why="What it ran with tells why it failed. Leave it out where nothing can be read any more.",
        tool=way.tool,
        caution="Turn both shafts together, by hand only.",
        optional=True,
        finding=True,
        may_authorise=True,
        form=way.compared(as_read(job.as_left.get(Of.ALIGNMENT, {})), "as left"),
    )


def read_once(job: JobFacts, on_fail: str) -> Step:
    """One reading that stands in for the whole alignment where nothing was moved, beside what was left or found."""
    way = set_by(job)
    left, found = (as_read(kept) for kept in (job.as_left.get(Of.ALIGNMENT, {}), job.answers.get("found.align", {})))
    return Step(
        key="couple.align",
        means=(Meaning(of=Of.ALIGNMENT),),
        stage=Stage.COUPLE,
        title="Read the alignment once, coupled up",
        why="No machine was moved: this one reading proves it.",
        tool=way.tool,
        caution="Turn both shafts together, by hand only.",
        needs=way.needs,
        judged_by=way.judged_by,
        relies=MACHINES,
        may_authorise=True,
        form=way.compared(left or found, "as left" if left else "as found"),
        on_fail=on_fail,
    )
