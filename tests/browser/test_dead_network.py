"""The server is stopped in the middle of a job: the work goes on, is kept through a reload, and goes in once it is back."""

import re
from contextlib import suppress
from functools import partial
from socket import SHUT_RDWR, socket
from typing import Any

from django.core.servers.basehttp import ThreadedWSGIServer
from django.test.testcases import LiveServerThread
from playwright.sync_api import expect

from .base import ENTER, IN_LINE, RIM, BrowserTestCase, until

WAITED = [("set.gap", "reading"), ("set.align", "move"), ("set.align", "reading")]
IS_KEPT = "(path) => caches.match(path).then(Boolean)"


class CutsOff(ThreadedWSGIServer):
    """Cuts what it was serving when it stops; else a browser goes on talking to a server that listens no more."""

    def __init__(self, *args: Any, **more: Any) -> None:
        super().__init__(*args, **{**more, "allow_reuse_address": True})
        self.talking: list[socket] = []

    def process_request(self, request: Any, client_address: Any) -> None:
        """Kept, to be cut."""
        self.talking.append(request)
        super().process_request(request, client_address)

    def server_close(self) -> None:
        """With everything that hangs on it."""
        super().server_close()
        for connection in self.talking:
            with suppress(OSError):
                connection.shutdown(SHUT_RDWR)


class StoppableThread(LiveServerThread):
    """Serves with `CutsOff`."""

    server_class = CutsOff


class StoppableCase(BrowserTestCase):
    """A server that can be switched off, and a device that opens without it."""

    opens_without_server = True
    server_thread_class = StoppableThread

    def stop_server(self, *paths: str) -> None:
        """As a server that is switched off, once this device has what it needs to open without it."""
        for path in ("/", "/api/session", "/api/jobs", *paths):
            until(partial(self.page.evaluate, IS_KEPT, path), self.page)
        self.server_thread.terminate()
        self.addCleanup(self.start_server)

    def start_server(self) -> None:
        """Again, at the same address."""
        if self.server_thread.is_alive():
            return
        thread: Any = self._create_server_thread({})  # type: ignore[attr-defined]
        thread.port = self.server_thread.port
        thread.daemon = True
        thread.start()
        thread.is_ready.wait()
        self.assertIsNone(thread.error)
        type(self).server_thread = thread


class DeadNetworkTest(StoppableCase):
    """The application opens, figures are entered and wait, and nobody is told a verdict that nobody gave."""

    def test_the_work_goes_on_and_is_sent_in_order_when_the_server_is_back(self) -> None:
        page, before = self.page, self.job.entries.count()
        self.goto_step("set.gap")
        expect(page.get_by_role("heading", name="Set the gap")).to_be_visible()
        self.stop_server(f"/api/jobs/{self.job.pk}")
        page.get_by_role("button", name="New readings").click()
        self.fill_ring("Gap", dict.fromkeys(RIM, "30.5"))
        page.get_by_role("button", name=ENTER).click()
        expect(self.verdict()).to_have_text("Entered, not sent yet.")
        page.reload()
        expect(self.verdict()).to_have_text("Entered, not sent yet.")
        expect(page.get_by_text("No server since")).to_be_visible()
        expect(page.get_by_label("Gap at 6 o’clock")).to_have_value("30.5")
        page.get_by_role("button", name="Next: Align the motor").click()
        expect(page.get_by_role("heading", name="Align the motor")).to_be_visible()
        page.get_by_role("button", name="Record the move").click()
        page.get_by_role("button", name="Save the move").click()
        expect(self.verdict()).to_have_text("Read again.")
        self.fill_ring("Rim", IN_LINE)
        self.fill_ring("Face", IN_LINE)
        page.get_by_role("button", name=ENTER).click()
        expect(self.verdict()).to_have_text("Entered, not sent yet.")
        self.assertEqual(self.job.entries.count(), before)
        page.get_by_role("link", name="To the floor", exact=True).click()
        page.reload()
        expect(page.get_by_role("heading", name="Open jobs")).to_be_visible()
        self.goto_step("set.soft")
        expect(page.get_by_text("Not sent yet: 3. Kept on this device.")).to_be_visible()
        self.start_server()
        expect(page.get_by_text("No server since")).to_be_hidden()
        expect(page.get_by_text(re.compile("^Not sent yet:"))).to_be_hidden()
        entered = list(self.job.entries.all())[before:]
        self.assertEqual([(e.step, e.kind) for e in entered], WAITED)
        self.goto_step("set.align")
        expect(self.verdict()).to_have_text("Within both limits.")
        expect(page.get_by_role("button", name=ENTER)).to_be_hidden()
