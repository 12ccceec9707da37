"""What a reading is of: the words that a step which asks shares with everything that reads it years later.

A step's key is the address of its sheet and may change; what was read there keeps its meaning with the entry.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import Any


class Of(StrEnum):
    """What was read, done or said."""

    DOCUMENTS = "documents"
    LOCKED_OUT = "locked out"
    GUARD_ON = "guard on"
    STARTED = "started"
    REASON = "why it was needed"
    LOOKED_OVER = "looked over"
    ALIGNMENT = "alignment"
    GAP = "gap"
    CLOSED_GAP = "closed gap"
    SOFT_FOOT = "soft foot"
    RUN_OUT = "run-out"
    STAND_OUT = "stand-out"
    DRAW_UP = "draw-up"
    TEMPERATURE = "temperature"
    PULL = "pull"
    CHECKED_AGAIN = "torques checked again"
    RUN_IN_LEFT_OPEN = "run-in left open"
    WEAR_MARK = "wear mark"
    STROBE_LIGHT = "strobe light"
    PLAY = "play"
    ELEMENT_OUT = "element out"
    ELEMENT_IN = "element in"
    GREASE = "grease"
    OIL = "oil"
    PACKING = "packing"


GOES_BACK_IN = "goes back in"  # at which place an element that came out stays


class When(StrEnum):
    """At which time of the work."""

    FOUND = "found"
    ON_THE_WAY = "on the way"
    LEFT = "left"
    AFTER_RUNNING = "after running"


@dataclass(frozen=True, kw_only=True)
class Meaning:
    """What an entry is of.

    ``at``    - which hub, end or circle, where there are several
    ``field`` - under which name of the inputs it stands, where it is one figure or one answer among others
    ``new``   - the thing it is of was new: a zero is taken, a set begins
    """

    of: Of
    when: When = When.LEFT
    at: str = ""
    field: str = ""
    new: bool = False


def to_keep(means: Iterable[Meaning]) -> list[dict[str, Any]]:
    """As it is kept with an entry; what is not said is left out."""
    return [
        {"of": one.of.value, "when": one.when.value}
        | {key: value for key in ("at", "field", "new") if (value := getattr(one, key))}
        for one in means
    ]


def kept(means: Iterable[Mapping[str, Any]]) -> tuple[Meaning, ...]:
    """`to_keep`, read back; what this version has no word for is left out."""
    known = (one for one in means if one.get("of") in set(Of) and one.get("when") in set(When))
    return tuple(
        Meaning(
            of=Of(one["of"]),
            when=When(one["when"]),
            at=one.get("at", ""),
            field=one.get("field", ""),
            new=one.get("new", False),
        )
        for one in known
    )
