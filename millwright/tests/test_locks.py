"""The chain of safety: locks that came off, proofs that grew old, and everything that is closed after the work."""

import unittest
from dataclasses import replace
from datetime import timedelta

from millwright.errors import UnusableInput
from millwright.job.entry import EntryKind
from millwright.job.new_entry import OutOfTurn
from millwright.job.now import StepState
from millwright.plan.steps import SheetForm
from millwright.roles import Role
from millwright.scope import Scope

from .readings import dials
from .work import START, Work

ROUGH = "vibration, noise or heat: find out why"
AFTER_THE_WORK = ("close.torque", "close.look", "close.count", "close.guard", "close.locks", "close.start")


def shaking() -> Work:
    """A job that was started and does not run smoothly."""
    work = Work(family="disc, drop-out spacer")
    work.until("close.start")
    work.enter("close.start", {**work.fill("close.start"), "runs": ROUGH})
    return work


class LocksTest(unittest.TestCase):
    """While the locks are off nobody has hands on the machine."""

    def test_with_the_locks_off_no_move_and_nothing_with_hands_is_taken(self) -> None:
        work = shaking()
        with self.assertRaisesRegex(OutOfTurn, "Locks are off"):
            work.enter("set.align", {"axial_mm": 0.2}, EntryKind.MOVE)
        for now in work.route().steps:
            if now.step.hands_on and now.step.form.kind != "sign":
                with self.subTest(now.step.key), self.assertRaisesRegex(OutOfTurn, "Locks are off"):
                    work.enter(now.step.key, work.fill(now.step.key))
        work.enter("close.start", {"text": "it hums at the driven end"}, EntryKind.NOTE)
        hands = {now.step.key for now in work.route().steps if not now.step.hands_on}
        self.assertEqual(
            hands & {"mount.hub.driver", "set.align", "couple.feet", "close.torque", "close.guard", "close.count"}, set()
        )

    def test_vibration_leads_back_through_locks_work_second_pull_guard_and_start(self) -> None:
        work = shaking()
        self.assertEqual((work.next(), work.state("close.hand")), ("close.again", "blocked"))
        form = next(now.step.form for now in work.route().steps if now.step.key == "close.again")
        assert isinstance(form, SheetForm)  # the same points; which lock hangs there now, and whose, nobody has said yet
        locked = next(made for made in work.entries if "rows" in made.inputs)
        blank = {**locked.inputs["rows"][0], "lock": "", "tag": "", "who": ""}
        self.assertEqual(form.suggested_rows, (blank,))
        work.enter("close.again", work.fill("close.again"))
        self.assertEqual(work.state("close.again"), "to sign")
        with self.assertRaises(OutOfTurn):  # locked again, and not signed that it is dead
            work.enter("set.align", {"axial_mm": 0.2}, EntryKind.MOVE)
        work.sign("close.again")
        self.assertEqual([work.state(key) for key in AFTER_THE_WORK], ["stale"] * 6)
        work.enter("set.align", {"feet": [{"name": "motor front", "slide_mm": 0.05}]}, EntryKind.MOVE)
        again: list[str | None] = []
        while len(again) < 30 and work.next() != "close.hand":
            again.append(work.next())
            work.step_on()
        self.assertEqual(again[:3], ["set.gap", "set.align", "couple.feet"])
        self.assertEqual([key for key in again if key in AFTER_THE_WORK], list(AFTER_THE_WORK))
        self.assertEqual((work.state("close.again"), work.state("close.hand")), ("done", "to sign"))
        work.until(None)
        self.assertTrue(work.route().closed)

    def test_it_may_be_locked_out_again_a_second_time(self) -> None:
        work = shaking()
        for _ in range(2):
            work.until("close.start")
            work.enter("close.start", {**work.fill("close.start"), "runs": ROUGH})
            self.assertEqual(work.next(), "close.again")
            self.assertIn(work.state("close.again"), ("open", "stale"))
        work.until(None)
        self.assertTrue(work.route().closed)

    def test_while_the_locks_hang_there_is_nothing_to_lock_out_again(self) -> None:
        work = Work()
        work.until("close.locks")
        self.assertIsNone(work.route().find("close.again"))
        work.step_on()
        again = work.route().find("close.again")
        assert again is not None
        self.assertTrue(again.step.optional)
        self.assertEqual(work.next(), "close.start")
        work.until(None)
        self.assertTrue(work.route().closed)

    def test_a_torque_that_the_lead_changes_after_the_start_asks_for_the_locks_first(self) -> None:
        work = Work(family="gear")
        work.until("close.hand")
        value = {"value": 95, "means": "dry", "source": {"kind": "drawing", "document": "D-7"}}
        given = {"key": "flange_bolt_torque_nm", "value": value, "reason": "another bolt class"}
        work.enter("close.start", given, EntryKind.VALUE, role=Role.LEAD)
        self.assertEqual((work.state("couple.flange"), work.next()), ("stale", "close.again"))

    def test_warm_readings_are_taken_while_it_runs(self) -> None:
        work = Work()
        work.until("close.hand")
        work.enter("close.warm", dials(0.0))
        self.assertEqual(work.state("close.warm"), "done")


class ProofTest(unittest.TestCase):
    """The dead state is proved again after a break, a hand-over, and as often as the site says."""

    def test_after_a_break_or_a_hand_over_it_is_proved_again_before_hands_go_in(self) -> None:
        for given, words in (
            ({"what": "break"}, "there was a break"),
            ({"what": "hand-over", "goes": "J. Thornquist", "comes": "W. Okonde"}, "J. Thornquist went, W. Okonde came"),
        ):
            with self.subTest(words):
                work = Work()
                work.until("set.gap")
                work.enter("set.gap", given, EntryKind.HAND_OVER)
                now = work.route().find("set.gap")
                assert now is not None
                self.assertEqual((now.state, work.next()), (StepState.BLOCKED, "prepare.dead"))
                self.assertIn(f"Prove it dead again first: {words}.", now.blocked_by)
                self.assertEqual(work.state("prepare.dead"), "stale")
                with self.assertRaises(OutOfTurn):
                    work.enter("set.gap", {"axial_mm": 0.1}, EntryKind.MOVE)
                work.step_on()
                self.assertEqual(work.next(), "set.gap")

    def test_a_hand_over_says_who_goes_and_who_comes(self) -> None:
        work = Work()
        with self.assertRaises(UnusableInput) as caught:
            work.enter("safe.papers", {"what": "hand-over", "goes": " "}, EntryKind.HAND_OVER)
        self.assertEqual([p.path for p in caught.exception.problems], ["goes", "comes"])

    def test_a_break_beside_an_open_gear_unit_wants_its_cover_on(self) -> None:
        work = Work(family="shaft-mounted reducer", scope=Scope.BACKSTOP)
        work.until("backstop.arrow")
        with self.assertRaises(UnusableInput) as caught:
            work.enter("backstop.arrow", {"what": "break"}, EntryKind.HAND_OVER)
        self.assertEqual([p.path for p in caught.exception.problems], ["covered"])
        work.enter("backstop.arrow", {"what": "break", "covered": True}, EntryKind.HAND_OVER)
        work.until("close.guard")
        work.enter("close.guard", {"what": "break"}, EntryKind.HAND_OVER)
        work.until(None)
        self.assertTrue(work.route().closed)
        before = Work(family="shaft-mounted reducer", scope=Scope.BACKSTOP)
        before.terms = replace(before.terms, edition=2)
        before.until("backstop.arrow")
        before.enter("backstop.arrow", {"what": "break"}, EntryKind.HAND_OVER)

    def test_a_proof_grows_old_by_the_sites_hours_and_not_without_them(self) -> None:
        work = Work()
        work.until("set.gap")
        proved = next(e.at for e in work.entries if e.step == "prepare.dead")
        for hours, later, due in ((None, 50, False), (8, 7.9, False), (8, 8.1, True)):
            work.proof_hours, work.now = hours, proved + timedelta(hours=later)
            self.assertEqual(work.next() == "prepare.dead", due, (hours, later))
        work.step_on()  # proved now
        self.assertEqual(work.next(), "set.gap")
        self.assertGreater(work.now, START)

    def test_locking_out_again_is_a_proof(self) -> None:
        work = shaking()
        work.enter("close.again", {"what": "break"}, EntryKind.HAND_OVER)
        work.until("close.torque")
        self.assertEqual(work.state("prepare.dead"), "done")


class HotRunTest(unittest.TestCase):
    """What can have happened to a hub that is heated."""

    def test_a_cold_hub_has_not_gripped(self) -> None:
        work = Work(held=("keyed, interference", "keyed, slip fit"))
        work.until("mount.hot.driver")
        for event in ("gripped", "on the shaft"):
            with self.assertRaisesRegex(OutOfTurn, "The hub is cold"):
                work.enter("mount.hot.driver", {"event": event}, EntryKind.EVENT)
        for event in ("on the heater", "out of the heater"):
            work.enter("mount.hot.driver", {"event": event}, EntryKind.EVENT)
        with self.assertRaisesRegex(OutOfTurn, "on its way"):
            work.enter("mount.hot.driver", {"event": "gripped"}, EntryKind.EVENT)

    def test_a_hot_hub_waits_for_nobody(self) -> None:
        work = Work(held=("keyed, interference", "keyed, slip fit"))
        work.until("mount.hot.driver")
        work.enter("mount.hot.driver", {"what": "break"}, EntryKind.HAND_OVER)
        with self.assertRaisesRegex(OutOfTurn, "Prove it dead again"):
            work.enter("mount.hot.driver", {"event": "on the heater"}, EntryKind.EVENT)
        work.step_on()
        work.enter("mount.hot.driver", {"event": "on the heater"}, EntryKind.EVENT)
        work.enter("mount.hot.driver", {"what": "break"}, EntryKind.HAND_OVER)
        for event in ("out of the heater", "on the shaft", "gripped"):
            work.enter("mount.hot.driver", {"event": event}, EntryKind.EVENT)
        self.assertEqual(work.next(), "prepare.dead")

    def test_home_on_its_mark_wants_the_run_or_a_word_why_there_is_none(self) -> None:
        work = Work(held=("keyed, interference", "keyed, slip fit"))
        work.until("mount.hot.driver")
        work.enter("mount.hot.driver", {"outcome": "seated at the mark"})
        self.assertEqual((work.state("mount.hot.driver"), work.state("mount.cold.driver")), ("incomplete", "blocked"))
        work.enter("mount.hot.driver", {"outcome": "seated at the mark", "found": "tablet was flat"})
        self.assertEqual(work.state("mount.hot.driver"), "done")
        noted = Work(held=("keyed, interference", "keyed, slip fit"))
        noted.until("mount.hot.driver")
        for event in ("on the heater", "out of the heater", "on the shaft"):
            noted.enter("mount.hot.driver", {"event": event}, EntryKind.EVENT)
        noted.enter("mount.hot.driver", {"outcome": "seated at the mark"})
        self.assertEqual(noted.state("mount.hot.driver"), "done")


class ShimsTest(unittest.TestCase):
    """A foot that was shimmed may have become a soft one."""

    def test_shims_make_soft_feet_and_torqued_feet_stale_and_a_slide_does_not(self) -> None:
        for move, soft in (({"slide_mm": 0.2}, "done"), ({"shim_mm": 0.3}, "stale")):
            with self.subTest(move):
                work = Work()
                work.until("close.torque")
                work.enter("set.align", {"feet": [{"name": "motor front", **move}]}, EntryKind.MOVE)
                self.assertEqual((work.state("set.soft"), work.state("couple.feet")), (soft, "stale"))
                for key in ("set.gap", "set.straightedge", "set.align"):  # read while the shims are still being chosen
                    work.enter(key, work.fill(key))
                self.assertEqual(work.next(), "set.soft" if soft == "stale" else "couple.feet")
