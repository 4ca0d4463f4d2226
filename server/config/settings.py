"""Django's settings. The data folder holds the database and the secret; LEAN_NOTCH_DATA moves it."""

import os
import secrets
from contextlib import suppress
from datetime import timedelta

from ground import folder
from ground.folder import ROOT
from ground.logs import logging_for

DATA_DIR = folder.named()
with suppress(OSError):  # the server says so where somebody reads it: at what needs the folder
    DATA_DIR.mkdir(parents=True, exist_ok=True)
WRITABLE = os.access(DATA_DIR, os.W_OK)
"""On a folder that cannot be written the server shows what there is, and keeps nothing."""

WEB_DIR = ROOT / "web" / "dist"

DEMO = os.environ.get("LEAN_NOTCH_DEMO") == "1"
"""Offers the demo's own maker on the sign-in page. Never on a server that others reach."""


def _secret() -> str:
    """Made once for each data folder, so that sessions survive a restart."""
    path = DATA_DIR / "secret-key"
    if not path.exists() and not WRITABLE:
        return secrets.token_urlsafe(50)
    if not path.exists():
        path.touch(mode=0o600)
        path.write_text(secrets.token_urlsafe(50))
    return path.read_text()


SECRET_KEY = os.environ.get("LEAN_NOTCH_SECRET") or _secret()
DEBUG = False
ALLOWED_HOSTS = os.environ.get("LEAN_NOTCH_HOSTS", "localhost,127.0.0.1,[::1]").split(",")

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "axes",
    "ninja",
    "workshop",
    "designs",
    "tasks",
    "results",
    "demo",
]
TASK_KINDS = ["designs.heavy", "designs.together", "designs.tries"]
"""Modules that register kinds of heavy work."""

MIDDLEWARE = [
    # What a browser may do with an answer is said of refusals too.
    "django.middleware.security.SecurityMiddleware",
    "csp.middleware.CSPMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "config.requests.Requests",
    "config.assets.Assets",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
]
ROOT_URLCONF = "config.urls"
ASGI_APPLICATION = "config.asgi.application"
TEMPLATES: list[dict[str, object]] = []

_DATABASES: dict[str, dict[str, object]] = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": DATA_DIR / "lean-notch.sqlite3",
        # Each of the few request threads keeps its connection: opening one costs more than a small request.
        "CONN_MAX_AGE": None,
        # IMMEDIATE: a transaction that reads and then writes waits its turn instead of failing as "locked".
        # FULL: what is committed is on disk before it is answered; see docs/running.md.
        "OPTIONS": {
            "transaction_mode": "IMMEDIATE",
            "timeout": 20,
            "init_command": "PRAGMA journal_mode=WAL;PRAGMA synchronous=FULL;PRAGMA temp_store=MEMORY;"
            "PRAGMA mmap_size=134217728;PRAGMA cache_size=-16000;",
        },
        "TEST": {"NAME": DATA_DIR / "test.sqlite3"},
    }
}
if not WRITABLE:
    # Nobody else writes there either: SQLite need not make its log to read.
    _DATABASES["default"] |= {
        "NAME": f"file:{DATA_DIR / 'lean-notch.sqlite3'}?immutable=1",
        "OPTIONS": {"uri": True, "transaction_mode": "IMMEDIATE", "init_command": "PRAGMA temp_store=MEMORY;"},
    }
# A child that computes beside the server has none: what it is to know, it is given.
DATABASES = {} if os.environ.get("LEAN_NOTCH_CHILD") else _DATABASES
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

AUTH_PASSWORD_VALIDATORS = [
    {"NAME": "django.contrib.auth.password_validation.MinimumLengthValidator", "OPTIONS": {"min_length": 8}},
]
AUTHENTICATION_BACKENDS = ["axes.backends.AxesStandaloneBackend", "django.contrib.auth.backends.ModelBackend"]

# Who types a wrong password too often waits, at that address and under that name: the maker of that name at another address does
# not. Counted in memory: a restart forgets it.
AXES_HANDLER = "axes.handlers.cache.AxesCacheHandler"
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_FAILURE_LIMIT = 8
AXES_COOLOFF_TIME = timedelta(minutes=5)
AXES_RESET_ON_SUCCESS = True
AXES_VERBOSE = False
MIGRATION_MODULES = {"axes": None}
# One process, so that its own memory is the whole of it; and the API says by itself that somebody has to wait.
SILENCED_SYSTEM_CHECKS = ["axes.W001", "axes.W002"]

SESSION_COOKIE_SAMESITE = "Lax"
# Kept on the server, so that signing out ends them.
SESSION_ENGINE = "accounts.sessions"
CACHES = {"default": {"BACKEND": "django.core.cache.backends.locmem.LocMemCache", "OPTIONS": {"MAX_ENTRIES": 10_000}}}

HTTPS = os.environ.get("LEAN_NOTCH_HTTPS") == "1"
"""Browsers reach this server by TLS only: cookies are sent by it alone."""
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = HTTPS
# With this prefix a browser takes the cookie from this very host only, by TLS and for every path.
SESSION_COOKIE_NAME = "__Host-sessionid" if HTTPS else "sessionid"
SECURE_HSTS_SECONDS = 31_536_000 if HTTPS else 0

# Scripts, styles and all else ship with the app. The kit sets styles on elements; a picture may be one that was just made.
CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": ["'self'"], "style-src": ["'self'", "'unsafe-inline'"], "img-src": ["'self'", "data:", "blob:"],
        "object-src": ["'none'"], "base-uri": ["'none'"], "form-action": ["'self'"], "frame-ancestors": ["'none'"],
    }
}  # fmt: skip
DATA_UPLOAD_MAX_MEMORY_SIZE = 2_000_000

LOGGING = logging_for(DATA_DIR / "log")

USE_TZ = True
TIME_ZONE = "UTC"
STATIC_URL = "/static/"
WHITENOISE_ROOT = WEB_DIR if WEB_DIR.exists() else None
WHITENOISE_INDEX_FILE = False


def WHITENOISE_IMMUTABLE_FILE_TEST(path: str, url: str) -> bool:  # noqa: N802, ARG001
    """Vite hashes the names of everything in /assets/."""
    return url.startswith("/assets/")
