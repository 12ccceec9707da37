"""Signing in and out, sites, and whose name an entry goes in under."""

from typing import Any

from django.test import Client, TestCase

from server.accounts.models import Membership, Site, User
from server.jobs.models import Job
from tests.in_words import in_words
from tests.site import PASSWORD, Member, build_two_sites, hours_later, job_of

NOTE = {"text": "belt guard is bent"}


class SessionTest(TestCase):
    """Who is signed in, where, as what."""

    job: Job

    @classmethod
    def setUpTestData(cls) -> None:
        cls.job = build_two_sites()

    def sign_in(self, username: str, password: str) -> Any:
        """An answer to signing in."""
        body = {"username": username, "password": password}
        return Client().post("/api/session", body, content_type="application/json")

    def test_the_answer_says_who_and_a_wrong_password_only_that_it_is_wrong(self) -> None:
        right = self.sign_in("lead", PASSWORD)
        self.assertEqual((right.status_code, right.json()["role"], right.json()["name"]), (200, "lead", "Ansa Pellwright"))
        wrong, nobody = self.sign_in("lead", "guess"), self.sign_in("nobody", "guess")
        self.assertEqual((wrong.status_code, wrong.json()), (401, nobody.json()))

    def test_it_says_what_each_may_do_and_the_server_holds_to_it(self) -> None:
        may = {who: self.sign_in(who, PASSWORD).json() for who in ("apprentice", "millwright", "lead")}
        self.assertEqual(may["apprentice"]["may"], [])
        self.assertLess(set(may["millwright"]["may"]), set(may["lead"]["may"]))
        self.assertEqual(may["millwright"]["acts_as"], ["apprentice", "millwright"])
        doors = {
            "keep instruments": (
                "PUT",
                "/api/instruments/brackets",
                {"name": "short bracket", "sag_mm": -0.1, "positive": "in"},
            ),
            "set the rules of the site": ("PUT", "/api/session/site-rule", {"proof_hours": 12, "lock_minutes": 30}),
            "start jobs": ("POST", f"/api/jobs/of-line/{self.job.line_id}", {"title": "another"}),
            "cancel jobs": ("POST", f"/api/jobs/{self.job.pk}/cancel", {"reason": "trial"}),
        }
        for who in ("apprentice", "millwright"):
            for deed, door in doors.items():
                refused = Member(who).ask(*door)[0] == 403
                self.assertEqual(refused, deed not in may[who]["may"], (who, deed))

    def test_passwords_are_kept_by_argon2_when_it_runs(self) -> None:
        from server.settings import base

        self.assertEqual(base.PASSWORD_HASHERS, ["django.contrib.auth.hashers.Argon2PasswordHasher"])

    def test_signed_out_nothing_answers_any_more(self) -> None:
        member = Member("millwright")
        self.assertEqual(member.ask("GET", "/api/jobs")[0], 200)
        self.assertEqual(member.ask("DELETE", "/api/session")[0], 204)
        self.assertEqual(member.ask("GET", "/api/jobs")[0], 401)

    def test_somebody_of_two_sites_sees_one_at_a_time_and_has_its_role_there(self) -> None:
        user, elsewhere = User.objects.get(username="millwright"), Site.objects.get(name="Elsewhere Brewhouse")
        Membership.objects.create(user=user, site=elsewhere, role="apprentice")
        member = Member("millwright")
        member.ask("PUT", "/api/session", {"site": str(elsewhere.pk)})
        _, who = member.ask("GET", "/api/session")
        self.assertEqual((who["site"]["name"], who["role"], len(who["sites"])), ("Elsewhere Brewhouse", "apprentice", 2))
        self.assertEqual(member.ask("GET", "/api/jobs"), (200, []))
        self.assertEqual(member.ask("GET", f"/api/jobs/{self.job.pk}")[0], 404)
        not_mine = Site.objects.create(name="Third")
        self.assertEqual(member.ask("PUT", "/api/session", {"site": str(not_mine.pk)})[0], 404)

    def test_an_account_without_a_site_gets_no_further(self) -> None:
        User.objects.create_user("drifter", password=PASSWORD)
        answer = self.sign_in("drifter", PASSWORD)
        self.assertEqual(
            (answer.status_code, answer.json()["errors"][0]["message"][:40]),
            (403, "This account belongs to no site. Ask the"),
        )

    def test_an_entry_or_signature_made_by_one_person_is_refused_in_the_session_of_another(self) -> None:
        lead = Member("lead")
        for asked in (
            lead.enter(self.job, "set.gap", NOTE, "note", by="millwright"),
            lead.sign(self.job, "safe.try", by="millwright"),
        ):
            self.assertEqual((asked[0], asked[1]["errors"][0]["path"]), (422, "by"))
        self.assertEqual(lead.enter(self.job, "set.gap", NOTE, "note", by="lead")[0], 201)


def waited_for(floor: list[dict[str, Any]]) -> str:
    """What the floor says is waited for on the kiln fan."""
    return next(str(line["job"]["hot_hub"]["until"]) for line in floor if line["name"] == "Kiln fan A")


class EventsTest(TestCase):
    """What happens to a hot hub, through the same door as every entry."""

    fan: Job
    step = "mount.hot.driven"

    @classmethod
    def setUpTestData(cls) -> None:
        build_two_sites()
        cls.fan = job_of("Kiln fan A")

    def now(self, member: Member) -> dict[str, Any]:
        """The run as the job shows it."""
        _, job = member.ask("GET", f"/api/jobs/{self.fan.pk}")
        return next(s["heat_run"] for s in job["steps"] if s["key"] == self.step)

    def test_a_run_is_followed_from_heater_to_shaft_and_shown_on_the_floor_while_it_is_on_its_way(self) -> None:
        member = Member("apprentice")
        self.assertEqual(self.now(member)["phase"], "on the heater")
        _, floor = member.ask("GET", "/api/jobs")
        self.assertEqual(waited_for(floor), "hub is hot")
        for event, phase, waits in (
            ("out of the heater", "on its way", "carry ends"),
            ("on the shaft", "on the shaft", "hub grips"),
            ("gripped", "gripped", "hub is cold"),
        ):
            self.assertEqual(member.enter(self.fan, self.step, {"event": event}, "event")[0], 201)
            self.assertEqual(self.now(member)["phase"], phase)
            _, floor = member.ask("GET", "/api/jobs")
            self.assertEqual(waited_for(floor), waits, event)
        _, job = member.ask("GET", f"/api/jobs/{self.fan.pk}")
        cold = next(s for s in job["steps"] if s["key"] == "mount.cold.driven")
        self.assertEqual(cold["not_before"], self.now(member)["touch_at"])

    def test_once_it_was_checked_cold_nothing_is_waited_for_any_more(self) -> None:
        member = Member("millwright")
        for event in ("out of the heater", "on the shaft", "gripped"):
            member.enter(self.fan, self.step, {"event": event}, "event")
        member.enter(self.fan, self.step, {"outcome": "seated at the mark"})
        _, job = member.ask("GET", f"/api/jobs/{self.fan.pk}")
        form = next(s["form"] for s in job["steps"] if s["key"] == "mount.cold.driven")
        ticks = {field["key"]: True for field in form["fields"] if field["kind"] == "tick"}
        lengths = {field["key"]: 0.0 for field in form["fields"] if field["kind"] == "length"}
        with hours_later(3):
            status, _ = member.enter(self.fan, "mount.cold.driven", {**ticks, **lengths, "hub_c": 23.0})
        self.assertEqual(status, 201)
        _, floor = member.ask("GET", "/api/jobs")
        self.assertIsNone(next(line["job"]["hot_hub"] for line in floor if line["name"] == "Kiln fan A"))

    def test_fahrenheit_is_kept_as_typed_and_must_read_as_the_value_beside_it(self) -> None:
        member = Member("millwright")
        reading = {"event": "hub temperature", "hub_c": 165.555555556}
        status, entry = member.enter(self.fan, self.step, reading, "event", typed={"hub_c": "330 F"})
        self.assertEqual((status, entry["typed"]), (201, {"hub_c": "330 F"}))
        status, said = member.enter(self.fan, self.step, {**reading, "hub_c": 330.0}, "event", typed={"hub_c": "330 F"})
        self.assertEqual((status, said["errors"][0]["path"]), (422, "hub_c"))

    def test_nonsense_is_refused_and_leaves_no_trace(self) -> None:
        member, before = Member("millwright"), self.fan.entries.count()
        for wrong in (
            {"event": "thrown"},
            {"event": "hub temperature"},
            {"event": "gripped", "ago_s": -5},
            {"event": "gripped", "when": 1},
        ):
            with self.subTest(wrong):
                self.assertEqual(member.enter(self.fan, self.step, wrong, "event")[0], 422)
        self.assertEqual(self.fan.entries.count(), before)

    def test_the_record_names_what_happened_and_the_head_line_what_was_left(self) -> None:
        _, record = Member("lead").ask("GET", f"/api/records/{self.fan.pk}")
        run = next(s for s in record["steps"] if s["key"] == self.step)
        self.assertEqual([r["label"] for r in run["readings"]], ["on the heater", "hub temperature", "hub temperature"])
        self.assertEqual([in_words(f["value"]) for f in run["readings"][1]["figures"]], ["88 °C"])
        self.assertFalse([line for line in record["summary"] if line["name"].startswith("Calculate the heat")])
