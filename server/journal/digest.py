"""One way to take the hash of what is stored, whatever it is."""

import hashlib
import json
from collections.abc import Mapping
from datetime import UTC, date, datetime
from typing import Any

from django.db.models import Model

START = "0" * 64
WHOLE = 1e15  # a float that is whole up to here is written like one


def digest(content: Any) -> str:
    """SHA-256 of JSON with sorted names and no spaces; numbers as the database gives them back."""
    text = json.dumps(_as_stored(content), sort_keys=True, separators=(",", ":"), ensure_ascii=False)
    return hashlib.sha256(text.encode()).hexdigest()


def digest_of_stored(content: Mapping[str, Any]) -> str:
    """`digest` of what `read_stored` read: there is nothing left to be put right."""
    text = json.dumps(content, sort_keys=True, separators=(",", ":"), ensure_ascii=False)
    return hashlib.sha256(text.encode()).hexdigest()


def read_stored(text: str | None) -> Any:
    """JSON as the database gives it, with its numbers as `digest` writes them: as fast as a million rows want it."""
    return None if text is None else json.loads(text, parse_float=_number)


def _number(text: str) -> int | float:
    value = float(text)
    return int(value) if value.is_integer() and abs(value) < WHOLE else value


def digest_of_row(row: Model, *, without: frozenset[str] = frozenset()) -> str:
    """Of all a row holds. What is empty is left out: a column that is added later changes no older digest."""
    held = {field.attname: getattr(row, field.attname) for field in row._meta.concrete_fields}
    return digest({key: value for key, value in held.items() if value not in (None, "", [], {}) and key not in without})


def _as_stored(value: Any) -> Any:
    """1.0 and 1 are one number to the database, and there is no minus zero."""
    match value:
        case bool() | None | str() | int():
            return value
        case float():
            return int(value) if value.is_integer() and abs(value) < WHOLE else value
        case Mapping():
            return {str(key): _as_stored(inner) for key, inner in value.items()}
        case list() | tuple():
            return [_as_stored(inner) for inner in value]
        case datetime():
            return value.astimezone(UTC).isoformat()
        case date():
            return value.isoformat()
        case _:
            return str(value)
