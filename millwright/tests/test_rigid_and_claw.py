"""Couplings that are closed by feel: rigid faces that must touch, and blocks that must fill every pocket."""

import unittest

from millwright.plan.steps import BenchForm
from millwright.tests.readings import ring
from millwright.tests.work import Work


class RigidTest(unittest.TestCase):
    """Nothing gives way in it: the faces touch before a bolt is pulled, and the shafts run as true as before."""

    def test_a_feeler_that_enters_holds_the_bolts_up_and_says_where_it_is_open_most(self) -> None:
        work = Work(family="rigid")
        work.until("couple.touch")
        opened = {**work.fill("couple.touch"), "at_6_mm": 0.05, "at_9_mm": 0.03}
        made = work.enter("couple.touch", opened)
        self.assertEqual((made.verdict, work.state("couple.bolts")), ("over", "blocked"))
        self.assertIn("Open by 0.05 mm at 6 o'clock.", " ".join(work.judged(made)["advice"]))
        work.enter("couple.touch", work.fill("couple.touch"))
        self.assertEqual((work.state("couple.touch"), work.state("couple.bolts")), ("done", "open"))

    def test_both_shafts_are_dialled_once_the_bolts_are_pulled_and_held_against_the_bare_shaft(self) -> None:
        work = Work(family="rigid", card={"shaft_runout_mm": 0.05})
        work.until("prepare.shaft.driver")
        work.enter("prepare.shaft.driver", {"kind": "rim", "readings": ring(0.0, 0.01, 0.02, 0.01)})
        work.until("couple.true.driver")
        self.assertEqual(work.state("couple.flange"), "done")
        now = work.route().find("couple.true.driver")
        assert now is not None and isinstance(now.step.form, BenchForm)
        bare = next(made for made in work.entries if made.step == "prepare.shaft.driver")
        self.assertEqual(now.step.form.compare["before"], bare.inputs["readings"])
        drawn = work.enter("couple.true.driver", {"kind": "rim", "readings": ring(0.0, 0.05, 0.10, 0.05)})
        self.assertEqual((drawn.verdict, work.state("close.torque")), ("over", "blocked"))
        self.assertIn("Tightening shifted it by 0.040 mm", " ".join(work.judged(drawn)["advice"]))

    def test_match_marks_that_differ_are_over(self) -> None:
        work = Work(family="rigid")
        work.until("couple.bolts")
        self.assertEqual(work.enter("couple.bolts", {**work.fill("couple.bolts"), "match": ["7", "1"]}).verdict, "over")


class ClawTest(unittest.TestCase):
    """A complete set of blocks."""

    def test_an_empty_pocket_is_over(self) -> None:
        work = Work(family="claw with elastomer blocks")
        work.until("couple.blocks")
        made = work.enter("couple.blocks", {**work.fill("couple.blocks"), "pockets": 12, "blocks": 11})
        self.assertEqual((made.verdict, work.state("couple.ring")), ("over", "blocked"))
        self.assertIn("11 blocks in 12 pockets.", work.judged(made)["advice"])
        work.enter("couple.blocks", {**work.fill("couple.blocks"), "pockets": 12, "blocks": 12})
        self.assertEqual(work.state("couple.blocks"), "done")
