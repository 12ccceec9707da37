"""Jobs as the client sees them: the core's route put into plain schemas."""

import json
from collections.abc import Mapping
from dataclasses import asdict
from datetime import datetime
from typing import Any

from django.utils import timezone

from millwright.benches.heat.io import HeatInput
from millwright.card.values import ValueCard, say_value, value_kind
from millwright.job.called import SLIP, called
from millwright.job.entry import EntryKind, SignatureKind
from millwright.job.hot_run import HeatRun, Until, stand_run
from millwright.job.now import Block, RouteNow, StepNow, StepState
from millwright.job.proved import proofs
from millwright.model import read_json
from millwright.plan.read_with import READ_WITH
from millwright.plan.steps import BenchForm, Step, form_as_shown
from millwright.say import words

from .before import left_before
from .covered import covered_from, is_covered
from .models import Entry, Job, Signature

MOST_READ_BY_HAND = 36  # on one dial; more came in a sweep

# What the client is told of a step as the core has it.
PLAIN = (
    "key",
    "stage",
    "title",
    "why",
    "tool",
    "caution",
    "on_fail",
    "photograph",
    "hold",
    "no_return",
    "moves",
    "optional",
    "hands_on",
)


def job_out(job: Job, reader: str) -> dict[str, Any]:
    """A whole job, as ``reader`` may see it. Three queries besides the job's own: entries, signatures, and what the job
    before it left."""
    entries, signatures = list(job.entries.all()), list(job.signatures.all())
    # All of each entry: what was read suggests what comes next.
    route = job.stand_after([entry.as_core for entry in entries], left_before(job))
    covered = covered_from(route, reader)
    return {
        "id": job.id,
        "number": job.number,
        "title": job.title,
        "scope": job.scope,
        "tasks": job.tasks,
        "unit": job.unit,
        "line_id": job.line_id,
        "line_name": job.line.name,
        "spec": job.as_spec,
        "started_by": job.started_by,
        "started_at": job.started_at,
        "closed": job.closed,
        "cancelled_by": job.cancelled_by,
        "cancelled_because": job.cancelled_because,
        "read_in": came_from(job, signatures),
        "now": timezone.now(),
        "steps": [_step(now, route, entries, covered, reader) for now in route.steps],
        "next": first.step.key if (first := route.next()) else None,
        "card": route.card,
        "provisional": route.provisional,
        "proofs": proofs(route, {str(e.id) for e in entries if e.result and e.result.get("as_it_is")}),
        "opening": route.opening,
        "locks": asdict(route.locks),
        "ledger": [{**asdict(line), "open": line.open} for line in route.ledger],
        "questions": [q.id for q in route.questions],
        "may_be_slip": route.may_be_slip.id if route.may_be_slip else None,
        "held": route.held,
        "skins": route.skins,
        "entries": _shown([entry for entry in entries if not is_covered(entry, covered)]),
        "signatures": signatures,
    }


def came_from(job: Job, signatures: list[Signature]) -> dict[str, Any] | None:
    """Of a job from a file: where it came from, and who took it over here."""
    if job.read_in is None:
        return None
    last = job.read_in.get("numbers", job.last_number)
    taken = [s for s in signatures if s.kind == SignatureKind.TAKE_OVER and s.number > last]
    by = {"taken_over_by": taken[-1].by, "taken_over_at": taken[-1].at} if taken else {}
    return {**job.read_in, **by}


def _shown(entries: list[Entry]) -> list[Entry]:
    """With what each is called; a sweep that was read again is told of, not sent."""
    labels = called((entry.as_core for entry in entries), last="as it stands")
    latest = {e.step: e.id for e in entries if e.kind == EntryKind.READING and labels[str(e.id)] != SLIP}
    for entry in entries:
        entry.label = labels[str(entry.id)]
        entry.slip = entry.label == SLIP
        entry.left_out = entry.id not in latest.values() and _is_sweep(entry)
        if entry.left_out:
            entry.inputs = {**entry.inputs, "dials": [{**dial, "readings": []} for dial in entry.inputs["dials"]]}
    return entries


def _is_sweep(entry: Entry) -> bool:
    return any(len(dial["readings"]) > MOST_READ_BY_HAND for dial in entry.readings.get("dials", ()))


def _heat_run(now: StepNow, route: RouteNow, entries: list[Entry]) -> HeatRun | None:
    """The run of a hub that is heated in this step, by the plan as it was last worked out."""
    plan = route.find(now.step.heat_plan)
    current = next((e for e in entries if plan and plan.current and str(e.id) == plan.current.id), None)
    if current is None:
        return None
    events = [e.as_core for e in entries if e.step == now.step.key and e.kind == EntryKind.EVENT]
    return stand_run(read_json(HeatInput, json.dumps(current.inputs)), events)


def _cold_at(hot: str, route: RouteNow, entries: list[Entry]) -> datetime | None:
    """When a hub is cold enough for the step that waits for it; None where nothing is waited for, or not yet known."""
    run = (now := route.find(hot)) and _heat_run(now, route, entries)
    return run.touch_at if run else None


def hot_hub(route: RouteNow, entries: list[Entry]) -> dict[str, Any] | None:
    """What is waited for of a hub that is hot, the most pressing; None where none is."""
    waits = []
    for now in route.steps:
        run = _heat_run(now, route, entries) if now.step.heat_plan else None
        cold = next((n for n in route.steps if n.step.waits_for == now.step.key), None)
        if run and not (cold and cold.settled) and (wait := run.waits) is not None:
            waits.append(wait)
    first = min(waits, key=lambda wait: (list(Until).index(wait[0]), wait[1]), default=None)
    return {"until": first[0], "at": first[1]} if first else None


def _step(now: StepNow, route: RouteNow, entries: list[Entry], covered: Mapping[str, str], reader: str) -> dict[str, Any]:
    step = now.step
    plain = {name: getattr(step, name) for name in PLAIN}
    return {
        **plain,
        "means": [one.of for one in step.means],
        "may_authorise": step.may_authorise,
        "needs": step.needs,
        "heat_plan": step.heat_plan,
        "run": step.run,
        "readied_by": step.readied_by,
        "heat_run": _heat_run(now, route, entries) if step.heat_plan else None,
        "not_before": _cold_at(step.waits_for, route, entries),
        "form": form_as_shown(step.form, compares=step.second_to not in route.covered),
        "covered": covered.get(step.key, ""),
        "second_to": step.second_to,
        "reads_with": READ_WITH.get(step.form.bench, ()) if isinstance(step.form, BenchForm) else (),
        "sketch": step.sketch(now.job) if step.sketch else None,
        "accepted_by": _accepted_by(step, route.card),
        "state": now.state,
        "blocked_by": [*now.blocks, *_takes_another(now, route, reader)],
        "stale_because": now.stale_because,
        "current": now.current.id if now.current else None,
        "signed": now.signed.id if now.signed else None,
        "authorised": now.authorised.id if now.authorised else None,
    }


def _takes_another(now: StepNow, route: RouteNow, reader: str) -> list[Block]:
    """Whoever answered the first is told before they begin that the second takes another person."""
    if route.covered.get(now.step.second_to) != reader:
        return []
    return [Block("You answered the first. Another person signs in and answers this one.", now.step.second_to)]


def _accepted_by(step: Step, card: ValueCard) -> list[dict[str, Any]]:
    """Of the lines a step goes by those the card has."""
    keys = [key for key in dict.fromkeys((*step.needs, *step.judged_by)) if key in card]
    lines = [(card[key], kind) for key in keys if (kind := value_kind(key)) is not None]
    return [{"title": kind.title, "value": say_value(value, kind), "source": value.source.say()} for value, kind in lines]


def standing(route: RouteNow, entries: Mapping[str, Entry]) -> dict[str, Any]:
    """Where an open job stands: the first step that is not done, and the worst check of what was last read."""
    now = route.next() or route.steps[-1]
    result = (entries[now.current.id].result or {}) if now.current else {}
    judged = [c for c in result.get("checks", []) if c["used"] is not None]
    check = max(judged, key=lambda c: c["used"], default=None)
    return {
        "stage": now.step.stage,
        "step": now.step.key,
        "step_title": now.step.title,
        "state": now.state,
        "verdict": result.get("verdict"),
        "headline": now.stale_because if now.stale_because else words(now.blocked_by[0] if now.blocked_by else ""),
        "signs": now.step.hold if now.state is StepState.TO_SIGN else None,
        "proven": result.get("proven") if not result.get("as_it_is") else None,
        "used": check["used"] if check else None,
        "of": check["name"] if check else "",
    }
