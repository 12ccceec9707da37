"""Coupling up by the family's own list: feet and reading, what goes together in which order, the coupling's bolts."""

from . import torques
from .stages import closed_coupling, set_and_align
from .steps import BenchForm, Field, JobFacts, SheetForm, Stage, Step

COUNT, TORQUE = "flange_bolts", "flange_bolt_torque_nm"


def couple_up(job: JobFacts) -> list[Step]:
    """What the family's list says, between the machines' last reading and the coupling's bolts."""
    family = job.family
    down = [] if family.hangs else set_and_align.bolted_down(job)
    together = Step(
        key="couple.assemble",
        stage=Stage.COUPLE,
        title=f"Assemble the {family.title[0].lower()}{family.title[1:]}",
        why="In this order. The maker's manual for this size goes before every line of it.",
        caution=family.trap,
        after=(down[-1].key,) if down else (),
        form=SheetForm(
            fields=(
                *(Field(key=part.key, kind="tick", label=part.title, detail=part.look_for) for part in family.assemble),
                Field(key="manual", kind="tick", label="Assembled as the maker's manual for this size says"),
                Field(key="remarks", kind="text", label="Marks, numbers, what was done otherwise", required=False),
            )
        ),
        on_fail="Take it apart as far as needed and put it right before a bolt is tightened.",
    )
    bolted = flange_bolts(job, together.key) if family.bolts else []
    return [*down, together, *bolted, *closed_coupling.steps(job, (bolted or [together])[-1].key)]


def flange_bolts(job: JobFacts, after: str) -> list[Step]:
    """The coupling's own bolts, in the order and passes of its family."""
    scheme = job.family.bolts
    count = round(job.card[COUNT].value) if COUNT in job.card else 0
    preset = (
        torques.bolts_preset(job, TORQUE, count, passes=scheme.passes, pattern=scheme.pattern) if scheme and count else {}
    )
    return [
        Step(
            key="couple.flange",
            stage=Stage.COUPLE,
            title="Torque the bolts of the coupling",
            why="In their order and in rising passes, so that it closes evenly.",
            tool="torque wrench in calibration, second spanner on the head",
            caution=f"{torques.thread_words(job, TORQUE)} All bolts in and hand tight first.".strip(),
            after=(after,),
            needs=(COUNT, TORQUE),
            may_authorise=True,
            form=BenchForm(bench="tighten", preset=preset),
            on_fail="Slacken the bolt that is off and pull it again in its turn.",
        )
    ]


def recheck(job: JobFacts) -> tuple[Field, ...]:
    """The coupling's bolts once more before release."""
    if job.family.bolts is None:
        return ()
    detail = torques.torque_words(job, TORQUE)
    return (
        Field(key="flange", kind="condition", label="Bolts of the coupling", detail=detail),
        *closed_coupling.looked_at(job),
    )
