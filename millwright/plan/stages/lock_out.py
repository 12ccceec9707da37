"""Stage 1, and the second proof before hands go in."""

from ...meaning import Meaning, Of
from ...roles import Role
from ..fields import choice, text, tick
from ..locks import FIRST_LOCKS, FIRST_PROOF, LOCK_AGAIN, PROOF, RUNS_ROUGH, START
from ..order import Part, any_order, in_order
from ..steps import Fact, JobFacts, SheetForm, Stage, Step

LOCK_ROWS = (
    text("energy", "Energy"),
    text("point", "Isolated at"),
    text("lock", "Lock"),
    text("tag", "Tag"),
    text("who", "Whose lock"),
)
NO_LOCK = {column.key: "" for column in LOCK_ROWS}
PROVED_DEAD = (
    tick("clear", "Everybody clear of the shafts"),
    tick("tried", "Start tried at the local station and at the panel"),
    tick("dead", "It stayed dead, and was measured dead"),
    tick("stored", "Stored load, pressure and tension let off or blocked"),
)
NOT_DEAD = "It turned, or voltage is there: stop. Go back to the locks."


def steps(job: JobFacts) -> Part:
    """Papers and protection, locks and tags, the try to start."""
    line = job.line
    points = tuple(NO_LOCK | {"energy": p.energy, "point": p.point} for p in line.isolation_points)
    papers, locks, tried = (
        Step(
            key="safe.papers",
            means=(Meaning(of=Of.DOCUMENTS),),
            hands_on=False,
            stage=Stage.LOCK_OUT,
            title="Read the documents and dress for the job",
            why="The maker's current manual and the plant's procedure decide. This app only keeps the order.",
            caution="Loose clothes, long hair, ties and rings stay away from shafts.",
            form=SheetForm(
                fields=(
                    tick("manual", "The maker's current manual for this coupling is here"),
                    tick("rules", "The plant's lock-out procedure for this line is read"),
                    tick("eyes", "Eye protection on, everybody"),
                    tick("hands", "Gloves for handling, chemical-proof ones for solvent"),
                    tick("clothes", "No loose clothes, ties, rings; hair tied back"),
                )
            ),
        ),
        Step(
            key=FIRST_LOCKS,
            means=(Meaning(of=Of.LOCKED_OUT),),
            hands_on=False,
            stage=Stage.LOCK_OUT,
            title="Lock and tag every energy source",
            why="Somebody else energises it, or a fault does. Each person hangs a lock of their own.",
            caution="Electric, hydraulic, stored load, belt tension, product in the machine: every source counts.",
            photograph="each lock with its tag",
            form=SheetForm(
                fields=(tick("all", "Every energy source of both machines is in this list"),),
                rows=LOCK_ROWS,
                suggested_rows=points,
                row_name="isolation point",
            ),
        ),
        Step(
            key=FIRST_PROOF,
            hands_on=False,
            stage=Stage.LOCK_OUT,
            title="Try to start, and prove it dead",
            why="A lock on the wrong circuit looks just like one on the right circuit.",
            caution="Clear of the shaft before anybody presses start.",
            hold=Role.MILLWRIGHT,
            form=SheetForm(
                fields=(*PROVED_DEAD, text("who", "Tried by")),
            ),
            on_fail=NOT_DEAD,
        ),
    )
    return in_order(any_order(papers, locks), tried)


def second_proof(stage: Stage = Stage.PREPARE) -> Step:
    """Once more, just before hands go in; and again after a break, a hand-over, or as many hours as the site allows."""
    return Step(
        key=PROOF,
        stage=stage,
        title="Try to start once more, before hands go in",
        why="Time has passed since the locks went on, and a break or a shift change may lie between.",
        hands_on=False,
        form=SheetForm(
            fields=(
                tick("locks", "Every lock still hangs, with its tag"),
                tick("tried", "Tried to start again: it stayed dead"),
            )
        ),
        on_fail="Stop. Go back to the locks.",
    )


CAUSES = (
    "alignment",
    "balance",
    "a loose bolt or screw",
    "the coupling",
    "the motor",
    "the driven machine",
    "a soft foot",
    "pipe strain",
    "not found yet",
)


def lock_out_again(job: JobFacts) -> list[Step]:
    """After a start, before anybody has hands on the machine again; only once the locks came off."""
    if not job.locks.live and LOCK_AGAIN not in job.answers:
        return []
    before = job.answers.get(FIRST_LOCKS, {}).get("rows") or (NO_LOCK,)
    points = tuple(NO_LOCK | {"energy": row["energy"], "point": row["point"]} for row in before)
    shook = job.answers.get(START, {}).get("runs") == RUNS_ROUGH
    return [
        Step(
            key=LOCK_AGAIN,
            stage=Stage.CLOSE,
            title="Lock it out again and prove it dead",
            why="It has been alive. What was locked before counts no more, and what is closed after the work comes again.",
            caution="Stopped, run down, everybody clear before anybody presses start.",
            hold=Role.MILLWRIGHT,
            hands_on=False,
            relies=frozenset({Fact.LOCKS_OFF}),
            changes=frozenset({Fact.LOCKED_AGAIN}),
            form=SheetForm(
                fields=(
                    tick("all", "Every energy source is locked again, each person's own lock on it"),
                    *PROVED_DEAD,
                    *([choice("cause", "It ran rough because of", *CAUSES)] if shook else []),
                    text("what", "What is to be done", required=shook),
                ),
                rows=LOCK_ROWS,
                suggested_rows=points,
                row_name="isolation point",
            ),
            on_fail=NOT_DEAD,
        )
    ]
