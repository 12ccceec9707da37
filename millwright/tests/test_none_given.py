"""A paper that gives no figure: said with its reason, the job goes on, and what it would judge is not judged."""

import unittest
from dataclasses import replace
from typing import Any

from millwright.card.catalogue_file import CatalogueSize, read_csv, write_csv
from millwright.card.kinds import MAY_BE_NONE
from millwright.card.values import Source, Value, card_problems, say_value, value_kind
from millwright.errors import UnusableInput
from millwright.job.entry import EntryKind
from millwright.job.now import StepState
from millwright.plan.families.register import FAMILIES
from millwright.roles import Role
from millwright.verdict import AS_ENTERED

from .dear import dear
from .work import Work

PAPER = Source(kind="maker's manual", document="Sheet 9", issue="1")


def none_given(key: str) -> Value:
    """Looked for, and not there."""
    return Value(value=0, none_because=f"no {key} in it", source=PAPER)


class NoneGivenTest(unittest.TestCase):
    """The line is answered, and holds nobody up."""

    @dear
    def test_every_family_comes_to_its_end_with_all_of_them_none_and_no_step_is_judged_by_one(self) -> None:
        ways = ("keyed, slip fit", "clamp ring", "tapered bore")
        for i, family in enumerate(FAMILIES):
            held = "clamp ring" if family == "screw-conveyor drive" else ways[i % len(ways)]
            with self.subTest(f"{family}, {held}"):
                work = Work(family=family, held=(held, held))
                work.card |= {key: none_given(key) for key in MAY_BE_NONE}
                work.until("close.sign")
                self.assertEqual(work.next(), "close.sign")
                checks = [check for kept in work.kept.values() for check in (kept.result or {}).get("checks", ())]
                self.assertFalse([check for check in checks if PAPER.document in str(check["source"])])

    def test_nobody_brings_a_limit_of_his_own_for_it(self) -> None:
        wide, theirs = 50.0, {"source": "mine"}
        work = Work(family="gear", held=("clamp ring", "tapered bore"))
        work.card |= {key: none_given(key) for key in MAY_BE_NONE}
        sent: dict[str, dict[str, Any]] = {
            "prepare.taper.driven": {"mismatch_max_mm": wide, "contact_min": 0.01},
            "mount.true.driver": {"limit_mm": wide, "second": {"limit_mm": wide}},
            "set.soft": {"limit_mm": wide},
            "set.align": {
                "limits": {"angle_deg": 20.0, "offset_mm": wide, **theirs},
                "running_target": {"sliding_mm_per_s": 900.0, "radius_mm": wide, **theirs},
            },
        }
        for step, limits in sent.items():
            with self.subTest(step):
                work.until(step)
                read = work.fill(step)
                laid = {key: {**read.get(key, {}), **it} if key == "second" else it for key, it in limits.items()}
                checks = work.judged(work.enter(step, {**read, **laid}))["checks"]
                judged_by = [str(check["source"]) for check in checks if check["status"] != "not judged"]
                self.assertFalse([source for source in judged_by if source in ("mine", AS_ENTERED)], checks)

    def test_it_is_put_there_in_the_job_and_what_was_judged_by_a_figure_is_read_again(self) -> None:
        work = Work()
        work.until("set.soft")
        del work.card["soft_foot_mm"]
        self.assertEqual(work.state("set.soft"), StepState.BLOCKED)
        said = {"key": "soft_foot_mm", "value": none_given("soft_foot_mm").model_dump(mode="json")}
        work.enter("set.soft", said, EntryKind.VALUE)
        read = work.enter("set.soft", {**work.fill("set.soft"), "limit_mm": 5.0})
        self.assertEqual((read.verdict, work.state("set.soft")), ("not judged", "done"))
        known = Work()
        known.until("set.gap")
        said |= {"reason": "looked again"}
        known.enter("set.soft", said, EntryKind.VALUE, role=Role.LEAD)
        self.assertEqual(known.state("set.soft"), "stale")
        again = known.route().find("set.soft")
        assert again is not None
        self.assertIn("from 0.05 mm to none given", str(again.stale_because))

    def test_a_figure_without_which_nothing_can_be_done_is_not_left_out(self) -> None:
        work = Work()
        work.until("set.gap")
        del work.card["gap_nominal_mm"]
        with self.assertRaises(UnusableInput):
            work.enter(
                "set.gap",
                {"key": "gap_nominal_mm", "value": none_given("gap_nominal_mm").model_dump(mode="json")},
                EntryKind.VALUE,
            )

    def test_a_catalogue_keeps_it_in_a_table(self) -> None:
        none = {"angle_limit_deg": none_given("angle").model_copy(update={"none_because": "old sheet, no angle, none"})}
        size = CatalogueSize(family="jaw, curved", series="Brackwater Avocet", size="rundlet", values=none)
        self.assertEqual(read_csv(write_csv([size]).encode()), [size])
        with self.assertRaises(UnusableInput):
            read_csv(write_csv([size]).replace("none: old sheet, no angle, none", "none:").encode())

    def test_it_is_said_with_its_reason(self) -> None:
        kind = value_kind("angle_limit_deg")
        assert kind is not None
        self.assertEqual(str(say_value(none_given("angle"), kind)), "none given: no angle in it")
        self.assertEqual(card_problems({"angle_limit_deg": none_given("angle")}), [])
        self.assertTrue(replace(kind).may_be_none)
