"""What is known of a coupling family: the fields every family fills."""

from dataclasses import dataclass
from typing import Literal

from ..bolting.order import Pattern
from ..line import SIDES, Family, Side


@dataclass(frozen=True, kw_only=True)
class Part:
    """A part of the kit, or a thing to do with one, and what to look at."""

    key: str
    title: str
    look_for: str = ""


@dataclass(frozen=True, kw_only=True)
class BoltScheme:
    """In what order the coupling's bolts are pulled, and in which shares of their torque."""

    pattern: Pattern
    passes: tuple[float, ...]


@dataclass(frozen=True, kw_only=True)
class ClosedCheck:
    """A distance read all round on the closed coupling: proof when it is finished, and again in service, unopened."""

    key: str = "couple.closed"
    title: str
    why: str
    tool: str
    both_ends: bool = False  # of a spacer
    values: tuple[str, ...]  # of the card, that it is judged by
    look: str = ""  # what is looked at beside it: how a disc pack lies
    dial_limit: str = ""  # of the card: a dial on the face of each end, total over a turn


# What a coupling takes of a misalignment: both; angle at each of two flexing planes, and so offset too; or angle alone.
Takes = Literal["offset and angle", "angle at two planes", "angle alone"]


@dataclass(frozen=True, kw_only=True)
class FamilyFacts:
    """What the route needs to know of a family. Add one in a module of its kind and in `families`."""

    family: Family
    title: str
    parts: tuple[Part, ...]
    loose_before_hub: tuple[Part, ...] = ()  # cannot pass the hub later
    gap_taken: str
    element_materials: tuple[str, ...] = ()
    values: tuple[str, ...]  # keys of the value card this family asks for
    way_round: str  # how a hub stands when it is the right way round
    closes_by_hub: bool = False  # the gap is trimmed by sliding the second hub, where it slides; else by the machine
    assemble: tuple[Part, ...] = ()  # in this order, once the machines stand
    trap: str = ""  # what goes wrong while it is assembled
    bolts: BoltScheme | None = None
    undo: tuple[Part, ...] = ()  # in this order, to part the two shafts
    undo_trap: str = ""
    takes: Takes = "offset and angle"
    closed: ClosedCheck | None = None
    hubs: tuple[Side, ...] = SIDES  # those that are mounted on a shaft
    hangs: bool = False  # a drive that hangs on its shaft: there is nothing to be brought into line
    measured_at_jaws: bool = False  # the gap may be given from jaw tip to the opposite hub instead

    @property
    def may_have(self) -> tuple[str, ...]:
        """Keys of the value card that no paper has to give: with a figure there the route goes by it."""
        runs_true = ("shaft_runout_mm", "hub_runout_mm")
        if self.hangs:
            return runs_true
        jaws = ("jaw_tip_mm",) if self.measured_at_jaws else ()
        gap = (*jaws, "gap_spread_mm", "axial_growth_mm") if "gap_nominal_mm" in self.values else ()
        return (*runs_true, "shaft_ends_mm", "shaft_ends_plus_minus_mm", *gap)


CROSSWISE = BoltScheme(pattern="star", passes=(0.5, 0.75, 1.0))
ALTERNATE = BoltScheme(pattern="alternate", passes=(0.5, 0.75, 1.0))
HALF_FULL_FULL = BoltScheme(pattern="circle", passes=(0.5, 1.0, 1.0))

ANGLE_VALUES = (
    "soft_foot_mm",
    "gap_nominal_mm",
    "gap_plus_minus_mm",
    "angle_limit_deg",
    "sliding_mm_per_s",
    "foot_bolt_torque_nm",
)
SETTING_VALUES = (*ANGLE_VALUES, "offset_limit_mm")
BOLTS_VALUES = ("flange_bolts", "flange_bolt_torque_nm")
BOLTED_VALUES = (*SETTING_VALUES, *BOLTS_VALUES)
BOLTED_ANGLE_VALUES = (*ANGLE_VALUES, *BOLTS_VALUES)
END_VALUES = ("end_gap_nominal_mm", "end_gap_plus_minus_mm", "ends_differ_mm")

HUBS = (
    Part(key="driver_hub", title="Hub, driver side", look_for="bore, cracks, dents at jaws or teeth, keyway edges"),
    Part(key="driven_hub", title="Hub, driven side", look_for="bore, cracks, dents at jaws or teeth, keyway edges"),
)
BOLTS = Part(key="bolts", title="Bolts and nuts", look_for="those supplied with it, all there, threads clean")
SLUNG = Part(key="slung", title="Spacer slung before the last bolt is out", look_for="it drops without warning")
