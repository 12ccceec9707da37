"""What the one command does with the private database, in a folder of its own."""

import os
import socket
import subprocess
from pathlib import Path
from tempfile import TemporaryDirectory

from django.conf import settings
from django.test import SimpleTestCase

USES_THE_DATABASE = """
set -euo pipefail
. {scripts}/setup.sh
. {scripts}/postgres.sh
need_database >&2
trap stop_database EXIT
echo up
read -r _ || true
"""


class DatabaseTest(SimpleTestCase):
    """Several commands at once, as a server and a shell beside it."""

    def setUp(self) -> None:
        folder = TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        self.folder.chmod(0o755)  # the database's own user has to get in

    def command(self) -> subprocess.Popen[str]:
        """A command that uses the database until its input ends."""
        script = USES_THE_DATABASE.format(scripts=settings.ROOT / "scripts")
        env = {key: value for key, value in os.environ.items() if key != "DATABASE_URL"}
        made = subprocess.Popen(
            ["bash", "-c", script],
            cwd=self.folder,
            env=env,
            text=True,
            stdin=subprocess.PIPE,
            stdout=subprocess.PIPE,
            stderr=subprocess.DEVNULL,
        )
        self.addCleanup(self.end, made)
        assert made.stdout is not None
        self.assertEqual(made.stdout.readline(), "up\n")
        return made

    def end(self, command: subprocess.Popen[str]) -> None:
        """Its input ends, and so does it."""
        if command.poll() is None:
            command.communicate()

    def answers(self) -> bool:
        """Whether the database takes connections."""
        port = int((self.folder / ".anvil" / "pg.port").read_text())
        with socket.socket() as asked:
            return asked.connect_ex(("127.0.0.1", port)) == 0

    def test_the_database_stops_with_the_last_command_that_uses_it_whoever_started_it(self) -> None:
        shell, server = self.command(), self.command()
        self.end(shell)
        self.assertTrue(self.answers(), "the shell took the database from under the server")
        killed = self.command()
        killed.kill()
        killed.communicate()
        self.assertTrue(self.answers())
        self.end(server)
        self.assertFalse(self.answers(), "nobody uses it, and it is left running")


class DemoTest(SimpleTestCase):
    """Whose database gets the demo data, and with it a lead whose password is four figures."""

    def wants(self, given: str, **env: str) -> bool:
        """What a start decides, with these words behind it."""
        script = f". scripts/setup.sh; wants_demo {given}"
        known = {key: value for key, value in os.environ.items() if key not in ("DATABASE_URL", "CLUSTER")}
        return subprocess.run(["bash", "-c", script], cwd=settings.ROOT, env={**known, **env}, check=False).returncode == 0

    def test_a_database_of_ones_own_gets_it_only_where_that_is_said(self) -> None:
        url = "postgresql://plant@db.example:5432/anvil"
        self.assertFalse(self.wants("", DATABASE_URL=url))
        self.assertTrue(self.wants("--demo", DATABASE_URL=url))
        self.assertTrue(self.wants("", CLUSTER="/somewhere/pg"))

    def test_the_start_asks_before_it_loads_anything(self) -> None:
        start = (settings.ROOT / "anvil").read_text()
        self.assertIn('if wants_demo "$@"; then load_demo_once; fi', start)
        self.assertEqual(start.count("load_demo"), 1)
