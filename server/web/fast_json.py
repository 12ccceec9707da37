"""JSON in and out by a library in machine code: a job in hand is some hundred kilobytes of it, read and written at every look.
What that library does not know, Python's own does."""

import json
from typing import Any

import orjson
from django.http import HttpRequest
from ninja.renderers import JSONRenderer
from ninja.responses import NinjaJSONEncoder

_else = NinjaJSONEncoder().default
AS_BEFORE = orjson.OPT_PASSTHROUGH_DATETIME | orjson.OPT_NON_STR_KEYS


class FastRenderer(JSONRenderer):
    """Answers, word for word as the API's own renderer writes them, but for the spaces."""

    def render(self, request: HttpRequest, data: Any, *, response_status: int) -> Any:
        """The answer as JSON."""
        try:
            return orjson.dumps(data, default=_else, option=AS_BEFORE)
        except TypeError:  # a whole number of more than sixty-four bits, half a character
            return super().render(request, data, response_status=response_status)


class FastDecoder(json.JSONDecoder):
    """What a column of JSON holds."""

    def decode(self, s: str, *given: Any) -> Any:
        """The value. What only Python reads, NaN, it reads as before."""
        try:
            return orjson.loads(s)
        except orjson.JSONDecodeError:
            return super().decode(s, *given)
