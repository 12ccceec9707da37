"""What entries are of, as they are stored: by what they say themselves, or by the step of those from before."""

from collections.abc import Collection, Iterable, Mapping
from typing import Any

from django.db.models import Q

from millwright.job.formerly import BY_KEY, formerly
from millwright.meaning import Meaning, Of, When, kept
from millwright.plan.stages.as_found import LEFT_BEHIND


def meant_by(step: str, means: Iterable[Mapping[str, Any]] | None, inputs: Mapping[str, Any]) -> tuple[Meaning, ...]:
    """What a reading is of. ``means`` - as it is kept with it; None of one that was made before it was."""
    return formerly(step, inputs) if means is None else kept(means)


def left_behind() -> Q:
    """Readings that a later job on the line compares with."""
    found = Q()
    for of, when in LEFT_BEHIND.items():
        found |= is_of(of, when=when)
    return found


def is_of(*wanted: Of, when: Collection[When] = tuple(When)) -> Q:
    """Readings that are of one of these."""
    said = Q()
    for of in wanted:
        for at in when:
            said |= Q(asked__means__contains=[{"of": of.value, "when": at.value}])
    before = [step for step, means in BY_KEY.items() if any(one.of in wanted and one.when in when for one in means)]
    return Q(kind="reading") & (said | (Q(step__in=before) & ~Q(asked__has_key="means")))
