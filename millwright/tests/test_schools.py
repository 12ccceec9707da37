"""Where the trade has two schools the card says which: set screws, seals; and what a changed screw or material means."""

import unittest
from typing import Any

from millwright.card.meanings import BOTH_AT_ONCE, SEALS_FIRST
from millwright.card.values import Source, Value

from .test_look import answers
from .work import SLIP, Work


def by_the_card(work: Work, **lines: str) -> Work:
    """The work, with these words on its card."""
    source = Source(kind="maker's manual", document="Paper 7")
    work.card |= {key: Value(value=0, means=means, source=source) for key, means in lines.items()}
    return work


class SetScrewTest(unittest.TestCase):
    """When the set screws of hubs that slide are pulled."""

    def test_the_light_one_once_the_gap_is_right_and_the_gap_is_read_once_more(self) -> None:
        for family, at in (("jaw, straight", "gap"), ("steel grid", "gap"), ("composite tube", "driver")):
            with self.subTest(family=family):
                work = Work(family=family, held=(SLIP, SLIP))
                work.until("couple.gap_again")
                self.assertEqual(work.state("couple.screw"), "done")
                wandered: dict[str, Any] = {f"{at}_mm": 33.0}
                answers(work, "couple.gap_again", **wandered)
                self.assertEqual(work.state("couple.gap_again"), "over")
                answers(work, "couple.gap_again")
                self.assertEqual(work.state("couple.gap_again"), "done")
                work.enter("couple.screw", work.fill("couple.screw"))
                self.assertEqual(work.state("couple.gap_again"), "stale")
                work.until(None)
                self.assertTrue(work.route().closed)

    def test_both_at_once_where_the_card_has_it_so(self) -> None:
        work = by_the_card(Work(family="steel grid", held=(SLIP, SLIP)), set_screws_by=BOTH_AT_ONCE)
        work.until(None)
        self.assertTrue(work.route().closed)
        done = {now.step.key for now in work.route().steps if now.current is not None}
        self.assertIn("mount.screw.second", done)
        self.assertFalse({"couple.screw", "couple.gap_again"} & done)


class SealTest(unittest.TestCase):
    """Whether a seal may wait."""

    def test_a_soft_gate_by_default_a_hard_one_where_the_card_has_it_so(self) -> None:
        for work, taken in (
            (Work(family="steel grid"), True),
            (by_the_card(Work(family="steel grid"), seals_by=SEALS_FIRST), False),
        ):
            work.until("mount.loose.driven")
            later = {**work.fill("mount.loose.driven"), "seal_on": "none", "seal_on_why": "stretched over later"}
            if taken:
                work.enter("mount.loose.driven", later)
                self.assertEqual(work.state("mount.loose.driven"), "done")
            else:
                with self.assertRaisesRegex(Exception, "ticked or not"):
                    work.enter("mount.loose.driven", later)


class MaterialTest(unittest.TestCase):
    """The limits on the card are those of one material."""

    def test_another_material_than_the_card_wants_is_for_the_lead(self) -> None:
        for family, step in (("jaw, curved", "couple.element"), ("jaw, in shear with spacer", "couple.wrap")):
            with self.subTest(family=family):
                work = by_the_card(Work(family=family, held=(SLIP, SLIP)), element_material="92 Shore A")
                work.until(step)
                answers(work, step, material="80 shore A")
                self.assertEqual(work.state(step), "over")
                answers(work, step, material="92 shore A")
                self.assertEqual(work.state(step), "done")
