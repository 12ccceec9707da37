"""Where a job stands: what blocks, what becomes stale, what stays provisional."""

import json
import unittest
from datetime import UTC, datetime, timedelta
from typing import Any

from millwright.errors import UnusableInput
from millwright.line import LineSpec
from millwright.model import read_json
from millwright.route import entry
from millwright.route.build import why_no_route
from millwright.route.state import Entry, EntryKind, RouteNow, Signature, SignatureKind, StepState, stand
from millwright.route.steps import BenchForm, Role, SheetForm
from millwright.values import Source, Value
from millwright.verdict import Verdict

START = datetime(2026, 5, 12, 6, 0, tzinfo=UTC)
FIGURES = {
    "fit_min_mm": -0.045,
    "fit_max_mm": -0.005,
    "set_screw_torque_nm": 25,
    "gap_nominal_mm": 30,
    "gap_plus_minus_mm": 1,
    "offset_limit_mm": 0.4,
    "angle_limit_deg": 0.35,
    "sliding_mm_per_s": 5.6,
    "foot_bolt_torque_nm": 190,
    "element_width_mm": 26,
    "open_centre_rpm": 1200,
    "interference_min_mm": 0.02,
    "interference_max_mm": 0.06,
    "heat_clearance_mm": 0.03,
    "hub_ceiling_c": 200,
    "flange_bolts": 6,
    "flange_bolt_torque_nm": 80,
    "sleeve_spread_mm": 0.3,
}
CLOCKS = (0, 90, 180, 270)


def ring(*values: float) -> list[dict[str, float]]:
    """Readings at 12, 3, 6 and 9."""
    return [{"clock": c, "value_mm": v} for c, v in zip(CLOCKS, values, strict=True)]


def dials(low_mm: float) -> dict[str, Any]:
    """Rim and face of a machine that is low and square."""
    rim = {"kind": "rim", "bracket_on": "stationary", "x_mm": 20.0, "readings": ring(0, low_mm, 2 * low_mm, low_mm)}
    face = {"kind": "face", "bracket_on": "stationary", "x_mm": 20.0, "radius_mm": 50.0, "readings": ring(0, 0, 0, 0)}
    return {"dials": [rim, face]}


def bolts(count: int, torque: float, passes: tuple[float, ...]) -> dict[str, Any]:
    """Every bolt pulled to its torque in every pass."""
    return {
        "pulls": [{"pass": n, "bolt": b + 1, "torque_nm": torque * p} for n, p in enumerate(passes, 1) for b in range(count)]
    }


READINGS: dict[str, dict[str, Any]] = {
    "prepare.fit": {"shaft_mm": [48.01], "bore_mm": [48.03]},
    "prepare.key": {
        "key": {"width_mm": 14, "height_mm": 9, "length_mm": 60},
        "shaft_keyway": {"width_mm": 14.01, "depth_mm": 5.4},
        "hub_keyway": {"width_mm": 14.03, "depth_mm": 3.8, "length_mm": 60},
    },
    "mount.screw": bolts(1, 25, (1,)),
    "couple.screw": bolts(1, 25, (1,)),
    "set.gap": {"readings": ring(30, 30, 30, 30), "diameter_mm": 105},
    "couple.gap": {"readings": ring(30, 30, 30, 30), "diameter_mm": 105},
    "set.straightedge": {
        "readings": [{"clock": c, "feeler_mm": 0.0, "on": "movable"} for c in CLOCKS],
        "stationary_hub_mm": 105,
        "movable_hub_mm": 105,
    },
    "set.align": dials(0.0),
    "couple.align": dials(0.0),
    "couple.feet": bolts(4, 190, (0.5, 0.75, 1)),
    "mount.screw.second": bolts(1, 25, (1,)),
    "couple.flange": bolts(6, 80, (0.5, 0.75, 1)),
    "couple.sleeve": {"readings": ring(4.1, 4.2, 4.2, 4.1), "diameter_mm": 105},
    "prepare.heat": {
        "bore_mm": 48.0,
        "interference_mm": 0.04,
        "shaft_c": 20.0,
        "ambient_c": 20.0,
        "hub": {"material": "steel", "outside_mm": 105, "length_mm": 60},
    },
}
SHRUNK = {"shaft_mm": [48.04], "bore_mm": [48.0]}
WORDS = {
    "series": "Trial J",
    "size": "42",
    "hub_c": 24,
    "distance_mm": 30,
    "standout_mm": 0,
}


class Work:
    """A job worked on by one person, in memory."""

    def __init__(
        self, *, family: str = "jaw, curved", held: tuple[str, str] = ("keyed, slip fit", "keyed, slip fit"), **spec: Any
    ) -> None:
        machine = {"drawn_as": "motor", "shaft_diameter_mm": 48, "foot_bolts": 4}
        feet = [{"name": f"motor {n}", "from_coupling_mm": x} for n, x in (("front", 300), ("rear", 586))]
        hub = {"diameter_mm": 105, "length_mm": 60}
        line = {
            "driver": {"name": "Motor", "feet": feet, **machine},
            "driven": {"name": "Blower", "feet": [], **machine},
            "coupling": {
                "family": family,
                "series": "Trial J",
                "size": "42",
                "driver_hub": {**hub, "connection": held[0]},
                "driven_hub": {**hub, "connection": held[1]},
            },
            "movable": "driver",
            "speed_rpm": 1480,
            **spec,
        }
        self.line = read_json(LineSpec, json.dumps(line))
        source = Source(kind="sample", document="Trial sheet")
        means = {"offset_limit_mm": "offset", **dict.fromkeys((k for k in FIGURES if "torque" in k), "dry")}
        self.card = {k: Value(value=v, means=means.get(k, ""), source=source) for k, v in FIGURES.items()}
        self.entries: list[Entry] = []
        self.signatures: list[Signature] = []

    def route(self) -> RouteNow:
        """Where it stands."""
        return stand(self.line, self.card, self.entries, self.signatures)

    def state(self, key: str) -> str:
        """One step's state."""
        now = self.route().find(key)
        assert now is not None, key
        return now.state.value

    def enter(
        self, key: str, inputs: dict[str, Any], kind: EntryKind = EntryKind.READING, role: Role = Role.MILLWRIGHT
    ) -> Entry:
        """Checked and appended, as the server does it."""
        checked = entry.check(self.route(), key, kind, inputs, role)
        number = len(self.entries) + len(self.signatures) + 1
        made = Entry(
            id=f"e{number}",
            number=number,
            step=key,
            kind=kind,
            inputs=checked.inputs,
            verdict=Verdict(checked.result["verdict"]) if checked.result else None,
            by="A",
            role=role,
            at=START + timedelta(minutes=number),
        )
        self.entries.append(made)
        return made

    def sign(self, key: str, kind: SignatureKind = SignatureKind.HOLD) -> None:
        """The current reading of a step, signed."""
        now = self.route().find(key)
        assert now is not None
        number = len(self.entries) + len(self.signatures) + 1
        covers = now.current.id if now.current else None
        self.signatures.append(
            Signature(
                id=f"s{number}",
                number=number,
                kind=kind,
                step=key,
                entry=covers,
                by="L",
                role=Role.LEAD,
                at=START,
                reason="why",
            )
        )

    def fill(self, key: str) -> dict[str, Any]:
        """A step's inputs as they should be."""
        now = self.route().find(key)
        assert now is not None
        form = now.step.form
        if key.startswith("prepare.fit") and not self.line.hub("driver" if "driver" in key else "driven").slides:
            return SHRUNK
        if isinstance(form, BenchForm):
            return READINGS[key] if key in READINGS else READINGS[key.rsplit(".", 1)[0]]
        assert isinstance(form, SheetForm)
        usual: dict[str, Any] = {
            "tick": True,
            "condition": "ok",
            "text": "as seen",
            "date": "2027-01-31",
            "number": 20,
            "length": 1,
        }
        answers = {f.key: WORDS.get(f.key, f.options[0] if f.options else usual[f.kind]) for f in form.fields}
        if form.rows:
            answers["rows"] = [{column.key: "electric" for column in form.rows}]
        return answers

    def until(self, last: str | None) -> None:
        """Every step that is not done, in working order, up to but without the last."""
        for _ in range(200):
            now = next((n for n in self.route().steps if n.state is not StepState.DONE), None)
            if now is None or now.step.key == last:
                return
            if now.state is StepState.TO_SIGN:
                self.sign(now.step.key)
            else:
                self.enter(now.step.key, self.fill(now.step.key))
        raise AssertionError("the route does not come to an end")


class OrderTest(unittest.TestCase):
    """What blocks what."""

    def test_nothing_that_needs_hands_is_open_before_it_is_proved_dead_and_signed(self) -> None:
        work = Work()
        open_now = {n.step.key for n in work.route().steps if n.state is StepState.OPEN}
        self.assertEqual(open_now, {"safe.papers", "safe.locks", "receive.kit", "receive.like", "receive.tools"})
        for key in ("safe.papers", "safe.locks", "safe.try", "receive.kit", "receive.like", "receive.tools"):
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
            work.enter("set.gap", READINGS["set.gap"])
        value = {"value": 30.0, "source": {"kind": "drawing", "document": "D-7"}}
        work.enter("set.gap", {"key": "gap_nominal_mm", "value": value}, EntryKind.VALUE)
        self.assertEqual(work.state("set.gap"), "open")

    def test_a_question_makes_its_step_wait_and_others_go_on(self) -> None:
        work = Work()
        asked = work.enter("safe.locks", {"text": "Is the steam line shared?"}, EntryKind.QUESTION)
        self.assertEqual((work.state("safe.locks"), work.state("safe.papers")), ("waiting", "open"))
        with self.assertRaises(entry.OutOfTurn):
            work.enter("safe.locks", {"question": asked.id, "text": "no"}, EntryKind.ANSWER)
        work.enter("safe.locks", {"question": asked.id, "text": "No."}, EntryKind.ANSWER, role=Role.LEAD)
        self.assertEqual(work.state("safe.locks"), "open")

    def test_no_route_is_promised_where_there_is_none(self) -> None:
        work = Work()
        self.assertIsNone(why_no_route(work.line))
        for other in (
            {"family": "steel grid"},
            {"driven_hub": work.line.hub("driven").model_copy(update={"connection": "clamp ring"})},
        ):
            coupling = work.line.coupling.model_copy(update=other)
            self.assertIsNotNone(why_no_route(work.line.model_copy(update={"coupling": coupling})))


SLIP, SHRINK = "keyed, slip fit", "keyed, interference"


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

    def test_a_hub_that_stuck_is_not_mounted_and_is_told_what_never_to_do(self) -> None:
        work = Work(held=(SHRINK, SLIP))
        work.until("mount.hot.driver")
        stuck = entry.check(
            work.route(), "mount.hot.driver", EntryKind.READING, {"outcome": "stuck half way"}, Role.MILLWRIGHT
        )
        assert stuck.result is not None
        self.assertEqual(stuck.result["verdict"], "over")
        self.assertIn("Do not hammer", " ".join(stuck.result["advice"]))

    def test_a_hub_still_hot_is_not_measured_as_cold(self) -> None:
        work = Work(held=(SHRINK, SLIP))
        work.until("mount.cold.driver")
        hot = {**work.fill("mount.cold.driver"), "hub_c": 80}
        work.enter("mount.cold.driver", hot)
        self.assertEqual((work.state("mount.cold.driver"), work.state("mount.screw")), ("over", "blocked"))


class StaleTest(unittest.TestCase):
    """What a move spoils, and what it does not."""

    def test_a_move_makes_gap_straightedge_and_alignment_stale_and_keeps_as_found(self) -> None:
        work = Work()
        work.until("set.align")
        found = work.enter("set.align", dials(0.3))
        self.assertEqual(work.state("set.align"), "over")
        work.enter("set.align", {"feet": [{"name": "motor front", "shim_mm": 0.3}]}, EntryKind.MOVE)
        self.assertEqual([work.state(f"set.{key}") for key in ("gap", "straightedge", "align")], ["stale"] * 3)
        self.assertEqual(work.state("prepare.fit.driver"), "done")
        work.enter("set.align", dials(0.0))
        self.assertEqual(work.state("set.align"), "done")
        self.assertEqual(work.state("couple.feet"), "blocked")
        self.assertIn(found, work.entries)

    def test_torqued_feet_ask_for_the_reading_after_and_a_later_move_for_both(self) -> None:
        work = Work()
        work.until("close.torque")
        work.enter("set.align", {"axial_mm": 0.2}, EntryKind.MOVE)
        stale = {n.step.key for n in work.route().steps if n.state is StepState.STALE}
        self.assertEqual(stale, {"set.gap", "set.straightedge", "set.align", "couple.feet", "couple.align", "couple.gap"})

    def test_a_hub_that_slides_makes_its_gap_and_set_screw_stale(self) -> None:
        work = Work()
        work.until("close.torque")
        work.enter("couple.element", work.fill("couple.element"))
        stale = {n.step.key for n in work.route().steps if n.state is StepState.STALE}
        self.assertEqual(stale, {"couple.gap", "couple.screw"})

    def test_a_signature_covers_its_reading_only(self) -> None:
        work = Work()
        work.until("couple.element")
        self.assertEqual(work.state("couple.align"), "done")
        work.enter("couple.align", dials(0.001))
        self.assertEqual(work.state("couple.align"), "to sign")

    def test_the_record_stays_open_and_names_what_is_stale(self) -> None:
        work = Work()
        work.until("close.sign")
        work.enter("set.gap", {"axial_mm": 0.1}, EntryKind.MOVE)
        self.assertIn("Align the motor: Since this was read, the machines were moved", work.route().why_not_signed_off())

    def test_a_light_set_screw_is_provisional_until_it_is_torqued(self) -> None:
        work = Work()
        work.until("set.rough")
        self.assertIn("motor: hub held by a light set screw only", work.route().provisional)
        work.until("close.torque")
        self.assertEqual(work.route().provisional, ())


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

    def test_limits_come_from_the_card_whatever_was_sent(self) -> None:
        work = Work()
        work.until("set.gap")
        generous = {
            **READINGS["set.gap"],
            "accept": {"mean": {"min_mm": 1.0, "max_mm": 99.0}},
            "readings": ring(40, 40, 40, 40),
        }
        self.assertEqual(work.enter("set.gap", generous).verdict, Verdict.OVER)

    def test_another_coupling_than_the_registered_one_is_over(self) -> None:
        work = Work()
        other = {"series": "Other K", "size": "42", "drawing": True}
        self.assertEqual(work.enter("receive.like", other).verdict, Verdict.OVER)

    def test_a_hub_that_is_refused_is_not_mounted(self) -> None:
        work = Work()
        work.until("prepare.decide.driver")
        work.enter("prepare.decide.driver", {**work.fill("prepare.decide.driver"), "decision": "refuse the hub"})
        self.assertEqual(work.state("mount.loose.driver"), "blocked")

    def test_an_open_centre_element_above_its_speed_is_over(self) -> None:
        work = Work()
        work.until("prepare.distance")
        close = {"distance_mm": 20.0, "centre": "open centre"}
        self.assertEqual(work.enter("prepare.distance", close).verdict, Verdict.OVER)
        solid = {"distance_mm": 20.0, "centre": "solid centre"}
        self.assertEqual(work.enter("prepare.distance", solid).verdict, Verdict.OVER)

    def test_vibration_is_not_handed_over(self) -> None:
        work = Work()
        work.until("close.start")
        shaking = {**work.fill("close.start"), "runs": "vibration, noise or heat: find out why"}
        work.enter("close.start", shaking)
        self.assertEqual((work.state("close.start"), work.state("close.hand")), ("over", "blocked"))

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

    def test_an_open_line_keeps_the_record_open(self) -> None:
        work = Work()
        work.until("close.sign")
        self.count(work, "out", 2)
        self.count(work, "back", 1)
        self.assertEqual(work.route().why_not_signed_off(), ["Ledger: strap, 1 to count back"])
        with self.assertRaises(UnusableInput):
            self.count(work, "back", 2)
        self.count(work, "back", 1)
        self.assertEqual(work.route().why_not_signed_off(), [])


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
