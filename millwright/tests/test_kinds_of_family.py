"""Families that come in kinds: what hangs on the shaft, which circles there are, and where they are proved."""

import unittest
from typing import Any

from millwright.errors import UnusableInput
from millwright.plan.steps import BenchForm
from millwright.scope import Scope

from .readings import SLEEVES, ring
from .test_look import answers
from .work import Work

FLEXIBLE, RIGID = "flexible", "rigid"


def keys(work: Work, step: str) -> list[str]:
    """What a sheet asks, by its keys."""
    return list(work.fill(step))


def gear(driver: str, driven: str, **more: Any) -> Work:
    """A gear coupling with these halves."""
    work = Work(family="gear", **more)
    spec = work.line.model_dump(mode="json")
    spec["coupling"]["driver_hub"]["half"], spec["coupling"]["driven_hub"]["half"] = driver, driven
    work.line = type(work.line).model_validate(spec)
    return work


OWN: dict[str, float] = {
    "flange_bolts@spacer": 5,
    "flange_bolt_torque_nm@spacer": 40,
    "flange_bolts@sleeve": 8,
    "flange_bolt_torque_nm@sleeve": 60,
}


def of_kind(family: str, at: str, **kind: str) -> Work:
    """One of this kind, up to a step."""
    work = Work(family=family, card=OWN)
    work.until("receive.kind")
    answers(work, "receive.kind", **kind)
    work.until(at)
    return work


class TyreTest(unittest.TestCase):
    """Rings that come off or stay, plain or with a spacer."""

    def test_rings_that_come_off_take_their_screws_along_and_bring_them_back(self) -> None:
        work = of_kind("tyre", "couple.rings", rings="the clamp rings come off", spacer="none: the tyre alone")
        self.assertLessEqual({"ring_on", "ring_screws"}, set(keys(work, "mount.loose.driver")))
        self.assertEqual([(line.out, line.open) for line in work.route().ledger], [(6, True), (6, True)])
        answers(work, "couple.rings", driver=5)
        self.assertEqual(work.state("couple.rings"), "over")
        answers(work, "couple.rings")
        self.assertFalse(any(line.open for line in work.route().ledger))

    def test_rings_that_stay_have_their_screws_backed_out_and_nothing_hangs_loose(self) -> None:
        work = of_kind(
            "tyre", "couple.rings", rings="the rings stay, their screws are backed out", spacer="none: the tyre alone"
        )
        asked = keys(work, "mount.loose.driver")
        self.assertIn("backed", asked)
        self.assertFalse({"ring_on", "ring_screws"} & set(asked))
        self.assertEqual(work.route().ledger, ())

    def test_a_spacer_carries_the_ring_of_its_end_and_is_pulled_and_checked_by_its_own_lines(self) -> None:
        work = of_kind("tyre", "set.rough", rings="the clamp rings come off", spacer="a spacer, driven end")
        self.assertIn("ring_on", keys(work, "mount.loose.driver"))
        self.assertNotIn("ring_on", keys(work, "mount.loose.driven"))
        done = [now.step.key for now in work.route().steps if now.current is not None]
        order = [done.index(key) for key in ("mount.spacer_ring", "mount.spacer_on", "mount.spacer")]
        self.assertEqual(order, sorted(order))
        self.assertEqual(work.fill("mount.spacer_on")["screws"], 5)
        work.until("close.torque")
        self.assertIn("spacer", keys(work, "close.torque"))
        work.until(None)
        self.assertTrue(work.route().closed)


class GearTest(unittest.TestCase):
    """Two flexible halves, or one of them rigid."""

    def test_each_flexible_half_has_its_ring_its_sleeve_and_its_reading(self) -> None:
        work = gear(FLEXIBLE, FLEXIBLE)
        work.until("couple.sleeve")
        crooked = {**work.fill("couple.sleeve"), "other_end": ring(4.0, 4.1, 4.4, 4.1)}  # 0.4 where 0.3 is allowed
        read = work.judged(work.enter("couple.sleeve", crooked))
        self.assertEqual([c["name"] for c in read["checks"] if c["status"] == "over"], ["spread of the gap, blower end"])
        self.assertEqual((work.fill("receive.kit")["sleeves_n"], work.fill("receive.kit")["rings_n"]), (2, 2))

    def test_a_rigid_half_has_none_and_is_read_once(self) -> None:
        work = gear(RIGID, FLEXIBLE)
        work.until("couple.sleeve")
        self.assertNotIn("ring_on", keys(work, "mount.loose.driver"))
        self.assertIn("bolts_on", keys(work, "mount.loose.driver"))
        self.assertLessEqual({"ring_on", "sleeve_on"}, set(keys(work, "mount.loose.driven")))
        self.assertEqual(work.fill("receive.kit")["sleeves_n"], 1)
        with self.assertRaisesRegex(UnusableInput, "Name the two ends"):
            work.enter("couple.sleeve", SLEEVES)
        work.until(None)
        self.assertTrue(work.route().closed)

    def test_two_rigid_halves_are_no_gear_coupling(self) -> None:
        with self.assertRaisesRegex(ValueError, "two rigid halves is a rigid coupling"):
            gear(RIGID, RIGID)


class FlywheelTest(unittest.TestCase):
    """An engine instead of a hub."""

    def test_nothing_is_mounted_that_does_not_go_together(self) -> None:
        work = Work(family="tyre on flywheel")
        work.until("receive.flywheel")
        for wrong in ({"flywheel_circle_mm": 2.0}, {"holes": 5}, {"grade": ["40", "50"]}, {"bush_mm": 45.0}):
            answers(work, "receive.flywheel", **wrong)
            self.assertEqual(work.state("receive.flywheel"), "over", wrong)
        answers(work, "receive.flywheel")
        self.assertEqual(work.state("receive.flywheel"), "done")

    def test_the_flange_finds_its_place_by_the_distance_to_the_flywheel(self) -> None:
        work = Work(family="tyre on flywheel", card={"gap_nominal_mm": 60.0})
        work.until("prepare.place")
        said = work.judged(work.enter("prepare.place", {"distance_mm": 72.5, "float_mm": 4.0}))
        self.assertIn("the shaft end is −12.5 mm proud of its face", " ".join(said["advice"]))
        # half of a float of 4 and the millimetre to spare: 3 mm are too near
        work.enter("prepare.place", {"distance_mm": 2.9, "float_mm": 4.0})
        self.assertEqual(work.state("prepare.place"), "over")

    def test_it_hangs_on_the_shaft_in_its_order_and_no_straightedge_is_laid_on_air(self) -> None:
        work = Work(family="tyre on flywheel")
        self.assertIsNone(work.route().find("set.straightedge"))
        work.until("mount.loose.driven")
        turned = {**work.fill("mount.loose.driven"), "bolt_ring_on": False}
        with self.assertRaisesRegex(UnusableInput, "First: Bolt ring on the shaft"):
            work.enter("mount.loose.driven", turned)


class RigidTest(unittest.TestCase):
    """Flanges, with plain or fitted bolts, or a split sleeve."""

    def test_fitted_bolts_are_drawn_in_before_they_are_pulled(self) -> None:
        work = of_kind("rigid", "couple.draw", kind="two flanges", bolts="fitted: reamed holes, drawn in")
        draw = work.route().find("couple.draw")
        assert draw is not None and isinstance(draw.step.form, BenchForm)
        self.assertEqual((draw.step.form.preset["bolts"], work.state("couple.flange")), (6, "blocked"))
        work.until(None)
        self.assertTrue(work.route().closed)

    def test_a_sleeve_is_clamped_evenly_a_quarter_turn_from_its_key(self) -> None:
        work = of_kind("rigid", "couple.splits", kind="a split sleeve", bolts="plain, with clearance")
        asked = {now.step.key for now in work.route().steps}
        self.assertFalse({"couple.flange", "couple.touch", "couple.draw"} & asked)
        self.assertEqual(work.fill("couple.halves")["screws"], 8)
        answers(work, "couple.splits", one_mm=2.0, other_mm=3.0)
        self.assertEqual(work.state("couple.splits"), "over")
        answers(work, "couple.splits")
        work.until(None)
        self.assertTrue(work.route().closed)


class ClawTest(unittest.TestCase):
    """Blocks through the open ring, or before the machine comes over."""

    def test_both_ways_come_to_the_end_and_the_blocks_go_in_once(self) -> None:
        through, before = "through the open ring, once the machines are set", "before the machine comes over"
        for way, steps in ((through, ["couple.blocks"]), (before, ["mount.blocks", "mount.over"])):
            with self.subTest(way):
                work = Work(family="claw with elastomer blocks")
                work.until("receive.blocks")
                answers(work, "receive.blocks", go_in=way)
                work.until(None)
                self.assertTrue(work.route().closed)
                done = [now.step.key for now in work.route().steps if now.current is not None]
                self.assertEqual([key for key in done if key.endswith((".blocks", ".over"))][1:], steps)


class TubeTest(unittest.TestCase):
    """A tube stripped as far as it must be."""

    def test_bolts_nuts_and_bushings_go_back_as_they_came_out(self) -> None:
        work = Work(family="composite tube")
        work.until("couple.forward")
        self.assertEqual(
            {line.what for line in work.route().ledger if line.open and "sling" not in line.what},
            {
                "bolts of the tube",
                "lock nuts of the tube",
                "overload bushings",
            },
        )
        answers(work, "couple.forward", bushings=3)
        self.assertEqual((work.state("couple.forward"), work.state("couple.driver_end")), ("over", "blocked"))


class TakenApartTest(unittest.TestCase):
    """What comes out is counted."""

    def test_close_fit_bolts_and_their_rings_come_out_as_many_as_went_in(self) -> None:
        work = Work(family="disc, three-part", scope=Scope.TAKE_OFF)
        work.until("off.out_driven")
        self.assertEqual((work.state("off.sling"), work.state("off.weight")), ("done", "done"))
        mapped = work.fill("off.out_driven")
        work.enter("off.out_driven", {**mapped, "log": mapped["log"][:-1]})
        self.assertEqual((work.state("off.out_driven"), work.state("off.packs")), ("incomplete", "blocked"))
        work.enter("off.out_driven", mapped)
        answers(work, "off.packs", rings_driven=5)
        self.assertEqual(work.state("off.packs"), "over")
