"""Two years of Quillmere Maltings: three lines with a past, rounds through the hall, instruments and their calibration.

One line wears steadily, one jumped between two rounds, one was greased late. Every figure is invented.
"""

from collections.abc import Mapping
from datetime import datetime, time, timedelta
from random import Random
from typing import Any
from uuid import uuid4

from django.utils import timezone

from millwright.card.values import Value
from millwright.scope import Scope, Task
from server.accounts.models import Membership
from server.instruments.models import Bracket, Gauge, Wrench
from server.jobs.actions.start_job import start_job
from server.journal.write import write_down
from server.keep.due.summary import rebuild_instruments
from server.plant.actions import save_line
from server.plant.models import Line, LineLook

from . import blower
from .in_order import Told
from .lines import sample, site_rule

CRUSHER, YEAST, DRUM, MILL = "Malt crusher", "Yeast pump", "Drum turner", "Roller mill"
GREASE = "Brackwater coupling grease"
WALK = ("Steep aeration blower 2", CRUSHER, MILL, "Husk mill", "Kiln fan A", YEAST, DRUM)

# Further lines of the value cards: when something is due, and what may not be passed as it runs.
KEPT: dict[str, dict[str, Value]] = {
    CRUSHER: {
        "wear_limit_mm": sample(4.0, "18"),
        "twist_limit_mm": sample(9.0, "18"),
        "round_days": site_rule(30, "7"),
        "inspection_months": site_rule(12, "7"),
        "coupling_temperature_c": site_rule(75, "7"),
    },
    YEAST: {
        "round_days": site_rule(30, "7"),
        "alignment_months": site_rule(24, "7"),
        "vibration_mm_per_s": site_rule(4.5, "7"),
        "retorque_months": sample(12, "9"),
    },
    DRUM: {
        "grease_months": sample(6, "21"),
        "grease_product": Value(value=0, means=GREASE, source=sample(0, "21").source),
        "closed_check_months": site_rule(12, "7"),
        "round_days": site_rule(30, "7"),
    },
    "Steep aeration blower 2": {"first_inspection_months": sample(12, "12")},
    MILL: {"coupling_temperature_c": site_rule(70, "7"), "grease_months": sample(6, "21"), "round_days": site_rule(30, "7")},
    "Kiln fan A": {"grease_months": sample(12, "21"), "alignment_months": site_rule(12, "7")},
}
NEW_BLOCKS: dict[str, dict[str, Any]] = {
    "couple.gap_again": {"gap_mm": 6.0},
    "couple.blocks": {"set": "lot 31", "made": "2024-06", "pockets": 12, "blocks": 12},
    "couple.wear": {"zero_mm": 3.0, "grows": "grows", "light": "slot in the guard, motor side", "twist_mm": 1.5},
    "receive.kit": {"blocks_n": 12},
    "receive.blocks": {"go_in": "through the open ring, once the machines are set"},
}
WANDERED = tuple({"clock": clock, "value_mm": value} for clock, value in ((0, 0.0), (90, 0.02), (180, 0.03), (270, 0.01)))
PIPE: dict[str, dict[str, Any]] = {
    "found.align": {"dials": [{**blower.BOLTED["dials"][0], "readings": list(WANDERED)}, blower.BOLTED["dials"][1]]},
    "close.why": {"cause": "pipe strain", "found": "a hanger of the suction pipe was loose"},
}
SEAL: dict[str, dict[str, Any]] = {"close.why": {"cause": "lubrication", "found": "grease lost at the seal, motor side"}}
LATE: dict[str, dict[str, Any]] = {"close.why": {"cause": "lubrication", "found": "grease stiff and dark"}}
# Line, what is done, how long ago, to do what, and what is written otherwise than usual.
PAST: tuple[tuple[str, str, int, Scope, tuple[Task, ...], dict[str, dict[str, Any]]], ...] = (
    (CRUSHER, "New coupling, both hubs", 760, Scope.FIT, (), NEW_BLOCKS),
    (
        YEAST,
        "New coupling",
        725,
        Scope.FIT,
        (),
        {"receive.element": {"material": "polyurethane"}, "couple.gap_again": {"gap_mm": 16.0}},
    ),
    (YEAST, "Looked at: it had got louder", 41, Scope.CHECK, (), PIPE),
    (DRUM, "Greased", 700, Scope.UPKEEP, (Task.GREASE,), {}),
    (DRUM, "Greased, seal renewed", 512, Scope.UPKEEP, (Task.GREASE,), SEAL),
    (DRUM, "Greased late", 262, Scope.UPKEEP, (Task.GREASE,), LATE),
)
Round = tuple[int, dict[str, Any]]  # so many days ago, and what was read


def _crusher() -> list[Round]:
    """Wear at the mark since the set before and since the one that is in: 0.23 and 0.19 mm a month, read by strobe."""
    chance = Random(31)
    found: list[Round] = []
    for ago in range(750, 29, -30):
        begun, zero, a_month = (760, 3.0, 0.23) if ago > 400 else (400, 3.0, 0.19)
        worn = zero + a_month * (begun - ago) / 30.4 + chance.gauss(0, 0.05)
        warm = 48 + 4 * chance.random()
        found.append((ago, {"wear_mm": round(worn, 1), "temperature_c": round(warm), "leaks": "none", "noise": "as usual"}))
    return found


def _yeast() -> list[Round]:
    """Vibration level for two years, then a jump between two rounds."""
    chance = Random(7)
    found: list[Round] = []
    for ago in range(715, 3, -15):
        level = 1.6 if ago > 75 else 3.1
        noise = "as usual" if ago > 75 else "other than usual"
        found.append((ago, {"vibration_mm_per_s": round(level + chance.gauss(0, 0.15), 1), "leaks": "none", "noise": noise}))
    return found


def _drum() -> list[Round]:
    """Now and then grease at a seal; the hour meter read each time."""
    sweats = (290, 215, 27)
    return [
        (ago, {"leaks": "sweats" if ago in sweats else "none", "noise": "as usual", "hours": 9000.0 + 14.5 * (720 - ago)})
        for ago in (*range(710, 60, -75), 27)
    ]


def _mill() -> list[Round]:
    """Warm, and no warmer than it was."""
    chance = Random(5)
    return [
        (ago, {"temperature_c": round(52 + chance.gauss(0, 1.5)), "leaks": "none", "noise": "as usual"})
        for ago in range(145, 15, -28)
    ]


def put_on_the_cards(lines: dict[str, Line], lead: Membership) -> None:
    """The lines that say when something is due, on the cards and on the round."""
    for name, values in KEPT.items():
        line = lines[name]
        card = {**line.card, **values}
        lines[name] = save_line(
            by=lead,
            line_id=str(line.pk),
            version=line.version,
            name=name,
            spec=line.as_spec,
            values=card,
        )
    for line in lines.values():
        line.walk = WALK.index(line.name) if line.name in WALK else len(WALK)
    Line.objects.bulk_update(lines.values(), ["walk"])


def live_through(lines: Mapping[str, Line], millwright: Membership, lead: Membership, now: datetime, work: Any) -> None:
    """The jobs of those years. ``work`` - who works through one, step by step."""
    for name, title, ago, scope, tasks, said in PAST:
        line, then = lines[name], now - timedelta(days=ago)
        job = start_job(line, by=lead, title=title, now=then, scope=scope, tasks=tasks)
        work(job, millwright, lead, then, told=Told(said=said)).until(None)


def walk_the_rounds(lines: Mapping[str, Line], millwright: Membership, now: datetime) -> None:
    """What rounds read, in the early shift of their days."""
    for name, rounds in ((CRUSHER, _crusher()), (YEAST, _yeast()), (DRUM, _drum()), (MILL, _mill())):
        looks = LineLook.objects.bulk_create(
            LineLook(
                id=uuid4(),
                line=lines[name],
                at=_morning(now, ago),
                person=millwright.user,
                by=millwright.user.shown_name,
                role=millwright.role,
                entered_at=_morning(now, ago),
                **read,
            )
            for ago, read in rounds
        )
        write_down(millwright.site_id, looks)


def _morning(now: datetime, ago: int) -> datetime:
    then = timezone.localtime(now - timedelta(days=ago))
    return timezone.make_aware(datetime.combine(then.date(), time(6, 40)))


def hang_up_the_instruments(millwright: Membership, now: datetime) -> None:
    """A wrench out of date, a dial due this week, a laser good for months; a micrometer that was dropped."""
    site, by, today = millwright.site, millwright.user.shown_name, timezone.localdate(now)
    kept = {"site": site, "kept_by": by, "kept_at": now}
    for name, low, high, long, days in (("Wrench 3", 40, 200, 480, 120), ("Wrench 5", 8, 60, 290, -12)):
        until = today + timedelta(days=days)
        Wrench.objects.create(name=name, min_nm=low, max_nm=high, length_mm=long, calibrated_until=until, **kept)
    this_week = today + timedelta(days=4)
    Bracket.objects.create(
        site=site, name="Long bracket", sag_mm=-0.03, measured_by=by, measured_at=now, calibrated_until=this_week
    )
    Gauge.objects.create(kind="laser", name="L-1", calibrated_until=today + timedelta(days=210), **kept)
    Gauge.objects.create(kind="micrometer", name="M-50-75", calibrated_until=today + timedelta(days=33), **kept)
    Gauge.objects.create(
        kind="dial",
        name="D-7",
        calibrated_until=today + timedelta(days=80),
        withdrawn_at=now - timedelta(days=3),
        withdrawn_by=by,
        withdrawn_because="dropped, sticks at 0.3",
        **kept,
    )
    rebuild_instruments(site.pk)
