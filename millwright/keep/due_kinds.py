"""What can be due, and what does it."""

from dataclasses import dataclass
from datetime import date
from enum import StrEnum

from ..say import Words
from ..scope import Scope, Task
from .past import KeptLine, Postponed


class DueKind(StrEnum):
    """What can be due."""

    RETORQUE = "pull the bolts again"
    GREASE = "grease it"
    FIRST_INSPECTION = "first inspection"
    INSPECTION = "look it over"
    ROUND = "round"
    SEEN = "seen on the round"
    PLAY = "read wear and play"
    CLOSED = "measure it closed"
    ALIGNMENT = "read the alignment"
    PACKING = "packing nuts"
    RINGS = "packing rings"
    OIL = "oil of the gear unit"
    WORN = "worn to its limit"
    WEARS = "look at its wear"
    CALIBRATION = "calibration"


# The job of upkeep that does it; a round is walked, an element is changed in a job of its own.
TASK_OF = {
    DueKind.RETORQUE: Task.RETORQUE,
    DueKind.GREASE: Task.GREASE,
    DueKind.FIRST_INSPECTION: Task.LOOK,
    DueKind.INSPECTION: Task.LOOK,
    DueKind.SEEN: Task.LOOK,
    DueKind.WEARS: Task.LOOK,
    DueKind.PLAY: Task.WEAR,
    DueKind.CLOSED: Task.CLOSED,
    DueKind.ALIGNMENT: Task.ALIGN,
    DueKind.PACKING: Task.PACKING,
    DueKind.RINGS: Task.PACKING,
    DueKind.OIL: Task.OIL,
}


@dataclass(frozen=True, kw_only=True)
class Due:
    """Something that is to be done by a day. ``on`` is None where the card does not say: ``why`` then says what is missing.

    ``since`` - when it was last done; ``was`` - the day it was due before the lead put it off
    """

    kind: DueKind
    on: date | None
    why: Words
    since: date | None = None
    task: Task | None = None
    was: date | None = None
    postponed: Postponed | None = None


def scope_of(one: Due, line: KeptLine) -> Scope | None:
    """The job that does it; None for a round, which is walked."""
    if one.kind is DueKind.WORN:
        return line.renewed_by
    return Scope.UPKEEP if one.task is not None else None
