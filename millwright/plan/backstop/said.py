"""Which way a backstop lets go: said by two people, each for himself, and the free way that follows from it."""

from pydantic import ValidationError

from ...benches.backstop import WAY_WORDS, GearTrain, agree
from ..steps import Answers, BenchForm, Happened, JobFacts, Stage, Step

WAY, WAY_AGAIN = "backstop.way", "backstop.way_again"
SAID_ANEW = Happened("turning said", "which way the output turns was said anew")
NOT_AGREED = Happened("turning not agreed", "the two who said which way it turns did not agree")


def train_of(answers: Answers) -> GearTrain | None:
    """What somebody said of the gear train; None where it was not said."""
    try:
        return GearTrain.model_validate({key: answers.get(key) for key in GearTrain.model_fields})
    except ValidationError:
        return None


def free_way(job: JobFacts) -> str:
    """Which way the backstop's shaft has to turn, from its own side, as two people said; empty where they did not yet."""
    train = train_of(job.answers.get(WAY_AGAIN, {}))
    return WAY_WORDS[train.shaft_rotation] if train else ""


def way(job: JobFacts) -> list[Step]:
    """Two people say it, each for himself and from where each stands; then it must agree."""
    first = job.answers.get(WAY, {})
    said = train_of(first)
    beside = {"said_before": said.model_dump()} if said else {}
    why = "Put in for the wrong way it wrecks the gears at the first start, or lets the load go."
    return [
        Step(
            key=WAY,
            stage=Stage.BACKSTOP,
            title="Say which way the output has to turn",
            why=f"{why} Two people say it, each for himself; the first answer stays covered until the second is in.",
            tool="a chalk arrow on the output, the unit's drawing with its gears",
            caution="Enter the side you look from before the direction.",
            changes=frozenset({SAID_ANEW}),
            relies=frozenset({NOT_AGREED}),
            form=BenchForm(bench="backstop"),
        ),
        Step(
            key=WAY_AGAIN,
            stage=Stage.BACKSTOP,
            title="Second person: say which way the output has to turn",
            why=f"{why} Look for yourself, from the other side if you can; do not ask what was entered.",
            tool="a chalk arrow on the output, the unit's drawing with its gears",
            caution="Signed in as yourself, not as the one before you.",
            second_to=WAY,
            relies=frozenset({SAID_ANEW}),
            form=BenchForm(bench="backstop", compare=beside),
            upsets=lambda job, answers: _upset(said, answers),
            on_fail="Both go to the unit, turn the output by hand, count the meshes; then the first of you enters it anew.",
        ),
    ]


def first_says(job: JobFacts) -> Step:
    """One of the two."""
    return way(job)[0]


def second_says(job: JobFacts) -> Step:
    """The other, who has not seen what the first said."""
    return way(job)[1]


def _upset(said: GearTrain | None, answers: Answers) -> frozenset[Happened]:
    again = train_of(answers)
    return frozenset({NOT_AGREED}) if said and again and not agree(said, again) else frozenset()
