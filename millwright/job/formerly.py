"""What entries are of that were made before an entry said so itself: from the key of their step, as it was then."""

from collections.abc import Mapping
from typing import Any

from ..meaning import GOES_BACK_IN, Meaning, Of, When

SIDES = ("driver", "driven")
BY_KEY: Mapping[str, tuple[Meaning, ...]] = {
    "safe.papers": (Meaning(of=Of.DOCUMENTS),),
    "safe.locks": (Meaning(of=Of.LOCKED_OUT),),
    "close.guard": (Meaning(of=Of.GUARD_ON),),
    "close.start": (
        Meaning(of=Of.STARTED),
        Meaning(of=Of.WEAR_MARK, when=When.AFTER_RUNNING, field="wear_mm"),
    ),
    "close.why": (Meaning(of=Of.REASON),),
    "close.warm": (Meaning(of=Of.ALIGNMENT, when=When.AFTER_RUNNING),),
    "close.torque": (Meaning(of=Of.CHECKED_AGAIN),),
    "found.look": (Meaning(of=Of.LOOKED_OVER, when=When.FOUND),),
    "found.align": (Meaning(of=Of.ALIGNMENT, when=When.FOUND),),
    "off.align": (Meaning(of=Of.ALIGNMENT, when=When.FOUND),),
    "set.align": (Meaning(of=Of.ALIGNMENT, when=When.ON_THE_WAY),),
    "couple.align": (Meaning(of=Of.ALIGNMENT),),
    "set.soft": (Meaning(of=Of.SOFT_FOOT, when=When.ON_THE_WAY),),
    "off.gap": (Meaning(of=Of.GAP, when=When.FOUND),),
    "set.gap": (Meaning(of=Of.GAP, when=When.ON_THE_WAY),),
    "couple.gap": (Meaning(of=Of.GAP),),
    "couple.gap_again": (Meaning(of=Of.GAP),),
    "couple.closed": (Meaning(of=Of.CLOSED_GAP),),
    "found.closed": (Meaning(of=Of.CLOSED_GAP, when=When.FOUND),),
    "couple.sleeve": (Meaning(of=Of.CLOSED_GAP),),
    "found.sleeve": (Meaning(of=Of.CLOSED_GAP, when=When.FOUND),),
    "couple.wear": (
        Meaning(of=Of.WEAR_MARK, field="zero_mm", new=True),
        Meaning(of=Of.PLAY, field="twist_mm", new=True),
        Meaning(of=Of.STROBE_LIGHT, field="light"),
    ),
    "found.wear": (
        Meaning(of=Of.WEAR_MARK, when=When.FOUND, field="zero_mm"),
        Meaning(of=Of.PLAY, when=When.FOUND, field="twist_mm"),
    ),
    "off.old": (Meaning(of=Of.ELEMENT_OUT, when=When.FOUND),),
    "off.new": (Meaning(of=Of.ELEMENT_IN, field="number"),),
    "couple.blocks": (Meaning(of=Of.ELEMENT_IN, field="set"),),
    "couple.numbers": (Meaning(of=Of.ELEMENT_IN, field="number"),),
    "couple.tyre": (Meaning(of=Of.ELEMENT_IN, field="number"),),
    "couple.grease": (Meaning(of=Of.GREASE),),
    "keep.grease": (Meaning(of=Of.GREASE),),
    "couple.oil": (Meaning(of=Of.OIL),),
    "keep.oil": (Meaning(of=Of.OIL),),
    "couple.nuts": (Meaning(of=Of.PACKING, field="turn_deg", new=True),),
    "keep.packing": (Meaning(of=Of.PACKING, field="turn_deg"),),
    **{f"mount.hub.{side}": (Meaning(of=Of.STAND_OUT, at=side, field="standout_mm"),) for side in SIDES},
}
PULLED_AGAIN = ".rerun."
LEFT_OPEN = "cannot be stopped for it now"
NEW_RINGS = "renewed"
WHOLE = "whole"  # and goes back in


def formerly(step: str, inputs: Mapping[str, Any]) -> tuple[Meaning, ...]:
    """What a reading at that step was of, by its answers where these decide it."""
    if PULLED_AGAIN in step:
        return (Meaning(of=Of.PULL, when=When.AFTER_RUNNING, at=step.rpartition(".")[2]),)
    if step == "close.run_in":
        return (Meaning(of=Of.RUN_IN_LEFT_OPEN, field="due"),) if inputs.get("what") == LEFT_OPEN else ()
    if step == "keep.packing" and inputs.get("rings") == NEW_RINGS:
        return (Meaning(of=Of.PACKING, field="turn_deg", new=True),)
    if step == "off.old" and str(inputs.get("fate", "")).startswith(WHOLE):
        return (Meaning(of=Of.ELEMENT_OUT, when=When.FOUND, at=GOES_BACK_IN),)
    return tuple(one for one in BY_KEY.get(step, ()) if not one.field or one.field in inputs)
