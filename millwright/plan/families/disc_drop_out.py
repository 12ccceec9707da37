"""Disc couplings with a spacer unit assembled at the works: squeezed, lifted in between the pilots, let spring home."""

from dataclasses import replace

from ...say import say
from ...sketch import common, discs
from ...sketch.shapes import Sketch
from ...verdict import Judged, judge, said_by_hand
from ..counts import back
from ..fields import choice, condition, count, length, marks, out, tick
from ..procedure import LightScrew, Procedure, Proof, Pull, Stop, expected, figure
from ..steps import Answers, JobFacts
from .disc_single import look_at_packs
from .facts import (
    BOLTED_ANGLE_VALUES,
    BOTH_ENDS,
    END_VALUES,
    HUBS,
    PACKS_FLAT,
    STROBE,
    ClosedCheck,
    Element,
    FamilyFacts,
    Part,
    at_both_ends,
    bolts,
)

AT_DRIVER, AT_DRIVEN = "squeeze screws, driver end", "squeeze screws, driven end"
SLING = "sling on the unit"
SQUEEZE_MOST = "squeeze_most_mm"
FACTS = FamilyFacts(
    family="disc, drop-out spacer",
    title="Disc coupling, factory-assembled drop-out spacer",
    parts=(
        *HUBS,
        Part(key="spacer", title="Spacer unit with its packs", look_for="factory torqued: it is not opened"),
        Part(key="squeeze", title="Temporary squeeze screws", look_for="threads clean", where="with the unit's documents"),
        bolts(*BOTH_ENDS, title="Hub bolts"),
    ),
    gap_taken="between the flanges of the hubs, before the spacer goes in",
    values=(*BOLTED_ANGLE_VALUES, *END_VALUES),
    closed=ClosedCheck(
        title="Measure adapter to spacer flange on both sides",
        why="Unequal, one pack is pressed and the other stretched from the first turn on.",
        tool="caliper, adapter inside to spacer flange",
        both_ends=True,
        values=END_VALUES,
        look=PACKS_FLAT,
    ),
    element=Element(
        parts=("spacer", "squeeze"),
        called="spacer unit",
        counted="Spacer units out, whole",
        pieces=1,
        clean="Hub faces and pilots clean, no burr",
        seats="Pilots and bolt holes of both hubs: no fretting, none drawn oval",
    ),
    takes="angle at two planes",
    way_round="pilot outward",
    circles=at_both_ends("hub bolts", passes=(0.25, 0.5, 0.75, 1.0)),
    may_also=(SQUEEZE_MOST,),
    watched=(STROBE,),
    finished=(condition("holes", "Every squeeze hole looked into: no screw in any of them"),),
)


SUPPLIED, HUB_BOLTS = "screws that came with it", "half of its hub bolts"
ASK = "Bowed: nothing of the unit is slackened, its joints are its maker's. Stop, and ask."


def _by_hub_bolts(job: JobFacts) -> bool:
    return job.answers.get("receive.unit", {}).get("by") == HUB_BOLTS


def _by_screws(job: JobFacts) -> bool:
    return not _by_hub_bolts(job)


_delivered = replace(count("screws", "Squeeze screws delivered with it, both ends together", "at least 4"), least=4)


def _judge_all_in(job: JobFacts, answers: Answers) -> Judged:
    """As many in both ends as were delivered."""
    supplied = job.answers.get("receive.unit", {}).get("screws")
    driver, driven = answers.get("driver"), answers.get("driven")
    if supplied is None or driver is None or driven is None or driver + driven == supplied:
        return [], []
    name = f"squeeze screws in: {driver} + {driven} of {supplied} delivered"
    return [said_by_hand("all_in", name, "counted when the unit came", in_order=False)], [
        say("not_all_in", "{supplied} came with the unit. Find the others before it is squeezed.", supplied=str(supplied))
    ]


def _judge_squeeze(job: JobFacts, answers: Answers) -> Judged:
    """No further than the maker allows. Source: geometry, the length before less the length now."""
    before, now = answers.get("before_mm"), answers.get("now_mm")
    if not isinstance(before, int | float) or not isinstance(now, int | float):
        return [], []
    shorter = before - now
    if SQUEEZE_MOST not in job.card:
        source = "length before less length now; the card has no figure for it"
        return [judge("squeezed", "squeezed by", shorter, "mm", source=source)], []
    value = job.card[SQUEEZE_MOST]
    check = judge("squeezed", "squeezed by", shorter, "mm", high=value.value, source=value.source.say())
    return [check], (
        [say("squeezed_past", "Squeezed past its figure: the unit is out of service until the maker has been asked.")]
        if check.status == "over"
        else []
    )


def _squeezed(job: JobFacts) -> Sketch:
    came = job.answers.get("receive.unit", {}).get("screws")
    return discs.squeeze_screw(figure(job, SQUEEZE_MOST), came if isinstance(came, int) else None)


PROCEDURES = (
    Procedure(
        receive=(
            Stop(
                key="unit",
                title="Take stock of the unit as it came",
                why="Its own joints were torqued at the works; nobody opens them here.",
                rows=(
                    tick("whole", "Factory joints untouched, their paint marks whole"),
                    choice("by", "It is squeezed with", SUPPLIED, HUB_BOLTS, detail="its manual says which"),
                    lambda job: None if _by_hub_bolts(job) else _delivered,
                ),
            ),
        ),
        couple_up=(
            LightScrew(),
            Stop(
                key="screws_in",
                title="Put the squeeze screws in",
                why="They pull the unit short so that it passes the pilots. None may be in it when it runs: count them.",
                sketch=_squeezed,
                rows=(
                    out("driver", "In at the driver end", AT_DRIVER, least=2),
                    out("driven", "In at the driven end", AT_DRIVEN, least=2),
                    tick("touch", "Through the spacer flange into the adapter, until every head touches"),
                ),
                judge=_judge_all_in,
            ),
            Stop(
                key="squeeze",
                title="Squeeze the unit just enough",
                why="Squeezed further than it needs, the packs are spoiled and nobody sees it.",
                sketch=_squeezed,
                caution="Each screw in turn by the same part of a turn, both ends alike.",
                rows=(
                    length("before_mm", "Length over the flanges before", required=False),
                    tick("evenly", "Screws turned in, one after the other, by the same part of a turn"),
                    length("now_mm", "Length now", required=False),
                    tick("enough", "Just enough to pass the pilots"),
                ),
                judged_by=(SQUEEZE_MOST,),
                judge=_judge_squeeze,
                on_fail="Past its figure: the unit is out of service. Ask the maker.",
            ),
            Stop(
                key="lift_in",
                title="Lift the unit in",
                why="Between the pilots, its marks in line.",
                photograph="the match marks in one line",
                sketch=lambda job: common.marks(("hub", "unit")),
                tool="soft sling where it is heavy",
                caution="Slung until it is bolted.",
                rows=(
                    out("sling", "Slings on it", SLING, detail="0 where it is carried by hand"),
                    marks("match", "Match mark as read", "hub", "unit"),
                    tick("between", "It hangs between the pilots, nobody's hand in between"),
                ),
                on_fail="Turn the unit until its mark meets the hub's.",
            ),
            Stop(
                key="home",
                title="Let it spring into the pilots",
                why="The pilots centre it. Bolts do not.",
                sketch=_squeezed,
                caution="Never pull it in with the hub bolts.",
                rows=(
                    tick("driver", "Driver end: squeeze screws slackened evenly"),
                    tick("driven", "Driven end: squeeze screws slackened evenly"),
                    tick("pilot_driver", "Pilot seated at the driver end: no feeler enters all round"),
                    tick("pilot_driven", "Pilot seated at the driven end: no feeler enters all round"),
                ),
                ordered=True,
                on_fail="Not seated: squeeze again a little, look for burr or tilt.",
            ),
            Stop(
                key="bolts_back",
                title="Take the hub bolts out that squeezed it",
                why="The pilots carry it now. Left in, they hold the packs short, and their own holes stay empty.",
                rows=(
                    tick("some_in", "The other hub bolts in by hand, both ends"),
                    back("driver", "Out of the squeeze holes, driver end", AT_DRIVER),
                    back("driven", "Out of the squeeze holes, driven end", AT_DRIVEN),
                ),
                ordered=True,
                when=_by_hub_bolts,
                on_fail="Not the same number: nothing is closed until it is found.",
            ),
            Stop(
                key="bolts_in",
                title="Put every hub bolt in, light",
                why="All in before one is pulled.",
                rows=(
                    expected("driver", "In at the driver end", "driver_end"),
                    expected("driven", "In at the driven end", "driven_end"),
                ),
            ),
            Pull(circle="driver_end"),
            Pull(circle="driven_end"),
            Stop(
                key="screws_out",
                title="Take the squeeze screws out",
                why="One left in and the coupling is a rigid one: it breaks packs and bearings in the first minutes.",
                rows=(
                    back("driver", "Out at the driver end", AT_DRIVER),
                    back("driven", "Out at the driven end", AT_DRIVEN),
                    back("sling", "Slings off it", SLING),
                    tick("kept", "Screws put away with the unit's documents"),
                ),
                when=_by_screws,
                on_fail="Not the same number: nothing is closed until it is found.",
            ),
            Stop(
                key="holes_empty",
                title="Look into every squeeze hole, and take the sling off",
                why="A bolt left in one makes a rigid coupling of it: it breaks packs and bearings in the first minutes.",
                tool="torch",
                rows=(tick("empty", "Every squeeze hole looked into: empty"), back("sling", "Slings off it", SLING)),
                when=_by_hub_bolts,
                on_fail="Nothing is closed until it is out.",
            ),
            Proof(),
            look_at_packs(ASK, upset=frozenset()),
        ),
        undo=(
            Stop(
                key="screws_in",
                title="Put the squeeze screws in",
                why="The unit has to be short enough to leave the pilots.",
                rows=(
                    out("driver", "In at the driver end", AT_DRIVER),
                    out("driven", "In at the driven end", AT_DRIVEN),
                    tick("evenly", "Squeezed evenly, just enough to leave the pilots"),
                ),
            ),
            Stop(
                key="sling",
                title="Sling the unit",
                why="It drops when the last bolt leaves.",
                rows=(
                    out("sling", "Slings on it", SLING, detail="0 where it is held by hand"),
                    tick("held", "Its weight is held"),
                ),
            ),
            Stop(
                key="bolts",
                title="Take the hub bolts out, and the unit",
                why="Whole, as it was delivered.",
                caution="The unit drops when the last bolt leaves.",
                no_return=True,
                rows=(
                    tick("weight", "The weight is held"),
                    expected("bolts_driver", "Hub bolts out, driver end, into a marked box", "driver_end"),
                    expected("bolts_driven", "Hub bolts out, driven end, into a marked box", "driven_end"),
                    tick("laid", "Unit lifted out and laid down"),
                    back("driver", "Squeeze screws out again, driver end", AT_DRIVER),
                    back("driven", "Squeeze screws out again, driven end", AT_DRIVEN),
                    back("sling", "Slings off it", SLING),
                ),
                ordered=True,
            ),
        ),
    ),
)
