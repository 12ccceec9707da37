"""Coupling families: what each brings to the kit, the gates and the route. One data class a family; add a family here."""

from dataclasses import dataclass

from ..line import Family


@dataclass(frozen=True, kw_only=True)
class Part:
    """A part of the kit, and what to look at."""

    key: str
    title: str
    look_for: str = ""


@dataclass(frozen=True, kw_only=True)
class FamilyFacts:
    """What the route needs to know of a family."""

    family: Family
    title: str
    parts: tuple[Part, ...]
    loose_before_hub: tuple[Part, ...]  # cannot pass the hub later
    gap_taken: str
    element_materials: tuple[str, ...]
    values: tuple[str, ...]  # keys of the value card this family asks for
    way_round: str  # how a hub stands when it is the right way round
    closes_by_hub: bool  # the gap is trimmed by sliding the second hub, where it slides; else by moving the machine


SETTING_VALUES = (
    "gap_nominal_mm",
    "gap_plus_minus_mm",
    "offset_limit_mm",
    "angle_limit_deg",
    "sliding_mm_per_s",
    "foot_bolt_torque_nm",
)
JAW_VALUES = (*SETTING_VALUES, "element_width_mm", "element_opening_mm", "open_centre_rpm")

_HUBS = (
    Part(key="driver_hub", title="Hub, driver side", look_for="bore, cracks, dents at jaws or teeth, keyway edges"),
    Part(key="driven_hub", title="Hub, driven side", look_for="bore, cracks, dents at jaws or teeth, keyway edges"),
)

STRAIGHT_JAW = FamilyFacts(
    family="jaw, straight",
    title="Straight jaw coupling",
    parts=(
        *_HUBS,
        Part(key="element", title="Elastomer element", look_for="cuts, swelling, the material ordered, spacing dots whole"),
    ),
    loose_before_hub=(),
    gap_taken="between the hub faces, with the element's raised dots just touched",
    element_materials=("nitrile", "polyurethane", "polyester", "bronze"),
    values=JAW_VALUES,
    way_round="jaws toward the other shaft",
    closes_by_hub=True,
)
CURVED_JAW = FamilyFacts(
    family="jaw, curved",
    title="Curved jaw coupling",
    parts=(
        *_HUBS,
        Part(
            key="element",
            title="Elastomer element",
            look_for="cuts, swelling, hardness marking and colour as ordered, spacing dots whole",
        ),
    ),
    loose_before_hub=(),
    gap_taken="between the hub faces, or from jaw tip to the opposite face: as the manual says",
    element_materials=("80 shore A", "92 shore A", "98 shore A", "64 shore D"),
    values=JAW_VALUES,
    way_round="jaws toward the other shaft",
    closes_by_hub=True,
)
GEAR = FamilyFacts(
    family="gear",
    title="Gear coupling with flanged sleeves",
    parts=(
        *_HUBS,
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
    element_materials=(),
    values=(*SETTING_VALUES, "flange_bolts", "flange_bolt_torque_nm", "sleeve_spread_mm"),
    way_round="face toward the other shaft, as the drawing shows",
    closes_by_hub=False,
)

FAMILIES: dict[str, FamilyFacts] = {facts.family: facts for facts in (STRAIGHT_JAW, CURVED_JAW, GEAR)}
