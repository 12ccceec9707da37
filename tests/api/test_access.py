"""Who may see and do what."""

import json

from django.test import Client, TestCase

from server.accounts.actions import WRONG_TRIES
from server.accounts.models import FailedSignIn
from server.demo import blower
from server.demo.build import SITE
from server.jobs.models import Job
from server.plant.models import Line
from tests.site import PASSWORD, Member, build_two_sites, hours_later


class SitesTest(TestCase):
    """Nobody sees or touches another site's lines."""

    job: Job

    @classmethod
    def setUpTestData(cls) -> None:
        cls.job = build_two_sites()

    def test_a_stranger_sees_nothing_and_reaches_nothing_by_its_address(self) -> None:
        stranger = Member("stranger")
        self.assertEqual(stranger.ask("GET", "/api/jobs"), (200, []))
        line, entry = self.job.line_id, self.job.entries.first().pk
        reading = {"id": str(entry), "step": "set.align", "kind": "reading", "inputs": blower.FOUND}
        signature = {"id": str(entry), "step": "set.align", "kind": "hold", "entry": None}
        addresses = [
            ("GET", f"/api/jobs/{self.job.pk}", None),
            ("POST", f"/api/jobs/{self.job.pk}/entries", reading),
            ("GET", f"/api/jobs/{self.job.pk}/entries/{entry}", None),
            ("POST", f"/api/jobs/{self.job.pk}/signatures", signature),
            ("POST", f"/api/jobs/of-line/{line}", {"title": "mine now"}),
            ("GET", f"/api/lines/{line}", None),
            ("GET", f"/api/records/{self.job.pk}", None),
            ("GET", f"/api/records/{self.job.pk}/pdf", None),
            ("GET", f"/api/records/{self.job.pk}/json", None),
            ("GET", f"/api/records/{self.job.pk}/entries/{entry}/csv", None),
        ]
        for method, path, body in addresses:
            with self.subTest(f"{method} {path}"):
                self.assertEqual(stranger.ask(method, path, body)[0], 404)
        status, jobs = stranger.ask("GET", f"/api/jobs/of-line/{line}")
        self.assertEqual((status, jobs), (200, []))
        line_now = Line.objects.get(pk=line)
        change = {"name": "Taken", "version": line_now.version, "spec": line_now.spec, "values": line_now.values}
        self.assertEqual(stranger.ask("PUT", f"/api/lines/{line}", change)[0], 404)

    def test_nothing_but_signing_in_answers_without_a_session(self) -> None:
        for path in ("/api/jobs", "/api/couplings", f"/api/jobs/{self.job.pk}", f"/api/records/{self.job.pk}/pdf"):
            answer = Client().get(path)
            self.assertEqual((answer.status_code, answer.json()["errors"][0]["message"]), (401, "Sign in first."))

    def test_the_floor_takes_as_many_queries_for_eight_lines_as_for_two(self) -> None:
        member = Member("lead")
        with self.assertNumQueries(8):
            member.ask("GET", "/api/jobs")
        Line.objects.filter(jobs=None).delete()
        with self.assertNumQueries(8):
            member.ask("GET", "/api/jobs")


class RolesTest(TestCase):
    """An apprentice reads and enters; a millwright signs; a lead accepts."""

    job: Job

    @classmethod
    def setUpTestData(cls) -> None:
        cls.job = build_two_sites()

    def test_an_apprentice_enters_but_neither_signs_nor_starts_nor_changes_a_line(self) -> None:
        apprentice = Member("apprentice")
        self.assertEqual(apprentice.enter(self.job, "safe.try", self.retried())[0], 201)
        status, said = apprentice.sign(self.job, "safe.try")
        self.assertEqual(
            (status, said["errors"][0]["message"]), (403, "This takes a millwright; you are signed in as apprentice.")
        )
        self.assertEqual(apprentice.ask("POST", f"/api/jobs/of-line/{self.job.line_id}", {"title": "x"})[0], 403)
        line = Line.objects.get(pk=self.job.line_id)
        body = {"name": line.name, "version": line.version, "spec": line.spec, "values": line.values}
        self.assertEqual(apprentice.ask("PUT", f"/api/lines/{line.pk}", body)[0], 403)
        self.assertEqual(Member("millwright").sign(self.job, "safe.try")[0], 201)

    def test_only_a_lead_accepts_a_value_over_its_limit_and_only_with_a_reason(self) -> None:
        self.assertEqual(Member("millwright").sign(self.job, "set.align", "authorise", reason="runs slowly")[0], 403)
        lead = Member("lead")
        self.assertEqual(lead.sign(self.job, "set.align", "authorise", reason=" ")[0], 422)
        self.assertEqual(lead.sign(self.job, "set.align", "authorise", reason="two hours to the shutdown's end")[0], 201)
        _, record = lead.ask("GET", f"/api/records/{self.job.pk}")
        signed = next(s for s in record["steps"] if s["key"] == "set.align")["signatures"]
        self.assertEqual([(s["kind"], s["reason"]) for s in signed], [("authorise", "two hours to the shutdown's end")])

    def test_nobody_signs_without_the_password_of_whoever_is_signed_in(self) -> None:
        member = Member("millwright")
        member.enter(self.job, "safe.try", self.retried())
        for password, status in (("", 422), ("not this one", 422), (PASSWORD, 201)):
            with self.subTest(password=password):
                self.assertEqual(member.sign(self.job, "safe.try", password=password)[0], status)
        self.assertNotIn(PASSWORD, str(list(self.job.signatures.values())))
        for _ in range(5):
            member.sign(self.job, "safe.try", password="guessed")
        self.assertEqual(member.sign(self.job, "safe.try", password=PASSWORD)[0], 429)

    def retried(self) -> dict[str, object]:
        """The try to start, once more."""
        return {"clear": True, "tried": True, "dead": True, "stored": True, "who": "W. Okonde"}


class SignInTest(TestCase):
    """Names, passwords, and what every page carries."""

    @classmethod
    def setUpTestData(cls) -> None:
        build_two_sites()

    def sign_in(self, client: Client, password: str, token: str | None = None) -> int:
        """Status of an attempt."""
        headers = {"X-CSRFToken": token} if token else {}
        body = json.dumps({"username": "lead", "password": password})
        return client.post("/api/session", body, content_type="application/json", headers=headers).status_code

    def test_guessing_is_slowed_down_and_nobody_is_shut_out(self) -> None:
        client = Client()
        with hours_later(0, stands_still=True):
            self.assertEqual([self.sign_in(client, "wrong") for _ in range(WRONG_TRIES)], [401] * WRONG_TRIES)
            self.assertEqual(self.sign_in(client, PASSWORD), 429)
            elsewhere = Client(REMOTE_ADDR="127.0.0.9")
            self.assertEqual(self.sign_in(elsewhere, PASSWORD), 200)
        with hours_later(6 / 3600):
            self.assertEqual(self.sign_in(client, PASSWORD), 200)

    def test_each_wrong_try_waits_longer_but_a_minute_at_most(self) -> None:
        client, wrong = Client(), FailedSignIn.objects
        for tries, wait_s in ((5, 5), (6, 10), (8, 40), (9, 60), (40, 60)):
            wrong.all().delete()
            with hours_later(0, stands_still=True), self.subTest(tries=tries):
                wrong.bulk_create(FailedSignIn(username="lead", address="127.0.0.1") for _ in range(tries))
                said = client.post(
                    "/api/session", {"username": "lead", "password": PASSWORD}, content_type="application/json"
                )
                self.assertIn(f"Wait {wait_s} s", said.json()["errors"][0]["message"])

    def test_strangers_wrong_passwords_keep_no_lead_from_signing(self) -> None:
        lead = Member("lead")
        for i in range(WRONG_TRIES):
            self.sign_in(Client(REMOTE_ADDR=f"127.0.1.{i}"), "wrong")
            self.sign_in(Client(), "wrong")
        job = Job.objects.which_are(closed=False).get(line__name="Steep aeration blower 2")
        signed = lead.sign(job, "set.align", "authorise", reason="two hours to the shutdown's end")
        self.assertEqual(signed[0], 201, signed)

    def test_what_is_no_address_is_none(self) -> None:
        self.assertEqual(self.sign_in(Client(REMOTE_ADDR="not-an-ip"), "wrong"), 401)
        self.assertEqual(FailedSignIn.objects.get().address, None)

    def test_another_sites_page_cannot_sign_anybody_in_or_append(self) -> None:
        strict = Client(enforce_csrf_checks=True)
        self.assertEqual(self.sign_in(strict, PASSWORD), 403)
        token = strict.get("/").cookies["csrftoken"].value
        self.assertEqual(self.sign_in(strict, PASSWORD, token), 200)
        job = Job.objects.which_are(closed=False)[0]
        answer = strict.post(f"/api/jobs/{job.pk}/entries", "{}", content_type="application/json")
        self.assertIn(answer.status_code, (401, 403))
        self.assertEqual(strict.get("/api/session").json()["site"]["name"], SITE)

    def test_pages_allow_only_our_own_scripts_and_no_framing(self) -> None:
        policy = Client().get("/").headers["Content-Security-Policy"]
        self.assertIn("script-src 'self';", policy)
        self.assertNotIn("unsafe", policy)
        self.assertIn("frame-ancestors 'none'", policy)
