"""What the application falls over says so, with its number in the log, and lets its file be fetched."""

from unittest import mock

from django.test import TestCase

from server.jobs.models import Job
from tests.site import Member, build_two_sites


class ToldFaultsTest(TestCase):
    """A job whose page cannot be made."""

    job: Job

    @classmethod
    def setUpTestData(cls) -> None:
        cls.job = build_two_sites()

    def test_a_job_that_cannot_be_shown_says_its_number_and_that_of_its_trace_in_the_log(self) -> None:
        member = Member("apprentice")
        with (
            mock.patch("server.jobs.api.job_out", side_effect=TypeError("'bool' object is not iterable")),
            self.assertLogs("server.web.errors", "ERROR") as log,
        ):
            answer = member.get(f"/api/jobs/{self.job.pk}")
        [said] = answer.json()["errors"]
        number = answer.headers["X-Fault"]
        self.assertEqual(answer.status_code, 500)
        self.assertIn(f"Job {self.job.number} cannot be shown", said["message"])
        self.assertIn(number, said["message"])
        self.assertIn(number, log.output[0])
        self.assertIn("'bool' object is not iterable", log.output[0])
        self.assertEqual(member.ask("GET", f"/api/records/{self.job.pk}/json")[0], 200)

    def test_what_has_an_answer_of_its_own_is_no_fault(self) -> None:
        self.assertEqual(Member("stranger").ask("GET", f"/api/jobs/{self.job.pk}")[0], 404)
