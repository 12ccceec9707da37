"""Before the gap is set: feet that stand flat, and shafts that float set to the middle of their travel."""

import re
from typing import Any

from ...card.values import source_of
from ...line import SIDES, Side
from ...meaning import Meaning, Of, When
from ...say import mm, say
from ...units import LengthUnit, read_length_mm
from ...verdict import Judged, judge, said_by_hand
from ..fields import choice, length, text
from ..hints import SoftFootHints
from ..order import Part, in_order
from ..steps import Answers, BenchForm, Fact, JobFacts, SheetForm, Stage, Step

MIDDLE, MAGNETIC = "in the middle of it", "at its magnetic centre"
LEFT_OVER_MM = 1.0  # rule of thumb: what is left between shaft ends that came as near as they can
TO_SPARE = f"rule of thumb: {LEFT_OVER_MM:g} mm to spare"
OFF_SHARE, OFF_MM = 0.1, 0.1
OFF_SOURCE = "rule of thumb: a tenth of the float, or a tenth of a millimetre"
ENDS, ENDS_WIDTH = "shaft_ends_mm", "shaft_ends_plus_minus_mm"
WITHIN_MM = 2.0  # rule of thumb: what feet in their slots make up for


def soft_foot(job: JobFacts) -> Step:
    """Every foot of the machine that is moved, slackened one at a time."""
    machine = job.line.machine(job.line.movable)
    feet = [f"{foot.name}, {side} side" for foot in machine.feet for side in ("9", "3")]
    limit: dict[str, Any] = {}
    if "soft_foot_mm" in job.card:
        limit = {"limit_mm": job.card["soft_foot_mm"].value, "limit_source": source_of(job.card, "soft_foot_mm")}
    return Step(
        key="set.soft",
        means=(Meaning(of=Of.SOFT_FOOT, when=When.ON_THE_WAY),),
        stage=Stage.SET,
        title=f"Check for soft foot: {machine.called}",
        why="A soft foot bends the machine as it is bolted down. Nothing repeats until it is cured.",
        tool="dial on the foot, feelers",
        caution="One bolt slack at a time, all others tight.",
        needs=("soft_foot_mm",),
        relies=frozenset({Fact.SHIMMED}),
        must_pass=True,
        moves=True,
        may_authorise=True,
        form=BenchForm(bench="softfoot", preset=limit, suggest=SoftFootHints(feet=feet)),
        on_fail="The worst foot first; then tighten all and measure every foot again.",
    )


def end_float(job: JobFacts, side: Side) -> Step:
    """The travel of a shaft that floats, and its place in it; that the shaft ends keep clear."""
    name = job.line.machine(side).called
    toward = "plus is toward the coupling"
    return Step(
        key=f"set.float.{side}",
        stage=Stage.SET,
        title=f"Measure the end float, {name} shaft, and set it",
        why="A gap taken with the shaft at one end of its travel is wrong by half of it once it runs.",
        tool="dial along the shaft, pry bar with a soft tip",
        caution="Push and pull by hand or bar; never by the coupling.",
        relies=frozenset({Fact.MACHINES}),
        must_pass=True,
        may_authorise=True,
        form=SheetForm(
            fields=(
                length("pushed_mm", "Dial, shaft pushed right in", toward),
                length("pulled_mm", "Dial, shaft pulled right out", toward),
                choice("set_to", "Set to", MIDDLE, MAGNETIC),
                length(
                    "magnetic_mm",
                    "Dial at the magnetic centre",
                    "from the scribed mark, or as it ran uncoupled",
                    required=False,
                ),
                length("now_mm", "Dial reading now"),
                length(
                    "ends_mm", "Free between the two shaft ends, or shaft end and spacer", "measured with the shaft there"
                ),
            )
        ),
        judge=lambda job, answers: _judge_float(job, answers),
        on_fail="Off its place: push it there, then measure the gap. Ends too near: machines apart, or the hub further on.",
    )


def _judge_float(job: JobFacts, answers: Answers) -> Judged:
    """It stands where it should, and its end stays clear when it floats and grows. Source: geometry."""
    pushed, pulled, now, ends = (answers.get(f"{key}_mm") for key in ("pushed", "pulled", "now", "ends"))
    if not isinstance(pushed, int | float) or not isinstance(pulled, int | float):
        return [], []
    travel = pulled - pushed
    if travel <= 0:
        low = "the two are the same" if travel == 0 else "the dial counts the other way, or the two were swapped"
        check = said_by_hand("end_float", "end float", "pulled out reads more than pushed in", in_order=False)
        return [check], [say("no_float", "End float {travel}: {low}.", travel=mm(travel, signed=True), low=low)]
    text, middle = "End float {travel}, its middle at {middle} on the dial.", mm((pushed + pulled) / 2, signed=True)
    checks, advice = [], [say("end_float", text, travel=mm(travel), middle=middle)]
    wanted = answers.get("magnetic_mm") if answers.get("set_to") == MAGNETIC else (pushed + pulled) / 2
    if not isinstance(wanted, int | float):
        checks.append(said_by_hand("magnetic", "magnetic centre", "the dial at the scribed mark", in_order=False))
        text = "Enter the dial at the magnetic centre, or set the shaft to the middle of its float."
        advice.append(say("no_magnetic_centre", text))
    elif not pushed <= wanted <= pulled:
        checks.append(said_by_hand("magnetic", "magnetic centre", "it lies between pushed and pulled", in_order=False))
        text = "The magnetic centre lies outside the float that was measured: look at both again."
        advice.append(say("magnetic_outside", text))
    elif isinstance(now, int | float):
        off = now - wanted
        near = max(OFF_SHARE * travel, OFF_MM)
        checks.append(judge("off_place", "shaft off its place", off, "mm", high=near, source=OFF_SOURCE))
        if abs(off) > near:
            way, gap = ("away from", "add {by} to") if off > 0 else ("toward", "take {by} off")
            text = f"Move it {{by}} {way} the coupling; or {gap} every gap that is read afterwards."
            advice.append(say("off_place", text, by=mm(abs(off))))
    if isinstance(ends, int | float):
        growth = max(job.card["axial_growth_mm"].value, 0.0) if "axial_growth_mm" in job.card else 0.0
        source = f"geometry: half the float and growth; {TO_SPARE}"
        least = travel / 2 + growth + LEFT_OVER_MM
        checks.append(judge("ends_clear", "shaft ends clear", ends, "mm", low=least, source=source))
    return checks, advice


def shaft_ends(job: JobFacts) -> Part:
    """The distance between the two shaft ends, before a hub goes on: a wrong spacer is found now."""
    if job.family.hangs or len(job.family.hubs) < len(SIDES):
        return in_order()
    return in_order(
        Step(
            key="prepare.ends",
            stage=Stage.PREPARE,
            title="Measure the distance between the shaft ends",
            why="A spacer too long or too short is found now, or with both hubs on.",
            tool="inside rule or caliper, both shafts at the middle of their float",
            may_authorise=True,
            form=SheetForm(
                fields=(
                    length("distance_mm", "Distance between the shaft ends"),
                    text(
                        "standards",
                        "Standard distances this coupling comes in, mm; inches with in behind them",
                        "from the catalogue, where the distance is still to be chosen: 100 140 180, or 3.5 5 7 in",
                        required=False,
                    ),
                )
            ),
            judge=lambda job, answers: _judge_ends(job, answers),
            on_fail="Move the machines, or order the coupling for the distance there is.",
        )
    )


def _judge_ends(job: JobFacts, answers: Answers) -> Judged:
    distance = answers.get("distance_mm")
    if not isinstance(distance, int | float):
        return [], []
    checks, advice = [], []
    if ENDS in job.card:
        wanted = job.card[ENDS].value
        width = job.card[ENDS_WIDTH].value if ENDS_WIDTH in job.card else WITHIN_MM
        source = source_of(job.card, ENDS) + ("" if ENDS_WIDTH in job.card else "; rule of thumb: a millimetre either way")
        check = judge(
            "distance",
            "distance between the shaft ends",
            distance,
            "mm",
            low=wanted - width,
            high=wanted + width,
            source=source,
        )
        checks.append(check)
        if check.status == "over":
            way = "together" if distance > wanted else "apart"
            text = "Machines {way} by {by}, or another coupling."
            advice.append(say("machines_off", text, way=way, by=mm(abs(distance - wanted), 1)))
    else:
        text = "Nothing to judge it by: put the distance of the drawing on the value card."
        advice.append(say("nothing_to_judge_by", text))
    standards = _standards_mm(str(answers.get("standards") or ""))
    if standards:
        nearest = min(standards, key=lambda standard: abs(standard - distance))
        text = "Nearest standard distance: {nearest}; the machines go {by} to it."
        by = mm(distance - nearest, 1, signed=True)
        advice.append(say("nearest_standard", text, nearest=mm(nearest, None), by=by))
    return checks, advice


def _standards_mm(text: str) -> list[float]:
    """A list of distances as it is written down: "100; 138,5 180", or "3.5 5 7 in"."""
    unit: LengthUnit = "in" if re.search(r'(\bin|\binch(es)?|")\W*$', text) else "mm"
    found = (read_length_mm(word, unit) for word in re.findall(r"\d+(?:\.\d+)?", text.replace(",", ".")))
    return [mm for mm in found if mm is not None]
