"""The history of every line as one file: written in the queue, since a plant has thousands, with how far it has come."""

from collections.abc import Iterator
from datetime import datetime, timedelta
from itertools import islice
from uuid import UUID

from django.db import transaction
from django.http import Http404, HttpRequest
from django.shortcuts import get_object_or_404
from django.utils import timezone
from django_tasks import task
from ninja import Router, Schema, Status

from server.accounts.auth import member_of
from server.plant.models import Line
from server.web.described import gives
from server.web.errors import ErrorsOut
from server.web.files import as_file

from ..models import Export
from .as_csv import told_lines, written

router = Router(tags=["exports"])
AT_A_TIME = 50  # lines
KEPT_FOR = timedelta(days=7)


class ExportOut(Schema):
    """How far an export has come."""

    id: UUID
    asked_at: datetime
    lines: int
    done: int
    ready: bool
    failed: str


def _out(export: Export) -> dict[str, object]:
    return {
        "id": export.pk,
        "asked_at": export.asked_at,
        "lines": export.lines,
        "done": export.done,
        "ready": export.content is not None,
        "failed": export.failed,
    }


@router.post("", response={201: ExportOut}, operation_id="export_ask", url_name="exports")
def ask(request: HttpRequest) -> object:
    """Ask for the file. It is written behind the scenes."""
    member, now = member_of(request), timezone.now()
    Export.objects.filter(site=member.site, asked_at__lt=now - KEPT_FOR).delete()
    lines = Line.objects.visible_to(member).count()
    export = Export.objects.create(site=member.site, asked_by=member.user, asked_at=now, lines=lines)
    transaction.on_commit(lambda: write_history.enqueue(str(export.pk)))
    return Status(201, _out(Export.objects.get(pk=export.pk)))


def _mine(request: HttpRequest, export_id: UUID) -> Export:
    return get_object_or_404(Export.objects.filter(site=member_of(request).site), pk=export_id)


@router.get("/{export_id}", response={200: ExportOut, 404: ErrorsOut}, operation_id="export_read", url_name="export")
def read(request: HttpRequest, export_id: UUID) -> object:
    """How far it has come."""
    return _out(_mine(request, export_id))


@router.get(
    "/{export_id}/file",
    response={404: ErrorsOut},
    operation_id="export_file",
    url_name="export_file",
    openapi_extra=gives("text/csv"),
)
def file(request: HttpRequest, export_id: UUID) -> object:
    """The file, once it is ready."""
    export = _mine(request, export_id)
    if export.content is None:
        raise Http404
    return as_file(bytes(export.content), "text/csv; charset=utf-8", "history-of-all-lines.csv")


@task()
def write_history(export_id: str) -> None:
    """Writes the file, some lines at a time, and says after each how far it is. What goes wrong is said as well."""
    export = Export.objects.get(pk=export_id)
    try:
        parts = [written([])]
        for some in _some(export):
            parts.append(written(told_lines(some), head=False))
            export.done += len(some)
            export.save(update_fields=["done"])
        export.content = "".join(parts).encode()
        export.save(update_fields=["content"])
    except Exception as wrong:
        export.failed = f"It could not be written: {type(wrong).__name__}. Ask for it again."
        export.save(update_fields=["failed"])
        raise


def _some(export: Export) -> Iterator[list[Line]]:
    lines = iter(Line.objects.filter(site=export.site_id).order_by("walk", "name").iterator(AT_A_TIME))
    while some := list(islice(lines, AT_A_TIME)):
        yield some
