"""What a failed look, a pull or a move re-opens: nothing that was disturbed is left done."""

import unittest
from typing import Any

from millwright.card.values import Source, Value
from millwright.job.entry import EntryKind
from millwright.job.now import StepState
from millwright.plan.families.disc_single import BOWED
from millwright.plan.families.register import FAMILIES
from millwright.plan.procedure import Pull, Stop
from millwright.plan.stages.set_and_align import MOVED_BEHIND
from millwright.scope import Scope

from .dear import dear
from .test_look import answers
from .work import Work

SHIMMED = {"feet": [{"name": "motor front", "shim_mm": 0.5}], "axial_mm": 0.0}
STANDS = (StepState.DONE, StepState.TO_SIGN)


def shut(family: str) -> set[str]:
    """What closes a family, by its newest procedure."""
    items = FAMILIES[family].procedure().couple_up
    stops = {f"couple.{item.key}" for item in items if isinstance(item, Stop) and item.shuts}
    return stops | {f"couple.{item.circle}" for item in items if isinstance(item, Pull) and item.shuts}


class MovedTest(unittest.TestCase):
    """A machine is moved once the coupling is closed, or on the way there."""

    @dear
    def test_at_every_step_after_coupling_up_what_a_move_disturbed_is_done_again_and_the_job_ends(self) -> None:
        for family, of in FAMILIES.items():
            if not of.facts.opened:
                continue
            walked = Work(family=family)
            walked.until("close.guard")
            closing = [e.step for e in walked.entries if e.step in shut(family) or e.step.startswith("close.")]
            self.assertTrue(shut(family) & set(closing), family)
            for at in dict.fromkeys([*closing, "close.guard"]):
                with self.subTest(f"{family}, moved at {at}"):
                    self.moved_at(family, at)

    def moved_at(self, family: str, at: str) -> None:
        work = Work(family=family)
        work.until(at)
        done = {now.step.key for now in work.route().steps if now.state in STANDS} & shut(family)
        work.enter("set.align", SHIMMED, EntryKind.MOVE)
        left = {key for key in done if work.state(key) in STANDS}
        self.assertFalse(left)
        stops = {f"couple.{i.key}" for i in FAMILIES[family].procedure().couple_up if isinstance(i, Stop) and i.shuts}
        if done & stops:
            self.assertEqual(work.state(MOVED_BEHIND), "open")
            align = work.route().find("set.align")
            assert align is not None
            self.assertEqual(align.state, StepState.STALE)
            self.assertIn(MOVED_BEHIND, [block.step for block in align.blocks])
        work.until(None)
        self.assertTrue(work.route().closed)
        self.assertIsNone(work.route().find(MOVED_BEHIND))


class LookedTest(unittest.TestCase):
    """A look that failed."""

    def redone(self, work: Work, look: str, bad: dict[str, Any], undone: set[str]) -> None:
        """Looked at and found bad, ``undone`` is to be done again, and then it is looked at again."""
        good = work.fill(look)
        answers(work, look, **bad)
        self.assertEqual(work.state(look), "over")
        self.assertEqual({key for key in undone if work.state(key) == "stale"}, undone)
        work.until(look)
        self.assertEqual({work.state(key) for key in undone}, {"done"})
        work.enter(look, good)
        self.assertEqual(work.state(look), "done")

    def test_metal_to_metal_makes_rings_and_tyre_undone(self) -> None:
        for family, undone in (
            ("tyre", {"couple.tyre", "couple.rings", "couple.ring_driver"}),
            ("tyre on flywheel", {"couple.lay_element", "couple.bolt_ring"}),
        ):
            with self.subTest(family):
                work = Work(family=family)
                work.until("couple.metal")
                self.redone(work, "couple.metal", {"feeler_mm": 0}, undone)

    def test_a_bowed_pack_makes_its_circles_undone(self) -> None:
        for family, look, bad, undone in (
            ("disc, single pack", "couple.pack", {"looks": BOWED}, {"couple.second"}),
            ("disc, three-part", "couple.packs", {"driven": BOWED}, {"couple.driver_end", "couple.driven_end"}),
        ):
            with self.subTest(family):
                work = Work(family=family)
                work.until(look)
                self.redone(work, look, bad, undone)

    def test_nothing_of_a_unit_from_the_works_is_slackened_for_a_bowed_pack(self) -> None:
        work = Work(family="disc, drop-out spacer")
        work.until("couple.packs")
        answers(work, "couple.packs", driver=BOWED)
        self.assertEqual((work.state("couple.packs"), work.state("couple.driver_end")), ("over", "done"))
        now = work.route().find("couple.packs")
        assert now is not None and now.current is not None
        said = " ".join(one["template"] for one in work.judged(now.current)["says"])
        self.assertIn("Stop, and ask", said)
        self.assertNotIn("slacken the", said)

    def test_a_rotor_that_is_pulled_again_is_dialled_and_its_gap_read_again(self) -> None:
        work = Work(family="magnetic drive")
        work.until("close.guard")
        work.enter("mount.rotor", work.fill("mount.rotor"))
        self.assertEqual({work.state(key) for key in ("mount.centre", "set.align")}, {"stale"})

    def test_a_ring_that_is_pulled_again_is_looked_under_again(self) -> None:
        for family, ring in (("tyre", "couple.ring_driver"), ("tyre on flywheel", "couple.bolt_ring")):
            with self.subTest(family):
                work = Work(family=family)
                work.until("close.torque")
                self.assertEqual(work.state("couple.metal"), "done")
                work.enter(ring, work.fill(ring))
                self.assertEqual(work.state("couple.metal"), "stale")


class CountedTest(unittest.TestCase):
    """What opens a line of the ledger is held against what is known."""

    def test_none_is_never_all_of_them(self) -> None:
        for family, step, row in (
            ("magnetic drive", "mount.laid", "pads"),
            ("disc, drop-out spacer", "couple.screws_in", "driver"),
            ("disc, three-part", "couple.lay_driver_end", "rings"),
        ):
            with self.subTest(family):
                work = Work(family=family)
                work.until(step)
                answers(work, step, **{row: 0})
                self.assertEqual(work.state(step), "over")

    def test_the_grease_that_goes_in_first_is_the_one_that_is_filled_in_later(self) -> None:
        work = Work(family="steel grid")
        source = Source(kind="sample", document="Trial sheet")
        work.card["grease_product"] = Value(value=0, means="Maltster red", source=source)
        work.until("couple.teeth")
        for product, state in (("Other blue", "over"), ("maltster red ", "done")):
            answers(work, "couple.teeth", product=product)
            self.assertEqual(work.state("couple.teeth"), state)

    def test_what_was_packed_before_is_counted_to_what_is_filled_in(self) -> None:
        work = Work(family="steel grid", card={"grease_g": 200.0})
        work.until("couple.teeth")
        work.enter("couple.teeth", {**work.fill("couple.teeth"), "packed_g": 150.0})
        work.until("couple.grease")
        for grams, state in ((200.0, "over"), (60.0, "done")):
            work.enter("couple.grease", {**work.fill("couple.grease"), "grams": grams})
            self.assertEqual(work.state("couple.grease"), state)

    def test_an_actuator_that_comes_later_holds_no_kit_up(self) -> None:
        work = Work(family="magnetic drive")
        work.until("receive.kit")
        later = {"actuator": "none", "actuator_why": "it comes later: the rotor stays locked"}
        work.enter("receive.kit", {**work.fill("receive.kit"), **later})
        self.assertEqual(work.state("receive.kit"), "done")

    def test_as_many_rings_go_out_as_the_card_has_bolts(self) -> None:
        work = Work(family="disc, three-part", card={"flange_bolts": 6})
        work.until("couple.lay_driver_end")
        answers(work, "couple.lay_driver_end", rings=5)
        self.assertEqual(work.state("couple.lay_driver_end"), "over")
        answers(work, "couple.lay_driver_end", rings=6)
        self.assertEqual(work.state("couple.lay_driver_end"), "done")

    def test_hub_bolts_that_squeezed_a_unit_are_out_before_the_last_of_them_go_in(self) -> None:
        work = Work(family="disc, drop-out spacer", card={"flange_bolts": 6})
        work.until("receive.unit")
        answers(work, "receive.unit", by="half of its hub bolts")
        work.until("couple.bolts_in")
        self.assertEqual(work.state("couple.bolts_back"), "done")
        self.assertFalse([line for line in work.route().ledger if line.open and "squeeze" in line.what])
        keys = [now.step.key for now in work.route().steps]
        self.assertLess(keys.index("couple.bolts_back"), keys.index("couple.driver_end"))
        work.until(None)
        self.assertTrue(work.route().closed)


class HiddenTest(unittest.TestCase):
    """Readings are asked where they can be taken."""

    @dear
    def test_where_a_closed_coupling_hides_its_hubs_they_are_looked_at_once_it_is_undone(self) -> None:
        for family in ("gear", "steel grid", "tyre", "jaw, in shear with spacer"):
            for scope in (Scope.TAKE_OFF, Scope.REFIT):
                with self.subTest(f"{family}, {scope}"):
                    work = Work(family=family, scope=scope)
                    keys = [now.step.key for now in work.route().steps]
                    undone = [f"off.{stop.key}" for stop in FAMILIES[family].procedure().undo if isinstance(stop, Stop)]
                    first = keys.index(undone[0])
                    self.assertLess(keys.index("off.align"), first)
                    for read in ("off.marks", "off.gap"):
                        self.assertGreater(keys.index(read), first)
                        self.assertLess(keys.index(read), keys.index("off.hub.driver"))
                    work.until(None)
                    self.assertTrue(work.route().closed)

    def test_no_gap_is_asked_between_halves_that_are_not_on_yet(self) -> None:
        for scope in (Scope.FIT, Scope.REFIT):
            keys = [now.step.key for now in Work(family="jaw, in shear with spacer", scope=scope).route().steps]
            self.assertEqual([key for key in keys if key.endswith(".gap") and not key.startswith("off.")], ["couple.gap"])


class PlaceTest(unittest.TestCase):
    """Where a hub sits is judged where it is read."""

    def test_by_the_card_each_hub_by_its_own_line_and_as_it_was_found_where_the_card_says_nothing(self) -> None:
        for card, off, on in (
            ({"hub_standout_mm": 0.0, "hub_standout_plus_minus_mm": 0.3}, 0.5, 0.2),
            ({"hub_standout_mm": 0.0, "hub_standout_mm@driven": -4.0}, 0.0, -4.3),
        ):
            with self.subTest(card):
                work = Work(card=card)
                work.until("mount.hub.driven")
                self.assertEqual(self.said(work, standout_mm=off), "over")
                self.assertEqual(self.said(work, standout_mm=on), "done")
        again = Work(scope=Scope.REFIT)
        again.until("off.marks")
        answers(again, "off.marks", standout_driven_mm=3.0)
        again.until("mount.hub.driven")
        self.assertEqual(self.said(again, standout_mm=0.0), "over")
        self.assertEqual(self.said(again, standout_mm=3.2), "done")

    def test_a_hub_that_is_slid_until_the_gap_is_right_is_not_held_to_where_it_was_put_first(self) -> None:
        work = Work(card={"hub_standout_mm": 0.0})
        work.until("couple.element")
        for side, state in (("driven", "over"), ("driver", "done")):
            self.assertEqual(self.said(work, f"mount.hub.{side}", standout_mm=5.0), state)

    def test_a_flange_on_a_flywheel_goes_where_it_was_worked_out_to_go(self) -> None:
        work = Work(family="tyre on flywheel", card={"gap_nominal_mm": 30.0})
        work.until("prepare.place")
        answers(work, "prepare.place", distance_mm=34.0)
        work.until("mount.hub.driven")
        self.assertEqual(self.said(work, "mount.hub.driven", standout_mm=5.0), "over")
        self.assertEqual(self.said(work, "mount.hub.driven", standout_mm=-4.0), "done")

    def said(self, work: Work, step: str = "mount.hub.driven", **read: float) -> str:
        answers(work, step, **read)
        return work.state(step)
