"""Jobs of upkeep: the few steps of what is due, on every family, and the question why at the end of every job."""

import unittest

from millwright.job.new_entry import OutOfTurn
from millwright.meaning import Of
from millwright.plan.families.register import FAMILIES
from millwright.plan.steps import SheetForm, Stage
from millwright.plan.upkeep import tasks_of
from millwright.scope import Scope, Task

from .work import WEDGE, Work, ways_of


def upkeep(family: str, *tasks: Task) -> Work:
    """A job of upkeep on a line of this family; with no task named, of all it can be there to do."""
    way = WEDGE if family == "screw-conveyor drive" else ways_of(family)[0]
    line = Work(family=family, held=(way, way)).line
    return Work(family=family, held=(way, way), scope=Scope.UPKEEP, tasks=tasks or tasks_of(line))


class UpkeepTest(unittest.TestCase):
    def test_of_every_family_and_every_task_comes_to_its_end(self) -> None:
        for family in FAMILIES:
            with self.subTest(family):
                work = upkeep(family)
                work.until(None)
                self.assertIsNone(work.next())
                self.assertTrue(work.route().closed)

    def test_does_what_is_due_and_nothing_else(self) -> None:
        greased, pulled = upkeep("gear", Task.GREASE), upkeep("gear", Task.RETORQUE)
        keys = [{now.step.key for now in work.route().steps} for work in (greased, pulled)]
        self.assertIn("keep.grease", keys[0])
        self.assertNotIn("keep.grease", keys[1])
        self.assertIn("keep.rerun.flange", keys[1])
        self.assertFalse(
            any(now.step.stage in (Stage.SET, Stage.MOUNT) for work in (greased, pulled) for now in work.route().steps)
        )

    def test_is_locked_out_before_a_hand_goes_in(self) -> None:
        work = upkeep("gear", Task.GREASE)
        with self.assertRaises(OutOfTurn):
            work.enter("keep.old_grease", work.fill("keep.old_grease"))
        work.until("keep.old_grease")
        work.step_on()
        self.assertEqual(work.state("keep.old_grease"), "done")

    def test_names_the_grease_that_is_in(self) -> None:
        filled = Work(
            family="gear", scope=Scope.UPKEEP, tasks=(Task.GREASE,), as_left={Of.GREASE: {"product": "Maltster blue"}}
        )
        for work, says in ((filled, "filled with Maltster blue last time"), (upkeep("gear", Task.GREASE), "nobody noted")):
            now = work.route().find("keep.old_grease")
            assert now is not None and isinstance(now.step.form, SheetForm)
            self.assertIn(says, next(field.detail for field in now.step.form.fields if field.key == "old_is"))

    def test_is_not_signed_before_it_is_said_why(self) -> None:
        work = upkeep("jaw, curved", Task.LOOK)
        work.until("close.why")
        self.assertEqual(work.state("close.hand"), "blocked")
        work.enter("close.why", {"cause": "wear"})
        work.until(None)
        self.assertTrue(work.route().closed)
