"""Which way the shaft of a backstop has to turn, from the output, the meshes between and the side one stands on."""

from collections.abc import Mapping
from typing import Literal

from pydantic import Field

from ..model import Model
from ..say import Say, say
from ..verdict import Check, Result, WorkLine, said_by_hand, work, worst

Way = Literal["cw", "ccw"]
Seen = Literal["input side", "output side"]
WAY_WORDS: Mapping[str, str] = {"cw": "clockwise", "ccw": "counter-clockwise"}
OTHER_WAY: dict[Way, Way] = {"cw": "ccw", "ccw": "cw"}
MOST_MESHES = 12


class GearTrain(Model):
    """What somebody sees who stands at a gear unit with parallel shafts."""

    output_rotation: Way = Field(description="which way the output has to turn")
    seen_from: Seen = Field(description="the side one stands on while saying so")
    meshes: int = Field(ge=0, le=MOST_MESHES, description="external gear meshes between backstop shaft and output hub")
    backstop_on: Seen

    def output_seen_from(self, side: Seen) -> Way:
        """The output's rotation for somebody on that side. Source: geometry, from behind it turns the other way."""
        return self.output_rotation if self.seen_from == side else OTHER_WAY[self.output_rotation]

    @property
    def shaft_rotation(self) -> Way:
        """The backstop shaft's rotation, from its own side. Source: geometry, each external mesh turns it round."""
        way = self.output_seen_from(self.backstop_on)
        return OTHER_WAY[way] if self.meshes % 2 else way


class BackstopInput(GearTrain):
    """A gear train as one person sees it; ``said_before`` is the same said by another, to be held against it."""

    said_before: GearTrain | None = None


class ShaftOfTrain(Model):
    """One shaft of the train, and which way it turns for somebody on the backstop's side."""

    called: Literal["output", "between", "backstop", "output and backstop"]
    turns: Way


class BackstopResult(Result):
    """The way the race has to turn freely; `train` runs from the output to the backstop."""

    shaft_rotation_seen_from_backstop: Way
    output_seen_from_backstop: Way
    train: list[ShaftOfTrain]
    said_before: GearTrain | None


def evaluate(given: BackstopInput) -> BackstopResult:
    """The free way of the backstop's shaft, and whether two who said it for themselves saw the same."""
    checks, disagree = _held_against(given)
    way = WAY_WORDS[given.shaft_rotation]
    text = "Seen from the {side}, the backstop's shaft must turn {way}, and so must the arrow on its race."
    return BackstopResult(
        bench="backstop",
        verdict=worst(checks),
        checks=checks,
        says=[*disagree, say("free_way", text, side=given.backstop_on, way=way)],
        working=_working(given),
        shaft_rotation_seen_from_backstop=given.shaft_rotation,
        output_seen_from_backstop=given.output_seen_from(given.backstop_on),
        train=_train(given),
        said_before=given.said_before,
    )


def agree(one: GearTrain, other: GearTrain) -> bool:
    """Both saw the same unit turn the same way, wherever each of them stood."""
    return not _differs(one, other)


def _differs(one: GearTrain, other: GearTrain) -> dict[str, tuple[str, str]]:
    """What two people said otherwise: code → the words of the one and of the other."""
    sides = (one.backstop_on, other.backstop_on)
    meshes = tuple(f"{train.meshes}" for train in (one, other))
    output = tuple(WAY_WORDS[train.output_seen_from("output side")] for train in (one, other))
    arrow = tuple(WAY_WORDS[train.shaft_rotation] for train in (one, other))
    said = {"output": output, "meshes": meshes, "side": sides, "arrow": arrow}
    return {code: (a, b) for code, (a, b) in said.items() if a != b}


NAMES = {
    "output": "the output turns, seen from the output side",
    "meshes": "meshes between",
    "side": "the backstop is on the",
    "arrow": "the backstop's shaft turns",
}


def _held_against(given: BackstopInput) -> tuple[list[Check], list[Say]]:
    if given.said_before is None:
        return [], []
    differs = _differs(given.said_before, given)
    source = "two people, each for himself"
    if not differs:
        return [said_by_hand("agree", "both said the same", source, in_order=True)], []
    checks = [
        said_by_hand(code, f"{NAMES[code]}: {before} said the one, {now} the other", source, in_order=False)
        for code, (before, now) in differs.items()
    ]
    text = "You do not agree. Go to the unit together, turn it by hand, and then each enters it anew."
    return checks, [say("do_not_agree", text)]


def _train(given: GearTrain) -> list[ShaftOfTrain]:
    if given.meshes == 0:
        return [ShaftOfTrain(called="output and backstop", turns=given.shaft_rotation)]
    turns = given.output_seen_from(given.backstop_on)
    shafts = [ShaftOfTrain(called="output", turns=turns)]
    for i in range(given.meshes):
        turns = OTHER_WAY[turns]
        shafts.append(ShaftOfTrain(called="backstop" if i == given.meshes - 1 else "between", turns=turns))
    return shafts


def _working(given: GearTrain) -> list[WorkLine]:
    sides = "the same side" if given.seen_from == given.backstop_on else "from behind it turns the other way"
    meshes = "odd, turned round" if given.meshes % 2 else "even, the same way"
    formula = "each mesh turns it round; so does looking from behind"
    numbers = (
        f"{WAY_WORDS[given.output_rotation]} from the {given.seen_from}; {sides}; {meshes}: {WAY_WORDS[given.shaft_rotation]}"
    )
    return [work("shaft", "the backstop's shaft", formula, numbers, float(given.meshes), "meshes")]
