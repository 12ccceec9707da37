"""Settings of the running server. Everything secret comes from the environment or from .anvil/."""

import os
import secrets
from pathlib import Path
from urllib.parse import unquote, urlsplit

ROOT = Path(__file__).resolve().parents[2]
STATE = ROOT / ".anvil"


def _secret_key() -> str:
    """From the environment, or made once and kept outside the repository, readable by its owner only."""
    if key := os.environ.get("SECRET_KEY"):
        return key
    kept = STATE / "secret_key"
    if not kept.exists():
        STATE.mkdir(exist_ok=True)
        kept.touch(mode=0o600)
        kept.write_text(secrets.token_urlsafe(50))
    return kept.read_text()


def _database(url: str) -> dict[str, object]:
    parts = urlsplit(url)
    return {
        "ENGINE": "django.db.backends.postgresql",
        "NAME": parts.path.lstrip("/"),
        "USER": unquote(parts.username or ""),
        "PASSWORD": unquote(parts.password or ""),
        "HOST": parts.hostname or "",
        "PORT": str(parts.port or ""),
        "OPTIONS": {"pool": {"min_size": 2, "max_size": 20, "timeout": 5.0}},
    }


SECRET_KEY = _secret_key()
SEAL_KEY_FILE = os.environ.get("ANVIL_SEAL_KEY_FILE", str(STATE / "seal.key"))
SEAL_FOLDER = os.environ.get("ANVIL_SEALS", str(STATE / "seals"))
DEBUG = False
ALLOWED_HOSTS = os.environ.get("ALLOWED_HOSTS", "127.0.0.1,localhost,[::1]").split(",")
CSRF_TRUSTED_ORIGINS = [o for o in os.environ.get("CSRF_TRUSTED_ORIGINS", "").split(",") if o]
BEHIND_TLS = os.environ.get("BEHIND_TLS") == "1"

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.staticfiles",
    "django_tasks",
    "django_tasks_db",
    "server.web",
    "server.accounts",
    "server.journal",
    "server.catalogue",
    "server.instruments",
    "server.plant",
    "server.jobs",
    "server.reports",
    "server.keep",
    "server.audit",
    "server.demo",
    "server.describe",
]
MIDDLEWARE = [
    "django.middleware.security.SecurityMiddleware",
    "server.web.middleware.content_security_policy",
    "server.web.middleware.no_nul",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
]
ROOT_URLCONF = "server.urls"
ASGI_APPLICATION = "server.asgi.application"
TEMPLATES = [{"BACKEND": "django.template.backends.django.DjangoTemplates", "APP_DIRS": True}]

DATABASES = {"default": _database(os.environ.get("DATABASE_URL", "postgresql://anvil@127.0.0.1:5417/anvil"))}
TASKS = {"default": {"BACKEND": "django_tasks_db.DatabaseBackend"}}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

AUTH_USER_MODEL = "accounts.User"
PASSWORD_HASHERS = ["django.contrib.auth.hashers.Argon2PasswordHasher"]
AUTH_PASSWORD_VALIDATORS = [{"NAME": "django.contrib.auth.password_validation.MinimumLengthValidator"}]
SESSION_COOKIE_HTTPONLY = True
SESSION_COOKIE_SAMESITE = "Lax"
SESSION_COOKIE_AGE = 60 * 60 * 24 * 7  # a job runs over several shifts
CSRF_COOKIE_SAMESITE = "Lax"
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = BEHIND_TLS
SECURE_HSTS_SECONDS = 60 * 60 * 24 * 30 if BEHIND_TLS else 0
SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https") if BEHIND_TLS else None
X_FRAME_OPTIONS = "DENY"

USE_TZ = True
TIME_ZONE = os.environ.get("TIME_ZONE", "UTC")

STATIC_URL = "/static/"
STATIC_ROOT = STATE / "static"
STATICFILES_DIRS = [ROOT / "web" / "dist"] if (ROOT / "web" / "dist").exists() else []
STORAGES = {
    "default": {"BACKEND": "django.core.files.storage.FileSystemStorage"},
    "staticfiles": {"BACKEND": "whitenoise.storage.CompressedStaticFilesStorage"},
}
DATA_UPLOAD_MAX_MEMORY_SIZE = 8 * 1024 * 1024  # a job's JSON with all its entries


def _is_hashed(path: str, url: str) -> bool:
    return "/assets/" in url


WHITENOISE_IMMUTABLE_FILE_TEST = _is_hashed
