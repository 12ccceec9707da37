"""Wear and drift: simulated truths, one bad reading, jumps, breaks, and where nothing can be said."""

import json
import random
import unittest
from datetime import UTC, date, datetime, timedelta

from hypothesis import given, settings
from hypothesis import strategies as st

from millwright.benches.register import evaluate_json
from millwright.benches.wear.evaluate import evaluate
from millwright.benches.wear.io import WearBreak, WearInput, WearReading, WearResult
from millwright.benches.wear.trend import MOST_FITTED
from millwright.errors import UnusableInput
from millwright.rig.worn import TrueWear

from .dear import dear

START = datetime(2025, 1, 1, 12, tzinfo=UTC)
LIMIT = 4.0
MONTHLY = [30 * i for i in range(12)]
A_DAY = 1.0  # days: what rounding to whole days may do


def on(days: float) -> date:
    return (START + timedelta(days=days)).date()


def read(truth: TrueWear, days: list[int], seed: int = 1, **how: float | int | None) -> list[WearReading]:
    return truth.read(days, sigma=0.05, shows=0.05, chance=random.Random(seed), **how)  # type: ignore[arg-type]


def trend(readings: list[WearReading], **more: object) -> WearResult:
    today = max(one.at for one in readings).date()
    given = {"readings": readings, "plus_minus": 0.1, "limit": LIMIT, "today": today, **more}
    return evaluate(WearInput(**given))  # type: ignore[arg-type]


def codes(result: WearResult) -> set[str]:
    return {one.code for one in result.says}


_DAYS = st.lists(st.integers(0, 4000), min_size=1, max_size=30)


class AnyReadingsTest(unittest.TestCase):
    @settings(max_examples=150, deadline=None, derandomize=True)
    @given(_DAYS, st.floats(0.001, 1e4), st.floats(-1e5, 1e5), st.randoms(use_true_random=False))
    def test_are_answered_with_days_in_their_order_and_a_line_inside_its_band(
        self, days: list[int], half: float, level: float, chance: random.Random
    ) -> None:
        value = level
        readings = []
        for day in sorted(days):
            value = min(max(value + chance.choice((0.0, 0.1, half, -half, 40.0)), -1e5), 1e5)
            readings.append(WearReading(at=START + timedelta(days=day), value=value))
        result = trend(readings, plus_minus=half)
        self.assertTrue(all(point.low <= point.value <= point.high for point in result.trend))
        reached = result.reached
        told = [] if reached is None else [on for on in (reached.earliest, reached.likely, reached.latest) if on is not None]
        self.assertEqual(told, sorted(told))
        self.assertTrue(all(on <= (result.carries_until or on) for on in told))
        self.assertLessEqual(len(result.set_aside), 1)


class WearTest(unittest.TestCase):
    def test_comes_to_the_limit_on_the_day_a_straight_line_does(self) -> None:
        # By hand: half a millimetre in a hundred days is at 4 mm after eight hundred.
        straight = [WearReading(at=START + timedelta(days=100 * i), value=0.5 * i) for i in range(4)]
        reached = trend(straight).reached
        assert reached is not None and reached.earliest and reached.likely
        self.assertAlmostEqual((reached.likely - on(800)).days, 0, delta=A_DAY)
        self.assertLess(reached.earliest, reached.likely)

    def test_holds_the_true_day_in_nineteen_of_twenty_simulated_lives(self) -> None:
        chance, lives, held = random.Random(3), 300, 0
        for seed in range(lives):
            days = sorted(chance.sample(range(5, 420), chance.choice((5, 8, 14))))
            truth = TrueWear(start=START, a_day=LIMIT / chance.uniform(500, 1500))
            reached = trend(read(truth, days, seed)).reached
            assert reached is not None and reached.earliest is not None
            true = on(truth.reaches(LIMIT))
            held += reached.earliest <= true and (reached.latest is None or true <= reached.latest)
        self.assertGreaterEqual(held / lives, 0.95)

    def test_whoever_tells_less_than_his_readings_scatter_is_given_no_surer_days(self) -> None:
        chance, lives, held = random.Random(5), 200, 0
        for seed in range(lives):
            truth = TrueWear(start=START, a_day=LIMIT / chance.uniform(500, 900))
            days = sorted(chance.sample(range(5, 420), 10))
            result = trend(truth.read(days, sigma=0.25, shows=0.05, chance=random.Random(seed)))
            true = on(truth.reaches(LIMIT))
            days_told = result.reached
            held += days_told is None or (
                days_told.earliest is not None
                and days_told.earliest <= true
                and (days_told.latest is None or true <= days_told.latest)
            )
        self.assertGreaterEqual(held / lives, 0.85)

    def test_is_not_led_astray_by_one_bad_reading(self) -> None:
        truth = TrueWear(start=START, a_day=0.006)
        good, bad = (trend(read(truth, MONTHLY, slip=slip, slipped=1.5)) for slip in (None, 5))
        self.assertEqual((good.set_aside, bad.set_aside), ([], [5]))
        assert good.reached and bad.reached and good.reached.likely and bad.reached.likely
        self.assertLess(abs((good.reached.likely - bad.reached.likely).days), 15)

    def test_says_nothing_before_a_last_reading_that_does_not_belong_is_read_again(self) -> None:
        last = len(MONTHLY) - 1
        result = trend(read(TrueWear(start=START, a_day=0.003), MONTHLY, slip=last, slipped=1.5))
        self.assertIsNone(result.reached)
        self.assertEqual(codes(result), {"cannot_say_last_off"})
        self.assertFalse(result.proven)

    def test_finds_a_jump_and_fits_nothing_across_it(self) -> None:
        jumped = TrueWear(start=START, a_day=0.004, jump=1.2, jump_on=195)
        result = trend(read(jumped, MONTHLY))
        assert result.jump is not None and result.per_month is not None and result.per_month_plus_minus is not None
        self.assertAlmostEqual(result.jump.by, 1.2, delta=0.2)
        self.assertLessEqual(result.jump.after, on(195))
        self.assertGreaterEqual(result.jump.before, on(195))
        true = 0.004 * 30.4375  # mm a month, of the straight parts
        self.assertAlmostEqual(result.per_month, true, delta=result.per_month_plus_minus)
        self.assertGreaterEqual(result.trend[0].at, result.jump.before)

    def test_never_fits_across_a_new_element(self) -> None:
        old = read(TrueWear(start=START, a_day=0.010), MONTHLY)
        begun = START + timedelta(days=350)
        new = read(TrueWear(start=begun, a_day=0.004), MONTHLY, seed=2)
        both = trend([*old, *new], breaks=[WearBreak(at=begun, why="new element")])
        alone = trend(new)
        self.assertEqual(both.per_month, alone.per_month)
        self.assertEqual(both.reached, alone.reached)
        self.assertEqual([run.why for run in both.runs], ["", "new element"])

    def test_cannot_say_where_the_readings_do_not_carry_it(self) -> None:
        truth = TrueWear(start=START, a_day=0.004)
        few = trend(read(truth, MONTHLY[:3]))
        scattered = trend(read(TrueWear(start=START, zero=1.0, a_day=1e-9), MONTHLY))
        falling = trend([WearReading(at=START + timedelta(days=30 * i), value=3 - 0.2 * i) for i in range(8)])
        self.assertIn("cannot_say_few", codes(few))
        self.assertIn("cannot_say_flat", codes(scattered))
        self.assertIn("cannot_say_back", codes(falling))
        for result in (few, scattered, falling):
            self.assertTrue(result.reached is None or (result.reached.likely is None and result.reached.latest is None))

    def test_says_nothing_further_on_than_the_readings_carry(self) -> None:
        # Twice the time they cover, and the limit is years away.
        result = trend(read(TrueWear(start=START, a_day=0.0005), [10 * i for i in range(12)]))
        assert result.reached is not None
        self.assertEqual(result.reached.earliest, result.carries_until)
        self.assertLessEqual(result.carries_until or date.max, on(3 * 110 + 1))

    def test_refuses_a_day_that_has_not_come_yet_where_it_was_typed(self) -> None:
        with self.assertRaises(UnusableInput) as caught:
            trend(read(TrueWear(start=START), MONTHLY), today=on(100))
        self.assertEqual(caught.exception.problems[0].path, "readings.4.at")

    def test_takes_days_and_moments_as_they_are_written_and_refuses_what_is_neither(self) -> None:
        def sent(*at: str) -> str:
            readings = [{"at": one, "value": float(i)} for i, one in enumerate(at)]
            return json.dumps({"readings": readings, "today": "2026-11-27"})

        result = evaluate_json("wear", sent("2026-01-31", "2026-02-28T06:40:00+02:00"))
        self.assertEqual([one.at.isoformat() for one in result.drawn], ["2026-01-31T12:00:00", "2026-02-28T04:40:00"])  # type: ignore[attr-defined]
        with self.assertRaises(UnusableInput) as caught:
            evaluate_json("wear", sent("2026-01-31", "last week"))
        [problem] = caught.exception.problems
        self.assertEqual((problem.path, problem.message), ("readings.1.at", "Enter a day: 2026-03-31."))
        with self.assertRaises(UnusableInput) as caught:
            evaluate_json("wear", sent("0292-09-22T20:26:03Z", "2026-01-31"))
        self.assertEqual(caught.exception.problems[0].path, "readings.0.at")

    @dear
    def test_takes_a_hundred_thousand_readings_and_draws_a_few_hundred(self) -> None:
        chance, truth = random.Random(4), TrueWear(start=START, a_day=0.006)
        many = [
            WearReading(at=START + timedelta(minutes=5 * i), value=truth.at(i / 288) + chance.gauss(0, 0.05))
            for i in range(100_000)
        ]
        result = trend(many)
        assert result.per_month is not None and result.per_month_plus_minus is not None
        self.assertAlmostEqual(result.per_month, 0.006 * 30.4375, delta=result.per_month_plus_minus)
        self.assertLessEqual(len(result.drawn), MOST_FITTED)
