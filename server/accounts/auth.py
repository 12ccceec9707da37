"""Who is asking: the one place where site membership and role are checked."""

from django.core.exceptions import PermissionDenied
from django.http import HttpRequest
from ninja.security import SessionAuth

from millwright.errors import Problem, UnusableInput
from millwright.roles import TAKES, Deed

from .models import Membership


class MemberAuth(SessionAuth):
    """A signed-in user with a site; `request.auth` is then the `Membership`."""

    def authenticate(self, request: HttpRequest, key: str | None) -> Membership | None:
        """The membership of the session's site, else the user's first."""
        if not request.user.is_authenticated:
            return None
        mine = Membership.objects.select_related("site", "user").filter(user=request.user).order_by("site__name")
        chosen = request.session.get("site")
        return (mine.filter(site_id=chosen).first() if chosen else None) or mine.first()


def member_of(request: HttpRequest) -> Membership:
    """The membership that `MemberAuth` found."""
    return request.auth  # type: ignore[attr-defined, no-any-return]


def member_named(request: HttpRequest, username: str | None) -> Membership:
    """`member_of`, where it is the person a waiting entry was made by: nobody's work goes in under another name.

    Raises `UnusableInput` at "by" where somebody else is signed in meanwhile.
    """
    member = member_of(request)
    if username is not None and username != member.user.username:
        raise UnusableInput(Problem("by", f"{username} entered this. It is sent when {username} signs in on this device."))
    return member


def require(member: Membership, deed: Deed) -> None:
    """Raise `PermissionDenied` where this is not for the member's role to do."""
    if not member.as_role.may(deed):
        raise PermissionDenied(f"This takes a {TAKES[deed].value}; you are signed in as {member.role}.")
