"""A torque of the value card in a step: how much, on what threads, and the bolts it is pulled on."""

from collections.abc import Sequence
from typing import Any, Literal

from ..bolt_order import RISING
from ..card.values import source_of
from ..say import say
from ..verdict import Judged, said_by_hand
from .fields import Field, choice
from .steps import Answers, Happened, JobFacts

NONE_MOVED, SOME_MOVED = "none moved", "some moved"


def torque_words(job: JobFacts, key: str) -> str:
    """The torque with its unit; empty where the card lacks it."""
    return f"{job.card[key].value:g} N·m" if key in job.card else ""


def thread_words(job: JobFacts, key: str) -> str:
    """How the threads have to be for this torque; empty where the card lacks it."""
    thread = job.card[key].means if key in job.card else ""
    return f"Threads {thread}, as the value card says." if thread else ""


def bolts_preset(
    job: JobFacts, key: str, bolts: int, *, passes: Sequence[float] | Literal["half turns"] = RISING, pattern: str = "star"
) -> dict[str, Any]:
    """What the tighten bench is given for bolts that get this torque; empty where the card lacks it."""
    if key not in job.card:
        return {}
    return {
        "bolts": bolts,
        "torque_nm": job.card[key].value,
        "torque_source": source_of(job.card, key),
        "passes": passes if isinstance(passes, str) else list(passes),
        "pattern": pattern,
    }


def checked_again(job: JobFacts, key: str, title: str, torque: str, *, count: str = "") -> Field:
    """The line of the second pull: how many, to what, on which threads. ``torque``, ``count`` - lines of the card."""
    many = f"{job.card[count].value:g}" if count in job.card else ""
    thread = job.card[torque].means if torque in job.card else ""
    detail = ", ".join(filter(None, [many, torque_words(job, torque), f"threads {thread}" if thread else ""]))
    return choice(key, f"{title[0].upper()}{title[1:]}", NONE_MOVED, SOME_MOVED, detail=detail)


def moved(key: str, title: str = "") -> Happened:
    """What makes the first pull stale once the second one found that something turned. ``key`` - of its line there."""
    return Happened(f"moved: {key}", f"some moved at the second pull: {title[:1].lower()}{title[1:]}")


def upset_by(screws: tuple[Field, ...], answers: Answers) -> frozenset[Happened]:
    """What the second pull found to have moved."""
    return frozenset(moved(field.key, field.label) for field in screws if answers.get(field.key) == SOME_MOVED)


def judge_again(screws: tuple[Field, ...], answers: Answers) -> Judged:
    """Over where anything moved: it is pulled in its own step again, then everything is checked again."""
    turned = [field.label for field in screws if answers.get(field.key) == SOME_MOVED]
    checks = [said_by_hand("pulled_again", label, "the person who pulled it: some moved", in_order=False) for label in turned]
    text = "{what}: some moved. They are pulled in their own step again."
    return checks, [say("some_moved", text, what=label) for label in turned]
