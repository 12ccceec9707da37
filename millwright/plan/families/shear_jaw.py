"""Jaw couplings with a spacer: the element in shear, wrapped in from outside and held by a collar."""

from ...meaning import Meaning, Of
from ...say import say
from ...sketch import jaws
from ...sketch.shapes import Sketch
from ...verdict import Judged, said_by_hand
from ..fields import condition, count, text, tick
from ..procedure import Bench, LightScrew, Procedure, Pull, Stop, bolts_of, expected
from ..stages import gap, set_by
from ..stages.change_element import more_than_the_element
from ..stages.suits import judge_material
from ..steps import Answers, Fact, Happened, JobFacts
from .facts import BOTH_ENDS, HUBS, SETTING_VALUES, Element, FamilyFacts, Part, at_both_ends, bolts

FACTS = FamilyFacts(
    family="jaw, in shear with spacer",
    title="Jaw coupling with a spacer, element in shear",
    parts=(
        *HUBS,
        Part(key="spacer", title="Spacer halves, as delivered", look_for="factory joined: they are not opened", pieces=2),
        Part(key="element", title="Wrap-round element", look_for="cuts, the material ordered"),
        Part(key="collar", title="Retaining collar", look_for="pins and stops whole"),
        bolts(*BOTH_ENDS, title="Mounting bolts"),
    ),
    gap_taken="between the faces, trimmed with the second hub not yet torqued",
    values=(*SETTING_VALUES, "flange_bolts", "flange_bolt_torque_nm"),
    element=Element(
        parts=("element",),
        called="element",
        counted="Elements out, with every piece of them",
        pieces=1,
        clean="Jaws and the inside of the collar clean of rubber",
        seats="Jaws of both halves, collar, its pins and slot: no cracks, no worn dot",
    ),
    may_also=("element_material",),
    way_round="pilot outward, level with the shaft end",
    closes_by_hub=True,
    gap_later=True,
    hides_hubs=True,
    opened=("Collar turned back past its stops and slid aside", "Element unwrapped"),
    circles=at_both_ends("mounting bolts"),
    finished=(
        condition("collar", "Collar covers the element all round, every pin past its dot"),
        condition("heads", "No bolt head in the collar's way"),
    ),
)


WRAPPED = Happened("wrapped", "the element was wrapped in anew")


def _halves(job: JobFacts) -> Sketch:
    return jaws.collar(bolts_of(job, "driver_end"))


def _half(key: str, title: str, why: str, circle: str) -> Stop:
    return Stop(
        key=key,
        title=title,
        why=why,
        sketch=_halves,
        rows=(
            tick("clean", "Pilot faces clean"),
            tick("home", "Half seated by hand, no light at the pilot all round"),
            expected("bolts", "Bolts in by hand", circle, "only those supplied with it"),
        ),
        ordered=True,
        when=more_than_the_element,
        on_fail="A half that does not seat: burr or paint at the pilot. Off again.",
    )


def _judge_pins(job: JobFacts, answers: Answers) -> Judged:
    pins, past = answers.get("pins"), answers.get("past")
    if pins is None or past is None or pins == past:
        return [], []
    return [said_by_hand("pins", f"pins past their dots: {past} of {pins}", "the person who turned it", in_order=False)], [
        say("pins_past", "Back off, look at the slot and the dots. A worn dot: a new element.")
    ]


PROCEDURES = (
    Procedure(
        couple_up=(
            _half(
                "first_half",
                "Offer the first half to the {first} hub",
                "It carries the collar and the element.",
                "driver_end",
            ),
            Stop(
                key="collar",
                title="Put the collar over the first half",
                why="Without the collar nothing holds the element at speed.",
                caution="Once the second half is in, the collar cannot go on any more.",
                sketch=_halves,
                rows=(
                    tick("whole", "Collar whole, its pins in"),
                    tick("way", "The right way round"),
                    tick("back", "Pushed back clear of the jaws"),
                ),
                ordered=True,
                no_return=True,
                when=more_than_the_element,
            ),
            _half(
                "second_half",
                "Offer the second half to the {second} hub",
                "The gap between the halves is the one the element needs.",
                "driven_end",
            ),
            Bench(
                key="gap",
                title="Set the gap with the loose hub",
                why="The gap that is left behind.",
                means=(Meaning(of=Of.GAP),),
                tool="caliper or feelers",
                form=gap.gap_form,
                needs=lambda job: ("gap_nominal_mm", "gap_plus_minus_mm"),
                judged_by=gap.GAP_JUDGED_BY,
                relies=frozenset({Fact.MACHINES, Fact.FEET, Fact.FIRST_HUB, Fact.SECOND_HUB}),
                on_fail=lambda job: "Slide the loose hub, or move the machine. Then measure again.",
            ),
            LightScrew(),
            Pull(circle="driver_end", when=more_than_the_element),
            Pull(circle="driven_end", when=more_than_the_element),
            Bench(
                key="over_halves",
                title="Lay the straightedge over both halves, element not in",
                why="Once the element is wrapped in nobody gets at the hubs any more.",
                tool="straightedge and feelers, at four places",
                form=set_by.straightedge_form,
                needs=lambda job: ("offset_limit_mm",),
                relies=frozenset({Fact.MACHINES, Fact.FEET, Fact.FIRST_HUB, Fact.SECOND_HUB}),
                on_fail=lambda job: "Slacken the feet and align again; the halves stay on. Then lay it over them again.",
            ),
            Stop(
                key="wrap",
                shuts=True,
                changes=frozenset({WRAPPED}),
                title="Wrap the element in",
                why="It goes in from outside, once everything under it is tight.",
                rows=(
                    tick("whole", "Element whole, of this set"),
                    tick("legs", "Legs between the jaws all round"),
                    tick("ends", "Its ends meet"),
                    tick("dots", "Spacing dots face outward"),
                    text("material", "Material marked on it"),
                ),
                ordered=True,
                judged_by=("element_material",),
                judge=lambda job, answers: judge_material(job, answers.get("material")),
                may_authorise=True,
                on_fail="Unwrap it, clean the jaws, begin at the other end.",
            ),
            Stop(
                key="locked",
                shuts=True,
                relies=frozenset({WRAPPED}),
                title="Slide the collar over and turn it to its stop",
                why="The collar holds the element in.",
                caution="A collar short of its dots walks off at speed and throws the element.",
                sketch=_halves,
                rows=(
                    tick("over", "Collar over the whole element"),
                    tick("pins_in", "Pins through the slot, collar turned"),
                    count("pins", "Pins on the collar"),
                    count("past", "Pins past their raised dots"),
                    tick("held", "It cannot be turned back by hand"),
                ),
                ordered=True,
                judge=_judge_pins,
                on_fail="Back off, look at the slot and the dots. A worn dot: a new element.",
            ),
        ),
        undo=(
            Stop(
                key="collar",
                title="Turn the collar back and slide it aside",
                why="It frees the element.",
                rows=(tick("back", "Collar turned back past its stops"), tick("aside", "Collar slid aside")),
                ordered=True,
            ),
            Stop(
                key="element",
                title="Unwrap the element",
                why="What it looks like tells what it ran with.",
                rows=(tick("out", "Element unwrapped"), text("seen", "Cuts and wear", required=False)),
            ),
            Stop(
                key="sling",
                title="Sling the spacer halves",
                why="They drop when the last bolt leaves.",
                caution="The spacer halves are factory joined: do not open them.",
                rows=(tick("slung", "Slung, the sling just taut"),),
                when=more_than_the_element,
            ),
            Stop(
                key="bolts",
                title="Take the mounting bolts out, both ends",
                why="Last of all, with the weight on the sling.",
                rows=(
                    tick("weight", "The weight hangs on the sling"),
                    expected("driver", "Mounting bolts out, driver end, into a marked box", "driver_end"),
                    expected("driven", "Mounting bolts out, driven end, into a marked box", "driven_end"),
                ),
                ordered=True,
                no_return=True,
                when=more_than_the_element,
            ),
        ),
    ),
)
