"""A bracket's sag is kept with the bracket: by whom, when, on its own site only."""

from typing import Any

from django.test import TestCase

from tests.site import Member, build_two_sites

DOOR = "/api/instruments/brackets"


class BracketsTest(TestCase):
    """What is kept and what is refused."""

    @classmethod
    def setUpTestData(cls) -> None:
        build_two_sites()

    def test_measured_again_it_is_replaced_and_says_who_measured_it(self) -> None:
        for who, sag in (("millwright", -0.04), ("lead", -0.05)):
            status, kept = Member(who).ask("PUT", DOOR, {"name": "Long bracket", "sag_mm": sag, "positive": "out"})
            self.assertEqual((status, kept["sag_mm"]), (200, sag))
        _, brackets = Member("apprentice").ask("GET", DOOR)
        self.assertEqual([(b["name"], b["sag_mm"], b["positive"]) for b in brackets], [("Long bracket", -0.05, "out")])
        self.assertEqual(brackets[0]["measured_by"], "Ansa Pellwright")

    def test_an_apprentice_keeps_none_another_site_sees_none_and_a_bracket_hangs_down(self) -> None:
        good: dict[str, Any] = {"name": "Long bracket", "sag_mm": -0.04}
        self.assertEqual(Member("apprentice").ask("PUT", DOOR, good)[0], 403)
        self.assertEqual(Member("lead").ask("PUT", DOOR, good)[0], 200)
        self.assertEqual(Member("stranger").ask("GET", DOOR)[1], [])
        for wrong in ({"sag_mm": 0.04}, {"name": ""}, {"positive": "sideways"}, {"weight": 1}):
            with self.subTest(wrong):
                self.assertEqual(Member("lead").ask("PUT", DOOR, {**good, **wrong})[0], 422)
