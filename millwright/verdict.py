"""Checks against limits, the share of the allowance used, and the worst of them."""

from collections.abc import Iterable
from dataclasses import dataclass
from enum import StrEnum

from pydantic import Field, model_validator

from .model import Model

CLOSE_ABOVE = 0.8  # share of the allowance; rule of thumb, a site may set another
ON_PAPER = 1e-9  # slack, so that a limit met exactly on paper is met
AS_ENTERED = "limit as entered"


class Status(StrEnum):
    """How one value stands to its limit."""

    INSIDE = "inside"
    CLOSE = "close"
    OVER = "over"
    NOT_JUDGED = "not judged"


class Verdict(StrEnum):
    """The worst check, or why there is no verdict yet."""

    INSIDE = "inside"
    CLOSE = "close"
    OVER = "over"
    INCOMPLETE = "incomplete"
    NOT_JUDGED = "not judged"


# Plain data classes: a result holds a dozen of them, and nothing about them is left to be checked.
@dataclass(frozen=True, kw_only=True, slots=True)
class Check:
    """One value against one limit. `used` is the share of the allowance: 1 is the limit."""

    name: str
    value: float | None
    unit: str
    min: float | None
    max: float | None
    used: float | None
    status: Status
    source: str
    quantity: str = ""  # what is judged, where several limits judge the same: "offset"
    against: str = ""  # whose limit it is then: "coupling" or "running target"


@dataclass(frozen=True, kw_only=True, slots=True)
class WorkLine:
    """One line of the sum as a tradesman would write it."""

    what: str
    formula: str
    numbers: str
    value: float
    unit: str


def work(what: str, formula: str, numbers: str, value: float, unit: str = "mm") -> WorkLine:
    """`WorkLine` in the order it is read."""
    return WorkLine(what=what, formula=formula, numbers=numbers, value=value, unit=unit)


class Result(Model):
    """What every bench returns besides its own fields."""

    bench: str
    verdict: Verdict
    checks: list[Check]
    advice: list[str]
    working: list[WorkLine]


class Band(Model):
    """A low and a high limit, or one of them, in mm, and where they come from."""

    min_mm: float | None = Field(default=None, ge=-10_000, le=10_000)
    max_mm: float | None = Field(default=None, ge=-10_000, le=10_000)
    source: str = AS_ENTERED

    @model_validator(mode="after")
    def _low_before_high(self) -> "Band":
        match self.min_mm, self.max_mm:
            case None, None:
                raise ValueError("Give min_mm, max_mm or both.")
            case (float() as alone, None) | (None, float() as alone) if alone <= 0:
                raise ValueError("A limit on its own must be more than 0.")
            case float() as low, float() as high if low >= high:
                raise ValueError("The low limit must be below the high one.")
        return self


def judge(
    name: str,
    value: float,
    unit: str,
    *,
    low: float | None = None,
    high: float | None = None,
    source: str,
    close_above: float = CLOSE_ABOVE,
    quantity: str = "",
    against: str = "",
) -> Check:
    """Hold ``value`` against a band, an upper or a lower limit.

    A one-sided upper limit is on the size of the value. With neither limit the check is not judged.
    Source: share of allowance, ``|value|/high``, ``low/value`` or ``|value − middle|/half width``.

    >>> judge("spread", 0.12, "mm", high=0.20, source="site rule").used
    0.6
    """
    used = _share(value, low, high)
    over = _is_over(value, low, high)
    if low is None and high is None:
        status = Status.NOT_JUDGED
    elif over:
        status = Status.OVER
    else:
        status = Status.CLOSE if used is None or used > close_above else Status.INSIDE
    return Check(
        name=name,
        value=value,
        unit=unit,
        min=low,
        max=high,
        used=used,
        status=status,
        source=source,
        quantity=quantity,
        against=against,
    )


def _share(value: float, low: float | None, high: float | None) -> float | None:
    if low is not None and high is not None:
        return abs(value - (low + high) / 2) / ((high - low) / 2)
    if high is not None:
        return abs(value) / high
    if low is not None:
        return low / value if value > 0 else None
    return None


def _is_over(value: float, low: float | None, high: float | None) -> bool:
    if low is not None and high is not None:
        return not low - ON_PAPER <= value <= high + ON_PAPER
    if high is not None:
        return abs(value) > high + ON_PAPER
    return low is not None and value < low - ON_PAPER


def said_by_hand(name: str, source: str, *, in_order: bool) -> Check:
    """A check that no figure carries: somebody looked, and says whether it is in order."""
    status = Status.NOT_JUDGED if in_order else Status.OVER
    return Check(name=name, value=None, unit="", min=None, max=None, used=None, status=status, source=source)


def judge_band(name: str, value_mm: float, band: Band) -> Check:
    """`judge` with a `Band`."""
    return judge(name, value_mm, "mm", low=band.min_mm, high=band.max_mm, source=band.source)


def worst(checks: Iterable[Check], *, lacking: bool = False) -> Verdict:
    """The verdict: over, then incomplete (``lacking`` something needed to judge), close, inside.

    >>> worst([]), worst([], lacking=True)
    (<Verdict.NOT_JUDGED: 'not judged'>, <Verdict.INCOMPLETE: 'incomplete'>)
    """
    found = {check.status for check in checks}
    if Status.OVER in found:
        return Verdict.OVER
    if lacking:
        return Verdict.INCOMPLETE
    for status in (Status.CLOSE, Status.INSIDE):
        if status in found:
            return Verdict(status.value)
    return Verdict.NOT_JUDGED
