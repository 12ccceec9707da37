"""What is due on a line, and when: from what was recorded, the value card and what rounds read. Nothing is typed for it."""

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import replace
from datetime import date, datetime, timedelta

from ..benches.wear.days import day, months_on
from ..card.values import Value, source_of
from ..meaning import Of, When
from ..say import Figure, Words, joined, words
from .due_kinds import TASK_OF, Due, DueKind
from .past import MOUNTS, RENEWS, KeptLine, PastJob, Postponed, Read, last_read
from .series import LEFT, packing_turned, wearing

NOT_WORKED_OUT = "cannot be worked out from what was recorded: look in the history"
LONGEST_DAYS = 36_500.0  # further off is no day of the calendar
# What a trend says where it gives no day and somebody has to look.
LOOK_AT = frozenset({"jumped", "cannot_say_bend", "cannot_say_last_off", "cannot_say_two_off"})
AFTER_RUNNING = (When.AFTER_RUNNING,)


OnFault = Callable[[DueKind], None]


def due(line: KeptLine, jobs: Sequence[PastJob], today: date, on_fault: OnFault = lambda _: None) -> list[Due]:
    """What is due on a line, the next first; what has no day comes first of all.

    ``jobs``     - those whose record was signed. What was never done in any of them is not asked for: nobody knows since
    when; nor is what no job on this line can do.
    ``on_fault`` - told of a rule that fell over what was recorded: the others stand, and the list says that this one does not
    """
    found: list[Due] = []
    for kind, rule in RULES.items():
        try:
            found += rule(line, jobs, today)
        except Exception:
            on_fault(kind)
            found.append(Due(kind=kind, on=None, why=words(NOT_WORKED_OUT)))
    tasked = [replace(one, task=TASK_OF.get(one.kind)) for one in found]
    told = [_put_off(one, line.postponed) for one in tasked if one.task is None or one.task in line.tasks]
    return sorted(told, key=lambda one: (one.on is not None, one.on or date.min, one.kind))


def _put_off(one: Due, postponed: Sequence[Postponed]) -> Due:
    mine = [p for p in postponed if p.kind == one.kind and p.since == one.since]
    if not mine or one.on is None or mine[-1].until <= one.on:
        return one
    return replace(one, on=mine[-1].until, was=one.on, postponed=mine[-1])


def _every(line: KeptLine, key: str) -> tuple[Value, str] | None:
    return (line.card[key], source_of(line.card, key)) if key in line.card else None


def _by_calendar(
    line: KeptLine, kind: DueKind, key: str, last: tuple[PastJob, Read] | None, *, said: str = "last"
) -> Iterator[Due]:
    """So many months or days after it was last done."""
    every = _every(line, key)
    if every is None or last is None:
        return
    (job, read), (value, source) = last, every
    since = read.at.date()
    days = key.endswith("_days")
    on = since + timedelta(days=round(value.value)) if days else months_on(since, value.value)
    every_so = Figure(value.value, "days" if days else "months")
    text = "{said} {day}{job}, every {every}: {source}"
    why = words(text, said=said, day=day(since), job=_in(job), every=every_so, source=source)
    yield Due(kind=kind, on=on, why=why, since=since)


def _in(job: PastJob) -> str:
    return f" (job {job.number})"


def _by_hours(line: KeptLine, hours: float, since: datetime) -> tuple[date, Words] | None:
    """The day on which it has run so long since then, and by what; None where that is no day of the calendar.

    What the meter has run already counts as it was read; only what is still to come goes by hours a day.
    """
    a_day, of = line.hours_a_day()
    said = {
        "hour meter": "by its hour meter",
        "register": "as registered",
        "assumed": "assumed: nobody says how long it runs",
    }
    rate = words("{a_day} a day, {said}", a_day=Figure(float(f"{a_day:.3g}"), "h"), said=said[of])
    ran, upto = line.meter.run_since(since) or (0.0, since)
    has_run = words("it has run {ran} since, ", ran=Figure(round(ran), "h"))
    if ran >= hours and (crossed := line.meter.reached(since, hours)) is not None:
        return crossed.date(), joined([has_run, words("by its hour meter")], "")
    days = (hours - ran) / a_day if a_day > 0 else LONGEST_DAYS
    if days >= LONGEST_DAYS:
        return None
    return upto.date() + timedelta(days=int(days)), joined([has_run, rate], "") if ran else rate


def _mounted(jobs: Sequence[PastJob]) -> tuple[PastJob, Read] | None:
    """When the coupling that is on was first started."""
    for job in sorted(jobs, key=lambda one: one.closed, reverse=True):
        if job.scope in MOUNTS:
            read = job.last(Of.STARTED)
            return job, read or Read(step="", at=job.closed, inputs={})
    return None


def _retorque(line: KeptLine, jobs: Sequence[PastJob], today: date) -> Iterator[Due]:
    pulled = last_read(jobs, Of.PULL, when=AFTER_RUNNING)
    left = last_read(jobs, Of.RUN_IN_LEFT_OPEN)
    if left is not None and (pulled is None or pulled[1].at < left[1].at):
        job, read = left
        promised = read.said_of(Of.RUN_IN_LEFT_OPEN)
        on = date.fromisoformat(promised) if promised else read.at.date()
        text = "not run in and pulled again{job}: left open until {day}"
        why = words(text, job=_in(job), day=day(on))
        yield Due(kind=DueKind.RETORQUE, on=on, why=why, since=read.at.date())
        return
    renewed = max((job for job in jobs if job.scope in RENEWS), key=lambda one: one.closed, default=None)
    first = _every(line, "retorque_hours")
    if first is not None and renewed is not None and (pulled is None or pulled[1].at < renewed.closed):
        hours, source = first[0].value, first[1]
        started = renewed.last(Of.STARTED)
        since = started.at if started else renewed.closed
        if (reached := _by_hours(line, hours, since)) is not None:
            on, rate = reached
            text = "first after {hours} of running since {day}{job}, {rate}: {source}"
            said: dict[str, Words | str] = {"day": day(since.date()), "job": _in(renewed), "rate": rate, "source": source}
            why = words(text, hours=Figure(hours, "h"), **said)
            yield Due(kind=DueKind.RETORQUE, on=on, why=why, since=since.date())
        return
    again = last_read(jobs, Of.CHECKED_AGAIN)
    last = max((one for one in (pulled, again) if one), key=lambda one: one[1].at, default=None)
    yield from _by_calendar(line, DueKind.RETORQUE, "retorque_months", last, said="last pulled")


def _grease(line: KeptLine, jobs: Sequence[PastJob], today: date) -> Iterator[Due]:
    """By the product that is in, whichever comes first: months of the calendar, or hours of running."""
    last = last_read(jobs, Of.GREASE)
    if last is None:
        return
    job, read = last
    product, since = str(read.inputs.get("product") or ""), read.at.date()
    days: list[tuple[date, Words]] = []
    filled = words("filled {day} with {product}{job}", day=day(since), product=product, job=_in(job))
    for key in ("grease_months", "grease_hours"):
        if key not in line.card:
            continue
        every = _for_product(line, key, product)
        if every is None:
            why = words("{filled}: the card has no interval for this product", filled=filled)
            yield Due(kind=DueKind.GREASE, on=None, why=why, since=since)
            return
        source = source_of(line.card, key)
        if key == "grease_months":
            said = words("every {every}: {source}", every=Figure(every, "months"), source=source)
            days.append((months_on(since, every), said))
        elif (reached := _by_hours(line, every, read.at)) is not None:
            on, rate = reached
            days.append((on, words("every {every}, {rate}: {source}", every=Figure(every, "h"), rate=rate, source=source)))
    if days:
        on, said = min(days, key=lambda one: one[0])
        yield Due(kind=DueKind.GREASE, on=on, why=joined([filled, said], ", "), since=since)


def _for_product(line: KeptLine, key: str, product: str) -> float | None:
    """The interval of the product that was filled: its own on the card, else that of the product the card names."""
    value = line.card[key]
    wanted = product.strip().casefold()
    for one in value.of_material:
        if one.material.strip().casefold() == wanted:
            return one.value
    named = line.card.get("grease_product")
    if named is not None and named.means.strip().casefold() != wanted:
        return None
    return value.value


def _inspection(line: KeptLine, jobs: Sequence[PastJob], today: date) -> Iterator[Due]:
    mounted, looked = _mounted(jobs), last_read(jobs, Of.LOOKED_OVER)
    if mounted is not None and (looked is None or looked[1].at < mounted[1].at):
        if "first_inspection_months" in line.card:
            yield from _by_calendar(line, DueKind.FIRST_INSPECTION, "first_inspection_months", mounted, said="started")
        else:
            yield from _by_calendar(line, DueKind.INSPECTION, "inspection_months", mounted, said="started")
        return
    yield from _by_calendar(line, DueKind.INSPECTION, "inspection_months", looked, said="last looked over")


def _round(line: KeptLine, jobs: Sequence[PastJob], today: date) -> Iterator[Due]:
    every = _every(line, "round_days")
    if every is None:
        return
    started = last_read(jobs, Of.STARTED)
    last = [look.at.date() for look in line.looks[-1:]] + ([started[1].at.date()] if started else [])
    if last:
        since = max(last)
        on = since + timedelta(days=round(every[0].value))
        text = "last {day}, every {every}: {source}"
        why = words(text, day=day(since), every=Figure(every[0].value, "days"), source=every[1])
        yield Due(kind=DueKind.ROUND, on=on, why=why, since=since)


def _seen(line: KeptLine, jobs: Sequence[PastJob], today: date) -> Iterator[Due]:
    """What the last round found, until a job has been there."""
    last = line.looks[-1] if line.looks else None
    if last is None or not last.troubles or any(job.closed > last.at for job in jobs):
        return
    troubles, seen = ", ".join(last.troubles), day(last.at.date())
    why = words("{troubles}; seen {seen} by {by}", troubles=troubles, seen=seen, by=last.by or "a round")
    yield Due(kind=DueKind.SEEN, on=last.at.date(), why=why, since=last.at.date())


def _play(line: KeptLine, jobs: Sequence[PastJob], today: date) -> Iterator[Due]:
    last = last_read(jobs, Of.PLAY)
    yield from _by_calendar(line, DueKind.PLAY, "play_months", last, said="last read")


def _closed(line: KeptLine, jobs: Sequence[PastJob], today: date) -> Iterator[Due]:
    last = last_read(jobs, Of.CLOSED_GAP)
    yield from _by_calendar(line, DueKind.CLOSED, "closed_check_months", last, said="last measured")


def _aligned(line: KeptLine, jobs: Sequence[PastJob], today: date) -> Iterator[Due]:
    last = last_read(jobs, Of.ALIGNMENT, when=(When.FOUND, *LEFT))
    yield from _by_calendar(line, DueKind.ALIGNMENT, "alignment_months", last, said="last read")


def _packing(line: KeptLine, jobs: Sequence[PastJob], today: date) -> Iterator[Due]:
    """Followed up every so many days; the rings renewed once the nuts were turned by a total."""
    last = last_read(jobs, Of.PACKING)
    yield from _by_calendar(line, DueKind.PACKING, "packing_days", last, said="last followed up")
    most = _every(line, "packing_total_deg")
    if most is None or last is None:
        return
    turned = packing_turned(jobs)[-1].total_deg
    if turned >= most[0].value:
        text = "the nuts were turned by {turned} since the rings were new, {most} at most: {source}"
        why = words(text, turned=Figure(turned, "°"), most=Figure(most[0].value, "°"), source=most[1])
        yield Due(kind=DueKind.RINGS, on=last[1].at.date(), why=why, since=last[1].at.date())


def _oil(line: KeptLine, jobs: Sequence[PastJob], today: date) -> Iterator[Due]:
    last = last_read(jobs, Of.OIL)
    found = [*_by_calendar(line, DueKind.OIL, "oil_months", last, said="last filled")]
    every = _every(line, "oil_hours")
    if every is not None and last is not None:
        since = last[1].at.date()
        if (reached := _by_hours(line, every[0].value, last[1].at)) is not None:
            on, rate = reached
            text = "filled {day}{job}, every {every}, {rate}: {source}"
            said: dict[str, Words | str] = {"day": day(since), "job": _in(last[0]), "rate": rate, "source": every[1]}
            why = words(text, every=Figure(every[0].value, "h"), **said)
            found.append(Due(kind=DueKind.OIL, on=on, why=why, since=since))
    yield from sorted(found, key=lambda one: one.on or date.max)[:1]


def _worn(line: KeptLine, jobs: Sequence[PastJob], today: date) -> Iterator[Due]:
    """The first day on which what wears may be at its limit, as far as its readings can say; where they can say no day and
    are near it, bend, jumped or do not belong together, somebody looks at it now."""
    for series in wearing(line, jobs):
        trend = series.trend(today)
        if trend is None:
            continue
        at = trend.reached
        now = series.points[-1].at.date()
        says = [Words(one.template, one.values) for one in trend.says[:2]]
        why = words("{series}: {says}", series=series.title.lower(), says=joined(says, " "))
        since = trend.runs[-1].start.date()
        if trend.verdict == "over":
            yield Due(kind=DueKind.WORN, on=now, why=why, since=since)
        elif at is not None and at.earliest is not None and at.likely is not None:
            yield Due(kind=DueKind.WORN, on=at.earliest, why=why, since=since)
        elif series.limit is not None and (trend.verdict == "close" or LOOK_AT & {one.code for one in trend.says}):
            near = [] if trend.verdict != "close" else [words("near its limit")]
            why = words("{series}: {says}", series=series.title.lower(), says=joined([*near, *says], " "))
            yield Due(kind=DueKind.WEARS, on=now, why=why, since=now)
        else:
            continue
        return


Rule = Callable[[KeptLine, Sequence[PastJob], date], Iterator[Due]]
RULES: Mapping[DueKind, Rule] = {
    DueKind.RETORQUE: _retorque,
    DueKind.GREASE: _grease,
    DueKind.INSPECTION: _inspection,
    DueKind.ROUND: _round,
    DueKind.SEEN: _seen,
    DueKind.PLAY: _play,
    DueKind.CLOSED: _closed,
    DueKind.ALIGNMENT: _aligned,
    DueKind.PACKING: _packing,
    DueKind.OIL: _oil,
    DueKind.WORN: _worn,
}
