"""Whole jobs through the server, done by a hand that reads what is shown and types what it measured: every family and
scope, in mm and in inches, to the signed record, its paper, file and dues; and fitting it with every step entered twice."""

from collections import Counter
from collections.abc import Mapping
from random import Random
from typing import Any, get_args
from uuid import uuid4

from django.db import transaction
from django.test import TestCase

from millwright.line import SIDES, Family
from millwright.plan.compose import scopes_of
from millwright.plan.families.register import FAMILIES
from millwright.plan.hubs.tapered import BY_ITS_NUT
from millwright.plan.upkeep import tasks_of
from millwright.rig.hand import Hand, Typed, typed_in
from millwright.scope import Scope
from millwright.tests.work import Work, ways_of
from millwright.units import LengthUnit
from server.jobs.models import Job
from server.keep.read import past_jobs
from server.reports.issue import page_of
from tests.site import PASSWORD, Member, build_two_sites, forget_jobs, is_whole
from tests.worked import registered

UNITS: tuple[LengthUnit, ...] = get_args(LengthUnit)
MOST_STEPS = 150


class Played:
    """A job as its people do it: a millwright who enters, a lead who signs, both by what the job shows."""

    def __init__(self, family: Family, held: tuple[str, str], scope: Scope, unit: LengthUnit, **spec: Any) -> None:
        self.millwright, self.lead = Member("millwright"), Member("lead")
        work = Work(family=family, held=held, **spec)
        line = registered(f"Line {uuid4()}", work)
        tasks = [task.value for task in tasks_of(work.line)] if scope is Scope.UPKEEP else []
        body = {"title": "Whole", "scope": scope.value, "unit": unit, "tasks": tasks}
        self.shown = self._ask(self.lead, "POST", f"/api/jobs/of-line/{line.pk}", body, 201)
        self.at, self.unit = f"/api/jobs/{self.shown['id']}", unit
        self.hand = Hand(spec=self.shown["spec"], unit=unit, chance=Random(self.at))

    def _ask(self, who: Member, method: str, path: str, body: Any, status: int) -> Any:
        answered, said = who.ask(method, path, body)
        assert answered == status, (path, body, said)
        return said

    @property
    def next(self) -> Any:
        """The step the job asks for, as it stands; None at its end."""
        self.shown = self._ask(self.millwright, "GET", self.at, None, 200)
        return next((step for step in self.shown["steps"] if step["key"] == self.shown["next"]), None)

    def sign(self, step: Mapping[str, Any]) -> None:
        """By the lead, with the password."""
        body = {"id": str(uuid4()), "step": step["key"], "kind": "hold", "entry": step["current"], "password": PASSWORD}
        self._ask(self.lead, "POST", f"{self.at}/signatures", body, 201)

    def enter(self, step: Mapping[str, Any], typed: Typed | None = None) -> str:
        """What the hand read there, as it typed it; by another person where another person is wanted. The entry's id."""
        typed = typed or self.hand.answer(step, self.shown["card"])
        body = {"inputs": typed.inputs, "typed": typed.typed, "unit": self.unit, "as_it_is": True}
        who = self.lead if step["second_to"] else self.millwright
        return self._send(who, step, {"kind": "reading", **body})

    def take_out(self, step: Mapping[str, Any], entry: str) -> None:
        """A slip, by whoever entered it."""
        who = self.lead if step["second_to"] else self.millwright
        self._send(who, step, {"kind": "slip", "inputs": {"entry": entry}})

    def _send(self, who: Member, step: Mapping[str, Any], body: Mapping[str, Any]) -> str:
        sent = {"id": str(uuid4()), "step": step["key"], **body}
        return str(self._ask(who, "POST", f"{self.at}/entries", sent, 201)["id"])

    def to_its_end(self) -> Job:
        """Every step once."""
        for _ in range(MOST_STEPS):
            if (step := self.next) is None:
                return Job.objects.get(pk=self.shown["id"])
            self.sign(step) if step["state"] == "to sign" else self.enter(step)
        raise AssertionError(f"it does not come to an end: {self.shown['next']}")


def held_of(family: str, i: int = 0) -> tuple[str, str]:
    """How its two hubs are held: each way in turn."""
    ways = ways_of(family)
    return (ways[-1],) * 2 if family == "screw-conveyor drive" else (ways[i % len(ways)], ways[(i + 1) % len(ways)])


class WholeJobsTest(TestCase):
    """To its end, and read by everybody who reads one."""

    stand_alone = True

    @classmethod
    def setUpTestData(cls) -> None:
        build_two_sites()

    def read_back(self, job: Job, *, on_paper: bool) -> None:
        """Its page, its file out and in, its chain; and its paper, where there is time for it."""
        self.assertTrue(job.signed)
        self.assertTrue(is_whole(job))
        self.assertIn(job.line.name, page_of(job))
        reader = Member("lead")
        for path in (f"/api/records/{job.pk}", f"/api/history/{job.line_id}", "/api/due", f"/api/records/{job.pk}/pdf"):
            if on_paper or not path.endswith("/pdf"):
                self.assertEqual(reader.get(path).status_code, 200, path)
        file = reader.get(f"/api/records/{job.pk}/json").content
        with transaction.atomic():
            forget_jobs()
            answer = reader.post("/api/records", file, content_type="application/json")
            self.assertEqual(answer.status_code, 201, answer.content)
            self.assertNotIn("not judged", str(answer.json()["read_in"]))
            transaction.set_rollback(True)

    def closed(self, family: Family, i: int) -> None:
        """Every scope of a family but fitting it, which is where every step is entered twice."""
        line = Work(family=family, held=held_of(family, i)).line
        for n, scope in enumerate(scope for scope in scopes_of(line) if scope is not Scope.FIT):
            with self.subTest(f"{family}, {scope.value}"):
                job = Played(family, held_of(family, i + n), scope, UNITS[(i + n) % 2]).to_its_end()
                self.read_back(job, on_paper=False)

    def entered_twice(self, family: Family, i: int) -> None:
        """Every step of fitting a family: entered, entered again, taken out as a slip, entered again; read at each,
        and at the first of a stage while all is still there twice."""
        self.twice(Played(family, held_of(family, i), Scope.FIT, UNITS[i % 2]), on_paper=i % 8 == 0)

    def twice(self, played: Played, said: Mapping[str, Mapping[str, Any]] = {}, *, on_paper: bool) -> None:
        """``said`` - by step, what is answered there otherwise than where all is usual"""
        stage = ""
        for _ in range(MOST_STEPS):
            if (step := played.next) is None:
                break
            with self.subTest(step["key"]):
                if step["state"] == "to sign":
                    played.sign(step)
                    continue
                typed = played.hand.answer(step, played.shown["card"])
                own = typed_in(said.get(step["key"], {}), played.unit)
                typed = Typed(inputs=typed.inputs | own.inputs, typed=typed.typed | own.typed)
                played.enter(step, typed)
                again = played.enter(step, typed)
                if step["stage"] != stage:
                    stage = step["stage"]
                    self.assertEqual(played.next is not None and played.shown["may_be_slip"], again)
                played.take_out(step, again)
                played.enter(step, typed)
        job = Job.objects.get(pk=played.shown["id"])
        self.read_back(job, on_paper=on_paper)
        reads = past_jobs([job.line_id])[job.line_id][0].reads
        entered = Counter(job.entries.values_list("kind", flat=True))
        self.assertEqual(len(reads), entered["reading"] - entered["slip"], "what was taken out as a slip counts for nothing")

    def test_a_taper_drawn_up_cold_and_shafts_that_reach_into_an_open_centre(self) -> None:
        decided = {f"prepare.decide.{side}": {"decision": BY_ITS_NUT} for side in SIDES}
        self.twice(Played("gear", ("tapered bore", "tapered bore"), Scope.FIT, "in"), decided, on_paper=True)
        reaching: Mapping[str, Mapping[str, Any]] = {
            "receive.element": {"centre": "open centre"},
            "prepare.distance": {"distance_mm": 20.0},
            "prepare.opening": {"opening_mm": 60.0, "key_driver_mm": 2.0, "key_driven_mm": 1.0},
        }
        slow = Played("jaw, curved", held_of("jaw, curved"), Scope.FIT, "in", speed_rpm=900)
        self.twice(slow, reaching, on_paper=True)


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
