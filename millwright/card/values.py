"""The value card: every limit and torque a job needs, where it comes from, and which paper to look in."""

from collections.abc import Mapping
from dataclasses import replace
from functools import lru_cache
from typing import Literal

from pydantic import Field

from ..errors import Problem, problem
from ..line import SIDES, Side
from ..model import Model, Name
from ..say import Figure, Part, Words, joined, words
from ..units import angle_deg, read_angle_mm_per_m, read_length_mm, read_temperature_c, read_torque_nm
from .hub_lines import LEAST_AND_MOST, MAX_CLEARANCE, MAY_GRIP, MIN_CLEARANCE
from .kind import ValueKind
from .kinds import CIRCLES, VALUE_KINDS

TYPED_AGREES_MM = 1e-6  # what was typed and its value are the same length
SourceKind = Literal["maker's manual", "drawing", "site rule", "measured", "sample"]


class Source(Model):
    """Where a figure comes from. A sample is invented and binds nobody."""

    kind: SourceKind
    document: Name = Field(min_length=1, max_length=120)
    issue: Name = Field(default="", max_length=60)
    page: Name = Field(default="", max_length=60)

    def say(self) -> str:
        """In one line: "sample: Jaw couplings sample sheet, issue 2, page 3"."""
        parts = [f"{self.kind}: {self.document}"]
        parts += [f"issue {self.issue}"] if self.issue else []
        parts += [f"page {self.page}"] if self.page else []
        return ", ".join(parts)


class UpTo(Model):
    """A limit that holds up to a speed."""

    rpm: float = Field(gt=0, le=100_000)
    value: float


class OfMaterial(Model):
    """A limit that holds for an element of this material."""

    material: Name = Field(min_length=1, max_length=40)
    value: float


class Value(Model):
    """One figure of the card; `means` settles what kind of limit or thread it is where that matters.

    With `up_to` it depends on the speed: each step holds up to its rpm, `value` above the last. With `of_material` on the
    element: `value` holds for every material that is not named. With `none_because` the paper gives no figure, and why that
    will do: `value` is 0 and means nothing.
    """

    value: float
    means: Name = Field(default="", max_length=40)
    typed: Name = Field(default="", max_length=40)
    up_to: list[UpTo] = Field(default_factory=list, max_length=8)
    of_material: list[OfMaterial] = Field(default_factory=list, max_length=8)
    none_because: Name = Field(default="", max_length=200)
    source: Source

    def at(self, rpm: float) -> float:
        """The figure that holds at a speed."""
        holds = [step for step in self.up_to if rpm <= step.rpm]
        return min(holds, key=lambda step: step.rpm).value if holds else self.value


ValueCard = Mapping[str, Value]
# What the two ends of a slip fit were once kept under, with interference as plus.
FORMERLY = {"fit_min_mm": MAX_CLEARANCE, "fit_max_mm": MIN_CLEARANCE}
MATERIAL = "element_material"


def stated(card: ValueCard) -> ValueCard:
    """The lines that have a figure or a word: without those whose paper gives none."""
    return {key: value for key, value in card.items() if not value.none_because}


def for_its_material(card: ValueCard) -> ValueCard:
    """The card with every limit as it holds for the element this line has."""
    wanted = card[MATERIAL].means.strip().casefold() if MATERIAL in card else ""
    return {key: _of_material(value, wanted) for key, value in card.items()}


def _of_material(value: Value, material: str) -> Value:
    own = next((one.value for one in value.of_material if one.material.strip().casefold() == material), None)
    return value if own is None else value.model_copy(update={"value": own})


def key_today(key: str) -> str:
    """The line a figure stands on today; an older card may have it under another key."""
    base, at, side = key.partition("@")
    return f"{FORMERLY.get(base, base)}{at}{side}"


def as_today(card: Mapping[str, Value]) -> ValueCard:
    """A card whatever its age: clearance is a plus figure on a line of its own.

    An older one has the ends of a slip fit as interference, clearance negative. For a while its lines were called as if
    clearance were plus: where the least lies above the most, that is how they were typed.

    >>> source = Source(kind="sample", document="x")
    >>> old = {"fit_min_mm": Value(value=-0.045, source=source), "fit_max_mm": Value(value=-0.005, source=source)}
    >>> {key: value.value for key, value in as_today(old).items()}
    {'clearance_max_mm': 0.045, 'clearance_min_mm': 0.005}
    """
    found: dict[str, Value] = {}
    for key, value in card.items():
        base, at, side = key.partition("@")
        if base not in FORMERLY:
            found[key] = value
            continue
        least, most = (card.get(f"{end}{at}{side}") for end in FORMERLY)
        typed_by_name = least is not None and least.value > (0 if most is None else most.value)
        if typed_by_name:
            found[key_today(key)] = value
        elif base == "fit_max_mm" and value.value > 0:
            found[f"{MAY_GRIP}{at}{side}"] = value
        else:
            found[key_today(key)] = _turned(value)
    return found


def _turned(value: Value) -> Value:
    """The same figure with the other sign, and what was typed for it as well."""
    typed = value.typed.lstrip("-\u2212") if value.typed[:1] in ("-", "\u2212") else value.typed and f"-{value.typed}"
    return value.model_copy(update={"value": -value.value, "typed": typed})


@lru_cache(1024)
def value_kind(key: str) -> ValueKind | None:
    """What stands under a key: a line of the card, or the same line for one hub or one circle of bolts. None where there
    is none."""
    base, _, side = key.partition("@")
    kind = VALUE_KINDS.get(base)
    if kind is None or not side:
        return kind
    whose = f"{side} hub" if side in SIDES else CIRCLES.get(side)
    return replace(kind, key=key, title=f"{kind.title}, {whose}") if whose else None


def on_its_line(key: str, value: Value) -> tuple[ValueKind | None, Value]:
    """A figure that was put on a card once, as it stands on its line today; None where there is no such line."""
    [(today, turned)] = as_today({key: value}).items()
    return value_kind(today), turned


def of_hub(card: ValueCard, key: str, side: Side) -> str:
    """The key a hub goes by: its own figure where the card has one, else the one both hubs share."""
    own = f"{key}@{side}"
    return own if own in card else key


def stands_on(card: ValueCard, key: str) -> Value | None:
    """What a hub goes by under this key now: its own figure, or the one both hubs share. None on an empty line."""
    return card.get(key) or card.get(key.partition("@")[0])


def lines_of(card: ValueCard) -> list[tuple[str, ValueKind]]:
    """The lines a card has, in the order they are written on it."""
    keys = [key for base in VALUE_KINDS for key in (base, *(f"{base}@{own}" for own in (*SIDES, *CIRCLES))) if key in card]
    return [(key, kind) for key in keys if (kind := value_kind(key)) is not None]


def card_problems(card: Mapping[str, Value]) -> list[Problem]:
    """What is wrong with the figures of a whole card; paths start at `values`."""
    alone = [
        replace(p, path=f"values.{key}.{p.path}".rstrip("."))
        for key, value in card.items()
        for p in value_problems(key, value)
    ]
    return alone + [replace(p, path=f"values.{key}.value") for key, p in pair_problems(card)]


def pair_problems(card: Mapping[str, Value]) -> list[tuple[str, Problem]]:
    """Where the least of something is not below its most, by the key of the least: for both hubs, or for one."""
    card = stated(card)
    found: dict[str, Problem] = {}
    for side in ("", *(f"@{side}" for side in SIDES)):
        for pair in LEAST_AND_MOST:
            low, high = (f"{key}{side}" if f"{key}{side}" in card else key for key in pair)
            if low not in card or high not in card or card[low].value < card[high].value:
                continue
            text = "{low_line}, {low}, has to be less than {high_line}, {high}."
            lines: dict[str, Part] = {"low_line": _title(low), "high_line": _title(high)}
            figures = {"low": Figure(card[low].value, "mm"), "high": Figure(card[high].value, "mm")}
            found.setdefault(low, problem("value", text, **lines, **figures))
    return list(found.items())


def _title(key: str) -> str:
    kind = value_kind(key)
    return kind.title if kind else key


def value_problems(key: str, value: Value) -> list[Problem]:
    """What is wrong with a figure put on the card; paths start inside the value."""
    kind = value_kind(key)
    if kind is None:
        return [Problem("", "The value card has no such line.")]
    if value.none_because:
        return [] if kind.may_be_none else [problem("none_because", "Without {line} this job is not done.", line=kind.title)]
    found = []
    unit = kind.unit_as(value.means)
    between = "{line} is between {low} and {high}. A slip?"
    bounds: dict[str, Part] = {
        "line": kind.title,
        "low": Figure(kind.low, unit if unit == "mm" else ""),
        "high": Figure(kind.high, unit),
    }
    if value.value < 0 <= kind.low:
        found.append(problem("value", "{line} is a plus figure.", line=kind.title))
    elif not kind.low <= value.value <= kind.high:
        found.append(problem("value", between, **bounds))
    if kind.written and not value.means.strip():
        found.append(Problem("means", f"{kind.ask}?"))
    if kind.means and value.means not in kind.means:
        found.append(Problem("means", f"{kind.ask}: {' or '.join(kind.means)}?"))
    if value.typed and not _reads_as(value.typed, value.value, unit):
        text = "“{typed}” was entered; that is not {value}."
        found.append(problem("typed", text, typed=value.typed, value=Figure(value.value, unit)))
    if value.up_to and not kind.by_speed:
        found.append(Problem("up_to", "This figure does not depend on the speed."))
    if value.of_material and not kind.by_material:
        found.append(Problem("of_material", "This figure does not depend on the element."))
    found += [
        problem(f"of_material.{i}.value", between, **bounds)
        for i, one in enumerate(value.of_material)
        if not kind.low <= one.value <= kind.high
    ]
    found += [
        problem(f"up_to.{i}.value", between, **bounds)
        for i, step in enumerate(value.up_to)
        if not kind.low <= step.value <= kind.high
    ]
    return found


def _reads_as(typed: str, value: float, unit: str) -> bool:
    """What was typed is kept where it was written in another unit."""
    slope = read_angle_mm_per_m(typed, "°" if unit == "°" else "mm/m")
    read = {
        "mm": lambda: read_length_mm(typed, "mm"),
        "N·m": lambda: read_torque_nm(typed),
        "°C": lambda: read_temperature_c(typed),
        "mm/m": lambda: slope,
        "°": lambda: None if slope is None else angle_deg(slope),
    }.get(unit, lambda: None)()
    return read is not None and abs(read - value) < TYPED_AGREES_MM


def say_value(value: Value, kind: ValueKind) -> Words:
    """A figure with its unit, and up to which speed another one holds.

    >>> str(say_value(Value(value=0.05, up_to=[UpTo(rpm=600, value=0.1)], source=Source(kind="sample", document="x")),
    ...               VALUE_KINDS["hub_runout_mm"]))
    '0.05 mm; up to 600 rpm 0.1 mm'
    """
    if value.none_because:
        return words("none given: {why}", why=value.none_because)
    if kind.words_only:
        return words(value.means)
    unit = kind.unit_as(value.means)
    steps = [
        words("up to {rpm} rpm {value}", rpm=f"{step.rpm:g}", value=Figure(step.value, unit))
        for step in sorted(value.up_to, key=lambda s: s.rpm)
    ]
    materials = [
        words("{material} {value}", material=one.material, value=Figure(one.value, unit)) for one in value.of_material
    ]
    return joined([words("{value}", value=Figure(value.value, unit)), *steps, *materials])


def source_of(card: ValueCard, key: str) -> str:
    """The source in words, for a check."""
    return card[key].source.say()
