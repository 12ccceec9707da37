"""Couplings that give way in rubber or composite: tube, tyre, claw with blocks."""

from .family import (
    ALTERNATE,
    BOLTED_ANGLE_VALUES,
    BOLTED_VALUES,
    BOLTS,
    CROSSWISE,
    END_VALUES,
    HUBS,
    SLUNG,
    ClosedCheck,
    FamilyFacts,
    Part,
)

TUBE = FamilyFacts(
    family="composite tube",
    title="Composite tube with flexible elements",
    parts=(
        *HUBS,
        Part(key="tube", title="Tube with its elements", look_for="no scratch or impact mark on the tube"),
        Part(key="bushings", title="Overload bushings", look_for="all there; they go in before the lock nuts"),
        BOLTS,
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
    assemble=(
        Part(key="room", title="One hub pushed back to let the tube in, the other flush"),
        Part(key="bushings", title="Bolts through the large holes, overload bushings in", look_for="before the lock nuts"),
        Part(key="heads", title="Lock nuts held at the bolt head, only the nut turned"),
    ),
    trap="A nut turned with its bolt twists the element.",
    bolts=CROSSWISE,
    undo=(SLUNG, Part(key="bolts", title="Bolts of the large holes out, hub pushed back, tube out")),
    undo_trap="Never lay a tool or the tube's weight on its wall.",
)
_TYRE_ASSEMBLE = (
    Part(key="beads", title="Beads of the tyre seated all round", look_for="gap at the split as the manual says"),
    Part(key="even", title="Ring screws alternately, half a turn at a time"),
    Part(key="metal", title="No metal to metal between ring and flange"),
)
TYRE = FamilyFacts(
    family="tyre",
    title="Tyre coupling",
    parts=(
        *HUBS,
        Part(key="tyre", title="Tyre", look_for="cuts, cracks at the beads"),
        Part(key="rings", title="Clamp rings", look_for="whole; loose or screwed on, by size"),
        BOLTS,
    ),
    loose_before_hub=(
        Part(key="ring_on", title="Loose clamp ring on the shaft", look_for="large sizes; small ones are screwed on inside"),
    ),
    gap_taken="between the flanges, end float at its middle",
    values=BOLTED_VALUES,
    way_round="flange toward the other shaft, at the place that gives the wanted distance",
    assemble=(
        Part(key="float", title="End float of the shafts at its middle, shaft ends clear of each other"),
        Part(key="open", title="Tyre opened over the flanges"),
        *_TYRE_ASSEMBLE,
    ),
    trap="Tightened down to metal, the ring no longer holds the tyre.",
    bolts=ALTERNATE,
    undo=(
        Part(key="screws", title="Ring screws slackened alternately, half a turn at a time", look_for="counted, none lost"),
        Part(key="tyre", title="Tyre opened at its split and taken off", look_for="cracks at the beads"),
    ),
)
FLYWHEEL_TYRE = FamilyFacts(
    family="tyre on flywheel",
    title="Tyre coupling on an engine flywheel",
    parts=(
        Part(key="driven_hub", title="Flange with its bush", look_for="tapered bore clean, no cracks"),
        Part(key="element", title="Element with its ferrules", look_for="ferrules in a bag tied to it; cuts, cracks"),
        Part(key="rings", title="Bolt ring and clamp ring", look_for="bolt circle matches the flywheel"),
        BOLTS,
    ),
    loose_before_hub=(
        Part(key="bolt_ring_on", title="Bolt ring on the shaft"),
        Part(key="clamp_ring_on", title="Clamp ring on the shaft"),
        Part(key="element_on", title="Element on the shaft, ferrules in"),
    ),
    gap_taken="flange to flywheel, end float at its middle",
    values=BOLTED_VALUES,
    way_round="flange toward the flywheel",
    assemble=(Part(key="ferrules", title="Ferrules in every hole of the element"), *_TYRE_ASSEMBLE),
    trap="Machine bolted down before the element is drawn on.",
    bolts=ALTERNATE,
    undo=(
        Part(key="screws", title="Both screw circles slackened alternately, half a turn at a time"),
        Part(key="element", title="Element drawn off the flange"),
    ),
    hubs=("driven",),
)
CLAW = FamilyFacts(
    family="claw with elastomer blocks",
    title="Claw coupling with elastomer blocks",
    parts=(
        *HUBS,
        Part(key="blocks", title="Elastomer blocks, a complete new set", look_for="never mixed with old ones"),
        Part(key="ring", title="Retaining ring and its screws", look_for="threads dry and clean, none missing"),
    ),
    gap_taken="between the faces by feeler all round, aim at the middle of the band",
    values=BOLTED_VALUES,
    way_round="claws toward the other shaft",
    assemble=(
        Part(key="cold", title="Hubs cold before a block goes in"),
        Part(key="blocks", title="All blocks new, the right way round"),
        Part(key="ring", title="Ring pressed in evenly all round, screws by hand, threads dry"),
        Part(key="wear", title="Wear mark set and noted"),
    ),
    trap="The ring's claws bind when it is drawn in crooked.",
    bolts=CROSSWISE,
    undo=(
        Part(key="mark", title="Mutual position of the halves marked"),
        Part(key="ring", title="Ring screws out and counted, ring slid right back by hand"),
        Part(key="blocks", title="Blocks picked out one by one", look_for="note how far they are worn"),
    ),
)
