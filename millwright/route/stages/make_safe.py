"""Stage 1, and the second proof before hands go in."""

from ...roles import Role
from ..steps import Field, JobFacts, SheetForm, Stage, Step


def steps(job: JobFacts) -> list[Step]:
    """Papers and protection, locks and tags, the try to start."""
    line = job.line
    points = tuple({"energy": p.energy, "point": p.point, "lock": "", "tag": "", "who": ""} for p in line.isolation_points)
    return [
        Step(
            key="safe.papers",
            stage=Stage.MAKE_SAFE,
            title="Read the papers and dress for the job",
            why="The maker's current manual and the plant's procedure decide. This app only keeps the order.",
            caution="Loose clothes, long hair, ties and rings stay away from shafts.",
            form=SheetForm(
                fields=(
                    Field(key="manual", kind="tick", label="The maker's current manual for this coupling is here"),
                    Field(key="rules", kind="tick", label="The plant's lock-out procedure for this line is read"),
                    Field(key="eyes", kind="tick", label="Eye protection on, everybody"),
                    Field(key="hands", kind="tick", label="Gloves for handling, chemical-proof ones for solvent"),
                    Field(key="clothes", kind="tick", label="No loose clothes, ties, rings; hair tied back"),
                )
            ),
        ),
        Step(
            key="safe.locks",
            stage=Stage.MAKE_SAFE,
            title="Lock and tag every energy source",
            why="Somebody else energises it, or a fault does. Each person hangs a lock of their own.",
            caution="Electric, hydraulic, stored load, belt tension, product in the machine: every source counts.",
            form=SheetForm(
                fields=(Field(key="all", kind="tick", label="Every energy source of both machines is in this list"),),
                rows=(
                    Field(key="energy", kind="text", label="Energy"),
                    Field(key="point", kind="text", label="Isolated at"),
                    Field(key="lock", kind="text", label="Lock"),
                    Field(key="tag", kind="text", label="Tag"),
                    Field(key="who", kind="text", label="Whose lock"),
                ),
                suggested_rows=points,
                row_name="isolation point",
            ),
        ),
        Step(
            key="safe.try",
            stage=Stage.MAKE_SAFE,
            title="Try to start, and prove it dead",
            why="A lock on the wrong circuit looks just like one on the right circuit.",
            caution="Clear of the shaft before anybody presses start.",
            after=("safe.papers", "safe.locks"),
            hold=Role.MILLWRIGHT,
            form=SheetForm(
                fields=(
                    Field(key="clear", kind="tick", label="Everybody clear of the shafts"),
                    Field(key="tried", kind="tick", label="Start tried at the local station and at the panel"),
                    Field(key="dead", kind="tick", label="It stayed dead, and was measured dead"),
                    Field(key="stored", kind="tick", label="Stored load, pressure and tension let off or blocked"),
                    Field(key="who", kind="text", label="Tried by"),
                )
            ),
            on_fail="It turned, or voltage is there: stop. Go back to the locks.",
        ),
    ]


def second_proof(after: tuple[str, ...], stage: Stage = Stage.PREPARE) -> Step:
    """Once more, just before hands go in: at the head of the stage in which they do."""
    return Step(
        key="prepare.dead",
        stage=stage,
        title="Try to start once more, before hands go in",
        why="Time has passed since the locks went on, and a break or a shift change may lie between.",
        after=after,
        form=SheetForm(
            fields=(
                Field(key="locks", kind="tick", label="Every lock still hangs, with its tag"),
                Field(key="tried", kind="tick", label="Tried to start again: it stayed dead"),
            )
        ),
        on_fail="Stop. Go back to the locks.",
    )
