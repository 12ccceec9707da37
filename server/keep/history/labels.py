"""A label for the guard: scanned, it opens the line on the tablet."""

from html import escape
from io import BytesIO
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router

from millwright.errors import Problem, UnusableInput
from server.accounts.auth import member_of
from server.plant.models import Line
from server.reports.paper import printed
from server.web.described import gives
from server.web.errors import ErrorsOut
from server.web.files import as_file

router = Router(tags=["labels"])
MOST_ON_A_SHEET = 200
WIDE_MM, HIGH_MM, CODE_MM = 90, 36, 30
INK = "#14202B"
NAME_AT, LONGEST_ROW, MOST_ROWS = 36, 22, 3
SAID = ("Scan: as last left, what is due,", "start a job.", "Guard off: locked out only.")  # each fits, in any type face


def address_of(request: HttpRequest, line: Line) -> str:
    """What is in the code."""
    return request.build_absolute_uri(f"/lines/{line.pk}")


def label_svg(line: Line, address: str) -> str:
    """The label drawn: the code, the line's name, what scanning it opens. It reads at arm's length, and in black."""
    import segno  # only where a label is asked for

    code = segno.make(address, error="q", micro=False)  # a quarter of it may be greasy
    out = BytesIO()
    code.save(out, kind="svg", scale=1, border=4, dark=INK, xmldecl=False, svgns=False, nl=False, omitsize=True)
    inner = out.getvalue().decode().replace("<svg ", f'<svg x="3" y="3" width="{CODE_MM}" height="{CODE_MM}" ', 1)
    rows = "".join(
        f'<text x="{NAME_AT}" y="{9 + 5.2 * i}" font-size="5" font-weight="600">{escape(row)}</text>'
        for i, row in enumerate(_rows(line.name))
    )
    said = "".join(f'<text x="{NAME_AT}" y="{26 + 4 * i}" font-size="3.2">{row}</text>' for i, row in enumerate(SAID))
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {WIDE_MM} {HIGH_MM}" width="{WIDE_MM}mm" height="{HIGH_MM}mm" '
        f'font-family="Barlow Semi Condensed, sans-serif" fill="{INK}">'
        f"<title>{escape(line.name)}: {escape(address)}</title>"
        f'<rect x=".3" y=".3" width="{WIDE_MM - 0.6}" height="{HIGH_MM - 0.6}" fill="#fff" stroke="{INK}" stroke-width=".6"/>'
        f"{inner}{rows}{said}</svg>"
    )


def _rows(name: str) -> list[str]:
    """A name over as many rows as a label has; what does not fit is cut and says so."""
    rows = [""]
    for word in name.split():
        longer = f"{rows[-1]} {word}".strip()
        if len(longer) <= LONGEST_ROW:
            rows[-1] = longer
        else:
            rows.append(word[:LONGEST_ROW])
    shown = [row for row in rows if row]
    return shown if len(shown) <= MOST_ROWS else [*shown[: MOST_ROWS - 1], f"{shown[MOST_ROWS - 1]} …"]


@router.get(
    "/{line_id}.svg",
    response={404: ErrorsOut},
    operation_id="label_svg",
    url_name="label",
    openapi_extra=gives("image/svg+xml"),
)
def svg(request: HttpRequest, line_id: UUID) -> object:
    """One label."""
    line = get_object_or_404(Line.objects.visible_to(member_of(request)), pk=line_id)
    return HttpResponse(label_svg(line, address_of(request, line)), content_type="image/svg+xml")


@router.get(
    "/sheet.pdf",
    response={422: ErrorsOut},
    operation_id="label_sheet",
    url_name="label_sheet",
    openapi_extra=gives("application/pdf"),
)
def sheet(request: HttpRequest, line: UUID | None = None) -> object:
    """Labels on A4, to be cut: of one line, or of every line in walking order."""
    lines = Line.objects.visible_to(member_of(request)).order_by("walk", "name")
    found = list(lines.filter(pk=line) if line else lines[: MOST_ON_A_SHEET + 1])
    if len(found) > MOST_ON_A_SHEET:
        raise UnusableInput(Problem("line", f"More than {MOST_ON_A_SHEET} lines: print their labels one by one."))
    content = printed("labels.html", {"labels": [label_svg(one, address_of(request, one)) for one in found]})
    return as_file(content, "application/pdf", "labels.pdf")
