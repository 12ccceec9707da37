"""What the alignment bench says in words, besides the faults of the readings."""

import math

from ..clock import say_stands_out
from ..verdict import Check
from . import dials
from .alignment_io import DialStandsOut
from .axis import Line
from .dials import Dial
from .moves import Plan

NOTICED_MM = 0.02  # rule of thumb: two readings of a shop dial
ENOUGH_SIGMAS = 2.0  # the usual 95 %


def _small(moved: Line) -> bool:
    return math.hypot(moved.offset_v_mm, moved.offset_h_mm) <= NOTICED_MM


def _way(moved: Line, *, up: str = "up", down: str = "down", toward: str = "toward") -> str:
    v, h = moved.offset_v_mm, moved.offset_h_mm
    return f"{abs(v):.2f} mm {up if v > 0 else down}, {abs(h):.2f} mm {toward} {3 if h > 0 else 9}"


def say_warm(predicted: Line | None, axis: Line) -> list[str]:
    """How it lies warm against what was predicted; nothing where it was not read warm."""
    if predicted is None:
        return []
    off = axis.less(predicted)
    if _small(off):
        return ["Warm it lies where it was predicted, as near as the dials show."]
    way = _way(off, up="higher", down="lower", toward="further toward")
    return [f"Warm it lies {way} than predicted. Put the growth of this line right before it is aligned again."]


def say_shift(shifted: Line | None, since: str) -> list[str]:
    """How far it has moved since an earlier reading; ``since`` as in `AlignmentInput.before_is`."""
    if shifted is None:
        return []
    if since == "as left":
        turned = f"{math.hypot(shifted.slope_v_mm_per_m, shifted.slope_h_mm_per_m):.2f} mm/m in angle"
        if _small(shifted):
            return [f"Since it was left the offset has not moved by more than the dials show; {turned}."]
        return [f"Since it was left it has moved {_way(shifted)}, and {turned}. Find out why before it is moved back."]
    if _small(shifted):
        return ["Torquing the feet did not move it by more than the dials show."]
    says = f"Torquing the feet moved it {_way(shifted)}."
    return [f"{says} A foot that springs or a base that bends: look at the soft feet again."]


def say_plan(plan: Plan | None) -> list[str]:
    """Why the room there is does not allow it, and what would."""
    if plan is None or plan.moves is not None:
        return []
    if not plan.missing:
        return ["The room there is does not allow it, whatever else is moved: name feet that may move."]
    return [f"Not possible with the room there is. It would be with {'; '.join(plan.missing)}."]


def say_stands_out_by_dial(all_dials: list[Dial], out: list[DialStandsOut]) -> list[str]:
    """One sentence for each reading that stands out, with the dial's name."""
    return [say for s in out for say in say_stands_out([s], dials.name_of(all_dials, s.dial).lower())]


def say_too_uncertain(checks: list[Check], sigma: list[float]) -> list[str]:
    """Checks whose uncertainty is bigger than what is left of the allowance. ``sigma`` - up, slope, side, slope."""
    says = []
    for check in checks:
        if check.max is None or check.value is None or check.status == "over":
            continue
        plus_minus = ENOUGH_SIGMAS * (max(sigma[0], sigma[2]) if check.unit == "mm" else max(sigma[1], sigma[3]))
        if plus_minus > check.max - abs(check.value):
            says.append(
                f"{check.name}: uncertain by ±{plus_minus:.3f} {check.unit}, more than what is left of the allowance. "
                "Read at more places, or read again, before it is called inside."
            )
    return says
