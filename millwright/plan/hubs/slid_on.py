"""A hub held by a key and set screws, slid on by hand: preparing it and mounting it."""

from ...line import Side
from ..families.facts import PLACE_VALUES
from ..fields import tick
from ..order import Part, any_order, in_order
from ..steps import JobFacts, SheetForm, Stage, Step
from . import keyed, running_true, surfaces
from .place import judge_place

VALUES = (*keyed.CLEARANCE, "set_screw_torque_nm")


def prepare(job: JobFacts, side: Side) -> Part:
    """Clean, measure, decide."""
    has_screws = job.line.hub(side).set_screws > 0
    measured = keyed.measure(
        job,
        side,
        keyed.CLEARANCE,
        "Look for a burr and measure again. Too tight to slip: refuse it, have it reworked, or with the lead heat it.",
    )
    return in_order(
        keyed.clean(job, side),
        any_order(*running_true.bare_shaft(job, side, wanted=False), *measured),
        keyed.decide(
            job,
            side,
            keyed.SLIPS_ON,
            tick("seated", "Key fully seated, its end flush"),
            tick("snug", "Key snug sideways, yet slides without binding"),
            tick("dry_fit", "Hub tried on cold: it slides and turns freely"),
            tick("screw_clear", "Set screw backed out clear of bore and keyway, or out and kept in the ledger"),
            takes=surfaces.KEYED_TAKES,
            provisional=has_screws,
        ),
    )


def mount(job: JobFacts, side: Side) -> Part:
    """The gate, the hub, and its set screw: torqued on the first hub, light on the second."""
    first = side == job.first()
    stays_light = not first and job.closes_by_hub
    name = job.line.machine(side).called
    has_screws = job.line.hub(side).set_screws > 0
    slide = Step(
        key=f"mount.hub.{side}",
        stage=Stage.MOUNT,
        title=f"Slide the hub on the {name} shaft",
        why="It slides by hand without play. Where it ends is the drawing's to say; where none says, level with the shaft.",
        tool="straightedge over face and shaft end",
        caution="Never drive it on. If it resists: burr, key, screw or bore, in that order.",
        changes=frozenset({job.hub_fact(side)}),
        form=SheetForm(
            fields=(
                tick("by_hand", "It went on by hand", surfaces.said(job, side)),
                tick("flush", "Face and shaft end checked with a straightedge"),
                keyed.standout(job, side),
                *([tick("light", "Set screw just light, so that it can slide")] if stays_light and has_screws else []),
            )
        ),
        # One that stays light is slid again until the gap is right: where it was put first says nothing.
        judged_by=() if stays_light else tuple(job.key(key, side) for key in PLACE_VALUES),
        judge=None if stays_light else lambda job, answers: judge_place(job, side, answers),
        may_authorise=True,
        leaves_provisional=f"{name}: hub held by a light set screw only" if stays_light and has_screws else "",
        settled_by=keyed.screw_step(job, side) if stays_light and has_screws else "",
        on_fail="Take it off again. Look at the key first, then the bore.",
    )
    screw = [] if stays_light else keyed.set_screw(job, side, Stage.MOUNT)
    return in_order(keyed.loose_parts(job, side), slide, *screw, *running_true.tight(job, side, wanted=False))


def couple(job: JobFacts, side: Side) -> list[Step]:
    """The second hub's set screw, once the gap is right."""
    return keyed.set_screw(job, side, Stage.COUPLE) if job.closes_by_hub else []
