"""A hub held by a key and set screws, slid on by hand: preparing it and mounting it."""

from typing import Any

from ..coupling.families import FAMILIES
from ..line import Side
from ..values import source_of
from ..verdict import Check, said_by_hand
from .steps import Answers, BenchForm, Fact, Field, JobFacts, SheetForm, Stage, Step

FITS_BY_DECISION = ("slips on by hand", "needs work", "refuse the hub")


def prepare(job: JobFacts, side: Side) -> list[Step]:
    """Clean, measure, decide."""
    shaft, hub = job.line.machine(side), job.line.hub(side)
    on = f"{side}"
    name = shaft.called
    return [
        Step(
            key=f"prepare.clean.{on}",
            stage=Stage.PREPARE,
            title=f"Clean and dress shaft and bore, {name}",
            why="Dirt, burrs and preservative keep the hub from going on, or crooked.",
            tool="fine file, abrasive strip, lint-free cloth",
            caution="Solvent that does not burn. Chemical-proof gloves.",
            after=("prepare.dead",),
            form=SheetForm(
                fields=(
                    Field(key="coating", kind="tick", label="Preservative off shaft, bore, keyway"),
                    Field(key="burrs", kind="tick", label="Burrs, dents and sharp edges filed; the diameter left alone"),
                    Field(key="rust", kind="tick", label="Rust and fretting marks polished off"),
                    Field(key="paste", kind="tick", label="Keyed fit: mounting paste on shaft and bore, thin"),
                    Field(key="fretting", kind="text", label="Fretting found (a looser fit before?)", required=False),
                )
            ),
        ),
        Step(
            key=f"prepare.fit.{on}",
            stage=Stage.PREPARE,
            title=f"Measure shaft and bore, {name}",
            why="The micrometer decides how the hub goes on, not its label.",
            tool="micrometers, outside and inside",
            after=(f"prepare.clean.{on}",),
            needs=("fit_min_mm", "fit_max_mm"),
            may_authorise=True,
            form=BenchForm(bench="fit", preset=_fit_preset(job)),
            on_fail="Look for a burr and measure again. Too tight for a slip fit: refuse the hub or have it reworked.",
        ),
        Step(
            key=f"prepare.key.{on}",
            stage=Stage.PREPARE,
            title=f"Measure and try the key, {name}",
            why="A rocking key works loose; a high one cracks the hub.",
            tool="micrometer, depth gauge",
            after=(f"prepare.clean.{on}",),
            form=BenchForm(
                bench="key",
                preset={"shaft_diameter_mm": shaft.shaft_diameter_mm},
                suggest={"hub_keyway": {"length_mm": hub.length_mm}},
            ),
            on_fail="Dress the key, never the hub. Then measure again.",
        ),
        Step(
            key=f"prepare.decide.{on}",
            stage=Stage.PREPARE,
            title=f"Decide the fit, {name}",
            why="Whoever mounts it says that it fits, with a reason, before the hub is on the shaft.",
            after=(f"prepare.fit.{on}", f"prepare.key.{on}"),
            leaves_provisional=f"{name}: set screw backed out, not yet torqued",
            settled_by=_screw_step(job, side),
            form=SheetForm(
                fields=(
                    Field(key="decision", kind="choice", label="This hub", options=FITS_BY_DECISION),
                    Field(key="reason", kind="text", label="Because"),
                    Field(key="seated", kind="tick", label="Key fully seated, its end flush"),
                    Field(key="snug", kind="tick", label="Key snug sideways, yet slides without binding"),
                    Field(key="dry_fit", kind="tick", label="Hub tried on cold: it slides and turns freely"),
                    Field(
                        key="screw_clear",
                        kind="tick",
                        label="Set screw backed out clear of bore and keyway, or out and kept in the ledger",
                    ),
                )
            ),
            judge=_judge_decision,
            on_fail="Needs work: after the work, clean and measure again. Refused: mark the hub so that it stays out.",
        ),
    ]


def mount(job: JobFacts, side: Side) -> list[Step]:
    """The gate, the hub, and its set screw: torqued on the first hub, light on the second."""
    first = side == job.first()
    name = job.line.machine(side).called
    fact = Fact.FIRST_HUB if first else Fact.SECOND_HUB
    loose = FAMILIES[job.line.coupling.family].loose_before_hub
    gate = Step(
        key=f"mount.loose.{side}",
        stage=Stage.MOUNT,
        title=f"Before the hub: what must already be on the {name} shaft",
        why="What cannot pass the hub later must hang on the shaft now. Once the hub is on there is no way back.",
        after=(f"prepare.decide.{side}",),
        no_return=True,
        form=SheetForm(
            fields=(
                *(Field(key=part.key, kind="tick", label=part.title, detail=part.look_for) for part in loose),
                Field(key="guard", kind="tick", label="Guard back plate or shaft cover, where this line has one"),
                Field(key="seals", kind="tick", label="Seals, slingers and sensor rings of the machine"),
                Field(key="way_round", kind="tick", label="The hub is the right way round: jaws toward the other shaft"),
            )
        ),
    )
    slide = Step(
        key=f"mount.hub.{side}",
        stage=Stage.MOUNT,
        title=f"Slide the hub on the {name} shaft",
        why="Snug yet free by hand. The face stands flush with the shaft end unless the manual says another place.",
        tool="straightedge over face and shaft end",
        caution="Never drive it on. If it resists: burr, key, screw or bore, in that order.",
        after=(f"mount.loose.{side}", *(() if first else (_screw_step(job, job.first()),))),
        changes=frozenset({fact}),
        form=SheetForm(
            fields=(
                Field(key="by_hand", kind="tick", label="It went on by hand"),
                Field(key="flush", kind="tick", label="Face and shaft end checked with a straightedge"),
                Field(
                    key="standout_mm",
                    kind="length",
                    label="Shaft end stands out of the hub face",
                    detail="0 when flush; minus when the shaft ends inside",
                    unit="mm",
                ),
                *(() if first else (Field(key="light", kind="tick", label="Set screw just light, so that it can slide"),)),
            )
        ),
        leaves_provisional="" if first else f"{name}: hub held by a light set screw only",
        settled_by="" if first else _screw_step(job, side),
        on_fail="Take it off again. Look at the key first, then the bore.",
    )
    if not first:
        return [gate, slide]
    return [gate, slide, set_screw(job, side, Stage.MOUNT, (f"mount.hub.{side}",))]


def set_screw(job: JobFacts, side: Side, stage: Stage, after: tuple[str, ...]) -> Step:
    """A hub's set screws to torque."""
    name, hub = job.line.machine(side).called, job.line.hub(side)
    fact = Fact.FIRST_HUB if side == job.first() else Fact.SECOND_HUB
    thread = job.card["set_screw_torque_nm"].means if "set_screw_torque_nm" in job.card else ""
    return Step(
        key=_screw_step(job, side),
        stage=stage,
        title=f"Torque the set screw, {name} hub",
        why="Slack: the hub wanders. Overdone: key, shaft or hub is marked.",
        tool="torque wrench with hex bit",
        caution=f"Threads {thread}, as the value card says." if thread else "",
        after=after,
        needs=("set_screw_torque_nm",),
        relies=frozenset({fact}),
        may_authorise=True,
        form=BenchForm(bench="tighten", preset=screw_preset(job, hub.set_screws)),
        on_fail="Slacken it and pull it once more, one click.",
    )


def screw_preset(job: JobFacts, screws: int) -> dict[str, Any]:
    """Set screws go straight to their torque, one after another."""
    if "set_screw_torque_nm" not in job.card:
        return {}
    return {
        "bolts": screws,
        "torque_nm": job.card["set_screw_torque_nm"].value,
        "torque_source": source_of(job.card, "set_screw_torque_nm"),
        "passes": [1.0],
        "pattern": "circle",
    }


def _screw_step(job: JobFacts, side: Side) -> str:
    return "mount.screw" if side == job.first() else "couple.screw"


def _fit_preset(job: JobFacts) -> dict[str, Any]:
    if "fit_min_mm" not in job.card or "fit_max_mm" not in job.card:
        return {}
    low, high = job.card["fit_min_mm"].value, job.card["fit_max_mm"].value
    return {"required": {"min_mm": low, "max_mm": high, "source": source_of(job.card, "fit_max_mm")}}


def _judge_decision(answers: Answers) -> tuple[list[Check], list[str]]:
    decision = answers.get("decision")
    if decision in (None, "", FITS_BY_DECISION[0]):
        return [], []
    check = said_by_hand("decision", "the person who decides", in_order=False)
    return [check], [f"Decided: {decision}. The hub is not mounted like this."]
