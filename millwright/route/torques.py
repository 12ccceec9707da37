"""A torque of the value card in a step: how much, on what threads, and the bolts it is pulled on."""

from collections.abc import Sequence
from typing import Any

from ..card.values import source_of
from .steps import JobFacts

RISING = (0.5, 0.75, 1.0)


def torque_words(job: JobFacts, key: str) -> str:
    """The torque with its unit; empty where the card lacks it."""
    return f"{job.card[key].value:g} N·m" if key in job.card else ""


def thread_words(job: JobFacts, key: str) -> str:
    """How the threads have to be for this torque; empty where the card lacks it."""
    thread = job.card[key].means if key in job.card else ""
    return f"Threads {thread}, as the value card says." if thread else ""


def bolts_preset(
    job: JobFacts, key: str, bolts: int, *, passes: Sequence[float] = RISING, pattern: str = "star"
) -> dict[str, Any]:
    """What the tighten bench is given for bolts that get this torque; empty where the card lacks it."""
    if key not in job.card:
        return {}
    return {
        "bolts": bolts,
        "torque_nm": job.card[key].value,
        "torque_source": source_of(job.card, key),
        "passes": list(passes),
        "pattern": pattern,
    }
