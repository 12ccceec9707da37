"""Every coupling family by its name: what each brings to the kit, the gates and the route."""

from .drives import CONVEYOR, SHAFT_MOUNTED
from .elastomer import CLAW, FLYWHEEL_TYRE, TUBE, TYRE
from .family import FamilyFacts
from .jaws import CURVED_JAW, SHEAR_JAW, STRAIGHT_JAW
from .metallic import DROP_OUT_DISC, GEAR, GRID, RIGID, SINGLE_DISC, THREE_PART_DISC

FAMILIES: dict[str, FamilyFacts] = {
    facts.family: facts
    for facts in (
        STRAIGHT_JAW,
        CURVED_JAW,
        SHEAR_JAW,
        GRID,
        GEAR,
        SINGLE_DISC,
        THREE_PART_DISC,
        DROP_OUT_DISC,
        TUBE,
        TYRE,
        FLYWHEEL_TYRE,
        CLAW,
        RIGID,
        CONVEYOR,
        SHAFT_MOUNTED,
    )
}
