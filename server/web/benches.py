"""A route for each bench, and clock readings as CSV in and out."""

from django.http import HttpRequest, HttpResponse
from ninja import Router

from millwright.benches.register import BENCHES, Bench, evaluate_json, find
from millwright.csv_readings import Readings, read_csv, write_csv
from millwright.model import read_json

from .described import exchanges, gives
from .errors import ErrorsOut

router = Router(tags=["benches"])


@router.post("/readings/read", response={200: dict, 422: ErrorsOut}, operation_id="readings_read", url_name="readings_read")
def readings_read(request: HttpRequest) -> object:
    """Clock readings from a CSV file. 422 with line and reason; then nothing was read."""
    return {"readings": [r.model_dump() for r in read_csv(request.body)]}


@router.post(
    "/readings/write",
    operation_id="readings_write",
    url_name="readings_write",
    response={422: ErrorsOut},
    openapi_extra=gives("text/csv"),
)
def readings_write(request: HttpRequest) -> object:
    """Clock readings as a CSV file."""
    return HttpResponse(write_csv(read_json(Readings, request.body).readings), content_type="text/csv; charset=utf-8")


def _route(bench: Bench) -> None:
    """Its own path for each bench of the registry, so that the description types its input and its result."""

    def evaluate(request: HttpRequest) -> object:
        result = evaluate_json(bench.name, request.body)
        return HttpResponse(result.model_dump_json(by_alias=True), content_type="application/json")

    evaluate.__doc__ = f"{bench.answers[0].upper()}{bench.answers[1:]}. 422 where the input is not usable."
    router.post(
        f"/{bench.name}",
        response={422: ErrorsOut},
        operation_id=f"bench_{bench.name}",
        openapi_extra=exchanges(bench.input.__name__, bench.result.__name__),
    )(evaluate)


for known in BENCHES.values():
    _route(known)


@router.post("/{name}", response={422: ErrorsOut}, include_in_schema=False, url_name="bench")
def no_such_bench(request: HttpRequest, name: str) -> object:
    """422 with the names there are."""
    return find(name)
