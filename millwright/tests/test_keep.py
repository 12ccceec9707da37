"""What is due, what drifts and what a job comes to: from records that are made up here, against days counted by hand."""

import unittest
from collections.abc import Mapping
from dataclasses import replace
from datetime import UTC, date, datetime, timedelta
from typing import Any
from unittest import mock

from millwright.card.values import OfMaterial, Source, Value
from millwright.job.formerly import formerly
from millwright.keep.due import due
from millwright.keep.due_kinds import Due, DueKind
from millwright.keep.past import Entered, KeptLine, Look, PastJob, Postponed, Read
from millwright.keep.series import series_of
from millwright.keep.told import told, wandered
from millwright.plan.upkeep import tasks_of
from millwright.scope import Scope, Task

from .work import Work

TODAY = date(2026, 11, 27)
PAPER = Source(kind="sample", document="Trial sheet")
GREASE = "Maltster blue"


def at(day: str, hour: int = 12) -> datetime:
    return datetime.fromisoformat(day).replace(hour=hour, tzinfo=UTC)


def figure(value: float, means: str = "", of: Mapping[str, float] = {}) -> Value:
    others = [OfMaterial(material=name, value=one) for name, one in of.items()]
    return Value(value=value, means=means, of_material=others, source=PAPER)


def line(
    family: str = "gear",
    *,
    looks: tuple[Look, ...] = (),
    postponed: tuple[Postponed, ...] = (),
    runs: float | None = None,
    **card: Any,
) -> KeptLine:
    way = "tapered wedge" if family == "screw-conveyor drive" else "keyed, slip fit"
    spec = Work(family=family, held=(way, way)).line.model_copy(update={"hours_a_day": runs})
    return KeptLine(spec=spec, card=card, tasks=tasks_of(spec), looks=looks, postponed=postponed)


def job(number: int, day: str, *reads: Read, scope: Scope = Scope.FIT, moves: tuple[datetime, ...] = ()) -> PastJob:
    """Done in a day; what it read without a time of its own it read that day."""
    started = at(day, 6)
    return PastJob(number=number, scope=scope, started=started, closed=at(day, 16), reads=reads, moves=moves, id=str(number))


def read(step: str, day: str, bench: str = "", hour: int = 12, **inputs: Any) -> Read:
    means = formerly(step, inputs)
    return Read(step=step, at=at(day, hour), inputs=inputs, means=means, bench=bench, by="A", title=step)


def greased(day: str, product: str = GREASE, step: str = "couple.grease") -> Read:
    return read(step, day, "grease", product=product, grams=400.0, batch="7")


def only(found: list[Due], kind: DueKind) -> Due:
    """The one of that kind."""
    mine = [one for one in found if one.kind is kind]
    assert len(mine) == 1, found
    return mine[0]


class DueTest(unittest.TestCase):
    def test_grease_is_due_by_the_calendar_from_the_day_it_was_filled(self) -> None:
        found = due(line(grease_months=figure(6)), [job(1, "2026-08-31", greased("2026-08-31"))], TODAY)
        self.assertEqual(only(found, DueKind.GREASE).on, date(2027, 2, 28))
        self.assertEqual(only(found, DueKind.GREASE).task, Task.GREASE)

    def test_the_short_job_that_does_it_moves_the_next_day(self) -> None:
        card = line(grease_months=figure(6), grease_product=figure(0, GREASE))
        fitted = job(1, "2026-01-10", greased("2026-01-10"))
        again = job(2, "2026-07-20", greased("2026-07-20", step="keep.grease"), scope=Scope.UPKEEP)
        self.assertEqual(only(due(card, [fitted], TODAY), DueKind.GREASE).on, date(2026, 7, 10))
        self.assertEqual(only(due(card, [fitted, again], TODAY), DueKind.GREASE).on, date(2027, 1, 20))

    def test_grease_goes_by_the_product_that_is_in(self) -> None:
        card = line(grease_months=figure(6, of={"Maltster long": 24}), grease_product=figure(0, GREASE))
        long = only(due(card, [job(1, "2026-03-01", greased("2026-03-01", "maltster LONG"))], TODAY), DueKind.GREASE)
        unknown = only(due(card, [job(1, "2026-03-01", greased("2026-03-01", "Kiln grease"))], TODAY), DueKind.GREASE)
        self.assertEqual(long.on, date(2028, 3, 1))
        self.assertIsNone(unknown.on)
        self.assertIn("no interval for this product", str(unknown.why))

    def test_hours_of_running_count_where_they_come_first_and_by_the_meter_where_there_is_one(self) -> None:
        filled = [job(1, "2026-01-01", greased("2026-01-01"))]
        card: dict[str, Any] = {"grease_months": figure(24), "grease_hours": figure(2400)}
        # 2400 h are 100 days all day long, 300 days at 8 h, 200 days at 12 h.
        for kept, days in (
            (line(**card), 100),
            (line(runs=8.0, **card), 300),
            (
                line(runs=8.0, looks=(Look(at=at("2026-02-01"), hours=1000), Look(at=at("2026-02-21"), hours=1240)), **card),
                200,
            ),
        ):
            self.assertEqual(only(due(kept, filled, TODAY), DueKind.GREASE).on, date(2026, 1, 1) + timedelta(days=days))

    def test_bolts_that_were_left_open_after_the_run_are_due_the_day_that_was_signed_for(self) -> None:
        left = read("close.run_in", "2026-10-01", what="cannot be stopped for it now", due="2026-10-20")
        fitted = job(1, "2026-10-01", left)
        pulled = job(2, "2026-10-18", read("keep.rerun.flange", "2026-10-18", "tighten"), scope=Scope.UPKEEP)
        self.assertEqual(only(due(line(), [fitted], TODAY), DueKind.RETORQUE).on, date(2026, 10, 20))
        self.assertEqual(due(line(), [fitted, pulled], TODAY), [])

    def test_the_first_inspection_comes_once_and_then_the_usual_one(self) -> None:
        card = line(first_inspection_months=figure(3), inspection_months=figure(12))
        fitted = job(1, "2026-01-31", read("close.start", "2026-01-31"))
        looked = job(2, "2026-05-10", read("found.look", "2026-05-10"), scope=Scope.CHECK)
        self.assertEqual(only(due(card, [fitted], TODAY), DueKind.FIRST_INSPECTION).on, date(2026, 4, 30))
        self.assertEqual(only(due(card, [fitted, looked], TODAY), DueKind.INSPECTION).on, date(2027, 5, 10))

    def test_put_off_once_it_is_not_put_off_when_it_was_done_since(self) -> None:
        put_off = Postponed(kind="grease it", since=date(2026, 1, 10), until=date(2027, 12, 1), reason="harvest", by="Lead")
        card = line(grease_months=figure(6), postponed=(put_off,))
        fitted = job(1, "2026-01-10", greased("2026-01-10"))
        again = job(2, "2026-07-20", greased("2026-07-20"), scope=Scope.UPKEEP)
        self.assertEqual(only(due(card, [fitted], TODAY), DueKind.GREASE).on, date(2027, 12, 1))
        self.assertEqual(only(due(card, [fitted, again], TODAY), DueKind.GREASE).on, date(2027, 1, 20))

    def test_a_coupling_that_went_on_since_the_last_look_is_inspected_for_the_first_time(self) -> None:
        card = line(first_inspection_months=figure(3), inspection_months=figure(12))
        looked = job(1, "2026-01-10", read("found.look", "2026-01-10"), scope=Scope.CHECK)
        fitted = job(2, "2026-02-28", read("close.start", "2026-02-28"))
        self.assertEqual(only(due(card, [looked, fitted], TODAY), DueKind.FIRST_INSPECTION).on, date(2026, 5, 28))

    def test_two_readings_of_one_hour_tell_no_hours_a_day(self) -> None:
        looks = tuple(Look(at=at("2026-02-01", hour), hours=1000.0 + hour) for hour in (10, 11))
        card: dict[str, Any] = {"grease_hours": figure(2400)}
        by_register = only(
            due(line(runs=8.0, looks=looks, **card), [job(1, "2026-01-01", greased("2026-01-01"))], TODAY), DueKind.GREASE
        )
        self.assertIn("8 h a day, as registered", str(by_register.why))

    def test_what_is_read_or_changed_again_is_due_from_the_last_time(self) -> None:
        day = "2026-01-31"
        done = job(1, day, blocks(day), read("couple.align", day))
        card: dict[str, Any] = {"play_months": figure(1), "alignment_months": figure(24)}
        found = {one.kind: one.on for one in due(line("claw with elastomer blocks", runs=16.0, **card), [done], TODAY)}
        self.assertEqual(found, {DueKind.PLAY: date(2026, 2, 28), DueKind.ALIGNMENT: date(2028, 1, 31)})
        hung = line("shaft-mounted reducer", runs=16.0, oil_months=figure(12), oil_hours=figure(1600))
        filled = job(1, day, read("couple.oil", day))
        self.assertEqual(only(due(hung, [filled], TODAY), DueKind.OIL).on, date(2026, 5, 11))

    def test_nothing_is_due_that_no_job_on_this_line_does(self) -> None:
        late = line("jaw, curved", retorque_months=figure(12), grease_months=figure(6), alignment_months=figure(3))
        done = job(1, "2025-01-31", read("close.torque", "2025-01-31"), read("couple.align", "2025-01-31"))
        found = due(late, [done], TODAY)
        self.assertEqual([one.kind for one in found], [DueKind.ALIGNMENT])
        self.assertLessEqual({one.task for one in found}, {*tasks_of(late.spec)})

    def test_a_rule_that_falls_over_takes_no_other_day_away_and_says_so(self) -> None:
        broken = read("couple.align", "2026-01-31")
        card = line(grease_months=figure(6), packing_days=figure(7), packing_total_deg=figure(90))
        told: list[DueKind] = []
        with mock.patch("millwright.keep.due.months_on", side_effect=OverflowError):
            found = due(card, [job(1, "2026-01-31", greased("2026-01-31"), broken)], TODAY, told.append)
        self.assertEqual(told, [DueKind.GREASE])
        self.assertIn("cannot be worked out", str(only(found, DueKind.GREASE).why))

    def test_what_was_never_done_in_any_record_is_not_asked_for(self) -> None:
        card = line(
            grease_months=figure(6), alignment_months=figure(12), closed_check_months=figure(12), inspection_months=figure(6)
        )
        self.assertEqual(due(card, [], TODAY), [])

    def test_what_a_round_saw_stays_due_until_a_job_was_there(self) -> None:
        looks = (Look(at=at("2026-11-01"), leaks="none"), Look(at=at("2026-11-20"), leaks="drips", by="J. T."))
        seen = only(due(line(looks=looks), [job(1, "2026-05-01")], TODAY), DueKind.SEEN)
        self.assertEqual(seen.on, date(2026, 11, 20))
        self.assertEqual(due(line(looks=looks), [job(1, "2026-05-01"), job(2, "2026-11-22")], TODAY), [])

    def test_the_round_is_due_from_the_last_look(self) -> None:
        looks = (Look(at=at("2026-11-13"), leaks="none"),)
        started = job(1, "2026-11-01", read("close.start", "2026-11-01"))
        self.assertEqual(only(due(line(looks=looks, round_days=figure(14)), [started], TODAY), DueKind.ROUND).on, TODAY)

    def test_packing_rings_are_due_once_the_nuts_were_turned_by_their_total(self) -> None:
        card = line("screw-conveyor drive", packing_days=figure(30), packing_total_deg=figure(200))
        new = job(1, "2026-06-01", read("couple.nuts", "2026-06-01", turn_deg=60.0))
        later = [
            job(n, day, read("keep.packing", day, turn_deg=turned, rings="stay in"), scope=Scope.UPKEEP)
            for n, day, turned in ((2, "2026-07-01", 90.0), (3, "2026-08-01", 60.0))
        ]
        self.assertEqual(only(due(card, [new, later[0]], TODAY), DueKind.PACKING).on, date(2026, 7, 31))
        self.assertEqual(only(due(card, [new, *later], TODAY), DueKind.RINGS).on, date(2026, 8, 1))
        [turned] = series_of(card, [new, *later])
        self.assertEqual(([p.value for p in turned.points], turned.limit), ([60.0, 150.0, 210.0], 200.0))
        renewed = job(4, "2026-08-05", read("keep.packing", "2026-08-05", turn_deg=60.0, rings="renewed"), scope=Scope.UPKEEP)
        self.assertNotIn(DueKind.RINGS, [one.kind for one in due(card, [new, *later, renewed], TODAY)])

    def test_what_the_lead_put_off_is_due_on_the_later_day_until_it_is_done(self) -> None:
        put_off = Postponed(kind="grease it", since=date(2026, 1, 10), until=date(2026, 9, 1), reason="harvest", by="Lead")
        card = line(grease_months=figure(6), postponed=(put_off,))
        fitted = job(1, "2026-01-10", greased("2026-01-10"))
        again = job(2, "2026-08-20", greased("2026-08-20", step="keep.grease"), scope=Scope.UPKEEP)
        late = only(due(card, [fitted], TODAY), DueKind.GREASE)
        self.assertEqual((late.on, late.was, late.postponed), (date(2026, 9, 1), date(2026, 7, 10), put_off))
        done = only(due(card, [fitted, again], TODAY), DueKind.GREASE)
        self.assertEqual((done.on, done.was), (date(2027, 2, 20), None))


def blocks(day: str, zero: float = 3.0) -> Read:
    return read("couple.wear", day, zero_mm=zero, twist_mm=1.5)


def marks(begun: str, zero: float, a_month: float, months: int) -> tuple[Look, ...]:
    """Read every thirty days, straight on."""
    return tuple(
        Look(at=at(begun) + timedelta(days=30 * i), wear_mm=round(zero + a_month * i, 2), by="A")
        for i in range(1, months + 1)
    )


class SeriesTest(unittest.TestCase):
    def test_what_wears_is_due_on_the_first_day_it_may_be_at_its_limit(self) -> None:
        fitted = job(1, "2026-01-01", blocks("2026-01-01"))
        kept = line("claw with elastomer blocks", looks=marks("2026-01-01", 3.0, 0.2, 10), wear_limit_mm=figure(4.0))
        found = only(due(kept, [fitted], TODAY), DueKind.WORN)
        # By hand: 0.2 a thirty days is at 4 after 600 days.
        straight = date(2026, 1, 1) + timedelta(days=600)
        assert found.on is not None
        self.assertLess(found.on, straight)
        self.assertLess((straight - found.on).days, 90)

    def test_a_forecast_that_was_put_off_stays_so_while_its_day_moves_with_the_readings(self) -> None:
        fitted = job(1, "2026-01-01", blocks("2026-01-01"))
        put_off = Postponed(
            kind="worn to its limit", since=date(2026, 1, 1), until=date(2027, 9, 30), reason="ordered", by="L"
        )
        days = []
        for months in (8, 10):
            looks = marks("2026-01-01", 3.0, 0.2, months)
            kept = line("claw with elastomer blocks", looks=looks, wear_limit_mm=figure(4.0), postponed=(put_off,))
            found = only(due(kept, [fitted], TODAY), DueKind.WORN)
            self.assertEqual(found.on, date(2027, 9, 30))
            days.append(found.was)
        self.assertNotEqual(*days)

    def test_a_new_set_starts_its_trend_at_its_own_zero(self) -> None:
        fitted = job(1, "2025-01-01", blocks("2025-01-01"))
        out = read("off.old", "2025-12-01", hour=10, number="lot 31", fate="scrap, and marked so")
        changed = job(2, "2025-12-01", out, blocks("2025-12-01", 2.5), scope=Scope.ELEMENT)
        looks = (*marks("2025-01-01", 3.0, 0.3, 10), *marks("2025-12-01", 2.5, 0.1, 5))
        wear = next(
            one for one in series_of(line("claw with elastomer blocks", looks=looks), [fitted, changed]) if one.key == "wear"
        )
        trend = wear.trend(TODAY)
        assert trend is not None and trend.per_month is not None
        self.assertEqual([round(p.value, 2) for p in wear.points[-6:]], [0.0, 0.1, 0.2, 0.3, 0.4, 0.5])
        self.assertAlmostEqual(trend.per_month, 0.1 * 30.4375 / 30, delta=0.005)
        self.assertEqual(trend.runs[-1].why, "new element, job 2")

    def test_where_no_zero_was_noted_the_first_reading_of_a_set_is_its_zero(self) -> None:
        fitted = job(1, "2025-01-01", blocks("2025-01-01"))
        changed = job(2, "2025-12-01", read("off.old", "2025-12-01", fate="scrap, and marked so"), scope=Scope.ELEMENT)
        looks = (
            Look(at=at("2025-06-01"), wear_mm=4.0),
            Look(at=at("2026-01-01"), wear_mm=2.0),
            Look(at=at("2026-02-01"), wear_mm=2.3),
        )
        wear = series_of(line("claw with elastomer blocks", looks=looks), [fitted, changed])[0]
        self.assertEqual([round(p.value, 2) for p in wear.points], [0.0, 1.0, 0.0, 0.3])

    def test_a_mark_that_shrinks_with_wear_wears_downward_and_not_upward(self) -> None:
        noted = read("couple.wear", "2026-01-01", zero_mm=8.0, grows="shrinks")
        looks = (Look(at=at("2026-02-01"), wear_mm=8.1), Look(at=at("2026-03-01"), wear_mm=7.5))
        wear = series_of(line("claw with elastomer blocks", looks=looks), [job(1, "2026-01-01", noted)])[0]
        self.assertEqual([round(p.value, 2) for p in wear.points], [0.0, -0.1, 0.5])

    def test_an_element_that_went_back_in_goes_on_where_it_was(self) -> None:
        fitted = job(1, "2025-01-01", blocks("2025-01-01"))
        out = read("off.old", "2025-12-01", hour=10, fate="whole: it goes back in")
        changed = job(2, "2025-12-01", out, scope=Scope.ELEMENT)
        looks = marks("2025-01-01", 3.0, 0.3, 14)
        wear = series_of(line("claw with elastomer blocks", looks=looks), [fitted, changed])[0]
        self.assertEqual([one.why for one in wear.breaks], ["fitted, job 1"])

    def test_the_alignment_as_found_belongs_to_what_was_left_and_the_move_begins_anew(self) -> None:
        def aligned(step: str, day: str, offset: float, hour: int) -> Read:
            check = {
                "code": "offset",
                "unit": "mm",
                "value": offset,
                "max": 0.3,
                "source": "x",
                "plus_minus": 0.01,
                "against": "coupling",
            }
            return replace(read(step, day, "alignment", hour), checks=[check], offset=(offset, 0.0))

        left = job(1, "2026-01-01", aligned("couple.align", "2026-01-01", 0.02, 14))
        found = aligned("found.align", "2026-06-01", 0.12, 9)
        again = aligned("set.align", "2026-06-01", 0.01, 15)
        moved = job(2, "2026-06-01", found, again, scope=Scope.ALIGN, moves=(at("2026-06-01", 11),))
        offset = next(one for one in series_of(line("jaw, curved"), [left, moved]) if one.key == "offset")
        trend = offset.trend(TODAY)
        assert trend is not None
        self.assertEqual([p.value for p in offset.points], [0.02, 0.12, 0.01])
        self.assertEqual(trend.runs[-1].why, "moved, job 2")
        self.assertEqual(trend.runs[-1].start, trend.runs[-1].start.replace(hour=11))
        moved_on = replace(moved, moves=(at("2026-06-01", 11), at("2026-06-01", 14)))
        anew = next(one for one in series_of(line("jaw, curved"), [left, moved_on]) if one.key == "offset")
        self.assertEqual([one.at.hour for one in anew.breaks], [6, 11], "from its first move on it is another trend")
        refit = replace(found, means=formerly("off.align", {}))
        self.assertEqual(len(wandered([left, job(3, "2026-06-01", refit, scope=Scope.REFIT)])), 1)
        (one,) = wandered([left, moved])
        self.assertAlmostEqual(one.by_mm, 0.10)
        self.assertTrue(one.moved)

    def test_an_angle_that_turned_over_got_no_better_and_the_couplings_own_offset_is_the_one_that_is_shown(self) -> None:
        def check(code: str, value: float, unit: str, against: str = "") -> dict[str, Any]:
            more = {"max": 0.5, "source": "x", "plus_minus": 0.01, "against": against}
            return {"code": code, "unit": unit, "value": value, **more}

        checks = [check("offset", 0.4, "mm", "running target"), check("offset", 0.1, "mm"), check("angle", -0.3, "mm/m")]
        left = job(1, "2026-01-01", replace(read("couple.align", "2026-01-01", "alignment"), checks=checks))
        shown = {one.key: [p.value for p in one.points] for one in series_of(line("jaw, curved"), [left])}
        self.assertEqual((shown["offset"], shown["angle"]), ([0.1], [0.3]))

    def test_of_the_closed_coupling_only_what_was_found_and_what_was_left_counts(self) -> None:
        def measured(step: str, day: str, spread: float, hour: int) -> Read:
            check = {"code": "spread", "unit": "mm", "value": spread, "max": 0.3, "source": "x", "plus_minus": 0.02}
            return replace(read(step, day, "gap", hour), checks=[check])

        left = job(
            1,
            "2026-01-01",
            measured("couple.sleeve", "2026-01-01", 0.5, 10),
            measured("couple.sleeve", "2026-01-01", 0.1, 14),
        )
        found = job(2, "2026-06-01", measured("found.sleeve", "2026-06-01", 0.15, 9), scope=Scope.CHECK)
        closed = next(one for one in series_of(line("gear"), [left, found]) if one.key == "closed")
        self.assertEqual(([p.value for p in closed.points], closed.limit), ([0.1, 0.15], 0.3))

    def test_bolts_that_still_turned_are_counted_in_the_first_round_alone(self) -> None:
        pulls = [{"pass": 1, "bolt": b, "moved": b <= 2} for b in range(1, 9)] + [
            {"pass": 2, "bolt": b, "moved": False} for b in range(1, 9)
        ]
        again = job(1, "2026-06-01", read("close.rerun.flange", "2026-06-01", "tighten", bolts=8, pulls=pulls))
        turned = next(one for one in series_of(line(), [again]) if one.key == "turned")
        self.assertEqual([p.value for p in turned.points], [25.0])


class ToldTest(unittest.TestCase):
    def test_a_job_is_told_by_its_reason_its_parts_and_its_hours(self) -> None:
        reads = (
            read("off.old", "2026-06-01", number="lot 31", fate="scrap, and marked so"),
            read("couple.blocks", "2026-06-01", set="lot 44"),
            read("couple.flange", "2026-06-01", "tighten", torque_nm=50.0, bolts=8),
            greased("2026-06-01"),
            read("close.why", "2026-06-01", cause="wear", found="a third gone"),
        )
        begun = at("2026-06-01", 6)
        stops = (
            (0, "safe.locks", "Lock out"),
            (30, "safe.try", "Lock out"),
            (90, "off.old", "Take off"),
            (690, "close.guard", "Close out"),
            (720, "close.guard", "Close out"),
        )
        times = tuple(
            Entered(at=begun + timedelta(minutes=minutes), stage=stage, means=formerly(step, {}))
            for minutes, step, stage in stops
        )
        done = PastJob(
            number=7, scope=Scope.ELEMENT, started=begun, closed=at("2026-06-01", 18), reads=reads, times=times, title="x"
        )
        found = told(done)
        self.assertEqual((found.reason, found.found), ("wear", "a third gone"))
        self.assertEqual([(p.way, p.number) for p in found.parts], [("out", "lot 31"), ("in", "lot 44")])
        self.assertEqual([(t.torque_nm, t.bolts) for t in found.torques], [(50.0, 8)])
        self.assertEqual(found.greases[0].product, GREASE)
        # The ten hours before the guard are a night: nobody was there.
        self.assertEqual(dict(found.hours), {"Lock out": 0.5, "Take off": 1.0, "Close out": 0.5})
