"""Hot hubs: what the model says of them, and the run against the clock."""

import json
import math
import unittest
from datetime import timedelta
from functools import partial
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from millwright.benches.heat.io import HeatInput
from millwright.benches.register import as_dict, evaluate_json
from millwright.errors import UnusableInput
from millwright.job import new_entry as entry
from millwright.job.entry import Entry, EntryKind
from millwright.job.hot_run import HeatRun, stand_run
from millwright.job.latest import arrived
from millwright.job.new_entry import OutOfTurn
from millwright.model import read_json
from millwright.plan.hubs.phases import Phase
from millwright.rig.hot_hub import HotHub
from millwright.roles import Role

from .readings import SHRINK, SLIP
from .work import START, Work

HUB = {"material": "steel", "outside_mm": 130.0, "length_mm": 90.0}
PLAN: dict[str, Any] = {
    "bore_mm": 74.962,
    "interference_mm": 0.080,
    "assembly_clearance_mm": 0.045,
    "shaft_c": 21.0,
    "ambient_c": 21.0,
    "hub": HUB,
    "ceiling_c": 180.0,
}
A_SECOND = 1.0
A_TENTH_OF_A_DEGREE = 0.1


def heat(**more: Any) -> dict[str, Any]:
    """What the bench says of the plan with something changed."""
    return as_dict(evaluate_json("heat", json.dumps({**PLAN, **more})))


def taper(**more: Any) -> dict[str, Any]:
    """What the bench says of a taper of 1 in 12 with something changed."""
    cone = {"large_mm": 90.0, "small_mm": 80.0, "length_mm": 120.0}
    return as_dict(evaluate_json("taper", json.dumps({"shaft": cone, "bore": cone, "interference_mm": 0.07, **more})))


class HeatTest(unittest.TestCase):
    """The stated model: growth of the bore, one lump cooling in still air."""

    def test_agrees_with_the_sum_on_paper(self) -> None:
        found = heat()
        # 0.125 to grow, 74.962 x 11.5e-6 a degree: 145 degrees above a shaft of 21; shut 92.8 above it
        self.assertAlmostEqual(found["target_c"], 166.0, delta=A_TENTH_OF_A_DEGREE)
        self.assertAlmostEqual(found["closes_at_c"], 113.8, delta=A_TENTH_OF_A_DEGREE)

    def test_a_hub_loses_its_heat_through_outside_bore_and_both_faces(self) -> None:
        # 60 bore, 110 outside, 80 long: outside 0.02765, bore 0.01508, two faces of 0.00668 m2; 4.193 kg of 470 J/kgK
        steel = {"expansion_per_k": 1.15e-5, "density_kg_m3": 7850.0, "specific_heat_j_kg_k": 470.0}
        hub = {**steel, "outside_mm": 110.0, "length_mm": 80.0}
        found = heat(bore_mm=60.0, hub=hub, film_w_m2_k=20.0, ceiling_c=300.0)
        self.assertAlmostEqual(found["mass_kg"], 4.193, delta=0.001)
        self.assertAlmostEqual(found["tau_s"], 4.193 * 470 / (20 * 0.05608), delta=A_SECOND)

    def test_the_hub_is_at_the_closing_temperature_when_its_carry_ends_and_at_touch_when_it_may_be_touched(self) -> None:
        found = heat()
        for seconds, degrees in ((found["window_s"], found["closes_at_c"]), (found["cool_to_touch_s"], 45.0)):
            cooled = 21.0 + (found["target_c"] - 21.0) * math.exp(-seconds / found["tau_s"])
            self.assertAlmostEqual(cooled, degrees, delta=A_TENTH_OF_A_DEGREE)
        for point in found["curve"]:
            cooled = 21.0 + (found["target_c"] - 21.0) * math.exp(-point["after_s"] / found["tau_s"])
            self.assertAlmostEqual(point["hub_c"], cooled, delta=A_TENTH_OF_A_DEGREE)
            # 74.962 x 11.5e-6 opens 0.000862 a degree
            self.assertAlmostEqual(point["clear_mm"], 0.000862 * (cooled - found["closes_at_c"]), delta=0.0005)
        self.assertGreater(found["curve"][-1]["after_s"], found["window_s"])

    def test_a_heater_takes_what_the_hub_takes_up_over_what_arrives(self) -> None:
        # 6.26 kg of 480 J/kgK from 21 to 166 degrees; in an oven of 200 it comes closer and closer
        induction = heat(heater={"kind": "induction", "power_kw": 4.5, "efficiency": 0.5})
        joules = 6.26 * 480 * 145.0
        self.assertAlmostEqual(induction["heating_s"], joules / (4500 * 0.5), delta=A_SECOND)
        oven = heat(heater={"kind": "oven", "air_c": 200.0})
        reached = 200.0 - (200.0 - 21.0) * math.exp(-oven["heating_s"] / oven["tau_s"])
        self.assertAlmostEqual(reached, oven["target_c"], delta=A_TENTH_OF_A_DEGREE)
        cold = heat(heater={"kind": "oven", "air_c": 150.0})
        self.assertIsNone(cold["heating_s"])
        self.assertIn("Set it higher", " ".join(cold["advice"]))

    def test_a_reading_on_the_way_says_how_far_the_bore_stands_open_now(self) -> None:
        found = heat(readings=[{"after_s": 30, "hub_c": 150.0}])
        self.assertAlmostEqual(found["clear_now_mm"], 0.000862 * (150.0 - found["closes_at_c"]), delta=0.0005)
        self.assertIsNone(heat()["clear_now_mm"])

    def test_a_reading_over_the_ceiling_is_over_whatever_the_target(self) -> None:
        found = heat(readings=[{"after_s": 10, "hub_c": 420.0}])
        self.assertEqual((heat()["verdict"], found["verdict"]), ("close", "over"))
        self.assertIn("read at 420 °C, over its ceiling of 180 °C", found["advice"][0])

    def test_the_carry_is_told_and_that_the_shaft_ends_it(self) -> None:
        self.assertIn("On the cold shaft it grips in seconds", " ".join(heat()["advice"]))

    @settings(max_examples=60)
    @given(st.floats(0.01, 0.12), st.floats(0.0, 0.05), st.floats(5, 60))
    def test_more_room_never_closes_sooner_and_thinner_air_film_never_cools_faster(
        self, room: float, more: float, film: float
    ) -> None:
        less, wider = (heat(assembly_clearance_mm=r, ceiling_c=900.0) for r in (room, room + more))
        self.assertGreaterEqual(wider["window_s"], less["window_s"])
        self.assertGreaterEqual(heat(film_w_m2_k=film)["window_s"], heat(film_w_m2_k=film + 1)["window_s"])

    @settings(max_examples=60)
    @given(st.floats(0.5, 2.0), st.floats(120, 175), st.floats(20, 120))
    def test_readings_over_a_while_teach_how_it_cools_and_readings_seconds_apart_do_not(
        self, share: float, start: float, first: float
    ) -> None:
        planned = heat()["tau_s"]

        def taught(apart: float, off_c: float = 0.0) -> float:
            at = (first, first + apart / 2, first + apart)
            true = [{"after_s": t, "hub_c": 21 + (start - 21) * math.exp(-t / (planned * share))} for t in at]
            true[0]["hub_c"] += off_c
            fitted: float = heat(readings=true)["tau_fitted_s"]
            return fitted / float(planned)

        self.assertAlmostEqual(taught(1.5 * planned) / share, 1.0, delta=0.05)
        for off in (-3.0, 0.0, 3.0):  # a pyrometer in a hurry
            self.assertAlmostEqual(taught(10.0, off), 1.0, delta=0.06)

    def test_above_the_ceiling_it_says_how_cold_the_shaft_would_have_to_be(self) -> None:
        found = heat(ceiling_c=150.0)
        self.assertEqual((found["verdict"], found["within_ceiling"]), ("over", False))
        colder = found["shaft_target_c"]
        shrinks = PLAN["bore_mm"] * 11.5e-6 * (21.0 - colder)
        grows = PLAN["bore_mm"] * 11.5e-6 * (150.0 - 21.0)
        self.assertAlmostEqual(shrinks + grows, 0.125, delta=1e-6)

    def test_an_element_left_inside_has_the_lower_ceiling_and_is_taken_out_first(self) -> None:
        found = heat(elastomer_ceiling_c=90.0)
        self.assertEqual((found["verdict"], found["ceiling_lowest_c"]), ("over", 90.0))
        self.assertIn("Take the elastomer out", found["advice"][0])

    def test_refuses_what_cannot_be_where_it_was_typed(self) -> None:
        rows: dict[str, dict[str, Any]] = {
            "hub.outside_mm": {"hub": {**HUB, "outside_mm": 70.0}},
            "elastomer_ceiling_c": {"elastomer_ceiling_c": 10.0},
            "interference_mm": {"interference_mm": -0.2, "assembly_clearance_mm": 0.0},
            "hub": {"hub": {"outside_mm": 130.0, "length_mm": 90.0}},
            "bore_mm": {"bore_mm": 1e-300},
            "hub.length_mm": {"hub": {**HUB, "length_mm": 5e-324}},
            "hub.outside_mm, a wall of nothing": {"hub": {**HUB, "outside_mm": 74.9625}},
            "readings.1.after_s": {"readings": [{"after_s": 50, "hub_c": 150}, {"after_s": 40, "hub_c": 151}]},
        }
        for path, wrong in rows.items():
            with self.subTest(path), self.assertRaises(UnusableInput) as caught:
                heat(**wrong)
            self.assertIn(path.split(",")[0], [p.path for p in caught.exception.problems])

    def test_a_small_hub_that_is_carried_for_hours_has_no_target_that_leaves_time(self) -> None:
        bush = {"material": "steel", "outside_mm": 32.0, "length_mm": 20.0}
        bore = {"bore_mm": 28.0, "interference_mm": 0.005, "assembly_clearance_mm": 0.02, "slide_s": 1.0}
        found = heat(**bore, hub=bush, ceiling_c=400.0, carry_s=7200.0, film_w_m2_k=1000.0)
        self.assertIsNotNone(found["push_from_c"])
        self.assertIsNone(found["slide_target_c"])


class TaperTest(unittest.TestCase):
    """Draw-up, the blue, and what a miss teaches."""

    @settings(max_examples=60)
    @given(st.floats(0.01, 0.3), st.floats(2, 60))
    def test_draw_up_and_interference_are_inverse(self, interference: float, hand: float) -> None:
        up = taper(interference_mm=interference)["advance_mm"]
        back = taper(interference_mm=interference, hand_tight_standout_mm=hand, fitted_standout_mm=hand + up)
        self.assertAlmostEqual(back["interference_reached_mm"], interference, delta=1e-9)

    def test_after_a_miss_the_next_temperature_is_in_proportion(self) -> None:
        # half the draw-up at 80 above the shaft: 160 above it
        found = taper(attempt={"hub_c": 100.0, "shaft_c": 20.0, "advance_mm": 0.42})
        self.assertAlmostEqual(found["next_hub_c"], 180.0, delta=A_TENTH_OF_A_DEGREE)

    def test_reads_the_blue(self) -> None:
        full, bare = [1.0] * 8, [0.0] * 8
        side = [1.0] * 4 + [0.0] * 4
        rows = {
            "even": [full] * 4,
            "large end only": [full, full, bare, bare],
            "small end only": [bare, bare, full, full],
            "one side": [side] * 4,
            "bare along a line": [[1.0] * 3 + [0.0] + [0.7] * 4] * 4,
            "bare in the middle": [full, bare, bare, full],
        }
        found = {name: taper(contact=contact)["contact_pattern"] for name, contact in rows.items()}
        self.assertEqual(found, {name: name for name in rows})

    def test_refuses_an_empty_map_a_cylinder_and_half_a_measurement(self) -> None:
        cylinder = {"large_mm": 80.0, "small_mm": 80.0, "length_mm": 120.0}
        rows: dict[str, dict[str, Any]] = {
            "contact": {"contact": []},
            "shaft.large_mm": {"shaft": cylinder},
            "hand_tight_standout_mm": {"fitted_standout_mm": 41.0},
            "attempt.advance_mm": {"attempt": {"hub_c": 100.0, "shaft_c": 20.0, "advance_mm": 0.0}},
        }
        for path, wrong in rows.items():
            with self.subTest(path), self.assertRaises(UnusableInput) as caught:
                taper(**wrong)
            self.assertIn(path, [p.path for p in caught.exception.problems])


class RunTest(unittest.TestCase):
    """Events on the server's clock."""

    def run_of(self, *events: tuple[float, str, float | None], plan: dict[str, Any] = PLAN) -> HeatRun:
        """A run after events: seconds from the start, what, and degrees."""
        made = [
            Entry(
                id=str(i),
                number=i,
                step="mount.hot.driver",
                kind=EntryKind.EVENT,
                inputs={"event": event, "hub_c": degrees},
                verdict=None,
                by="A",
                role=Role.MILLWRIGHT,
                at=START + timedelta(seconds=after),
            )
            for i, (after, event, degrees) in enumerate(events)
        ]
        return stand_run(read_json(HeatInput, json.dumps(plan)), made)

    def left_s(self, run: HeatRun) -> float:
        """Seconds from leaving the heater until the bore closes."""
        assert run.out_at is not None and run.closes_at is not None
        return (run.closes_at - run.out_at).total_seconds()

    def test_counts_down_from_the_moment_it_left_the_heater(self) -> None:
        run = self.run_of((0, "on the heater", None), (900, "out of the heater", None))
        self.assertEqual((run.phase, run.out_at, run.tries), (Phase.OUT, START + timedelta(seconds=900), 1))
        self.assertAlmostEqual(self.left_s(run), heat()["window_s"], delta=A_SECOND)

    def test_what_a_hub_came_to_its_shaft_with_is_of_that_try(self) -> None:
        way = (("on the heater", None), ("out of the heater", None), ("hub temperature", 150.0), ("on the shaft", None))
        again = (*way, ("off again", None), ("on the heater", None), ("out of the heater", None), ("on the shaft", None))
        never_there = (*way[:3], *again[-3:])
        for events, expected in ((way, {"x": 150.0}), (again, {}), (never_there, {})):
            with self.subTest(events):
                made = [
                    Entry(
                        id=str(i),
                        number=i,
                        step="x",
                        kind=EntryKind.EVENT,
                        inputs={"event": event, **({"hub_c": degrees} if degrees else {})},
                        verdict=None,
                        by="A",
                        role=Role.MILLWRIGHT,
                        at=START + timedelta(seconds=i),
                    )
                    for i, (event, degrees) in enumerate(events)
                ]
                self.assertEqual(arrived(made), expected)

    def test_a_cooler_reading_brings_the_moment_nearer_a_hotter_one_puts_it_off(self) -> None:
        start = ((0.0, "on the heater", None), (900.0, "out of the heater", None))
        plain = self.left_s(self.run_of(*start))
        cold = self.left_s(self.run_of(*start, (960.0, "hub temperature", 150.0)))
        hot = self.left_s(self.run_of(*start, (960.0, "hub temperature", 172.0)))
        self.assertLess(cold, plain)
        self.assertGreater(hot, plain)

    def test_what_was_read_half_an_hour_before_it_left_says_nothing_of_how_hot_it_left(self) -> None:
        out = (1900.0, "out of the heater", None)
        old = self.left_s(self.run_of((0.0, "on the heater", None), (100.0, "hub temperature", 90.0), out))
        just = self.left_s(self.run_of((0.0, "on the heater", None), (1880.0, "hub temperature", 150.0), out))
        plain = self.left_s(self.run_of((0.0, "on the heater", None), out))
        self.assertEqual(old, plain)
        self.assertLess(just, plain)

    def test_on_its_shaft_no_clearance_is_told_and_no_carry_is_waited_for(self) -> None:
        way = ((0.0, "on the heater", None), (900.0, "out of the heater", None), (930.0, "hub temperature", 160.0))
        carried = self.run_of(*way)
        # 74.962 x 11.5e-6 opens 0.000862 a degree, 160 is 46 above where it closes
        self.assertAlmostEqual(carried.clear_mm or 0.0, 0.000862 * (160.0 - 113.8), delta=0.0005)
        self.assertEqual((carried.window_s, carried.cooling_s), (heat()["window_s"], heat()["cool_to_touch_s"]))
        self.assertEqual((carried.waits or ("",))[0], "carry ends")
        on = self.run_of(*way, (940.0, "on the shaft", None))
        self.assertEqual((on.clear_mm, (on.waits or ("",))[0]), (None, "hub grips"))

    def test_readings_on_the_shaft_make_it_hot_for_longer_and_never_for_less_until_one_shows_it_cold(self) -> None:
        way = ((0.0, "on the heater", None), (900.0, "out of the heater", None), (960.0, "on the shaft", None))
        still = self.run_of(*way).touch_at
        assert still is not None
        takes = (still - START).total_seconds() - 900
        quick = [(980.0 + 60 * i, "hub temperature", 160.0 - 8 * i) for i in range(6)]  # the shaft takes its heat
        self.assertEqual(self.run_of(*way, *quick).touch_at, still)
        fast = [(1600.0 + 200 * i, "hub temperature", 21 + 120 * math.exp(-0.5 * i)) for i in range(3)]
        self.assertEqual(self.run_of(*way, *fast).touch_at, still)
        # later than ten minutes after touching: from 141 to 101 in 1000 s is a tau of 1000 / ln(120 / 80)
        slow = [(2000.0, "hub temperature", 141.0), (3000.0, "hub temperature", 101.0)]
        told = self.run_of(*way, *slow).touch_at
        assert told is not None
        self.assertAlmostEqual((told - START).total_seconds(), 3000 + 1000 / math.log(120 / 80) * math.log(80 / 24), delta=30)
        cold = 900 + 0.7 * takes
        self.assertEqual(self.run_of(*way, (cold, "hub temperature", 40.0)).touch_at, START + timedelta(seconds=cold))
        # twenty seconds after it gripped no hub is cold, whatever was read
        self.assertEqual(self.run_of(*way, (980.0, "hub temperature", 25.0)).touch_at, still)

    def test_against_a_hub_that_gives_its_heat_to_the_shaft_it_is_never_called_cold_while_it_burns(self) -> None:
        """The hub and the shaft in it, which meet within minutes and then cool together."""
        for bore, outside, length in ((75.0, 150.0, 90.0), (100.0, 180.0, 110.0), (160.0, 280.0, 160.0)):
            plan = {**PLAN, "bore_mm": bore, "hub": {"material": "steel", "outside_mm": outside, "length_mm": length}}
            share = bore**2 / (outside**2 - bore**2)  # of the hub's heat that the shaft inside it takes
            hub = HotHub(
                ambient_c=21, heater_c=300, heating_tau_s=600, cooling_tau_s=heat(**plan)["tau_s"], shaft_share=share
            )
            true_c = partial(hub.on_the_shaft_c, heat(**plan)["heat_to_c"])
            way = ((0.0, "on the heater", None), (900.0, "out of the heater", None), (960.0, "on the shaft", None))
            for read_at in ((), (60, 660), (120, 900), (700, 1500), (1200, 3000)):
                reads = [(960.0 + after, "hub temperature", true_c(after)) for after in read_at]
                touch = self.run_of(*way, *reads, plan=plan).touch_at
                assert touch is not None
                after = (touch - START).total_seconds() - 960
                self.assertLess(true_c(after), 50.0, (bore, read_at))

    def test_it_may_leave_the_heater_hot_enough_soaked_and_read_a_moment_ago(self) -> None:
        on = (0.0, "on the heater", None)
        target, ceiling = self.run_of(on).target_c, self.run_of(on).ceiling_c
        for read, ready in ((None, "read it"), (target - 20, "wait"), (target + 1, "go"), (ceiling + 1, "over its ceiling")):
            events = [on] if read is None else [on, (500.0, "hub temperature", read)]
            self.assertEqual(self.run_of(*events).ready, ready)
        read_at = self.run_of(on, (500.0, "hub temperature", target + 1)).ready_until
        assert read_at is not None
        self.assertEqual((read_at - START).total_seconds(), 560)

    def test_the_hottest_it_was_ever_read_is_kept_where_it_is_over_its_ceiling(self) -> None:
        hot = self.run_of((0.0, "on the heater", None), (900.0, "hub temperature", 420.0), (1000.0, "pulled off", None))
        self.assertEqual((hot.too_hot_c, hot.ceiling_c), (420.0, 180.0))
        self.assertIsNone(self.run_of((0.0, "on the heater", None), (900.0, "hub temperature", 180.0)).too_hot_c)

    def test_a_second_press_does_not_start_the_countdown_again(self) -> None:
        once = ((0.0, "on the heater", None), (900.0, "out of the heater", None))
        self.assertEqual(self.run_of(*once, (960.0, "out of the heater", None)), self.run_of(*once))

    def test_pulled_off_it_starts_again_and_the_try_is_counted(self) -> None:
        first = ((0.0, "on the heater", None), (900.0, "out of the heater", None), (1000.0, "pulled off", None))
        run = self.run_of(*first)
        self.assertEqual((run.phase, run.closes_at, run.tries), (Phase.COLD, None, 1))
        again = self.run_of(*first, (4000.0, "on the heater", None), (4900.0, "out of the heater", None))
        self.assertEqual((again.tries, again.phase), (2, Phase.OUT))

    def test_an_event_counts_from_when_it_happened_not_from_when_it_was_sent(self) -> None:
        work = Work(held=(SHRINK, SLIP))
        work.until("mount.hot.driver")
        work.enter("mount.hot.driver", {"event": "on the heater"}, EntryKind.EVENT)
        late = work.enter("mount.hot.driver", {"event": "out of the heater", "ago_s": 40}, EntryKind.EVENT)
        read = work.enter("mount.hot.driver", {"event": "hub temperature", "hub_c": 150, "ago_s": 90}, EntryKind.EVENT)
        plan = work.route().find("prepare.heat.driver")
        assert plan is not None and plan.current is not None
        events = [e for e in work.entries if e.kind is EntryKind.EVENT]
        run = stand_run(read_json(HeatInput, json.dumps(plan.current.inputs)), events)
        self.assertEqual(run.out_at, late.at - timedelta(seconds=40))
        self.assertEqual(run.hub_read_at, read.at - timedelta(seconds=90))

    def test_a_network_slower_with_one_press_than_with_the_next_does_not_turn_them_round(self) -> None:
        work = Work(held=(SHRINK, SLIP))
        work.until("mount.hot.driver")
        for event in ({"event": "on the heater"}, {"event": "out of the heater"}, {"event": "on the shaft", "ago_s": 3600}):
            work.enter("mount.hot.driver", event, EntryKind.EVENT)
        plan = work.route().find("prepare.heat.driver")
        assert plan is not None and plan.current is not None
        events = [e for e in work.entries if e.kind is EntryKind.EVENT]
        run = stand_run(read_json(HeatInput, json.dumps(plan.current.inputs)), events)
        self.assertEqual((run.phase, run.on_at), (Phase.ON, run.out_at))
        entry.check(work.route(), "mount.hot.driver", EntryKind.EVENT, {"event": "gripped"}, Role.MILLWRIGHT)

    def test_no_event_before_its_turn_nor_where_no_hub_is_heated(self) -> None:
        work = Work(held=(SHRINK, SLIP))
        with self.assertRaises(OutOfTurn):
            entry.check(work.route(), "mount.hot.driver", EntryKind.EVENT, {"event": "on the heater"}, Role.MILLWRIGHT)
        with self.assertRaises(UnusableInput):
            entry.check(work.route(), "set.gap", EntryKind.EVENT, {"event": "on the heater"}, Role.MILLWRIGHT)
        work.until("mount.hot.driver")
        with self.assertRaises(UnusableInput) as caught:
            entry.check(work.route(), "mount.hot.driver", EntryKind.EVENT, {"event": "hub temperature"}, Role.MILLWRIGHT)
        self.assertEqual([p.path for p in caught.exception.problems], ["hub_c"])
