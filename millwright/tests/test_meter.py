"""Due by hours of running: the meter as it was read, over replaced meters, slips and late signatures."""

import unittest
from dataclasses import replace
from datetime import date, datetime, timedelta

from hypothesis import example, given
from hypothesis import strategies as st

from millwright.keep.due import due
from millwright.keep.due_kinds import DueKind
from millwright.keep.meter import meter_of
from millwright.keep.past import Look

from .test_keep import at, figure, greased, job, line, only, read

DAY = timedelta(days=1)


def looks(*readings: tuple[str, float]) -> tuple[Look, ...]:
    """Rounds that read the hour meter."""
    return tuple(Look(at=at(day), hours=hours) for day, hours in readings)


class DueByHoursTest(unittest.TestCase):
    """What is due when, by hand."""

    def grease(self, hours: float, filled: str, *read: tuple[str, float], today: str) -> date | None:
        """When a line is greased again that was filled on a day, every so many hours."""
        kept = line(looks=looks(*read), grease_hours=figure(hours))
        found = due(kept, [job(1, filled, greased(filled))], date.fromisoformat(today))
        return only(found, DueKind.GREASE).on if found else None

    def test_a_new_meter_is_not_the_old_one_run_backwards(self) -> None:
        read = (("2020-01-01", 100.0), ("2025-06-01", 40_000.0), ("2025-07-01", 10.0), ("2026-01-01", 4_400.0))
        on = self.grease(4_000, "2026-01-01", *read, today="2026-02-01")
        assert on is not None
        # 184 days from 10 to 4,400 h: 23.9 h a day, 168 days from the first of January
        self.assertAlmostEqual((on - date(2026, 6, 17)).days, 0, delta=2)

    def test_a_slip_in_the_last_round_moves_nothing(self) -> None:
        read = (("2026-01-01", 1_000.0), ("2026-02-01", 1_372.0), ("2026-03-01", 1_708.0))
        right = self.grease(4_000, "2026-01-01", *read, today="2026-04-01")
        slipped = self.grease(4_000, "2026-01-01", *read, ("2026-04-01", 208.0), today="2026-04-02")
        gone_on = self.grease(4_000, "2026-01-01", *read, ("2026-04-01", 208.0), ("2026-05-01", 2_440.0), today="2026-05-02")
        self.assertEqual(right, slipped)
        self.assertEqual(right, gone_on)  # 12 h a day throughout

    def test_what_the_meter_has_run_is_due_whatever_it_ran_a_day_before(self) -> None:
        # a year at 4 h a day, filled at 1,440; then all day long: 2,880 h on a grease for 2,000
        read = (("2025-01-01", 0.0), ("2025-12-27", 1_440.0), ("2026-04-26", 4_320.0))
        on = self.grease(2_000, "2025-12-27", *read, today="2026-04-27")
        assert on is not None
        self.assertAlmostEqual((on - (date(2025, 12, 27) + timedelta(days=83))).days, 0, delta=1)

    def test_hours_count_from_the_start_and_not_from_the_signature(self) -> None:
        started = read("close.start", "2026-11-02")
        signed = replace(job(1, "2026-11-02", started), closed=at("2026-11-20"))
        found = due(line(runs=24.0, retorque_hours=figure(50)), [signed], date(2026, 11, 3))
        self.assertEqual(only(found, DueKind.RETORQUE).on, date(2026, 11, 4))

    def test_a_pump_that_hardly_runs_is_due_by_the_calendar_and_takes_no_other_day_away(self) -> None:
        kept = line(
            looks=looks(("2025-01-01", 100.0), ("2026-01-01", 101.0)), grease_hours=figure(10_000), grease_months=figure(12)
        )
        found = due(kept, [job(1, "2025-06-01", greased("2025-06-01"))], date(2026, 2, 1))
        self.assertEqual(only(found, DueKind.GREASE).on, date(2026, 6, 1))
        stands = line(looks=looks(("2025-01-01", 100.0), ("2026-01-01", 100.0)), grease_hours=figure(10_000))
        self.assertEqual(due(stands, [job(1, "2025-06-01", greased("2025-06-01"))], date(2026, 2, 1)), [])


class MeterTest(unittest.TestCase):
    """Pieces, whatever was done to the meter."""

    @given(
        rate=st.floats(0.5, 23.5),
        days=st.lists(st.integers(8, 60), min_size=3, max_size=12),
        new_at=st.integers(1, 9),
        slip_at=st.integers(1, 9),
        slip=st.sampled_from((0.1, 10.0, None)),
    )
    @example(rate=1.0, days=[8] * 7, new_at=2, slip_at=5, slip=0.1)
    @example(rate=0.5, days=[8] * 7, new_at=2, slip_at=5, slip=10.0)
    def test_hours_run_and_hours_a_day_come_out_over_a_new_meter_and_a_slip(
        self, rate: float, days: list[int], new_at: int, slip_at: int, slip: float | None
    ) -> None:
        when, total, zero = datetime.fromisoformat("2026-01-01T06:00:00+00:00"), 5_000.0, 0.0
        start, first, shown = when, total, []
        for i, gap in enumerate(days):
            if i == new_at and 1 < i < len(days) - 2:
                zero = total
            shown.append((when, total - zero))
            when, total = when + gap * DAY, total + gap * rate
        shown.append((when, total - zero))
        if slip is not None and 1 < slip_at < len(shown) - 2 and abs(slip_at - new_at) > 2:
            at_, hours = shown[slip_at]
            shown[slip_at] = (at_, hours * slip)
        meter = meter_of(shown)
        run = meter.run_since(start)
        assert run is not None and meter.hours_a_day is not None
        self.assertAlmostEqual(meter.hours_a_day, rate, delta=0.05 * rate + 0.1)
        ran, upto = run
        self.assertAlmostEqual(ran, rate * (upto - start).total_seconds() / 86_400, delta=0.05 * (total - first) + 25)
