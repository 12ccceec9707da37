"""Tests of the core: no database. Doctests of the core's modules are among them.

Properties are tried without a deadline: how long one takes on a busy machine says nothing about the code. While the core is
spoiled on purpose (`./anvil mutants`) they are tried less often, the same each time, and in one process after the other.
"""

import os

from hypothesis import HealthCheck, settings

settings.register_profile("no deadline", deadline=None)
settings.register_profile(
    "mutants",
    deadline=None,
    max_examples=20,
    derandomize=True,
    database=None,
    suppress_health_check=[HealthCheck.differing_executors],
)
settings.load_profile("mutants" if os.environ.get("ANVIL_MUTANTS") else "no deadline")
