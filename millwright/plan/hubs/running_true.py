"""Running true: the bare shafts before anything is fitted, the hub half tight, and the hub again when it is tight."""

from typing import Any

from ...card.values import source_of
from ...line import Side
from ...meaning import Meaning, Of, When
from ...say import mm, say
from ...verdict import Judged
from ..fields import condition, length
from ..steps import Answers, BenchForm, JobFacts, SheetForm, Stage, Step

SHAFT, HUB = "shaft_runout_mm", "hub_runout_mm"


def bare_shaft(job: JobFacts, side: Side, *, wanted: bool) -> list[Step]:
    """Run-out and end play of a bare shaft; where nobody lists a limit for it and none is ``wanted``, they are offered."""
    name, offered = job.line.machine(side).called, not wanted and SHAFT not in job.card
    return [
        Step(
            key=f"prepare.shaft.{side}",
            means=(Meaning(of=Of.RUN_OUT, when=When.FOUND, at=side),),
            stage=Stage.PREPARE,
            title=f"Dial the bare shaft, {name}",
            why="A bent shaft or a loose bearing is blamed on the coupling later.",
            tool="dial gauge on the shaft where the hub will sit, and a second place along it",
            caution="Turn it by hand only.",
            needs=() if offered else (SHAFT,),
            judged_by=(SHAFT,) if offered else (),
            optional=offered,
            may_authorise=True,
            form=BenchForm(bench="runout", preset={**_limit(job, SHAFT), "stage": "bare shaft"}),
            on_fail="Clean it and read again. If it stays: the machine goes to whoever repairs it, not to the coupling.",
        ),
        Step(
            key=f"prepare.play.{side}",
            stage=Stage.PREPARE,
            title=f"Measure the end play, {name} shaft",
            why="A shaft that floats shifts the gap; a loose bearing spoils every reading after it.",
            tool="dial gauge on the shaft end, pushed and pulled",
            optional=offered,
            form=SheetForm(
                fields=(
                    length("play_mm", "End play, pushed to pulled"),
                    condition("bearing", "Bearing", "no knock, no play up and down"),
                )
            ),
            judge=lambda job, answers: _judge_play(answers),
            on_fail="Find the bearing's fault before a hub goes on.",
        ),
    ]


def half_tight(job: JobFacts, side: Side) -> Step:
    """The hub dialled while it can still be tapped true."""
    name = job.line.machine(side).called
    return Step(
        key=f"mount.true.{side}",
        means=(Meaning(of=Of.RUN_OUT, when=When.ON_THE_WAY, at=side),),
        stage=Stage.MOUNT,
        title=f"Tap the {name} hub true",
        why="After the final torque it cannot be tapped true any more.",
        tool="dial gauge on rim and face, soft mallet",
        caution="Soft mallet only, on the hub's edge. Turn it by hand.",
        needs=(HUB,),
        relies=frozenset({job.hub_fact(side)}),
        may_authorise=True,
        form=BenchForm(bench="runout", preset={**_limit(job, HUB), "stage": "half tight", "must_have": ["face"]}),
        on_fail="High spot to 12, one blow from above, read again. It takes a few rounds.",
    )


def tight(job: JobFacts, side: Side, *, wanted: bool, face: bool = False) -> list[Step]:
    """The hub dialled when it is tight; where nobody lists a limit for it, only if ``wanted``."""
    if not wanted and HUB not in job.card:
        return []
    before = job.answers.get(f"mount.true.{side}", {}).get("readings")
    return [
        Step(
            key=runout_step(side),
            stage=Stage.MOUNT,
            title=f"Dial the {job.line.machine(side).called} hub, tight",
            why="Tightening shifts a hub. This is the reading that is left behind.",
            tool="dial gauge, at the same places",
            caution="Turn it by hand only.",
            needs=(HUB,),
            relies=frozenset({job.hub_fact(side)}),
            may_authorise=True,
            form=BenchForm(
                bench="runout",
                preset={**_limit(job, HUB), "stage": "tight", **({"must_have": ["face"]} if face else {})},
                compare={"before": before} if before else {},
            ),
            on_fail="Read beside it on the shaft as well: a shaft that runs out takes the hub with it. "
            "A hub that was drawn crooked comes off and on again.",
        )
    ]


FLOATS_MM = 0.5  # rule of thumb


def runout_step(side: Side) -> str:
    """The key of the step that dials a mounted hub."""
    return f"mount.runout.{side}"


def _limit(job: JobFacts, key: str) -> dict[str, Any]:
    if key not in job.card:
        return {}
    at = f", at {job.line.speed_rpm:g} rpm" if job.card[key].up_to else ""
    return {"limit_mm": job.limit(key), "limit_source": source_of(job.card, key) + at}


def _judge_play(answers: Answers) -> Judged:
    play = answers.get("play_mm")
    if isinstance(play, int | float) and play > FLOATS_MM:
        text = "It floats {play}: set the gap with the shaft in the middle of that. (Rule of thumb: over {over}.)"
        return [], [say("floats", text, play=mm(play, None), over=mm(FLOATS_MM, None))]
    return [], []
