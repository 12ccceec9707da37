"""What came off is looked at, part by part; what is replaced is replaced like for like."""

from ...say import say
from ...scope import Scope
from ...verdict import Judged, said_by_hand
from ..fields import choice, condition, text, tick
from ..steps import Answers, JobFacts, SheetForm, Stage, Step

GREASE = "grease"  # of a family's parts the one that does not come off whole
BACK, REPLACE, REWORK = FATES = ("goes back on", "replace it", "rework it")
SAME, ANOTHER = ALIKE = ("the same type and size", "another: the lead decides")


def steps(job: JobFacts) -> list[Step]:
    """A fate for every part that came off; then each new part against the old one."""
    refit = job.scope is Scope.REFIT
    fates = job.answers.get("off.inspect", {})
    came_off = [part for part in job.parts if part.key != GREASE]
    new = [part for part in came_off if fates.get(part.key) == REPLACE]
    inspect = Step(
        key="off.inspect",
        stage=Stage.TAKE_OFF,
        title="Look at every part that came off",
        why="A hurt part that goes back on fails again. What is not used again is marked, so that it stays out.",
        form=SheetForm(
            fields=(
                *(choice(part.key, part.title, *FATES, detail=part.look_for) for part in came_off),
                condition("seats", "Shaft seats and keyways", "fretting, cracks, burrs"),
                tick("oiled", "Bare metal protected against corrosion"),
                tick("scrap", "What does not go back is marked and set aside"),
                text("found", "What was found, and the likely reason", required=False),
            )
        ),
        judge=lambda job, answers: _judge_parts(answers),
        on_fail="Order the part or have it reworked before anything goes back on.",
    )
    if not refit or not new:
        return [inspect]
    alike = Step(
        key="off.like",
        stage=Stage.TAKE_OFF,
        title="Compare each new part with the one it replaces",
        why="Like for like. Another type or size was never chosen for this place: the lead decides, with a reason.",
        may_authorise=True,
        form=SheetForm(fields=tuple(choice(part.key, part.title, SAME, ANOTHER, detail="new against old") for part in new)),
        judge=lambda job, answers: judge_alike(answers),
        on_fail="Put it back, or let the lead authorise it with a reason.",
    )
    return [inspect, alike]


def _judge_parts(answers: Answers) -> Judged:
    """A part to be reworked stops the job until it is; one to be replaced does not."""
    waits = [key for key, fate in answers.items() if fate == REWORK]
    if not waits:
        return [], []
    return [said_by_hand("rework", "parts to rework", "the person who looked", in_order=False)], [
        say("rework", "Rework it, look again, then say what becomes of it.")
    ]


def judge_alike(answers: Answers) -> Judged:
    """Like for like, or for the lead."""
    if ANOTHER not in answers.values():
        return [], []
    return [said_by_hand("alike", "like for like", "this line's register", in_order=False)], [
        say("another_part", "Another type or size needs the lead and a reason.")
    ]
