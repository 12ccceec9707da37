"""What two people answer each for himself: nobody sees the first answer before the second is in, by no address."""

from typing import Any

from millwright.scope import Scope
from millwright.tests.readings import SAID, SAID_ACROSS
from millwright.tests.work import Work
from server.jobs.models import Job
from tests.site import Member, OwnTransactions, build_two_sites
from tests.worked import worked

WAY, AGAIN = "backstop.way", "backstop.way_again"


class CoveredTest(OwnTransactions):
    """A job that fits a backstop, its first answer in."""

    def setUp(self) -> None:
        build_two_sites()
        work = Work(family="shaft-mounted reducer", scope=Scope.BACKSTOP)
        work.until(WAY)
        self.job: Job = worked("Barley elevator 2", work)
        self.millwright, self.lead = Member("millwright"), Member("lead")
        self.assertEqual(self.millwright.enter(self.job, WAY, SAID)[0], 201)

    def shown(self, who: Member) -> tuple[dict[str, Any], dict[str, Any], bool]:
        """The first step and the second as somebody sees them, and whether the first answer is among the entries."""
        _, job = who.ask("GET", f"/api/jobs/{self.job.pk}")
        first, second = (next(step for step in job["steps"] if step["key"] == key) for key in (WAY, AGAIN))
        return first, second, any(entry["step"] == WAY for entry in job["entries"])

    def test_only_whoever_gave_it_sees_it_and_they_may_not_give_the_second(self) -> None:
        first, second, seen = self.shown(self.lead)
        self.assertEqual((first["covered"], second["form"]["compare"], seen), ("Jorun Thornquist", {}, False))
        first, second, seen = self.shown(self.millwright)
        self.assertEqual((first["covered"], seen), ("", True))
        self.assertIn("Another person", str(second["blocked_by"]))
        status, said = self.millwright.enter(self.job, AGAIN, SAID_ACROSS)
        self.assertEqual(status, 409)
        self.assertIn("Another person", said["errors"][0]["message"])

    def test_by_no_address_is_it_seen_before(self) -> None:
        entry = self.job.entries.get(step=WAY).pk
        for path in (f"/api/jobs/{self.job.pk}/entries/{entry}", f"/api/records/{self.job.pk}/entries/{entry}"):
            self.assertEqual((self.lead.ask("GET", path)[0], self.millwright.ask("GET", path)[0]), (404, 200), path)
        _, record = self.lead.ask("GET", f"/api/records/{self.job.pk}")
        [step] = [step for step in record["steps"] if step["key"] == WAY]
        self.assertEqual(step["readings"], [])
        for who in (self.lead, self.millwright):  # who gave it might hand it over, or leave it on the tablet
            status, said = who.ask("GET", f"/api/records/{self.job.pk}/json")
            self.assertEqual((status, said["errors"][0]["message"]), (409, record["file_waits"]))
        self.assertIn("before a second person has answered", record["file_waits"])

    def test_once_the_second_is_in_both_are_seen_side_by_side(self) -> None:
        self.assertEqual(self.lead.enter(self.job, AGAIN, SAID_ACROSS)[0], 201)
        first, second, seen = self.shown(self.lead)
        self.assertEqual((first["covered"], seen, second["state"]), ("", True, "done"))
        stored = self.job.entries.get(step=AGAIN)
        self.assertEqual(stored.inputs["said_before"], SAID)
        self.assertEqual(stored.result["verdict"], "not judged")
        _, record = self.lead.ask("GET", f"/api/records/{self.job.pk}")
        [step] = [step for step in record["steps"] if step["key"] == WAY]
        self.assertIn("Gear train", step["readings"][0]["drawing_title"])
        self.assertEqual((record["file_waits"], self.lead.ask("GET", f"/api/records/{self.job.pk}/json")[0]), ("", 200))

    def test_a_line_without_a_gear_unit_has_no_such_job_until_it_is_registered(self) -> None:
        line = self.job.line
        spec = {**line.spec, "coupling": {**line.spec["coupling"], "family": "gear"}}
        for backstop, wanted in ((False, 422), (True, 201)):
            body = {"name": f"Mill {backstop}", "version": 0, "spec": {**spec, "backstop": backstop}, "values": {}}
            status, made = self.lead.ask("POST", "/api/lines", body)
            self.assertEqual(status, 201, made)
            started = self.lead.ask(
                "POST", f"/api/jobs/of-line/{made['id']}", {"title": "Backstop", "scope": "fit a backstop"}
            )
            self.assertEqual(started[0], wanted)
