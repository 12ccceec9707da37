"""Steel grid couplings with a split cover."""

from ...card.meanings import SEALS_FIRST
from ...line import Side
from ...sketch import common
from ..coupling_benches import fill, judge_product, weighed
from ..fields import Field, condition, marks, number, text, tick
from ..procedure import LightScrew, Procedure, Pull, Stop, expected, in_kit
from ..steps import JobFacts
from .facts import BOLTED_VALUES, GREASE_VALUES, HUBS, LEAKS, Circle, Element, FamilyFacts, Part, bolts


def _seal_on(job: JobFacts, side: Side) -> Field:
    """A hard gate where its paper has it so; else it may be stretched over later, with a reason."""
    by = job.card.get("seals_by")
    later = "" if by is not None and by.means == SEALS_FIRST else "stretched over afterwards, as its manual allows"
    detail = "lip greased, the right way round, pushed well back; clear of a hub that is heated"
    return tick("seal_on", "Cover seal on the shaft", detail, none_of=later)


FACTS = FamilyFacts(
    family="steel grid",
    title="Steel grid coupling with split cover",
    parts=(
        *HUBS,
        Part(
            key="grid",
            title="Segments of the grid",
            look_for="large sizes come in several; cracks, rubbed spots",
            counted=True,
        ),
        Part(key="cover", title="Cover halves", look_for="match marks, both halves of one pair", pieces=2),
        Part(key="seals", title="Seals of the cover", look_for="whole, the size ordered", pieces=2),
        Part(key="gaskets", title="Gaskets of the cover", look_for="whole", may_lack="this cover is sealed without"),
        bolts("flange", title="Cover bolts and nuts", where="often in a bag inside the cover"),
        Part(key="plugs", title="Plugs of the grease holes", look_for="threads clean", where="in the cover", counted=True),
        Part(
            key="fittings",
            title="Grease fittings",
            where="in the bag with the bolts",
            may_lack="filled with the gun's own nozzle",
        ),
        Part(key="grease", title="Coupling grease", look_for="the kind the maker names; not every size comes with it"),
    ),
    before_hub=(_seal_on,),
    gap_taken="between the hub faces, spacer bar or caliper",
    values=BOLTED_VALUES,
    element=Element(
        parts=("grid", "seals", "gaskets", "grease"),
        called="grid",
        counted="Segments of the grid out",
        clean="Old grease out of hubs and cover, washed and dry",
        seats="Teeth of both hubs: no wear steps, cracks or rubbed spots",
    ),
    way_round="teeth toward the other shaft",
    closes_by_hub=True,
    hides_hubs=True,
    opened=("Cover open, the grease in a tray", "Grid lifted out rung by rung"),
    may_also=(*GREASE_VALUES, "seals_by"),
    circles=(Circle(key="flange", title="cover bolts", held="bolt head"),),
    watched=(LEAKS,),
    finished=(
        condition("marks", "Match marks of the cover on one end"),
        condition("lips", "Lips of both seals in their grooves all round"),
        condition("plugs", "Plugs in; the cover turns with the shafts and touches nothing"),
    ),
)
PROCEDURES = (
    Procedure(
        version=2,
        couple_up=(
            LightScrew(),
            Stop(
                key="teeth",
                title="Bring the teeth of both hubs into line and grease them",
                why="Set screws come before the grid: afterwards nobody reaches them.",
                rows=(
                    tick("marks", "Match marks of the hubs noted", none_of="these hubs have none"),
                    tick("line", "Teeth in line"),
                    text("product", "Grease", "the kind the maker names"),
                    text("batch", "Its batch"),
                    tick("flanks", "Thin grease on the flanks of both hubs"),
                    weighed,
                ),
                ordered=True,
                judged_by=("grease_product",),
                judge=judge_product,
                may_authorise=True,
                on_fail="Another grease does not mix with the one that is filled in later.",
            ),
            Stop(
                key="grid",
                shuts=True,
                title="Lay the grid in",
                why="Every rung has to reach the bottom of its slot.",
                tool="flat blade, soft-faced hammer",
                caution="Eyes: it springs. No steel face on the grid: where it is bruised it breaks.",
                rows=(
                    in_kit("segments", "Segments of the grid", "grid"),
                    tick("open_end", "Started at its open end, stretched only as much as needed"),
                    tick("nudged", "Every rung nudged in with a flat blade"),
                    tick("soft", "Finished with a soft face all round"),
                    tick("bottom", "Every rung at the bottom, seen all round"),
                ),
                ordered=True,
                on_fail="A rung that is proud: out with that end, look at tooth and burr.",
            ),
            Stop(
                key="pack",
                shuts=True,
                title="Pack grease between and around the rungs",
                why="A hollow under a rung runs dry.",
                rows=(
                    number("grams", "Amount", "g", required=False),
                    tick("level", "Worked in until level with the rungs"),
                    tick("holes", "No hole of the grid left hollow"),
                ),
            ),
            Stop(
                key="cover",
                shuts=True,
                title="Close the cover",
                why="Seals and gaskets are caught for good once the bolts are pulled.",
                sketch=lambda job: common.marks(("lower half", "upper half")),
                no_return=True,
                rows=(
                    tick("seals", "Seals slid onto the hubs in line with the cover grooves"),
                    tick("lower", "Lower half under"),
                    tick("gaskets", "Gaskets on both faces"),
                    tick("upper", "Upper half on"),
                    marks("match", "Match mark as read", "lower half", "upper half", detail="on the same end"),
                    expected("bolts", "Bolts in by hand", "flange", "nuts in their recesses"),
                ),
                ordered=True,
                on_fail="Lift the upper half and turn it. A gasket out of place: a new one.",
            ),
            Pull(circle="flange", shuts=True),
            fill("grease", "Fill it up and close it", "Air stays in it where it is filled from above.", 90.0, 270.0),
        ),
        undo=(
            Stop(
                key="cover",
                title="Open the cover",
                why="Its halves go back as they were.",
                rows=(
                    tick("marks", "Cover marked on one end"),
                    tick("tray", "Tray under it: grease runs out"),
                    expected("bolts", "Cover bolts out, into a marked box", "flange"),
                ),
                ordered=True,
            ),
            Stop(
                key="grid",
                title="Lift the grid out",
                why="It springs while it comes.",
                caution="Eye protection, hands clear of the loops.",
                no_return=True,
                rows=(
                    tick("eyes", "Eye protection on, everybody near"),
                    tick("rungs", "Lifted rung by rung, evenly from both ends", "a bar through the loops"),
                ),
                ordered=True,
            ),
        ),
    ),
)
