"""One route for all benches, and clock readings as CSV in and out."""

from django.http import HttpRequest, HttpResponse
from ninja import Router

from millwright.benches import evaluate_json
from millwright.csv_readings import Readings, read_csv, write_csv
from millwright.model import read_json

from .described import gives
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


@router.post("/{name}", response={200: dict, 422: ErrorsOut}, operation_id="bench_evaluate", url_name="bench")
def evaluate(request: HttpRequest, name: str) -> object:
    """Evaluate a bench: its input as the body, its result back. 422 where the input is not usable."""
    result = evaluate_json(name, request.body)
    return HttpResponse(result.model_dump_json(by_alias=True), content_type="application/json")
