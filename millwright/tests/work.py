"""A job worked on by one person, in memory: what tests of the route stand on."""

import json
from collections.abc import Mapping
from datetime import UTC, datetime, timedelta
from random import Random
from typing import Any, get_args

from millwright.card.meanings import CLOCKWISE, GAP_EACH, GAP_MEAN, GAP_MM
from millwright.card.values import Source, Value
from millwright.job import new_entry as entry
from millwright.job.entry import Entry, EntryKind, Signature, SignatureKind
from millwright.job.now import RouteNow, StepState
from millwright.job.stand import NOTHING_LEFT, stand
from millwright.line import Connection, LineSpec
from millwright.model import read_json
from millwright.plan.compose import values_of_connection, values_of_family
from millwright.plan.families.facts import BACKSTOP_VALUES, Circle
from millwright.plan.families.register import FAMILIES
from millwright.plan.steps import JobFacts, Terms, form_as_shown
from millwright.rig.hand import Hand
from millwright.roles import Role
from millwright.scope import Scope, Task
from millwright.verdict import Verdict, is_unproven

from .readings import FIGURES

START = datetime(2026, 5, 12, 6, 0, tzinfo=UTC)
SECOND = "B"  # who enters what takes another person
UNTIL_COLD = timedelta(hours=8)  # of any hub


class Work:
    """A job worked on by one person, in memory."""

    def __init__(
        self,
        *,
        family: str = "jaw, curved",
        held: tuple[str, str] = ("keyed, slip fit", "keyed, slip fit"),
        scope: Scope = Scope.FIT,
        as_left: Mapping[str, Any] = NOTHING_LEFT,
        card: dict[str, float] | None = None,
        procedure: int | None = None,
        tasks: tuple[Task, ...] = (),
        **spec: Any,
    ) -> None:
        machine = {"drawn_as": "motor", "shaft_diameter_mm": 48, "foot_bolts": 4}
        feet = [{"name": f"motor {n}", "from_coupling_mm": x} for n, x in (("front", 300), ("rear", 586))]
        hub = {"diameter_mm": 105, "length_mm": 60}
        line = {
            "driver": {"name": "Motor", "feet": feet, **machine},
            "driven": {"name": "Blower", "feet": [], **machine},
            "coupling": {
                "family": family,
                "series": "Brackwater Avocet",
                "size": "rundlet",
                "driver_hub": {**hub, "connection": held[0]},
                "driven_hub": {**hub, "connection": held[1]},
            },
            "movable": "driver",
            "speed_rpm": 1480,
            **spec,
        }
        self.line = read_json(LineSpec, json.dumps(line))
        source = Source(kind="sample", document="Trial sheet")
        means = {
            "offset_limit_mm": "offset",
            "gap_nominal_mm": GAP_MEAN,
            "gap_plus_minus_mm": GAP_MM,
            "end_gap_nominal_mm": GAP_EACH,
            "end_gap_plus_minus_mm": GAP_MM,
            "motor_turns": CLOCKWISE,
            **dict.fromkeys((k for k in FIGURES if "torque" in k), "dry"),
        }
        asked = {*values_of_family(family), *(key for way in held for key in values_of_connection(way))}
        asked |= {*BACKSTOP_VALUES} if FAMILIES[family].facts.hangs else set()
        figures = {**{k: FIGURES[k.split("@")[0]] for k in asked if k.split("@")[0] in FIGURES}, **(card or {})}
        self.card = {k: Value(value=v, means=means.get(k.split("@")[0], ""), source=source) for k, v in figures.items()}
        self.scope, self.as_left = scope, as_left
        self.terms = Terms(procedure=procedure, tasks=tasks)
        self.proof_hours: float | None = None
        self.now = START
        self.entries: list[Entry] = []
        self.kept: dict[str, entry.Checked] = {}  # by entry: what it was asked, and what its bench said
        self.signatures: list[Signature] = []
        self.hand = Hand(spec={}, unit="mm", chance=Random(family))
        self._stood: tuple[object, RouteNow] | None = None

    def route(self) -> RouteNow:
        """Where it stands; worked out once for what has been entered so far."""
        so_far = (len(self.entries), len(self.signatures), self.line, dict(self.card), self.now, self.proof_hours)
        if self._stood is None or self._stood[0] != so_far:
            stands = stand(
                self.line,
                self.card,
                self.entries,
                self.signatures,
                self.scope,
                self.as_left,
                terms=self.terms,
                now=self.now,
                proof_hours=self.proof_hours,
            )
            self._stood = (so_far, stands)
        return self._stood[1]

    def state(self, key: str) -> str:
        """One step's state."""
        now = self.route().find(key)
        assert now is not None, key
        return now.state.value

    def next(self) -> str | None:
        """The key of the step that is next."""
        now = self.route().next()
        return now.step.key if now else None

    def enter(
        self,
        key: str,
        inputs: dict[str, Any],
        kind: EntryKind = EntryKind.READING,
        role: Role = Role.MILLWRIGHT,
        *,
        as_it_is: bool = True,
        by: str = "",
    ) -> Entry:
        """Checked and appended, as the server does it; what cannot be told is taken as it is."""
        now = self.route().find(key)
        second = now is not None and bool(now.step.second_to)
        by = by or (SECOND if second else "A")
        checked = entry.check(self.route(), key, kind, inputs, role, by)
        number = len(self.entries) + len(self.signatures) + 1
        made = Entry(
            id=f"e{number}",
            number=number,
            step=key,
            kind=kind,
            inputs=checked.inputs,
            verdict=Verdict(checked.result["verdict"]) if checked.result else None,
            unproven=is_unproven(checked.result) and not as_it_is,
            by=by,
            role=role,
            at=max(self.now, START + timedelta(minutes=number)),
            ledger=checked.asked.get("ledger", ()),
        )
        self.entries.append(made)
        self.kept[made.id] = checked
        return made

    def judged(self, made: Entry) -> Mapping[str, Any]:
        """What an entry that was made says, evaluated again."""
        now = self.route().find(made.step)
        assert now is not None
        return entry.evaluate(now, made.inputs)[1]

    def sign(self, key: str, kind: SignatureKind = SignatureKind.HOLD) -> None:
        """The current reading of a step, signed."""
        now = self.route().find(key)
        assert now is not None
        number = len(self.entries) + len(self.signatures) + 1
        covers = now.current.id if now.current else None
        self.signatures.append(
            Signature(
                id=f"s{number}",
                number=number,
                kind=kind,
                step=key,
                entry=covers,
                by="L",
                role=Role.LEAD,
                at=START,
                reason="why",
            )
        )

    def fill(self, key: str) -> dict[str, Any]:
        """A step's inputs as they should be: what a hand types that reads the sheet."""
        now = self.route().find(key)
        assert now is not None
        step = {"title": now.step.title, "second_to": now.step.second_to, "form": form_as_shown(now.step.form)}
        card = {key: {"value": value.value, "means": value.means} for key, value in self.card.items()}
        self.hand.spec = self.line.model_dump(mode="json")
        return self.hand.answer(step, card).inputs

    def step_on(self) -> None:
        """What is next: signed where it is to be signed, else entered as it should be."""
        now = self.route().next()
        assert now is not None
        if now.state is StepState.TO_SIGN:
            self.sign(now.step.key)
            return
        if now.step.waits_for and any(e.kind is EntryKind.EVENT and e.step == now.step.waits_for for e in self.entries):
            self.now = max(self.now, self.entries[-1].at) + UNTIL_COLD
        self.enter(now.step.key, self.fill(now.step.key))

    def until(self, last: str | None) -> None:
        """Every step that is not done, in working order, up to but without the last."""
        for _ in range(200):
            now = self.route().next()
            if now is None or now.step.key == last:
                return
            self.step_on()
        raise AssertionError("the route does not come to an end")


WEDGE = "tapered wedge"


def ways_of(family: str) -> tuple[str, ...]:
    """Every way a hub of this family may be held: a wedge holds the shaft of a conveyor and nothing else."""
    ways: tuple[str, ...] = get_args(Connection)
    return ways if family == "screw-conveyor drive" else tuple(way for way in ways if way != WEDGE)


def circles(family: str) -> list[Circle]:
    """The circles of a family as long as nobody says which kind it is."""
    facts = JobFacts(line=Work(family=family).line, family=FAMILIES[family].facts, card={})
    return list(facts.circles)
