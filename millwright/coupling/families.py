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


JAW_VALUES = (
    "fit_min_mm",
    "fit_max_mm",
    "set_screw_torque_nm",
    "gap_nominal_mm",
    "gap_plus_minus_mm",
    "offset_limit_mm",
    "angle_limit_deg",
    "sliding_mm_per_s",
    "foot_bolt_torque_nm",
)
ELEMENT_VALUES = ("element_width_mm", "element_opening_mm", "open_centre_rpm")

_HUBS = (
    Part(key="driver_hub", title="Hub, driver side", look_for="bore, cracks, dents at the jaws, keyway edges"),
    Part(key="driven_hub", title="Hub, driven side", look_for="bore, cracks, dents at the jaws, keyway edges"),
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
)

FAMILIES: dict[str, FamilyFacts] = {facts.family: facts for facts in (STRAIGHT_JAW, CURVED_JAW)}
