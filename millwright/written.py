"""What the core says, written out in the unit of a sheet or a page."""

from collections.abc import Mapping
from dataclasses import fields, is_dataclass, replace
from typing import Any

from pydantic import BaseModel

from .say import FIGURE, Figure, Words
from .units import MM_PER_INCH, LengthUnit

INCH_NEEDS_MORE = 2  # places: 0.01 mm is about 0.0004 in
INCH_NEEDS_AT_MOST = 5  # a hundredth of a thou
# What a unit of the contracts becomes on a sheet: factor, unit, and how many places more the figure then needs.
ON_SHEET: Mapping[LengthUnit, Mapping[str, tuple[float, str, int]]] = {
    "mm": {"mm/m": (0.1, "mm/100", 1)},
    "in": {
        "mm": (1 / MM_PER_INCH, "in", INCH_NEEDS_MORE),
        "mm/s": (1 / MM_PER_INCH, "in/s", INCH_NEEDS_MORE),
        "mm/m": (1, "thou/in", 0),
        "mm/100": (10, "thou/in", -1),
        "N": (0.224809, "lbf", 0),
        "kg": (2.204623, "lb", 0),
    },
}


def figure_in(figure: Figure, sheet: LengthUnit) -> str:
    """One figure as a sheet or a page in that unit has it.

    >>> from millwright.say import mm, per_m
    >>> figure_in(mm(0.3, signed=True), "in"), figure_in(per_m(0.51), "mm"), figure_in(Figure(0.0508, "mm"), "in")
    ('+0.0118 in', '0.051 mm/100', '0.002 in')
    """
    keeps = figure.bare and sheet == "mm"  # a sum on paper goes on in the units it was made in
    found = None if keeps else ON_SHEET[sheet].get(figure.unit)
    if found is None:
        return str(figure)
    factor, unit, more = found
    size = abs(figure.value * factor)
    if figure.places is None:
        rounded = float(f"{size:.{INCH_NEEDS_AT_MOST}f}") or float(f"{size:.1g}")
        digits = f"{size:.10g}" if factor == 1 else f"{rounded:.10g}"
    else:
        most = min(figure.places + more, INCH_NEEDS_AT_MOST) if more > 0 else figure.places + more
        digits = f"{size:.{max(most, 0)}f}"
    zero = float(digits) == 0
    sign = "" if zero else "−" if figure.value < 0 else "+" if figure.signed else ""
    return sign + digits + ("" if figure.bare else f" {unit}")


def say_in(text: Words, sheet: LengthUnit) -> str:
    """A text with its figures, as a sheet or a page in that unit has it."""
    return FIGURE.sub(
        lambda found: figure_in(text.values[found[1]], sheet) if found[1] in text.values else found[0], text.template
    )


def settled_in(thing: Any, sheet: LengthUnit) -> Any:
    """The same thing, every text in it written out in that unit: a drawing for one page.

    ``thing`` - data classes, models, tuples and lists, with `Words` anywhere in them.
    """
    match thing:
        case Words():
            return Words(say_in(thing, sheet), {})
        case list() | tuple():
            return type(thing)(settled_in(one, sheet) for one in thing)
        case BaseModel():
            return thing.model_copy(
                update={name: settled_in(getattr(thing, name), sheet) for name in type(thing).model_fields}
            )
        case _ if is_dataclass(thing) and not isinstance(thing, type | Figure):
            return replace(thing, **{field.name: settled_in(getattr(thing, field.name), sheet) for field in fields(thing)})
        case _:
            return thing
