"""What is due, who does it and who puts it off; the calendar it goes out in."""

import io
import json
import re
from datetime import timedelta
from typing import Any
from unittest import mock
from uuid import uuid4

from django.core.management import call_command
from django.db import DatabaseError, transaction
from django.test import Client
from django.utils import timezone
from icalendar import Calendar

from millwright.scope import Scope, Task
from server.accounts.models import Membership
from server.demo.build import Work
from server.jobs.actions.start_job import start_job
from server.jobs.models import Job
from server.keep.models import DueItem, Postponement
from tests.forger import made_to_fit
from tests.site import PASSWORD, Member

from .demo_site import CRUSHER, DRUM, MILL, DemoTest, line_of


class DueTest(DemoTest):
    def test_the_list_is_sorted_by_the_database_and_is_the_site_s_own(self) -> None:
        for sort, key in (("day", "on"), ("line", "name"), ("kind", "kind")):
            items = self.lead.get(f"/api/due?sort={sort}").json()["items"]
            self.assertEqual([item[key] for item in items], sorted(item[key] for item in items), sort)
            self.assertGreater(len(items), 10)
        late = [item for item in items if item["on"] and item["on"] < self.today.isoformat()]
        self.assertEqual(self.lead.get("/api/due/count").json(), {"late": len(late)})
        self.assertEqual(Member("stranger").get("/api/due").json()["items"], [])
        self.assertEqual(Member("stranger").get(f"/api/due?line={line_of(DRUM).pk}").status_code, 404)

    def test_a_short_job_moves_the_next_day(self) -> None:
        before = self.due(MILL, "grease it")
        self.assertEqual((before["task"], before["scope"]), ("grease it", "do what is due"))
        lead, millwright = (Membership.objects.get(user__username=name) for name in ("lead", "millwright"))
        now = timezone.now() - timedelta(hours=2)
        tasks = [Task(before["task"])]
        job = start_job(line_of(MILL), by=lead, title="Greased", now=now, scope=Scope.UPKEEP, tasks=tasks)
        self.assertEqual(self.due(MILL, "grease it")["open_job"]["number"], job.number)
        Work(job, millwright, lead, now).until(None)
        after = self.due(MILL, "grease it")
        self.assertEqual((after["since"], after["open_job"]), (self.today.isoformat(), None))
        self.assertGreater(after["on"], before["on"])
        self.assertIn(f"job {job.number}", after["why"]["template"])

    def test_a_job_of_upkeep_says_what_is_done_and_nothing_else_does(self) -> None:
        door = f"/api/jobs/of-line/{line_of(MILL).pk}"
        for body, says in (
            ({"scope": "do what is due"}, "Choose what is done"),
            ({"scope": "do what is due", "tasks": ["change the oil"]}, "nothing of this"),
            ({"scope": "check it", "tasks": ["grease it"]}, "Only a job of upkeep"),
        ):
            status, said = self.lead.ask("POST", door, {"title": "Again", **body})
            self.assertEqual((status, said["errors"][0]["path"]), (422, "tasks"))
            self.assertIn(says, said["errors"][0]["message"])

    def test_the_lead_puts_it_off_with_a_reason_and_nobody_else_does(self) -> None:
        late = self.due(DRUM, "grease it")
        until = self.today + timedelta(days=20)
        body = {
            "line_id": late["line_id"],
            "kind": "grease it",
            "of": late["on"],
            "until": until.isoformat(),
            "reason": "harvest",
        }
        self.assertEqual(self.millwright.ask("POST", "/api/due/put-off", body)[0], 403)
        self.assertEqual(Member("stranger").ask("POST", "/api/due/put-off", body)[0], 404)
        for wrong, path in (
            ({"reason": "  "}, "reason"),
            ({"until": self.today.isoformat()}, "until"),
            ({"until": (self.today + timedelta(days=900)).isoformat()}, "until"),
        ):
            status, said = self.lead.ask("POST", "/api/due/put-off", {**body, **wrong})
            self.assertEqual((status, said["errors"][0]["path"]), (422, path))
        self.assertEqual(self.lead.ask("POST", "/api/due/put-off", {**body, "of": "2020-01-01"})[0], 409)
        self.assertEqual(self.lead.ask("POST", "/api/due/put-off", body)[0], 200)
        now = self.due(DRUM, "grease it")
        self.assertEqual((now["on"], now["was"], now["postponed_because"]), (until.isoformat(), late["on"], "harvest"))
        with self.assertRaisesMessage(DatabaseError, "append-only"), transaction.atomic():
            Postponement.objects.update(reason="none")

    def test_the_summary_is_what_is_built_anew_from_the_records(self) -> None:
        def rows() -> list[tuple[Any, ...]]:
            return sorted(DueItem.objects.values_list("name", "kind", "on", "why__template"), key=repr)

        kept = rows()
        DueItem.objects.all().delete()
        call_command("rebuild_due", stdout=io.StringIO())
        self.assertEqual(rows(), kept)

    def test_a_record_from_a_file_counts_like_one_that_was_closed_here_once_it_is_taken_over(self) -> None:
        line = line_of(MILL)
        written = self.lead.get(f"/api/records/{Job.objects.counted().get(line=line).pk}/json").json()
        fresh = {one["id"]: str(uuid4()) for one in [written, *written["entries"], *written["signatures"]]}
        text = json.dumps(written)
        for was, now in fresh.items():
            text = text.replace(was, now)
        DueItem.objects.filter(line=line).delete()
        status, shown = self.lead.ask("POST", "/api/records", made_to_fit(json.loads(text)))
        self.assertEqual(status, 201, shown)
        self.assertFalse(DueItem.objects.filter(line=line).exists())
        self.assertEqual(self.lead.ask("POST", f"/api/jobs/{shown['id']}/take-over", {"password": PASSWORD})[0], 200)
        self.assertEqual(self.due(MILL, "grease it")["task"], "grease it")

    def test_a_summary_that_cannot_be_made_keeps_nobody_from_working(self) -> None:
        kept = DueItem.objects.filter(line__name=CRUSHER).count()
        with (
            mock.patch("server.keep.due.summary.due", side_effect=ValueError),
            self.assertLogs("server.keep.due.summary", "ERROR"),
        ):
            body = {"id": str(uuid4()), "line_id": str(line_of(CRUSHER).pk), "leaks": "none"}
            self.assertEqual(self.millwright.ask("POST", "/api/rounds/looks", body)[0], 201)
        self.assertEqual(DueItem.objects.filter(line__name=CRUSHER).count(), kept)

    def test_a_card_that_is_changed_changes_what_is_due(self) -> None:
        line = line_of(MILL)
        line.values = {**line.values, "grease_months": {**line.values["grease_months"], "value": 1.0}}
        line.save()
        self.assertLess(self.due(MILL, "grease it")["on"], self.today.isoformat())

    def test_old_jobs_are_not_asked_what_they_came_from_and_new_ones_are(self) -> None:
        job = Job.objects.get(line__name=DRUM, closed_at=None)
        self.assertIn("close.why", [now.step.key for now in job.stand().steps])
        job.edition = 1
        self.assertNotIn("close.why", [now.step.key for now in job.stand().steps])


class CalendarTest(DemoTest):
    def feed(self, address: str) -> tuple[int, list[str]]:
        """What a calendar without a session gets."""
        answer = Client().get(re.sub(r"^https?://[^/]+", "", address))
        if answer.status_code != 200:
            return answer.status_code, []
        events = Calendar.from_ical(answer.content).walk("VEVENT")
        return 200, [str(event["SUMMARY"]) for event in events]

    def test_an_address_gives_what_is_due_until_it_is_revoked(self) -> None:
        _, made = self.millwright.ask("POST", "/api/calendar", {"whose": "mine"})
        status, events = self.feed(made["address"])
        self.assertEqual(status, 200)
        self.assertIn(f"{DRUM}: grease it, overdue", events)
        self.assertEqual(len(events), DueItem.objects.exclude(on=None).count())
        shown = self.millwright.get("/api/calendar").json()
        self.assertEqual([(one["whose"], one["address"]) for one in shown], [("mine", "")])
        _, again = self.millwright.ask("POST", "/api/calendar", {"whose": "mine"})
        self.assertEqual(self.feed(made["address"])[0], 404)
        self.assertEqual(self.feed(again["address"])[0], 200)
        self.assertEqual(self.millwright.ask("DELETE", "/api/calendar?whose=mine")[0], 204)
        self.assertEqual(self.feed(again["address"])[0], 404)

    def test_the_site_s_is_the_lead_s_to_make_and_who_left_reads_nothing(self) -> None:
        self.assertEqual(self.millwright.ask("POST", "/api/calendar", {"whose": "site"})[0], 403)
        _, site = self.lead.ask("POST", "/api/calendar", {"whose": "site"})
        _, mine = self.millwright.ask("POST", "/api/calendar", {"whose": "mine"})
        Membership.objects.filter(user__username="millwright").delete()
        self.assertEqual((self.feed(site["address"])[0], self.feed(mine["address"])[0]), (200, 404))
        _, elsewhere = Member("stranger").ask("POST", "/api/calendar", {"whose": "mine"})
        self.assertEqual(self.feed(elsewhere["address"]), (200, []))
