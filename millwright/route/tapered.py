"""A hub on a tapered shaft end, drawn up hot to a mark and held by a lock nut."""

from collections.abc import Mapping
from typing import Any

from ..coupling.tighten import BAND_SHARE, BAND_SOURCE
from ..line import Side
from ..values import source_of
from ..verdict import Check, judge
from . import bolts, keyed, keyed_interference
from .steps import Answers, BenchForm, Field, JobFacts, SheetForm, Stage, Step

NUT_TORQUE = "lock_nut_torque_nm"
VALUES = ("taper_interference_mm", "taper_mismatch_mm", "taper_contact_percent", "hub_ceiling_c", NUT_TORQUE)
DECISIONS = ("heat it and draw it up", "needs work", "refuse the hub")


def prepare(job: JobFacts, side: Side) -> list[Step]:
    """Clean and dry, measure and blue, decide, work out the heat."""
    name = job.line.machine(side).called
    return [
        Step(
            key=f"prepare.clean.{side}",
            stage=Stage.PREPARE,
            title=f"Clean both tapers, {name}",
            why="Debris keeps a taper from seating true. Nothing is put on it: it holds dry.",
            tool="fine file, abrasive strip, lint-free cloth",
            caution="Solvent that does not burn. No paste, no oil on the taper.",
            after=("prepare.dead",),
            form=SheetForm(
                fields=(
                    Field(key="coating", kind="tick", label="Preservative off shaft, bore, keyway, nut and thread"),
                    Field(key="burrs", kind="tick", label="Burrs and dents taken off at keyway edges and ends"),
                    Field(key="wiped", kind="tick", label="Both tapers wiped lint-free, dry and free of oil"),
                    Field(key="key", kind="tick", label="Key tried: snug sideways, room on top, if there is one"),
                )
            ),
        ),
        Step(
            key=f"prepare.taper.{side}",
            stage=Stage.PREPARE,
            title=f"Measure and blue the taper, {name}",
            why="Tapers that differ bear at one end only; the blue shows what the micrometer cannot.",
            tool="micrometers, depth gauge, thin layout blue",
            after=(f"prepare.clean.{side}",),
            changes=frozenset({keyed.fit_fact(job, side)}),
            needs=("taper_interference_mm", "taper_mismatch_mm", "taper_contact_percent"),
            may_authorise=True,
            form=BenchForm(bench="taper", preset={**_taper_preset(job), "must_have": ["contact"]}),
            on_fail="Clean, thinner blue, try again. Tapers that do not match go back to the maker or the shop.",
        ),
        keyed.decide(
            job,
            side,
            (f"prepare.taper.{side}",),
            DECISIONS,
            Field(key="blue_off", kind="tick", label="Blue wiped off both tapers again"),
            Field(key="element_out", kind="tick", label="No elastomer left in the hub"),
        ),
        keyed_interference.plan_heat(
            job,
            side,
            why="On a taper the temperature decides where the hub stops. Room wanted: only what the carry costs.",
            caution="The ceiling is the maker's. After a miss the new temperature comes from what was reached.",
            needs=("hub_ceiling_c",),
            form=BenchForm(bench="heat", preset=_heat_preset(job), suggest=_heat_suggest(job, side)),
        ),
    ]


def mount(job: JobFacts, side: Side) -> list[Step]:
    """The gate, hand tight and the mark, the run, the draw-up reached, the lock nut."""
    name = job.line.machine(side).called
    torque = bolts.torque_words(job, NUT_TORQUE)
    hot = keyed_interference.hot_run(
        job,
        side,
        title=f"Heat the {name} hub and push it up to where it stops",
        why="Fast, to where the temperature lets it go; then compare with the mark.",
    )
    return [
        *keyed_interference.before_the_run(
            job,
            side,
            Field(key="hand_tight", kind="tick", label="Hub tried on cold, hand tight; stand-out of the shaft noted"),
            Field(key="mark", kind="tick", label="Draw-up marked on the shaft from there"),
        ),
        hot,
        keyed_interference.cold_check(job, side),
        Step(
            key=f"mount.draw.{side}",
            stage=Stage.MOUNT,
            title=f"Measure the draw-up, {name} hub",
            why="The draw-up is the interference: too little slips, too much bursts.",
            tool="depth gauge over hub face and shaft end",
            caution="Missed: take it off, and let hub and shaft both cool before the next try.",
            after=(f"mount.cold.{side}",),
            needs=("taper_interference_mm",),
            relies=frozenset({keyed.hub_fact(job, side)}),
            may_authorise=True,
            form=BenchForm(bench="taper", preset={**_taper_preset(job), "must_have": ["draw-up"]}),
            on_fail="Off again, with the nut left on a few turns. Work out the heat anew, then heat it again.",
        ),
        Step(
            key=f"mount.nut.{side}",
            stage=Stage.MOUNT,
            title=f"Lock the nut, {name} hub",
            why="A nut tightened on a hot hub goes slack as it cools.",
            tool="torque wrench, hook or socket for the nut",
            caution=f"Only on a cold hub. {bolts.thread_words(job, NUT_TORQUE)}".strip(),
            after=(f"mount.draw.{side}",),
            needs=(NUT_TORQUE,),
            form=SheetForm(
                fields=(
                    Field(key="torque_nm", kind="number", label="Lock nut pulled to", unit="N·m", detail=torque),
                    Field(key="screw", kind="tick", label="Then its set screw or tab locked"),
                    Field(
                        key="face_mm",
                        kind="length",
                        label="Hub face to shaft end",
                        detail="the figure to come back to at the next refit",
                        unit="mm",
                    ),
                )
            ),
            judge=lambda answers: _judge_nut(job, answers),
            on_fail="Pull it to its torque, on a cold hub.",
        ),
    ]


def _judge_nut(job: JobFacts, answers: Answers) -> tuple[list[Check], list[str]]:
    """The nut's torque against the card, as closely as a wrench in calibration repeats."""
    pulled = answers.get("torque_nm")
    if not isinstance(pulled, int | float) or NUT_TORQUE not in job.card:
        return [], []
    torque = job.card[NUT_TORQUE].value
    low, high = torque * (1 - BAND_SHARE), torque * (1 + BAND_SHARE)
    source = f"{source_of(job.card, NUT_TORQUE)}; {BAND_SOURCE}"
    return [judge("lock nut", pulled, "N·m", low=low, high=high, source=source)], []


def recheck(job: JobFacts, side: Side) -> tuple[Field, ...]:
    """The lock nut once more before release."""
    label = f"Lock nut, {job.line.machine(side).called} hub"
    return (Field(key=f"nut_{side}", kind="condition", label=label, detail=bolts.torque_words(job, NUT_TORQUE)),)


def _taper_preset(job: JobFacts) -> dict[str, Any]:
    card = job.card
    preset: dict[str, Any] = {}
    if "taper_interference_mm" in card:
        preset["interference_mm"] = card["taper_interference_mm"].value
    if "taper_mismatch_mm" in card:
        preset["mismatch_max_mm"] = card["taper_mismatch_mm"].value
        preset["mismatch_source"] = source_of(card, "taper_mismatch_mm")
    if "taper_contact_percent" in card:
        preset["contact_min"] = card["taper_contact_percent"].value / 100
        preset["contact_source"] = source_of(card, "taper_contact_percent")
    return preset


def _heat_preset(job: JobFacts) -> dict[str, Any]:
    card = job.card
    if "hub_ceiling_c" not in card or "taper_interference_mm" not in card:
        return {}
    return {
        "interference_mm": card["taper_interference_mm"].value,
        "ceiling_c": card["hub_ceiling_c"].value,
        "ceiling_source": source_of(card, "hub_ceiling_c"),
    }


def _heat_suggest(job: JobFacts, side: Side) -> dict[str, Any]:
    """The mean diameter of the measured bore. Only fills the sheet."""
    hub = job.line.hub(side)
    suggest: dict[str, Any] = {
        "assembly_clearance_mm": 0.0,
        "hub": {"outside_mm": hub.diameter_mm, "length_mm": hub.length_mm},
    }
    bore: Mapping[str, float] = job.answers.get(f"prepare.taper.{side}", {}).get("bore", {})
    if bore:
        suggest["bore_mm"] = round((bore["large_mm"] + bore["small_mm"]) / 2, 6)
    return suggest
