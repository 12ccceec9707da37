"""Every way of holding a hub by its name, and what it adds to the route for each side. Add one here."""

from collections.abc import Callable
from dataclasses import dataclass

from ...line import Side
from ..fields import Field
from ..order import Part
from ..steps import JobFacts, Step
from . import heated, keyed, screw_held, slid_on, tapered


@dataclass(frozen=True, kw_only=True)
class HubSteps:
    """What a way of holding a hub adds to the route."""

    prepare: Callable[[JobFacts, Side], Part]
    mount: Callable[[JobFacts, Side], Part]
    couple: Callable[[JobFacts, Side], list[Step]]  # what is left to do on it once the gap is right
    recheck: Callable[[JobFacts, Side], tuple[Field, ...]]  # before release
    values: tuple[str, ...]  # keys of the value card this connection asks for


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
    **{
        held: HubSteps(
            prepare=screw_held.prepare,
            mount=screw_held.mount,
            couple=screw_held.couple,
            recheck=screw_held.recheck,
            values=device.values,
        )
        for held, device in screw_held.DEVICES.items()
    },
}
