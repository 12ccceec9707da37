"""Drives that hang on the shaft they drive: one hollow shaft or bush to mount, no two machines to bring into line."""

from .family import FamilyFacts, Part

_UNIT = Part(key="unit", title="Gear unit", look_for="hollow shaft clean and whole, breather and oil for its position")
_ARM = Part(key="arm", title="Torque arm with its bushes", look_for="bushes not hardened, pin straight")

CONVEYOR = FamilyFacts(
    family="screw-conveyor drive",
    title="Screw-conveyor drive",
    parts=(
        _UNIT,
        Part(key="shaft", title="Drive shaft", look_for="size ordered, drilled and tapped end leading"),
        Part(key="adapter", title="Adapter", look_for="drop-out openings free"),
        Part(key="seals", title="Two lip seals, or the packing kit", look_for="one or the other, decided now"),
        Part(key="wedge", title="Wedge, retaining ring, keeper plate, bolt", look_for="all there"),
    ),
    loose_before_hub=(
        Part(key="seal_in", title="Seals or packing in the adapter", look_for="right way round; joints offset"),
        Part(key="adapter_on", title="Adapter bolted to the gear unit and torqued", look_for="openings kept free"),
    ),
    gap_taken="none: it hangs on its shaft",
    values=(),
    way_round="output hub over the drive shaft, keyways in line",
    assemble=(
        Part(key="packing", title="Packing nuts hand tight plus the set turn", look_for="only now: the shaft is in"),
        Part(key="oil", title="Oil level and breather for this position checked"),
    ),
    trap="Packing tightened before the shaft is in keeps the shaft out.",
    undo=(Part(key="held", title="Gear unit slung", look_for="nothing else carries it once the shaft lets go"),),
    undo_trap="The unit drops when the shaft lets go.",
    hubs=("driven",),
    hangs=True,
)
SHAFT_MOUNTED = FamilyFacts(
    family="shaft-mounted reducer",
    title="Reducer mounted on the driven shaft",
    parts=(_UNIT, _ARM, Part(key="bush", title="Bush or bushes with their screws", look_for="the pair of this shaft size")),
    gap_taken="none: it hangs on its shaft",
    values=(),
    way_round="output side as the drawing shows, near the bearing",
    assemble=(
        Part(key="arm", title="Torque arm near a right angle, free to move at both ends"),
        Part(key="oil", title="Oil level and breather for this position checked"),
    ),
    trap="An arm far from a right angle loads the bearing with more than the drive's own force.",
    undo=(
        Part(key="held", title="Reducer slung", look_for="nothing else carries it once the bush lets go"),
        Part(key="arm", title="Torque arm unpinned, the load proved at rest"),
    ),
    undo_trap="A loaded elevator wants to run back when the drive comes off.",
    hubs=("driven",),
    hangs=True,
)
