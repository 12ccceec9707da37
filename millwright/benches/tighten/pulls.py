"""The log of a circle: each pull as it was made, and what is wrong with the order and the reach of it."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Any, Literal

from pydantic import Field, model_validator

from ...model import Model, Torque
from ...say import Say, nm, say
from ...verdict import Check, Status, none_wanted

BAND_SHARE = 0.04
BAND_SOURCE = "rule of thumb: what a click wrench in calibration repeats to, ±4 %"
ORDER_SOURCE = "the order of this circle"

ReachedIs = Literal["wrench", "bolt"]


class Pull(Model):
    """One bolt pulled in one pass."""

    pass_: int = Field(alias="pass", ge=1, le=20)
    bolt: int = Field(ge=1, le=400)
    reached_nm: Torque | None = Field(default=None, description="what it was pulled to; not in rounds of half turns")
    reached_is: ReachedIs | None = Field(
        default=None, description="with an extension: what the wrench showed, or the bolt got"
    )
    slackened: bool = Field(default=False, description="it was slackened before this pull")
    moved: bool | None = Field(default=None, description="the screw turned before the wrench clicked")
    turned: bool | None = Field(default=None, description="rounds of half turns: it turned")
    clicked: bool | None = Field(default=None, description="rounds of half turns: the wrench clicked")

    @model_validator(mode="before")
    @classmethod
    def _as_it_was_called(cls, given: Any) -> Any:
        """Entries from before had `torque_nm`."""
        if isinstance(given, dict) and "torque_nm" in given and "reached_nm" not in given:
            return {"reached_nm" if key == "torque_nm" else key: value for key, value in given.items()}
        return given


@dataclass(frozen=True, kw_only=True)
class Circle:
    """What the pulls are held against: the torque of each pass, the order, how far a pull may be off."""

    torques_nm: Sequence[float]
    order: Sequence[int]
    band_share: float
    lever: float  # what the wrench shows over what the bolt gets
    source: str

    def on_bolt_nm(self, pull: Pull) -> float:
        """What the bolt got."""
        reached = pull.reached_nm or 0.0
        return reached / self.lever if pull.reached_is == "wrench" else reached

    def most_nm(self, pass_: int) -> float:
        """The top of the band of a pass."""
        return self.torques_nm[pass_ - 1] * (1 + self.band_share)


def pulled_past(circle: Circle, pulls: Iterable[Pull]) -> list[Pull]:
    """Pulls that clicked low on a bolt that had been pulled past their band and not slackened since.

    Such a click says nothing: the bolt was tighter before. Each with what the bolt had been pulled to is in the log.
    """
    most: dict[int, float] = {}
    found: dict[int, Pull] = {}
    for pull in pulls:
        if pull.slackened:
            most.pop(pull.bolt, None)
            found.pop(pull.bolt, None)
        reached = circle.on_bolt_nm(pull)
        had = most.get(pull.bolt, 0.0)
        if had > circle.most_nm(pull.pass_) + 1e-9:
            found[pull.bolt] = pull
        else:
            found.pop(pull.bolt, None)
        most[pull.bolt] = max(had, reached)
    return list(found.values())


def past_checks(circle: Circle, pulls: Sequence[Pull]) -> list[Check]:
    """Over where a bolt was pulled past its band and then clicked lower without having been slackened."""
    past = pulled_past(circle, pulls)
    if not past:
        return []
    worst = max(past, key=lambda pull: _most(circle, pulls, pull.bolt))
    value = _most(circle, pulls, worst.bolt)
    return [
        Check(
            code="pulled_past",
            name=f"bolt {worst.bolt} pulled past, not slackened",
            value=value,
            unit="N·m",
            min=None,
            max=circle.most_nm(worst.pass_),
            used=value / circle.most_nm(worst.pass_),
            status=Status.OVER,
            source=circle.source,
        )
    ]


def _most(circle: Circle, pulls: Iterable[Pull], bolt: int) -> float:
    most = 0.0
    for pull in pulls:
        if pull.bolt == bolt:
            most = max(0.0 if pull.slackened else most, circle.on_bolt_nm(pull))
    return most


def out_of_turn(circle: Circle, pulls: Iterable[Pull]) -> list[Pull]:
    """Pulls made while a bolt before them, in their order, had not had its turn."""
    turns = [(n, bolt) for n in range(1, len(circle.torques_nm) + 1) for bolt in circle.order]
    at = {turn: i for i, turn in enumerate(turns)}
    done: set[tuple[int, int]] = set()
    first, found = 0, []
    for pull in pulls:
        turn = (pull.pass_, pull.bolt)
        if at.get(turn, 0) > first:
            found.append(pull)
        done.add(turn)
        while first < len(turns) and turns[first] in done:
            first += 1
    return found


def order_checks(circle: Circle, pulls: Sequence[Pull]) -> list[Check]:
    """Close where pulls were made out of turn: the order is there so that nothing is pulled aside."""
    found = out_of_turn(circle, pulls)
    if not found:
        return []
    return [none_wanted("out_of_turn", "pulls out of turn", len(found), ORDER_SOURCE, found=Status.CLOSE)]


def say_pulls(circle: Circle, pulls: Sequence[Pull], latest: Iterable[Pull]) -> list[Say]:
    """What is to be done about single bolts."""
    says, past = [], {pull.bolt for pull in pulled_past(circle, pulls)}
    for bolt in sorted(past):
        text = "Bolt {bolt} was pulled to {most} and then clicked lower: that click says nothing. Slacken it, pull it again."
        says.append(say("pulled_past", text, bolt=str(bolt), most=nm(_most(circle, pulls, bolt))))
    for pull in latest:
        reached, asked = circle.on_bolt_nm(pull), circle.torques_nm[pull.pass_ - 1]
        if pull.bolt in past:
            continue
        where = {"bolt": str(pull.bolt), "pass_": str(pull.pass_)}
        if reached > circle.most_nm(pull.pass_):
            text = "Bolt {bolt} got {reached} in pass {pass_}. Slacken it and pull it again."
            says.append(say("pull_high", text, reached=nm(reached), **where))
        elif reached < asked * (1 - circle.band_share):
            text = "Bolt {bolt} got only {reached} in pass {pass_}. Pull it again."
            says.append(say("pull_low", text, reached=nm(reached), **where))
    return says
