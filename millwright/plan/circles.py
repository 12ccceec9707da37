"""Circles of fasteners: the lines of the card each goes by, what its bench is given, what is said when it is pulled."""

from collections.abc import Iterable
from typing import Any

from ..bolt_order import HALF_TURNS, Pattern
from ..card.meanings import BY_TURNS, PASSES_OF, PATTERN_OF, Passes
from ..card.values import source_of
from . import torques
from .families.facts import COUNT, ORDER, PASSES, TORQUE, Circle
from .fields import Field
from .steps import Happened, JobFacts

CIRCLES_BY = "circles_by"


def line_of(job: JobFacts, circle: Circle, key: str) -> str:
    """The line of the card a circle goes by: its own, or the one it shares with the others."""
    own = circle.line(key)
    return own if circle.own or own in job.card else key


def circle_preset(job: JobFacts, circle: Circle) -> dict[str, Any]:
    """What the tighten bench is given for a circle: order and passes of the card where it has them; empty without a count."""
    count, order = (line_of(job, circle, key) for key in (COUNT, ORDER))
    if count not in job.card:
        return {}
    pattern: Pattern = PATTERN_OF[job.card[order].means] if order in job.card else circle.order
    bolts = round(job.card[count].value)
    passes = _passes_of(job, circle)
    preset = torques.bolts_preset(job, line_of(job, circle, TORQUE), bolts, passes=passes, pattern=pattern)
    other = by_turns(job, circle)
    if not preset or other is None:
        return preset
    torque, second = line_of(job, other, TORQUE), line_of(job, other, COUNT)
    if torque not in job.card or second not in job.card:
        return {}
    beside = {"bolts": round(job.card[second].value), "torque_nm": job.card[torque].value, "title": other.title}
    return {**preset, "title": circle.title, "beside": {**beside, "torque_source": source_of(job.card, torque)}}


def _passes_of(job: JobFacts, circle: Circle) -> Passes:
    line = line_of(job, circle, PASSES)
    return PASSES_OF[job.card[line].means] if line in job.card else circle.passes


def by_turns(job: JobFacts, circle: Circle) -> Circle | None:
    """The circle that is pulled by turns with this one, unless the card has them one after the other."""
    if not circle.by_turns_with or _passes_of(job, circle) != HALF_TURNS:
        return None
    stands = job.card.get(CIRCLES_BY)
    return job.family.circle(circle.by_turns_with) if stands is None or stands.means == BY_TURNS else None


def goes_with(job: JobFacts, circle: Circle) -> bool:
    """It is pulled in the step of the circle it takes turns with."""
    return any(by_turns(job, other) == circle for other in job.circles)


def checked_again(job: JobFacts, circles: Iterable[Circle]) -> tuple[Field, ...]:
    """The second pull, a line for each circle."""
    return tuple(
        torques.checked_again(job, circle.key, circle.title, line_of(job, circle, TORQUE), count=line_of(job, circle, COUNT))
        for circle in circles
    )


def pulled(circle: Circle) -> Happened:
    """What makes stale whatever was read on a circle's flanges."""
    return Happened(f"pulled: {circle.key}", f"the {circle.title} were pulled again")
