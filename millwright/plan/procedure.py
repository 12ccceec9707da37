"""The order a family is assembled in, as data, and the compiler that makes steps of it.

A procedure is written as it is done, top to bottom: stops with rows, pulls of one circle of bolts, benches, the proof on
the closed coupling. What comes after what is nowhere else.
"""

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field, fields
from typing import Any

from ..bolt_order import HALF_TURNS
from ..card.meanings import DRY
from ..card.values import source_of
from ..line import SIDES, Side
from ..meaning import Meaning, Of
from ..say import Figure, mm
from . import torques
from .circles import CIRCLES_BY, by_turns, circle_preset, goes_with, line_of, pulled
from .families.facts import COUNT, ORDER, PASSES, TORQUE
from .fields import Field
from .order import InOrder, Part, in_order
from .stages import before_setting, closed_coupling, receive
from .steps import BenchForm, Draw, Fact, Happened, Instruction, JobFacts, SheetForm, Stage, Step

PREFIX = {
    Stage.RECEIVE: "receive",
    Stage.FOUND: "found",
    Stage.TAKE_OFF: "off",
    Stage.PREPARE: "prepare",
    Stage.MOUNT: "mount",
    Stage.SET: "set",
    Stage.COUPLE: "couple",
    Stage.BACKSTOP: "backstop",
    Stage.KEEP: "keep",
}
HUBS_AT: Mapping[str, tuple[Side, ...]] = {
    "driver end": SIDES[:1],
    "driven end": SIDES[1:],
    "away from the hubs": (),
}
MOVED = frozenset({Fact.MACHINES, Fact.FIRST_HUB, Fact.SECOND_HUB})
Row = Field | Callable[[JobFacts], Field | None]
When = Callable[[JobFacts], bool]


def always(job: JobFacts) -> bool:
    """On every job."""
    return True


@dataclass(frozen=True, kw_only=True)
class Stop(Instruction):
    """One stop of the work: what is done there, row by row, before anything after it may be begun.

    ``title`` and the other words may name {driver}, {driven}, {first}, {second}: the machines as they are called.
    ``shuts`` - it has to be undone before anything behind it can be read: after a move it is done again
    """

    key: str
    rows: tuple[Row, ...]
    ordered: bool = False
    shuts: bool = False
    when: When = always


@dataclass(frozen=True, kw_only=True)
class Pull:
    """The torque of one circle. ``shuts`` as of a stop; ``relies`` - what makes it stale besides."""

    circle: str
    shuts: bool = False
    relies: frozenset[Happened] = frozenset()
    on_fail: str = "Slacken the bolt that is off and pull it again in its turn."
    when: When = always


@dataclass(frozen=True, kw_only=True)
class Bench:
    """Readings judged by a bench."""

    key: str
    title: str
    why: str
    form: Callable[[JobFacts], BenchForm]
    means: tuple[Meaning, ...] = ()
    needs: Callable[[JobFacts], tuple[str, ...]] = lambda job: ()
    judged_by: tuple[str, ...] = ()
    tool: str = ""
    caution: str = ""
    on_fail: Callable[[JobFacts], str] = lambda job: ""
    relies: frozenset[Happened] = frozenset()
    sketch: Draw | None = None
    may_authorise: bool = True
    when: When = always


@dataclass(frozen=True, kw_only=True)
class LightScrew:
    """The set screw of the hub that was left light to slide: torqued at this place of the work."""


@dataclass(frozen=True, kw_only=True)
class Proof:
    """What the family is proved by on the closed coupling."""


Item = Stop | Pull | Bench | LightScrew | Proof | Callable[[JobFacts], Part]


@dataclass(frozen=True, kw_only=True)
class Procedure:
    """How a family is put together and taken apart. A job goes by the version it was started under.

    ``unpack``         - before the crate is opened: what is read, or decided, before anything is counted
    ``receive``        - beside the kit and the tools
    ``found``          - read before a coupling that ran is opened
    ``before_setting`` - after the hubs, what cannot go in any more once the machines stand close
    ``setting``        - how the machine is brought near, in place of the usual way; the machines are set after it
    ``couple_up``      - once the machines stand, are bolted down and read; where it hangs on its shaft, after its hub
    ``undo``           - to part the two shafts
    ``hubs_off``       - once the hubs are off their shafts
    """

    version: int = 1
    unpack: tuple[Item, ...] = ()
    receive: tuple[Item, ...] = ()
    found: tuple[Item, ...] = ()
    prepare: tuple[Item, ...] = (before_setting.shaft_ends,)
    before_setting: tuple[Item, ...] = ()
    setting: tuple[Item, ...] = ()
    couple_up: tuple[Item, ...]
    undo: tuple[Item, ...]
    hubs_off: tuple[Item, ...] = ()


@dataclass(frozen=True)
class Compiler:
    """Makes steps of a procedure's items for one job.

    ``light_screw`` - how the second hub's set screw is torqued; nothing where it was not left light
    """

    job: JobFacts
    light_screw: Callable[[JobFacts], list[Step]] = field(default=lambda job: [])

    def compile(self, items: Iterable[Item], stage: Stage) -> InOrder:
        """The items one after the other."""
        return in_order(*(part for item in items for part in self._parts(item, stage)))

    def _parts(self, item: Item, stage: Stage) -> list[Part]:
        match item:
            case LightScrew():
                return [*self.light_screw(self.job)]
            case Proof():
                return [*closed_coupling.steps(self.job)]
            case Stop() if item.when(self.job):
                return [_stop(self.job, item, stage)]
            case Pull() if item.when(self.job) and _is_pulled_here(self.job, item):
                return [_pull(self.job, item, stage)]
            case Bench() if item.when(self.job):
                return [_bench(self.job, item, stage)]
            case Stop() | Pull() | Bench():
                return []
            case _:
                return [item(self.job)]


def _stop(job: JobFacts, stop: Stop, stage: Stage) -> Step:
    rows = [row if isinstance(row, Field) else row(job) for row in stop.rows]
    said: dict[str, Any] = {one.name: getattr(stop, one.name) for one in fields(Instruction)}
    said["relies"] = stop.relies | (MOVED if stop.shuts else frozenset())
    return Step(
        **{**said, **{words: _named(job, said[words]) for words in ("title", "why", "caution", "on_fail")}},
        key=f"{PREFIX[stage]}.{stop.key}",
        stage=stage,
        form=SheetForm(fields=tuple(row for row in rows if row is not None), ordered=stop.ordered),
    )


def _bench(job: JobFacts, bench: Bench, stage: Stage) -> Step:
    return Step(
        key=f"{PREFIX[stage]}.{bench.key}",
        stage=stage,
        title=_named(job, bench.title),
        why=_named(job, bench.why),
        tool=bench.tool,
        caution=bench.caution,
        on_fail=bench.on_fail(job),
        means=bench.means,
        sketch=bench.sketch,
        needs=bench.needs(job),
        judged_by=bench.judged_by,
        relies=bench.relies,
        may_authorise=bench.may_authorise,
        form=bench.form(job),
    )


def _is_pulled_here(job: JobFacts, pull: Pull) -> bool:
    """This coupling has the circle, and it is not pulled by turns in the step of another."""
    circle = job.family.circle(pull.circle)
    return circle in job.circles and not goes_with(job, circle)


def _pull(job: JobFacts, pull: Pull, stage: Stage) -> Step:
    circle = job.family.circle(pull.circle)
    other = by_turns(job, circle)
    both = (circle,) if other is None else (circle, other)
    torque = line_of(job, circle, TORQUE)
    held = f", second spanner on the {circle.held}" if circle.held else ""
    dry = torque in job.card and job.card[torque].means == DRY
    oil = f"Thin oil {circle.oil}." if circle.oil and not dry else ""
    if circle.oil and dry:
        oil = f"This circle is oiled, {circle.oil}, and the card says dry: ask which its torque is for first."
    hubs = HUBS_AT.get(circle.at if other is None else "", SIDES)
    preset = circle_preset(job, circle)
    rounds = preset.get("passes") == HALF_TURNS
    why = (
        "Half a turn each, across, round after round: pulled down on one side, it creeps out on the other." if rounds else ""
    )
    return Step(
        key=f"{PREFIX[stage]}.{circle.key}",
        stage=stage,
        title=f"Torque the {circle.title}"
        if other is None
        else f"Torque the {circle.title}, and the {other.title}, by turns",
        why=why or "In their order and in rising passes, so that it closes evenly.",
        tool=f"torque wrench in calibration{held}",
        caution=" ".join(filter(None, [torques.thread_words(job, torque), oil, "All in and hand tight first."])),
        needs=tuple(dict.fromkeys(line_of(job, one, key) for one in both for key in (COUNT, TORQUE))),
        judged_by=(
            *dict.fromkeys(line_of(job, one, key) for one in both for key in (ORDER, PASSES)),
            *([CIRCLES_BY] if circle.by_turns_with else []),
        ),
        relies=frozenset(
            {
                *(torques.moved(one.key) for one in both),
                *(job.hub_fact(side) for side in hubs),
                *pull.relies,
                *(MOVED if pull.shuts else ()),
            }
        ),
        changes=frozenset({Fact.FASTENERS, *(pulled(one) for one in both)}),
        may_authorise=True,
        form=BenchForm(bench="tighten", preset=preset),
        means=tuple(Meaning(of=Of.PULL, at=one.key) for one in both),
        on_fail=pull.on_fail,
    )


def expected(key: str, label: str, circle: str, detail: str = "") -> Callable[[JobFacts], Field]:
    """A count that must be the card's count of a circle."""

    def row(job: JobFacts) -> Field:
        line = line_of(job, job.family.circle(circle), COUNT)
        known = line in job.card
        return Field(
            key=key,
            kind="count",
            label=label,
            detail=detail,
            expected=round(job.card[line].value) if known else None,
            expected_of=source_of(job.card, line) if known else "",
        )

    return row


def in_kit(key: str, label: str, part: str, detail: str = "") -> Callable[[JobFacts], Field]:
    """A count that must be as many as were counted when the kit came."""

    def row(job: JobFacts) -> Field:
        came = job.answers.get(receive.KIT, {}).get(receive.counted_key(part))
        expected = came if isinstance(came, int) else None
        return Field(key=key, kind="count", label=label, detail=detail, expected=expected, expected_of="counted when it came")

    return row


def answered(step: str, key: str, *options: str) -> When:
    """Where that was answered so."""
    return lambda job: job.answers.get(step, {}).get(key) in options


def figure(job: JobFacts, key: str) -> Figure | None:
    """A length of the card, to be written at a sketch; None where the card has none."""
    if key not in job.card:
        return None
    value = job.card[key].value
    return mm(value, 1 if round(value, 1) == value else 2)


def bolts_of(job: JobFacts, circle: str) -> int | None:
    """How many bolts a circle has, by the card."""
    line = line_of(job, job.family.circle(circle), COUNT)
    return round(job.card[line].value) if line in job.card else None


def _named(job: JobFacts, words: str) -> str:
    """The machines by name."""
    if "{" not in words:
        return words
    called = {side: job.line.machine(side).called for side in SIDES}
    return words.format(**called, first=called[job.first()], second=called[job.second()])
