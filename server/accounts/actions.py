"""Signing in, slowed down after wrong passwords."""

from datetime import timedelta

from django.contrib.auth import authenticate
from django.db.models import Q
from django.http import HttpRequest
from django.utils import timezone
from ninja.errors import HttpError

from millwright.errors import Problem, UnusableInput

from .models import FailedSignIn, User

WRONG_TRIES = 5
WINDOW = timedelta(minutes=5)


def prove_identity(request: HttpRequest, user: User, password: str) -> None:
    """Whoever signs is who is signed in: their password, at this moment. A tablet that lies about signs nothing.

    Raises `UnusableInput` at "password" for a wrong one, `HttpError` 429 after too many of them.
    """
    try:
        check_password(request, user.username, password)
    except HttpError as refused:
        if refused.status_code != 401:
            raise
        raise UnusableInput(Problem("password", "This is not your password.")) from None


def check_password(request: HttpRequest, username: str, password: str) -> User:
    """The user of this name and password.

    Raises `HttpError` 401 for a wrong one, 429 after too many of them from one name or address.
    """
    address = request.META.get("REMOTE_ADDR") or None
    same = Q(username__iexact=username) | (Q(address=address) if address else Q())
    recent = FailedSignIn.objects.filter(same, at__gt=timezone.now() - WINDOW)
    if recent.filter(username__iexact=username).count() >= WRONG_TRIES or recent.count() >= 4 * WRONG_TRIES:
        raise HttpError(429, "Too many wrong passwords. Wait five minutes, then try again.")
    user = authenticate(request, username=username, password=password)
    if user is None:
        FailedSignIn.objects.create(username=username[:150], address=address)
        raise HttpError(401, "Name or password is wrong.")
    FailedSignIn.objects.filter(username__iexact=username).delete()
    return user
