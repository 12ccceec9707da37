"""A keyed hub that is shrunk on: measured, planned, heated, slid on against the clock, checked cold."""

from collections.abc import Mapping
from typing import Any

from ...benches.heat.cooling import TOUCH_C
from ...benches.heat.words import say_too_hot
from ...card.meanings import WHILE_HOT
from ...card.values import source_of
from ...line import Side
from ...meaning import Meaning, Of
from ...say import deg_c, say, say_time
from ...verdict import Judged, judge, said_by_hand
from ..fields import Field, choice, number, text, tick
from ..hints import HeatHints
from ..order import Part, any_order, in_order
from ..steps import Answers, BenchForm, JobFacts, SheetForm, Stage, Step
from . import keyed, running_true, surfaces
from .phases import MOUNTED, SOONEST_COLD

DECISIONS = (keyed.HEAT, "rework the hub", "reject the hub")
COLD = "Hub and shaft both cold, at the temperatures used in the calculation"
HOME, STUCK, OFF = OUTCOMES = ("seated at the mark", "stuck short of the mark", "gripped off its mark")
VALUES = (*keyed.INTERFERENCE, "heat_clearance_mm", "hub_ceiling_c", "set_screw_torque_nm")


def prepare(job: JobFacts, side: Side) -> Part:
    """Clean, measure, decide, and work out the heat."""
    measured = keyed.measure(
        job,
        side,
        keyed.INTERFERENCE,
        "Measure again, both at one temperature. Too loose: reject the hub. Too tight: rework or refuse it.",
    )
    return in_order(
        keyed.clean(job, side),
        any_order(*running_true.bare_shaft(job, side, wanted=False), *measured),
        keyed.decide(
            job,
            side,
            DECISIONS,
            tick("seated", "Key fully seated, its end flush"),
            tick("snug", "Key snug sideways; room above it measured"),
            tick("screw_clear", "Set screws out of the hub and kept in the ledger, if any"),
            tick("element_out", "No elastomer left in the hub"),
            takes=surfaces.KEYED_TAKES,
        ),
        plan_heat(
            job,
            side,
            why="Too cold: the hub sticks half way. Too hot: its metal is spoiled.",
            caution="The ceiling is the maker's. An element left inside has a lower one: take it out.",
            needs=(job.key("hub_ceiling_c", side), job.key("heat_clearance_mm", side)),
            form=BenchForm(bench="heat", preset=_heat_preset(job, side), suggest=_heat_suggest(job, side)),
        ),
    )


def mount(job: JobFacts, side: Side) -> Part:
    """The gate, the last look before the heater opens, the run, the cold check, the set screw."""
    name = job.line.machine(side).called
    cold = cold_check(job, side, tick("screws_back", "Set screws back in by hand, if it has any"))
    screws, by = keyed.set_screw(job, side, Stage.MOUNT), job.card.get("hot_screws_by")
    while_hot = by is not None and by.means == WHILE_HOT
    return in_order(
        *before_the_run(
            job,
            side,
            tick("key_in", "The key lies in the shaft, lightly pasted"),
            tick("mark", "Mark or stop made where the hub face must end"),
        ),
        hot_run(
            job,
            side,
            title=f"Heat the {name} hub and slide it on",
            why="Fast and once, to the mark, and held until it grips.",
        ),
        *(screws if while_hot else ()),
        cold,
        *(() if while_hot else screws),
        *running_true.tight(job, side, wanted=False),
    )


def plan_heat(job: JobFacts, side: Side, *, why: str, caution: str, needs: tuple[str, ...], form: BenchForm) -> Step:
    """The heat bench for this hub. Nobody can accept a target above the ceiling."""
    return Step(
        key=f"prepare.heat.{side}",
        stage=Stage.PREPARE,
        title=f"Calculate the heat, {job.line.machine(side).called} hub",
        why=why,
        tool="thermometer on shaft and in the hall",
        caution=caution,
        relies=frozenset({job.fit_fact(side), job.missed_fact(side)}),
        changes=frozenset({job.heat_fact(side)}),
        needs=needs,
        form=form,
        on_fail="Cool the shaft, measure more closely, or ask for another fit. Never above the ceiling.",
    )


def before_the_run(job: JobFacts, side: Side, *more: Field) -> list[Step]:
    """The gate, what is true before the heater is switched on, and what before the hub leaves it."""
    name = job.line.machine(side).called
    shield = tick("shield", "Seals and loose parts on the shaft shielded from the hot hub")
    cold = tick("cold", COLD, "after a missed try, let both cool first")
    heat = frozenset({job.heat_fact(side)})  # another heat is another try: be ready anew
    return [
        keyed.loose_parts(job, side, shield),
        Step(
            key=f"mount.ready.{side}",
            stage=Stage.MOUNT,
            title=f"Prepare shaft and {name} hub for the heat",
            why="On a hot hub nothing can be tried, marked or cleaned any more.",
            relies=heat,
            form=SheetForm(fields=(*more, cold)),
        ),
        Step(
            key=f"mount.go.{side}",
            stage=Stage.MOUNT,
            title=f"Put the {name} hub on the heater and get ready",
            why="It chills at once and cannot be shifted after it grips. There is no time to fumble.",
            caution="A hot hub looks like a cold one. Heat gloves; it burns long afterwards.",
            relies=heat,
            run=f"mount.hot.{side}",
            form=SheetForm(
                fields=(
                    tick("rack", "Hub off the heater's floor, heated evenly"),
                    tick("way", "The way to the shaft is clear; who carries and who guides is agreed"),
                    tick("gloves", "Heat gloves and eye protection on"),
                    tick("puller", "Puller laid out, should it stick"),
                )
            ),
        ),
    ]


def hot_run(job: JobFacts, side: Side, *, title: str, why: str) -> Step:
    """The run against the clock, and how it ended."""
    key = f"mount.hot.{side}"
    noted = job.phases.get(key) in MOUNTED
    return Step(
        key=key,
        stage=Stage.MOUNT,
        title=title,
        why=why,
        tool="heater, pyrometer, heat gloves",
        caution="Hot: burns. Do not hammer a hub that sticks.",
        relies=frozenset({job.heat_fact(side)}),
        changes=frozenset({job.hub_fact(side)}),
        heat_plan=f"prepare.heat.{side}",
        readied_by=f"mount.go.{side}",
        form=SheetForm(
            fields=(
                choice("outcome", "Result", *OUTCOMES),
                text(
                    "found",
                    "What was seen" if noted else "The run was not logged, because",
                    "" if noted else "not asked once it is logged above that the hub is on the shaft",
                    required=not noted,
                ),
            )
        ),
        judged_by=(job.key("hub_ceiling_c", side),),
        judge=lambda job, answers: judge_run(job, side, job.hottest_c.get(key), answers),
        may_authorise=True,
        on_fail="Both parts cool down before the next try; the heat is calculated again from what was reached.",
    )


def cold_check(job: JobFacts, side: Side, *more: Field) -> Step:
    """Cold before anything is measured or tightened on it."""
    return Step(
        key=f"mount.cold.{side}",
        stage=Stage.MOUNT,
        title=f"Check the {job.line.machine(side).called} hub cold",
        why="Places and gaps measured warm are wrong; seals and elements near a hot hub suffer.",
        tool="pyrometer, straightedge over face and shaft end",
        waits_for=f"mount.hot.{side}",
        relies=frozenset({job.hub_fact(side)}),
        form=SheetForm(
            fields=(
                number("hub_c", "Hub is now at", "°C", means=Meaning(of=Of.TEMPERATURE, at=side)),
                keyed.standout(job, side),
                *more,
            )
        ),
        judge=lambda job, answers: _judge_cold(job, side, answers),
        on_fail="Wait until a bare hand can rest on it, then measure again.",
    )


def couple(job: JobFacts, side: Side) -> list[Step]:
    """Nothing: a hub that has gripped stays where it is."""
    return []


def judge_outcome(answers: Answers) -> Judged:
    """What to do now, and never, where it did not come home."""
    outcome = answers.get("outcome")
    if outcome in (None, "", HOME):
        return [], []
    check = said_by_hand("seated", "hub", "the person who slid it on", in_order=False)
    says = {
        STUCK: [
            say("stop", "Stop. Do not hammer and do not press on."),
            say("pull_it_off", "Pull it off while it is hot, or let it cool and pull it with heat on the hub."),
            say("find_out_why", "Find out why: a burr, the key, too little heat, too long on the way, not straight."),
        ],
        OFF: [
            say("leave_or_take_off", "Leave it or take it off: the maker's manual says how far off is too far."),
            say("how_it_comes_off", "To take it off: puller, heat on the hub only, all round."),
        ],
    }
    return [check], says[str(outcome)]


def judge_run(job: JobFacts, side: Side, hottest_c: float | None, answers: Answers) -> Judged:
    """How it ended, and whether the hub was ever read over its ceiling: then it is over even where it came home."""
    checks, advice = judge_outcome(answers)
    key = job.key("hub_ceiling_c", side)
    if hottest_c is None or key not in job.card or hottest_c <= job.card[key].value:
        return checks, advice
    ceiling_c = job.card[key].value
    over = judge("was_too_hot", "hub as read", hottest_c, "°C", high=ceiling_c, source=source_of(job.card, key))
    return [over, *checks], [say_too_hot(hottest_c, ceiling_c), *advice]


def _judge_cold(job: JobFacts, side: Side, answers: Answers) -> Judged:
    """Cold by what was read, and by what the clock lets it be: a pyrometer on bright metal shows too little."""
    now = answers.get("hub_c")
    if not isinstance(now, int | float):
        return [], []
    source = "rule of thumb: a bare hand can rest on it"
    checks = [judge("cold", "hub temperature", now, "°C", high=TOUCH_C, source=source)]
    cools = job.cooling(f"prepare.heat.{side}", f"mount.hot.{side}")
    if cools is None or now > TOUCH_C or cools.since_s >= cools.takes_s * SOONEST_COLD:
        return checks, []
    name = f"read {say_time(cools.since_s)} after it left the heater; still air takes {say_time(cools.takes_s)}"
    text = (
        "By the clock it is at about {about} still. Read it again at another place: bright metal shows too little. It burns."
    )
    return [*checks, said_by_hand("too_soon", name, "physical model", in_order=False)], [
        say("too_soon", text, about=deg_c(cools.about_c))
    ]


def _heat_preset(job: JobFacts, side: Side) -> dict[str, Any]:
    card, ceiling, clearance = job.card, job.key("hub_ceiling_c", side), job.key("heat_clearance_mm", side)
    if ceiling not in card or clearance not in card:
        return {}
    return {
        "ceiling_c": card[ceiling].value,
        "ceiling_source": source_of(card, ceiling),
        "assembly_clearance_mm": card[clearance].value,
    }


def _heat_suggest(job: JobFacts, side: Side) -> HeatHints:
    """What was measured: the tightest pair. Only fills the sheet; whoever works it out may measure again."""
    hub = job.line.hub(side)
    size = HeatHints(outside_mm=hub.diameter_mm, length_mm=hub.length_mm)
    fit: Mapping[str, Any] = job.answers.get(f"prepare.fit.{side}", {})
    if not fit.get("shaft_mm") or not fit.get("bore_mm"):
        return size
    bore = min(fit["bore_mm"])
    return size.model_copy(update={"bore_mm": bore, "interference_mm": round(max(fit["shaft_mm"]) - bore, 6)})
