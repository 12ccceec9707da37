"""Tyre couplings: a split rubber tyre whose beads are clamped by two rings."""

from ...bolting.order import HALF_TURNS
from ...card.values import source_of
from ...say import say
from ...verdict import Judged, judge, said_by_hand
from ..fields import Field, condition, length, tick
from ..procedure import LightScrew, Procedure, Pull, Stop, expected
from ..steps import Answers, JobFacts
from .facts import BOLTED_VALUES, HUBS, Circle, Element, FamilyFacts, Part, bolts

SPLIT_MOST, RING_CLEAR = "split_gap_max_mm", "ring_clear_mm"


def _judge_split(job: JobFacts, answers: Answers) -> Judged:
    """The gap at the split against the card; without a figure there it is only written down."""
    split = answers.get("split_mm")
    if split is None or SPLIT_MOST not in job.card:
        return [], []
    high, source = job.card[SPLIT_MOST].value, source_of(job.card, SPLIT_MOST)
    return [judge("split", "gap at the split", split, "mm", high=high, source=source)], []


def _judge_metal(job: JobFacts, answers: Answers) -> Judged:
    """A feeler has to go in everywhere: as thick as the card says, or any."""
    checks, says = _judge_split(job, answers)
    feeler = answers.get("feeler_mm")
    if feeler is None:
        return checks, says
    if feeler <= 0:
        text = "Metal to metal: slacken the ring, tyre off. Worn or wrong tyre, or paint under the bead."
        return [
            *checks,
            said_by_hand("metal", "ring on flange: no feeler goes in", "nothing metal may touch", in_order=False),
        ], [*says, say("metal_to_metal", text)]
    if RING_CLEAR not in job.card:
        return checks, says
    low, source = job.card[RING_CLEAR].value, source_of(job.card, RING_CLEAR)
    return [*checks, judge("ring_clear", "ring to flange, the smallest", feeler, "mm", low=low, source=source)], says


def no_metal(where: str, *rows: Field) -> Stop:
    """Looked at after the torque: at four places of whatever is clamped."""
    return Stop(
        key="metal",
        title="Look that nothing metal touches",
        why="Tightened down to metal, the ring no longer holds the rubber.",
        tool="feelers",
        rows=(
            length("feeler_mm", f"Thickest feeler that goes in, {where}, the smallest of four places", "0: none goes in"),
            *rows,
        ),
        judged_by=(SPLIT_MOST, RING_CLEAR),
        judge=_judge_metal,
        on_fail="Metal to metal: rings slack, tyre off. Worn or wrong tyre, or paint under the bead.",
    )


FACTS = FamilyFacts(
    family="tyre",
    title="Tyre coupling",
    parts=(
        *HUBS,
        Part(key="tyre", title="Tyre", look_for="cuts, cracks at the beads"),
        Part(key="rings", title="Clamp rings", look_for="whole; loose or screwed on, by size", pieces=2),
        bolts("ring_driver", "ring_driven", title="Ring screws"),
    ),
    before_hub=(
        tick(
            "ring_on",
            "Loose clamp ring on the shaft, bead side toward the coupling",
            "large sizes",
            none_of="small size: its screws are backed out until a few threads hold",
        ),
    ),
    gap_taken="between the flanges, end float at its middle",
    values=BOLTED_VALUES,
    may_also=(SPLIT_MOST, RING_CLEAR),
    runs_in=True,
    element=Element(
        parts=("tyre",),
        called="tyre",
        counted="Tyres out",
        pieces=1,
        clean="Flanges and rings clean of rubber, dry, no rust under the bead",
        seats="Flanges, rings and their threads: no cracks, no worn edge",
    ),
    way_round="flange toward the other shaft, at the place that gives the wanted distance",
    circles=(
        Circle(
            key="ring_driver",
            title="ring screws, driver end",
            at="driver end",
            passes=HALF_TURNS,
            by_turns_with="ring_driven",
        ),
        Circle(key="ring_driven", title="ring screws, driven end", at="driven end", passes=HALF_TURNS),
    ),
    finished=(condition("rings", "Rings level, tyre seated all round, nothing metal touches"),),
)
PROCEDURES = (
    Procedure(
        version=2,
        found=(
            Stop(
                key="split",
                title="Measure the gap at the split as found",
                why="A split that stands wider than it was left tells that a bead creeps.",
                rows=(length("split_mm", "Gap at the split"),),
                judged_by=(SPLIT_MOST,),
                judge=_judge_split,
                finding=True,
            ),
        ),
        couple_up=(
            LightScrew(),
            Stop(
                key="tyre",
                title="Open the tyre and lay it over the flanges",
                why="A bead that is not seated creeps out.",
                photograph="the bead seated all round",
                tool="rubber mallet; clean dry hands, no grease on the bead",
                rows=(
                    tick("float", "End float at its middle, shaft ends clear of each other"),
                    tick("whole", "Rubber whole at the beads"),
                    tick("open", "Opened at its split only as far as needed"),
                    tick("beads", "Beads seated by hand or rubber mallet all round, both flanges"),
                    length("split_mm", "Gap at the split"),
                ),
                ordered=True,
                judged_by=(SPLIT_MOST,),
                judge=_judge_split,
                may_authorise=True,
                on_fail="Off again. A bead that will not seat is dirty, the wrong size or tilted.",
            ),
            Stop(
                key="rings",
                title="Lay the rings over the beads, every screw finger tight",
                why="All in before one is pulled.",
                rows=(
                    expected("driver", "Screws in at the driver end", "ring_driver"),
                    expected("driven", "Screws in at the driven end", "ring_driven"),
                ),
            ),
            Pull(
                circle="ring_driver",
                on_fail="Pull one side down and the other bead creeps out: slacken all round, begin again.",
            ),
            Pull(
                circle="ring_driven",
                on_fail="Pull one side down and the other bead creeps out: slacken all round, begin again.",
            ),
            no_metal("between ring and flange, both ends", length("split_mm", "Gap at the split again")),
        ),
        undo=(
            Stop(
                key="slack",
                title="Slacken the ring screws by turns, half a turn at a time",
                why="The tyre is strained while they hold.",
                rows=(tick("slack", "Both circles slack by half turns, none out yet"),),
            ),
            Stop(
                key="screws",
                title="Take the screws out and the tyre off",
                why="Cracks at the beads tell how it ran.",
                no_return=True,
                rows=(
                    tick("out", "Screws out, counted into a marked box"),
                    tick("tyre", "Tyre opened at its split and taken off", "cracks at the beads"),
                ),
                ordered=True,
            ),
        ),
    ),
)
