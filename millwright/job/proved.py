"""What a job proved, in five lines: the hubs fitted, the machines aligned, the balance, the torques, the coupling closed."""

from collections.abc import Callable, Collection
from dataclasses import dataclass
from enum import StrEnum

from ..card.values import ValueCard
from ..meaning import Of, When
from ..plan.fields import Field
from ..plan.steps import BenchForm, SheetForm, Step
from ..verdict import Verdict
from .entry import Entry
from .now import RouteNow, StepNow, StepState

FITS = ("fit", "key", "taper")  # benches that say how a hub sits on its shaft
SITS = (Of.STAND_OUT, Of.DRAW_UP)
HALF_KEY = "half_key"


class Stands(StrEnum):
    """What stands behind a line, the worst first."""

    NOT_READ = "not read"
    AGAIN = "to be read again"
    OVER = "out of tolerance"
    ACCEPTED = "out of tolerance, accepted"
    AS_IT_IS = "taken as it is"
    NOT_JUDGED = "read, not all of it judged"
    PROVEN = "proven"


@dataclass(frozen=True, kw_only=True)
class Proof:
    """One line: ``of`` - the titles of the steps because of which it is not proven; none where it is."""

    what: str
    stands: Stands
    of: tuple[str, ...] = ()


def _sits(step: Step) -> bool:
    """It says how a hub fits its shaft, where it sits or how true it runs: read on the bench, or on its sheet."""
    reads = isinstance(step.form, BenchForm) and step.form.bench in FITS
    asked = [field.means for field in _fields(step) if field.means]
    means = [one for one in (*step.means, *asked) if one.when is When.LEFT]
    return reads or any(one.of in SITS or (one.of is Of.RUN_OUT and one.at) for one in means)


def _fields(step: Step) -> tuple[Field, ...]:
    return step.form.fields if isinstance(step.form, SheetForm) else ()


def _is_of(*wanted: Of) -> Callable[[Step], bool]:
    return lambda step: any(one.of in wanted and one.when is When.LEFT for one in step.means)


def _balances(step: Step) -> bool:
    return any(field.kind == "marks" or field.key == HALF_KEY for field in _fields(step))


LINES: tuple[tuple[str, Callable[[Step], bool]], ...] = (
    ("Hubs fitted", _sits),
    ("Aligned", _is_of(Of.ALIGNMENT)),
    ("Balance: marks in line, half keys", _balances),
    ("Torqued, and checked again", _is_of(Of.PULL, Of.CHECKED_AGAIN)),
    ("Closed coupling measured", _is_of(Of.CLOSED_GAP)),
)


def proofs(route: RouteNow, taken: Collection[str]) -> list[Proof]:
    """A line for each of what this job had to do. ``taken`` - the entries that were taken as they are, untold"""
    found = []
    for what, belongs in LINES:
        steps = [now for now in route.steps if belongs(now.step) and not now.step.finding]
        asked = [(_stands(now, taken, route.card), now.step.title) for now in steps if now.current or not now.step.optional]
        if asked:
            order = list(Stands)
            worst = min((stands for stands, _ in asked), key=order.index)
            because = () if worst is Stands.PROVEN else tuple(title for stands, title in asked if stands is worst)
            found.append(Proof(what=what, stands=worst, of=because))
    return found


def _stands(now: StepNow, taken: Collection[str], card: ValueCard) -> Stands:
    current = now.current
    if current is None:
        return Stands.NOT_READ
    if now.state is StepState.STALE:
        return Stands.AGAIN
    if current.verdict is Verdict.OVER:
        return Stands.ACCEPTED if now.authorised else Stands.OVER
    if current.verdict is Verdict.INCOMPLETE or current.unproven:
        return Stands.NOT_READ
    if current.id in taken:
        return Stands.AS_IT_IS
    none_given = any(key in card and card[key].none_because for key in now.step.needs)
    return Stands.NOT_JUDGED if none_given or _has_no_limit(now.step, current) else Stands.PROVEN


def _has_no_limit(step: Step, current: Entry) -> bool:
    """Bolts that are pulled by turns and clicks are proved by those, a sheet by its ticks."""
    return isinstance(step.form, BenchForm) and step.form.bench != "tighten" and current.verdict is Verdict.NOT_JUDGED
