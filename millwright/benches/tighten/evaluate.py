"""Bolts in order and in passes: the sequence, what to set the wrench to, and what has been pulled so far."""

from collections.abc import Mapping

from ...bolt_order import HALF_TURNS, ORDERS
from ...errors import refuse_if_any
from ...verdict import Check, Status, judge, none_wanted, worst
from .half_turns import rounds_of
from .io import TightenInput, TightenResult, Turn
from .problems import problems_of, pull_problems
from .pulls import BAND_SHARE, BAND_SOURCE, Circle, Pull, order_checks, past_checks
from .words import say_half_turns, say_passes, working_of_passes, working_of_turns
from .wrench import lever_of, wrench_checks

MOST_ROUNDS = 20


def evaluate(given: TightenInput) -> TightenResult:
    """Sequence, wrench settings and, where pulls are given, how they stand to their torque and their order.

    Source of the setting: lever arms, ``T·L/(L + E·cos angle)``.
    """
    refuse_if_any(problems_of(given))
    return _evaluate_half_turns(given) if given.passes == HALF_TURNS else _evaluate_passes(given)


def _evaluate_passes(given: TightenInput) -> TightenResult:
    latest = {(pull.pass_, pull.bolt): pull for pull in given.pulls or []}
    still, shares = _rounds(given, latest)
    refuse_if_any(pull_problems(given, len(shares)))
    factor, order = lever_of(given), ORDERS[given.pattern](given.bolts)
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
        *wrench_checks(given, factor),
        *_pull_checks(circle, latest),
        *past_checks(circle, given.pulls or []),
        *order_checks(circle, given.pulls or []),
        *_still_check(given, shares, latest),
    ]
    return TightenResult(
        bench="tighten",
        verdict=worst(checks, lacking=given.pulls is not None and bool(waiting)),
        checks=checks,
        says=say_passes(given, shares, circle, sequence, waiting, latest),
        working=working_of_passes(given, shares, factor),
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
    refuse_if_any(pull_problems(given, MOST_ROUNDS))
    factor, pulls = lever_of(given), given.pulls or []
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
    checks = wrench_checks(given, factor)
    following = turns[len(pulls)] if rounds.next else None
    return TightenResult(
        bench="tighten",
        verdict=worst(checks, lacking=given.pulls is not None and not rounds.done),
        checks=checks,
        says=say_half_turns(given, rounds, following),
        working=working_of_turns(given, factor),
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
    tight = "rule of thumb: tight when a full round moves nothing"
    return [none_wanted("still", f"screws that turned in round {whole[-1]}", turned, tight, found=Status.NOT_JUDGED)]


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
