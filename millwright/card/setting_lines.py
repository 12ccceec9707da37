"""Lines of the value card for where the machines stand: feet, gap, shaft ends, misalignment."""

from .kind import COUPLING_PAPER, DRAWING, figure, length, torque, words
from .meanings import ALIGNED_BY, GAP_TAKEN, GAP_WIDTH

SETTING_LINES = (
    length("soft_foot_mm", "Soft foot limit", "the site's alignment rule, or the machine's manual", 0.005, 1),
    length("gap_nominal_mm", "Gap between hub faces", COUPLING_PAPER, 0.1, 5000, means=GAP_TAKEN, ask="Accepted by"),
    length("gap_plus_minus_mm", "Gap, plus or minus", COUPLING_PAPER, 0.01, 50, means=GAP_WIDTH, ask="The figure is"),
    length("gap_spread_mm", "Gap spread", COUPLING_PAPER, 0.005, 20),
    length("jaw_tip_mm", "Jaw tip to the opposite hub, where that is measured instead of the gap", COUPLING_PAPER, 0.1, 1000),
    length("shaft_ends_mm", "Distance between the shaft ends", DRAWING, 0.1, 10000),
    length("shaft_ends_plus_minus_mm", "Distance between the shaft ends, plus or minus", DRAWING, 0.01, 100),
    length(
        "axial_growth_mm",
        "Shafts grow toward each other when warm by",
        "both machines' manuals; or calculated from their temperatures",
        -20,
        20,
    ),
    length(
        "offset_limit_mm",
        "Offset limit of the coupling",
        COUPLING_PAPER,
        0.005,
        20,
        means=("offset", "swing"),
        ask="The limit is",
        by_material=True,
    ),
    words(
        "aligned_by",
        "How this line is aligned",
        "the site's alignment rule, or the coupling's installation manual",
        ALIGNED_BY,
        ask="Aligned by",
    ),
    figure(
        "angle_limit_deg",
        "Angle limit of the coupling",
        "°",
        "the coupling's installation manual; for jaw couplings by the element's material",
        0.005,
        10,
        by_material=True,
    ),
    figure(
        "sliding_mm_per_s",
        "Running target: sliding speed at the coupling",
        "mm/s",
        "the site's alignment rule (samples: rough 10, ordinary 5.6, fine 2.8)",
        0.1,
        100,
    ),
    torque(
        "foot_bolt_torque_nm", "Machine foot bolt torque", "the machine's manual, or the site's bolt torque rule", 1, 20000
    ),
)
