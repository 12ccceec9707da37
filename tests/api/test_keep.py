"""After the record is closed: what is due and who puts it off, rounds, calendar, labels, instruments, history and exports."""

import csv
import io
import json
import re
from datetime import date, timedelta
from typing import Any
from unittest import mock
from uuid import uuid4

from django.core.management import call_command
from django.db import DatabaseError, transaction
from django.test import Client, TestCase
from django.utils import timezone
from icalendar import Calendar

from millwright.route.steps import Scope, Task
from server.accounts.models import Membership
from server.demo.build import Work
from server.demo.in_order import in_order
from server.instruments.models import Wrench
from server.jobs.actions.start_job import start_job
from server.jobs.models import Job
from server.keep.labels_api import label_svg
from server.keep.models import DueItem, Postponement
from server.plant.models import Line, LineLook
from tests.site import Member, build_two_sites

TITLE = "Check every torque a second time"
TITLE = "Check every torque a second time"
CRUSHER, DRUM, MILL, YEAST = "Malt crusher", "Drum turner", "Roller mill", "Yeast pump"


def line_of(name: str) -> Line:
    return Line.objects.get(name=name)


class DemoTest(TestCase):
    """The demo's site."""

    @classmethod
    def setUpTestData(cls) -> None:
        build_two_sites()

    def setUp(self) -> None:
        self.lead, self.millwright = Member("lead"), Member("millwright")
        self.today = timezone.localdate()

    def due(self, name: str, kind: str, client: Member | None = None) -> dict[str, Any]:
        """The one thing of that kind that is due on a line."""
        items = (client or self.lead).get(f"/api/due?line={line_of(name).pk}").json()["items"]
        [found] = [item for item in items if item["kind"] == kind]
        return dict(found)


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
        Work(job, millwright, lead, now, in_order(job.as_spec, {})).until(None)
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

    def test_a_record_that_is_read_in_from_a_file_counts_like_one_that_was_closed_here(self) -> None:
        line = line_of(MILL)
        written = self.lead.get(f"/api/records/{Job.objects.signed().get(line=line).pk}/json").json()
        fresh = {one["id"]: str(uuid4()) for one in [written, *written["entries"], *written["signatures"]]}
        text = json.dumps(written)
        for was, now in fresh.items():
            text = text.replace(was, now)
        DueItem.objects.filter(line=line).delete()
        answer = self.lead.post("/api/records", text, content_type="application/json")
        self.assertEqual(answer.status_code, 201, answer.content)
        self.assertEqual(self.due(MILL, "grease it")["task"], "grease it")

    def test_a_summary_that_cannot_be_made_keeps_nobody_from_working(self) -> None:
        kept = DueItem.objects.filter(line__name=CRUSHER).count()
        with mock.patch("server.keep.summary.due", side_effect=ValueError), self.assertLogs("server.keep.summary", "ERROR"):
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


class RoundTest(DemoTest):
    def look(self, name: str, client: Member | None = None, **read: Any) -> tuple[int, Any]:
        body = {"id": str(uuid4()), "line_id": str(line_of(name).pk), **read}
        return (client or self.millwright).ask("POST", "/api/rounds/looks", body)

    def path(self, answer: tuple[int, Any]) -> tuple[int, str]:
        return answer[0], answer[1]["errors"][0]["path"]

    def test_the_lines_come_in_walking_order_and_the_order_is_changed(self) -> None:
        lines = self.lead.get("/api/rounds").json()["lines"]
        self.assertEqual([line["name"] for line in lines][:3], ["Steep aeration blower 2", CRUSHER, MILL])
        crusher = lines[1]
        self.assertEqual((crusher["reads"][0], crusher["lamp"]), ("wear_mm", "slot in the guard, motor side"))
        order = {"lines": [line["id"] for line in reversed(lines)]}
        self.assertEqual(Member("apprentice").ask("PUT", "/api/rounds/walk", order)[0], 403)
        self.assertEqual(self.lead.ask("PUT", "/api/rounds/walk", order)[0], 204)
        turned = [line["name"] for line in self.lead.get("/api/rounds").json()["lines"]]
        self.assertEqual(turned, [line["name"] for line in reversed(lines)])

    def test_a_look_stands_once_moves_the_round_and_is_not_changed(self) -> None:
        body = {"id": str(uuid4()), "line_id": str(line_of(CRUSHER).pk), "wear_mm": 5.6, "leaks": "none", "ago_s": 3600}
        before = LineLook.objects.count()
        for _ in range(2):
            self.assertEqual(self.millwright.ask("POST", "/api/rounds/looks", body)[0], 201)
        self.assertEqual(LineLook.objects.count(), before + 1)
        kept = LineLook.objects.get(pk=str(body["id"]))
        self.assertAlmostEqual((timezone.now() - kept.at).total_seconds(), 3600, delta=60)
        self.assertEqual(self.due(CRUSHER, "round")["on"], (self.today + timedelta(days=30)).isoformat())
        with self.assertRaisesMessage(DatabaseError, "append-only"), transaction.atomic():
            LineLook.objects.filter(pk=kept.pk).update(wear_mm=1.0)

    def test_nonsense_is_refused_where_it_was_typed(self) -> None:
        tomorrow = (self.today + timedelta(days=1)).isoformat()
        for read, path in (
            ({}, "wear_mm"),
            ({"wear_mm": 5.6, "on": tomorrow}, "on"),
            ({"wear_mm": 5.6, "on": "2020-01-01"}, "at"),
            ({"leaks": "floods"}, "leaks"),
            ({"wear_mm": 600}, "wear_mm"),
            ({"wear_mm": "much"}, "wear_mm"),
            ({"wear_mm": 5.6, "typed": {"wear_mm": "0.2 in"}}, "wear_mm"),
        ):
            self.assertEqual(self.path(self.look(CRUSHER, **read)), (422, path), read)
        self.assertIn("A slip?", self.look(CRUSHER, wear_mm=600)[1]["errors"][0]["message"])
        self.assertEqual(self.look(CRUSHER, wear_mm=5.08, typed={"wear_mm": "0.2 in"}, confirmed=True)[0], 201)
        self.assertEqual(self.look(CRUSHER, Member("stranger"), wear_mm=5.6)[0], 404)

    def test_what_goes_back_is_asked_about_and_taken_once_it_is_confirmed(self) -> None:
        back = self.look(CRUSHER, wear_mm=4.0)
        self.assertEqual(self.path(back), (422, "goes_back.wear_mm"))
        self.assertIn("does not grow back", back[1]["errors"][0]["message"])
        self.assertEqual(self.path(self.look(DRUM, hours=10.0)), (422, "goes_back.hours"))
        self.assertEqual(self.look(CRUSHER, wear_mm=4.0, confirmed=True)[0], 201)

    def test_a_file_of_earlier_readings_is_taken_in_whole_or_refused_line_by_line(self) -> None:
        def take(text: str, client: Member | None = None) -> tuple[int, Any]:
            door = f"/api/rounds/{line_of(YEAST).pk}/file"
            answer = (client or self.lead).post(door, text.encode(), content_type="text/csv")
            return answer.status_code, answer.json()

        before = LineLook.objects.count()
        tomorrow = (self.today + timedelta(days=1)).isoformat()
        for text, path, says in (
            ("day,wear_mm\n2024-01-01,3\n", "line 1", "first column is called at"),
            ("at,wear_mm,wear_in\n2024-01-01,3,0.1\n", "line 1", "two units"),
            (f"at,wear_mm\n2024-01-01,3\n{tomorrow},4\n", "line 3", "has not come yet"),
            ("at,wear_mm\n2024-01-01,3\nlast week,4\n", "line 3", "is no day"),
            ("at,temperature_c\n2024-01-01,warm\n", "line 2", "is no number"),
            ("at,hours\n" + "2024-01-01T01:00,5\n" * 100_000, "file", "More than 20,000"),
        ):
            status, said = take(text)
            self.assertEqual((status, said["errors"][0]["path"]), (422, path), text[:60])
            self.assertIn(says, said["errors"][0]["message"])
        self.assertEqual(LineLook.objects.count(), before)
        self.assertEqual(take("at,wear_in\n2024-01-01,0.1\n", Member("apprentice"))[0], 403)
        good = "at;wear_in;hours\n2024-01-01;0,1;400\n2024-02-01 06:30;0,11;900\n"
        self.assertEqual(take(good), (200, {"readings": 2}))
        self.assertEqual(take(good), (200, {"readings": 0}))
        self.assertAlmostEqual(LineLook.objects.get(line__name=YEAST, hours=400).wear_mm or 0, 2.54)

    def test_the_round_is_printed_for_who_has_no_tablet(self) -> None:
        answer = self.lead.get("/api/rounds/sheet.pdf?unit=in")
        self.assertTrue(answer.content.startswith(b"%PDF"))


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


class LabelTest(DemoTest):
    def test_the_code_on_the_guard_is_the_address_of_the_line(self) -> None:
        import segno

        line = line_of(CRUSHER)
        drawn = self.lead.get(f"/api/labels/{line.pk}.svg").content.decode()
        address = re.search(r"https?://[^<\s]+", drawn.split("<title>")[1])
        assert address is not None
        self.assertTrue(address[0].endswith(f"/lines/{line.pk}"))
        out = io.BytesIO()
        segno.make(address[0], error="q", micro=False).save(out, kind="svg", border=4)
        code = re.search(r' d="([^"]+)"', out.getvalue().decode())
        assert code is not None
        self.assertIn(code[1], drawn)
        self.assertEqual(Member("stranger").get(f"/api/labels/{line.pk}.svg").status_code, 404)

    def test_a_name_is_written_as_it_is_and_as_long_as_there_is_room(self) -> None:
        line = line_of(CRUSHER)
        line.name = "<b>Crusher</b> " + "of the old malt floor by the river " * 4
        drawn = label_svg(line, "https://here/lines/1")
        self.assertNotIn("<b>", drawn)
        self.assertIn("…", drawn)
        self.assertTrue(self.lead.get("/api/labels/sheet.pdf").content.startswith(b"%PDF"))


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
        Work(job, millwright, lead, now, in_order(job.as_spec, {})).until("close.count")
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


class HistoryTest(DemoTest):
    def test_a_line_is_told_with_its_trend_its_sets_and_how_it_was_left(self) -> None:
        history = self.lead.get(f"/api/history/{line_of(CRUSHER).pk}").json()
        changed, fitted = history["jobs"]
        self.assertEqual([(p["way"], p["number"]) for p in changed["parts"]], [("out", "lot 31"), ("in", "lot 44")])
        self.assertEqual(fitted["parts"][0]["number"], "lot 31")
        wear = next(one for one in history["series"] if one["key"] == "wear")
        # Invented at 0.19 mm a month, 0.05 mm of scatter, read to a tenth: 4 mm after 640 days.
        begun = date.fromisoformat(changed["closed"][:10])
        reached = wear["trend"]["reached"]
        self.assertLessEqual(reached["earliest"], (begun + timedelta(days=640)).isoformat())
        self.assertGreaterEqual(reached["latest"], (begun + timedelta(days=640)).isoformat())
        self.assertIn("<svg", history["as_left"]["drawing"])
        self.assertEqual(Member("stranger").get(f"/api/history/{line_of(CRUSHER).pk}").status_code, 404)

    def test_a_jump_is_told_and_nothing_is_fitted_across_it(self) -> None:
        history = self.lead.get(f"/api/history/{line_of(YEAST).pk}").json()
        trend = next(one for one in history["series"] if one["key"] == "vibration")["trend"]
        self.assertAlmostEqual(trend["jump"]["by"], 1.5, delta=0.3)
        self.assertGreaterEqual(trend["trend"][0]["at"], trend["jump"]["before"])

    def test_the_history_goes_out_as_csv_that_no_spreadsheet_works_out(self) -> None:
        line = line_of(DRUM)
        LineLook.objects.create(
            id=uuid4(), line=line, at=timezone.now(), note="=1+1", by="x", role="lead", entered_at=timezone.now()
        )
        answer = self.lead.get(f"/api/history/{line.pk}/csv")
        rows = list(csv.DictReader(io.StringIO(answer.content.decode())))
        greases = [row for row in rows if row["what"] == "grease"]
        self.assertEqual([row["reason"] for row in greases][-2:], ["lubrication", "lubrication"])
        self.assertIn("'=1+1", [row["left"] for row in rows])

    def test_the_history_of_all_lines_is_written_in_the_queue_and_says_how_far_it_is(self) -> None:
        with self.captureOnCommitCallbacks(execute=True):
            status, asked = self.lead.ask("POST", "/api/exports")
        self.assertEqual((status, asked["ready"], asked["done"]), (201, False, 0))
        now = self.lead.get(f"/api/exports/{asked['id']}").json()
        self.assertEqual((now["ready"], now["done"]), (True, Line.objects.filter(site__name="Quillmere Maltings").count()))
        rows = list(csv.reader(io.StringIO(self.lead.get(f"/api/exports/{asked['id']}/file").content.decode())))
        self.assertEqual([row for row in rows if row[0] == "line"], rows[:1])
        self.assertTrue({CRUSHER, DRUM, YEAST} <= {row[0] for row in rows})
        self.assertEqual(Member("stranger").get(f"/api/exports/{asked['id']}").status_code, 404)

    def test_what_repeats_on_the_site_is_counted(self) -> None:
        told = self.lead.get("/api/reasons?months=24").json()
        self.assertEqual([(one["name"], one["jobs"]) for one in told["returning"]], [(DRUM, 2)])
        self.assertEqual(
            told["jobs"],
            Job.objects.signed()
            .filter(site__name="Quillmere Maltings", closed_at__gte=timezone.now() - timedelta(days=730))
            .count(),
        )
        self.assertEqual({one["reason"]: one["jobs"] for one in told["reasons"]}["lubrication"], 2)
        self.assertEqual([(one["name"], one["moved"]) for one in told["wandered"]], [(YEAST, True)])
        self.assertEqual(Member("stranger").get("/api/reasons").json()["jobs"], 0)

    def test_the_job_that_changes_the_element_reads_the_old_set_s_life(self) -> None:
        lead = Membership.objects.get(user__username="lead")
        job = start_job(line_of(CRUSHER), by=lead, title="New set", now=timezone.now(), scope=Scope.ELEMENT)
        step = next(now.step for now in job.stand_after([], job.as_left()).steps if now.step.key == "off.old")
        said = step.form.fields[0].detail
        changed = Job.objects.signed().get(line__name=CRUSHER, scope=Scope.ELEMENT).closed_at
        assert changed is not None
        ran = (timezone.now() - changed).days
        self.assertIn(f"{ran} days", said)
        self.assertRegex(said, r"worn 2\.\d\d mm \(0\.\d\d\d in\) at the mark")
