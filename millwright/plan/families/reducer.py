"""Reducers mounted on the shaft they drive, held by a torque arm."""

from ..fields import tick
from ..procedure import Procedure, Pull, Stop, expected
from .facts import COUNT, TORQUE, FamilyFacts, Part
from .gear_units import ARM, ARM_FREE, LAID_DOWN, LITRES, OFF_SQUARE, OIL, OIL_AND_BREATHER, UNIT, let_go, set_arm, slung

FACTS = FamilyFacts(
    family="shaft-mounted reducer",
    title="Reducer mounted on the driven shaft",
    parts=(
        UNIT,
        Part(key="arm", title="Torque arm with its pins and bushes", look_for="bushes not hardened, pins straight"),
        Part(key="arm_bolts", title="Bolts of the arm", look_for="threads clean", screws=(ARM.key,)),
        Part(key="bush", title="Pair of bushes with their screws", look_for="of this shaft size", pieces=2),
    ),
    gap_taken="none: it hangs on its shaft",
    values=(ARM.line(COUNT), ARM.line(TORQUE)),
    may_also=(OFF_SQUARE, OIL, LITRES),
    way_round="output side as the drawing shows, near the bearing",
    hubs=("driven",),
    circles=(ARM,),
    hangs=True,
)
PROCEDURES = (
    Procedure(
        version=2,
        prepare=(
            slung(
                tick("shaft", "Shaft end clean, its length measured against the hollow shaft"),
                tick("pair", "Both bushes are of this shaft size"),
            ),
        ),
        couple_up=(
            set_arm(),
            ARM_FREE,
            Stop(
                key="arm_bolts",
                title="Put the bolts of the arm in",
                why="All in before one is pulled.",
                rows=(expected("bolts", "Bolts in by hand", ARM.key),),
            ),
            Pull(circle=ARM.key),
            let_go("its shaft and the torque arm", tick("arm", "Arm pinned, its bolts and the bush at torque")),
            OIL_AND_BREATHER,
            Stop(
                key="input",
                title="Leave the input free until the direction is proved",
                why="Belt or coupling on the input has a line of its own, and goes on last.",
                rows=(
                    tick("free", "Belt off, or coupling open"),
                    tick("by_hand", "Turned by hand at the input: it runs free"),
                ),
            ),
        ),
        undo=(
            slung(why="Nothing else carries it once the bush lets go."),
            Stop(
                key="arm",
                title="Unpin the torque arm",
                why="A loaded machine tends to run back when its drive comes off.",
                caution="The load at rest first: blocked, or emptied.",
                no_return=True,
                rows=(tick("rest", "The load proved at rest"), tick("unpinned", "Torque arm unpinned")),
                ordered=True,
            ),
        ),
        hubs_off=(LAID_DOWN,),
    ),
)
