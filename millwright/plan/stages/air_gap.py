"""Machines that are set by the gaps beside a magnet rotor, not by dials."""

from typing import Any

from ...card.values import source_of
from ...meaning import Meaning, Of, When
from ..circles import pulled
from ..hints import GapHints
from ..steps import BenchForm, Fact, JobFacts, Stage, Step

SPREAD, DIFFER, LEAST = "air_gap_spread_mm", "air_gap_differ_mm", "air_gap_least_mm"
MAY_HAVE = (DIFFER, LEAST)


def step(job: JobFacts) -> Step:
    """Both gaps read and evened, with the moves between the readings."""
    movable = job.line.machine(job.line.movable).called
    return Step(
        key="set.align",
        means=(Meaning(of=Of.ALIGNMENT, when=When.ON_THE_WAY),),
        stage=Stage.SET,
        title=f"Even the air gap: move the {movable}",
        why="An uneven gap pulls to one side, wears the bearings, and rubs once it is warm.",
        tool="feelers of brass or plastic, at both sides, four places or wherever they reach",
        caution="Rotor full on, actuator locked. No steel feeler, no finger.",
        needs=(SPREAD,),
        judged_by=MAY_HAVE,
        relies=frozenset({Fact.MACHINES, *(pulled(circle) for circle in job.circles)}),
        moves=True,
        may_authorise=True,
        form=form(job),
        on_fail="Move it along the shaft, shim and slide its feet as shown, record the move, then both sides again.",
    )


def form(job: JobFacts) -> BenchForm:
    """The air-gap bench; feet and limits come from line and card."""
    feet = job.line.machine(job.line.movable).feet
    preset: dict[str, Any] = {"movable_feet": [{"name": f.name, "x_mm": f.from_coupling_mm} for f in feet]}
    for line, key, source in (
        (SPREAD, "spread_max_mm", "spread_source"),
        (DIFFER, "differ_max_mm", "differ_source"),
        (LEAST, "least_mm", "least_source"),
    ):
        if line in job.card:
            preset |= {key: job.card[line].value, source: source_of(job.card, line)}
    return BenchForm(bench="airgap", preset=preset, suggest=GapHints(diameter_mm=job.line.hub("driver").diameter_mm))
