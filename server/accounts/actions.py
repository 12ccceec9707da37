"""Signing in, slowed down after wrong passwords; and proving once more who signs."""

from datetime import timedelta
from ipaddress import ip_address
from math import ceil

from django.contrib.auth import authenticate
from django.db.models import QuerySet
from django.http import HttpRequest
from django.utils import timezone
from ninja.errors import HttpError

from millwright.errors import Problem, UnusableInput

from .models import FailedSignIn, User

WRONG_TRIES = 5
WINDOW = timedelta(minutes=5)  # of a session's signatures
REMEMBERED = timedelta(hours=1)
FIRST_WAIT_S, LONGEST_WAIT_S = 5, 60
WRONG_OF_AN_ADDRESS = 20  # whatever the names: a plant behind one address makes no more of them by slips
WAIT_OF_AN_ADDRESS_S = 2


def prove_identity(request: HttpRequest, user: User, password: str) -> None:
    """Whoever signs is who is signed in: their password, at this moment. A tablet that lies about signs nothing.

    Tries are counted by session: what strangers type at the sign-in keeps nobody from signing.
    Raises `UnusableInput` at "password" for a wrong one, `HttpError` 429 after too many of them.
    """
    session = request.session.session_key or ""
    tries = FailedSignIn.objects.filter(session=session, at__gt=timezone.now() - WINDOW).exclude(session="")
    if tries.count() >= WRONG_TRIES:
        raise HttpError(429, "Too many wrong passwords. Wait five minutes, then try again.")
    if authenticate(request, username=user.username, password=password) is None:
        FailedSignIn.objects.create(username=user.username, session=session, address=_address_of(request))
        raise UnusableInput(Problem("password", "This is not your password."))
    tries.delete()


def check_password(request: HttpRequest, username: str, password: str) -> User:
    """The user of this name and password.

    After some wrong ones the next try waits, longer each time but never for long, and only for that name from that address:
    nobody is shut out by what others type. Raises `HttpError` 401 for a wrong one, 429 with how long to wait.
    """
    address = _address_of(request)
    from_there = FailedSignIn.objects.filter(session="", address=address, at__gt=timezone.now() - REMEMBERED)
    of_the_name = from_there.filter(username__iexact=username)
    more = of_the_name.count() - WRONG_TRIES
    waits = max(
        _left(of_the_name, min(FIRST_WAIT_S * 2 ** min(more, 10), LONGEST_WAIT_S) if more >= 0 else 0),
        _left(from_there, WAIT_OF_AN_ADDRESS_S if from_there.count() >= WRONG_OF_AN_ADDRESS else 0),
    )
    if waits > 0:
        raise HttpError(429, f"Too many wrong passwords. Wait {waits} s, then try again.")
    user = authenticate(request, username=username, password=password)
    if user is None:
        FailedSignIn.objects.create(username=username[:150], address=address)
        raise HttpError(401, "Name or password is wrong.")
    of_the_name.delete()
    FailedSignIn.objects.filter(at__lt=timezone.now() - REMEMBERED).delete()
    return user


def _left(wrong: QuerySet[FailedSignIn], wait_s: float) -> int:
    """Seconds until the wait after the last of them is over; 0 where it is."""
    last = wrong.order_by("-at").first() if wait_s else None
    return max(ceil(wait_s - (timezone.now() - last.at).total_seconds()), 0) if last else 0


def _address_of(request: HttpRequest) -> str | None:
    """Where it came from; None for what is no address, as a proxy may write it."""
    try:
        return str(ip_address(request.META.get("REMOTE_ADDR", "")))
    except ValueError:
        return None
