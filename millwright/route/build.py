"""Composes a route: safety, receiving, each hub by how it is held, the family's own assembly, closing."""

from collections.abc import Callable
from dataclasses import dataclass

from ..coupling.families import ELEMENT_VALUES, FAMILIES
from ..line import SIDES, LineSpec, Side
from . import close, jaw, keyed_slip, receive, safe, setting
from .steps import JobFacts, Step


@dataclass(frozen=True, kw_only=True)
class FamilySteps:
    """What a family adds to the route."""

    prepare: Callable[[JobFacts], list[Step]]
    couple_up: Callable[[JobFacts], list[Step]]


@dataclass(frozen=True, kw_only=True)
class HubSteps:
    """What a way of holding a hub adds to the route, for each side."""

    prepare: Callable[[JobFacts, Side], list[Step]]
    mount: Callable[[JobFacts, Side], list[Step]]


FAMILY_STEPS: dict[str, FamilySteps] = {
    "jaw, straight": FamilySteps(prepare=jaw.prepare, couple_up=jaw.couple_up),
    "jaw, curved": FamilySteps(prepare=jaw.prepare, couple_up=jaw.couple_up),
}
HUB_STEPS: dict[str, HubSteps] = {
    "keyed, slip fit": HubSteps(prepare=keyed_slip.prepare, mount=keyed_slip.mount),
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
    order: list[Side] = [job.line.stationary, job.line.movable]
    hub = {side: HUB_STEPS[job.line.hub(side).connection] for side in SIDES}
    return [
        *safe.steps(job),
        *receive.steps(job),
        safe.second_proof(),
        *family.prepare(job),
        *(step for side in order for step in hub[side].prepare(job, side)),
        *(step for side in order for step in hub[side].mount(job, side)),
        *setting.steps(job),
        *family.couple_up(job),
        *close.steps(job),
    ]


def values_asked_by(family: str) -> tuple[str, ...]:
    """The keys of the value card that a route of this family can ask for."""
    facts = FAMILIES.get(family)
    return (*facts.values, *ELEMENT_VALUES) if facts else ()
