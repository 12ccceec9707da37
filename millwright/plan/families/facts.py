"""What is known of a coupling family: the fields every family fills."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any, Literal

from ...bolt_order import RISING, Pattern
from ...card.meanings import Passes
from ...line import SIDES, Family, Side
from ...sketch.shapes import Sketch
from ..fields import Field, condition, text

COUNT, TORQUE, ORDER, PASSES = "flange_bolts", "flange_bolt_torque_nm", "bolt_order", "bolt_passes"
# A `JobFacts`: it is made of these facts, and so stands above them.
OfJob = Any
# Whether a job has it: some parts and circles are there in one size of a family and not in another.
Only = Callable[[OfJob], bool]
Place = Literal["driver end", "driven end", "both together", "away from the hubs"]


@dataclass(frozen=True, kw_only=True)
class Part:
    """A part of the kit, what to look at, and how many of it there are.

    ``where``    - where a small part is found in the box
    ``may_lack`` - some have none of it: in which words that is said
    ``pieces``   - how many there are of it
    ``only``     - where there is one at all
    ``screws``   - the circles it is the bolts of: as many as the card says
    ``counted``  - it is counted, and nobody knows beforehand how many there are
    """

    key: str
    title: str
    look_for: str = ""
    where: str = ""
    may_lack: str = ""
    pieces: int | Callable[[OfJob], int] = 0
    screws: tuple[str, ...] = ()
    counted: bool = False
    only: Only | None = None


@dataclass(frozen=True, kw_only=True)
class Circle:
    """One circle of fasteners: pulled in a step of its own, checked in a line of its own.

    ``order``, ``passes`` - custom of the trade; the value card replaces them, with its source
    ``held``              - what the second spanner holds while the wrench turns the other
    ``by_turns_with``     - the circle it is pulled by turns with, half a turn here and half a turn there
    ``only``              - where there is one at all
    ``own``               - it has lines of the card of its own: count, torque, order, passes; else it shares the family's
    """

    key: str
    title: str  # the bolts as they are called: "hub bolts, driver end"
    at: Place = "both together"
    order: Pattern = "star"
    passes: Passes = RISING
    held: str = ""
    oil: str = ""
    own: bool = False
    by_turns_with: str = ""
    only: Only | None = None

    def line(self, key: str) -> str:
        """The line of the value card where this circle has one of its own."""
        return f"{key}@{self.key}"


def at_both_ends(
    bolts: str, *, order: Pattern = "star", passes: tuple[float, ...] = RISING, held: str = ""
) -> tuple[Circle, Circle]:
    """The same bolts at the driver end and at the driven end, as two circles."""
    driver = Circle(key="driver_end", title=f"{bolts}, driver end", at="driver end", order=order, passes=passes, held=held)
    return driver, replace(driver, key="driven_end", title=f"{bolts}, driven end", at="driven end")


@dataclass(frozen=True, kw_only=True)
class ClosedCheck:
    """A distance read all round on the closed coupling: proof when it is finished, and again in service, unopened."""

    key: str = "couple.closed"
    title: str
    why: str
    tool: str
    both_ends: bool = False  # of a spacer
    at_flexible_halves: bool = False  # once at each half that gives way
    values: tuple[str, ...]  # of the card, that it is judged by
    look: str = ""  # what is looked at beside it: how a disc pack lies
    dial_limit: str = ""  # of the card: a dial on the face of each end, total over a turn


@dataclass(frozen=True, kw_only=True)
class Element:
    """What is changed while both hubs stay on."""

    parts: tuple[str, ...]  # of the kit, what comes new
    called: str  # in a sentence: "set of blocks"
    counted: str  # "Blocks out"
    clean: str  # what is clean before the new one goes in
    seats: str  # what of the hubs is looked at while they lie open
    pieces: int | None = None  # where every coupling of the family has as many
    numbered_in: str = ""  # the step of the family that takes the number of the new one; else it is taken beside the old


# What a coupling takes of a misalignment: both; angle at each of two flexing planes, and so offset too; or angle alone.
Takes = Literal["offset and angle", "angle at two planes", "angle alone"]


# What its machines are set by: dials or a laser on the shafts; or the gaps beside a magnet rotor.
SetBy = Literal["dials", "air gap"]


PLACE_VALUES = ("hub_standout_mm", "hub_standout_plus_minus_mm")


@dataclass(frozen=True, kw_only=True)
class FamilyFacts:
    """What the route needs to know of a family besides the order of its work."""

    family: Family
    title: str
    parts: tuple[Part, ...]
    before_hub: tuple[Field | Callable[[OfJob, Side], Field | None], ...] = ()  # cannot pass the hub later
    hung: Callable[[OfJob], Sketch] | None = None  # each of those on its shaft before the next: how that looks
    gap_taken: str
    element_materials: tuple[str, ...] = ()
    values: tuple[str, ...]  # keys of the value card this family asks for
    way_round: str  # how a hub stands when it is the right way round
    hides_hubs: bool = False  # closed, nobody sees where they sit: read once it is undone
    gap_later: bool = False  # between halves that go on once the machines stand: before them there is none to read
    closes_by_hub: bool = False  # the gap is trimmed by sliding the second hub, where it slides; else by the machine
    circles: tuple[Circle, ...] = ()
    finished: tuple[Field, ...] = ()  # what is looked at once it is closed
    watched: tuple[Field, ...] = ()  # what is looked for as it runs
    may_also: tuple[str, ...] = ()  # keys of the value card this family goes by where its paper gives a figure
    takes: Takes = "offset and angle"
    straightedge: bool = True  # there are two hubs to lay it over
    closed: ClosedCheck | None = None
    opened: tuple[str, ...] = ()  # what is undone of a closed coupling before anything behind it can be read
    element: Element | None = None  # changed with both hubs on; None where a hub has to come off for it
    sits_at: Callable[[OfJob, Side], float | None] | None = None  # the stand-out of a hub's shaft end, worked out in this job
    hubs: tuple[Side, ...] = SIDES  # those that are mounted on a shaft
    runs_in: bool = False  # it is run in under load and pulled again, unless its paper says otherwise
    set_by: SetBy = "dials"
    hangs: bool = False  # a drive that hangs on its shaft: there is nothing to be brought into line
    measured_at_jaws: bool = False  # the gap may be given from jaw tip to the opposite hub instead

    @property
    def may_have(self) -> tuple[str, ...]:
        """Keys of the value card that no paper has to give: with a figure there the route goes by it."""
        by_turns = ("circles_by",) if any(circle.by_turns_with for circle in self.circles) else ()
        bolts = tuple(key for circle in self.circles for key in _lines_of(circle, several=len(self.circles) > 1))
        true = (key for key in ("shaft_runout_mm", "hub_runout_mm") if key not in self.values)
        runs_true = (*true, *PLACE_VALUES, *self.may_also, *by_turns, *(RERUN_VALUES if self.circles else ()))
        if self.hangs:
            return (*runs_true, *dict.fromkeys(bolts))
        jaws = ("jaw_tip_mm",) if self.measured_at_jaws else ()
        by = ("aligned_by",) if "offset_limit_mm" in self.values else ()
        if self.set_by == "air gap":
            return (*runs_true, *SUITS_VALUES, *dict.fromkeys(bolts))
        screws = ("hot_screws_by", *(("set_screws_by",) if self.closes_by_hub else ()))
        gap = (*jaws, "gap_spread_mm", "axial_growth_mm") if "gap_nominal_mm" in self.values else ()
        return (
            *runs_true,
            *SUITS_VALUES,
            "shaft_ends_mm",
            "shaft_ends_plus_minus_mm",
            *by,
            *screws,
            *gap,
            *dict.fromkeys(bolts),
        )

    def circle(self, key: str) -> Circle:
        """The circle of that key, the family's own or that of a backstop; it must be there."""
        return next(circle for circle in (*self.circles, OUTER_RACE) if circle.key == key)


def _lines_of(circle: Circle, *, several: bool) -> tuple[str, ...]:
    """Lines a card may have for a circle: its order and passes, and its own count and torque where there are others."""
    if circle.own:
        counted = (circle.line(COUNT), circle.line(TORQUE)) if circle.only else ()
        return (*counted, circle.line(ORDER), circle.line(PASSES))
    own = (circle.line(COUNT), circle.line(TORQUE)) if several else ()
    return (ORDER, PASSES, *own)


OUTER_RACE = Circle(key="outer_race", title="bolts of the outer race", at="away from the hubs", own=True)
BACKSTOP_VALUES = (OUTER_RACE.line(COUNT), OUTER_RACE.line(TORQUE), "motor_turns")
ANGLE_VALUES = (
    "soft_foot_mm",
    "gap_nominal_mm",
    "gap_plus_minus_mm",
    "angle_limit_deg",
    "sliding_mm_per_s",
    "foot_bolt_torque_nm",
)
SETTING_VALUES = (*ANGLE_VALUES, "offset_limit_mm")
BOLTS_VALUES = (COUNT, TORQUE)
SUITS_VALUES = ("rated_torque_nm", "service_factor", "top_speed_rpm")
RERUN_VALUES = ("run_in", "rerun_minutes")
GREASE_VALUES = ("grease_product", "grease_g", "filled")
BOLTED_VALUES = (*SETTING_VALUES, *BOLTS_VALUES)
BOLTED_ANGLE_VALUES = (*ANGLE_VALUES, *BOLTS_VALUES)
END_VALUES = ("end_gap_nominal_mm", "end_gap_plus_minus_mm", "ends_differ_mm")

HUBS = (
    Part(key="driver_hub", title="Hub, driver side", look_for="bore, cracks, dents at jaws or teeth, keyway edges"),
    Part(key="driven_hub", title="Hub, driven side", look_for="bore, cracks, dents at jaws or teeth, keyway edges"),
)


def bolts(*circles: str, title: str = "Bolts and nuts", where: str = "") -> Part:
    """The fasteners of these circles: as many as the card says."""
    return Part(key="bolts", title=title, look_for="those supplied with it, threads clean", where=where, screws=circles)


BOTH_ENDS = ("driver_end", "driven_end")
LEAKS = condition("leaks", "No grease at seals, joint or plugs")
STROBE = text("strobe", "By strobe, from behind a shield: the pack at speed", "where somebody looks at it", required=False)
PACKS_FLAT = "Both packs look flat: no wave, no leaf lifted"
PACK_FLAT = "The pack looks flat: no wave, no leaf lifted"
