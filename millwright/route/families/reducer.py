"""Reducers mounted on the shaft they drive, held by a torque arm."""

from ..fields import tick
from ..procedure import Procedure, Stop
from .conveyor import OIL, UNIT
from .facts import FamilyFacts, Part

FACTS = FamilyFacts(
    family="shaft-mounted reducer",
    title="Reducer mounted on the driven shaft",
    parts=(
        UNIT,
        Part(key="arm", title="Torque arm with its bushes", look_for="bushes not hardened, pin straight"),
        Part(key="bush", title="Bush or bushes with their screws", look_for="the pair of this shaft size"),
    ),
    gap_taken="none: it hangs on its shaft",
    values=(),
    way_round="output side as the drawing shows, near the bearing",
    hubs=("driven",),
    hangs=True,
)
PROCEDURES = (
    Procedure(
        prepare=(),
        couple_up=(
            Stop(
                key="arm",
                title="Set the torque arm",
                why="An arm far from a right angle loads the bearing with more than the drive's own force.",
                rows=(
                    tick("angle", "Torque arm near a right angle"),
                    tick("free", "Free to move at both ends"),
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
                title="Sling the reducer",
                why="Nothing else carries it once the bush lets go.",
                rows=(tick("slung", "Reducer slung, the sling just taut"),),
            ),
            Stop(
                key="arm",
                title="Unpin the torque arm",
                why="A loaded elevator wants to run back when the drive comes off.",
                caution="The load at rest first: blocked, or emptied.",
                no_return=True,
                rows=(tick("rest", "The load proved at rest"), tick("unpinned", "Torque arm unpinned")),
                ordered=True,
            ),
        ),
    ),
)
