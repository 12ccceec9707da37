"""A hot hub as one lump in still air: how it cools, and what readings on the way say of that."""

import math
from dataclasses import dataclass

from pydantic import Field

from ..model import Model

AIR_FILM_W_M2_K = 20.0  # rule of thumb: still air on hot metal, radiation included
TOUCH_C = 45.0  # rule of thumb: a bare hand can rest on it

Temperature = float


class HubReading(Model):
    """A pyrometer reading on the hub, so long after it left the heater."""

    after_s: float = Field(ge=0, le=1_000_000)
    hub_c: Temperature = Field(ge=-100, le=900)


@dataclass(frozen=True, kw_only=True)
class Cooling:
    """``ambient + (start − ambient)·exp(−t/τ)``: the hub as one lump in still air."""

    start_c: float
    ambient_c: float
    tau_s: float

    def at_c(self, after_s: float) -> float:
        """Temperature after so many seconds."""
        return self.ambient_c + (self.start_c - self.ambient_c) * math.exp(-after_s / self.tau_s)

    def reaches_s(self, wanted_c: float) -> float | None:
        """When it has come down to a temperature; 0 where it is there, None where it never gets there."""
        if self.start_c <= wanted_c:
            return 0.0
        if wanted_c <= self.ambient_c:
            return None
        return self.tau_s * math.log((self.start_c - self.ambient_c) / (wanted_c - self.ambient_c))


def fit_cooling(readings: list[HubReading], ambient_c: float) -> Cooling | None:
    """The cooling through two readings or more; None where they do not fall toward the air's temperature.

    Source: least squares of ``ln(T − ambient)`` over time, which is a straight line for one lump.
    """
    usable = [(r.after_s, math.log(r.hub_c - ambient_c)) for r in readings if r.hub_c > ambient_c]
    times = [t for t, _ in usable]
    if len(usable) < 2 or max(times) - min(times) <= 0:
        return None
    mean_t = sum(times) / len(usable)
    mean_y = sum(y for _, y in usable) / len(usable)
    slope = sum((t - mean_t) * (y - mean_y) for t, y in usable) / sum((t - mean_t) ** 2 for t in times)
    if slope >= 0:
        return None
    start = ambient_c + math.exp(mean_y - slope * mean_t)
    return Cooling(start_c=start, ambient_c=ambient_c, tau_s=-1 / slope)


def say_time(seconds: float) -> str:
    """Minutes and seconds as on a stop watch; hours where there are any.

    >>> say_time(226), say_time(4861.7)
    ('3:46', '1:21:02')
    """
    whole = round(seconds)
    hours, rest = divmod(whole, 3600)
    text = f"{rest // 60:02}:{rest % 60:02}" if hours else f"{rest // 60}:{rest % 60:02}"
    return f"{hours}:{text}" if hours else text
