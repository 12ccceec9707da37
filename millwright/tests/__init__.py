"""Tests of the core: no database. Doctests of the core's modules are among them.

Properties are tried without a deadline: how long one takes on a busy machine says nothing about the code.
"""

from hypothesis import settings

settings.register_profile("no deadline", deadline=None)
settings.load_profile("no deadline")
