"""A job as a file: written, read in again, refused."""

import hashlib
import json
from typing import Any
from unittest import mock
from uuid import uuid4

from django.db import transaction
from django.test import TestCase

from millwright.job.asked import AS_THE_FILE_HAS_IT
from server.demo import blower
from server.jobs.models import Entry, Job, Signature
from tests.forger import made_to_fit
from tests.site import Member, build_two_sites, forget_jobs, is_whole, job_of

BLOWER, PUMP = "Steep aeration blower 2", "Chilled-water pump 1"


class ExchangeTest(TestCase):
    """A job as JSON, out and in."""

    open_job: Job

    @classmethod
    def setUpTestData(cls) -> None:
        cls.open_job = build_two_sites()

    def setUp(self) -> None:
        self.lead = Member("lead")

    def read_in(self, content: bytes | dict[str, Any]) -> tuple[int, Any]:
        """Status and answer of an import; what was changed in a file was made to fit."""
        if isinstance(content, dict):
            content = json.dumps(made_to_fit(content)).encode()
        answer = self.lead.post("/api/records", content, content_type="application/json")
        return answer.status_code, answer.json()

    def test_a_job_comes_back_without_loss_on_another_installation(self) -> None:
        for closed, line in (
            (True, BLOWER),
            (False, BLOWER),
            (False, "Kiln fan A"),
            (True, PUMP),
        ):
            with self.subTest(closed=closed, line=line), transaction.atomic():
                job = job_of(line, closed=closed)
                _, before = self.lead.ask("GET", f"/api/jobs/{job.pk}")
                written = self.lead.get(f"/api/records/{job.pk}/json").content
                forget_jobs()
                status, after = self.read_in(written)
                self.assertEqual(status, 201)
                for part in ("entries", "signatures", "steps", "card", "ledger"):
                    self.assertEqual(after[part], before[part], part)
                self.assertEqual(self.lead.get(f"/api/records/{job.pk}/json").content, written)
                self.assertEqual(self.read_in(written)[0], 409)
                transaction.set_rollback(True)

    def test_a_file_from_before_entries_said_what_they_are_of_is_read_as_it_was_and_says_it_since(self) -> None:
        job = job_of(BLOWER, closed=True)
        written = json.loads(self.lead.get(f"/api/records/{job.pk}/json").content)
        said = {entry["id"]: entry["asked"].pop("means", None) for entry in written["entries"]}
        forget_jobs()
        status, after = self.read_in(written)
        self.assertEqual(status, 201, after)
        for entry in Entry.objects.filter(job=job.pk):
            self.assertEqual(entry.asked.get("means"), said[str(entry.pk)])
            self.assertNotIn(AS_THE_FILE_HAS_IT, entry.asked)

    def test_what_was_taken_as_it_is_comes_back_so_and_what_cannot_be_told_comes_back_so(self) -> None:
        for as_it_is in (True, False):
            with self.subTest(as_it_is=as_it_is), transaction.atomic():
                unsure = json.loads(json.dumps(blower.MOVED))
                for dial in unsure["dials"]:  # one reading of each off: four places, one to spare
                    dial["readings"][1]["value_mm"] += 0.06
                self.assertEqual(self.lead.enter(self.open_job, "set.align", unsure, as_it_is=as_it_is)[0], 201)
                _, before = self.lead.ask("GET", f"/api/jobs/{self.open_job.pk}")
                state = next(s["state"] for s in before["steps"] if s["key"] == "set.align")
                self.assertEqual(state, "done" if as_it_is else "cannot tell yet")
                written = json.loads(self.lead.get(f"/api/records/{self.open_job.pk}/json").content)
                forget_jobs()
                self.assertEqual(self.read_in(written)[1]["steps"], before["steps"])
                transaction.set_rollback(True)

    def test_only_a_lead_reads_a_job_in(self) -> None:
        written = self.lead.get(f"/api/records/{self.open_job.pk}/json").content
        forget_jobs()
        for who in ("apprentice", "millwright"):
            answer = Member(who).post("/api/records", written, content_type="application/json")
            self.assertEqual(answer.status_code, 403, who)
        self.assertEqual(Job.objects.count(), 0)
        self.assertEqual(self.read_in(written)[0], 201)

    def test_a_foreign_truncated_or_doctored_file_changes_nothing_and_says_why(self) -> None:
        written = json.loads(self.lead.get(f"/api/records/{self.open_job.pk}/json").content)
        forget_jobs()
        doctored = json.loads(json.dumps(written))
        last = max(i for i, e in enumerate(written["entries"]) if e["step"] == "set.align")
        doctored["entries"][last]["result"]["verdict"] = "inside"
        rows = [
            ("cut off", json.dumps(written, indent=1)[:4000].encode(), "line "),
            ("not JSON", b"clock,value_mm\n", "line 1"),
            ("foreign", b'{"format": "something else"}', "format"),
            ("from the future", json.dumps({**written, "version": 9}).encode(), "version"),
            ("a misspelt key", json.dumps({**written, "titel": "x"}).encode(), "titel"),
            ("a verdict that does not follow", doctored, f"entries.{last}.result"),
            ("the same, not made to fit", json.dumps(doctored).encode(), f"entries.{last}"),
            (
                "one number twice",
                {**written, "entries": [*written["entries"], written["entries"][0]]},
                "entries.",
            ),
        ]
        for why, content, path in rows:
            with self.subTest(why):
                status, said = self.read_in(content)
                self.assertEqual(status, 422)
                self.assertTrue(said["errors"][0]["path"].startswith(path), said["errors"][0])
        self.assertEqual((Job.objects.count(), Entry.objects.count(), Signature.objects.count()), (0, 0, 0))

    def test_a_file_holds_nothing_that_could_not_have_been_entered_or_signed(self) -> None:
        written = json.loads(self.lead.get(f"/api/records/{self.open_job.pk}/json").content)
        closed = json.loads(self.lead.get(f"/api/records/{job_of(BLOWER, closed=True).pk}/json").content)
        forget_jobs()
        last = max(fact["number"] for fact in [*written["entries"], *written["signatures"]])
        now = written["entries"][-1]["at"]
        who = {"by": "Nobody", "role": "apprentice", "at": now}
        plain = {"typed": {}, "asked": {}, "result": None, "whose": None, **who}

        def with_entry(**more: Any) -> dict[str, Any]:
            entry = {"id": str(uuid4()), "number": last + 1, "step": "set.align", **plain, **more}
            return {**written, "entries": [*written["entries"], entry]}

        def with_signature(**more: Any) -> dict[str, Any]:
            signature = {"id": str(uuid4()), "number": last + 1, "entry": None, "reason": "", "kind": "hold", "whose": None}
            signature |= {**who, **more}
            return {**written, "signatures": [*written["signatures"], signature]}

        def changed(part: str, i: int, **more: Any) -> dict[str, Any]:
            rows = [{**row, **more} if at == i else row for at, row in enumerate(written[part])]
            return {**written, part: rows}

        value = {"value": 0.9, "means": "offset", "source": {"kind": "drawing", "document": "D-1"}}
        lifted = {"key": "offset_limit_mm", "value": value, "reason": "because"}
        count = len(written["entries"])
        end, until = f"entries.{count}", f"entries.{count - 1}.at"
        rows = [
            ("an empty value", with_entry(kind="value", inputs={}), f"{end}.inputs"),
            ("a limit lifted by an apprentice", with_entry(kind="value", inputs=lifted), end),
            ("a step that is not its turn", with_entry(kind="reading", step="close.guard", inputs={}), end),
            (
                "a hub that gripped before it was hot",
                with_entry(kind="event", inputs={"event": "gripped"}),
                f"entries.{count}",
            ),
            ("a number beyond all bounds", {**written, "number": 2147483647}, "number"),
            ("numbers that are missing", changed("entries", count - 1, number=last + 7), "entries"),
            ("a time in the future", changed("entries", count - 1, at="2050-01-01T00:00:00Z"), until),
            (
                "a time behind its number",
                changed("entries", count - 1, at=written["entries"][0]["at"]),
                f"entries.{count - 1}.at",
            ),
            ("a closing signature on an open route", with_signature(step="close.sign", role="lead"), "signatures."),
            ("a hold signed by an apprentice", changed("signatures", 0, role="apprentice"), "signatures.0"),
            (
                "nothing but a closing signature",
                {**closed, "entries": [], "signatures": [{**closed["signatures"][-1], "number": 1}]},
                "signatures.0",
            ),
        ]
        for why, content, path in rows:
            with self.subTest(why):
                status, said = self.read_in(content)
                self.assertEqual(status, 422, said)
                self.assertTrue(said["errors"][0]["path"].startswith(path), said["errors"][0])
        self.assertEqual(Job.objects.count(), 0)

    def test_who_read_it_in_and_from_where_stands_at_the_head_and_its_ledger_and_results_are_worked_out_here(self) -> None:
        job = job_of("Steep aeration blower 2")
        raw = self.lead.get(f"/api/records/{job.pk}/json").content
        forget_jobs()
        doctored = json.loads(raw)
        doctored["entries"][3]["result"] = {**(doctored["entries"][3]["result"] or {}), "advice": ["All is well."]}
        content = json.dumps(made_to_fit(doctored)).encode()
        status, shown = self.read_in(content)
        self.assertEqual(status, 201, shown)
        self.assertNotIn("All is well", json.dumps(shown))
        self.assertEqual((shown["read_in"]["by"], shown["read_in"]["site"]), ("Ansa Pellwright", "Quillmere Maltings"))
        self.assertEqual(shown["read_in"]["digest"], hashlib.sha256(content).hexdigest())
        _, record = self.lead.ask("GET", f"/api/records/{shown['id']}")
        self.assertIn("names and times are as the file says", record["read_in"])
        self.assertTrue(is_whole(Job.objects.get(pk=shown["id"])))

    def test_a_job_that_cannot_be_read_takes_no_page_down(self) -> None:
        damaged = mock.patch("server.jobs.models.job.Job.as_spec", new_callable=mock.PropertyMock, side_effect=ValueError)
        with damaged, self.assertLogs("server.jobs.api", "ERROR"):
            status, lines = self.lead.ask("GET", "/api/jobs")
        self.assertEqual(status, 200)
        broken = next(line["job"] for line in lines if line["name"] == BLOWER)
        self.assertEqual((broken["number"], broken["at"]), (self.open_job.number, None))
