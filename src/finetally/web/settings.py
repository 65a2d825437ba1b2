"""Settings of the Django project. What differs between installations comes from finetally/environment.py.

Reading them makes nothing: neither the folder nor the secret, which is made when it is first needed.
"""

import re
from datetime import timedelta
from pathlib import Path
from typing import cast

from django.utils.functional import SimpleLazyObject

from finetally.core.session.limits import MAX_BYTES
from finetally.environment import (
    LOG_PROBLEMS,
    data_folder,
    database_file,
    hosts,
    https,
    idle_days,
    proxies,
    value_of,
)
from finetally.mail_settings import mail_settings
from finetally.web.log_config import log_config
from finetally.web.secret import secret_at

HERE = Path(__file__).resolve().parent
VAR = data_folder()
HTTPS = https()
PROXIES = proxies()

SECRET_KEY = cast("str", SimpleLazyObject(lambda: secret_at(VAR / "secret")))
DEBUG = False
ALLOWED_HOSTS = ["localhost", "127.0.0.1", *hosts()]

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "axes",
    "django_tasks",
    "django_tasks_db",
    "finetally.web.squads",
    "finetally.web.accounts",
    "finetally.web.people",
    "finetally.web.jobs",
    "finetally.web.training",
    "finetally.web.plan",
    "finetally.web.floor",
    "finetally.web.log",
    "finetally.web.checkin",
]
MIDDLEWARE = [
    "finetally.web.log_lines.RequestLinesMiddleware",
    "django.middleware.security.SecurityMiddleware",
    "finetally.web.headers.HeadersMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "finetally.web.body.OnlyJsonMiddleware",
    "finetally.web.work.WorkMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "finetally.web.accounts.devices.IdleMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "finetally.web.problems.DatabaseMiddleware",
]
AUTHENTICATION_BACKENDS = [
    "axes.backends.AxesStandaloneBackend",
    "finetally.web.squads.actor.Members",
]
ROOT_URLCONF = "finetally.web.urls"
WSGI_APPLICATION = "finetally.web.wsgi.application"
TEMPLATES: list[dict[str, object]] = []

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": database_file(),
        "OPTIONS": {
            # Writers take their lock at once and wait for it, readers never wait (WAL).
            "transaction_mode": "IMMEDIATE",
            "timeout": 10,
            # FULL: what was confirmed is on the disk, also when the machine loses its power.
            "init_command": "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL; PRAGMA foreign_keys=ON;",
        },
        "CONN_MAX_AGE": None,
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

AUTH_PASSWORD_VALIDATORS = [
    {
        "NAME": "django.contrib.auth.password_validation.MinimumLengthValidator",
        "OPTIONS": {"min_length": 10},
    },
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
    {"NAME": "django.contrib.auth.password_validation.NumericPasswordValidator"},
]

LANGUAGE_CODE = "en-gb"
USE_I18N = False
USE_TZ = True
TIME_ZONE = "UTC"

STATIC_URL = "/static/"
STATIC_ROOT = HERE / "static"
WHITENOISE_INDEX_FILE = False
_HASHED = re.compile(r"^.+[.-][\w-]{8,12}\.\w+$")


def WHITENOISE_IMMUTABLE_FILE_TEST(path: str, url: str) -> bool:  # noqa: N802 - WhiteNoise's name
    """Files with a hash in their name never change."""
    return "/app/assets/" in url and bool(_HASHED.match(url))


# Bodies are read by web/body.py, each route within its own bound; this bounds what is read by Django itself.
DATA_UPLOAD_MAX_MEMORY_SIZE = FILE_UPLOAD_MAX_MEMORY_SIZE = MAX_BYTES
WORK_UNITS = 600_000
"""Units of work of one request: the longest session that there may be, with ranges; some four seconds."""
TASKS = {"default": {"BACKEND": "django_tasks_db.DatabaseBackend", "QUEUES": ["default"]}}
JOB_KINDS = {
    "level": "finetally.web.plan.leveller.level_job",
    "compare": "finetally.web.api.compare.compare_job",
    "card": "finetally.web.training.cards.card_job",
    "refigure": "finetally.web.plan.refigure.refigure_job",
    "bring-log": "finetally.web.log.brought.bring_log_job",
    "log": "finetally.web.log.working_out.work_out_job",
    "squad-file": "finetally.web.privacy.squad_file.squad_file_job",
}
"""What does each kind of heavy work (web/jobs)."""
LARGE_UNITS = 60_000
"""Units of work of a comparison that is answered at once, some half a second; a larger one goes into the queue."""
JOB_UNITS = 10 * WORK_UNITS
LEVEL_SECONDS = float(value_of("FINE_TALLY_LEVEL_SECONDS") or 10)
LEVEL_DETERMINISTIC = 1e6 if LEVEL_SECONDS else 10.0
"""The solver's own time: what ends a search where the clock does not (FINE_TALLY_LEVEL_SECONDS=0, as in tests)."""
CSRF_FAILURE_VIEW = "finetally.web.problems.csrf_failure"
CSRF_COOKIE_SAMESITE = SESSION_COOKIE_SAMESITE = "Lax"
CSRF_COOKIE_SECURE = SESSION_COOKIE_SECURE = HTTPS
SESSION_ENGINE = "finetally.web.accounts.devices"
SESSION_COOKIE_AGE = 60 * 60 * 24 * idle_days()
SECURE_HSTS_SECONDS = 31_536_000 if HTTPS else 0
SECURE_CONTENT_TYPE_NOSNIFF = True
SECURE_REFERRER_POLICY = "same-origin"
SECURE_CROSS_ORIGIN_OPENER_POLICY = "same-origin"
SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https") if HTTPS else None
X_FRAME_OPTIONS = "DENY"

# Guessing is counted in the database, as web/accounts/guessing.py says.
AXES_FAILURE_LIMIT = "finetally.web.accounts.guessing.wrong_ones_allowed"
AXES_COOLOFF_TIME = timedelta(minutes=5)
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_RESET_ON_SUCCESS = True
AXES_DISABLE_ACCESS_LOG = True
AXES_VERBOSE = False
AXES_USERNAME_CALLABLE = "finetally.web.accounts.guessing.counted_name"
AXES_CLIENT_IP_CALLABLE = "finetally.web.accounts.guessing.client_address"
# Its middleware would put an answer of its own in the place of ours.
SILENCED_SYSTEM_CHECKS = ["axes.W002"]

_MAIL = mail_settings(value_of("FINE_TALLY_EMAIL_URL"))
EMAIL_URL: str = _MAIL["EMAIL_URL"]
EMAIL_TIMEOUT, EMAIL_BACKEND = _MAIL["EMAIL_TIMEOUT"], _MAIL["EMAIL_BACKEND"]
DEFAULT_FROM_EMAIL = _MAIL.get("DEFAULT_FROM_EMAIL", "fine-tally@localhost")
EMAIL_FILE_PATH = _MAIL.get("EMAIL_FILE_PATH")
EMAIL_HOST, EMAIL_PORT = _MAIL.get("EMAIL_HOST", ""), _MAIL.get("EMAIL_PORT", 25)
EMAIL_HOST_USER, EMAIL_HOST_PASSWORD = _MAIL.get("EMAIL_HOST_USER", ""), _MAIL.get("EMAIL_HOST_PASSWORD", "")
EMAIL_USE_SSL, EMAIL_USE_TLS = _MAIL.get("EMAIL_USE_SSL", False), _MAIL.get("EMAIL_USE_TLS", False)

LOGGING = log_config(
    {
        # Each request has its own line already; of these, faults alone are told, with where they happened.
        "django.request": {"level": "ERROR"},
        "django.security": {"level": "CRITICAL"},
        "finetally.lines": {"level": "ERROR" if value_of("FINE_TALLY_LOG") == LOG_PROBLEMS else "INFO"},
    }
)
