"""Close-fit bolts drawn in, or taken out: each hole through its states one by one, until every one is there.

Drawn first with a bare nut, then with its catch ring: a ring in the first draw-in jams the bolt, a ring that is forgotten
lets the joint settle. A bolt that goes hard is backed out, the pack shifted, and started again; it is never driven. On the
way out the nuts come off one after another, then the rings, then each bolt is tapped out softly at its end.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from pydantic import Field

from ..bolt_order import star_order
from ..errors import Problem, refuse_if_any
from ..model import Model
from ..say import Say, say
from ..verdict import Check, Result, Status, none_wanted, worst

State = Literal["in", "drawn bare", "nut off", "ring on", "head seated", "ring off", "tapped out"]
Tapped = Literal["in", "drawn bare", "nut off", "ring on", "head seated", "ring off", "tapped out", "backed out"]
Way = Literal["in", "out"]
Heads = Literal["alternating", "all on the hub", "all on the spacer"]
Flange = Literal["hub", "spacer"]
STATES: tuple[State, ...] = ("in", "drawn bare", "nut off", "ring on", "head seated")
STATES_OUT: tuple[State, ...] = ("nut off", "ring off", "tapped out")
BACKED_OUT = "backed out"
NOT_BEGUN: Mapping[Way, str] = {"in": "empty", "out": "as it was"}
SOURCE = "every bolt of the circle"

_SAYS: Mapping[State, tuple[str, str]] = {
    "in": ("start", "Hole {hole}: bolt in by hand, head on the {head} side. Pull lightly on the pack; never a hammer."),
    "drawn bare": ("draw_bare", "Hole {hole}: draw it with a bare nut until its thread runs out."),
    "nut off": ("nut_off", "Hole {hole}: nut off again."),
    "ring on": ("ring_on", "Hole {hole}: catch ring on."),
    "head seated": ("seat", "Hole {hole}: nut on, draw until its head seats."),
}
_SAYS_OUT: Mapping[State, tuple[str, str]] = {
    "nut off": ("nut_off_first", "Hole {hole}: hold its head, nut off. The weight is on the sling."),
    "ring off": ("ring_off", "Hole {hole}: catch ring off, into the marked box."),
    "tapped out": ("tap_out", "Hole {hole}: tap its end softly, keep it with its hole. Never driven."),
}


class Tap(Model):
    """A bolt brought one state on, or backed out again."""

    hole: int = Field(ge=1, le=100)
    to: Tapped


class FittedInput(Model):
    """The holes of one end, which way the heads stand, and what was done, in order."""

    bolts: int = Field(ge=2, le=100)
    heads: Heads = "alternating"
    first_head: Flange = Field(default="hub", description="on which flange the head of hole 1 stands, where they alternate")
    way: Way = Field(default="in", description="drawn in, or taken out")
    log: list[Tap] = Field(default_factory=list, max_length=2000)

    @property
    def states(self) -> tuple[State, ...]:
        """What a bolt goes through, in order."""
        return STATES if self.way == "in" else STATES_OUT


@dataclass(frozen=True, kw_only=True, slots=True)
class Hole:
    """One hole: on which flange its head stands, how far its bolt is, and what comes next."""

    hole: int
    head: Flange
    state: State | None
    next: State | None


@dataclass(frozen=True, kw_only=True, slots=True)
class NextTap:
    """The hole whose turn it is, and to what."""

    hole: int
    to: State


class FittedResult(Result):
    """`next` is null when every head is seated, or every bolt out; `seated` counts them. `rings_on`: catch rings that are
    on by now. `done`: taps so far. `states`: what each goes through."""

    done: int
    states: list[State]
    holes: list[Hole]
    seated: int
    rings_on: int
    next: NextTap | None


def evaluate(given: FittedInput) -> FittedResult:
    """Where every bolt is, which comes next, and what is still open. Opposite holes take turns.

    Raises `UnusableInput` where a state was jumped.
    """
    states = _states(given)
    holes = [
        Hole(hole=n, head=_head(given, n), state=states.get(n), next=_after(given, states.get(n)))
        for n in range(1, given.bolts + 1)
    ]
    following = _next(given, states)
    seated = sum(state == given.states[-1] for state in states.values())
    checks = [_seated(given, seated), *_too_early(given)]
    return FittedResult(
        bench="fitted",
        verdict=worst(checks, lacking=following is not None),
        checks=checks,
        says=_says(given, states, following),
        working=[],
        done=len(given.log),
        states=list(given.states),
        holes=holes,
        seated=seated,
        rings_on=_rings_on(given, states),
        next=following,
    )


def _states(given: FittedInput) -> dict[int, State]:
    """How far each bolt is after the log; every fault in it is told at its place."""
    states: dict[int, State] = {}
    found: list[Problem] = []
    for i, tap in enumerate(given.log):
        if tap.hole > given.bolts:
            found.append(Problem(f"log.{i}.hole", f"There are only {given.bolts} holes."))
        elif tap.to == BACKED_OUT and given.way == "in":
            if tap.hole not in states:
                found.append(Problem(f"log.{i}.to", f"There is no bolt in hole {tap.hole} to be backed out."))
            states.pop(tap.hole, None)
        elif tap.to == _after(given, states.get(tap.hole)):
            states[tap.hole] = tap.to
        else:
            found.append(Problem(f"log.{i}.to", _jumped(given, tap.hole, states.get(tap.hole))))
    refuse_if_any(found)
    return states


def _jumped(given: FittedInput, hole: int, state: State | None) -> str:
    following = _after(given, state)
    if following is None:
        done = "The head in hole {hole} is seated" if given.way == "in" else "The bolt of hole {hole} is out"
        return f"{done.format(hole=hole)}: nothing comes after that."
    return f"Hole {hole} is {state or NOT_BEGUN[given.way]}. Next: {following}. No state is jumped."


def _rank(given: FittedInput, state: State | None) -> int:
    return -1 if state is None else given.states.index(state)


def _after(given: FittedInput, state: State | None) -> State | None:
    rank = _rank(given, state) + 1
    return given.states[rank] if rank < len(given.states) else None


def _rings_on(given: FittedInput, states: Mapping[int, State]) -> int:
    if given.way == "in":
        return sum(_rank(given, state) >= STATES.index("ring on") for state in states.values())
    return given.bolts - sum(_rank(given, state) >= STATES_OUT.index("ring off") for state in states.values())


def _head(given: FittedInput, hole: int) -> Flange:
    if given.heads != "alternating":
        return "hub" if given.heads == "all on the hub" else "spacer"
    other: Flange = "spacer" if given.first_head == "hub" else "hub"
    return given.first_head if hole % 2 else other


def _next(given: FittedInput, states: Mapping[int, State]) -> NextTap | None:
    """The hole that is farthest behind, opposite holes in turn: all are brought to a state before the next one begins."""
    order = star_order(given.bolts)
    hole = min(order, key=lambda n: (_rank(given, states.get(n)), order.index(n)))
    following = _after(given, states.get(hole))
    return None if following is None else NextTap(hole=hole, to=following)


def _seated(given: FittedInput, seated: int) -> Check:
    code, name = ("heads_seated", "heads seated") if given.way == "in" else ("bolts_out", "bolts out")
    return Check(
        code=code,
        name=name,
        value=float(seated),
        unit="",
        min=float(given.bolts),
        max=None,
        used=1.0 if seated == given.bolts else None,
        status=Status.INSIDE if seated == given.bolts else Status.NOT_JUDGED,
        source=SOURCE,
    )


def _too_early(given: FittedInput) -> list[Check]:
    """Bolts that were drawn while others were not in yet: the pack cannot be shifted for those any more."""
    placed: set[int] = set()
    early: set[int] = set()
    for tap in given.log:
        if tap.to == "drawn bare" and len(placed) < given.bolts:
            early.add(tap.hole)
        (placed.discard if tap.to == BACKED_OUT else placed.add)(tap.hole)
    if not early:
        return []
    source = "custom of the trade: all in first, so that the pack can still be shifted"
    return [none_wanted("drawn_too_early", "drawn before every bolt was in", len(early), source, found=Status.CLOSE)]


def _says(given: FittedInput, states: Mapping[int, State], following: NextTap | None) -> list[Say]:
    if following is None:
        seated = say("all_seated", "Every head is seated, every ring is on. Now the torque, in its passes.")
        return [seated if given.way == "in" else say("all_out", "Every bolt is out, every ring in its box.")]
    code, text = (_SAYS if given.way == "in" else _SAYS_OUT)[following.to]
    says = [say(code, text, hole=str(following.hole), head=_head(given, following.hole))]
    backed_out = _backed_out(given.log, states)
    if backed_out:
        holes = ", ".join(map(str, backed_out))
        says.insert(0, say("backed_out", "Hole {holes}: backed out. Shift the pack, start it again by hand.", holes=holes))
    unseated = [n for n in range(1, given.bolts + 1) if states.get(n) != given.states[-1]]
    if len(unseated) < given.bolts:
        code, text = ("not_seated", "Not seated yet: {holes}.") if given.way == "in" else ("not_out", "Not out yet: {holes}.")
        says.append(say(code, text, holes=", ".join(map(str, unseated))))
    return says


def _backed_out(log: Sequence[Tap], states: Mapping[int, State]) -> list[int]:
    """Holes whose bolt was backed out and is not in again."""
    return sorted({tap.hole for tap in log if tap.to == BACKED_OUT and tap.hole not in states})
