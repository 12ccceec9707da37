"""What a job found and what it left, in a few lines: the head of its record."""

import re
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Any

from ..say import NOTHING, Words

POSITION = ("gap", "straightedge", "alignment")  # benches that say where the machines stand
WORST_PLACE = re.compile(r"^gap at [^,]+")  # where every reading counts, the worst one lies elsewhere each time
WORKED_OUT = ("sheet", "heat")  # ticked, or planned: no reading of what was left
CURED = ("softfoot", "runout")  # read again and again until what they find is cured


@dataclass(frozen=True, kw_only=True)
class Read:
    """One reading: the key and title of its step, what the bench said, and why that no longer counts, if so."""

    step: str
    title: str
    result: Mapping[str, Any]
    overtaken: Words = NOTHING


@dataclass(frozen=True, kw_only=True)
class SummaryLine:
    """One judged figure: ``found`` at first, ``left`` at last; they are the same where it was read once.

    ``overtaken`` says why what was read last is no longer what is left; empty where it is.
    """

    what: str
    found: float | None
    left: Mapping[str, Any]  # the last check, as in the result
    overtaken: Words = NOTHING


def summary(readings: Iterable[Read]) -> list[SummaryLine]:
    """The judged figures of a job, in the order of its steps.

    Where machines stand, a check is followed from its first reading to its last, over all steps that read it.
    Elsewhere each step gives its worst check as last read.
    """
    first: dict[str, float | None] = {}
    last: dict[str, tuple[str, Mapping[str, Any], Words]] = {}
    for read in readings:
        judged = [c for c in read.result.get("checks", []) if c["value"] is not None and c["status"] != "not judged"]
        bench = read.result.get("bench", "")
        if bench in POSITION:
            for check in judged:
                what = (
                    "gap, every reading"
                    if check.get("code") == "each"
                    else WORST_PLACE.sub("gap, every reading", check["name"])
                )
                first.setdefault(f"{bench} {what}", check["value"])
                last[f"{bench} {what}"] = (what, check, read.overtaken)
        elif judged and bench not in WORKED_OUT:
            # Bolts: the last pass is what is left on them.
            check = judged[-1] if bench == "tighten" else max(judged, key=lambda c: c["used"] or 0.0)
            if bench in CURED:
                first.setdefault(read.step, check["value"])
            last[read.step] = (read.title, check, read.overtaken)
    return [
        SummaryLine(what=what[0].upper() + what[1:], found=first.get(key), left=check, overtaken=overtaken)
        for key, (what, check, overtaken) in last.items()
    ]
