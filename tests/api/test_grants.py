"""The role the application works under owns nothing, and cannot change what was entered, signed or issued."""

import subprocess
from pathlib import Path

from django.conf import settings
from django.db import DatabaseError, connection, transaction

from tests.site import OwnTransactions, build_two_sites

ROLE = "anvil_app_of_the_tests"
PSQL = sorted(Path("/usr/lib/postgresql").glob("*/bin/psql"))[-1]
REFUSED = (
    "UPDATE jobs_entry SET by = 'x'",
    "DELETE FROM jobs_entry",
    "TRUNCATE jobs_entry CASCADE",
    "UPDATE jobs_signature SET reason = 'x'",
    "DELETE FROM reports_issuedrecord",
    "UPDATE plant_linechange SET by = 'x'",
    "UPDATE jobs_job SET card = '{}'",
    "DELETE FROM jobs_job",
    "ALTER TABLE jobs_entry DISABLE TRIGGER ALL",
    "UPDATE accounts_membership SET role = 'lead'",
    "DELETE FROM accounts_membership",
    "UPDATE journal_journalline SET rows = '{}'",
    "DELETE FROM journal_journalline",
    "DROP TABLE jobs_entry",
    "SET session_replication_role = replica",
)
ALLOWED = (
    "SELECT count(*) FROM jobs_entry",
    "SELECT id FROM jobs_job FOR NO KEY UPDATE",
    "UPDATE jobs_job SET closed_at = now() WHERE closed_at IS NULL",
    "UPDATE accounts_site SET proof_hours = 8",
    "DELETE FROM jobs_streamreading",
)


class GrantsTest(OwnTransactions):
    """scripts/grants.sql, on the database of the tests."""

    def setUp(self) -> None:
        build_two_sites()
        at = connection.settings_dict
        self.sql("-v", f"app={ROLE}", "-v", "password=for-tests-only", "-f", str(settings.ROOT / "scripts" / "grants.sql"))
        self.addCleanup(self.sql, "-c", f"DROP OWNED BY {ROLE}", "-c", f"DROP ROLE {ROLE}")
        self.assertNotEqual(at["USER"], ROLE)

    def sql(self, *given: str) -> None:
        """As the owner."""
        at = connection.settings_dict
        where = ["-h", str(at["HOST"]), "-p", str(at["PORT"]), "-U", str(at["USER"]), "-d", str(at["NAME"])]
        command = [str(PSQL), *where, "-q", "-v", "ON_ERROR_STOP=1", *given]
        subprocess.run(command, check=True, capture_output=True, env={"PGPASSWORD": str(at["PASSWORD"])})

    def as_the_app(self, statement: str) -> None:
        """One statement, taken back afterwards."""
        with transaction.atomic(), connection.cursor() as cursor:
            cursor.execute(f"SET LOCAL ROLE {ROLE}")
            cursor.execute(statement)
            transaction.set_rollback(True)

    def test_it_appends_and_reads_and_changes_nothing_that_stands(self) -> None:
        for statement in ALLOWED:
            with self.subTest(statement):
                self.as_the_app(statement)
        for statement in REFUSED:
            with self.subTest(statement), self.assertRaises(DatabaseError):
                self.as_the_app(statement)
