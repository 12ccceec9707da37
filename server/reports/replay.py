"""A job from a file goes through the same door as one that is worked on: entry by entry, signature by signature."""

import json
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from typing import TYPE_CHECKING, Any

from millwright.benches import as_dict, evaluate_json
from millwright.errors import Problem, UnusableInput, refuse_if_any
from millwright.figures_in_words import COMPARED
from millwright.route import state
from millwright.route.asked import AFTERWARDS, asked_of, headed
from millwright.route.entry import OutOfTurn, check, evaluate, refuse_the_same_person
from millwright.route.ledger import written_by
from millwright.route.signing import NotTheirs, check_signature
from millwright.route.stand import stand
from millwright.route.state import EntryKind, RouteNow, SignatureKind, StepNow
from millwright.route.steps import Terms
from millwright.verdict import Verdict, is_unproven
from server.jobs.actions.append_entry import as_taken

if TYPE_CHECKING:
    from .exchange import FileEntry, FileJob, FileSignature

CLOCKS_DIFFER = timedelta(minutes=5)
NOT_JUDGED_HERE = "not judged here: this step is no part of the route today"


@dataclass(frozen=True, kw_only=True)
class Taken:
    """An entry as it is kept: what it holds in full, what it was asked, what the core says of it."""

    inputs: Mapping[str, Any]
    asked: Mapping[str, Any]
    result: Mapping[str, Any] | None


class Replay:
    """The job of a file, worked through again in the order of its numbers.

    A file of an older version knows nothing of today's order: there only the readings are judged again.
    """

    def __init__(self, given: "FileJob", now: datetime, *, in_turn: bool) -> None:
        self.given, self.now, self.in_turn = given, now, in_turn
        self.entries: list[state.Entry] = []
        self.signatures: list[state.Signature] = []
        self.taken: dict[str, Taken] = {}

    def run(self) -> dict[str, Taken]:
        """Every entry as it is kept, by its id. Raises `UnusableInput` with all that is wrong up to the first place."""
        refuse_if_any(self._numbers_and_times())
        places = {e.number: (f"entries.{i}", e) for i, e in enumerate(self.given.entries)}
        signed = {s.number: (f"signatures.{i}", s) for i, s in enumerate(self.given.signatures)}
        for number in sorted([*places, *signed]):
            if number in places:
                self._enter(*places[number])
            else:
                self._sign(*signed[number])
        return self.taken

    def _numbers_and_times(self) -> list[Problem]:
        items: list[tuple[str, FileEntry | FileSignature]] = [
            *((f"entries.{i}", e) for i, e in enumerate(self.given.entries)),
            *((f"signatures.{i}", s) for i, s in enumerate(self.given.signatures)),
        ]
        found, seen = [], set()
        for path, item in items:
            if item.number in seen:
                found.append(Problem(f"{path}.number", f"Number {item.number} is there twice."))
            seen.add(item.number)
            if item.at > self.now + CLOCKS_DIFFER:
                found.append(Problem(f"{path}.at", "This time lies in the future."))
        if not found and self.in_turn and seen != set(range(1, len(items) + 1)):
            found.append(Problem("entries", "Numbers are missing: this is not the whole job."))
        before = self.given.started_at
        for path, item in sorted(items, key=lambda pair: pair[1].number):
            if self.in_turn and item.at < before:
                found.append(Problem(f"{path}.at", "This time runs behind the one before it."))
            before = max(before, item.at)
        ids = {e.id for e in self.given.entries}
        found += [
            Problem(f"signatures.{i}.entry", "The reading this signature covers is not in the file.")
            for i, s in enumerate(self.given.signatures)
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

    def _enter(self, path: str, e: "FileEntry") -> None:
        route = self._route(e.at)
        try:
            if route.closed and e.kind is not EntryKind.NOTE:
                raise OutOfTurn("This record is signed and closed.")
            taken = self._read(route, e) if e.kind is EntryKind.READING else self._other(route, e)
        except OutOfTurn as refused:
            raise UnusableInput(Problem(path, str(refused))) from None
        except UnusableInput as refused:
            raise UnusableInput(
                *(Problem(f"{path}.inputs.{p.path}".rstrip("."), p.message) for p in refused.problems)
            ) from None
        if taken is None:
            raise UnusableInput(Problem(f"{path}.result", "The result does not follow from the readings beside it."))
        self.taken[str(e.id)] = taken
        self.entries.append(
            state.Entry(
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

    def _read(self, route: RouteNow, e: "FileEntry") -> Taken | None:
        """A reading, judged again; None where the file says otherwise."""
        now = route.find(e.step)
        asked = dict(e.asked) or ({**asked_of(now.step), "note": AFTERWARDS} if now else {"note": AFTERWARDS})
        if now is None or now.step.form.kind != asked.get("form"):
            return _of_no_route(e, asked)
        if self.in_turn and now.blocked_by:
            raise OutOfTurn(" ".join(now.blocked_by))
        if self.in_turn:
            refuse_the_same_person(route, now, e.by)
        full, result = _evaluate(now, e.inputs)
        if e.result is None or result["verdict"] != e.result.get("verdict"):
            return None
        written = written_by(now.step.form, full)
        asked = {
            **{key: value for key, value in asked.items() if key != "ledger"},
            **({"ledger": written} if written else {}),
        }
        if "preset" in asked and self.in_turn:
            asked["preset"] = asked_of(now.step)["preset"]
        return Taken(inputs=e.inputs, asked=asked, result=_taken_as_in(e.result, result))

    def _other(self, route: RouteNow, e: "FileEntry") -> Taken:
        """What is no reading: taken as it is taken live."""
        if not self.in_turn:
            now = route.find(e.step)
            head = {**headed(now.step), "note": AFTERWARDS} if now else {"note": AFTERWARDS}
            return Taken(inputs=e.inputs, asked=e.asked or head, result=None)
        checked = check(route, e.step, e.kind, e.inputs, e.role, e.by)
        return Taken(inputs=checked.inputs, asked=e.asked or checked.asked, result=None)

    def _sign(self, path: str, s: "FileSignature") -> None:
        try:
            if self.in_turn:
                entry = str(s.entry) if s.entry else None
                check_signature(self._route(), s.step, s.kind, entry, s.reason, s.role)
        except (OutOfTurn, NotTheirs) as refused:
            raise UnusableInput(Problem(path, str(refused))) from None
        except UnusableInput as refused:
            raise UnusableInput(*(replace(p, path=f"{path}.{p.path}") for p in refused.problems)) from None
        self.signatures.append(
            state.Signature(
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


def _evaluate(now: StepNow, inputs: Mapping[str, Any]) -> tuple[Mapping[str, Any], Mapping[str, Any]]:
    """As it is evaluated live, held against the earlier readings that the file says it was held against."""
    full, result = evaluate(now, inputs)
    compared = {key: inputs[key] for key in COMPARED if key in inputs}
    if result["bench"] == "sheet" or not compared:
        return full, result
    return full, as_dict(evaluate_json(result["bench"], json.dumps({**full, **compared})))


def _of_no_route(e: "FileEntry", asked: dict[str, Any]) -> Taken | None:
    """A reading of a step that is no part of the route today: judged by its bench; by a sheet nobody can judge it here."""
    bench = asked.get("bench")
    if bench is None:
        plain: Sequence[Any] = []
        unjudged = {"bench": "sheet", "verdict": "not judged", "checks": plain, "advice": plain, "working": plain}
        return Taken(inputs=e.inputs, asked={**asked, "note": NOT_JUDGED_HERE}, result=unjudged)
    result = as_dict(evaluate_json(bench, json.dumps(e.inputs)))
    if e.result is None or result["verdict"] != e.result.get("verdict"):
        return None
    return Taken(inputs=e.inputs, asked=asked, result=_taken_as_in(e.result, result))


def _taken_as_in(file: Mapping[str, Any], result: Mapping[str, Any]) -> Mapping[str, Any]:
    """Taken as it is where the file says so, or comes from before anything was said of how sure a verdict is."""
    as_it_is = file.get("as_it_is") is True or "proven" not in file
    return as_taken(result, as_it_is=as_it_is) or result
