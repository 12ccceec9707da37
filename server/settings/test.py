"""Settings of the tests: quick hashing, no connection pool, the client as built."""

from .base import *  # noqa: F403
from .base import DATABASES

PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
WHITENOISE_AUTOREFRESH = False
# What a test wrote need not survive a power cut; and between tests, tables are emptied that are otherwise kept from it.
DATABASES["default"]["OPTIONS"] = {"options": "-c synchronous_commit=off -c anvil.may_empty=tests"}
TEST_RUNNER = "tests.runner.Runner"
# What is queued is done at once: no worker runs beside the tests.
TASKS = {"default": {"BACKEND": "django_tasks.backends.immediate.ImmediateBackend"}}
