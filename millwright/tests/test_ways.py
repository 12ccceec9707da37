"""Each family with each way of holding its hubs."""

import unittest
from datetime import timedelta
from typing import Any

from millwright.card.values import Value
from millwright.job import new_entry as entry
from millwright.job.entry import EntryKind, SignatureKind
from millwright.job.new_entry import OutOfTurn
from millwright.plan.hints import HeatHints, TaperHints
from millwright.plan.hubs.tapered import BY_ITS_NUT
from millwright.plan.steps import BenchForm, SheetForm
from millwright.roles import Role
from millwright.verdict import Verdict

from .dear import dear
from .readings import CONE, DRAWN, SHRINK, SHRUNK, SLIP, TAPER, dials, ring
from .work import Work


class WaysTest(unittest.TestCase):
    """Each family with each way of holding its hubs: the order that follows from it."""

    @dear
    def test_every_way_comes_to_its_end_in_its_own_order(self) -> None:
        light, proved = "couple.screw", "couple.gap"
        rows: list[tuple[str, tuple[str, str], list[str]]] = [
            # the hub that cannot slide goes on first, though its machine is the one that is moved
            ("jaw, curved", (SHRINK, SLIP), ["mount.cold.driver", "mount.hub.driven", "couple.element", proved, light]),
            # no hub slides: the element goes in before the machines are set
            ("jaw, straight", (SHRINK, SHRINK), ["mount.cold.driver", "mount.element", "set.rough", proved, "close.torque"]),
            # gear: the gap is made with the machine, so both screws are torqued before setting
            ("gear", (SLIP, SLIP), ["mount.screw", "mount.screw.second", "set.rough", "couple.flange", "couple.sleeve"]),
            ("gear", (SLIP, SHRINK), ["mount.cold.driven", "mount.hub.driver", "mount.screw.second", "couple.sleeve"]),
            ("gear", (TAPER, SHRINK), ["mount.cold.driven", "mount.draw.driver", "mount.nut.driver", "set.rough"]),
            ("jaw, curved", (SLIP, TAPER), ["mount.nut.driven", "mount.hub.driver", proved, light]),
            ("gear", (SHRINK, SHRINK), ["mount.cold.driven", "mount.cold.driver", "set.rough", "couple.grease"]),
        ]
        for family, held, order in rows:
            with self.subTest(family=family, held=held):
                work = Work(family=family, held=held)
                keys = [n.step.key for n in work.route().steps]
                self.assertEqual([key for key in keys if key in order], order)
                work.until(None)
                self.assertEqual(work.route().why_not_signed_off(), [])

    def test_the_gate_names_what_a_hub_would_shut_off_for_good(self) -> None:
        gate = Work(family="gear", held=(SHRINK, SHRINK)).route().find("mount.loose.driven")
        assert gate is not None and isinstance(gate.step.form, SheetForm)
        self.assertTrue(gate.step.no_return)
        self.assertLessEqual({"sleeve_on", "ring_on", "shield"}, {f.key for f in gate.step.form.fields})

    def test_above_the_ceiling_nobody_can_accept_the_heat(self) -> None:
        work = Work(held=(SHRINK, SLIP))
        work.until("prepare.heat.driver")
        work.enter("prepare.heat.driver", {**work.fill("prepare.heat.driver"), "interference_mm": 0.09, "heat_to_c": 240.0})
        now = work.route().find("prepare.heat.driver")
        assert now is not None
        self.assertEqual((now.state.value, now.step.may_authorise), ("over", False))

    def test_a_hub_read_over_its_ceiling_is_over_even_where_it_came_home(self) -> None:
        work = Work(held=(SHRINK, SLIP))
        work.until("mount.hot.driver")
        ceiling = work.card["hub_ceiling_c"].value
        for event in ({"event": "on the heater"}, {"event": "hub temperature", "hub_c": ceiling + 240}):
            work.enter("mount.hot.driver", event, EntryKind.EVENT)
        home = work.enter("mount.hot.driver", {"outcome": "seated at the mark"})
        self.assertEqual((home.verdict, work.state("mount.hot.driver")), (Verdict.OVER, "over"))
        said = " ".join(work.judged(home)["advice"])
        self.assertIn(f"read at {ceiling + 240:.0f} °C, over its ceiling of {ceiling:.0f} °C", said)
        self.assertEqual(work.state("mount.cold.driver"), "blocked")

    def test_a_hub_that_stuck_is_not_mounted_and_is_told_what_never_to_do(self) -> None:
        work = Work(held=(SHRINK, SLIP))
        work.until("mount.hot.driver")
        stuck = entry.check(
            work.route(), "mount.hot.driver", EntryKind.READING, {"outcome": "stuck half way"}, Role.MILLWRIGHT
        )
        assert stuck.result is not None
        self.assertEqual(stuck.result["verdict"], "over")
        self.assertIn("Do not hammer", " ".join(stuck.result["advice"]))

    def test_a_key_on_a_taper_is_measured_as_any_other_and_one_without_says_so(self) -> None:
        work = Work(family="gear", held=(SHRINK, TAPER))
        work.until("prepare.key.driven")
        loose = work.fill("prepare.key.driven")
        loose["shaft_keyway"] = {**loose["shaft_keyway"], "width_mm": loose["key"]["width_mm"] + 0.5}
        work.enter("prepare.key.driven", loose)
        self.assertEqual((work.state("prepare.key.driven"), work.state("prepare.decide.driven")), ("over", "blocked"))
        work.enter("prepare.clean.driven", {**work.fill("prepare.clean.driven"), "has": "no key"})
        self.assertIsNone(work.route().find("prepare.key.driven"))
        work.until(None)
        self.assertTrue(work.route().closed)

    def test_a_taper_drawn_up_cold_by_its_nut_wants_no_heat_and_is_drawn_on_where_it_is_short(self) -> None:
        work = Work(family="gear", held=(SHRINK, TAPER))
        work.until("prepare.decide.driven")
        work.enter("prepare.decide.driven", {**work.fill("prepare.decide.driven"), "decision": BY_ITS_NUT})
        work.until("mount.draw.driven")
        asked = {now.step.key for now in work.route().steps}
        self.assertFalse(asked & {f"{step}.driven" for step in ("prepare.heat", "mount.go", "mount.hot", "mount.cold")})
        work.enter("mount.draw.driven", {**DRAWN, "fitted_standout_mm": 41.20})
        self.assertEqual((work.state("mount.draw.driven"), work.state("mount.ready.driven")), ("over", "done"))
        work.enter("mount.pull.driven", work.fill("mount.pull.driven"))
        self.assertEqual(work.state("mount.draw.driven"), "stale")
        work.until(None)
        self.assertTrue(work.route().closed)

    def test_a_taper_is_not_done_before_it_was_blued_nor_mounted_before_it_reached_its_mark(self) -> None:
        work = Work(family="gear", held=(SHRINK, TAPER))
        work.until("prepare.taper.driven")
        work.enter("prepare.taper.driven", {"shaft": CONE, "bore": CONE})
        self.assertEqual(work.state("prepare.taper.driven"), "incomplete")
        work.until("mount.draw.driven")
        work.enter("mount.draw.driven", {**DRAWN, "fitted_standout_mm": 41.20})
        self.assertEqual((work.state("mount.draw.driven"), work.state("mount.nut.driven")), ("over", "blocked"))
        work.enter("mount.draw.driven", DRAWN)
        slack = {**work.fill("mount.nut.driven"), "torque_nm": 200}
        work.enter("mount.nut.driven", slack)
        self.assertEqual(work.state("mount.nut.driven"), "over")

    def test_measured_again_the_decision_and_the_heat_are_stale_and_a_new_heat_makes_the_run_stale(self) -> None:
        work = Work(held=(SHRINK, SLIP))
        work.until("mount.cold.driver")
        work.enter("prepare.heat.driver", work.fill("prepare.heat.driver"))
        self.assertEqual(work.state("mount.hot.driver"), "stale")
        work.enter("prepare.fit.driver", work.fill("prepare.fit.driver"))
        self.assertEqual((work.state("prepare.decide.driver"), work.state("prepare.heat.driver")), ("stale", "stale"))
        self.assertEqual(work.state("prepare.decide.driven"), "done")

    def test_a_hub_still_hot_is_not_measured_as_cold(self) -> None:
        work = Work(held=(SHRINK, SLIP))
        work.until("mount.cold.driver")
        hot = {**work.fill("mount.cold.driver"), "hub_c": 80}
        work.enter("mount.cold.driver", hot)
        self.assertEqual((work.state("mount.cold.driver"), work.state("mount.screw")), ("over", "blocked"))

    def test_a_hub_that_measures_too_tight_is_heated_where_lead_and_millwright_decide_so(self) -> None:
        hot = {"interference_min_mm": 0.02, "interference_max_mm": 0.06, "heat_clearance_mm": 0.03, "hub_ceiling_c": 200}
        work = Work(held=(SLIP, SLIP), card=hot)
        work.until("prepare.fit.driver")
        work.enter("prepare.fit.driver", SHRUNK)
        self.assertEqual((work.state("prepare.fit.driver"), work.state("prepare.decide.driver")), ("over", "blocked"))
        work.sign("prepare.fit.driver", SignatureKind.AUTHORISE)
        self.assertIsNone(work.route().find("mount.hot.driver"))
        work.until("prepare.decide.driver")
        work.enter("prepare.decide.driver", {"decision": "heat it and slide it on", "reason": "shop bored it tight"})
        keys = [now.step.key for now in work.route().steps]
        self.assertIn("mount.hot.driver", keys)
        self.assertNotIn("mount.hub.driver", keys)
        # the hub that cannot slide afterwards goes on first
        self.assertLess(keys.index("mount.hot.driver"), keys.index("mount.hub.driven"))
        work.until(None)
        self.assertEqual(work.route().why_not_signed_off(), [])

    def test_after_a_miss_both_parts_are_cold_and_everybody_ready_before_the_next_try(self) -> None:
        work = Work(family="gear", held=(SHRINK, TAPER))
        work.until("mount.draw.driven")
        work.enter("mount.draw.driven", {**DRAWN, "fitted_standout_mm": 41.20})
        work.enter("prepare.heat.driven", work.fill("prepare.heat.driven"))
        for step in ("ready", "hot"):
            self.assertEqual(work.state(f"mount.{step}.driven"), "stale", step)
        warm = work.fill("mount.ready.driven") | {"cold": False}
        work.enter("mount.ready.driven", warm)
        self.assertEqual((work.state("mount.ready.driven"), work.state("mount.hot.driven")), ("incomplete", "stale"))
        with self.assertRaises(entry.OutOfTurn):
            work.enter("mount.hot.driven", {"event": "on the heater"}, EntryKind.EVENT)


class SettingTest(unittest.TestCase):
    """Soft feet, floating shafts and the schools of accepting a gap."""

    def test_a_soft_foot_is_cured_before_the_gap_and_before_the_feet_are_torqued(self) -> None:
        work = Work()
        work.until("set.soft")
        soft = [{"name": name, "rise_mm": rise} for name, rise in (("a", 0.02), ("b", 0.20))]
        work.enter("set.soft", {"feet": soft})
        self.assertEqual((work.state("set.soft"), work.state("set.gap")), ("over", "blocked"))
        work.enter("set.soft", work.fill("set.soft"))
        self.assertEqual(work.state("set.gap"), "open")

    def test_a_floating_shaft_is_set_to_its_middle_and_its_end_keeps_clear(self) -> None:
        machine = {"name": "Motor", "drawn_as": "motor", "shaft_diameter_mm": 48, "foot_bolts": 4, "floats": True}
        feet = [{"name": "motor front", "from_coupling_mm": 300}, {"name": "motor rear", "from_coupling_mm": 586}]
        work = Work(driver={**machine, "feet": feet}, card={"axial_growth_mm": 0.5})
        work.until("set.float.driver")
        self.assertEqual(work.state("set.gap"), "blocked")
        middle, magnetic = "in the middle of it", "at its magnetic centre"
        at_rest = {"pushed_mm": -1.0, "pulled_mm": 3.0, "set_to": middle, "now_mm": 1.0, "ends_mm": 3.6}
        for said, state, words in (
            ({"ends_mm": 3.4}, "over", "ends too near"),  # half of 4 + growth 0.5 + 1 to spare
            ({}, "done", "its middle at +1.00"),
            ({"now_mm": 1.6}, "over", "0.60 mm away from the coupling; or add 0.60 mm to every gap"),
            ({"now_mm": 0.5}, "over", "0.50 mm toward the coupling; or take 0.50 mm off every gap"),
            ({"set_to": magnetic}, "over", "Enter the dial at the magnetic centre"),
            ({"set_to": magnetic, "magnetic_mm": 3.2}, "over", "outside the float"),
            ({"set_to": magnetic, "magnetic_mm": 1.8, "now_mm": 1.8}, "done", "End float 4.00 mm"),
            ({"pushed_mm": 3.0, "pulled_mm": -1.0}, "over", "counts the other way"),
        ):
            with self.subTest(said=said):
                made = work.enter("set.float.driver", at_rest | said)
                self.assertEqual(work.state("set.float.driver"), state)
                self.assertIn(words.lower(), " ".join(work.judged(made)["advice"]).lower())

    def test_the_distance_between_the_shaft_ends_is_known_before_a_hub_goes_on(self) -> None:
        work = Work(family="disc, three-part", card={"shaft_ends_mm": 140, "shaft_ends_plus_minus_mm": 1.5})
        work.until("prepare.ends")
        for distance, state in ((141.5, "done"), (141.6, "over"), (138.4, "over")):
            made = work.enter("prepare.ends", {"distance_mm": distance, "standards": "100; 138,5 180"})
            self.assertEqual(work.state("prepare.ends"), state, distance)
            self.assertIn("Nearest standard distance: 138.5 mm", " ".join(work.judged(made)["advice"]))
        made = work.enter("prepare.ends", {"distance_mm": 141.5, "standards": "3.5 5.5 7 in"})
        self.assertIn("Nearest standard distance: 139.7 mm", " ".join(work.judged(made)["advice"]))

    def test_shaft_ends_that_stand_out_into_the_gap_keep_clear_of_each_other(self) -> None:
        work = Work(card={"gap_nominal_mm": 4, "axial_growth_mm": 0.4, "element_width_mm": 3})
        for side, out in (("driven", 1.0), ("driver", 1.5)):
            work.until(f"mount.hub.{side}")
            work.enter(f"mount.hub.{side}", {**work.fill(f"mount.hub.{side}"), "standout_mm": out})
        work.until("set.gap")
        for gap, status in ((4.2, "close"), (3.8, "over")):  # 4.2 − 2.5 leaves 1.7, 3.8 leaves 1.3; wanted is 1 + 0.4
            made = work.enter("set.gap", {"readings": ring(*[gap] * 4), "diameter_mm": 105})
            free = next(c for c in work.judged(made)["checks"] if c["name"] == "free between the shaft ends")
            self.assertAlmostEqual(free["value"], gap - 2.5)
            self.assertEqual(free["status"], status)

    def test_where_the_paper_gives_jaw_tip_to_hub_that_is_what_is_set(self) -> None:
        work = Work(card={"jaw_tip_mm": 22.0})
        work.until("set.gap")
        for mm, state in ((30.0, "over"), (22.6, "done")):
            work.enter("set.gap", {"readings": ring(*[mm] * 4), "diameter_mm": 105})
            self.assertEqual(work.state("set.gap"), state, mm)

    def test_each_school_accepts_a_gap_in_its_own_way_and_cold_it_allows_for_growth(self) -> None:
        uneven = {"readings": ring(30.0, 30.9, 31.6, 30.9), "diameter_mm": 105}  # mean 30.85, one reading over 31
        for means, plus_minus, growth, state in (
            ("the mean of the readings", ("mm", 1.0), 0.0, "over"),  # the angle, not the mean
            ("every reading", ("mm", 1.0), 0.0, "over"),
            ("the mean of the readings", ("percent of the gap", 1.0), 0.0, "over"),
        ):
            work = Work(card={"axial_growth_mm": growth})
            source = {"kind": "drawing", "document": "D-7"}
            gap = {"value": 30.0, "means": means, "source": source}
            width = {"value": plus_minus[1], "means": plus_minus[0], "source": source}
            for key, value in (("gap_nominal_mm", gap), ("gap_plus_minus_mm", width)):
                given = {"key": key, "value": value, "reason": "another paper"}
                work.enter("safe.papers", given, EntryKind.VALUE, role=Role.LEAD)
            work.until("set.gap")
            made = work.enter("set.gap", uneven)
            self.assertEqual(work.state("set.gap"), state)
            checks = {c["code"]: c["status"] for c in work.judged(made)["checks"]}
            wanted = {"the mean of the readings": "mean", "every reading": "each"}[means]
            is_over = (means, plus_minus[0]) != ("the mean of the readings", "mm")
            self.assertEqual(checks[wanted] == "over", is_over, (means, plus_minus))
        cold = Work(card={"axial_growth_mm": 0.8})
        cold.until("set.gap")
        for gap_mm, state in ((30.0, "done"), (31.7, "done"), (32.0, "over")):
            cold.enter("set.gap", {"readings": ring(*[gap_mm] * 4), "diameter_mm": 105})
            self.assertEqual(cold.state("set.gap"), state, gap_mm)

    def test_a_spacer_is_aligned_by_its_planes_and_a_single_pack_by_angle_alone(self) -> None:
        for family, at, edge in (
            ("disc, three-part", "flexing planes", False),
            ("disc, single pack", "angle alone", False),
            ("gear", "coupling middle", True),
        ):
            route = Work(family=family).route()
            align = route.find("set.align")
            assert align is not None
            limits = align.step.form.preset["limits"]
            self.assertEqual(limits.get("at", "coupling middle"), at, family)
            self.assertEqual("offset_mm" in limits, edge, family)
            self.assertEqual(route.find("set.straightedge") is not None, edge, family)

    def test_a_limit_on_the_swing_allows_half_of_it_as_offset(self) -> None:
        work = Work()
        source = work.card["offset_limit_mm"].source
        for means, most in (("offset", 0.4), ("swing", 0.2)):
            work.card["offset_limit_mm"] = Value(value=0.4, means=means, source=source)
            edge = work.route().find("set.straightedge")
            assert edge is not None and isinstance(edge.step.form, BenchForm)
            self.assertEqual(edge.step.form.preset["limit"]["offset_mm"], most)

    def test_a_warm_reading_may_be_left_out_and_is_judged_without_adding_growth_again(self) -> None:
        feet = [{"name": f"motor {n}", "from_coupling_mm": x, "rise_mm": 0.1} for n, x in (("front", 300), ("rear", 586))]
        motor = {"name": "Motor", "drawn_as": "motor", "shaft_diameter_mm": 48, "foot_bolts": 4, "feet": feet}
        work = Work(driver=motor)
        work.until("set.align")
        work.enter("set.align", dials(0.1))
        work.until("couple.align")
        work.enter("couple.align", dials(0.1))
        self.assertEqual(work.state("couple.align"), "to sign")
        work.until("close.hand")
        warm = work.route().find("close.warm")
        assert warm is not None
        self.assertEqual((warm.state.value, "growth" in warm.step.form.preset), ("open", False))
        work.until(None)
        self.assertTrue(work.route().closed)


class HotHubGateTest(unittest.TestCase):
    """What is true before the heater is switched on, and what before the hub leaves it."""

    def event(self, work: Work, event: str, **more: Any) -> None:
        """Something that happened to the driver's hub."""
        work.enter("mount.hot.driver", {"event": event, **more}, EntryKind.EVENT)

    def test_it_is_on_the_heater_while_people_get_ready_and_leaves_it_only_once_they_are(self) -> None:
        work = Work(held=(SHRINK, SLIP))
        work.until("mount.ready.driver")
        with self.assertRaisesRegex(OutOfTurn, "First"):
            self.event(work, "on the heater")
        work.until("mount.go.driver")
        self.event(work, "on the heater")
        self.event(work, "hub temperature", hub_c=150.0)
        with self.assertRaisesRegex(OutOfTurn, "First: Put the .* hub on the heater and get ready"):
            self.event(work, "out of the heater")
        work.until("mount.hot.driver")
        self.event(work, "out of the heater")

    def test_after_a_taper_that_stopped_short_the_next_heat_is_worked_out_and_not_the_same_one_again(self) -> None:
        work = Work(held=("tapered bore", SLIP))
        work.until("mount.hot.driver")
        for event in (
            {"event": "on the heater"},
            {"event": "hub temperature", "hub_c": 100.0},
            {"event": "out of the heater"},
        ):
            work.enter("mount.hot.driver", event, EntryKind.EVENT)
        self.event(work, "on the shaft")
        self.event(work, "gripped")
        work.until("mount.draw.driver")
        draw = work.route().find("mount.draw.driver")
        assert draw is not None and isinstance(draw.step.form, BenchForm)
        hints, inputs = draw.step.form.suggest, work.fill("mount.draw.driver")
        assert isinstance(hints, TaperHints) and hints.shaft_c is not None and hints.hand_tight_standout_mm is not None
        shaft_c, hand_tight = hints.shaft_c, hints.hand_tight_standout_mm
        self.assertEqual(hints.hub_c, 100.0)
        wanted = 0.07 / ((inputs["shaft"]["large_mm"] - inputs["shaft"]["small_mm"]) / inputs["shaft"]["length_mm"])
        tried_at = {"hand_tight_standout_mm": hand_tight, "attempt": {"hub_c": hints.hub_c, "shaft_c": shaft_c}}
        short = {**inputs, **tried_at, "fitted_standout_mm": hand_tight + wanted / 2}
        work.enter("mount.draw.driver", short)
        heat = work.route().find("prepare.heat.driver")
        assert heat is not None and isinstance(heat.step.form, BenchForm)
        assert isinstance(heat.step.form.suggest, HeatHints) and heat.step.form.suggest.heat_to_c is not None
        # half the way at so many degrees over the shaft: twice as many for all of it, no more than the ceiling
        ceiling = work.card["hub_ceiling_c"].value
        self.assertAlmostEqual(heat.step.form.suggest.heat_to_c, min(shaft_c + 2 * (100.0 - shaft_c), ceiling), delta=1)
        # it is not heated by the figure that missed: worked out anew first, and signed for nowhere before that
        self.assertEqual((work.state("prepare.heat.driver"), work.next()), ("stale", "prepare.heat.driver"))
        self.event(work, "pulled off")
        with self.assertRaisesRegex(OutOfTurn, "First: Calculate the heat"):
            self.event(work, "on the heater")
        tried = {**short, "attempt": {"hub_c": ceiling, "shaft_c": shaft_c}}
        work.enter("mount.draw.driver", tried)
        again = work.route().find("prepare.heat.driver")
        assert again is not None and isinstance(again.step.form, BenchForm)
        assert isinstance(again.step.form.suggest, HeatHints)
        self.assertIsNone(again.step.form.suggest.heat_to_c)  # the ceiling was tried already
        far = work.judged(work.enter("mount.draw.driver", {**tried, "fitted_standout_mm": hand_tight + wanted / 3}))
        self.assertLessEqual(far["next_hub_c"], ceiling)
        self.assertIn("above the ceiling", " ".join(far["advice"]))
        work.sign("mount.draw.driver", SignatureKind.AUTHORISE)
        self.assertEqual(work.state("prepare.heat.driver"), "done")  # the lead takes it as it is

    def test_the_mark_stands_on_the_sheet_on_which_it_is_made(self) -> None:
        work = Work(held=("tapered bore", SLIP))
        work.until("mount.ready.driver")
        ready = work.route().find("mount.ready.driver")
        assert ready is not None and isinstance(ready.step.form, SheetForm)
        [mark] = [field for field in ready.step.form.fields if field.key == "mark"]
        self.assertIn("goes on by 0.84 mm (0.0331 in)", mark.detail)  # 0.07 on a taper of 1 in 12

    def test_a_hub_is_not_cold_before_the_clock_lets_it_be(self) -> None:
        work = Work(held=(SHRINK, SLIP))
        work.until("mount.hot.driver")
        for event in ("on the heater", "out of the heater", "on the shaft", "gripped"):
            self.event(work, event)
        work.enter("mount.hot.driver", {"outcome": "seated at the mark", "found": "home"})
        work.now = work.entries[-1].at + timedelta(seconds=20)
        read = work.enter("mount.cold.driver", {**work.fill("mount.cold.driver"), "hub_c": 25})
        self.assertEqual((read.verdict, work.state("mount.cold.driver")), (Verdict.OVER, "over"))
        self.assertIn("bright metal shows too little", " ".join(work.judged(read)["advice"]))
        work.now += timedelta(hours=6)
        self.assertNotEqual(work.enter("mount.cold.driver", work.fill("mount.cold.driver")).verdict, Verdict.OVER)
