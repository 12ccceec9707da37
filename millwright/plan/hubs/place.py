"""Where a hub sits on its shaft: one wanted stand-out, judged wherever it is read."""

from dataclasses import dataclass

from ...card.values import source_of
from ...line import Side
from ...verdict import Judged, judge
from ..families.facts import PLACE_VALUES
from ..steps import Answers, JobFacts
from . import keyed

WANTED, WIDTH = PLACE_VALUES
WITHIN_MM = 0.5  # rule of thumb: what a straightedge and a rule tell of a face


@dataclass(frozen=True, kw_only=True)
class Place:
    """How far the shaft end is to stand out of the hub face; minus: set back."""

    standout_mm: float
    plus_minus_mm: float
    source: str


def wanted(job: JobFacts, side: Side) -> Place | None:
    """By the card; else as the family worked it out; else where the hub sat when it came off. None where nobody says."""
    key, width = job.key(WANTED, side), job.key(WIDTH, side)
    within = job.card[width].value if width in job.card else WITHIN_MM
    told = source_of(job.card, width) if width in job.card else "± by rule of thumb"
    if key in job.card:
        return Place(standout_mm=job.card[key].value, plus_minus_mm=within, source=source_of(job.card, key))
    worked_out = job.family.sits_at(job, side) if job.family.sits_at else None
    if worked_out is not None:
        return Place(standout_mm=worked_out, plus_minus_mm=within, source=f"worked out for this machine; {told}")
    found = job.answers.get(keyed.AS_FOUND, {}).get(f"standout_{side}_mm")
    if isinstance(found, int | float):
        return Place(standout_mm=found, plus_minus_mm=within, source=f"as found before it came off; {told}")
    return None


def judge_place(job: JobFacts, side: Side, answers: Answers) -> Judged:
    """The stand-out that was read against the one that is wanted."""
    read, place = answers.get("standout_mm"), wanted(job, side)
    if place is None or not isinstance(read, int | float):
        return [], []
    low, high = place.standout_mm - place.plus_minus_mm, place.standout_mm + place.plus_minus_mm
    return [judge("standout", "stand-out of the shaft end", read, "mm", low=low, high=high, source=place.source)], []
