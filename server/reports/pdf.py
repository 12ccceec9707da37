"""The record on paper."""

from pathlib import Path
from typing import Any
from urllib.parse import unquote, urlsplit

from django.conf import settings

from server.jobs.models import Job

from .issue import page_of

FONTS = settings.ROOT / "web" / "node_modules" / "@fontsource"


class NotAFont(ValueError):
    """A record asks for nothing but its own fonts, whatever somebody typed into it."""


def record_pdf(job: Job) -> bytes:
    """The record of a job as a PDF, A4."""
    from weasyprint import HTML  # half a second to load: only where paper is wanted

    return bytes(HTML(string=page_of(job), base_url=str(settings.ROOT), url_fetcher=fonts_only).write_pdf())


def fonts_only(url: str, *_: Any, **__: Any) -> dict[str, Any]:
    """The font files of the record, and nothing else: no address, no other file. Raises `NotAFont`."""
    parts = urlsplit(url)
    path = Path(unquote(parts.path)).resolve()
    if parts.scheme != "file" or path.suffix != ".woff2" or not path.is_relative_to(FONTS.resolve()):
        raise NotAFont(f"A record reads its fonts and nothing else, not {url[:200]}")
    return {"string": path.read_bytes(), "mime_type": "font/woff2"}
