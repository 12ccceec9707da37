"""What a figure of the value card may mean beside its number, in the words of the card."""

from typing import Literal

from ..bolt_order import HALF_TURNS, Pattern

GAP_MEAN, GAP_EACH = "the mean of the readings", "every reading"
GAP_TAKEN = (GAP_MEAN, GAP_EACH)
GAP_MM, GAP_PERCENT = "mm", "percent of the gap"
GAP_WIDTH = (GAP_MM, GAP_PERCENT)
DRY, *_ = THREAD = ("dry", "oiled", "glued")
# In what order bolts are pulled, and in which shares of their torque, as a manual says it.
PATTERN_OF: dict[str, Pattern] = {"crosswise": "star", "round the circle": "circle", "alternately": "alternate"}
Passes = tuple[float, ...] | Literal["half turns"]
PASSES_OF: dict[str, Passes] = {
    "full": (1.0,),
    "half, full": (0.5, 1.0),
    "half, full, full": (0.5, 1.0, 1.0),
    "half, three quarters, full": (0.5, 0.75, 1.0),
    "a third, two thirds, full": (1 / 3, 2 / 3, 1.0),
    "a quarter, half, three quarters, full": (0.25, 0.5, 0.75, 1.0),
    "half turns, until nothing turns": HALF_TURNS,
}
RUN_IN = ("run under load, then pulled again", "not asked for by its manual")
BY_TURNS = "by turns, half a turn here, half there"
CIRCLES_BY = (BY_TURNS, "one after the other")
FILLED: tuple[Literal["low in, high out", "hole by hole", "packed by hand"], ...] = (
    "low in, high out",
    "hole by hole",
    "packed by hand",
)
BOTH_AT_ONCE = "both at once, the gap set by the machine"
SCREWS_BY = ("the first at once, the other once the gap is right", BOTH_AT_ONCE)
WHILE_HOT = "straight after it is placed, hot"
HOT_SCREWS_BY = ("once it is cold", WHILE_HOT)
SEALS_FIRST = "before its hub, always"
SEALS_BY = (SEALS_FIRST, "before its hub, or stretched over afterwards")
CLOCKWISE, COUNTER_CLOCKWISE = TURNS = ("clockwise", "counter-clockwise")
STRAIGHTEDGE_ALONE = "straightedge alone"
ALIGNED_BY = ("dials or laser", STRAIGHTEDGE_ALONE)
