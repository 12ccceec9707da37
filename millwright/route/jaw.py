"""What the jaw families, straight and curved, bring to the route: the shaft distance, the element, the closing gap."""

from ..card.values import source_of
from ..coupling.jaw_element import opening_clearance_mm, shaft_distance_checks
from ..verdict import Check, judge
from .stages import set_and_align
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
            judged_by=("open_centre_rpm",),
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


def before_setting(job: JobFacts, mounted: tuple[str, ...]) -> list[Step]:
    """The element, where no hub slides: it cannot go in sideways once the machines stand close."""
    return [] if job.closes_by_hub else [_element(job, Stage.MOUNT, mounted)]


def couple_up(job: JobFacts) -> list[Step]:
    """Feet, reading, element where the second hub slides, closing gap."""
    element = [_element(job, Stage.COUPLE, ("couple.align",))] if job.closes_by_hub else []
    last = element[-1].key if element else "couple.align"
    slide = (
        f"Slide the loose hub on the {job.line.machine(job.second()).called} shaft"
        if job.closes_by_hub
        else "Move the machine"
    )
    return [
        *set_and_align.bolted_down(job),
        *element,
        Step(
            key="couple.gap",
            stage=Stage.COUPLE,
            title="Measure the gap, element in",
            why=f"The gap that is left behind: {set_and_align.gap_taken(job)}.",
            tool="caliper or feelers",
            after=(last,),
            needs=(set_and_align.nominal_key(job), "gap_plus_minus_mm"),
            judged_by=set_and_align.GAP_JUDGED_BY,
            relies=frozenset({Fact.MACHINES, Fact.FEET, Fact.FIRST_HUB, Fact.SECOND_HUB}),
            may_authorise=True,
            form=set_and_align.gap_form(job),
            on_fail=f"{slide}, then measure again.",
        ),
    ]


def _element(job: JobFacts, stage: Stage, after: tuple[str, ...]) -> Step:
    """The element in; the second hub slides up to it, or the machine will be moved up to it."""
    materials = job.family.element_materials
    slides = job.closes_by_hub
    fields = [
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
    ]
    if slides:
        fields.append(Field(key="dots", kind="tick", label="Hub slid up until the raised dots are just touched"))
    return Step(
        key="couple.element" if slides else "mount.element",
        stage=stage,
        title="Put the element in and close the hubs up" if slides else "Put the element into one hub",
        why="The element cannot go in sideways later. "
        + ("Slide the loose hub up until the dots are just touched." if slides else "Then the machine is brought up to it."),
        caution="Fingers out of the jaws while the hub slides up." if slides else "Only into a hub that is cold.",
        after=after,
        changes=frozenset({Fact.SECOND_HUB}) if slides else frozenset(),
        may_authorise=True,
        form=SheetForm(fields=tuple(fields)),
        judged_by=("open_centre_rpm", "element_opening_mm"),
        judge=lambda answers: _judge_element(job, answers),
        on_fail="Draw the loose hub back, take the element out and put the right one in."
        if slides
        else "Take the element out and put the right one in.",
    )


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
