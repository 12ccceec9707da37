"""Lines of the value card for drives that hang on a shaft or hold by magnets, and for which way the motor has to turn."""

from .kind import figure, length, words, written
from .meanings import TURNS

UNIT_PAPER = "the gear unit's installation manual"
BACKSTOP_PAPER = "the guide that comes with the backstop kit"
MAGNETIC_PAPER = "the magnetic drive's installation manual, table of the size"

HANGING_LINES = (
    words(
        "motor_turns",
        "Motor turns, seen from its drive end",
        "the arrow on the driven machine, or its manual; through the gears back to the motor",
        TURNS,
        ask="Seen from its drive end",
    ),
    figure("arm_off_square_deg", "Torque arm off square, at most", "°", UNIT_PAPER, 1, 60),
    written("unit_oil", "Oil of the gear unit", UNIT_PAPER, ask="Which oil"),
    figure("unit_oil_l", "Oil for the position it hangs in", "l", UNIT_PAPER, 0.05, 2000),
    figure("sealant_open_min", "Open time of the sealant", "min", "the sealant's own label", 1, 600),
    figure("packing_turn_deg", "Turn of the packing nuts after hand tight", "°", UNIT_PAPER, 10, 720),
    length("air_gap_spread_mm", "Air gap, largest less smallest on a side", MAGNETIC_PAPER, 0.02, 10),
    length("air_gap_differ_mm", "Air gap, the two sides may differ by", MAGNETIC_PAPER, 0.02, 10),
    length("air_gap_least_mm", "Air gap full on, at least", MAGNETIC_PAPER, 0.2, 50),
    length("rotor_runout_mm", "Run-out at the end of the centre shaft, TIR", MAGNETIC_PAPER, 0.005, 5, by_speed=True),
)
