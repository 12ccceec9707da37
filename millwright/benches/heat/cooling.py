"""A hot hub as one lump in still air: how it cools, and what readings on the way say of that."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
from pydantic import Field

from ...model import Model

AIR_FILM_W_M2_K = 20.0  # rule of thumb: still air on hot metal, radiation included
TAU_KNOWN = 0.3  # rule of thumb: the time constant of a hub in still air is known to ± 30 %
READS_C = 2.0  # rule of thumb: to what a pyrometer in a hurry tells a hub
TRIED, TRIALS = 4.0, 321
TOUCH_C = 45.0  # rule of thumb: a bare hand can rest on it

Temperature = float


class HubReading(Model):
    """A pyrometer reading on the hub, so long after it left the heater."""

    after_s: float = Field(ge=0, le=1_000_000)
    hub_c: Temperature = Field(ge=-100, le=900)
    where: Literal["heater", "air", "shaft"] = "air"


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


def fit_cooling(readings: Sequence[HubReading], ambient_c: float, tau_s: float) -> Cooling | None:
    """The cooling through the readings taken in the air; None where there is none above the air's temperature.

    ``tau_s`` - the plan's time constant: readings may pull it, as far as they tell it better than `TAU_KNOWN`
    Source: least squares, each reading to `READS_C` and the logarithm of the time constant as one more reading of it.
    """
    usable = [r for r in readings if r.where == "air" and r.hub_c > ambient_c]
    if not usable:
        return None
    after, above = (np.array(column) for column in zip(*((r.after_s, r.hub_c - ambient_c) for r in usable), strict=True))
    after = after - after[-1]  # counted from the last one, where it matters most
    pulls = np.linspace(-TRIED, TRIED, TRIALS)  # in sigmas of the plan's own
    decays = np.exp(-after[None, :] / (tau_s * np.exp(pulls * TAU_KNOWN))[:, None])
    starts = (decays @ above) / np.einsum("ij,ij->i", decays, decays)
    misses = above[None, :] - starts[:, None] * decays
    best = int(np.argmin(np.einsum("ij,ij->i", misses, misses) / READS_C**2 + pulls**2))
    tau = tau_s * math.exp(float(pulls[best]) * TAU_KNOWN)
    left_with = float(starts[best]) * math.exp(usable[-1].after_s / tau)
    return Cooling(start_c=ambient_c + left_with, ambient_c=ambient_c, tau_s=tau)
