"""Headers that every answer carries."""

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse

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
