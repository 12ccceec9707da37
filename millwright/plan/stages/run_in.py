"""Run in under load and pulled again: rubber and joints settle, and a screw that was tight is so no more.

After the run it has been alive: it is locked out again, the guard comes off, each circle is gone over at full torque until
a whole round turned nothing, and everything that closes the work comes again.
"""

from ...card.meanings import RUN_IN
from ...card.values import source_of
from ...meaning import Meaning, Of, When
from ...say import say
from ...verdict import Check, Judged, judge, said_by_hand
from .. import torques
from ..circles import line_of, pulled
from ..families.facts import COUNT, TORQUE, Circle
from ..fields import REMOVED, Field, choice, number, out, text, tick
from ..order import Aside, Part
from ..steps import Answers, BenchForm, Fact, Happened, JobFacts, SheetForm, Stage, Step

RUN, OPENED = "close.run_in", "close.open"
RAN, LATER = "run under load", "cannot be stopped for it now"
AGAIN = Happened("run in", "it was run in again")
MINUTES = "rerun_minutes"
GUARD_SCREWS = "guard screws"


def wanted(job: JobFacts) -> bool:
    """By the family, unless the card says otherwise."""
    if not job.circles:
        return False
    stands = job.card.get("run_in")
    return stands.means == RUN_IN[0] if stands else job.family.runs_in or MINUTES in job.card


def steps(job: JobFacts) -> tuple[list[Part], list[Part]]:
    """What comes before everything that closes the work, and what comes after the start.

    Once it was run in, the pulls stand before the second pull: guard, locks and start come again after them. Until then they
    are not asked for: with the locks off, whatever wants hands on the machine wants it locked out first.
    """
    if not wanted(job):
        return [], []
    run = _run(job)
    if job.answers.get(RUN, {}).get("what") != RAN:
        return [], [run]
    return [Aside(run), _guard_off(), *(pull_again(job, circle) for circle in job.circles)], []


def _run(job: JobFacts) -> Step:
    return Step(
        key=RUN,
        means_by=lambda answers: (Meaning(of=Of.RUN_IN_LEFT_OPEN, field="due"),) if answers.get("what") == LATER else (),
        stage=Stage.CLOSE,
        title="Run it in under load",
        why="Rubber and joints settle under load. What was tight is pulled once more after it.",
        caution="Behind the guard. It stays there until it has stopped and is locked out again.",
        hands_on=False,
        judged_by=("run_in", MINUTES),
        relies=frozenset(pulled(circle) for circle in job.circles),
        changes=frozenset({AGAIN}),
        may_authorise=True,
        form=SheetForm(
            fields=(
                choice("what", "Run in", RAN, LATER),
                number("minutes", "Ran under load for", "min", _minutes_words(job), required=False),
                number("load", "Load", "%", required=False),
                Field(key="due", kind="date", label="To be pulled again by", detail="where it cannot be now", required=False),
                text("why", "Why not now", required=False),
            )
        ),
        judge=lambda job, answers: _judge(job, answers),
        on_fail="Run it, stop it, lock it out; or the lead signs for it with the day by which it is done.",
    )


def _minutes_words(job: JobFacts) -> str:
    return f"at least {job.card[MINUTES].value:g}" if MINUTES in job.card else "as its manual says"


def _judge(job: JobFacts, answers: Answers) -> Judged:
    if answers.get("what") == LATER:
        due = answers.get("due")
        name = f"pulled again by {due}" if due else "pulled again later: no day is named"
        text_ = "Not run in and pulled again yet. The lead signs for it, with the day by which it is done."
        return [_open(name)], [say("left_open", text_)]
    minutes = answers.get("minutes")
    if answers.get("what") != RAN:
        return [], []
    if minutes is None:
        return [_open("how long it ran is not said")], [say("how_long", "Say how long it ran under load.")]
    if MINUTES not in job.card:
        return [], []
    low, source = job.card[MINUTES].value, source_of(job.card, MINUTES)
    return [judge("run_in", "run under load", minutes, "min", low=low, high=None, source=source)], []


def _open(name: str) -> Check:
    return said_by_hand("run_in", name, "run in and pulled again", in_order=False)


def _guard_off() -> Step:
    return Step(
        key=OPENED,
        stage=Stage.CLOSE,
        title="Take the guard off again",
        why="Behind it are the screws that are pulled once more.",
        relies=frozenset({AGAIN}),
        form=SheetForm(
            fields=(
                tick("still", "It has stopped and is locked out"),
                out("screws", "Guard screws off", GUARD_SCREWS, REMOVED),
                tick("off", "Guard off and set aside"),
            ),
            ordered=True,
        ),
    )


def pull_again(job: JobFacts, circle: Circle) -> Step:
    torque, count = line_of(job, circle, TORQUE), line_of(job, circle, COUNT)
    known = count in job.card
    preset = torques.bolts_preset(job, torque, round(job.card[count].value), passes=[1.0]) if known else {}
    return Step(
        key=f"close.rerun.{circle.key}",
        means=(Meaning(of=Of.PULL, when=When.AFTER_RUNNING, at=circle.key),),
        stage=Stage.CLOSE,
        title=f"Pull the {circle.title} again, at full torque",
        why="Screw by screw: does it still turn? Done when a whole round turned nothing.",
        tool="torque wrench in calibration",
        caution=torques.thread_words(job, torque),
        needs=(count, torque),
        relies=frozenset({AGAIN}),
        changes=frozenset({Fact.FASTENERS}),
        may_authorise=True,
        form=BenchForm(bench="tighten", preset={**preset, "until_still": True} if preset else {}),
        on_fail="A screw that will not come to its torque: stop, take it out, look at its thread.",
    )
