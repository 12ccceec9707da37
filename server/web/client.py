"""The built client: one page for every address that is not the API."""

from functools import cache

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.views.decorators.csrf import ensure_csrf_cookie


@cache
def _page() -> str:
    return (settings.ROOT / "web" / "dist" / "index.html").read_text()


@ensure_csrf_cookie
def client(request: HttpRequest) -> HttpResponse:
    """The page that loads the client; never cached, since it names the hashed files."""
    return HttpResponse(_page(), headers={"Cache-Control": "no-cache"})
