"""Counts what a hand does in a whole job and for a new line: clicks, and fields typed; run by ./anvil measure --hands."""

from playwright.sync_api import Page, expect

from tests.browser.test_views import ViewsTest
from tests.browser.test_whole_job import WholeJobTest

COUNTING = """
  const count = what => sessionStorage.setItem(what, 1 + Number(sessionStorage.getItem(what) || 0))
  addEventListener('click', event => { if (event.isTrusted && event.detail > 0) count('clicks') }, true)
  const typed = event => !['checkbox', 'radio', 'file'].includes(event.target.type)
  addEventListener('change', event => { if (typed(event)) count('fields') }, true)
"""


def say(what: str, page: Page) -> None:
    """What was counted so far in this window."""
    clicks, fields = (page.evaluate(f"Number(sessionStorage.getItem('{one}'))") for one in ("clicks", "fields"))
    print(f"  {what}: {clicks} clicks, {fields} fields typed")


class WholeJobHands(WholeJobTest):
    """The blower job."""

    def setUp(self) -> None:
        super().setUp()
        self.page.add_init_script(COUNTING)
        self.page.reload()
        expect(self.page.get_by_role("heading", name="Open jobs")).to_be_visible()

    def tearDown(self) -> None:
        say("blower job, lock-out to record", self.page)
        super().tearDown()


class NewLineHands(ViewsTest):
    """A line of one's own."""

    def setUp(self) -> None:
        super().setUp()
        self.page.add_init_script(COUNTING)
        self.page.reload()
        expect(self.page.get_by_role("heading", name="Open jobs")).to_be_visible()

    def tearDown(self) -> None:
        say("a new line", self.page)
        super().tearDown()
