"""Stage 2: every part and tool is here, and the coupling is the one this line is registered with."""

from ...card.values import source_of
from ...line import Side
from ...say import say
from ...scope import Scope
from ...verdict import Judged, said_by_hand
from ..circles import line_of
from ..families.facts import COUNT, SUITS_VALUES
from ..families.facts import Part as KitPart
from ..fields import Field, choice, condition, count, text, tick
from ..hubs.screw_held import DEVICES
from ..order import Part, any_order
from ..steps import BACKSTOPS, HAS_BACKSTOP, Answers, Fact, JobFacts, SheetForm, Stage, Step
from . import suits
from .change_element import more_than_the_element

SET_SCREWED = ("keyed, slip fit", "keyed, interference", "tapered bush")
KEYED = (*SET_SCREWED, "tapered bore", "tapered wedge")
KIT, TOOLS_OUT = "receive.kit", "receive.tools"


def counted_key(part: str) -> str:
    """Under which name a part of the kit is counted."""
    return f"{part}_n"


def _of_part(job: JobFacts, part: KitPart) -> tuple[Field, ...]:
    """Whether it is in order, and how many there are."""
    looked_at = condition(part.key, part.title, "; ".join(filter(None, (part.look_for, part.where))), none_of=part.may_lack)
    if not (part.pieces or part.screws or part.counted):
        return (looked_at,)
    lines = [line_of(job, job.family.circle(key), COUNT) for key in part.screws]
    known = bool(lines) and all(line in job.card for line in lines)
    pieces = part.pieces(job) if callable(part.pieces) else part.pieces
    expected = pieces or (sum(round(job.card[line].value) for line in lines) if known else None)
    of = source_of(job.card, lines[0]) if known else f"every {job.family.title.lower()}"
    return looked_at, Field(
        key=counted_key(part.key),
        kind="count",
        label=f"{part.title}, counted",
        expected=expected,
        expected_of=of,
        beside=part.key,
    )


def steps(job: JobFacts) -> Part:
    """Kit, tools, like for like; on a gear unit, whether it has a backstop."""
    asked = [has_backstop()] if job.family.hangs or job.line.backstop else []
    fits = job.scope in (Scope.FIT, Scope.REFIT)
    return any_order(_kit(job), _like(job), tools(), *(asked if fits else []))


def _mounted(job: JobFacts) -> list[Side]:
    return job.order() if more_than_the_element(job) and job.scope is not Scope.BACKSTOP else []


def has_backstop() -> Step:
    """Asked of a gear unit before anything is fitted: what follows goes by it."""
    return Step(
        key=HAS_BACKSTOP,
        hands_on=False,
        stage=Stage.RECEIVE,
        title="Has its gear unit a backstop?",
        why="One that is there, or goes in now, decides which way the motor may ever turn.",
        form=SheetForm(fields=(choice("has", "A backstop", *BACKSTOPS),)),
    )


def _kit(job: JobFacts) -> Step:
    family = job.family
    mounted = _mounted(job)
    hubs = [job.line.hub(side) for side in mounted]
    parts = job.parts if mounted or family.element is None else [p for p in job.parts if p.key in family.element.parts]
    keys = sum(hub.connection in KEYED for hub in hubs)
    screws = sum(hub.set_screws for hub in hubs if hub.connection in SET_SCREWED)
    nuts = sum(hub.connection == "tapered bore" for hub in hubs)
    return Step(
        key=KIT,
        hands_on=False,
        stage=Stage.RECEIVE,
        title="Check every part of the kit",
        why="A missing or damaged part stops the job halfway, with the machine open.",
        relies=frozenset({Fact.PARTS}),
        form=SheetForm(
            fields=(
                *(field for part in parts for field in _of_part(job, part)),
                *([condition("keys", f"Keys, {keys}", "stock size, edges, length")] if keys else []),
                *(
                    condition(
                        f"device_{side}",
                        DEVICES[held].name.capitalize() + f", {name}",
                        "as delivered it is only loosely placed; screws all there, its own sheet with it",
                    )
                    for side in mounted
                    if (held := job.line.hub(side).connection) in DEVICES and (name := job.line.machine(side).called)
                ),
                *([condition("nuts", f"Lock nuts, {nuts}", "thread, set screw or tab")] if nuts else []),
                *([condition("set_screws", f"Set screws, {screws}", "often in the hubs")] if screws else []),
                tick(
                    "whole",
                    "Taken apart only as far as the manual says; factory-joined units left closed",
                    "parts of one unit kept together",
                ),
                text("marks", "Match marks, balance marks, state as delivered", required=False),
            )
        ),
        photograph="match marks, balance marks, what is not in order",
        on_fail="A part is not in order: do not open the machine further. Order the part, mark the bad one.",
    )


def _like(job: JobFacts) -> Step:
    coupling = job.line.coupling
    return Step(
        key="receive.like",
        hands_on=False,
        stage=Stage.RECEIVE,
        title="Compare with the registered coupling, and with the machine",
        why="Like for like: the type was chosen for a reason. Right fitting does not mend a wrong coupling.",
        judged_by=SUITS_VALUES,
        may_authorise=True,
        form=SheetForm(
            fields=(
                text("series", "Series marked on the parts", f"registered: {coupling.series}"),
                text("size", "Size marked", f"registered: {coupling.size}"),
                tick("drawing", "Parts and documents are for this application and these shafts"),
                *suits.fields(job),
            )
        ),
        judge=lambda job, answers: _like_for_like(job, answers),
        on_fail="Not the registered coupling, or not for this machine: put it back, or the lead authorises it.",
    )


def tools() -> Step:
    """What is laid out, counted; which tools that are is said by the steps of the job (`plan/tools.py`)."""
    return Step(
        key=TOOLS_OUT,
        hands_on=False,
        stage=Stage.RECEIVE,
        title="Lay out the tools",
        why="Walking away from an open joint leads to improvising.",
        form=SheetForm(
            fields=(
                count("laid_out", "Tools laid out on their sheet, counted", "as many come back at the end"),
                Field(key="wrench", kind="text", label="Torque wrench number", of_register="torque wrench"),
                Field(key="wrench_until", kind="date", label="Wrench calibrated until"),
                text("instruments", "Micrometers, dial gauges, laser: numbers, calibrated until", required=False),
            )
        ),
    )


def _like_for_like(job: JobFacts, answers: Answers) -> Judged:
    coupling, advice, checks = job.line.coupling, [], []
    for key, registered in (("series", coupling.series), ("size", coupling.size)):
        marked = str(answers.get(key) or "").strip()
        same = marked.casefold() == registered.casefold()
        if marked and not same:
            text = "Marked {marked}, registered {registered}: another {key} needs the lead and a reason."
            advice.append(say("not_as_registered", text, marked=marked, registered=registered, key=key))
        checks.append(
            said_by_hand(key, f"{key} as registered", f"this line's register: {registered}", in_order=same or not marked)
        )
    held, said = suits.judged(job, answers)
    return [*checks, *held], [*advice, *said]
