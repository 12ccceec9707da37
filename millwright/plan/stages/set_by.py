"""What the machines of a line are set by: dials or a laser, a straightedge alone, or the gaps beside a magnet rotor."""

from dataclasses import dataclass, replace
from typing import Any

from ...benches.alignment.drawn import layout_of
from ...card.meanings import STRAIGHTEDGE_ALONE
from ...card.values import source_of
from ...line import SIDES
from ..hints import AlignmentHints, StraightedgeHints
from ..steps import Answers, BenchForm, JobFacts
from . import air_gap
from .gap import GAP

ALIGNED_BY, ANGLE = "aligned_by", "angle_limit_deg"


@dataclass(frozen=True, kw_only=True)
class SetBy:
    """How the machines are read, whenever they are.

    ``reads``     - what is read, in a sentence: "alignment"
    ``again``     - the tool of a reading that is held against the one before
    ``needs``     - the lines of the card it is judged by
    ``judged_by`` - lines it goes by where the card has them
    ``beside``    - how its bench calls an earlier reading, and what that was; nothing where it holds none against it
    """

    reads: str
    tool: str
    again: str
    needs: tuple[str, ...]
    judged_by: tuple[str, ...]
    form: BenchForm
    beside: tuple[str, ...] = ()

    def compared(self, before: Answers, before_is: str = "") -> BenchForm:
        """Its bench, with an earlier reading beside it where there is one."""
        known = zip(self.beside, (before, before_is), strict=False)
        return replace(self.form, compare={key: value for key, value in known if value}) if before else self.form


def set_by(job: JobFacts) -> SetBy:
    """What this line is set by."""
    if by_air_gap(job):
        return SetBy(
            reads="air gap",
            tool="feelers of brass or plastic",
            again="feelers of brass or plastic, the same places",
            needs=(air_gap.SPREAD,),
            judged_by=air_gap.MAY_HAVE,
            form=air_gap.form(job),
            beside=("before",),
        )
    if by_straightedge(job):
        return SetBy(
            reads="alignment",
            tool="straightedge and feelers",
            again="the straightedge, the same places",
            needs=("offset_limit_mm",),
            judged_by=(ALIGNED_BY,),
            form=straightedge_form(job),
        )
    return SetBy(
        reads="alignment",
        tool="two dials on brackets, or the laser",
        again="the same dials, the same places",
        needs=alignment_lines(job),
        judged_by=(ALIGNED_BY,),
        form=alignment_form(job),
        beside=("before", "before_is"),
    )


def by_air_gap(job: JobFacts) -> bool:
    """It holds by magnets: what is made even are the gaps beside the rotor, at both sides."""
    return job.family.set_by == "air gap"


def by_straightedge(job: JobFacts) -> bool:
    """The site, or the maker, lets this line be aligned by straightedge and feelers alone; the gap shows the angle."""
    return (
        ALIGNED_BY in job.card
        and job.card[ALIGNED_BY].means == STRAIGHTEDGE_ALONE
        and job.family.takes == "offset and angle"
        and job.family.straightedge
    )


def as_read(answers: Answers) -> dict[str, Any]:
    """How an alignment was read, without what it was read for; empty where it was not."""
    return {key: answers[key] for key in ("dials", "shown", "stations") if answers.get(key)}


def alignment_lines(job: JobFacts) -> tuple[str, ...]:
    """The lines of the card an alignment is judged by."""
    offset = ("offset_limit_mm",) if job.family.takes == "offset and angle" else ()
    planes = (GAP,) if _flexes_at_planes(job) else ()
    return (*offset, *planes, ANGLE, "sliding_mm_per_s")


def _flexes_at_planes(job: JobFacts) -> bool:
    """Its limits count at two flexing planes, which lie as far apart as the gap on the card."""
    return job.family.takes == "angle at two planes" and GAP in job.family.values


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


def _alignment_limits(job: JobFacts) -> dict[str, Any]:
    """The coupling's limits, and where they count: a spacer takes an offset as an angle at its two planes."""
    card, takes = job.card, job.family.takes
    limits: dict[str, Any] = {}
    if ANGLE in card:
        limits = {"angle_deg": card[ANGLE].value, "source": source_of(card, ANGLE)}
    if takes == "offset and angle":
        offset = card["offset_limit_mm"]
        source = {} if limits else {"no_more": True, "source": source_of(card, "offset_limit_mm")}
        return limits | source | {"swing_mm" if offset.means == "swing" else "offset_mm": offset.value}
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
    if "offset_limit_mm" in card if job.family.takes == "offset and angle" else ANGLE in card:
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
