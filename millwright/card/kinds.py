"""Every line a value card can hold: what it is called, its unit, the paper to look in. Add a figure here."""

from dataclasses import dataclass

from ..bolting.order import Pattern


@dataclass(frozen=True, kw_only=True)
class ValueKind:
    """What a figure is called, its unit, and where one looks for it."""

    key: str
    title: str
    unit: str
    look_in: str
    low: float
    high: float
    means: tuple[str, ...] = ()  # what has to be asked beside the number
    ask: str = ""
    by_speed: bool = False  # may have steps that hold up to a speed
    words_only: bool = False  # what it means is all there is to it; the figure is 0

    def unit_as(self, means: str) -> str:
        """The unit of a figure that means this: a tolerance in percent of the gap is no length."""
        return self.unit_by_means.get(means, self.unit)

    @property
    def unit_by_means(self) -> dict[str, str]:
        """Where what a figure means is its unit as well."""
        return {means: means for means in self.means if means in (GAP_MM, GAP_PERCENT)}


COUPLING_PAPER = "the coupling's installation manual, table of the series"
GAP_MEAN, GAP_EACH = "the mean of the readings", "every reading"
GAP_MM, GAP_PERCENT = "mm", "percent of the gap"
THREAD = ("dry", "oiled", "glued")
THREAD_ASK = "Threads"
# In what order bolts are pulled, and in which shares of their torque, as a manual says it.
PATTERN_OF: dict[str, Pattern] = {"crosswise": "star", "round the circle": "circle", "alternately": "alternate"}
PASSES_OF = {
    "full": (1.0,),
    "half, full": (0.5, 1.0),
    "half, full, full": (0.5, 1.0, 1.0),
    "half, three quarters, full": (0.5, 0.75, 1.0),
    "a third, two thirds, full": (1 / 3, 2 / 3, 1.0),
    "a quarter, half, three quarters, full": (0.25, 0.5, 0.75, 1.0),
}
# Circles of fasteners that may have lines of their own: their keys, and how the line is called.
CIRCLES = {
    "cover": "cover",
    "first": "first flange",
    "second": "second flange",
    "driver_end": "driver end",
    "driven_end": "driven end",
    "ring_driver": "ring, driver end",
    "ring_driven": "ring, driven end",
    "bolt_ring": "bolt ring",
    "clamp_ring": "clamp ring",
    "ring": "ring",
    "flange": "flange",
}

VALUE_KINDS: dict[str, ValueKind] = {
    kind.key: kind
    for kind in (
        ValueKind(
            key="fit_min_mm",
            title="Fit, loosest wanted (clearance is negative)",
            unit="mm",
            look_in="the coupling's order sheet or drawing: bore tolerance against the shaft's",
            low=-1,
            high=1,
        ),
        ValueKind(
            key="fit_max_mm",
            title="Fit, tightest wanted (clearance is negative)",
            unit="mm",
            look_in="the coupling's order sheet or drawing: bore tolerance against the shaft's",
            low=-1,
            high=1,
        ),
        ValueKind(
            key="interference_min_mm",
            title="Interference, smallest wanted",
            unit="mm",
            look_in="the coupling's order sheet or drawing: bore tolerance against the shaft's",
            low=0.001,
            high=2,
        ),
        ValueKind(
            key="interference_max_mm",
            title="Interference, largest wanted",
            unit="mm",
            look_in="the coupling's order sheet or drawing: bore tolerance against the shaft's",
            low=0.001,
            high=2,
        ),
        ValueKind(
            key="taper_interference_mm",
            title="Interference wanted on the taper",
            unit="mm",
            look_in="the coupling's order sheet or drawing",
            low=0.001,
            high=2,
        ),
        ValueKind(
            key="taper_mismatch_mm",
            title="Tapers may differ over the fit by",
            unit="mm",
            look_in="the coupling's drawing, or the plant's rule for tapers",
            low=0.001,
            high=0.5,
        ),
        ValueKind(
            key="taper_contact_percent",
            title="Blue contact wanted",
            unit="%",
            look_in="the coupling's manual, or the plant's rule for tapers",
            low=10,
            high=100,
        ),
        ValueKind(
            key="lock_nut_torque_nm",
            title="Lock nut torque",
            unit="N·m",
            look_in=COUPLING_PAPER,
            low=1,
            high=20000,
            means=THREAD,
            ask=THREAD_ASK,
        ),
        ValueKind(
            key="heat_clearance_mm",
            title="Room wanted while a hot hub slides on",
            unit="mm",
            look_in="the coupling's manual, chapter on shrink fits; or the plant's rule",
            low=0.005,
            high=1,
        ),
        ValueKind(
            key="hub_ceiling_c",
            title="Most heat the hub may have",
            unit="°C",
            look_in="the coupling's manual, chapter on shrink fits",
            low=50,
            high=600,
        ),
        ValueKind(
            key="set_screw_torque_nm",
            title="Hub set screw torque",
            unit="N·m",
            look_in=COUPLING_PAPER,
            low=0.1,
            high=2000,
            means=THREAD,
            ask=THREAD_ASK,
        ),
        ValueKind(
            key="hub_screws",
            title="Screws that hold the hub (bush, ring or disc)",
            unit="",
            look_in="the bush's or ring's own sheet; or count them",
            low=1,
            high=40,
        ),
        ValueKind(
            key="hub_screw_torque_nm",
            title="Torque of the screws that hold the hub",
            unit="N·m",
            look_in="the bush's or ring's own sheet: the coupling's manual does not hold it",
            low=0.5,
            high=5000,
            means=THREAD,
            ask=THREAD_ASK,
        ),
        ValueKind(
            key="shaft_runout_mm",
            title="Run-out of the bare shaft, total reading",
            unit="mm",
            look_in="the machine's manual, or the site's rule",
            low=0.002,
            high=2,
            by_speed=True,
        ),
        ValueKind(
            key="hub_runout_mm",
            title="Run-out of a mounted hub, total reading",
            unit="mm",
            look_in=COUPLING_PAPER,
            low=0.002,
            high=5,
            by_speed=True,
        ),
        ValueKind(
            key="soft_foot_mm",
            title="A foot may rise by",
            unit="mm",
            look_in="the site's alignment rule, or the machine's manual",
            low=0.005,
            high=1,
        ),
        ValueKind(
            key="gap_nominal_mm",
            title="Gap between hub faces",
            unit="mm",
            look_in=COUPLING_PAPER,
            low=0.1,
            high=5000,
            means=(GAP_MEAN, GAP_EACH),
            ask="Accepted by",
        ),
        ValueKind(
            key="gap_plus_minus_mm",
            title="Gap, plus or minus",
            unit="mm",
            look_in=COUPLING_PAPER,
            low=0.01,
            high=50,
            means=(GAP_MM, GAP_PERCENT),
            ask="The figure is",
        ),
        ValueKind(
            key="gap_spread_mm",
            title="Gap, largest less smallest",
            unit="mm",
            look_in=COUPLING_PAPER,
            low=0.005,
            high=20,
        ),
        ValueKind(
            key="jaw_tip_mm",
            title="Jaw tip to the opposite hub, where that is measured instead of the gap",
            unit="mm",
            look_in=COUPLING_PAPER,
            low=0.1,
            high=1000,
        ),
        ValueKind(
            key="shaft_ends_mm",
            title="Distance between the shaft ends",
            unit="mm",
            look_in="the coupling's drawing or order",
            low=0.1,
            high=10000,
        ),
        ValueKind(
            key="shaft_ends_plus_minus_mm",
            title="Distance between the shaft ends, plus or minus",
            unit="mm",
            look_in="the coupling's drawing or order",
            low=0.01,
            high=100,
        ),
        ValueKind(
            key="axial_growth_mm",
            title="Shafts grow toward each other when warm by",
            unit="mm",
            look_in="both machines' manuals; or worked out from their temperatures",
            low=-20,
            high=20,
        ),
        ValueKind(
            key="offset_limit_mm",
            title="Offset limit of the coupling",
            unit="mm",
            look_in=COUPLING_PAPER,
            low=0.005,
            high=20,
            means=("offset", "swing"),
            ask="The paper means",
        ),
        ValueKind(
            key="angle_limit_deg",
            title="Angle limit of the coupling",
            unit="°",
            look_in="the coupling's installation manual; for jaw couplings by the element's material",
            low=0.005,
            high=10,
        ),
        ValueKind(
            key="sliding_mm_per_s",
            title="Running target: halves may slide over each other at",
            unit="mm/s",
            look_in="the site's alignment rule (samples: rough 10, ordinary 5.6, fine 2.8)",
            low=0.1,
            high=100,
        ),
        ValueKind(
            key="foot_bolt_torque_nm",
            title="Machine foot bolt torque",
            unit="N·m",
            look_in="the machine's manual, or the site's bolt torque rule",
            low=1,
            high=20000,
            means=THREAD,
            ask=THREAD_ASK,
        ),
        ValueKind(
            key="flange_bolts",
            title="Bolts of the coupling, one circle",
            unit="",
            look_in="the coupling's drawing or parts list; or count them",
            low=3,
            high=100,
        ),
        ValueKind(
            key="flange_bolt_torque_nm",
            title="Torque of the coupling's bolts",
            unit="N·m",
            look_in=COUPLING_PAPER,
            low=1,
            high=20000,
            means=THREAD,
            ask=THREAD_ASK,
        ),
        ValueKind(
            key="bolt_order",
            title="Order of the coupling's bolts",
            unit="",
            look_in=COUPLING_PAPER,
            low=0,
            high=0,
            means=tuple(PATTERN_OF),
            ask="They are pulled",
            words_only=True,
        ),
        ValueKind(
            key="bolt_passes",
            title="Passes of the coupling's bolts",
            unit="",
            look_in=COUPLING_PAPER,
            low=0,
            high=0,
            means=tuple(PASSES_OF),
            ask="Shares of the torque",
            words_only=True,
        ),
        ValueKind(
            key="squeeze_most_mm",
            title="A spacer unit may be squeezed by",
            unit="mm",
            look_in=COUPLING_PAPER,
            low=0.1,
            high=50,
        ),
        ValueKind(
            key="sleeve_spread_mm",
            title="Hub to sleeve, largest less smallest, closed",
            unit="mm",
            look_in=COUPLING_PAPER,
            low=0.02,
            high=20,
        ),
        ValueKind(
            key="end_gap_nominal_mm",
            title="Gap at each end of the spacer, or pack width",
            unit="mm",
            look_in=COUPLING_PAPER,
            low=0.1,
            high=500,
            means=(GAP_MEAN, GAP_EACH),
            ask="Accepted by",
        ),
        ValueKind(
            key="end_gap_plus_minus_mm",
            title="That gap, plus or minus",
            unit="mm",
            look_in=COUPLING_PAPER,
            low=0.01,
            high=50,
            means=(GAP_MM, GAP_PERCENT),
            ask="The figure is",
        ),
        ValueKind(
            key="ends_differ_mm",
            title="The two ends may differ by",
            unit="mm",
            look_in=COUPLING_PAPER,
            low=0.01,
            high=20,
        ),
        ValueKind(
            key="end_face_mm",
            title="Dial on the face of an end, total over a turn",
            unit="mm",
            look_in=COUPLING_PAPER,
            low=0.01,
            high=10,
        ),
        ValueKind(key="element_width_mm", title="Width of the element", unit="mm", look_in=COUPLING_PAPER, low=1, high=500),
        ValueKind(
            key="element_opening_mm",
            title="Opening in the element's centre",
            unit="mm",
            look_in=COUPLING_PAPER,
            low=1,
            high=1000,
        ),
        ValueKind(
            key="open_centre_rpm",
            title="Highest speed with an open-centre element",
            unit="rpm",
            look_in=COUPLING_PAPER,
            low=1,
            high=100000,
        ),
    )
}
