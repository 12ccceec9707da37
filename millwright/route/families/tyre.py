"""Tyre couplings: a split rubber tyre whose beads are clamped by two rings."""

from ..fields import condition, length, tick
from ..procedure import LightScrew, Procedure, Pull, Stop, expected
from .facts import BOLTED_VALUES, BOLTS, HUBS, Circle, FamilyFacts, Part

NO_METAL = Stop(
    key="metal",
    title="Look that nothing metal touches",
    why="Tightened down to metal, the ring no longer holds the tyre.",
    tool="feelers, at four places of both ends",
    rows=(tick("feeler", "A feeler goes in between ring and flange everywhere"),),
    on_fail="Metal to metal: rings slack, tyre off. Worn or wrong tyre, or paint under the bead.",
)
FACTS = FamilyFacts(
    family="tyre",
    title="Tyre coupling",
    parts=(
        *HUBS,
        Part(key="tyre", title="Tyre", look_for="cuts, cracks at the beads"),
        Part(key="rings", title="Clamp rings", look_for="whole; loose or screwed on, by size"),
        BOLTS,
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
    way_round="flange toward the other shaft, at the place that gives the wanted distance",
    circles=(
        Circle(key="ring_driver", title="ring screws, driver end", at="driver end", order="alternate"),
        Circle(key="ring_driven", title="ring screws, driven end", at="driven end", order="alternate"),
    ),
    finished=(condition("rings", "Rings level, tyre seated all round, nothing metal touches"),),
)
PROCEDURES = (
    Procedure(
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
                    length("split_mm", "Gap at the split", "as the manual says"),
                ),
                ordered=True,
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
            NO_METAL,
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
