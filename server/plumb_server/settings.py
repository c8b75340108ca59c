"""Settings of the server, read from the environment.

PLUMB_SECRET_KEY  Django's secret key; required unless PLUMB_DEBUG is 1
PLUMB_FACTOR_KEYS comma-separated keys of the secrets of second factors, the present one first, earlier ones until
                  `manage.py encrypt_factors` was run (default: from the secret key)
PLUMB_HSTS_SUBDOMAINS
                  1 where every name below the host is reached by TLS too (default 0)
PLUMB_DEBUG       1 for development (default 0)
PLUMB_HOSTS       comma-separated host names that the application answers to (default 127.0.0.1,localhost)
PLUMB_ADDRESS     address of the application in mails that no request causes (default: of the first host)
PLUMB_TLS         1 behind a TLS proxy: secure cookies, HSTS, forwarded protocol (default 0)
PLUMB_DB_HOST, PLUMB_DB_PORT, PLUMB_DB_NAME, PLUMB_DB_USER, PLUMB_DB_PASSWORD
                  PostgreSQL (default 127.0.0.1, 5432, plumb, plumb, no password)
                  hosts and ports may be lists with commas: the one that can be written to is used
PLUMB_DB_POOLED   1 where the database is reached through a pooler of transactions (PgBouncer); workers look for jobs
                  every two seconds then, for they are not notified
PLUMB_STATEMENT_TIMEOUT, PLUMB_LOCK_TIMEOUT
                  ms that a statement, or waiting for a lock, may take (default 0, no limit; the web server sets both)
PLUMB_HAZARD_URL  hazard service that answers as hazard/README.md has it (default http://127.0.0.1:8471)
PLUMB_WEB         folder of the built web application (default ../web/dist)
PLUMB_PROXIES     proxies of ours in front, whose X-Forwarded-For is believed (default 0)
PLUMB_EXHIBITS    folder of exhibits; PLUMB_EXHIBIT_STORAGE and PLUMB_EXHIBIT_OPTIONS for another storage
PLUMB_MAX_EXHIBIT, PLUMB_MAX_REVIEW_BYTES, PLUMB_MAX_MEMBER_BYTES_A_DAY
                  bytes of a file, of all files of a review, of what a member submits within a day
PLUMB_READING_MEMORY, PLUMB_READING_SECONDS
                  what the process that reads a file may take
PLUMB_SMTP_HOST, PLUMB_SMTP_PORT, PLUMB_SMTP_USER, PLUMB_SMTP_PASSWORD, PLUMB_SMTP_TLS, PLUMB_MAIL_FROM
                  mail; PLUMB_MAIL_FOLDER keeps it in a folder instead, which a page of the demo shows to anybody
PLUMB_OIDC        JSON list of OpenID Connect providers (docs/security.md)
PLUMB_IDLE        s after which somebody who does nothing is signed out (default 14400)
PLUMB_LOG, PLUMB_LOG_LEVEL
                  json for lines of JSON; level of what is logged (default WARNING)
PLUMB_METRICS_KEY what a monitor shows as bearer to read /metrics/; without one there are none
"""

from __future__ import annotations

import json
import os
from pathlib import Path
from typing import Any

import structlog
from django.core.exceptions import ImproperlyConfigured
from plumb_core import VERSION

ROOT = Path(__file__).resolve().parents[2]
DEBUG = os.environ.get("PLUMB_DEBUG") == "1"
SECRET_KEY = os.environ.get("PLUMB_SECRET_KEY", "only-for-development" if DEBUG else "")
if not SECRET_KEY:
    raise ImproperlyConfigured("PLUMB_SECRET_KEY is not set; give a long random text (bin/start makes one)")
ALLOWED_HOSTS = os.environ.get("PLUMB_HOSTS", "127.0.0.1,localhost").split(",")
TLS = os.environ.get("PLUMB_TLS") == "1"
ADDRESS = os.environ.get("PLUMB_ADDRESS") or f"http{'s' if TLS else ''}://{ALLOWED_HOSTS[0]}"

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "rest_framework",
    "drf_spectacular",
    "procrastinate.contrib.django",
    "django_prometheus",
    "django_structlog",
    # before the accounts library, whose mails it words
    "plumb_server.web",
    "plumb_server.accounts.apps.AccountsConfig",
    "allauth",
    "allauth.account",
    "allauth.mfa",
    "allauth.socialaccount",
    "allauth.socialaccount.providers.openid_connect",
    "allauth.usersessions",
    "allauth.headless",
    "plumb_server.reviews",
    "plumb_server.submissions",
    "plumb_server.rechecks",
    "plumb_server.findings",
    "plumb_server.reports",
    "plumb_server.desk",
    "plumb_server.reference",
    "plumb_server.exchange",
    "plumb_server.operations",
    "plumb_server.demo",
]

MIDDLEWARE = [
    "django_prometheus.middleware.PrometheusBeforeMiddleware",
    "django.middleware.security.SecurityMiddleware",
    "plumb_server.web.middleware.Headers",
    "plumb_server.web.middleware.Doorkeeper",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "allauth.account.middleware.AccountMiddleware",
    "allauth.usersessions.middleware.UserSessionsMiddleware",
    "plumb_server.accounts.middleware.Idle",
    "django_structlog.middlewares.RequestMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "django_prometheus.middleware.PrometheusAfterMiddleware",
]

ROOT_URLCONF = "plumb_server.urls"
WSGI_APPLICATION = "plumb_server.wsgi.application"
TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "APP_DIRS": True,
        "OPTIONS": {"context_processors": ["django.template.context_processors.request"]},
    }
]

# ms; none for anyone who migrates, restores or works through the queue
STATEMENT_TIMEOUT = int(os.environ.get("PLUMB_STATEMENT_TIMEOUT", "0"))
LOCK_TIMEOUT = int(os.environ.get("PLUMB_LOCK_TIMEOUT", "0"))
POOLED = os.environ.get("PLUMB_DB_POOLED") == "1"
DATABASES: dict[str, dict[str, Any]] = {
    "default": {
        "ENGINE": "django.db.backends.postgresql",
        "HOST": os.environ.get("PLUMB_DB_HOST", "127.0.0.1"),
        "PORT": os.environ.get("PLUMB_DB_PORT", "5432"),
        "NAME": os.environ.get("PLUMB_DB_NAME", "plumb"),
        "USER": os.environ.get("PLUMB_DB_USER", "plumb"),
        "PASSWORD": os.environ.get("PLUMB_DB_PASSWORD", ""),
        "OPTIONS": {
            # of several hosts the one that can be written to: after a standby is promoted it is that one
            "target_session_attrs": "read-write",
            "connect_timeout": 5,
        },
        "CONN_MAX_AGE": 60,
        "CONN_HEALTH_CHECKS": True,
        # behind a pooler the next statement may be of another connection
        "DISABLE_SERVER_SIDE_CURSORS": POOLED,
    }
}
if POOLED:
    # it sets the time limits of its connections itself (deploy/pgbouncer.ini)
    DATABASES["default"]["OPTIONS"] |= {"prepare_threshold": None, "target_session_attrs": "any"}
else:
    DATABASES["default"]["OPTIONS"]["options"] = (
        f"-c statement_timeout={STATEMENT_TIMEOUT} -c lock_timeout={LOCK_TIMEOUT} "
        "-c idle_in_transaction_session_timeout=120000"
    )
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

AUTH_USER_MODEL = "accounts.User"
PASSWORD_HASHERS = ["django.contrib.auth.hashers.Argon2PasswordHasher"]
AUTH_PASSWORD_VALIDATORS = [
    {
        "NAME": "django.contrib.auth.password_validation.UserAttributeSimilarityValidator",
        "OPTIONS": {"user_attributes": ("email", "name", "firm")},
    },
    {"NAME": "plumb_server.accounts.passwords.NothingOfThePerson"},
    {"NAME": "django.contrib.auth.password_validation.MinimumLengthValidator", "OPTIONS": {"min_length": 10}},
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
    {"NAME": "django.contrib.auth.password_validation.NumericPasswordValidator"},
]

# accounts: signing in with the address, by invitation only; one door for passwords, second factors, passkeys and
# providers
AUTHENTICATION_BACKENDS = ["plumb_server.accounts.backends.OpenAccounts"]
PROXIES = int(os.environ.get("PLUMB_PROXIES", "0"))
ALLAUTH_TRUSTED_PROXY_COUNT = PROXIES
HEADLESS_ONLY = True
HEADLESS_CLIENTS = ("browser",)
HEADLESS_FRONTEND_URLS = {
    "account_confirm_email": "/account/verify/{key}",
    "account_reset_password": "/account/reset",
    "account_reset_password_from_key": "/account/reset/{key}",
    "account_signup": "/",
    "socialaccount_login_error": "/account/provider",
}
ACCOUNT_ADAPTER = "plumb_server.accounts.adapter.AccountAdapter"
ACCOUNT_USER_MODEL_USERNAME_FIELD = None
ACCOUNT_LOGIN_METHODS = {"email"}
ACCOUNT_SIGNUP_FIELDS = ["email*", "password1*"]
ACCOUNT_EMAIL_VERIFICATION = "mandatory"
ACCOUNT_CHANGE_EMAIL = True
ACCOUNT_EMAIL_NOTIFICATIONS = True
ACCOUNT_PREVENT_ENUMERATION = True
ACCOUNT_EMAIL_SUBJECT_PREFIX = "Vigilant Plumb: "
ACCOUNT_LOGIN_ON_PASSWORD_RESET = False
ACCOUNT_LOGOUT_ON_PASSWORD_CHANGE = False
ACCOUNT_REAUTHENTICATION_TIMEOUT = 300
# a session alone changes neither the address nor how somebody signs in
ACCOUNT_REAUTHENTICATION_REQUIRED = True
# failures slow an account, wherever they come from
ACCOUNT_RATE_LIMITS = {"login": "30/m/ip", "login_failed": "60/m/ip,10/300s/key"}
MFA_SUPPORTED_TYPES = ["totp", "webauthn", "recovery_codes"]
MFA_PASSKEY_LOGIN_ENABLED = True
MFA_ADAPTER = "plumb_server.accounts.factors.MFAAdapter"
FACTOR_KEYS = [key for key in os.environ.get("PLUMB_FACTOR_KEYS", "").split(",") if key]
"""Keys of the secrets of second factors, the present one first; the secret key where none is given."""
MFA_TOTP_ISSUER = "Vigilant Plumb"
# one step of 30 s to either side, RFC 6238, 5.2: a code that was read just before it changed is accepted
MFA_TOTP_TOLERANCE = 1
# browsers take passkeys without TLS on this machine only, by its name
MFA_WEBAUTHN_ALLOW_INSECURE_ORIGIN = not TLS
USERSESSIONS_TRACK_ACTIVITY = False
SOCIALACCOUNT_ADAPTER = "plumb_server.accounts.adapter.SocialAccountAdapter"
SOCIALACCOUNT_EMAIL_AUTHENTICATION = True
SOCIALACCOUNT_EMAIL_AUTHENTICATION_AUTO_CONNECT = True
SOCIALACCOUNT_PROVIDERS = {"openid_connect": {"APPS": json.loads(os.environ.get("PLUMB_OIDC", "[]"))}}

SIGNING_FRESH = 120
"""s for which a password or second factor that was requested again is good for one signature."""

# mail: a folder in the demo, whose page shows it; otherwise by SMTP
MAIL_FOLDER = os.environ.get("PLUMB_MAIL_FOLDER", "")
if MAIL_FOLDER:
    EMAIL_BACKEND = "django.core.mail.backends.filebased.EmailBackend"
    EMAIL_FILE_PATH = MAIL_FOLDER
EMAIL_HOST = os.environ.get("PLUMB_SMTP_HOST", "localhost")
EMAIL_PORT = int(os.environ.get("PLUMB_SMTP_PORT", "25"))
EMAIL_HOST_USER = os.environ.get("PLUMB_SMTP_USER", "")
EMAIL_HOST_PASSWORD = os.environ.get("PLUMB_SMTP_PASSWORD", "")
EMAIL_USE_TLS = os.environ.get("PLUMB_SMTP_TLS") == "1"
EMAIL_TIMEOUT = 10
DEFAULT_FROM_EMAIL = os.environ.get("PLUMB_MAIL_FROM", "plumb@localhost")

HAZARD_URL = os.environ.get("PLUMB_HAZARD_URL", "http://127.0.0.1:8471").rstrip("/")
HAZARD_TIMEOUT = 2.0
"""s for a look-up, its second try included"""

# What is counted for limits is counted by all processes together
CACHES = {"default": {"BACKEND": "django.core.cache.backends.db.DatabaseCache", "LOCATION": "web_counts"}}

USE_TZ = True
TIME_ZONE = "UTC"
USE_I18N = False

STATIC_URL = "static/"
WEB = Path(os.environ.get("PLUMB_WEB", ROOT / "web" / "dist"))
WHITENOISE_ROOT = WEB if WEB.is_dir() else None
# the build puts a hash of the contents into every name under /assets/
WHITENOISE_IMMUTABLE_FILE_TEST = r"^/assets/"

MAX_BODY = 25_000_000
MAX_IMPORT = 120_000_000
"""Bytes of an exported review that is accepted again; no export is larger."""
DATA_UPLOAD_MAX_MEMORY_SIZE = MAX_IMPORT
MAX_EXHIBIT = int(os.environ.get("PLUMB_MAX_EXHIBIT", 100_000_000))
"""Bytes of a file that is uploaded."""
MAX_REVIEW_BYTES = int(os.environ.get("PLUMB_MAX_REVIEW_BYTES", 4_000_000_000))
MAX_MEMBER_BYTES_A_DAY = int(os.environ.get("PLUMB_MAX_MEMBER_BYTES_A_DAY", 1_000_000_000))
MAX_EXHIBITS = 500
"""Bytes of all files of a review, of one member's within a day, and files of one submission."""
MAX_WAITING_READINGS = 40
"""Files of one member that may wait to be read."""
READING_MEMORY = int(os.environ.get("PLUMB_READING_MEMORY", 2_000_000_000))
READING_SECONDS = int(os.environ.get("PLUMB_READING_SECONDS", 120))
"""What the process that reads a file may take: bytes, and seconds of processor time."""
READINGS_AT_ONCE = max(2, os.cpu_count() or 2)
"""Files of one member that are read at a time."""

JOBS_AT_ONCE = False
"""Whether jobs are carried out where they are required, without the queue; for tests."""

# exhibits are files: a folder here, or any other storage by its class and options, such as one with the S3 protocol
EXHIBITS = Path(os.environ.get("PLUMB_EXHIBITS", ROOT / ".data" / "exhibits"))
STORAGES = {
    "default": {"BACKEND": "django.core.files.storage.FileSystemStorage"},
    "staticfiles": {"BACKEND": "django.contrib.staticfiles.storage.StaticFilesStorage"},
    "exhibits": {
        "BACKEND": os.environ.get("PLUMB_EXHIBIT_STORAGE", "plumb_server.submissions.storage.WholeFiles"),
        "OPTIONS": json.loads(os.environ.get("PLUMB_EXHIBIT_OPTIONS", "null")) or {"location": str(EXHIBITS)},
    },
}

SESSION_IDLE = int(os.environ.get("PLUMB_IDLE", 4 * 3600))
"""s after which somebody who did nothing is signed out."""
SESSION_LONGEST = 7 * 24 * 3600
"""s after which everybody signs in again."""
SESSION_COOKIE_AGE = SESSION_LONGEST
SESSION_EXPIRE_AT_BROWSER_CLOSE = True
SESSION_COOKIE_HTTPONLY = True
SESSION_COOKIE_SAMESITE = "Lax"
CSRF_COOKIE_SAMESITE = "Lax"
CSRF_FAILURE_VIEW = "plumb_server.web.problems.csrf_failure"
SECURE_CONTENT_TYPE_NOSNIFF = True
SECURE_REFERRER_POLICY = "same-origin"
X_FRAME_OPTIONS = "SAMEORIGIN"
if TLS:
    SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https")
    SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = True
    # such a cookie is taken from this host alone, by TLS alone
    SESSION_COOKIE_NAME, CSRF_COOKIE_NAME = "__Host-session", "__Host-csrftoken"
    ACCOUNT_DEFAULT_HTTP_PROTOCOL = "https"
    SECURE_HSTS_SECONDS = 31_536_000
    SECURE_HSTS_INCLUDE_SUBDOMAINS = os.environ.get("PLUMB_HSTS_SUBDOMAINS") == "1"
    SECURE_SSL_REDIRECT = True
    # asked by monitors on this machine, without TLS
    SECURE_REDIRECT_EXEMPT = [r"^health/$", r"^metrics/$"]
    CSRF_TRUSTED_ORIGINS = [f"https://{host}" for host in ALLOWED_HOSTS]

REST_FRAMEWORK = {
    "DEFAULT_AUTHENTICATION_CLASSES": [
        "plumb_server.accounts.tokens.BySession",
        "plumb_server.accounts.tokens.TokenAuthentication",
    ],
    "DEFAULT_PERMISSION_CLASSES": [
        "rest_framework.permissions.IsAuthenticated",
        "plumb_server.accounts.tokens.WithinScope",
    ],
    "DEFAULT_RENDERER_CLASSES": ["plumb_server.web.responses.PlainRenderer"],
    "DEFAULT_PARSER_CLASSES": ["plumb_server.web.requests.PlainJSONParser"],
    "DEFAULT_SCHEMA_CLASS": "drf_spectacular.openapi.AutoSchema",
    "EXCEPTION_HANDLER": "plumb_server.web.problems.handle",
    "DEFAULT_THROTTLE_RATES": {"compute": "300/min", "invitation": "30/min"},
    # addresses that proxies of ours vouch for; without one nobody's X-Forwarded-For is believed
    "NUM_PROXIES": PROXIES,
}
SPECTACULAR_SETTINGS = {
    "TITLE": "Vigilant Plumb",
    "VERSION": VERSION,
    "OAS_VERSION": "3.1.0",
    "DESCRIPTION": "Peer review of seismic analyses: reviews, submissions, rechecks, findings, reports.",
    "SERVE_INCLUDE_SCHEMA": False,
    "SERVE_PERMISSIONS": ["rest_framework.permissions.IsAuthenticated"],
    "COMPONENT_SPLIT_REQUEST": True,
    "POSTPROCESSING_HOOKS": [
        "drf_spectacular.hooks.postprocess_schema_enums",
        "plumb_server.web.schema.add_core_documents",
    ],
    "ENUM_NAME_OVERRIDES": {
        "PrintingFormatEnum": "plumb_server.reports.models.Printing.Format",
        "PrintingStatusEnum": "plumb_server.reports.models.Printing.Status",
        "FindingStatusEnum": "plumb_server.findings.models.Finding.Status",
        "SubmissionStatusEnum": "plumb_server.submissions.models.Submission.Status",
        "RunStatusEnum": "plumb_server.reference.models.Run.Status",
        "ReviewStatusEnum": "plumb_server.reviews.models.Review.Status",
        "RoleEnum": "plumb_server.reviews.models.Role",
    },
}
METRICS_KEY = os.environ.get("PLUMB_METRICS_KEY", "")
"""Key with which a monitor reads the metrics; without one nobody can."""
PROMETHEUS_EXPORT_MIGRATIONS = False

# one line of JSON for each event, with the id of its request
_SHARED: list[Any] = [
    structlog.contextvars.merge_contextvars,
    structlog.processors.TimeStamper(fmt="iso"),
    structlog.stdlib.add_logger_name,
    structlog.stdlib.add_log_level,
    structlog.processors.format_exc_info,
]
structlog.configure(
    processors=[structlog.stdlib.filter_by_level, *_SHARED, structlog.stdlib.ProcessorFormatter.wrap_for_formatter],
    logger_factory=structlog.stdlib.LoggerFactory(),
    cache_logger_on_first_use=True,
)
LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "formatters": {
        "json": {
            "()": structlog.stdlib.ProcessorFormatter,
            "processors": [
                structlog.stdlib.ProcessorFormatter.remove_processors_meta,
                structlog.processors.JSONRenderer(),
            ],
            "foreign_pre_chain": _SHARED,
        },
        "plain": {"format": "%(levelname)s %(name)s %(message)s"},
    },
    "handlers": {
        "console": {
            "class": "logging.StreamHandler",
            "formatter": "json" if os.environ.get("PLUMB_LOG") == "json" else "plain",
        }
    },
    "root": {"handlers": ["console"], "level": os.environ.get("PLUMB_LOG_LEVEL", "WARNING")},
}
