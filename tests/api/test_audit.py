"""Whatever the owner of the database changes behind the app is named; with a seal also what was made to fit."""

import json
import re
from collections.abc import Iterator
from contextlib import contextmanager
from decimal import Decimal
from io import StringIO
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

from django.core.management import CommandError, call_command
from django.db import connection, transaction
from django.test import SimpleTestCase, TestCase, override_settings
from django.utils import timezone
from hypothesis import given
from hypothesis import strategies as st

from server.audit.seal import write_seal
from server.jobs.chain import in_one_chain, rows_of
from server.jobs.models import Entry, Job
from server.journal.digest import canonical, canonical_mostly, digest, digest_of_stored
from tests.site import Member, build_two_sites, job_of

BLOWER = "Steep aeration blower 2"
OPEN = f"Quillmere Maltings, {BLOWER}, job"
STARTED, GONE, OTHERWISE = "it is not as it was started", "it is missing", "it is not what was entered"
WRITTEN = "it is not what was written down"

# What an owner may do, on the open job, a signed one or a round; and what is said of it.
DEEDS: tuple[tuple[str, str, str], ...] = (
    ("DELETE FROM jobs_entry WHERE job_id = %(open)s AND number > %(last)s - 3", OPEN, GONE),
    ("DELETE FROM jobs_signature WHERE job_id = %(signed)s AND step = 'close.sign'", "job", GONE),
    ("DELETE FROM jobs_signature WHERE job_id = %(signed)s; DELETE FROM jobs_entry WHERE job_id = %(signed)s", "job", GONE),
    ("UPDATE jobs_job SET card = '{}', started_by = 'Somebody' WHERE id = %(signed)s", "job", STARTED),
    ("UPDATE jobs_job SET unit = 'in' WHERE id = %(open)s", OPEN, STARTED),
    (
        "UPDATE jobs_job SET closed_at = now(), cancelled_by = 'Somebody', cancelled_because = 'x' WHERE id = %(open)s",
        OPEN,
        "whether it was cancelled, by whom and why is not what was signed",
    ),
    ("UPDATE jobs_job SET closed_at = now() WHERE id = %(open)s", OPEN, "when its record was closed is not what was signed"),
    (
        "UPDATE reports_issuedrecord SET page = replace(page, 'within tolerance', 'OVER') WHERE job_id = %(signed)s",
        "record as issued",
        WRITTEN,
    ),
    (
        "UPDATE reports_issuedrecord SET data = '{}', digest = repeat('0', 64) WHERE job_id = %(signed)s",
        "record as issued",
        WRITTEN,
    ),
    ("UPDATE jobs_entry SET person_id = NULL WHERE job_id = %(open)s AND number = 5", "number 5", OTHERWISE),
    ("UPDATE jobs_entry SET inputs = '{}' WHERE job_id = %(open)s AND number = 5", "number 5", OTHERWISE),
    ("UPDATE jobs_entry SET at = at + interval '1 second' WHERE job_id = %(open)s AND number = 2", "number 2", OTHERWISE),
    ("UPDATE jobs_signature SET reason = 'x' WHERE job_id = %(open)s AND number = 4", "number 4", OTHERWISE),
    ("DELETE FROM jobs_entry WHERE job_id = %(open)s AND number = 7", "number 7", GONE),
    (
        "UPDATE jobs_entry SET number = 1007 WHERE job_id = %(open)s AND number = 7;"
        "UPDATE jobs_entry SET number = 7 WHERE job_id = %(open)s AND number = 8;"
        "UPDATE jobs_entry SET number = 8 WHERE job_id = %(open)s AND number = 1007",
        "number 7",
        OTHERWISE,
    ),
    (
        "UPDATE jobs_job SET read_in = '{\"numbers\": 999}', taken_over_at = now() WHERE id = %(signed)s",
        "job",
        "since when it counts here is not what was signed",
    ),
    ("DELETE FROM jobs_entry WHERE job_id = %(open)s; DELETE FROM jobs_signature WHERE job_id = %(open)s", OPEN, GONE),
    ("UPDATE plant_linelook SET wear_mm = 0.1 WHERE id = %(look)s", "look of a round", WRITTEN),
    ("DELETE FROM plant_linelook WHERE id = %(look)s", "look of a round", GONE),
    (
        "INSERT INTO plant_linelook SELECT gen_random_uuid(), at, wear_mm, leaks, noise, temperature_c, vibration_mm_per_s,"
        " hours, note, typed, by, role, entered_at, line_id, person_id FROM plant_linelook WHERE id = %(look)s",
        "look of a round",
        "it was put there behind the app",
    ),
    ("UPDATE plant_line SET values = '{}' WHERE id = %(line)s", BLOWER, "it is not as its last change left it"),
    ("UPDATE plant_linechange SET by = 'x' WHERE line_id = %(line)s", "change of a line", WRITTEN),
    ("DELETE FROM journal_journalline WHERE number = 3", "journal, line 3", GONE),
    ("UPDATE journal_journalline SET rows = '[]' WHERE number = 3", "journal", "line 3"),
    (
        "DELETE FROM journal_journalline WHERE number = (SELECT max(number) FROM journal_journalline)",
        "journal, line",
        GONE,
    ),
)


class AuditTest(TestCase):
    """./anvil verify, and the seals it is held against."""

    job: Job
    ids: dict[str, Any]

    @classmethod
    def setUpTestData(cls) -> None:
        cls.job = build_two_sites()
        look = cls.job.site.lines.filter(looks__wear_mm__isnull=False).values_list("looks", flat=True)[0]
        cls.ids = {
            "open": cls.job.pk,
            "signed": job_of(BLOWER, closed=True).pk,
            "line": cls.job.line_id,
            "look": look,
            "last": cls.job.last_number,
        }

    @contextmanager
    def behind_the_app(self) -> Iterator[Any]:
        """As somebody does who owns the database; taken back afterwards."""
        with transaction.atomic():
            with connection.cursor() as cursor:
                cursor.execute("SET LOCAL session_replication_role = replica")
                yield cursor
            transaction.set_rollback(True)

    def said(self, **how: Any) -> str:
        """What verify says is wrong; empty where nothing is."""
        said = StringIO()
        try:
            call_command("verify", stdout=StringIO(), stderr=said, **how)
        except CommandError:
            return said.getvalue()
        return ""

    def test_all_that_was_entered_is_what_is_stored(self) -> None:
        said = StringIO()
        call_command("verify", stdout=said)
        self.assertIn(f"{Job.objects.count()} jobs: every entry and signature is what was entered", said.getvalue())

    def test_whatever_is_changed_behind_the_app_is_named(self) -> None:
        for sql, where, what in DEEDS:
            with self.subTest(sql), self.behind_the_app() as cursor:
                for one in sql.split(";"):
                    cursor.execute(one, self.ids)
                    self.assertGreater(cursor.rowcount, 0)
                said = self.said()
                self.assertTrue(any(where in line and what in line for line in said.splitlines()), said)
        self.assertEqual(self.said(), "")

    def test_what_was_made_to_fit_shows_against_a_seal(self) -> None:
        with TemporaryDirectory() as folder, override_settings(SEAL_KEY_FILE=str(Path(folder) / "seal.key")):
            path = write_seal(Path(folder), timezone.now())
            self.assertEqual(self.said(seal=path), "")
            Member("millwright").enter(self.job, "set.align", {"text": "work goes on"}, kind="note")
            self.assertEqual(self.said(seal=path), "")
            with self.behind_the_app() as cursor:
                Entry.objects.filter(job=self.job, number=5).update(by="Somebody Else")
                rows = rows_of(self.job)
                in_one_chain(self.job.start, rows)
                for row in rows:
                    type(row).objects.filter(pk=row.pk).update(chain=row.chain)
                Job.objects.filter(pk=self.job.pk).update(head=rows[-1].chain)
                self.assertEqual(self.said(), "")
                self.assertIn("is not what stood there when the seal of", self.said(seal=path))
                cursor.execute("DELETE FROM jobs_signature WHERE job_id = %(open)s", self.ids)
                cursor.execute("DELETE FROM jobs_entry WHERE job_id = %(open)s", self.ids)
                cursor.execute("DELETE FROM jobs_job WHERE id = %(open)s", self.ids)
                self.assertIn("is not there any more", self.said(seal=path))

    def test_a_seal_that_was_changed_or_made_elsewhere_is_none(self) -> None:
        with TemporaryDirectory() as folder, override_settings(SEAL_KEY_FILE=str(Path(folder) / "seal.key")):
            path = write_seal(Path(folder), timezone.now())
            held = json.loads(path.read_text())
            held["jobs"].popitem()
            for text in (json.dumps(held), "{}", "[]", "no"):
                path.write_text(text)
                with self.subTest(text[:20]), self.assertRaisesRegex(CommandError, "seal"):
                    call_command("verify", seal=path)

    def test_a_job_that_cannot_be_read_is_named_and_takes_no_other_with_it(self) -> None:
        with self.behind_the_app() as cursor:
            cursor.execute("SET CONSTRAINTS ALL IMMEDIATE")
            cursor.execute("ALTER TABLE jobs_entry DROP CONSTRAINT entry_of_these_days")
            cursor.execute("UPDATE jobs_entry SET inputs = '[]' WHERE kind = 'photograph'")
            cursor.execute("UPDATE jobs_entry SET at = '0001-01-01T00:00:00+14:00' WHERE job_id = %(open)s", self.ids)
            cursor.execute("UPDATE jobs_entry SET by = 'x' WHERE job_id = %(signed)s AND number = 3", self.ids)
            said = self.said()
            self.assertIn(f"{OPEN} {self.job.number}:", said)
            self.assertIn("number 3: it is not what was entered", said)


FIGURES = st.integers(-(10**18), 10**18) | st.floats(allow_nan=False, allow_infinity=False) | st.integers(-99, 99).map(float)
WORDS = st.text(st.characters(codec="utf-8", exclude_characters="\x00"), max_size=8) | st.sampled_from(
    ("1.0, then 2.0}", 'M8 x 1.0] and "5.0,"', "a\\", "5.0")
)
STORED = st.recursive(
    st.none() | st.booleans() | FIGURES | WORDS,
    lambda inner: st.lists(inner, max_size=4) | st.dictionaries(WORDS, inner, max_size=4),
    max_leaves=12,
)


def as_the_database_gives_it(value: Any) -> str:
    """JSON with its spaces, and no number with an exponent."""
    match value:
        case float():
            return f"{Decimal(repr(value)):f}"
        case dict():
            return "{" + ", ".join(f"{json.dumps(k)}: {as_the_database_gives_it(v)}" for k, v in value.items()) + "}"
        case list():
            return "[" + ", ".join(map(as_the_database_gives_it, value)) + "]"
        case _:
            return json.dumps(value, ensure_ascii=False)


class WrittenAlikeTest(SimpleTestCase):
    """What is stored and what comes back out of the database have one hash."""

    @given(STORED)
    def test_however_it_comes_back_it_is_hashed_as_it_went_in(self, value: Any) -> None:
        value = {"it": value}
        text = as_the_database_gives_it(value)
        entered = digest({"inputs": value, "step": "x"})
        self.assertEqual(digest_of_stored({"step": "x"}, {"inputs": canonical(text)}), entered)
        if not re.search(r"\d{15}|0\.0000|-0|\.00|\\", text):
            self.assertEqual(canonical_mostly(text), canonical(text))
