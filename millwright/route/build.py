"""Composes a route: safety, receiving, each hub by how it is held, the family's own assembly, closing."""

from collections.abc import Callable
from dataclasses import dataclass, replace

from ..coupling.families import FAMILIES
from ..line import Side
from . import (
    assemble,
    close,
    gear,
    jaw,
    keyed,
    keyed_interference,
    keyed_slip,
    receive,
    safe,
    screw_held,
    setting,
    take_off,
    tapered,
)
from .steps import Field, JobFacts, Scope, Stage, Step


@dataclass(frozen=True, kw_only=True)
class FamilySteps:
    """What a family adds to the route; most go by the list of their facts."""

    prepare: Callable[[JobFacts], list[Step]] = lambda job: []
    before_setting: Callable[[JobFacts, tuple[str, ...]], list[Step]] = lambda job, mounted: []  # cannot go in later
    couple_up: Callable[[JobFacts], list[Step]] = assemble.couple_up


@dataclass(frozen=True, kw_only=True)
class HubSteps:
    """What a way of holding a hub adds to the route, for each side."""

    prepare: Callable[[JobFacts, Side], list[Step]]
    mount: Callable[[JobFacts, Side, tuple[str, ...]], list[Step]]  # after those steps, of the hub before it
    couple: Callable[[JobFacts, Side, str], list[Step]]  # what is left to do on it after that step
    recheck: Callable[[JobFacts, Side], tuple[Field, ...]]  # before release
    values: tuple[str, ...]  # keys of the value card this connection asks for


JAW = FamilySteps(prepare=jaw.prepare, before_setting=jaw.before_setting, couple_up=jaw.couple_up)
BY_ITS_LIST = FamilySteps()
FAMILY_STEPS = {"jaw, straight": JAW, "jaw, curved": JAW, "gear": FamilySteps(couple_up=gear.couple_up)}


def _screws(values: tuple[str, ...]) -> HubSteps:
    return HubSteps(
        prepare=screw_held.prepare,
        mount=screw_held.mount,
        couple=screw_held.couple,
        recheck=screw_held.recheck,
        values=values,
    )


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
    **{held: _screws(device.values) for held, device in screw_held.DEVICES.items()},
}


def build(job: JobFacts) -> list[Step]:
    """The steps of a job in working order."""
    off = [] if job.scope is Scope.FIT else take_off.steps(job)
    if job.scope is Scope.TAKE_OFF:
        return [*safe.steps(job), safe.second_proof(("safe.try",), Stage.TAKE_OFF), *off, *close.put_away(job, off[-1].key)]
    received = receive.steps(job)
    return [
        *safe.steps(job),
        *received,
        safe.second_proof(("safe.try", *(step.key for step in received)), Stage.TAKE_OFF if off else Stage.PREPARE),
        *off,
        *_fit(job, off[-1].key if off else None),
    ]


def _fit(job: JobFacts, off: str | None) -> list[Step]:
    """From clean shafts to the signed record; where it was taken off first, after that step."""
    family = FAMILY_STEPS.get(job.line.coupling.family, BY_ITS_LIST)
    hubs = [(side, HUB_STEPS[job.line.hub(side).connection]) for side in job.order()]
    prepare = [*family.prepare(job), *(step for side, hub in hubs for step in hub.prepare(job, side))]
    if off is not None:
        prepare = [replace(step, after=(*step.after, off)) if step.after == ("prepare.dead",) else step for step in prepare]
    mount: list[Step] = []
    on: tuple[str, ...] = ()  # the steps that end mounting a hub
    for side, hub in hubs:
        mount += hub.mount(job, side, on[-1:])
        on += (mount[-1].key,)
    before = family.before_setting(job, on)
    mounted = tuple(step.key for step in before) or on
    setting_steps = [] if job.family.hangs else setting.steps(job, after=mounted)
    couple_up = family.couple_up(job)
    if job.family.hangs:
        couple_up[0] = replace(couple_up[0], after=mounted)
    last, last_hub = hubs[-1]
    couple_up += last_hub.couple(job, last, couple_up[-1].key)
    screws = (*(f for side, hub in hubs for f in hub.recheck(job, side)), *assemble.recheck(job))
    return [*prepare, *mount, *before, *setting_steps, *couple_up, *close.steps(job, couple_up[-1].key, screws)]


def values_of_family(family: str) -> tuple[str, ...]:
    """The keys of the value card that a route of this family can ask for, whatever holds its hubs."""
    return FAMILIES[family].values


def values_of_connection(connection: str) -> tuple[str, ...]:
    """The keys of the value card that a way of holding a hub asks for."""
    return HUB_STEPS[connection].values
