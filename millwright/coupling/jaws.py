"""Jaw couplings: an elastomer element between the jaws of two hubs."""

from .family import BOLTS, CROSSWISE, HUBS, SETTING_VALUES, FamilyFacts, Part

JAW_VALUES = (*SETTING_VALUES, "element_width_mm", "element_opening_mm", "open_centre_rpm")
_UNDO = (
    Part(key="screw", title="Set screw of the hub that gives way slackened", look_for="or the machine drawn back"),
    Part(key="apart", title="Hubs drawn apart by hand", look_for="no lever between the jaws"),
    Part(key="element", title="Element taken out", look_for="note cuts, swelling, wear of its legs"),
)

STRAIGHT_JAW = FamilyFacts(
    family="jaw, straight",
    title="Straight jaw coupling",
    parts=(
        *HUBS,
        Part(key="element", title="Elastomer element", look_for="cuts, swelling, the material ordered, spacing dots whole"),
    ),
    gap_taken="between the hub faces, with the element's raised dots just touched",
    element_materials=("nitrile", "polyurethane", "polyester", "bronze"),
    values=JAW_VALUES,
    way_round="jaws toward the other shaft",
    closes_by_hub=True,
    undo=_UNDO,
)
CURVED_JAW = FamilyFacts(
    family="jaw, curved",
    title="Curved jaw coupling",
    parts=(
        *HUBS,
        Part(
            key="element",
            title="Elastomer element",
            look_for="cuts, swelling, hardness marking and colour as ordered, spacing dots whole",
        ),
    ),
    gap_taken="between the hub faces, or from jaw tip to the opposite face: as the manual says",
    measured_at_jaws=True,
    element_materials=("80 shore A", "92 shore A", "98 shore A", "64 shore D"),
    values=JAW_VALUES,
    way_round="jaws toward the other shaft",
    closes_by_hub=True,
    undo=_UNDO,
)
SHEAR_JAW = FamilyFacts(
    family="jaw, in shear with spacer",
    title="Jaw coupling with a spacer, element in shear",
    parts=(
        *HUBS,
        Part(key="spacer", title="Spacer halves, as delivered", look_for="factory joined: they are not opened"),
        Part(key="element", title="Wrap-round element", look_for="cuts, the material ordered"),
        Part(key="collar", title="Retaining collar", look_for="pins and stops whole"),
        BOLTS,
    ),
    gap_taken="between the faces, trimmed with the second hub not yet torqued",
    values=(*SETTING_VALUES, "flange_bolts", "flange_bolt_torque_nm"),
    way_round="pilot outward, level with the shaft end",
    closes_by_hub=True,
    assemble=(
        Part(key="collar_over", title="Collar over the first spacer half", look_for="before the second half goes in"),
        Part(key="pilots", title="Pilots seated, faces clean", look_for="no gap at the spigot all round"),
        Part(key="bolts_in", title="Only the bolts supplied, all in by hand"),
    ),
    trap="Once the second half is in, the collar cannot go on any more.",
    bolts=CROSSWISE,
    undo=(
        Part(key="collar", title="Collar turned back past its stops and slid aside"),
        Part(key="element", title="Element unwrapped", look_for="note cuts and wear"),
        Part(key="spacer", title="Spacer supported, mounting bolts out", look_for="it drops without warning"),
    ),
    undo_trap="The spacer halves are factory joined: do not open them.",
)
