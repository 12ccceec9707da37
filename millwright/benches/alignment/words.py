"""What the alignment bench says in words, besides the faults of the readings."""

import math

from ...clock import say_clock, say_stands_out
from ...say import Say, Words, joined, mm, per_m, say, words
from . import dials
from .axis import Line
from .dials import Dial
from .io import DialStandsOut
from .moves import Plan
from .quality import NextReading

NOTICED_MM = 0.02  # rule of thumb: two readings of a shop dial


def _small(moved: Line) -> bool:
    return math.hypot(moved.offset_v_mm, moved.offset_h_mm) <= NOTICED_MM


def _way(v: float, h: float, *, up: str = "up", down: str = "down", toward: str = "toward") -> Words:
    text = "{v} {way}, {h} {toward} {side}"
    side = "3" if h > 0 else "9"
    return words(text, v=mm(abs(v)), way=up if v > 0 else down, h=mm(abs(h)), toward=toward, side=side)


def say_warm(predicted: Line | None, axis: Line) -> list[Say]:
    """How it lies warm against what was predicted; nothing where it was not read warm."""
    if predicted is None:
        return []
    off = axis.less(predicted)
    if _small(off):
        return [say("warm_as_predicted", "Warm it lies where it was predicted, as near as the dials show.")]
    way = _way(off.offset_v_mm, off.offset_h_mm, up="higher", down="lower", toward="further toward")
    text = "Warm it is {way} than predicted. Correct the thermal growth of this line before it is aligned again."
    return [say("warm_elsewhere", text, way=way)]


ASSUMED = {
    "x_mm": "stem of the {dial} at {mm}",
    "radius_mm": "radius of the {dial} {mm}",
    "sag_mm": "sag of the bracket at the {dial} {mm}",
}


def say_assumed(all_dials: list[Dial]) -> list[Say]:
    """What of the set-up nobody measured; nothing where all of it was."""
    what = [
        words(ASSUMED[key], dial=dials.name_of(all_dials, i).lower(), mm=mm(abs(getattr(dial, key) or 0.0)))
        for i, dial in enumerate(all_dials)
        for key in dial.assumed
    ]
    if not what:
        return []
    return [say("assumed", "Assumed, not measured: {what}. Measure it, or confirm it.", what=joined(what))]


class Shift:
    """How far the movable axis has moved since an earlier reading, where it shows most.

    ``places`` - by name: the coupling, flexing planes, feet; x in mm
    ``can_tell_mm`` - by name: less than this the two readings do not tell
    """

    def __init__(self, moved: Line, places: dict[str, float], can_tell_mm: dict[str, float]) -> None:
        self.moved = moved
        at = {name: math.hypot(moved.v_mm(x), moved.h_mm(x)) for name, x in places.items()}
        self.still = all(size <= max(NOTICED_MM, can_tell_mm[name]) for name, size in at.items())
        self.most = max(at, key=lambda name: at[name])
        self.by = words(
            "{way} at the {place}", way=_way(*(f(places[self.most]) for f in (moved.v_mm, moved.h_mm))), place=self.most
        )
        self.least_told_mm = max(NOTICED_MM, max(can_tell_mm.values()))

    def say(self, since: str) -> list[Say]:
        """In one sentence; ``since`` as in `AlignmentInput.before_is`."""
        told = mm(self.least_told_mm)
        turned = per_m(math.hypot(self.moved.slope_v_mm_per_m, self.moved.slope_h_mm_per_m))
        if since != "feet loose":
            was = "left" if since == "as left" else "found"
            if self.still:
                text = f"Since it was {was} it has not moved by more than these readings tell, {{told}}; {{turned}} in angle."
                return [say(f"as_it_was_{was}", text, told=told, turned=turned)]
            text = f"Since it was {was} it has moved {{by}}, and {{turned}} in angle. Find out why before it is moved back."
            return [say(f"moved_since_{was}", text, by=self.by, turned=turned)]
        if self.still:
            text = "Torquing the feet did not move it at feet or coupling by more than these readings tell, {told}."
            return [say("feet_did_not_move_it", text, told=told)]
        text = "Torquing the feet moved it {by}. A foot that springs or a base that bends: check for soft foot again."
        return [say("feet_moved_it", text, by=self.by)]


def say_plan(plan: Plan | None) -> list[Say]:
    """Why the room there is does not allow it, and what would."""
    if plan is None or plan.moves is not None:
        return []
    if not plan.missing:
        text = "Not possible with the room there is, whatever else is moved: name feet that may move."
        return [say("no_room_at_all", text)]
    text = "Not possible with the room there is. It would be with {more}."
    return [say("no_room", text, more=joined(plan.missing))]


def say_stands_out_by_dial(all_dials: list[Dial], out: list[DialStandsOut]) -> list[Say]:
    """One sentence for each reading that stands out, with the dial's name."""
    return [one for s in out for one in say_stands_out([s], dials.name_of(all_dials, s.dial).lower())]


def say_next_reading(all_dials: list[Dial], found: NextReading) -> Say:
    """The reading that would help most."""
    name = dials.name_of(all_dials, found.dial).lower()
    return say(
        "next_reading", "One more reading helps most at {clock} on the {dial}.", clock=say_clock(found.clock), dial=name
    )
