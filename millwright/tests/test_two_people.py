"""A backstop: said by two people, in while the sealant is open, proved by hand and by the bare motor."""

import unittest
from datetime import timedelta
from typing import Any

from millwright.errors import UnusableInput
from millwright.job.new_entry import OutOfTurn
from millwright.plan.steps import STAYS_IN, SheetForm
from millwright.scope import Scope

from .readings import SAID, SAID_ACROSS
from .work import START, Work

WAY, AGAIN = "backstop.way", "backstop.way_again"
WRONG: dict[str, Any] = {**SAID, "meshes": 3}


def backstop(until: str | None = WAY) -> Work:
    """A job that fits one, up to there."""
    work = Work(family="shaft-mounted reducer", scope=Scope.BACKSTOP)
    work.until(until)
    return work


class TwoPeopleTest(unittest.TestCase):
    """Which way the output turns."""

    def test_one_person_cannot_say_it_twice(self) -> None:
        work = backstop()
        work.enter(WAY, SAID, by="Jorun")
        with self.assertRaisesRegex(OutOfTurn, "Another person"):
            work.enter(AGAIN, SAID_ACROSS, by="Jorun")
        work.enter(AGAIN, SAID_ACROSS, by="Ansa")
        self.assertEqual((work.state(WAY), work.state(AGAIN)), ("done", "done"))

    def test_the_first_answer_is_covered_until_the_second_is_in(self) -> None:
        work = backstop()
        self.assertEqual(work.route().covered, {})
        work.enter(WAY, SAID, by="Jorun")
        self.assertEqual(work.route().covered, {WAY: "Jorun"})
        work.enter(AGAIN, SAID_ACROSS, by="Ansa")
        self.assertEqual(work.route().covered, {})

    def test_where_they_disagree_both_say_it_anew_and_nothing_goes_in(self) -> None:
        work = backstop()
        work.enter(WAY, SAID, by="Jorun")
        work.enter(AGAIN, WRONG, by="Ansa")
        self.assertEqual((work.state(WAY), work.state(AGAIN)), ("stale", "over"))
        with self.assertRaises(OutOfTurn):
            work.enter("backstop.arrow", work.fill("backstop.arrow"))
        work.enter(WAY, SAID, by="Ansa")
        self.assertEqual((work.state(WAY), work.state(AGAIN)), ("done", "stale"))
        self.assertEqual(work.route().covered, {WAY: "Ansa"})
        with self.assertRaises(OutOfTurn):
            work.enter(AGAIN, SAID, by="Ansa")
        work.enter(AGAIN, SAID_ACROSS, by="Jorun")
        self.assertEqual((work.state(AGAIN), work.next()), ("done", "backstop.arrow"))

    def test_said_anew_afterwards_the_arrow_is_looked_at_again(self) -> None:
        work = backstop("backstop.sealant")
        work.enter(WAY, {**SAID, "output_rotation": "ccw"}, by="Jorun")
        work.enter(AGAIN, {**SAID, "output_rotation": "ccw"}, by="Ansa")
        self.assertEqual((work.state("backstop.arrow"), work.next()), ("stale", "backstop.arrow"))
        work.enter("backstop.arrow", work.fill("backstop.arrow"))
        self.assertEqual(work.state("backstop.arrow"), "over")

    def test_an_arrow_that_points_the_other_way_stops_it(self) -> None:
        work = backstop("backstop.arrow")
        for race, housing in (("counter-clockwise", "clockwise"), ("clockwise", "counter-clockwise")):
            work.enter("backstop.arrow", {"race": race, "housing": housing})
            self.assertEqual((work.state("backstop.arrow"), work.state("backstop.sealant")), ("over", "blocked"))

    def test_a_cover_on_the_side_nobody_named_stops_it(self) -> None:
        work = backstop("backstop.cover")
        work.enter("backstop.cover", {**work.fill("backstop.cover"), "side": "output side"})
        work.until("backstop.arrow")
        made = work.enter("backstop.arrow", work.fill("backstop.arrow"))
        self.assertIn("another_side", [said["code"] for said in work.judged(made)["says"]])


class IntoTheUnitTest(unittest.TestCase):
    """What is held, laid, counted and proved."""

    def test_load_and_unit_are_held_from_the_first_step_until_they_hold_themselves(self) -> None:
        work = backstop("backstop.hold")
        self.assertEqual(work.route().held, ())
        work.step_on()
        for last in ("backstop.home", "backstop.closed"):
            work.until(last)
            held = {one.what: (one.by, one.until) for one in work.route().held}
            self.assertEqual(set(held), {"load", "gear unit"}, last)
            self.assertEqual(held["load"], ("blocks", "Take the props out, slowly, and close the unit"))
        work.step_on()
        self.assertEqual(work.route().held, ())

    def test_sealant_that_skinned_over_is_laid_anew_before_a_bolt_is_pulled(self) -> None:
        work = backstop("backstop.sealant")
        laid = work.enter("backstop.sealant", {**work.fill("backstop.sealant"), "open_min": 30})
        [skins] = work.route().skins
        self.assertEqual(skins.until, laid.at + timedelta(minutes=30))
        work.until("backstop.outer_race")
        work.now = laid.at + timedelta(minutes=31)
        self.assertEqual((work.state("backstop.sealant"), work.state("backstop.outer_race")), ("stale", "blocked"))
        work.enter("backstop.sealant", work.fill("backstop.sealant"))
        self.assertEqual(work.state("backstop.home"), "stale")  # it came off for that
        work.until("backstop.free")
        self.assertEqual(work.route().skins, ())
        work.now = START + timedelta(days=2)
        self.assertEqual(work.state("backstop.sealant"), "done")

    def test_the_strap_comes_off_and_is_counted_and_the_spacer_ring_is_a_step_only_where_there_is_one(self) -> None:
        work = backstop("backstop.strap")
        self.assertIsNotNone(work.route().find("backstop.spacer"))
        work.enter("backstop.strap", {**work.fill("backstop.strap"), "strap": 0})
        self.assertEqual(work.state("backstop.home"), "blocked")
        without = backstop("receive.backstop_kit")
        without.enter("receive.backstop_kit", {**without.fill("receive.backstop_kit"), "spacer": "none in this kit"})
        self.assertIsNone(without.route().find("backstop.spacer"))

    def test_what_runs_the_wrong_way_or_does_not_hold_is_never_started(self) -> None:
        work = backstop("backstop.free")
        for free, other in (("counter-clockwise", "locks at once"), ("clockwise", "turns as well")):
            work.enter("backstop.free", {"free": free, "other": other})
            self.assertEqual((work.state("backstop.free"), work.state("backstop.turns")), ("over", "blocked"))

    def test_the_motor_is_proved_bare_and_the_lead_signs_before_it_is_closed(self) -> None:
        work = backstop("backstop.turns")
        wrong = {**work.fill("backstop.turns"), "seen_from": "fan end", "turned": "clockwise"}
        work.enter("backstop.turns", wrong)
        self.assertEqual(work.state("backstop.turns"), "over")
        work.enter("backstop.turns", {**wrong, "turned": "counter-clockwise"})
        self.assertEqual((work.state("backstop.turns"), work.state("backstop.closed")), ("to sign", "blocked"))
        work.sign("backstop.turns")
        work.until(None)
        self.assertEqual(work.route().why_not_signed_off(), [])
        keys = [now.step.key for now in work.route().steps]
        self.assertNotIn("couple.feet", keys)
        self.assertNotIn("close.look", keys)

    def test_a_motor_that_is_built_on_is_proved_before_a_race_is_in_that_it_could_drive_against(self) -> None:
        work = backstop("backstop.cover")
        work.enter("backstop.cover", {**work.fill("backstop.cover"), "build": "a motor built on"})
        work.until("backstop.turns")
        done = {now.step.key for now in work.route().steps if now.current is not None}
        self.assertFalse(done & {"backstop.sealant", "backstop.inner", "backstop.outer", "backstop.free"})
        now = work.route().find("backstop.turns")
        assert now is not None and isinstance(now.step.form, SheetForm)
        self.assertFalse(any(field.none_of for field in now.step.form.fields))  # nobody can say it is coupled to nothing
        for later in ("backstop.sealant", "backstop.inner"):
            with self.assertRaises(OutOfTurn):
                work.enter(later, work.fill(later))
        work.enter("backstop.turns", {**work.fill("backstop.turns"), "turned": "counter-clockwise"})
        self.assertEqual((work.state("backstop.turns"), work.state("backstop.inner")), ("over", "blocked"))
        work.until(None)
        self.assertTrue(work.route().closed)

    def test_one_that_stays_in_is_said_and_proved_and_nothing_is_opened(self) -> None:
        work = Work(family="shaft-mounted reducer")
        work.until("receive.backstop")
        work.enter("receive.backstop", {"has": STAYS_IN})
        keys = [now.step.key for now in work.route().steps if now.step.key.startswith("backstop.")]
        self.assertEqual(keys, [WAY, AGAIN, "backstop.free", "backstop.turns"])
        work.until(None)
        self.assertEqual(work.route().why_not_signed_off(), [])

    def test_a_coupled_line_with_a_geared_motor_has_the_job_only_where_it_is_registered(self) -> None:
        work = Work(family="gear", backstop=True)
        work.until("receive.backstop")
        work.enter("receive.backstop", {"has": "yes, it is fitted now"})
        self.assertIsNotNone(work.route().find("receive.backstop_kit"))
        self.assertIsNone(Work(family="gear").route().find("receive.backstop"))
        with self.assertRaises(UnusableInput):
            work.enter("receive.backstop", {"has": "perhaps"})
