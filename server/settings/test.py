"""Settings of the tests: quick hashing, no connection pool, the client as built."""

from .base import *  # noqa: F403
from .base import DATABASES

PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
DATABASES["default"]["OPTIONS"] = {}
WHITENOISE_AUTOREFRESH = False
