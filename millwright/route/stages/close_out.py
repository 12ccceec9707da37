"""Stage 7: torques again, tools out, guard on, locks off by their owners, start, signatures."""

from ...roles import Role
from ...verdict import Check, said_by_hand
from .. import torques
from ..steps import Answers, Field, JobFacts, SheetForm, SignForm, Stage, Step
from . import set_and_align

CLOSING = "close.sign"  # the signature that closes a record
RUNS = ("runs smoothly", "vibration, noise or heat: find out why")


def steps(job: JobFacts, after: tuple[str, ...], *, torqued: tuple[Field, ...] | None) -> list[Step]:
    """The release chain, in its order.

    ``after``   - the steps that end the work before it
    ``torqued`` - screws to be pulled a second time, besides the feet; None where nothing was slackened
    """
    pulled = [] if torqued is None else [_second_pull(job, after, torqued)]
    warm = [] if job.family.hangs or torqued is None else [_read_warm(job)]
    return [
        *pulled,
        _count(*([step.key for step in pulled] or after)),
        Step(
            key="close.guard",
            stage=Stage.CLOSE,
            title="Fit the guard",
            why="The local code and the plant decide what guard. It goes on before any lock comes off.",
            after=("close.count",),
            form=SheetForm(
                fields=(
                    Field(key="fitted", kind="tick", label="Guard fitted and fastened as the local code demands"),
                    Field(key="free", kind="tick", label="Turned by hand: nothing touches"),
                )
            ),
        ),
        _locks_off(job, "close.guard"),
        Step(
            key="close.start",
            stage=Stage.CLOSE,
            title="Start it, watch and listen",
            why="It should run smoothly. Vibration is traced before it is handed over, not accepted.",
            caution="Behind the guard. Loose clothing and hair away.",
            after=("close.locks",),
            form=SheetForm(
                fields=(
                    Field(key="speed_rpm", kind="number", label="Speed", unit="rpm"),
                    Field(key="minutes", kind="number", label="Watched for", unit="min"),
                    Field(key="vibration", kind="tick", label="Felt for vibration at the bearings"),
                    Field(key="heat", kind="tick", label="Felt for heat; looked for rubbing and dust"),
                    Field(key="runs", kind="choice", label="It", options=RUNS),
                    Field(key="remarks", kind="text", label="Remarks", required=False),
                )
            ),
            judge=_judge_run,
            on_fail="Alignment, balance, a loose bolt, the motor, the driven machine: find out which. Lock out again first.",
        ),
        *warm,
        *_signatures("close.start"),
    ]


def _second_pull(job: JobFacts, after: tuple[str, ...], screws: tuple[Field, ...]) -> Step:
    movable = job.line.machine(job.line.movable).called
    feet = (
        []
        if job.family.hangs
        else [
            Field(
                key="feet",
                kind="condition",
                label=f"Foot bolts, {movable}",
                detail=torques.torque_words(job, "foot_bolt_torque_nm"),
            )
        ]
    )
    return Step(
        key="close.torque",
        stage=Stage.CLOSE,
        title="Check every torque a second time",
        why="A forgotten or slipped screw shows up here, or in service.",
        tool="calibrated torque wrench",
        after=after,
        form=SheetForm(
            fields=(
                *screws,
                *feet,
                Field(key="wrench", kind="text", label="With wrench number"),
            )
        ),
        on_fail="Pull the screw in its own step again, so that the record shows it.",
    )


def _read_warm(job: JobFacts) -> Step:
    return Step(
        key="close.warm",
        stage=Stage.CLOSE,
        title="Read the alignment warm",
        why="It tells whether the machines grew as they were said to. Leave it out where nobody asks.",
        tool="the same dials, the same places; thermometer on the feet",
        caution="Stop it and lock it out again first. Hot surfaces. Read at once: it cools and moves.",
        after=("close.start",),
        optional=True,
        may_authorise=True,
        form=set_and_align.warm_form(job),
        on_fail="Put the growth of this line right, and align it cold to the new target.",
    )


def put_away(job: JobFacts, after: str) -> list[Step]:
    """What closes a job that only took something off: counted, made safe to leave, signed."""
    return [
        _count(after),
        Step(
            key="close.left",
            stage=Stage.CLOSE,
            title="Leave the machines as they may be left",
            why="Somebody starts a motor without its coupling, or trips over a bare shaft end.",
            after=("close.count",),
            form=SheetForm(
                fields=(
                    Field(key="covered", kind="tick", label="Shaft ends covered, guard back on or the place fenced"),
                    Field(key="kept", kind="tick", label="Parts tagged with job and line, and stored dry"),
                    Field(
                        key="locks",
                        kind="choice",
                        label="The locks",
                        options=("stay on, handed over", "come off with their owners"),
                    ),
                    Field(key="to", kind="text", label="Handed over to"),
                )
            ),
        ),
        *_signatures("close.left"),
    ]


def _count(*after: str) -> Step:
    return Step(
        key="close.count",
        stage=Stage.CLOSE,
        title="Count tools and temporary parts out",
        why="What stays on the shaft is thrown, or locks the coupling.",
        after=after,
        form=SheetForm(
            fields=(
                Field(key="tools", kind="tick", label="Every tool is back on the sheet it was laid out on"),
                Field(key="rags", kind="tick", label="Rags, packing, bars and dial brackets are off"),
                Field(key="ledger", kind="tick", label="Every line of the ledger is closed"),
                Field(key="scrap", kind="tick", label="Scrapped parts are marked and set aside"),
            )
        ),
    )


def _locks_off(job: JobFacts, after: str) -> Step:
    rows = job.answers.get("safe.locks", {}).get("rows", [])
    off = tuple(
        Field(key=f"lock_{i}", kind="tick", label=f"Lock {row['lock']} off, by {row['who']}", detail=str(row["point"]))
        for i, row in enumerate(rows)
    )
    return Step(
        key="close.locks",
        stage=Stage.CLOSE,
        title="Locks off, each by its owner",
        why="Nobody takes off a lock that is not theirs.",
        caution="Everybody clear, and told.",
        after=(after,),
        form=SheetForm(fields=(*off, Field(key="told", kind="tick", label="Everybody told that it will start"))),
    )


def _signatures(after: str) -> list[Step]:
    return [
        Step(
            key="close.hand",
            stage=Stage.CLOSE,
            title="Sign: the work was done as recorded",
            why="The millwright who did it signs for it.",
            after=(after,),
            hold=Role.MILLWRIGHT,
            form=SignForm(),
        ),
        Step(
            key=CLOSING,
            stage=Stage.CLOSE,
            title="Sign: the record is closed",
            why="The record is closed as it stands. What is found later goes into a note or a new job.",
            after=("close.hand",),
            hold=Role.LEAD,
            form=SignForm(),
        ),
    ]


def _judge_run(answers: Answers) -> tuple[list[Check], list[str]]:
    if answers.get("runs") != RUNS[1]:
        return [], []
    check = said_by_hand("runs", "the person who watched it", in_order=False)
    return [check], ["Not handed over until the cause is found: alignment, balance, a loose bolt, motor, machine."]
