"""Which way the motor turns, proved with the shafts apart where the wrong way would wreck what stands behind it."""

from ...card.meanings import CLOCKWISE, COUNTER_CLOCKWISE, TURNS
from ...card.values import source_of
from ...line import LineSpec
from ...roles import Role
from ...say import say
from ...scope import Scope
from ...verdict import Judged, said_by_hand
from ..fields import Field, choice, tick
from ..steps import Answers, JobFacts, SheetForm, Stage, Step

MOTOR_TURNS = "motor_turns"
WRECKED = ("pump", "auger")  # driven the wrong way they unscrew or run dry
ASKED = (*WRECKED, "fan", "blower", "elevator")
BELT_ON = tick("belt", "Belt or chain back on its input, tension as its own card has it", none_of="motor built on")
BUILT_ON = "motor built on: bumped before it drives anything"
APART = ("the motor is off the unit", "no race is in yet, and the unit drives no load")
FROM_DRIVE_END, FROM_FAN_END = SEEN_FROM = ("drive end", "fan end")
OTHER = {CLOCKWISE: COUNTER_CLOCKWISE, COUNTER_CLOCKWISE: CLOCKWISE}


def asked_of(line: LineSpec) -> bool:
    """Whether it matters on this line which way the motor turns: then its card asks."""
    return line.coupling.family == "screw-conveyor drive" or line.driven.drawn_as in ASKED


def is_proved(job: JobFacts, *, backstop: bool) -> bool:
    """Whether the direction is proved in this job: it has to be, or the card says which way. An engine turns one way."""
    if job.scope not in (Scope.FIT, Scope.REFIT, Scope.BACKSTOP) or job.line.driver.drawn_as == "engine":
        return False
    screw = job.line.coupling.family == "screw-conveyor drive"
    return backstop or screw or job.line.driven.drawn_as in WRECKED or MOTOR_TURNS in job.card


def _is_apart(*, backstop: bool, built_on: bool) -> tuple[Field, ...]:
    """That it drives nothing: of a motor that is built on it cannot be said that it is uncoupled."""
    if built_on:
        return (choice("apart_by", "It drives nothing, because", *APART),)
    if backstop:
        return (tick("apart", "Nothing coupled to it: belt off; a motor that is built on, off the unit"),)
    return (tick("apart", "Nothing coupled to it: belt off, or coupling open and the shafts apart", none_of=BUILT_ON),)


def steps(job: JobFacts, stage: Stage, prefix: str, *, backstop: bool = False, built_on: bool = False) -> list[Step]:
    """The proof, where it is asked for. ``backstop`` - there is one on the shaft line, and the lead signs; ``built_on`` -
    the motor is built on the unit it goes into."""
    if not is_proved(job, backstop=backstop):
        return []
    driver = job.line.driver
    motor = driver.called if driver.drawn_as == "motor" else "motor"
    behind = "a backstop" if backstop else f"the {job.line.driven.called}"
    return [
        Step(
            key=f"{prefix}.turns",
            stage=stage,
            title=f"Prove which way the {motor} turns, uncoupled",
            why=f"With {behind} behind it the wrong way round wrecks more than it teaches. Once, bare, before it is coupled.",
            tool="fence or guard for the bare shaft, a chalk line on it",
            caution="Power against a backstop destroys it: belt off, coupling open; a motor built on comes off the unit."
            if backstop
            else "A loose key flies out. Everybody clear before anybody presses.",
            hold=Role.LEAD if backstop else None,
            needs=(MOTOR_TURNS,),
            form=SheetForm(
                ordered=True,
                fields=(
                    *_is_apart(backstop=backstop, built_on=built_on),
                    tick("secured", "Key and screws of its hub secured, or the hub off"),
                    tick("fenced", "Bare shaft guarded or fenced, everybody clear"),
                    tick("off", "Locks off, each by its owner"),
                    tick("bumped", "Bumped: one touch, and it runs down"),
                    choice("seen_from", "Watched from its", *SEEN_FROM),
                    choice("turned", "It turned", *TURNS),
                    tick("on", "Locks and tags back on, each by its owner"),
                    tick("dead", "Start tried again: it stayed dead"),
                    *([BELT_ON] if job.family.hangs and not backstop else []),
                ),
            ),
            judge=lambda job, answers: _judge(job, answers),
            on_fail="Whoever is authorised to changes two phases over; then bump it again and enter it anew.",
        )
    ]


def from_drive_end(seen_from: str, turned: str) -> str:
    """The same rotation for somebody at the drive end. Source: geometry, from behind it turns the other way."""
    return turned if seen_from == FROM_DRIVE_END else OTHER[turned]


def _judge(job: JobFacts, answers: Answers) -> Judged:
    seen, turned = answers.get("seen_from"), answers.get("turned")
    if seen not in SEEN_FROM or turned not in TURNS or MOTOR_TURNS not in job.card:
        return [], []
    specified, found = job.card[MOTOR_TURNS].means, from_drive_end(str(seen), str(turned))
    good = found == specified
    name = f"turns {found}, seen from its drive end; specified {specified}"
    check = said_by_hand("turns", name, source_of(job.card, MOTOR_TURNS), in_order=good)
    text = "It turns {found}, seen from its drive end: the wrong way. Nothing is coupled to it like this."
    return [check], [] if good else [say("wrong_way", text, found=found)]
