"""Hubs held by screws: nothing tight before the shaft is in, tapped true half tight, tightened until nothing moves."""

import json
import unittest
from typing import Any, get_args

from hypothesis import given
from hypothesis import strategies as st

from millwright.benches.register import as_dict, evaluate_json
from millwright.job.entry import EntryKind
from millwright.job.new_entry import OutOfTurn
from millwright.line import Connection
from millwright.plan.families.register import FAMILIES
from millwright.plan.hubs.screw_held import DEVICES
from millwright.plan.steps import SheetForm
from millwright.roles import Role
from millwright.scope import Scope
from millwright.verdict import Verdict

from .dear import dear
from .readings import TRUE, ring, rounds
from .work import WEDGE, Work, ways_of

RING = ("clamp ring", "keyed, slip fit")


def tighten(**more: Any) -> dict[str, Any]:
    """The tighten bench on eight screws, a part round and then full rounds until nothing moves."""
    given = {"bolts": 8, "torque_nm": 35, "passes": [0.5, 1.0], "pattern": "circle", "until_still": True, **more}
    return as_dict(evaluate_json("tighten", json.dumps(given)))


class EveryWayTest(unittest.TestCase):
    """Whatever the family and whatever holds the hubs, the route is whole and comes to its end."""

    def test_every_value_a_route_needs_is_asked_for_on_the_card(self) -> None:
        for family in FAMILIES:
            for held in ways_of(family):
                with self.subTest(family=family, held=held):
                    missing = {key for now in Work(family=family, held=(held, held)).route().steps for key in now.step.needs}
                    self.assertLessEqual(missing, set(Work(family=family, held=(held, held)).card))


class OrderTest(unittest.TestCase):
    """What comes before what, and what is caught."""

    def test_nothing_is_tightened_before_the_shaft_is_in_nor_finally_before_the_hub_runs_true(self) -> None:
        work = Work(held=RING)
        work.until("mount.hub.driver")
        with self.assertRaises(OutOfTurn):
            work.enter("mount.clamp.driver", rounds(8, 35, (0,)))
        work.until("mount.true.driver")
        work.enter("mount.true.driver", {**work.fill("mount.true.driver"), "readings": ring(0, 0.06, 0.12, 0.06)})
        self.assertEqual((work.state("mount.true.driver"), work.state("mount.clamp.driver")), ("over", "blocked"))
        work.enter("mount.true.driver", work.fill("mount.true.driver"))
        self.assertEqual(work.state("mount.clamp.driver"), "open")

    def test_paste_on_a_friction_fit_is_caught_and_wanted_on_a_keyed_one(self) -> None:
        work = Work(held=RING)
        dry, paste, oil = "clean and dry", "mounting paste, thin", "oil or anti-seize"
        for side, judged in (
            ("driver", {paste: "over", oil: "over", dry: "done"}),
            ("driven", {oil: "over", paste: "done", dry: "done"}),
        ):
            step = f"prepare.decide.{side}"
            work.until(step)
            for surface, state in judged.items():
                with self.subTest(side=side, surface=surface):
                    work.enter(step, {**work.fill(step), "surface": surface})
                    self.assertEqual(work.state(step), state)

    def test_slackened_and_set_again_everything_read_on_that_hub_is_stale(self) -> None:
        work = Work(held=RING)
        work.until("set.rough")
        work.enter("mount.snug.driver", work.fill("mount.snug.driver"))
        for step in ("true", "clamp", "seat", "runout"):
            self.assertEqual(work.state(f"mount.{step}.driver"), "stale", step)
        self.assertEqual(work.state("mount.hub.driven"), "done")

    def test_connecting_bolts_go_in_before_the_ring(self) -> None:
        for way in ("clamp ring", "shrink disc"):
            gate = Work(held=(way, "keyed, slip fit")).route().find("mount.loose.driver")
            assert gate is not None and isinstance(gate.step.form, SheetForm)
            self.assertTrue(gate.step.no_return)
            self.assertIn("bolts_in", {field.key for field in gate.step.form.fields}, way)

    def test_a_clamped_hub_that_crept_is_not_accepted_and_a_bushed_one_that_was_drawn_along_is(self) -> None:
        for way, state in (("clamp ring", "over"), ("tapered bush", "done")):
            with self.subTest(way):
                work = Work(held=(way, "keyed, slip fit"))
                work.until("mount.seat.driver")
                work.enter("mount.seat.driver", {**work.fill("mount.seat.driver"), "standout_mm": 0.8})
                self.assertEqual(work.state("mount.seat.driver"), state)

    def test_a_limit_by_speed_is_the_one_that_holds_at_this_speed(self) -> None:
        value = {"value": 0.02, "source": {"kind": "sample", "document": "Trial sheet"}}
        steps = [{"rpm": 1000, "value": 0.10}, {"rpm": 1500, "value": 0.06}]
        for rpm, limit in ((990.0, 0.10), (1000.0, 0.10), (1480.0, 0.06), (2950.0, 0.02)):
            work = Work(held=RING, speed_rpm=rpm)
            given = {"key": "hub_runout_mm", "value": {**value, "up_to": steps}, "reason": "limit by speed"}
            work.enter("safe.papers", given, EntryKind.VALUE, role=Role.LEAD)
            now = work.route().find("mount.true.driver")
            assert now is not None
            self.assertEqual(now.step.form.preset["limit_mm"], limit, rpm)

    def test_two_hubs_of_different_size_go_by_their_own_figures(self) -> None:
        work = Work(held=("clamp ring", "shrink disc"), card={"hub_screws@driven": 6, "hub_screw_torque_nm@driven": 20})
        form = {side: work.route().find(f"mount.clamp.{side}") for side in ("driver", "driven")}
        torques = {side: now.step.form.preset["torque_nm"] for side, now in form.items() if now}
        self.assertEqual(torques, {"driver": 35, "driven": 20})


class UntilStillTest(unittest.TestCase):
    """Round after round, until a full round moves nothing."""

    @given(turned=st.lists(st.integers(1, 8), min_size=1, max_size=8))
    def test_it_is_tight_exactly_when_a_whole_full_round_moved_nothing(self, turned: list[int]) -> None:
        moving = tighten(**rounds(8, 35, tuple(turned)))
        self.assertEqual((moving["still"], moving["verdict"]), (False, "incomplete"))
        self.assertEqual(moving["next"]["pass"], len(turned) + 2)
        self.assertEqual(moving["next"]["torque_nm"], 35)
        still = tighten(**rounds(8, 35, (*turned, 0)))
        self.assertEqual((still["still"], still["verdict"], still["next"]), (True, "inside", None))
        self.assertEqual(len(still["passes"]), len(turned) + 2)

    def test_a_pull_nobody_watched_does_not_count_as_still(self) -> None:
        pulls = rounds(8, 35, (0,))["pulls"]
        pulls[-1].pop("moved")
        self.assertFalse(tighten(pulls=pulls)["still"])

    def test_rounds_without_an_end_are_called_out(self) -> None:
        said = tighten(**rounds(8, 35, (8,) * 7))["advice"]
        self.assertIn("screws still turn", " ".join(said))

    def test_without_asking_for_stillness_the_passes_are_those_given(self) -> None:
        plain = tighten(until_still=False, pulls=rounds(8, 35, (8,))["pulls"])
        self.assertEqual((plain["still"], plain["next"], plain["verdict"]), (None, None, "inside"))


class TakeOffTest(unittest.TestCase):
    """As found first, each hub off as it is held, and what goes back on."""

    @dear
    def test_every_way_off_comes_to_its_end(self) -> None:
        for scope in (Scope.TAKE_OFF, Scope.REFIT):
            for held in get_args(Connection):
                with self.subTest(scope=scope, held=held):
                    family = "screw-conveyor drive" if held == WEDGE else "jaw, curved"
                    work = Work(family=family, held=(held, held if held == WEDGE else "keyed, slip fit"), scope=scope)
                    work.until(None)
                    self.assertEqual(work.route().why_not_signed_off(), [])

    def test_nothing_is_parted_before_it_was_noted_where_it_was(self) -> None:
        work = Work(held=("tapered bore", "keyed, interference"), scope=Scope.TAKE_OFF)
        work.until("off.marks")
        self.assertEqual(work.state("off.apart"), "blocked")

    def test_the_nut_comes_off_only_after_the_taper_has_let_go(self) -> None:
        work = Work(held=("tapered bore", "keyed, slip fit"), scope=Scope.TAKE_OFF)
        work.until("off.pop.driver")
        self.assertEqual(work.state("off.hub.driver"), "blocked")
        sitting = work.fill("off.pop.driver") | {"popped": False}
        work.enter("off.pop.driver", sitting)
        self.assertEqual((work.state("off.pop.driver"), work.state("off.hub.driver")), ("incomplete", "blocked"))

    def test_the_alignment_as_found_may_be_left_out_and_nothing_else_waits_for_it(self) -> None:
        work = Work(scope=Scope.TAKE_OFF)
        work.until(None)
        self.assertEqual(work.state("off.align"), "open")
        self.assertTrue(work.route().closed)

    def test_a_part_of_another_type_is_for_the_lead(self) -> None:
        work = Work(scope=Scope.REFIT)
        work.until("off.inspect")
        work.enter("off.inspect", work.fill("off.inspect") | {"element": "replace it"})
        work.until("off.like")
        work.enter("off.like", {"element": "another: the lead decides"})
        self.assertEqual((work.state("off.like"), work.state("prepare.clean.driver")), ("over", "blocked"))

    def test_a_part_to_rework_stops_the_job(self) -> None:
        work = Work(scope=Scope.REFIT)
        work.until("off.inspect")
        work.enter("off.inspect", work.fill("off.inspect") | {"element": "rework it"})
        self.assertEqual((work.state("off.inspect"), work.state("prepare.clean.driver")), ("over", "blocked"))

    def test_the_refit_of_a_taper_is_held_against_where_it_was_found(self) -> None:
        work = Work(held=("tapered bore", "keyed, slip fit"), scope=Scope.REFIT)
        work.until("off.marks")
        work.enter("off.marks", work.fill("off.marks") | {"standout_driver_mm": 41.5})
        work.until("mount.nut.driver")
        made = work.enter("mount.nut.driver", work.fill("mount.nut.driver") | {"face_mm": 41.9})
        checked = work.judged(made)
        self.assertAlmostEqual(next(c["value"] for c in checked["checks"] if c["name"] == "place against as found"), 0.4)


class DevicesTest(unittest.TestCase):
    """What is known of each device."""

    def test_only_devices_that_hold_by_rounds_are_tightened_until_still(self) -> None:
        self.assertEqual({name for name, device in DEVICES.items() if not device.until_still}, {"tapered wedge"})

    def test_a_round_of_true_readings_is_inside(self) -> None:
        self.assertIs(
            Verdict(as_dict(evaluate_json("runout", json.dumps({**TRUE, "limit_mm": 0.05})))["verdict"]), Verdict.INSIDE
        )
