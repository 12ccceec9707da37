"""Two people on one job, by the server as it runs: what one enters stands before the other at once."""

import threading
import time
from functools import partial
from http.client import HTTPConnection
from typing import Any

import uvicorn
from django.db import connection
from playwright.sync_api import Page, expect

from server.asgi import application
from tests.site import session_of

from .base import ENTER, PATIENCE_MS, RIM, BrowserTestCase, until


class StreamingThread(threading.Thread):
    """In place of the tests' own server, which cannot stream: the one that runs for users, on a free port."""

    def __init__(self, host: str, *_: Any, port: int = 0, **__: Any) -> None:
        super().__init__(daemon=True)
        self.host, self.port, self.error = host, port, None
        self.connections_override: dict[str, Any] = {}
        self.is_ready = threading.Event()
        config = uvicorn.Config(application, host=host, port=port, log_level="warning", timeout_graceful_shutdown=1)
        self.server = uvicorn.Server(config)
        self.server.install_signal_handlers = lambda: None  # type: ignore[attr-defined]

    def start(self) -> None:
        """Returns once the port is known."""
        super().start()
        while not self.server.started:
            time.sleep(0.01)
        self.port = self.server.servers[0].sockets[0].getsockname()[1]
        self.is_ready.set()

    def run(self) -> None:
        """Until `terminate`."""
        self.server.run()

    def terminate(self) -> None:
        """Ends it, and the streams that hang on it."""
        self.server.should_exit = True
        self.join()


class TogetherTest(BrowserTestCase):
    """The millwright and the lead, at the same step."""

    server_thread_class = StreamingThread
    passed_ms = 0

    def test_a_page_that_is_open_holds_no_connection_to_the_database(self) -> None:
        name, value = session_of("millwright")
        before, streams = self.sessions(), []
        for _ in range(8):
            stream = HTTPConnection("127.0.0.1", self.server_thread.port, timeout=PATIENCE_MS / 1000)
            self.addCleanup(stream.close)
            stream.request("GET", f"/api/jobs/{self.job.pk}/live", headers={"Cookie": f"{name}={value}"})
            answer = stream.getresponse()
            while b"hello" not in answer.readline():
                pass
            streams.append(answer)
        end = time.monotonic() + PATIENCE_MS / 1000
        while self.sessions() > before + 1 and time.monotonic() < end:  # another test's page asks for something meanwhile
            time.sleep(0.1)
        self.assertLessEqual(self.sessions(), before + 1, "one that hears for all of them")

    def sessions(self) -> int:
        """How many there are on this test's database."""
        with connection.cursor() as cursor:
            cursor.execute("SELECT count(*) FROM pg_stat_activity WHERE datname = current_database()")
            return int(cursor.fetchone()[0])

    def is_seen_soon(self, page: Page, words: str) -> bool:
        """Within a second of the page's own time, which is too short for it to ask by itself, however slow this machine."""
        self.passed_ms += (step := 10)
        self.assertLessEqual(self.passed_ms, 1_000, "it was not told")
        page.clock.run_for(step)
        return page.get_by_text(words).count() > 0

    def test_what_one_enters_stands_on_the_others_sheet_and_who_types_is_seen(self) -> None:
        ours, theirs = self.page, self.open_page("lead")
        ours.clock.install()
        self.goto_step("set.gap", ours)
        self.goto_step("set.gap", theirs)
        expect(ours.get_by_text("Ansa Pellwright is at this step too")).to_be_visible()
        for page in (ours, theirs):
            page.get_by_role("button", name="New readings").click()
        self.fill_ring("Gap", dict.fromkeys(RIM, "30.4"), theirs)
        expect(ours.get_by_text("Ansa Pellwright is typing here too: both will stand")).to_be_visible()
        self.fill_ring("Gap", dict.fromkeys(RIM, "30.5"), ours)
        ours.clock.pause_at(ours.evaluate("Date.now() / 1000") + 1)
        theirs.get_by_role("button", name=ENTER).click()
        expect(theirs.get_by_text("mean gap 30.40 mm, spread 0.00 mm").first).to_be_visible()
        until(partial(self.is_seen_soon, ours, "mean gap 30.40 mm, spread 0.00 mm"), theirs)
        ours.clock.resume()
        expect(ours.get_by_label("Gap at 6 o’clock")).to_have_value("30.5")
        ours.get_by_role("button", name=ENTER).click()
        expect(theirs.get_by_text("mean gap 30.50 mm").first).to_be_visible()
        self.goto_step("set.align", theirs)
        expect(ours.get_by_text("here: Ansa Pellwright")).to_be_visible()
        theirs.close()
        expect(ours.get_by_text("here: Ansa Pellwright")).to_be_hidden()
