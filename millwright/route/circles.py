"""Circles of fasteners: the lines of the card each goes by, what its bench is given, what is said when it is pulled."""

from ..bolting.order import Pattern
from ..card.meanings import PASSES_OF, PATTERN_OF
from . import torques
from .families.facts import COUNT, ORDER, PASSES, TORQUE, Circle
from .fields import Field
from .steps import Happened, JobFacts


def line_of(job: JobFacts, circle: Circle, key: str) -> str:
    """The line of the card a circle goes by: its own, or the one it shares with the others."""
    own = circle.line(key)
    return own if circle.own or own in job.card else key


def circle_preset(job: JobFacts, circle: Circle) -> dict[str, object]:
    """What the tighten bench is given for a circle: order and passes of the card where it has them; empty without a count."""
    count, order, passes = (line_of(job, circle, key) for key in (COUNT, ORDER, PASSES))
    if count not in job.card:
        return {}
    pattern: Pattern = PATTERN_OF[job.card[order].means] if order in job.card else circle.order
    shares = PASSES_OF[job.card[passes].means] if passes in job.card else circle.passes
    bolts = round(job.card[count].value)
    return torques.bolts_preset(job, line_of(job, circle, TORQUE), bolts, passes=shares, pattern=pattern)


def checked_again(job: JobFacts) -> tuple[Field, ...]:
    """The second pull of every circle, a line each."""
    return tuple(
        torques.checked_again(job, circle.key, circle.title, line_of(job, circle, TORQUE), count=line_of(job, circle, COUNT))
        for circle in job.family.circles
    )


def pulled(circle: Circle) -> Happened:
    """What makes stale whatever was read on a circle's flanges."""
    return f"the {circle.title} were pulled again"
