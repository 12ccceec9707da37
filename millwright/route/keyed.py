"""What every keyed hub wants, slid on cold or shrunk on hot: clean, measured, tried, gated, its set screw torqued."""

from typing import Any

from ..coupling.families import FAMILIES
from ..line import Side
from ..values import source_of
from ..verdict import Check, said_by_hand
from . import bolts
from .steps import Answers, BenchForm, Fact, Field, JobFacts, SheetForm, Stage, Step

SCREW_TORQUE = "set_screw_torque_nm"


def clean(job: JobFacts, side: Side) -> Step:
    """Shaft and bore cleaned and dressed."""
    return Step(
        key=f"prepare.clean.{side}",
        stage=Stage.PREPARE,
        title=f"Clean and dress shaft and bore, {job.line.machine(side).called}",
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
    )


def measure(job: JobFacts, side: Side, low: str, high: str, on_fail: str) -> list[Step]:
    """Fit and key. ``low`` and ``high`` are the keys of the fit wanted on the value card."""
    shaft, hub = job.line.machine(side), job.line.hub(side)
    return [
        Step(
            key=f"prepare.fit.{side}",
            stage=Stage.PREPARE,
            title=f"Measure shaft and bore, {shaft.called}",
            why="The micrometer decides how the hub goes on, not its label.",
            tool="micrometers, outside and inside",
            after=(f"prepare.clean.{side}",),
            changes=frozenset({fit_fact(job, side)}),
            needs=(low, high),
            may_authorise=True,
            form=BenchForm(bench="fit", preset=_fit_preset(job, low, high)),
            on_fail=on_fail,
        ),
        Step(
            key=f"prepare.key.{side}",
            stage=Stage.PREPARE,
            title=f"Measure and try the key, {shaft.called}",
            why="A rocking key works loose; a high one cracks the hub.",
            tool="micrometer, depth gauge",
            after=(f"prepare.clean.{side}",),
            form=BenchForm(
                bench="key",
                preset={"shaft_diameter_mm": shaft.shaft_diameter_mm},
                suggest={"hub_keyway": {"length_mm": hub.length_mm}},
            ),
            on_fail="Dress the key, never the hub. Then measure again.",
        ),
    ]


def loose_parts(job: JobFacts, side: Side, after: tuple[str, ...], *more: Field) -> Step:
    """The gate: what must hang on the shaft before the hub, and cannot be put there later."""
    family = FAMILIES[job.line.coupling.family]
    return Step(
        key=f"mount.loose.{side}",
        stage=Stage.MOUNT,
        title=f"Before the hub: what must already be on the {job.line.machine(side).called} shaft",
        why="What cannot pass the hub later must hang on the shaft now. Once the hub is on there is no way back.",
        after=after,
        no_return=True,
        form=SheetForm(
            fields=(
                *(
                    Field(key=part.key, kind="tick", label=part.title, detail=part.look_for)
                    for part in family.loose_before_hub
                ),
                Field(key="guard", kind="tick", label="Guard back plate or shaft cover, where this line has one"),
                Field(key="seals", kind="tick", label="Seals, slingers and sensor rings of the machine"),
                Field(key="way_round", kind="tick", label=f"The hub is the right way round: {family.way_round}"),
                *more,
            )
        ),
    )


def standout() -> Field:
    """Where the hub sits on its shaft."""
    return Field(
        key="standout_mm",
        kind="length",
        label="Shaft end stands out of the hub face",
        detail="0 when flush; minus when the shaft ends inside",
        unit="mm",
    )


def screw_step(job: JobFacts, side: Side) -> str:
    """The key of the step that torques a hub's set screws: a hub that slides last, once the gap is right."""
    if side == job.first():
        return "mount.screw"
    return "couple.screw" if job.closes_by_hub else "mount.screw.second"


def last_mount_step(job: JobFacts, side: Side) -> str:
    """The step that ends mounting this hub: what comes next on either hub waits for it."""
    hub = job.line.hub(side)
    if hub.connection == "tapered bore":
        return f"mount.nut.{side}"
    stays_light = job.closes_by_hub and side == job.second()
    if hub.set_screws and not stays_light:
        return screw_step(job, side)
    return f"mount.hub.{side}" if hub.slides else f"mount.cold.{side}"


def set_screw(job: JobFacts, side: Side, stage: Stage, after: tuple[str, ...]) -> list[Step]:
    """A hub's set screws to torque, where it has any."""
    name, hub = job.line.machine(side).called, job.line.hub(side)
    if not hub.set_screws:
        return []
    return [
        Step(
            key=screw_step(job, side),
            stage=stage,
            title=f"Torque the set screw, {name} hub",
            why="Slack: the hub wanders. Overdone: key, shaft or hub is marked.",
            tool="torque wrench with hex bit",
            caution=bolts.thread_words(job, SCREW_TORQUE),
            after=after,
            needs=(SCREW_TORQUE,),
            relies=frozenset({hub_fact(job, side)}),
            may_authorise=True,
            form=BenchForm(
                bench="tighten", preset=bolts.bolts_preset(job, SCREW_TORQUE, hub.set_screws, passes=[1.0], pattern="circle")
            ),
            on_fail="Slacken it and pull it once more, one click.",
        )
    ]


def recheck(job: JobFacts, side: Side) -> tuple[Field, ...]:
    """The set screw once more before release."""
    if not job.line.hub(side).set_screws:
        return ()
    torque = bolts.torque_words(job, SCREW_TORQUE)
    key = "screw_first" if side == job.first() else "screw_second"
    return (Field(key=key, kind="condition", label=f"Set screw, {job.line.machine(side).called} hub", detail=torque),)


def hub_fact(job: JobFacts, side: Side) -> Fact:
    """The place of this hub on its shaft, as a fact that readings rely on."""
    return Fact.FIRST_HUB if side == job.first() else Fact.SECOND_HUB


def fit_fact(job: JobFacts, side: Side) -> Fact:
    """What was measured of this hub and its shaft: a decision and a temperature rest on it."""
    return Fact.FIRST_FIT if side == job.first() else Fact.SECOND_FIT


def heat_fact(job: JobFacts, side: Side) -> Fact:
    """The temperature worked out for this hub: a run goes by it."""
    return Fact.FIRST_HEAT if side == job.first() else Fact.SECOND_HEAT


def decide(
    job: JobFacts, side: Side, after: tuple[str, ...], options: tuple[str, ...], *ticks: Field, provisional: bool = False
) -> Step:
    """Whoever mounts the hub says how, with a reason; anything but the first of the ``options`` stops it."""
    name = job.line.machine(side).called
    return Step(
        key=f"prepare.decide.{side}",
        stage=Stage.PREPARE,
        title=f"Decide the fit, {name}",
        why="Whoever mounts it says that it fits, with a reason, before the hub is on the shaft.",
        after=after,
        relies=frozenset({fit_fact(job, side)}),
        leaves_provisional=f"{name}: set screw backed out, not yet torqued" if provisional else "",
        settled_by=screw_step(job, side) if provisional else "",
        form=SheetForm(
            fields=(
                Field(key="decision", kind="choice", label="This hub", options=options),
                Field(key="reason", kind="text", label="Because"),
                *ticks,
            )
        ),
        judge=lambda answers: _judge_decision(answers, options[0]),
        on_fail="Needs work: after the work, clean and measure again. Refused: mark the hub so that it stays out.",
    )


def _judge_decision(answers: Answers, good: str) -> tuple[list[Check], list[str]]:
    """Over where whoever decides does not want the hub mounted."""
    decision = answers.get("decision")
    if decision in (None, "", good):
        return [], []
    check = said_by_hand("decision", "the person who decides", in_order=False)
    return [check], [f"Decided: {decision}. The hub is not mounted like this."]


def _fit_preset(job: JobFacts, low: str, high: str) -> dict[str, Any]:
    if low not in job.card or high not in job.card:
        return {}
    band = {"min_mm": job.card[low].value, "max_mm": job.card[high].value, "source": source_of(job.card, high)}
    return {"required": band}
