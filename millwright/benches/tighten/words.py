"""What the tightening says: the next pull, what was passed over, what is done between rounds; and its working."""

from collections.abc import Mapping

from ...say import Say, bare, nm, number, say, words
from ...verdict import WorkLine, work
from .half_turns import Rounds
from .io import TightenInput, Turn
from .pulls import Circle, Pull, say_pulls
from .wrench import say_wrench, working_of_setting

USUAL_ROUNDS = 6  # rule of thumb: a clean device stops turning sooner


def say_passes(
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
    return [*advice, *say_wrench(given)]


def say_half_turns(given: TightenInput, rounds: Rounds, following: Turn | None) -> list[Say]:
    if following is None:
        return [say("nothing_turned", "A whole round turned nothing: every bolt is at its torque."), *say_wrench(given)]
    text = "Screw {bolt}: half a turn, or until it clicks at {to}. Round {round}."
    return [
        say("next_half_turn", text, bolt=following.name, to=nm(following.torque_nm), round=str(rounds.round)),
        *say_wrench(given),
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


def working_of_passes(given: TightenInput, shares: list[float], factor: float) -> list[WorkLine]:
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
    return [*lines, *working_of_setting(given, "", given.torque_nm, factor)]


def working_of_turns(given: TightenInput, factor: float) -> list[WorkLine]:
    """The torque each circle comes to, and what the wrench is set to for it."""
    circles = [("", given.torque_nm)]
    if given.beside is not None:
        first, second = (f", {letter} {title}".rstrip() for letter, title in (("A", given.title), ("B", given.beside.title)))
        circles = [(first, given.torque_nm), (second, given.beside.torque_nm)]
    lines: list[WorkLine] = []
    for which, torque in circles:
        lines.append(work("torque", f"torque{which}", "as the card has it", "", torque, "N·m"))
        lines += working_of_setting(given, which, torque, factor)
    return lines
