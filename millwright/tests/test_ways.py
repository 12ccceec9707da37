"""Each family with each way of holding its hubs."""

import unittest

from millwright.route import entry
from millwright.route.state import EntryKind, SignatureKind
from millwright.route.steps import Role, SheetForm

from .work import CONE, READINGS, SHRINK, SHRUNK, SLIP, TAPER, Work


class WaysTest(unittest.TestCase):
    """Each family with each way of holding its hubs: the order that follows from it."""

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
        work.enter("prepare.heat.driver", {**work.fill("prepare.heat.driver"), "interference_mm": 0.09})
        now = work.route().find("prepare.heat.driver")
        assert now is not None
        self.assertEqual((now.state.value, now.step.may_authorise), ("over", False))

    def test_a_hub_that_stuck_is_not_mounted_and_is_told_what_never_to_do(self) -> None:
        work = Work(held=(SHRINK, SLIP))
        work.until("mount.hot.driver")
        stuck = entry.check(
            work.route(), "mount.hot.driver", EntryKind.READING, {"outcome": "stuck half way"}, Role.MILLWRIGHT
        )
        assert stuck.result is not None
        self.assertEqual(stuck.result["verdict"], "over")
        self.assertIn("Do not hammer", " ".join(stuck.result["advice"]))

    def test_a_taper_is_not_done_before_it_was_blued_nor_mounted_before_it_reached_its_mark(self) -> None:
        work = Work(family="gear", held=(SHRINK, TAPER))
        work.until("prepare.taper.driven")
        work.enter("prepare.taper.driven", {"shaft": CONE, "bore": CONE})
        self.assertEqual(work.state("prepare.taper.driven"), "incomplete")
        work.until("mount.draw.driven")
        work.enter("mount.draw.driven", {**READINGS["mount.draw"], "fitted_standout_mm": 41.20})
        self.assertEqual((work.state("mount.draw.driven"), work.state("mount.nut.driven")), ("over", "blocked"))
        work.enter("mount.draw.driven", READINGS["mount.draw"])
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
        work.enter("mount.draw.driven", {**READINGS["mount.draw"], "fitted_standout_mm": 41.20})
        work.enter("prepare.heat.driven", work.fill("prepare.heat.driven"))
        for step in ("ready", "hot"):
            self.assertEqual(work.state(f"mount.{step}.driven"), "stale", step)
        warm = work.fill("mount.ready.driven") | {"cold": False}
        work.enter("mount.ready.driven", warm)
        self.assertEqual((work.state("mount.ready.driven"), work.state("mount.hot.driven")), ("incomplete", "stale"))
        with self.assertRaises(entry.OutOfTurn):
            work.enter("mount.hot.driven", {"event": "on the heater"}, EntryKind.EVENT)
