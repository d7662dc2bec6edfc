"""Settings of a running studio. Everything that differs between machines comes from the environment."""

from __future__ import annotations

import os
from pathlib import Path
from urllib.parse import urlsplit

from csp.constants import NONE, SELF

ROOT = Path(__file__).resolve().parent.parent
VAR = Path(os.environ.get("SPIRREL_VAR", ROOT / "var"))
ORIGIN = os.environ.get("SPIRREL_ORIGIN", "http://127.0.0.1:8770")
_origin = urlsplit(ORIGIN)
SECURE = _origin.scheme == "https"
LOOPBACK = _origin.hostname in {"127.0.0.1", "localhost", "::1"}

SECRET_KEY = os.environ["SPIRREL_SECRET_KEY"]
DEBUG = False
ALLOWED_HOSTS = [_origin.hostname or "127.0.0.1", *(["localhost", "127.0.0.1"] if LOOPBACK else [])]
CSRF_TRUSTED_ORIGINS = [ORIGIN]

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "csp",
    "django_tasks",
    "django_tasks_db",
    "studio.accounts",
    "studio.jobs",
    "studio.yarns",
    "studio.designs",
    "studio.bench",
    "studio.shapes",
    "studio.sizes",
    "studio.pieces",
    "studio.bases",
    "studio.booklets",
    "studio.links",
    "studio.releases",
    "studio.making",
    "studio.post",
    "studio.proving",
    "studio.commissions",
    "studio.translating",
    "studio.leaving",
    "studio.backups",
    "studio.demo",
]

MIDDLEWARE = [
    "studio.operations.requests.numbered",
    "studio.errors.one_shape",
    "django.middleware.security.SecurityMiddleware",
    "csp.middleware.CSPMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
]

ROOT_URLCONF = "studio.urls"
WSGI_APPLICATION = "studio.wsgi.application"
TEMPLATES = [{"BACKEND": "django.template.backends.django.DjangoTemplates", "APP_DIRS": True}]

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.mysql",
        "NAME": os.environ.get("SPIRREL_DB_NAME", "spirrel"),
        "USER": os.environ.get("SPIRREL_DB_USER", "spirrel"),
        "PASSWORD": os.environ.get("SPIRREL_DB_PASSWORD", ""),
        "HOST": os.environ.get("SPIRREL_DB_SOCKET", "127.0.0.1"),
        "CONN_MAX_AGE": 60,
        "CONN_HEALTH_CHECKS": True,
        "OPTIONS": {
            "charset": "utf8mb4",
            "init_command": "SET sql_mode='STRICT_TRANS_TABLES,NO_ZERO_DATE,ERROR_FOR_DIVISION_BY_ZERO', "
            "default_storage_engine=INNODB",
            "isolation_level": "read committed",
        },
        "TEST": {"CHARSET": "utf8mb4", "COLLATION": "utf8mb4_unicode_ci"},
    }
}
SILENCED_SYSTEM_CHECKS = [
    "security.W005",  # other names under the same domain are not ours to decide about
    "security.W008",  # plain requests are sent on by the reverse proxy, which alone knows them for certain
    "security.W021",  # nor is the list that browsers bring along
]

# Carried by MariaDB on one machine; another backend of Django's task framework is one line here.
TASKS = {"default": {"BACKEND": "django_tasks_db.DatabaseBackend", "ENQUEUE_ON_COMMIT": True}}

PASSWORD_HASHERS = ["django.contrib.auth.hashers.Argon2PasswordHasher"]
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": f"django.contrib.auth.password_validation.{name}"}
    for name in (
        "UserAttributeSimilarityValidator",
        "MinimumLengthValidator",
        "CommonPasswordValidator",
        "NumericPasswordValidator",
    )
]

SESSION_ENGINE = "studio.accounts.sessions"
SESSION_COOKIE_SECURE = SECURE
CSRF_COOKIE_SECURE = SECURE
SESSION_COOKIE_SAMESITE = "Lax"
SESSION_COOKIE_AGE = 60 * 60 * 24 * 30
SECURE_HSTS_SECONDS = 60 * 60 * 24 * 365 if SECURE else 0
SECURE_SSL_REDIRECT = False
SECURE_CONTENT_TYPE_NOSNIFF = True
PASSWORD_RESET_TIMEOUT = 60 * 60
SECURE_REFERRER_POLICY = "same-origin"
X_FRAME_OPTIONS = "DENY"
CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [NONE],
        "script-src": [SELF],
        "style-src": [SELF],
        # Radix and CodeMirror place overlays and style themselves from script, without a nonce of ours.
        "style-src-attr": ["'unsafe-inline'"],
        "style-src-elem": [SELF, "'unsafe-inline'"],
        "img-src": [SELF, "data:", "blob:"],
        "font-src": [SELF],
        "connect-src": [SELF],
        "manifest-src": [SELF],
        "worker-src": [SELF],
        "frame-ancestors": [NONE],
        "base-uri": [NONE],
        "form-action": [SELF],
    }
}

# Without a mail server letters are written into a folder, to be looked at.
MAIL_SERVER = os.environ.get("SPIRREL_SMTP_HOST", "")
EMAIL_BACKEND = f"django.core.mail.backends.{'smtp' if MAIL_SERVER else 'filebased'}.EmailBackend"
EMAIL_FILE_PATH = VAR / "letters"
EMAIL_HOST = MAIL_SERVER or "localhost"
EMAIL_PORT = int(os.environ.get("SPIRREL_SMTP_PORT", "587"))
EMAIL_HOST_USER = os.environ.get("SPIRREL_SMTP_USER", "")
EMAIL_HOST_PASSWORD = os.environ.get("SPIRREL_SMTP_PASSWORD", "")
EMAIL_USE_TLS = bool(MAIL_SERVER) and os.environ.get("SPIRREL_SMTP_TLS", "1") == "1"
EMAIL_TIMEOUT = 15
DEFAULT_FROM_EMAIL = os.environ.get("SPIRREL_MAIL_FROM", f"spirrel@{_origin.hostname or 'localhost'}")

USE_TZ = True
TIME_ZONE = "UTC"
LANGUAGE_CODE = "en"
USE_I18N = False

STATIC_URL = "/static/"
WHITENOISE_ROOT = ROOT / "frontend" / "dist"
WHITENOISE_INDEX_FILE = True
WHITENOISE_IMMUTABLE_FILE_TEST = r"^/assets/.+-[A-Za-z0-9_-]{8,}\..+$"

MEDIA_ROOT = VAR / "pictures"
DATA_UPLOAD_MAX_MEMORY_SIZE = 12 * 2**20
FILE_UPLOAD_MAX_MEMORY_SIZE = 2 * 2**20

METRICS_TOKEN = os.environ.get("SPIRREL_METRICS_TOKEN", "")

# No name, address or text of anybody is logged: only what failed, where, and the request's number.
LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "filters": {
        "number": {"()": "studio.operations.logs.WithNumber"},
        "no-address": {"()": "studio.operations.logs.NoAddress"},
    },
    "formatters": {
        "plain": {"format": "%(asctime)s %(levelname)s %(name)s [%(request_id)s] %(message)s"},
        "json": {"()": "studio.operations.logs.AsJson"},
    },
    "handlers": {
        "console": {
            "class": "logging.StreamHandler",
            "filters": ["number"],
            "formatter": "json" if os.environ.get("SPIRREL_LOG") == "json" else "plain",
        }
    },
    "loggers": {
        "django.request": {"level": "ERROR", "filters": ["no-address"]},
        # A short line is what there are threads for; how long it takes is measured.
        "waitress.queue": {"level": "ERROR"},
    },
    "root": {"handlers": ["console"], "level": "WARNING"},
}
