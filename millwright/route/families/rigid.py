"""Rigid couplings, flanged or sleeve: nothing gives way in them."""

from ...card.values import source_of
from ...line import SIDES, Side
from ...say import mm, say
from ...sketch import common
from ...verdict import Judged, said_by_hand
from .. import torques
from ..fields import condition, length, marks, tick
from ..procedure import Bench, LightScrew, Procedure, Pull, Stop, expected
from ..steps import Answers, BenchForm, JobFacts
from .facts import BOLTED_VALUES, HUBS, Circle, FamilyFacts, bolts

SHAFT_LIMIT = "shaft_runout_mm"
FACTS = FamilyFacts(
    family="rigid",
    title="Rigid flanged or sleeve coupling",
    parts=(*HUBS, bolts("flange")),
    gap_taken="none: the faces touch",
    values=(SHAFT_LIMIT, *(key for key in BOLTED_VALUES if not key.startswith("gap"))),
    way_round="flange toward the other shaft",
    circles=(Circle(key="flange", title="flange bolts", held="bolt head"),),
    finished=(condition("shut", "Faces shut all round"),),
)
FLANGES = ("driver flange", "driven flange")
PLACES = ("12", "3", "6", "9")


def _judge_touch(job: JobFacts, answers: Answers) -> Judged:
    """No feeler may enter anywhere while no bolt is pulled: bolts would draw the gap shut and bend the shafts."""
    read = {place: answers.get(f"at_{place}_mm") for place in PLACES}
    open_at = {place: gap for place, gap in read.items() if gap}
    if not open_at:
        return [], []
    widest = max(open_at, key=lambda place: open_at[place])
    text = "Open by {by} at {at}. Bring the machine in, then feel again; bolts only bend the shafts."
    checks = [said_by_hand("touch", "a feeler enters between the faces", "faces touch with no bolt pulled", in_order=False)]
    return checks, [say("faces_open", text.replace("{at}", f"{widest} o'clock"), by=mm(open_at[widest], 2))]


def _true_when_closed(side: Side) -> Bench:
    """The shaft beside the closed coupling: more than before says that the bolts drew it."""

    def form(job: JobFacts) -> BenchForm:
        known = SHAFT_LIMIT in job.card
        limit = {"limit_mm": job.limit(SHAFT_LIMIT), "limit_source": source_of(job.card, SHAFT_LIMIT)} if known else {}
        before = job.answers.get(f"prepare.shaft.{side}", {}).get("readings")
        return BenchForm(bench="runout", preset=limit, compare={"before": before} if before else {})

    return Bench(
        key=f"true.{side}",
        title=f"Dial the {{{side}}} shaft beside the closed coupling",
        why="Faces that were drawn together by the bolts bend the shaft: it shows here.",
        tool="dial gauge on the shaft beside its hub",
        caution="Turn it by hand only.",
        form=form,
        needs=lambda job: (SHAFT_LIMIT,),
        relies=frozenset({torques.moved("flange bolts")}),
        on_fail=lambda job: "Bolts slack, and feel whether the faces touch: the machine is moved, the bolts do not pull it.",
    )


PROCEDURES = (
    Procedure(
        version=2,
        couple_up=(
            LightScrew(),
            Stop(
                key="clean",
                title="Clean faces and spigot",
                why="Nothing gives way in it: no lubricant, no burr, no paint.",
                rows=(
                    tick("clean", "Faces and spigot clean and dry"),
                    tick("light", "Straightedge on each face: no light"),
                ),
                ordered=True,
            ),
            Stop(
                key="touch",
                title="Bring the faces together",
                why="Bolts pulled on faces that do not touch bend the shafts.",
                tool="thinnest feeler, at 12, 3, 6 and 9",
                rows=(
                    tick("spigot", "Spigot home"),
                    *(length(f"at_{at}_mm", f"Thickest feeler that enters at {at} o'clock", "0: none") for at in PLACES),
                ),
                ordered=True,
                judge=_judge_touch,
                on_fail="Back to aligning; never with the bolts.",
            ),
            Stop(
                key="bolts",
                title="Put the bolts in by hand",
                why="All in before one is pulled, as they were found.",
                sketch=lambda job: common.marks(FLANGES),
                rows=(
                    marks("match", "Match mark as read", *FLANGES, detail="none on either: none"),
                    expected("bolts", "Bolts in by hand", "flange", "heads as they were found"),
                ),
            ),
            Pull(circle="flange"),
            *(_true_when_closed(side) for side in SIDES),
        ),
        undo=(
            Stop(
                key="bolts",
                title="Take the bolts out and part the flanges",
                why="With their jacking screws, not with a lever.",
                no_return=True,
                rows=(
                    tick("marks", "Match marks made or found"),
                    expected("out", "Bolts out, into a marked box", "flange"),
                    tick("parted", "Flanges parted with their jacking screws"),
                ),
                ordered=True,
            ),
        ),
    ),
)
