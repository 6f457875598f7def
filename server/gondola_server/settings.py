"""Settings. What differs from place to place comes from the environment, named GONDOLA_..."""

from __future__ import annotations

import os
import re
import sys
from datetime import timedelta
from pathlib import Path

from csp.constants import NONCE, NONE, SELF
from django.core.exceptions import ImproperlyConfigured

from .where import is_checkout, page_folder, usual_data

SERVER = Path(__file__).resolve().parent.parent
ROOT = SERVER.parent
DATA = usual_data()
TESTING = "test" in sys.argv[1:2]
DEMO = os.environ.get("GONDOLA_DEMO") == "1"
"""The demo signs its owner in by itself; it may only be served on loopback."""
ADMIN = os.environ.get("GONDOLA_ADMIN") == "1"
"""Django's own tables to look at and edit, for whoever keeps the installation; off unless asked for."""
PLAIN = DEMO or TESTING or os.environ.get("GONDOLA_PLAIN") == "1"
"""Served without encryption: on this machine, or in a room whose network is trusted."""

# what a server writes is nobody's but the account's that runs it
if os.environ.get("GONDOLA_SERVES") == "1":
    os.umask(0o077)
DATA.mkdir(parents=True, exist_ok=True)
DATA.chmod(0o700)
DEBUG = False
SECRET_KEY = os.environ.get("GONDOLA_SECRET_KEY", "only-for-tests" if TESTING else "")
if not SECRET_KEY:
    raise ImproperlyConfigured("Set GONDOLA_SECRET_KEY to a long random text.")
ALLOWED_HOSTS = os.environ.get("GONDOLA_HOSTS", "127.0.0.1,localhost").split(",")

INSTALLED_APPS = [
    *(["django.contrib.admin"] if ADMIN else []),
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.messages",
    "django.contrib.sessions",
    "django.contrib.staticfiles",
    "axes",
    "csp",
    "studio",
    "people",
    "scenes",
    "shapes",
    "library",
    "jobs",
    "bench",
    "documents",
    "stock",
    "learning",
    "log",
    "look",
]
MIDDLEWARE = [
    "django.middleware.security.SecurityMiddleware",
    # above the static files, so that these carry the same headers
    "csp.middleware.CSPMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.contrib.messages.middleware.MessageMiddleware",
    "studio.middleware.DemoSignIn",
    "axes.middleware.AxesMiddleware",
]
ROOT_URLCONF = "gondola_server.urls"
ASGI_APPLICATION = "gondola_server.asgi.application"
TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "APP_DIRS": True,
        "OPTIONS": {
            "context_processors": [
                "django.template.context_processors.request",
                "django.contrib.auth.context_processors.auth",
                "django.contrib.messages.context_processors.messages",
            ]
        },
    }
]

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": DATA / "gondola.sqlite3",
        "OPTIONS": {
            "transaction_mode": "IMMEDIATE",
            "timeout": 20,
            # FULL: what was acknowledged outlives a power cut, for some 0.2 ms a save; NORMAL in WAL may lose it
            "init_command": (
                "PRAGMA synchronous=OFF;PRAGMA foreign_keys=ON;PRAGMA secure_delete=ON;"
                if TESTING
                else "PRAGMA journal_mode=WAL;PRAGMA synchronous=FULL;PRAGMA foreign_keys=ON;PRAGMA secure_delete=ON;"
            ),
        },
        # a file: threads of the browser tests wait for each other there, which memory does not do
        "TEST": {"NAME": DATA / "test.sqlite3"},
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"
AUTHENTICATION_BACKENDS = ["axes.backends.AxesStandaloneBackend", "django.contrib.auth.backends.ModelBackend"]
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": "django.contrib.auth.password_validation.UserAttributeSimilarityValidator"},
    {"NAME": "django.contrib.auth.password_validation.MinimumLengthValidator", "OPTIONS": {"min_length": 10}},
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
    {"NAME": "django.contrib.auth.password_validation.NumericPasswordValidator"},
]
AXES_FAILURE_LIMIT = 6
"""Wrong passwords for a name from one address, after which that pair waits. Source: assumed"""
AXES_COOLOFF_TIME = timedelta(minutes=15)
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_RESET_ON_SUCCESS = True
AXES_DISABLE_ACCESS_LOG = True
AXES_ENABLE_ADMIN = False
AXES_VERBOSE = False
AXES_LOCKOUT_CALLABLE = "people.signing.locked_out"
PASSWORD_HASHERS = ["django.contrib.auth.hashers.Argon2PasswordHasher"]
LANGUAGE_CODE = "en"
TIME_ZONE = "UTC"
USE_TZ = True

ASIDE = os.environ.get("GONDOLA_ASIDE", "")
"""The socket of the process that answers long questions; empty where each is answered by the process it comes to."""

# the queue reads its address from the environment itself: workers know no Django
if TESTING:
    os.environ["GONDOLA_QUEUE"] = "immediate"

WEB_DIST = page_folder()
STATIC_URL = "/static/"
STATICFILES_DIRS = [WEB_DIST] if is_checkout() and WEB_DIST.is_dir() else []
STATIC_ROOT = SERVER / "static_collected" if is_checkout() else WEB_DIST
STORAGES = {
    "default": {"BACKEND": "django.core.files.storage.FileSystemStorage"},
    "staticfiles": {"BACKEND": "whitenoise.storage.CompressedStaticFilesStorage"},
}
WHITENOISE_AUTOREFRESH = TESTING
WHITENOISE_USE_FINDERS = TESTING
_HASHED = re.compile(r"^/static/assets/.+-[0-9A-Za-z_-]{8}\.\w+$")


def WHITENOISE_IMMUTABLE_FILE_TEST(_path: str, url: str) -> bool:
    """Vite has already put a hash in each of its names."""
    return _HASHED.match(url) is not None


PACE = (0, 0) if TESTING or DEMO else (600, 100)
"""Questions that are taken in ten seconds, from somebody who is signed in and from an address; 0 for any number.
Source: assumed, ten times what a hand that drags asks"""
DEVICE_PORTS = (7300, 7399)
"""Where scales and thermometers may be on loopback, first and last. Source: assumed"""
LARGEST_BODY = 8 * 1024 * 1024
DATA_UPLOAD_MAX_MEMORY_SIZE = LARGEST_BODY
DATA_UPLOAD_MAX_NUMBER_FIELDS = 100
DATA_UPLOAD_MAX_NUMBER_FILES = 10
SESSION_COOKIE_AGE = 14 * 24 * 3600
"""seconds: two weeks without a visit. Source: assumed"""
SESSION_COOKIE_HTTPONLY = True
SESSION_COOKIE_SECURE = not PLAIN
CSRF_COOKIE_SECURE = not PLAIN
SECURE_SSL_REDIRECT = not PLAIN
SECURE_HSTS_SECONDS = 0 if PLAIN else 365 * 24 * 3600
SECURE_HSTS_INCLUDE_SUBDOMAINS = not PLAIN
SECURE_HSTS_PRELOAD = not PLAIN
if os.environ.get("GONDOLA_BEHIND_PROXY") == "1":
    SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https")
CSRF_TRUSTED_ORIGINS = [one for one in os.environ.get("GONDOLA_ORIGINS", "").split(",") if one]
SESSION_COOKIE_SAMESITE = "Lax"
CSRF_COOKIE_SAMESITE = "Lax"
SECURE_CONTENT_TYPE_NOSNIFF = True
SECURE_REFERRER_POLICY = "same-origin"
X_FRAME_OPTIONS = "DENY"
CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [SELF],
        "script-src": [SELF],
        "style-src": [SELF, NONCE],
        "style-src-attr": [NONE],
        "img-src": [SELF, "data:", "blob:"],
        "font-src": [SELF],
        "connect-src": [SELF],
        "worker-src": [SELF],
        "object-src": [NONE],
        "base-uri": [SELF],
        "form-action": [SELF],
        "frame-ancestors": [NONE],
    }
}
LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": "ERROR" if TESTING else "INFO"},
}
