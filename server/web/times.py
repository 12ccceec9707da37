"""Times are bounded in one place: what lies outside was never entered here, and whatever is stored can be read."""

from datetime import UTC, datetime, timedelta
from typing import Any

from psycopg.abc import Buffer
from psycopg.errors import DataError
from psycopg.types.datetime import TimestamptzLoader

from millwright.errors import Problem
from millwright.benches.wear.days import day

EARLIEST = datetime(1990, 1, 1, tzinfo=UTC)
CLOCKS_DIFFER = timedelta(minutes=5)
READABLE = (datetime(1900, 1, 1, tzinfo=UTC), datetime(2200, 1, 1, tzinfo=UTC))


def time_problems(path: str, at: datetime, now: datetime) -> list[Problem]:
    """A time of something that was done: no earlier than 1990, and not still to come."""
    if at < EARLIEST:
        return [Problem(path, f"{at.year} is too early: nothing from before {EARLIEST.year} is taken.")]
    return [Problem(path, f"{day(at.date())} has not come yet.")] if at > now + CLOCKS_DIFFER else []


class BoundedLoader(TimestamptzLoader):
    """What no calendar has, put behind the app, reads as the bound it lies beyond: a page shows it, and none falls over it."""

    timezone = UTC  # Django asks its loader for it

    def load(self, data: Buffer) -> datetime:
        """In UTC."""
        try:
            at = super().load(data).astimezone(UTC)
        except (DataError, OverflowError):
            at = READABLE[0] if bytes(data).endswith(b"BC") or bytes(data).startswith(b"-") else READABLE[1]
        return min(max(at, READABLE[0]), READABLE[1])


def on_connection(connection: Any, **rest: object) -> None:
    """Every connection reads times like this."""
    connection.connection.adapters.register_loader("timestamptz", BoundedLoader)
