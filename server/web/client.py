"""The built client: one page for every address that is not the API, and what opens it where the server is away."""

import secrets
from functools import cache

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.views.decorators.csrf import ensure_csrf_cookie


@cache
def _built(name: str) -> str:
    return (settings.ROOT / "web" / "dist" / name).read_text()


class Page(HttpResponse):
    """The page, with the nonce that its styles carry."""

    def __init__(self, nonce: str) -> None:
        super().__init__(_built("index.html").replace("NONCE-OF-THIS-PAGE", nonce), headers={"Cache-Control": "no-cache"})
        self.style_nonce = nonce


@ensure_csrf_cookie
def client(request: HttpRequest) -> Page:
    """The page that loads the client; never cached, since it names the hashed files."""
    return Page(secrets.token_urlsafe(16))


def service_worker(request: HttpRequest) -> HttpResponse:
    """At the root, since it answers for every address below where it stands."""
    return HttpResponse(_built("sw.js"), content_type="text/javascript", headers={"Cache-Control": "no-cache"})
