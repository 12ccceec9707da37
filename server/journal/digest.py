"""One way to take the hash of what is stored, whatever it is."""

import hashlib
import json
from collections.abc import Mapping
from datetime import UTC, date, datetime
from functools import lru_cache
from typing import Any

import orjson
from django.db.models import Model

START = "0" * 64
HASH = "^[0-9a-f]{64}$"
_written = json.JSONEncoder(sort_keys=True, separators=(",", ":"), ensure_ascii=False).encode
WHOLE = 1e15  # a float that is whole up to here is written like one


def digest(content: Any) -> str:
    """SHA-256 of JSON with sorted names and no spaces; numbers as the database gives them back."""
    return hashlib.sha256(_written(_as_stored(content)).encode()).hexdigest()


def digest_of_stored(plain: Mapping[str, Any], stored: Mapping[str, str]) -> str:
    """`digest` of a row: its ``plain`` columns, text and whole numbers, and those that hold JSON as `canonical` writes it."""
    written = {**{key: _faster(value) for key, value in plain.items()}, **stored}
    inside = ",".join([f'"{key}":{written[key]}' for key in sorted(written)])
    return hashlib.sha256(f"{{{inside}}}".encode()).hexdigest()


def canonical(text: str | None) -> str:
    """JSON as the database gives it, as `digest` writes it."""
    return "null" if text is None else _written(json.loads(text, parse_float=_number, parse_int=_number))


def canonical_mostly(text: str | None) -> str:
    """`canonical` as fast as a million rows want it; not that of 0.00001, nor of sixteen figures before the point."""
    return "null" if text is None else _faster(orjson.loads(_without_noughts(text)))


def _without_noughts(text: str) -> str:
    """1.0 as 1, but in the strings of it; none of those ends where it does not seem to."""
    if "\\" in text or not (".0," in text or ".0}" in text or ".0]" in text):
        return text
    parts = text.split('"')
    for i in range(0, len(parts), 2):
        part = parts[i]
        if ".0" in part:
            parts[i] = part.replace(".0,", ",").replace(".0}", "}").replace(".0]", "]")
    return '"'.join(parts)


def _faster(value: Any) -> str:
    return orjson.dumps(value, option=orjson.OPT_SORT_KEYS).decode()


@lru_cache(4096)
def canonical_again(text: str) -> str:
    """`canonical_mostly` of what many rows hold alike: what was asked, mostly."""
    return canonical_mostly(text)


def _number(text: str) -> int | float:
    """A whole number up to `WHOLE`, else the nearest float: the database does not tell 1e16 from its figures."""
    value = float(text)
    return int(value) if value.is_integer() and abs(value) < WHOLE else value


def digest_of_row(row: Model, *, without: frozenset[str] = frozenset()) -> str:
    """Of all a row holds. What is empty is left out: a column that is added later changes no older digest."""
    held = {field.attname: getattr(row, field.attname) for field in row._meta.concrete_fields}
    return digest({key: value for key, value in held.items() if value not in (None, "", [], {}) and key not in without})


def _as_stored(value: Any) -> Any:
    """1.0 and 1 are one number to the database, and there is no minus zero."""
    kind = type(value)  # the commonest first, and told by their type: every entry is walked through before it is stored
    if value is None or kind in (str, bool):
        return value
    if kind is float:
        return int(value) if value.is_integer() and abs(value) < WHOLE else value
    if kind is dict:
        return {str(key): _as_stored(inner) for key, inner in value.items()}
    if kind in (list, tuple):
        return [_as_stored(inner) for inner in value]
    return _seldom_stored(value)


def _seldom_stored(value: Any) -> Any:
    match value:
        case str():
            return value
        case int() | float():
            return _number(repr(value))
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
