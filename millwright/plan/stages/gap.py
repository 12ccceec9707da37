"""The gap: set, read again once something moved a hub, and the band it is held against."""

from collections.abc import Mapping
from typing import Any

from ...card.meanings import GAP_EACH, GAP_PERCENT
from ...card.values import source_of
from ...line import SIDES
from ...meaning import Meaning, Of, When
from ...units import angle_mm_per_m
from ...verdict import Judged, judge
from ..fields import length
from ..hints import GapHints
from ..hubs.screw_held import DEVICES
from ..steps import Answers, BenchForm, Fact, Happened, JobFacts, SheetForm, Stage, Step
from . import before_setting

GAP_JUDGED_BY = ("gap_spread_mm", "axial_growth_mm", "angle_limit_deg")
GAP, END_GAP = "gap_nominal_mm", "end_gap_nominal_mm"


def gap_step(job: JobFacts, hubs: set[Happened]) -> Step:
    """The distance between the hubs; ``hubs`` - those whose place on their shafts it rests on."""
    at_jaws = nominal_key(job) != GAP
    return Step(
        key="set.gap",
        means=(Meaning(of=Of.GAP, when=When.ON_THE_WAY),),
        stage=Stage.SET,
        title="Set the distance from jaw tip to the opposite hub" if at_jaws else "Set the gap between the hubs",
        why=f"Too close preloads bearings and element; too far loses engagement. Taken {job.family.gap_taken}.",
        tool="caliper, or spacer bar and feelers",
        needs=(nominal_key(job), "gap_plus_minus_mm"),
        judged_by=GAP_JUDGED_BY,
        relies=frozenset({Fact.MACHINES, *hubs}),
        moves=True,
        may_authorise=True,
        form=gap_form(job),
        on_fail=f"{_how_to_close(job)} Then read the gap again.",
    )


def _how_to_close(job: JobFacts) -> str:
    """What is moved to correct a gap: a hub that still slides, a hub that can be slackened again, or the machine."""
    if job.closes_by_hub:
        return "Slide the loose hub for a small correction, or move the machine."
    held = [side for side in job.order() if job.line.hub(side).connection in DEVICES]
    if not held:
        return "Move the machine."
    device = DEVICES[job.line.hub(held[-1]).connection].name
    name = job.line.machine(held[-1]).called
    return f"Move the machine; or slacken the {device} of the {name} hub, shift it, and true it again."


def gap_form(job: JobFacts) -> BenchForm:
    """Gap bench; the band is nominal ± from the card, the angle limit is the coupling's."""
    card = job.card
    accept = band(job, nominal_key(job), "gap_plus_minus_mm")
    if (standing_out := _standing_out_mm(job)) > 0 and nominal_key(job) == GAP:
        spare = max(card["axial_growth_mm"].value, 0.0) if "axial_growth_mm" in card else 0.0
        source = f"geometry: both ends stand out {standing_out:g} in all + growth {spare:g}; {before_setting.TO_SPARE}"
        least = before_setting.LEFT_OVER_MM + spare
        accept["clear"] = {"standing_out_mm": standing_out, "min_mm": least, "source": source}
    if "gap_spread_mm" in card:
        accept["spread"] = {"max_mm": card["gap_spread_mm"].value, "source": source_of(card, "gap_spread_mm")}
    if "angle_limit_deg" in card:
        limit = angle_mm_per_m(card["angle_limit_deg"].value)
        accept["angle"] = {"max_mm_per_m": limit, "source": source_of(card, "angle_limit_deg")}
    return BenchForm(
        bench="gap", preset={"accept": accept}, suggest=GapHints(diameter_mm=job.line.hub(job.line.movable).diameter_mm)
    )


def nominal_key(job: JobFacts) -> str:
    """The line of the card the gap is held against: between the faces, or from jaw tip to the opposite hub."""
    return "jaw_tip_mm" if job.family.measured_at_jaws and "jaw_tip_mm" in job.card else GAP


def gap_again(job: JobFacts, pulled: Happened) -> list[Step]:
    """One place of the gap once more, after the screw of the hub that was light: a screw that is pulled shifts its hub."""
    at_ends = END_GAP in job.family.values
    key, width = (END_GAP, "end_gap_plus_minus_mm") if at_ends else (nominal_key(job), "gap_plus_minus_mm")
    if key not in job.family.values and key not in job.family.may_have:
        return []
    ends = {f"{side}_mm": f"Gap at the end of the spacer, {job.line.machine(side).called} side" for side in SIDES}
    named = ends if at_ends else {"gap_mm": "Gap"}
    return [
        Step(
            key="couple.gap_again",
            means=(Meaning(of=Of.GAP),),
            stage=Stage.COUPLE,
            title="Read the gap once more, at one place",
            why="A set screw that is pulled shifts its hub.",
            tool="caliper or feelers, the same place as before",
            needs=(key, width),
            judged_by=GAP_JUDGED_BY,
            relies=frozenset({pulled, job.hub_fact(job.second())}),
            may_authorise=True,
            form=SheetForm(fields=tuple(length(name, f"{said}, at one place") for name, said in named.items())),
            judge=lambda job, answers: _judge_again(named, answers, band(job, key, width)),
            on_fail="Slacken the screw, shift the hub, pull it again, read again.",
        )
    ]


def _judge_again(named: Mapping[str, str], answers: Answers, accept: Mapping[str, Any]) -> Judged:
    held = next(iter(accept.values()), None)
    if held is None:
        return [], []
    low, high, source = held["min_mm"], held["max_mm"], held["source"]
    read = {key: answers[key] for key in named if _is_length(answers.get(key))}
    return [judge(key, named[key], value, "mm", low=low, high=high, source=source) for key, value in read.items()], []


def _standing_out_mm(job: JobFacts) -> float:
    """How far both shaft ends stand out of their hub faces into the gap, as last measured."""
    total = 0.0
    for side in job.family.hubs:
        read = (job.answers.get(f"mount.{step}.{side}", {}).get("standout_mm") for step in ("hub", "cold", "seat", "pull"))
        measured = [length for length in read if isinstance(length, int | float)]
        total += max(measured[-1], 0.0) if measured else 0.0
    return total


def _is_length(answer: Any) -> bool:
    return isinstance(answer, int | float)


def band(job: JobFacts, nominal_key: str, width_key: str) -> dict[str, Any]:
    """A gap's band as the card states it: ± in mm or percent, of the mean or of every reading; colder by the growth."""
    card = job.card
    if nominal_key not in card or width_key not in card:
        return {}
    nominal, width = card[nominal_key].value, card[width_key].value
    width = nominal * width / 100 if card[width_key].means == GAP_PERCENT else width
    growth = card["axial_growth_mm"].value if "axial_growth_mm" in card else 0.0
    growth = growth / 2 if nominal_key == "end_gap_nominal_mm" else growth  # each end takes its half
    source = source_of(card, nominal_key) + (f"; cold, {growth:+g} mm for the growth of the shafts" if growth else "")
    cold = nominal + growth
    found = {"min_mm": cold - width, "max_mm": cold + width, "source": source}
    return {"each" if card[nominal_key].means == GAP_EACH else "mean": found}


def set_gap(job: JobFacts) -> Step:
    """The gap alone, after a hub was moved on its shaft."""
    return gap_step(job, {Fact.FIRST_HUB, Fact.SECOND_HUB})
