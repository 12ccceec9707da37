"""Every refusal leaves in one shape: {"errors": [{"path", "message"}]}."""

import logging
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any, Literal
from uuid import uuid4

from django.core.exceptions import BadRequest, PermissionDenied
from django.db import InterfaceError, OperationalError
from django.http import Http404, HttpRequest, HttpResponse, JsonResponse
from django.http.multipartparser import MultiPartParserError
from ninja import NinjaAPI, Schema
from ninja.errors import AuthenticationError, HttpError, ValidationError

from millwright.errors import Problem, UnusableInput, as_json
from millwright.job.new_entry import OutOfTurn
from millwright.job.signing import NotTheirs

from .words import Said

logger = logging.getLogger(__name__)
RETRY_AFTER_S = 2
NOT_READ = 400
FAULT_LETTERS = 8


class CannotBeShown(Exception):
    """Something of the site, by its name, that the application falls over; the cause says at what."""


# What has an answer of its own: it is no fault.
ANSWERED = (
    UnusableInput,
    OutOfTurn,
    PermissionDenied,
    NotTheirs,
    Http404,
    AuthenticationError,
    BadRequest,
    HttpError,
    MultiPartParserError,
    OperationalError,
    InterfaceError,
    ValidationError,
)


@contextmanager
def called(what: str) -> Iterator[None]:
    """Where the application falls over what is done here, its answer says of what: "Job 21"."""
    try:
        yield
    except ANSWERED:
        raise
    except Exception as fault:
        raise CannotBeShown(what) from fault


class ProblemOut(Schema):
    """One thing to put right; ``says`` where the sentence holds figures, ``code`` where somebody acts on its kind."""

    path: str
    message: str
    code: Literal["goes back"] | None = None
    says: Said | None = None


class ErrorsOut(Schema):
    """Why nothing was done."""

    errors: list[ProblemOut]


def register_handlers(api: NinjaAPI) -> None:
    """422 unusable input, 409 out of turn, 404 not there or not yours, 403 not this role, 401 sign in, 503 no database, 500 a
    fault, whose number stands in the log."""

    def say(request: HttpRequest, status: int, *problems: Problem) -> HttpResponse:
        body = {"errors": [as_json(p) for p in problems]}
        return api.create_response(request, body, status=status)

    @api.exception_handler(UnusableInput)
    def unusable(request: HttpRequest, refused: UnusableInput) -> HttpResponse:
        return say(request, 422, *refused.problems)

    @api.exception_handler(OutOfTurn)
    def out_of_turn(request: HttpRequest, refused: OutOfTurn) -> HttpResponse:
        return say(request, 409, Problem("", str(refused)))

    @api.exception_handler(PermissionDenied)
    def not_this_role(request: HttpRequest, refused: PermissionDenied) -> HttpResponse:
        return say(request, 403, Problem("", str(refused) or "Your role may not do this."))

    @api.exception_handler(NotTheirs)
    def not_theirs(request: HttpRequest, refused: NotTheirs) -> HttpResponse:
        return say(request, 403, Problem("", str(refused)))

    @api.exception_handler(Http404)
    def not_there(request: HttpRequest, refused: Http404) -> HttpResponse:
        return say(request, 404, Problem("", "There is no such thing here."))

    @api.exception_handler(AuthenticationError)
    def not_signed_in(request: HttpRequest, refused: AuthenticationError) -> HttpResponse:
        return say(request, 401, Problem("", "Sign in first."))

    @api.exception_handler(HttpError)
    def other(request: HttpRequest, refused: HttpError) -> HttpResponse:
        if refused.status_code == NOT_READ:
            return say(request, 422, Problem("", "What was sent cannot be read: it is no JSON, or breaks off."))
        return say(request, refused.status_code, Problem("", refused.message))

    @api.exception_handler(BadRequest)
    @api.exception_handler(MultiPartParserError)
    def not_whole(request: HttpRequest, refused: Exception) -> HttpResponse:
        return say(request, 422, Problem("", "What was sent cannot be read: it does not come as it says it does."))

    @api.exception_handler(OperationalError)
    @api.exception_handler(InterfaceError)
    def database_away(request: HttpRequest, refused: Exception) -> HttpResponse:
        logger.error("the database does not answer", exc_info=refused)
        answer = say(request, 503, Problem("", "The database does not answer. What you entered is kept and tried again."))
        answer.headers["Retry-After"] = str(RETRY_AFTER_S)
        return answer

    @api.exception_handler(Exception)
    def fault(request: HttpRequest, fell_over: Exception) -> HttpResponse:
        number = uuid4().hex[:FAULT_LETTERS]
        named = str(fell_over) if isinstance(fell_over, CannotBeShown) else ""
        logger.error("fault %s: %s %s %s", number, request.method, request.path, named, exc_info=fell_over)
        what = f"{named} cannot be shown" if named else "This cannot be done"
        text = f"{what}: the application falls over it. Fault {number} in the server's log. What was entered is kept."
        answer = say(request, 500, Problem("", text))
        answer.headers["X-Fault"] = number  # the application's own, and of this alone: the server is there
        return answer

    @api.exception_handler(ValidationError)
    def not_valid(request: HttpRequest, refused: ValidationError) -> HttpResponse:
        return say(request, 422, *(_problem(e) for e in refused.errors))


def nothing_here(request: HttpRequest) -> JsonResponse:
    """An address of the API that is not there."""
    return refused(404, "Nothing is at this address.")


def refused(status: int, message: str) -> JsonResponse:
    """A refusal from outside the API, in its one shape."""
    return JsonResponse({"errors": [{"path": "", "message": message}]}, status=status)


def _problem(error: dict[str, Any]) -> Problem:
    # Ninja puts the source and the parameter's name before the path: ("body", "payload", "name").
    path = ".".join(str(step) for step in error["loc"][2:])
    if error["type"] == "value_error":
        return Problem(path, error["msg"].removeprefix("Value error, "))
    if error["loc"][0] == "path":  # an address nobody was given
        return Problem(path, "There is no such thing here.")
    return Problem(path, "This is missing." if error["type"] == "missing" else f"{error['msg']}.")
