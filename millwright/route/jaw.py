"""What the jaw families, straight and curved, bring to the route: the shaft distance, the element, the closing gap."""

from ..coupling.element import opening_clearance_mm, shaft_distance_checks
from ..coupling.families import FAMILIES
from ..values import source_of
from ..verdict import Check, judge
from . import keyed_slip, setting
from .steps import Answers, Fact, Field, JobFacts, SheetForm, Stage, Step

CENTRES = ("solid centre", "open centre")


def prepare(job: JobFacts) -> list[Step]:
    """Distance between the shaft ends against the element."""
    return [
        Step(
            key="prepare.distance",
            stage=Stage.PREPARE,
            title="Measure the distance between the shaft ends",
            why="Shafts closer together than the element is wide need an open centre, and that has a speed limit.",
            tool="caliper or inside rule",
            after=("prepare.dead",),
            needs=("element_width_mm",),
            may_authorise=True,
            form=SheetForm(
                fields=(
                    Field(key="distance_mm", kind="length", label="Distance between the shaft ends", unit="mm"),
                    Field(key="centre", kind="choice", label="Element in the kit", options=CENTRES),
                )
            ),
            judge=lambda answers: _judge_distance(job, answers),
            on_fail="Change the element, or set the hubs so that the shafts keep clear of it.",
        )
    ]


def couple_up(job: JobFacts) -> list[Step]:
    """Feet, reading, element, closing gap, last set screw."""
    movable = job.line.machine(job.line.movable).called
    materials = FAMILIES[job.line.coupling.family].element_materials
    return [
        *setting.bolted_down(job),
        Step(
            key="couple.element",
            stage=Stage.COUPLE,
            title="Put the element in and close the hubs up",
            why="The element cannot go in sideways later. Slide the loose hub up until the dots are just touched.",
            caution="Fingers out of the jaws while the hub slides up.",
            after=("couple.align",),
            changes=frozenset({Fact.SECOND_HUB}),
            may_authorise=True,
            form=SheetForm(
                fields=(
                    Field(key="material", kind="choice", label="Hardness or material marked on it", options=materials),
                    Field(key="colour", kind="text", label="Colour as seen"),
                    Field(key="centre", kind="choice", label="Centre", options=CENTRES),
                    Field(
                        key="key_out_mm",
                        kind="length",
                        label="Key stands out of the shaft by",
                        detail="only for an open centre with shafts reaching in",
                        unit="mm",
                        required=False,
                    ),
                    Field(key="seated", kind="tick", label="Element seated all round, not squeezed"),
                    Field(key="dots", kind="tick", label="Hub slid up until the raised dots are just touched"),
                )
            ),
            judge=lambda answers: _judge_element(job, answers),
            on_fail="Draw the loose hub back, take the element out and put the right one in.",
        ),
        Step(
            key="couple.gap",
            stage=Stage.COUPLE,
            title="Measure the gap, element in",
            why=f"The gap that is left behind: {setting.gap_taken(job)}.",
            tool="caliper or feelers",
            after=("couple.element",),
            needs=("gap_nominal_mm", "gap_plus_minus_mm"),
            relies=frozenset({Fact.MACHINES, Fact.FEET, Fact.FIRST_HUB, Fact.SECOND_HUB}),
            may_authorise=True,
            form=setting.gap_form(job),
            on_fail=f"Slide the loose hub on the {movable} shaft, then measure again.",
        ),
        keyed_slip.set_screw(job, job.line.movable, Stage.COUPLE, ("couple.gap",)),
    ]


def _judge_distance(job: JobFacts, answers: Answers) -> tuple[list[Check], list[str]]:
    distance, centre = answers.get("distance_mm"), answers.get("centre")
    if distance is None or not centre or "element_width_mm" not in job.card:
        return [], []
    open_rpm = job.card["open_centre_rpm"].value if "open_centre_rpm" in job.card else None
    width = job.card["element_width_mm"]
    return shaft_distance_checks(distance, width.value, centre, job.line.speed_rpm, open_rpm, width.source.say())


def _judge_element(job: JobFacts, answers: Answers) -> tuple[list[Check], list[str]]:
    if answers.get("centre") != "open centre":
        return [], []
    checks, advice = [], []
    if "open_centre_rpm" in job.card:
        source = source_of(job.card, "open_centre_rpm")
        high = job.card["open_centre_rpm"].value
        checks.append(judge("speed, open centre", job.line.speed_rpm, "rpm", high=high, source=source))
    else:
        advice.append("Put the open-centre speed limit on the value card.")
    key_out = answers.get("key_out_mm")
    if key_out is not None and "element_opening_mm" in job.card:
        shaft = max(job.line.driver.shaft_diameter_mm, job.line.driven.shaft_diameter_mm)
        room = opening_clearance_mm(job.card["element_opening_mm"].value, shaft, key_out)
        least = "rule of thumb: 1 mm all round, so that nothing rubs"
        checks.append(judge("room round shaft and key in the opening", room, "mm", low=1.0, source=least))
    return checks, advice
