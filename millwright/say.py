"""What the core says: sentences whose figures are data, so that every sheet shows them in its own unit."""

import re
from collections.abc import Iterable, Mapping
from dataclasses import dataclass

FIGURE = re.compile(r"\{(\w+)\}")
CLOCK_FROM_S = 100.0  # from here on a time reads as minutes and seconds


@dataclass(frozen=True, slots=True)
class Figure:
    """One figure of a sentence: a value in a unit of the contracts, and how many places it is told to."""

    value: float
    unit: str
    places: int | None = None  # None: as many as it has
    signed: bool = False
    bare: bool = False  # the unit stands elsewhere: a sum on paper

    def __str__(self) -> str:
        """As it reads in a sentence in the contracts' units.

        >>> str(mm(-0.204)), str(mm(0.3, signed=True)), str(Figure(1540.0, "s")), str(Figure(20.0, "°C"))
        ('−0.20 mm', '+0.30 mm', '25:40', '20 °C')
        """
        if self.unit == "s" and not self.bare and self.value >= CLOCK_FROM_S:
            return say_time(self.value)
        digits = f"{abs(self.value):.10g}" if self.places is None else f"{abs(self.value):.{self.places}f}"
        zero = float(digits) == 0
        sign = "−" if self.value < 0 and not zero else "+" if self.signed and not zero else ""
        return f"{sign}{digits}" if self.bare or not self.unit else f"{sign}{digits}{_gap(self.unit)}{self.unit}"


def _gap(unit: str) -> str:
    return "" if unit == "°" else " "


def say_time(seconds: float) -> str:
    """Minutes and seconds, hours where there are any.

    >>> say_time(226), say_time(4862.4)
    ('3:46', '1:21:02')
    """
    whole = round(seconds)
    hours, rest = divmod(whole, 3600)
    minutes, left = divmod(rest, 60)
    return f"{hours}:{minutes:02d}:{left:02d}" if hours else f"{minutes}:{left:02d}"


@dataclass(frozen=True, slots=True)
class Words:
    """A text with ``{name}`` where a figure goes. Written out it reads in the contracts' units."""

    template: str
    values: dict[str, Figure]

    def __bool__(self) -> bool:
        return bool(self.template)

    def __str__(self) -> str:
        values = self.values
        # No brace but those of its own figures: the quick way.
        if self.template.count("{") == len(values) == self.template.count("}"):
            return self.template.format(**values) if values else self.template
        return FIGURE.sub(lambda found: str(values[found[1]]) if found[1] in values else found[0], self.template)


@dataclass(frozen=True, slots=True)
class Say:
    """A sentence of a bench: its code never changes, its wording may."""

    code: str
    template: str
    values: dict[str, Figure]

    def __str__(self) -> str:
        return str(Words(self.template, self.values))


Part = Figure | Words | str
NOTHING = Words("", {})


def words(template: str, **parts: Part) -> Words:
    """A text with its figures. Texts among ``parts`` are put in at once, other words with their figures; figures stay.

    >>> words("{part} is {by} off", part="motor", by=mm(0.3)).template
    'motor is {by} off'
    """
    return Words(*_composed(template, parts))


def say(code: str, template: str, **parts: Part) -> Say:
    """A sentence under its code; ``parts`` as in `words`.

    >>> str(say("close_gap", "Close the gap{at} by {by}.", at=" at the fan end", by=mm(0.5)))
    'Close the gap at the fan end by 0.50 mm.'
    """
    return Say(code, *_composed(template, parts))


def joined(parts: Iterable[Words], between: str = "; ") -> Words:
    """Several words as one text."""
    named = {f"p{i}": part for i, part in enumerate(parts)}
    return words(between.join("{" + name + "}" for name in named), **named)


def _composed(template: str, parts: Mapping[str, Part]) -> tuple[str, dict[str, Figure]]:
    figures = {name: part for name, part in parts.items() if isinstance(part, Figure)}
    if len(figures) == len(parts):
        return template, figures
    values: dict[str, Figure] = {}

    def put(found: re.Match[str]) -> str:
        name = found[1]
        match parts.get(name):
            case str() as text:
                return text
            case Words() as inner:
                values.update({f"{name}_{key}": figure for key, figure in inner.values.items()})
                return FIGURE.sub(
                    lambda one: "{" + f"{name}_{one[1]}" + "}" if one[1] in inner.values else one[0], inner.template
                )
            case Figure() as figure:
                values[name] = figure
        return found[0]

    return FIGURE.sub(put, template), values


def mm(value: float, places: int | None = 2, *, signed: bool = False) -> Figure:
    """A length."""
    return Figure(value, "mm", places, signed)


def per_m(value: float, places: int | None = 2, *, signed: bool = False) -> Figure:
    """An angularity, mm per m."""
    return Figure(value, "mm/m", places, signed)


def deg_c(value: float, places: int | None = 0) -> Figure:
    """A temperature."""
    return Figure(value, "°C", places)


def nm(value: float, places: int | None = None) -> Figure:
    """A torque."""
    return Figure(value, "N·m", places)


def seconds(value: float) -> Figure:
    """A time, in seconds; from `CLOCK_FROM_S` on it reads as a clock."""
    return Figure(value, "s", 0)


def number(value: float, places: int | None = None, *, signed: bool = False) -> Figure:
    """A figure without a unit: a count, a share, a factor."""
    return Figure(value, "", places, signed)


def bare(value: float, places: int | None = 3, unit: str = "mm", *, signed: bool = False) -> Figure:
    """A figure of a sum on paper: its unit stands at the end of the line."""
    return Figure(value, unit, places, signed, bare=True)
