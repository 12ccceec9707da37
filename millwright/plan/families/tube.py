"""Composite tubes with flexible elements: one hub pushed back to let the tube in."""

from collections.abc import Callable
from dataclasses import replace

from ...card.values import source_of
from ...scope import Scope
from ...sketch import common
from ...verdict import Judged, judge
from ..counts import back, out_all
from ..fields import REMOVED, Field, condition, count, length, out, tick
from ..procedure import LightScrew, Procedure, Proof, Pull, Stop, bolts_of, expected
from ..steps import Answers, Fact, JobFacts
from .facts import BOLTED_ANGLE_VALUES, BOTH_ENDS, END_VALUES, HUBS, ClosedCheck, FamilyFacts, Part, at_both_ends, bolts

BUSHINGS, BOLTS, NUTS, SLING = "overload bushings", "bolts of the tube", "lock nuts of the tube", "sling on the tube"
PUSHED_BACK = "push_back_mm"
FACTS = FamilyFacts(
    family="composite tube",
    title="Composite tube with flexible elements",
    parts=(
        *HUBS,
        Part(key="tube", title="Tube with its elements", look_for="no scratch or impact mark on the tube"),
        Part(
            key="bushings",
            title="Overload bushings",
            look_for="they go in before the lock nuts",
            where="on the bolts, or in their bag",
            screws=BOTH_ENDS,
        ),
        bolts(*BOTH_ENDS),
    ),
    gap_taken="between the flanges of the hubs, before the tube goes in",
    values=(*BOLTED_ANGLE_VALUES, *END_VALUES, "end_face_mm"),
    closed=ClosedCheck(
        title="Measure hub to tube at both ends",
        why="The mean tells how far the elements are drawn or pressed; the ends tell of each other.",
        tool="caliper or feelers, at quarter turns",
        both_ends=True,
        values=END_VALUES,
        dial_limit="end_face_mm",
    ),
    takes="angle at two planes",
    way_round="flange toward the other shaft",
    closes_by_hub=True,
    may_also=(PUSHED_BACK,),
    circles=at_both_ends("tube bolts", held="bolt head"),
    finished=(
        condition("bushings", "Every bolt has its bushing, none turned against its element"),
        condition("tube", "Tube unmarked"),
    ),
)


def _fits(job: JobFacts) -> bool:
    return job.scope is Scope.FIT


def _counted_out(key: str, label: str, what: str) -> Callable[[JobFacts], Field]:
    """At both ends together, as many as the card says; where nothing goes back, only counted."""

    def row(job: JobFacts) -> Field:
        asked = out_all(key, f"{label}, both ends together", what, REMOVED, "driver_end", "driven_end")(job)
        return replace(asked, ledger=None) if job.scope is Scope.TAKE_OFF else asked

    return row


def _room(job: JobFacts) -> Field:
    asked = "at least as much as the card says" if PUSHED_BACK in job.card else "as much as its manual asks"
    return length("room_mm", "Bare shaft the other hub leaves, pushed back", asked)


def _judge_room(job: JobFacts, answers: Answers) -> Judged:
    room = answers.get("room_mm")
    if not isinstance(room, int | float):
        return [], []
    low, source = (
        (job.card[PUSHED_BACK].value, source_of(job.card, PUSHED_BACK))
        if PUSHED_BACK in job.card
        else (None, "no figure on the card")
    )
    return [judge("room", "bare shaft", room, "mm", low=low, source=source)], []


_STRIP = Stop(
    key="strip",
    title="Strip the tube as far as it must be",
    why="It comes with its hubs bolted on: they go on their shafts without it. Only the bolts in the small holes come out.",
    sketch=lambda job: common.tube_holes(bolts_of(job, "driver_end")),
    caution="Hub and element stay together: that joint is the factory's.",
    rows=(
        _counted_out("bolts", "Bolts out", BOLTS),
        _counted_out("nuts", "Lock nuts out", NUTS),
        _counted_out("bushings", "Overload bushings out", BUSHINGS),
    ),
)
_HUNG = (
    Stop(
        key="hang",
        title="Hang the tube at the flush hub",
        judged_by=(PUSHED_BACK,),
        judge=_judge_room,
        on_fail="Push the other hub further back before the tube is lifted.",
        why="It needs the room the other hub leaves, pushed back.",
        tool="soft sling",
        caution="Nothing laid on the tube's wall: a scratch is a crack later.",
        rows=(
            _room,
            out("sling", "Slings on it", SLING, detail="0 where it is carried by hand"),
            tick("large", "Large holes over the bolt groups that are there"),
            tick("small", "Remaining bolts through the small holes"),
            expected("bolts", "Bolts through, this end", "driver_end"),
            expected("bushings", "Bushings over them, this end", "driver_end", "before any nut"),
            tick("nuts", "Lock nuts on by hand", "not before the bushings"),
        ),
        ordered=True,
    ),
    Stop(
        key="forward",
        title="Bring the other hub forward and hang the tube there too",
        why="Then both ends can be pulled.",
        rows=(
            tick("forward", "Hub slid forward to the tube"),
            tick("through", "Bolts through, large and small holes as at the other end"),
            back("bolts", "Bolts back, both ends", BOLTS),
            back("bushings", "Bushings back over them, both ends", BUSHINGS, detail="before any nut"),
            back("nuts", "Lock nuts back on by hand, both ends", NUTS),
        ),
        ordered=True,
        changes=frozenset({Fact.SECOND_HUB}),
        on_fail="Bushings missing: nuts off again until every bolt has its own.",
    ),
    Pull(
        circle="driver_end",
        on_fail="A nut that turns with its bolt twists the element: hold the head, pull it again.",
    ),
    Pull(
        circle="driven_end",
        on_fail="A nut that turns with its bolt twists the element: hold the head, pull it again.",
    ),
    Stop(
        key="unsling",
        title="Take the sling off",
        why="Not before both ends are tight.",
        rows=(back("sling", "Slings off it", SLING),),
    ),
    Proof(),
    LightScrew(),
)
_SLUNG, _PARTED = (
    Stop(
        key="sling",
        title="Sling the tube",
        why="It drops when the last bolt leaves.",
        caution="Never a tool, or the tube's weight, on its wall.",
        rows=(tick("slung", "Slung, soft sling just taut"), out("sling", "Slings on it", SLING)),
        ordered=True,
    ),
    Stop(
        key="bolts",
        title="Take the bolts of the small holes out, and the tube",
        why="With the weight on the sling.",
        no_return=True,
        rows=(
            tick("weight", "The weight hangs on the sling"),
            _counted_out("bolts", "Bolts out, kept with their end", BOLTS),
            _counted_out("nuts", "Lock nuts out", NUTS),
            _counted_out("bushings", "Overload bushings out, into a marked box", BUSHINGS),
            tick("back", "Hub pushed back, tube out"),
            back("sling", "Slings off it", SLING),
        ),
        ordered=True,
    ),
)
_PARTED_ONCE = replace(
    _PARTED,
    rows=(
        tick("weight", "The weight hangs on the sling"),
        tick("bolts", "Bolts of the large holes out, kept with their end"),
        count("bushings", "Overload bushings out, into a marked box"),
        tick("back", "Hub pushed back, tube out"),
        back("sling", "Slings off it", SLING),
    ),
)
PROCEDURES = (
    Procedure(couple_up=(_STRIP, *_HUNG), undo=(_SLUNG, _PARTED_ONCE)),
    Procedure(
        version=2,
        receive=(replace(_STRIP, when=_fits),),
        couple_up=_HUNG,
        undo=(_SLUNG, _PARTED),
    ),
)
