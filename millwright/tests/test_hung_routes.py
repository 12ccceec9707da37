"""Reducers and conveyor drives that hang, magnetic drives, and motors proved bare: what comes before what, what is gone."""

import json
import unittest
from typing import Any

from millwright.errors import UnusableInput
from millwright.job.entry import EntryKind
from millwright.job.new_entry import OutOfTurn
from millwright.line import LineSpec
from millwright.model import read_json
from millwright.plan.steps import SheetForm
from millwright.scope import Scope

from .readings import gaps
from .work import Work

LIPS, PACKING = "two lip seals", "one lip seal and packing"
WEDGED = ("tapered wedge", "tapered wedge")
DISCS = ("shrink disc", "shrink disc")


def keys(work: Work) -> list[str]:
    """The steps of the route in their order."""
    return [now.step.key for now in work.route().steps]


def auger(sealed_by: str, **more: Any) -> Work:
    """A conveyor drive, decided on its seals."""
    work = Work(family="screw-conveyor drive", held=WEDGED, **more)
    work.enter("receive.seals", {"by": sealed_by})
    return work


class ReducerTest(unittest.TestCase):
    """Slung until shaft and arm have it."""

    def test_it_is_held_by_its_sling_from_before_the_bush_until_the_arm_has_it(self) -> None:
        work = Work(family="shaft-mounted reducer", held=("tapered bush", "tapered bush"))
        work.until("mount.hub.driven")
        [held] = work.route().held
        self.assertEqual((held.what, held.by, held.until), ("gear unit", "a sling", "Take the sling off"))
        work.until("couple.sling_off")
        self.assertEqual(len(work.route().held), 1)
        work.step_on()
        self.assertEqual(work.route().held, ())

    def test_taken_off_it_is_laid_down_and_the_slings_counted(self) -> None:
        work = Work(family="shaft-mounted reducer", scope=Scope.TAKE_OFF)
        work.until("off.laid_down")
        self.assertEqual([line.open for line in work.route().ledger], [True])
        work.until(None)
        self.assertEqual((work.route().held, work.route().why_not_signed_off()), ((), []))

    def test_an_arm_far_from_square_stops_it(self) -> None:
        work = Work(family="shaft-mounted reducer")
        work.until("couple.arm_angle")
        work.enter("couple.arm_angle", {"torque_nm": 1800.0, "arm_mm": 550.0, "angle_deg": 55.0})
        self.assertEqual((work.state("couple.arm_angle"), work.state("couple.arm_free")), ("over", "blocked"))


class ConveyorTest(unittest.TestCase):
    """One seal or the other, and nothing it has not got."""

    def test_it_is_decided_before_anything_is_counted(self) -> None:
        work = Work(family="screw-conveyor drive", held=WEDGED)
        self.assertEqual((work.state("receive.seals"), work.state("receive.kit")), ("open", "blocked"))

    def test_lip_seals_and_packing_exclude_each_other(self) -> None:
        packing = {"prepare.no_seal", "prepare.rings", "prepare.retainer", "couple.nuts"}
        self.assertTrue(packing.isdisjoint(keys(auger(LIPS))))
        packed = auger(PACKING)
        self.assertLessEqual(packing, set(keys(packed)))
        self.assertNotIn("prepare.second_seal", keys(packed))
        kit = packed.route().find("receive.kit")
        assert kit is not None and isinstance(kit.step.form, SheetForm)
        asked = {field.key for field in kit.step.form.fields}
        self.assertLessEqual({"lip_n", "rings_n", "studs_n"}, asked)
        self.assertNotIn("lips_n", asked)

    def test_a_wedge_has_no_set_screw(self) -> None:
        work = auger(LIPS)
        self.assertFalse([key for key in keys(work) if "screw" in key])
        self.assertNotIn("set_screw_torque_nm", {key for now in work.route().steps for key in now.step.needs})

    def test_a_wedge_on_another_drive_is_refused_at_the_door_and_what_stands_can_be_read(self) -> None:
        spec = auger(LIPS).line.model_dump(mode="json")
        spec["coupling"]["family"] = "gear"
        with self.assertRaisesRegex(UnusableInput, "screw-conveyor drive and nothing else"):
            read_json(LineSpec, json.dumps(spec))
        self.assertEqual(LineSpec.model_validate(spec).coupling.family, "gear")

    def test_decided_anew_what_was_sealed_is_looked_at_again(self) -> None:
        work = auger(PACKING)
        work.until("couple.nuts")
        work.enter("receive.seals", {"by": PACKING})
        again = [work.state(key) for key in ("receive.kit", "prepare.no_seal", "prepare.rings")]
        self.assertEqual(again, ["stale"] * 3)

    def test_joints_in_line_and_another_number_of_rings_stop_it(self) -> None:
        work = auger(PACKING)
        work.until("receive.kit")
        work.enter("receive.kit", {**work.fill("receive.kit"), "rings_n": 3})
        work.until("prepare.rings")
        whole = work.fill("prepare.rings")
        self.assertNotIn("joint_4", whole)
        for wrong in ({"rings": 2}, {"joint_2": 1}, {"joint_3": 5}):
            work.enter("prepare.rings", {**whole, **wrong})
            self.assertEqual(work.state("prepare.retainer"), "blocked", wrong)
        work.enter("prepare.rings", whole)
        self.assertEqual(work.state("prepare.rings"), "done")

    def test_nuts_are_turned_once_the_shaft_is_in_and_by_what_the_card_says(self) -> None:
        work = auger(PACKING, card={"packing_turn_deg": 60})
        self.assertGreater(keys(work).index("couple.nuts"), keys(work).index("mount.clamp.driven"))
        work.until("couple.nuts")
        work.enter("couple.nuts", {**work.fill("couple.nuts"), "turn_deg": 90})
        self.assertEqual(work.state("couple.nuts"), "over")
        work.enter("couple.nuts", {**work.fill("couple.nuts"), "turn_deg": 60})
        work.until(None)
        self.assertEqual(work.route().why_not_signed_off(), [])

    def test_the_motor_is_proved_before_power_meets_the_screw(self) -> None:
        self.assertIn("couple.turns", keys(auger(LIPS)))


class TurnsTest(unittest.TestCase):
    """Which way the motor turns."""

    def line(self, drawn_as: str, **more: Any) -> Work:
        pump = {"name": "Pump", "feet": [], "drawn_as": drawn_as, "shaft_diameter_mm": 48, "foot_bolts": 4}
        return Work(driven=pump, **more)

    def test_in_front_of_a_pump_always_in_front_of_a_fan_where_the_card_says_which(self) -> None:
        self.assertIn("set.turns", keys(self.line("pump")))
        self.assertNotIn("set.turns", keys(self.line("fan")))
        self.assertIn("set.turns", keys(self.line("fan", card={"motor_turns": 0})))
        self.assertNotIn("set.turns", keys(self.line("pump", scope=Scope.ALIGN)))

    def test_without_the_card_nobody_proves_anything(self) -> None:
        work = self.line("pump")
        work.until("set.turns")
        with self.assertRaisesRegex(OutOfTurn, "Motor turns"):
            work.enter("set.turns", work.fill("set.turns"))


class MagneticTest(unittest.TestCase):
    """The rotor, what is put between, and the gap."""

    def drive(self, **more: Any) -> Work:
        return Work(family="magnetic drive", held=DISCS, **more)

    def test_nothing_is_unpacked_before_the_lead_has_signed_for_the_magnets(self) -> None:
        work = self.drive()
        self.assertEqual(work.state("receive.kit"), "blocked")
        work.enter("receive.magnets", work.fill("receive.magnets"))
        self.assertEqual(work.state("receive.kit"), "blocked")
        work.sign("receive.magnets")
        self.assertEqual(work.state("receive.kit"), "open")

    def test_size_decides_on_arms_and_on_pads_or_screws_and_all_of_them_come_out_again(self) -> None:
        for arms, apart in (("taken off first", "jacking screws"), ("stay on", "card pads on the copper")):
            work = self.drive()
            work.until("receive.size")
            work.enter("receive.size", {"arms": arms, "apart": apart, "actuator": "is here"})
            self.assertEqual("mount.arms_off" in keys(work), arms == "taken off first")
            work.until("set.nothing_left")
            [line] = [line for line in work.route().ledger if line.open]
            self.assertIn("pads" if "pads" in apart else "screws", line.what)
            short = dict(work.fill("set.nothing_left"))
            short["pads" if "pads" in apart else "screws"] = 3
            work.enter("set.nothing_left", short)
            self.assertEqual((work.state("set.nothing_left"), work.state("set.full_on")), ("over", "blocked"))
            work.until(None)
            self.assertEqual(work.route().why_not_signed_off(), [])

    def test_an_uneven_gap_is_evened_and_read_again_with_the_feet_torqued(self) -> None:
        work = self.drive()
        work.until("set.align")
        work.enter("set.align", gaps(3.4, 2.6))
        self.assertEqual(work.state("set.align"), "over")
        move = {"feet": [{"name": "motor front", "shim_mm": 0.1}], "axial_mm": -0.4}
        work.enter("set.align", move, EntryKind.MOVE)
        self.assertEqual(work.state("set.align"), "stale")
        work.until("couple.align")
        now = work.route().find("couple.align")
        assert now is not None
        read = work.enter("couple.align", gaps(3.0, 3.02))
        self.assertAlmostEqual(work.judged(read)["since"]["mean_load_mm"], 0.02)
        self.assertEqual(work.state("couple.align"), "to sign")

    def test_its_bolts_go_in_before_it_is_closed_and_it_is_turned_at_both_ends_of_its_travel(self) -> None:
        route = keys(self.drive())
        order = ["mount.lowered", "mount.rotor", "mount.centre", "mount.conductor", "set.near", "set.gap_spacers"]
        order += ["set.nothing_left", "set.full_on", "set.align", "couple.feet", "couple.align", "couple.turned"]
        self.assertEqual([key for key in route if key in order], order)
        self.assertNotIn("close.warm", route)

    def test_it_is_checked_and_evened_with_its_halves_closed(self) -> None:
        for scope in (Scope.CHECK, Scope.ALIGN):
            work = self.drive(scope=scope)
            work.until(None)
            self.assertEqual(work.route().why_not_signed_off(), [])
            found = work.route().find("found.align")
            assert found is not None
            self.assertEqual(found.step.form.kind, "bench")
