"""What was changed on a line, in words: each figure of its machines and each value, as it was and as it is."""

from collections.abc import Iterator, Mapping
from dataclasses import asdict
from typing import Any

from millwright.card.values import Value, say_value, value_kind
from millwright.say import Figure, Words, words

NOTHING = words("nothing")
UNITS = {"mm": "mm", "rpm": "rpm", "kw": "kW", "deg": "°"}


def changed(
    spec_was: Mapping[str, Any], spec: Mapping[str, Any], values_was: Mapping[str, Any], values: Mapping[str, Any]
) -> list[dict[str, Any]]:
    """Every figure that is not what it was: ``what``, ``was``, ``now``. All four as plain JSON."""
    before, after = dict(_flat(spec_was)), dict(_flat(spec))
    found = [
        {"what": label, "was": asdict(before.get(label, NOTHING)), "now": asdict(after.get(label, NOTHING))}
        for label in dict.fromkeys([*before, *after])
        if before.get(label) != after.get(label)
    ]
    return found + [
        {"what": kind.title, "was": asdict(_said(values_was.get(key), key)), "now": asdict(_said(values.get(key), key))}
        for key in dict.fromkeys([*values_was, *values])
        if values_was.get(key) != values.get(key) and (kind := value_kind(key)) is not None
    ]


def _said(value: Mapping[str, Any] | None, key: str) -> Words:
    kind = value_kind(key)
    if value is None or kind is None:
        return NOTHING
    read = Value.model_validate(value)
    means = f", {read.means}" if read.means and read.means not in kind.unit_by_means and not kind.words_only else ""
    return words("{value}{means}; {source}", value=say_value(read, kind), means=means, source=read.source.say())


def _flat(given: Any, path: tuple[str, ...] = ()) -> Iterator[tuple[str, Words]]:
    """Label and value of every figure of a line: "driver, shaft diameter" and "48 mm"."""
    match given:
        case Mapping():
            name = str(given["name"]) if path and "name" in given and path[-1].isdigit() else None
            here = (*path[:-1], name) if name else path
            for key, inner in given.items():
                yield from _flat(inner, (*here, str(key)))
        case list():
            for i, inner in enumerate(given, start=1):
                yield from _flat(inner, (*path, str(i)))
        case None | "":
            return
        case _:
            *where, last = path
            words, _, unit = last.rpartition("_")
            known = UNITS.get(unit, "")
            label = ", ".join(part.replace("_", " ") for part in (*where, words if known else last))
            yield label, _plain(given, known)


def _plain(given: Any, unit: str) -> Words:
    if isinstance(given, bool):
        return words("yes" if given else "no")
    return words("{value}", value=Figure(given, unit) if isinstance(given, int | float) else str(given))
