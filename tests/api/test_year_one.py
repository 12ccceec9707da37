"""A row no calendar has, put in by the owner of the database: every page is shown, and no more than that row is lost."""

from django.db import connection
from django.test import TestCase

from server.jobs.models import Entry, Job
from server.keep.due.summary import rebuild_site
from server.keep.models import DueItem
from server.plant.models import LineLook
from tests.site import Member, build_two_sites, job_of

YEAR_ONE = "0001-01-01T00:00:00+14:00"
BLOWER, YEAST = "Steep aeration blower 2", "Yeast pump"


class YearOneTest(TestCase):
    """Times, and answers nobody was asked."""

    job: Job

    @classmethod
    def setUpTestData(cls) -> None:
        cls.job = build_two_sites()
        closed = Job.objects.counted().filter(line__name=YEAST)[0]
        looked = LineLook.objects.filter(line__name=YEAST)[0]
        with connection.cursor() as cursor:
            cursor.execute("SET CONSTRAINTS ALL IMMEDIATE")
            cursor.execute("SET LOCAL session_replication_role = replica")
            cursor.execute("ALTER TABLE plant_linelook DROP CONSTRAINT look_of_these_days")
            cursor.execute("ALTER TABLE jobs_entry DROP CONSTRAINT entry_of_these_days")
            cursor.execute("ALTER TABLE jobs_job DROP CONSTRAINT job_of_these_days")
            cursor.execute("UPDATE plant_linelook SET at = %s WHERE id = %s", [YEAR_ONE, looked.pk])
            cursor.execute("UPDATE plant_linelook SET entered_at = 'infinity' WHERE id = %s", [looked.pk])
            for job in (cls.job, closed):
                cursor.execute("UPDATE jobs_job SET started_at = %s WHERE id = %s", [YEAR_ONE, job.pk])
                cursor.execute("UPDATE jobs_entry SET at = %s WHERE job_id = %s AND number = 2", [YEAR_ONE, job.pk])
            cursor.execute("SET LOCAL session_replication_role = origin")

    def pages(self) -> list[str]:
        """What a lead opens."""
        jobs = [job.pk for job in Job.objects.filter(site=self.job.site)]
        lines = [line.pk for line in self.job.site.lines.all()]
        return [
            *("/api/jobs", "/api/rounds", "/api/rounds/sheet.pdf", "/api/due", "/api/reasons?months=240", "/api/instruments"),
            *(f"/api/jobs/{job}" for job in jobs),
            *(f"/api/records/{job}{what}" for job in jobs for what in ("", "/json")),
            *(f"/api/history/{line}{what}" for line in lines for what in ("", "/csv")),
            *(f"/api/jobs/of-line/{line}" for line in lines),
            *(f"/api/due?line={line}" for line in lines),
        ]

    def assert_all_shown(self, *but: str) -> None:
        lead = Member("lead")
        for page in self.pages():
            with self.subTest(page):
                self.assertEqual(lead.get(page).status_code, 500 if any(one in page for one in but) else 200)

    def test_every_page_is_shown_and_a_look_is_taken(self) -> None:
        rebuild_site(self.job.site)
        self.assert_all_shown()
        line = LineLook.objects.filter(line__name=YEAST)[0].line
        status, _ = Member("lead").ask(
            "POST",
            "/api/rounds/looks",
            {"id": "5e8a3c1e-2f1b-4f6e-9a53-1f0f4a3d2c11", "line_id": str(line.pk), "leaks": "none"},
        )
        self.assertEqual(status, 201)

    def test_an_answer_nobody_was_asked_takes_its_own_job_down_and_nothing_else(self) -> None:
        job = job_of(BLOWER, closed=True)
        with connection.cursor() as cursor:
            cursor.execute("SET LOCAL session_replication_role = replica")
            cursor.execute(
                """UPDATE jobs_entry SET asked = '{"title": 7, "stage": [1], "fields": 3}' WHERE job_id = %s""", [job.pk]
            )
            cursor.execute("UPDATE jobs_entry SET inputs = '[]' WHERE job_id = %s", [job.pk])
            cursor.execute("SET LOCAL session_replication_role = origin")
        rebuild_site(self.job.site)
        self.assertGreater(DueItem.objects.filter(site=self.job.site).count(), 5)
        self.assertGreater(Entry.objects.filter(job=job).count(), 5)
        self.assert_all_shown(f"/api/jobs/{job.pk}")
        _, monday = Member("lead").ask("GET", "/api/reasons?months=240")
        self.assertIn(f"Job {job.number} cannot be read", [one["said"] for one in monday["left_out"]])
