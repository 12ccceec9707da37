"""Grease into a coupling: by which holes, that it showed at each, that every plug is back, how much and of which kind.

Filled from above it looks full and is not: air stays trapped. So the low hole is filled through and the others show.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from pydantic import Field

from ..clock import say_clock
from ..errors import Problem, refuse_if_any
from ..model import Clock, Model, Name
from ..say import Say, say
from ..verdict import Check, Result, Status, judge, none_wanted, said_by_hand, worst

Routine = Literal["low in, high out", "hole by hole", "packed by hand"]
What = Literal["plug out", "filled here", "showed", "plug in"]
State = Literal["closed", "open", "filling", "showed", "done"]
MOST_HOLES = 24
LOWEST_DEG = 180.0
SHARE = 0.1
SHARE_SOURCE = "rule of thumb: a tenth more or less"
NEAR_LOW_DEG = 45.0


class Done(Model):
    """What was done at a hole, holes numbered from 1 as they are given."""

    hole: int = Field(ge=1, le=MOST_HOLES)
    what: What


class GreaseInput(Model):
    """Where the holes are, how it is filled, what was done in order, and what went in against what the card asks for."""

    holes: list[Clock] = Field(default_factory=list, max_length=MOST_HOLES)
    turned_deg: float = Field(
        default=0.0, ge=-360, le=360, description="how far the coupling was turned, so that a hole is low"
    )
    routine: Routine
    log: list[Done] = Field(default_factory=list, max_length=1000)
    packed: bool = Field(default=False, description="by hand: worked in level, nothing left hollow")
    product: Name = Field(default="", max_length=120)
    batch: Name = Field(default="", max_length=60)
    grams: float | None = Field(default=None, gt=0, le=100_000)
    wanted_product: Name = Field(default="", max_length=120)
    packed_grams: float | None = Field(default=None, gt=0, le=100_000, description="laid on before it was closed")
    wanted_grams: float | None = Field(default=None, gt=0, le=100_000)
    wanted_source: str = "card as entered"


@dataclass(frozen=True, kw_only=True, slots=True)
class HoleNow:
    """A hole: where it stands now, what was done at it, and what may be done next."""

    hole: int
    clock: float
    state: State
    lowest: bool
    may: list[What]


class GreaseResult(Result):
    """`next` is null when every hole showed but the one filled through last, and every plug is in. `done`: how much was."""

    done: int
    holes: list[HoleNow]
    plugs_out: int
    plugs_in: int
    next: Done | None


MAY: Mapping[State, tuple[What, ...]] = {
    "closed": ("plug out",),
    "open": ("filled here", "showed"),
    "filling": ("showed", "plug in"),
    "showed": ("filled here", "plug in"),
    "done": ("plug out",),
}
BECOMES: Mapping[What, State] = {"plug out": "open", "filled here": "filling", "showed": "showed"}


@dataclass(kw_only=True)
class _Filled:
    """What the log comes to."""

    states: dict[int, State]
    showed: set[int]
    filled: list[int]

    def may(self, hole: int) -> tuple[What, ...]:
        """What may be done at a hole now. A plug that came out again of a hole that is over goes back in at once."""
        state = self.states[hole]
        return (*MAY[state], "plug in") if state == "open" and self.is_over(hole) else MAY[state]

    def is_over(self, hole: int) -> bool:
        """It has shown there, or it was filled through it."""
        return hole in self.showed or hole in self.filled

    @property
    def open_plugs(self) -> list[int]:
        """Holes whose plug is out."""
        return [hole for hole, state in self.states.items() if state not in ("closed", "done")]


def evaluate(given: GreaseInput) -> GreaseResult:
    """Where it has shown, what is still open, and whether kind and amount are the card's.

    Raises `UnusableInput` where something was done at a hole that could not be done there.
    """
    now = _played(given)
    lowest = _lowest(given)
    following = None if given.routine == "packed by hand" else _next(given, now, lowest)
    by_holes = following is not None or not given.holes or now.open_plugs
    lacking = not given.packed if given.routine == "packed by hand" else bool(by_holes)
    checks = [*_product_checks(given), *_amount_checks(given), *_plug_checks(given)]
    return GreaseResult(
        bench="grease",
        verdict=worst(checks, lacking=lacking or not given.product.strip()),
        checks=checks,
        says=_says(given, following, lacking=lacking),
        working=[],
        done=len(given.log),
        holes=[
            HoleNow(
                hole=n,
                clock=_clock(given, n),
                state=now.states[n],
                lowest=n == lowest,
                may=list(now.may(n)),
            )
            for n in now.states
        ],
        plugs_out=_times(given, "plug out"),
        plugs_in=_times(given, "plug in"),
        next=following,
    )


def _played(given: GreaseInput) -> _Filled:
    now = _Filled(states=dict.fromkeys(range(1, len(given.holes) + 1), "closed"), showed=set(), filled=[])
    found: list[Problem] = []
    for i, done in enumerate(given.log):
        state = now.states.get(done.hole)
        if state is None:
            found.append(Problem(f"log.{i}.hole", f"There are only {len(given.holes)} holes."))
        elif done.what not in now.may(done.hole):
            found.append(Problem(f"log.{i}.what", f"Hole {done.hole}: {_cannot(done.what, state)}"))
        else:
            _do(now, done)
    refuse_if_any(found)
    return now


def _do(now: _Filled, done: Done) -> None:
    if done.what == "filled here":
        for hole, state in now.states.items():
            if state == "filling":
                now.states[hole] = "showed" if hole in now.showed else "open"
        now.filled.append(done.hole)
    if done.what == "showed":
        now.showed.add(done.hole)
    if done.what == "plug in":
        now.states[done.hole] = "done" if now.is_over(done.hole) else "closed"
    else:
        now.states[done.hole] = BECOMES[done.what]


def _cannot(what: What, state: State) -> str:
    if state in ("closed", "done"):
        return "its plug is in. First the plug out."
    if what == "plug out":
        return "its plug is out already."
    return "nothing has shown here yet, and it was not filled here: the plug stays out."


def _clock(given: GreaseInput, hole: int) -> float:
    return (given.holes[hole - 1] + given.turned_deg) % 360


def _off_the_bottom(given: GreaseInput, hole: int) -> float:
    off = abs(_clock(given, hole) - LOWEST_DEG)
    return min(off, 360 - off)


def _lowest(given: GreaseInput) -> int | None:
    holes = range(1, len(given.holes) + 1)
    return min(holes, key=lambda n: _off_the_bottom(given, n), default=None)


def _next(given: GreaseInput, now: _Filled, lowest: int | None) -> Done | None:
    """The low hole is filled through; each other is opened, filled until it shows and closed; the low one last."""
    if lowest is None:
        return None
    if now.states[lowest] == "closed":
        return Done(hole=lowest, what="plug out")
    last = now.filled[-1] if now.filled else None
    others = sorted((n for n in now.states if n != (last or lowest)), key=lambda n: -_off_the_bottom(given, n))
    if given.routine == "hole by hole":
        others.sort()
    shows = [n for n in others if now.states[n] == "showed"]
    waiting = [n for n in others if n not in now.showed]
    opened = [n for n in waiting if now.states[n] != "closed"]
    if shows:
        return Done(hole=shows[0], what="plug in")
    if waiting and not opened:
        return Done(hole=waiting[0], what="plug out")
    if last is None:
        return Done(hole=lowest, what="filled here")
    if opened:
        return Done(hole=opened[0], what="showed")
    out = sorted(now.open_plugs, key=lambda n: n == last)
    return Done(hole=out[0], what="plug in") if out else None


def _times(given: GreaseInput, what: What) -> int:
    return sum(done.what == what for done in given.log)


def _product_checks(given: GreaseInput) -> list[Check]:
    wanted, product = given.wanted_product.strip(), given.product.strip()
    if not wanted or not product:
        return []
    same = wanted.casefold() == product.casefold()
    name = "grease" if same else f"grease: {product}, not {wanted}"
    return [said_by_hand("product", name, given.wanted_source, in_order=same)]


def _amount_checks(given: GreaseInput) -> list[Check]:
    if given.grams is None or given.wanted_grams is None:
        return []
    low, high = given.wanted_grams * (1 - SHARE), given.wanted_grams * (1 + SHARE)
    source = f"{given.wanted_source}; {SHARE_SOURCE}"
    packed = given.packed_grams or 0.0
    name = f"amount, with {packed:g} g packed before" if packed else "amount"
    return [judge("grams", name, given.grams + packed, "g", low=low, high=high, source=source)]


def _plug_checks(given: GreaseInput) -> list[Check]:
    """Plugs that are still out; as many go in as came out."""
    out, back = _times(given, "plug out"), _times(given, "plug in")
    if not out:
        return []
    return [none_wanted("plugs", f"plugs in: {back} of {out}", out - back, "as many in as came out", found=Status.NOT_JUDGED)]


_DO: Mapping[What, tuple[str, str]] = {
    "plug out": ("plug_out", "Hole {hole}, at {clock}: plug out."),
    "filled here": ("fill_here", "Hole {hole}, at {clock}: fill through it."),
    "showed": ("until_it_shows", "Fill until it shows at hole {hole}, at {clock}."),
    "plug in": ("plug_in", "Hole {hole}, at {clock}: plug in."),
}


def _says(given: GreaseInput, following: Done | None, *, lacking: bool) -> list[Say]:
    says: list[Say] = []
    if any(check.code == "product" and check.status is Status.OVER for check in _product_checks(given)):
        text = "Another grease than the card's: they may not mix. All of it out and washed, or the lead says why."
        says.append(say("other_grease", text))
    if following is not None:
        code, text = _DO[following.what]
        says.append(say(code, text, hole=str(following.hole), clock=say_clock(_clock(given, following.hole))))
    lowest = _lowest(given)
    if lowest is not None and not given.log and _off_the_bottom(given, lowest) > NEAR_LOW_DEG:
        says.insert(0, say("turn_it", "No hole is low. Turn the coupling until one is: filled from above, air stays in it."))
    if given.routine == "packed by hand" and lacking:
        says.append(say("pack_it", "Work it in with a soft blade until it is level; nothing is left hollow."))
    if not given.product.strip():
        says.append(say("which_grease", "Say which grease it is, and its batch."))
    if not lacking and given.product.strip():
        says.append(say("filled", "It showed at every hole and every plug is in." if given.holes else "Packed."))
    return says
