"""The roles people work in, and what each may do."""

from collections.abc import Mapping
from enum import StrEnum


class Role(StrEnum):
    """Who may do what; each may do what those before it may."""

    APPRENTICE = "apprentice"
    MILLWRIGHT = "millwright"
    LEAD = "lead"

    def may_act_as(self, wanted: "Role") -> bool:
        """True where this role includes the wanted one."""
        order = list(Role)
        return order.index(self) >= order.index(wanted)

    def may(self, deed: "Deed") -> bool:
        """True where this is for this role to do."""
        return self.may_act_as(TAKES[deed])


class Deed(StrEnum):
    """What is not for everybody to do. Whoever is signed in may read, measure, tick and write a note."""

    KEEP_LINES = "add and change lines"
    START_JOBS = "start jobs"
    KEEP_INSTRUMENTS = "keep instruments"
    ANSWER = "answer questions"
    CHANGE_THE_CARD = "change values of the card"
    ACCEPT_OVER = "accept out of tolerance"
    CANCEL_JOBS = "cancel jobs"
    READ_IN_JOBS = "read in jobs"
    TAKE_OVER_JOBS = "take over jobs that were read in"
    SET_SITE_RULES = "set the rules of the site"
    PUT_OFF = "put off what is due"


TAKES: Mapping[Deed, Role] = {
    Deed.KEEP_LINES: Role.MILLWRIGHT,
    Deed.START_JOBS: Role.MILLWRIGHT,
    Deed.KEEP_INSTRUMENTS: Role.MILLWRIGHT,
    Deed.ANSWER: Role.LEAD,
    Deed.CHANGE_THE_CARD: Role.LEAD,
    Deed.ACCEPT_OVER: Role.LEAD,
    Deed.CANCEL_JOBS: Role.LEAD,
    Deed.READ_IN_JOBS: Role.LEAD,
    Deed.TAKE_OVER_JOBS: Role.LEAD,
    Deed.SET_SITE_RULES: Role.LEAD,
    Deed.PUT_OFF: Role.LEAD,
}
