"""A job from a file goes through the same door as one that is worked on: entry by entry, signature by signature."""

import json
from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Any

from millwright.benches.register import as_dict, evaluate_json
from millwright.errors import Problem, UnusableInput, refuse_if_any
from millwright.figures_in_words import COMPARED
from millwright.job import entry as recorded
from millwright.job.asked import AFTERWARDS, AS_THE_FILE_HAS_IT, NOT_JUDGED_HERE, asked_of, plainly, same_question
from millwright.job.entry import EntryKind, SignatureKind
from millwright.job.ledger import written_by
from millwright.job.new_entry import OutOfTurn, check, evaluate, read_words, refuse_the_same_person
from millwright.job.now import RouteNow, StepNow
from millwright.job.signing import NotTheirs, check_signature
from millwright.job.stand import stand
from millwright.plan.families.register import FAMILIES
from millwright.plan.steps import EDITION, Terms
from millwright.roles import TAKES, Deed
from millwright.verdict import Verdict, is_unproven
from server.jobs.actions.append_entry import as_taken, text_problems, typed_problems
from server.web.times import EARLIEST, time_problems

from .job_file import FileEntry, FileJob, FileSignature

NOT_DONE = Verdict.INCOMPLETE.value  # what nobody judged here has done no step
OF_THE_FILE = ("ledger", "compare", "instruments", AS_THE_FILE_HAS_IT)  # no words of the question


class NotJudgedHere(Exception):
    """Nobody can say here whether this could have been entered; the message says why. Readable it is all the same."""


@dataclass(frozen=True, kw_only=True)
class Taken:
    """An entry as it is kept: what it holds in full, what it was asked, what the core says of it."""

    inputs: Mapping[str, Any]
    asked: Mapping[str, Any]
    result: Mapping[str, Any] | None


class Replay:
    """The job of a file, worked through again in the order of its numbers."""

    def __init__(self, given: FileJob, now: datetime) -> None:
        self.given, self.now = given, now
        self.entries: list[recorded.Entry] = []
        self.signatures: list[recorded.Signature] = []
        self.taken: dict[str, Taken] = {}

    def run(self) -> dict[str, Taken]:
        """Every entry as it is kept, by its id. Raises `UnusableInput` with all that is wrong up to the first place,
        `NotJudgedHere` where the rules it was entered by are not those of today."""
        refuse_if_any([*_typed(self.given), *self._numbers_and_times()])
        self._refuse_other_rules()
        places = {e.number: (f"entries.{i}", e) for i, e in enumerate(self.given.entries)}
        signed = {s.number: (f"signatures.{i}", s) for i, s in enumerate(self.given.signatures)}
        for number in sorted([*places, *signed]):
            if number in places:
                self._enter(*places[number])
            else:
                self._sign(*signed[number])
        return self.taken

    def _refuse_other_rules(self) -> None:
        given, family = self.given, FAMILIES[self.given.spec.coupling.family]
        if given.version == 1:
            raise NotJudgedHere("a file of version 1 does not say what was asked")
        if given.procedure > family.newest or given.edition > EDITION:
            raise NotJudgedHere("it was done by an order of work that is not known here")

    def _numbers_and_times(self) -> list[Problem]:
        given = self.given
        items: list[tuple[str, FileEntry | FileSignature]] = [
            *((f"entries.{i}", e) for i, e in enumerate(given.entries)),
            *((f"signatures.{i}", s) for i, s in enumerate(given.signatures)),
        ]
        found, seen = time_problems("started_at", given.started_at, self.now), set()
        for path, item in items:
            if item.number in seen:
                found.append(Problem(f"{path}.number", f"Number {item.number} is there twice."))
            seen.add(item.number)
            found += time_problems(f"{path}.at", item.at, self.now)
        if not found and seen != set(range(1, len(items) + 1)):
            found.append(Problem("entries", "Numbers are missing: this is not the whole job."))
        before = max(given.started_at, EARLIEST)
        for path, item in sorted(items, key=lambda pair: pair[1].number):
            if item.at < before:
                found.append(Problem(f"{path}.at", "This time runs behind the one before it."))
            before = max(before, item.at)
        ids = {e.id for e in given.entries}
        found += [
            Problem(f"signatures.{i}.entry", "The reading this signature covers is not in the file.")
            for i, s in enumerate(given.signatures)
            if s.entry is not None and s.entry not in ids
        ]
        return found

    def _route(self, at: datetime | None = None) -> RouteNow:
        """As it stood then; ``at`` the time something was entered."""
        given = self.given
        return stand(
            given.spec,
            given.card,
            self.entries,
            self.signatures,
            given.scope,
            terms=Terms(procedure=given.procedure, edition=given.edition, tasks=tuple(given.tasks)),
            now=at,
        )

    def _enter(self, path: str, e: FileEntry) -> None:
        route = self._route(e.at)
        try:
            if self._is_over(route) and e.kind is not EntryKind.NOTE:
                raise OutOfTurn("This record is signed and closed.")
            with _at(f"{path}.inputs"):
                taken = self._read(route, e) if e.kind is EntryKind.READING else self._other(route, e)
        except OutOfTurn as refused:
            raise UnusableInput(Problem(path, str(refused))) from None
        if taken is None:
            raise UnusableInput(Problem(f"{path}.result", "The result does not follow from the readings beside it."))
        self.taken[str(e.id)] = taken
        self.entries.append(
            recorded.Entry(
                id=str(e.id),
                number=e.number,
                step=e.step,
                kind=e.kind,
                inputs=taken.inputs,
                verdict=Verdict(taken.result["verdict"]) if taken.result else None,
                unproven=is_unproven(taken.result),
                by=e.by,
                role=e.role,
                at=e.at,
                ledger=taken.asked.get("ledger", ()),
            )
        )

    def _is_over(self, route: RouteNow) -> bool:
        return route.closed or any(s.kind is SignatureKind.CANCEL for s in self.signatures)

    def _read(self, route: RouteNow, e: FileEntry) -> Taken | None:
        """A reading, judged again by what is asked here; None where the file says otherwise."""
        now = route.find(e.step)
        if now is None:
            raise NotJudgedHere(f"{_titled(e)} is no part of the route today")
        if now.blocked_by:
            raise OutOfTurn(" ".join(map(str, now.blocked_by)))
        refuse_the_same_person(route, now, e.by)
        full, result = _evaluate(now, e.inputs)
        written = written_by(now.step.form, full)
        asked = {**asked_of(now.step), **({"ledger": written} if written else {})}
        if not same_question(e.asked, asked):
            raise NotJudgedHere(f"{_titled(e)} is asked otherwise today")
        if e.result is None or result["verdict"] != e.result.get("verdict"):
            return None
        return Taken(inputs=full, asked=_as_asked(e, asked), result=_taken_as_in(e.result, result))

    def _other(self, route: RouteNow, e: FileEntry) -> Taken:
        """What is no reading: taken as it is taken live."""
        checked = check(route, e.step, e.kind, e.inputs, e.role, e.by)
        return Taken(inputs=checked.inputs, asked=_as_asked(e, dict(checked.asked)), result=None)

    def _sign(self, path: str, s: FileSignature) -> None:
        try:
            with _at(path):
                self._refuse_signature(s)
        except (OutOfTurn, NotTheirs) as refused:
            raise UnusableInput(Problem(path, str(refused))) from None
        self.signatures.append(
            recorded.Signature(
                id=str(s.id),
                number=s.number,
                kind=SignatureKind(s.kind),
                step=s.step,
                entry=str(s.entry) if s.entry else None,
                by=s.by,
                role=s.role,
                at=s.at,
                reason=s.reason,
            )
        )

    def _refuse_signature(self, s: FileSignature) -> None:
        match s.kind:
            case SignatureKind.CANCEL:
                self._refuse_cancelling(s)
            case SignatureKind.TAKE_OVER:
                _refuse_unless(s, Deed.TAKE_OVER_JOBS)
            case _:
                route = self._route()
                if self._is_over(route):
                    raise OutOfTurn("This record is signed and closed.")
                check_signature(route, s.step, s.kind, str(s.entry) if s.entry else None, s.reason, s.role)

    def _refuse_cancelling(self, s: FileSignature) -> None:
        _refuse_unless(s, Deed.CANCEL_JOBS)
        if self._is_over(self._route()):
            raise OutOfTurn("This job is closed already.")
        if (s.by, s.reason) != (self.given.cancelled_by, self.given.cancelled_because):
            raise UnusableInput(Problem("reason", "Who cancelled it and why is said twice, and not alike."))


def as_a_paper(given: FileJob) -> dict[str, Taken]:
    """Every entry to be read and nothing more: no reading is judged, nothing is counted out or back by it.

    Raises `UnusableInput` where it cannot even be read.
    """
    terms = Terms(procedure=given.procedure, edition=given.edition, tasks=tuple(given.tasks))
    steps = {now.step.key: now.step for now in stand(given.spec, given.card, [], [], given.scope, terms=terms).steps}
    found = {}
    for i, e in enumerate(given.entries):
        path, step = f"entries.{i}", steps.get(e.step)
        with _at(f"{path}.asked"):  # a first file does not say what was asked: it reads better under today's words
            asked = plainly(e.asked or (asked_of(step) if step else {}))
        with _at(f"{path}.inputs"):
            found[str(e.id)] = _on_paper(e, {**asked, "note": NOT_JUDGED_HERE})
    return found


def _on_paper(e: FileEntry, asked: Mapping[str, Any]) -> Taken:
    if e.kind is not EntryKind.READING:
        return Taken(inputs=read_words(e.kind, e.inputs), asked=asked, result=None)
    bench = asked.get("bench")
    if bench is not None:
        evaluate_json(bench, json.dumps(e.inputs))  # it holds readings of this bench; what they come to nobody says here
    result: dict[str, Any] = {"bench": bench or "sheet", "verdict": NOT_DONE, "checks": [], "advice": [], "working": []}
    return Taken(inputs=e.inputs, asked=asked, result=result)


@contextmanager
def _at(path: str) -> Iterator[None]:
    """What is refused inside stands at this path of the file."""
    try:
        yield
    except UnusableInput as refused:
        raise UnusableInput(*(replace(p, path=f"{path}.{p.path}".rstrip(".")) for p in refused.problems)) from None


def _typed(given: FileJob) -> list[Problem]:
    """What was typed reads as the value beside it, in one unit or the other: a file does not say on which sheet it was."""
    found = []
    for i, e in enumerate(given.entries):
        try:
            amiss = [typed_problems(e.inputs, e.typed, unit) for unit in ("mm", "in")]
        except UnusableInput as refused:
            amiss = [list(refused.problems)]
        found += [Problem(f"entries.{i}.typed.{p.path}", p.message) for p in (min(amiss, key=len) if all(amiss) else [])]
        found += [Problem(f"entries.{i}.inputs.{p.path}", p.message) for p in text_problems(e.inputs)]
    return found


def _refuse_unless(s: FileSignature, deed: Deed) -> None:
    if not s.role.may(deed):
        raise NotTheirs(TAKES[deed], s.role)


def _titled(e: FileEntry) -> str:
    title = e.asked.get("title")
    return f"“{title[:60]}”" if isinstance(title, str) and title else e.step


def _as_asked(e: FileEntry, asked: dict[str, Any]) -> dict[str, Any]:
    """What is asked here; beside it the file's own words where they are others, and what its reading was held against."""
    said = {key: value for key, value in e.asked.items() if key not in OF_THE_FILE}
    here = {key: value for key, value in asked.items() if key not in OF_THE_FILE}
    if "means" not in e.asked:  # of a file from before an entry said what it is of
        here.pop("means", None)
    if e.asked.get("note") == AFTERWARDS:
        asked["note"] = here["note"] = AFTERWARDS
    compare = e.asked.get("compare")
    if "compare" in asked and isinstance(compare, dict):
        asked["compare"] = {key: value for key, value in compare.items() if key in COMPARED}
    plainly(e.asked)  # what is carried on as it is can be shown
    asked |= {key: e.asked[key] for key in ("instruments", AS_THE_FILE_HAS_IT) if e.asked.get(key)}
    if said != here:
        asked[AS_THE_FILE_HAS_IT] = plainly(said)
    return asked


def _evaluate(now: StepNow, inputs: Mapping[str, Any]) -> tuple[Mapping[str, Any], Mapping[str, Any]]:
    """As it is evaluated live, held against the earlier readings that the file says it was held against."""
    full, result = evaluate(now, inputs)
    compared = {key: inputs[key] for key in COMPARED if key in inputs}
    if result["bench"] == "sheet" or not compared:
        return full, result
    full = {**full, **compared}
    return full, as_dict(evaluate_json(result["bench"], json.dumps(full)))


def _taken_as_in(file: Mapping[str, Any], result: Mapping[str, Any]) -> Mapping[str, Any]:
    """Taken as it is where the file says so, or comes from before anything was said of how sure a verdict is."""
    as_it_is = file.get("as_it_is") is True or "proven" not in file
    return as_taken(result, as_it_is=as_it_is) or result
