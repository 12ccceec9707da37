"""Where a job stands: what blocks, what becomes stale, what stays provisional."""

import unittest
from dataclasses import replace
from typing import Any

from millwright.errors import UnusableInput
from millwright.job import new_entry as entry
from millwright.job.called import called
from millwright.job.entry import EntryKind, SignatureKind
from millwright.job.new_entry import OutOfTurn
from millwright.job.now import StepState
from millwright.roles import Role
from millwright.verdict import Verdict

from .readings import GAP, dials, ring
from .work import Work


class OrderTest(unittest.TestCase):
    """What blocks what."""

    def test_nothing_that_needs_hands_is_open_before_it_is_proved_dead_and_signed(self) -> None:
        work = Work()
        open_now = {n.step.key for n in work.route().steps if n.state is StepState.OPEN}
        received = {f"receive.{what}" for what in ("kit", "like", "tools", "element")}
        self.assertEqual(open_now, {"safe.papers", "safe.locks", *received})
        for key in ("safe.papers", "safe.locks", "safe.try", *sorted(received)):
            work.enter(key, work.fill(key))
        self.assertEqual((work.state("safe.try"), work.state("prepare.dead")), ("to sign", "blocked"))
        work.sign("safe.try")
        self.assertEqual(work.state("prepare.dead"), "open")

    def test_a_lock_without_an_owner_is_not_complete(self) -> None:
        work = Work()
        rows = [{"energy": "electric", "point": "isolator", "lock": "L-1", "tag": "T-1", "who": " "}]
        work.enter("safe.locks", {"all": True, "rows": rows})
        self.assertEqual(work.state("safe.locks"), "incomplete")

    def test_a_whole_job_comes_to_its_end(self) -> None:
        work = Work()
        work.until(None)
        route = work.route()
        self.assertTrue(route.closed)
        self.assertEqual((route.provisional, route.why_not_signed_off()), ((), []))

    def test_a_reading_that_a_later_one_superseded_changes_nothing(self) -> None:
        work = Work()
        work.until("set.align")
        work.enter("set.align", dials(0.3))
        work.enter("set.align", {"feet": [{"name": "motor front", "shim_mm": 0.3}]}, EntryKind.MOVE)
        work.until("close.torque")
        work.enter("mount.hub.driver", work.fill("mount.hub.driver"))
        whole = [(n.step.key, n.state, n.stale_because) for n in work.route().steps]
        latest = {e.step: e for e in work.entries if e.kind is EntryKind.READING}
        work.entries = [e for e in work.entries if e.kind is not EntryKind.READING or latest[e.step] is e]
        self.assertEqual([(n.step.key, n.state, n.stale_because) for n in work.route().steps], whole)
        self.assertIn("stale", {state.value for _, state, _ in whole})

    def test_a_missing_value_blocks_the_step_that_needs_it_and_says_where_to_look(self) -> None:
        work = Work()
        work.until("set.gap")
        del work.card["gap_nominal_mm"]
        now = work.route().find("set.gap")
        assert now is not None
        self.assertEqual(now.state, StepState.BLOCKED)
        self.assertIn("Look in the coupling's installation manual", " ".join(now.blocked_by))
        with self.assertRaises(entry.OutOfTurn):
            work.enter("set.gap", GAP)
        value = {"value": 30.0, "means": "every reading", "source": {"kind": "drawing", "document": "D-7"}}
        work.enter("set.gap", {"key": "gap_nominal_mm", "value": value}, EntryKind.VALUE)
        self.assertEqual(work.state("set.gap"), "open")

    def test_what_stands_on_the_card_is_changed_by_the_lead_with_a_reason_and_what_was_judged_by_it_is_stale(self) -> None:
        work = Work()
        work.until("couple.feet")
        work.enter("couple.feet", work.fill("couple.feet"))
        torque = work.card["foot_bolt_torque_nm"]
        new = {"value": 160.0, "means": "dry", "source": {"kind": "drawing", "document": "Base drawing 4"}}
        change = {"key": "foot_bolt_torque_nm", "value": new}
        for role in (Role.APPRENTICE, Role.MILLWRIGHT):
            with self.subTest(role), self.assertRaises(OutOfTurn):
                work.enter("couple.feet", {**change, "reason": "stronger bolts"}, EntryKind.VALUE, role=role)
        with self.assertRaises(UnusableInput) as caught:
            work.enter("couple.feet", change, EntryKind.VALUE, role=Role.LEAD)
        self.assertEqual([p.path for p in caught.exception.problems], ["reason"])
        lie = {**change, "reason": "stronger bolts", "was": {**new, "value": 5.0}}
        entered = work.enter("couple.feet", lie, EntryKind.VALUE, role=Role.LEAD)
        self.assertEqual(entered.inputs["was"]["value"], torque.value)
        feet = work.route().find("couple.feet")
        assert feet is not None
        self.assertEqual(feet.state, StepState.STALE)
        said = f"“Machine foot bolt torque” on the card was changed from {torque.value:g} N·m to 160 N·m"
        self.assertIn(said, str(feet.stale_because))
        self.assertEqual(work.state("set.gap"), "done")

    def test_another_paper_for_the_same_figure_makes_nothing_stale_and_a_hubs_own_counts_as_a_change(self) -> None:
        work = Work()
        work.until("close.torque")
        same = work.card["set_screw_torque_nm"].model_dump(mode="json")
        given = {
            "key": "set_screw_torque_nm",
            "value": {**same, "source": {"kind": "drawing", "document": "7"}},
            "reason": "x",
        }
        work.enter("close.torque", given, EntryKind.VALUE, role=Role.LEAD)
        self.assertEqual(work.state("mount.screw"), "done")
        own = {"key": "set_screw_torque_nm@driven", "value": {**same, "value": 30.0}, "reason": "another hub"}
        with self.assertRaises(OutOfTurn):
            work.enter("close.torque", own, EntryKind.VALUE)
        work.enter("close.torque", own, EntryKind.VALUE, role=Role.LEAD)
        self.assertEqual((work.state("mount.screw"), work.state("couple.screw")), ("stale", "done"))

    def test_a_question_makes_its_step_wait_and_others_go_on(self) -> None:
        work = Work()
        asked = work.enter("safe.locks", {"text": "Is the steam line shared?"}, EntryKind.QUESTION)
        self.assertEqual((work.state("safe.locks"), work.state("safe.papers")), ("waiting", "open"))
        with self.assertRaises(entry.OutOfTurn):
            work.enter("safe.locks", {"question": asked.id, "text": "no"}, EntryKind.ANSWER)
        work.enter("safe.locks", {"question": asked.id, "text": "No."}, EntryKind.ANSWER, role=Role.LEAD)
        self.assertEqual(work.state("safe.locks"), "open")


def current(work: Work) -> str:
    """The reading that counts at the alignment."""
    now = work.route().find("set.align")
    assert now is not None and now.current is not None
    return now.current.id


class JudgedTest(unittest.TestCase):
    """Over, accepted, refused."""

    def test_over_its_limit_is_done_only_when_accepted_and_only_for_that_reading(self) -> None:
        work = Work()
        work.until("set.align")
        work.enter("set.align", dials(0.3))
        work.sign("set.align", SignatureKind.AUTHORISE)
        self.assertEqual(work.state("set.align"), "done")
        work.enter("set.align", dials(0.31))
        self.assertEqual(work.state("set.align"), "over")

    def test_the_lead_is_asked_to_accept_a_reading_until_it_is_accepted_sent_back_or_read_better(self) -> None:
        work = Work()
        work.until("set.align")
        work.enter("set.align", dials(0.3))
        read = current(work)
        ask = {"text": "The pipe pulls.", "accept": read}
        asked = work.enter("set.align", ask, EntryKind.QUESTION)
        self.assertEqual(work.state("set.align"), "waiting")
        self.assertEqual([q.id for q in work.route().questions], [asked.id])
        work.enter("set.align", {"question": asked.id, "text": "Loosen it."}, EntryKind.ANSWER, role=Role.LEAD)
        self.assertEqual(work.state("set.align"), "over")
        work.enter("set.align", ask, EntryKind.QUESTION)
        work.sign("set.align", SignatureKind.AUTHORISE)  # what waits is accepted as it waits
        self.assertEqual((work.state("set.align"), work.route().questions), ("done", ()))
        work.enter("set.align", dials(0.31))
        again = {"text": "And now?", "accept": current(work)}
        work.enter("set.align", again, EntryKind.QUESTION)
        work.enter("set.align", dials(0.0))  # nobody was kept from it by the question
        self.assertEqual((work.state("set.align"), work.route().questions), ("done", ()))
        with self.assertRaises(OutOfTurn):
            work.enter("set.align", {"text": "Once more?", "accept": read}, EntryKind.QUESTION)

    def test_a_slip_counts_for_nothing_and_what_was_there_before_counts_again(self) -> None:
        work = Work()
        work.until("set.align")
        found = work.enter("set.align", dials(0.3))
        typed = work.enter("set.align", dials(0.0))  # somebody's figures of another machine
        moved = work.enter("set.align", {"feet": [{"name": "motor tail", "shim_mm": 5.0}]}, EntryKind.MOVE)
        self.assertEqual(work.state("set.align"), "stale")
        for wrong in (found, typed):
            with self.assertRaises(OutOfTurn):  # the last one first
                work.enter("set.align", {"entry": wrong.id}, EntryKind.SLIP)
        work.enter("set.align", {"entry": moved.id, "text": "0.50, not 5"}, EntryKind.SLIP)
        self.assertEqual(work.state("set.align"), "done")
        work.enter("set.align", {"entry": typed.id}, EntryKind.SLIP)
        self.assertEqual((work.state("set.align"), current(work)), ("over", found.id))
        labels = called(work.entries)
        self.assertEqual([labels[e.id] for e in (found, typed, moved)], ["as read", "slip", "slip"])
        work.sign("set.align", SignatureKind.AUTHORISE)
        with self.assertRaises(OutOfTurn):
            work.enter("set.align", {"entry": found.id}, EntryKind.SLIP)

    def test_limits_come_from_the_card_whatever_was_sent(self) -> None:
        work = Work()
        work.until("set.gap")
        generous = {
            **GAP,
            "accept": {"mean": {"min_mm": 1.0, "max_mm": 99.0}},
            "readings": ring(40, 40, 40, 40),
        }
        self.assertEqual(work.enter("set.gap", generous).verdict, Verdict.OVER)

    def test_a_gap_inside_its_band_but_tilted_beyond_the_couplings_angle_is_over(self) -> None:
        work = Work()
        work.until("set.gap")
        # 0.8 mm over 105 mm is 7.6 mm/m; 0.35 degrees is 6.1
        self.assertEqual(
            work.enter("set.gap", {"readings": ring(30.4, 30, 29.6, 30), "diameter_mm": 105}).verdict, Verdict.OVER
        )

    def test_another_coupling_than_the_registered_one_is_over(self) -> None:
        work = Work()
        other = {"series": "Brackwater Bittern", "size": "rundlet", "drawing": True}
        self.assertEqual(work.enter("receive.like", other).verdict, Verdict.OVER)

    def test_a_hub_that_is_refused_is_not_mounted(self) -> None:
        work = Work()
        for decision in ("reject the hub", "rework the hub"):
            with self.subTest(decision):
                work.until("prepare.decide.driver")
                work.enter("prepare.decide.driver", {**work.fill("prepare.decide.driver"), "decision": decision})
                self.assertEqual((work.state("prepare.decide.driver"), work.state("mount.loose.driver")), ("over", "blocked"))
                measured = [work.state(f"prepare.{what}.driver") for what in ("clean", "fit", "key")]
                self.assertEqual((measured, work.state("prepare.fit.driven")), (["stale"] * 3, "done"))
                for key in ("prepare.decide.driver", "mount.loose.driver"):  # not decided anew before it was measured
                    with self.assertRaises(OutOfTurn):
                        work.enter(key, work.fill(key))
        work.until("mount.loose.driver")
        self.assertEqual(work.state("mount.loose.driver"), "open")

    def test_vibration_is_not_handed_over(self) -> None:
        work = Work()
        work.until("close.start")
        shaking = {**work.fill("close.start"), "runs": "vibration, noise or heat: find out why"}
        work.enter("close.start", shaking)
        self.assertEqual((work.state("close.start"), work.state("close.hand")), ("over", "blocked"))
        self.assertEqual(work.next(), "close.again")

    def test_locks_come_off_by_their_owners(self) -> None:
        work = Work()
        work.until("close.locks")
        form = work.fill("close.locks")
        self.assertIn("lock_0", form)
        work.enter("close.locks", {**form, "lock_0": False})
        self.assertEqual(work.state("close.locks"), "incomplete")


class LedgerTest(unittest.TestCase):
    """In and out."""

    def count(self, work: Work, counted: str, count: int) -> None:
        """One count of a temporary strap."""
        given = {"line": "strap", "what": "strap", "goes": "temporary, must come out", "counted": counted, "count": count}
        work.enter("close.count", given, EntryKind.LEDGER)

    def blocked(self, work: Work, key: str) -> tuple[str, ...]:
        """What a step waits for."""
        now = work.route().find(key)
        assert now is not None
        return tuple(now.blocked_by)

    def test_an_open_line_keeps_the_record_open(self) -> None:
        work = Work()
        work.until("close.count")
        self.count(work, "out", 2)
        self.count(work, "back", 1)
        self.assertIn("Ledger: strap, 1 to count back", list(map(str, work.route().why_not_signed_off())))
        with self.assertRaises(UnusableInput) as caught:
            self.count(work, "back", 2)
        self.assertEqual(
            [(p.path, p.message) for p in caught.exception.problems], [("count", "Only 1 of this are still out.")]
        )
        self.count(work, "back", 1)
        work.until(None)
        self.assertEqual(work.route().why_not_signed_off(), [])

    def test_nothing_goes_in_once_the_locks_are_off(self) -> None:
        work = Work()
        work.until("close.start")
        with self.assertRaisesRegex(OutOfTurn, "Locks are off. Lock it out again first."):
            self.count(work, "out", 1)
        self.assertEqual(self.blocked(work, "close.start"), ())

    def test_what_went_in_after_the_count_has_everything_from_the_count_on_done_again(self) -> None:
        work = Work()
        work.until("close.locks")
        self.count(work, "out", 1)
        self.assertEqual([work.state(f"close.{key}") for key in ("count", "guard")], ["stale", "stale"])
        self.assertIn("Ledger: strap, 1 to count back.", self.blocked(work, "close.locks"))
        self.count(work, "back", 1)
        self.assertEqual(work.state("close.count"), "stale")
        work.until(None)
        self.assertEqual(work.route().why_not_signed_off(), [])

    def test_the_start_asks_the_ledger_itself(self) -> None:
        work = Work()
        work.until("close.count")
        self.count(work, "out", 1)
        counted = work.entries[-1]
        self.count(work, "back", 1)
        work.until("close.start")
        # As one stands that was entered before it was refused.
        work.entries.append(replace(counted, id="later", number=work.route().last_number + 1))
        self.assertIn("Ledger: strap, 1 to count back.", self.blocked(work, "close.start"))
        self.assertEqual(work.state("close.guard"), "stale")

    def test_what_never_went_out_does_not_come_back(self) -> None:
        work = Work()
        with self.assertRaises(UnusableInput) as caught:
            self.count(work, "back", 1)
        self.assertEqual([p.path for p in caught.exception.problems], ["line"])

    def test_a_line_the_card_does_not_have_and_a_figure_out_of_range_are_told_apart(self) -> None:
        value = {"value": 5000.0, "means": "dry", "source": {"kind": "sample", "document": "x"}}
        for key, path in (("no_such_mm", "key"), ("set_screw_torque_nm", "value.value")):
            with self.subTest(key), self.assertRaises(UnusableInput) as caught:
                Work().enter("safe.papers", {"key": key, "value": value}, EntryKind.VALUE)
            self.assertEqual([p.path for p in caught.exception.problems], [path])


class SheetTest(unittest.TestCase):
    """What a sheet refuses."""

    def test_names_the_place_of_what_cannot_be_right(self) -> None:
        work = Work()
        rows: list[tuple[str, str, dict[str, Any], str]] = [
            ("a tick that is a word", "safe.papers", {"manual": "yes"}, "manual"),
            ("a name nobody knows", "safe.papers", {"manuel": True}, "manuel"),
            ("a condition nobody knows", "receive.kit", {"element": "fine"}, "element"),
            ("a date that is none", "receive.tools", {"wrench_until": "soon"}, "wrench_until"),
            ("a row's misspelt column", "safe.locks", {"rows": [{"lok": "1"}]}, "rows.0.lok"),
        ]
        for why, key, inputs, path in rows:
            with self.subTest(why):
                with self.assertRaises(UnusableInput) as caught:
                    work.enter(key, inputs)
                self.assertEqual([p.path for p in caught.exception.problems], [path])
