"""What may be entered, and what it says: the one place where an entry is checked before it is appended."""

import json
from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any, Literal

from pydantic import Field

from ..benches.register import as_dict, evaluate_json
from ..card.values import Value, as_today, pair_problems, stands_on, value_problems
from ..errors import Problem, UnusableInput, refuse_if_any
from ..figures_in_words import COMPARED
from ..model import Model, Name, PlainText, Reading, read_json
from ..plan import sheet
from ..plan.fields import Goes, Way
from ..plan.hubs.phases import NEXT, HeatEvent, Phase, after_event
from ..plan.locks import FIRST_LOCK_OUT_AGAIN
from ..plan.steps import BenchForm, SheetForm
from ..roles import Deed, Role
from .asked import asked_of, headed
from .entry import EntryKind
from .now import Block, RouteNow, StepNow


class FootMoved(Model):
    """How far a foot was moved, and how far it was to be: + shim added, + slide toward 3 o'clock."""

    name: Name = Field(min_length=1, max_length=60)
    shim_mm: Reading = 0.0
    shim_planned_mm: Reading | None = None
    slide_mm: Reading = 0.0
    slide_planned_mm: Reading | None = None


class Move(Model):
    """A move of the machine as it was made."""

    feet: list[FootMoved] = Field(default_factory=list, max_length=16)
    axial_mm: Reading = Field(default=0.0, description="+ away from the coupling")
    note: PlainText = Field(default="", max_length=400)


class Written(Model):
    """A note."""

    text: PlainText = Field(min_length=1, max_length=2000)


class Question(Written):
    """A question to the lead; with `accept`, the reading that is out of tolerance, a request to accept it."""

    accept: str | None = None


class Answer(Written):
    """The lead's answer to a question."""

    question: str


class CardValue(Model):
    """A figure put on the value card; one that stands is changed with a reason. `was`: what stood there, never as sent."""

    key: str
    value: Value
    reason: PlainText = Field(default="", max_length=400)
    was: Value | None = None


class LedgerCount(Model):
    """Something counted out or back. `goes`: a temporary part comes out again, a removed one goes back."""

    line: Name = Field(min_length=1, max_length=60)
    what: Name = Field(min_length=1, max_length=120)
    goes: Goes
    counted: Way
    count: int = Field(ge=1, le=200)


class Slip(Model):
    """The last reading or move was a slip."""

    entry: str
    text: PlainText = Field(default="", max_length=400, description="what went wrong")


class HandOver(Model):
    """A break, or somebody goes and somebody comes: the dead state is proved again before hands go in.

    ``covered`` - what stands open meanwhile (`RouteNow.opening`) is covered
    """

    what: Literal["break", "hand-over"]
    covered: bool = False
    goes: Name = Field(default="", max_length=120)
    comes: Name = Field(default="", max_length=120)
    text: PlainText = Field(default="", max_length=400)


class Photograph(Model):
    """A picture of what words do not prove. It is known by the SHA-256 of its bytes, which are kept beside the entry."""

    caption: PlainText = Field(default="", max_length=200)
    sha256: str = Field(pattern="^[0-9a-f]{64}$")
    width: int = Field(ge=1, le=10_000)
    height: int = Field(ge=1, le=10_000)


class OutOfTurn(Exception):
    """This cannot be entered now; the message says what comes first."""


@dataclass(frozen=True, kw_only=True)
class Checked:
    """An entry ready to be appended: its inputs in full, and what they say where they say something."""

    inputs: Mapping[str, Any]
    result: Mapping[str, Any] | None
    asked: Mapping[str, Any]


WORDS: dict[EntryKind, type[Model]] = {
    EntryKind.NOTE: Written,
    EntryKind.QUESTION: Question,
    EntryKind.ANSWER: Answer,
    EntryKind.VALUE: CardValue,
    EntryKind.LEDGER: LedgerCount,
    EntryKind.MOVE: Move,
    EntryKind.EVENT: HeatEvent,
    EntryKind.HAND_OVER: HandOver,
    EntryKind.PHOTOGRAPH: Photograph,
    EntryKind.SLIP: Slip,
}


# What a reading is judged by: in a job the card gives it, through the step's preset, or nobody does.
LIMITS = frozenset(
    {
        "limit",
        "limit_mm",
        "limit_source",
        "limit_angle_deg",
        "spread_max_mm",
        "spread_source",
        "differ_max_mm",
        "differ_source",
        "least_mm",
        "least_source",
        "limits",
        "running_target",
        "mismatch_max_mm",
        "mismatch_source",
        "contact_min",
        "contact_source",
        "accept",
        "band_share",
    }
)


def check(route: RouteNow, step_key: str, kind: EntryKind, inputs: Mapping[str, Any], role: Role, by: str = "") -> Checked:
    """Check an entry against the route and evaluate it. ``by`` - the name of whoever enters it.

    Raises `OutOfTurn` where the step is blocked or the person may not, `UnusableInput` for a bad input.
    """
    now = route.find(step_key)
    if kind is EntryKind.READING:
        return _reading(route, step_key, inputs, by)
    given = read_json(WORDS[kind], json.dumps(inputs))
    match given:
        case Move():
            _refuse_move(now, given)
        case HeatEvent():
            _refuse_event(route, now, given)
        case HandOver():
            _refuse_hand_over(route, given)
        case Question():
            _refuse_question(now, given)
        case Slip():
            _refuse_slip(route, now, given, role, by)
        case Answer():
            _refuse_answer(route, given, role)
        case CardValue():
            [(key, value)] = as_today({given.key: given.value}).items()
            given = given.model_copy(update={"key": key, "value": value})
            _refuse_value(route, given)
            given = given.model_copy(update={"was": _changed(route, given, role)})
        case LedgerCount():
            _refuse_count(route, given)
    return Checked(inputs=given.model_dump(mode="json"), result=None, asked=headed(now.step) if now else {})


def read_words(kind: EntryKind, inputs: Mapping[str, Any]) -> Mapping[str, Any]:
    """What is no reading, in full, whatever the route says to it. Raises `UnusableInput`."""
    return read_json(WORDS[kind], json.dumps(inputs)).model_dump(mode="json")


def evaluate(now: StepNow, inputs: Mapping[str, Any]) -> tuple[Mapping[str, Any], Mapping[str, Any]]:
    """What a step's readings say, with the inputs in full: the step's own presets are laid over what was sent, and what
    it is compared with comes from the route alone."""
    form = now.step.form
    match form:
        case BenchForm():
            typed = _as_read({key: value for key, value in inputs.items() if key not in COMPARED})
            full = {**typed, **form.preset, **form.compare}
            if form.bench == "tighten":
                full.setdefault("pulls", [])
            return full, as_dict(evaluate_json(form.bench, json.dumps(full)))
        case SheetForm():
            return dict(inputs), as_dict(sheet.evaluate(now.step, form, inputs, now.job))
        case _:
            raise UnusableInput(Problem("step", "This step takes a signature, not a reading."))


def _as_read(inputs: Mapping[str, Any]) -> dict[str, Any]:
    """Without the limits somebody sent along, of the reading and of a second one beside it."""
    kept = {key: value for key, value in inputs.items() if key not in LIMITS}
    return {key: _as_read(value) if isinstance(value, Mapping) else value for key, value in kept.items()}


def _reading(route: RouteNow, step_key: str, inputs: Mapping[str, Any], by: str) -> Checked:
    now = route.find(step_key)
    if now is None:
        raise UnusableInput(Problem("step", f"This route has no step {step_key}."))
    refuse_the_same_person(route, now, by)
    if now.blocked_by:
        raise OutOfTurn(" ".join(now.blocked_by))
    full, result = evaluate(now, inputs)
    return Checked(inputs=full, result=result, asked=asked_of(now.step, full))


def refuse_the_same_person(route: RouteNow, now: StepNow, by: str) -> None:
    """What two people answer each for himself takes two people."""
    first = route.find(now.step.second_to)
    if first is not None and first.current is not None and first.current.by == by:
        raise OutOfTurn(f"Another person enters this: {by} entered “{first.step.title}”. Hand it over and sign in anew.")


def _refuse_move(now: StepNow | None, move: Move) -> None:
    if now is None or not now.step.moves:
        raise UnusableInput(Problem("step", "A move is recorded where the machine is set: gap, straightedge, align."))
    if now.blocked_by:
        raise OutOfTurn(" ".join(now.blocked_by))
    if not move.axial_mm and not any(f.shim_mm or f.slide_mm for f in move.feet):
        raise UnusableInput(Problem("feet", "Say what was moved: a shim, a slide, or along the shaft."))


def _refuse_event(route: RouteNow, now: StepNow | None, given: HeatEvent) -> None:
    """What cannot have happened where the hub is. A hub that is hot waits for nobody: once it is on the heater, what happens
    to it is noted even where the dead state is to be proved again meanwhile."""
    if now is None or not now.step.heat_plan:
        raise UnusableInput(Problem("step", "This is noted where a hub is heated and slid on."))
    hot = route.phases.get(now.step.key, Phase.COLD) is not Phase.COLD
    blocks = [block for block in now.blocks if not _may_be_on_the_heater(route, now, block, given)]
    if blocks and not (hot and route.locks.proof_due):
        raise OutOfTurn(" ".join(block.words for block in blocks))
    if given.event == "hub temperature" and given.hub_c is None:
        raise UnusableInput(Problem("hub_c", "How hot is it?"))
    phase = route.phases.get(now.step.key, Phase.COLD)
    if after_event(phase, given.event) is None:
        may = " or ".join(f"“{step.words}”" for step in NEXT[phase])
        raise OutOfTurn(f"The hub is {phase.value}: it cannot be “{given.event}” now. Next is {may}.")


def _may_be_on_the_heater(route: RouteNow, now: StepNow, block: Block, given: HeatEvent) -> bool:
    """While what is ticked before it leaves the heater is still to be done, the hub may be put on it, read and taken off."""
    gate = route.find(now.step.readied_by)
    stays = given.event in ("on the heater", "hub temperature", "pulled off")
    return stays and gate is not None and block.step == gate.step.key and not gate.blocks


def _refuse_question(now: StepNow | None, given: Question) -> None:
    if given.accept is not None and not (now and now.may_be_accepted(given.accept)):
        raise OutOfTurn("There is nothing out of tolerance here that the lead could accept. Look at the last reading.")


def _refuse_slip(route: RouteNow, now: StepNow | None, given: Slip, role: Role, by: str) -> None:
    last = route.may_be_slip
    if last is None or last.id != given.entry or now is None or now.step.key != last.step:
        raise OutOfTurn("Only the last reading or move can be taken out as a slip, before anybody signs it.")
    if last.by != by and not role.may(Deed.ANSWER):
        raise OutOfTurn(f"{last.by} entered it, and takes it out; or the lead does.")


def _refuse_answer(route: RouteNow, given: Answer, role: Role) -> None:
    if not role.may(Deed.ANSWER):
        raise OutOfTurn("The lead answers.")
    if given.question not in {q.id for q in route.questions}:
        raise UnusableInput(Problem("question", "There is no open question of that number."))


def _refuse_hand_over(route: RouteNow, given: HandOver) -> None:
    if route.opening and not given.covered:
        text = f"{route.opening} is open: lay its cover on before you leave it. What falls in there is found when it runs."
        raise UnusableInput(Problem("covered", text))
    if given.what == "hand-over":
        unsaid = [Problem(who, f"Who {who}?") for who in ("goes", "comes") if not getattr(given, who).strip()]
        refuse_if_any(unsaid)


def _refuse_value(route: RouteNow, given: CardValue) -> None:
    """A line that is not there is a fault of the key, everything else of the value; a least that is not below its most is
    of whichever of the two is put there."""
    found = value_problems(given.key, given.value)
    stood = {key for key, _ in pair_problems(route.card)}
    crossed = [p for key, p in pair_problems({**route.card, given.key: given.value}) if key == given.key or key not in stood]
    refuse_if_any([replace(p, path=f"value.{p.path}" if p.path else "key") for p in [*found, *crossed]])


def _changed(route: RouteNow, given: CardValue, role: Role) -> Value | None:
    """What stands on the line now. Whoever works fills an empty one; what stands is changed by the lead, and why is said."""
    stands = stands_on(route.card, given.key)
    if stands is None:
        return None
    if not role.may(Deed.CHANGE_THE_CARD):
        raise OutOfTurn("The lead changes a value that is on the card. Ask the lead, with the document you have.")
    if not given.reason.strip():
        raise UnusableInput(Problem("reason", "Enter the reason for the change. The record shows it."))
    return stands


def _refuse_count(route: RouteNow, given: LedgerCount) -> None:
    if given.counted == "out":
        if route.locks.live:
            raise OutOfTurn(FIRST_LOCK_OUT_AGAIN)
        return
    line = next((line for line in route.ledger if line.line == given.line), None)
    if line is None:
        raise UnusableInput(Problem("line", "Nothing of this was counted out."))
    if given.count > line.missing:
        raise UnusableInput(Problem("count", f"Only {line.missing} of this are still out."))
