"""A hot hub on a cold shaft: how many seconds there are to push it home before it grips."""

import math
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

from ...metals import Metal
from ...model import Model

AIR_W_M_K = 0.030  # heat conductivity of warm air
CLOSEST_M = 5e-6  # surfaces touch on their roughness: the air between them is never thinner
TO_K = 0.5
MEETING_POINTS = 20
LONGEST_S = 200_000.0
FACTOR_OF_TWO = "physical model, ± a factor of two"


@dataclass(frozen=True, kw_only=True)
class Seat:
    """Hub and shaft where they meet; lengths in mm, both measured at ``shaft_c``."""

    bore_mm: float
    interference_mm: float
    outside_mm: float
    length_mm: float
    hub: Metal
    shaft: Metal
    shaft_c: float
    ambient_c: float
    film_w_m2_k: float


class Met(Model):
    """Hub and shaft so long after they touched."""

    after_s: float
    hub_c: float
    shaft_c: float


@dataclass(frozen=True, kw_only=True)
class Grips:
    """Seconds from touching the shaft to grip: pressed to one side all along, and centred. None where it never grips."""

    least: float | None
    most: float | None


def grips(seat: Seat, hub_c: float) -> Grips:
    """How long a hub of ``hub_c`` stays free on the shaft.

    Source: two lumps that exchange heat through the air between them, the hub losing to the room as well. Centred the air
    is even all round (most); lying on the shaft along a line it is an eccentric ring, whose heat flow is greater by
    1/√(1 − e²) (least). Within a factor of two.
    """
    return Grips(least=_grips_s(seat, hub_c, lies_on=True), most=_grips_s(seat, hub_c, lies_on=False))


def coldest_that_leaves(seat: Seat, wanted_s: float, from_c: float, to_c: float) -> float | None:
    """The coldest hub, to `TO_K`, that leaves so many seconds at least; None where one of ``to_c`` does not."""

    def leaves(hub_c: float) -> bool:
        least = _grips_s(seat, hub_c, lies_on=True)
        return least is None or least >= wanted_s

    if not leaves(to_c):
        return None
    low, high = from_c, to_c
    while high - low > TO_K:
        middle = (low + high) / 2
        low, high = (low, middle) if leaves(middle) else (middle, high)
    return high


def _solve(*args: Any, **given: Any) -> Any:
    """scipy's integrator, loaded when it is first wanted."""
    from scipy.integrate import solve_ivp  # type: ignore[import-untyped]

    return solve_ivp(*args, **given)


@lru_cache(maxsize=4096)  # a run is worked out anew each time it is shown
def _grips_s(seat: Seat, hub_c: float, *, lies_on: bool) -> float | None:
    found = _meet(seat, hub_c, lies_on=lies_on, sampled=False)
    return found[-1].after_s if found else None


@lru_cache(maxsize=64)
def meeting(seat: Seat, hub_c: float) -> tuple[Met, ...]:
    """How the temperatures of hub and shaft come together until it grips, centred; empty where it never does."""
    return tuple(_meet(seat, hub_c, lies_on=False, sampled=True))


def _meet(seat: Seat, hub_c: float, *, lies_on: bool, sampled: bool) -> list[Met]:
    """The two lumps until the clearance is gone: the last point, or `MEETING_POINTS` of them. Empty where it never is."""
    bore, outside, length = seat.bore_mm / 1000, seat.outside_mm / 1000, seat.length_mm / 1000
    grip = seat.interference_mm / 1000
    alpha, shaft_alpha, start = seat.hub.expansion_per_k, seat.shaft.expansion_per_k, seat.shaft_c
    heat = math.pi / 4 * (outside**2 - bore**2) * length * seat.hub.density_kg_m3 * seat.hub.specific_heat_j_kg_k
    shaft_heat = math.pi / 4 * bore**2 * length * seat.shaft.density_kg_m3 * seat.shaft.specific_heat_j_kg_k
    to_air = seat.film_w_m2_k * (math.pi * outside * length + math.pi / 2 * (outside**2 - bore**2))
    across = AIR_W_M_K * math.pi * bore * length

    def open_m(hub: float, shaft: float) -> float:
        """Half the clearance."""
        return (bore * (1 + alpha * (hub - start)) - (bore + grip) * (1 + shaft_alpha * (shaft - start))) / 2

    def flows(_: float, at: Any) -> list[float]:
        hub, shaft = at
        gap = open_m(hub, shaft)
        flow = across * (hub - shaft) / max(gap, CLOSEST_M)
        if lies_on and gap > CLOSEST_M:
            flow /= math.sqrt(1 - (1 - CLOSEST_M / gap) ** 2)
        return [-(to_air * (hub - seat.ambient_c) + flow) / heat, flow / shaft_heat]

    def closed(_: float, at: Any) -> float:
        return open_m(at[0], at[1])

    closed.terminal = True  # type: ignore[attr-defined]
    if open_m(hub_c, start) <= 0:
        return [Met(after_s=0.0, hub_c=hub_c, shaft_c=start)]
    how = {"method": "LSODA", "events": closed, "rtol": 1e-6, "atol": 1e-6, "first_step": 1e-3, "dense_output": sampled}
    found = _solve(flows, (0.0, LONGEST_S), [hub_c, start], **how)
    if not len(found.t_events[0]):
        return []
    ends = float(found.t_events[0][0])
    if not sampled:
        hub, shaft = found.y_events[0][0]
        return [Met(after_s=ends, hub_c=float(hub), shaft_c=float(shaft))]
    times = [ends * i / MEETING_POINTS for i in range(MEETING_POINTS + 1)]
    return [Met(after_s=t, hub_c=float(found.sol(t)[0]), shaft_c=float(found.sol(t)[1])) for t in times]
