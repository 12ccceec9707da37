"""Rigid couplings, flanged or sleeve: nothing gives way in them."""

from dataclasses import replace

from ...card.values import source_of
from ...line import SIDES, Side
from ...meaning import Meaning, Of
from ...say import mm, say
from ...sketch import common
from ...verdict import Judged, judge, said_by_hand
from .. import torques
from ..coupling_benches import draw_in
from ..fields import Field, choice, condition, length, marks, tick
from ..procedure import Bench, LightScrew, Procedure, Pull, Stop, expected
from ..steps import Answers, BenchForm, JobFacts
from .facts import BOLTED_VALUES, HUBS, Circle, FamilyFacts, Part, bolts

SHAFT_LIMIT = "shaft_runout_mm"
KIND = "receive.kind"
FLANGED, SLEEVE = KINDS = "two flanges", "a split sleeve"
PLAIN, FITTED = BOLT_KINDS = "plain, with clearance", "fitted: reamed holes, drawn in"
SPLITS_DIFFER_MM = 0.5


def _sleeved(job: JobFacts) -> bool:
    return job.answers.get(KIND, {}).get("kind") == SLEEVE


def _flanged(job: JobFacts) -> bool:
    return not _sleeved(job)


def _fitted(job: JobFacts) -> bool:
    return _flanged(job) and job.answers.get(KIND, {}).get("bolts") == FITTED


def _taken_out(job: JobFacts) -> Field:
    circle = "sleeve" if _sleeved(job) else "flange"
    return expected("out", "Bolts or screws out, into a marked box", circle)(job)


def _judge_splits(job: JobFacts, answers: Answers) -> Judged:
    """A sleeve that is drawn down on one side clamps on a line."""
    one, other = answers.get("one_mm"), answers.get("other_mm")
    if one is None or other is None:
        return [], []
    source = "rule of thumb: what the eye sees of a split"
    checks = [judge("splits", "the two splits differ by", abs(one - other), "mm", high=SPLITS_DIFFER_MM, source=source)]
    return checks, []


FACTS = FamilyFacts(
    family="rigid",
    title="Rigid flanged or sleeve coupling",
    parts=(
        *HUBS,
        replace(bolts("flange"), only=_flanged),
        Part(key="halves", title="Halves of the sleeve", look_for="a pair, no burr at the split", pieces=2, only=_sleeved),
        Part(key="sleeve_screws", title="Clamp screws", look_for="threads clean", screws=("sleeve",), only=_sleeved),
    ),
    gap_taken="none: the faces touch",
    values=(SHAFT_LIMIT, *(key for key in BOLTED_VALUES if not key.startswith("gap"))),
    way_round="flange toward the other shaft",
    circles=(
        Circle(key="flange", title="flange bolts", held="bolt head", only=_flanged),
        Circle(key="sleeve", title="clamp screws of the sleeve", own=True, only=_sleeved),
    ),
    opened=("Bolts or clamp screws out; faces parted, or the halves off",),
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
        means=(Meaning(of=Of.RUN_OUT, at=side),),
        needs=lambda job: (SHAFT_LIMIT,),
        relies=frozenset({torques.moved("flange"), torques.moved("sleeve")}),
        on_fail=lambda job: "Bolts slack, and feel whether the faces touch: the machine is moved, the bolts do not pull it.",
    )


PROCEDURES = (
    Procedure(
        version=2,
        receive=(
            Stop(
                key="kind",
                title="Enter the kind of rigid coupling",
                why="Flanges are drawn together by their bolts, a sleeve is clamped over both shafts.",
                rows=(choice("kind", "Kind", *KINDS), choice("bolts", "Its bolts are", *BOLT_KINDS, detail="of flanges")),
            ),
        ),
        couple_up=(
            LightScrew(),
            Stop(
                key="clean",
                title="Clean faces and spigot",
                why="Nothing gives way in it: no lubricant, no burr, no paint.",
                when=_flanged,
                rows=(
                    tick("clean", "Faces and spigot clean and dry"),
                    tick("light", "Straightedge on each face: no light"),
                ),
                ordered=True,
            ),
            Stop(
                key="touch",
                shuts=True,
                title="Bring the faces together",
                why="Bolts pulled on faces that do not touch bend the shafts.",
                tool="thinnest feeler, at 12, 3, 6 and 9",
                rows=(
                    tick("spigot", "Spigot seated"),
                    *(length(f"at_{at}_mm", f"Thickest feeler that enters at {at} o'clock", "0: none") for at in PLACES),
                ),
                ordered=True,
                when=_flanged,
                judge=_judge_touch,
                on_fail="Back to aligning; never with the bolts.",
            ),
            Stop(
                key="bolts",
                shuts=True,
                title="Put the bolts in by hand",
                why="All in before one is pulled, as they were found.",
                sketch=lambda job: common.marks(FLANGES),
                rows=(
                    marks("match", "Match mark as read", *FLANGES, detail="none on either: none"),
                    expected("bolts", "Bolts in by hand", "flange", "heads as they were found"),
                ),
                when=_flanged,
            ),
            replace(draw_in("draw", "Draw the fitted bolts in", "flange"), when=_fitted),
            Stop(
                key="halves",
                shuts=True,
                title="Lay the halves of the sleeve over both shafts",
                why="A split in line with the key leaves the key unsupported.",
                rows=(
                    tick("key", "Key seated over its whole length, ends flush"),
                    tick("middle", "Shaft ends meet at the middle of the sleeve"),
                    tick("turned", "Split a quarter turn away from the key"),
                    expected("screws", "Clamp screws in by hand", "sleeve"),
                ),
                ordered=True,
                when=_sleeved,
            ),
            Pull(circle="flange", shuts=True),
            Pull(circle="sleeve", shuts=True),
            Stop(
                key="splits",
                title="Measure the gap at the split, both sides",
                why="Drawn down on one side it clamps on a line, and works loose.",
                tool="feelers",
                rows=(length("one_mm", "Gap at the split, one side"), length("other_mm", "Gap at the split, the other side")),
                judge=_judge_splits,
                when=_sleeved,
                on_fail="Slacken the screws of the narrow side, pull crosswise again in their passes.",
            ),
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
                    _taken_out,
                    tick("parted", "Flanges parted with their jacking screws", none_of="a sleeve: its halves lifted off"),
                ),
                ordered=True,
            ),
        ),
    ),
)
