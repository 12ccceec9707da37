"""The registry of benches: name → what it answers, its input and result, and the function. Add a bench here."""

import json
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

from .. import clock
from ..errors import Problem, UnusableInput
from ..model import Model, read_json
from ..verdict import Result
from . import backstop, fit, fitted, grease, jack, key, softfoot, straightedge, torque_arm
from .airgap import evaluate as airgap
from .airgap import io as airgap_io
from .alignment import evaluate as alignment
from .alignment import io as alignment_io
from .gap import evaluate as gap
from .gap import io as gap_io
from .heat import evaluate as heat
from .heat import io as heat_io
from .runout import evaluate as runout
from .taper import evaluate as taper
from .tighten import evaluate as tighten
from .tighten import io as tighten_io
from .wear import evaluate as wear
from .wear import io as wear_io


@dataclass(frozen=True, kw_only=True)
class Bench:
    """One piece of the job's computation."""

    name: str
    answers: str
    input: type[Model]
    result: type[Result]
    evaluate: Callable[[Any], Result]


def _bench(name: str, answers: str, given: type[Model], result: type[Result], run: Callable[[Any], Result]) -> Bench:
    return Bench(name=name, answers=answers, input=given, result=result, evaluate=run)


BENCHES: dict[str, Bench] = {
    bench.name: bench
    for bench in (
        _bench("clock", "a sine round the clock", clock.ClockInput, clock.ClockResult, clock.evaluate),
        _bench("fit", "shaft against bore", fit.FitInput, fit.FitResult, fit.evaluate),
        _bench("key", "key against keyways", key.KeyInput, key.KeyResult, key.evaluate),
        _bench("heat", "how hot, how long, how quick", heat_io.HeatInput, heat_io.HeatResult, heat.evaluate),
        _bench("taper", "taper match, blue contact and draw-up", taper.TaperInput, taper.TaperResult, taper.evaluate),
        _bench("runout", "run-out and its high spot", runout.RunoutInput, runout.RunoutResult, runout.evaluate),
        _bench("softfoot", "soft foot", softfoot.SoftFootInput, softfoot.SoftFootResult, softfoot.evaluate),
        _bench("gap", "gap between hub faces", gap_io.GapInput, gap_io.GapResult, gap.evaluate),
        _bench(
            "straightedge",
            "offset by straightedge and feelers",
            straightedge.StraightedgeInput,
            straightedge.StraightedgeResult,
            straightedge.evaluate,
        ),
        _bench(
            "alignment",
            "offset, angle and moves from dials or a laser",
            alignment_io.AlignmentInput,
            alignment_io.AlignmentResult,
            alignment.evaluate,
        ),
        _bench("jack", "what is left to go at each foot while it is moved", jack.JackInput, jack.JackResult, jack.evaluate),
        _bench(
            "tighten",
            "bolts in order and in passes",
            tighten_io.TightenInput,
            tighten_io.TightenResult,
            tighten.evaluate,
        ),
        _bench("fitted", "close-fit bolts drawn in, hole by hole", fitted.FittedInput, fitted.FittedResult, fitted.evaluate),
        _bench(
            "airgap",
            "air gaps of a magnetic drive, and the move that evens them",
            airgap_io.AirGapInput,
            airgap_io.AirGapResult,
            airgap.evaluate,
        ),
        _bench(
            "backstop",
            "which way the shaft of a backstop turns",
            backstop.BackstopInput,
            backstop.BackstopResult,
            backstop.evaluate,
        ),
        _bench(
            "torque_arm",
            "how square a torque arm is, and the force on its anchor",
            torque_arm.ArmInput,
            torque_arm.ArmResult,
            torque_arm.evaluate,
        ),
        _bench("wear", "when what wears or drifts is at its limit", wear_io.WearInput, wear_io.WearResult, wear.evaluate),
        _bench("grease", "grease into a coupling, hole by hole", grease.GreaseInput, grease.GreaseResult, grease.evaluate),
    )
}


def find(name: str) -> Bench:
    """The bench of that name; `UnusableInput` where there is none."""
    if name not in BENCHES:
        raise UnusableInput(Problem("bench", f"No bench is called {name}. There are: {', '.join(BENCHES)}."))
    return BENCHES[name]


def evaluate_json(name: str, text: str | bytes) -> Result:
    """Read JSON, evaluate. Raises `UnusableInput` with every problem found."""
    bench = find(name)
    return bench.evaluate(read_json(bench.input, text))


def in_order(name: str, inputs: Mapping[str, Any]) -> Mapping[str, Any]:
    """Inputs with their names in the bench's own order; as they are where this bench would not take them any more."""
    try:
        given = read_json(find(name).input, json.dumps(inputs))
    except UnusableInput:
        return inputs
    return given.model_dump(mode="json", by_alias=True, exclude_unset=True)


def as_dict(result: Result) -> dict[str, Any]:
    """A result as plain JSON types, under the contract's names."""
    return result.model_dump(mode="json", by_alias=True)
