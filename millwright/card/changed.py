"""What was changed on a value card, in words."""

from collections.abc import Mapping
from dataclasses import asdict
from typing import Any

from ..say import Words, words
from .values import Value, say_value, value_kind

NOTHING = words("nothing")


def values_changed(was: Mapping[str, Any], now: Mapping[str, Any]) -> list[dict[str, Any]]:
    """Every value that is not what it was: ``what``, ``was``, ``now``. Both cards as plain JSON."""
    return [
        {"what": kind.title, "was": asdict(_said(was.get(key), key)), "now": asdict(_said(now.get(key), key))}
        for key in dict.fromkeys([*was, *now])
        if was.get(key) != now.get(key) and (kind := value_kind(key)) is not None
    ]


def _said(value: Mapping[str, Any] | None, key: str) -> Words:
    kind = value_kind(key)
    if value is None or kind is None:
        return NOTHING
    read = Value.model_validate(value)
    means = f", {read.means}" if read.means and read.means not in kind.unit_by_means and not kind.words_only else ""
    return words("{value}{means}; {source}", value=say_value(read, kind), means=means, source=read.source.say())
