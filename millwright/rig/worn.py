"""A true element that wears: straight on, now and then by a jump, read by somebody whose readings scatter."""

import random
from dataclasses import dataclass
from datetime import datetime, timedelta

from ..benches.wear.io import WearReading


@dataclass(frozen=True, kw_only=True)
class TrueWear:
    """How an element wears. Days count from ``start``; ``jump`` is how far it went at once, on day ``jump_on``."""

    start: datetime
    zero: float = 0.0
    a_day: float = 0.005
    jump: float = 0.0
    jump_on: float = float("inf")

    def at(self, days: float) -> float:
        """The mark as it truly stands."""
        return self.zero + self.a_day * days + (self.jump if days >= self.jump_on else 0.0)

    def reaches(self, limit: float) -> float:
        """Days until it truly stands at the limit."""
        gone = limit - self.zero
        straight = gone / self.a_day
        return straight if straight < self.jump_on else max((gone - self.jump) / self.a_day, self.jump_on)

    def read(
        self,
        days: list[int],
        *,
        sigma: float,
        shows: float,
        chance: random.Random,
        slip: int | None = None,
        slipped: float = 0.0,
    ) -> list[WearReading]:
        """Read on these days. ``shows`` - what the scale is read to; ``slip`` - which reading is off, by ``slipped``."""
        found = []
        for i, day in enumerate(days):
            value = self.at(day) + chance.gauss(0.0, sigma) + (slipped if i == slip else 0.0)
            found.append(WearReading(at=self.start + timedelta(days=day), value=round(value / shows) * shows))
        return found
