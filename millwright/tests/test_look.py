"""Jobs that mount nothing: a coupling checked in service, and a machine brought into line."""

import json
import unittest
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from millwright.benches.register import as_dict, evaluate_json
from millwright.job.entry import SignatureKind
from millwright.meaning import Of
from millwright.plan.families.register import FAMILIES
from millwright.plan.stages.as_found import OPENED
from millwright.scope import Scope

from .dear import dear
from .readings import BOTH_ENDS, PACK, SHRINK, SLIP, dials, ring
from .work import Work, circles

GAPS = st.lists(st.floats(5, 15), min_size=4, max_size=4)
AT_BOTH_ENDS = {"disc, three-part", "disc, drop-out spacer", "composite tube"}


def answers(work: Work, key: str, **changed: Any) -> None:
    """A step entered as it should be, but for what is said."""
    work.enter(key, {**work.fill(key), **changed})


class ClosedTest(unittest.TestCase):
    """What proves a closed coupling, when it is finished and in service."""

    @dear
    def test_every_family_can_be_checked_and_every_one_that_stands_can_be_aligned_open_or_closed(self) -> None:
        for name, family in FAMILIES.items():
            for scope, coupling in ((Scope.CHECK, None), (Scope.ALIGN, None), (Scope.ALIGN, OPENED)):
                if scope is Scope.ALIGN and (family.facts.hangs or (coupling and family.facts.set_by == "air gap")):
                    continue
                for held in (SLIP, SHRINK):
                    with self.subTest(family=name, scope=scope, coupling=coupling, held=held):
                        work = Work(family=name, held=(held, held), scope=scope)
                        work.until("found.look")
                        answers(work, "found.look", **({"coupling": coupling} if coupling else {}))
                        work.until(None)
                        self.assertEqual(work.route().why_not_signed_off(), [])
                        done = {now.step.key for now in work.route().steps if now.current is not None}
                        self.assertFalse([key for key in done if key.startswith(("receive.", "prepare.fit", "mount.hub"))])
                        self.assertEqual("couple.align" in done, scope is Scope.ALIGN)

    def test_what_was_opened_for_aligning_goes_in_again_and_every_circle_is_pulled(self) -> None:
        for name, family in FAMILIES.items():
            if family.facts.hangs or family.facts.set_by == "air gap":
                continue
            with self.subTest(family=name):
                work = Work(family=name, held=(SHRINK, SHRINK), scope=Scope.ALIGN)
                work.until("found.look")
                answers(work, "found.look", coupling=OPENED)
                work.until("close.torque")
                done = {now.step.key.partition(".")[2] for now in work.route().steps if now.current is not None}
                by_turns = {circle.by_turns_with for circle in family.facts.circles}
                self.assertLessEqual({circle.key for circle in circles(name)} - by_turns, done)
                if name in ("jaw, straight", "jaw, curved"):
                    self.assertIn("element", done)

    def test_a_spacer_is_measured_at_both_ends_and_they_are_held_against_each_other(self) -> None:
        for name in sorted(AT_BOTH_ENDS):
            with self.subTest(family=name):
                work = Work(family=name)
                work.until("couple.closed")
                one_end = {key: value for key, value in work.fill("couple.closed").items() if key != "other_end"}
                with self.assertRaisesRegex(Exception, "other end too: blower end"):
                    work.enter("couple.closed", one_end)
                # both inside 8 ± 0.4, but 0.6 apart: one element pressed, the other stretched
                pressed = work.enter(
                    "couple.closed", {**one_end, "readings": ring(8.3, 8.3, 8.3, 8.3), "other_end": ring(7.7, 7.7, 7.7, 7.7)}
                )
                over = [check["name"] for check in work.judged(pressed)["checks"] if check["status"] == "over"]
                self.assertEqual(over, ["the two ends differ by"])
                self.assertIn("0.30 mm too near the blower end", " ".join(work.judged(pressed)["advice"]))
                self.assertEqual(work.state("close.torque"), "blocked")

    def test_cold_each_end_of_a_spacer_takes_half_of_the_growth(self) -> None:
        work = Work(family="disc, three-part", card={"axial_growth_mm": 1.0})
        work.until("couple.closed")
        for gap, state in ((8.0, "over"), (8.5, "done"), (8.9, "done"), (9.0, "over")):  # 8 ± 0.4 warm is 8.5 ± 0.4 cold
            both = {"readings": ring(*[gap] * 4), "other_end": ring(*[gap] * 4)}
            work.enter("couple.closed", {**work.fill("couple.closed"), **both})
            self.assertEqual(work.state("couple.closed"), state, gap)

    @given(first=GAPS, other=GAPS)
    def test_the_ends_swapped_say_the_same_the_other_way_round(self, first: list[float], other: list[float]) -> None:
        def read(one: list[float], two: list[float], ends: list[str]) -> dict[str, Any]:
            given = {"readings": ring(*one), "other_end": ring(*two), "ends": ends, "diameter_mm": 128}
            return as_dict(evaluate_json("gap", json.dumps(given)))

        there, back = read(first, other, ["motor", "pump"]), read(other, first, ["pump", "motor"])
        self.assertAlmostEqual(there["ends_differ_mm"], -back["ends_differ_mm"])
        for key in there["other_end"]:
            self.assertAlmostEqual(there[key], back["other_end"][key], msg=key)
        alone = as_dict(evaluate_json("gap", json.dumps({"readings": ring(*first), "diameter_mm": 128})))
        self.assertEqual({key: alone[key] for key in there["other_end"]}, {key: there[key] for key in there["other_end"]})

    def test_one_place_out_of_its_band_is_over_where_every_reading_counts(self) -> None:
        work = Work(family="disc, three-part")
        work.until("couple.closed")
        out = work.enter("couple.closed", {**work.fill("couple.closed"), "other_end": ring(8.0, 8.0, 8.5, 8.0)})
        over = [check["name"] for check in work.judged(out)["checks"] if check["status"] == "over"]
        self.assertEqual(over, ["gap at 6 o'clock, blower end"])

    def test_what_is_out_as_found_is_accepted_by_a_lead_in_a_check_and_holds_up_no_aligning(self) -> None:
        check = Work(family="gear", scope=Scope.CHECK)
        check.until("found.sleeve")
        answers(check, "found.sleeve", readings=ring(4.0, 4.2, 4.6, 4.2))
        self.assertEqual((check.state("found.sleeve"), check.state("close.count")), ("over", "blocked"))
        check.sign("found.sleeve", SignatureKind.AUTHORISE)
        check.until(None)
        self.assertEqual(check.route().why_not_signed_off(), [])
        align = Work(family="gear", scope=Scope.ALIGN)
        align.until("found.align")
        align.enter("found.align", dials(1.2))
        self.assertEqual(align.state("found.align"), "done")
        align.until(None)
        self.assertEqual(align.route().why_not_signed_off(), [])

    def test_held_against_what_was_left(self) -> None:
        left: dict[str, Any] = {Of.ALIGNMENT: dials(0.0), Of.CLOSED_GAP: PACK}
        work = Work(family="disc, single pack", scope=Scope.CHECK, as_left=left)
        work.until("found.closed")
        for key, read in (("found.closed", PACK), ("found.align", dials(0.1))):
            entered = work.enter(key, read)
            said = " ".join(work.judged(entered)["advice"])
            # dials() puts the movable machine low by what it is given
            self.assertIn("0.10 mm down" if key == "found.align" else "As it was left", said)

    def test_nothing_to_compare_with_is_taken_from_whoever_enters_the_reading(self) -> None:
        pack: dict[str, Any] = PACK
        invented = {"readings": [{**r, "value_mm": r["value_mm"] + 3} for r in pack["readings"]]}
        left = Work(family="disc, single pack", scope=Scope.CHECK, as_left={Of.CLOSED_GAP: PACK})
        never = Work(family="disc, single pack", scope=Scope.CHECK)
        pairs: list[tuple[Work, Any]] = [(left, {"readings": PACK["readings"]}), (never, None)]
        for work, kept in pairs:
            work.until("found.closed")
            entered = work.enter("found.closed", {**PACK, "as_left": invented})
            self.assertEqual(entered.inputs.get("as_left"), kept)
            entered = work.enter("found.align", {**dials(0.0), "before": dials(2.0), "before_is": "as left", "made": []})
            self.assertEqual({"before", "before_is", "made"} & set(entered.inputs), set())

    def test_a_spacer_gap_since_it_was_left(self) -> None:
        work = Work(family="disc, drop-out spacer", scope=Scope.CHECK, as_left={Of.CLOSED_GAP: BOTH_ENDS})
        work.until("found.closed")
        wider = [{**r, "value_mm": r["value_mm"] + 0.15} for r in BOTH_ENDS["readings"]]
        since = work.judged(work.enter("found.closed", {**BOTH_ENDS, "readings": wider}))["since"]
        for found, mean in zip(since, (0.15, 0.0), strict=True):
            self.assertAlmostEqual(found["mean_mm"], mean)
            self.assertAlmostEqual(found["spread_mm"], 0.0)
