"""Jaw couplings, straight and curved: an elastomer element between the jaws of two hubs."""

from collections.abc import Callable
from dataclasses import replace

from ...card.kinds import VALUE_KINDS
from ...card.values import source_of
from ...line import SIDES, Side
from ...meaning import Meaning, Of
from ...say import say
from ...scope import Scope
from ...sketch import jaws
from ...sketch.shapes import Sketch
from ...verdict import Check, Judged, judge, said_by_hand
from ..fields import Field, choice, condition, length, number, text, tick
from ..procedure import Bench, LightScrew, Procedure, Stop, figure
from ..stages import gap
from ..stages.receive import KEYED
from ..stages.suits import judge_material
from ..steps import Answers, Fact, Happened, JobFacts
from .facts import HUBS, SETTING_VALUES, Element, FamilyFacts, Part
from .jaw_element import opening_clearance_mm, shaft_distance_checks

OPEN = "open centre"
CENTRES = ("solid centre", OPEN)
HARDNESSES = ("80 shore A", "92 shore A", "98 shore A", "64 shore D")
UNMARKED = "none marked"
SCALES = ("shore A", "shore D", UNMARKED)
ANOTHER_ELEMENT = Happened("another element", "the element was looked at again")
ASKED_ONCE = "receive.element"  # where the element is looked at, before anything is fitted to it
OPEN_SPEED, OPENING = "open_centre_rpm", "element_opening_mm"
_VALUES = (*SETTING_VALUES, "element_width_mm", OPENING, OPEN_SPEED)

STRAIGHT = FamilyFacts(
    family="jaw, straight",
    title="Straight jaw coupling",
    parts=(
        *HUBS,
        Part(key="element", title="Elastomer element", look_for="cuts, swelling, the material ordered, spacing dots whole"),
    ),
    gap_taken="between the hub faces, with the element's raised dots just touched",
    element_materials=("nitrile", "polyurethane", "polyester", "bronze"),
    values=_VALUES,
    may_also=("element_material",),
    element=Element(
        parts=("element",),
        called="element",
        counted="Elements out, with every piece of them",
        pieces=1,
        clean="Jaws of both hubs clean of rubber",
        seats="Jaws of both hubs: no cracks, dents or worn flanks",
    ),
    way_round="jaws toward the other shaft",
    closes_by_hub=True,
    finished=(
        condition("dots", "Raised dots just touched, all round"),
        condition("clear", "Element whole and clear of both shafts"),
    ),
)
CURVED = replace(
    STRAIGHT,
    family="jaw, curved",
    title="Curved jaw coupling",
    parts=(
        *HUBS,
        Part(
            key="element",
            title="Elastomer element",
            look_for="cuts, swelling, hardness marking and colour as ordered, spacing dots whole",
        ),
    ),
    gap_taken="between the hub faces, or from jaw tip to the opposite face: as the manual says",
    measured_at_jaws=True,
    element_materials=HARDNESSES,
)


def _closes_by_hub(job: JobFacts) -> bool:
    return job.closes_by_hub


def _closes_by_machine(job: JobFacts) -> bool:
    return not job.closes_by_hub


CLEAR_ALL_ROUND_MM = 1.0  # rule of thumb


def _centre(job: JobFacts, answers: Answers) -> str:
    """Of the element in the kit: asked as it is received, or, in the first edition, at every step that goes by it."""
    return str(answers.get("centre") or job.answers.get(ASKED_ONCE, {}).get("centre") or "")


def _judge_distance(job: JobFacts, answers: Answers) -> Judged:
    distance, centre = answers.get("distance_mm"), _centre(job, answers)
    if distance is None or not centre or "element_width_mm" not in job.card:
        return [], []
    open_rpm = job.card[OPEN_SPEED].value if OPEN_SPEED in job.card else None
    width = job.card["element_width_mm"]
    return shaft_distance_checks(distance, width.value, centre, job.line.speed_rpm, open_rpm, width.source.say())


def _judge_element(job: JobFacts, answers: Answers) -> Judged:
    checks, advice = judge_material(job, answers.get("material"))
    before = job.answers.get("prepare.distance", {}).get("centre")
    if before and answers.get("centre") not in (None, "", before):
        checks.append(
            said_by_hand("centre", f"centre; the kit has a {before}", "the kit as it was measured for", in_order=False)
        )
        text = "Between shafts measured for a {before} another one goes in. Look which it is, and enter the distance anew."
        advice.append(say("another_centre", text, before=before))
    if answers.get("centre") != OPEN:
        return checks, advice
    checks += _speed(job, answers)
    key_out = answers.get("key_out_mm")
    if key_out is not None and OPENING in job.card:
        shaft = max(job.line.driver.shaft_diameter_mm, job.line.driven.shaft_diameter_mm)
        room = opening_clearance_mm(job.card[OPENING].value, shaft, key_out)
        name, least = "room round shaft and key in the opening", "rule of thumb: nothing rubs"
        checks.append(judge("opening", name, room, "mm", low=CLEAR_ALL_ROUND_MM, source=least))
    return checks, advice


def _judge_received(job: JobFacts, answers: Answers) -> Judged:
    """Its material against the one ordered, its speed where the centre is open."""
    hardness, scale = answers.get("hardness"), answers.get("scale")
    read = f"{hardness:g} {scale}" if isinstance(hardness, int | float) else None
    marked = "an element without a mark" if scale == UNMARKED else read or answers.get("material")
    checks, advice = judge_material(job, marked)
    return [*checks, *_speed(job, answers)], advice


def _speed(job: JobFacts, answers: Answers) -> list[Check]:
    if answers.get("centre") != OPEN or OPEN_SPEED not in job.card:
        return []
    high, source = job.card[OPEN_SPEED].value, source_of(job.card, OPEN_SPEED)
    return [judge("open_centre_speed", "speed, open centre", job.line.speed_rpm, "rpm", high=high, source=source)]


def _lacks_hardness(job: JobFacts, answers: Answers) -> list[str]:
    marked = answers.get("scale") not in (None, "", UNMARKED) and answers.get("hardness") is None
    return [*_lacks_speed(job, answers), *(["The hardness marked on it"] if marked else [])]


def _reaches_in(job: JobFacts) -> bool:
    """The shafts stand closer than the element is wide: they and their keys reach into its opening."""
    apart, width = job.answers.get("prepare.distance", {}).get("distance_mm"), job.card.get("element_width_mm")
    return apart is not None and width is not None and apart < width.value and _centre(job, {}) == OPEN


def _keyed(job: JobFacts) -> list[Side]:
    return [side for side in SIDES if job.line.hub(side).connection in KEYED]


def _opening_row(job: JobFacts) -> Field | None:
    return None if OPENING in job.card else length("opening_mm", "Opening of the element, its smallest width")


def _key_row(side: Side) -> Callable[[JobFacts], Field | None]:
    def row(job: JobFacts) -> Field | None:
        label = f"Key stands out of the {job.line.machine(side).called} shaft by"
        return length(f"key_{side}_mm", label) if side in _keyed(job) else None

    return row


def _judge_opening(job: JobFacts, answers: Answers) -> Judged:
    """Each shaft with its key for itself. Source: geometry."""
    opening = job.card[OPENING].value if OPENING in job.card else answers.get("opening_mm")
    if not isinstance(opening, int | float):
        return [], []
    checks = []
    for side in SIDES:
        machine, key_out = job.line.machine(side), answers.get(f"key_{side}_mm", 0.0 if side not in _keyed(job) else None)
        if isinstance(key_out, int | float):
            room = opening_clearance_mm(opening, machine.shaft_diameter_mm, key_out)
            name, least = f"room round the {machine.called} shaft and its key", "rule of thumb: nothing rubs"
            checks.append(judge(f"opening_{side}", name, room, "mm", low=CLEAR_ALL_ROUND_MM, source=least))
    return checks, []


def _lacks_speed(job: JobFacts, answers: Answers) -> list[str]:
    """An open centre runs up to a speed of its own: without it nobody can say that it may run here."""
    if answers.get("centre") != OPEN or OPEN_SPEED in job.card:
        return []
    kind = VALUE_KINDS[OPEN_SPEED]
    return [f"“{kind.title}” on the value card, see {kind.look_in}"]


def _between_the_jaws(job: JobFacts) -> Sketch:
    tip = figure(job, "jaw_tip_mm") if job.family.measured_at_jaws else None
    return jaws.element(figure(job, "gap_nominal_mm"), tip)


_ASKED_THERE = (
    lambda job: choice("material", "Hardness or material marked on it", *job.family.element_materials),
    text("colour", "Colour as seen"),
    choice("centre", "Centre", *CENTRES),
    length("key_out_mm", "Key stand-out from the shaft", "only for an open centre with shafts reaching in", required=False),
)
_ELEMENT = Stop(
    key="element",
    title="Put the element into one hub",
    why="The element cannot go in sideways later. Then the machine is brought up to it.",
    caution="Only into a hub that is cold.",
    rows=(tick("seated", "Legs seated to the bottom of the jaws all round, not squeezed"),),
    sketch=_between_the_jaws,
    on_fail="Take the element out and put the right one in.",
    when=_closes_by_machine,
)
_CLOSED_UP = replace(
    _ELEMENT,
    title="Put the element in and close the hubs up",
    why="The element cannot go in sideways later. Slide the loose hub up until the dots are just touched.",
    caution="Fingers out of the jaws while the hub slides up.",
    rows=(*_ELEMENT.rows, tick("dots", "Hub slid up until the raised dots are just touched")),
    changes=frozenset({Fact.SECOND_HUB}),
    on_fail="Draw the loose hub back, take the element out and put the right one in.",
    when=_closes_by_hub,
)


def _how_to_close(job: JobFacts) -> str:
    slide = "Move the machine"
    if job.closes_by_hub:
        slide = f"Slide the loose hub on the {job.line.machine(job.second()).called} shaft"
    return f"{slide}, then measure again."


def _by_hardness(job: JobFacts) -> bool:
    return job.family.element_materials == HARDNESSES


_RECEIVED = Stop(
    key="element",
    title="Look at the element before anything is fitted to it",
    why="Its centre says how near the shafts may come, its material what it takes. The gap is set for this one.",
    rows=(
        lambda job: number("hardness", "Hardness marked on it", "", required=False) if _by_hardness(job) else None,
        lambda job: choice("scale", "Scale of the hardness", *SCALES) if _by_hardness(job) else None,
        lambda job: None if _by_hardness(job) else choice("material", "Material marked on it", *job.family.element_materials),
        text("colour", "Colour as seen"),
        choice("centre", "Centre", *CENTRES),
    ),
    changes=frozenset({ANOTHER_ELEMENT}),
    judged_by=(OPEN_SPEED, "element_material"),
    judge=_judge_received,
    lacks=_lacks_hardness,
    may_authorise=True,
    on_fail="Get the element this line is specified with.",
    when=lambda job: job.scope in (Scope.FIT, Scope.REFIT, Scope.ELEMENT),
)
_DISTANCE = Stop(
    key="distance",
    title="Measure the distance between the shaft ends",
    why="Shafts closer together than the element is wide need an open centre, and that has a speed limit.",
    tool="caliper or inside rule",
    rows=(length("distance_mm", "Distance between the shaft ends"),),
    needs=("element_width_mm",),
    relies=frozenset({ANOTHER_ELEMENT}),
    judged_by=(OPEN_SPEED,),
    judge=_judge_distance,
    may_authorise=True,
    on_fail="Change the element, or set the hubs so that the shafts keep clear of it.",
)
_REACHES_IN = Stop(
    key="opening",
    title="Measure what reaches into the element's opening",
    why="Shafts this close reach into it, and a key that stands out rubs it through.",
    tool="caliper",
    rows=(_opening_row, *map(_key_row, SIDES)),
    relies=frozenset({ANOTHER_ELEMENT}),
    judged_by=(OPENING,),
    judge=_judge_opening,
    may_authorise=True,
    on_fail="Shorten the key to the shaft's end, or set the hubs so that the shafts keep clear of the element.",
    when=_reaches_in,
)
_NOW = Procedure(
    version=2,
    receive=(_RECEIVED,),
    prepare=(_DISTANCE, _REACHES_IN),
    before_setting=(_ELEMENT,),
    couple_up=(
        _CLOSED_UP,
        Bench(
            key="gap",
            title="Measure the gap, element in",
            why="The gap that is left behind.",
            means=(Meaning(of=Of.GAP),),
            tool="caliper or feelers",
            form=gap.gap_form,
            sketch=_between_the_jaws,
            needs=lambda job: (gap.nominal_key(job), "gap_plus_minus_mm"),
            judged_by=gap.GAP_JUDGED_BY,
            relies=frozenset({Fact.MACHINES, Fact.FEET, Fact.FIRST_HUB, Fact.SECOND_HUB}),
            on_fail=_how_to_close,
        ),
        LightScrew(),
    ),
    undo=(
        Stop(
            key="apart",
            title="Draw the hubs apart",
            why="The element comes out between them.",
            caution="No lever between the jaws.",
            rows=(
                tick(
                    "screw",
                    "Set screw of the hub that gives way slackened, or the machine drawn back",
                    none_of="the hubs are far enough apart",
                ),
                tick("apart", "Hubs drawn apart by hand"),
            ),
            ordered=True,
            no_return=True,
        ),
        Stop(
            key="element",
            title="Take the element out",
            why="What it looks like tells what it ran with.",
            rows=(tick("out", "Element taken out"), text("seen", "Cuts, swelling, wear of its legs", required=False)),
        ),
    ),
)


def _asked_there(stop: Stop) -> Stop:
    """In the first edition what the element is was asked as it went in."""
    return replace(
        stop,
        rows=(*_ASKED_THERE, *stop.rows),
        judged_by=(OPEN_SPEED, OPENING, "element_material"),
        judge=_judge_element,
        lacks=_lacks_speed,
        may_authorise=True,
    )


_ONCE = replace(
    _NOW,
    version=1,
    receive=(),
    prepare=(
        replace(
            _DISTANCE,
            rows=(*_DISTANCE.rows, choice("centre", "Element in the kit", *CENTRES)),
            relies=frozenset(),
            lacks=_lacks_speed,
        ),
    ),
    before_setting=(_asked_there(_ELEMENT),),
    couple_up=(_asked_there(_CLOSED_UP), *_NOW.couple_up[1:]),
)
PROCEDURES = (_ONCE, _NOW)
