"""Settings of the local application: one owner, loopback only."""

from __future__ import annotations

import os
from pathlib import Path

from tumbrel.history.data_folder import DATABASE, installation_of, ready, secret_of

ROOT = Path(__file__).resolve().parents[3]
DATA = ready(Path(os.environ.get("TUMBREL_DATA", ROOT / ".tumbrel")))
WEB = Path(os.environ.get("TUMBREL_WEB", ROOT / "web" / "dist"))
SECRET_KEY = secret_of(DATA)
INSTALLATION = installation_of(SECRET_KEY)
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
    "tumbrel.history",
    "tumbrel.kit",
    "tumbrel.trips",
    "tumbrel.bench",
    "tumbrel.demo",
]
MIDDLEWARE = [
    "tumbrel.site.problems.ProblemsOnly",
    "tumbrel.site.local.LoopbackOnly",
    "django.middleware.common.CommonMiddleware",  # refuses foreign host names
    "django.middleware.security.SecurityMiddleware",  # before static files, for nosniff on them
    "tumbrel.site.entering.OwnPagesOnly",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "tumbrel.site.entering.EnteredOnly",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "tumbrel.site.measures.ChosenMeasures",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
]
DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": DATA / DATABASE,
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
WHITENOISE_ALLOW_ALL_ORIGINS = False
SESSION_ENGINE = "django.contrib.sessions.backends.signed_cookies"
SESSION_COOKIE_NAME = f"tumbrel_session_{INSTALLATION}"  # cookies know no port: a name of its own
SESSION_COOKIE_SAMESITE = "Lax"  # a link from elsewhere is a plain visit
CSRF_COOKIE_NAME = f"tumbrel_csrf_{INSTALLATION}"
CSRF_FAILURE_VIEW = "tumbrel.site.urls.without_token"
CSRF_COOKIE_SAMESITE = "Strict"
SESSION_COOKIE_AGE = 10 * 365 * 86_400
SECURE_CROSS_ORIGIN_OPENER_POLICY = "same-origin"
DATA_UPLOAD_MAX_MEMORY_SIZE = 8 * 1024 * 1024
LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "formatters": {"wordless": {"()": "tumbrel.site.logs.Wordless"}},
    "handlers": {"console": {"class": "logging.StreamHandler", "formatter": "wordless"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
    "loggers": {"django.request": {"level": "ERROR"}},  # a refusal is told to who asked
}


def immutable_file_test(_path: str, url: str) -> bool:
    """Built assets carry a hash in their name and never change."""
    return url.startswith("/static/assets/")


WHITENOISE_IMMUTABLE_FILE_TEST = immutable_file_test
