"""Any step of any job, answered by a hand that reads what is asked; and what a line's own story says instead."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from random import Random
from typing import Any

from millwright.plan.steps import SheetForm, Step, form_as_shown
from millwright.rig.hand import Hand
from server.jobs.models import Job

Answers = dict[str, Any]
SAID_BY_HAND = ("tick", "condition", "marks")  # whatever word a story has for such a thing elsewhere

# What people of this site write.
WORDS: Mapping[str, Any] = {
    "who": "J. Thornquist",
    "wrench": "Wrench 3",
    "wrench_until": "2027-03-31",
    "reason": "clearance inside the band, key free, hub turned by hand",
    "found": "nothing else",
}


@dataclass(frozen=True, kw_only=True)
class Told:
    """What the story of a job says itself.

    ``read``  - by step, or by step without its hub: what was read there, all of it
    ``words`` - by field, or by field and hub ("surface@driver"), what every sheet says that asks it
    ``said``  - by step, what is said there otherwise than by the hand
    """

    read: Mapping[str, Answers] = field(default_factory=dict)
    words: Mapping[str, Any] = field(default_factory=dict)
    said: Mapping[str, Mapping[str, Any]] = field(default_factory=dict)


NOTHING_TOLD = Told()


def in_order(job: Job, told: Told) -> Callable[[Step], Answers]:
    """Answers for one job: as it is told, and well done where nothing is."""
    hand = Hand(spec=job.spec, unit="mm", chance=Random(job.line.name), thorough=False)

    def fill(step: Step) -> Answers:
        if (story := told.read.get(step.key) or told.read.get(step.key.rpartition(".")[0])) is not None:
            return story
        shown = {"title": step.title, "second_to": step.second_to, "form": form_as_shown(step.form)}
        fields = step.form.fields if isinstance(step.form, SheetForm) else ()
        hub = step.key.rpartition(".")[2]
        words = {**WORDS, **told.words}
        worded = [f for f in fields if f.kind not in SAID_BY_HAND]
        own = {f.key: words[word] for f in worded for word in (f.key, f"{f.key}@{hub}") if word in words}
        return {**hand.answer(shown, job.card).inputs, **own, **told.said.get(step.key, {})}

    return fill
