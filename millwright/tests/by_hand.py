"""A job in memory, done by a hand that reads what its steps show."""

from collections.abc import Iterator
from dataclasses import asdict
from random import Random
from typing import Any, get_args

from millwright.job.now import StepNow
from millwright.plan.compose import scopes_of
from millwright.plan.families.register import FAMILIES
from millwright.plan.steps import BenchForm, SheetForm, SignForm
from millwright.plan.upkeep import tasks_of
from millwright.rig.hand import Hand
from millwright.scope import Scope
from millwright.units import LengthUnit

from .work import Work, ways_of

UNITS: tuple[LengthUnit, ...] = get_args(LengthUnit)


class ByHand(Work):
    """A job worked on by what is shown of it."""

    def __init__(self, *, unit: LengthUnit, **work: Any) -> None:
        super().__init__(**work)
        self.hand = Hand(spec=self.line.model_dump(mode="json"), unit=unit, chance=Random(work.get("family")))

    def fill(self, key: str) -> dict[str, Any]:
        """What the hand types there."""
        route = self.route()
        now = route.find(key)
        assert now is not None
        card = {line: {"value": value.value, "means": value.means} for line, value in route.card.items()}
        return self.hand.answer(shown(now), card).inputs


def shown(now: StepNow) -> dict[str, Any]:
    """A step as a sheet shows it."""
    match now.step.form:
        case BenchForm() as form:
            hints = form.suggest.model_dump(mode="json", exclude_none=True)
            as_shown = {
                "kind": "bench",
                "bench": form.bench,
                "preset": form.preset,
                "compare": form.compare,
                "suggest": hints,
            }
        case SheetForm() | SignForm() as form:
            as_shown = asdict(form)
    return {"key": now.step.key, "title": now.step.title, "second_to": now.step.second_to, "form": as_shown}


def every_job(family: str) -> Iterator[tuple[str, ByHand]]:
    """Every scope of a family, with both hubs held in every way, typed in mm and in inches."""
    for way in ways_of(family):
        line = Work(family=family, held=(way, way)).line
        for scope in scopes_of(line):
            for unit in UNITS:
                tasks = tasks_of(line) if scope is Scope.UPKEEP else ()
                job = ByHand(unit=unit, family=family, held=(way, way), scope=scope, tasks=tasks)
                yield f"{family}, {way}, {scope.value}, {unit}", job


def main() -> int:
    """Every job there can be. How many came to their end; those that did not are named."""
    done, stuck = 0, []
    for family in FAMILIES:
        for name, job in every_job(family):
            try:
                job.until(None)
                assert job.route().closed
                done += 1
            except Exception as fault:
                stuck.append(f"{name}: at {job.next()}: {fault}")
        print(f"{family}: {done} jobs to their signed record, {len(stuck)} stuck", flush=True)
    print(*stuck, sep="\n")
    return int(bool(stuck))


if __name__ == "__main__":
    raise SystemExit(main())
