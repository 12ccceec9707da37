"""Bolts in order and in passes: the sequence, what to set the wrench to, and what has been pulled so far."""

import itertools
import math
from collections.abc import Mapping
from datetime import date
from typing import Literal

from pydantic import ConfigDict, Field

from ..errors import Problem, refuse_if_any
from ..model import Model, Name, Size, Torque
from ..say import Say, bare, nm, number, say, words
from ..verdict import ON_PAPER, Check, Result, Status, WorkLine, judge, work, worst
from .half_turns import Rounds, rounds_of
from .order import ORDERS, Pattern, name_on_circles
from .pulls import BAND_SHARE, BAND_SOURCE, Circle, Pull, order_checks, past_checks, say_pulls

MOST_ROUNDS = 20
USUAL_ROUNDS = 6  # rule of thumb: a clean device stands still sooner
RANGE_SOURCE = "the wrench's own range"
CALIBRATION_SOURCE = "the wrench's own papers"
BOTTOM_FIFTH = 0.2  # rule of thumb: a wrench is not trusted in the bottom fifth of its range
HALF_TURNS = "half turns"


class Wrench(Model):
    """The wrench in hand; `length_mm` from its drive square to the mark on the grip."""

    name: Name = ""
    min_nm: Torque
    max_nm: Torque
    length_mm: Size | None = None
    calibrated_until: date | None = None


class Beside(Model):
    """A second circle that is pulled by turns with the first: half a turn here, half a turn there."""

    bolts: int = Field(ge=1, le=400)
    torque_nm: Torque
    torque_source: str = "torque as entered"
    title: Name = Field(default="", max_length=120)


class TightenInput(Model):
    """A bolt circle or a row of bolts, its torque and its passes."""

    bolts: int = Field(ge=1, le=400)
    torque_nm: Torque
    torque_source: str = "torque as entered"
    passes: list[float] | Literal["half turns"] = Field(description="shares of the torque, e.g. 0.5, 0.75, 1; or half turns")
    pattern: Pattern
    wrench: Wrench | None = None
    extension_mm: Size | None = None
    extension_angle_deg: float = Field(default=0.0, ge=-180, le=180, description="between extension and wrench")
    pulled_on: date | None = Field(default=None, description="the day, against which the wrench's calibration is held")
    band_share: float = Field(default=BAND_SHARE, gt=0, le=0.5, description="how far a pull may be off its torque")
    title: Name = Field(default="", max_length=120, description="what the bolts are called")
    beside: Beside | None = Field(default=None, description="in rounds of half turns: a second circle, by turns")
    until_still: bool = Field(default=False, description="the last pass is repeated until a whole round moved nothing")
    between_rounds: str = Field(default="", max_length=200, description="what is done before the next round")
    pulls: list[Pull] | None = Field(default=None, max_length=8000, description="what was pulled, in order")

    @property
    def shares(self) -> list[float]:
        """Of the torque, by pass; half turns go to the full torque."""
        return [1.0] if isinstance(self.passes, str) else self.passes

    @property
    def order(self) -> list[int]:
        """Of every bolt; those of a second circle are numbered on and take turns with the first."""
        first = ORDERS[self.pattern](self.bolts)
        if self.beside is None:
            return first
        second = [self.bolts + bolt for bolt in ORDERS[self.pattern](self.beside.bolts)]
        return [bolt for pair in itertools.zip_longest(first, second) for bolt in pair if bolt is not None]

    def torque_of(self, bolt: int) -> float:
        """What it is pulled to in the end."""
        return self.torque_nm if self.beside is None or bolt <= self.bolts else self.beside.torque_nm

    def name_of(self, bolt: int) -> str:
        """Its number; of two circles A1, A2, … and B1, B2, …"""
        return str(bolt) if self.beside is None else name_on_circles(bolt, self.bolts)


class Turn(Model):
    """One bolt's turn: what torque it gets and what the wrench is set to for it.

    `asks_turned`: at this turn it counts whether the screw turned before the wrench clicked.
    """

    model_config = ConfigDict(populate_by_name=True)

    pass_: int = Field(alias="pass")
    bolt: int
    name: str  # of two circles with its letter
    torque_nm: float
    set_nm: float
    asks_turned: bool = False


class TightenResult(Result):
    """`next` is null when every bolt of every pass has been pulled, and stands still where that is asked."""

    passes: list[float]
    half_turns: bool
    circles: list[int]  # bolts of each circle
    clicked: list[int]  # in rounds of half turns: bolts whose wrench clicked
    still: bool | None
    sequence: list[Turn]
    set_nm: float
    done: int
    next: Turn | None


def evaluate(given: TightenInput) -> TightenResult:
    """Sequence, wrench settings and, where pulls are given, how they stand to their torque and their order.

    Source of the setting: lever arms, ``T·L/(L + E·cos angle)``.
    """
    refuse_if_any(_problems(given))
    return _evaluate_half_turns(given) if given.passes == HALF_TURNS else _evaluate_passes(given)


def _evaluate_passes(given: TightenInput) -> TightenResult:
    latest = {(pull.pass_, pull.bolt): pull for pull in given.pulls or []}
    still, shares = _rounds(given, latest)
    refuse_if_any(_pull_problems(given, len(shares)))
    factor, order = _lever(given), ORDERS[given.pattern](given.bolts)
    circle = _circle(given, shares, factor)
    sequence = [
        Turn(
            pass_=n,
            bolt=bolt,
            name=given.name_of(bolt),
            torque_nm=torque,
            set_nm=torque * factor,
            asks_turned=given.until_still and shares[n - 1] == shares[-1],
        )
        for n, torque in enumerate(circle.torques_nm, start=1)
        for bolt in order
    ]
    waiting = [turn for turn in sequence if (turn.pass_, turn.bolt) not in latest]
    checks = [
        *_wrench_checks(given, factor),
        *_pull_checks(circle, latest),
        *past_checks(circle, given.pulls or []),
        *order_checks(circle, given.pulls or []),
        *_still_check(given, shares, latest),
    ]
    return TightenResult(
        bench="tighten",
        verdict=worst(checks, lacking=given.pulls is not None and bool(waiting)),
        checks=checks,
        says=_advice(given, shares, circle, sequence, waiting, latest),
        working=_working(given, shares, factor),
        passes=shares,
        half_turns=False,
        circles=[given.bolts],
        clicked=[],
        still=still,
        sequence=sequence,
        set_nm=given.torque_nm * factor,
        done=len(sequence) - len(waiting),
        next=waiting[0] if waiting else None,
    )


def _evaluate_half_turns(given: TightenInput) -> TightenResult:
    refuse_if_any(_pull_problems(given, MOST_ROUNDS))
    factor, pulls = _lever(given), given.pulls or []
    rounds = rounds_of(given.order, pulls)
    turns = [
        Turn(
            pass_=n,
            bolt=bolt,
            name=given.name_of(bolt),
            torque_nm=given.torque_of(bolt),
            set_nm=given.torque_of(bolt) * factor,
            asks_turned=True,
        )
        for n, bolt in [*((pull.pass_, pull.bolt) for pull in pulls), *((rounds.round, bolt) for bolt in rounds.waiting)]
    ]
    checks = _wrench_checks(given, factor)
    following = turns[len(pulls)] if rounds.next else None
    return TightenResult(
        bench="tighten",
        verdict=worst(checks, lacking=given.pulls is not None and not rounds.done),
        checks=checks,
        says=_say_half_turns(given, rounds, following),
        working=_working_of_turns(given, factor),
        passes=[1.0] * rounds.round,
        half_turns=True,
        circles=[given.bolts, *([given.beside.bolts] if given.beside else [])],
        clicked=sorted({pull.bolt for pull in pulls if pull.clicked}),
        still=rounds.done,
        sequence=turns,
        set_nm=given.torque_nm * factor,
        done=len(pulls),
        next=following,
    )


def _circle(given: TightenInput, shares: list[float], factor: float) -> Circle:
    return Circle(
        torques_nm=[given.torque_nm * share for share in shares],
        order=ORDERS[given.pattern](given.bolts),
        band_share=given.band_share,
        lever=factor,
        source=BAND_SOURCE if given.band_share == BAND_SHARE else "band as entered",
    )


def _rounds(given: TightenInput, latest: Mapping[tuple[int, int], Pull]) -> tuple[bool | None, list[float]]:
    """Whether the last full round moved nothing, and the shares with the rounds that takes so far.

    None where nobody asks. A pull of which nobody said whether the screw turned counts as one that did.
    """
    shares = list(given.shares)
    if not given.until_still:
        return None, shares
    while len(shares) < MOST_ROUNDS:
        pulls = _pulls_of(len(shares), latest)
        if len(pulls) < given.bolts:
            break
        if all(pull.moved is False for pull in pulls):
            return True, shares
        shares.append(shares[-1])
    return False, shares


def _pulls_of(round_: int, latest: Mapping[tuple[int, int], Pull]) -> list[Pull]:
    return [pull for (pass_, _), pull in latest.items() if pass_ == round_]


def _still_check(given: TightenInput, shares: list[float], latest: Mapping[tuple[int, int], Pull]) -> list[Check]:
    """How many screws turned in the last whole round at full torque."""
    full = [n for n in range(1, len(shares) + 1) if shares[n - 1] == shares[-1]]
    whole = [n for n in full if len(_pulls_of(n, latest)) == given.bolts]
    if not given.until_still or not whole:
        return []
    turned = sum(pull.moved is not False for pull in _pulls_of(whole[-1], latest))
    return [
        Check(
            code="still",
            name=f"screws that turned in round {whole[-1]}",
            value=float(turned),
            unit="",
            min=None,
            max=0.0,
            used=None if turned else 0.0,
            status=Status.NOT_JUDGED if turned else Status.INSIDE,
            source="rule of thumb: tight when a full round moves nothing",
        )
    ]


def _problems(given: TightenInput) -> list[Problem]:
    found = [
        Problem(f"passes.{i}", "A pass is a share of the torque: more than 0, at most 1.")
        for i, share in enumerate(given.shares)
        if not 0 < share <= 1
    ]
    if not found:
        found += _problems_of_shares(given.shares)
    if given.beside is not None and given.passes != HALF_TURNS:
        found.append(Problem("beside", "Two circles go by turns in rounds of half turns only."))
    wrench = given.wrench
    found += range_problems(wrench.min_nm, wrench.max_nm, "wrench.max_nm") if wrench else []
    if given.extension_mm is not None:
        if wrench is None or wrench.length_mm is None:
            found.append(Problem("wrench.length_mm", "With an extension, enter the wrench's own length."))
        elif _arm(wrench.length_mm, given) <= 0:
            found.append(Problem("extension_angle_deg", "Turned back this far the extension takes all the leverage."))
    return found


def range_problems(min_nm: float, max_nm: float, path: str) -> list[Problem]:
    """What is wrong with the range of a wrench, N·m, said at the path of its top."""
    return [] if min_nm < max_nm else [Problem(path, "The top of the wrench's range must be above its bottom.")]


def _problems_of_shares(shares: list[float]) -> list[Problem]:
    if not shares:
        return [Problem("passes", "Enter at least one pass.")]
    if any(later < earlier - ON_PAPER for earlier, later in itertools.pairwise(shares)):
        return [Problem("passes", "Passes rise, or stay as they are: no pass is lower than the one before it.")]
    if abs(shares[-1] - 1.0) > ON_PAPER:
        return [Problem("passes", "The last pass is the full torque.")]
    return []


def _pull_problems(given: TightenInput, passes: int) -> list[Problem]:
    found, half_turns = [], given.passes == HALF_TURNS
    bolts = len(given.order)
    for i, pull in enumerate(given.pulls or []):
        if pull.bolt > bolts:
            found.append(Problem(f"pulls.{i}.bolt", f"There are only {bolts} bolts."))
        if pull.pass_ > passes:
            found.append(Problem(f"pulls.{i}.pass", f"There are only {passes} passes."))
        if half_turns:
            continue
        if pull.reached_nm is None:
            found.append(Problem(f"pulls.{i}.reached_nm", "Enter what it was pulled to."))
        if given.extension_mm is not None and pull.reached_is is None:
            text = "With an extension: is this what the wrench showed, or what the bolt got?"
            found.append(Problem(f"pulls.{i}.reached_is", text))
    return found


def _arm(length: float, given: TightenInput) -> float:
    return length + (given.extension_mm or 0.0) * math.cos(math.radians(given.extension_angle_deg))


def _lever(given: TightenInput) -> float:
    if given.extension_mm is None or given.wrench is None or given.wrench.length_mm is None:
        return 1.0
    return given.wrench.length_mm / _arm(given.wrench.length_mm, given)


def _wrench_checks(given: TightenInput, factor: float) -> list[Check]:
    """Its range, and its calibration on the day."""
    wrench = given.wrench
    if wrench is None:
        return []
    low, high = wrench.min_nm, wrench.max_nm
    found = [
        judge("wrench", "wrench setting", setting, "N·m", low=low, high=high, source=RANGE_SOURCE, close_above=1.0)
        for setting in sorted({torque * factor for torque in _torques(given)})
    ]
    checks = [max(found, key=lambda check: check.used or 0.0)]
    if wrench.calibrated_until is not None and given.pulled_on is not None:
        late = (given.pulled_on - wrench.calibrated_until).days
        checks.append(
            Check(
                code="calibration",
                name=f"calibrated until {wrench.calibrated_until.isoformat()}, days past it",
                value=float(max(late, 0)),
                unit="",
                min=None,
                max=0.0,
                used=None,
                status=Status.OVER if late > 0 else Status.INSIDE,
                source=CALIBRATION_SOURCE,
            )
        )
    return checks


def _torques(given: TightenInput) -> set[float]:
    """Every torque the wrench is asked for."""
    return {given.torque_nm * share for share in given.shares} | ({given.beside.torque_nm} if given.beside else set())


def _pull_checks(circle: Circle, latest: Mapping[tuple[int, int], Pull]) -> list[Check]:
    found = []
    for n, torque in enumerate(circle.torques_nm, start=1):
        pulls = _pulls_of(n, latest)
        if not pulls:
            continue
        furthest = max(pulls, key=lambda pull: abs(circle.on_bolt_nm(pull) - torque))
        low, high = torque * (1 - circle.band_share), torque * (1 + circle.band_share)
        name, reached = f"pass {n}, bolt {furthest.bolt} farthest off", circle.on_bolt_nm(furthest)
        found.append(judge("pull", name, reached, "N·m", low=low, high=high, source=circle.source))
    return found


def _advice(
    given: TightenInput,
    shares: list[float],
    circle: Circle,
    sequence: list[Turn],
    waiting: list[Turn],
    latest: Mapping[tuple[int, int], Pull],
) -> list[Say]:
    advice = say_pulls(circle, given.pulls or [], latest.values())
    if (skipped := _passed_over(sequence, given.pulls or [])) is not None:
        text = "Pass {pass_}, bolt {bolt} was passed over. Go back to it."
        advice.append(say("passed_over", text, pass_=str(skipped.pass_), bolt=str(skipped.bolt)))
    if given.pulls is not None and waiting:
        turn = waiting[0]
        which = f"round {turn.pass_}" if given.until_still else f"pass {turn.pass_} of {len(shares)}"
        advice.append(
            say("next_pull", "Pull bolt {bolt} to {to}, {which}.", bolt=str(turn.bolt), to=nm(turn.torque_nm), which=which)
        )
    advice += _between_rounds(given, shares, waiting)
    return [*advice, *_say_wrench(given)]


def _say_wrench(given: TightenInput) -> list[Say]:
    wrench = given.wrench
    if wrench is None:
        return []
    says = []
    if wrench.calibrated_until is not None and given.pulled_on is not None and given.pulled_on > wrench.calibrated_until:
        text = "{wrench} was calibrated until {day}. Take another one."
        name = wrench.name or "This wrench"
        says.append(say("calibration_late", text, wrench=name, day=wrench.calibrated_until.isoformat()))
    low = wrench.min_nm + BOTTOM_FIFTH * (wrench.max_nm - wrench.min_nm)
    if wrench.min_nm <= min(_torques(given)) * _lever(given) < low:
        says.append(
            say("bottom_fifth", "The lowest setting lies in the bottom fifth of the wrench's range. (Rule of thumb.)")
        )
    return says


def _say_half_turns(given: TightenInput, rounds: Rounds, following: Turn | None) -> list[Say]:
    if following is None:
        return [say("nothing_turned", "A whole round turned nothing: every bolt is at its torque."), *_say_wrench(given)]
    text = "Screw {bolt}: half a turn, or until it clicks at {to}. Round {round}."
    return [
        say("next_half_turn", text, bolt=following.name, to=nm(following.torque_nm), round=str(rounds.round)),
        *_say_wrench(given),
    ]


def _between_rounds(given: TightenInput, shares: list[float], waiting: list[Turn]) -> list[Say]:
    """At the start of a round that repeats the full torque; and where rounds do not come to an end."""
    repeats = given.until_still and len(waiting) == given.bolts and len(shares) > 1
    if not repeats or shares[-2] != shares[-1]:
        return []
    full = shares.count(shares[-1])
    says = [say("between_rounds", "{what}", what=given.between_rounds)] if given.between_rounds else []
    if full > USUAL_ROUNDS:
        text = "{rounds} full rounds and screws still turn. Oil on a face, a tilted ring, a wrong torque? (Rule of thumb.)"
        says.insert(0, say("still_turning", text, rounds=str(full - 1)))
    return says


def _passed_over(sequence: list[Turn], pulls: list[Pull]) -> Turn | None:
    """The first bolt that was skipped and has not been pulled since."""
    done: set[tuple[int, int]] = {(pull.pass_, pull.bolt) for pull in pulls}
    if not done:
        return None
    last = max(i for i, turn in enumerate(sequence) if (turn.pass_, turn.bolt) in done)
    return next((turn for turn in sequence[:last] if (turn.pass_, turn.bolt) not in done), None)


def _working(given: TightenInput, shares: list[float], factor: float) -> list[WorkLine]:
    lines = [
        work(
            "pass",
            f"pass {n}",
            "torque × share",
            words("{torque} × {share}", torque=bare(given.torque_nm, None, "N·m"), share=number(share)),
            given.torque_nm * share,
            "N·m",
        )
        for n, share in enumerate(shares, start=1)
    ]
    return [*lines, *_working_of_setting(given, "", given.torque_nm, factor)]


def _working_of_turns(given: TightenInput, factor: float) -> list[WorkLine]:
    """The torque each circle comes to, and what the wrench is set to for it."""
    circles = [("", given.torque_nm)]
    if given.beside is not None:
        first, second = (f", {letter} {title}".rstrip() for letter, title in (("A", given.title), ("B", given.beside.title)))
        circles = [(first, given.torque_nm), (second, given.beside.torque_nm)]
    lines: list[WorkLine] = []
    for which, torque in circles:
        lines.append(work("torque", f"torque{which}", "as the card has it", "", torque, "N·m"))
        lines += _working_of_setting(given, which, torque, factor)
    return lines


def _working_of_setting(given: TightenInput, which: str, torque: float, factor: float) -> list[WorkLine]:
    if factor == 1.0 or given.wrench is None or given.wrench.length_mm is None:
        return []
    length = given.wrench.length_mm
    lever = words(
        "{torque} × {length} ÷ {arm}",
        torque=bare(torque, None, "N·m"),
        length=bare(length, None),
        arm=bare(_arm(length, given), 1),
    )
    return [work("set", f"set the wrench to{which}", "T × L ÷ (L + E × cos angle)", lever, torque * factor, "N·m")]
