"""A stand-in laser pair with a gateway: sweeps simulated shafts and streams what its two planes show, as a real one would.

It signs in like anybody and streams JSON lines through the door that docs/formats.md describes, into the step where the
machines are aligned. The shafts it reads follow the moves that are recorded, so that a move can be made and read again.
"""

import json
import random
import sys
import time
from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any

sys.path.insert(0, str(Path(__file__).resolve().parent.parent))

from millwright.benches.alignment.axis import Line
from millwright.benches.alignment.expected import after_moves
from millwright.benches.alignment.feet import Foot
from millwright.benches.alignment.moves import PlannedMove
from millwright.rig.machine import Bracket, Gauge, TrueShafts
from scripts.gateway import Gateway, arguments, run

AS_FOUND = Line(offset_v_mm=-0.18, slope_v_mm_per_m=0.42, offset_h_mm=0.11, slope_h_mm_per_m=-0.25)
WATCHED = 6  # readings of each plane in a batch, heads standing still
STEPS = ("set.align", "couple.align", "off.align", "found.align", "close.warm")


def find_step(job: dict[str, Any]) -> str:
    """Where the job is aligned now."""
    open_steps = [s["key"] for s in job["steps"] if s["key"] in STEPS and not s["blocked_by"] and s["state"] != "done"]
    if not open_steps:
        raise SystemExit("Nothing is to be aligned in this job now.")
    return str(open_steps[0])


def feet_of(job: dict[str, Any], step: str) -> tuple[list[Foot], list[Foot]]:
    """Feet of the stationary and of the movable machine, as the step has them."""
    preset = next(s["form"]["preset"] for s in job["steps"] if s["key"] == step)
    stationary, movable = ([Foot.model_validate(f) for f in preset[m]] for m in ("stationary_feet", "movable_feet"))
    return stationary, movable


def true_axis(job: dict[str, Any], step: str) -> Line:
    """Where the movable shaft truly lies now: as found, and every move made since."""
    stationary, movable = feet_of(job, step)
    axis = AS_FOUND
    for entry in job["entries"]:
        if entry["kind"] == "move":
            moves = [
                PlannedMove(name=f["name"], machine="", shim_mm=float(f["shim_mm"]), slide_mm=float(f["slide_mm"]))
                for f in entry["inputs"]["feet"]
            ]
            axis = after_moves(axis, stationary, movable, moves)
    return axis


SHARP = Gauge(resolution_mm=0.001, scatter_mm=0.004)


@dataclass(frozen=True, kw_only=True)
class Pair:
    """The two heads: how far their planes stand from the coupling, and how well they show."""

    from_coupling_mm: float = 100.0
    gauge: Gauge = SHARP
    chance: random.Random

    @property
    def planes(self) -> list[Bracket]:
        """On the movable shaft, then on the stationary one."""
        return [Bracket(kind="rim", on="stationary", x_mm=x) for x in (self.from_coupling_mm, -self.from_coupling_mm)]

    def lines_at(self, axis: Line, clocks: Sequence[float]) -> str:
        """Both planes at these places, as JSON lines."""
        first_seq = time.time_ns() // 1_000_000 * 100
        shafts = TrueShafts(**{name: getattr(axis, name) for name in Line.__dataclass_fields__})
        rows = [
            {
                "device": "Stand-in laser",
                "seq": first_seq + 2 * i + plane,
                "plane": plane,
                "clock": round(clock % 360, 2),
                "value_mm": round(self.gauge.shows(bracket.sees_mm(shafts, clock), self.chance), 5),
            }
            for i, clock in enumerate(clocks)
            for plane, bracket in enumerate(self.planes)
        ]
        return "\n".join(json.dumps(row) for row in rows)


def sweep_once(gateway: Gateway, line: str, pair: Pair, arc_deg: float, readings: int, seconds: float) -> int:
    """One sweep over an arc, in batches; how many readings were taken."""
    job = gateway.job_of(line)
    step = find_step(job)
    axis, taken = true_axis(job, step), 0
    start, batches = pair.chance.uniform(0, 360), max(1, min(readings, round(seconds / 0.4)))
    for batch in range(batches):
        places = range(batch * readings // batches, (batch + 1) * readings // batches)
        clocks = [start + arc_deg * place / max(readings - 1, 1) for place in places]
        answer = gateway.ask("POST", f"/api/jobs/{job['id']}/streams/{step}", pair.lines_at(axis, clocks))
        taken += answer["taken"]
        print(f"{clocks[-1] % 360:5.0f}°  {taken} readings", flush=True)
        time.sleep(seconds / batches)
    return taken


def watch_a_slide(gateway: Gateway, line: str, pair: Pair, seconds: float) -> int:
    """Heads left standing at 3 o'clock while the machine is slid to where it belongs; how many readings were taken."""
    job = gateway.job_of(line)
    step = find_step(job)
    was, taken = true_axis(job, step), 0
    _, movable = feet_of(job, step)
    slides = {foot.name: -was.h_mm(foot.x_mm) for foot in movable}
    batches = max(3, round(seconds / 0.5))
    for batch in range(batches + 1):
        share = min(batch / (batches - 2), 1.0)
        moves = [PlannedMove(name=n, machine="", shim_mm=0.0, slide_mm=mm * share) for n, mm in slides.items()]
        lines = pair.lines_at(after_moves(was, [], movable, moves), [90.0] * WATCHED)
        taken += gateway.ask("POST", f"/api/jobs/{job['id']}/streams/{step}", lines)["taken"]
        print(f"slid {share:4.0%}", flush=True)
        time.sleep(seconds / batches)
    return taken


def main() -> None:
    """Command line."""
    parser = arguments("laser", (__doc__ or "").splitlines()[0], "Steep aeration blower 2")
    parser.add_argument("--arc", type=float, default=200.0, help="how far the shafts are turned, degrees")
    parser.add_argument("--readings", type=int, default=60, help="readings of each plane in a sweep")
    parser.add_argument("--seconds", type=float, default=8.0, help="how long the sweep takes")
    parser.add_argument("--from-coupling", type=float, default=Pair.from_coupling_mm, help="where its two planes stand, mm")
    parser.add_argument("--slide", action="store_true", help="stand still and watch the machine being slid to its place")
    given = parser.parse_args()

    def read(gateway: Gateway) -> None:
        pair = Pair(from_coupling_mm=given.from_coupling, chance=random.Random())
        print(f"Its planes stand {pair.from_coupling_mm:g} mm from the coupling on either side: that goes into the set-up.")
        if given.slide:
            print(f"Watched: {watch_a_slide(gateway, given.line, pair, given.seconds)} readings.")
        else:
            print(f"Swept: {sweep_once(gateway, given.line, pair, given.arc, given.readings, given.seconds)} readings.")

    run(given, read)


if __name__ == "__main__":
    main()
