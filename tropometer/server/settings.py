"""Settings, read from the environment; the defaults suit one machine started by ./tropo."""

import secrets
from pathlib import Path

import environ
from csp.constants import NONE, SELF

from tropometer.server import logs
from tropometer.teaching.knowledge.pages import DRAWINGS

ROOT = Path(__file__).resolve().parents[2]
VAR = ROOT / "var"
env = environ.Env()

DEBUG = env.bool("TROPO_DEBUG", False)
# Building and checks need none; whatever serves refuses to start without one (wsgi.py and ./tropo).
SECRET_KEY = env.str("TROPO_SECRET_KEY", "") or secrets.token_urlsafe(48)
ALLOWED_HOSTS = env.list("TROPO_HOSTS", default=["127.0.0.1", "localhost"])
SITE_URL = env.str("TROPO_URL", "http://127.0.0.1:8000")
CSRF_TRUSTED_ORIGINS = [SITE_URL]
BEHIND_HTTPS = SITE_URL.startswith("https://")
# How many proxies of our own stand before the web server: so many addresses that they report are believed.
TRUSTED_PROXIES = env.int("TROPO_PROXIES", 0)

OUR_APPS = ("teaching", "people", "clips", "bench", "judging", "shelf", "lessons")
INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.staticfiles",
    "tropometer.server.teaching",
    "tropometer.server.people",  # before allauth: its mails in our words
    "allauth",
    "allauth.account",
    "allauth.headless",
    "allauth.usersessions",
    "axes",
    "procrastinate.contrib.django",
    "ninja",
    "tropometer.server.clips",
    "tropometer.server.bench",
    "tropometer.server.logbook",
    "tropometer.server.drill_checks",
    "tropometer.server.judging",
    "tropometer.server.shelf",
    "tropometer.server.studio",
    "tropometer.server.walks",
    "tropometer.server.lessons",
    "tropometer.server.talking",
    "tropometer.server.operations",
    "tropometer.server.demo",
]
MIDDLEWARE = [
    "tropometer.server.logs.RequestLog",
    "csp.middleware.CSPMiddleware",  # before whatever answers with a page
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "tropometer.server.compressing.CompressAnswers",
    "tropometer.server.border.Border",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "allauth.account.middleware.AccountMiddleware",
    "axes.middleware.AxesMiddleware",
]
CSRF_FAILURE_VIEW = "tropometer.server.problems.forged"
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
DATABASES["default"]["CONN_HEALTH_CHECKS"] = True
# Compiling a query takes longer than any of ours runs.
DATABASES["default"].setdefault("OPTIONS", {}).setdefault("options", "-c jit=off")
# Shared between processes, so that sign-in limits hold however many of them serve.
CACHES = {"default": {"BACKEND": "django.core.cache.backends.db.DatabaseCache", "LOCATION": "server_cache"}}

# How the lines of studio hours find each other: within the one process that serves them, or over Redis where
# several do.
REDIS = env.str("TROPO_REDIS", "")
CHANNEL_LAYERS = {
    "default": {"BACKEND": "channels_redis.pubsub.RedisPubSubChannelLayer", "CONFIG": {"hosts": [REDIS]}}
    if REDIS
    else {"BACKEND": "channels.layers.InMemoryChannelLayer"}
}

AUTH_USER_MODEL = "people.User"
AUTHENTICATION_BACKENDS = [
    "axes.backends.AxesStandaloneBackend",  # first: who is locked out is asked nothing more
    "allauth.account.auth_backends.AuthenticationBackend",
]
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": f"django.contrib.auth.password_validation.{name}"}
    for name in ("MinimumLengthValidator", "CommonPasswordValidator", "NumericPasswordValidator")
]
ACCOUNT_ADAPTER = "tropometer.server.people.adapter.InvitedOnly"
ACCOUNT_LOGIN_METHODS = {"email"}
ACCOUNT_SIGNUP_FIELDS = ["email*", "password1*"]
ACCOUNT_USER_MODEL_USERNAME_FIELD = None
ACCOUNT_EMAIL_VERIFICATION = "none"
ACCOUNT_EMAIL_NOTIFICATIONS = True  # of every change to an account
ACCOUNT_EMAIL_SUBJECT_PREFIX = ""
ACCOUNT_LOGOUT_ON_PASSWORD_CHANGE = False  # this session stays; the others are ended by hand
ACCOUNT_REAUTHENTICATION_TIMEOUT = 300
ACCOUNT_EMAIL_UNKNOWN_ACCOUNTS = False  # strangers get no mail from us
ACCOUNT_RATE_LIMITS = {
    "login_failed": "60/h/ip",
    "page_code": "5/h/key,20/h/ip",  # a code by which a student gets their page again
    "page_enter": "30/h/ip",
}
ALLAUTH_TRUSTED_PROXY_COUNT = TRUSTED_PROXIES
HEADLESS_ONLY = True
HEADLESS_CLIENTS = ("browser",)
HEADLESS_FRONTEND_URLS = {
    "account_reset_password": f"{SITE_URL}/forgotten",
    "account_reset_password_from_key": f"{SITE_URL}/new-password/{{key}}",
}
USERSESSIONS_TRACK_ACTIVITY = False  # it would write to the database with every request
NINJA_PAGINATION_PER_PAGE = 50
NINJA_PAGINATION_MAX_LIMIT = 500
# Wrong passwords lock out the pair of account and address, so that nobody can lock the owner out from
# elsewhere; an address that tries many accounts is slowed by the rate above.
AXES_CLIENT_IP_CALLABLE = "tropometer.server.people.signing_in.address_of"
AXES_USERNAME_CALLABLE = "tropometer.server.people.signing_in.account_of"
AXES_LOCKOUT_CALLABLE = "tropometer.server.people.signing_in.locked_out"
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_FAILURE_LIMIT = 6
AXES_COOLOFF_TIME = 0.25  # hours
AXES_RESET_ON_SUCCESS = True
AXES_RESET_COOL_OFF_ON_FAILURE_DURING_LOCKOUT = False
AXES_DISABLE_ACCESS_LOG = True
AXES_VERBOSE = False
SESSION_COOKIE_HTTPONLY = True
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = BEHIND_HTTPS
SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https") if BEHIND_HTTPS else None
SECURE_HSTS_SECONDS = 365 * 24 * 3600 if BEHIND_HTTPS else 0
SECURE_REFERRER_POLICY = "same-origin"  # a lesson's link must not travel on

CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [SELF],
        "connect-src": [SELF, "blob:"],  # a clip out of a file that lies in the browser
        "img-src": [SELF, "blob:"],
        "media-src": [SELF, "blob:"],
        "worker-src": [SELF, "blob:"],
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
STATIC_ROOT = env.path("TROPO_STATIC", default=str(VAR / "static"))()
# The build names its files by what is in them: one that is kept for a year never goes stale.
WHITENOISE_IMMUTABLE_FILE_TEST = r"^/static/assets/.+-[A-Za-z0-9_-]{8}\.[a-z0-9]+$"
STATICFILES_DIRS = [*([WEB_BUILD] if WEB_BUILD.exists() else []), ("drills", DRAWINGS)]
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
    "default": BUCKET if S3_BUCKET else {"BACKEND": "tropometer.server.storage.DurableStorage"},
    "staticfiles": {"BACKEND": "whitenoise.storage.CompressedStaticFilesStorage"},
}
MAX_CLIP_BYTES = 500 * 1024 * 1024
# Files on their way in; a folder that all web servers share.
UPLOAD_ROOT = env.path("TROPO_UPLOADS", default=str(VAR / "uploads"))()
# The networks that find a body; ops/models.sh puts them there.
LANDMARK_MODELS = Path(env.path("TROPO_MODELS", default=str(VAR / "models"))())
UPLOAD_KEPT_HOURS = 48
# Files on their way between rooms; each machine's own.
SCRATCH_ROOT = env.path("TROPO_SCRATCH", default=str(VAR / "scratch"))()
FONT_ROOT = VAR / "fonts"  # the screens' own, unpacked for what draws outside a browser
FILE_UPLOAD_PERMISSIONS = 0o600
GB = 1024**3
LEAST_FREE_BYTES = int(env.float("TROPO_LEAST_FREE_GB", 2.0) * GB)  # of the disk, whatever is sent
INSTRUCTOR_BYTES = int(env.float("TROPO_INSTRUCTOR_GB", 200.0) * GB)
# By one link that an instructor gave a student: at a time, and a day.
LINK_BYTES, LINK_UPLOADS, LINK_SWINGS_A_DAY = 4 * GB, 16, 40
LINK_DAYS = 60
BIN_DAYS = 30  # what was removed can be taken back
QUARANTINE_DAYS = 14  # a refused file waits, should the refusal have been wrong
TAKE_BACK_SECONDS = env.float("TROPO_TAKE_BACK_SECONDS", 30.0)  # a sent lesson can be made a draft again

EMAIL_CONFIG = env.email_url("EMAIL_URL", default="smtp://127.0.0.1:1025")
vars().update(EMAIL_CONFIG)
EMAIL_TIMEOUT = 15
DEFAULT_FROM_EMAIL = env.str("TROPO_MAIL_FROM", "Tropometer <lessons@tropometer.example>")

TEST_RUNNER = "tests.runner.CountingRunner"

LOGGING = logs.LOGGING
LOGGING["loggers"]["tropometer"]["level"] = env.str("TROPO_LOG", "INFO").upper()
logs.configure()
