"""Composes a route: safety, receiving, each hub by how it is held, the family's own assembly, closing."""

from collections.abc import Callable
from dataclasses import dataclass, replace

from ..coupling.families import FAMILIES
from ..line import Side
from . import assemble, gear, jaw
from .hubs import heated, keyed, screw_held, slid_on, tapered
from .stages import as_found, before_setting, close_out, make_safe, receive, set_and_align, take_off
from .steps import Field, JobFacts, Scope, Stage, Step


@dataclass(frozen=True, kw_only=True)
class FamilySteps:
    """What a family adds to the route; most go by the list of their facts."""

    prepare: Callable[[JobFacts], list[Step]] = before_setting.shaft_ends
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
        prepare=slid_on.prepare,
        mount=slid_on.mount,
        couple=slid_on.couple,
        recheck=keyed.recheck,
        values=slid_on.VALUES,
    ),
    "keyed, interference": HubSteps(
        prepare=heated.prepare,
        mount=heated.mount,
        couple=heated.couple,
        recheck=keyed.recheck,
        values=heated.VALUES,
    ),
    "tapered bore": HubSteps(
        prepare=tapered.prepare,
        mount=tapered.mount,
        couple=heated.couple,
        recheck=tapered.recheck,
        values=tapered.VALUES,
    ),
    **{held: _screws(device.values) for held, device in screw_held.DEVICES.items()},
}


def build(job: JobFacts) -> list[Step]:
    """The steps of a job in working order."""
    off = [] if job.scope is Scope.FIT else take_off.steps(job)
    if job.scope is Scope.TAKE_OFF:
        return [
            *make_safe.steps(job),
            make_safe.second_proof(("safe.try",), Stage.TAKE_OFF),
            *off,
            *close_out.put_away(job, off[-1].key),
        ]
    if job.scope in (Scope.ALIGN, Scope.CHECK):
        return [*make_safe.steps(job), make_safe.second_proof(("safe.try",), Stage.FOUND), *_look(job)]
    received = receive.steps(job)
    return [
        *make_safe.steps(job),
        *received,
        make_safe.second_proof(("safe.try", *(step.key for step in received)), Stage.TAKE_OFF if off else Stage.PREPARE),
        *off,
        *_fit(job, off[-1].key if off else None),
    ]


def _look(job: JobFacts) -> list[Step]:
    """As found, and where it is to be aligned: opened or not, moved, read and closed again."""
    found = as_found.as_found(job)
    if job.scope is Scope.CHECK or job.family.hangs:
        return [*found, *close_out.steps(job, tuple(step.key for step in found), torqued=None)]
    if not as_found.opened(job):
        up = as_found.aligned_closed(job, (found[-1].key,))
        return [*found, *up, *close_out.steps(job, (up[-1].key,), torqued=())]
    parted = as_found.part(job, found[-1].key)
    up = _set_and_couple(job, (parted.key,))
    second = HUB_STEPS[job.line.hub(job.second()).connection].recheck(job, job.second()) if job.closes_by_hub else ()
    return [*found, parted, *up, *close_out.steps(job, (up[-1].key,), torqued=(*second, *assemble.recheck(job)))]


def _fit(job: JobFacts, off: str | None) -> list[Step]:
    """From clean shafts to the signed record; where it was taken off first, after that step."""
    hubs = [(side, HUB_STEPS[job.line.hub(side).connection]) for side in job.order()]
    prepare = [*_family(job).prepare(job), *(step for side, hub in hubs for step in hub.prepare(job, side))]
    if off is not None:
        prepare = [replace(step, after=(*step.after, off)) if step.after == ("prepare.dead",) else step for step in prepare]
    mount: list[Step] = []
    on: tuple[str, ...] = ()  # the steps that end mounting a hub
    for side, hub in hubs:
        mount += hub.mount(job, side, on[-1:])
        on += (mount[-1].key,)
    up = _set_and_couple(job, on)
    screws = (*(f for side, hub in hubs for f in hub.recheck(job, side)), *assemble.recheck(job))
    return [*prepare, *mount, *up, *close_out.steps(job, (up[-1].key,), torqued=screws)]


def _set_and_couple(job: JobFacts, mounted: tuple[str, ...]) -> list[Step]:
    """From hubs on their shafts to the finished coupling: what cannot go in later, the machines set, coupled up."""
    before = _family(job).before_setting(job, mounted)
    mounted = tuple(step.key for step in before) or mounted
    setting_steps = [] if job.family.hangs else set_and_align.steps(job, after=mounted)
    couple_up = _family(job).couple_up(job)
    if job.family.hangs:
        couple_up[0] = replace(couple_up[0], after=mounted)
    last = job.second()
    couple_up += HUB_STEPS[job.line.hub(last).connection].couple(job, last, couple_up[-1].key)
    return [*before, *setting_steps, *couple_up]


def _family(job: JobFacts) -> FamilySteps:
    return FAMILY_STEPS.get(job.line.coupling.family, BY_ITS_LIST)


def values_of_family(family: str) -> tuple[str, ...]:
    """The keys of the value card that a route of this family can ask for, whatever holds its hubs."""
    return FAMILIES[family].values


def values_of_connection(connection: str) -> tuple[str, ...]:
    """The keys of the value card that a way of holding a hub asks for."""
    return HUB_STEPS[connection].values
