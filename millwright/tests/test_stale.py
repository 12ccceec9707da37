"""What a reading stands for after something else happened, or where it leaves its limit open."""

import unittest
from typing import Any, ClassVar

from millwright.errors import UnusableInput
from millwright.job import new_entry as entry
from millwright.job.entry import EntryKind
from millwright.job.now import StepState
from millwright.plan.steps import BenchForm
from millwright.roles import Role
from millwright.scope import Scope

from .readings import CLOCKS, dials
from .work import Work


class StaleTest(unittest.TestCase):
    """What a move spoils, and what it does not."""

    def test_a_move_makes_gap_and_alignment_stale_and_keeps_as_found(self) -> None:
        work = Work()
        work.until("set.align")
        found = work.enter("set.align", dials(0.3))
        self.assertEqual(work.state("set.align"), "over")
        work.enter("set.align", {"feet": [{"name": "motor front", "shim_mm": 0.3}]}, EntryKind.MOVE)
        self.assertEqual([work.state(f"set.{key}") for key in ("gap", "align")], ["stale"] * 2)
        self.assertEqual(work.state("prepare.fit.driver"), "done")
        work.enter("set.align", dials(0.0))
        self.assertEqual(work.state("set.align"), "done")
        self.assertEqual(work.state("couple.feet"), "blocked")
        self.assertIn(found, work.entries)

    def test_torqued_feet_ask_for_the_reading_after_and_a_later_move_for_both(self) -> None:
        work = Work()
        work.until("close.torque")
        work.enter("set.align", {"axial_mm": 0.2}, EntryKind.MOVE)
        stale = {n.step.key for n in work.route().steps if n.state is StepState.STALE}
        self.assertEqual(stale, {"set.gap", "set.align", "couple.feet", "couple.align", "couple.gap"})

    def test_a_hub_that_slides_makes_its_gap_and_set_screw_stale(self) -> None:
        work = Work()
        work.until("close.torque")
        work.enter("couple.element", work.fill("couple.element"))
        stale = {n.step.key for n in work.route().steps if n.state is StepState.STALE}
        self.assertEqual(stale, {"couple.gap", "couple.screw", "couple.gap_again"})

    def test_a_signature_covers_its_reading_only(self) -> None:
        work = Work()
        work.until("couple.element")
        self.assertEqual(work.state("couple.align"), "done")
        work.enter("couple.align", dials(0.001))
        self.assertEqual(work.state("couple.align"), "to sign")

    def test_the_record_stays_open_and_names_what_is_stale(self) -> None:
        work = Work()
        work.until("close.locks")
        work.enter("set.gap", {"axial_mm": 0.1}, EntryKind.MOVE)
        self.assertIn(
            "Align the motor: Since this was read, the machines were moved", list(map(str, work.route().why_not_signed_off()))
        )

    def test_a_light_set_screw_is_provisional_until_it_is_torqued(self) -> None:
        work = Work()
        work.until("set.rough")
        light = "motor: hub held by a light set screw only"
        self.assertIn(light, work.route().provisional)
        self.assertIn(f"Not final yet: {light}", list(map(str, work.route().why_not_signed_off())))
        work.until("close.torque")
        self.assertEqual(work.route().provisional, ())

    def test_feet_are_provisional_from_the_first_reading_until_they_are_torqued(self) -> None:
        work = Work()
        work.until("set.align")
        self.assertNotIn("Feet not torqued yet", work.route().provisional)
        work.enter("set.align", work.fill("set.align"))
        self.assertIn("Feet not torqued yet", work.route().provisional)
        work.until("couple.feet")
        self.assertIn("Not final yet: Feet not torqued yet", list(map(str, work.route().why_not_signed_off())))
        work.enter("couple.feet", work.fill("couple.feet"))
        self.assertNotIn("Feet not torqued yet", work.route().provisional)

    def test_a_move_that_moved_nothing_is_none(self) -> None:
        work = Work()
        work.until("set.align")
        empty: dict[str, Any] = {"feet": []}
        for nothing in (empty, {"feet": [{"name": "motor front"}], "axial_mm": 0.0, "note": "tightened"}):
            with self.subTest(nothing), self.assertRaises(UnusableInput) as caught:
                entry.check(work.route(), "set.align", EntryKind.MOVE, nothing, Role.MILLWRIGHT)
            self.assertEqual([p.path for p in caught.exception.problems], ["feet"])


class CannotTellTest(unittest.TestCase):
    """Inside on paper is not enough where the readings leave it open."""

    def test_what_cannot_be_told_holds_up_what_comes_after_until_it_is_read_again_or_taken_as_it_is(self) -> None:
        work = Work()
        work.until("set.align")
        sure = dials(0.0)
        shaken = [{**dial, "readings": [dict(r) for r in dial["readings"]]} for dial in sure["dials"]]
        for dial in shaken:  # one reading of each off by a hundredth or two: four places, one to spare
            dial["readings"][1]["value_mm"] += 0.02
        work.enter("set.align", {"dials": shaken}, as_it_is=False)
        self.assertEqual(work.state("set.align"), "cannot tell yet")
        self.assertEqual(work.next(), "set.align")
        self.assertIn("Align the motor: cannot tell yet", list(map(str, work.route().why_not_signed_off())))
        work.enter("set.align", {"dials": shaken})
        self.assertEqual(work.state("set.align"), "done")
        work.enter("set.align", sure, as_it_is=False)
        self.assertEqual(work.state("set.align"), "done")

    def test_as_found_it_holds_up_nothing(self) -> None:
        work = Work(scope=Scope.ALIGN)
        work.until("found.align")
        read = work.fill("found.align")
        uneven = [{**dial, "readings": [dict(r) for r in dial["readings"]]} for dial in read["dials"]]
        for dial in uneven:
            dial["readings"][1]["value_mm"] += 0.02
        work.enter("found.align", {**read, "dials": uneven}, as_it_is=False)
        self.assertNotEqual(work.state("found.align"), "cannot tell yet")


class StraightedgeTest(unittest.TestCase):
    """A first figure before the dials; or all there is, where the site says so."""

    EDGE: ClassVar = {
        "readings": [{"clock": c, "feeler_mm": 0.0, "on": "movable"} for c in CLOCKS],
        "stationary_hub_mm": 105,
        "movable_hub_mm": 105,
    }

    def test_once_dials_were_read_it_is_not_asked_again_after_a_move(self) -> None:
        work = Work()
        work.until("set.align")
        move = {"feet": [{"name": "motor drive end", "shim_mm": 0.1, "slide_mm": 0.0}]}
        work.enter("set.gap", move, EntryKind.MOVE)
        self.assertEqual(work.state("set.straightedge"), "stale")  # no dial has been read yet
        work.until("set.align")
        work.enter("set.align", work.fill("set.align"))
        work.enter("set.align", move, EntryKind.MOVE)
        self.assertEqual((work.state("set.align"), work.state("set.straightedge")), ("stale", "done"))

    def test_a_line_may_be_aligned_by_straightedge_alone_to_the_signed_record(self) -> None:
        work = Work()
        alone = {"value": 0.0, "means": "straightedge alone", "source": {"kind": "site rule", "document": "R-4"}}
        work.enter("safe.papers", {"key": "aligned_by", "value": alone}, EntryKind.VALUE)
        steps = {now.step.key: now.step for now in work.route().steps}
        self.assertNotIn("set.straightedge", steps)
        for key in ("set.align", "couple.align"):
            form = steps[key].form
            self.assertEqual(form.bench if isinstance(form, BenchForm) else "", "straightedge")
        work.until("set.align")
        work.enter("set.align", self.EDGE)
        self.assertEqual(work.state("set.align"), "done")
        work.enter("set.align", {"feet": [{"name": "motor tail", "shim_mm": 0.1, "slide_mm": 0.0}]}, EntryKind.MOVE)
        self.assertEqual(work.state("set.align"), "stale")
        while (now := work.route().next()) is not None:
            if now.state is not StepState.TO_SIGN and now.step.key in ("set.align", "couple.align"):
                work.enter(now.step.key, self.EDGE)
            else:
                work.step_on()
        self.assertEqual(work.route().why_not_signed_off(), [])
