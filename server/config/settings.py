"""Settings: one application, told apart by ASCENT_MODE: demo, serve, dev or test."""

from __future__ import annotations

import datetime as dt
import os
import re
from pathlib import Path

from csp.constants import NONCE, SELF

from .bounds import MOST_OF_A_FILE
from .home import home, secret_key

ROOT = Path(__file__).resolve().parent.parent.parent
MODE = os.environ.get("ASCENT_MODE", "serve")
DEMO = MODE in ("demo", "dev")
DEMO_USER = "lantern-quay"
DEBUG = MODE == "dev"
HTTPS = os.environ.get("ASCENT_HTTPS") == "1"

# the day that it is taken to be; the demo is in its own week of the year
_TODAY = os.environ.get("ASCENT_TODAY") or ("2026-08-11" if MODE == "demo" else "")
TODAY = dt.date.fromisoformat(_TODAY) if _TODAY else None
SCALE = os.environ.get("ASCENT_SCALE", "")  # where a hanging scale is read; the demo has a stand-in
WEATHER = os.environ.get("ASCENT_WEATHER", "")  # where weather is asked for; the demo has a stand-in
SUPPLIER = os.environ.get("ASCENT_SUPPLIER", "")  # where prices are asked for; the demo has a stand-in

SECRET_KEY = secret_key()
ALLOWED_HOSTS = os.environ.get("ASCENT_HOSTS", "127.0.0.1,localhost,[::1]").split(",")
CSRF_TRUSTED_ORIGINS = [origin for origin in os.environ.get("ASCENT_ORIGINS", "").split(",") if origin]
if DEBUG:
    CSRF_TRUSTED_ORIGINS.append("http://127.0.0.1:5173")

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.staticfiles",
    "axes",
    "csp",
    "config",
    "backups",
    "accounts.apps.AccountsConfig",
    "gardens.apps.GardensConfig",
]
MIDDLEWARE = [
    "config.bounds.bounds",
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "django.middleware.gzip.GZipMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "csp.middleware.CSPMiddleware",
    "axes.middleware.AxesMiddleware",
    "config.whose.whose",
]
ROOT_URLCONF = "config.urls"
WSGI_APPLICATION = "config.wsgi.application"
TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "DIRS": [ROOT / "server" / "config" / "templates"],
        "OPTIONS": {
            "context_processors": [
                "django.template.context_processors.request",
                "csp.context_processors.nonce",
            ]
        },
    }
]
DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "CONN_MAX_AGE": None,
        "NAME": os.environ.get("ASCENT_DATA")
        or home() / {"demo": "demo.sqlite3", "dev": "demo.sqlite3"}.get(MODE, "ascent.sqlite3"),
        "OPTIONS": {
            "timeout": 5,
            "transaction_mode": "IMMEDIATE",
            "init_command": "PRAGMA journal_mode=WAL;PRAGMA synchronous=FULL;PRAGMA cache_size=-20000;"
            # the tests' database is copied, as one file, for each of their processes
            + ("PRAGMA wal_autocheckpoint=1;" if MODE == "test" else ""),
        },
        "TEST": {"NAME": home() / "test.sqlite3"},
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"
AUTHENTICATION_BACKENDS = ["axes.backends.AxesStandaloneBackend", "django.contrib.auth.backends.ModelBackend"]
AXES_FAILURE_LIMIT = 8
AXES_COOLOFF_TIME = dt.timedelta(minutes=15)
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_RESET_ON_SUCCESS = True
AXES_HTTP_RESPONSE_CODE = 429
AXES_LOCKOUT_CALLABLE = "accounts.services.locked_out"
AXES_VERBOSE = False
# how often one may try, and within how many seconds; by address what has no name after it
TRIES = {
    "sign-in from": (40, 900),
    "sign-in to": (100, 3600),
    "sign-up from": (10, 3600),
    "letter from": (10, 3600),
    "letter to": (4, 3600),
    "reset from": (20, 3600),
    "look from": (60, 900),
    "password of": (10, 3600),
}
CACHES = {
    "default": {
        "BACKEND": "django.core.cache.backends.locmem.LocMemCache",
        "OPTIONS": {"MAX_ENTRIES": 100_000},
    }
}
_LEVEL = "CRITICAL" if MODE == "test" else "WARNING"
LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"lines": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["lines"], "level": "WARNING"},
    "loggers": {
        "axes": {"level": _LEVEL},
        "config.faults": {"level": _LEVEL},
        "django.request": {"level": "CRITICAL"},
        # in tests a browser may leave before it is answered; in development each request is a line
        "django.server": {"level": "ERROR" if MODE == "test" else "INFO"},
        "django.security": {"level": "ERROR"},
        # whoever asks for another host is answered 400; that is no fault to look into
        "django.security.DisallowedHost": {"level": "CRITICAL"},
    },
}
SIGN_UP = os.environ.get("ASCENT_SIGN_UP", "1") == "1"
PASSWORD_RESET_TIMEOUT = 3 * 86_400
MAIL_FOLDER = home() / "mail" / MODE
EMAIL_BACKEND = "accounts.letters.LetterBox"
LETTERS_AT_ONCE = MODE == "test"
DEFAULT_FROM_EMAIL = "ascent@localhost"
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": f"django.contrib.auth.password_validation.{name}"}
    for name in ("UserAttributeSimilarityValidator", "MinimumLengthValidator", "CommonPasswordValidator")
]
if MODE == "test":
    PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]

LANGUAGE_CODE = "en"
USE_I18N = False
USE_TZ = True
TIME_ZONE = "UTC"

STATIC_URL = "/static/"
STATIC_ROOT = home() / "static"
STATICFILES_DIRS = [ROOT / "client" / "dist"] if (ROOT / "client" / "dist").exists() else []
STORAGES = {
    "default": {"BACKEND": "django.core.files.storage.FileSystemStorage"},
    "staticfiles": {
        "BACKEND": "django.contrib.staticfiles.storage.StaticFilesStorage"
        if MODE == "test"
        else "whitenoise.storage.CompressedStaticFilesStorage"
    },
}


def immutable(_path: str, url: str) -> bool:
    """Return whether a static file's name carries its hash, so that it may be kept for good."""
    return re.match(r"^/static/assets/.+-[\w-]{8}\.\w+$", url) is not None


WHITENOISE_IMMUTABLE_FILE_TEST = immutable

CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [SELF],
        "script-src": [SELF],
        "style-src": [SELF, NONCE],
        "img-src": [SELF, "data:"],
        "font-src": [SELF],
        "frame-ancestors": ["'none'"],
        "base-uri": [SELF],
        "form-action": [SELF],
        "object-src": ["'none'"],
    }
}
DATA_UPLOAD_MAX_MEMORY_SIZE = MOST_OF_A_FILE
SESSION_COOKIE_SAMESITE = "Lax"
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = HTTPS
SECURE_SSL_REDIRECT = HTTPS
SECURE_HSTS_SECONDS = 31_536_000 if HTTPS else 0
SECURE_HSTS_INCLUDE_SUBDOMAINS = SECURE_HSTS_PRELOAD = HTTPS
TEST_RUNNER = "trials.runner.Runner"
