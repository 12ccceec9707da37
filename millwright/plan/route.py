"""A composed route: its steps in working order, and what follows from them alone."""

from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property

from ..card.values import value_kind
from .fields import Field
from .sheet import why_key
from .steps import SheetForm, Step

FEWEST_TO_CHOOSE_FROM = 2


class Miscomposed(Exception):
    """What a route says of itself cannot be: whoever wrote a step has a slip in it."""


@dataclass(frozen=True, kw_only=True)
class Route:
    """The steps of a job in working order."""

    steps: tuple[Step, ...]

    @cached_property
    def titles(self) -> dict[str, str]:
        """By key, what a step is called."""
        return {step.key: step.title for step in self.steps}

    @cached_property
    def laid_for(self) -> dict[str, tuple[str, ...]]:
        """By step, those that laid what has to be open still when it is done."""
        found: dict[str, tuple[str, ...]] = {}
        for step in self.steps:
            if step.open_time is not None:
                used_by = step.open_time.used_by
                found[used_by] = (*found.get(used_by, ()), step.key)
        return found

    @cached_property
    def closed_after(self) -> dict[str, frozenset[str]]:
        """By step that counts out, the lines of the ledger that a later step closes."""
        found, lines = {}, frozenset[str]()
        for step in reversed(self.steps):
            if step.counts_out:
                found[step.key] = lines
            lines |= {field.ledger.line for field in _fields(step) if field.ledger and field.ledger.counted == "back"}
        return found


def checked(route: Route, *, from_its_start: bool = False) -> Route:
    """The same route; `Miscomposed` where two of its steps share a key, or it names a step, a line of the card or a row that
    is not there.

    ``from_its_start`` - nothing was answered yet: what it counts back, it also counts out. Later an answer may have taken
    that step out of it, and what went out is counted back all the same.
    """
    if faults := [*_faults(route), *(_counted_back_alone(route) if from_its_start else ())]:
        raise Miscomposed("; ".join(faults))
    return route


def _faults(route: Route) -> Iterator[str]:
    counted = Counter([step.key for step in route.steps])
    if len(counted) < len(route.steps):
        yield from (f"{key} is there {times} times" for key, times in counted.items() if times > 1)
    before: set[str] = set()
    for step in route.steps:
        earlier = (*step.after, *step.passed, *step.once, step.heat_plan, step.second_to, step.waits_for)
        named = (step.settled_by, step.readied_by, step.run, step.open_time.used_by if step.open_time else "")
        for key in earlier:
            if key and key not in before:
                yield f"{step.key} comes after {key}, which is not before it"
        for key in named:
            if key and key not in counted:
                yield f"{step.key} names {key}, which is not there"
        for line in (*step.needs, *step.judged_by):
            if value_kind(line) is None:
                yield f"{step.key} goes by {line}, which no card has"
        if isinstance(step.form, SheetForm):
            yield from _faults_of_sheet(step, step.form.fields)
        before.add(step.key)


def _faults_of_sheet(step: Step, fields: Sequence[Field]) -> Iterator[str]:
    names = [field.key for field in fields]
    names += [why_key(field) for field in fields if field.none_of]
    if len(set(names)) < len(names):
        yield from (f"{step.key} asks {name} {times} times" for name, times in Counter(names).items() if times > 1)
    for field in fields:
        if field.beside and field.beside not in names:
            yield f"{step.key} counts {field.key} beside {field.beside}, which is not there"
        if field.kind in ("choice", "marks") and len(field.options) < FEWEST_TO_CHOOSE_FROM:
            yield f"{step.key} asks {field.key}, and there is nothing to choose"
    for holding in step.holds:
        if holding.asked and holding.asked not in names:
            yield f"{step.key} is held by {holding.asked}, which it does not ask"
    if step.open_time is not None and step.open_time.asked not in names:
        yield f"{step.key} is open for {step.open_time.asked}, which it does not ask"


def _counted_back_alone(route: Route) -> Iterator[str]:
    opened: set[str] = set()
    for step in route.steps:
        counted = [field.ledger for field in _fields(step) if field.ledger]
        opened.update(line.line for line in counted if line.counted == "out")
        alone = [line.line for line in counted if line.line not in opened]
        yield from (f"{step.key} counts back {line}, which nothing counted out" for line in alone)


def _fields(step: Step) -> tuple[Field, ...]:
    return step.form.fields if isinstance(step.form, SheetForm) else ()
