"""The roles people work in."""

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
