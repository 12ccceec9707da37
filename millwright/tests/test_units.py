"""Typed figures, by the table that holds this reader and the client's together."""

import json
import unittest
from pathlib import Path

from millwright.units import read_angle_mm_per_m, read_length_mm, read_temperature_c, read_torque_nm

TABLE = json.loads((Path(__file__).parents[2] / "tests" / "lengths.json").read_text())
A_NANOMETRE = 1e-6  # mm
A_MILLIONTH_OF_A_DEGREE = 1e-6


class TypedTest(unittest.TestCase):
    """What a hand types is what is computed with."""

    def test_lengths_read_as_the_table_says(self) -> None:
        for row in TABLE["lengths"]:
            with self.subTest(row["text"], unit=row["unit"]):
                read = read_length_mm(row["text"], row["unit"])
                if row["mm"] is None:
                    self.assertIsNone(read)
                else:
                    self.assertAlmostEqual(read or 0.0, row["mm"], delta=A_NANOMETRE)

    def test_temperatures_read_as_the_table_says(self) -> None:
        for row in TABLE["temperatures"]:
            with self.subTest(row["text"]):
                read = read_temperature_c(row["text"])
                if row["celsius"] is None:
                    self.assertIsNone(read)
                else:
                    self.assertIsNotNone(read)
                    self.assertAlmostEqual(read or 0.0, row["celsius"], delta=A_MILLIONTH_OF_A_DEGREE)

    def read_as(self, read: float | None, wanted: float | None) -> None:
        """What was read is what the table says."""
        if wanted is None:
            self.assertIsNone(read)
        else:
            self.assertIsNotNone(read)
            self.assertAlmostEqual(read or 0.0, wanted, delta=1e-6)

    def test_torques_and_angles_read_as_the_table_says(self) -> None:
        for row in TABLE["torques"]:
            with self.subTest(row["text"]):
                self.read_as(read_torque_nm(row["text"]), row["nm"])
        for row in TABLE["angles"]:
            with self.subTest(row["text"], unit=row["unit"]):
                self.read_as(read_angle_mm_per_m(row["text"], row["unit"]), row["slope"])
