"""The demo site for tests, and a second site beside it whose people must never see the first."""

import json
from typing import Any
from uuid import uuid4

from django.test import Client
from django.utils import timezone

from server.accounts.models import Membership, Site, User
from server.demo.build import build_demo
from server.jobs.models import Job

PASSWORD = "for-tests-only"


def build_two_sites() -> Job:
    """Quillmere Maltings with its open blower job (returned), and Elsewhere with a lead of its own."""
    build_demo(password=PASSWORD, now=timezone.now())
    elsewhere = Site.objects.create(name="Elsewhere Brewhouse")
    stranger = User.objects.create_user("stranger", password=PASSWORD)
    Membership.objects.create(user=stranger, site=elsewhere, role="lead")
    return Job.objects.with_closed().get(closed=False, line__name="Steep aeration blower 2")


class Member(Client):
    """A signed-in person who speaks JSON."""

    def __init__(self, username: str) -> None:
        super().__init__()
        self.force_login(User.objects.get(username=username))

    def ask(self, method: str, path: str, body: Any = None) -> tuple[int, Any]:
        """Status and content of an answer."""
        content = {} if body is None else {"data": json.dumps(body), "content_type": "application/json"}
        answer = self.generic(method, path, **content)
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
        body = {"id": str(uuid4()), "step": step, "kind": kind, "entry": current, **more}
        return self.ask("POST", f"/api/jobs/{job.pk}/signatures", body)
