"""Run in under load and pulled again; and both schools of pulling two circles."""

import unittest

from millwright.card.meanings import BY_TURNS, CIRCLES_BY, RUN_IN
from millwright.card.values import Source, Value
from millwright.job.entry import SignatureKind
from millwright.job.now import StepState
from millwright.plan.steps import BenchForm

from .work import Work

SOURCE = Source(kind="maker's manual", document="Brackwater tyres, sample manual")


def words(means: str) -> Value:
    """A line of the card that is words."""
    return Value(value=0, means=means, source=SOURCE)


def keys_of(work: Work) -> list[str]:
    """The route as it stands."""
    return [now.step.key for now in work.route().steps]


def to_the_end(work: Work) -> list[str]:
    """The steps in the order they came."""
    came: list[str] = []
    for _ in range(150):
        key = work.next()
        if key is None:
            return came
        came.append(key)
        work.step_on()
    raise AssertionError("the route does not come to an end")


class RunInTest(unittest.TestCase):
    """After the start, before the record may close."""

    def test_a_tyre_is_run_in_locked_out_pulled_again_and_closed_again(self) -> None:
        came = to_the_end(Work(family="tyre"))
        self.assertEqual(
            came[came.index("close.start") :],
            [
                "close.start",
                "close.run_in",
                "close.again",  # entered
                "close.again",  # signed
                "close.open",
                "close.rerun.ring_driver",
                "close.rerun.ring_driven",
                "close.torque",
                "close.look",
                "close.count",
                "close.guard",
                "close.locks",
                "close.start",
                "close.why",
                "close.hand",
                "close.sign",
            ],
        )

    def test_how_long_it_ran_is_said_and_held_against_the_card(self) -> None:
        work = Work(family="gear", card={"rerun_minutes": 60})
        work.until("close.run_in")
        self.assertEqual(work.enter("close.run_in", {"what": "run under load"}).verdict, "over")
        self.assertEqual(work.enter("close.run_in", {"what": "run under load", "minutes": 45}).verdict, "over")
        self.assertNotIn(
            work.enter("close.run_in", {"what": "run under load", "minutes": 61}).verdict, ("over", "incomplete")
        )
        self.assertIn("close.rerun.flange", keys_of(work))

    def test_where_it_cannot_be_stopped_the_lead_signs_for_a_day_and_nothing_closes_before(self) -> None:
        work = Work(family="tyre")
        work.until("close.run_in")
        answer = {"what": "cannot be stopped for it now", "due": "2026-06-02", "why": "the kiln is on"}
        self.assertEqual(work.enter("close.run_in", answer).verdict, "over")
        self.assertEqual((work.state("close.run_in"), work.state("close.hand")), (StepState.OVER, StepState.BLOCKED))
        work.sign("close.run_in", SignatureKind.AUTHORISE)
        self.assertEqual(to_the_end(work), ["close.why", "close.hand", "close.sign"])

    def test_the_paper_may_not_ask_for_it_and_where_no_circle_is_pulled_there_is_nothing_to_pull_again(self) -> None:
        work = Work(family="tyre")
        work.card["run_in"] = words(RUN_IN[1])
        self.assertNotIn("close.run_in", keys_of(work))
        self.assertNotIn("close.run_in", keys_of(Work(family="gear")))
        asked = Work(family="gear")
        asked.card["run_in"] = words(RUN_IN[0])
        self.assertIn("close.run_in", keys_of(asked))
        self.assertNotIn("close.run_in", keys_of(Work(family="jaw, curved", card={"rerun_minutes": 60})))


class TwoCirclesTest(unittest.TestCase):
    """By turns, or one after the other: the card says."""

    def presets(self, work: Work) -> dict[str, dict[str, object]]:
        """What the bench is given for each pull of a ring."""
        steps = {now.step.key: now.step.form for now in work.route().steps if now.step.key.startswith("couple.ring_")}
        return {key: dict(form.preset) for key, form in steps.items() if isinstance(form, BenchForm)}

    def test_a_tyre_goes_by_turns_unless_its_paper_has_it_otherwise(self) -> None:
        work = Work(family="tyre")
        by_turns = self.presets(work)
        self.assertEqual(list(by_turns), ["couple.ring_driver"])
        self.assertEqual(by_turns["couple.ring_driver"]["passes"], "half turns")
        self.assertIn("beside", by_turns["couple.ring_driver"])
        work.card["circles_by"] = words(CIRCLES_BY[1])
        apart = self.presets(work)
        self.assertEqual(list(apart), ["couple.ring_driver", "couple.ring_driven"])
        self.assertFalse([key for key, preset in apart.items() if "beside" in preset])
        work.card["circles_by"] = words(BY_TURNS)
        work.card["bolt_passes"] = words("half, full")
        rising = self.presets(work)
        self.assertEqual([preset["passes"] for preset in rising.values()], [[0.5, 1.0], [0.5, 1.0]])

    def test_metal_on_metal_is_over_and_so_is_a_gap_at_the_split_that_is_too_wide(self) -> None:
        work = Work(family="tyre", card={"split_gap_max_mm": 4.0, "ring_clear_mm": 0.1})
        work.until("couple.tyre")
        tyre = {**work.fill("couple.tyre"), "split_mm": 5.0}
        self.assertEqual(work.enter("couple.tyre", tyre).verdict, "over")
        work.enter("couple.tyre", {**tyre, "split_mm": 3.0})
        work.until("couple.metal")
        for feeler, verdict in ((0.0, "over"), (0.05, "over"), (0.3, "inside")):
            work.until("couple.metal")
            self.assertEqual(work.enter("couple.metal", {"feeler_mm": feeler, "split_mm": 3.0}).verdict, verdict)
