"""What is due as a calendar: one secret address a person or a site, that whoever made it can revoke."""

import hashlib
import secrets
from datetime import date, datetime, timedelta
from typing import Any, Literal
from uuid import UUID

from django.db import transaction
from django.db.models import Q
from django.http import Http404, HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Field, Router, Schema, Status

from millwright.benches.wear.days import day
from millwright.roles import Deed
from millwright.say import Figure, Words
from server.accounts.auth import member_of, require
from server.accounts.models import Membership
from server.web.described import gives
from server.web.errors import ErrorsOut

from ..models import CalendarFeed, DueItem

router = Router(tags=["calendar"])
BYTES = 32


class CalendarOut(Schema):
    """Whose calendar has an address, and since when. The address itself is shown once, when it is made."""

    whose: Literal["mine", "site"]
    made_by: str
    made_at: datetime
    address: str = Field(default="", description="shown when it is made, and never again")


class CalendarIn(Schema, extra="forbid"):
    """Whose calendar it is to be."""

    whose: Literal["mine", "site"] = "mine"


def _mine(member: Membership) -> Q:
    return Q(person=member.user) | Q(person=None)


@router.get("", response=list[CalendarOut], operation_id="calendars_read", url_name="calendars")
def read(request: HttpRequest) -> object:
    """Which addresses there are: one's own and the site's."""
    member = member_of(request)
    feeds = CalendarFeed.objects.filter(_mine(member), site=member.site, revoked_at=None)
    return [{"whose": "mine" if f.person_id else "site", "made_by": f.made_by, "made_at": f.made_at} for f in feeds]


@router.post("", response={201: CalendarOut, 403: ErrorsOut}, operation_id="calendar_make", url_name="calendar_make")
def make(request: HttpRequest, payload: CalendarIn) -> object:
    """A new address. The one there was before is revoked with it."""
    member, secret, now = member_of(request), secrets.token_urlsafe(BYTES), timezone.now()
    person = member.user if payload.whose == "mine" else None
    if person is None:
        require(member, Deed.SET_SITE_RULES)
    with transaction.atomic():
        CalendarFeed.objects.filter(site=member.site, person=person, revoked_at=None).update(revoked_at=now)
        feed = CalendarFeed.objects.create(
            site=member.site, person=person, digest=_digest(secret), made_by=member.user.shown_name, made_at=now
        )
    address = request.build_absolute_uri(f"/api/calendar/{secret}.ics")
    return Status(201, {"whose": payload.whose, "made_by": feed.made_by, "made_at": feed.made_at, "address": address})


@router.delete("", response={204: None, 403: ErrorsOut}, operation_id="calendar_revoke", url_name="calendar_revoke")
def revoke(request: HttpRequest, whose: Literal["mine", "site"] = "mine") -> object:
    """From now on the address gives nothing."""
    member = member_of(request)
    if whose == "site":
        require(member, Deed.SET_SITE_RULES)
    person = member.user if whose == "mine" else None
    CalendarFeed.objects.filter(site=member.site, person=person, revoked_at=None).update(revoked_at=timezone.now())
    return Status(204, None)


def _digest(secret: str) -> str:
    return hashlib.sha256(secret.encode()).hexdigest()


@router.get(
    "/{secret}.ics",
    auth=None,
    response={404: ErrorsOut},
    operation_id="calendar_feed",
    url_name="calendar_feed",
    openapi_extra=gives("text/calendar"),
)
def feed(request: HttpRequest, secret: str) -> object:
    """What is due, for a calendar. Whoever has the address may read it; a person's only while they belong to the site."""
    found = CalendarFeed.objects.filter(digest=_digest(secret), revoked_at=None).select_related("site").first()
    belongs = found is not None and (
        found.person_id is None or Membership.objects.filter(user=found.person_id, site=found.site_id).exists()
    )
    if found is None or not belongs:
        raise Http404
    items = DueItem.objects.filter(site=found.site_id, on__isnull=False).order_by("on", "name")
    text = written(found.site.name, list(items), timezone.localdate(), request.build_absolute_uri("/"))
    return HttpResponse(text, content_type="text/calendar; charset=utf-8", headers={"Cache-Control": "no-store"})


def written(site: str, items: list[DueItem], today: date, root: str) -> bytes:
    """The items as iCalendar, a day each. What is overdue stands on today, and says since when."""
    from icalendar import Calendar, Event  # only where a calendar asks

    calendar = Calendar()
    calendar.add("prodid", "-//Young Anvil//due//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", f"{site}: due")
    for item in items:
        if item.on is None:
            continue
        late = item.on < today
        shown = today if late else item.on
        event = Event()
        event.add("uid", f"{item.line_id or _uid(item.name)}-{item.kind.replace(' ', '-')}@young-anvil")
        event.add("dtstamp", timezone.now())
        event.add("dtstart", shown)
        event.add("dtend", shown + timedelta(days=1))
        event.add("summary", f"{item.name}: {item.kind}{', overdue' if late else ''}")
        event.add("description", f"{f'Due since {day(item.on)}. ' if late else ''}{_said(item.why)}")
        if item.line_id:
            event.add("url", f"{root}lines/{item.line_id}")
        event.add("transp", "TRANSPARENT")
        calendar.add_component(event)
    return bytes(calendar.to_ical())


def _said(why: dict[str, Any]) -> str:
    return str(Words(why["template"], {name: Figure(**figure) for name, figure in why["values"].items()}))


def _uid(name: str) -> UUID:
    return UUID(hashlib.sha256(name.encode()).hexdigest()[:32])
