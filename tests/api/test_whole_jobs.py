"""Whole jobs through the server: every family and scope to its signed record; and every step entered twice, taken out as a
slip and entered again, with what shows a job read back on the way."""

from collections.abc import Mapping
from typing import Any, get_args
from uuid import UUID, uuid4

from django.test import TestCase
from django.utils import timezone

from millwright.line import Family
from millwright.route.build import scopes_of
from millwright.route.families.register import FAMILIES
from millwright.route.state import Entry, EntryKind, SignatureKind, StepState
from millwright.route.upkeep import tasks_of
from millwright.scope import Scope
from millwright.tests.work import Work, ways_of
from server.accounts.models import Membership
from server.jobs.actions.append_entry import Sent, append_entry
from server.jobs.actions.sign import sign
from server.jobs.actions.start_job import start_job
from server.jobs.models import Job
from server.reports.issue import page_of
from tests.site import Member, build_two_sites
from tests.worked import registered


class Served(Work):
    """A job that is entered in the database, through the same doors as a hand's; where it stands is known here as well."""

    def __init__(self, *, site_of: Membership, **work: Any) -> None:
        super().__init__(**work)
        people = Membership.objects.filter(site=site_of.site)
        self.lead, self.millwright = (people.get(user__username=who) for who in ("lead", "millwright"))
        line = registered(f"Line {uuid4()}", self)
        self.job: Job = start_job(
            line, by=self.lead, title="Whole", now=timezone.now(), scope=self.scope, tasks=self.terms.tasks
        )

    def enter(self, key: str, inputs: dict[str, Any], kind: EntryKind = EntryKind.READING, *_: Any, **__: Any) -> Entry:
        now = self.route().find(key)
        by = self.lead if now is not None and now.step.second_to else self.millwright
        sent = Sent(id=uuid4(), step=key, kind=kind, inputs=inputs, as_it_is=True)
        made = append_entry(self.job.pk, sent, by=by, now=timezone.now()).as_core
        self.entries.append(made)
        return made

    def sign(self, key: str, kind: SignatureKind = SignatureKind.HOLD) -> None:
        now = self.route().find(key)
        assert now is not None
        covers = UUID(now.current.id) if now.current else None
        made = sign(
            self.job.pk, id=uuid4(), by=self.lead, step=key, kind=kind, entry=covers, reason="why", now=timezone.now()
        )
        self.signatures.append(made.as_core)

    def twice(self) -> Entry:
        """What is next, entered, and entered again."""
        now = self.route().next()
        assert now is not None
        key = now.step.key
        self.enter(key, self.fill(key))
        return self.enter(key, self.fill(key))


def held_of(family: str, i: int = 0) -> tuple[str, str]:
    """How its two hubs are held: each way in turn."""
    ways = ways_of(family)
    return (ways[-1],) * 2 if family == "screw-conveyor drive" else (ways[i % len(ways)], ways[(i + 1) % len(ways)])


class WholeJobsTest(TestCase):
    """To its end, and read by everybody who reads one."""

    stand_alone = True
    site_of: Membership

    @classmethod
    def setUpTestData(cls) -> None:
        build_two_sites()
        cls.site_of = Membership.objects.get(user__username="lead")

    def read_back(self, job: Job, *kinds: str) -> None:
        """The page, and the record in these ways."""
        reader = Member("apprentice")
        shown = [f"/api/records/{job.pk}{kind}" for kind in kinds]
        for path in (f"/api/jobs/{job.pk}", *shown):
            status, said = reader.ask("GET", path)
            self.assertEqual(status, 200, (path, said))

    def closed(self, family: Family, i: int) -> None:
        """Every scope of a family, signed and closed; fitting it is, where every step is entered twice."""
        line = Work(family=family, held=held_of(family, i)).line
        for n, scope in enumerate(scope for scope in scopes_of(line) if scope is not Scope.FIT):
            with self.subTest(f"{family}, {scope.value}"):
                tasks = tasks_of(line) if scope is Scope.UPKEEP else ()
                work = Served(site_of=self.site_of, family=family, held=held_of(family, i + n), scope=scope, tasks=tasks)
                work.until(None)
                self.assertTrue(Job.objects.get(pk=work.job.pk).signed)
                self.read_back(work.job, "", "/json")

    def entered_twice(self, family: Family, i: int) -> None:
        """Every step of fitting a family; what shows the job is read at the end of each stage, once all is still twice there
        and once it is taken out."""
        work, stage = Served(site_of=self.site_of, family=family, held=held_of(family, i)), ""
        while (now := work.route().next()) is not None:
            key = now.step.key
            if now.state is StepState.TO_SIGN:
                work.sign(key)
                continue
            with self.subTest(f"{family}, {key}"):
                again = work.twice()
                if now.step.stage != stage:
                    stage = now.step.stage
                    self.read_back(work.job, "")
                work.enter(key, {"entry": again.id}, EntryKind.SLIP)
                work.enter(key, work.fill(key))
        closed = Job.objects.get(pk=work.job.pk)
        self.assertTrue(closed.signed)
        on_paper = i % 8 == 0  # setting the type takes seconds and knows nothing of a family; the page it sets does
        self.read_back(closed, "", "/json", *(["/pdf"] if on_paper else []))
        self.assertIn(closed.line.name, page_of(closed))


def _of_each(name: str, do: Any) -> Mapping[str, Any]:
    """A test a family, so that they are dealt out to all workers."""

    def made(family: Family, i: int) -> Any:
        return lambda self: do(self, family, i)

    slugs = {family: family.replace(",", "").replace(" ", "_").replace("-", "_") for family in FAMILIES}
    return {f"test_{slugs[family]}_{name}": made(family, i) for i, family in enumerate(get_args(Family))}


for _name, _test in {
    **_of_each("is_closed_whatever_it_is_there_to_do", WholeJobsTest.closed),
    **_of_each("is_read_back_with_every_step_entered_twice_and_taken_out", WholeJobsTest.entered_twice),
}.items():
    setattr(WholeJobsTest, _name, _test)
