"""What a step fills into a bench's cells before anybody has read: from the line, or from what was read before it."""

from collections.abc import Mapping
from typing import Literal

from ..benches.alignment.drawn import Layout
from ..model import Model


class KeyHints(Model):
    """Of a key: how long the hub is."""

    hub_length_mm: float | None = None


class HeatHints(Model):
    """Of a hub to be heated: its size, what was measured of it, and after a try that missed the next temperature."""

    outside_mm: float | None = None
    length_mm: float | None = None
    bore_mm: float | None = None
    interference_mm: float | None = None
    assembly_clearance_mm: float | None = None
    heat_to_c: float | None = None


class TaperHints(Model):
    """Of a draw-up: hand tight as it was tried, and with what the hub was pushed on."""

    hand_tight_standout_mm: float | None = None
    hub_c: float | None = None
    shaft_c: float | None = None


class SoftFootHints(Model):
    """The feet of the machine by their names."""

    feet: list[str] | None = None


class GapHints(Model):
    """On what diameter a gap is measured."""

    diameter_mm: float | None = None


class StraightedgeHints(Model):
    """Both hubs' diameters."""

    stationary_hub_mm: float | None = None
    movable_hub_mm: float | None = None


class AlignmentHints(Model):
    """Where a face dial touches, and how both machines are drawn until somebody has read."""

    radius_mm: float | None = None
    layout: Layout | None = None


class TightenHints(Model):
    """How the bolts lie, where it is no circle."""

    layout: Literal["feet"] | None = None


class GreaseHints(Model):
    """Where the holes are, as long as nobody says otherwise."""

    holes: list[float] | None = None


class NoHints(Model):
    """Of a bench that starts empty."""


HINTS: Mapping[str, type[Model]] = {
    "key": KeyHints,
    "heat": HeatHints,
    "taper": TaperHints,
    "softfoot": SoftFootHints,
    "gap": GapHints,
    "airgap": GapHints,
    "straightedge": StraightedgeHints,
    "alignment": AlignmentHints,
    "tighten": TightenHints,
    "grease": GreaseHints,
}
NONE = NoHints()
