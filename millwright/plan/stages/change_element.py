"""The element changed while both hubs stay on: the old one counted out, the new one held against it, and whether any of it
moved a machine."""

from ...meaning import GOES_BACK_IN, Meaning, Of, When
from ...roles import Role
from ...say import say
from ...scope import Scope
from ...units import MM_PER_INCH
from ...verdict import Judged, said_by_hand
from ..families.facts import Element
from ..fields import choice, condition, count, text, tick
from ..order import Part, in_order
from ..steps import Answers, JobFacts, SheetForm, Stage, Step
from . import set_and_align
from .inspect_parts import ALIKE, judge_alike

OLD, NEW, MOVED = "off.old", "off.new", "set.moved"
SCRAP, BACK_IN = "scrap, and marked so", "whole: it goes back in"
NO_NUMBER = "where there is none, write none"
NO, YES = "no", "yes"
STAYED, SLID = "stayed where it was", "was slackened or moved"
LIFE = "life"  # what is kept of the old one's life: since when it ran, what its mark showed last


def only_the_element(job: JobFacts) -> bool:
    """Both hubs stay on."""
    return job.scope is Scope.ELEMENT


def more_than_the_element(job: JobFacts) -> bool:
    """A hub comes off or goes on, or the machines are aligned."""
    return not only_the_element(job)


def machine_moved(job: JobFacts) -> bool:
    """It was said that a machine was moved or a foot slackened."""
    return job.answers.get(MOVED, {}).get("machine") == YES


def hub_moved(job: JobFacts) -> bool:
    """It was said that the hub the gap is trimmed with was slackened or moved."""
    return job.answers.get(MOVED, {}).get("hub") == SLID


def changed(job: JobFacts) -> Part:
    """After the old element is out and before the new one goes in."""
    element = job.family.element
    if element is None:
        return in_order()
    new = [_new(element, job)] if job.answers.get(OLD, {}).get("fate") != BACK_IN else []
    return in_order(_old(element, job), *new, _moved(job))


def _old(element: Element, job: JobFacts) -> Step:
    return Step(
        key=OLD,
        means_by=lambda answers: (_went_out(answers),),
        stage=Stage.TAKE_OFF,
        title=f"Count the old {element.called} out, and look at what it ran on",
        why="What lies on the bench is not in the coupling any more. What it looks like tells what it ran with.",
        tool="torch, cloth, box for the scrap",
        photograph="the old one, its wear, the seats it came from",
        form=SheetForm(
            fields=(
                count("out", element.counted, _life(job), expected=element.pieces, of="as many as one coupling has"),
                text("number", "Number, batch or marking on it", NO_NUMBER),
                choice(
                    "fate", "Old part", SCRAP, BACK_IN, detail="scrap is marked and set aside, so that it never goes in again"
                ),
                tick("clean", element.clean),
                condition("hubs", element.seats),
                text("seen", "What was seen, and the likely reason", required=False),
            )
        ),
        on_fail="A hub that is hurt is a job of its own: take it off and fit it.",
    )


def _went_out(answers: Answers) -> Meaning:
    stays = answers.get("fate") == BACK_IN
    return Meaning(of=Of.ELEMENT_OUT, when=When.FOUND, at=GOES_BACK_IN if stays else "")


def _life(job: JobFacts) -> str:
    """How long the old one ran and how far it was worn: the next one starts its own trend at its own zero."""
    life = job.as_left.get(LIFE, {})
    if "days" not in life:
        return ""
    ran = f"in since {life['since']} (job {life['job']}): {life['days']} days"
    mark, zero = life.get("mark_mm"), job.as_left.get(Of.WEAR_MARK, {}).get("zero_mm")
    if not isinstance(mark, int | float) or not isinstance(zero, int | float):
        return ran
    worn = abs(mark - zero)
    return f"{ran}; worn {worn:.2f} mm ({worn / MM_PER_INCH:.3f} in) at the mark on {life['read']}"


def _new(element: Element, job: JobFacts) -> Step:
    number = (
        ()
        if element.numbered_in
        else (text("number", "Number, batch or marking on the new one", NO_NUMBER, means=Meaning(of=Of.ELEMENT_IN)),)
    )
    return Step(
        key=NEW,
        stage=Stage.TAKE_OFF,
        title=f"Hold the new {element.called} against the old",
        why="Like for like. Another type or size was never chosen for this place.",
        may_authorise=True,
        form=SheetForm(
            fields=(
                choice("alike", "The new one is", *ALIKE, detail="material, width, number of legs, teeth, holes"),
                *number,
            )
        ),
        judge=lambda job, answers: _judge_new(job, answers),
        on_fail="Put it back, or let the lead authorise it with a reason.",
    )


def _judge_new(job: JobFacts, answers: Answers) -> Judged:
    checks, says = judge_alike({"alike": answers.get("alike")})
    held, said = judge_number(job, answers.get("number"))
    return [*checks, *held], [*says, *said]


def judge_number(job: JobFacts, number: object) -> Judged:
    """A set that was counted out as scrap does not go in again: in this job, or in the one before it."""
    marked = str(number or "").strip().casefold()
    out = [job.answers.get(OLD, {}), job.as_left.get(Of.ELEMENT_OUT, {})]
    scrap = {str(old.get("number") or "").strip().casefold() for old in out if old.get("fate") == SCRAP}
    if marked in {"", "none"} or marked not in scrap:
        return [], []
    text = "{number} was counted out of this line as scrap. It does not go in again."
    check = said_by_hand("scrapped", f"{number} is scrap", "counted out of this line", in_order=False)
    return [check], [say("scrapped", text, number=str(number))]


def _moved(job: JobFacts) -> Step:
    hub = (
        (choice("hub", f"The {job.line.machine(job.second()).called} hub on its shaft", STAYED, SLID),)
        if job.closes_by_hub
        else ()
    )
    return Step(
        key=MOVED,
        stage=Stage.SET,
        title="Say whether a machine was moved",
        why="Where none was, the alignment is as it was left, and one reading proves it. Else it is all read again.",
        hold=Role.MILLWRIGHT,
        form=SheetForm(
            fields=(
                choice("machine", "Was a machine moved, or a foot slackened?", NO, YES),
                text("why", "Why it was moved", required=False),
                *hub,
            )
        ),
        judge=lambda job, answers: _judge_moved(answers),
        on_fail="Say why: the next one asks whether it is this machine that wanders.",
    )


def _judge_moved(answers: Answers) -> Judged:
    if answers.get("machine") != YES or answers.get("why"):
        return [], []
    check = said_by_hand("why_moved", "why it was moved is not said", "the person who did it", in_order=False)
    return [check], [say("why_moved", "Say in a few words why a machine was moved.")]


def stands_in(job: JobFacts) -> list[Step]:
    """One reading in place of the whole alignment; where the closed coupling proves itself, none."""
    if job.family.closed is not None:
        return []
    return [set_and_align.read_once(job, "Say that a machine was moved, and align it: the new element is not run on it.")]
