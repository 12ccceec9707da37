"""A judged figure in words: what it was, and what it was held against."""

from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from millwright.figures_in_words import say_figure
from millwright.say import NOTHING, Words, words


def value_of(check: Mapping[str, Any]) -> Words:
    """A judged figure, and to what it is known; empty where nothing was measured."""
    if check["value"] is None:
        return NOTHING
    value, by = say_figure(check["value"], check["unit"]), check.get("plus_minus")
    if by is None:
        return value
    alone = {name: replace(figure, bare=True) for name, figure in value.values.items()}
    return words("{value} ± {by}", value=Words(value.template, alone), by=say_figure(by, check["unit"]))


def limit_of(check: Mapping[str, Any]) -> Words:
    """The band or the one limit it was held against; empty where there is none."""
    low, high, unit = check["min"], check["max"], check["unit"]
    if low is not None and high is not None:
        return words("{low} to {high}", low=say_figure(low, unit), high=say_figure(high, unit))
    if high is not None:
        return words("at most {high}", high=say_figure(high, unit))
    return words("at least {low}", low=say_figure(low, unit)) if low is not None else NOTHING
