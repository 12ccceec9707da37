"""Readings as an instrument streams them: all of them, or which line is wrong."""

import json
import unittest
from typing import Any

from millwright.benches.alignment.stream import MOST_LINES, read_lines
from millwright.errors import UnusableInput


def line(seq: int, **more: Any) -> str:
    """One reading of the laser."""
    return json.dumps({"device": "Laser 1", "seq": seq, "plane": seq % 2, "clock": 90.0, "value_mm": 0.01 * seq, **more})


class StreamTest(unittest.TestCase):
    """What is taken and what is not."""

    def refused(self, text: str) -> list[str]:
        """The places that are wrong."""
        with self.assertRaises(UnusableInput) as caught:
            read_lines(text)
        return [problem.path for problem in caught.exception.problems]

    def test_every_line_in_its_order_and_empty_ones_count_for_nothing(self) -> None:
        read = read_lines("\n".join([line(0), "", line(1), "   ", line(2)]))
        self.assertEqual([(r.seq, r.plane, r.value_mm) for r in read], [(0, 0, 0.0), (1, 1, 0.01), (2, 0, 0.02)])

    def test_what_is_wrong_is_named_by_its_line_and_every_such_line(self) -> None:
        text = "\n".join([line(0), line(1, value_mm="lots"), "{broken", line(3, plane=2)])
        self.assertEqual(self.refused(text), ["lines.1.value_mm", "lines.2", "lines.3.plane"])

    def test_one_device_at_a_time_and_no_more_than_can_be_kept(self) -> None:
        self.assertEqual(self.refused("\n".join([line(0), line(1, device="Laser 2")])), ["lines"])
        self.assertEqual(self.refused(""), ["lines"])
        self.assertEqual(len(read_lines("\n".join(line(i) for i in range(MOST_LINES)))), MOST_LINES)
        self.assertEqual(self.refused("\n".join(line(i) for i in range(MOST_LINES + 1))), ["lines"])
