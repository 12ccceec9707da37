"""Rigid couplings, flanged or sleeve: nothing gives way in them."""

from ..fields import condition, tick
from ..procedure import LightScrew, Procedure, Pull, Stop, expected
from .facts import BOLTED_VALUES, BOLTS, HUBS, Circle, FamilyFacts

FACTS = FamilyFacts(
    family="rigid",
    title="Rigid flanged or sleeve coupling",
    parts=(*HUBS, BOLTS),
    gap_taken="none: the faces touch",
    values=tuple(key for key in BOLTED_VALUES if not key.startswith("gap")),
    way_round="flange toward the other shaft",
    circles=(Circle(key="flange", title="flange bolts", held="bolt head"),),
    finished=(condition("shut", "Faces shut all round"),),
)
PROCEDURES = (
    Procedure(
        couple_up=(
            LightScrew(),
            Stop(
                key="clean",
                title="Clean faces and spigot",
                why="Nothing gives way in it: no lubricant, no burr, no paint.",
                rows=(
                    tick("clean", "Faces and spigot clean and dry"),
                    tick("light", "Straightedge on each face: no light"),
                ),
                ordered=True,
            ),
            Stop(
                key="touch",
                title="Bring the faces together",
                why="Bolts pulled on faces that do not touch bend the shafts.",
                tool="thinnest feeler, at 12, 3, 6 and 9",
                rows=(
                    tick("spigot", "Spigot home"),
                    tick("touch", "No feeler enters anywhere, with no bolt pulled"),
                ),
                ordered=True,
                on_fail="Back to aligning; never with the bolts.",
            ),
            Stop(
                key="bolts",
                title="Put the bolts in by hand",
                why="All in before one is pulled, as they were found.",
                rows=(expected("bolts", "Bolts in by hand", "flange"),),
            ),
            Pull(circle="flange"),
        ),
        undo=(
            Stop(
                key="bolts",
                title="Take the bolts out and part the flanges",
                why="With their jacking screws, not with a lever.",
                no_return=True,
                rows=(
                    tick("marks", "Match marks made or found"),
                    tick("out", "Bolts out, counted into a marked box"),
                    tick("parted", "Flanges parted with their jacking screws"),
                ),
                ordered=True,
            ),
        ),
    ),
)
