"""Composes a route: safety, receiving, each hub by how it is held, the family's own procedure, closing."""

from collections.abc import Sequence
from itertools import product

from ..line import LineSpec
from ..scope import Scope, Task
from . import upkeep
from .backstop import fitting as backstop
from .circles import checked_again
from .families.facts import FamilyFacts
from .families.register import FAMILIES
from .hubs import keyed
from .hubs.ways import HUB_STEPS
from .order import Arranged, Part, any_order, arrange, in_order
from .procedure import Bench, Compiler, Procedure, Pull, Stop
from .remembered import remembered
from .route import Route, checked
from .stages import as_found, change_element, close_out, gap, lock_out, receive, set_and_align, take_off, turning
from .steps import JobFacts, Stage, Step, Terms
from .tools import laid_out


def composed(job: JobFacts) -> Route:
    """`build`, once for all that is alike in what it looks at."""
    return remembered(job, FAMILIES[job.family.family], build)


def build(job: JobFacts) -> Route:
    """The steps of a job in working order, each with what it comes after. Raises `Miscomposed`."""
    return checked(Route(steps=laid_out(_steps(job))))


def _steps(job: JobFacts) -> Sequence[Step]:
    procedure = FAMILIES[job.family.family].procedure(job.terms.procedure)
    compiler = Compiler(job, light_screw=_light_screw)
    match job.scope:
        case Scope.TAKE_OFF:
            proved = in_order(lock_out.steps(job), lock_out.second_proof(Stage.TAKE_OFF))
            return arrange(in_order(proved, _off(job, procedure, compiler), close_out.put_away(job))).steps
        case Scope.BACKSTOP:
            ready = any_order(lock_out.steps(job), backstop.kit(job), receive.tools())
            proved = in_order(ready, lock_out.second_proof(Stage.BACKSTOP))
            torqued = checked_again(job, job.circles)
            closed = close_out.steps(job, torqued=torqued, feet=False)
            return arrange(in_order(proved, _backstop(job, compiler), closed)).steps
        case Scope.ALIGN | Scope.CHECK:
            proved = in_order(lock_out.steps(job), lock_out.second_proof(Stage.FOUND))
            return arrange(in_order(proved, _look(job, procedure, compiler))).steps
        case Scope.UPKEEP:
            proved = in_order(lock_out.steps(job), lock_out.second_proof(Stage.FOUND))
            done = upkeep.steps(job, procedure, compiler)
            return arrange(in_order(proved, done, close_out.steps(job, torqued=None))).steps
        case Scope.ELEMENT:
            received = _received(job, procedure, compiler)
            proved = in_order(any_order(lock_out.steps(job), received), lock_out.second_proof(Stage.FOUND))
            return arrange(in_order(proved, _change(job, procedure, compiler))).steps
        case _:
            return _fit(job, procedure, compiler)


def scopes(family: FamilyFacts, *, backstop: bool = False) -> tuple[Scope, ...]:
    """What a job can be there to do on a coupling of this family; ``backstop`` - the line has one, or is to get one."""
    aligned = () if family.hangs else (Scope.ALIGN,)
    changed = () if family.element is None else (Scope.ELEMENT,)
    stops = (Scope.BACKSTOP,) if family.hangs or backstop else ()
    return (Scope.FIT, Scope.REFIT, Scope.TAKE_OFF, *changed, *stops, *aligned, Scope.CHECK, Scope.UPKEEP)


def scopes_of(line: LineSpec) -> tuple[Scope, ...]:
    """What a job can be there to do on this line."""
    return scopes(FAMILIES[line.coupling.family].facts, backstop=line.backstop)


def _received(job: JobFacts, procedure: Procedure, compiler: Compiler) -> Part:
    """What has to be known before anything is unpacked, then everything that is counted and compared."""
    own: list[Part] = [
        *([backstop.kit(job)] if job.fits_backstop else []),
        compiler.compile(procedure.receive, Stage.RECEIVE),
    ]
    return in_order(compiler.compile(procedure.unpack, Stage.RECEIVE), any_order(receive.steps(job), *own))


def _off(job: JobFacts, procedure: Procedure, compiler: Compiler) -> Part:
    undo, hubs_off = (compiler.compile(items, Stage.TAKE_OFF) for items in (procedure.undo, procedure.hubs_off))
    return take_off.steps(job, undo, hubs_off)


def _backstop(job: JobFacts, compiler: Compiler) -> Part:
    """What is done about a backstop in this job; without one, which way the motor turns where that matters."""
    items = backstop.items(job)
    if items:
        return compiler.compile(items, Stage.BACKSTOP)
    return in_order(*(turning.steps(job, Stage.COUPLE, "couple") if job.family.hangs else []))


def _look(job: JobFacts, procedure: Procedure, compiler: Compiler) -> Part:
    """As found, and where it is to be aligned: opened or not, moved, read and closed again."""
    found = as_found.as_found(job, compiler.compile(procedure.found, Stage.FOUND))
    if job.scope is Scope.CHECK or job.family.hangs:
        return in_order(found, close_out.steps(job, torqued=None))
    if not as_found.opened(job):
        return in_order(found, as_found.aligned_closed(job), close_out.steps(job, torqued=()))
    second = HUB_STEPS[job.line.hub(job.second()).connection].recheck(job, job.second()) if job.closes_by_hub else ()
    return in_order(
        found,
        compiler.compile(procedure.undo, Stage.FOUND),
        compiler.compile(procedure.before_setting, Stage.MOUNT),
        _set_and_couple(job, procedure, compiler),
        close_out.steps(job, torqued=(*second, *checked_again(job, job.circles))),
    )


def _change(job: JobFacts, procedure: Procedure, compiler: Compiler) -> Part:
    """The element out and another in, both hubs staying on; set and aligned only where a machine was moved."""
    moved, slid = change_element.machine_moved(job), change_element.hub_moved(job)
    trimmed = any(isinstance(item, Bench) and item.key == "gap" for item in procedure.couple_up)
    read = [gap.set_gap(job)] if slid and not trimmed else []
    couple_up = compiler.compile(procedure.couple_up, Stage.COUPLE)
    second = HUB_STEPS[job.line.hub(job.second()).connection].recheck(job, job.second()) if slid else ()
    items = (*procedure.before_setting, *procedure.couple_up)
    circles = [job.family.circle(item.circle) for item in items if isinstance(item, Pull) and item.when(job)]
    circles = [circle for circle in circles if circle in job.circles]
    return in_order(
        as_found.as_found(job, compiler.compile(procedure.found, Stage.FOUND)),
        compiler.compile(procedure.undo, Stage.TAKE_OFF),
        change_element.changed(job),
        compiler.compile(procedure.before_setting, Stage.MOUNT),
        _set_and_couple(job, procedure, compiler) if moved else in_order(*read, couple_up, *change_element.stands_in(job)),
        close_out.steps(job, torqued=(*second, *checked_again(job, circles)), feet=moved),
    )


def _fit(job: JobFacts, procedure: Procedure, compiler: Compiler) -> list[Step]:
    """From lock-out to the signed record; where it was on its shafts, taken off first."""
    first = arrange(any_order(lock_out.steps(job), _received(job, procedure, compiler)))
    off = job.scope is Scope.REFIT
    proof = lock_out.second_proof(Stage.TAKE_OFF if off else Stage.PREPARE)
    undo = [_off(job, procedure, compiler)] if off else []
    proved = arrange(in_order(proof, *undo), first.ends)
    hubs = _hubs(job, procedure, compiler, proved.ends)
    screws = tuple(f for side in job.order() for f in HUB_STEPS[job.line.hub(side).connection].recheck(job, side))
    rest = arrange(
        in_order(
            _set_and_couple(job, procedure, compiler),
            close_out.steps(job, torqued=(*screws, *checked_again(job, job.circles))),
        ),
        hubs.ends,
    )
    return [*first.steps, *proved.steps, *hubs.steps, *rest.steps]


def _hubs(job: JobFacts, procedure: Procedure, compiler: Compiler, after: tuple[str, ...]) -> Arranged:
    """Both hubs prepared side by side; each mounted once it is prepared and the one before it is on."""
    ends = arrange(compiler.compile(procedure.prepare, Stage.PREPARE), after)
    prepared = {side: arrange(HUB_STEPS[job.line.hub(side).connection].prepare(job, side), after) for side in job.order()}
    steps = [*ends.steps, *(step for side in job.order() for step in prepared[side].steps)]
    on = ends.ends if ends.steps else ()
    for side in job.order():
        before = tuple(dict.fromkeys((*prepared[side].ends, *on)))
        mounted = arrange(HUB_STEPS[job.line.hub(side).connection].mount(job, side), before)
        steps += mounted.steps
        on = mounted.ends
    last = arrange(compiler.compile(procedure.before_setting, Stage.MOUNT), on)
    return Arranged(steps=(*steps, *last.steps), ends=last.ends)


def _set_and_couple(job: JobFacts, procedure: Procedure, compiler: Compiler) -> Part:
    """From hubs on their shafts to the finished coupling: the machines set, bolted down and read, then coupled up."""
    couple_up = compiler.compile(procedure.couple_up, Stage.COUPLE)
    if job.family.hangs:
        return in_order(couple_up, _backstop(job, compiler))
    turned = turning.steps(job, Stage.SET, "set") if not backstop.items(job) else []
    near = compiler.compile(procedure.setting, Stage.SET)
    shut = [f"couple.{item.key}" for item in procedure.couple_up if isinstance(item, Stop) and item.shuts]
    set_anew = set_and_align.steps(job, near=bool(near.parts), shut=shut)
    return in_order(*turned, _backstop(job, compiler), near, set_anew, *set_and_align.bolted_down(job), couple_up)


def _light_screw(job: JobFacts) -> list[Step]:
    if change_element.only_the_element(job) and not change_element.hub_moved(job):
        return []
    side = job.second()
    screwed = HUB_STEPS[job.line.hub(side).connection].couple(job, side)
    return [*screwed, *gap.gap_again(job, keyed.screw_pulled(job, side))] if screwed else []


def values_of_family(family: str) -> tuple[str, ...]:
    """The keys of the value card that a route of this family can ask for, whatever holds its hubs."""
    return FAMILIES[family].facts.values


def values_of_connection(connection: str) -> tuple[str, ...]:
    """The keys of the value card that a way of holding a hub asks for."""
    return HUB_STEPS[connection].values


def every_route() -> int:
    """Composes what a job can begin with: every family, version, scope and way of holding. How many there are.

    Raises `Miscomposed` where one of them says what cannot be.
    """
    count = 0
    for title, family in FAMILIES.items():
        for way, scope, procedure in product(HUB_STEPS, scopes(family.facts, backstop=True), family.procedures):
            line = _some_line(title, way)
            terms = Terms(procedure=procedure.version, tasks=tuple(Task))
            job = JobFacts(line=line, family=family.facts, card={}, scope=scope, terms=terms)
            checked(build(job), from_its_start=True)
            count += 1
    return count


def _some_line(family: str, connection: str) -> LineSpec:
    hub = {"connection": connection, "diameter_mm": 100.0, "length_mm": 60.0, "set_screws": 2}

    def machine(name: str) -> dict[str, object]:
        feet = [{"name": f"{name} {end}", "from_coupling_mm": x} for end, x in (("front", 200.0), ("rear", 500.0))]
        return {"name": name, "shaft_diameter_mm": 40.0, "feet": feet}

    return LineSpec.model_validate(
        {
            "driver": machine("driver"),
            "driven": machine("driven"),
            "coupling": {"family": family, "series": "any", "size": "any", "driver_hub": hub, "driven_hub": hub},
            "movable": "driver",
            "speed_rpm": 1500.0,
        }
    )
