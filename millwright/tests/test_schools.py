"""Where the trade has two schools the card says which: set screws, seals; and what a changed screw or material means."""

import unittest
from typing import Any

from millwright.card.meanings import BOTH_AT_ONCE, SEALS_FIRST, WHILE_HOT
from millwright.card.values import OfMaterial, Source, Value, value_problems
from millwright.job.entry import EntryKind
from millwright.plan.steps import BenchForm
from millwright.roles import Role

from .readings import SHRINK, SLIP
from .test_look import answers
from .work import Work


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

    def test_on_a_heated_hub_once_it_is_cold_or_at_once_where_the_card_has_it_so(self) -> None:
        for work, first in (
            (Work(family="gear", held=(SHRINK, SHRINK)), "mount.cold.driven"),
            (by_the_card(Work(family="gear", held=(SHRINK, SHRINK)), hot_screws_by=WHILE_HOT), "mount.screw"),
        ):
            keys = [now.step.key for now in work.route().steps if now.step.key in ("mount.cold.driven", "mount.screw")]
            self.assertEqual(keys[0], first)
            work.until(None)
            self.assertTrue(work.route().closed)


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
        for family, step in (("jaw, straight", "receive.element"), ("jaw, in shear with spacer", "couple.wrap")):
            with self.subTest(family=family):
                work = by_the_card(Work(family=family, held=(SLIP, SLIP)), element_material="Polyester")
                work.until(step)
                answers(work, step, material="nitrile")
                self.assertEqual(work.state(step), "over")
                answers(work, step, material="polyester")
                self.assertEqual(work.state(step), "done")

    def test_a_limit_is_that_of_the_material_the_card_names_and_another_material_makes_what_it_judged_stale(self) -> None:
        source = Source(kind="maker's manual", document="Paper 7")
        work = by_the_card(Work(family="jaw, curved"), element_material="92 Shore A")
        of = [OfMaterial(material="98 shore a", value=0.02), OfMaterial(material="92 shore A", value=0.5)]
        work.card["angle_limit_deg"] = Value(value=0.3, of_material=of, source=source)
        work.until("couple.feet")

        def allowed() -> float:
            now = work.route().find("set.align")
            assert now is not None and isinstance(now.step.form, BenchForm)
            return float(now.step.form.preset["limits"]["angle_deg"])

        self.assertEqual(allowed(), 0.5)
        harder = {"value": 0, "means": "98 Shore A", "source": {"kind": "drawing", "document": "D-7"}}
        put = {"key": "element_material", "value": harder, "reason": "a harder one was ordered"}
        work.enter("set.align", put, EntryKind.VALUE, Role.LEAD)
        self.assertEqual((allowed(), work.state("set.align"), work.state("set.gap")), (0.02, "stale", "stale"))
        now = work.route().find("set.align")
        assert now is not None
        self.assertIn("“Angle limit of the coupling” on the card was changed from 0.5° to 0.02°", str(now.stale_because))

    def test_only_a_limit_that_depends_on_the_element_may_have_figures_by_material(self) -> None:
        source = Source(kind="drawing", document="D-7")
        given = Value(value=25, of_material=[OfMaterial(material="92 shore A", value=20)], source=source, means="dry")
        self.assertEqual([p.path for p in value_problems("set_screw_torque_nm", given)], ["of_material"])
        slip = Value(value=0.3, of_material=[OfMaterial(material="92 shore A", value=90)], source=source)
        self.assertEqual([p.path for p in value_problems("angle_limit_deg", slip)], ["of_material.0.value"])
