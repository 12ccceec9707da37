"""An entry stands as it was asked: whatever is decided, renamed or reworded later, the record shows all that was entered."""

import json
from collections.abc import Callable
from dataclasses import replace
from importlib import import_module
from typing import Any
from unittest import mock

from django.db import connection
from django.db.migrations.executor import MigrationExecutor
from django.test import TestCase

from millwright.job import stand as derived_from
from millwright.job.now import RouteNow, StepNow
from millwright.plan.steps import SheetForm
from server.jobs.models import Entry, Job, Signature
from server.reports.models import IssuedRecord
from tests.in_words import in_words
from tests.site import Member, OwnTransactions, build_two_sites, forget_jobs, is_whole, job_of

BY_HAND = "slide it on by hand"
RUN = "mount.hot.driven"


def in_record(job: Job) -> set[str]:
    """The ids of everything the record shows."""
    _, record = Member("lead").ask("GET", f"/api/records/{job.pk}")
    return {reading["id"] for step in record["steps"] for reading in step["readings"]}


def entered(job: Job) -> set[str]:
    """The ids of everything that was entered."""
    return {str(pk) for pk in job.entries.values_list("pk", flat=True)}


def another_route(change: Callable[[StepNow], StepNow]) -> Any:
    """The core as it is after somebody changed a step of the route."""
    real = derived_from.stand

    def changed(*given: Any, **more: Any) -> RouteNow:
        route = real(*given, **more)
        return replace(route, steps=tuple(change(now) for now in route.steps))

    return mock.patch("server.jobs.models.job.derived", changed)


class AskedTest(TestCase):
    """What was entered, and what became of the route since."""

    @classmethod
    def setUpTestData(cls) -> None:
        build_two_sites()

    def decide(self, job: Job, decision: str) -> None:
        """Whoever mounts the driven hub decides anew; where it was refused before, once it is measured again."""
        _, shown = Member("lead").ask("GET", f"/api/jobs/{job.pk}")
        for stale in (s for s in shown["steps"] if s["key"].startswith("prepare.") and s["state"] == "stale"):
            last = job.entries.filter(step=stale["key"], kind="reading").latest("number").inputs
            Member("lead").enter(
                job, stale["key"], {key: last[key] for key in last if key not in stale["form"].get("preset", {})}
            )
        step = next(s for s in shown["steps"] if s["key"] == "prepare.decide.driven")
        ticks = {f["key"]: True for f in step["form"]["fields"] if f["kind"] == "tick"}
        status, said = Member("lead").enter(job, step["key"], {**ticks, "decision": decision, "reason": "measured again"})
        self.assertEqual(status, 201, said)

    def test_no_later_decision_takes_an_entry_out_of_the_record(self) -> None:
        for job in Job.objects.which_are(closed=False):
            _, shown = Member("lead").ask("GET", f"/api/jobs/{job.pk}")
            fields = [f for s in shown["steps"] if s["key"] == "prepare.decide.driven" for f in s["form"]["fields"]]
            for decision in next((f["options"] for f in fields if f["key"] == "decision"), []):
                with self.subTest(job.line.name, decision=decision):
                    self.decide(job, decision)
                    self.assertEqual(in_record(job), entered(job))

    def test_a_run_that_is_no_longer_part_of_the_route_is_shown_under_that_heading(self) -> None:
        fan = job_of("Kiln fan A")
        before = in_record(fan)
        self.decide(fan, BY_HAND)
        _, record = Member("lead").ask("GET", f"/api/records/{fan.pk}")
        gone = [step for step in record["steps"] if step["stage"] == "No longer part of the route"]
        self.assertIn(("Heat the fan hub and slide it on", 3), [(s["title"], len(s["readings"])) for s in gone])
        self.assertLess(before, in_record(fan))
        self.assertIsNone(gone[0]["state"])
        _, text = Member("lead").ask("GET", f"/api/records/{fan.pk}/pdf")
        self.assertEqual(text[:5], b"%PDF-")

    def test_in_short_a_reading_judged_by_a_value_since_changed_says_so(self) -> None:
        pump, lead = job_of("Chilled-water pump 1"), Member("lead")
        _, shown = lead.ask("GET", f"/api/jobs/{pump.pk}")
        value = {**shown["card"]["hub_runout_mm"], "value": 0.09}
        change = {"key": "hub_runout_mm", "value": value, "reason": "the new drawing"}
        status, said = lead.enter(pump, "mount.true.driven", change, kind="value")
        self.assertEqual(status, 201, said)
        _, record = lead.ask("GET", f"/api/records/{pump.pk}")
        why = {line["name"]: in_words(line["overtaken"]) for line in record["summary"] if in_words(line["overtaken"])}
        self.assertEqual(list(why), ["Tap the pump hub true"])
        self.assertIn("was changed from 0.03 mm to 0.09 mm", why["Tap the pump hub true"])

    def test_a_step_that_was_renamed_since_loses_nothing_of_a_closed_record_nor_its_file(self) -> None:
        job = job_of("Steep aeration blower 2", closed=True)
        written = Member("lead").get(f"/api/records/{job.pk}/json").content

        def rename(now: StepNow) -> StepNow:
            is_it = now.step.key == "prepare.distance"
            return replace(now, step=replace(now.step, key="prepare.apart"), current=None) if is_it else now

        with another_route(rename):
            self.assertEqual(in_record(job), entered(job))
            self.assertEqual(Member("lead").get(f"/api/records/{job.pk}/json").content, written)

    def test_a_sentence_that_was_reworded_since_is_not_what_anybody_ticked(self) -> None:
        job = job_of("Steep aeration blower 2", closed=True)

        def reword(now: StepNow) -> StepNow:
            if not isinstance(now.step.form, SheetForm):
                return now
            fields = tuple(replace(field, label="Something else entirely") for field in now.step.form.fields)
            return replace(now, step=replace(now.step, title="Another title", form=replace(now.step.form, fields=fields)))

        _, before = Member("lead").ask("GET", f"/api/records/{job.pk}")
        with another_route(reword):
            _, after = Member("lead").ask("GET", f"/api/records/{job.pk}")
        shown = [(s["title"], [(r["ticked"], r["figures"]) for r in s["readings"]]) for s in before["steps"] if s["readings"]]
        self.assertEqual(
            [(s["title"], [(r["ticked"], r["figures"]) for r in s["readings"]]) for s in after["steps"] if s["readings"]],
            shown,
        )

    def test_what_a_reading_is_compared_with_comes_from_the_database(self) -> None:
        invented = {"before": {"dials": []}, "before_is": "as left", "as_left": {"readings": []}, "made": []}
        job = job_of("Steep aeration blower 2")
        found = Entry.objects.filter(job=job, step="set.align").latest("number").inputs
        status, entry = Member("millwright").enter(job, "set.align", {**found, **invented})
        self.assertEqual((status, set(entry["inputs"]) & set(invented)), (201, set()))
        self.assertNotIn("since it was left", " ".join(entry["result"]["advice"]))

    def test_a_job_whose_route_was_decided_otherwise_goes_out_and_comes_in_whole(self) -> None:
        fan, lead = job_of("Kiln fan A"), Member("lead")
        self.decide(fan, BY_HAND)
        before, written = in_record(fan), lead.get(f"/api/records/{fan.pk}/json").content
        forget_jobs()
        self.assertEqual(lead.post("/api/records", written, content_type="application/json").status_code, 201)
        self.assertEqual(in_record(fan), before)
        self.assertEqual(lead.get(f"/api/records/{fan.pk}/json").content, written)

    def test_a_file_of_the_first_version_is_read_and_what_it_lacks_is_marked(self) -> None:
        fan, lead = job_of("Kiln fan A"), Member("lead")
        written = json.loads(lead.get(f"/api/records/{fan.pk}/json").content)
        titles = {e["id"]: e["asked"]["title"] for e in written["entries"]}
        old = {**written, "version": 1, "entries": [{k: v for k, v in e.items() if k != "asked"} for e in written["entries"]]}
        forget_jobs()
        self.assertEqual(lead.ask("POST", "/api/records", old)[0], 201)
        for entry in Entry.objects.filter(job=fan.pk):
            self.assertEqual(entry.asked["title"], titles[str(entry.pk)])
            self.assertEqual(entry.asked["note"], "not judged here")

    def test_every_entry_says_what_it_answered(self) -> None:
        job = job_of("Steep aeration blower 2", closed=True)
        align = job.entries.filter(step="set.align", kind="reading").latest("number").asked
        self.assertEqual((align["title"], align["bench"]), ("Align the motor", "alignment"))
        self.assertIn("Brackwater", align["preset"]["limits"]["source"])
        locks = job.entries.filter(step="safe.locks").latest("number").asked
        self.assertEqual([row["label"] for row in locks["rows"]][:2], ["Energy", "Isolated at"])
        self.assertEqual(job.entries.filter(asked={}).count(), 0)


class MovedHereTest(OwnTransactions):
    """A database from before entries kept what they answered."""

    def as_it_was(self) -> None:
        """The demo, without the jobs no older database could hold."""
        build_two_sites()
        tables = ("jobs_signature", "jobs_entry", "reports_issuedrecord", "jobs_job")
        newer = Job.objects.filter(scope__in=("change the element", "fit a backstop", "do what is due"))
        with connection.cursor() as cursor:
            for table in tables:
                cursor.execute(f"ALTER TABLE {table} DISABLE TRIGGER USER")
            for model in (Signature, Entry, IssuedRecord):
                rows = model.objects.filter(job__in=newer)
                rows._raw_delete(rows.db)  # what protects them is what is left aside here
            newer._raw_delete(newer.db)
            for table in tables:
                cursor.execute(f"ALTER TABLE {table} ENABLE TRIGGER USER")

    def test_what_stands_is_filled_in_from_the_route_and_marked_so(self) -> None:
        self.as_it_was()
        kept = {str(e.pk): e.asked.get("title") for e in Entry.objects.all()}
        self.addCleanup(self.to_the_newest)
        executor = MigrationExecutor(connection)
        executor.migrate([("jobs", "0005_jobs_that_mount_nothing")])
        executor = MigrationExecutor(connection)
        then = executor.migrate([("jobs", "0006_entry_asked")]).apps
        afterwards = import_module("server.jobs.migrations.0006_entry_asked").AFTERWARDS
        for entry in then.get_model("jobs", "Entry").objects.all():
            self.assertEqual(entry.asked["note"], afterwards)
            self.assertEqual(entry.asked.get("title"), kept[str(entry.pk)])
        with self.assertRaisesMessage(Exception, "append-only"), connection.cursor() as cursor:
            cursor.execute("UPDATE jobs_entry SET step = 'x'")

    def test_what_stands_gets_its_links_and_is_closed_where_it_was_signed(self) -> None:
        self.as_it_was()
        self.addCleanup(self.to_the_newest)
        closed_at = {str(job.pk): job.closed_at for job in Job.objects.all()}
        executor = MigrationExecutor(connection)
        executor.migrate([("jobs", "0007_procedure_and_hand_over")])
        self.to_the_newest()
        self.assertEqual({str(job.pk): job.closed_at for job in Job.objects.all()}, closed_at)
        self.assertEqual([str(job) for job in Job.objects.all() if not is_whole(job)], [])

    def to_the_newest(self) -> None:
        """For whoever comes next."""
        executor = MigrationExecutor(connection)
        executor.migrate(executor.loader.graph.leaf_nodes())
