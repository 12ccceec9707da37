"""The element changed with both hubs on: what is asked, what is spared, and that scrap does not go in again."""

import unittest
from typing import Any

from millwright.job.new_entry import OutOfTurn
from millwright.job.now import StepState
from millwright.meaning import Of
from millwright.plan.compose import scopes
from millwright.plan.families.register import FAMILIES
from millwright.plan.steps import BenchForm, Stage, Step
from millwright.scope import Scope

from .dear import dear
from .readings import PACK, SHRINK, SLIP, dials
from .test_look import answers
from .work import Work

CHANGED = [name for name, family in FAMILIES.items() if Scope.ELEMENT in scopes(family.facts)]
MOVED: dict[str, Any] = {"machine": "yes", "why": "drawn back to let it in"}


def begun(family: str, *, held: str = SLIP, moved: bool = False, **more: Any) -> Work:
    """A job that changes the element, up to what comes after the one question."""
    work = Work(family=family, held=(held, held), scope=Scope.ELEMENT, **more)
    work.until("set.moved")
    answers(work, "set.moved", **(MOVED if moved else {}))
    work.sign("set.moved")
    return work


def entered(work: Work) -> set[str]:
    """The steps that were entered."""
    return {now.step.key for now in work.route().steps if now.current is not None}


def _is_gap(step: Step) -> bool:
    is_read = isinstance(step.form, BenchForm) and step.form.bench == "gap"
    return is_read and step.stage in (Stage.SET, Stage.COUPLE) and any(one.of is Of.GAP for one in step.means)


class ChangeTheElementTest(unittest.TestCase):
    """From lock-out to the signed record, no hub taken off."""

    def test_where_no_machine_was_moved_one_reading_stands_in_for_the_alignment(self) -> None:
        self.assertEqual(len(CHANGED), 9)
        for name in CHANGED:
            for held in (SLIP, SHRINK):
                with self.subTest(family=name, held=held):
                    work = begun(name, held=held)
                    work.until(None)
                    self.assertEqual(work.route().why_not_signed_off(), [])
                    done = entered(work)
                    self.assertFalse([key for key in done if key.startswith(("prepare.fit", "mount.hub", "mount.screw"))])
                    self.assertEqual(done & {"set.rough", "set.align", "couple.feet", "couple.screw"}, set())
                    proved = {"couple.align"} if FAMILIES[name].facts.closed is None else {"couple.closed"}
                    self.assertEqual(done & {"couple.align", "couple.closed"}, proved)

    @dear
    def test_where_one_was_moved_all_of_it_is_read_anew(self) -> None:
        for name in CHANGED:
            with self.subTest(family=name):
                work = begun(name, moved=True)
                work.until(None)
                self.assertEqual(work.route().why_not_signed_off(), [])
                self.assertLessEqual({"set.rough", "set.align", "couple.feet", "couple.align"}, entered(work))
                self.assertIn("feet", work.fill("close.torque"))

    def test_no_step_takes_an_entry_before_its_turn(self) -> None:
        for name in CHANGED:
            work = Work(family=name, scope=Scope.ELEMENT)
            while (now := work.route().next()) is not None:
                for later in work.route().steps:
                    if later.state is StepState.BLOCKED and later.step.form.kind != "sign":
                        with self.assertRaises(OutOfTurn, msg=f"{name}: {later.step.key}"):
                            work.enter(later.step.key, {})
                        break
                if now.state is StepState.TO_SIGN:
                    work.sign(now.step.key)
                else:
                    work.enter(now.step.key, work.fill(now.step.key))

    def test_a_moved_machine_wants_its_reason_and_the_answer_a_signature(self) -> None:
        work = Work(family="tyre", scope=Scope.ELEMENT)
        work.until("set.moved")
        answers(work, "set.moved", machine="yes", why="")
        self.assertEqual((work.state("set.moved"), work.state("couple.tyre")), ("over", "blocked"))
        answers(work, "set.moved", machine="no")
        self.assertEqual((work.state("set.moved"), work.state("couple.tyre")), ("to sign", "blocked"))

    def test_a_hub_that_was_slackened_is_pulled_again_and_the_gap_read(self) -> None:
        work = Work(family="steel grid", scope=Scope.ELEMENT)
        work.until("set.moved")
        answers(work, "set.moved", hub="was slackened or moved")
        work.sign("set.moved")
        work.until("close.torque")
        self.assertLessEqual({"set.gap", "couple.screw"}, entered(work))
        again = work.fill("close.torque")
        self.assertEqual(("screw_second" in again, "feet" in again), (True, False))

    def test_however_the_gap_is_trimmed_it_is_asked_once(self) -> None:
        for family, of in FAMILIES.items():
            work = Work(family=family, scope=Scope.ELEMENT)
            if of.facts.element is None or not of.facts.closes_by_hub:
                continue
            with self.subTest(family):
                work.until("set.moved")
                answers(work, "set.moved", hub="was slackened or moved")
                asked = [now.step.key for now in work.route().steps if _is_gap(now.step)]
                self.assertEqual(len(asked), 1, asked)

    def test_what_was_counted_out_as_scrap_does_not_go_in_again(self) -> None:
        work = Work(family="claw with elastomer blocks", scope=Scope.ELEMENT)
        work.until("off.old")
        answers(work, "off.old", number="Lot 7")
        work.until("couple.blocks")
        answers(work, "couple.blocks", set="lot 7 ")
        self.assertEqual(work.state("couple.blocks"), "over")
        kept = Work(
            family="tyre", scope=Scope.ELEMENT, as_left={Of.ELEMENT_OUT: {"number": "Lot 7", "fate": "scrap, and marked so"}}
        )
        kept.until("off.new")
        answers(kept, "off.new", number="LOT 7")
        self.assertEqual(kept.state("off.new"), "over")
        answers(kept, "off.new", number="Lot 8")
        self.assertEqual(kept.state("off.new"), "done")

    def test_one_that_is_whole_goes_in_again_and_is_held_against_nothing(self) -> None:
        work = Work(family="disc, single pack", scope=Scope.ELEMENT)
        work.until("off.old")
        answers(work, "off.old", fate="whole: it goes back in")
        work.until(None)
        self.assertNotIn("off.new", entered(work))
        self.assertTrue(work.route().closed)

    def test_the_one_reading_stands_beside_what_was_left_or_found(self) -> None:
        left = begun("tyre", as_left={Of.ALIGNMENT: dials(0.0)})
        found = Work(family="tyre", scope=Scope.ELEMENT)
        found.until("off.slack")
        found.enter("found.align", dials(0.0))
        for work, said in (
            (left, "Since it was left it has moved 0.10 mm"),
            (found, "Since it was found it has moved 0.10 mm"),
        ):
            work.until("couple.align")
            self.assertIn(said, " ".join(work.judged(work.enter("couple.align", dials(0.1)))["advice"]))
        packs = begun("disc, single pack", as_left={Of.CLOSED_GAP: PACK})
        packs.until("couple.closed")
        self.assertIn("As it was left", " ".join(packs.judged(packs.enter("couple.closed", PACK))["advice"]))

    def test_the_halves_of_a_claw_go_back_to_where_the_arrow_stood(self) -> None:
        work = Work(family="claw with elastomer blocks", scope=Scope.ELEMENT)
        work.until("off.mark")
        answers(work, "off.mark", arrow="notch 4")
        work.until("couple.ring")
        answers(work, "couple.ring", arrow="notch 5")
        self.assertEqual(work.state("couple.ring"), "over")
        answers(work, "couple.ring", arrow="Notch 4")
        self.assertEqual(work.state("couple.ring"), "done")

    def test_wear_is_counted_from_the_zero_that_was_left(self) -> None:
        left: dict[str, Any] = {Of.WEAR_MARK: {"zero_mm": 4.0, "twist_mm": 1.5}}
        work = Work(family="claw with elastomer blocks", scope=Scope.ELEMENT, as_left=left, card={"wear_limit_mm": 3.0})
        work.until("found.wear")
        read = work.judged(work.enter("found.wear", {"zero_mm": 7.2, "twist_mm": 2.0}))
        worn = next(check for check in read["checks"] if check["code"] == "zero")
        self.assertAlmostEqual(worn["value"], 3.2)
        self.assertEqual((worn["status"], work.state("found.wear")), ("over", "done"))
