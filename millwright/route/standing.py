"""Before the gap is set: feet that stand flat, and shafts that float set to the middle of their travel."""

from typing import Any

from ..line import Side
from ..values import source_of
from ..verdict import Check, judge
from .steps import Answers, BenchForm, Fact, Field, JobFacts, SheetForm, Stage, Step

SET_TO = ("in the middle of it", "at its magnetic centre")
LEFT_OVER_MM = 1.0  # rule of thumb: what is left between shaft ends that came as near as they can


def soft_foot(job: JobFacts) -> Step:
    """Every foot of the machine that is moved, slackened one at a time."""
    machine = job.line.machine(job.line.movable)
    feet = [f"{foot.name}, {side} side" for foot in machine.feet for side in ("9", "3")]
    limit: dict[str, Any] = {}
    if "soft_foot_mm" in job.card:
        limit = {"limit_mm": job.card["soft_foot_mm"].value, "limit_source": source_of(job.card, "soft_foot_mm")}
    return Step(
        key="set.soft",
        stage=Stage.SET,
        title=f"Find the soft feet of the {machine.called}",
        why="A foot that does not stand flat bends the machine as it is bolted down. Nothing repeats until it is cured.",
        tool="dial on the foot, feelers",
        caution="One bolt slack at a time, all others tight.",
        after=("set.rough",),
        needs=("soft_foot_mm",),
        moves=True,
        may_authorise=True,
        form=BenchForm(bench="softfoot", preset=limit, suggest={"feet": feet}),
        on_fail="The worst foot first; then tighten all and measure every foot again.",
    )


def end_float(job: JobFacts, side: Side) -> Step:
    """The travel of a shaft that floats, and its place in it; that the shaft ends keep clear."""
    name = job.line.machine(side).called
    return Step(
        key=f"set.float.{side}",
        stage=Stage.SET,
        title=f"Measure the end float, {name} shaft, and set it",
        why="A gap taken with the shaft at one end of its travel is wrong by half of it once it runs.",
        tool="dial on the shaft end, pry bar with a soft tip",
        caution="Push and pull by hand or bar; never by the coupling.",
        after=("set.soft",),
        relies=frozenset({Fact.MACHINES}),
        form=SheetForm(
            fields=(
                Field(key="float_mm", kind="length", label="End float, pushed to pulled", unit="mm"),
                Field(
                    key="set_to",
                    kind="choice",
                    label="Shaft now stands",
                    options=("in the middle of it", "at its magnetic centre"),
                ),
                Field(
                    key="ends_mm",
                    kind="length",
                    label="Free between the two shaft ends, or shaft end and spacer",
                    detail="measured with the shaft there",
                    unit="mm",
                ),
            )
        ),
        judge=lambda answers: _judge_float(job, answers),
        on_fail="Set the machines further apart, or the hub further on, so that the shaft ends keep clear.",
    )


def _judge_float(job: JobFacts, answers: Answers) -> tuple[list[Check], list[str]]:
    """The ends stay clear when the shaft floats to its end and grows. Source: geometry; a millimetre is left over."""
    float_mm, ends = answers.get("float_mm"), answers.get("ends_mm")
    if not isinstance(float_mm, int | float) or not isinstance(ends, int | float):
        return [], []
    growth = max(job.card["axial_growth_mm"].value, 0.0) if "axial_growth_mm" in job.card else 0.0
    wanted = float_mm / 2 + growth + LEFT_OVER_MM
    source = f"geometry: half the float {float_mm / 2:g} + growth {growth:g}; rule of thumb: {LEFT_OVER_MM:g} mm to spare"
    return [judge("shaft ends clear", ends, "mm", low=wanted, source=source)], []
