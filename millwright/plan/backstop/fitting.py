"""How a backstop goes in, stop by stop: load and unit held, the races on, the strap off, the free way proved by hand."""

from ...card.meanings import TURNS
from ...card.values import source_of
from ...say import say
from ...sketch import hanging
from ...sketch.shapes import Sketch
from ...verdict import Judged, said_by_hand
from ..circles import line_of, pulled
from ..counts import back
from ..families.facts import COUNT, OUTER_RACE
from ..fields import Field, choice, count, number, out, text, tick
from ..order import Part, in_order
from ..procedure import Item, Pull, Stop, answered, expected
from ..stages import turning
from ..steps import Answers, Happened, Holding, JobFacts, OpenTime, SheetForm, Stage, Step
from .said import SAID_ANEW, WAY_AGAIN, first_says, free_way, second_says, train_of

SEALANT = "sealant"
KIT, COVER_STEP, OPEN_MIN = "receive.backstop_kit", "backstop.cover", "sealant_open_min"
LAID_ANEW = Happened("sealant laid", "the sealant was laid anew")
PROPS, COVER, STRAP = "props and slings", "cover on the opening", "shipping strap"
IN_THE_KIT, NONE_IN_IT = SPACERS = ("in the kit", "none in this kit")
LOCKS, TURNS_TOO = OTHER_WAY = ("locks at once", "turns as well")
MOTOR_BUILT_ON = "a motor built on"
ITS_OWN_SHAFT = "its own shaft and arm"
EMPTIED = "nothing: emptied, and seen to be"


def kit(job: JobFacts) -> Step:
    """The kit counted, and that it belongs to this unit."""
    bolts = line_of(job, OUTER_RACE, COUNT)
    known = bolts in job.card
    every = "every kit of a backstop"
    return Step(
        key=KIT,
        hands_on=False,
        stage=Stage.RECEIVE,
        title="Check that the kit belongs to this unit, and count it",
        why="The wrong race fits the hole and not the shaft. A spacer ring that is left out lets the race sit too deep.",
        photograph="the kit laid out, its number and the unit's plate",
        form=SheetForm(
            fields=(
                text("kit", "Number on the kit"),
                text("unit", "Number on the unit's plate"),
                tick("belongs", "By its own guide the kit is for this unit"),
                choice("spacer", "Spacer ring", *SPACERS),
                count("inner", "Inner races with their sprags", expected=1, of=every),
                count("outer", "Outer races", expected=1, of=every),
                count("key", "Keys", expected=1, of=every),
                count("ring", "Retaining rings", expected=1, of=every),
                count("strap", "Shipping straps round the sprags", expected=1, of=every),
                count(
                    "bolts",
                    "Bolts of the outer race",
                    expected=round(job.card[bolts].value) if known else None,
                    of=source_of(job.card, bolts) if known else "",
                ),
            )
        ),
        on_fail="Another kit: nothing is opened until the right one is here.",
    )


def _judge_arrow(job: JobFacts, answers: Answers) -> Judged:
    free = free_way(job)
    found = {"race": answers.get("race"), "housing": answers.get("housing")}
    if not free or not all(found.values()):
        return [], []
    checks = [
        said_by_hand(key, f"arrow on the {key}: {turns}", f"two people: {free}", in_order=turns == free)
        for key, turns in found.items()
    ]
    says = []
    if any(turns != free for turns in found.values()):
        text = "The arrow has to point {free}. Turn the race end for end before anything goes in; or rub the mark out."
        says.append(say("arrow_wrong", text, free=free))
    train, opened = train_of(job.answers.get(WAY_AGAIN, {})), job.answers.get(COVER_STEP, {}).get("side")
    if train and opened and opened != train.backstop_on:
        name = f"opened is the {opened}, said was the {train.backstop_on}"
        checks.append(said_by_hand("cover", name, "two people, and the cover that was found", in_order=False))
        says.append(
            say("another_side", "The open cover is not on the side both named. Find out which before anything goes in.")
        )
    return checks, says


def _judge_free(job: JobFacts, answers: Answers) -> Judged:
    free, turned, other = free_way(job), answers.get("free"), answers.get("other")
    checks, says = [], []
    if free and turned:
        checks.append(said_by_hand("free", f"turns freely {turned}", f"two people: {free}", in_order=turned == free))
        if turned != free:
            says.append(
                say("wrong_way", "It has to turn {free}. It is in the wrong way round: nothing is started.", free=free)
            )
    if other:
        checks.append(said_by_hand("locks", f"the other way it {other}", "turned by hand", in_order=other == LOCKS))
        if other != LOCKS:
            says.append(say("does_not_hold", "It does not hold: look for the strap, the key, the oil. Nothing is started."))
    return checks, says


def _arrow(job: JobFacts) -> Sketch:
    return hanging.arrow_on_race(free_way(job))


def _seen(job: JobFacts) -> str:
    train = train_of(job.answers.get(WAY_AGAIN, {}))
    return f"seen from the {train.backstop_on}" if train else "seen from the side it goes in"


def _race_arrow(job: JobFacts) -> Field:
    return choice("race", "Arrow on the inner race", *TURNS, detail=_seen(job))


def _housing_arrow(job: JobFacts) -> Field:
    return choice("housing", "Arrow marked on the housing", *TURNS, detail=_seen(job))


def _turns_free(job: JobFacts) -> Field:
    return choice("free", "By hand it turns freely", *TURNS, detail=_seen(job))


def _bottoms_on(job: JobFacts) -> Field:
    against = "the spacer ring" if _has_spacer(job) else "the shoulder"
    return tick("slid", f"Slid on by hand until it bottoms on {against}")


def _open_min(job: JobFacts) -> Field:
    known = f"{job.card[OPEN_MIN].value:g} by its label" if OPEN_MIN in job.card else "as its label says"
    return number("open_min", "Its open time", "min", known)


_has_spacer = answered(KIT, "spacer", IN_THE_KIT)
FREE = Stop(
    key="free",
    title="Prove the free way by hand",
    why="What the hand finds now, power would have found.",
    tool="bar or wheel on the input shaft, gently",
    caution="Hands and clothes clear of the shafts; nobody in the chute.",
    rows=(_turns_free, choice("other", "The other way it", *OTHER_WAY)),
    judge=_judge_free,
    relies=frozenset({SAID_ANEW, pulled(OUTER_RACE)}),
    on_fail="Nothing is started. Off again: arrow, strap, key, then anew.",
)
INTO_THE_UNIT: tuple[Item, ...] = (
    Stop(
        key="hold",
        title="Hold the load and the unit",
        why="The load tends to run back, and until the backstop is proved nothing but this holds it.",
        photograph="how the load and the unit are held",
        tool="blocks, props, sling",
        caution="A belt, chain or string of buckets that runs back takes a hand with it.",
        rows=(
            choice("load_by", "The load is held by", "blocks", "a clamp on the belt or chain", EMPTIED),
            choice("unit_by", "The unit is held by", "its own shaft and arm, and a prop", "sling", "props"),
            out("props", "Props, blocks, clamps and slings put in", PROPS),
            tick("slack", "Belt or chain of the drive slack, or off"),
            tick("rest", "Pushed by hand both ways: nothing runs"),
            tick("picture", "Photograph taken of how both are held", none_of="no camera here"),
        ),
        holds=(Holding(what="load", asked="load_by"), Holding(what="gear unit", asked="unit_by")),
    ),
    Stop(
        key="cover",
        title="Find the right cover",
        why="The wrong opening costs the oil and gains nothing.",
        sketch=lambda job: hanging.covers(),
        rows=(
            choice("build", "The unit is driven by", "a belt", MOTOR_BUILT_ON),
            choice("side", "The cover is on the", "input side", "output side"),
            text("shaft", "Behind it lies", "which shaft, by the unit's drawing"),
        ),
    ),
    Stop(
        key="open",
        title="Take cover and gasket off, and scrape the face",
        why="What falls in now goes through the gears; what stays on the face leaks.",
        tool="scraper, torch, lint-free cloth",
        caution="Warm oil: catch it. The opening is covered whenever work stops.",
        rows=(
            tick("oil", "Oil let down below the opening, caught"),
            tick("gasket", "Cover and gasket off; they are not used again"),
            tick("scraped", "Face scraped clean, dry, no burr"),
            tick("nothing", "Looked in with a torch: nothing fell in"),
            out("cover", "Covers laid on the opening", COVER, least=1),
        ),
        ordered=True,
    ),
    first_says,
    second_says,
    Stop(
        key="arrow",
        title="Hold the arrow of the inner race against it, and mark the housing",
        why="The mark on the housing is what the next one looks for.",
        photograph="the arrow on the race and the mark on the housing in one picture",
        sketch=_arrow,
        rows=(_race_arrow, _housing_arrow),
        judge=_judge_arrow,
        relies=frozenset({SAID_ANEW}),
        on_fail="Turn the race end for end, hold it there again, enter it anew.",
    ),
    Stop(
        key=SEALANT,
        title="Lay the bead of sealant, round every hole",
        why="It leaks at a bolt, or where the bead has a gap.",
        caution="From now on the clock runs: the bolts are pulled before it skins over.",
        sketch=lambda job: hanging.bead(_bolts(job)),
        rows=(
            text("sealant", "Sealant"),
            _open_min,
            tick("bead", "Thin unbroken bead on the face, round every hole"),
            tick("clear", "None of it toward the bearing"),
        ),
        judged_by=(OPEN_MIN,),
        changes=frozenset({LAID_ANEW}),
        open_time=OpenTime(what="sealant", asked="open_min", used_by=f"backstop.{OUTER_RACE.key}"),
    ),
    Stop(
        key="spacer",
        title="Put the spacer ring on the shaft first",
        why="Without it the race sits too deep, and it cannot be put in later.",
        when=_has_spacer,
        no_return=True,
        rows=(tick("on", "Spacer ring on the shaft, against the shoulder"),),
    ),
    Stop(
        key="inner",
        title="Slide the inner race on, the strap still round its sprags",
        why="The strap holds the sprags. The race is a fit by hand.",
        caution="No hammer, not once.",
        sketch=lambda job: hanging.strap(),
        rows=(
            out("strap", "Straps round the sprags", STRAP, least=1),
            tick("key", "Key in shaft and race"),
            tick("oiled", "Thin oil on shaft and bore"),
            _bottoms_on,
            tick("bottomed", "A feeler at the shoulder does not enter"),
        ),
        ordered=True,
        on_fail="It resists: key first, then a burr. Never a hammer.",
    ),
    Stop(
        key="ring",
        title="Put the retaining ring into its groove",
        why="Half in its groove it springs out, and the race wanders.",
        rows=(tick("all_round", "Seated all round"), tick("turns", "It turns in its groove")),
        caution="It flies when it slips: eyes.",
    ),
    Stop(
        key="outer",
        title="Turn the outer race on, the free way",
        why="Turned against them the sprags lock and cant.",
        sketch=_arrow,
        rows=(
            tick("oiled", "Thin oil inside the outer race"),
            tick("part_way", "Part way on, no further yet"),
            tick("turned", "Turned lightly the way it runs free, against the arrow of the inner race"),
        ),
        ordered=True,
    ),
    Stop(
        key="strap",
        title="Strap off, once the outer race holds the sprags",
        why="Pulled too early the sprags fall out; forgotten it does not hold.",
        caution="Every sprag held by the outer race, all round, before the strap is touched.",
        no_return=True,
        sketch=lambda job: hanging.strap(),
        rows=(tick("captured", "Every sprag held all round"), back("strap", "Straps pulled out", STRAP)),
        ordered=True,
        on_fail="A sprag is out: everything off again, strap back, anew.",
    ),
    Stop(
        key="home",
        title="Seat the outer race, holes in line, bolts in by hand",
        why="Drawn in by its bolts it tilts.",
        relies=frozenset({LAID_ANEW}),
        rows=(
            tick("home", "Seated against the housing by hand: no feeler enters"),
            tick("holes", "Holes in line, turned only against the arrow"),
            expected("bolts", "Bolts in by hand", OUTER_RACE.key),
        ),
        ordered=True,
    ),
    Pull(circle=OUTER_RACE.key),
    FREE,
)
CLOSED = Stop(
    key="closed",
    title="Take the props out, slowly, and close the unit",
    why="The backstop takes the load now; it should be seen to.",
    caution="Ease the load onto the backstop. Nobody in line with it.",
    rows=(
        back("cover", "Covers off the opening", COVER),
        tick("oil", "Oil back to its level"),
        tick("belt", "Belt or chain back on its input, tension as its own card has it", none_of="motor built on"),
        tick("eased", "Load eased onto the backstop: it stayed"),
        back("props", "Props, blocks, clamps and slings out", PROPS),
        tick("mark", "Arrow on the housing can be seen from outside"),
    ),
    holds=(
        Holding(what="load", by="the backstop", for_now=False),
        Holding(what="gear unit", by=ITS_OWN_SHAFT, for_now=False),
    ),
    relies=frozenset({SAID_ANEW}),
    on_fail="It crept: block it again at once. It does not hold.",
)


_is_built_on = answered(COVER_STEP, "build", MOTOR_BUILT_ON)


def items(job: JobFacts) -> tuple[Item, ...]:
    """What of it is done in this job. The motor's direction is proved before anything is coupled to it: last of all, where a
    belt drives the unit; where the motor is built on, before there is a race in the unit that it could drive against."""
    if job.fits_backstop and _is_built_on(job):
        at = [item.key if isinstance(item, Stop) else "" for item in INTO_THE_UNIT].index(SEALANT)
        return (*INTO_THE_UNIT[:at], _turns, *INTO_THE_UNIT[at:], CLOSED)
    if job.fits_backstop:
        return (*INTO_THE_UNIT, _turns, CLOSED)
    if job.keeps_backstop:
        return (first_says, second_says, FREE, _turns)
    return ()


def _turns(job: JobFacts) -> Part:
    built_on = job.fits_backstop and _is_built_on(job)
    return in_order(*turning.steps(job, Stage.BACKSTOP, "backstop", backstop=True, built_on=built_on))


def _bolts(job: JobFacts) -> int | None:
    line = line_of(job, OUTER_RACE, COUNT)
    return round(job.card[line].value) if line in job.card else None
