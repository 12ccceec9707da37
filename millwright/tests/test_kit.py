"""The kit: counted where it can be, against the card where it says how many, and what a size has none of."""

import re
import unittest
from typing import Any

from millwright.plan.families.facts import FamilyFacts
from millwright.plan.families.register import FAMILIES
from millwright.plan.fields import Field
from millwright.plan.steps import SheetForm
from millwright.plan.tools import TOOLS

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


class ToolsTest(unittest.TestCase):
    """What is laid out is what the steps of the job name, and nothing else."""

    def laid(self, **work: Any) -> dict[str, Field]:
        now = Work(**work).route().find("receive.tools")
        assert now is not None and isinstance(now.step.form, SheetForm)
        return {field.key: field for field in now.step.form.fields if field.kind == "tick"}

    def test_each_kind_of_work_lays_out_its_own(self) -> None:
        slip, taper = ("keyed, slip fit",) * 2, ("tapered bore",) * 2
        for family, held, there, not_there in (
            ("magnetic drive", slip, {"brass_feelers", "non_magnetic", "adhesive"}, {"grease_gun", "heater", "blue"}),
            ("shaft-mounted reducer", slip, {"angle", "sling"}, {"shims", "feelers", "grease_gun"}),
            ("gear", slip, {"grease_gun", "grease", "sealant"}, {"heater", "blue", "brass_feelers"}),
            ("jaw, curved", taper, {"heater", "gloves", "blue"}, {"grease_gun", "paste"}),
            ("disc, three-part", slip, {"sling", "hammer"}, {"grease_gun", "heater"}),
        ):
            with self.subTest(family):
                laid = set(self.laid(family=family, held=held))
                self.assertLessEqual(there, laid)
                self.assertFalse(not_there & laid)

    def test_every_step_that_names_a_tool_finds_it_laid_out_and_each_says_what_it_is_for(self) -> None:
        for family in FAMILIES:
            route = Work(family=family, held=("keyed, interference", "tapered bore")).route()
            laid = self.laid(family=family, held=("keyed, interference", "tapered bore"))
            for now in route.steps:
                named = [tool.key for tool in TOOLS if tool.named and re.search(tool.named, now.step.tool, re.IGNORECASE)]
                self.assertTrue(named or not now.step.tool, (now.step.key, now.step.tool))
                self.assertLessEqual(set(named), set(laid), now.step.key)
            titles = {now.step.title for now in route.steps}
            for field in laid.values():
                self.assertIn(field.detail.removeprefix("for: ").split("; ")[0], titles)
