"""The coupling as it runs, measured without opening it: when it is finished, and again in service."""

from dataclasses import replace
from typing import Any

from ...card.values import source_of
from ...line import SIDES, Side
from ...meaning import Meaning, Of, When
from ...units import angle_mm_per_m
from ..circles import pulled
from ..families.facts import ClosedCheck
from ..fields import Field
from ..hints import GapHints
from ..steps import BenchForm, Fact, Happened, JobFacts, Stage, Step
from . import gap


def steps(job: JobFacts) -> list[Step]:
    """What this family is proved by once it is closed; a dial on each end where the family asks for one."""
    check = job.family.closed
    if check is None:
        return []
    dialled = [_dialled(job, check.dial_limit, side) for side in SIDES] if check.dial_limit else []
    return [_measured(job, check), *dialled]


def as_found(job: JobFacts) -> list[Step]:
    """The same readings before anything is touched."""
    return [
        replace(step, key=found_key(step.key), means=_found(step), stage=Stage.FOUND, relies=frozenset())
        for step in steps(job)
    ]


def _found(step: Step) -> tuple[Meaning, ...]:
    return tuple(replace(one, when=When.FOUND) for one in step.means)


def found_key(key: str) -> str:
    """The key of a closed check where it is read as found: couple.sleeve, found.sleeve."""
    return f"found.{key.split('.', 1)[1]}"


def looked_at(job: JobFacts) -> tuple[Field, ...]:
    """What the eye tells of a closed coupling that no reading does."""
    look = job.family.closed.look if job.family.closed else ""
    return (Field(key="flat", kind="condition", label=look, picture="disc pack"),) if look else ()


def _measured(job: JobFacts, check: ClosedCheck) -> Step:
    return Step(
        key=check.key,
        means=(Meaning(of=Of.CLOSED_GAP),),
        stage=Stage.COUPLE,
        title=check.title,
        why=check.why,
        tool=check.tool,
        needs=check.values,
        relies=_relies(job),
        may_authorise=True,
        form=_form(job, check),
        on_fail="Off in length: shift hub or machine. Off in angle: slacken the feet, back to aligning.",
    )


def _relies(job: JobFacts) -> frozenset[Happened]:
    """Where the machines and both hubs are, and how it is bolted."""
    where = {Fact.MACHINES, Fact.FEET, Fact.FIRST_HUB, Fact.SECOND_HUB}
    return frozenset({*where, *(pulled(circle) for circle in job.circles)})


def _form(job: JobFacts, check: ClosedCheck) -> BenchForm:
    """Beside what the job before left, where there was one."""
    suggest = GapHints(diameter_mm=job.line.hub(job.line.movable).diameter_mm)
    flexible = tuple(side for side in SIDES if job.line.hub(side).half == "flexible")
    ends = SIDES if check.both_ends or (check.at_flexible_halves and flexible == SIDES) else ()
    accept = _spread(job) if "sleeve_spread_mm" in check.values else _ends(job) if ends else _gap(job)
    named = {"ends": [f"{job.line.machine(side).called} end" for side in ends]} if ends else {}
    return BenchForm(bench="gap", preset={"accept": accept, **named}, compare=_as_left(job), suggest=suggest)


def _gap(job: JobFacts) -> dict[str, Any]:
    return dict(gap.gap_form(job).preset["accept"])


def _as_left(job: JobFacts) -> dict[str, Any]:
    left = job.as_left.get(Of.CLOSED_GAP, {})
    readings = {key: left[key] for key in ("readings", "other_end") if left.get(key)}
    return {"as_left": readings} if readings else {}


def _spread(job: JobFacts) -> dict[str, Any]:
    if "sleeve_spread_mm" not in job.card:
        return {}
    return {"spread": {"max_mm": job.card["sleeve_spread_mm"].value, "source": source_of(job.card, "sleeve_spread_mm")}}


def _ends(job: JobFacts) -> dict[str, Any]:
    """Each end by its band and by the angle its flexing plane may take, and the two against each other."""
    accept = gap.band(job, "end_gap_nominal_mm", "end_gap_plus_minus_mm")
    if "ends_differ_mm" in job.card:
        accept["differ"] = {"max_mm": job.card["ends_differ_mm"].value, "source": source_of(job.card, "ends_differ_mm")}
    if "angle_limit_deg" in job.card:
        limit = angle_mm_per_m(job.card["angle_limit_deg"].value)
        accept["angle"] = {"max_mm_per_m": limit, "source": source_of(job.card, "angle_limit_deg")}
    return accept


def _dialled(job: JobFacts, limit: str, side: Side) -> Step:
    name = job.line.machine(side).called
    preset: dict[str, Any] = {"kind": "face"}
    if limit in job.card:
        preset |= {"limit_mm": job.card[limit].value, "limit_source": source_of(job.card, limit)}
    return Step(
        key=f"couple.dial.{side}",
        means=(Meaning(of=Of.RUN_OUT, at=side),),
        stage=Stage.COUPLE,
        title=f"Dial the {name} end over a whole turn",
        why="Largest less smallest is the angle this element takes.",
        tool="dial gauge on the spacer, its stem on the face of the hub flange",
        caution="Turn it slowly, by hand only.",
        needs=(limit,),
        relies=_relies(job),
        may_authorise=True,
        form=BenchForm(bench="runout", preset=preset),
        on_fail="The angle at this end is out: slacken the feet, back to aligning.",
    )
