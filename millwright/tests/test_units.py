"""Typed figures, by the table that holds this reader and the client's together."""

import json
import unittest
from pathlib import Path

from millwright.units import read_length_mm, read_temperature_c

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
