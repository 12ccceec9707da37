"""The examples in docstrings are tests, module by module."""

import doctest
import importlib
import io
import pkgutil
import unittest

import millwright


class DoctestsTest(unittest.TestCase):
    """What a docstring shows is what happens.

    Not `doctest.DocTestSuite`: its cases carry their modules about, which cannot be handed to a worker.
    """

    def test_every_example_shows_what_happens(self) -> None:
        tried = 0
        for found in pkgutil.walk_packages(millwright.__path__, "millwright."):
            if ".tests" in found.name or found.name.endswith("__main__"):
                continue
            said = io.StringIO()
            runner = doctest.DocTestRunner()
            for examples in doctest.DocTestFinder().find(importlib.import_module(found.name), found.name):
                runner.run(examples, out=said.write)
            with self.subTest(found.name):
                self.assertEqual(runner.summarize(verbose=False).failed, 0, said.getvalue())
            tried += runner.tries
        self.assertGreaterEqual(tried, 30, "the examples are no longer found")
