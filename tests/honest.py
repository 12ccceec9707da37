"""How often a simulated truth lies within what a bench says: printed by `./anvil measure`, beside how fast it is."""

import json
import random
import statistics
from datetime import UTC, datetime, timedelta
from typing import Any

from millwright.benches.register import as_dict, evaluate_json
from millwright.benches.wear.evaluate import evaluate
from millwright.benches.wear.io import WearInput
from millwright.rig.machine import Bracket, Gauge, TrueShafts, sweep
from millwright.rig.worn import TrueWear

TRUTHS = 1_000


def sureness() -> None:
    """How many simulated truths lie inside their 95 %, and how many over a limit are shown as proven inside, by method."""

    def rim(on: str, x_mm: float) -> Bracket:
        return Bracket(kind="rim", on=on, x_mm=x_mm)  # type: ignore[arg-type]

    quarters, eighths, arc = range(0, 360, 90), range(0, 360, 45), [7.5 * n for n in range(33)]
    near, back, face = (
        rim("stationary", 60.0),
        rim("movable", -60.0),
        Bracket(kind="face", on="stationary", x_mm=15.0, radius_mm=80.0),
    )
    shop, head = Gauge(resolution_mm=0.01, scatter_mm=0.004), Gauge(resolution_mm=0.001, scatter_mm=0.003)
    methods: dict[str, tuple[list[Bracket], Any, Gauge]] = {
        "rim and face, 4 places": ([near, face], quarters, shop),
        "rim and face, 8 places": ([near, face], eighths, shop),
        "two rims, 4 places": ([near, back], quarters, shop),
        "two rims, 3 places": ([near, back], range(0, 360, 120), shop),
        "three dials, 4 places": ([near, face, back], quarters, shop),
        "laser, 33 over 240°": ([rim("stationary", 100.0), rim("stationary", -100.0)], arc, head),
    }
    feet = {
        "stationary_feet": [{"name": "s1", "x_mm": -280.0}, {"name": "s2", "x_mm": -640.0}],
        "movable_feet": [{"name": "m1", "x_mm": 300.0}, {"name": "m2", "x_mm": 586.0}],
    }
    chance = random.Random(7)
    print(f"sure: {TRUTHS} truths a method, share inside their 95 %; of those over a limit, shown as proven inside")
    for name, (brackets, clocks, gauge) in methods.items():
        held, over, wrong = {"offset": 0, "angle": 0, "shim": 0}, 0, 0
        for _ in range(TRUTHS):
            v, h, up, across = (chance.uniform(-most, most) for most in (0.5, 0.5, 2.0, 2.0))
            truth = TrueShafts(offset_v_mm=v, slope_v_mm_per_m=up, offset_h_mm=h, slope_h_mm_per_m=across)
            true = {"offset": (v * v + h * h) ** 0.5, "angle": (up * up + across * across) ** 0.5}
            limit = true["offset"] * chance.uniform(0.5, 1.5)
            dials = [
                {
                    "kind": b.kind,
                    "bracket_on": b.on,
                    "x_mm": b.x_mm,
                    "readings": sweep(truth, b, list(clocks), gauge, chance),
                    **({"radius_mm": b.radius_mm} if b.kind == "face" else {}),
                }
                for b in brackets
            ]
            limits = {"offset_mm": limit, "angle_mm_per_m": 50.0}
            given = {"dials": dials, **feet, "limits": limits, "resolution_mm": gauge.resolution_mm}
            found = as_dict(evaluate_json("alignment", json.dumps(given)))
            checks = {check["code"]: check for check in found["checks"]}
            for code in ("offset", "angle"):
                held[code] += abs(checks[code]["value"] - true[code]) <= checks[code]["plus_minus"]
            foot = found["feet"][1]
            held["shim"] += abs(foot["shim_mm"] + v + up * 0.586) <= foot["shim_plus_minus_mm"]
            if true["offset"] > limit:
                over += 1
                wrong += checks["offset"]["status"] != "over" and checks["offset"]["proven"] is True
        shares = "  ".join(f"{what} {count / TRUTHS:6.1%}" for what, count in held.items())
        print(f"  {name:24} {shares}   {wrong / over:.1%} of {over}")


def coverage() -> None:
    """How many simulated lives of an element reach their limit within the days the wear bench names."""
    start, limit, told = datetime(2025, 1, 1, 12, tzinfo=UTC), 4.0, 0.1
    ways: dict[str, dict[str, Any]] = {
        "4 readings": {"n": 4},
        "6 readings": {"n": 6},
        "12 readings": {"n": 12},
        "12, scatter twice what is told": {"n": 12, "sigma": 0.1},
        "12, one of them bad": {"n": 12, "slip": True},
        "12, a jump half way": {"n": 12, "jump": 1.0},
    }
    print(f"wear: {TRUTHS} lives a way; true day inside; with a latest day; its width; slips set aside; jumps told")
    chance = random.Random(5)
    for name, way in ways.items():
        n, held, closed, aside, jumps, widths = way["n"], 0, 0, 0, 0, []
        for _ in range(TRUTHS):
            days = sorted(chance.sample(range(5, 420), n))
            truth = TrueWear(
                start=start,
                a_day=limit / chance.uniform(600, 1800),
                jump=way.get("jump", 0.0),
                jump_on=days[n // 2] - 0.5 if "jump" in way else float("inf"),
            )
            slip = chance.randrange(1, n - 1) if way.get("slip") else None
            read = truth.read(
                days, sigma=way.get("sigma", 0.05), shows=0.05, chance=chance, slip=slip, slipped=chance.choice((-1.2, 1.2))
            )
            today = (start + timedelta(days=days[-1])).date()
            found = evaluate(WearInput(readings=read, plus_minus=told, limit=limit, today=today))
            aside += found.set_aside == [slip]
            jumps += found.jump is not None
            true, reached = (start + timedelta(days=truth.reaches(limit))).date(), found.reached
            early = reached is None or reached.earliest is None or reached.earliest <= true
            late = reached is None or reached.latest is None or true <= reached.latest
            held += early and late
            if reached is not None and reached.earliest and reached.latest:
                closed += 1
                widths.append((reached.latest - reached.earliest).days)
        width = statistics.median(widths) if widths else 0
        print(
            f"  {name:31} {held / TRUTHS:6.1%}  {closed / TRUTHS:6.1%}  {width:4.0f} days"
            f"  {aside / TRUTHS:6.1%}  {jumps / TRUTHS:6.1%}"
        )
