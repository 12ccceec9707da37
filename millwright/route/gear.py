"""What a gear coupling with flanged sleeves brings to the route: sleeves closed, bolted, greased, and proved closed."""

from typing import Any

from ..values import source_of
from . import bolts, setting
from .steps import BenchForm, Fact, Field, JobFacts, SheetForm, Stage, Step

TORQUE = "flange_bolt_torque_nm"


def nothing(job: JobFacts) -> list[Step]:
    """No step of its own at this place."""
    return []


def couple_up(job: JobFacts) -> list[Step]:
    """Feet and reading, sleeves, flange bolts, grease, and the check on the closed coupling."""
    return [
        *setting.bolted_down(job),
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
        Step(
            key="couple.flange",
            stage=Stage.COUPLE,
            title="Torque the flange bolts",
            why="Crosswise in rising passes, so that the flanges close evenly on the gasket.",
            tool="torque wrench in calibration, second spanner on the head",
            caution=f"{bolts.thread_words(job, TORQUE)} All bolts in and hand tight first.".strip(),
            after=("couple.close",),
            needs=("flange_bolts", TORQUE),
            may_authorise=True,
            form=BenchForm(bench="tighten", preset=_flange_preset(job)),
            on_fail="Slacken the bolt that is off and pull it again in its turn.",
        ),
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
        Step(
            key="couple.sleeve",
            stage=Stage.COUPLE,
            title="Measure hub to sleeve all round",
            why="Proves the alignment on the closed coupling; the same reading later tells whether it has moved.",
            tool="depth micrometer, or feelers",
            after=("couple.grease",),
            needs=("sleeve_spread_mm",),
            relies=frozenset({Fact.MACHINES, Fact.FEET}),
            may_authorise=True,
            form=BenchForm(bench="gap", preset=_sleeve_preset(job), suggest=_sleeve_suggest(job)),
            on_fail="The angle is out: slacken the feet, back to aligning.",
        ),
    ]


def recheck(job: JobFacts) -> tuple[Field, ...]:
    """The flange bolts once more before release."""
    return (Field(key="flange", kind="condition", label="Flange bolts", detail=bolts.torque_words(job, TORQUE)),)


def _flange_preset(job: JobFacts) -> dict[str, Any]:
    if "flange_bolts" not in job.card:
        return {}
    return bolts.bolts_preset(job, TORQUE, round(job.card["flange_bolts"].value))


def _sleeve_preset(job: JobFacts) -> dict[str, Any]:
    if "sleeve_spread_mm" not in job.card:
        return {"accept": {}}
    limit = {"max_mm": job.card["sleeve_spread_mm"].value, "source": source_of(job.card, "sleeve_spread_mm")}
    return {"accept": {"spread": limit}}


def _sleeve_suggest(job: JobFacts) -> dict[str, Any]:
    return {"diameter_mm": job.line.hub(job.line.movable).diameter_mm}
