"""Settings of ./anvil measure: the running server's, with one more route that inserts a single row."""

from .base import *  # noqa: F403

ROOT_URLCONF = "tests.measure_urls"
