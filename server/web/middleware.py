"""Headers that every answer carries."""

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse

POLICY = "; ".join(
    (
        "default-src 'self'",
        "script-src 'self'",
        "style-src 'self'",
        "img-src 'self' data:",
        "object-src 'none'",
        "base-uri 'none'",
        "form-action 'self'",
        "frame-ancestors 'none'",
    )
)


def content_security_policy(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Only our own files, no inline scripts or styles, no framing."""

    def with_policy(request: HttpRequest) -> HttpResponse:
        response = get_response(request)
        response.headers["Content-Security-Policy"] = POLICY
        return response

    return with_policy
