"""A few jobs done by what is shown, each family once; the rest are done through the server, and by `./anvil test every`."""

import unittest
from typing import get_args

from millwright.line import Family

from .by_hand import every_job


class ByHandTest(unittest.TestCase):
    """From lock-out to the signed record, by labels, units and choices alone."""

    def test_each_family_comes_to_its_end_by_what_its_sheets_say(self) -> None:
        for i, family in enumerate(get_args(Family)):
            jobs = [*every_job(family)]
            name, job = jobs[(7 * i) % len(jobs)]
            with self.subTest(name):
                job.until(None)
                self.assertTrue(job.route().closed)
                self.assertEqual(job.route().why_not_signed_off(), [])
