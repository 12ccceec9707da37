"""Disc couplings with a single pack: angle alone, so the first flange is bolted before the machine is set."""

from collections.abc import Mapping
from dataclasses import replace

from ...say import say
from ...sketch import discs
from ...sketch.shapes import Sketch
from ...verdict import Judged, said_by_hand
from ..fields import choice, condition, tick
from ..procedure import LightScrew, Procedure, Proof, Pull, Stop, bolts_of, expected
from ..stages.change_element import more_than_the_element
from ..steps import Answers, Happened, JobFacts
from .facts import BOLTED_ANGLE_VALUES, HUBS, PACK_FLAT, STROBE, Circle, ClosedCheck, Element, FamilyFacts, Part, bolts

FIXED, FLOATS = "two bearings of its own", "one bearing: it floats"
FLAT, WAVY, BOWED = PACK_LOOKS = ("flat", "wavy", "bowed, or leaves apart")

FACTS = FamilyFacts(
    family="disc, single pack",
    title="Disc coupling, single pack",
    parts=(
        *HUBS,
        Part(key="pack", title="Disc pack", look_for="flat, no cracked leaf, bushings in place"),
        bolts("first", "second"),
        Part(key="bushings", title="Bushings of the pack", where="some sit in the pack already", counted=True),
    ),
    gap_taken="width of the pack at four positions",
    values=BOLTED_ANGLE_VALUES,
    closed=ClosedCheck(
        title="Measure the width of the pack all round",
        why="A pack that is pressed, stretched or askew bends every turn, and its leaves crack.",
        tool="caliper, between the flanges beside the bolts",
        values=("gap_nominal_mm", "gap_plus_minus_mm"),
        look=PACK_FLAT,
    ),
    element=Element(
        parts=("pack", "bolts"),
        called="pack",
        counted="Packs out, whole",
        pieces=1,
        clean="Flange faces wiped, no paint or rust at the bolt seats",
        seats="Flanges and bolt holes of both hubs: no fretting, none drawn oval",
    ),
    takes="angle alone",
    way_round="flange toward the shaft end",
    circles=(
        Circle(
            key="first",
            title="bolts of the first flange",
            order="alternate",
            held="bolt head",
            oil="on the bushing, under the nut",
        ),
        Circle(
            key="second",
            title="bolts of the second flange",
            order="alternate",
            held="bolt head",
            oil="on the bushing, under the nut",
        ),
    ),
    watched=(STROBE,),
    finished=(condition("holes", "Nuts clear of the large holes, all round"),),
)


TAKES_NO_OFFSET = "Both shafts have two bearings: this coupling takes no offset between them. Ask before anything is mounted."


def _judge_carried(job: JobFacts, answers: Answers) -> Judged:
    if answers.get("driver") != FIXED or answers.get("driven") != FIXED:
        return [], []
    return [said_by_hand("carried", "how the shafts are carried", "a single pack takes no offset", in_order=False)], [
        say("two_bearings_each", TAKES_NO_OFFSET)
    ]


BOWED_PACK = Happened("pack bowed", "a pack was bowed: its bolts were slackened")
ENDS = {"driver": "Pack at the driver end", "driven": "Pack at the driven end"}


def look_at_packs(bowed: str, *, upset: frozenset[Happened] = frozenset(), packs: Mapping[str, str] = ENDS) -> Stop:
    """How the packs lie once they are pulled.

    ``bowed`` - what is done about one that is bowed; ``upset`` - what has to be pulled again for it
    """
    cure = {WAVY: "Wavy: back to aligning, then look again.", BOWED: bowed}

    def judged(job: JobFacts, answers: Answers) -> Judged:
        looks = {name: str(answers[key]) for key, name in packs.items() if answers.get(key) not in (None, "", FLAT)}
        checks = [
            said_by_hand("pack_looks", f"{name.lower()}: {look}", "the person who looked", in_order=False)
            for name, look in looks.items()
        ]
        return checks, [say(f"pack_{look}", cure[look]) for look in dict.fromkeys(looks.values())]

    return Stop(
        key="packs" if len(packs) > 1 else "pack",
        title="Look at both packs" if len(packs) > 1 else "Look at the pack",
        why="A pack that waves or bows is strained, and its leaves crack.",
        tool="torch",
        rows=tuple(replace(choice(key, name, *PACK_LOOKS), picture="disc pack") for key, name in packs.items()),
        judge=judged,
        upsets=lambda job, answers: upset if BOWED in answers.values() else frozenset(),
        may_authorise=len(packs) > 1,
        on_fail="Correct it, then look again.",
    )


PACK_LOOK = look_at_packs(
    "Bowed: slacken the two bolts beside it, oil under the nuts, pull that circle again, then look again.",
    upset=frozenset({BOWED_PACK}),
    packs={"looks": "Pack"},
)


def _holes(job: JobFacts) -> Sketch:
    return discs.pack_holes(bolts_of(job, "first"), bolts_of(job, "second"))


PROCEDURES = (
    Procedure(
        receive=(
            Stop(
                key="carried",
                title="Say how each shaft is carried",
                why="A single pack takes an angle and no offset: one of the two shafts has to be free to find its place.",
                rows=(choice("driver", "Driver", FIXED, FLOATS), choice("driven", "Driven machine", FIXED, FLOATS)),
                judge=_judge_carried,
                may_authorise=True,
                when=more_than_the_element,
                on_fail="Another coupling, or the lead says why this one.",
            ),
        ),
        before_setting=(
            Stop(
                key="pack",
                title="Put the pack on the first flange",
                why="Its bolts cannot be reached once the machine is close.",
                sketch=_holes,
                rows=(
                    tick("faces", "Flange faces wiped, no paint at the bolt seats"),
                    tick("holes", "Bushed holes of the pack against the small holes of the flange"),
                    tick("through", "Bolts through from the flange side, each snug in flange and pack"),
                    tick("oiled", "Thin oil on the bushings, under the nuts"),
                    tick("by_hand", "Nuts on by hand"),
                ),
                ordered=True,
                on_fail="A bolt that drops through: wrong hole or worn hole. Stop.",
            ),
            Pull(circle="first"),
        ),
        couple_up=(
            LightScrew(),
            Stop(
                key="assemble",
                title="Bolt the second flange",
                why="The pack is not pulled into place by its bolts.",
                sketch=_holes,
                rows=(
                    tick("free", "Nuts of the first flange free all round in the large holes of the second"),
                    tick("socket", "The socket passes"),
                    tick("through", "Bolts through the second flange's small holes"),
                    tick("oiled", "Oil on the bushings, nuts on by hand"),
                ),
                ordered=True,
                on_fail="Turn one shaft by one hole. Still touching: distance or holes are wrong, back to the gap.",
            ),
            Pull(circle="second", relies=frozenset({BOWED_PACK})),
            PACK_LOOK,
            Proof(),
        ),
        undo=(
            Stop(
                key="nuts",
                title="Slacken the nuts one after another, then take them off",
                why="The pack springs where one side is let go first.",
                no_return=True,
                rows=(
                    tick("held", "Bolt heads held"),
                    tick("off", "Nuts off, one after another"),
                    expected("first", "Bolts out, first flange, into a marked box", "first"),
                    expected("second", "Bolts out, second flange, into a marked box", "second"),
                ),
                ordered=True,
            ),
            Stop(
                key="pack",
                title="Take the pack out whole",
                why="Its leaves stay together.",
                rows=(tick("out", "Pack taken out whole", "cracked or bowed leaves"),),
            ),
        ),
    ),
)
