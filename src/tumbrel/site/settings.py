"""Settings of the local application: one owner, loopback only."""

from __future__ import annotations

import os
import secrets
from pathlib import Path

ROOT = Path(__file__).resolve().parents[3]
DATA = Path(os.environ.get("TUMBREL_DATA", ROOT / ".tumbrel"))
WEB = Path(os.environ.get("TUMBREL_WEB", ROOT / "web" / "dist"))
DATA.mkdir(parents=True, exist_ok=True)


def _secret() -> str:
    """A key of this installation's own, kept beside its data."""
    path = DATA / "secret"
    if not path.exists():
        path.write_text(secrets.token_urlsafe(48), encoding="ascii")
        path.chmod(0o600)
    return path.read_text(encoding="ascii")


SECRET_KEY = _secret()
DEBUG = False
ALLOWED_HOSTS = ["127.0.0.1", "localhost", "[::1]"]
APPEND_SLASH = False
ROOT_URLCONF = "tumbrel.site.urls"
WSGI_APPLICATION = "tumbrel.site.wsgi.application"
INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.staticfiles",
    "tumbrel.keeping",
    "tumbrel.kit",
    "tumbrel.bench",
    "tumbrel.trips",
]
MIDDLEWARE = [
    "tumbrel.site.local.LoopbackOnly",
    "django.middleware.common.CommonMiddleware",  # refuses foreign host names
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "django.middleware.security.SecurityMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "tumbrel.site.local.SignInLocalOwner",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
]
DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": DATA / "tumbrel.sqlite3",
        "CONN_MAX_AGE": None,  # one connection a thread: opening one costs more than most requests
        "OPTIONS": {
            "timeout": 10,
            "transaction_mode": "IMMEDIATE",
            "init_command": "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL;"
            "PRAGMA foreign_keys=ON;",
        },
    }
}
CACHES = {
    "default": {
        "BACKEND": "django.core.cache.backends.filebased.FileBasedCache",
        "LOCATION": DATA / "cache",
        "TIMEOUT": None,
        "OPTIONS": {"MAX_ENTRIES": 4000},
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"
USE_TZ = True
TIME_ZONE = "UTC"
STATIC_URL = "/static/"
STATICFILES_DIRS = [WEB] if WEB.exists() else []
WHITENOISE_USE_FINDERS = True
WHITENOISE_AUTOREFRESH = False
SESSION_ENGINE = "django.contrib.sessions.backends.signed_cookies"
SESSION_COOKIE_SAMESITE = "Strict"
CSRF_COOKIE_SAMESITE = "Strict"
SESSION_COOKIE_AGE = 10 * 365 * 86_400
SECURE_CROSS_ORIGIN_OPENER_POLICY = "same-origin"
DATA_UPLOAD_MAX_MEMORY_SIZE = 8 * 1024 * 1024
LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
}


def immutable_file_test(_path: str, url: str) -> bool:
    """Built assets carry a hash in their name and never change."""
    return url.startswith("/static/assets/")


WHITENOISE_IMMUTABLE_FILE_TEST = immutable_file_test
