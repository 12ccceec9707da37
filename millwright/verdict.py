"""Checks against limits, the share of the allowance used, and the worst of them."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Annotated, Any

from pydantic import Field, PlainSerializer, computed_field, model_validator

from .model import Model
from .say import Figure, Say, Words, say

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


# What is printed and shown of both.
STATUS_WORDS: Mapping[str, str] = {
    "inside": "within tolerance",
    "close": "near the limit",
    "over": "out of tolerance",
    "incomplete": "not complete",
    "not judged": "not judged",
}


# Plain data classes: a result holds a dozen of them, and nothing about them is left to be checked.
@dataclass(frozen=True, kw_only=True, slots=True)
class Check:
    """One value against one limit. `used` is the share of the allowance: 1 is the limit.

    `plus_minus` is the half width of the 95 % interval of the value, in its unit, null where none is known. `proven` is
    false where the value keeps its limit on paper, but with its ± does not.
    """

    code: str  # never changes; nothing looks into a name
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
    plus_minus: float | None = None
    proven: bool | None = None
    reads: str = ""  # how a signed figure is read: of a "fit", plus is interference and minus is clearance


@dataclass(frozen=True, kw_only=True, slots=True)
class WorkLine:
    """One line of the sum as a tradesman would write it; `sum` holds its figures as data."""

    code: str
    what: str
    formula: str
    numbers: Annotated[Words, PlainSerializer(str, return_type=str)]
    sum: Words | None
    value: float
    unit: str


def work(code: str, what: str, formula: str, numbers: str | Words, value: float, unit: str = "mm") -> WorkLine:
    """`WorkLine` in the order it is read."""
    text = Words(numbers, {}) if isinstance(numbers, str) else numbers
    figures = text if text.values else None
    return WorkLine(code=code, what=what, formula=formula, numbers=text, sum=figures, value=value, unit=unit)


Judged = tuple[list[Check], list[Say]]  # what a sheet that is judged comes to


class Result(Model):
    """What every bench returns besides its own fields. `proven`: false where one check is not, null where none tells."""

    bench: str
    verdict: Verdict
    proven: bool | None = None
    checks: list[Check]
    says: list[Say]
    working: list[WorkLine]

    @computed_field  # type: ignore[prop-decorator]
    @property
    def advice(self) -> list[str]:
        """`says` written out in the contracts' units, most urgent first."""
        return [str(sentence) for sentence in self.says]


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


def judge(  # noqa: PLR0913 - what is judged, its limit and where that comes from, all by name
    code: str,
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
    plus_minus: float | None = None,
    signed: bool = False,
    reads: str = "",
) -> Check:
    """Hold ``value`` against a band, an upper or a lower limit.

    A one-sided upper limit is on the size of the value, on the value itself where it is ``signed``: what lies below 0
    then uses nothing. With neither limit the check is not judged.
    Source: share of allowance, ``|value|/high``, ``low/value`` or ``|value − middle|/half width``.

    >>> judge("spread", "spread", 0.12, "mm", high=0.20, source="site rule").used
    0.6
    """
    held = max(value, 0.0) if signed and low is None else value
    used = _share(held, low, high)
    over = _is_over(held, low, high)
    if low is None and high is None:
        status = Status.NOT_JUDGED
    elif over:
        status = Status.OVER
    else:
        status = Status.CLOSE if used is None or used > close_above else Status.INSIDE
    return Check(
        code=code,
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
        plus_minus=plus_minus,
        reads=reads,
        proven=None if plus_minus is None or status is Status.NOT_JUDGED else over or _keeps(value, plus_minus, low, high),
    )


def _keeps(value: float, plus_minus: float, low: float | None, high: float | None) -> bool:
    """The limit is kept by the whole interval of a value that keeps it itself."""
    if high is not None and (value if low is not None else abs(value)) + plus_minus > high + ON_PAPER:
        return False
    return low is None or value - plus_minus >= low - ON_PAPER


def unproven(check: Check) -> Check:
    """The same check where something else says that its figure is not to be relied on."""
    return replace(check, proven=False)


def all_proven(checks: Iterable[Check]) -> bool | None:
    """The worst of the checks: false where one is not proven, null where none can tell."""
    told = [check.proven for check in checks if check.proven is not None]
    return all(told) if told else None


def is_unproven(result: Mapping[str, Any] | None) -> bool:
    """Of a result as it is stored: inside on paper, not within its ±, and nobody took it as it is."""
    if result is None or result["verdict"] not in (Verdict.INSIDE, Verdict.CLOSE):
        return False
    return result.get("proven") is False and not result.get("as_it_is")


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


def say_cannot_tell(checks: Iterable[Check]) -> list[Say]:
    """Checks that keep their limit on paper, but not with their ±."""
    text = "Cannot tell yet: {name} is uncertain by ±{by}, more than is left of its limit."
    return [
        say("cannot_tell_yet", text, name=check.name, by=Figure(check.plus_minus, check.unit, 3))
        for check in checks
        if check.proven is False and check.plus_minus is not None and check.status is not Status.OVER
    ]


def said_by_hand(code: str, name: str, source: str, *, in_order: bool) -> Check:
    """A check that no figure carries: somebody looked, and says whether it is in order."""
    status = Status.NOT_JUDGED if in_order else Status.OVER
    return Check(code=code, name=name, value=None, unit="", min=None, max=None, used=None, status=status, source=source)


def touching(code: str, name: str, least_mm: float, what: str) -> Check:
    """A gap that is closed: over, whatever the limits. ``what`` does not touch, by rule of thumb."""
    source = f"rule of thumb: {what}"
    return Check(
        code=code,
        name=name,
        value=least_mm,
        unit="mm",
        min=0.0,
        max=None,
        used=None,
        status=Status.OVER,
        source=source,
    )


def none_wanted(code: str, name: str, count: int, source: str, *, found: Status) -> Check:
    """A count of what there should be none of; ``found`` is how it stands where there is some."""
    status = found if count else Status.INSIDE
    return Check(
        code=code, name=name, value=float(count), unit="", min=None, max=0.0, used=None, status=status, source=source
    )


def judge_band(code: str, name: str, value_mm: float, band: Band, *, plus_minus: float | None = None) -> Check:
    """`judge` with a `Band`."""
    low, high, source = band.min_mm, band.max_mm, band.source
    return judge(code, name, value_mm, "mm", low=low, high=high, source=source, plus_minus=plus_minus)


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
