"""Stage 5: gap, offset and angle, with the moves between the readings; and the same readings again once bolted down."""

from dataclasses import replace
from typing import Any

from ...card.meanings import STRAIGHTEDGE_ALONE
from ...card.values import source_of
from ...line import SIDES
from ...roles import Role
from ...setting.drawn import layout_of
from .. import torques
from ..fields import tick
from ..hints import AlignmentHints, StraightedgeHints, TightenHints
from ..order import Part, Reread, in_order
from ..steps import Answers, BenchForm, Fact, JobFacts, SheetForm, Stage, Step
from . import before_setting
from .gap import GAP, gap_step

AS_LEFT = "align"  # what the last reading of a job is kept under, to be compared with next time
MACHINES = frozenset({Fact.MACHINES})
ALIGNED_BY = "aligned_by"


def steps(job: JobFacts, *, hidden: bool = False) -> Part:
    """Rough, soft feet, gap, straightedge, align.

    ``hidden`` - the coupling stays closed: gap and straightedge are left out where it hides the hubs
    """
    hubs = {Fact.FIRST_HUB} if job.closes_by_hub else {Fact.FIRST_HUB, Fact.SECOND_HUB}
    floats = [before_setting.end_float(job, side) for side in SIDES if job.line.machine(side).floats]
    gap = [gap_step(job, hubs)] if "gap_nominal_mm" in job.family.values else []
    laid = job.family.straightedge and job.family.takes == "offset and angle"
    edge = [_straightedge(job)] if laid and not by_straightedge(job) else []
    return in_order(
        Step(
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
        ),
        Reread(
            (
                before_setting.soft_foot(job),
                *floats,
                *(replace(step, optional=hidden) for step in [*gap, *edge]),
                _align(job),
            )
        ),
    )


def by_straightedge(job: JobFacts) -> bool:
    """The site, or the maker, lets this line be aligned by straightedge and feelers alone; the gap shows the angle."""
    return (
        ALIGNED_BY in job.card
        and job.card[ALIGNED_BY].means == STRAIGHTEDGE_ALONE
        and job.family.takes == "offset and angle"
        and job.family.straightedge
    )


def _align(job: JobFacts) -> Step:
    if by_straightedge(job):
        edge = _straightedge(job)
        why = "This line is aligned by straightedge alone, as its value card says; the gap shows the angle."
        title = f"Align the {job.line.machine(job.line.movable).called} by straightedge"
        return replace(edge, key="set.align", title=title, why=why, judged_by=(ALIGNED_BY,), relies=MACHINES, finding=False)
    return Step(
        key="set.align",
        stage=Stage.SET,
        title=f"Align the {job.line.machine(job.line.movable).called}",
        why="Align tightly, so that the allowance is left for operation. Vertical first, then horizontal, then read.",
        tool="two dials on brackets, or the laser",
        caution="Turn both shafts together, by hand only.",
        needs=_limits(job),
        judged_by=(ALIGNED_BY,),
        relies=MACHINES,
        moves=True,
        may_authorise=True,
        form=alignment_form(job),
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


def _limits(job: JobFacts) -> tuple[str, ...]:
    """The lines of the card an alignment is judged by."""
    offset = ("offset_limit_mm",) if job.family.takes == "offset and angle" else ()
    planes = (GAP,) if _flexes_at_planes(job) else ()
    return (*offset, *planes, "angle_limit_deg", "sliding_mm_per_s")


def _flexes_at_planes(job: JobFacts) -> bool:
    """Its limits count at two flexing planes, which lie as far apart as the gap on the card."""
    return job.family.takes == "angle at two planes" and GAP in job.family.values


def bolted_down(job: JobFacts) -> list[Step]:
    """Feet torqued, and the dials once more: tightening pulls a machine."""
    movable = job.line.machine(job.line.movable)
    return [
        Step(
            key="couple.feet",
            stage=Stage.COUPLE,
            title=f"Torque the feet of the {movable.called}",
            why="All bolts in and hand tight first, then crosswise in rising passes, so that nothing is pulled aside.",
            tool="torque wrench in calibration",
            caution=f"{torques.thread_words(job, 'foot_bolt_torque_nm')} All bolts in and hand tight first.".strip(),
            needs=("foot_bolt_torque_nm",),
            relies=frozenset({Fact.MACHINES, torques.moved(feet_title(job))}),
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
            stage=Stage.COUPLE,
            title="Read the alignment again, feet torqued",
            why="Tightening pulls the machine. This is the reading that is left behind.",
            tool="the straightedge, the same places" if by_straightedge(job) else "the same dials, the same places",
            needs=("offset_limit_mm",) if by_straightedge(job) else _limits(job),
            judged_by=(ALIGNED_BY,),
            relies=frozenset({Fact.MACHINES, Fact.FEET}),
            hold=Role.LEAD,
            may_authorise=True,
            form=_read_again(job),
            on_fail="Slacken the feet, go back to aligning, record the move and torque the feet again.",
        ),
    ]


def feet_title(job: JobFacts) -> str:
    """The foot bolts as they are called."""
    return f"Foot bolts, {job.line.machine(job.line.movable).called}"


def straightedge_form(job: JobFacts) -> BenchForm:
    """Straightedge bench; hub diameters are suggested, the limit is the coupling's."""
    preset: dict[str, Any] = {}
    if "offset_limit_mm" in job.card:
        value = job.card["offset_limit_mm"]
        offset = value.value / 2 if value.means == "swing" else value.value
        preset["limit"] = {"offset_mm": offset, "source": source_of(job.card, "offset_limit_mm")}
    return BenchForm(
        bench="straightedge",
        preset=preset,
        suggest=StraightedgeHints(
            stationary_hub_mm=job.line.hub(job.line.stationary).diameter_mm,
            movable_hub_mm=job.line.hub(job.line.movable).diameter_mm,
        ),
    )


def warm_form(job: JobFacts) -> BenchForm:
    """The alignment bench on warm machines: no growth is added, and what was predicted stands beside it."""
    form = alignment_form(job)
    preset = {key: value for key, value in form.preset.items() if key != "growth"}
    cold = as_read(job.answers.get("couple.align", {}))
    warm = {"warm": {"cold": cold, "growth": form.preset.get("growth", {})}} if cold else {}
    return replace(form, preset=preset, compare=warm)


def read_as_found(job: JobFacts) -> Step:
    """The alignment before anything is touched, beside what the last job left; over its limit it holds nothing up."""
    form = straightedge_form(job) if by_straightedge(job) else alignment_form(job)
    left = {} if by_straightedge(job) else as_read(job.as_left.get(AS_LEFT, {}))
    return Step(
        key="off.align",
        stage=Stage.TAKE_OFF,
        title="Read the alignment as found",
        why="What it ran with tells why it failed. Leave it out where nothing can be read any more.",
        tool="straightedge and feelers" if by_straightedge(job) else "two dials on brackets, or the laser",
        caution="Turn both shafts together, by hand only.",
        optional=True,
        finding=True,
        may_authorise=True,
        form=replace(form, compare={"before": left, "before_is": "as left"}) if left else form,
    )


def read_once(job: JobFacts, on_fail: str) -> Step:
    """One reading that stands in for the whole alignment where nothing was moved, beside what was left or found."""
    form = straightedge_form(job) if by_straightedge(job) else alignment_form(job)
    left, found = (as_read(kept) for kept in (job.as_left.get(AS_LEFT, {}), job.answers.get("found.align", {})))
    beside = {"before": left or found, "before_is": "as left" if left else "as found"} if left or found else {}
    return Step(
        key="couple.align",
        stage=Stage.COUPLE,
        title="Read the alignment once, coupled up",
        why="No machine was moved: this one reading proves it.",
        tool="straightedge and feelers" if by_straightedge(job) else "two dials on brackets, or the laser",
        caution="Turn both shafts together, by hand only.",
        needs=("offset_limit_mm",) if by_straightedge(job) else _limits(job),
        judged_by=(ALIGNED_BY,),
        relies=MACHINES,
        may_authorise=True,
        form=form if by_straightedge(job) else replace(form, compare=beside),
        on_fail=on_fail,
    )


def as_read(answers: Answers) -> dict[str, Any]:
    """How an alignment was read, without what it was read for; empty where it was not."""
    return {key: answers[key] for key in ("dials", "shown") if answers.get(key)}


def _read_again(job: JobFacts) -> BenchForm:
    """The bench it was aligned with; dials with the reading before the feet were torqued beside them."""
    if by_straightedge(job):
        return straightedge_form(job)
    form = alignment_form(job)
    before = as_read(job.answers.get("set.align", {}))
    return replace(form, compare={"before": before}) if before else form


def _alignment_limits(job: JobFacts) -> dict[str, Any]:
    """The coupling's limits, and where they count: a spacer takes an offset as an angle at its two planes."""
    card, takes = job.card, job.family.takes
    limits: dict[str, Any] = {"angle_deg": card["angle_limit_deg"].value, "source": source_of(card, "angle_limit_deg")}
    if takes == "offset and angle":
        offset = card["offset_limit_mm"]
        return limits | {"swing_mm" if offset.means == "swing" else "offset_mm": offset.value}
    return limits | {"at": "flexing planes" if _flexes_at_planes(job) else "angle alone"}


def alignment_form(job: JobFacts) -> BenchForm:
    """Alignment bench; feet, limits, target and speed come from line and card."""
    line, card = job.line, job.card
    preset: dict[str, Any] = {
        "stationary_feet": [{"name": f.name, "x_mm": -f.from_coupling_mm} for f in line.machine(line.stationary).feet],
        "movable_feet": [{"name": f.name, "x_mm": f.from_coupling_mm} for f in line.machine(line.movable).feet],
        "speed_rpm": line.speed_rpm,
        "movable_on": "left" if line.movable == "driver" else "right",
    }
    if all(key in card for key in _limits(job)):
        preset["limits"] = _alignment_limits(job)
    spacer = card["gap_nominal_mm"].value if "gap_nominal_mm" in card else 0.0
    if _flexes_at_planes(job) and spacer:
        preset["coupling"] = {"flex_planes_mm": [-spacer / 2, spacer / 2]}
    rises = {foot.name: foot.rise_mm for side in SIDES for foot in line.machine(side).feet if foot.rise_mm is not None}
    if rises:
        preset["growth"] = rises
    if "sliding_mm_per_s" in card:
        preset["running_target"] = {
            "sliding_mm_per_s": card["sliding_mm_per_s"].value,
            "radius_mm": line.hub(line.movable).diameter_mm / 2,
            "source": source_of(card, "sliding_mm_per_s"),
        }
    hints = AlignmentHints(
        radius_mm=line.hub(line.movable).diameter_mm / 2,
        layout=layout_of(
            [foot.from_coupling_mm for foot in line.machine(line.stationary).feet],
            [foot.from_coupling_mm for foot in line.machine(line.movable).feet],
            spacer / 2 if _flexes_at_planes(job) else 0.0,
            preset["movable_on"],
        ),
    )
    return BenchForm(bench="alignment", preset=preset, suggest=hints)
