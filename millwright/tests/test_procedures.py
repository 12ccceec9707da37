"""The order of the work: every family runs to its end in the order it is written in, and in no other."""

import unittest
from collections.abc import Iterator
from dataclasses import replace
from itertools import product
from typing import get_args

from millwright.card.values import Source, Value
from millwright.errors import UnusableInput
from millwright.job.entry import EntryKind
from millwright.job.new_entry import OutOfTurn
from millwright.line import Family
from millwright.plan.compose import scopes
from millwright.plan.counts import back
from millwright.plan.families.facts import Circle
from millwright.plan.families.register import FAMILIES, CouplingFamily
from millwright.plan.fields import choice, marks, out, tick
from millwright.plan.order import Aside, Reread, any_order, arrange, in_order
from millwright.plan.procedure import Compiler, LightScrew, Procedure, Proof, Pull, Stop, answered, expected
from millwright.plan.steps import BenchForm, SheetForm, SignForm, Stage, Step
from millwright.scope import Scope

from .work import Work, circles, ways_of

DROP_OUT = "disc, drop-out spacer"
SOURCE = Source(kind="drawing", document="D-7")


def works(family: str) -> Iterator[tuple[str, Work]]:
    """A family with every way of holding a hub, the other hub and the scope taken in turn."""
    i, ways = get_args(Family).index(family), ways_of(family)
    for j, held in enumerate(ways):
        taken = scopes(FAMILIES[family].facts)
        scope = taken[(i + j) % len(taken)]
        yield f"{held}, {scope.value}", Work(family=family, held=(held, ways[(i + 2 * j) % len(ways)]), scope=scope)


def came_before(steps: list[Step]) -> dict[str, set[str]]:
    """By step, everything that has to be done or read before it."""
    found: dict[str, set[str]] = {}
    for step in steps:
        direct = {*step.after, *step.passed, *step.once}
        found[step.key] = direct | {earlier for key in direct for earlier in found[key]}
    return found


class OfAFamily(unittest.TestCase):
    """From lock-out to the signed record; a class a family, so that each may run beside the others."""

    family = ""

    def test_it_runs_to_its_end_in_its_order_and_cannot_be_run_out_of_it(self) -> None:
        for name, work in works(self.family):
            with self.subTest(name):
                for _ in range(150):
                    key = work.next()
                    if key is None:
                        break
                    self.nothing_later_may_be_entered(work, key)
                    work.step_on()
                self.assertTrue(work.route().closed)
                self.assertEqual(work.route().why_not_signed_off(), [])

    def nothing_later_may_be_entered(self, work: Work, key: str) -> None:
        """What is written below the next step of a stage where things are put together waits for it."""
        route = work.route()
        now = route.find(key)
        assert now is not None
        if now.step.stage not in (Stage.COUPLE, Stage.CLOSE) or key == "close.again":
            return
        keys = [n.step.key for n in route.steps]
        for later in route.steps[keys.index(key) + 1 :]:
            if later.step.key in ("close.again",) or later.step.optional:
                continue
            self.assertTrue(later.blocks, f"{later.step.key} while {key} is to be done")
            if later.step.form.kind == "sheet":
                with self.assertRaises(OutOfTurn):
                    work.enter(later.step.key, work.fill(later.step.key))

    def test_the_order_is_that_of_the_procedure_whatever_holds_the_hubs(self) -> None:
        known = FAMILIES[self.family]
        for one, other in product(ways_of(self.family), repeat=2):
            route = Work(family=self.family, held=(one, other)).route()
            keys = [n.step.key for n in route.steps if n.step.stage is Stage.COUPLE]
            before = came_before([n.step for n in route.steps])
            for i, key in enumerate(keys):
                self.assertLessEqual(set(keys[:i]), before[key], (one, other))
            written = [f"couple.{item.key}" for item in known.procedure().couple_up if isinstance(item, Stop)]
            self.assertEqual([k for k in keys if k in written], [k for k in written if k in keys])


for which, name in enumerate(get_args(Family), start=1):
    called = f"EveryFamily{which}Test"
    globals()[called] = type(called, (OfAFamily,), {"family": name, "__module__": __name__})
del OfAFamily  # by itself it is of no family


class EveryFamilyTest(unittest.TestCase):
    """What every family keeps."""

    def test_a_hub_that_was_left_light_is_torqued_where_the_family_says(self) -> None:
        for name, family in FAMILIES.items():
            if family.facts.closes_by_hub:
                items = family.procedure().couple_up
                self.assertEqual(sum(isinstance(item, LightScrew) for item in items), 1, name)

    def test_whatever_holds_the_coupling_is_pulled_once_and_checked_once_more(self) -> None:
        for name, known in FAMILIES.items():
            procedure = known.procedure()
            items = (*procedure.prepare, *procedure.before_setting, *procedure.setting, *procedure.couple_up)
            pulls = [i.circle for i in items if isinstance(i, Pull) and known.facts.circle(i.circle) in circles(name)]
            self.assertEqual(sorted(pulls), sorted(circle.key for circle in circles(name)), name)
            work = Work(family=name)
            again = work.route().find("close.torque")
            assert again is not None and isinstance(again.step.form, SheetForm)
            self.assertLessEqual(set(pulls), {field.key for field in again.step.form.fields}, name)


MADE_UP = Procedure(
    couple_up=(
        Stop(
            key="strap",
            title="Put the strap round the {driver} hub",
            why="It holds the leaves.",
            rows=(out("straps", "Straps on", "straps"), expected("bolts", "Bolts in", "rim")),
        ),
        Stop(
            key="side",
            title="Say which side",
            why="It goes on from one side.",
            rows=(choice("from", "From the", "left", "right"), marks("mark", "Mark", "hub", "leaf")),
        ),
        Stop(
            key="left",
            title="Turn it",
            why="From the left only.",
            rows=(tick("a", "First"), tick("b", "Second")),
            ordered=True,
            when=answered("couple.side", "from", "left"),
        ),
        Pull(circle="rim"),
        Stop(key="off", title="Strap off", why="Before it runs.", rows=(back("straps", "Straps off", "straps"),)),
        Proof(),
    ),
    undo=(),
)


class MadeUpFamilyTest(unittest.TestCase):
    """A family written down in a few lines is a route."""

    def setUp(self) -> None:
        known = FAMILIES["rigid"]
        facts = replace(known.facts, parts=(), circles=(Circle(key="rim", title="rim bolts"),))
        newer = replace(MADE_UP, version=2, couple_up=MADE_UP.couple_up[1:])
        self.known = FAMILIES["rigid"]
        FAMILIES["rigid"] = CouplingFamily(facts=facts, procedures=(MADE_UP, newer))
        self.addCleanup(FAMILIES.__setitem__, "rigid", known)

    def couple_keys(self, work: Work) -> list[str]:
        """Its steps once the machines stand."""
        keys = [n.step.key for n in work.route().steps if n.step.stage is Stage.COUPLE]
        return keys[keys.index("couple.align") + 1 :]

    def test_its_steps_come_in_their_order_by_their_branches_and_close_their_ledger(self) -> None:
        work = Work(family="rigid", procedure=1)
        work.until("couple.strap")
        self.assertEqual(self.couple_keys(work), ["couple.strap", "couple.side", "couple.rim", "couple.off"])
        strap = work.route().find("couple.strap")
        assert strap is not None
        self.assertEqual(strap.step.title, "Put the strap round the motor hub")
        work.step_on()
        self.assertEqual([(line.what, line.out, line.open) for line in work.route().ledger], [("straps", 4, True)])
        work.until("couple.left")
        self.assertIn("couple.left", self.couple_keys(work))
        work.until("couple.off")
        work.enter("couple.off", {"straps": 3})
        self.assertEqual((work.state("couple.off"), work.state("close.torque")), ("over", "blocked"))
        work.enter("couple.off", {"straps": 4})
        work.until(None)
        self.assertTrue(work.route().closed)

    def test_a_job_goes_by_the_version_it_was_started_under(self) -> None:
        old, new, gone = (Work(family="rigid", procedure=version) for version in (1, 2, 7))
        self.assertEqual(self.couple_keys(old)[0], "couple.strap")
        for work in (new, gone):  # of a version that is gone the nearest
            self.assertEqual(self.couple_keys(work)[0], "couple.side")
        self.assertEqual(FAMILIES["rigid"].newest, 2)


class RowsTest(unittest.TestCase):
    """What rows of a stop refuse."""

    def test_an_ordered_tick_is_dead_until_the_one_above_it_is_set(self) -> None:
        work = Work(family=DROP_OUT)
        work.until("couple.home")
        with self.assertRaises(UnusableInput) as caught:
            work.enter("couple.home", {"driver": True, "driven": False, "pilot_driver": True})
        self.assertEqual([p.path for p in caught.exception.problems], ["pilot_driver"])
        self.assertIn("First: Driven end", caught.exception.problems[0].message)
        half = work.enter("couple.home", {"driver": True, "driven": True})
        self.assertEqual(half.verdict, "incomplete")

    def test_nobody_has_to_tick_what_is_not_there_but_says_why(self) -> None:
        work = Work()
        work.until("mount.loose.driven")
        good = work.fill("mount.loose.driven")
        work.enter("mount.loose.driven", {**good, "guard": "none"})
        self.assertEqual(work.state("mount.loose.driven"), "incomplete")
        work.enter("mount.loose.driven", {**good, "guard": "none", "guard_why": "open base, fenced"})
        self.assertEqual(work.state("mount.loose.driven"), "done")
        with self.assertRaises(UnusableInput):
            work.enter("mount.loose.driven", {**good, "way_round": "none"})  # that one applies everywhere

    def test_marks_must_agree_and_counts_must_come_out(self) -> None:
        work = Work(family=DROP_OUT)
        work.until("couple.lift_in")
        lifted = work.fill("couple.lift_in")
        for read, state in ((["7", " 7"], "done"), (["7", "9"], "over"), (["7", ""], "incomplete")):
            work.enter("couple.lift_in", {**lifted, "match": read})
            self.assertEqual(work.state("couple.lift_in"), state, read)
        with self.assertRaises(UnusableInput):
            work.enter("couple.lift_in", {**lifted, "match": ["7"]})
        work.enter("couple.lift_in", lifted)
        work.until("couple.bolts_in")
        for given, state in ((6, "done"), (5, "over"), (None, "incomplete")):
            work.enter("couple.bolts_in", {"driver": 6, "driven": given})
            self.assertEqual(work.state("couple.bolts_in"), state, given)
        for nonsense in (-1, 2.5, True, "six", 10_000):
            with self.assertRaises(UnusableInput):
                work.enter("couple.bolts_in", {"driver": 6, "driven": nonsense})


class LedgerByStepsTest(unittest.TestCase):
    """Steps write the ledger themselves."""

    def test_a_coupling_with_squeeze_screws_in_it_is_not_counted_out(self) -> None:
        work = Work(family=DROP_OUT)
        work.until("couple.screws_out")
        counted = {line.what: (line.out, line.back) for line in work.route().ledger}
        went_in = work.fill("couple.screws_out")["driven"]
        self.assertEqual(counted["squeeze screws, driven end"], (went_in, 0))
        short = {**work.fill("couple.screws_out"), "driven": went_in - 1}
        work.enter("couple.screws_out", short)
        self.assertEqual((work.state("couple.screws_out"), work.state("couple.closed")), ("over", "blocked"))
        now = work.route().find("couple.screws_out")
        assert now is not None
        self.assertFalse(now.step.may_authorise)
        work.enter("couple.screws_out", work.fill("couple.screws_out"))
        self.assertFalse(any(line.open for line in work.route().ledger))

    def test_screws_that_went_in_once_more_are_out_once_more(self) -> None:
        work = Work(family=DROP_OUT)
        work.until("close.count")
        work.enter("couple.screws_in", work.fill("couple.screws_in"))
        self.assertEqual([line.open for line in work.route().ledger if "squeeze" in line.what], [True, True])
        count = work.route().find("close.count")
        assert count is not None
        again = work.fill("couple.screws_in")["driver"]
        self.assertIn(f"Ledger: squeeze screws, driver end, {again} to count back.", count.blocked_by)
        with self.assertRaises(OutOfTurn):
            work.enter("close.count", work.fill("close.count"))

    def test_guard_screws_counted_off_are_counted_back_with_the_guard_and_hold_no_count_up(self) -> None:
        work = Work(scope=Scope.CHECK)
        work.until("close.count")
        self.assertEqual([(line.what, line.open) for line in work.route().ledger], [("guard screws", True)])
        self.assertEqual(work.state("close.count"), "open")
        work.until("close.guard")
        guard = work.fill("close.guard")
        work.enter("close.guard", {**guard, "screws": 3})
        self.assertEqual((work.state("close.guard"), work.state("close.locks")), ("over", "blocked"))

    def test_a_line_that_closed_and_opened_again_asks_for_what_went_out_last(self) -> None:
        work = Work(family="tyre", scope=Scope.ALIGN)
        work.until("close.open")
        work.enter("close.open", work.fill("close.open") | {"screws": 3})
        work.until("close.guard")
        guard = work.fill("close.guard")
        self.assertEqual(guard["screws"], 3)
        work.until(None)
        self.assertEqual([(line.out, line.back) for line in work.route().ledger if line.what == "guard screws"], [(3, 3)])

    def test_a_count_that_was_mistyped_is_put_right_by_reading_its_step_again(self) -> None:
        work = Work(family="disc, drop-out spacer")
        work.until("couple.squeeze")
        for driver in (5, 4):
            work.enter("couple.screws_in", {**work.fill("couple.screws_in"), "driver": driver, "driven": 4})
        self.assertEqual([line.out for line in work.route().ledger], [4, 4])

    def test_what_a_step_wrote_stays_in_the_ledger_when_the_step_is_gone(self) -> None:
        work = Work(family=DROP_OUT)
        work.until("couple.squeeze")
        work.line = Work(family="rigid").line
        self.assertEqual(
            [line.what for line in work.route().ledger], ["squeeze screws, driver end", "squeeze screws, driven end"]
        )


class CirclesTest(unittest.TestCase):
    """Each circle by its own lines of the card."""

    def preset(self, work: Work, key: str) -> dict[str, object]:
        """What the tighten bench is given."""
        now = work.route().find(key)
        assert now is not None and isinstance(now.step.form, BenchForm)
        return dict(now.step.form.preset)

    def test_an_end_may_differ_and_order_and_passes_are_the_cards_where_it_has_them(self) -> None:
        work = Work(family=DROP_OUT)
        work.card["flange_bolt_torque_nm@driven_end"] = Value(value=66, means="oiled", source=SOURCE)
        work.card["bolt_order@driven_end"] = Value(value=0, means="round the circle", source=SOURCE)
        work.card["bolt_passes"] = Value(value=0, means="half, full", source=SOURCE)
        driver, driven = (self.preset(work, f"couple.{end}_end") for end in ("driver", "driven"))
        self.assertEqual((driver["torque_nm"], driver["pattern"], driver["passes"]), (80, "star", [0.5, 1.0]))
        self.assertEqual((driven["torque_nm"], driven["pattern"], driven["passes"]), (66, "circle", [0.5, 1.0]))
        again = work.route().find("close.torque")
        assert again is not None and isinstance(again.step.form, SheetForm)
        details = {field.key: field.detail for field in again.step.form.fields}
        self.assertEqual(details["driven_end"], "6, 66 N·m, threads oiled")

    def test_another_order_on_the_card_makes_what_was_pulled_by_the_old_one_stale(self) -> None:
        work = Work(family="gear")
        work.until("close.torque")
        passes = {"value": 0, "means": "half, full", "source": {"kind": "drawing", "document": "D-7"}}
        work.enter("close.torque", {"key": "bolt_passes", "value": passes}, EntryKind.VALUE)
        self.assertEqual(work.state("couple.flange"), "stale")

    def test_what_moved_at_the_second_pull_is_pulled_again_and_checked_again(self) -> None:
        work = Work(family=DROP_OUT)
        work.until("close.torque")
        found = {**work.fill("close.torque"), "driven_end": "some moved"}
        work.enter("close.torque", found)
        states = [work.state(key) for key in ("couple.driver_end", "couple.driven_end", "close.torque")]
        self.assertEqual(states, ["done", "stale", "over"])
        work.enter("couple.driven_end", work.fill("couple.driven_end"))
        self.assertEqual((work.state("close.torque"), work.state("couple.closed")), ("stale", "stale"))
        work.until(None)
        self.assertTrue(work.route().closed)


class OrderTest(unittest.TestCase):
    """How what is written becomes what comes after what."""

    def step(self, key: str, **more: bool) -> Step:
        """A step that says nothing."""
        return Step(key=key, stage=Stage.SET, title=key, why=key, form=SignForm(), **more)  # type: ignore[arg-type]

    def test_one_after_the_other_side_by_side_again_and_again_and_aside(self) -> None:
        a, b, c, soft, gap, edge, end = (self.step(k) for k in ("a", "b", "c", "soft", "gap", "edge", "end"))
        soft, edge = replace(soft, must_pass=True), replace(edge, optional=True)
        align = self.step("align")
        part = in_order(any_order(a, in_order(b, c)), Reread((soft, gap, edge, align)), Aside(self.step("aside")), end)
        found = {step.key: (step.after, step.passed, step.once) for step in arrange(part, ("first",)).steps}
        self.assertEqual(
            found,
            {
                "a": (("first",), (), ()),
                "b": (("first",), (), ()),
                "c": (("b",), (), ()),
                "soft": (("a", "c"), (), ()),
                "gap": (("a", "c"), ("soft",), ()),
                "edge": (("a", "c"), (), ("gap",)),
                "align": (("a", "c"), (), ("gap",)),  # what may be left out keeps nobody waiting
                "aside": ((), (), ()),
                "end": (("soft", "gap", "edge", "align"), (), ()),
            },
        )

    def test_what_is_left_out_does_not_let_anybody_pass_what_came_before_it(self) -> None:
        part = in_order(self.step("start"), self.step("warm", optional=True), self.step("sign"))
        self.assertEqual(arrange(part).steps[-1].after, ("start", "warm"))

    def test_nothing_written_is_nothing_to_wait_for(self) -> None:
        work = Work()
        route = work.route()
        self.assertEqual(Compiler(job=None).compile((), Stage.COUPLE).parts, ())  # type: ignore[arg-type]
        self.assertEqual(arrange(in_order(), ("x",)).ends, ("x",))
        self.assertTrue(route.steps)
