"""Stage 7: torques again, tools out, guard on, locks off by their owners, start, signatures."""

from ...meaning import Meaning, Of, When
from ...roles import Role
from ...say import say
from ...scope import Scope
from ...verdict import Judged, said_by_hand
from .. import torques
from ..counts import back
from ..fields import Field, choice, condition, count, number, text, tick
from ..locks import FIRST_LOCKS, LOCK_AGAIN, LOCKS_OFF, RUNS_ROUGH, RUNS_SMOOTHLY, START
from ..order import Aside, Part, in_order
from ..steps import WITH_REASON, Answers, Fact, JobFacts, SheetForm, SignForm, Stage, Step
from . import closed_coupling, lock_out, receive, run_in, set_and_align
from .run_in import GUARD_SCREWS

CLOSING = "close.sign"  # the signature that closes a record
REASON = "close.why"
NOTHING_WRONG = "planned work, nothing wrong"
REASONS = (
    NOTHING_WRONG,
    "alignment",
    "balance",
    "soft foot",
    "lubrication",
    "wear",
    "loose fastener",
    "pipe strain",
    "something else",
)
WORK = frozenset({Fact.MACHINES, Fact.FEET, Fact.FIRST_HUB, Fact.SECOND_HUB, Fact.FASTENERS, Fact.LOCKED_AGAIN})
# Whatever is closed after the work comes again when there was work after it, or it was locked out again.
AFTER_THE_WORK = WORK | {Fact.SECOND_PULL}
# From the count on nothing may be in there that was counted out since.
COUNTED = AFTER_THE_WORK | {Fact.COUNTED_OUT}


def steps(job: JobFacts, *, torqued: tuple[Field, ...] | None, feet: bool = True) -> Part:
    """The release chain, in its order.

    ``torqued`` - screws to be pulled a second time; None where nothing was slackened
    ``feet``    - those as well, where the drive stands on any
    """
    again = (*(torqued or ()), *(_feet(job) if feet and torqued is not None else ()))
    pulled = [_second_pull(job, again)] if again else []
    finished = [_look_over(job)] if torqued is not None and job.couples else []
    dialled = job.couples and job.family.set_by == "dials"
    warm = [_read_warm(job)] if dialled and torqued is not None else []
    ahead, behind = run_in.steps(job) if torqued is not None else ([], [])
    return in_order(
        *ahead,
        *pulled,
        *finished,
        _count(job),
        Step(
            key="close.guard",
            means=(Meaning(of=Of.GUARD_ON),),
            stage=Stage.CLOSE,
            title="Fit the guard",
            why="The local code and the plant decide what guard. It goes on before any lock comes off.",
            relies=COUNTED,
            form=SheetForm(
                fields=(
                    *_guard_screws(job),
                    tick("fitted", "Guard fitted and fastened as the local code demands"),
                    tick("free", "Turned by hand: nothing touches"),
                )
            ),
        ),
        _locks_off(job),
        Step(
            key=START,
            means=(Meaning(of=Of.STARTED),),
            stage=Stage.CLOSE,
            title="Start it, watch and listen",
            why="It should run smoothly. Vibration is traced before it is handed over, not accepted.",
            caution="Behind the guard. Loose clothing and hair away.",
            hands_on=False,
            relies=COUNTED,
            counts_out=True,
            form=SheetForm(
                fields=(
                    number("speed_rpm", "Speed", "rpm"),
                    number("minutes", "Watched for", "min"),
                    tick("vibration", "Felt for vibration at the bearings"),
                    tick("heat", "Felt for heat; looked for rubbing and dust"),
                    *(job.family.watched if torqued is not None and job.scope is not Scope.BACKSTOP else ()),
                    choice("runs", "It", RUNS_SMOOTHLY, RUNS_ROUGH),
                    text("remarks", "Remarks", required=False),
                )
            ),
            judge=lambda job, answers: _judge_run(answers),
            on_fail="Alignment, balance, a loose bolt, the motor, the driven machine: find out which. Lock out again first.",
        ),
        *(Aside(step) for step in lock_out.lock_out_again(job)),
        *behind,
        *warm,
        *_signatures(job),
    )


def _feet(job: JobFacts) -> tuple[Field, ...]:
    if job.family.hangs:
        return ()
    return (torques.checked_again(job, "feet", set_and_align.feet_title(job), "foot_bolt_torque_nm"),)


def _second_pull(job: JobFacts, pulled: tuple[Field, ...]) -> Step:
    numbered = Field(key="wrench", kind="text", label="With wrench number", of_register="torque wrench")
    return Step(
        key="close.torque",
        means=(Meaning(of=Of.CHECKED_AGAIN),),
        stage=Stage.CLOSE,
        title="Check every torque a second time",
        why="A forgotten or slipped screw shows up here, or in service.",
        tool="calibrated torque wrench",
        relies=WORK,
        changes=frozenset({Fact.SECOND_PULL}),
        upsets=lambda job, answers: torques.upset_by(pulled, answers),
        judge=lambda job, answers: torques.judge_again(pulled, answers),
        form=SheetForm(fields=(*pulled, numbered)),
        on_fail="Pull it in its own step again, so that the record shows it.",
    )


def _look_over(job: JobFacts) -> Step:
    return Step(
        key="close.look",
        stage=Stage.CLOSE,
        title="Look over the finished coupling",
        why="Once the guard is on nobody sees it any more.",
        tool="torch, mirror",
        relies=WORK,
        form=SheetForm(
            fields=(
                condition("held", "Both halves held: keys, screws and devices seen once more"),
                *closed_coupling.looked_at(job),
                *job.family.finished,
                tick(
                    "line",
                    "A line drawn over each hub and its shaft",
                    "a hub that wanders shows it",
                    none_of="not asked for here",
                ),
            )
        ),
        on_fail="Correct it in its own step before the guard goes on.",
    )


def _guard_screws(job: JobFacts) -> tuple[Field, ...]:
    """Back on where they were counted off."""
    screws = back("screws", "Guard screws back", GUARD_SCREWS)(job)
    return (screws,) if screws.expected else ()


def _read_warm(job: JobFacts) -> Step:
    return Step(
        key="close.warm",
        means=(Meaning(of=Of.ALIGNMENT, when=When.AFTER_RUNNING),),
        stage=Stage.CLOSE,
        title="Read the alignment warm",
        why="It tells whether the machines grew as they were said to. Leave it out where nobody asks.",
        tool="the same dials, the same places; thermometer on the feet",
        caution="It runs: read behind the guard. For brackets on the shafts stop it and lock it out again first.",
        hands_on=False,
        optional=True,
        may_authorise=True,
        form=set_and_align.warm_form(job),
        on_fail="Put the growth of this line right, and align it cold to the new target.",
    )


def put_away(job: JobFacts) -> Part:
    """What closes a job that only took something off: counted, made safe to leave, signed."""
    return in_order(
        _count(job),
        Step(
            key="close.left",
            stage=Stage.CLOSE,
            title="Leave the machines as they may be left",
            why="Somebody starts a motor without its coupling, or trips over a bare shaft end.",
            form=SheetForm(
                fields=(
                    tick("covered", "Shaft ends covered, guard back on or the place fenced"),
                    tick("kept", "Parts tagged with job and line, and stored dry"),
                    choice("locks", "The locks", "stay on, handed over", "come off with their owners"),
                    text("to", "Handed over to"),
                )
            ),
        ),
        *_signatures(job),
    )


def _tools(job: JobFacts) -> Field:
    """As many as were laid out, where they were counted."""
    laid_out = job.answers.get(receive.TOOLS_OUT, {}).get("laid_out")
    label = "Every tool is back on the sheet it was laid out on"
    if not isinstance(laid_out, int):
        return tick("tools", label)
    return count("tools", f"{label}, counted", expected=laid_out, of="counted when they were laid out")


def _count(job: JobFacts) -> Step:
    return Step(
        key="close.count",
        stage=Stage.CLOSE,
        title="Count tools and temporary parts out",
        why="What stays on the shaft is thrown, or locks the coupling.",
        relies=COUNTED,
        counts_out=True,
        form=SheetForm(
            fields=(
                _tools(job),
                tick("rags", "Rags, packing, bars and dial brackets are off"),
                tick("scrap", "Scrapped parts are marked and set aside"),
            )
        ),
    )


def _locks_off(job: JobFacts) -> Step:
    last = LOCK_AGAIN if LOCK_AGAIN in job.answers else FIRST_LOCKS
    rows = job.answers.get(last, {}).get("rows", [])
    off = tuple(
        tick(f"lock_{i}", f"Lock {row['lock']} off, by {row['who']}", str(row["point"])) for i, row in enumerate(rows)
    )
    return Step(
        key=LOCKS_OFF,
        stage=Stage.CLOSE,
        title="Locks off, each by its owner",
        why="Nobody takes off a lock that is not theirs.",
        caution="Everybody clear, and told.",
        hands_on=False,
        relies=COUNTED,
        counts_out=True,
        changes=frozenset({Fact.LOCKS_OFF}),
        form=SheetForm(fields=(*off, tick("told", "Everybody told that it will start"))),
    )


def _why(job: JobFacts) -> list[Step]:
    """What was found, and why: asked since it is compared over the years."""
    if job.terms.edition < WITH_REASON:
        return []
    return [
        Step(
            key=REASON,
            means=(Meaning(of=Of.REASON),),
            stage=Stage.CLOSE,
            title="Say what was found, and why",
            why="What comes back on a line is seen only where its reason was noted each time.",
            hands_on=False,
            form=SheetForm(
                fields=(
                    choice("cause", "What it came from", *REASONS, detail="the main one; what else there was goes below"),
                    text("found", "What was found", required=False),
                )
            ),
        )
    ]


def _signatures(job: JobFacts) -> list[Step]:
    return [
        *_why(job),
        Step(
            key="close.hand",
            stage=Stage.CLOSE,
            title="Sign: the work was done as recorded",
            why="The millwright who did it signs for it.",
            hands_on=False,
            hold=Role.MILLWRIGHT,
            form=SignForm(),
        ),
        Step(
            key=CLOSING,
            stage=Stage.CLOSE,
            title="Sign: the record is closed",
            why="The record is closed. What is found later goes into a note or a new job.",
            hands_on=False,
            hold=Role.LEAD,
            form=SignForm(),
        ),
    ]


def _judge_run(answers: Answers) -> Judged:
    if answers.get("runs") != RUNS_ROUGH:
        return [], []
    check = said_by_hand("runs", "runs", "the person who watched it", in_order=False)
    text = "Not handed over until the cause is found: alignment, balance, a loose bolt, motor, machine."
    return [check], [say("runs_rough", text)]
