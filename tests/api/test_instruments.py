"""The register of instruments: what is withdrawn, what is out of date."""

from datetime import timedelta

from django.utils import timezone

from server.accounts.models import Membership
from server.demo.build import Work
from server.instruments.models import Wrench
from server.jobs.models import Job
from server.keep.models import DueItem
from tests.site import Member

from .demo_site import DemoTest

TITLE = "Check every torque a second time"


class InstrumentTest(DemoTest):
    def test_one_that_is_withdrawn_while_it_is_out_takes_no_reading_and_names_what_it_read(self) -> None:
        job = Job.objects.get(line__name="Chilled-water pump 1", closed_at=None)
        step, wrench = "prepare.dead", {"name": "Wrench 3", "min_nm": 40.0, "max_nm": 200.0}
        body = {"kind": "torque wrench", "name": "Wrench 3", "reason": ""}
        self.assertEqual(self.lead.ask("POST", "/api/instruments/withdraw", body)[0], 422)
        self.assertEqual(Member("apprentice").ask("POST", "/api/instruments/withdraw", {**body, "reason": "x"})[0], 403)
        status, register = self.lead.ask("POST", "/api/instruments/withdraw", {**body, "reason": "dropped"})
        self.assertEqual(status, 200)
        [out] = [one for one in register["instruments"] if one["name"] == "Wrench 3"]
        self.assertEqual((out["withdrawn_because"], out["withdrawn_by"]), ("dropped", "Ansa Pellwright"))
        status, said = self.millwright.enter(job, step, {"wrench": wrench, "pulls": []})
        self.assertEqual((status, said["errors"][0]["path"]), (422, "wrench.name"))
        self.assertFalse(DueItem.objects.filter(name="Wrench 3").exists())
        kept = {one["name"]: one["usable"] for one in self.lead.get("/api/instruments/wrenches").json()}
        self.assertEqual(kept, {"Wrench 3": False, "Wrench 5": False})
        later = (self.today + timedelta(days=365)).isoformat()
        back = {"kind": "torque wrench", "name": "Wrench 3", "calibrated_until": later}
        self.assertEqual(self.lead.ask("PUT", "/api/instruments", back)[0], 200)
        self.assertTrue(Wrench.objects.get(name="Wrench 3").usable)

    def test_what_it_read_in_an_open_job_is_named(self) -> None:
        lead, millwright = (Membership.objects.get(user__username=name) for name in ("lead", "millwright"))
        now = timezone.now()
        job = Job.objects.get(line__name="Steep aeration blower 2", closed_at=None)
        Work(job, millwright, lead, now).until("close.count")
        body = {"kind": "torque wrench", "name": "Wrench 3", "reason": "dropped"}
        _, register = self.lead.ask("POST", "/api/instruments/withdraw", body)
        [out] = [one for one in register["instruments"] if one["name"] == "Wrench 3"]
        self.assertEqual([(used["number"], used["step"]) for used in out["used_in"]], [(job.number, TITLE)])

    def test_a_day_that_is_past_and_a_name_nobody_keeps_are_refused(self) -> None:
        past = {"kind": "dial", "name": "D-9", "calibrated_until": (self.today - timedelta(days=1)).isoformat()}
        status, said = self.lead.ask("PUT", "/api/instruments", past)
        self.assertEqual((status, said["errors"][0]["path"]), (422, "calibrated_until"))
        unknown = {"kind": "bracket", "name": "Nobody's", "calibrated_until": (self.today + timedelta(days=9)).isoformat()}
        status, said = self.lead.ask("PUT", "/api/instruments", unknown)
        self.assertEqual((status, said["errors"][0]["path"]), (422, "name"))
