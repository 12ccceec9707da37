"""The stream of a job and the word that somebody is there: whose they are, and what is told to whom."""

import asyncio
import json
from collections.abc import AsyncGenerator
from concurrent.futures import ThreadPoolExecutor
from typing import Any

from django.db import connections
from django.test import TestCase

from server.jobs.live.hub import Hub
from server.jobs.models import Job
from tests.site import Member, OwnTransactions, build_two_sites

PATIENCE_S = 60.0


class DoorTest(TestCase):
    """Who may listen and speak."""

    job: Job

    @classmethod
    def setUpTestData(cls) -> None:
        cls.job = build_two_sites()

    def test_a_job_of_another_site_is_neither_heard_nor_spoken_to(self) -> None:
        stranger = Member("stranger")
        self.assertEqual(stranger.ask("GET", f"/api/jobs/{self.job.pk}/live")[0], 404)
        self.assertEqual(stranger.ask("POST", f"/api/jobs/{self.job.pk}/here", {"device": "d", "step": "set.gap"})[0], 404)

    def test_a_server_that_cannot_stream_says_so_at_once(self) -> None:
        self.assertEqual(Member("millwright").ask("GET", f"/api/jobs/{self.job.pk}/live")[0], 204)

    def test_a_name_with_a_line_break_is_refused(self) -> None:
        given = {"device": "d", "step": "set\n.gap"}
        self.assertEqual(Member("millwright").ask("POST", f"/api/jobs/{self.job.pk}/here", given)[0], 422)


class HubTest(OwnTransactions):
    """What one says is heard by who listens to that job, and by nobody else."""

    def setUp(self) -> None:
        self.job = build_two_sites()
        self.other = Job.objects.exclude(pk=self.job.pk).filter(closed_at=None)[0]
        self.member = Member("millwright")

    def test_an_entry_is_told_once_it_stands_and_who_is_there_until_they_leave(self) -> None:
        with ThreadPoolExecutor(1) as beside:  # this thread may hold a browser's loop
            beside.submit(asyncio.run, self.listen()).result()

    async def listen(self) -> None:
        hub = Hub()
        ours, elsewhere = hub.stream(str(self.job.pk)), hub.stream(str(self.other.pk))
        self.assertEqual(await heard(ours), ("hello", {}))
        self.assertEqual(await heard(elsewhere), ("hello", {}))
        here = {"device": "d", "step": "set.gap", "typing": True}
        seen = {**here, "name": "Jorun Thornquist"}
        await self.say("here", here)
        self.assertEqual(await heard(ours), ("here", [seen]))
        note = {"id": "6f0d1c6e-0f5e-4ac9-9f0e-0a2c6d0b7a11", "step": "set.gap", "kind": "note", "inputs": {"text": "oil"}}
        number = await self.say("entries", note)
        self.assertEqual(await heard(ours), ("changed", {"number": number}))
        await self.say("here", {"device": "d", "left": True})
        self.assertEqual(await heard(ours), ("here", []))
        await self.say("here", here, self.other)
        self.assertEqual(await heard(elsewhere), ("here", [seen]))  # of the job beside it it has heard nothing
        await ours.aclose()
        await elsewhere.aclose()

    async def say(self, to: str, what: dict[str, Any], job: Job | None = None) -> int | None:
        """The number of the entry, where it is one."""

        def ask() -> tuple[int, Any]:
            try:
                return self.member.ask("POST", f"/api/jobs/{(job or self.job).pk}/{to}", what)
            finally:
                connections.close_all()  # of this thread

        status, said = await asyncio.to_thread(ask)
        self.assertIn(status, (201, 204), said)
        return said["number"] if said else None


async def heard(stream: AsyncGenerator[str]) -> tuple[str, Any]:
    """The next event: its name and data."""
    async with asyncio.timeout(PATIENCE_S):
        async for event in stream:
            if event.startswith("event: "):
                name, _, data = event.removeprefix("event: ").partition("\ndata: ")
                return name, json.loads(data)
    raise AssertionError("the stream has ended")
