"""A hub as it truly heats and cools, and a pyrometer that reads it as well as it can."""

import math
import random
from dataclasses import dataclass

MEETS_S = 60.0  # how soon hub and shaft have met


@dataclass(frozen=True, kw_only=True)
class HotHub:
    """One lump: warms toward the heater, cools toward the air, each with its own time constant (s)."""

    ambient_c: float
    heater_c: float
    heating_tau_s: float
    cooling_tau_s: float
    shaft_c: float = 20.0
    shaft_share: float = 0.0  # heat capacity of the shaft inside the hub over the hub's

    def on_the_heater_c(self, for_s: float) -> float:
        """After so long on the heater, cold when it went on.

        >>> hub = HotHub(ambient_c=20, heater_c=220, heating_tau_s=600, cooling_tau_s=900)
        >>> hub.on_the_heater_c(0), round(hub.on_the_heater_c(600))
        (20.0, 146)
        """
        return self.heater_c - (self.heater_c - self.ambient_c) * math.exp(-for_s / self.heating_tau_s)

    def off_the_heater_c(self, left_with_c: float, for_s: float) -> float:
        """So long after it left the heater."""
        return self.ambient_c + (left_with_c - self.ambient_c) * math.exp(-for_s / self.cooling_tau_s)

    def on_the_shaft_c(self, touched_with_c: float, for_s: float) -> float:
        """So long after it touched its shaft: the two meet within minutes, then cool together, slower than the hub alone.

        >>> hub = HotHub(ambient_c=20, heater_c=220, heating_tau_s=600, cooling_tau_s=900, shaft_share=0.25)
        >>> round(hub.on_the_shaft_c(170, 0)), hub.on_the_shaft_c(170, 300) < 145, hub.on_the_shaft_c(170, 3000) > 25
        (170, True, True)
        """
        settled = (touched_with_c + self.shaft_share * self.shaft_c) / (1 + self.shaft_share)
        together = math.exp(-for_s / (self.cooling_tau_s * (1 + self.shaft_share)))
        level = self.ambient_c + (settled - self.ambient_c) * together
        return level + (touched_with_c - settled) * math.exp(-for_s / MEETS_S)


@dataclass(frozen=True, kw_only=True)
class Pyrometer:
    """Reads a temperature with scatter and to its resolution; a shiny spot reads low by ``off_c``."""

    resolution_c: float = 1.0
    scatter_c: float = 0.6
    off_c: float = 0.0

    def read_c(self, true_c: float, chance: random.Random) -> float:
        """One reading. ``chance`` comes in, so that a run can be repeated."""
        shown = true_c + self.off_c + chance.gauss(0.0, self.scatter_c)
        return round(shown / self.resolution_c) * self.resolution_c
