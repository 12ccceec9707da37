"""Signing in by name and password, as everybody begins."""

from playwright.sync_api import expect

from tests.site import PASSWORD

from .base import BrowserTestCase


class SignInTest(BrowserTestCase):
    """The first page, in the hands of somebody with gloves."""

    def test_after_an_empty_and_a_wrong_attempt_the_right_one_goes_in_without_a_reload(self) -> None:
        page = self.open_page()
        page.goto(self.live_server_url)
        press = page.get_by_role("button", name="Sign in")
        press.click()
        expect(page.get_by_text("Enter your name.")).to_be_visible()
        expect(page.get_by_text("Enter your password.")).to_be_visible()
        page.get_by_label("Name").fill("millwright")
        page.get_by_label("Password").fill("guessed")
        press.click()
        expect(page.get_by_text("Name or password is wrong.")).to_be_visible()
        expect(page.get_by_text("Enter your name.")).to_be_hidden()
        page.get_by_label("Password").fill(PASSWORD)
        page.keyboard.press("Enter")
        expect(page.get_by_role("heading", name="Open jobs")).to_be_visible()
