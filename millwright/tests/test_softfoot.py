"""Feet that do not stand flat: which one, of what kind, and its cure."""

import json
import unittest
from typing import Any

from millwright.benches.register import as_dict, evaluate_json
from millwright.errors import UnusableInput


class SoftFootTest(unittest.TestCase):
    """Feet that do not stand flat."""

    def softfoot(self, corners: list[float] | None, rise: float = 0.24) -> dict[str, Any]:
        """Rear right is soft."""
        rises = {"front left": 0.02, "front right": 0.0, "rear right": rise, "rear left": 0.01}
        feet = [{"name": name, "rise_mm": mm} for name, mm in rises.items()]
        given = {"feet": feet, "limit_mm": 0.05, "corners": {"rear right": corners} if corners else {}}
        return as_dict(evaluate_json("softfoot", json.dumps(given)))

    def test_each_kind_wants_its_own_cure(self) -> None:
        rows: list[tuple[list[float] | None, str, float]] = [
            ([0.24, 0.23, 0.24, 0.25], "parallel", 0.24),
            ([0.05, 0.30, 0.30, 0.05], "angled", 0.05),
            ([0.0, 0.0, 0.01, 0.0], "springing", 0.0),
            (None, "unknown", 0.24),
        ]
        for corners, kind, shim in rows:
            with self.subTest(kind):
                found = self.softfoot(corners)
                foot = next(f for f in found["feet"] if f["name"] == "rear right")
                self.assertEqual((found["worst"], foot["kind"]), ("rear right", kind))
                self.assertAlmostEqual(foot["shim_mm"], shim)
                self.assertTrue(all(f["shim_mm"] == 0 for f in found["feet"] if f["name"] != "rear right"))
        self.assertIn("springs as well", " ".join(self.softfoot([0.1, 0.1, 0.1, 0.1])["advice"]))
        self.assertEqual(self.softfoot([0.1] * 4, rise=0.04)["advice"], [])

    def test_corners_of_a_foot_that_is_not_there_and_names_used_twice_are_refused(self) -> None:
        feet = [{"name": "a", "rise_mm": 0.1}, {"name": "a", "rise_mm": 0.1}]
        with self.assertRaises(UnusableInput) as refused:
            evaluate_json("softfoot", json.dumps({"feet": feet, "limit_mm": 0.05, "corners": {"b": [0, 0, 0, 0]}}))
        self.assertEqual([p.path for p in refused.exception.problems], ["feet.1.name", "corners.b"])
