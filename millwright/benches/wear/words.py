"""What is said of wear and drift."""

from datetime import date

from ...say import Figure, Say, bare, number, say, words
from ...verdict import Check, Status, WorkLine, say_cannot_tell, work
from .days import DAYS_A_MONTH, day
from .io import Reached, WearInput
from .trend import Found

PLACES = {"mm": 2, "mm/m": 2, "°C": 0, "mm/s": 1, "%": 0, "°": 0}
WHY_NOT = {
    "few": "Cannot say yet when: {n} readings since {since}, at least four are needed.",
    "one day": "Cannot say yet when: every reading is of one day.",
    "last off": "The reading of {last} does not belong to the others. Read it again before anything else is said.",
    "two off": "Cannot say when: more than one reading does not belong to the others. Read it again, and look for the cause.",
    "bend": "Cannot say when: it does not go up in a straight line. Read it more often, and look for the cause.",
    "flat": "Cannot say yet when: the readings scatter more than they grow.",
    "back": "It goes down: no limit is reached this way. Check that it is read at the same mark.",
}


def says_of(given: WearInput, found: Found, reached: Reached | None, carries: date | None, check: Check | None) -> list[Say]:
    """Most urgent first: what is out, what jumped or does not belong, when the limit is reached."""
    says = []
    unit, places = given.unit, PLACES[given.unit]
    if check is not None and check.status is Status.OVER:
        says.append(say("at_limit", "The limit is reached: act on it now."))
    if found.jump is not None:
        text = "It jumped by {by} between {after} and {before}: find out why. Nothing is fitted across it."
        by = Figure(found.jump.by, unit, places, signed=True)
        says.append(say("jumped", text, by=by, after=day(found.jump.after), before=day(found.jump.before)))
    if found.why == "last off":
        says.append(_why_not(given, found))
        return says
    for i in found.aside:
        one = given.readings[i]
        text = "{value} on {day} does not belong to the others, and is left out."
        says.append(say("set_aside", text, value=Figure(one.value, unit, places), day=day(one.at.date())))
    if check is None or check.status is not Status.OVER:
        says += _when(given, found, reached, carries)
        says += say_cannot_tell([check]) if check else []
    return says


def _when(given: WearInput, found: Found, reached: Reached | None, carries: date | None) -> list[Say]:
    says = [_why_not(given, found)] if found.why else []
    if given.limit is None:
        return says or [_per_month(given, found)]
    if reached is None or reached.earliest is None or reached.earliest <= given.today:
        if reached is not None and not found.why:
            upto = f", {day(reached.latest)} at the latest" if reached.latest else ""
            says.append(say("about_now", "The limit may be reached already{upto}.", upto=upto))
        return says
    if reached.earliest == carries:
        says.append(say("not_before", "Not before {day}: further on these readings do not carry.", day=day(reached.earliest)))
    elif reached.latest is None:
        text = "Not before {day}."
        says.append(say("not_before", text, day=day(reached.earliest)))
    else:
        text = "The limit is reached between {earliest} and {latest}, if it goes on like this."
        says.append(say("reached_between", text, earliest=day(reached.earliest), latest=day(reached.latest)))
    return says if found.why else [*says, _per_month(given, found)]


def _per_month(given: WearInput, found: Found) -> Say:
    line = found.line
    if line is None:
        return say("no_line", "No line is drawn through these readings.")
    half = line.slope_plus_minus * DAYS_A_MONTH
    places = PLACES[given.unit] + 1
    by = Figure(line.slope * DAYS_A_MONTH, given.unit, places, signed=True)
    return say("per_month", "{by} a month, ±{half}.", by=by, half=Figure(half, given.unit, places))


def _why_not(given: WearInput, found: Found) -> Say:
    run = found.run
    last = (given.readings[found.aside[-1]].at if found.aside else run.start).date()
    return say(
        f"cannot_say_{found.why.replace(' ', '_')}",
        WHY_NOT[found.why],
        n=number(len(run.days)),
        since=day(run.start.date()),
        last=day(last),
    )


def working_of(given: WearInput, found: Found) -> list[WorkLine]:
    """Slope, where the line stands at the last reading, and the day it comes to the limit."""
    line, run = found.line, found.run
    if line is None:
        return []
    places, unit = PLACES[given.unit] + 2, given.unit
    last = float(run.days[-1])
    slope = line.slope * DAYS_A_MONTH
    stands = line.level + line.slope * last
    lines = [
        work("slope", "growth a month", "slope of the weighted line", f"{len(run.days)} readings", slope, unit),
        work(
            "stands",
            f"the line on {day(run.on(last))}",
            "level + slope × months",
            words(
                "{level} + {slope} × {months}",
                level=bare(line.level, places, unit),
                slope=bare(slope, places, unit),
                months=number(last / DAYS_A_MONTH, 1),
            ),
            stands,
            unit,
        ),
    ]
    if given.limit is not None and line.grows:
        left = words(
            "({limit} − {stands}) ÷ {slope}",
            limit=bare(given.limit, places, unit),
            stands=bare(stands, places, unit),
            slope=bare(slope, places, unit),
        )
        lines.append(work("left", "months to the limit", "(limit − line) ÷ growth", left, (given.limit - stands) / slope, ""))
    return lines
