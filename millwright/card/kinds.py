"""Every line a value card can hold, in the order they are written on it, and the circles that may have lines of their own."""

from dataclasses import replace

from .coupling_lines import COUPLING_LINES
from .hanging_lines import HANGING_LINES
from .hub_lines import HUB_LINES
from .keep_lines import KEEP_LINES
from .kind import ValueKind
from .setting_lines import SETTING_LINES

# Limits that papers often leave out. Without one, what it would judge is read and kept all the same.
MAY_BE_NONE = {
    "soft_foot_mm",
    "angle_limit_deg",
    "sliding_mm_per_s",
    "ends_differ_mm",
    "sleeve_spread_mm",
    "end_face_mm",
    "hub_runout_mm",
    "shaft_runout_mm",
    "taper_mismatch_mm",
    "taper_contact_percent",
    "motor_turns",
    "air_gap_spread_mm",
    "rotor_runout_mm",
}
VALUE_KINDS: dict[str, ValueKind] = {
    kind.key: replace(kind, may_be_none=kind.key in MAY_BE_NONE)
    for kind in (*HUB_LINES, *SETTING_LINES, *COUPLING_LINES, *HANGING_LINES, *KEEP_LINES)
}
# Circles of fasteners that may have lines of their own: their keys, and how the line is called.
CIRCLES = {
    "cover": "cover",
    "first": "first flange",
    "second": "second flange",
    "driver_end": "driver end",
    "driven_end": "driven end",
    "ring_driver": "ring, driver end",
    "ring_driven": "ring, driven end",
    "bolt_ring": "bolt ring",
    "clamp_ring": "clamp ring",
    "ring": "ring",
    "spacer": "spacer",
    "sleeve": "sleeve",
    "flange": "flange",
    "outer_race": "outer race of the backstop",
    "adapter": "adapter",
    "arm": "torque arm",
    "rotor": "rotor flange",
    "conductor": "conductor flange",
    "gap_spacers": "gap spacers",
}
