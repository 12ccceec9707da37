"""The elastomer element of a jaw coupling: whether shafts close together ask for an open centre, and its speed."""

from ...say import say
from ...verdict import Judged, judge


def shaft_distance_checks(
    distance_mm: float, element_width_mm: float, element: str, speed_rpm: float, open_rpm: float | None, source: str
) -> Judged:
    """Shaft-end distance against the element's width, and the speed ceiling of an open centre.

    Shafts closer together than the element is wide need an open centre; an open centre has a
    speed limit of its own. Source: geometry, and the maker's speed limit.
    """
    checks, advice = [], []
    closer = distance_mm < element_width_mm
    if closer and element == "solid centre":
        text = "The shafts stand closer than the element is wide: a solid centre would touch them. Use an open one."
        advice.append(say("solid_centre_touches", text))
        checks.append(judge("room", "room for a solid element", distance_mm, "mm", low=element_width_mm, source=source))
    if element == "open centre" and open_rpm is not None:
        checks.append(judge("open_centre_speed", "speed, open centre", speed_rpm, "rpm", high=open_rpm, source=source))
    return checks, advice


def opening_clearance_mm(opening_mm: float, shaft_mm: float, key_stands_out_mm: float) -> float:
    """Room round shaft and key inside the element's opening, on the radius. Source: geometry.

    >>> opening_clearance_mm(60, 48, 4)
    2.0
    """
    return opening_mm / 2 - (shaft_mm / 2 + key_stands_out_mm)
