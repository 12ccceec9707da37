"""Claw couplings with elastomer blocks held by a retaining ring."""

from ...say import number, say
from ...verdict import Judged, said_by_hand
from ..fields import choice, condition, count, length, text, tick
from ..procedure import LightScrew, Procedure, Pull, Stop, expected
from ..steps import Answers
from .facts import BOLTED_VALUES, HUBS, Circle, FamilyFacts, Part

FACTS = FamilyFacts(
    family="claw with elastomer blocks",
    title="Claw coupling with elastomer blocks",
    parts=(
        *HUBS,
        Part(key="blocks", title="Elastomer blocks, a complete new set", look_for="never mixed with old ones"),
        Part(key="ring", title="Retaining ring and its screws", look_for="threads clean, none missing"),
    ),
    before_hub=(tick("ring_back", "Retaining ring lies back on its hub", none_of="the ring goes on from the front"),),
    gap_taken="between the faces by feeler all round, aim at the middle of the band",
    values=BOLTED_VALUES,
    way_round="claws toward the other shaft",
    circles=(Circle(key="flange", title="ring screws"),),
    finished=(
        condition("ring", "Ring home all round"),
        condition("arrow", "Arrow of the indicator on its mark"),
    ),
)


def _judge_blocks(answers: Answers) -> Judged:
    """As many blocks as pockets: an empty pocket throws its load on the rest."""
    pockets, blocks = answers.get("pockets"), answers.get("blocks")
    if pockets is None or blocks is None or pockets == blocks:
        return [], []
    text = "{blocks} blocks in {pockets} pockets."
    said = say("blocks_missing", text, blocks=number(blocks), pockets=number(pockets))
    return [said_by_hand("blocks", "a block in every pocket", "a complete set", in_order=False)], [said]


PROCEDURES = (
    Procedure(
        version=2,
        couple_up=(
            LightScrew(),
            Stop(
                key="blocks",
                title="Put in the complete new set of blocks",
                why="One old block among new ones carries the others' load.",
                rows=(
                    tick("cold", "Hubs cold before a block goes in"),
                    tick("clean", "Pockets clean of rubber"),
                    text("set", "Set number, or batch"),
                    text("made", "Date made, as printed on it", required=False),
                    count("pockets", "Pockets of the hub"),
                    count("blocks", "Blocks in, every one of this set"),
                    tick("way", "Every block the right way round"),
                ),
                ordered=True,
                judge=lambda job, answers: _judge_blocks(answers),
                on_fail="A pinched block comes out. One too few: look in the pockets and on the floor, or a new set.",
            ),
            Stop(
                key="ring",
                title="Press the ring in evenly",
                why="The ring's claws bind when it is drawn in crooked.",
                caution="By hand, all round; not drawn in by its screws.",
                rows=(
                    tick("pressed", "Pressed in by hand, all round"),
                    expected("screws", "Screws in by hand", "flange", "threads as the card says"),
                ),
                ordered=True,
                on_fail="Binding claws: out again, turn, look for a block that stands proud.",
            ),
            Pull(circle="flange"),
            Stop(
                key="wear",
                title="Set the wear mark",
                why="The zero every later reading is compared with.",
                rows=(
                    tick("set", "Wear mark set"),
                    length("zero_mm", "Reading at the mark"),
                    choice("grows", "With wear it", "grows", "shrinks"),
                    text("light", "Where the lamp has to stand to see it running", required=False),
                    length("twist_mm", "One shaft turned against the other by hand, at the rim", "the play when new"),
                ),
            ),
        ),
        undo=(
            Stop(
                key="mark",
                title="Mark how the halves stand to each other",
                why="They go back to it.",
                rows=(tick("marked", "Mutual position marked"),),
            ),
            Stop(
                key="ring",
                title="Take the ring screws out and slide the ring back",
                why="Counted, none lost.",
                rows=(
                    tick("out", "Ring screws out, counted into a marked box"),
                    tick("back", "Ring slid right back by hand"),
                ),
                ordered=True,
            ),
            Stop(
                key="blocks",
                title="Pick the blocks out one by one",
                why="Turned to the open place, none levered.",
                no_return=True,
                rows=(
                    count("blocks", "Blocks out"),
                    text("seen", "How far they are worn", required=False),
                ),
            ),
        ),
    ),
)
