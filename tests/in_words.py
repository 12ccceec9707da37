"""Texts of answers as they read in the contracts' units."""

from collections.abc import Mapping
from typing import Any

from millwright.say import Figure, Words


def in_words(given: Mapping[str, Any]) -> str:
    """A text of an answer, its figures filled in."""
    return str(Words(given["template"], {name: Figure(**figure) for name, figure in given["values"].items()}))
