"""Disc couplings in three parts: spacer, two packs, close-fit bolts drawn in and caught by rings."""

from ...sketch import common, discs
from ..counts import back, out_all
from ..coupling_benches import draw_in, tap_out
from ..fields import REMOVED, condition, marks, out, tick
from ..procedure import Bench, LightScrew, Procedure, Proof, Pull, Stop, expected
from .disc_single import BOWED_PACK, look_at_packs
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

FACTS = FamilyFacts(
    family="disc, three-part",
    title="Disc coupling, three-part with spacer",
    parts=(
        *HUBS,
        Part(key="spacer", title="Spacer", look_for="flange faces, balance marks"),
        Part(key="packs", title="Disc packs", look_for="flat, no cracked leaf", pieces=2),
        bolts(*BOTH_ENDS, title="Close-fit bolts and nuts, numbered as delivered"),
        Part(key="rings", title="Catch rings", where="threaded on the bolts, or in their bag", screws=BOTH_ENDS),
    ),
    gap_taken="between the flanges of the hubs, before the spacer goes in",
    values=(*BOLTED_ANGLE_VALUES, *END_VALUES),
    closed=ClosedCheck(
        title="Measure the width of both packs between the bolts",
        why="Largest and smallest tell of length and angle at once: the pack is strained where it is off.",
        tool="caliper or feelers, at the rim, between the bolts",
        both_ends=True,
        values=END_VALUES,
        look=PACKS_FLAT,
    ),
    element=Element(
        parts=("packs", "bolts"),
        called="pair of packs",
        counted="Packs out, whole",
        pieces=2,
        clean="Flange faces wiped, no paint or rust at the bolt seats",
        seats="Flanges and bolt holes of hubs and spacer: no fretting, none drawn oval",
    ),
    takes="angle at two planes",
    way_round="flange toward the shaft end",
    circles=at_both_ends("close-fit bolts", order="circle", passes=(0.5, 1.0, 1.0), held="bolt head"),
    watched=(STROBE,),
    finished=(
        condition("numbers", "Balance numbers in one line"),
        condition("rings", "Every catch ring on"),
    ),
)


EASED = "Bowed: the two bolts beside it slackened, threads as the card says, both circles pulled again. Then look again."
NUMBERED = ("driver hub", "driver pack", "spacer", "driven pack", "driven hub")


def _draw_in(end: str, key: str) -> tuple[Stop | Bench, ...]:
    rings = f"catch rings, {end}"
    return (
        Stop(
            key=f"lay_{key}",
            title=f"Lay out the close-fit bolts, {end}",
            why="Each goes back to its own hole, with its own ring.",
            sketch=lambda job: discs.fitted_bolt(),
            rows=(
                expected("bolts", "Bolts laid out, numbered as delivered", key),
                tick("heads", "Seen in the drawing on which flange each head goes"),
                out_all("rings", "Catch rings laid out, not on yet", rings, REMOVED, key),
            ),
        ),
        draw_in(f"draw_{key}", f"Draw the close-fit bolts in, {end}", key),
        Stop(
            key=f"rings_{key}",
            title=f"Count the catch rings that are on, {end}",
            why="A ring that is forgotten lets the joint settle.",
            photograph="every catch ring in its seat",
            rows=(back("rings", "Catch rings on", rings),),
        ),
    )


PROCEDURES = (
    Procedure(
        version=2,
        couple_up=(
            LightScrew(),
            Stop(
                key="spacer",
                title="Sling the spacer and bring it between",
                why="It is heavy and hangs between half-made joints.",
                tool="hoist, soft sling",
                caution="Nobody's hand between flange and spacer.",
                rows=(
                    tick("carries", "The sling carries it"),
                    out("sling", "Slings on it", "sling on the spacer"),
                    tick("packs", "Packs laid in, their faces wiped"),
                ),
                ordered=True,
            ),
            Stop(
                key="numbers",
                title="Turn the balance numbers into one line",
                why="It was balanced as it lay there.",
                photograph="the numbers in one line",
                sketch=lambda job: common.marks(NUMBERED),
                rows=(marks("numbers", "Number as read from one place", *NUMBERED),),
                may_authorise=True,
                on_fail="Turn the part that is off. A part without a number: stop and ask.",
            ),
            *_draw_in("driver end", "driver_end"),
            *_draw_in("driven end", "driven_end"),
            Pull(circle="driver_end", relies=frozenset({BOWED_PACK})),
            Pull(circle="driven_end", relies=frozenset({BOWED_PACK})),
            Stop(
                key="unsling",
                title="Take the sling off",
                why="Not before both ends are tight.",
                rows=(back("sling", "Slings off", "sling on the spacer"),),
            ),
            Proof(),
            look_at_packs(EASED, upset=frozenset({BOWED_PACK})),
        ),
        undo=(
            Stop(
                key="sling",
                title="Sling the spacer",
                why="It drops when the last bolt leaves.",
                rows=(tick("slung", "Slung, the sling just taut"), out("sling", "Slings on it", "sling on the spacer")),
                ordered=True,
            ),
            Stop(
                key="weight",
                title="Let the sling take the weight",
                why="The last bolt that leaves lets the spacer go.",
                caution="The spacer drops when the last bolt leaves. Nobody's hand or foot under it.",
                no_return=True,
                rows=(
                    tick("weight", "The weight hangs on the sling"),
                    tick("clear", "Nobody under it or between the flanges"),
                ),
                ordered=True,
            ),
            tap_out("out_driver", "Take the close-fit bolts out, driver end", "driver_end"),
            tap_out("out_driven", "Take the close-fit bolts out, driven end", "driven_end"),
            Stop(
                key="packs",
                title="Take the packs out whole, and the spacer",
                why="Keep each pack with its side.",
                rows=(
                    expected("rings_driver", "Catch rings in the box, driver end", "driver_end"),
                    expected("rings_driven", "Catch rings in the box, driven end", "driven_end"),
                    tick("packs", "Packs taken out whole", "cracked or bowed leaves"),
                    tick("spacer", "Spacer lifted out and laid down"),
                    back("sling", "Slings off it", "sling on the spacer"),
                ),
                ordered=True,
            ),
        ),
    ),
)
