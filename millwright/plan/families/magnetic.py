"""Magnetic adjustable-speed drives: a magnet rotor on the load's shaft between two conductor plates on the driver's."""

from ...card.values import source_of
from ...meaning import Meaning, Of
from ...roles import Role
from ...sketch import common, hanging
from .. import torques
from ..circles import pulled
from ..counts import back
from ..fields import REMOVED, choice, condition, marks, out, text, tick
from ..procedure import Bench, Procedure, Pull, Stop, answered, expected, in_kit
from ..steps import BenchForm, JobFacts
from .facts import COUNT, HUBS, TORQUE, Circle, FamilyFacts, Part

SIZE = "receive.size"
ARMS_OFF, ARMS_STAY = ARMS = ("taken off first", "stay on")
PADS_IN, SCREWS_IN = APART = ("card pads on the copper", "jacking screws")
ARMS_LINE, PADS, SCREWS = "moving arms with their pins", "card pads on the copper", "jacking screws of the conductor"
RUNOUT = "rotor_runout_mm"
HALVES = ("motor half", "load half")
NO_PACEMAKER = tick("implants", "Nobody with a pacemaker or an implant comes near", "ask, do not guess")
KEPT_AWAY = tick("away", "Watches, cards, telephones, steel tools and chips out of reach")

ROTOR = Circle(key="rotor", title="bolts of the rotor flange", at="driven end", own=True)
CONDUCTOR = Circle(key="conductor", title="bolts of the conductor flange", at="driver end", own=True)
GAP_SPACERS = Circle(key="gap_spacers", title="bolts of the gap spacers", own=True)
CIRCLES = (ROTOR, CONDUCTOR, GAP_SPACERS)
ALL = tuple(circle.key for circle in CIRCLES)
LATER = "it comes later: the rotor stays locked"

arms_off = answered(SIZE, "arms", ARMS_OFF)
on_pads = answered(SIZE, "apart", PADS_IN)
on_screws = answered(SIZE, "apart", SCREWS_IN)

FACTS = FamilyFacts(
    family="magnetic drive",
    title="Magnetic adjustable-speed drive",
    parts=(
        *HUBS,
        Part(key="rotor", title="Magnet rotor", look_for="magnets whole, nothing of steel on it"),
        Part(key="halves", title="Conductor halves", look_for="copper flat, no score, marks", pieces=2),
        Part(key="spacers", title="Gap spacers", look_for="all of one length", counted=True),
        Part(
            key="bolts",
            title="Bolts of all three circles",
            look_for="grade, threads clean",
            screws=ALL,
        ),
        Part(key="arms", title="Moving arms and pins", look_for="pins straight", counted=True),
        Part(
            key="actuator",
            title="Actuator with its linkage",
            look_for="it comes in a crate of its own",
            may_lack=LATER,
        ),
    ),
    gap_taken="beside the rotor, full on, at both sides",
    values=(
        "soft_foot_mm",
        "air_gap_spread_mm",
        RUNOUT,
        "foot_bolt_torque_nm",
        *(circle.line(key) for circle in CIRCLES for key in (COUNT, TORQUE)),
    ),
    may_also=("air_gap_differ_mm", "air_gap_least_mm", "motor_turns"),
    way_round="flange toward the drive, its face clean",
    circles=CIRCLES,
    set_by="air gap",
    straightedge=False,
    finished=(
        condition("none_left", "No card, no jacking screw, no steel chip between rotor and plates"),
        condition("linkage", "Actuator and linkage free, end stops set", none_of=LATER),
    ),
    watched=(tick("through", "Run once from full off to full on and back: no rub, no smell", none_of=LATER),),
)


def _dial_centre(job: JobFacts) -> BenchForm:
    known = RUNOUT in job.card
    at = f", at {job.line.speed_rpm:g} rpm" if known and job.card[RUNOUT].up_to else ""
    limit = {"limit_mm": job.limit(RUNOUT), "limit_source": source_of(job.card, RUNOUT) + at} if known else {}
    return BenchForm(bench="runout", preset={"kind": "rim", **limit})


def _adhesive(circle: str, title: str, why: str) -> Stop:
    return Stop(
        key=f"{circle}_bolts",
        title=title,
        why=why,
        rows=(
            tick("clean", "Threads and faces clean and dry"),
            tick("adhesive", "Thread adhesive where the card or the manual says so", none_of="its manual asks for none"),
            expected("bolts", "Bolts in by hand", circle),
        ),
    )


def _magnets(key: str, title: str) -> Stop:
    return Stop(
        key=key,
        title=title,
        why="It snaps to steel from further away than anybody expects, and does not let go of a finger.",
        tool="bench of wood or aluminium, tools of brass or plastic",
        caution="The rotor crushes fingers and stops pacemakers. Two people, and nobody alone with it.",
        hold=Role.LEAD,
        rows=(
            tick("chapter", "Safety chapter of its manual read, by everybody here"),
            NO_PACEMAKER,
            KEPT_AWAY,
            tick("bench", "Bench of wood or aluminium, clear of steel, and a fence round it"),
            tick("two", "Two people, and who speaks is agreed"),
        ),
    )


PROCEDURES = (
    Procedure(
        unpack=(_magnets("magnets", "Read the safety chapter before the crate is opened"),),
        receive=(
            Stop(
                key="size",
                title="Say how this size is handled",
                why="Large ones lose their arms first and rest on jacking screws; small ones keep them and rest on card.",
                rows=(
                    choice("arms", "Its moving arms are", *ARMS),
                    choice("apart", "Rotor and plates are kept apart by", *APART),
                    choice("actuator", "The actuator", "is here", "comes by itself, later"),
                    text("says", "Where its manual says so", required=False),
                ),
            ),
        ),
        prepare=(
            Stop(
                key="base",
                title="Make the base ready",
                why="Once the rotor is on, nobody files a foot any more.",
                rows=(
                    tick("flat", "Base and feet clean, flat, no paint, no chips"),
                    tick("back", "Room to bring the motor back by the length of the drive"),
                    tick("way", "Jack screws at every foot, sideways and along"),
                    tick("shims", "Shims at hand, none of them magnetised to a tool"),
                ),
            ),
        ),
        before_setting=(
            Stop(
                key="halves_marked",
                title="Mark both conductor halves before they are parted",
                why="They were balanced together in this position.",
                photograph="the marks across both halves, and where the spacers sit",
                sketch=lambda job: common.marks(HALVES),
                rows=(marks("match", "Mark as read", *HALVES), tick("noted", "Place of each spacer noted")),
            ),
            Stop(
                key="arms_off",
                title="Take the moving arms off",
                why="They are in the way of the rotor, and bend when it snaps.",
                when=arms_off,
                rows=(
                    out("arms", "Arms off, with their pins, into a marked box", ARMS_LINE, REMOVED, least=1),
                    tick("free", "Rotor moves along its centre shaft by hand"),
                ),
            ),
            Stop(
                key="laid",
                title="Lay the load half of the conductor on the bench, with its gap spacers",
                why="Copper on wood: nothing for the rotor to snap to.",
                tool="wooden blocks",
                sketch=lambda job: hanging.rotor_between_plates(),
                rows=(
                    in_kit("spacers", "Gap spacers with it", "spacers"),
                    lambda job: out("pads", "Card pads laid on the copper", PADS, least=1) if on_pads(job) else None,
                    lambda job: out("screws", "Jacking screws in", SCREWS, least=1) if on_screws(job) else None,
                    tick("even", "Spread evenly, so that the rotor cannot tip"),
                ),
            ),
            Stop(
                key="lowered",
                title="Lower the rotor into it",
                why="The pull grows faster than the hand expects over the last centimetres.",
                tool="lifting gear, slings of cloth",
                caution="Grips so that no finger is between rotor and plate. One speaks, one lowers.",
                photograph="rotor in the half, card or screws between",
                sketch=lambda job: hanging.rotor_between_plates(),
                rows=(
                    tick("grips", "Grips and slings hold without a finger underneath"),
                    tick("lowered", "Lowered without a stop, flange into the conductor's centre"),
                    tick("between", "Card, or every jacking screw, between rotor and plate all round"),
                ),
                ordered=True,
                on_fail="It has caught: no lever, no hammer. Jacking screws, evenly, or call its maker.",
            ),
            Stop(
                key="full_off",
                title="Rotor to its widest gap, full off",
                why="So the least of it pulls while it is bolted up.",
                rows=(
                    lambda job: back("arms", "Arms back on, with their pins", ARMS_LINE)(job) if arms_off(job) else None,
                    tick("widest", "Full off: the widest gap, and locked there"),
                ),
            ),
            _adhesive("rotor", "Bring the rotor flange to the load hub", "Faces clean: a chip here shows as run-out."),
            Pull(circle="rotor"),
            Bench(
                key="centre",
                title="Dial the end of the centre shaft",
                why="The arm is long: a little at the flange is much out there, and it shakes at speed.",
                tool="dial gauge at the very end of the centre shaft, soft mallet",
                caution="Turn it by hand. Soft mallet on the rotor's top only.",
                form=_dial_centre,
                means=(Meaning(of=Of.RUN_OUT),),
                needs=lambda job: (RUNOUT,),
                relies=frozenset({pulled(CIRCLES[0]), torques.moved(CIRCLES[0].key)}),
                on_fail=lambda job: "High spot up, one blow of the soft mallet on the rotor's top, read again.",
            ),
            _adhesive("conductor", "Bring the motor half to the motor hub", "The same faces, the same care."),
            Pull(circle="conductor"),
        ),
        setting=(
            Stop(
                key="near",
                title="Bring the motor near, foot bolts in, then up to the marks",
                why="Closed first, nobody gets at the foot bolts any more.",
                tool="jack screws, not a bar",
                caution="It is drawn over the last centimetres: jack it, never push it by hand.",
                rows=(
                    tick("short", "Stopped short: a hand's breadth open"),
                    tick("bolts", "Every foot bolt in, light"),
                    tick("jacked", "Jacked up evenly until the halves meet"),
                    tick("match", "Marks of both halves in one line"),
                    tick("level", "Load-side half level with the motor's, shifted where it was not"),
                ),
                ordered=True,
            ),
            _adhesive("gap_spacers", "Put the gap spacers in", "They make the gap: all of one length, all seated."),
            Pull(circle="gap_spacers"),
            Stop(
                key="nothing_left",
                title="Pads and jacking screws out",
                why="What stays between rotor and plate burns, or is thrown.",
                rows=(
                    lambda job: back("pads", "Card pads out", PADS)(job) if on_pads(job) else None,
                    lambda job: back("screws", "Jacking screws out", SCREWS)(job) if on_screws(job) else None,
                    tick("turned", "Looked through from both sides with a torch while it was turned"),
                ),
                on_fail="Not the same number: nothing is turned until it is found.",
            ),
            Stop(
                key="full_on",
                title="Rotor to full on, and locked there",
                why="The smallest gap is the one that rubs: that is where it is made even.",
                caution="By its actuator or its hand lever, slowly. Listen.",
                rows=(tick("on", "Full on, locked"), tick("free", "It did not touch on the way")),
            ),
        ),
        couple_up=(
            Stop(
                key="turned",
                title="Turn it by hand, a whole turn full on and a whole turn full off",
                why="What rubs by hand burns at speed.",
                caution="By hand only; hair and sleeves away.",
                rows=(
                    tick("full_on", "Full on, one whole turn: nothing rubs"),
                    tick("full_off", "Full off, one whole turn: nothing rubs"),
                    tick("centred", "Rotor in the middle of its housing all round"),
                ),
                ordered=True,
                on_fail="Back to full off at once; look for what touches, then both gaps again.",
            ),
            Stop(
                key="actuator",
                title="Mount the actuator, and set its end stops",
                why="Past its stops it drives the rotor into the plate.",
                rows=(
                    tick("mounted", "Actuator and linkage mounted, pins secured", none_of=LATER),
                    tick("stops", "End stops set at full on and at full off", none_of=LATER),
                    tick("free", "Moved from stop to stop: free, nothing binds", none_of=LATER),
                ),
            ),
        ),
        undo=(
            _magnets("magnets", "Read the safety chapter before anything is slackened"),
            Stop(
                key="kept_apart",
                title="Rotor to full off, pads or jacking screws in",
                why="Without them it snaps to a plate as the spacers come out.",
                rows=(
                    tick("off", "Full off: the widest gap, and locked there"),
                    out("pads", "Card pads and jacking screws put in", PADS, least=1),
                    tick("marked", "Both halves marked across"),
                ),
                ordered=True,
            ),
            Stop(
                key="parted",
                title="Take the gap spacers out and jack the motor back",
                why="The magnets hold both machines together: jack screws part them, evenly.",
                caution="No lever between the plates. Nobody's hand between them.",
                no_return=True,
                rows=(
                    expected("bolts", "Bolts of the gap spacers out, into a marked box", "gap_spacers"),
                    tick("back", "Motor jacked back evenly, feet slack"),
                    expected("rotor_bolts", "Bolts of the rotor flange out", "rotor"),
                    tick("lifted", "Rotor lifted off with its half, laid on wood, fenced"),
                    expected("conductor_bolts", "Bolts of the conductor flange out", "conductor"),
                    back("pads", "Card pads and jacking screws left in the rotor, counted", PADS),
                ),
                ordered=True,
            ),
        ),
    ),
)
