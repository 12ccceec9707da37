"""A reading among those of many years, and where it was taken."""

from dataclasses import dataclass
from datetime import datetime

from .past import PastJob


@dataclass(frozen=True, kw_only=True)
class Point:
    """One reading of a series; ``where`` it was taken: a round, or a job by its number."""

    at: datetime
    value: float
    plus_minus: float | None
    where: str
    job: str = ""  # its id


def called(job: PastJob) -> str:
    """A job, as the place of a reading."""
    return f"job {job.number}"
