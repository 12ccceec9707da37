"""Hubs held by screws that draw a bush, a ring or a disc tight: round after round until a full round moves nothing."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

from ...line import Side
from ...say import mm, say
from ...sketch import common, hanging
from ...sketch.shapes import Sketch
from ...verdict import Judged, judge, said_by_hand
from .. import torques
from ..families.facts import PLACE_VALUES
from ..fields import Field, tick
from ..order import Part, any_order, in_order
from ..steps import Answers, BenchForm, Fact, JobFacts, SheetForm, Stage, Step
from . import keyed, running_true, surfaces
from .place import judge_place

STAYS_MM = 0.05  # rule of thumb: within this a clamped hub stays where it was put
SCREWS, TORQUE = "hub_screws", "hub_screw_torque_nm"
PART_THEN_FULL = (0.5, 1.0)


@dataclass(frozen=True, kw_only=True)
class Device:
    """What one way of holding a hub by screws asks for; each tuple is ticked in its order."""

    name: str
    delivered: tuple[Field, ...]  # how it comes, and how it has to be before the hub moves
    on_the_shaft_first: tuple[Field, ...] = ()
    placing: tuple[Field, ...]
    seated: tuple[Field, ...]  # looked at once no screw turns any more
    between_rounds: str = ""
    trued: bool = False  # tapped true while half tight, dialled on rim and face
    dialled: bool = True  # dialled when tight
    draws_along: bool = False  # the hub travels while it is tightened
    keyed: bool = False
    set_screw: bool = False  # beside what draws it tight
    passes: tuple[float, ...] = PART_THEN_FULL
    drawn: Callable[[int | None], Sketch] | None = None  # by how many screws it has

    @property
    def values(self) -> tuple[str, ...]:
        """The lines of the value card it asks for."""
        screws = (SCREWS, TORQUE) if self.until_still else (TORQUE,)
        true_to = (running_true.SHAFT, running_true.HUB) if self.trued else (running_true.HUB,) if self.dialled else ()
        set_screw = (keyed.SCREW_TORQUE,) if self.set_screw else ()
        return (*keyed.CLEARANCE, *screws, *true_to, *set_screw)

    @property
    def until_still(self) -> bool:
        """Rounds go on until nothing moves; a single bolt is pulled once."""
        return len(self.passes) > 1


def _tick(key: str, label: str, detail: str = "") -> Field:
    return tick(key, label, detail)


_EASED = _tick("eased", "Screws eased, only finger tight", "as delivered it is only loosely placed, not ready to use")
_SQUARE = _tick("square", "Slid on square, no tilting, no force", "it binds: half key or key first, then hone the bore")

BUSH = Device(
    name="bush",
    delivered=(
        _tick("pair", "Bush bore matches this shaft", "driver and driven bushes differ: do not swap them"),
        _tick("wiped", "Bush outside and tapered bore wiped, lint-free"),
        _tick("holes", "Half holes lined up: half thread against half plain", "thread against thread does not draw"),
        _tick("loose", "Screws in the right holes, started only", "the bush must not grip yet"),
    ),
    placing=(
        _tick("unit", "Flange and bush slid on together, by hand"),
        _tick("place", "Set to the place that gives the specified distance", "it is drawn along a little as it tightens"),
        _tick("key_in", "Key in, its end flush", "where this shaft has one"),
    ),
    seated=(
        _tick("flush", "Bush seated, its face even all round"),
        _tick("filled", "Open jacking holes filled with grease"),
    ),
    between_rounds="Seat the bush with light blows on a drift all round, then another round.",
    draws_along=True,
    keyed=True,
    set_screw=True,
    drawn=common.bush,
)
CLAMP_RING = Device(
    name="clamp ring",
    delivered=(_EASED, _tick("turns", "Ring lies loose and turns by hand", "draw it away from the hub flange")),
    on_the_shaft_first=(
        _tick("bolts_in", "Connecting bolts in the hub", "they do not fit any more once the ring is on"),
        _tick("device_on", "Ring loose on the hub"),
    ),
    placing=(_SQUARE, _tick("level", "Shaft end level with the hub's end, or as the drawing shows")),
    seated=(_tick("flat", "Ring lies flat against the hub flange, no gap all round", "torque alone can be reached tilted"),),
    trued=True,
)
SHRINK_DISC = Device(
    name="shrink disc",
    delivered=(_EASED, _tick("tapers", "Only its own tapers greased, as delivered", "never the bore, never the shaft")),
    on_the_shaft_first=(
        _tick("bolts_in", "Connecting bolts in the hub", "they do not fit any more once the disc is on"),
        _tick("disc_on", "Disc loose on the hub's outside"),
    ),
    placing=(_SQUARE, _tick("level", "Shaft end level with the hub's end, or as the drawing shows")),
    seated=(_tick("flat", "Both rings parallel, the same gap all round", "torque alone can be reached tilted"),),
    trued=True,
)
LOCKING_RING = Device(
    name="locking ring",
    delivered=(_EASED, _tick("guide", "The ring's own guide is here", "order and torque are not in the coupling's manual")),
    on_the_shaft_first=(_tick("recess", "Ring seated in its recess on the hub", "before the hub slides to its place"),),
    placing=(_SQUARE, _tick("angle", "Place along the shaft and angle round it set", "both stay free until it is tight")),
    seated=(_tick("flat", "Ring against its shoulder, no gap all round"),),
    trued=True,
)
WEDGE = Device(
    name="wedge",
    delivered=(
        _tick("ring", "Retaining ring snapped onto the wedge", "it cannot be fitted later; the bolt pulls against it"),
        _tick("lead", "Drilled and tapped end of the shaft leads"),
    ),
    placing=(
        _tick("keyways", "Keyways in line, key in"),
        _tick("wedge_in", "Wedge between output hub and drive shaft"),
        _tick("plate", "Keeper plate on, bolt into the shaft by hand"),
    ),
    seated=(_tick("drawn", "Bolt tight against the ring's outer face, wedge drawn in"),),
    dialled=False,
    draws_along=True,
    keyed=True,
    passes=(1.0,),
    drawn=lambda screws: hanging.wedge(),
)
DEVICES: Mapping[str, Device] = {
    "tapered bush": BUSH,
    "clamp ring": CLAMP_RING,
    "shrink disc": SHRINK_DISC,
    "keyless locking ring": LOCKING_RING,
    "tapered wedge": WEDGE,
}


def device(job: JobFacts, side: Side) -> Device:
    """What holds this hub. It must be one of the `DEVICES`."""
    return DEVICES[job.line.hub(side).connection]


def prepare(job: JobFacts, side: Side) -> Part:
    """Clean and dry, the bare shaft, measured, decided."""
    held = device(job, side)
    half = job.line.hub(side).half_key and not held.keyed
    measured = keyed.measure(
        job,
        side,
        keyed.CLEARANCE,
        "Too tight to slide: hone the bore, never force it. Too loose: it cannot grip; reject the hub.",
        key=held.keyed,
    )
    return in_order(
        surfaces.clean(
            job,
            side,
            what="shaft and bore",
            why="It holds by friction. Oil, paste or preservative between the faces, and it slips.",
            takes=surfaces.FRICTION_TAKES,
            ticks=(
                _tick("coating", "Preservative off shaft, bore and the device's seats"),
                _tick("burrs", "Burrs and dents filed off; the diameter left alone"),
                _tick("wiped", "Wiped with a lint-free cloth: it comes away clean"),
            ),
        ),
        any_order(*running_true.bare_shaft(job, side, wanted=held.trued), *measured),
        keyed.decide(
            job,
            side,
            keyed.SLIPS_ON,
            _tick("dry_fit", "Hub tried on cold and dry: it slides and turns freely"),
            *([keyed.HALF_KEY] if half else []),
            *held.delivered,
            takes=surfaces.FRICTION_TAKES,
        ),
    )


def mount(job: JobFacts, side: Side) -> Part:
    """The gate, the hub, half tight and trued, tight, seated, dialled again."""
    held, name, hub = device(job, side), job.line.machine(side).called, job.line.hub(side)
    gate = keyed.loose_parts(job, side, *held.on_the_shaft_first)
    place = Step(
        key=f"mount.hub.{side}",
        stage=Stage.MOUNT,
        title=f"Slide the hub on the {name} shaft, {held.name} loose",
        why="Nothing is tightened before the shaft is in: it would close the bore or crack the device.",
        tool="straightedge over face and shaft end",
        caution="Never drive it on. If it resists: key or half key, burr, bore, in that order.",
        sketch=(lambda job: drawn(_screws(job, side))) if (drawn := held.drawn) else None,
        changes=frozenset({job.hub_fact(side)}),
        form=SheetForm(
            fields=(
                _tick("shaft_in", "The shaft is in the hub, over the whole fit", surfaces.said(job, side)),
                *held.placing,
                keyed.standout(job, side),
            )
        ),
        judged_by=() if held.draws_along else tuple(job.key(key, side) for key in PLACE_VALUES),
        judge=None if held.draws_along else lambda job, answers: judge_place(job, side, answers),
        may_authorise=True,
        on_fail="Take it off again. Look at the key first, then the bore.",
    )
    to_true = [_snug(job, side, held), running_true.half_tight(job, side)] if held.trued else []
    screws = 1 if not held.until_still else None
    tighten = Step(
        key=f"mount.clamp.{side}",
        stage=Stage.MOUNT,
        title=f"Tighten the {held.name}, {name} hub",
        why="Each screw eases its neighbours. Round and round, until a full round moves no screw."
        if held.until_still
        else "The bolt draws the wedge in against the ring. Slack: the shaft works loose.",
        tool="torque wrench in calibration",
        caution=torques.thread_words(job, job.key(TORQUE, side)),
        needs=tuple(job.key(key, side) for key in ((SCREWS, TORQUE) if held.until_still else (TORQUE,))),
        relies=frozenset({job.hub_fact(side), torques.moved(f"device_{side}")}),
        changes=frozenset({Fact.FASTENERS}),
        may_authorise=True,
        form=BenchForm(bench="tighten", preset=_tighten_preset(job, side, held, screws)),
        on_fail="Slacken the screw that is off and pull it again in its turn.",
    )
    seated = Step(
        key=f"mount.seat.{side}",
        stage=Stage.MOUNT,
        title=f"Look at the seat of the {held.name}, {name} hub",
        why="The torque can be reached while it sits tilted; and tightening may have drawn the hub along.",
        tool="feelers, straightedge over face and shaft end",
        relies=frozenset({job.hub_fact(side)}),
        form=SheetForm(fields=(*held.seated, keyed.standout(job, side))),
        judged_by=tuple(job.key(key, side) for key in PLACE_VALUES),
        judge=lambda job, answers: _judge_seat(job, side, answers, held),
        may_authorise=True,
        on_fail="Slacken every screw round by round, set the hub again, and tighten it anew.",
    )
    extra = keyed.set_screw(job, side, Stage.MOUNT) if held.set_screw and hub.set_screws else []
    dialled = running_true.tight(job, side, wanted=held.dialled, face=held.trued or held.draws_along)
    return in_order(gate, place, *to_true, tighten, seated, *extra, *dialled)


def _screws(job: JobFacts, side: Side) -> int | None:
    key = job.key(SCREWS, side)
    return round(job.card[key].value) if key in job.card else None


def couple(job: JobFacts, side: Side) -> list[Step]:
    """Nothing: a hub that has gripped stays where it is."""
    return []


def screws_title(job: JobFacts, side: Side) -> str:
    """What holds this hub, as its screws are called."""
    held, name = device(job, side), job.line.machine(side).called
    return f"Screws of the {held.name}, {name} hub" if held.until_still else f"Wedge bolt, {name} hub"


def recheck(job: JobFacts, side: Side) -> tuple[Field, ...]:
    """The screws once more before release."""
    held = device(job, side)
    count = job.key(SCREWS, side) if held.until_still else ""
    title, torque = screws_title(job, side), job.key(TORQUE, side)
    own = torques.checked_again(job, f"device_{side}", title, torque, count=count)
    return (own, *(keyed.recheck(job, side) if held.set_screw else ()))


def _snug(job: JobFacts, side: Side, held: Device) -> Step:
    name = job.line.machine(side).called
    return Step(
        key=f"mount.snug.{side}",
        stage=Stage.MOUNT,
        title=f"Tighten the {held.name} half, {name} hub",
        why="Only until the hub can no longer be twisted by hand. So tight it can still be tapped true.",
        tool="short key, by feel",
        changes=frozenset({job.hub_fact(side)}),
        form=SheetForm(
            fields=(
                _tick("round", "Screws taken up evenly, round the circle"),
                _tick("twist", "Hub can no longer be turned by hand"),
            )
        ),
    )


def _tighten_preset(job: JobFacts, side: Side, held: Device, screws: int | None) -> dict[str, Any]:
    count = job.key(SCREWS, side)
    if screws is None and count in job.card:
        screws = round(job.card[count].value)
    if screws is None:
        return {}
    preset = torques.bolts_preset(job, job.key(TORQUE, side), screws, passes=held.passes, pattern="circle")
    return {**preset, "until_still": held.until_still, "between_rounds": held.between_rounds} if preset else {}


def _judge_seat(job: JobFacts, side: Side, answers: Answers, held: Device) -> Judged:
    """Where the hub sits now that it is tight, and how far it travelled on the way."""
    at, _ = judge_place(job, side, answers)
    moved, says = _judge_shift(answers, job.answers.get(f"mount.hub.{side}", {}), held)
    return [*at, *moved], says


def _judge_shift(answers: Answers, placed: Answers, held: Device) -> Judged:
    """How far the hub travelled while it was tightened: what the gap has to make up for."""
    after, before = answers.get("standout_mm"), placed.get("standout_mm")
    if not isinstance(after, int | float) or not isinstance(before, int | float):
        return [], []
    moved = after - before
    check = judge("moved", "moved while tightening", moved, "mm", source="stand-out before and after")
    if abs(moved) < STAYS_MM:
        return [check], []
    if held.draws_along:
        text = "It was drawn {by} along. Set it again if the required distance is missed."
        return [check], [say("drawn_along", text, by=mm(abs(moved), None))]
    wrong = said_by_hand("place", "place on the shaft", "rule of thumb: a clamped hub stays where it was put", in_order=False)
    text = "It moved {by} while it was tightened: more than {within} should not be. (Rule of thumb.)"
    return [check, wrong], [say("moved_while_tightened", text, by=mm(abs(moved), None), within=mm(STAYS_MM))]
