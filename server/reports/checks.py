"""A judged figure in words: what it was, and what it was held against."""

from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from millwright.benches.fit import grip_word
from millwright.figures_in_words import say_figure
from millwright.say import NOTHING, Words, words


def value_of(check: Mapping[str, Any]) -> Words:
    """A judged figure, and to what it is known; empty where nothing was measured."""
    if check["value"] is None:
        return NOTHING
    value, by = figure_of(check, check["value"]), check.get("plus_minus")
    if by is None:
        return value
    alone = {name: replace(figure, bare=True) for name, figure in value.values.items()}
    return words("{value} ± {by}", value=Words(value.template, alone), by=say_figure(by, check["unit"]))


def figure_of(check: Mapping[str, Any], value: float) -> Words:
    """A figure of this check in words: of a fit a plus figure, and whether that is clearance or interference."""
    if check.get("reads") != "fit":
        return say_figure(value, check["unit"])
    return words("{size} {word}", size=say_figure(abs(value), check["unit"]), word=grip_word(value))


def limit_of(check: Mapping[str, Any]) -> Words:
    """The band or the one limit it was held against; empty where there is none."""
    low, high = check["min"], check["max"]
    if low is not None and high is not None:
        if check.get("reads") != "fit" or grip_word(low) != grip_word(high):
            return words("{low} to {high}", low=figure_of(check, low), high=figure_of(check, high))
        least, most = sorted((low, high), key=abs)
        return words("{low} to {high}", low=say_figure(abs(least), check["unit"]), high=figure_of(check, most))
    if high is not None:
        return words("at most {high}", high=figure_of(check, high))
    return words("at least {low}", low=figure_of(check, low)) if low is not None else NOTHING
