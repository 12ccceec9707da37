"""What was changed on a value card, in words."""

from collections.abc import Mapping
from dataclasses import asdict
from typing import Any

from ..say import Words, words
from .kind import ValueKind
from .values import Value, as_today, say_value, value_kind

NOTHING = words("nothing")


def values_changed(was: Mapping[str, Any], now: Mapping[str, Any]) -> list[dict[str, Any]]:
    """Every value that is not what it was: ``what``, ``was``, ``now``. Both cards as plain JSON."""
    before, after = (as_today({key: Value.model_validate(value) for key, value in card.items()}) for card in (was, now))
    return [
        {"what": kind.title, "was": asdict(_said(before.get(key), kind)), "now": asdict(_said(after.get(key), kind))}
        for key in dict.fromkeys([*before, *after])
        if before.get(key) != after.get(key) and (kind := value_kind(key)) is not None
    ]


def _said(value: Value | None, kind: ValueKind) -> Words:
    if value is None:
        return NOTHING
    means = f", {value.means}" if value.means and value.means not in kind.unit_by_means and not kind.words_only else ""
    return words("{value}{means}; {source}", value=say_value(value, kind), means=means, source=value.source.say())
