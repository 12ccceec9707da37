"""A closed record stays what it was; a line remembers who changed it; the site says how old a proof may be."""

import json
from dataclasses import replace
from datetime import timedelta
from unittest import mock

from django.db import connection
from django.test import TestCase
from django.utils import timezone

from millwright.job import stand as derived_from
from millwright.job.now import RouteNow
from millwright.plan.families.register import FAMILIES
from millwright.tests.work import Work
from server.accounts.models import Site
from server.jobs.models import Job
from server.plant.models import Line
from server.reports.issue import digest_of
from server.reports.models import IssuedRecord
from tests.in_words import in_words
from tests.site import Member, build_two_sites, job_of
from tests.worked import worked

from .test_records import text_of

BLOWER = "Steep aeration blower 2"


class IssuedTest(TestCase):
    """What was signed."""

    @classmethod
    def setUpTestData(cls) -> None:
        build_two_sites()

    def text_of(self, job: Job) -> str:
        """The words of its PDF."""
        _, paper = Member("lead").ask("GET", f"/api/records/{job.pk}/pdf")
        return text_of(paper)

    def test_a_record_is_issued_when_it_is_closed_with_a_digest_of_what_it_says(self) -> None:
        work = Work()
        work.until("close.hand")
        job = worked("Mash pump", work)
        lead, millwright = Member("lead"), Member("millwright")
        self.assertFalse(IssuedRecord.objects.filter(job=job).exists())
        self.assertEqual(lead.ask("GET", f"/api/records/{job.pk}")[1]["digest"], "")
        self.assertEqual(millwright.sign(job, "close.hand")[0], 201)
        self.assertEqual(lead.sign(job, "close.sign")[0], 201)
        issued = IssuedRecord.objects.get(job=job)
        self.assertEqual(issued.digest, digest_of(issued.data))
        self.assertNotEqual(issued.digest, digest_of({**issued.data, "title": "another"}))
        _, record = lead.ask("GET", f"/api/records/{job.pk}")
        self.assertEqual((record["digest"], record["closed"], record["open_things"]), (issued.digest, True, []))

    def test_it_stays_as_it_was_word_for_word_whatever_the_app_says_later(self) -> None:
        job = job_of(BLOWER, closed=True)
        _, before = Member("lead").ask("GET", f"/api/records/{job.pk}")
        paper = self.text_of(job)
        self.assertIn(before["digest"], paper)

        def reworded(route: RouteNow) -> RouteNow:
            steps = (replace(now, step=replace(now.step, title="Something else"), state=now.state) for now in route.steps)
            return replace(route, steps=tuple(steps))

        real = derived_from.stand
        with mock.patch("server.jobs.models.job.derived", lambda *a, **k: reworded(real(*a, **k))):
            self.assertEqual(Member("lead").ask("GET", f"/api/records/{job.pk}")[1], before)
            self.assertEqual(self.text_of(job), paper)

    def test_a_note_that_comes_later_stands_apart_and_changes_nothing(self) -> None:
        job = job_of(BLOWER, closed=True)
        lead = Member("lead")
        _, before = lead.ask("GET", f"/api/records/{job.pk}")
        self.assertEqual(lead.enter(job, "close.start", {"text": "hums since the frost"}, kind="note")[0], 201)
        _, after = lead.ask("GET", f"/api/records/{job.pk}")
        (since,) = after.pop("added_since")
        self.assertEqual(in_words(since["readings"][0]["figures"][0]["value"]), "hums since the frost")
        self.assertEqual(after, {key: value for key, value in before.items() if key != "added_since"})

    def test_nobody_changes_what_was_issued(self) -> None:
        job = job_of(BLOWER, closed=True)
        Member("lead").ask("GET", f"/api/records/{job.pk}")
        with self.assertRaisesMessage(Exception, "append-only"), connection.cursor() as cursor:
            cursor.execute("UPDATE reports_issuedrecord SET digest = ''")


class ProcedureTest(TestCase):
    """A job is done by the procedure it was started under."""

    @classmethod
    def setUpTestData(cls) -> None:
        build_two_sites()

    def test_a_job_that_was_started_goes_on_by_its_version_and_the_next_one_by_the_newest(self) -> None:
        known = FAMILIES["jaw, curved"]
        newer = replace(known.procedure(), version=3, couple_up=known.procedure().couple_up[1:])
        old = worked("Mash pump", Work())
        changed = {"jaw, curved": replace(known, procedures=(*known.procedures, newer))}
        with mock.patch.dict(FAMILIES, changed):
            new = worked("Mash pump 2", Work())
            self.assertEqual((old.procedure, new.procedure), (2, 3))
            found = [job.stand().find("couple.element") is not None for job in (old, new)]
            self.assertEqual(found, [True, False])
            written = json.loads(Member("lead").get(f"/api/records/{new.pk}/json").content)
            self.assertEqual(written["procedure"], 3)


class LineHistoryTest(TestCase):
    """Who changed what on a line."""

    @classmethod
    def setUpTestData(cls) -> None:
        build_two_sites()

    def test_every_change_of_machines_and_values_stands_with_its_author(self) -> None:
        line = Line.objects.get(name=BLOWER)
        lead, path = Member("lead"), f"/api/lines/{line.pk}"
        _, shown = lead.ask("GET", path)
        body = {key: shown[key] for key in ("name", "version", "spec", "values")}
        body["spec"] = {**body["spec"], "speed_rpm": 1490.0}
        body["spec"]["driver"] = {**body["spec"]["driver"], "shaft_diameter_mm": 50.0}
        body["values"] = {**body["values"], "offset_limit_mm": {**body["values"]["offset_limit_mm"], "value": 0.3}}
        status, said = lead.ask("PUT", path, {**body, "reason": "measured"})
        self.assertEqual(status, 200, said)
        _, changes = lead.ask("GET", f"{path}/changes")
        self.assertEqual([c["version"] for c in changes], [3, 2, 1])
        last = changes[0]
        self.assertEqual((last["by"], last["role"]), ("Ansa Pellwright", "lead"))
        found = {c["what"]: (in_words(c["was"]), in_words(c["now"])) for c in last["changes"]}
        self.assertEqual(found["speed"], ("1480 rpm", "1490 rpm"))
        self.assertEqual(found["driver, shaft diameter"], ("48 mm", "50 mm"))
        was, now = found["Offset limit of the coupling"]
        self.assertTrue(was.startswith("0.4 mm, offset; sample:"), was)
        self.assertTrue(now.startswith("0.3 mm, offset; sample:"), now)
        self.assertEqual(len(found), 3)
        self.assertEqual(Member("stranger").ask("GET", f"{path}/changes")[0], 404)


class SiteRuleTest(TestCase):
    """How long a proof of the dead state holds."""

    @classmethod
    def setUpTestData(cls) -> None:
        build_two_sites()

    def test_the_lead_says_it_and_it_holds_for_every_job_of_the_site(self) -> None:
        self.assertEqual(Member("millwright").ask("PUT", "/api/session/site-rule", {"proof_hours": 2})[0], 403)
        for nonsense in (0, 73, 1.5, "eight"):
            self.assertEqual(Member("lead").ask("PUT", "/api/session/site-rule", {"proof_hours": nonsense})[0], 422, nonsense)
        status, session = Member("lead").ask("PUT", "/api/session/site-rule", {"proof_hours": 2})
        self.assertEqual((status, session["site"]["proof_hours"], session["site"]["lock_minutes"]), (200, 2, 30))
        job = job_of(BLOWER)  # in hand since five hours
        _, shown = Member("millwright").ask("GET", f"/api/jobs/{job.pk}")
        self.assertEqual((shown["next"], shown["locks"]["live"]), ("prepare.dead", False))
        self.assertIn("older than 2 h", shown["locks"]["proof_due"])
        gap = job.entries.filter(step="set.gap").latest("number").inputs
        status, said = Member("millwright").enter(job, "set.gap", {key: gap[key] for key in ("readings", "diameter_mm")})
        self.assertEqual(status, 409)
        self.assertIn("Prove it dead again first", said["errors"][0]["message"])
        Site.objects.update(proof_hours=None)
        self.assertLess(job.started_at, timezone.now() - timedelta(hours=4))
        self.assertEqual(Member("millwright").ask("GET", f"/api/jobs/{job.pk}")[1]["next"], "set.align")
