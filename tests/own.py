"""A cluster and a server of one's own, for what kills them or fills them with nonsense: nobody else's is touched."""

import os
import random
import shutil
import signal
import socket
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from http.client import HTTPConnection
from pathlib import Path
from typing import Any

ROOT = Path(__file__).resolve().parents[1]
PASSWORD = "for-this-run-only"


def free_port() -> int:
    """On loopback."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


def descendants(pid: int) -> list[int]:
    """A process and all that came from it, the youngest first."""
    children = Path(f"/proc/{pid}/task/{pid}/children")
    found = children.read_text().split() if children.exists() else []
    return [below for child in found for below in descendants(int(child))] + [pid]


def kill(pids: list[int]) -> None:
    """At once, with nothing said; returns when they are gone."""
    for pid in pids:
        with suppress(ProcessLookupError):
            os.kill(pid, signal.SIGKILL)
    while any(_lives(pid) for pid in pids):
        time.sleep(0.01)


def _lives(pid: int) -> bool:
    """What has ended and is not yet buried does not."""
    with suppress(OSError):
        return Path(f"/proc/{pid}/stat").read_text().rpartition(")")[2].split()[0] not in "ZX"
    return False


class Cluster:
    """A PostgreSQL of its own in a folder of its own."""

    def __init__(self, folder: Path) -> None:
        self.folder, self.port = folder / "pg", free_port()
        self.bin = sorted(Path("/usr/lib/postgresql").glob("*/bin"))[-1]
        self.folder.mkdir(mode=0o700)
        if os.getuid() == 0:
            folder.chmod(0o755)
            shutil.chown(self.folder, "postgres")
        self._do("initdb", "-D", str(self.folder), "-U", "anvil", "-A", "trust", "-E", "UTF8", "--locale=C.UTF-8")
        self.start()
        self._do("createdb", "-h", "127.0.0.1", "-p", str(self.port), "-U", "anvil", "anvil")
        self.url = f"postgresql://anvil@127.0.0.1:{self.port}/anvil"

    def _do(self, program: str, *arguments: str) -> None:
        as_postgres = ["runuser", "-u", "postgres", "--"] if os.getuid() == 0 else []
        command = [*as_postgres, str(self.bin / program), *arguments]
        subprocess.run(command, check=True, cwd="/", stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL)

    def start(self) -> None:
        """Also after it was killed: it recovers first."""
        (self.folder / "postmaster.pid").unlink(missing_ok=True)
        options = f"-p {self.port} -c listen_addresses=127.0.0.1 -c unix_socket_directories=''"
        self._do("pg_ctl", "-D", str(self.folder), "-l", str(self.folder / "log"), "-w", "-t", "60", "-o", options, "start")

    def pids(self) -> list[int]:
        """Postmaster and backends."""
        return descendants(int((self.folder / "postmaster.pid").read_text().split()[0]))

    def stop(self) -> None:
        """In good order."""
        self._do("pg_ctl", "-D", str(self.folder), "-m", "fast", "-w", "stop")


class Server:
    """The application with two workers."""

    def __init__(self, url: str) -> None:
        self.port, self.environment = free_port(), {**os.environ, "DATABASE_URL": url}
        self.at = f"http://127.0.0.1:{self.port}"
        self.start()

    def start(self) -> None:
        """Returns once it answers."""
        listens = ["--port", str(self.port), "--workers", "2", "--log-level", "critical", "--no-access-log"]
        command = [sys.executable, "-m", "uvicorn", "server.asgi:application", *listens]
        self.process = subprocess.Popen(command, env=self.environment, cwd=ROOT, stderr=subprocess.DEVNULL)
        self.wait()

    def wait(self) -> None:
        """Until it answers."""
        for _ in range(600):
            with suppress(OSError):
                connection = HTTPConnection("127.0.0.1", self.port, timeout=10)
                connection.request("GET", "/")
                connection.getresponse()
                return
            time.sleep(0.1)
        raise RuntimeError("the server does not come back")

    def worker(self) -> list[int]:
        """One of those that answer, not the one that watches them."""
        children = Path(f"/proc/{self.process.pid}/task/{self.process.pid}/children").read_text().split()
        busy = [int(pid) for pid in children if b"spawn_main" in Path(f"/proc/{pid}/cmdline").read_bytes()]
        return [random.choice(busy)] if busy else []


@contextmanager
def cluster_of_its_own() -> Iterator[tuple[Cluster, Path]]:
    """A cluster with the demo on it, and the folder it stands in; Django is set up on it. Gone afterwards."""
    folder = Path(tempfile.mkdtemp(prefix="anvil-own-"))
    cluster = Cluster(folder)
    try:
        os.environ |= {"DATABASE_URL": cluster.url, "DJANGO_ALLOW_ASYNC_UNSAFE": "true"}
        os.environ.setdefault("DJANGO_SETTINGS_MODULE", "server.settings.base")
        import django

        django.setup()
        from django.core.management import call_command
        from django.utils import timezone

        from server.demo.build import build_demo

        call_command("migrate", verbosity=0)
        build_demo(password=PASSWORD, now=timezone.now())
        yield cluster, folder
    finally:
        cluster.stop()
        shutil.rmtree(folder, ignore_errors=True)


@contextmanager
def server_on(cluster: Cluster) -> Iterator[Server]:
    """The application on it; gone afterwards."""
    server = Server(cluster.url)
    try:
        yield server
    finally:
        kill(descendants(server.process.pid))


def session_of(username: str) -> dict[str, Any]:
    """The cookie of somebody who is signed in."""
    from django.test import Client

    from server.accounts.models import User

    client = Client()
    client.force_login(User.objects.get(username=username))
    return {"name": "sessionid", "value": client.cookies["sessionid"].value}
