"""Tyre couplings on an engine flywheel: everything hangs on the driven shaft before its flange goes on."""

from ...bolting.order import HALF_TURNS
from ..fields import condition, count, tick
from ..procedure import LightScrew, Procedure, Pull, Stop, expected
from .facts import ANGLE_VALUES, COUNT, TORQUE, Circle, FamilyFacts, Part, bolts
from .tyre import RING_CLEAR, no_metal

_BOLT_RING = Circle(key="bolt_ring", title="screws of the bolt ring", passes=HALF_TURNS, own=True, by_turns_with="clamp_ring")
_CLAMP_RING = Circle(key="clamp_ring", title="screws of the clamp ring", at="driven end", passes=HALF_TURNS, own=True)
FACTS = FamilyFacts(
    family="tyre on flywheel",
    title="Tyre coupling on an engine flywheel",
    parts=(
        Part(key="driven_hub", title="Flange with its bush", look_for="tapered bore clean, no cracks"),
        Part(key="element", title="Element with its ferrules", look_for="ferrules in a bag tied to it; cuts, cracks"),
        Part(key="rings", title="Bolt ring and clamp ring", look_for="bolt circle matches the flywheel"),
        bolts("bolt_ring", "clamp_ring", title="Screws of both rings"),
        Part(
            key="ferrules",
            title="Ferrules",
            look_for="one for every hole",
            where="in a bag tied to the element",
            screws=("bolt_ring",),
        ),
    ),
    before_hub=(
        tick("bolt_ring_on", "Bolt ring on the shaft"),
        tick("clamp_ring_on", "Clamp ring on the shaft"),
        tick("element_on", "Element on the shaft, ferrules in"),
    ),
    gap_taken="flange to flywheel, end float at its middle",
    values=(
        *ANGLE_VALUES,
        "offset_limit_mm",
        *(circle.line(key) for circle in (_BOLT_RING, _CLAMP_RING) for key in (COUNT, TORQUE)),
    ),
    way_round="flange toward the flywheel",
    may_also=(RING_CLEAR,),
    runs_in=True,
    circles=(_BOLT_RING, _CLAMP_RING),
    finished=(
        condition("ferrules", "A ferrule in every hole of the element"),
        condition("rings", "Rings level, nothing metal touches"),
    ),
    hubs=("driven",),
)
PROCEDURES = (
    Procedure(
        version=2,
        receive=(
            Stop(
                key="flywheel",
                title="Compare element and flywheel",
                why="Found now, or with the engine set and the flange on.",
                rows=(
                    tick("circle", "Bolt circle of the element is the flywheel's"),
                    count("holes", "Holes in the flywheel"),
                    tick("grade", "Stiffness marked on the element is the one ordered"),
                ),
            ),
        ),
        couple_up=(
            LightScrew(),
            Stop(
                key="lay_element",
                title="Lay element and bolt ring to the flywheel",
                why="All in by hand before one is pulled.",
                caution="The machine is bolted down first, never after the element is drawn on.",
                rows=(
                    tick("ferrules", "Ferrules in every hole"),
                    expected("ring", "Screws through the ferrules, by hand", "bolt_ring"),
                    tick("clamp", "Clamp ring over the bead by hand"),
                    expected("clamp_screws", "Screws in the clamp ring", "clamp_ring"),
                ),
                ordered=True,
            ),
            Pull(circle="bolt_ring"),
            Pull(circle="clamp_ring"),
            no_metal("between clamp ring and flange"),
        ),
        undo=(
            Stop(
                key="slack",
                title="Slacken both screw circles by turns, half a turn at a time",
                why="The element is strained while they hold.",
                rows=(tick("slack", "Both circles slack by half turns, none out yet"),),
            ),
            Stop(
                key="screws",
                title="Take the screws out and draw the element off",
                why="Its beads tell how it ran.",
                no_return=True,
                rows=(
                    tick("out", "Screws and ferrules out, counted into a marked box"),
                    tick("off", "Element drawn off the flange"),
                ),
                ordered=True,
            ),
        ),
    ),
)
