"""What is to be expected: where the axis lies after moves, and what the dials show with it there."""

from collections.abc import Sequence

import numpy as np

from ...clock import FEW, ClockReading
from ...uncertainty import Array
from . import dials
from .axis import Line
from .dials import Dial
from .feet import Foot, line_through
from .moves import PlannedMove


def readings_at(all_dials: list[Dial], axis: Line, rows: tuple[Array, Array] | None = None) -> list[list[ClockReading]]:
    """What each dial shows at its places with the movable axis there, zeroed as it was when it was read.

    ``rows`` - `dials.rows` of these dials, where somebody has them already

    Nothing of a dial that was swept through more places than anybody copies on a sheet.
    Source: the rows of the fit, the other way round.
    """
    if not all_dials:
        return []
    design, without_sag = rows or dials.rows(all_dials)
    seen = design[:, :4] @ np.array([axis.offset_v_mm, axis.slope_v_mm_per_m, axis.offset_h_mm, axis.slope_h_mm_per_m])
    found: list[list[ClockReading]] = []
    at = 0
    for dial in all_dials:
        n = len(dial.clocks)
        if n > FEW:
            found.append([])
            at += n
            continue
        read = np.array(dial.values_mm)
        shown = seen[at : at + n] + (read - without_sag[at : at + n])
        sign = 1.0 if dial.positive == "in" else -1.0
        from_zero = sign * (shown - shown[0] + read[0])
        found.append(
            [ClockReading.model_construct(clock=c, value_mm=float(v)) for c, v in zip(dial.clocks, from_zero, strict=True)]
        )
        at += n
    return found


def after_moves(axis: Line, stationary: list[Foot], movable: list[Foot], moves: Sequence[PlannedMove]) -> Line:
    """Where the movable axis lies after moves; each machine goes as one piece, along the line through its feet."""
    by_name = {move.name: move for move in moves}
    for feet, sign in ((movable, 1.0), (stationary, -1.0)):
        mine = [by_name[foot.name] for foot in feet if foot.name in by_name]
        up, up_slope = line_through(feet, {move.name: move.shim_mm for move in mine})
        side, side_slope = line_through(feet, {move.name: move.slide_mm for move in mine})
        moved = Line(offset_v_mm=up, slope_v_mm_per_m=up_slope, offset_h_mm=side, slope_h_mm_per_m=side_slope)
        axis = axis.plus(moved, sign)
    return axis
