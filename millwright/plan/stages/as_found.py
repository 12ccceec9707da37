"""Jobs that mount nothing: the coupling looked at and measured as found, and brought into line where it is out."""

from collections.abc import Collection, Mapping
from dataclasses import replace

from ...meaning import Meaning, Of, When
from ...scope import Scope
from ..fields import REMOVED, choice, condition, out, text, tick
from ..order import Part, any_order, in_order
from ..steps import JobFacts, SheetForm, Stage, Step
from . import closed_coupling, run_in, set_and_align
from .set_by import by_air_gap

CLOSED, OPENED = "stays closed", "is opened"
LOOK = "found.look"
# What a job leaves behind, for a later one on its line to compare with: what was read last, as left or as found.
LEFT_BEHIND: Mapping[Of, Collection[When]] = {
    Of.ALIGNMENT: (When.FOUND, When.LEFT),
    Of.CLOSED_GAP: (When.FOUND, When.LEFT),
    Of.ELEMENT_OUT: (When.FOUND,),
    Of.WEAR_MARK: (When.LEFT,),
    Of.GREASE: (When.LEFT,),
}


def look_over(job: JobFacts) -> Step:
    """The guard off, and what is seen before anything is touched."""
    aligns = job.scope is Scope.ALIGN
    return Step(
        key=LOOK,
        means=(Meaning(of=Of.LOOKED_OVER, when=When.FOUND),),
        stage=Stage.FOUND,
        title="Take the guard off and look",
        why="Dust, oil and loose bolts tell more than a number, and are wiped away with the first rag.",
        tool="torch, marker, camera",
        caution="Marks and dust stay where they are until they are noted.",
        form=SheetForm(
            fields=(
                tick("guard", "Guard off"),
                out("guard_screws", "Guard screws, put into a marked box", run_in.GUARD_SCREWS, REMOVED),
                condition("element", "Coupling: no cracks, rubber or metal dust, grease, rubbing"),
                *closed_coupling.looked_at(job),
                condition("bolts", "Bolts and set screws: none loose, none missing"),
                condition("base", "Feet, shims and base: none loose, cracked or rusted through"),
                *(
                    [
                        choice(
                            "coupling",
                            "While it is aligned the coupling",
                            CLOSED,
                            OPENED,
                            detail="opened where the maker asks for the element out, or where a reading cannot be taken",
                        )
                    ]
                    if aligns and not by_air_gap(job)
                    else []
                ),
                text("seen", "What was seen", required=False),
            )
        ),
        on_fail="Note it here. A damaged part is a job of its own: take it off and fit it.",
        finding=job.scope is Scope.ELEMENT,
        may_authorise=True,
    )


def as_found(job: JobFacts, own: Part) -> Part:
    """Guard off and looked at, the closed coupling measured, the alignment read; held against what was left.

    ``own`` - what the family reads beside it
    """
    check, aligns = job.scope is Scope.CHECK, job.scope is Scope.ALIGN
    look = look_over(job)
    if job.family.hangs:
        return look
    measured = closed_coupling.as_found(job)
    read = replace(alignment_read(job), optional=bool(measured) if check else not aligns, finding=not check)
    if not check:
        return in_order(look, any_order(own, *(replace(step, finding=True, optional=True) for step in measured), read))
    fails = "Start a job that aligns it; or the lead accepts it until then, and says why."
    judged = [replace(step, on_fail=fails) for step in (*measured, read)]
    return in_order(look, any_order(own, *judged))


def alignment_read(job: JobFacts) -> Step:
    """The alignment before anything is touched, beside what was left."""
    return replace(set_and_align.read_as_found(job), key="found.align", stage=Stage.FOUND)


def opened(job: JobFacts) -> bool:
    """The coupling is taken apart for aligning, and put together again by the family's own steps."""
    return job.answers.get(LOOK, {}).get("coupling") == OPENED


def aligned_closed(job: JobFacts) -> Part:
    """Brought into line with the coupling closed, the feet torqued, read again, and measured closed."""
    set_anew = set_and_align.steps(job, hidden=True)
    return in_order(set_anew, *set_and_align.bolted_down(job), *closed_coupling.steps(job))
