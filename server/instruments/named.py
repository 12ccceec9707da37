"""What a reading was taken with: the register says what an instrument is, until when it holds, and whether it is in use."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import date
from typing import Any

from millwright.benches.wear.days import day
from millwright.errors import Problem
from server.accounts.models import Membership

from .models import Bracket, Instrument, Wrench
from .register import instruments_of

LAID_OVER = frozenset({"wrench", "pulled_on"})  # of the bench on which bolts are pulled: the register's, and the server's day
NOT_IN_THE_REGISTER = "not in the register"
UNTIL = "wrench_until"  # where a sheet asks until when the wrench holds
SAG_AGREES_MM = 1e-6
HANGS = "rim"  # the dials that show the sag of their bracket


@dataclass(frozen=True, kw_only=True)
class ReadWith:
    """The inputs with what the register knows laid over them; the instruments, as they are kept beside a reading."""

    inputs: Mapping[str, Any]
    typed: Mapping[str, str]
    instruments: Sequence[Mapping[str, Any]] = ()
    problems: list[Problem] = field(default_factory=list)


def read_with(
    by: Membership, inputs: Mapping[str, Any], typed: Mapping[str, str], named: Sequence[tuple[str, str]], today: date
) -> ReadWith:
    """``named`` - kind and name of each instrument beside the wrench that stands in the inputs.

    An instrument that is withdrawn or out of date reads nothing; an out-of-date wrench is judged by the bench, which says so.
    """
    wrench = inputs.get("wrench")
    if not named and not wrench:
        return ReadWith(inputs=inputs, typed=typed)
    register = instruments_of(by.site_id)
    found = _wrench(register, inputs, typed, today) if wrench else ReadWith(inputs=inputs, typed=typed)
    problems, kept = list(found.problems), list(found.instruments)
    for i, (kind, name) in enumerate(named):
        one = _of_the_name(register, kind, name)
        if one is None:
            problems.append(Problem(f"instruments.{i}", f"No {kind} of the register is called {name[:60]}."))
            continue
        problems += [Problem(f"instruments.{i}", text) for text in [*_not_used(one, today), *_sag_differs(one, inputs)]]
        kept.append(_kept(one))
    return replace(found, instruments=kept, problems=problems)


def _wrench(register: Sequence[Instrument], inputs: Mapping[str, Any], typed: Mapping[str, str], today: date) -> ReadWith:
    """A wrench with its range is the bench's: what the register has of it stands over what was sent. One that is a number on
    a sheet is looked up as well."""
    wrench = inputs["wrench"]
    on_a_bench = isinstance(wrench, Mapping)
    name = wrench.get("name") if on_a_bench else wrench
    if not isinstance(name, str) or not name.strip():
        return ReadWith(inputs=inputs, typed=typed)
    path, one = "wrench.name" if on_a_bench else "wrench", _of_the_name(register, Wrench.kind, name)
    dated = {**inputs, "pulled_on": today.isoformat()} if on_a_bench else inputs
    if not isinstance(one, Wrench):
        unknown = {"kind": Wrench.kind, "name": name.strip()[:60], "said": NOT_IN_THE_REGISTER}
        return ReadWith(inputs=dated, typed=typed, instruments=[unknown], problems=_typed_date_is_over(inputs, today))
    amiss = _not_used(one, today, in_date=not on_a_bench)
    problems = [Problem(path, f"{text} Pull with another one.") for text in amiss]
    if not on_a_bench:
        until = one.calibrated_until.isoformat() if one.calibrated_until else ""
        asked = {UNTIL: until} if until and UNTIL in inputs else {}
        return ReadWith(inputs={**inputs, **asked}, typed=typed, instruments=[_kept(one)], problems=problems)
    known = {
        "name": one.name,
        "min_nm": one.min_nm,
        "max_nm": one.max_nm,
        "length_mm": one.length_mm,
        "calibrated_until": one.calibrated_until.isoformat() if one.calibrated_until else None,
    }
    theirs = {key: text for key, text in typed.items() if not key.startswith("wrench.")}
    return ReadWith(inputs={**dated, "wrench": known}, typed=theirs, instruments=[_kept(one)], problems=problems)


def _typed_date_is_over(inputs: Mapping[str, Any], today: date) -> list[Problem]:
    """Of a wrench that only its label knows: a sheet that asks until when it holds is answered with a day to come."""
    try:
        until = date.fromisoformat(str(inputs.get(UNTIL)))
    except ValueError:
        return []
    return [] if until >= today else [Problem(UNTIL, f"That ended on {day(until)}. Take another wrench, in calibration.")]


def _of_the_name(register: Sequence[Instrument], kind: str, name: str) -> Instrument | None:
    """However it is spelt: "wrench 5" is "Wrench 5" is "WRENCH-5"."""
    wanted = _bare(name)
    return next((one for one in register if one.kind == kind and _bare(one.name) == wanted), None)


def _bare(name: str) -> str:
    return "".join(letter for letter in name.casefold() if letter.isalnum())


def _not_used(one: Instrument, today: date, *, in_date: bool = True) -> list[str]:
    if one.withdrawn:
        return [f"{one.called} is withdrawn ({one.withdrawn_because})."]
    if in_date and one.calibrated_until is not None and one.calibrated_until < today:
        return [f"The calibration of {one.called} ended on {day(one.calibrated_until)}: nothing is read with it."]
    return []


def _sag_differs(one: Instrument, inputs: Mapping[str, Any]) -> list[str]:
    """A bracket hangs as it was measured, whatever was typed."""
    if not isinstance(one, Bracket):
        return []
    dials = [dial for dial in inputs.get("dials") or () if isinstance(dial, Mapping) and dial.get("kind") == HANGS]
    sags = [dial.get("sag_mm") or 0 for dial in dials]
    if all(isinstance(sag, int | float) and abs(sag - one.sag_mm) <= SAG_AGREES_MM for sag in sags):
        return []
    return [f"{one.called} hangs otherwise by the register. Choose it again, or enter the sag without it."]


def _kept(one: Instrument) -> dict[str, Any]:
    until = one.calibrated_until
    return {
        "kind": one.kind,
        "name": one.name,
        "id": one.pk,
        "said": f"calibrated until {until.isoformat()}" if until else "no calibration noted",
    }
