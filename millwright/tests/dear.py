"""Tests that take seconds and rarely bite: the whole runs them, the quick lane does not (`--exclude-tag dear`)."""

from collections.abc import Callable
from typing import Any, TypeVar

Test = TypeVar("Test", bound=Callable[..., Any])


def dear(test: Test) -> Test:
    """The runner knows a test by its tags."""
    test.tags = {"dear"}  # type: ignore[attr-defined]
    return test
