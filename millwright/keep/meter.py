"""The hour meter of a line as it was read: piece by piece, over meters that were replaced and readings that were slips."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from itertools import pairwise

HOURS_A_DAY = 24.0
DAY_S = 86_400.0
SOME_DAYS = 7.0  # between two readings, so that they tell how long it runs a day
READ_OFF_H = 1.0  # rule of thumb: a meter is read to the hour, a clock to the minute
Reading = tuple[datetime, float]


@dataclass(frozen=True, kw_only=True)
class Meter:
    """Readings of one meter after another; ``pieces`` in order of time, each rising and none faster than the clock."""

    pieces: tuple[tuple[Reading, ...], ...]

    @property
    def hours_a_day(self) -> float | None:
        """By the last piece that covers some days; None where none does."""
        for piece in reversed(self.pieces):
            days = _days(piece[0], piece[-1])
            if days >= SOME_DAYS:
                return min((piece[-1][1] - piece[0][1]) / days, HOURS_A_DAY)
        return None

    def run_since(self, since: datetime) -> tuple[float, datetime] | None:
        """How long it ran from then to its last reading, and when that was; None where it was not read after it."""
        *_, last = [None, *self._ran(since)]
        return last

    def reached(self, since: datetime, hours: float) -> datetime | None:
        """When it had run so long since then, by readings that lie round that time; None where it has not."""
        run_before, before = 0.0, since
        for run, at in self._ran(since):
            if run >= hours:
                share = (hours - run_before) / (run - run_before) if run > run_before else 1.0
                return before + (at - before) * share
            run_before, before = run, at
        return None

    def _ran(self, since: datetime) -> Iterator[tuple[float, datetime]]:
        """By reading after ``since``, how long it had run by then.

        Inside a piece the meter at that time lies between its neighbours; between two pieces it ran as it runs on usual days.
        """
        run, before, a_day = 0.0, since, self.hours_a_day
        for piece in self.pieces:
            unread = max(piece[0][0] - before, timedelta(0)) / timedelta(days=1)
            run += unread * (HOURS_A_DAY if a_day is None else a_day)
            shown = _at(piece, since)
            for at, hours in piece:
                if at > since:
                    run += hours - shown
                    shown, before = hours, at
                    yield run, at


def meter_of(readings: Sequence[Reading]) -> Meter:
    """A meter's readings in order of time, parted where they fall.

    A reading that falls is of another meter. One alone that neither goes on from what was read before it nor is gone on
    from is a slip, and so is one that runs faster than the clock.
    """
    pieces: list[list[Reading]] = []
    for reading in readings:
        alone = len(pieces) > 1 and len(pieces[-1]) == 1
        passes_it = alone and _goes_on(pieces[-2][-1], reading)
        goes_on = bool(pieces) and _goes_on(pieces[-1][-1], reading)
        if passes_it and not (goes_on and _runs_on_as_usual(pieces[-2], pieces[-1][-1], reading)):
            pieces.pop()
            pieces[-1].append(reading)
        elif goes_on:
            pieces[-1].append(reading)
        elif pieces and _leaps_over(pieces[-1], reading):
            pieces[-1][-1] = reading
        elif not pieces or reading[1] < pieces[-1][-1][1]:
            pieces.append([reading])
        elif len(pieces[-1]) == 1:
            pieces[-1] = [reading]
    if len(pieces) > 1 and len(pieces[-1]) == 1:
        pieces.pop()  # not gone on from yet: a new meter, or a slip of the last round
    return Meter(pieces=tuple(tuple(piece) for piece in pieces))


def _goes_on(before: Reading, after: Reading) -> bool:
    most = _days(before, after) * HOURS_A_DAY + READ_OFF_H
    return 0 <= after[1] - before[1] <= most


def _runs_on_as_usual(usual: Sequence[Reading], alone: Reading, reading: Reading) -> bool:
    """From the one that fell it runs as it did before, and nearer to that than if the one that fell were a slip."""
    if len(usual) == 1:
        return True
    a_day = _a_day(usual[0], usual[-1])
    return abs(_a_day(alone, reading) - a_day) < abs(_a_day(usual[-1], reading) - a_day)


def _leaps_over(piece: Sequence[Reading], reading: Reading) -> bool:
    """The last reading rose out of line, and this one goes on from the one before it as the meter ran until then."""
    *usual, last = piece
    if len(usual) < 2 or reading[1] >= last[1] or not _goes_on(usual[-1], reading):
        return False
    a_day = _a_day(usual[0], usual[-1])
    return abs(_a_day(usual[-1], reading) - a_day) < abs(_a_day(usual[-1], last) - a_day)


def _a_day(before: Reading, after: Reading) -> float:
    return (after[1] - before[1]) / (_days(before, after) or 1.0)


def _days(before: Reading, after: Reading) -> float:
    return (after[0] - before[0]).total_seconds() / DAY_S


def _at(piece: Sequence[Reading], when: datetime) -> float:
    """What the meter showed at a time between its first reading and its last."""
    for before, after in pairwise(piece):
        if before[0] <= when <= after[0]:
            span = (after[0] - before[0]) / timedelta(seconds=1)
            share = (when - before[0]) / timedelta(seconds=1) / span if span else 0.0
            return before[1] + share * (after[1] - before[1])
    return piece[0][1]
