"""Lines of the value card for a hub and its shaft: fit, heat, what holds it, how true it runs."""

from .kind import COUPLING_PAPER, figure, length, torque

MIN_CLEARANCE, MAX_CLEARANCE = "clearance_min_mm", "clearance_max_mm"
MIN_INTERFERENCE, MAX_INTERFERENCE = "interference_min_mm", "interference_max_mm"
MAY_GRIP = "transition_interference_mm"
LEAST_AND_MOST = ((MIN_CLEARANCE, MAX_CLEARANCE), (MIN_INTERFERENCE, MAX_INTERFERENCE))
FIT_PAPER = "the coupling's order sheet or drawing: bore tolerance against the shaft's"
HUB_LINES = (
    length(MIN_CLEARANCE, "Min. clearance", FIT_PAPER, 0, 1),
    length(MAX_CLEARANCE, "Max. clearance", FIT_PAPER, 0.001, 1),
    length(MIN_INTERFERENCE, "Min. interference", FIT_PAPER, 0.001, 2),
    length(MAX_INTERFERENCE, "Max. interference", FIT_PAPER, 0.001, 2),
    length(MAY_GRIP, "Max. interference of a fit that may also slip, in place of min. clearance", FIT_PAPER, 0.001, 1),
    length("taper_interference_mm", "Interference on the taper", "the coupling's order sheet or drawing", 0.001, 2),
    length(
        "taper_mismatch_mm",
        "Tapers may differ over the fit by",
        "the coupling's drawing, or the plant's rule for tapers",
        0.001,
        0.5,
    ),
    figure(
        "taper_contact_percent", "Blue contact, min.", "%", "the coupling's manual, or the plant's rule for tapers", 10, 100
    ),
    torque("lock_nut_torque_nm", "Lock nut torque", COUPLING_PAPER, 1, 20000),
    length(
        "heat_clearance_mm",
        "Sliding clearance when hot",
        "the coupling's manual, chapter on shrink fits; or the plant's rule",
        0.005,
        1,
    ),
    figure("hub_ceiling_c", "Max. hub temperature", "°C", "the coupling's manual, chapter on shrink fits", 50, 600),
    torque("set_screw_torque_nm", "Hub set screw torque", COUPLING_PAPER, 0.1, 2000),
    figure(
        "hub_screws",
        "Clamping screws, number (bush, ring or disc)",
        "",
        "the bush's or ring's own sheet; or count them",
        1,
        40,
    ),
    torque(
        "hub_screw_torque_nm",
        "Torque of the clamping screws",
        "the bush's or ring's own sheet: the coupling's manual does not hold it",
        0.5,
        5000,
    ),
    length(
        "shaft_runout_mm",
        "Shaft run-out, TIR",
        "the machine's manual, or the site's rule",
        0.002,
        2,
        by_speed=True,
    ),
    length("hub_standout_mm", "Shaft end stands out of the hub (minus: set back)", "the coupling's drawing", -500, 500),
    length("hub_standout_plus_minus_mm", "Where the hub sits, plus or minus", "the coupling's drawing", 0.01, 20),
    length("hub_runout_mm", "Hub run-out, TIR", COUPLING_PAPER, 0.002, 5, by_speed=True),
)
