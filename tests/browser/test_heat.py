"""A hub that is shrunk on: the countdown on every device, the hub home, checked cold."""

import re

from playwright.sync_api import Page, expect

from tests.site import hours_later, job_of

from .base import BrowserTestCase, tap

RUN = "mount.hot.driven"


class HeatRunTest(BrowserTestCase):
    """Kiln fan A, its first hub on the heater."""

    def setUp(self) -> None:
        super().setUp()
        self.fan = job_of("Kiln fan A")

    def left_s(self, page: Page) -> int:
        """Seconds it may still be carried."""
        text = page.get_by_role("timer", name="Carry").locator("b").inner_text()
        minutes, seconds = text.split(":")
        return int(minutes) * 60 + int(seconds)

    def test_the_countdown_is_the_same_after_a_reload_and_on_a_second_device_with_a_wrong_clock(self) -> None:
        page = self.page
        self.goto_step(RUN, job=self.fan)
        expect(page.get_by_role("status", name="Ready to leave the heater").get_by_text("131 of 190")).to_be_visible()
        page.get_by_role("button", name="Hub out of heater").click()
        expect(page.get_by_role("button", name="Hub on shaft")).to_be_visible()
        page.reload()
        expect(page.get_by_role("timer", name="Carry")).to_be_visible()
        other = self.open_page("lead")
        other.clock.install(time="2031-01-01T00:00:00Z")
        self.goto_step(RUN, other, self.fan)
        expect(other.get_by_role("timer", name="Carry")).to_be_visible()
        other.clock.run_for(300)
        earlier, there, before = self.left_s(page), self.left_s(other), self.left_s(page)
        self.assertTrue(before - 1 <= there <= earlier + 1, (earlier, there, before))  # however long the looking took
        page.get_by_label("Hub, °C").fill("363 F")
        page.get_by_role("button", name="Log temperature").click()
        expect(page.get_by_text("Last read 184 °C")).to_be_visible()
        self.assertEqual(self.fan.entries.last().typed, {"hub_c": "363 F"})
        self.assertLess(self.left_s(page), before - 60)
        self.goto_step("prepare.heat.driven", job=self.fan)
        expect(page.get_by_text("hot hub, left to carry")).to_be_visible()
        page.goto(self.live_server_url)
        expect(page.get_by_text("left to carry it")).to_be_visible()

    def test_home_gripped_and_checked_cold_before_anything_else_is_done_with_it(self) -> None:
        page = self.page
        self.goto_step("mount.cold.driven", job=self.fan)
        expect(page.get_by_text("First: Heat the fan hub and slide it on", exact=True)).to_be_visible()
        self.goto_step(RUN, job=self.fan)
        for name in ("Hub out of heater", "Hub on shaft", "Hub grips"):
            page.get_by_role("button", name=name).click()
        expect(page.get_by_text("Gripped. Hot for about")).to_be_visible()
        expect(page.get_by_label("What was seen")).to_be_visible()  # the server knows of it
        page.get_by_text("stuck short of the mark", exact=True).click()
        page.get_by_role("button", name="Save", exact=True).click()
        expect(page.get_by_text("Stop. Do not hammer and do not press on.")).to_be_visible()
        page.get_by_text("seated at the mark", exact=True).click()
        page.get_by_role("button", name="Save", exact=True).click()
        page.get_by_role("button", name=re.compile("^Next: Check the fan hub cold")).click()
        page.get_by_label("Hub is now at").fill("23")
        page.get_by_label("Stand-out of the shaft end from the hub face").fill("0")
        tap(page.get_by_role("checkbox"))
        page.get_by_role("button", name="Save", exact=True).click()
        expect(self.verdict()).to_have_text("Not in order.")
        expect(page.get_by_text("By the clock it is at about")).to_be_visible()
        with hours_later(3):
            page.get_by_label("Hub is now at").fill("24")
            page.get_by_role("button", name="Save", exact=True).click()
            expect(page.get_by_role("button", name=re.compile("^Next: Torque the set screw, fan hub"))).to_be_visible()

    def test_a_hub_read_over_its_ceiling_is_over_and_on_its_shaft_no_clearance_is_shown(self) -> None:
        page = self.page
        self.goto_step(RUN, job=self.fan)
        page.get_by_label("Hub, °C").fill("420")
        page.get_by_role("button", name="Log temperature").click()
        expect(page.get_by_role("alert").get_by_text("Over: read at 420 °C, ceiling 210 °C.")).to_be_visible()
        page.get_by_role("button", name="Hub out of heater").click()
        carry = page.get_by_role("timer", name="Carry")
        expect(carry.get_by_text("Left to carry it")).to_be_visible()
        expect(carry.get_by_text(re.compile("in still air, if nothing touches it"))).to_be_visible()
        expect(carry.get_by_text("On the shaft it grips in seconds.")).to_be_visible()
        expect(page.get_by_text("clear by")).to_be_visible()
        page.get_by_role("button", name="Hub on shaft").click()
        expect(carry).to_be_hidden()
        expect(page.get_by_role("timer", name="Until it may grip")).to_be_visible()
        expect(page.get_by_text("Stopped short? Do not hammer it.")).to_be_visible()
        expect(page.get_by_text("Last read 420 °C")).to_be_visible()
        expect(page.get_by_text("clear by")).to_be_hidden()
        page.get_by_role("button", name="Hub grips").click()
        expect(page.get_by_role("timer", name="Until it may grip")).to_be_hidden()
        page.get_by_text("seated at the mark", exact=True).click()
        page.get_by_role("button", name="Save", exact=True).click()
        expect(self.verdict()).to_have_text("Not in order.")


class TaperTest(BrowserTestCase):
    """The taper bench on its own."""

    who = "apprentice"

    def test_the_blue_is_marked_by_finger_and_by_keys_and_judged_as_it_is_marked(self) -> None:
        page = self.page
        page.goto(f"{self.live_server_url}/benches/taper")
        for cone in ("shaft", "bore"):
            for size, text in (("large end", "90"), ("small end", "80"), ("over a length of", "120")):
                page.get_by_label(f"{cone}, {size}, mm").fill(text)
        page.get_by_label("Interference required").fill("0.07")
        expect(self.verdict()).to_have_text("Draw up 0.84 from hand tight.")
        page.get_by_role("button", name="Mark the blue").click()
        expect(page.get_by_text("0 % blue", exact=True)).to_be_visible()
        page.get_by_role("button", name="Row 1 from the large end, 12: bare").focus()
        for _ in range(4):
            for _ in range(8):
                page.keyboard.press("1")
                page.keyboard.press("ArrowRight")
            page.keyboard.press("ArrowDown")
        expect(page.get_by_text("100 % blue")).to_be_visible()
        first, last = page.locator("[data-at='0,0']"), page.locator("[data-at='0,3']")
        first.hover()
        page.mouse.down()
        last.hover()
        page.mouse.up()
        expect(page.get_by_role("button", name="Row 1 from the large end, 4:30: part")).to_be_visible()
        page.reload()
        expect(page.get_by_role("button", name="Row 1 from the large end, 4:30: part")).to_be_visible()
