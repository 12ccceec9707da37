"""Screw-conveyor drives: a gear unit on an adapter, its output hub on the drive shaft."""

from ..fields import tick
from ..procedure import Procedure, Stop
from .facts import FamilyFacts, Part

UNIT = Part(key="unit", title="Gear unit", look_for="hollow shaft clean and whole, breather and oil for its position")
FACTS = FamilyFacts(
    family="screw-conveyor drive",
    title="Screw-conveyor drive",
    parts=(
        UNIT,
        Part(key="shaft", title="Drive shaft", look_for="size ordered, drilled and tapped end leading"),
        Part(key="adapter", title="Adapter", look_for="drop-out openings free"),
        Part(key="seals", title="Two lip seals, or the packing kit", look_for="one or the other, decided now"),
        Part(key="wedge", title="Wedge, retaining ring, keeper plate, bolt", look_for="all there"),
    ),
    before_hub=(
        tick("seal_in", "Seals or packing in the adapter", "right way round; joints offset"),
        tick("adapter_on", "Adapter bolted to the gear unit and torqued", "openings kept free"),
    ),
    gap_taken="none: it hangs on its shaft",
    values=(),
    way_round="output hub over the drive shaft, keyways in line",
    hubs=("driven",),
    hangs=True,
)
OIL = tick("oil", "Oil level and breather for this position checked")
PROCEDURES = (
    Procedure(
        prepare=(),
        couple_up=(
            Stop(
                key="packing",
                title="Follow the packing up",
                why="Packing tightened before the shaft is in keeps the shaft out.",
                rows=(
                    tick(
                        "packing",
                        "Packing nuts hand tight plus the set turn",
                        "the shaft is in",
                        none_of="lip seals: no packing",
                    ),
                ),
            ),
            Stop(
                key="oil",
                title="Check oil and breather as it hangs",
                why="Its position decides which plug is the breather.",
                rows=(OIL,),
            ),
        ),
        undo=(
            Stop(
                key="sling",
                title="Sling the gear unit",
                why="Nothing else carries it once the shaft lets go.",
                caution="The unit drops when the shaft lets go.",
                no_return=True,
                rows=(tick("slung", "Gear unit slung, the sling just taut"),),
            ),
        ),
    ),
)
