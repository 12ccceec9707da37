"""Composes a route: safety, receiving, each hub by how it is held, the family's own assembly, closing."""

from collections.abc import Callable
from dataclasses import dataclass

from ..coupling.families import FAMILIES
from ..line import SIDES, LineSpec, Side
from . import close, gear, jaw, keyed, keyed_interference, keyed_slip, receive, safe, setting, tapered
from .steps import Field, JobFacts, Step


@dataclass(frozen=True, kw_only=True)
class FamilySteps:
    """What a family adds to the route."""

    prepare: Callable[[JobFacts], list[Step]]
    before_setting: Callable[[JobFacts], list[Step]]  # what cannot go in once the machines stand
    couple_up: Callable[[JobFacts], list[Step]]
    recheck: Callable[[JobFacts], tuple[Field, ...]]  # torques to pull a second time before release


@dataclass(frozen=True, kw_only=True)
class HubSteps:
    """What a way of holding a hub adds to the route, for each side."""

    prepare: Callable[[JobFacts, Side], list[Step]]
    mount: Callable[[JobFacts, Side], list[Step]]
    couple: Callable[[JobFacts, Side, str], list[Step]]  # what is left to do on it after that step
    recheck: Callable[[JobFacts, Side], tuple[Field, ...]]  # before release
    values: tuple[str, ...]  # keys of the value card this connection asks for


JAW = FamilySteps(prepare=jaw.prepare, before_setting=jaw.before_setting, couple_up=jaw.couple_up, recheck=lambda job: ())
GEAR = FamilySteps(prepare=gear.nothing, before_setting=gear.nothing, couple_up=gear.couple_up, recheck=gear.recheck)
FAMILY_STEPS: dict[str, FamilySteps] = {"jaw, straight": JAW, "jaw, curved": JAW, "gear": GEAR}
HUB_STEPS: dict[str, HubSteps] = {
    "keyed, slip fit": HubSteps(
        prepare=keyed_slip.prepare,
        mount=keyed_slip.mount,
        couple=keyed_slip.couple,
        recheck=keyed.recheck,
        values=keyed_slip.VALUES,
    ),
    "keyed, interference": HubSteps(
        prepare=keyed_interference.prepare,
        mount=keyed_interference.mount,
        couple=keyed_interference.couple,
        recheck=keyed.recheck,
        values=keyed_interference.VALUES,
    ),
    "tapered bore": HubSteps(
        prepare=tapered.prepare,
        mount=tapered.mount,
        couple=keyed_interference.couple,
        recheck=tapered.recheck,
        values=tapered.VALUES,
    ),
}


def why_no_route(line: LineSpec) -> str | None:
    """Why no route can be built for this line, or None where one can."""
    if line.coupling.family not in FAMILY_STEPS:
        known = " and ".join(FAMILY_STEPS)
        return f"There is a route for {known} couplings only. The quick benches serve this line."
    for side in SIDES:
        held = line.hub(side).connection
        if held not in HUB_STEPS:
            return f"There is a route for {' and '.join(HUB_STEPS)} hubs only; this one is {held}."
    return None


def build(job: JobFacts) -> list[Step]:
    """The steps of a job in working order. The line must have a route (`why_no_route`)."""
    family = FAMILY_STEPS[job.line.coupling.family]
    order: list[Side] = [job.first(), job.second()]
    hub = {side: HUB_STEPS[job.line.hub(side).connection] for side in SIDES}
    mount = [step for side in order for step in hub[side].mount(job, side)]
    before = family.before_setting(job)
    couple_up = family.couple_up(job)
    couple_up += hub[job.second()].couple(job, job.second(), couple_up[-1].key)
    return [
        *safe.steps(job),
        *receive.steps(job),
        safe.second_proof(),
        *family.prepare(job),
        *(step for side in order for step in hub[side].prepare(job, side)),
        *mount,
        *before,
        *setting.steps(job, after=tuple(step.key for step in before) or (mount[-1].key,)),
        *couple_up,
        *close.steps(
            job, couple_up[-1].key, (*(f for side in order for f in hub[side].recheck(job, side)), *family.recheck(job))
        ),
    ]


def values_of_family(family: str) -> tuple[str, ...]:
    """The keys of the value card that a route of this family can ask for, whatever holds its hubs."""
    facts = FAMILIES.get(family)
    return facts.values if facts else ()


def values_of_connection(connection: str) -> tuple[str, ...]:
    """The keys of the value card that a way of holding a hub asks for."""
    return HUB_STEPS[connection].values if connection in HUB_STEPS else ()
