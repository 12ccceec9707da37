"""Couplings that give way in metal: steel grid, gear, disc packs; and the rigid one that does not."""

from .family import (
    ALTERNATE,
    BOLTED_ANGLE_VALUES,
    BOLTED_VALUES,
    BOLTS,
    CROSSWISE,
    END_VALUES,
    HALF_FULL_FULL,
    HUBS,
    SLUNG,
    ClosedCheck,
    FamilyFacts,
    Part,
)

GRID = FamilyFacts(
    family="steel grid",
    title="Steel grid coupling with split cover",
    parts=(
        *HUBS,
        Part(key="grid", title="Grid, all its segments", look_for="large sizes come in several; cracks, rubbed spots"),
        Part(key="cover", title="Cover halves", look_for="match marks, both halves of one pair"),
        Part(key="seals", title="Seals and gaskets", look_for="whole, the size ordered"),
        BOLTS,
        Part(key="grease", title="Coupling grease", look_for="the kind the maker names; not every size comes with it"),
    ),
    loose_before_hub=(
        Part(key="seal_on", title="Cover seal on the shaft", look_for="greased, the right way round, pushed well back"),
    ),
    gap_taken="between the hub faces, spacer bar or caliper",
    values=BOLTED_VALUES,
    way_round="teeth toward the other shaft",
    closes_by_hub=True,
    assemble=(
        Part(key="teeth", title="Teeth of both hubs in line, packed with grease"),
        Part(key="grid", title="Grid nudged in, every rung seated", look_for="soft mallet, never steel"),
        Part(key="packed", title="Grease packed in and between the rungs"),
        Part(key="cover", title="Gaskets in, cover match marks on the same side", look_for="seals in their grooves"),
        Part(key="plugs", title="Plugs back in", look_for="both"),
    ),
    trap="A hard hammer on the grid bruises it; it breaks there later.",
    bolts=CROSSWISE,
    undo=(
        Part(key="marks", title="Cover marked, cover bolts out", look_for="grease runs out: tray under it"),
        Part(
            key="grid", title="Grid lifted out rung by rung", look_for="evenly from both ends, with a bar through the loops"
        ),
    ),
    undo_trap="The grid springs: eye protection, hands clear of the loops.",
)
GEAR = FamilyFacts(
    family="gear",
    title="Gear coupling with flanged sleeves",
    parts=(
        *HUBS,
        Part(key="sleeves", title="Flanged sleeves, 2", look_for="teeth, flange faces, match marks"),
        Part(key="rings", title="Seal rings, 2", look_for="cuts, hardening, the size ordered"),
        Part(key="gasket", title="Gasket", look_for="whole, the one supplied"),
        Part(key="bolts", title="Flange bolts and nuts", look_for="those supplied with it, all there"),
        Part(key="grease", title="Coupling grease", look_for="the kind the maker names, enough for this size"),
    ),
    loose_before_hub=(
        Part(key="ring_on", title="Greased seal ring in its sleeve", look_for="seated all round in the groove"),
        Part(
            key="sleeve_on",
            title="Sleeve on the shaft, teeth packed, pushed well back",
            look_for="flange toward the coupling",
        ),
    ),
    gap_taken="between the hub faces, spacer bar and feelers to the same depth, at quarter turns",
    values=(*BOLTED_VALUES, "sleeve_spread_mm"),
    closed=ClosedCheck(
        key="couple.sleeve",
        title="Measure hub to sleeve all round",
        why="Proves the alignment on the closed coupling; the same reading later tells whether it has moved.",
        tool="depth micrometer, or feelers",
        values=("sleeve_spread_mm",),
    ),
    way_round="face toward the other shaft, as the drawing shows",
    bolts=CROSSWISE,
    undo=(
        Part(key="tray", title="Tray under it, lowest plug out, grease caught"),
        Part(key="bolts", title="Flange bolts out", look_for="heads held, nuts turned; match marks noted"),
        Part(key="sleeves", title="Sleeves slid back clear of the teeth", look_for="teeth: wear, pitting, dry spots"),
    ),
)
_DISC_UNDO = (
    SLUNG,
    Part(key="nuts", title="Nuts slackened one after another, then off", look_for="bolt ends tapped softly"),
    Part(key="packs", title="Packs taken out whole", look_for="cracked or bowed leaves; keep each with its side"),
)
_PACK_UNDO = (
    Part(key="nuts", title="Nuts slackened one after another, then off", look_for="bolt heads held"),
    Part(key="pack", title="Pack taken out whole", look_for="cracked or bowed leaves"),
)
SINGLE_DISC = FamilyFacts(
    family="disc, single pack",
    title="Disc coupling, single pack",
    parts=(
        *HUBS,
        Part(key="pack", title="Disc pack", look_for="flat, no cracked leaf, bushings in place"),
        BOLTS,
    ),
    gap_taken="width of the pack at four positions",
    values=BOLTED_ANGLE_VALUES,
    closed=ClosedCheck(
        title="Measure the width of the pack all round",
        why="A pack that is pressed, stretched or askew bends every turn, and its leaves crack.",
        tool="caliper, between the flanges beside the bolts",
        values=("gap_nominal_mm", "gap_plus_minus_mm"),
        look="The pack looks flat: no wave, no leaf standing off",
    ),
    takes="angle alone",
    way_round="flange toward the shaft end",
    assemble=(
        Part(key="oiled", title="Light oil under the nuts, threads as the card says"),
        Part(key="pack", title="Pack on the first hub, large holes clear of the other hub's bolts"),
        Part(
            key="flat",
            title="Pack looks flat",
            look_for="wavy: align again; bowed: slacken the neighbours, oil, tighten again",
        ),
    ),
    trap="It takes angle only. A floating shaft, or it is the wrong coupling.",
    bolts=ALTERNATE,
    undo=_PACK_UNDO,
)
THREE_PART_DISC = FamilyFacts(
    family="disc, three-part",
    title="Disc coupling, three-part with spacer",
    parts=(
        *HUBS,
        Part(key="spacer", title="Spacer", look_for="flange faces, balance marks"),
        Part(key="packs", title="Disc packs, 2", look_for="flat, no cracked leaf"),
        Part(key="bolts", title="Close-fit bolts, nuts and catch rings", look_for="all there, numbered as delivered"),
    ),
    gap_taken="between the flanges of the hubs, before the spacer goes in",
    values=(*BOLTED_ANGLE_VALUES, *END_VALUES),
    closed=ClosedCheck(
        title="Measure the width of both packs between the bolts",
        why="Largest and smallest tell of length and angle at once: the pack is strained where it is off.",
        tool="caliper or feelers, at the rim, between the bolts",
        both_ends=True,
        values=END_VALUES,
        look="Both packs look flat: no wave, no leaf standing off",
    ),
    takes="angle at two planes",
    way_round="flange toward the shaft end",
    assemble=(
        Part(key="balance", title="Balance numbers in one line"),
        Part(key="slung", title="Spacer slung", look_for="until the last bolt is tight"),
        Part(key="drawn", title="Close-fit bolts drawn in with bare nuts", look_for="in two stages; nuts off again"),
        Part(key="rings", title="Catch rings on, then the nuts", look_for="not before the bolts are drawn in"),
    ),
    trap="Catch rings in the first draw-in, or forgotten after it, ruin the fit of the bolts.",
    bolts=HALF_FULL_FULL,
    undo=_DISC_UNDO,
    undo_trap="The spacer drops when the last bolt leaves.",
)
DROP_OUT_DISC = FamilyFacts(
    family="disc, drop-out spacer",
    title="Disc coupling, factory-assembled drop-out spacer",
    parts=(
        *HUBS,
        Part(key="spacer", title="Spacer unit with its packs", look_for="factory torqued: it is not opened"),
        Part(key="squeeze", title="Temporary squeeze screws", look_for="counted into the ledger"),
        BOLTS,
    ),
    gap_taken="between the flanges of the hubs, before the spacer goes in",
    values=(*BOLTED_ANGLE_VALUES, *END_VALUES),
    closed=ClosedCheck(
        title="Measure adapter to spacer flange on both sides",
        why="Unequal, one pack is pressed and the other stretched from the first turn on.",
        tool="caliper, adapter inside to spacer flange",
        both_ends=True,
        values=END_VALUES,
        look="Both packs look flat: no wave, no leaf standing off",
    ),
    takes="angle at two planes",
    way_round="pilot outward",
    assemble=(
        Part(key="squeezed", title="Packs squeezed just enough to pass the pilots", look_for="screws out: the ledger"),
        Part(key="home", title="Pilots home on both sides, all bolts light"),
        Part(key="released", title="Squeeze screws out again, counted", look_for="none may be in it when it runs"),
    ),
    trap="Squeezed further than needed, the packs are spoiled.",
    bolts=CROSSWISE,
    undo=(
        Part(key="squeezed", title="Squeeze screws in, just enough to leave the pilots", look_for="counted into the ledger"),
        SLUNG,
        Part(key="bolts", title="Hub bolts out, unit lifted out whole"),
    ),
    undo_trap="The unit drops when the last bolt leaves.",
)
RIGID = FamilyFacts(
    family="rigid",
    title="Rigid flanged or sleeve coupling",
    parts=(*HUBS, BOLTS),
    gap_taken="none: the faces touch",
    values=tuple(key for key in BOLTED_VALUES if not key.startswith("gap")),
    way_round="flange toward the other shaft",
    assemble=(
        Part(key="clean", title="Faces and spigot clean and dry", look_for="nothing gives way in it: no lubricant"),
        Part(key="touch", title="Faces touch all round before a bolt is pulled", look_for="no feeler goes in"),
    ),
    trap="Bolts pulled on faces that do not touch bend the shafts.",
    bolts=CROSSWISE,
    undo=(Part(key="bolts", title="Bolts out, flanges parted with their jacking screws"),),
)
