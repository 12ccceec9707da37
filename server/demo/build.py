"""Builds the demo site: accounts, lines, a closed job and one in hand."""

import json
from collections.abc import Mapping
from datetime import datetime, timedelta
from typing import Any
from uuid import UUID, uuid4

from django.db import transaction

from millwright.card.values import Value
from millwright.job.entry import EntryKind, SignatureKind
from millwright.job.now import StepState
from millwright.line import LineSpec
from millwright.model import read_json
from millwright.roles import Role
from millwright.scope import Scope
from server.accounts.models import Membership, Site, User
from server.jobs.actions.append_entry import Sent, append_entry
from server.jobs.actions.sign import sign
from server.jobs.actions.start_job import start_job
from server.jobs.models import Job
from server.keep.due.summary import rebuild
from server.plant.actions import save_line
from server.plant.models import Line

from . import blower, drum_turner, kiln_fan, pump, years
from .coupled import COUPLED
from .further_lines import CARDS, FURTHER
from .hanging import HANGING, IN_HAND
from .in_order import NOTHING_TOLD, Told, in_order
from .lines import LINES, VALUES

SITE = "Quillmere Maltings"
PEOPLE = {
    "apprentice": ("Wim", "Okonde", Role.APPRENTICE),
    "millwright": ("Jorun", "Thornquist", Role.MILLWRIGHT),
    "lead": ("Ansa", "Pellwright", Role.LEAD),
}
BETWEEN = timedelta(minutes=4)
COLD_AGAIN = timedelta(hours=3)
MOST_STEPS = 100
PROOF_HOURS = 12  # a shift and what it takes to hand it over
HOT_RUN = ("on the heater", "out of the heater", "on the shaft", "gripped")


def registered() -> dict[str, tuple[dict[str, Any], dict[str, Value]]]:
    """Every line by its name: what stands there, and its value card."""
    cards = {**VALUES, **CARDS}
    return {**{name: (spec, cards.get(name, {})) for name, spec in LINES.items()}, **FURTHER, **HANGING}


@transaction.atomic
def build_demo(*, password: str, now: datetime) -> Site:
    """Quillmere Maltings with its people, a line for each family, last year's job on blower 2 and the one in hand."""
    site = Site.objects.create(name=SITE)
    members = {}
    for username, (first, last, role) in PEOPLE.items():
        user = User.objects.create_user(username, password=password, first_name=first, last_name=last)
        members[username] = Membership.objects.create(user=user, site=site, role=role.value)
    lead, millwright = members["lead"], members["millwright"]
    lines = {
        name: save_line(
            by=lead,
            line_id=None,
            version=0,
            name=name,
            spec=read_json(LineSpec, json.dumps(spec)),
            values=values,
        )
        for name, (spec, values) in registered().items()
    }
    years.put_on_the_cards(lines, lead)
    years.hang_up_the_instruments(millwright, now)
    line = lines["Steep aeration blower 2"]
    long_ago = now - timedelta(days=402)
    old = Work(
        start_job(line, by=lead, title="New element and both hubs", now=long_ago),
        millwright,
        lead,
        long_ago,
        told=blower.TOLD,
        again=blower.AFTER_MOVE,
    )
    old.all_of_it()
    today = now - timedelta(hours=5)
    work = Work(
        start_job(line, by=lead, title="New coupling, both hubs", now=today), millwright, lead, today, told=blower.TOLD
    )
    work.until("set.align")
    work.enter("set.align", blower.FOUND)
    years.live_through(lines, millwright, lead, now, Work)
    align_the_kiln_fan(lines["Kiln fan A"], millwright, lead, now)
    heat_a_hub(lines["Kiln fan A"], millwright, lead, now)
    draw_up_a_taper(lines["Drum turner"], millwright, lead, now)
    align_with_the_laser(lines["Chilled-water pump 1"], millwright, lead, now)
    tap_a_hub_true(lines["Chilled-water pump 1"], millwright, lead, now)
    couple_up(lines, millwright, lead, now)
    hang(lines, millwright, lead, now)
    years.walk_the_rounds(lines, millwright, now)
    rebuild(lines.values())
    site.proof_hours = PROOF_HOURS
    site.save(update_fields=["proof_hours"])
    return site


def align_the_kiln_fan(line: Line, millwright: Membership, lead: Membership, now: datetime) -> None:
    """Last winter's job on the kiln fan: a soft foot cured, aligned for its growth with a foot that is bolt bound."""
    start = now - timedelta(days=300)
    work = Work(start_job(line, by=lead, title="Both hubs, aligned", now=start), millwright, lead, start, told=kiln_fan.TOLD)
    work.until("set.soft")
    work.enter("set.soft", kiln_fan.SOFT)
    work.enter("set.soft", kiln_fan.READ["set.soft"])
    work.until("set.align")
    work.enter("set.align", kiln_fan.FOUND)
    moves = work.planned_moves("set.align")
    work.enter("set.align", {"feet": moves, "note": "tail foot bolt bound, the fan slid as well"}, EntryKind.MOVE)
    work.until(None)


def heat_a_hub(line: Line, millwright: Membership, lead: Membership, now: datetime) -> None:
    """A job on the kiln fan, its first hub on the heater since a few minutes ago."""
    start = now - timedelta(hours=3)
    work = Work(start_job(line, by=lead, title="New gear coupling", now=start), millwright, lead, start, told=kiln_fan.TOLD)
    work.until(kiln_fan.RUN)
    last = kiln_fan.ON_THE_HEATER[-1][0]
    for minutes, degrees in kiln_fan.ON_THE_HEATER:
        work.now = now - timedelta(minutes=last + 3 - minutes) - BETWEEN
        event = {"event": "on the heater"} if degrees is None else {"event": "hub temperature", "hub_c": degrees}
        work.enter(kiln_fan.RUN, event, EntryKind.EVENT)


def draw_up_a_taper(line: Line, millwright: Membership, lead: Membership, now: datetime) -> None:
    """A job on the drum turner: its tapered hub stopped short at the first try."""
    start = now - timedelta(hours=10)
    title = "Both hubs off and on again"
    work = Work(start_job(line, by=lead, title=title, now=start), millwright, lead, start, told=drum_turner.TOLD)
    work.until(drum_turner.MISSED)
    work.enter(drum_turner.MISSED, drum_turner.FIRST_TRY)


def align_with_the_laser(line: Line, millwright: Membership, lead: Membership, now: datetime) -> None:
    """Last spring's job on the chilled-water pump: closed, its long spacer in, swept with the laser."""
    start = now - timedelta(days=190)
    job = start_job(line, by=lead, title="Aligned with the laser", now=start, scope=Scope.ALIGN)
    work = Work(job, millwright, lead, start, told=pump.LAST_SPRING)
    work.until("found.align")
    work.enter("found.closed", pump.ALIGNED["found.closed"])
    work.until("set.align")
    work.enter("set.align", pump.FOUND)
    work.enter("set.align", {"feet": work.planned_moves("set.align"), "note": "watched with the laser"}, EntryKind.MOVE)
    work.until(None)


def tap_a_hub_true(line: Line, millwright: Membership, lead: Membership, now: datetime) -> None:
    """A job on the chilled-water pump: its clamped hub runs out, half tight."""
    start = now - timedelta(hours=4)
    work = Work(
        start_job(line, by=lead, title="New coupling, pump hub clamped", now=start), millwright, lead, start, told=pump.TOLD
    )
    work.until(pump.NOT_TRUE)
    work.enter(pump.NOT_TRUE, pump.FIRST_READING)


def couple_up(lines: Mapping[str, Line], millwright: Membership, lead: Membership, now: datetime) -> None:
    """Two jobs that were closed, two in the middle of coupling up."""
    for name, title, scope, ago, said, at in COUPLED:
        job = start_job(lines[name], by=lead, title=title, now=now - ago, scope=scope)
        Work(job, millwright, lead, now - ago, told=Told(said=said)).until(at)


def hang(lines: Mapping[str, Line], millwright: Membership, lead: Membership, now: datetime) -> None:
    """A backstop two people agreed on, a conveyor drive with its packing in, a magnetic drive whose gap is uneven."""
    for name, title, scope, ago, said, at, read in IN_HAND:
        job = start_job(lines[name], by=lead, title=title, now=now - ago, scope=scope)
        work = Work(job, millwright, lead, now - ago, told=Told(said=said))
        work.until(at)
        if read is not None:
            work.enter(at, read)


class Work:
    """Somebody working through a job, a few minutes a step.

    ``again`` - by step, what is read there after a move
    """

    def __init__(
        self,
        job: Job,
        millwright: Membership,
        lead: Membership,
        start: datetime,
        *,
        again: Mapping[str, dict[str, Any]] = {},
        told: Told = NOTHING_TOLD,
    ) -> None:
        self.job, self.millwright, self.lead, self.now = job, millwright, lead, start
        self.fill, self.again = in_order(job, told), again
        self.entries, self.signatures = [e.as_core for e in job.entries.all()], [s.as_core for s in job.signatures.all()]

    def planned_moves(self, step: str) -> list[dict[str, Any]]:
        """What the last reading of a step says to move, to the hundredth."""
        result = self.job.entries.filter(step=step).latest("number").result or {}
        return [
            {"name": m["name"], "shim_mm": round(m["shim_mm"], 2), "slide_mm": round(m["slide_mm"], 2)}
            for m in result["plan"] or result["feet"]
        ]

    def enter(
        self, step: str, inputs: dict[str, Any], kind: EntryKind = EntryKind.READING, by: Membership | None = None
    ) -> None:
        """One entry, by the millwright unless somebody else is named."""
        self.now += BETWEEN
        sent = Sent(id=uuid4(), step=step, kind=kind, inputs=inputs, as_it_is=True)
        self.entries.append(append_entry(self.job.pk, sent, by=by or self.millwright, now=self.now).as_core)

    def sign(self, step: str, entry: str | None) -> None:
        """A hold point, signed by the lead."""
        self.now += BETWEEN
        signer = self.millwright if step == "close.hand" else self.lead
        covers = UUID(entry) if entry else None
        made = sign(
            self.job.pk, id=uuid4(), by=signer, step=step, kind=SignatureKind.HOLD, entry=covers, reason="", now=self.now
        )
        self.signatures.append(made.as_core)

    def until(self, last: str | None) -> None:
        """Every open step in working order, up to but without the last."""
        for _ in range(MOST_STEPS):
            now = self.job.stand_after(self.entries, now=self.now, signatures=self.signatures).next()
            if now is None or now.step.key == last:
                return
            if now.state is StepState.TO_SIGN:
                self.sign(now.step.key, now.current.id if now.current else None)
            elif now.state is StepState.STALE:
                self.enter(now.step.key, self.again.get(now.step.key) or self.fill(now.step))
            else:
                if now.step.waits_for:
                    self.now += COLD_AGAIN
                for event in HOT_RUN if now.step.heat_plan else ():
                    self.enter(now.step.key, {"event": event}, EntryKind.EVENT)
                self.enter(now.step.key, self.fill(now.step), by=self.lead if now.step.second_to else None)
        raise RuntimeError(f"job {self.job.number} does not get past {now.step.key if now else last}")

    def all_of_it(self) -> None:
        """The whole job: as found, one move, as left, signed."""
        self.until("set.align")
        self.enter("set.align", blower.FOUND)
        self.enter("set.align", blower.MOVE, EntryKind.MOVE)
        self.until(None)
