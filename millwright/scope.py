"""What a job is there to do."""

from enum import StrEnum


class Scope(StrEnum):
    """What a job is there to do."""

    FIT = "fit it"
    REFIT = "take it off and fit it"
    TAKE_OFF = "take it off"
    ELEMENT = "change the element"
    BACKSTOP = "fit a backstop"
    ALIGN = "align it"
    CHECK = "check it"
    UPKEEP = "do what is due"


class Task(StrEnum):
    """What a job of upkeep can be there to do, in the order it is done in."""

    LOOK = "look it over"
    WEAR = "read wear and play"
    CLOSED = "measure it closed"
    ALIGN = "read the alignment"
    PACKING = "follow up the packing nuts"
    OIL = "change the oil"
    GREASE = "grease it"
    RETORQUE = "pull the bolts again"
