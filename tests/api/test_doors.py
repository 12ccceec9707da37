"""What no door lets in, and what is answered while the database is away."""

import json
from unittest import mock

from django.db import OperationalError, connections
from django.test import TestCase

from server.jobs.models import Job
from tests.site import Member, OwnTransactions, as_if_started_with, build_two_sites, job_of

REFUSED = ("two\nlines", "a tab\there", "nothing\x00", "back\u202ewards", "a\u2028line")


class NamesTest(TestCase):
    """A name is one line of plain characters, wherever it is typed."""

    job: Job

    @classmethod
    def setUpTestData(cls) -> None:
        cls.job = build_two_sites()

    def refused_at(self, status: int, said: dict[str, list[dict[str, str]]]) -> str:
        """Where it was refused."""
        self.assertEqual(status, 422, said)
        self.assertNotIn("Value error", said["errors"][0]["message"])
        return said["errors"][0]["path"]

    def test_no_control_character_gets_into_a_name(self) -> None:
        lead, line = Member("lead"), self.job.line
        whole = {"name": line.name, "version": line.version, "spec": line.spec, "values": line.values}
        source = {"kind": "drawing", "document": "Drawing 7"}
        for name in REFUSED:
            with self.subTest(name):
                motor = {**line.spec, "driver": {**line.spec["driver"], "name": name}}
                doors = {
                    "name": ("PUT", f"/api/lines/{line.pk}", {**whole, "name": name}),
                    "spec.driver.name": ("PUT", f"/api/lines/{line.pk}", {**whole, "spec": motor}),
                    "title": ("POST", f"/api/jobs/of-line/{line.pk}", {"title": name}),
                }
                for path, (method, address, body) in doors.items():
                    self.assertEqual(self.refused_at(*lead.ask(method, address, body)), path)
                value = {"value": 0.1, "source": {**source, "document": name}}
                card = {"key": "hub_runout_mm", "value": value}
                self.assertEqual(self.refused_at(*lead.enter(self.job, "set.gap", card, "value")), "value.source.document")

    def test_a_note_may_have_lines_but_nothing_that_is_no_writing(self) -> None:
        lead = Member("lead")
        self.assertEqual(lead.enter(self.job, "set.gap", {"text": "first\nsecond\tline"}, "note")[0], 201)
        self.assertEqual(self.refused_at(*lead.enter(self.job, "set.gap", {"text": "bad\x00"}, "note")), "text")

    def test_nothing_of_the_kind_is_stored_from_a_bench_or_a_sheet_nor_brings_the_server_down(self) -> None:
        lead = Member("lead")
        status, said = lead.enter(self.job, "set.align", {"dials": [{"kind": "rim\x00"}]})
        self.assertEqual(self.refused_at(status, said), "dials.0.kind")
        self.assertEqual(lead.ask("POST", "/api/session", {"username": "a\x00", "password": "b"})[0], 422)

    def test_a_name_that_is_stored_already_can_still_be_read(self) -> None:
        spec = {**self.job.spec, "driver": {**self.job.spec["driver"], "name": "Motor\nold"}}
        as_if_started_with(self.job, spec=spec)  # from before names were looked at
        self.assertEqual(Member("lead").ask("GET", f"/api/jobs/{self.job.pk}")[0], 200)


class DatabaseAwayTest(OwnTransactions):
    """503, when to try again, and the one shape of every refusal."""

    def test_is_said_and_nothing_is_lost_when_it_is_back(self) -> None:
        build_two_sites()
        job, member = job_of("Steep aeration blower 2"), Member("millwright")
        before = job.entries.count()
        away = mock.Mock(side_effect=OperationalError("connection refused"))
        with mock.patch.object(connections["default"], "connect", away), self.assertLogs("server.web.errors", "ERROR"):
            connections["default"].close()
            address = f"/api/jobs/{job.pk}/entries"
            note = {"id": "00000000-0000-4000-8000-000000000001", "step": "set.gap", "kind": "note", "inputs": {"text": "x"}}
            answer = member.post(address, json.dumps(note), content_type="application/json")
        self.assertEqual((answer.status_code, answer.headers["Retry-After"]), (503, "2"))
        self.assertEqual([e["path"] for e in answer.json()["errors"]], [""])
        self.assertEqual(member.ask("POST", address, note)[0], 201)
        self.assertEqual(job.entries.count(), before + 1)
