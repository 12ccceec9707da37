"""Worked cases made from a physical model of the machine and kept beside the project: run where that folder is there."""

import importlib.util
import json
import unittest
from pathlib import Path
from typing import Any

from millwright.benches.register import BENCHES, as_dict, evaluate_json
from millwright.errors import UnusableInput

# Beside the project, wherever this copy of it stands.
CASES = next((folder for up in Path(__file__).parents if (folder := up / "shared" / "cases").is_dir()), Path("shared/cases"))
FEWEST = 71


def checker() -> Any:
    """The checker that comes with the cases."""
    spec = importlib.util.spec_from_file_location("case_checker", CASES / "check.py")
    assert spec is not None and spec.loader is not None
    module = importlib.util.module_from_spec(spec)
    spec.loader.exec_module(module)
    return module


def answered(bench: str, text: str) -> tuple[int, Any]:
    """Exit code and answer, as the shell gives them."""
    try:
        return 0, json.loads(json.dumps(as_dict(evaluate_json(bench, text)), allow_nan=False))
    except UnusableInput as refused:
        return 2, {"errors": [{"path": p.path, "message": p.message} for p in refused.problems]}


@unittest.skipUnless((CASES / "check.py").exists(), f"{CASES} is not there")
class CasesTest(unittest.TestCase):
    """Whatever a bench answers agrees with the model."""

    def test_every_case_of_a_bench_there_is(self) -> None:
        judged, tried = checker(), 0
        for path in sorted(CASES.glob("*.json")):
            case = json.loads(path.read_text())
            if case["bench"] not in BENCHES:
                continue
            tried += 1
            with self.subTest(path.stem):
                self.assertEqual(judged.judge_case(case, *answered(case["bench"], judged.case_text(case))), [])
        self.assertGreaterEqual(tried, FEWEST)
