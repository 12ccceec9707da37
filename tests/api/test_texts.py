"""Texts that no sheet sends and no database takes: refused in words, wherever they come in."""

import json
from uuid import uuid4

from django.test import Client, TestCase

from server.accounts.models import User
from server.jobs.models import Job
from tests.site import Member, build_two_sites

DEEP = "[" * 100_000 + "]" * 100_000
LONG = "9" * 5_000
NUL, TOKEN = "\x00", "n" * 32


class TextsTest(TestCase):
    """None of them is a fault of the server."""

    job: Job

    @classmethod
    def setUpTestData(cls) -> None:
        cls.job = build_two_sites()

    def test_each_is_answered_and_none_with_a_fault(self) -> None:
        lead, job, line = Member("lead"), self.job.pk, self.job.line_id
        reading = {"id": str(uuid4()), "step": "set.gap", "kind": "reading", "inputs": {"readings": [{"value_mm": 1}]}}
        typed = {**reading, "typed": {"readings.0.value_mm": f"{LONG[:400]}/1"}}
        streamed = {"device": f"La{NUL}ser", "seq": 1, "plane": 0, "clock": 0.0, "value_mm": 0.0}
        question = {"format": "young-anvil job", "version": 3, "entries": [{"asked": {"bench": {}}}]}
        sent = (
            ("POST", "/api/records", f'{{"format": "young-anvil job", "version": 3, "entries": {DEEP}}}'),
            ("POST", "/api/records", DEEP),
            ("POST", "/api/records", f'{{"format": "young-anvil job", "version": {LONG}}}'),
            ("POST", "/api/records", json.dumps(question)),
            ("POST", f"/api/jobs/{job}/entries", json.dumps(typed)),
            ("POST", f"/api/jobs/{job}/entries", DEEP),
            ("POST", f"/api/jobs/{job}/entries", f'{{"id": {LONG}}}'),
            ("POST", f"/api/jobs/{job}/streams/set.align", json.dumps(streamed)),
            ("GET", f"/api/jobs/{job}/streams/set%00align", ""),
            ("GET", f"/api/jobs/{job}/streams/set.align?after=%00", ""),
            ("POST", f"/api/rounds/{line}/file", f"at,wear_mm\n2026-03-31,{'1' * 200_000}\n"),
            ("POST", f"/api/rounds/{line}/file", "at,wear_mm\n0001-01-01T00:00:00+14:00,40\n"),
            ("POST", f"/api/rounds/{line}/file", "at,wear_mm\n0206-11-01,4\n"),
            ("POST", f"/api/rounds/{line}/file", f"at,wear_mm\n2026-03-31,{NUL}4\n"),
            ("POST", "/api/couplings/file", f"family,{'x' * 200_000}\n"),
            ("POST", "/api/benches/readings/read", f"clock,value_mm\n0,{'1' * 200_000}\n"),
            ("POST", "/api/benches/gap", DEEP),
            ("POST", "/api/benches/gap", f'{{"diameter_mm": {LONG}}}'),
        )
        for method, path, text in sent:
            kind = "text/csv" if "file" in path or "read" in path else "application/json"
            answer = lead.generic(method, path, text, content_type=kind)
            with self.subTest(method=method, path=path, text=text[:60]):
                self.assertIn(answer.status_code, (404, 422), answer.content[:300])
                self.assertTrue(answer.json()["errors"][0]["message"])

    def test_a_body_that_does_not_come_as_it_says_and_an_address_no_database_takes(self) -> None:
        lead = Client(enforce_csrf_checks=True, headers={"X-CSRFToken": TOKEN})
        lead.force_login(User.objects.get(username="lead"))
        lead.cookies["csrftoken"] = TOKEN
        for path in ("/api/records", "/api/session", "/api/benches/readings/read", f"/api/jobs/{self.job.pk}/entries"):
            for kind in ("multipart/form-data", "multipart/form-data; boundary=", "application/x-www-form-urlencoded"):
                answer = lead.generic("POST", path, "{}", content_type=kind)
                with self.subTest(path=path, kind=kind):
                    self.assertEqual(answer.status_code, 422, answer.content[:300])
                    self.assertTrue(answer.json()["errors"][0]["message"])
        answer = lead.generic("DELETE", "/api/calendar?whose=%00", "")
        self.assertEqual(answer.status_code, 422, answer.content[:300])
