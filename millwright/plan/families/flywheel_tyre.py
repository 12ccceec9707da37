"""Tyre couplings on an engine flywheel: everything hangs on the driven shaft before its flange goes on."""

from ...bolt_order import HALF_TURNS
from ...card.values import source_of
from ...line import Side
from ...meaning import Meaning, Of
from ...say import mm, say
from ...sketch import tyres
from ...verdict import Check, Judged, judge, said_by_hand
from ..fields import condition, count, length, marks, tick
from ..procedure import Bench, LightScrew, Procedure, Pull, Stop, expected, in_kit
from ..stages import before_setting
from ..steps import Answers, BenchForm, JobFacts
from .facts import ANGLE_VALUES, COUNT, TORQUE, Circle, FamilyFacts, Part, bolts
from .tyre import RING_CLEAR, TOUCHED, no_metal

FACE_MOST, RIM_MOST = "flywheel_face_mm", "flywheel_rim_mm"
CIRCLE_MM = 0.5  # rule of thumb: what a rule tells of a bolt circle
BUSH_MM = 0.1


def _judge_flywheel(job: JobFacts, answers: Answers) -> Judged:
    """Element, flywheel, bush and shaft are of one size."""
    checks: list[Check] = []
    one, other = answers.get("element_circle_mm"), answers.get("flywheel_circle_mm")
    if one is not None and other is not None:
        source = "rule of thumb: what a rule tells of a circle"
        checks.append(judge("circles", "bolt circles differ by", abs(one - other), "mm", high=CIRCLE_MM, source=source))
    holes, wanted = answers.get("element_holes"), answers.get("holes")
    if holes is not None and wanted is not None and holes != wanted:
        name = f"{holes} holes in the element, {wanted} in the flywheel"
        checks.append(said_by_hand("holes", name, "counted on both", in_order=False))
    bush, shaft = answers.get("bush_mm"), job.line.driven.shaft_diameter_mm
    if bush is not None:
        name, source = "bush against shaft", f"this line's register: {shaft:g} mm"
        checks.append(judge("bush", name, abs(bush - shaft), "mm", high=BUSH_MM, source=source))
    return checks, []


def _sits_at(job: JobFacts, side: Side) -> float | None:
    """Source: geometry, the distance that is wanted less the one there is."""
    distance, wanted = job.answers.get("prepare.place", {}).get("distance_mm"), job.card.get("gap_nominal_mm")
    return wanted.value - distance if wanted is not None and isinstance(distance, int | float) else None


def _judge_place(job: JobFacts, answers: Answers) -> Judged:
    """Where the flange sits on its shaft, and what is left free before the flywheel. Source: geometry."""
    distance, wanted = answers.get("distance_mm"), job.card.get("gap_nominal_mm")
    if distance is None or wanted is None:
        return [], []
    out_of_face = wanted.value - distance
    text = "Set the flange so that the shaft end is {by} proud of its face; minus: set back."
    says = [say("standout", text, by=mm(out_of_face, 1, signed=True))]
    growth = max(job.card["axial_growth_mm"].value, 0.0) if "axial_growth_mm" in job.card else 0.0
    least = (answers.get("float_mm") or 0.0) / 2 + growth + before_setting.LEFT_OVER_MM
    source = f"geometry: half the float and growth; {before_setting.TO_SPARE}"
    return [judge("ends_clear", "shaft end to flywheel", distance, "mm", low=least, source=source)], says


def _dialled(key: str, title: str, kind: str, line: str, why: str) -> Bench:
    """The flywheel turned under a dial that does not move: what it shows is the flywheel's own swing."""

    def form(job: JobFacts) -> BenchForm:
        known = line in job.card
        limit = {"limit_mm": job.limit(line), "limit_source": source_of(job.card, line)} if known else {}
        return BenchForm(bench="runout", preset={"kind": kind, **limit})

    return Bench(
        key=key,
        title=title,
        why=f"{why} Dial on the bench, engine turned: that is its run-out. Dial on the shaft, shaft turned: that is offset.",
        tool="dial on a fixed foot; the engine turned by its barring gear, not by its starter",
        caution="Barring gear out again before anybody starts the engine.",
        form=form,
        means=(Meaning(of=Of.RUN_OUT),),
        needs=lambda job: (line,),
        on_fail=lambda job: "Look for dirt under the flywheel's ring; else the engine's own people decide.",
    )


_BOLT_RING = Circle(key="bolt_ring", title="screws of the bolt ring", passes=HALF_TURNS, own=True, by_turns_with="clamp_ring")
_CLAMP_RING = Circle(key="clamp_ring", title="screws of the clamp ring", at="driven end", passes=HALF_TURNS, own=True)
FACTS = FamilyFacts(
    family="tyre on flywheel",
    title="Tyre coupling on an engine flywheel",
    parts=(
        Part(key="driven_hub", title="Flange with its bush", look_for="tapered bore clean, no cracks"),
        Part(key="element", title="Element", look_for="cuts, cracks, the stiffness ordered"),
        Part(key="rings", title="Bolt ring and clamp ring", look_for="bolt circle matches the flywheel"),
        bolts("bolt_ring", "clamp_ring", title="Screws of both rings"),
        Part(
            key="ferrules",
            title="Ferrules",
            look_for="one for every hole",
            where="in a bag tied to the element",
            screws=("bolt_ring",),
        ),
    ),
    before_hub=(
        tick("bolt_ring_on", "Bolt ring on the shaft"),
        tick("clamp_ring_on", "Clamp ring on the shaft"),
        tick("element_on", "Element on the shaft, ferrules in"),
    ),
    hung=lambda job: tyres.hung_in_order(),
    straightedge=False,
    gap_taken="flange to flywheel, end float at its middle",
    values=(
        *ANGLE_VALUES,
        "offset_limit_mm",
        FACE_MOST,
        RIM_MOST,
        *(circle.line(key) for circle in (_BOLT_RING, _CLAMP_RING) for key in (COUNT, TORQUE)),
    ),
    way_round="flange toward the flywheel",
    may_also=(RING_CLEAR,),
    runs_in=True,
    sits_at=_sits_at,
    opened=("Both screw circles slack by turns, screws out", "Element drawn off the flange"),
    circles=(_BOLT_RING, _CLAMP_RING),
    finished=(
        condition("ferrules", "A ferrule in every hole of the element"),
        condition("rings", "Rings level, nothing metal touches"),
    ),
    hubs=("driven",),
)
PROCEDURES = (
    Procedure(
        version=2,
        receive=(
            Stop(
                key="flywheel",
                title="Compare element and flywheel",
                why="Found now, or with the engine set and the flange on.",
                rows=(
                    length("element_circle_mm", "Bolt circle of the element"),
                    length("flywheel_circle_mm", "Bolt circle of the flywheel"),
                    count("element_holes", "Holes in the element"),
                    count("holes", "Holes in the flywheel"),
                    marks("grade", "Stiffness", "marked on the element", "as ordered"),
                    length("bush_mm", "Bore marked on the bush"),
                ),
                judge=_judge_flywheel,
                on_fail="Another element or bush: nothing is mounted that does not go together.",
            ),
        ),
        prepare=(
            Stop(
                key="place",
                title="Calculate where the flange sits",
                why="The distance to the flywheel is fixed: the flange finds its place on the shaft by it.",
                tool="inside rule, the engine's shaft at the middle of its float",
                rows=(
                    length("distance_mm", "Driven shaft end to flywheel face"),
                    length("float_mm", "End float of both together", required=False),
                ),
                needs=("gap_nominal_mm",),
                judged_by=("axial_growth_mm",),
                judge=_judge_place,
                may_authorise=True,
                on_fail="The shaft end comes too near the flywheel: move the machine back.",
            ),
            Stop(
                key="flywheel_clean",
                title="Clean flywheel and flange",
                why="Paint or a burr under the element tilts it.",
                tool="non-flammable solvent, fine file",
                rows=(
                    tick("face", "Flywheel face and spigot clean, no paint, no burr"),
                    tick("holes", "Threads in the flywheel clean, every screw runs in by hand"),
                    tick("flange", "Flange and its tapered bore clean"),
                ),
            ),
            _dialled(
                "flywheel_face",
                "Dial the flywheel's face near its rim",
                "face",
                FACE_MOST,
                "A face that swings bends the element every turn.",
            ),
            _dialled(
                "flywheel_rim",
                "Dial the flywheel's rim",
                "rim",
                RIM_MOST,
                "Out of round is offset for the element.",
            ),
            Stop(
                key="ferrules",
                title="Put the ferrules into the element",
                why="A hole without its ferrule is clamped on rubber.",
                rows=(in_kit("ferrules", "Ferrules in", "ferrules"), tick("every", "One in every hole, flush")),
            ),
        ),
        couple_up=(
            LightScrew(),
            Stop(
                key="lay_element",
                shuts=True,
                relies=frozenset({TOUCHED}),
                title="Lay element and bolt ring to the flywheel",
                why="All in by hand before one is pulled.",
                caution="The machine is bolted down first, never after the element is drawn on.",
                rows=(
                    tick("ferrules", "Ferrules in every hole"),
                    expected("ring", "Screws through the ferrules, by hand", "bolt_ring"),
                    tick("clamp", "Clamp ring over the bead by hand"),
                    expected("clamp_screws", "Screws in the clamp ring", "clamp_ring"),
                ),
                ordered=True,
            ),
            Pull(circle="bolt_ring", shuts=True, relies=frozenset({TOUCHED})),
            Pull(circle="clamp_ring", shuts=True, relies=frozenset({TOUCHED})),
            no_metal("between clamp ring and flange", FACTS.circles),
        ),
        undo=(
            Stop(
                key="slack",
                title="Slacken both screw circles by turns, half a turn at a time",
                why="The element is strained while they hold.",
                rows=(tick("slack", "Both circles slack by half turns, none out yet"),),
            ),
            Stop(
                key="screws",
                title="Take the screws out and draw the element off",
                why="Its beads tell how it ran.",
                no_return=True,
                rows=(
                    expected("ring", "Screws of the bolt ring out, into a marked box", "bolt_ring"),
                    expected("clamp", "Screws of the clamp ring out, into a marked box", "clamp_ring"),
                    expected("ferrules", "Ferrules out, kept with the element", "bolt_ring"),
                    tick("off", "Element drawn off the flange"),
                ),
                ordered=True,
            ),
        ),
    ),
)
