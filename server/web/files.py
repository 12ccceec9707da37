"""An answer that is a file."""

from django.http import HttpResponse


def as_file(content: str | bytes, kind: str, name: str) -> HttpResponse:
    """Taken onto the device under this name. ``kind`` - its media type"""
    return HttpResponse(content, content_type=kind, headers={"Content-Disposition": f'attachment; filename="{name}"'})
