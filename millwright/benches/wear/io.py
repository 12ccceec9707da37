"""What the bench for wear and drift is given, and what it answers."""

from datetime import UTC, date, datetime
from typing import Annotated, Literal

from pydantic import AfterValidator, BeforeValidator, Field

from ...model import Model, Name
from ...verdict import AS_ENTERED, Result

MOST_READINGS = 100_000
Unit = Literal["mm", "mm/m", "°C", "mm/s", "%", "°"]


YEARS = range(1950, 2200)
DAY = 10  # characters of a day without a time


def _read(given: object) -> object:
    """A moment, or a day: that is taken at noon."""
    if not isinstance(given, str):
        return given
    try:
        return datetime.fromisoformat(f"{given}T12:00:00" if len(given) == DAY else given)
    except ValueError:
        raise ValueError("Enter a day: 2026-03-31.") from None


def _plain(at: datetime) -> datetime:
    plain = at.astimezone(UTC).replace(tzinfo=None) if at.tzinfo and at.year in YEARS else at.replace(tzinfo=None)
    _of_our_time(plain)
    return plain


def _of_our_time(on: date) -> date:
    """No coupling is older, and no forecast goes further."""
    if on.year not in YEARS:
        raise ValueError(f"The year {on.year}? A slip.")
    return on


Moment = Annotated[datetime, BeforeValidator(_read), AfterValidator(_plain)]


class WearReading(Model):
    """One reading, with half the width of its 95 % interval. Several of one day are several readings."""

    at: Moment
    value: float = Field(ge=-100_000, le=100_000)
    plus_minus: float | None = Field(default=None, gt=0, le=10_000)


class WearBreak(Model):
    """From here on the readings are of something else: a new element, a machine that was moved."""

    at: Moment
    why: Name = Field(min_length=1, max_length=120)


class WearInput(Model):
    """Readings over time, in one unit; ``plus_minus`` of the whole holds for every reading that says none of its own."""

    readings: list[WearReading] = Field(max_length=MOST_READINGS)
    plus_minus: float | None = Field(default=None, gt=0, le=10_000, description="of one reading, 95 %")
    breaks: list[WearBreak] = Field(default_factory=list, max_length=500)
    limit: float | None = Field(default=None, gt=0, le=100_000, description="at most")
    limit_source: str = AS_ENTERED
    unit: Unit = "mm"
    today: Annotated[date, AfterValidator(_of_our_time)]


class TrendPoint(Model):
    """The line, and the band it lies in with 95 %."""

    at: date
    value: float
    low: float
    high: float


class Reached(Model):
    """When the limit is reached: not before, most likely, at the latest; null where the readings do not carry so far."""

    earliest: date | None
    likely: date | None
    latest: date | None


class Jump(Model):
    """Between these two days it jumped by so much."""

    after: date
    before: date
    by: float
    plus_minus: float


class Run(Model):
    """Readings that belong together: between two breaks."""

    start: Moment
    end: Moment
    why: str  # it begins; empty for the first


class WearResult(Result):
    """The trend of what runs now, and when it is at its limit. ``drawn`` - what a chart shows: the readings, thinned."""

    latest: float | None
    per_month: float | None
    per_month_plus_minus: float | None
    reached: Reached | None
    carries_until: date | None  # no further than this is anything said
    trend: list[TrendPoint]
    set_aside: list[int]  # readings that do not belong, by their place in what was given
    jump: Jump | None
    runs: list[Run]
    drawn: list[WearReading]
