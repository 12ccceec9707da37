"""A photograph on a step: chosen, made small on the device, waiting like any entry, beside what it shows."""

import io

from PIL import Image
from playwright.sync_api import FilePayload, Page, expect

from server.jobs.models import Photograph

from .base import BrowserTestCase


def choose(page: Page, name: str, content: bytes) -> None:
    """A file, as a hand chooses one."""
    given: FilePayload = {"name": name, "mimeType": "image/png", "buffer": content}
    page.get_by_label("Choose a photograph").set_input_files(given)


class PhotographTest(BrowserTestCase):
    """On the step where the parts are looked at."""

    def test_one_is_taken_waits_for_the_server_and_stands_in_the_record(self) -> None:
        page = self.page
        self.goto_step("receive.kit")
        page.get_by_role("button", name="Photograph").click()
        slip = page.get_by_role("dialog", name="Photograph")
        expect(slip.get_by_text("match marks, balance marks, what is not in order")).to_be_visible()
        expect(slip.get_by_role("button", name="Enter the photograph")).to_be_disabled()
        choose(page, "notes.txt", b"no picture at all")
        expect(slip.get_by_text("This is no picture that can be read here.")).to_be_visible()
        taken = io.BytesIO()
        Image.new("RGB", (3000, 2000), (182, 106, 43)).save(taken, "PNG")
        choose(page, "hub.png", taken.getvalue())
        expect(slip.get_by_role("img", name="as it will be entered")).to_be_visible()
        slip.get_by_label("It shows").fill("flaw on the driven hub")
        away = lambda route: route.abort()  # noqa: E731
        page.route("**/entries", away)
        slip.get_by_role("button", name="Enter the photograph").click()
        expect(slip).to_be_hidden()
        strip = page.get_by_role("list", name="Photographs")
        expect(strip.get_by_text("not sent yet")).to_be_visible()
        page.reload()
        expect(strip.get_by_text("not sent yet")).to_be_visible()
        page.unroute("**/entries", away)
        expect(strip.get_by_text("Jorun Thornquist")).to_be_visible()
        kept = Image.open(io.BytesIO(Photograph.objects.get().content))
        self.assertEqual(kept.size, (1600, 1067))
        strip.get_by_role("button").click()
        large = page.get_by_role("dialog", name="flaw on the driven hub").get_by_role("img")
        self.assertEqual(large.evaluate("async (img) => { await img.decode(); return img.naturalWidth }"), 1600)
        page.goto(f"{self.live_server_url}/jobs/{self.job.pk}/record")
        expect(page.get_by_text("flaw on the driven hub").first).to_be_visible()
        self.assertEqual(
            page.get_by_alt_text("as it was taken").evaluate("async (i) => { await i.decode(); return i.naturalWidth }"), 1600
        )
