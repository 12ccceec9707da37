"""The record on paper."""

from pathlib import Path
from typing import Any
from urllib.parse import unquote, urlsplit
from uuid import UUID

from django.conf import settings

from server.jobs.models import Job, Photograph
from server.jobs.photographs import KEPT_HERE

from .issue import page_of

PHOTOGRAPH = "photograph:"
FONTS = settings.ROOT / "web" / "node_modules" / "@fontsource"


class NotOurs(ValueError):
    """A record asks for nothing but its own fonts and photographs, whatever somebody typed into it."""


def record_pdf(job: Job) -> bytes:
    """The record of a job as a PDF, A4."""
    from weasyprint import HTML  # half a second to load: only where paper is asked for
    from weasyprint.urls import URLFetcher, URLFetcherResponse

    class OwnFilesOnly(URLFetcher):  # type: ignore[misc]
        def fetch(self, url: str, headers: object = None) -> Any:
            content, kind = photograph_of(job, url) if url.startswith(PHOTOGRAPH) else fonts_only(url)
            return URLFetcherResponse(url, content, {"Content-Type": kind})

    return bytes(HTML(string=page_of(job), base_url=str(settings.ROOT), url_fetcher=OwnFilesOnly()).write_pdf(pdf_tags=True))


def photograph_of(job: Job, url: str) -> tuple[bytes, str]:
    """A picture of this job, of no other, and what it is. Raises `NotOurs`."""
    try:
        found = Photograph.objects.filter(entry__job=job, pk=UUID(url.removeprefix(PHOTOGRAPH))).first()
    except ValueError:
        found = None
    if found is None:
        raise NotOurs(f"No photograph of this job: {url[:200]}")
    return bytes(found.content), KEPT_HERE


def fonts_only(url: str) -> tuple[bytes, str]:
    """The font files of the record, and nothing else: no address, no other file. Raises `NotOurs`."""
    parts = urlsplit(url)
    path = Path(unquote(parts.path)).resolve()
    if parts.scheme != "file" or path.suffix != ".woff2" or not path.is_relative_to(FONTS.resolve()):
        raise NotOurs(f"A record reads its fonts and photographs and nothing else, not {url[:200]}")
    return path.read_bytes(), "font/woff2"
