"""Bolts in order and in passes: the sequence, what to set the wrench to, and what has been pulled so far."""

import math

from pydantic import ConfigDict, Field

from ..errors import Problem, refuse_if_any
from ..model import Model, Size, Torque
from ..verdict import Check, Result, Status, WorkLine, judge, worst
from .order import ORDERS, Pattern

MOST_ROUNDS = 20
USUAL_ROUNDS = 6  # rule of thumb: a clean device stands still sooner
BAND_SHARE = 0.04
BAND_SOURCE = "rule of thumb: what a click wrench in calibration repeats to, ±4 %"
RANGE_SOURCE = "the wrench's own range"
BOTTOM_FIFTH = 0.2  # rule of thumb: a wrench is not trusted in the bottom fifth of its range


class Wrench(Model):
    """The wrench in hand; `length_mm` from its drive square to the mark on the grip."""

    min_nm: Torque
    max_nm: Torque
    length_mm: Size | None = None


class Pull(Model):
    """One bolt pulled to a torque in one pass."""

    pass_: int = Field(alias="pass", ge=1, le=20)
    bolt: int = Field(ge=1, le=400)
    torque_nm: Torque
    moved: bool | None = Field(default=None, description="the screw turned before the wrench clicked")


class TightenInput(Model):
    """A bolt circle or a row of bolts, its torque and its passes."""

    bolts: int = Field(ge=1, le=400)
    torque_nm: Torque
    torque_source: str = "torque as entered"
    passes: list[float] = Field(min_length=1, max_length=20, description="shares of the torque, e.g. 0.5, 0.75, 1")
    pattern: Pattern
    wrench: Wrench | None = None
    extension_mm: Size | None = None
    extension_angle_deg: float = Field(default=0.0, ge=-180, le=180, description="between extension and wrench")
    band_share: float = Field(default=BAND_SHARE, gt=0, le=0.5, description="how far a pull may be off its torque")
    until_still: bool = Field(default=False, description="the last pass is repeated until a whole round moved nothing")
    between_rounds: str = Field(default="", max_length=200, description="what is done before the next round")
    pulls: list[Pull] | None = Field(default=None, max_length=8000, description="what was pulled, in order")


class Turn(Model):
    """One bolt's turn: what torque it gets and what the wrench is set to for it."""

    model_config = ConfigDict(populate_by_name=True)

    pass_: int = Field(alias="pass")
    bolt: int
    torque_nm: float
    set_nm: float


class TightenResult(Result):
    """`next` is null when every bolt of every pass has been pulled, and stands still where that is asked."""

    passes: list[float]
    still: bool | None
    sequence: list[Turn]
    set_nm: float
    done: int
    next: Turn | None


def evaluate(given: TightenInput) -> TightenResult:
    """Sequence, wrench settings and, where pulls are given, how they stand to their torque.

    Source of the setting: lever arms, ``T·L/(L + E·cos angle)``.
    """
    latest = {(pull.pass_, pull.bolt): pull for pull in given.pulls or []}
    still, given = _rounds(given, latest)
    refuse_if_any(_problems(given))
    factor = _lever(given)
    order = ORDERS[given.pattern](given.bolts)
    sequence = [
        Turn(pass_=n, bolt=bolt, torque_nm=given.torque_nm * share, set_nm=given.torque_nm * share * factor)
        for n, share in enumerate(given.passes, start=1)
        for bolt in order
    ]
    waiting = [turn for turn in sequence if (turn.pass_, turn.bolt) not in latest]
    checks = _wrench_checks(given, factor) + _pull_checks(given, latest) + _still_check(given, latest)
    return TightenResult(
        bench="tighten",
        verdict=worst(checks, lacking=given.pulls is not None and bool(waiting)),
        checks=checks,
        advice=_advice(given, sequence, waiting, latest),
        working=_working(given, factor),
        passes=given.passes,
        still=still,
        sequence=sequence,
        set_nm=given.torque_nm * factor,
        done=len(sequence) - len(waiting),
        next=waiting[0] if waiting else None,
    )


def _rounds(given: TightenInput, latest: dict[tuple[int, int], Pull]) -> tuple[bool | None, TightenInput]:
    """Whether the last full round moved nothing, and the input with the rounds that takes so far.

    None where nobody asks. A pull of which nobody said whether the screw turned counts as one that did.
    """
    if not given.until_still:
        return None, given
    passes = list(given.passes)
    while len(passes) < MOST_ROUNDS:
        pulls = _pulls_of(len(passes), latest)
        if len(pulls) < given.bolts:
            break
        if all(pull.moved is False for pull in pulls):
            return True, given.model_copy(update={"passes": passes})
        passes.append(passes[-1])
    return False, given.model_copy(update={"passes": passes})


def _pulls_of(round_: int, latest: dict[tuple[int, int], Pull]) -> list[Pull]:
    return [pull for (pass_, _), pull in latest.items() if pass_ == round_]


def _still_check(given: TightenInput, latest: dict[tuple[int, int], Pull]) -> list[Check]:
    """How many screws turned in the last whole round at full torque."""
    full = [n for n in range(1, len(given.passes) + 1) if given.passes[n - 1] == given.passes[-1]]
    whole = [n for n in full if len(_pulls_of(n, latest)) == given.bolts]
    if not given.until_still or not whole:
        return []
    turned = sum(pull.moved is not False for pull in _pulls_of(whole[-1], latest))
    return [
        Check(
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
        for i, share in enumerate(given.passes)
        if not 0 < share <= 1
    ]
    wrench = given.wrench
    if wrench is not None and wrench.min_nm >= wrench.max_nm:
        found.append(Problem("wrench.max_nm", "The top of the wrench's range must be above its bottom."))
    if given.extension_mm is not None:
        if wrench is None or wrench.length_mm is None:
            found.append(Problem("wrench.length_mm", "With an extension, the wrench's own length is needed."))
        elif _arm(wrench.length_mm, given) <= 0:
            found.append(Problem("extension_angle_deg", "Turned back this far the extension takes all the leverage."))
    for i, pull in enumerate(given.pulls or []):
        if pull.bolt > given.bolts:
            found.append(Problem(f"pulls.{i}.bolt", f"There are only {given.bolts} bolts."))
        if pull.pass_ > len(given.passes):
            found.append(Problem(f"pulls.{i}.pass", f"There are only {len(given.passes)} passes."))
    return found


def _arm(length: float, given: TightenInput) -> float:
    return length + (given.extension_mm or 0.0) * math.cos(math.radians(given.extension_angle_deg))


def _lever(given: TightenInput) -> float:
    if given.extension_mm is None or given.wrench is None or given.wrench.length_mm is None:
        return 1.0
    return given.wrench.length_mm / _arm(given.wrench.length_mm, given)


def _wrench_checks(given: TightenInput, factor: float) -> list[Check]:
    if given.wrench is None:
        return []
    low, high = given.wrench.min_nm, given.wrench.max_nm
    settings = sorted({given.torque_nm * share * factor for share in given.passes})
    found = [
        judge(f"wrench set to {setting:.0f}", setting, "N·m", low=low, high=high, source=RANGE_SOURCE, close_above=1.0)
        for setting in settings
    ]
    return [max(found, key=lambda check: check.used or 0.0)]


def _pull_checks(given: TightenInput, latest: dict[tuple[int, int], Pull]) -> list[Check]:
    found = []
    for n, share in enumerate(given.passes, start=1):
        torque = given.torque_nm * share
        pulls = [pull for (pass_, _), pull in latest.items() if pass_ == n]
        if not pulls:
            continue
        furthest = max(pulls, key=lambda pull: abs(pull.torque_nm - torque))
        found.append(
            judge(
                f"pass {n}, bolt {furthest.bolt} furthest off",
                furthest.torque_nm,
                "N·m",
                low=torque * (1 - given.band_share),
                high=torque * (1 + given.band_share),
                source=BAND_SOURCE if given.band_share == BAND_SHARE else "band as entered",
            )
        )
    return found


def _advice(given: TightenInput, sequence: list[Turn], waiting: list[Turn], latest: dict[tuple[int, int], Pull]) -> list[str]:
    advice = []
    for (n, bolt), pull in latest.items():
        torque = given.torque_nm * given.passes[n - 1]
        if pull.torque_nm > torque * (1 + given.band_share):
            advice.append(f"Bolt {bolt} took {pull.torque_nm:g} N·m in pass {n}. Slacken it and pull it again.")
        elif pull.torque_nm < torque * (1 - given.band_share):
            advice.append(f"Bolt {bolt} took only {pull.torque_nm:g} N·m in pass {n}. Pull it again.")
    if (skipped := _out_of_turn(sequence, given.pulls or [])) is not None:
        advice.append(f"Pass {skipped.pass_}, bolt {skipped.bolt} was passed over. Go back to it.")
    if given.pulls is not None and waiting:
        turn = waiting[0]
        which = f"round {turn.pass_}" if given.until_still else f"pass {turn.pass_} of {len(given.passes)}"
        advice.append(f"Pull bolt {turn.bolt} to {turn.torque_nm:g} N·m, {which}.")
    advice += _between_rounds(given, waiting)
    if given.wrench is not None:
        low = given.wrench.min_nm + BOTTOM_FIFTH * (given.wrench.max_nm - given.wrench.min_nm)
        least = min(given.passes) * given.torque_nm * _lever(given)
        if given.wrench.min_nm <= least < low:
            advice.append("The lowest setting lies in the bottom fifth of the wrench's range. (Rule of thumb.)")
    return advice


def _between_rounds(given: TightenInput, waiting: list[Turn]) -> list[str]:
    """At the start of a round that repeats the full torque; and where rounds do not come to an end."""
    repeats = given.until_still and len(waiting) == given.bolts and len(given.passes) > 1
    if not repeats or given.passes[-2] != given.passes[-1]:
        return []
    full = given.passes.count(given.passes[-1])
    says = [given.between_rounds] if given.between_rounds else []
    if full > USUAL_ROUNDS:
        says.insert(
            0,
            f"{full - 1} full rounds and screws still turn. Oil on a face, a tilted ring, a wrong torque? (Rule of thumb.)",
        )
    return says


def _out_of_turn(sequence: list[Turn], pulls: list[Pull]) -> Turn | None:
    """The first bolt that was skipped and has not been pulled since."""
    done: set[tuple[int, int]] = {(pull.pass_, pull.bolt) for pull in pulls}
    if not done:
        return None
    last = max(i for i, turn in enumerate(sequence) if (turn.pass_, turn.bolt) in done)
    return next((turn for turn in sequence[:last] if (turn.pass_, turn.bolt) not in done), None)


def _working(given: TightenInput, factor: float) -> list[WorkLine]:
    lines = [
        WorkLine(
            what=f"pass {n}",
            formula="torque × share",
            numbers=f"{given.torque_nm:g} × {share:g}",
            value=given.torque_nm * share,
            unit="N·m",
        )
        for n, share in enumerate(given.passes, start=1)
    ]
    if factor != 1.0 and given.wrench is not None and given.wrench.length_mm is not None:
        length = given.wrench.length_mm
        lines.append(
            WorkLine(
                what="set the wrench to",
                formula="T × L ÷ (L + E × cos angle)",
                numbers=f"{given.torque_nm:g} × {length:g} ÷ {_arm(length, given):.1f}",
                value=given.torque_nm * factor,
                unit="N·m",
            )
        )
    return lines
