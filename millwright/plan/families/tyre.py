"""Tyre couplings: a split rubber tyre whose beads are clamped by two rings."""

from collections.abc import Callable, Iterable
from dataclasses import replace

from ...bolt_order import HALF_TURNS
from ...card.values import source_of
from ...line import SIDES, Side
from ...say import say
from ...scope import Scope
from ...sketch import tyres
from ...sketch.shapes import Sketch
from ...verdict import Judged, judge, said_by_hand
from ..circles import pulled
from ..counts import back
from ..fields import REMOVED, Field, choice, condition, length, out, slug, tick
from ..procedure import LightScrew, Procedure, Pull, Row, Stop, expected, figure
from ..stages.change_element import more_than_the_element
from ..steps import Answers, Happened, JobFacts
from .facts import BOLTED_VALUES, HUBS, Circle, Element, FamilyFacts, Part, bolts

SPLIT_MOST, RING_CLEAR = "split_gap_max_mm", "ring_clear_mm"
NO_FIGURE = "no figure on the card"
TOUCHED = Happened("metal to metal", "metal touched metal: slackened, and taken off again")


def _judge_split(job: JobFacts, answers: Answers) -> Judged:
    """The gap at the split against the card; without a figure there it says that it is only written down."""
    split = answers.get("split_mm")
    if split is None:
        return [], []
    if SPLIT_MOST not in job.card:
        return [judge("split", "gap at the split", split, "mm", source=NO_FIGURE)], []
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
        return [*checks, judge("ring_clear", "ring to flange, the smallest", feeler, "mm", source=NO_FIGURE)], says
    low, source = job.card[RING_CLEAR].value, source_of(job.card, RING_CLEAR)
    return [*checks, judge("ring_clear", "ring to flange, the smallest", feeler, "mm", low=low, source=source)], says


def bead(job: JobFacts) -> Sketch:
    """The bead under its ring, with the figures of the card."""
    return tyres.bead(figure(job, SPLIT_MOST), figure(job, RING_CLEAR))


def no_metal(where: str, circles: Iterable[Circle], *rows: Field) -> Stop:
    """Looked at after the torque, and whenever it was pulled again: at four places of whatever is clamped."""
    return Stop(
        key="metal",
        title="Look that nothing metal touches",
        why="Tightened down to metal, the ring no longer holds the rubber.",
        tool="feelers",
        sketch=bead,
        rows=(
            length("feeler_mm", f"Thickest feeler that goes in, {where}, the smallest of four places", "0: none goes in"),
            *rows,
        ),
        judged_by=(SPLIT_MOST, RING_CLEAR),
        judge=_judge_metal,
        relies=frozenset(pulled(circle) for circle in circles),
        over_changes=frozenset({TOUCHED}),
        on_fail="Metal to metal: rings slack, tyre off. Worn or wrong tyre, or paint under the bead.",
    )


KIND = "receive.kind"
COME_OFF, STAY = RINGS = "the clamp rings come off", "the rings stay, their screws are backed out"
PLAIN, AT_DRIVER, AT_DRIVEN = SPACED = ("none: the tyre alone", "a spacer, driver end", "a spacer, driven end")


def _spacer_at(job: JobFacts) -> Side | None:
    """The end that carries a spacer."""
    return {AT_DRIVER: SIDES[0], AT_DRIVEN: SIDES[1]}.get(str(job.answers.get(KIND, {}).get("spacer")))


def _has_spacer(job: JobFacts) -> bool:
    return _spacer_at(job) is not None


def _screws_of(side: Side) -> str:
    return f"ring screws, {side} end"


def _rings_come_off(job: JobFacts) -> bool:
    return job.answers.get(KIND, {}).get("rings") != STAY


def _ring_on(job: JobFacts, side: Side) -> Field | None:
    """Before its flange; where a spacer stands at this end the ring hangs on that."""
    if not _rings_come_off(job) or side == _spacer_at(job):
        return None
    return tick("ring_on", "Clamp ring on the shaft, bead side toward the coupling")


def _counted_out(key: str, label: str, side: Side) -> Callable[[JobFacts], Field]:
    """All screws of a ring, out and in the ledger."""

    def row(job: JobFacts) -> Field:
        ledger = out(key, label, _screws_of(side), REMOVED).ledger
        return replace(expected(key, label, f"ring_{side}")(job), ledger=ledger)

    return row


def _screws_away(job: JobFacts, side: Side) -> Field | None:
    """Taken out with the ring, unless they are out already."""
    if not _rings_come_off(job) or any(key in job.answers for key in ("off.screws", "found.screws")):
        return None
    return _counted_out("ring_screws", "Ring screws taken out, into a marked box", side)(job)


def _backed_out(job: JobFacts, side: Side) -> Field | None:
    if _rings_come_off(job):
        return None
    return expected("backed", "Screws backed out until a few threads hold", f"ring_{side}")(job)


def _screws_in(side: Side) -> Row:
    """Every screw of a ring, finger tight; where they were taken out the ledger closes with them."""

    def row(job: JobFacts) -> Field | None:
        found = expected(side, f"Screws in at the {side} end", f"ring_{side}")(job)
        gone = back(side, "", _screws_of(side))(job)
        return replace(found, ledger=gone.ledger) if job.out.get(slug(_screws_of(side))) else found

    return row


def _screws_out(side: Side) -> Row:
    return lambda job: (
        _counted_out(side, f"Screws out at the {side} end, into a marked box", side)(job)
        if _rings_come_off(job) and job.scope is not Scope.TAKE_OFF  # nothing goes back in that job
        else expected(side, f"Screws out at the {side} end, or backed out to the last threads", f"ring_{side}")(job)
    )


FACTS = FamilyFacts(
    family="tyre",
    title="Tyre coupling",
    parts=(
        *HUBS,
        Part(key="tyre", title="Tyre", look_for="cuts, cracks at the beads"),
        Part(key="rings", title="Clamp rings", look_for="whole; loose or screwed on, by size", pieces=2),
        bolts("ring_driver", "ring_driven", title="Ring screws"),
        Part(key="spacer", title="Spacer and its rigid flange", look_for="spigots clean, no burr", only=_has_spacer),
        Part(key="spacer_screws", title="Spacer screws", look_for="threads clean", screws=("spacer",), only=_has_spacer),
    ),
    before_hub=(_ring_on, _screws_away, _backed_out),
    gap_taken="between the flanges, end float at its middle",
    values=BOLTED_VALUES,
    may_also=(SPLIT_MOST, RING_CLEAR),
    runs_in=True,
    hides_hubs=True,
    opened=("Ring screws slack, half a turn at a time by turns", "Tyre opened at its split and off both flanges"),
    element=Element(
        parts=("tyre",),
        called="tyre",
        counted="Tyres out",
        pieces=1,
        clean="Flanges and rings clean of rubber, dry, no rust under the bead",
        seats="Flanges, rings and their threads: no cracks, no worn edge",
    ),
    way_round="flange toward the other shaft, at the place that gives the specified distance",
    circles=(
        Circle(
            key="ring_driver",
            title="ring screws, driver end",
            at="driver end",
            passes=HALF_TURNS,
            by_turns_with="ring_driven",
        ),
        Circle(key="ring_driven", title="ring screws, driven end", at="driven end", passes=HALF_TURNS),
        Circle(key="spacer", title="spacer screws", own=True, only=_has_spacer),
    ),
    watched=(condition("round", "The tyre runs round, no flapping"),),
    finished=(condition("rings", "Rings level, tyre seated all round, nothing metal touches"),),
)
PROCEDURES = (
    Procedure(
        version=2,
        receive=(
            Stop(
                key="kind",
                title="Enter the kind of tyre coupling",
                why="It decides what has to hang on the shafts before the flanges.",
                rows=(
                    choice("rings", "When the tyre goes in", *RINGS, detail="by its size; its manual says which"),
                    choice("spacer", "Distance between the flanges", *SPACED),
                ),
            ),
        ),
        before_setting=(
            Stop(
                key="spacer_ring",
                title="Hang the clamp ring on the spacer's shaft",
                why="Past its flange it does not go.",
                caution="Once the spacer is on, the ring cannot follow.",
                rows=(tick("on", "Clamp ring on the spacer's shaft, bead side toward the tyre"),),
                no_return=True,
                when=lambda job: _has_spacer(job) and _rings_come_off(job) and more_than_the_element(job),
            ),
            Stop(
                key="spacer_on",
                title="Put the spacer on the rigid flange",
                why="Its spigot centres it. Screws do not.",
                tool="thinnest feeler, soft sling where it is heavy",
                rows=(
                    tick("clean", "Spigot and faces clean, no burr"),
                    tick("home", "Spigot seated: no feeler enters all round"),
                    tick("line", "Holes in line"),
                    expected("screws", "Spacer screws in by hand", "spacer"),
                ),
                ordered=True,
                when=lambda job: _has_spacer(job) and more_than_the_element(job),
                on_fail="Not seated: burr or paint at the spigot. Off again, never drawn in by its screws.",
            ),
            Pull(circle="spacer", when=more_than_the_element),
        ),
        found=(
            Stop(
                key="split",
                title="Measure the gap at the split as found",
                why="A split wider than it was left shows that a bead creeps.",
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
                shuts=True,
                relies=frozenset({TOUCHED}),
                title="Open the tyre and lay it over the flanges",
                why="A bead that is not seated creeps out.",
                sketch=bead,
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
                shuts=True,
                relies=frozenset({TOUCHED}),
                title="Lay the rings over the beads, every screw finger tight",
                why="All in before one is pulled.",
                rows=tuple(_screws_in(side) for side in SIDES),
            ),
            Pull(
                circle="ring_driver",
                shuts=True,
                relies=frozenset({TOUCHED}),
                on_fail="Pull one side down and the other bead creeps out: slacken all round, begin again.",
            ),
            Pull(
                circle="ring_driven",
                shuts=True,
                relies=frozenset({TOUCHED}),
                on_fail="Pull one side down and the other bead creeps out: slacken all round, begin again.",
            ),
            no_metal("between ring and flange, both ends", FACTS.circles[:2], length("split_mm", "Gap at the split again")),
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
                    *(_screws_out(side) for side in SIDES),
                    tick("tyre", "Tyre opened at its split and taken off", "cracks at the beads"),
                ),
                ordered=True,
            ),
        ),
    ),
)
