"""A hub on a tapered shaft end, drawn up hot to a mark and held by a lock nut."""

import json
from collections.abc import Mapping, Sequence
from typing import Any

from ...benches.taper.evaluate import Cone, TaperInput, evaluate
from ...benches.tighten.pulls import BAND_SHARE, BAND_SOURCE
from ...card.values import source_of
from ...line import Side
from ...meaning import Meaning, Of
from ...model import read_json
from ...say import mm, say
from ...units import MM_PER_INCH
from ...verdict import Judged, judge
from .. import torques
from ..fields import Field, choice, length, number, tick
from ..hints import HeatHints, TaperHints
from ..order import Part, any_order, in_order
from ..steps import AFTER_THE_MICROMETER, Answers, BenchForm, Fact, JobFacts, SheetForm, Stage, Step
from . import heated, keyed, running_true, surfaces

SAME_TRY_K = 1.0  # a temperature this near was tried already
HAND_TIGHT = "hand_tight_mm"
NUT_TORQUE = "lock_nut_torque_nm"
INTERFERENCE, MISMATCH, CONTACT = "taper_interference_mm", "taper_mismatch_mm", "taper_contact_percent"
VALUES = (INTERFERENCE, MISMATCH, CONTACT, "hub_ceiling_c", NUT_TORQUE)
BY_ITS_NUT = "draw it up cold, by its nut"
DECISIONS = ("heat it and draw it up", "rework the hub", "reject the hub")
A_KEY, NO_KEY = ON_A_TAPER = ("a key", "no key")


def prepare(job: JobFacts, side: Side) -> Part:
    """Clean and dry, measure and blue, decide, work out the heat."""
    name = job.line.machine(side).called
    wanted = tuple(job.key(key, side) for key in (INTERFERENCE, MISMATCH, CONTACT))
    blued = Step(
        key=f"prepare.taper.{side}",
        stage=Stage.PREPARE,
        title=f"Measure and blue the taper, {name}",
        why="Tapers that differ bear at one end only; the blue shows what the micrometer cannot.",
        tool="micrometers, depth gauge, thin layout blue",
        changes=frozenset({job.fit_fact(side)}),
        relies=frozenset({job.refused_fact(side)}),
        needs=wanted,
        may_authorise=True,
        form=BenchForm(bench="taper", preset={**_taper_preset(job, side), "must_have": ["contact"]}),
        on_fail="Clean, thinner blue, try again. Tapers that do not match go back to the maker or the shop.",
    )
    asked = job.terms.edition >= AFTER_THE_MICROMETER
    has_key = asked and job.answers.get(f"prepare.clean.{side}", {}).get("has") != NO_KEY
    key = [keyed.measured_key(job, side)] if has_key else []
    heat = [] if is_drawn_cold(job, side) else [_plan(job, side)]
    return in_order(
        surfaces.clean(
            job,
            side,
            what="both tapers",
            why="Debris keeps a taper from seating true. Nothing is put on it: it holds dry.",
            takes=surfaces.FRICTION_TAKES,
            ticks=(
                tick("coating", "Preservative off shaft, bore, keyway, nut and thread"),
                tick("burrs", "Burrs and dents taken off at keyway edges and ends"),
                tick("wiped", "Both tapers wiped lint-free"),
                choice("has", "This taper has", *ON_A_TAPER)
                if asked
                else tick("key", "Key tried: snug sideways, room on top, if there is one"),
            ),
        ),
        any_order(*running_true.bare_shaft(job, side, wanted=False), blued, *key),
        keyed.decide(
            job,
            side,
            DECISIONS,
            tick("blue_off", "Blue wiped off both tapers again"),
            tick("element_out", "No elastomer left in the hub"),
            takes=surfaces.FRICTION_TAKES,
            as_well=(BY_ITS_NUT,) if asked else (),
        ),
        *heat,
    )


def is_drawn_cold(job: JobFacts, side: Side) -> bool:
    """Its nut alone draws it up to the mark, as some small hubs are."""
    return job.answers.get(f"prepare.decide.{side}", {}).get("decision") == BY_ITS_NUT


def _plan(job: JobFacts, side: Side) -> Step:
    return heated.plan_heat(
        job,
        side,
        why="On a taper the temperature decides where the hub stops. Clearance only for what the carry costs.",
        caution="The ceiling is the maker's. After a miss the new temperature comes from what was reached.",
        needs=(job.key("hub_ceiling_c", side),),
        form=BenchForm(bench="heat", preset=_heat_preset(job, side), suggest=_heat_suggest(job, side)),
    )


def mount(job: JobFacts, side: Side) -> Part:
    """The gate, hand tight and the mark, the run, the draw-up reached, the lock nut."""
    name = job.line.machine(side).called
    nut = job.key(NUT_TORQUE, side)
    torque = torques.torque_words(job, nut)
    hot = heated.hot_run(
        job,
        side,
        title=f"Heat the {name} hub and push it up to where it stops",
        why="Fast, to where the temperature lets it go; then compare with the mark.",
    )
    hand_tight = (
        length(HAND_TIGHT, "Stand-out of the shaft, hand tight", "tried on cold and clean; negative: the hub overhangs it"),
        tick("mark", "Draw-up marked on the shaft from there", _draw_up(job, side)),
    )
    cold = is_drawn_cold(job, side)
    on = _by_its_nut(job, side, hand_tight) if cold else [*heated.before_the_run(job, side, *hand_tight), hot]
    return in_order(
        *on,
        *([] if cold else [heated.cold_check(job, side)]),
        Step(
            key=f"mount.draw.{side}",
            means=(Meaning(of=Of.DRAW_UP, at=side),),
            stage=Stage.MOUNT,
            title=f"Measure the draw-up, {name} hub",
            why="The draw-up is the interference: too little slips, too much bursts.",
            tool="depth gauge over hub face and shaft end",
            caution="" if cold else "Missed: take it off, and let hub and shaft both cool before the next try.",
            needs=(job.key(INTERFERENCE, side),),
            relies=frozenset({job.hub_fact(side)}),
            over_changes=frozenset() if cold else frozenset({job.missed_fact(side)}),
            may_authorise=True,
            form=BenchForm(
                bench="taper",
                preset={**_taper_preset(job, side), **_ceiling(job, side), "must_have": ["draw-up"]},
                suggest=_draw_suggest(job, side),
            ),
            on_fail="Short of it: draw on by the nut, then measure again. Past it: off, and look at both tapers."
            if cold
            else "Off again, with the nut left on a few turns. Calculate the heat anew, then heat it again.",
        ),
        Step(
            key=f"mount.nut.{side}",
            stage=Stage.MOUNT,
            title=f"Lock the nut, {name} hub",
            why="A nut tightened on a hot hub goes slack as it cools.",
            tool="torque wrench, hook or socket for the nut",
            caution=f"Only on a cold hub. {torques.thread_words(job, nut)}".strip(),
            needs=(nut,),
            relies=frozenset({job.hub_fact(side), torques.moved(f"nut_{side}")}),
            changes=frozenset({Fact.FASTENERS}),
            form=SheetForm(
                fields=(
                    number("torque_nm", "Lock nut pulled to", "N·m", torque),
                    tick("screw", "Then its set screw or tab locked"),
                    length("face_mm", "Hub face to shaft end", "the figure to come back to at the next refit"),
                )
            ),
            judge=lambda job, answers: _judge_nut(job, side, answers),
            on_fail="Pull it to its torque, on a cold hub.",
        ),
        *running_true.tight(job, side, wanted=False),
    )


def _by_its_nut(job: JobFacts, side: Side, hand_tight: Sequence[Field]) -> list[Step]:
    """The gate, hand tight and the mark, and the nut that draws it up."""
    name = job.line.machine(side).called
    return [
        keyed.loose_parts(job, side),
        Step(
            key=f"mount.ready.{side}",
            stage=Stage.MOUNT,
            title=f"Try the {name} hub on hand tight, and mark the draw-up",
            why="From hand tight the draw-up is measured. Once the nut has pulled, nobody finds that place again.",
            tool="depth gauge",
            form=SheetForm(fields=(*hand_tight, tick("dry", "Both tapers dry, the key in and the hub pushed on by hand"))),
        ),
        Step(
            key=f"mount.pull.{side}",
            stage=Stage.MOUNT,
            title=f"Draw the {name} hub up by its nut, cold",
            why="The nut's thread pulls it up the taper; the mark says when it is enough.",
            tool="hook or socket for the nut",
            caution="No hammer on the hub. Stop at the mark: past it the hub is stretched too far.",
            changes=frozenset({job.hub_fact(side)}),
            form=SheetForm(
                fields=(
                    tick("thread", "Thread and face of the nut oiled, the tapers not"),
                    tick("drawn", "Drawn up to the mark, in small steps"),
                    keyed.standout(job, side),
                )
            ),
        ),
    ]


def _judge_nut(job: JobFacts, side: Side, answers: Answers) -> Judged:
    """The nut's torque as closely as a wrench in calibration repeats; the hub's place against where it was found."""
    nut, pulled, face = job.key(NUT_TORQUE, side), answers.get("torque_nm"), answers.get("face_mm")
    checks, advice = [], []
    if isinstance(pulled, int | float) and nut in job.card:
        torque = job.card[nut].value
        low, high = torque * (1 - BAND_SHARE), torque * (1 + BAND_SHARE)
        source = f"{source_of(job.card, nut)}; {BAND_SOURCE}"
        checks.append(judge("lock_nut", "lock nut", pulled, "N·m", low=low, high=high, source=source))
    found = job.answers.get(keyed.AS_FOUND, {}).get(f"standout_{side}_mm")
    if isinstance(face, int | float) and isinstance(found, int | float):
        source = "stand-out before it came off"
        checks.append(judge("place", "place against as found", face - found, "mm", source=source))
        text = "Found at {found}, now {now}. The same hub on the same shaft comes back to its place."
        advice.append(say("back_to_its_place", text, found=mm(found, None), now=mm(face, None)))
    return checks, advice


def nut_title(job: JobFacts, side: Side) -> str:
    """The lock nut as it is called."""
    return f"Lock nut, {job.line.machine(side).called} hub"


def recheck(job: JobFacts, side: Side) -> tuple[Field, ...]:
    """The lock nut once more before release."""
    return (torques.checked_again(job, f"nut_{side}", nut_title(job, side), job.key(NUT_TORQUE, side)),)


def _taper_preset(job: JobFacts, side: Side) -> dict[str, Any]:
    card = job.card
    interference, mismatch, contact = (job.key(key, side) for key in (INTERFERENCE, MISMATCH, CONTACT))
    preset: dict[str, Any] = {}
    if interference in card:
        preset["interference_mm"] = card[interference].value
    if mismatch in card:
        preset["mismatch_max_mm"] = card[mismatch].value
        preset["mismatch_source"] = source_of(card, mismatch)
    if contact in card:
        preset["contact_min"] = card[contact].value / 100
        preset["contact_source"] = source_of(card, contact)
    return preset


def _ceiling(job: JobFacts, side: Side) -> dict[str, Any]:
    """No next try is worked out above what the hub may have."""
    key = job.key("hub_ceiling_c", side)
    return {"ceiling_c": job.card[key].value} if key in job.card else {}


def _draw_up(job: JobFacts, side: Side) -> str:
    """How far the hub goes on from hand tight, where its taper was measured: on the sheet on which the mark is made."""
    measured, interference = job.answers.get(f"prepare.taper.{side}", {}).get("shaft"), job.key(INTERFERENCE, side)
    if not measured or interference not in job.card:
        return ""
    advance = job.card[interference].value / Cone.model_validate(measured).taper
    return f"it goes on by {advance:.2f} mm ({advance / MM_PER_INCH:.4f} in): so much more shaft stands out"


def _heat_preset(job: JobFacts, side: Side) -> dict[str, Any]:
    card, ceiling, interference = job.card, job.key("hub_ceiling_c", side), job.key(INTERFERENCE, side)
    if ceiling not in card or interference not in card:
        return {}
    return {
        "interference_mm": card[interference].value,
        "seat": "taper",
        "ceiling_c": card[ceiling].value,
        "ceiling_source": source_of(card, ceiling),
    }


def _heat_suggest(job: JobFacts, side: Side) -> HeatHints:
    """The mean diameter of the measured bore, and after a missed draw-up the next temperature. Only fills the sheet."""
    hub = job.line.hub(side)
    bore: Mapping[str, Any] = job.answers.get(f"prepare.taper.{side}", {}).get("bore", {})
    cone = Cone.model_validate(bore) if bore else None
    return HeatHints(
        assembly_clearance_mm=0.0,
        outside_mm=hub.diameter_mm,
        length_mm=hub.length_mm,
        heat_to_c=_next_try_c(job, side),
        bore_mm=round((cone.large_mm + cone.small) / 2, 6) if cone else None,
    )


def _draw_suggest(job: JobFacts, side: Side) -> TaperHints:
    """Hand tight as it was tried, and with what the hub was pushed on: what a next try is worked out from."""
    plan: Answers = job.answers.get(f"prepare.heat.{side}", {})
    hub_c, shaft_c = job.arrived_c.get(f"mount.hot.{side}", plan.get("heat_to_c")), plan.get("shaft_c")
    tried = hub_c is not None and shaft_c is not None
    return TaperHints(
        hand_tight_standout_mm=job.answers.get(f"mount.ready.{side}", {}).get(HAND_TIGHT),
        hub_c=hub_c if tried else None,
        shaft_c=shaft_c if tried else None,
    )


def _next_try_c(job: JobFacts, side: Side) -> float | None:
    """The next temperature after a draw-up that missed its mark; None where there is none that has not been tried."""
    drawn: Answers = job.answers.get(f"mount.draw.{side}", {})
    if not drawn.get("attempt"):
        return None
    found = evaluate(read_json(TaperInput, json.dumps({**drawn, **_ceiling(job, side)}))).next_hub_c
    if found is None or abs(found - drawn["attempt"]["hub_c"]) < SAME_TRY_K:
        return None
    return float(round(found))
