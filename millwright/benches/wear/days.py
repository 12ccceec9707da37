"""Days, as they are said in a sentence, and months of the calendar."""

from calendar import monthrange
from datetime import date

DAYS_A_MONTH = 30.4375  # on average over four years


def day(of: date) -> str:
    """A day that nobody reads the other way round.

    >>> day(date(2026, 11, 3))
    '3 Nov 2026'
    """
    return f"{of.day} {of:%b} {of.year}"


def months_on(start: date, months: float) -> date:
    """So many months on; where that month is shorter, its last day. Source: the calendar.

    >>> months_on(date(2026, 1, 31), 1), months_on(date(2026, 11, 30), 3), months_on(date(2026, 1, 1), 0.5)
    (datetime.date(2026, 2, 28), datetime.date(2027, 2, 28), datetime.date(2026, 1, 16))
    """
    whole, part = divmod(months, 1)
    years, month = divmod(start.month - 1 + int(whole), 12)
    last = monthrange(start.year + years, month + 1)[1]
    then = date(start.year + years, month + 1, min(start.day, last))
    return date.fromordinal(then.toordinal() + round(part * DAYS_A_MONTH))
