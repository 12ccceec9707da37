"""Whether the coupling suits its machine, asked where it is received."""

import math
import unittest

from millwright.job.entry import SignatureKind
from millwright.plan.steps import SheetForm
from millwright.tests.work import Work
from millwright.verdict import Verdict

LIKE = {"series": "Brackwater Avocet", "size": "rundlet", "drawing": True}
MOTOR = {
    "name": "Motor",
    "drawn_as": "motor",
    "shaft_diameter_mm": 48,
    "power_kw": 37,
    "feet": [{"name": f"motor {n}", "from_coupling_mm": x} for n, x in (("front", 300), ("rear", 586))],
}
STEADY_NM = 37_000 / (2 * math.pi * 1480 / 60)


def asked(work: Work) -> set[str]:
    """What the sheet asks beside the register."""
    step = next(now.step for now in work.route().steps if now.step.key == "receive.like")
    assert isinstance(step.form, SheetForm)
    return {field.key for field in step.form.fields} - set(LIKE)


class SuitsTest(unittest.TestCase):
    """Rated torque and top speed, against this line."""

    def test_the_torque_of_the_motor_times_its_factor_is_held_against_the_rated_torque(self) -> None:
        for factor, rated, wanted in (
            (1.4, STEADY_NM * 1.41, Verdict.INSIDE),
            (1.4, STEADY_NM * 1.39, Verdict.OVER),
            (None, STEADY_NM * 1.01, Verdict.INSIDE),
            (None, STEADY_NM * 0.99, Verdict.OVER),
        ):
            card = {"rated_torque_nm": rated, "top_speed_rpm": 1480, **({"service_factor": factor} if factor else {})}
            with self.subTest(card):
                work = Work(driver=MOTOR, card=card)
                self.assertEqual(asked(work), set())  # nothing to type: the line and the card have it all
                made = work.enter("receive.like", LIKE)
                self.assertEqual(made.verdict, wanted)
                said = {one["code"] for one in work.judged(made)["says"]}
                self.assertEqual("no_service_factor" in said, factor is None)

    def test_a_line_faster_than_the_coupling_may_turn_is_over_until_the_lead_accepts_it(self) -> None:
        work = Work(driver=MOTOR, card={"top_speed_rpm": 1479})
        self.assertEqual(work.enter("receive.like", {**LIKE, "suits": True}).verdict, Verdict.OVER)
        work.sign("receive.like", SignatureKind.AUTHORISE)
        self.assertEqual(work.state("receive.like"), "done")

    def test_what_the_card_or_the_line_lacks_is_asked_and_the_torque_to_look_for_is_said(self) -> None:
        self.assertEqual(asked(Work(card={"rated_torque_nm": 300, "top_speed_rpm": 3000})), {"power_kw"})
        work = Work(driver=MOTOR)
        self.assertEqual(asked(work), {"suits"})
        (said,) = work.judged(work.enter("receive.like", {**LIKE, "suits": True}))["says"]
        self.assertAlmostEqual(said["values"]["torque"]["value"], STEADY_NM, 6)
        typed = Work(card={"rated_torque_nm": STEADY_NM, "top_speed_rpm": 3000})
        self.assertEqual(typed.enter("receive.like", {**LIKE, "power_kw": 37.5}).verdict, Verdict.OVER)

    def test_a_drive_that_hangs_on_its_shaft_is_asked_nothing_of_it(self) -> None:
        self.assertEqual(asked(Work(family="shaft-mounted reducer", driver=MOTOR)), set())
