"""What stands on a card and would stand otherwise: the lead's to change, with a reason and the paper it comes from."""

from collections.abc import Mapping
from typing import Any

from .values import Value, as_today

TYPED = {"typed"}  # how it was written changes nothing of what it is


def otherwise(was: Mapping[str, Any], now: Mapping[str, Value]) -> dict[str, Value | None]:
    """Every value that stood and is another one now, or gone (None). ``was`` as plain JSON."""
    stood = as_today({key: Value.model_validate(value) for key, value in was.items()})
    return {key: now.get(key) for key, value in stood.items() if _bare(now.get(key)) != _bare(value)}


def _bare(value: Value | None) -> Any:
    return value and value.model_dump(mode="json", exclude=TYPED)
