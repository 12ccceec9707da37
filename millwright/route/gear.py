"""What a gear coupling with flanged sleeves brings to the route: sleeves closed, bolted, greased, and proved closed."""

from . import assemble
from .stages import closed_coupling, set_and_align
from .steps import Field, JobFacts, SheetForm, Stage, Step


def couple_up(job: JobFacts) -> list[Step]:
    """Feet and reading, sleeves, flange bolts, grease, and the check on the closed coupling."""
    return [
        *set_and_align.bolted_down(job),
        Step(
            key="couple.close",
            stage=Stage.COUPLE,
            title="Close the sleeves over the hubs",
            why="Grease creeps out along an open keyway; a pinched ring or gasket leaks.",
            caution="Fingers out from between the flanges.",
            after=("couple.align",),
            form=SheetForm(
                fields=(
                    Field(key="keyways", kind="tick", label="Keyways sealed"),
                    Field(key="rings", kind="tick", label="Seal rings greased and seated in their grooves"),
                    Field(key="teeth", kind="tick", label="Teeth of hubs and sleeves packed with grease"),
                    Field(key="gasket", kind="tick", label="Gasket in, flange faces clean, match marks in line"),
                    Field(key="bolts", kind="tick", label="Only the bolts supplied with it, all in by hand"),
                )
            ),
            on_fail="Draw the sleeves back and put it right before a bolt is tightened.",
        ),
        *assemble.flange_bolts(job, "couple.close"),
        Step(
            key="couple.grease",
            stage=Stage.COUPLE,
            title="Fill it with grease",
            why="Filled from above it looks full and is not: air stays trapped.",
            tool="grease gun, the grease the maker names",
            after=("couple.flange",),
            form=SheetForm(
                fields=(
                    Field(key="grease", kind="text", label="Grease, and its batch"),
                    Field(key="grams", kind="number", label="Amount", unit="g", required=False),
                    Field(key="plugs_out", kind="tick", label="Every plug out, filled at the lowest"),
                    Field(key="shows", kind="tick", label="It showed at each open hole before that was closed"),
                    Field(key="plugs_in", kind="tick", label="Every plug back in"),
                )
            ),
        ),
        *closed_coupling.steps(job, "couple.grease"),
    ]
