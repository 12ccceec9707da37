"""The session: sign in, who am I, sign out."""

from uuid import UUID

from django.contrib.auth import login, logout
from django.http import HttpRequest
from django.middleware.csrf import get_token
from django.shortcuts import get_object_or_404
from ninja import Field, Router, Schema, Status
from ninja.utils import check_csrf

from millwright.model import PlainTextIn
from millwright.roles import Deed, Role

from ..web.errors import ErrorsOut
from .actions import check_password
from .auth import MemberAuth, member_of, require
from .models import Membership

router = Router(tags=["session"])


class SignIn(Schema, extra="forbid"):
    """Name and password."""

    username: PlainTextIn
    password: PlainTextIn


class SiteOut(Schema):
    """A site one may work at."""

    id: UUID
    name: str
    proof_hours: int | None = None
    lock_minutes: int | None = None


class SessionOut(Schema):
    """Who is signed in, where, as what."""

    username: str
    name: str
    role: Membership.Roles
    acts_as: list[Role] = Field(description="the roles this one includes")
    may: list[Deed]
    site: SiteOut
    sites: list[SiteOut]


class SiteRule(Schema, extra="forbid"):
    """Rules of the site: hours a proof of the dead state holds, or none where only breaks and hand-overs count; minutes
    after which a device nobody uses asks who is there, or none where it never does."""

    proof_hours: int | None = Field(ge=1, le=72)
    lock_minutes: int | None = Field(default=30, ge=1, le=480)


class ChooseSite(Schema, extra="forbid"):
    """The site to work at."""

    site: UUID


def _session(member: Membership) -> dict[str, object]:
    user = member.user
    sites = [m.site for m in user.memberships.select_related("site").order_by("site__name")]
    role = member.as_role
    return {
        "username": user.username,
        "name": user.shown_name,
        "role": role,
        "acts_as": [other for other in Role if role.may_act_as(other)],
        "may": [deed for deed in Deed if role.may(deed)],
        "site": member.site,
        "sites": sites,
    }


@router.post(
    "",
    auth=None,
    response={200: SessionOut, 401: ErrorsOut, 403: ErrorsOut, 429: ErrorsOut},
    operation_id="session_sign_in",
    url_name="session",
)
def sign_in(request: HttpRequest, payload: SignIn) -> object:
    """Sign in. 401 for a wrong password, 429 after too many."""
    if (refused := check_csrf(request)) is not None:
        return refused
    user = check_password(request, payload.username, payload.password)
    login(request, user)
    get_token(request)
    member = MemberAuth().authenticate(request, None)
    if member is None:
        logout(request)
        return Status(403, {"errors": [{"path": "", "message": "This account belongs to no site. Ask the lead."}]})
    return _session(member)


@router.get("", response={200: SessionOut, 401: ErrorsOut}, operation_id="session_read")
def who_am_i(request: HttpRequest) -> object:
    """Who is signed in. 401 where nobody is."""
    get_token(request)
    return _session(member_of(request))


@router.put("", response={200: SessionOut, 404: ErrorsOut}, operation_id="session_choose_site")
def choose_site(request: HttpRequest, payload: ChooseSite) -> object:
    """Work at another of one's own sites."""
    member = get_object_or_404(Membership, user=member_of(request).user, site_id=payload.site)
    request.session["site"] = str(member.site_id)
    return _session(member)


@router.put("/site-rule", response={200: SessionOut, 403: ErrorsOut, 422: ErrorsOut}, operation_id="site_rule")
def put_rule(request: HttpRequest, payload: SiteRule) -> object:
    """How long a proof of the dead state holds, and a device stays open; the lead's to say."""
    member = member_of(request)
    require(member, Deed.SET_SITE_RULES)
    member.site.proof_hours = payload.proof_hours
    member.site.lock_minutes = payload.lock_minutes
    member.site.save(update_fields=["proof_hours", "lock_minutes"])
    return _session(member)


@router.delete("", response={204: None}, operation_id="session_sign_out")
def sign_out(request: HttpRequest) -> object:
    """Sign out."""
    logout(request)
    return Status(204, None)
