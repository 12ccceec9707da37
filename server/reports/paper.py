"""A page of our own on paper, A4: what is printed beside records."""

from typing import Any

from django.conf import settings
from django.template.loader import render_to_string

from .pdf import fonts_only


def printed(template: str, context: dict[str, Any]) -> bytes:
    """A template as a PDF. It reads its own fonts and nothing else."""
    from weasyprint import HTML  # half a second to load: only where paper is asked for
    from weasyprint.urls import URLFetcher, URLFetcherResponse

    class FontsOnly(URLFetcher):  # type: ignore[misc]
        def fetch(self, url: str, headers: object = None) -> Any:
            content, kind = fonts_only(url)
            return URLFetcherResponse(url, content, {"Content-Type": kind})

    page = render_to_string(template, context)
    return bytes(HTML(string=page, base_url=str(settings.ROOT), url_fetcher=FontsOnly()).write_pdf(pdf_tags=True))
