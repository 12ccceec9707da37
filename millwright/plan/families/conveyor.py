"""Screw-conveyor drives: a gear unit on an adapter, sealed by two lips or by packing, its hub wedged on the drive shaft."""

from itertools import pairwise

from ...card.values import source_of
from ...meaning import Meaning, Of
from ...say import say
from ...sketch import hanging
from ...sketch.shapes import Sketch
from ...verdict import Judged, said_by_hand
from ..fields import Field, choice, number, text, tick
from ..procedure import Procedure, Pull, Row, Stop, answered, expected, in_kit
from ..steps import Answers, Fact, JobFacts
from .facts import COUNT, TORQUE, Circle, FamilyFacts, Part
from .gear_units import LAID_DOWN, LITRES, OIL, OIL_AND_BREATHER, UNIT, let_go, slung

LIPS, PACKING = SEALED_BY = ("two lip seals", "one lip seal and packing")
SEALS = "receive.seals"
DECIDED_ANEW = Fact.PARTS
TURN = "packing_turn_deg"
MOST_RINGS = 6
OFF_DEG = 5.0  # rule of thumb: what a marked nut tells
PLACES_APART_H = 2  # hours of the clock, less than a third of a turn by two
ADAPTER = Circle(key="adapter", title="bolts of the adapter", at="away from the hubs", own=True)


packed = answered(SEALS, "by", PACKING)
lips = answered(SEALS, "by", LIPS)


def _rings(job: JobFacts) -> int:
    came = job.answers.get("receive.kit", {}).get("rings_n")
    return came if isinstance(came, int) else 3


def _joints(job: JobFacts) -> Sketch:
    return hanging.joints(_rings(job))


def _joint_rows(job: JobFacts) -> tuple[Field, ...]:
    return tuple(
        number(f"joint_{i + 1}", f"Joint of ring {i + 1} at", "o'clock", f"suggested: {(i * 4 % 12) or 12}")
        for i in range(min(_rings(job), MOST_RINGS))
    )


def _joint_row(i: int) -> Row:
    def row(job: JobFacts) -> Field | None:
        rows = _joint_rows(job)
        return rows[i] if i < len(rows) else None

    return row


def _judge_joints(job: JobFacts, answers: Answers) -> Judged:
    """No joint behind the one before it. Source: rule of thumb, a third of a turn apart."""
    read = [answers.get(f"joint_{i + 1}") for i in range(min(_rings(job), MOST_RINGS))]
    checks, source = [], "rule of thumb: joints a third of a turn apart"
    for i, (before, now) in enumerate(pairwise(read), start=1):
        if not isinstance(before, int | float) or not isinstance(now, int | float):
            continue
        apart = abs(now - before) % 12
        apart = min(apart, 12 - apart)
        good = apart > PLACES_APART_H
        checks.append(said_by_hand(f"joints_{i}", f"joints {i} and {i + 1}: {apart:g} hours apart", source, in_order=good))
    bad = any(check.status == "over" for check in checks)
    return checks, [say("joints_in_line", "Joints in line leak: turn the ring before it is pressed in.")] if bad else []


def _turned(job: JobFacts) -> Field:
    known = f"the card: {job.card[TURN].value:g}°" if TURN in job.card else "as its manual has it"
    return number("turn_deg", "Each nut turned, after hand tight, by", "°", known)


def _judge_turn(job: JobFacts, answers: Answers) -> Judged:
    turned = answers.get("turn_deg")
    if TURN not in job.card or not isinstance(turned, int | float):
        return [], []
    wanted, source = job.card[TURN].value, source_of(job.card, TURN)
    good = abs(turned - wanted) <= OFF_DEG
    name = f"nuts turned by {turned:g}°, the card has {wanted:g}°"
    text_ = "Ease every nut to hand tight and turn it anew: overdone it burns the packing, slack it leaks."
    return [said_by_hand("turn", name, source, in_order=good)], [] if good else [say("other_turn", text_)]


FACTS = FamilyFacts(
    family="screw-conveyor drive",
    title="Screw-conveyor drive",
    parts=(
        UNIT,
        Part(key="shaft", title="Drive shaft", look_for="size ordered, drilled and tapped end, key"),
        Part(key="adapter", title="Adapter", look_for="drop-out openings free, no burr"),
        Part(key="adapter_bolts", title="Bolts of the adapter", look_for="threads clean", screws=(ADAPTER.key,)),
        Part(key="lips", title="Lip seals", look_for="lips whole, not hardened", pieces=2, only=lips),
        Part(key="lip", title="Lip seal", look_for="lip whole, not hardened", pieces=1, only=packed),
        Part(key="rings", title="Rings of braided packing", look_for="cut to length, of one kind", counted=True, only=packed),
        Part(key="retainer", title="Retainer of the packing", look_for="shoulder not worn", pieces=1, only=packed),
        Part(key="studs", title="Studs, each with its nut", look_for="threads clean", counted=True, only=packed),
        Part(key="washer", title="Washer of the trough side", look_for="flat", where="often in the adapter", pieces=1),
        Part(key="wedge", title="Wedge, retaining ring, keeper plate, bolt", look_for="one of each"),
    ),
    gap_taken="none: it hangs on its shaft",
    values=(ADAPTER.line(COUNT), ADAPTER.line(TORQUE), "motor_turns"),
    may_also=(TURN, OIL, LITRES),
    way_round="output hub over the drive shaft, keyways in line",
    hubs=("driven",),
    circles=(ADAPTER,),
    watched=(tick("packing", "Packing felt: warm, not hot, no smoke", none_of="lip seals: no packing"),),
    hangs=True,
)
PROCEDURES = (
    Procedure(
        version=2,
        unpack=(
            Stop(
                key="seals",
                title="Decide now: lip seals or packing",
                why="The two exclude each other. What is decided here, the other one's parts and steps are gone.",
                changes=frozenset({DECIDED_ANEW}),
                rows=(
                    choice("by", "The trough end is sealed by", *SEALED_BY),
                    text("why", "Because", "what is conveyed; what was there before", required=False),
                ),
            ),
        ),
        prepare=(
            Stop(
                key="seal",
                title="Drive the lip seal into the small end of the adapter",
                why="It keeps the unit's oil in and dust out.",
                tool="seal driver, light grease",
                rows=(
                    tick("lip", "Lip toward what is to be kept in"),
                    tick("greased", "Lip greased, not cut, no sharp edge under it"),
                    tick("square", "Driven in square, with the driver, not with a hammer"),
                ),
            ),
            Stop(
                key="second_seal",
                title="Drive the second lip seal into the trough end",
                why="Only where there is no packing: both, or neither, and it leaks.",
                tool="seal driver, light grease",
                when=lips,
                relies=frozenset({DECIDED_ANEW}),
                rows=(
                    tick("lip", "Lip toward what is to be kept in"),
                    tick("square", "Driven in square, greased, not cut"),
                ),
            ),
            Stop(
                key="no_seal",
                title="Leave the seat in the trough end empty",
                why="A lip seal left in here is torn by the packing, and nobody sees it.",
                when=packed,
                relies=frozenset({DECIDED_ANEW}),
                rows=(tick("empty", "No lip seal in the trough end; the spare one put back into its box"),),
            ),
            Stop(
                key="washer",
                title="Put the washer into the trough side",
                why="A small part, and the one that is found on the bench afterwards.",
                rows=(in_kit("washers", "Washers in", "washer"), tick("seated", "It lies flat in its seat")),
            ),
            Stop(
                key="rings",
                title="Press the packing in, ring by ring, joints apart",
                why="Joints in line are a way through.",
                tool="packing tool or a bush of hard wood",
                sketch=_joints,
                when=packed,
                relies=frozenset({DECIDED_ANEW}),
                rows=(
                    in_kit("rings", "Rings in", "rings"),
                    *(_joint_row(i) for i in range(MOST_RINGS)),
                    tick("each", "Each ring seated before the next"),
                ),
                judge=_judge_joints,
                on_fail="The ring out again, turned, pressed in anew.",
            ),
            Stop(
                key="retainer",
                title="Studs in, retainer on, nuts by hand",
                why="Packing that is tightened before the shaft is in keeps the shaft out.",
                caution="No spanner on these nuts until the shaft is in.",
                when=packed,
                relies=frozenset({DECIDED_ANEW}),
                rows=(
                    in_kit("studs", "Studs in", "studs"),
                    tick("deep", "Deep enough: the retainer clears their tops"),
                    tick("shoulder", "Retainer on, its shoulder toward the packing"),
                    tick("by_hand", "Nuts on by hand only, no spanner"),
                ),
                ordered=True,
            ),
            Stop(
                key="adapter_on",
                title="Bring the adapter onto the unit's output side",
                why="What rubs off has to fall out at the bottom, and not into the unit.",
                photograph="the openings at the bottom, free",
                rows=(
                    tick("side", "On the output side, its openings at the bottom"),
                    tick("free", "Openings free: a finger goes through"),
                    expected("bolts", "Bolts in by hand", ADAPTER.key),
                ),
            ),
            Pull(circle=ADAPTER.key),
            slung(
                tick("leads", "Drive shaft at hand, its drilled and tapped end leads into the hub"),
                why="Nothing else carries it until the wedge has the shaft and the adapter has the trough.",
            ),
        ),
        couple_up=(
            Stop(
                key="nuts",
                means=(Meaning(of=Of.PACKING, field="turn_deg", new=True),),
                title="Packing nuts hand tight, then the set turn",
                why="Overdone it burns the packing; slack it lets dust through.",
                tool="spanner, a mark on each nut",
                caution="Each nut alike, in turn, a little at a time.",
                when=packed,
                relies=frozenset({DECIDED_ANEW}),
                judged_by=(TURN,),
                rows=(
                    tick("in", "The shaft is in and the wedge drawn"),
                    tick("hand", "Every nut hand tight, retainer square"),
                    _turned,
                    in_kit("nuts", "Nuts turned alike", "studs"),
                ),
                judge=_judge_turn,
                on_fail="Hot or smoking in its first hour: ease every nut by the same turn.",
            ),
            Stop(
                key="trough",
                title="Bolt the adapter to the trough end",
                why="The trough holds the unit; the shaft alone would bend.",
                rows=(
                    tick("flange", "Flange of the adapter on the trough end, every bolt in and tight"),
                    tick("openings", "Drop-out openings still free and at the bottom"),
                    tick("turns", "Screw turned by hand: nothing rubs"),
                ),
            ),
            let_go("its shaft and the trough end", tick("bolted", "Adapter bolted to the trough, wedge drawn in")),
            OIL_AND_BREATHER,
        ),
        undo=(
            slung(why="Nothing else carries the unit once the shaft lets go."),
            Stop(
                key="trough",
                title="Part adapter and trough end",
                why="The unit hangs in its sling from here on.",
                caution="The unit drops when the shaft lets go.",
                no_return=True,
                rows=(
                    tick("nuts", "Packing nuts slackened", none_of="lip seals: no packing"),
                    tick("parted", "Bolts out, adapter free of the trough"),
                ),
                ordered=True,
            ),
        ),
        hubs_off=(LAID_DOWN,),
    ),
)
