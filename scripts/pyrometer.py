"""A stand-in pyrometer with a gateway: reads a simulated hub and posts what it shows, as a real one would.

It signs in like anybody, finds the run of a hub that is heated, follows it from heater to cold, and posts
"hub temperature" events through the same door that docs/formats.md describes. What is simulated cools faster
than worked out, so that the prediction has something to correct.
"""

import random
import sys
import time
from datetime import datetime
from pathlib import Path
from typing import Any
from uuid import uuid4

sys.path.insert(0, str(Path(__file__).resolve().parent.parent))

from millwright.rig.hot_hub import HotHub, Pyrometer
from scripts.gateway import Gateway, arguments, run

DRAUGHT = 0.75  # share of the time constant worked out for still air
ABOVE_TARGET_C = 90.0  # how far the heater stands above the target


def find_run(gateway: Gateway, line: str) -> tuple[dict[str, Any], dict[str, Any]]:
    """The job of a line and its step where a hub is heated now."""
    job = gateway.job_of(line)
    step = next((s for s in job["steps"] if s["heat_run"] and s["state"] not in ("done", "blocked")), None)
    if step is None:
        raise SystemExit(f"No hub is being heated in the job of {line}.")
    return job, step


def seconds_since(then: str | None, now: str) -> float:
    """From one moment of the server's clock to another."""
    return (datetime.fromisoformat(now) - datetime.fromisoformat(then)).total_seconds() if then else 0.0


def true_c(job: dict[str, Any], step: dict[str, Any]) -> float | None:
    """What the simulated hub is at now; None before it is on the heater."""
    run = step["heat_run"]
    plan_id = next(s["current"] for s in job["steps"] if s["key"] == step["heat_plan"])
    plan = next(e for e in job["entries"] if e["id"] == plan_id)
    tau, air = plan["result"]["tau_s"], plan["inputs"]["ambient_c"]
    heats_in = run["heating_s"] or 0.8 * tau
    given = plan["inputs"]
    hub = HotHub(
        ambient_c=air,
        heater_c=run["target_c"] + ABOVE_TARGET_C,
        heating_tau_s=heats_in * 0.9,
        cooling_tau_s=tau * DRAUGHT,
        shaft_c=given["shaft_c"],
        shaft_share=given["bore_mm"] ** 2 / (given["hub"]["outside_mm"] ** 2 - given["bore_mm"] ** 2),
    )
    if run["heating_since"] is None:
        return None
    if run["out_at"] is None:
        return float(min(hub.on_the_heater_c(seconds_since(run["heating_since"], job["now"])), run["target_c"] + 5.0))
    left_with = min(hub.on_the_heater_c(seconds_since(run["heating_since"], run["out_at"])), run["target_c"] + 5.0)
    if run["on_at"] is None:
        return hub.off_the_heater_c(float(left_with), seconds_since(run["out_at"], job["now"]))
    touched_with = hub.off_the_heater_c(float(left_with), seconds_since(run["out_at"], run["on_at"]))
    return hub.on_the_shaft_c(touched_with, seconds_since(run["on_at"], job["now"]))


def follow(gateway: Gateway, line: str, every_s: float, readings: int) -> None:
    """Read and post until the run is over, or so many readings are sent (0: no end)."""
    pyrometer, chance, sent = Pyrometer(), random.Random(), 0
    while readings == 0 or sent < readings:
        job, step = find_run(gateway, line)
        now = true_c(job, step)
        if now is not None:
            shown = pyrometer.read_c(now, chance)
            body = {
                "id": str(uuid4()),
                "step": step["key"],
                "kind": "event",
                "inputs": {"event": "hub temperature", "hub_c": shown},
            }
            gateway.ask("POST", f"/api/jobs/{job['id']}/entries", body)
            sent += 1
            print(f"{datetime.now().astimezone():%H:%M:%S}  {shown:.0f} °C  {step['heat_run']['phase']}", flush=True)
        if readings == 0 or sent < readings:
            time.sleep(every_s)


def main() -> None:
    """Command line."""
    parser = arguments("pyrometer", (__doc__ or "").splitlines()[0], "Kiln fan A")
    parser.add_argument("--every", type=float, default=10.0, help="seconds between readings")
    parser.add_argument("--readings", type=int, default=0, help="stop after so many; 0 goes on until the run is over")
    given = parser.parse_args()
    run(given, lambda gateway: follow(gateway, given.line, given.every, given.readings))


if __name__ == "__main__":
    main()
