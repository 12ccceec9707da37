"""Claw couplings with elastomer blocks held by a retaining ring."""

from dataclasses import replace
from typing import TypeGuard

from ...card.values import source_of
from ...meaning import Meaning, Of, When
from ...say import mm, number, say
from ...sketch import jaws
from ...verdict import Check, Judged, judge, said_by_hand
from ..circles import pulled
from ..fields import Field, choice, condition, count, length, text, tick
from ..procedure import LightScrew, Procedure, Pull, Stop, expected
from ..stages.change_element import judge_number, more_than_the_element, only_the_element
from ..steps import Answers, JobFacts
from .facts import BOLTED_VALUES, HUBS, Circle, Element, FamilyFacts, Part, bolts

WEAR_MOST, TWIST_MOST = "wear_limit_mm", "twist_limit_mm"
FACTS = FamilyFacts(
    family="claw with elastomer blocks",
    title="Claw coupling with elastomer blocks",
    parts=(
        *HUBS,
        Part(key="blocks", title="Elastomer blocks, a complete new set", look_for="never mixed with old ones", counted=True),
        Part(key="ring", title="Retaining ring", look_for="flat, no burr"),
        bolts("flange", title="Ring screws"),
        Part(key="indicator", title="Wear indicator", look_for="whole", may_lack="none on this size"),
    ),
    before_hub=(tick("ring_back", "Retaining ring lies back on its hub", none_of="the ring goes on from the front"),),
    gap_taken="between the faces by feeler all round, aim at the middle of the band",
    values=BOLTED_VALUES,
    element=Element(
        parts=("blocks",),
        called="set of blocks",
        counted="Blocks out",
        clean="Pockets of the hubs clean of rubber",
        seats="Pockets and claws: no cracks, no worn flanks",
        numbered_in="couple.blocks",
    ),
    may_also=(WEAR_MOST, TWIST_MOST),
    way_round="claws toward the other shaft",
    circles=(Circle(key="flange", title="ring screws"),),
    opened=("Ring screws out, ring slid right back",),
    watched=(
        length(
            "wear_mm",
            "Wear mark read by strobe as it runs",
            "the first reading of its trend",
            required=False,
            means=Meaning(of=Of.WEAR_MARK, when=When.AFTER_RUNNING),
        ),
    ),
    finished=(
        condition("ring", "Ring seated all round"),
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


def _judge_set(job: JobFacts, answers: Answers) -> Judged:
    """A block in every pocket, and none of a set that was counted out as scrap."""
    checks, says = _judge_blocks(answers)
    held, said = judge_number(job, answers.get("set"))
    return [*checks, *held], [*says, *said]


def _arrow(job: JobFacts) -> Field | None:
    """The halves go back to where they stood; a new coupling stood nowhere yet."""
    if not _opened_at(job):
        return None
    return text("arrow", "The arrow of the indicator points to", f"opened at {_opened_at(job)}; the halves go back to it")


def _opened_at(job: JobFacts) -> str:
    marked = job.answers.get("off.mark") or job.answers.get("found.mark") or {}
    return str(marked.get("arrow") or "").strip()


def _judge_arrow(job: JobFacts, answers: Answers) -> Judged:
    now, was = str(answers.get("arrow") or "").strip(), _opened_at(job)
    if not now or not was or now.casefold() == was.casefold():
        return [], []
    check = said_by_hand("arrow", f"arrow at {now}, opened at {was}", "noted when it was opened", in_order=False)
    return [check], [say("arrow_off", "Turn the halves back to their old place: the wear is read from there.")]


def _zero(job: JobFacts, key: str) -> str:
    left = job.as_left.get(Of.WEAR_MARK, {}).get(key)
    return f"left at {mm(left, None)}" if isinstance(left, int | float) else ""


def _judge_wear(job: JobFacts, answers: Answers) -> Judged:
    """How far the mark went from its zero, and how far it twists by hand. Source: geometry, the reading now less its zero."""
    left = job.as_left.get(Of.WEAR_MARK, {})
    mark, zero, twist = answers.get("zero_mm"), left.get("zero_mm"), answers.get("twist_mm")
    checks, says = [], []
    if _is_length(mark) and _is_length(zero):
        checks.append(_at_most(job, "zero", "wear of the blocks", abs(mark - zero), WEAR_MOST))
        says.append(say("since_zero", "{since} at the mark since the blocks were new.", since=mm(mark - zero, signed=True)))
    if _is_length(twist):
        checks.append(_at_most(job, "twist", "twist by hand", twist, TWIST_MOST))
        if _is_length(new := left.get("twist_mm")):
            says.append(say("since_twist", "{since} of twist since the blocks were new.", since=mm(twist - new, signed=True)))
    return checks, says


def _is_length(answer: object) -> TypeGuard[float]:
    return isinstance(answer, int | float)


def _at_most(job: JobFacts, code: str, name: str, by: float, line: str) -> Check:
    """Against the card; without a figure there it is only written down."""
    if line not in job.card:
        return judge(code, name, by, "mm", source="no figure on the card")
    return judge(code, name, by, "mm", high=job.card[line].value, source=source_of(job.card, line))


_FOUND_MARK = Meaning(of=Of.WEAR_MARK, when=When.FOUND)
BLOCKS_STEP = "receive.blocks"
THROUGH, BEFORE = WAYS_IN = "through the open ring, once the machines are set", "before the machine comes over"


def _before_the_machine(job: JobFacts) -> bool:
    return not only_the_element(job) and job.answers.get(BLOCKS_STEP, {}).get("go_in") == BEFORE


def _through_the_ring(job: JobFacts) -> bool:
    return not _before_the_machine(job)


_BLOCKS = Stop(
    key="blocks",
    title="Put in the complete new set of blocks",
    why="One old block among new ones carries the others' load.",
    sketch=lambda job: jaws.blocks(),
    rows=(
        tick("cold", "Hubs cold before a block goes in"),
        tick("clean", "Pockets clean of rubber"),
        text("set", "Set number, or batch", means=Meaning(of=Of.ELEMENT_IN)),
        text("made", "Date made, as printed on it", required=False),
        count("pockets", "Pockets of the hub"),
        count("blocks", "Blocks in, every one of this set"),
        tick("way", "Every block the right way round"),
    ),
    ordered=True,
    judge=_judge_set,
    on_fail="A pinched block comes out. One too few: look in the pockets and on the floor, or a new set.",
)
PROCEDURES = (
    Procedure(
        version=2,
        receive=(
            Stop(
                key="blocks",
                title="Say how the blocks go in",
                why="Both ways are in use; the manual of this size says which.",
                rows=(choice("go_in", "The blocks go in", *WAYS_IN),),
                when=more_than_the_element,
            ),
        ),
        before_setting=(
            replace(_BLOCKS, when=_before_the_machine),
            Stop(
                key="over",
                title="Bring the machine over, claws facing the gaps",
                why="A claw that meets a block crushes it.",
                caution="Nothing is forced. Fingers out from between the halves.",
                rows=(
                    tick("feet", "Foot bolts of the machine are in first"),
                    tick("turned", "Turned until the claws of one half face the gaps of the other"),
                    tick("over", "Brought over by hand or jack screws, nothing pinched"),
                ),
                ordered=True,
                when=_before_the_machine,
                on_fail="Back off, turn by half a pocket. A pinched block comes out.",
            ),
        ),
        found=(
            Stop(
                key="wear",
                title="Read the wear mark and the twist as found",
                why="Against their zero they tell how far the blocks are gone, and whether the next set comes sooner.",
                tool="rule at the mark; torch",
                rows=(
                    lambda job: length(
                        "zero_mm", "Reading at the mark", _zero(job, "zero_mm"), required=False, means=_FOUND_MARK
                    ),
                    lambda job: length(
                        "twist_mm",
                        "One shaft turned against the other by hand, at the rim",
                        _zero(job, "twist_mm"),
                        means=Meaning(of=Of.PLAY, when=When.FOUND),
                    ),
                ),
                judged_by=(WEAR_MOST, TWIST_MOST),
                judge=_judge_wear,
                finding=True,
            ),
        ),
        couple_up=(
            LightScrew(),
            replace(_BLOCKS, when=_through_the_ring),
            Stop(
                key="ring",
                shuts=True,
                title="Press the ring in evenly",
                why="The ring's claws bind when it is drawn in crooked.",
                caution="By hand, all round; not drawn in by its screws.",
                rows=(
                    tick("pressed", "Pressed in by hand, all round"),
                    _arrow,
                    expected("screws", "Screws in by hand", "flange", "threads as the card says"),
                ),
                ordered=True,
                judge=_judge_arrow,
                on_fail="Binding claws: out again, turn, look for a block that is proud.",
            ),
            Pull(circle="flange", shuts=True),
            Stop(
                key="wear",
                relies=frozenset({pulled(FACTS.circles[0])}),
                title="Set the wear mark",
                why="The zero every later reading is compared with.",
                rows=(
                    tick("set", "Wear mark set"),
                    length("zero_mm", "Reading at the mark", means=Meaning(of=Of.WEAR_MARK, new=True)),
                    choice("grows", "With wear it", "grows", "shrinks"),
                    text("light", "Where the lamp goes to see it running", required=False, means=Meaning(of=Of.STROBE_LIGHT)),
                    length(
                        "twist_mm",
                        "One shaft turned against the other by hand, at the rim",
                        "the play when new",
                        means=Meaning(of=Of.PLAY, new=True),
                    ),
                ),
            ),
        ),
        undo=(
            Stop(
                key="mark",
                title="Match-mark the two halves",
                why="They go back to it.",
                rows=(
                    tick("marked", "Mutual position marked"),
                    text("arrow", "The arrow of the indicator points to", "where there is none, write none"),
                ),
            ),
            Stop(
                key="ring",
                title="Take the ring screws out and slide the ring back",
                why="Counted, none lost.",
                rows=(
                    expected("out", "Ring screws out, into a marked box", "flange"),
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
                    lambda job: None if only_the_element(job) else count("blocks", "Blocks out"),
                    tick("open_place", "Each turned to the open place, none levered"),
                    text("seen", "How far they are worn", required=False),
                ),
            ),
        ),
    ),
)
