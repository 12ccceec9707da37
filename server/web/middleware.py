"""Headers that every answer carries."""

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse

from .errors import nothing_here, refused

POLICY = "; ".join(
    (
        "default-src 'self'",
        "script-src 'self'",
        "style-src 'self'{nonce}",
        "img-src 'self' data:",
        "object-src 'none'",
        "base-uri 'none'",
        "form-action 'self'",
        "frame-ancestors 'none'",
    )
)


def content_security_policy(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Only our own files and no framing; styles the client makes carry the page's own nonce."""

    def with_policy(request: HttpRequest) -> HttpResponse:
        response = get_response(request)
        nonce = getattr(response, "style_nonce", None)
        response.headers["Content-Security-Policy"] = POLICY.format(nonce=f" 'nonce-{nonce}'" if nonce else "")
        return response

    return with_policy


def no_nul(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """No address holds the letter that no database takes."""

    def without(request: HttpRequest) -> HttpResponse:
        if "\x00" in request.path:
            return nothing_here(request)
        if "%00" in request.META.get("QUERY_STRING", ""):
            return refused(422, "There is a control character in this address.")
        return get_response(request)

    return without
