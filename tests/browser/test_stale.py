"""What a later action overtook gives no order and no all-clear any more; what comes later is not live yet."""

from playwright.sync_api import expect

from .base import ENTER, FACE, RIM, BrowserTestCase


class StaleTest(BrowserTestCase):
    """The blower, found over its limit, moved."""

    def move(self) -> None:
        """The suggested move, as it was made."""
        self.page.get_by_role("button", name="Record the move").click()
        self.page.get_by_role("dialog").get_by_role("button", name="Save the move").click()
        expect(self.page.get_by_role("dialog")).to_be_hidden()

    def test_after_a_move_the_verdict_says_so_and_orders_no_shims(self) -> None:
        page, said = self.page, self.page.get_by_label("Verdict")
        self.goto_step("set.align")
        expect(said.get_by_text("Motor drive end: add")).to_be_visible()
        self.move()
        expect(self.verdict()).to_have_text("Read again.")
        expect(said.get_by_text("Since this was read, the machines were moved.")).to_be_visible()
        expect(said.get_by_text("add")).to_have_count(0)
        expect(said.get_by_text("% of")).to_have_count(0)
        self.goto_step("set.gap")
        expect(self.verdict()).to_have_text("Read again.")
        expect(said.get_by_text("inside")).to_have_count(0)
        entered = page.get_by_label("Entered so far").get_by_role("listitem").first
        expect(entered).to_contain_text("Since this was read, the machines were moved")
        struck = "el => getComputedStyle(el.querySelector('b')).textDecorationLine"
        self.assertEqual(entered.evaluate(struck), "line-through")
        page.reload()
        expect(self.verdict()).to_have_text("Read again.")

    def test_what_was_typed_before_a_move_orders_nothing_after_it_and_what_is_typed_after_it_does(self) -> None:
        page, said = self.page, self.page.get_by_label("Verdict")
        self.goto_step("set.align")
        page.get_by_role("button", name="New readings").click()
        self.fill_ring("Rim", RIM)
        self.fill_ring("Face", FACE)
        expect(self.verdict()).to_have_text("Misaligned: move the motor.")
        self.move()
        expect(self.verdict()).to_have_text("Read again.")
        expect(said.get_by_text("Since this was read, the machines were moved.")).to_be_visible()
        expect(page.get_by_role("button", name=ENTER)).to_be_disabled()
        expect(page.get_by_label("Rim at 6 o’clock")).to_have_value("")
        self.fill_ring("Rim", RIM)
        self.fill_ring("Face", FACE)
        expect(self.verdict()).to_have_text("Misaligned: move the motor.")
        expect(page.get_by_role("button", name=ENTER)).to_be_enabled()

    def test_a_step_that_has_to_wait_takes_nothing_by_click_or_by_key(self) -> None:
        before = self.job.entries.count()
        for step, button in (("couple.align", "Save"), ("close.guard", "Save")):
            self.goto_step(step)
            expect(self.page.get_by_text("First: ").first).to_be_visible()
            if step == "couple.align":
                self.fill_ring("Rim", dict.fromkeys(RIM, "0"))
                self.fill_ring("Face", dict.fromkeys(FACE, "0"))
                expect(self.verdict()).to_have_text("Within both limits.")
            expect(self.page.get_by_role("button", name=button)).to_be_disabled()
            self.page.keyboard.press("Enter")
        self.assertEqual(self.job.entries.count(), before)
