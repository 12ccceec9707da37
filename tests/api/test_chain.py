"""What was entered is what is stored, and shows where it is not; one open job a line; jobs that are cancelled."""

from datetime import timedelta
from unittest import mock
from uuid import uuid4

from django.db import IntegrityError, connection, transaction
from django.test import TestCase
from django.utils import timezone

from millwright.job.entry import EntryKind
from server.accounts.models import Membership, User
from server.jobs.actions.append_entry import Sent, append_entry
from server.jobs.chain import head_of
from server.jobs.models import Entry, Job
from tests.site import Member, build_two_sites, is_whole, job_of

BLOWER = "Steep aeration blower 2"


class ChainTest(TestCase):
    """A hash of each entry and of the one before it."""

    job: Job

    @classmethod
    def setUpTestData(cls) -> None:
        cls.job = build_two_sites()

    def test_figures_come_back_from_the_database_as_they_were_hashed(self) -> None:
        odd = {"text": "é ½ “quoted” \\ /", "number": 0}
        for inputs in (odd["text"], "0.1", "−0"):
            status, said = Member("millwright").enter(self.job, "set.align", {"text": str(inputs)}, kind="note")
            self.assertEqual(status, 201, said)
        move = {"feet": [{"name": "motor tail", "shim_mm": -0.0, "slide_mm": 1e-9}], "axial_mm": 1.0}
        self.assertEqual(Member("millwright").enter(self.job, "set.align", move, kind="move")[0], 201)
        self.assertTrue(is_whole(self.job))

    def test_the_database_refuses_to_empty_entries_or_to_change_what_a_job_was_started_with(self) -> None:
        refused = (
            "TRUNCATE jobs_entry CASCADE",
            "TRUNCATE jobs_signature",
            "UPDATE jobs_job SET card = '{}'",
            "UPDATE jobs_job SET scope = 'check it'",
            "UPDATE jobs_job SET unit = 'in'",
            "UPDATE jobs_job SET closed_at = NULL WHERE closed_at IS NOT NULL",
            "UPDATE jobs_job SET last_number = last_number - 1 WHERE last_number > 0",
            "DELETE FROM journal_journalline",
            "UPDATE journal_journalline SET rows = '{}'",
        )
        for sql in refused:
            with self.subTest(sql), self.assertRaises(IntegrityError), transaction.atomic(), connection.cursor() as cursor:
                cursor.execute("SET CONSTRAINTS ALL IMMEDIATE; SET LOCAL anvil.may_empty = ''")
                cursor.execute(sql)

    def test_a_job_keeps_every_column_that_is_not_said_to_change(self) -> None:
        other = {"uuid": "gen_random_uuid()", "jsonb": "'[1]'", "timestamp with time zone": "now()", "bigint": "-1"}
        for field in Job._meta.concrete_fields:
            if field.name in Job.CHANGES_LATER:
                continue
            kind = str(field.db_type(connection)).partition("(")[0]
            value = other.get(kind, "'X'" if kind == "varchar" else "7")
            kept = self.assertRaisesRegex(IntegrityError, "keeps what it was started with")
            with self.subTest(field.name), kept, transaction.atomic(), connection.cursor() as cursor:
                cursor.execute(f"UPDATE jobs_job SET {field.column} = {value}")  # noqa: S608 - names of our own

    def test_the_database_takes_the_next_number_alone_and_no_row_without_a_hash(self) -> None:
        last = Entry.objects.filter(job=self.job).latest("number")
        for number, chain in ((last.number, last.chain), (last.number + 2, last.chain), (last.number + 1, "")):
            with self.subTest(number=number, chain=chain), self.assertRaises(IntegrityError), transaction.atomic():
                last.pk, last.number, last.chain = uuid4(), number, chain
                last.save(force_insert=True)

    def test_the_head_of_the_chain_stands_in_record_and_file(self) -> None:
        closed = job_of(BLOWER, closed=True)
        _, record = Member("lead").ask("GET", f"/api/records/{closed.pk}")
        self.assertEqual(record["chain"], head_of(closed).chain)
        written = Member("lead").get(f"/api/records/{closed.pk}/json").json()
        self.assertEqual(written["chain"], head_of(closed).chain)

    def test_two_of_the_same_name_are_told_apart_and_stay_so(self) -> None:
        namesake = User.objects.create_user("thornquist2", first_name="Jorun", last_name="Thornquist")
        Membership.objects.create(user=namesake, site=self.job.site, role="millwright")
        made = []
        for username in ("millwright", "thornquist2"):
            by = Membership.objects.get(user__username=username)
            sent = Sent(id=uuid4(), step="set.align", kind=EntryKind.NOTE, inputs={"text": "looked at it"})
            made.append(append_entry(self.job.pk, sent, by=by, now=timezone.now()))
        self.assertEqual(made[0].by, made[1].by)
        self.assertEqual([entry.person.username for entry in made if entry.person], ["millwright", "thornquist2"])
        with self.assertRaises(IntegrityError), transaction.atomic():
            Entry.objects.filter(pk=made[0].pk).update(person=namesake)

    def test_times_never_run_behind_their_numbers(self) -> None:
        last = Entry.objects.filter(job=self.job).latest("number")
        by = Membership.objects.get(user__username="millwright")
        sent = Sent(id=uuid4(), step="set.align", kind=EntryKind.NOTE, inputs={"text": "the clock was set back"})
        made = append_entry(self.job.pk, sent, by=by, now=last.at - timedelta(hours=2))
        self.assertEqual(made.at, last.at)
        self.assertTrue(is_whole(self.job))

    def test_another_content_under_the_same_id_is_refused(self) -> None:
        body = {"id": str(uuid4()), "step": "set.align", "kind": "note", "inputs": {"text": "one"}}
        path, member = f"/api/jobs/{self.job.pk}/entries", Member("millwright")
        self.assertEqual(member.ask("POST", path, body)[0], 201)
        self.assertEqual(member.ask("POST", path, body)[0], 201)
        self.assertEqual(member.ask("POST", path, {**body, "inputs": {"text": "another"}})[0], 409)
        self.assertEqual(self.job.entries.get(pk=str(body["id"])).inputs["text"], "one")


class OneOpenJobTest(TestCase):
    """One open job a line; a job that is cancelled makes room."""

    job: Job

    @classmethod
    def setUpTestData(cls) -> None:
        cls.job = build_two_sites()

    def test_the_database_itself_allows_one_open_job_a_line(self) -> None:
        with self.assertRaises(IntegrityError), transaction.atomic():
            Job.objects.create(
                site=self.job.site,
                line=self.job.line,
                number=99,
                title="Second",
                spec=self.job.spec,
                card={},
                started_by="x",
                started_at=timezone.now(),
            )

    def test_of_two_who_start_at_once_one_is_told(self) -> None:
        lead, line = Member("lead"), job_of("Kiln fan A").line
        Member("lead").ask("POST", f"/api/jobs/{job_of('Kiln fan A').pk}/cancel", {"reason": "wrong line"})
        with mock.patch("server.jobs.actions.start_job.Job.objects.which_are") as nobody_sees_it:
            nobody_sees_it.return_value.filter.return_value.first.return_value = None
            first, second = (lead.ask("POST", f"/api/jobs/of-line/{line.pk}", {"title": "Both hubs"}) for _ in range(2))
        self.assertEqual((first[0], second[0]), (201, 409), second[1])

    def test_a_lead_cancels_a_job_with_a_reason_and_it_stays_on_record(self) -> None:
        path = f"/api/jobs/{self.job.pk}/cancel"
        self.assertEqual(Member("millwright").ask("POST", path, {"reason": "no parts"})[0], 403)
        self.assertEqual(Member("lead").ask("POST", path, {"reason": " "})[0], 422)
        status, shown = Member("lead").ask("POST", path, {"reason": "no parts until spring"})
        self.assertEqual((status, shown["closed"], shown["cancelled_by"]), (200, True, "Ansa Pellwright"))
        self.assertEqual(Member("lead").ask("POST", path, {"reason": "again"})[0], 409)
        status, said = Member("millwright").enter(self.job, "set.align", {"text": "x"}, kind="note")
        self.assertEqual(status, 409)
        self.assertIn("cancelled by Ansa Pellwright: no parts until spring", said["errors"][0]["message"])
        _, record = Member("lead").ask("GET", f"/api/records/{self.job.pk}")
        self.assertEqual(record["cancelled"], "Cancelled by Ansa Pellwright: no parts until spring")
        self.assertGreater(len(record["steps"]), 10)
        written = Member("lead").get(f"/api/records/{self.job.pk}/json").json()
        self.assertEqual(written["cancelled_because"], "no parts until spring")
        started = Member("lead").ask("POST", f"/api/jobs/of-line/{self.job.line_id}", {"title": "In spring"})
        self.assertEqual(started[0], 201)
        floor = {line["name"]: line for line in Member("lead").ask("GET", "/api/jobs")[1]}
        self.assertEqual(floor[BLOWER]["job"]["title"], "In spring")
