"""Jobs of upkeep: locked out, looked over, and the few things that are due done in one stop.

Each reading stands under a key of its own, or under the one it has when a job that looks or fits takes it: what is due next
follows from whichever was read last.
"""

from dataclasses import replace

from ..line import LineSpec
from ..meaning import Meaning, Of
from ..scope import Scope, Task
from ..verdict import Judged, said_by_hand
from .families.facts import Circle, FamilyFacts
from .families.gear_units import OIL_AND_BREATHER
from .families.register import FAMILIES
from .fields import choice, condition, number, text, tick
from .order import Part, any_order, in_order
from .procedure import Bench, Compiler, Procedure, Stop
from .stages import as_found, closed_coupling, run_in
from .steps import Answers, JobFacts, Stage, Step

GREASE, WEAR = "grease", "wear"  # the keys these have in the procedure of a family
SAME, WASHED = "the same product, more of it", "all of it out and washed"
RENEWED, STAY = "renewed", "stay in"
OUT = "Start a job that puts it right; or the lead accepts it until then, and says why."
HAND_WARM = condition("warm", "Packing by hand: warm, not hot, no smoke, no dust past it")


def _filled_with(job: JobFacts) -> str:
    """What has to be the same, or is washed out."""
    product = job.as_left.get(Of.GREASE, {}).get("product")
    return f"filled with {product} last time" if product else "nobody noted what it was filled with"


_OLD_GREASE = Stop(
    key="old_grease",
    title="Look at the old grease",
    why="Another product does not mix with it. Metal in it is the first sign of worn teeth.",
    tool="cloth, torch",
    caution="Plugs clean before they come out: dirt goes in with the grease.",
    rows=(
        tick("plugs", "Plugs and fittings wiped clean"),
        condition("old", "Old grease: no metal, not hard, not run out"),
        lambda job: choice("old_is", "The old grease", SAME, WASHED, detail=_filled_with(job)),
    ),
    on_fail="Metal or hard grease: open it and look at teeth and seals. That is a job of its own.",
)
_PACKING = Stop(
    key="packing",
    means_by=lambda answers: (Meaning(of=Of.PACKING, field="turn_deg", new=answers.get("rings") == RENEWED),),
    title="Follow up the packing nuts",
    why="Braid settles as it wears. Slack it lets dust through, overdone it burns.",
    tool="spanner, a mark on each nut",
    caution="Each nut alike, a little at a time. The shaft is turned by hand after it.",
    rows=(
        HAND_WARM,
        choice("rings", "The rings", STAY, RENEWED),
        number("turn_deg", "Each nut turned further by", "°", "0 where it was right; after new rings from hand tight"),
        tick("alike", "Every nut alike, retainer square"),
        text("seen", "What was seen", required=False),
    ),
    judge=lambda job, answers: _judge_turned(answers),
    on_fail="It smokes or is hot: ease every nut by the same turn, and look again.",
)
_OIL = replace(
    OIL_AND_BREATHER,
    title="Change the oil",
    why="What came out tells how the unit runs. The position decides which plug is which.",
    tool="pan, funnel, oil as the card says",
    caution="It may be hot. It is caught and taken away as the site asks.",
    rows=(condition("old", "Old oil: no water, no metal, not burnt"), *OIL_AND_BREATHER.rows),
)


def _judge_turned(answers: Answers) -> Judged:
    turned = answers.get("turn_deg")
    if not isinstance(turned, int | float) or turned >= 0:
        return [], []
    return [
        said_by_hand("turned", "a nut is not turned by less than 0", "enter how far it was eased in words", in_order=False)
    ], []


def tasks_of(line: LineSpec) -> tuple[Task, ...]:
    """What a job of upkeep can be there to do on this line."""
    facts, procedure = FAMILIES[line.coupling.family].facts, FAMILIES[line.coupling.family].procedure(None)
    there = {
        Task.LOOK: True,
        Task.WEAR: _read_at_rest(procedure) != (),
        Task.CLOSED: facts.closed is not None,
        Task.ALIGN: not facts.hangs,
        Task.PACKING: any(_is_nuts(item) for item in procedure.couple_up),
        Task.OIL: OIL_AND_BREATHER in procedure.couple_up,
        Task.GREASE: _filled(procedure) != (),
        Task.RETORQUE: bool(facts.circles),
    }
    return tuple(task for task, can in there.items() if can)


def renewed_by(line: LineSpec) -> Scope:
    """The job after which what wears on this line is new."""
    return Scope.REFIT if FAMILIES[line.coupling.family].facts.element is None else Scope.ELEMENT


def values_of(facts: FamilyFacts) -> tuple[str, ...]:
    """Lines of the card that say when something of this family is due."""
    procedure = FAMILIES[facts.family].procedure(None)
    return (
        *(("retorque_hours", "retorque_months") if facts.circles else ()),
        *(("play_months",) if _read_at_rest(procedure) else ()),
        *(("grease_months", "grease_hours") if _filled(procedure) else ()),
        *(("closed_check_months",) if facts.closed else ()),
        *(() if facts.hangs else ("alignment_months",)),
        *(("packing_days", "packing_total_deg") if any(_is_nuts(item) for item in procedure.couple_up) else ()),
        *(("oil_months", "oil_hours") if OIL_AND_BREATHER in procedure.couple_up else ()),
    )


def steps(job: JobFacts, procedure: Procedure, compiler: Compiler) -> Part:
    """The guard off and looked at, then what is read, then what is done: at most once each."""
    at_rest = [replace(item, finding=False) for item in _read_at_rest(procedure)]
    aligned = replace(as_found.alignment_read(job), optional=False, finding=False, on_fail=OUT)
    read: dict[Task, Part] = {
        Task.WEAR: compiler.compile(at_rest, Stage.FOUND),
        Task.CLOSED: any_order(*(replace(step, on_fail=OUT) for step in closed_coupling.as_found(job))),
        Task.ALIGN: aligned,
    }
    done: dict[Task, Part] = {
        Task.PACKING: compiler.compile([_PACKING], Stage.KEEP),
        Task.OIL: compiler.compile([_OIL], Stage.KEEP),
        Task.GREASE: compiler.compile([_OLD_GREASE, *_filled(procedure)], Stage.KEEP),
        Task.RETORQUE: in_order(*(_pull_again(job, circle) for circle in job.circles)),
    }
    return in_order(
        as_found.look_over(job),
        any_order(*(part for task, part in read.items() if task in job.terms.tasks)),
        *(part for task, part in done.items() if task in job.terms.tasks),
    )


def _pull_again(job: JobFacts, circle: Circle) -> Step:
    return replace(
        run_in.pull_again(job, circle),
        key=f"keep.rerun.{circle.key}",
        stage=Stage.KEEP,
        why="Screw by screw: does it still turn? What turns has settled. Done when a whole round turned nothing.",
        relies=frozenset(),
    )


def _is_nuts(item: object) -> bool:
    return isinstance(item, Stop) and item.key == "nuts"


def _filled(procedure: Procedure) -> tuple[Bench, ...]:
    return tuple(item for item in procedure.couple_up if isinstance(item, Bench) and item.key == GREASE)


def _read_at_rest(procedure: Procedure) -> tuple[Stop, ...]:
    return tuple(item for item in procedure.found if isinstance(item, Stop) and item.key == WEAR)
