"""./anvil test mutants: spoils the core in small ways, one at a time, and counts how many of them the core's tests notice.

A random sample, as many as fit into the time; what only changes the wording of a sentence is left out. Prints the share
and what lived. Not part of the suite: it says whether the suite bites.
"""

import argparse
import ast
import json
import os
import random
import signal
import subprocess
import sys
import time
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
FOLDER = ROOT / "mutants"
ENOUGH = 0.85  # share killed that is aimed at
LIVED, KILLED, NO_TEST = 0, (1, 3), (5, 33)
TIMED_OUT = (-24, 24, 36, 152, 255)  # an endless loop is noticed
TIME_TO_STOP_S = 30.0


@dataclass(frozen=True)
class Mutant:
    """One spoiling: where it is, and the lines it changes."""

    name: str
    meta: Path
    was: str
    now: str

    @property
    def only_words(self) -> bool:
        """The wording of a sentence, which no test has to pin."""
        return _without_sentences(self.was) == _without_sentences(self.now)


def _without_sentences(line: str) -> str:
    """A line with every text that has a space in it blanked; unfinished lines as they stand."""
    try:
        tree = ast.parse(line.strip().rstrip(",:"))
    except SyntaxError:
        pieces = line.split('"')
        return '"'.join("" if i % 2 and " " in piece else piece for i, piece in enumerate(pieces))
    for node in ast.walk(tree):
        if isinstance(node, ast.Constant) and isinstance(node.value, str) and " " in node.value:
            node.value = ""
    return ast.dump(tree)


def mutants_of(meta: Path) -> Iterator[Mutant]:
    """Every spoiling of one module, with the lines that differ from the function as it was."""
    names = json.loads(meta.read_text())["exit_code_by_key"]
    spoiled = meta.with_suffix("")
    source = spoiled.read_text()
    lines = source.splitlines()
    bodies = {
        node.name: lines[node.lineno - 1 : node.end_lineno]
        for node in ast.walk(ast.parse(source))
        if isinstance(node, ast.FunctionDef | ast.AsyncFunctionDef)
    }
    for name in names:
        function = name.rpartition(".")[2]
        now = bodies.get(function, [])
        was = bodies.get(f"{function.rpartition('__mutmut_')[0]}__mutmut_orig", [])
        pairs = [(a.strip(), b.strip()) for a, b in zip(was[1:], now[1:], strict=False) if a != b]
        changed = pairs[0] if pairs else ("", "")
        yield Mutant(name=name, meta=meta, was=changed[0], now=changed[1])


def result_of(mutant: Mutant) -> int | None:
    """How the tests ended on it; None where they were not run."""
    found: dict[str, int | None] = json.loads(mutant.meta.read_text())["exit_code_by_key"]
    return found[mutant.name]


def run(names: list[str], seconds: float) -> None:
    """These spoilings, until the time is over. What was run by then is kept."""
    command = [str(Path(sys.executable).with_name("mutmut")), "run", "--max-children", str(os.cpu_count() or 2), *names]
    env = {**os.environ, "ANVIL_MUTANTS": "1"}
    running = subprocess.Popen(command, cwd=ROOT, env=env, stdout=subprocess.DEVNULL)  # noqa: S603 - our own arguments
    try:
        running.wait(timeout=max(1.0, seconds))
    except subprocess.TimeoutExpired:
        running.send_signal(signal.SIGINT)
        try:
            running.wait(timeout=TIME_TO_STOP_S)
        except subprocess.TimeoutExpired:
            running.kill()


def main() -> int:
    """Prepare, take a sample, run it, tell."""
    asked = argparse.ArgumentParser(description=__doc__, prog="./anvil test mutants")
    asked.add_argument("--minutes", type=float, default=20.0, help="when to stop (20)")
    asked.add_argument("--most", type=int, default=1_500, help="how many to take at most (1500)")
    asked.add_argument("--seed", type=int, default=random.randrange(10_000), help="the same sample again")
    asked.add_argument("--only", default="", help="names that begin so: millwright.benches.gap")
    given = asked.parse_args()
    end = time.monotonic() + given.minutes * 60
    print(f"Making them and finding out which test covers what … (seed {given.seed})", flush=True)
    run(["millwright.units.x_angle_deg__mutmut_1"], end - time.monotonic())
    every = [m for meta in sorted(FOLDER.rglob("*.py.meta")) for m in mutants_of(meta)]
    wanted = [m for m in every if m.name.startswith(given.only) and not m.only_words]
    sample = random.Random(given.seed).sample(wanted, min(given.most, len(wanted)))
    print(f"{len(every)} can be made, {len(wanted)} that are more than wording; {len(sample)} of them are tried.", flush=True)
    forget(sample)
    run([m.name for m in sample], end - time.monotonic())
    tell(sample)
    return 0


def forget(sample: list[Mutant]) -> None:
    """Results of an earlier run do not count for this one."""
    for meta in {m.meta for m in sample}:
        kept = json.loads(meta.read_text())
        kept["exit_code_by_key"] = dict.fromkeys(kept["exit_code_by_key"])
        meta.write_text(json.dumps(kept))


def tell(sample: list[Mutant]) -> None:
    """The share that was killed, and each that lived."""
    results = {m: result_of(m) for m in sample}
    tried = {m: code for m, code in results.items() if code is not None}
    lived = [m for m, code in tried.items() if code == LIVED]
    uncovered = [m for m, code in tried.items() if code in NO_TEST]
    killed = sum(code in KILLED or code in TIMED_OUT for code in tried.values())
    for title, mutants in (("lived", lived), ("are run by no test", uncovered)):
        for m in sorted(mutants, key=lambda m: m.name):
            print(f"  {title}: {m.name}\n      was {m.was}\n      now {m.now}")
    share = killed / len(tried) if tried else 0.0
    print(f"{killed} of {len(tried)} killed: {share:.0%} (aim {ENOUGH:.0%}).")
    print(f"{len(sample) - len(tried)} were not reached in the time.")


if __name__ == "__main__":
    sys.exit(main())
