"""The kit: counted where it can be, against the card where it says how many, and what a size has none of."""

import unittest

from millwright.plan.families.facts import FamilyFacts
from millwright.plan.families.register import FAMILIES

from .work import Work

KIT = "receive.kit"


class KitTest(unittest.TestCase):
    """Every part of it."""

    def test_a_count_that_is_not_the_cards_is_no_kit(self) -> None:
        work = Work(family="disc, three-part", card={"flange_bolts": 6})
        work.until(KIT)
        whole = work.fill(KIT)
        self.assertEqual((whole["bolts_n"], whole["rings_n"], whole["packs_n"]), (12, 12, 2))
        work.enter(KIT, {**whole, "rings_n": 11})
        self.assertEqual(work.state(KIT), "over")
        work.enter(KIT, whole)
        self.assertEqual(work.state(KIT), "done")

    def test_as_many_segments_go_in_as_came(self) -> None:
        work = Work(family="steel grid")
        work.until(KIT)
        work.enter(KIT, {**work.fill(KIT), "grid_n": 3})
        work.until("couple.grid")
        work.enter("couple.grid", {**work.fill("couple.grid"), "segments": 2})
        self.assertEqual(work.state("couple.grid"), "over")
        work.enter("couple.grid", work.fill("couple.grid"))
        self.assertEqual(work.state("couple.grid"), "done")

    def test_what_a_size_has_none_of_is_said_with_the_reason_and_nothing_else_may_lack(self) -> None:
        work = Work(family="steel grid")
        work.until(KIT)
        whole = work.fill(KIT)
        work.enter(KIT, {**whole, "fittings": "none"})
        self.assertEqual(work.state(KIT), "incomplete")
        work.enter(KIT, {**whole, "fittings": "none", "fittings_why": "filled with a nozzle"})
        self.assertEqual(work.state(KIT), "done")
        with self.assertRaisesRegex(Exception, "ok or not ok"):
            work.enter(KIT, {**whole, "grid": "none"})

    def test_the_bolts_of_every_circle_are_counted_once(self) -> None:
        for name, family in FAMILIES.items():
            facts: FamilyFacts = family.facts
            counted = [key for part in facts.parts if part.key.endswith(("bolts", "screws")) for key in part.screws]
            self.assertEqual(sorted(counted), sorted(circle.key for circle in facts.circles), name)

    def test_as_many_tools_come_back_as_were_laid_out(self) -> None:
        work = Work(family="rigid")
        work.until("receive.tools")
        work.enter("receive.tools", {**work.fill("receive.tools"), "laid_out": 9})
        work.until("close.count")
        work.enter("close.count", {**work.fill("close.count"), "tools": 8})
        self.assertEqual((work.state("close.count"), work.state("close.guard")), ("over", "blocked"))
        work.enter("close.count", work.fill("close.count"))
        self.assertEqual(work.state("close.count"), "done")
