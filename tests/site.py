"""The demo site for tests, and a second site beside it whose people must never see the first."""

import json
from contextlib import AbstractContextManager
from datetime import timedelta
from typing import Any
from unittest import mock
from uuid import uuid4

from django.conf import settings
from django.contrib.auth import BACKEND_SESSION_KEY, HASH_SESSION_KEY, SESSION_KEY
from django.contrib.sessions.backends.db import SessionStore
from django.contrib.sessions.models import Session
from django.core.management.color import no_style
from django.db import connection, transaction
from django.db.models import Model
from django.test import Client, TransactionTestCase
from django.utils import timezone

from server.accounts.models import Membership, Site, User
from server.audit.jobs import verify_jobs
from server.catalogue.models import CatalogueChange, CouplingSize
from server.demo.build import build_demo
from server.instruments.models import Bracket, Gauge, Wrench
from server.jobs.models import Entry, Job, Signature
from server.journal.models import JournalLine
from server.keep.models import DueItem
from server.plant.models import Line, LineChange, LineLook
from server.reports.models import IssuedRecord

PASSWORD = "for-tests-only"


# Built once in a run, through the same actions as a user's clicks; then put back as the database copies rows, in a moment.
MODELS: tuple[type[Model], ...] = (
    Site,
    User,
    Membership,
    CouplingSize,
    CatalogueChange,
    Line,
    LineChange,
    LineLook,
    Bracket,
    Wrench,
    Gauge,
    DueItem,
    Job,
    Entry,
    Signature,
    IssuedRecord,
    JournalLine,
    Session,
)
PEOPLE = ("apprentice", "millwright", "lead", "stranger")
_sessions: dict[str, str] = {}
_built: list[tuple[str, bytes]] = []  # by table, its rows
KEPT = ("django_migrations", "django_content_type", "auth_permission")


def build_two_sites() -> Job:
    """Quillmere Maltings with its open blower job (returned), and Elsewhere with a lead of its own."""
    if _built:
        with connection.cursor() as cursor:
            cursor.execute("SET session_replication_role = replica")  # the rows know already where their chains end
            for table, rows in _built:
                with cursor.copy(f"COPY {table} FROM STDIN (FORMAT BINARY)") as copy:
                    copy.write(rows)
            cursor.execute("SET session_replication_role = origin")
            for sql in connection.ops.sequence_reset_sql(no_style(), list(MODELS)):  # they brought their own numbers
                cursor.execute(sql)
    else:
        build_demo(password=PASSWORD, now=timezone.now())
        elsewhere = Site.objects.create(name="Elsewhere Brewhouse")
        stranger = User.objects.create_user("stranger", password=PASSWORD)
        Membership.objects.create(user=stranger, site=elsewhere, role="lead")
        for username in PEOPLE:
            _sessions[username] = _signed_in(User.objects.get(username=username))
        with connection.cursor() as cursor:
            for model in MODELS:
                with cursor.copy(f"COPY {model._meta.db_table} TO STDOUT (FORMAT BINARY)") as copy:
                    _built.append((model._meta.db_table, b"".join(map(bytes, copy))))
    return job_of("Steep aeration blower 2")


def empty() -> None:
    """Every table of the application without a row, in a tenth of the time it takes to truncate them."""
    with connection.cursor() as cursor:
        cursor.execute("SET session_replication_role = replica")
        for table in connection.introspection.django_table_names(only_existing=True, include_views=False):
            if table not in KEPT:
                cursor.execute(f'DELETE FROM "{table}"')  # noqa: S608 - our own tables
        cursor.execute("SET session_replication_role = origin")


def forget_jobs() -> None:
    """As on another installation, where these jobs were never entered."""
    with connection.cursor() as cursor:
        cursor.execute("SET CONSTRAINTS ALL IMMEDIATE")
        cursor.execute("TRUNCATE jobs_signature, jobs_entry, jobs_job CASCADE")


def _signed_in(user: User) -> str:
    store = SessionStore()
    store[SESSION_KEY] = str(user.pk)
    store[BACKEND_SESSION_KEY] = "django.contrib.auth.backends.ModelBackend"
    store[HASH_SESSION_KEY] = user.get_session_auth_hash()
    store.save()
    return str(store.session_key)


def session_of(username: str) -> tuple[str, str]:
    """The cookie of somebody who is signed in: its name and value."""
    return settings.SESSION_COOKIE_NAME, _sessions[username]


def build_for_all() -> None:
    """Builds what `build_two_sites` puts back, and leaves the database as it was."""
    with transaction.atomic():
        build_two_sites()
        transaction.set_rollback(True)
    connection.close()  # no connection is shared by two processes


def job_of(line: str, *, closed: bool = False) -> Job:
    """The open job of a line, or its closed one."""
    return Job.objects.which_are(closed=closed).get(line__name=line)


def is_whole(job: Job) -> bool:
    """What stands of a job is what was entered."""
    return all(not wrong for _, wrong in verify_jobs(pk=job.pk))


def as_if_started_with(job: Job, **fields: Any) -> None:
    """A job that was started with something else: the database itself refuses to change that, so its triggers step aside."""
    with transaction.atomic(), connection.cursor() as cursor:
        cursor.execute("SET LOCAL session_replication_role = replica")
        Job.objects.filter(pk=job.pk).update(**fields)
        cursor.execute("SET LOCAL session_replication_role = origin")


class OwnTransactions(TransactionTestCase):
    """Tests whose transactions end: what they leave behind is taken away row by row."""

    def _fixture_teardown(self) -> None:
        empty()


class Member(Client):
    """A signed-in person who speaks JSON."""

    def __init__(self, username: str) -> None:
        super().__init__()
        self.force_login(User.objects.get(username=username))

    def ask(self, method: str, path: str, body: Any = None) -> tuple[int, Any]:
        """Status and content of an answer."""
        data = "" if body is None else json.dumps(body)
        answer = self.generic(method, path, data, "application/json" if data else "application/octet-stream")
        is_json = "json" in answer.headers.get("Content-Type", "") and bool(answer.content)
        return answer.status_code, answer.json() if is_json else answer.content

    def enter(self, job: Job, step: str, inputs: dict[str, Any], kind: str = "reading", **more: Any) -> tuple[int, Any]:
        """An entry sent to a job."""
        body = {"id": str(uuid4()), "step": step, "kind": kind, "inputs": inputs, **more}
        return self.ask("POST", f"/api/jobs/{job.pk}/entries", body)

    def sign(self, job: Job, step: str, kind: str = "hold", **more: Any) -> tuple[int, Any]:
        """A signature on a step's current reading."""
        _, shown = self.ask("GET", f"/api/jobs/{job.pk}")
        current = next(s["current"] for s in shown["steps"] if s["key"] == step)
        body = {"id": str(uuid4()), "step": step, "kind": kind, "entry": current, "password": PASSWORD, **more}
        return self.ask("POST", f"/api/jobs/{job.pk}/signatures", body)


def hours_later(hours: float, *, stands_still: bool = False) -> AbstractContextManager[object]:
    """What is entered while it lasts, is entered that much later than it is; or all of it at one time."""
    real, began = timezone.now, timezone.now()
    return mock.patch("django.utils.timezone.now", lambda: (began if stands_still else real()) + timedelta(hours=hours))
