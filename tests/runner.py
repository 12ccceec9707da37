"""Django's test runner: longest first on every core, and at the end what took longest."""

import json
import time
import unittest
from collections.abc import Iterable
from itertools import groupby
from typing import Any

from django.conf import settings
from django.test.runner import DiscoverRunner, ParallelTestSuite, RemoteTestResult, RemoteTestRunner

from tests.site import build_for_all

LONGEST_SHOWN = 10
TOOK = settings.STATE / "tests.took.json"
Took = dict[str, float]


def took_before() -> Took:
    """Seconds each test took when it last ran here; empty on a fresh checkout."""
    try:
        kept = json.loads(TOOK.read_text())
    except (OSError, ValueError):
        return {}
    return {str(test): float(seconds) for test, seconds in kept.items()}


class Timed(unittest.TextTestResult):
    """Says what took longest, and keeps it for the order of the next run."""

    def __init__(self, *args: Any, **more: Any) -> None:
        super().__init__(*args, **more)
        self.seconds: Took = {}
        self._started = 0.0

    def startTest(self, test: unittest.TestCase) -> None:
        """Serial runs are timed here; in parallel ones `took` comes from the worker, after this."""
        super().startTest(test)
        self._started = time.monotonic()

    def stopTest(self, test: unittest.TestCase) -> None:
        """`startTest`'s other end."""
        super().stopTest(test)
        self.seconds.setdefault(test.id(), time.monotonic() - self._started)

    def took(self, test: unittest.TestCase, seconds: float) -> None:
        """What a worker measured."""
        self.seconds[test.id()] = seconds

    def stopTestRun(self) -> None:
        """The list of the longest."""
        super().stopTestRun()
        TOOK.write_text(json.dumps(took_before() | self.seconds))
        self.stream.writeln("\nTook longest:")
        for test in sorted(self.seconds, key=self.seconds.__getitem__, reverse=True)[:LONGEST_SHOWN]:
            self.stream.writeln(f"  {self.seconds[test]:5.1f} s  {test}")


class TimedRemote(RemoteTestResult):
    """A worker's result that says how long each test took where it ran."""

    _started = 0.0

    def startTest(self, test: unittest.TestCase) -> None:
        """Starts the watch."""
        super().startTest(test)
        self._started = time.monotonic()

    def stopTest(self, test: unittest.TestCase) -> None:
        """Stops it."""
        self.events.append(("took", self.test_index, time.monotonic() - self._started))
        super().stopTest(test)


class TimedWorker(RemoteTestRunner):
    """The worker's end of `TimedRemote`."""

    resultclass = TimedRemote


class LongestFirst(ParallelTestSuite):
    """The longest suites start first, so that no core waits for one that was begun last."""

    runner_class = TimedWorker

    def __init__(self, subsuites: Iterable[unittest.TestSuite], *args: Any, **more: Any) -> None:
        known = took_before()
        longest = max(known.values(), default=1.0)  # what was never run may be long

        def expected(suite: unittest.TestSuite) -> float:
            return sum(known.get(test.id(), longest) for test in suite if isinstance(test, unittest.TestCase))

        apart = (part for suite in subsuites for part in _apart(suite))
        super().__init__(sorted(apart, key=expected, reverse=True), *args, **more)

    def run(self, result: unittest.TestResult, *args: Any) -> unittest.TestResult:
        """The demo is built before the workers are made: each has it from the start."""
        if self.used_aliases:
            build_for_all()
        done: unittest.TestResult = super().run(result)
        return done


def _apart(suite: unittest.TestSuite) -> list[unittest.TestSuite]:
    """A class whose tests share nothing but a server is dealt out test by test."""
    tests = [test for test in suite if isinstance(test, unittest.TestCase)]
    if not all(getattr(type(test), "stand_alone", False) for test in tests):
        return [suite]
    return [unittest.TestSuite(group) for _, group in groupby(tests, key=lambda test: test.id())]


class Runner(DiscoverRunner):
    """What `./anvil test` runs."""

    parallel_test_suite = LongestFirst

    def get_resultclass(self) -> type[unittest.TextTestResult]:
        """Timed, whatever was asked for."""
        return Timed
