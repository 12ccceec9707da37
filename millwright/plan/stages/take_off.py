"""Taking a coupling off: where everything was, the shafts parted, each hub off as it is held, every part looked at."""

from collections.abc import Callable, Mapping
from dataclasses import replace

from ...line import Side
from ...meaning import Meaning, Of, When
from ...sketch import common
from ..fields import Field, length, text, tick
from ..hints import GapHints
from ..hubs import keyed
from ..hubs.screw_held import DEVICES
from ..order import Part, any_order, in_order
from ..steps import BenchForm, JobFacts, SheetForm, Stage, Step
from . import inspect_parts, set_and_align
from .set_by import by_air_gap


def steps(job: JobFacts, undo: Part, hubs_off: Part) -> Part:
    """As found, parted as the family is undone, each hub off, inspected, replacements like for like."""
    off = [in_order(*HOW[job.line.hub(side).connection](job, side)) for side in reversed(job.order())]
    read, seen = _as_found(job)
    parted = (
        in_order(any_order(*read), undo, any_order(*seen))
        if job.family.hides_hubs
        else in_order(any_order(*seen, *read), undo)
    )
    return in_order(parted, any_order(*off), hubs_off, *inspect_parts.steps(job))


def _as_found(job: JobFacts) -> tuple[list[Part], list[Part]]:
    """How the shafts stand, read from outside; and where the hubs sit, which has to be seen."""
    marks = Step(
        key=keyed.AS_FOUND,
        stage=Stage.TAKE_OFF,
        title="Note where everything is before it moves",
        why="Nobody knows afterwards where the hub was. These are the figures to come back to.",
        tool="caliper, marker, camera",
        photograph="the marks on both halves, and how it was put together",
        form=SheetForm(
            fields=(
                *(
                    length(
                        f"standout_{side}_mm",
                        f"Stand-out of the shaft end from the hub face, {job.line.machine(side).called}",
                        "0 when flush; minus when set back",
                    )
                    for side in job.order()
                ),
                *([] if job.family.hangs else [tick("match", "Match marks made or found on both halves")]),
                text("marks", "Match marks, balance marks, numbers", required=False),
                text("why_off", "Why it comes off", required=False),
            )
        ),
    )
    if job.family.hangs:
        return [], [marks]
    if by_air_gap(job):
        return [set_and_align.read_as_found(job)], [marks]
    diameter = job.line.hub(job.line.movable).diameter_mm
    gap = Step(
        key="off.gap",
        means=(Meaning(of=Of.GAP, when=When.FOUND),),
        stage=Stage.TAKE_OFF,
        title="Measure the distance between the hubs as found",
        why="Needed for the refit, and it tells whether a machine has wandered.",
        tool="caliper, or spacer bar and feelers",
        form=BenchForm(bench="gap", preset={"accept": {}}, suggest=GapHints(diameter_mm=diameter)),
    )
    return [set_and_align.read_as_found(job)], [marks, gap]


def _off(
    job: JobFacts,
    side: Side,
    key: str,
    title: str,
    why: str,
    ticks: tuple[Field, ...],
    *,
    tool: str = "",
    caution: str = "",
    no_return: bool = False,
) -> Step:
    return Step(
        key=f"{key}.{side}",
        stage=Stage.TAKE_OFF,
        title=title.format(hub=f"{job.line.machine(side).called} hub"),
        why=why,
        no_return=no_return,
        form=SheetForm(fields=(*ticks, text("seen", "What was seen", required=False)), ordered=True),
        tool=tool,
        caution=caution,
    )


def _slip(job: JobFacts, side: Side) -> list[Step]:
    return [
        _off(
            job,
            side,
            "off.hub",
            "Draw the {hub} off",
            "It slid on by hand. What keeps it now is rust, the key or a screw.",
            (
                tick("screws", "Set screws out and counted, not only slackened", none_of="no set screw in this hub"),
                tick("drawn", "Drawn off by hand or with a puller", "no hammer on the hub"),
                tick("key", "Key out and kept with its shaft", none_of="no key here"),
            ),
            tool="puller",
        )
    ]


def _shrunk(job: JobFacts, side: Side) -> list[Step]:
    return [
        _off(
            job,
            side,
            "off.hub",
            "Pull the {hub}, heat on the hub",
            "Heat the hub while the puller is under load: the hub must grow before the shaft does.",
            (
                tick("screws", "Set screws out and counted", none_of="no set screw in this hub"),
                tick("element", "No elastomer, no grease left in or beside it", "it burns"),
                tick("puller", "Puller on, under load, out of the way of who heats"),
                tick("even", "Heated evenly all round, up to the ceiling on the card", "never one spot"),
                tick("whole", "Pulled the whole way without a stop"),
                tick("key", "Key out and kept with its shaft", none_of="no key here"),
            ),
            tool="puller, induction heater, pyrometer, heat gloves",
            caution="Hot: burns, long afterwards. A loaded puller lets go at once: nobody in line with it.",
        )
    ]


def _taper(job: JobFacts, side: Side) -> list[Step]:
    steps = [
        _off(
            job,
            side,
            "off.nut",
            "Back the nut of the {hub} off, and leave it on",
            "A hub lets go of a taper all at once, with a bang. Only the nut keeps it on the shaft then.",
            (
                tick("lock", "Set screw or tab of the lock nut eased"),
                tick("turns", "Nut backed off a few turns and LEFT ON", "more than the draw-up, still full thread"),
            ),
            tool="hook or socket for the nut",
            caution="The nut stays on until the hub has let go.",
        ),
        _off(
            job,
            side,
            "off.pop",
            "Break the {hub} loose",
            "It goes with a bang, as far as the nut lets it.",
            (
                tick("on", "The nut is still on, full thread"),
                tick("puller", "Puller on, under load; nobody in line with the shaft"),
                tick("popped", "The hub has popped loose"),
            ),
            tool="puller",
            caution="Nut still on? It stays on until the hub has let go. Off sooner, the hub springs off the shaft.",
            no_return=True,
        ),
        _off(
            job,
            side,
            "off.hub",
            "Take nut and {hub} off",
            "Loose now: by hand.",
            (
                tick("loose", "The hub moves by hand on the taper"),
                tick("nut", "Nut off, then the hub, by hand"),
                tick("key", "Key out and kept with its shaft", none_of="no key on this taper"),
            ),
        ),
    ]
    return [replace(step, sketch=lambda job: common.nut_stays()) if step.no_return else step for step in steps]


def _screw_held(job: JobFacts, side: Side) -> list[Step]:
    held = DEVICES[job.line.hub(side).connection]
    ticks = {
        "bush": (
            tick("screws", "Screws out, threads and points oiled"),
            tick("jack", "Screws into the jacking holes, turned in until the bush is loose"),
            tick("off", "Flange and bush off together, by hand", "mark which shaft it belongs to"),
        ),
        "wedge": (
            tick("bolt", "Retaining bolt and keeper plate off"),
            tick("jack", "Wedge drawn out against its ring", "by the maker's manual; no hammer on the hub"),
            tick("off", "Drive drawn off the shaft, its weight on the sling"),
        ),
    }.get(
        held.name,
        (
            tick("rounds", "Screws eased round after round, a quarter turn each", "none taken right out first"),
            tick("free", f"The {held.name} has let go and lies loose"),
            tick("off", "Hub slid off by hand", "it comes off without harm and can be used again"),
        ),
    )
    caution = {
        "bush": "A bush lets go with a jerk: hands off the flange's edge.",
        "wedge": "The drive hangs in the sling once the wedge is out.",
    }.get(held.name, "A screw taken right out while its neighbours hold lets the ring spring.")
    title = f"Slacken the {held.name} and take the {{hub}} off"
    return [_off(job, side, "off.hub", title, "It held by friction only: slack, it slides.", ticks, caution=caution)]


HOW: Mapping[str, Callable[[JobFacts, Side], list[Step]]] = {
    "keyed, slip fit": _slip,
    "keyed, interference": _shrunk,
    "tapered bore": _taper,
    **dict.fromkeys(DEVICES, _screw_held),
}
