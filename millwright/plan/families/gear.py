"""Gear couplings with flanged sleeves."""

from collections.abc import Callable

from ...line import SIDES, Side
from ...sketch import common
from ..coupling_benches import fill, weighed
from ..fields import Field, condition, marks, text, tick
from ..procedure import LightScrew, Procedure, Proof, Pull, Stop, expected
from ..steps import JobFacts
from .facts import BOLTED_VALUES, GREASE_VALUES, HUBS, LEAKS, Circle, ClosedCheck, FamilyFacts, Part, bolts


def _flexible_halves(job: JobFacts) -> int:
    return sum(job.line.hub(side).half == "flexible" for side in SIDES)


def _at_a_flexible_half(row: Field) -> Callable[[JobFacts, Side], Field | None]:
    return lambda job, side: row if job.line.hub(side).half == "flexible" else None


def _at_a_rigid_half(row: Field) -> Callable[[JobFacts, Side], Field | None]:
    return lambda job, side: row if job.line.hub(side).half == "rigid" else None


FACTS = FamilyFacts(
    family="gear",
    title="Gear coupling with flanged sleeves",
    parts=(
        *HUBS,
        Part(key="sleeves", title="Flanged sleeves", look_for="teeth, flange faces, match marks", pieces=_flexible_halves),
        Part(key="rings", title="Seal rings", look_for="cuts, hardening, the size ordered", pieces=_flexible_halves),
        Part(key="gasket", title="Gasket", look_for="whole, the one supplied"),
        bolts("flange", title="Flange bolts and nuts"),
        Part(key="plugs", title="Plugs of the grease holes", look_for="threads clean", where="in the sleeves", counted=True),
        Part(key="grease", title="Coupling grease", look_for="the kind the maker names, enough for this size"),
    ),
    before_hub=(
        _at_a_flexible_half(
            tick("ring_on", "Greased seal ring in its sleeve", "seated all round in the groove, not twisted")
        ),
        _at_a_flexible_half(
            tick("sleeve_on", "Sleeve on the shaft, teeth packed, pushed well back", "flange toward the coupling")
        ),
        _at_a_rigid_half(
            tick("bolts_on", "Bolts that cannot pass this half later are in it", none_of="all can be put in later")
        ),
    ),
    gap_taken="between the hub faces, spacer bar and feelers to the same depth, at quarter turns",
    values=(*BOLTED_VALUES, "sleeve_spread_mm"),
    closed=ClosedCheck(
        key="couple.sleeve",
        title="Measure hub to sleeve all round",
        why="Proves the alignment on the closed coupling; the same reading later tells whether it has moved.",
        tool="depth micrometer, or feelers",
        at_flexible_halves=True,
        values=("sleeve_spread_mm",),
    ),
    way_round="face toward the other shaft, as the drawing shows",
    may_also=GREASE_VALUES,
    circles=(Circle(key="flange", title="flange bolts", held="bolt head"),),
    watched=(LEAKS,),
    hides_hubs=True,
    opened=("Grease let out, flange bolts out, kept with their holes", "Sleeves slid back, clear of the teeth"),
    finished=(
        condition("plugs", "Plugs flush, no grease at keyway or joint"),
        condition("play", "Sleeves move along by their play"),
    ),
)


def _halves(job: JobFacts) -> tuple[str, ...]:
    return tuple(f"{'sleeve' if job.line.hub(side).half == 'flexible' else 'rigid half'}, {side} end" for side in SIDES)


PROCEDURES = (
    Procedure(
        version=2,
        couple_up=(
            LightScrew(),
            Stop(
                key="keyways",
                title="Seal the keyways",
                why="Grease creeps out along an open keyway.",
                rows=(
                    text("sealant", "Sealant", "the one the manual names"),
                    tick(
                        "filled",
                        "The keyway of every flexible half filled to the hub face",
                        none_of="no keyway under these sleeves",
                    ),
                ),
            ),
            Stop(
                key="close",
                shuts=True,
                title="Draw the sleeves over the hubs and close them",
                why="A pinched ring or gasket leaks.",
                photograph="the match marks in line, the seal rings in their grooves",
                sketch=lambda job: common.marks(_halves(job)),
                caution="Fingers out from between the flanges.",
                rows=(
                    tick("faces", "Flange faces and counterbore clean"),
                    tick("teeth", "Teeth packed with grease, entered without force"),
                    weighed,
                    tick("gasket", "Gasket in the counterbore"),
                    lambda job: marks(
                        "match", "Match mark as read", *_halves(job), detail="in one line; none on either: none"
                    ),
                    tick("rings", "Seal rings not pinched", "a sleeve still moves a little along by hand"),
                    expected("bolts", "Bolts in by hand", "flange", "only those supplied with it"),
                ),
                ordered=True,
                on_fail="Draw the sleeves back and correct it before a bolt is tightened. Pinched: a new one.",
            ),
            Pull(circle="flange", shuts=True),
            fill(
                "grease",
                "Fill it with grease",
                "Filled from above it looks full and is not: air stays trapped.",
                0.0,
                90.0,
                180.0,
                270.0,
            ),
            Proof(),
        ),
        undo=(
            Stop(
                key="grease",
                title="Let the grease out",
                why="It runs out of the lowest hole, not over the floor.",
                rows=(tick("tray", "Tray under it"), tick("plug", "Lowest plug out, grease caught")),
                ordered=True,
            ),
            Stop(
                key="bolts",
                title="Take the flange bolts out",
                why="They go back to their holes.",
                no_return=True,
                rows=(
                    tick("marks", "Match marks noted"),
                    tick("held", "Heads held, nuts turned"),
                    expected("out", "Bolts out, into a marked box", "flange"),
                ),
                ordered=True,
            ),
            Stop(
                key="sleeves",
                title="Slide the sleeves back, clear of the teeth",
                why="The teeth tell how it ran.",
                rows=(tick("clear", "Sleeves clear of the teeth"), text("seen", "Teeth: wear, pitting, dry", required=False)),
            ),
        ),
    ),
)
