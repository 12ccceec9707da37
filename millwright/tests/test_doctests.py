"""Every example in a docstring of the core is run."""

import doctest
import importlib
import pkgutil
import unittest

import millwright


def load_tests(loader: unittest.TestLoader, tests: unittest.TestSuite, pattern: str | None) -> unittest.TestSuite:
    """All modules of the core that hold an example."""
    for module in pkgutil.walk_packages(millwright.__path__, "millwright."):
        if ".tests" not in module.name and not module.name.endswith("__main__"):
            tests.addTests(doctest.DocTestSuite(importlib.import_module(module.name)))
    return tests
