"""Lines of the value card for the coupling itself: its bolts, what it is proved by, its element."""

from .kind import COUPLING_PAPER, figure, length, torque, words, written
from .meanings import (
    CIRCLES_BY,
    FILLED,
    GAP_TAKEN,
    GAP_WIDTH,
    HOT_SCREWS_BY,
    PASSES_OF,
    PATTERN_OF,
    RUN_IN,
    SCREWS_BY,
    SEALS_BY,
)

COUPLING_LINES = (
    figure("rated_torque_nm", "Rated torque", "N·m", COUPLING_PAPER, 0.1, 10_000_000),
    figure("service_factor", "Service factor of this machine", "", COUPLING_PAPER, 0.5, 10),
    figure("top_speed_rpm", "Highest speed", "rpm", COUPLING_PAPER, 1, 100_000),
    figure(
        "flange_bolts", "Bolts of the coupling, one circle", "", "the coupling's drawing or parts list; or count them", 3, 100
    ),
    torque("flange_bolt_torque_nm", "Torque of the coupling's bolts", COUPLING_PAPER, 1, 20000),
    words("bolt_order", "Order of the coupling's bolts", COUPLING_PAPER, tuple(PATTERN_OF), ask="They are pulled"),
    words("bolt_passes", "Passes of the coupling's bolts", COUPLING_PAPER, tuple(PASSES_OF), ask="Shares of the torque"),
    words("circles_by", "Two circles of the coupling", COUPLING_PAPER, CIRCLES_BY, ask="They are pulled"),
    words("set_screws_by", "Set screws of hubs that slide", COUPLING_PAPER, SCREWS_BY, ask="They are pulled"),
    words("hot_screws_by", "Set screws of a hub that was heated", COUPLING_PAPER, HOT_SCREWS_BY, ask="They are pulled"),
    words("seals_by", "Seals of the cover", COUPLING_PAPER, SEALS_BY, ask="They go on"),
    words("run_in", "Run in and pulled again", COUPLING_PAPER, RUN_IN, ask="When"),
    figure("rerun_minutes", "Run under load before it is pulled again", "min", COUPLING_PAPER, 1, 1000),
    length("split_gap_max_mm", "Gap at the split of a tyre, at most", COUPLING_PAPER, 0.1, 50),
    length("ring_clear_mm", "Clamp ring to flange, at least", COUPLING_PAPER, 0.02, 20),
    length("wear_limit_mm", "Wear of the blocks at their mark, at most", COUPLING_PAPER, 0.1, 100),
    length("twist_limit_mm", "One shaft against the other by hand, at the rim, at most", COUPLING_PAPER, 0.1, 200),
    length("flywheel_face_mm", "Flywheel's face near its rim, total over a turn", COUPLING_PAPER, 0.01, 10),
    length("flywheel_rim_mm", "Flywheel's rim, total over a turn", COUPLING_PAPER, 0.01, 10),
    written("grease_product", "Grease", COUPLING_PAPER, ask="Which grease"),
    figure("grease_g", "Grease, one filling", "g", COUPLING_PAPER, 1, 50_000),
    words("filled", "Way of filling", COUPLING_PAPER, FILLED, ask="Filled"),
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
    length("push_back_mm", "The hub that lets it in leaves bare, at least", COUPLING_PAPER, 1, 2000),
    length("ends_differ_mm", "The two ends may differ by", COUPLING_PAPER, 0.01, 20),
    length("end_face_mm", "Dial on the face of an end, total over a turn", COUPLING_PAPER, 0.01, 10),
    written("element_material", "Material of the element", COUPLING_PAPER, ask="Which material, and its hardness"),
    length("element_width_mm", "Width of the element", COUPLING_PAPER, 1, 500),
    length("element_opening_mm", "Opening in the element's centre", COUPLING_PAPER, 1, 1000),
    figure("open_centre_rpm", "Highest speed with an open-centre element", "rpm", COUPLING_PAPER, 1, 100000),
)
