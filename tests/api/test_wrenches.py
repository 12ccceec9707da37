"""Wrenches of the site: kept with range, length and calibration, by whoever may, seen by nobody else."""

from django.test import TestCase

from tests.site import Member, build_two_sites

DOOR = "/api/instruments/wrenches"
W3 = {"name": "Wrench 3", "min_nm": 20.0, "max_nm": 200.0, "length_mm": 420.0, "calibrated_until": "2027-03-31"}


class WrenchTest(TestCase):
    """One row a name, written anew after each calibration."""

    @classmethod
    def setUpTestData(cls) -> None:
        build_two_sites()

    def test_it_is_kept_by_its_name_and_after_a_calibration_stands_anew(self) -> None:
        millwright = Member("millwright")
        self.assertEqual(millwright.ask("PUT", DOOR, W3)[0], 200)
        self.assertEqual(millwright.ask("PUT", DOOR, {**W3, "calibrated_until": "2028-03-31"})[0], 200)
        _, wrenches = Member("apprentice").ask("GET", DOOR)
        found = [(w["name"], w["calibrated_until"], w["kept_by"]) for w in wrenches if w["name"] == "Wrench 3"]
        self.assertEqual(found, [("Wrench 3", "2028-03-31", "Jorun Thornquist")])

    def test_a_range_the_wrong_way_round_and_an_apprentice_are_refused_and_other_sites_see_nothing(self) -> None:
        status, said = Member("millwright").ask("PUT", DOOR, {**W3, "max_nm": 10.0})
        self.assertEqual((status, said["errors"][0]["path"]), (422, "max_nm"))
        self.assertEqual(Member("apprentice").ask("PUT", DOOR, W3)[0], 403)
        Member("millwright").ask("PUT", DOOR, W3)
        self.assertEqual(Member("stranger").ask("GET", DOOR)[1], [])

    def test_no_calibration_holds_for_ever(self) -> None:
        for until in ("9999-12-31", "2036-01-01"):
            status, said = Member("millwright").ask("PUT", DOOR, {**W3, "calibrated_until": until})
            self.assertEqual((status, said["errors"][0]["path"]), (422, "calibrated_until"))
