"""One way to take the hash of what is stored, whatever it is."""

import hashlib
import json
from collections.abc import Mapping
from datetime import UTC, date, datetime
from functools import lru_cache
from itertools import groupby
from typing import Any

from django.db.models import Model

START = "0" * 64
HASH = "^[0-9a-f]{64}$"
_written = json.JSONEncoder(sort_keys=True, separators=(",", ":"), ensure_ascii=False).encode
WHOLE = 1e15  # a float that is whole up to here is written like one


def digest(content: Any) -> str:
    """SHA-256 of JSON with sorted names and no spaces; numbers as the database gives them back."""
    return hashlib.sha256(_written(_as_stored(content)).encode()).hexdigest()


def digest_of_stored(plain: Mapping[str, Any], stored: Mapping[str, str]) -> str:
    """`digest` of a row: its ``plain`` columns, and those that hold JSON as `canonical` writes it."""
    parts: list[str] = []
    for is_stored, keys in groupby(sorted([*plain, *stored]), stored.__contains__):
        some = list(keys)
        parts += [f'"{key}":{stored[key]}' for key in some] if is_stored else [_written({k: plain[k] for k in some})[1:-1]]
    return hashlib.sha256(f"{{{','.join(parts)}}}".encode()).hexdigest()


def canonical(text: str | None) -> str:
    """JSON as the database gives it, as `digest` writes it: as fast as a million rows want it."""
    return "null" if text is None else _written(json.loads(text, parse_float=_number))


@lru_cache(4096)
def canonical_again(text: str) -> str:
    """`canonical` of what many rows hold alike: what was asked, mostly."""
    return canonical(text)


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
