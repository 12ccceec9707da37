"""The head of a record: what was proved, what was taken or accepted, what was not read."""

import unittest

from millwright.job.entry import EntryKind, SignatureKind
from millwright.job.proved import Stands, proofs
from millwright.plan.families.register import FAMILIES

from .dear import dear
from .readings import dials
from .test_none_given import none_given
from .work import Work

FITTED, ALIGNED, BALANCED, TORQUED, CLOSED = (
    "Hubs fitted",
    "Aligned",
    "Balance: marks in line, half keys",
    "Torqued, and checked again",
    "Closed coupling measured",
)


def stands(work: Work, taken: frozenset[str] = frozenset()) -> dict[str, Stands]:
    """What stands behind each line."""
    return {one.what: one.stands for one in proofs(work.route(), taken)}


class ProvedTest(unittest.TestCase):
    """Worst first."""

    @dear
    def test_a_job_that_was_done_well_is_proven_in_every_line_it_has(self) -> None:
        for family in FAMILIES:
            with self.subTest(family):
                work = Work(family=family)
                self.assertEqual(set(stands(work).values()), {Stands.NOT_READ})
                work.until(None)
                found = stands(work)
                self.assertEqual(set(found.values()), {Stands.PROVEN}, found)
                self.assertIn(TORQUED, found)

    def test_a_hub_that_was_measured_and_is_not_on_its_shaft_is_not_fitted(self) -> None:
        for held, still in (("keyed, slip fit", "mount.hub.driver"), ("keyed, interference", "mount.cold.driver")):
            work = Work(held=(held, held))
            work.until(still)
            self.assertEqual(stands(work)[FITTED], Stands.NOT_READ)
            work.until("set.rough")
            self.assertEqual(stands(work)[FITTED], Stands.PROVEN)

    def test_what_was_accepted_taken_not_judged_or_moved_since_is_said_with_its_steps(self) -> None:
        work = Work(family="gear")
        work.card["angle_limit_deg"] = none_given("angle")
        work.card["sliding_mm_per_s"] = none_given("sliding speed")
        work.until(None)
        found = stands(work)
        self.assertEqual((found[FITTED], found[BALANCED], found[CLOSED]), (Stands.PROVEN,) * 3)
        self.assertEqual(found[ALIGNED], Stands.NOT_JUDGED)
        judged = Work(family="gear")
        judged.until(None)
        left = next(made for made in reversed(judged.entries) if made.step == "couple.align")
        self.assertEqual(stands(judged, frozenset({left.id}))[ALIGNED], Stands.AS_IT_IS)
        moved = Work(family="gear")
        moved.until("close.guard")
        moved.enter("set.align", {"axial_mm": 0.2}, EntryKind.MOVE)
        [line] = [one for one in proofs(moved.route(), ()) if one.what == ALIGNED]
        self.assertEqual((line.stands, line.of), (Stands.AGAIN, ("Read the alignment again, feet torqued",)))

    def test_out_of_tolerance_is_not_proven_though_a_lead_accepts_it(self) -> None:
        work = Work()
        work.until("couple.align")
        work.enter("couple.align", dials(0.9))
        self.assertEqual(stands(work)[ALIGNED], Stands.OVER)
        work.sign("couple.align", SignatureKind.AUTHORISE)
        self.assertEqual(stands(work)[ALIGNED], Stands.ACCEPTED)
