"""Settings, read from the environment; the defaults suit one machine started by ./tropo."""

from pathlib import Path

import environ
import structlog
from csp.constants import NONE, SELF

ROOT = Path(__file__).resolve().parents[2]
VAR = ROOT / "var"
env = environ.Env()

DEBUG = env.bool("TROPO_DEBUG", False)
SECRET_KEY = env.str("TROPO_SECRET_KEY", "only-for-building-and-checks")
ALLOWED_HOSTS = env.list("TROPO_HOSTS", default=["127.0.0.1", "localhost"])
SITE_URL = env.str("TROPO_URL", "http://127.0.0.1:8000")
CSRF_TRUSTED_ORIGINS = [SITE_URL]
BEHIND_HTTPS = SITE_URL.startswith("https://")

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.staticfiles",
    "allauth",
    "allauth.account",
    "allauth.headless",
    "procrastinate.contrib.django",
    "ninja",
    "tropometer.server.people",
    "tropometer.server.clips",
    "tropometer.server.bench",
    "tropometer.server.shelf",
    "tropometer.server.lessons",
    "tropometer.server.demo",
]
MIDDLEWARE = [
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "csp.middleware.CSPMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "allauth.account.middleware.AccountMiddleware",
]
ROOT_URLCONF = "tropometer.server.urls"
WSGI_APPLICATION = "tropometer.server.wsgi.application"
TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "APP_DIRS": True,
        "OPTIONS": {"context_processors": ["django.template.context_processors.request"]},
    }
]

DATABASES = {"default": env.db_url("DATABASE_URL", default="postgresql://tropo@127.0.0.1:5432/tropo")}
DATABASES["default"]["CONN_MAX_AGE"] = 60
# Compiling a query takes longer than any of ours runs.
DATABASES["default"].setdefault("OPTIONS", {}).setdefault("options", "-c jit=off")
# Shared between processes, so that sign-in limits hold however many of them serve.
CACHES = {"default": {"BACKEND": "django.core.cache.backends.db.DatabaseCache", "LOCATION": "server_cache"}}

AUTH_USER_MODEL = "people.User"
AUTHENTICATION_BACKENDS = ["allauth.account.auth_backends.AuthenticationBackend"]
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": f"django.contrib.auth.password_validation.{name}"}
    for name in ("MinimumLengthValidator", "CommonPasswordValidator", "NumericPasswordValidator")
]
ACCOUNT_ADAPTER = "tropometer.server.people.adapter.InvitedOnly"
ACCOUNT_LOGIN_METHODS = {"email"}
ACCOUNT_SIGNUP_FIELDS = ["email*", "password1*"]
ACCOUNT_USER_MODEL_USERNAME_FIELD = None
ACCOUNT_EMAIL_VERIFICATION = "none"
HEADLESS_ONLY = True
HEADLESS_CLIENTS = ("browser",)
SESSION_COOKIE_HTTPONLY = True
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = BEHIND_HTTPS
SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https") if BEHIND_HTTPS else None
SECURE_REFERRER_POLICY = "same-origin"  # a lesson's link must not travel on

CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [SELF],
        "img-src": [SELF, "blob:"],
        "object-src": [NONE],
        "base-uri": [NONE],
        "frame-ancestors": [NONE],
        "form-action": [SELF],
    }
}

LANGUAGE_CODE = "en"
USE_TZ = True
TIME_ZONE = "UTC"

WEB_BUILD = ROOT / "web" / "dist"
STATIC_URL = "/static/"
STATIC_ROOT = VAR / "static"
STATICFILES_DIRS = [WEB_BUILD] if WEB_BUILD.exists() else []
MEDIA_ROOT = env.path("TROPO_MEDIA", default=str(VAR / "media"))()
# One folder, or a bucket of an S3-compatible store for many machines; keys come from AWS_* as usual.
S3_BUCKET = env.str("TROPO_S3_BUCKET", "")
BUCKET = {
    "BACKEND": "storages.backends.s3.S3Storage",
    "OPTIONS": {
        "bucket_name": S3_BUCKET,
        "endpoint_url": env.str("TROPO_S3_ENDPOINT", "") or None,
        "default_acl": None,  # the bucket is private, and so is all in it
        "file_overwrite": True,
    },
}
STORAGES = {
    "default": BUCKET if S3_BUCKET else {"BACKEND": "django.core.files.storage.FileSystemStorage"},
    "staticfiles": {"BACKEND": "django.contrib.staticfiles.storage.StaticFilesStorage"},
}
MAX_CLIP_BYTES = 500 * 1024 * 1024
# Files on their way in; a folder that all web servers share.
UPLOAD_ROOT = env.path("TROPO_UPLOADS", default=str(VAR / "uploads"))()
# The networks that find a body; ops/models.sh puts them there.
LANDMARK_MODELS = Path(env.path("TROPO_MODELS", default=str(VAR / "models"))())
UPLOAD_KEPT_HOURS = 48
FILE_UPLOAD_PERMISSIONS = 0o600

EMAIL_CONFIG = env.email_url("EMAIL_URL", default="smtp://127.0.0.1:1025")
vars().update(EMAIL_CONFIG)
DEFAULT_FROM_EMAIL = env.str("TROPO_MAIL_FROM", "Tropometer <lessons@tropometer.example>")

TEST_RUNNER = "tests.runner.CountingRunner"

structlog.configure(
    processors=[
        structlog.contextvars.merge_contextvars,
        structlog.processors.add_log_level,
        structlog.processors.TimeStamper(fmt="iso"),
        structlog.processors.format_exc_info,
        structlog.processors.LogfmtRenderer(),
    ]
)
LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
}
