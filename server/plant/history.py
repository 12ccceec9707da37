"""What was changed on a line, in words: each figure of its machines and each value, as it was and as it is."""

from collections.abc import Iterator, Mapping
from dataclasses import asdict
from typing import Any

from millwright.card.changed import NOTHING, values_changed
from millwright.say import Figure, Words, words

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
    return found + values_changed(values_was, values)


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
