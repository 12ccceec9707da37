"""What every keyed hub wants, slid on cold or shrunk on hot: clean, measured, tried, gated, its set screw torqued."""

from collections.abc import Mapping
from typing import Any

from ...card.hub_lines import MAX_CLEARANCE, MAX_INTERFERENCE, MAY_GRIP, MIN_CLEARANCE, MIN_INTERFERENCE
from ...card.values import source_of
from ...line import SIDES, Connection, LineSpec, Side
from ...meaning import Meaning, Of
from ...say import mm, say
from ...verdict import Judged, said_by_hand
from .. import torques
from ..fields import FORMERLY, Field, choice, length, text, tick
from ..hints import KeyHints
from ..steps import AFTER_THE_MICROMETER, Answers, BenchForm, Fact, Happened, JobFacts, SheetForm, Stage, Step
from . import surfaces

SCREW_TORQUE = "set_screw_torque_nm"
AS_FOUND = "off.marks"  # the step that notes where everything was before it came off


SLIPS, HEAT = "slide it on by hand", "heat it and slide it on"
SLIPS_ON = (SLIPS, "rework the hub", "reject the hub")
# What was measured may say otherwise than the register: then the hub is mounted as it was decided.
DECIDED_OTHERWISE: dict[tuple[Connection, str], Connection] = {
    ("keyed, slip fit", HEAT): "keyed, interference",
    ("keyed, interference", SLIPS): "keyed, slip fit",
}
HALF_KEY = tick(
    "half_key",
    "Half key in the shaft's keyway, secured, clear of the bore",
    "it resists: look at the half key before the bore",
)


def clean(job: JobFacts, side: Side) -> Step:
    """Shaft and bore cleaned and dressed."""
    return surfaces.clean(
        job,
        side,
        what="shaft and bore",
        why="Dirt, burrs and preservative keep the hub from going on, or crooked. Paste keeps fretting off a keyed fit.",
        takes=surfaces.KEYED_TAKES,
        ticks=(
            tick("coating", "Preservative off shaft, bore, keyway"),
            tick("burrs", "Burrs, dents and sharp edges filed; the diameter left alone"),
            tick("rust", "Rust and fretting marks polished off"),
        ),
    )


CLEARANCE, INTERFERENCE = (MAX_CLEARANCE, MIN_CLEARANCE), (MIN_INTERFERENCE, MAX_INTERFERENCE)


def measure(job: JobFacts, side: Side, fit: tuple[str, str], on_fail: str, *, key: bool = True) -> list[Step]:
    """Fit, and ``key`` where there is one. ``fit`` - the lines of the card with the loosest and the tightest there may be."""
    shaft = job.line.machine(side)
    loosest, tightest = (job.key(line, side) for line in fit)
    if fit == CLEARANCE and job.key(MAY_GRIP, side) in job.card:
        tightest = job.key(MAY_GRIP, side)
    steps = [
        Step(
            key=f"prepare.fit.{side}",
            stage=Stage.PREPARE,
            title=f"Measure shaft and bore, {shaft.called}",
            why="The micrometer decides how the hub goes on, not its label.",
            tool="micrometers, outside and inside",
            changes=frozenset({job.fit_fact(side)}),
            relies=frozenset({job.refused_fact(side)}),
            needs=(loosest, tightest),
            may_authorise=True,
            form=BenchForm(bench="fit", preset=_fit_preset(job, loosest, tightest)),
            on_fail=on_fail,
        ),
    ]
    return [*steps, measured_key(job, side)] if key else steps


def measured_key(job: JobFacts, side: Side) -> Step:
    """The key against both keyways."""
    shaft, hub = job.line.machine(side), job.line.hub(side)
    return Step(
        key=f"prepare.key.{side}",
        stage=Stage.PREPARE,
        title=f"Measure and try the key, {shaft.called}",
        why="A rocking key works loose; a high one cracks the hub.",
        tool="micrometer, depth gauge",
        relies=frozenset({job.refused_fact(side)}),
        form=BenchForm(
            bench="key",
            preset={
                "shaft_diameter_mm": shaft.shaft_diameter_mm,
                **({"length_rule": "half key made up"} if hub.half_key else {}),
            },
            suggest=KeyHints(hub_length_mm=hub.length_mm),
        ),
        on_fail="Dress the key, never the hub. Then measure again.",
    )


def loose_parts(job: JobFacts, side: Side, *more: Field) -> Step:
    """The gate: what must hang on the shaft before the hub, and cannot be put there later."""
    family = job.family
    hung = (row(job, side) if callable(row) else row for row in family.before_hub)
    return Step(
        key=f"mount.loose.{side}",
        stage=Stage.MOUNT,
        title=f"Before the hub: what must already be on the {job.line.machine(side).called} shaft",
        why="Anything that will not pass over the hub goes on the shaft now. Once the hub is on there is no way back.",
        no_return=True,
        sketch=family.hung,
        form=SheetForm(
            fields=(
                tick("guard", "Guard back plate or shaft cover", none_of="this line has none"),
                tick("seals", "Seals, slingers and sensor rings of the machine", none_of="this shaft has none"),
                *(field for field in hung if field is not None),
                tick("way_round", f"The hub is the right way round: {family.way_round}"),
                *more,
            ),
            ordered=family.hung is not None,
        ),
    )


def standout(job: JobFacts, side: Side) -> Field:
    """Where the hub sits on its shaft, beside where it was found."""
    found = job.answers.get(AS_FOUND, {}).get(f"standout_{side}_mm")
    was = f"; as found {mm(found, None)}" if isinstance(found, int | float) else ""
    detail = f"0 when flush; minus when set back{was}"
    means = Meaning(of=Of.STAND_OUT, at=side)
    return length("standout_mm", "Stand-out of the shaft end from the hub face", detail, means=means)


def screw_step(job: JobFacts, side: Side) -> str:
    """The key of the step that torques a hub's set screws: a hub that slides last, once the gap is right."""
    if side == job.first():
        return "mount.screw"
    return "couple.screw" if job.closes_by_hub else "mount.screw.second"


def set_screw(job: JobFacts, side: Side, stage: Stage) -> list[Step]:
    """A hub's set screws to torque, where it has any."""
    name, hub = job.line.machine(side).called, job.line.hub(side)
    torque = job.key(SCREW_TORQUE, side)
    if not hub.set_screws:
        return []
    return [
        Step(
            key=screw_step(job, side),
            stage=stage,
            title=f"Torque the set screw, {name} hub",
            why="Slack: the hub wanders. Overdone: key, shaft or hub is marked.",
            tool="torque wrench with hex bit",
            caution=torques.thread_words(job, torque),
            needs=(torque,),
            relies=frozenset({job.hub_fact(side), torques.moved(_again(job, side))}),
            changes=frozenset({Fact.FASTENERS, screw_pulled(job, side)}),
            may_authorise=True,
            form=BenchForm(
                bench="tighten", preset=torques.bolts_preset(job, torque, hub.set_screws, passes=[1.0], pattern="circle")
            ),
            on_fail="Slacken it and pull it once more, one click.",
        )
    ]


def screw_pulled(job: JobFacts, side: Side) -> Happened:
    """A screw that is pulled shifts its hub: what was read before is read once more."""
    return Happened(f"screw pulled: {side}", f"the set screw of the {job.line.machine(side).called} hub was pulled")


def screw_title(job: JobFacts, side: Side) -> str:
    """A hub's set screw as it is called."""
    return f"Set screw, {job.line.machine(side).called} hub"


def _again(job: JobFacts, side: Side) -> str:
    return "screw_first" if side == job.first() else "screw_second"


def recheck(job: JobFacts, side: Side) -> tuple[Field, ...]:
    """The set screw once more before release."""
    if not job.line.hub(side).set_screws:
        return ()
    return (torques.checked_again(job, _again(job, side), screw_title(job, side), job.key(SCREW_TORQUE, side)),)


def decide(
    job: JobFacts,
    side: Side,
    options: tuple[str, ...],
    *ticks: Field,
    takes: tuple[str, ...],
    as_well: tuple[str, ...] = (),
    provisional: bool = False,
) -> Step:
    """Whoever mounts the hub says how and on what surface, with a reason; anything but the first of the ``options``, and
    what may be done ``as_well``, stops it, and the hub is measured again before it is decided anew.

    A keyed hub may be mounted otherwise than registered: the route is then that of the way decided on.
    """
    name, held = job.line.machine(side).called, job.line.hub(side).connection
    otherwise = (*as_well, *(decision for (way, decision) in DECIDED_OTHERWISE if way == held))
    good = (options[0], *otherwise)
    laid = (surfaces.laid(takes),) if job.terms.edition >= AFTER_THE_MICROMETER else ()
    return Step(
        key=f"prepare.decide.{side}",
        stage=Stage.PREPARE,
        title=f"Decide the fit, {name}",
        why="Whoever mounts it says that it fits, with a reason, before the hub is on the shaft.",
        relies=frozenset({job.fit_fact(side)}),
        leaves_provisional=f"{name}: set screw backed out, not yet torqued" if provisional else "",
        settled_by=screw_step(job, side) if provisional else "",
        form=SheetForm(
            fields=(
                choice("decision", "This hub", *options, *otherwise),
                text("reason", "Because"),
                *ticks,
                *laid,
            )
        ),
        judge=lambda job, answers: _judge_decision(answers, good, takes if laid else ()),
        upsets=lambda job, answers: frozenset() if answers.get("decision") in good else frozenset({job.refused_fact(side)}),
        on_fail="Rework: after the work, clean and measure again. Refused: mark the hub so that it stays out.",
    )


def as_decided(line: LineSpec, answers: Mapping[str, Answers]) -> LineSpec:
    """The line with each hub held as it was decided on, where that is not as registered."""
    hubs = {}
    for side in SIDES:
        hub = line.hub(side)
        decision = str(answers.get(f"prepare.decide.{side}", {}).get("decision"))
        decision = FORMERLY.get(decision, decision)
        if (way := DECIDED_OTHERWISE.get((hub.connection, decision))) is not None:
            hubs[f"{side}_hub"] = hub.model_copy(update={"connection": way})
    return line.model_copy(update={"coupling": line.coupling.model_copy(update=hubs)}) if hubs else line


def _judge_decision(answers: Answers, good: tuple[str, ...], takes: tuple[str, ...]) -> Judged:
    """Over where whoever decides does not want the hub mounted, or what is on the fit does not belong there."""
    decision = answers.get("decision")
    if decision in (None, "", *good):
        return surfaces.judge_laid(answers, takes) if takes else ([], [])
    check = said_by_hand("decision", "decision", "the person who decides", in_order=False)
    text = "Decided: {decision}. The hub is not mounted like this."
    return [check], [say("not_mounted", text, decision=str(decision))]


def _fit_preset(job: JobFacts, loosest: str, tightest: str) -> dict[str, Any]:
    """The fit as the bench takes it, interference as plus: on the card clearance is a plus figure."""
    if loosest not in job.card or tightest not in job.card:
        return {}
    low, high = (
        0.0 - job.card[line].value if line.startswith(CLEARANCE) else job.card[line].value for line in (loosest, tightest)
    )
    return {"required": {"min_mm": low, "max_mm": high, "source": source_of(job.card, tightest)}}
