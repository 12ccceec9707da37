"""Taking a coupling off: where everything was, the two shafts parted, each hub off as it is held, every part looked at."""

from collections.abc import Callable, Mapping

from ...coupling.family import Part
from ...line import Side
from ..hubs import keyed
from ..hubs.screw_held import DEVICES
from ..steps import BenchForm, Field, JobFacts, SheetForm, Stage, Step
from . import inspect_parts, set_and_align


def steps(job: JobFacts) -> list[Step]:
    """As found, parted, each hub off, inspected, replacements like for like; in that order."""
    order = list(reversed(job.order()))
    off = [step for side in order for step in HOW[job.line.hub(side).connection](job, side)]
    return [*_as_found(job), part_the_shafts(job), *off, *inspect_parts.steps(job, off[-1].key)]


def _as_found(job: JobFacts) -> list[Step]:
    marks = Step(
        key=keyed.AS_FOUND,
        stage=Stage.TAKE_OFF,
        title="Note where everything is before it moves",
        why="Nobody knows afterwards where the hub was. These are the figures to come back to.",
        tool="caliper, marker, camera",
        after=("prepare.dead",),
        form=SheetForm(
            fields=(
                *(
                    Field(
                        key=f"standout_{side}_mm",
                        kind="length",
                        label=f"Shaft end stands out of the hub face, {job.line.machine(side).called}",
                        detail="0 when flush; minus when the shaft ends inside",
                        unit="mm",
                    )
                    for side in job.order()
                ),
                *(
                    []
                    if job.family.hangs
                    else [Field(key="match", kind="tick", label="Match marks made or found on both halves")]
                ),
                Field(key="marks", kind="text", label="Match marks, balance marks, numbers", required=False),
                Field(key="why_off", kind="text", label="Why it comes off", required=False),
            )
        ),
    )
    if job.family.hangs:
        return [marks]
    diameter = job.line.hub(job.line.movable).diameter_mm
    gap = Step(
        key="off.gap",
        stage=Stage.TAKE_OFF,
        title="Measure the distance between the hubs as found",
        why="Needed for the refit, and it tells whether a machine has wandered.",
        tool="caliper, or spacer bar and feelers",
        after=("prepare.dead",),
        form=BenchForm(bench="gap", preset={"accept": {}}, suggest={"diameter_mm": diameter}),
    )
    return [marks, gap, set_and_align.read_as_found(job)]


def part_the_shafts(job: JobFacts) -> Step:
    """The coupling undone, in the order of its family."""
    family = job.family
    before = (keyed.AS_FOUND,) if family.hangs else (keyed.AS_FOUND, "off.gap")
    return Step(
        key="off.part",
        stage=Stage.TAKE_OFF,
        title="Part the two shafts" if not family.hangs else "Sling the drive and free it",
        why="In this order. What was screwed into it only to take it apart goes into the ledger.",
        caution=family.undo_trap,
        after=before,
        no_return=True,
        form=SheetForm(
            fields=(
                *(_tick(part) for part in family.undo),
                Field(key="counted", kind="tick", label="Screws and small parts counted into a marked box"),
            )
        ),
    )


def _tick(part: Part) -> Field:
    return Field(key=part.key, kind="tick", label=part.title, detail=part.look_for)


def _off(
    job: JobFacts,
    side: Side,
    key: str,
    title: str,
    why: str,
    ticks: tuple[Part, ...],
    *,
    after: str = "off.part",
    tool: str = "",
    caution: str = "",
) -> Step:
    return Step(
        key=f"{key}.{side}",
        stage=Stage.TAKE_OFF,
        title=title.format(hub=f"{job.line.machine(side).called} hub"),
        why=why,
        after=(after,),
        form=SheetForm(
            fields=(*(_tick(part) for part in ticks), Field(key="seen", kind="text", label="What was seen", required=False))
        ),
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
                Part(key="screws", title="Set screws out and counted, not only slackened"),
                Part(key="drawn", title="Drawn off by hand or with a puller", look_for="no hammer on the hub"),
                Part(key="key", title="Key out and kept with its shaft"),
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
                Part(key="screws", title="Set screws out and counted"),
                Part(key="element", title="No elastomer, no grease left in or beside it", look_for="it burns"),
                Part(key="puller", title="Puller on, under load, out of the way of who heats"),
                Part(key="even", title="Heated evenly all round, up to the ceiling on the card", look_for="never one spot"),
                Part(key="whole", title="Pulled the whole way without a stop"),
                Part(key="key", title="Key out and kept with its shaft"),
            ),
            tool="puller, induction heater, pyrometer, heat gloves",
            caution="Hot: burns, long afterwards. A loaded puller lets go at once: nobody in line with it.",
        )
    ]


def _taper(job: JobFacts, side: Side) -> list[Step]:
    pop = _off(
        job,
        side,
        "off.pop",
        "Break the {hub} loose, nut still on",
        "A hub lets go of a taper all at once, with a bang. Only the nut keeps it on the shaft then.",
        (
            Part(key="lock", title="Set screw or tab of the lock nut eased"),
            Part(
                key="turns",
                title="Nut backed off a few turns and LEFT ON",
                look_for="more than the draw-up, still full thread",
            ),
            Part(key="puller", title="Puller on, under load; nobody in line with the shaft"),
            Part(key="popped", title="The hub has popped loose"),
        ),
        tool="puller, hook or socket for the nut",
        caution="The nut stays on until the hub has let go. Off sooner, the hub springs off the shaft.",
    )
    return [
        pop,
        _off(
            job,
            side,
            "off.hub",
            "Take nut and {hub} off",
            "Loose now: by hand.",
            (
                Part(key="loose", title="The hub moves by hand on the taper"),
                Part(key="nut", title="Nut off, then the hub, by hand"),
                Part(key="key", title="Key out and kept with its shaft"),
            ),
            after=pop.key,
        ),
    ]


def _screw_held(job: JobFacts, side: Side) -> list[Step]:
    held = DEVICES[job.line.hub(side).connection]
    ticks = {
        "bush": (
            Part(key="screws", title="Screws out, threads and points oiled"),
            Part(key="jack", title="Screws into the jacking holes, turned in until the bush is loose"),
            Part(key="off", title="Flange and bush off together, by hand", look_for="mark which shaft it belongs to"),
        ),
        "wedge": (
            Part(key="bolt", title="Retaining bolt and keeper plate off"),
            Part(
                key="jack", title="Wedge drawn out against its ring", look_for="by the maker's manual; no hammer on the hub"
            ),
            Part(key="off", title="Drive drawn off the shaft, its weight on the sling"),
        ),
    }.get(
        held.name,
        (
            Part(
                key="rounds",
                title="Screws eased round after round, a quarter turn each",
                look_for="none taken right out first",
            ),
            Part(key="free", title=f"The {held.name} has let go and lies loose"),
            Part(key="off", title="Hub slid off by hand", look_for="it comes off without harm and can be used again"),
        ),
    )
    caution = {
        "bush": "A bush lets go with a jerk: hands off the flange's edge.",
        "wedge": "The drive hangs in the sling once the wedge is out.",
    }.get(held.name, "A screw taken right out while its neighbours hold lets the ring spring.")
    title = f"Slacken the {held.name} and take the {{hub}} off"
    return [
        _off(job, side, "off.hub", title, "It held by friction only: once it is slack it slides.", ticks, caution=caution)
    ]


HOW: Mapping[str, Callable[[JobFacts, Side], list[Step]]] = {
    "keyed, slip fit": _slip,
    "keyed, interference": _shrunk,
    "tapered bore": _taper,
    **dict.fromkeys(DEVICES, _screw_held),
}
