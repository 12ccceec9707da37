"""Lines of the value card for the coupling itself: its bolts, what it is proved by, its element."""

from .kind import COUPLING_PAPER, figure, length, torque, words
from .meanings import GAP_TAKEN, GAP_WIDTH, PASSES_OF, PATTERN_OF

COUPLING_LINES = (
    figure(
        "flange_bolts", "Bolts of the coupling, one circle", "", "the coupling's drawing or parts list; or count them", 3, 100
    ),
    torque("flange_bolt_torque_nm", "Torque of the coupling's bolts", COUPLING_PAPER, 1, 20000),
    words("bolt_order", "Order of the coupling's bolts", COUPLING_PAPER, tuple(PATTERN_OF), ask="They are pulled"),
    words("bolt_passes", "Passes of the coupling's bolts", COUPLING_PAPER, tuple(PASSES_OF), ask="Shares of the torque"),
    length("squeeze_most_mm", "A spacer unit may be squeezed by", COUPLING_PAPER, 0.1, 50),
    length("sleeve_spread_mm", "Hub to sleeve, largest less smallest, closed", COUPLING_PAPER, 0.02, 20),
    length(
        "end_gap_nominal_mm",
        "Gap at each end of the spacer, or pack width",
        COUPLING_PAPER,
        0.1,
        500,
        means=GAP_TAKEN,
        ask="Accepted by",
    ),
    length(
        "end_gap_plus_minus_mm", "That gap, plus or minus", COUPLING_PAPER, 0.01, 50, means=GAP_WIDTH, ask="The figure is"
    ),
    length("ends_differ_mm", "The two ends may differ by", COUPLING_PAPER, 0.01, 20),
    length("end_face_mm", "Dial on the face of an end, total over a turn", COUPLING_PAPER, 0.01, 10),
    length("element_width_mm", "Width of the element", COUPLING_PAPER, 1, 500),
    length("element_opening_mm", "Opening in the element's centre", COUPLING_PAPER, 1, 1000),
    figure("open_centre_rpm", "Highest speed with an open-centre element", "rpm", COUPLING_PAPER, 1, 100000),
)
