"""What PostgreSQL tells one connection of this process, fanned out to every stream that is open here."""

import asyncio
import json
import logging
import time
from collections.abc import AsyncGenerator, Mapping
from dataclasses import dataclass, field
from typing import Any
from weakref import WeakKeyDictionary

import psycopg
from django.db import connection

logger = logging.getLogger(__name__)

CHANNEL = "anvil"
LOOK_EVERY_S = 5.0  # who has gone without a word is found by looking; and a proxy hears that the stream is alive
PRESENT_FOR_S = 30.0
AGAIN_MS = 2_000


@dataclass(frozen=True, kw_only=True)
class Here:
    """Somebody who has the job open: at which step, and whether something is typed there that is not entered."""

    device: str
    name: str
    step: str
    typing: bool


@dataclass
class _Room:
    """One job: its open streams, and who is there until when."""

    streams: set["asyncio.Queue[str | None]"] = field(default_factory=set)
    present: dict[str, tuple[float, Here]] = field(default_factory=dict)

    def here(self) -> list[dict[str, Any]]:
        now = time.monotonic()
        self.present = {device: kept for device, kept in self.present.items() if kept[0] > now}
        return [vars(here) for _, here in self.present.values()]


class Hub:
    """Listens while anybody does; one for each event loop, used from that loop alone."""

    def __init__(self) -> None:
        self._rooms: dict[str, _Room] = {}
        self._listening: asyncio.Task[None] | None = None
        self._hears = False

    async def stream(self, job: str) -> AsyncGenerator[str]:
        """Events of a job as they are sent: `hello` once everything from now on is heard, `changed`, `here`.

        Ends where the database is lost: who listens asks for it anew.
        """
        room = self._rooms.setdefault(job, _Room())
        queue: asyncio.Queue[str | None] = asyncio.Queue()
        room.streams.add(queue)
        try:
            if self._listening is None:
                self._listening = asyncio.create_task(self._listen())
            yield f"retry: {AGAIN_MS}\n\n"
            if self._hears:
                yield _event("hello", {})
            said: list[dict[str, Any]] = []
            while True:
                if (here := room.here()) != said:
                    yield _event("here", said := here)
                try:
                    async with asyncio.timeout(LOOK_EVERY_S):
                        news = await queue.get()
                except TimeoutError:
                    news = ": still here\n\n"
                if news is None:
                    return
                if news:
                    yield news
        finally:
            room.streams.discard(queue)
            if not any(room.streams for room in self._rooms.values()) and self._listening:
                self._listening.cancel()

    async def _listen(self) -> None:
        try:
            async with await psycopg.AsyncConnection.connect(**_address(), autocommit=True) as listening:
                await listening.execute(f"LISTEN {CHANNEL}")
                self._hears = True
                for room in self._rooms.values():
                    _tell(room, _event("hello", {}))
                async for notify in listening.notifies():
                    self._heard(json.loads(notify.payload))
        except psycopg.OperationalError as why:
            logger.warning("nothing is heard from the database: %s", why)
        finally:
            self._listening, self._hears = None, False
            for room in self._rooms.values():
                _tell(room, None)
            self._rooms = {job: room for job, room in self._rooms.items() if room.streams}

    def _heard(self, news: Mapping[str, Any]) -> None:
        room = self._rooms.get(news["job"])
        if room is None:
            return
        match news:
            case {"left": device}:
                room.present.pop(device, None)
                _tell(room, "")
            case {"here": here}:
                room.present[here["device"]] = (time.monotonic() + PRESENT_FOR_S, Here(**here))
                _tell(room, "")
            case _:
                _tell(room, _event("changed", {"number": news["number"]}))


_hubs: WeakKeyDictionary[asyncio.AbstractEventLoop, Hub] = WeakKeyDictionary()


def hub() -> Hub:
    """That of the running loop."""
    return _hubs.setdefault(asyncio.get_running_loop(), Hub())


def _tell(room: _Room, news: str | None) -> None:
    for queue in room.streams:
        queue.put_nowait(news)


def _event(name: str, data: Any) -> str:
    return f"event: {name}\ndata: {json.dumps(data)}\n\n"


def _address() -> dict[str, Any]:
    """Where the ORM's database is; a connection of its own, since a pool lends none for as long as a page is open."""
    at = connection.settings_dict
    names = {"host": "HOST", "port": "PORT", "user": "USER", "password": "PASSWORD", "dbname": "NAME"}
    return {ours: at[theirs] for ours, theirs in names.items() if at[theirs]}
