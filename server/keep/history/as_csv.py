"""The history of lines as CSV: one row for everything that was found, left, fitted, pulled, filled or seen."""

import csv
import io
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass

from millwright.keep.past import KeptLine, PastJob
from millwright.keep.told import Told, told
from server.plant.models import Line

from ..aside import Aside, papers_of, sieved
from ..read import kept_lines, past_jobs

HEAD = ("line", "job", "closed", "scope", "reason", "what", "name", "found", "left", "unit", "status", "by")
Row = tuple[object, ...]
FORMULA = ("=", "+", "-", "@", "\t", "\r")  # what a spreadsheet would work out instead of showing
LOOKED = ("wear_mm", "leaks", "noise", "temperature_c", "vibration_mm_per_s", "hours", "note")


@dataclass(frozen=True, kw_only=True)
class ToldLine:
    """A line with its past, and what stands beside it."""

    name: str
    kept: KeptLine
    jobs: Sequence[PastJob]
    papers: Sequence[Aside]


def told_lines(lines: Sequence[Line]) -> list[ToldLine]:
    """These lines as the database has them."""
    ids = [line.pk for line in lines]
    kept, jobs, papers = kept_lines(lines), past_jobs(ids), papers_of(ids)
    return [
        ToldLine(name=line.name, kept=kept[line.pk], jobs=jobs[line.pk], papers=papers.get(line.pk, ())) for line in lines
    ]


def written(lines: Iterable[ToldLine], *, head: bool = True) -> str:
    """CSV of these lines."""
    text = io.StringIO()
    writer = csv.writer(text)
    if head:
        writer.writerow(HEAD)
    for line in lines:
        for row in _rows(line):
            writer.writerow([_plain(cell) for cell in row])
    return text.getvalue()


def _plain(cell: object) -> object:
    """What somebody typed is shown, not worked out."""
    return f"'{cell}" if isinstance(cell, str) and cell.startswith(FORMULA) else cell


def _told(job: Told) -> Iterator[Row]:
    if job.found:
        yield ("found", job.found, "", "", "", "")
    for line in job.summary:
        found, left = "" if line.found is None else round(line.found, 4), line.left["value"]
        yield ("figure", line.what, found, round(left, 4), line.left["unit"], line.left["status"])
    for part in job.parts:
        yield (f"part {part.way}", part.number, "", "", "", part.fate)
    for torque in job.torques:
        yield ("torque", torque.what, "", torque.torque_nm, "N·m", f"{torque.bolts} bolts")
    for grease in job.greases:
        yield ("grease", f"{grease.product}, batch {grease.batch}", "", grease.grams or "", "g", "")
    for stage, hours in job.hours.items():
        yield ("hours", stage, "", round(hours, 2), "h", "")


def _rows(line: ToldLine) -> Iterator[Row]:
    rows, broken = sieved(line.jobs, lambda jobs: [row for job in jobs for row in _of_job(line.name, job)])
    yield from rows
    for aside in (*line.papers, *broken):
        yield (line.name, aside.number, aside.closed.date().isoformat(), "", "", aside.said, aside.title, *[""] * 5)
    for look in line.kept.looks:
        at = look.at.date().isoformat()
        for key in LOOKED:
            value = getattr(look, key)
            if value not in (None, ""):
                yield (line.name, "", at, "round", "", "look", key, "", value, "", "", look.by)


def _of_job(name: str, job: PastJob) -> Iterator[Row]:
    come_to = told(job)
    head = (name, job.number, job.closed.date().isoformat(), job.scope.value, come_to.reason)
    for row in _told(come_to):
        yield (*head, *row, ", ".join(come_to.who))
