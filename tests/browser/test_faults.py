"""Bad input and faults: nothing typed is ever lost, and what is wrong is said where it was typed."""

from playwright.sync_api import Route, expect

from tests.site import PASSWORD, Member

from .base import ENTER, FACE, RIM, BrowserTestCase, tap


class FaultsTest(BrowserTestCase):
    """Letters, a server that is away, a session that ended, somebody else on the same step."""

    def type_alignment(self) -> None:
        """Both dials, as found."""
        self.goto_step("set.align")
        self.fill_ring("Rim", RIM)
        self.fill_ring("Face", FACE)

    def test_letters_in_a_cell_are_said_there_and_the_others_stay(self) -> None:
        self.type_alignment()
        cell = self.page.get_by_label("Rim at 6 o’clock")
        cell.fill("about 0.6")
        expect(self.page.get_by_text("Enter a number.")).to_be_visible()
        expect(self.page.get_by_role("button", name=ENTER)).to_be_disabled()
        cell.fill("900")
        expect(self.page.get_by_text("This is bigger than what can be here (100 mm). A slip?")).to_be_visible()
        cell.fill("0.60")
        expect(self.verdict()).to_have_text("Misaligned: move the motor.")

    def test_a_reload_in_the_middle_and_another_unit_keep_what_was_typed(self) -> None:
        self.type_alignment()
        self.page.get_by_label("Rim at 3 o’clock").fill("7 thou")
        self.page.reload()
        expect(self.page.get_by_label("Rim at 3 o’clock")).to_have_value("7 thou")
        tap(self.page.get_by_role("radio", name="inch"))
        expect(self.page.get_by_label("Rim at 6 o’clock, in")).to_have_value("0.0236")
        tap(self.page.get_by_role("radio", name="mm"))
        expect(self.page.get_by_label("Rim at 6 o’clock, mm")).to_have_value("0.60")

    def test_a_verdict_that_comes_while_a_finger_is_down_does_not_pull_the_button_away(self) -> None:
        page = self.page
        self.type_alignment()
        page.get_by_label("Rim at 6 o’clock").fill("about 0.6")
        expect(enter := page.get_by_role("button", name=ENTER)).to_be_disabled()
        held: list[Route] = []
        page.route("**/api/benches/**", lambda route: held.append(route))
        with page.expect_request("**/api/benches/**"):
            page.get_by_label("Rim at 6 o’clock").fill("0.62")
        expect(enter).to_be_enabled()
        box = enter.bounding_box()
        assert box
        page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
        page.mouse.down()
        with page.expect_response("**/api/benches/**"):
            held[-1].continue_()
        page.unroute("**/api/benches/**")
        page.wait_for_timeout(500)
        self.assertEqual(enter.bounding_box(), box)
        page.mouse.up()
        expect(page.get_by_role("button", name=ENTER)).to_be_hidden()
        expect(self.verdict()).to_have_text("Misaligned: move the motor.")

    def test_an_entry_that_cannot_be_sent_is_kept_and_sent_once_when_the_server_is_back(self) -> None:
        before = self.job.entries.count()
        self.type_alignment()
        expect(self.verdict()).to_have_text("Misaligned: move the motor.")
        away = lambda route: route.abort()  # noqa: E731
        self.page.route("**/api/jobs/**", away)
        self.page.get_by_role("button", name=ENTER).click()
        expect(self.page.get_by_text("Not sent yet: 1.")).to_be_visible()
        expect(self.page.get_by_label("Rim at 6 o’clock")).to_have_value("0.60")
        self.page.unroute("**/api/jobs/**", away)
        expect(self.page.get_by_text("Not sent yet: 1.")).to_be_hidden()
        self.assertEqual(self.job.entries.count(), before + 1)

    def test_an_entry_the_server_fell_over_is_kept_and_goes_in_once_when_it_is_well(self) -> None:
        before = self.job.entries.count()
        self.type_alignment()
        expect(self.verdict()).to_have_text("Misaligned: move the motor.")
        fell = lambda route: route.fulfill(status=500, body="Server Error")  # noqa: E731
        self.page.route("**/entries", fell)
        self.page.get_by_role("button", name=ENTER).click()
        expect(self.page.get_by_text("Not sent yet: 1.")).to_be_visible()
        self.page.reload()
        expect(self.page.get_by_text("Not sent yet: 1. Kept on this device. The server answered 500.")).to_be_visible()
        self.page.unroute("**/entries", fell)
        expect(self.page.get_by_text("Not sent yet: 1.")).to_be_hidden()
        self.assertEqual(self.job.entries.count(), before + 1)

    def test_what_is_refused_while_nobody_waits_for_it_lies_in_the_tray_until_it_is_discarded(self) -> None:
        page, before = self.page, self.job.entries.count()
        self.type_alignment()
        expect(self.verdict()).to_have_text("Misaligned: move the motor.")
        away = lambda route: route.abort()  # noqa: E731
        page.route("**/entries", away)
        page.get_by_role("button", name=ENTER).click()
        expect(page.get_by_text("Not sent yet: 1.")).to_be_visible()
        reason = {"reason": "no parts until spring"}
        self.assertEqual(Member("lead").ask("POST", f"/api/jobs/{self.job.pk}/cancel", reason)[0], 200)
        page.goto(f"{self.live_server_url}/jobs/{self.job.pk}/steps/safe.papers")
        page.unroute("**/entries", away)
        page.get_by_role("button", name="Not taken: 1").click()
        tray = page.get_by_role("dialog", name="Not taken")
        expect(tray.get_by_text("Reading, Align the motor")).to_be_visible()
        expect(tray.get_by_text("This job was cancelled by Ansa Pellwright: no parts until spring")).to_be_visible()
        page.reload()
        page.get_by_role("button", name="Not taken: 1").click()
        tray.get_by_role("button", name="Enter it again").click()
        expect(tray.get_by_text("This job was cancelled by Ansa Pellwright: no parts until spring")).to_be_visible()
        page.goto(f"{self.live_server_url}/")
        page.get_by_role("button", name="Not taken: 1").click()
        tray.get_by_role("button", name="Discard it").click()
        expect(page.get_by_role("button", name="Not taken")).to_have_count(0)
        self.assertEqual(self.job.entries.count(), before)

    def test_what_is_pressed_twice_while_it_is_under_way_is_entered_once(self) -> None:
        page, before = self.page, self.job.entries.count()
        held: list[Route] = []
        page.route("**/entries", lambda route: held.append(route), times=1)
        self.goto_step("set.align")
        page.get_by_role("button", name="Record the move").click()
        move = page.get_by_role("button", name="Save the move")
        with page.expect_request("**/entries"):
            move.click()
        move.click()
        held[0].continue_()
        expect(move).to_be_hidden()
        self.goto_step("receive.kit")
        tap(page.get_by_role("radio", name="Not OK").first)
        with page.expect_request("**/entries"):
            page.get_by_role("button", name="Save", exact=True).dblclick()
        expect(self.verdict()).to_have_text("Not in order.")
        expect(page.get_by_text("Not sent yet")).to_be_hidden()
        self.assertEqual([e.kind for e in self.job.entries.all()][before:], ["move", "reading"])

    def test_an_answer_that_got_lost_on_the_way_back_does_not_double_the_entry(self) -> None:
        before = self.job.entries.count()
        self.type_alignment()
        expect(self.verdict()).to_have_text("Misaligned: move the motor.")
        lost: list[int] = []

        def lose_the_first_answer(route: Route) -> None:
            if lost:
                route.continue_()
                return
            lost.append(route.fetch().status)
            route.abort()

        self.page.route("**/entries", lose_the_first_answer)
        self.page.get_by_role("button", name=ENTER).click()
        expect(self.page.get_by_text("As it stands")).to_be_visible()
        self.assertEqual((lost, self.job.entries.count()), ([201], before + 1))

    def test_a_session_that_ended_asks_to_sign_in_and_the_values_are_still_there(self) -> None:
        self.type_alignment()
        expect(self.verdict()).to_have_text("Misaligned: move the motor.")
        self.page.context.clear_cookies(name="sessionid")
        self.page.get_by_role("button", name=ENTER).click()
        slip = self.page.get_by_role("dialog", name="Your session has ended")
        slip.get_by_label("Name").fill("millwright")
        slip.get_by_label("Password").fill("not this one")
        slip.get_by_role("button", name="Sign in").click()
        expect(slip.get_by_text("Name or password is wrong.")).to_be_visible()
        slip.get_by_label("Password").fill(PASSWORD)
        before = self.job.entries.count()
        slip.get_by_role("button", name="Sign in").click()
        expect(slip).to_be_hidden()
        expect(self.page.get_by_text("As it stands")).to_be_visible()
        self.assertEqual(self.job.entries.count(), before + 1)

    def test_a_device_nobody_uses_asks_who_is_there_and_comes_back_to_what_was_typed(self) -> None:
        page = self.page
        page.clock.install()
        self.type_alignment()
        expect(self.verdict()).to_have_text("Misaligned: move the motor.")
        page.clock.fast_forward("29:00")
        slip = page.get_by_role("dialog", name="Your session has ended")
        page.get_by_role("heading", name="Align the motor").click()  # somebody is there
        page.clock.fast_forward("29:00")
        expect(slip).to_have_count(0)
        page.clock.fast_forward("02:00")
        expect(slip).to_be_visible()
        self.assertEqual(page.evaluate("fetch('/api/session').then((a) => a.status)"), 401)
        slip.get_by_label("Name").fill("lead")
        slip.get_by_label("Password").fill(PASSWORD)
        slip.get_by_role("button", name="Sign in").click()
        expect(slip).to_be_hidden()
        expect(page.get_by_text("Ansa Pellwright")).to_be_visible()
        expect(page.get_by_label("Rim at 6 o’clock")).to_have_value("0.60")

    def test_what_one_person_left_unsent_never_goes_in_under_anothers_name(self) -> None:
        page, before = self.page, self.job.entries.count()
        self.type_alignment()
        expect(self.verdict()).to_have_text("Misaligned: move the motor.")
        page.context.set_offline(True)
        page.get_by_role("button", name=ENTER).click()
        expect(page.get_by_text("Not sent yet: 1.")).to_be_visible()
        page.context.clear_cookies(name="sessionid")
        page.context.set_offline(False)
        for name in ("lead", "millwright"):
            slip = page.get_by_role("dialog", name="Your session has ended")
            slip.get_by_label("Name").fill(name)
            slip.get_by_label("Password").fill(PASSWORD)
            slip.get_by_role("button", name="Sign in").click()
            expect(slip).to_be_hidden()
            if name == "lead":
                expect(page.get_by_text("It is sent when millwright signs in on this device.")).to_be_visible()
                self.assertEqual(self.job.entries.count(), before)
                page.context.clear_cookies(name="sessionid")
        expect(page.get_by_text("Not sent yet: 1.")).to_be_hidden()
        entry = self.job.entries.last()
        self.assertEqual((self.job.entries.count(), entry.by), (before + 1, "Jorun Thornquist"))

    def test_two_people_on_one_step_see_both_readings(self) -> None:
        lead = self.open_page("lead")
        self.goto_step("set.gap", lead)
        self.goto_step("set.gap")
        for page, gap in ((lead, "30.4"), (self.page, "30.5")):
            self.fill_ring("Gap", dict.fromkeys(RIM, gap), page)
            expect(self.verdict(page)).to_have_text("Within tolerance.")
        lead.get_by_role("button", name=ENTER).click()
        expect(lead.get_by_text("As it stands")).to_be_visible()
        self.page.get_by_role("button", name=ENTER).click()
        expect(lead.get_by_text("Reading 2")).to_be_visible()
        expect(lead.get_by_text("mean gap 30.50 mm").first).to_be_visible()
