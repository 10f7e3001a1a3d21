"""Settings: everything that differs between machines comes from RINGSIDE_* variables."""

from pathlib import Path

import environ
from csp.constants import NONCE, NONE, SELF

ROOT = Path(__file__).resolve().parents[2]
WEB_DIST = ROOT / "web" / "dist"

env = environ.Env()
DEBUG = env.bool("RINGSIDE_DEBUG", default=False)
SECRET_KEY = env.str("RINGSIDE_SECRET_KEY")
ALLOWED_HOSTS = env.list("RINGSIDE_HOSTS", default=["127.0.0.1", "localhost"])
CSRF_TRUSTED_ORIGINS = env.list("RINGSIDE_ORIGINS", default=[])
HTTPS = env.bool("RINGSIDE_HTTPS", default=False)
# Where phones of the studio's own network reach this installation, as https://name:port.
LAN_ADDRESSES = env.list("RINGSIDE_LAN_ADDRESSES", default=[])
# The demo's people have a password that everybody can read: it opens from this machine only.
PUBLISHED_PASSWORD = (ROOT / "demo" / "password.txt").read_text().strip()

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.staticfiles",
    "axes",
    "csp",
    "ninja",
    "accounts",
    "studios",
    "jobs",
    "plans",
    "sheets",
    "hearing",
    "carrying",
    "takes",
    "api",
    "procrastinate.contrib.django",
]
MIDDLEWARE = [
    "config.health.health",
    "config.requestlog.request_log",
    "config.isolated.isolated",
    "config.packing.PackedLists",
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "csp.middleware.CSPMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "axes.middleware.AxesMiddleware",
]
ROOT_URLCONF = "config.urls"
WSGI_APPLICATION = "config.wsgi.application"
TEMPLATES = [{"BACKEND": "django.template.backends.django.DjangoTemplates", "APP_DIRS": True}]

POOL = (
    {"min_size": 2, "max_size": 12, "timeout": 5, "max_idle": 300}
    if env.bool("RINGSIDE_DB_POOL", default=False)
    else None
)
DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.postgresql",
        "HOST": "127.0.0.1",
        "PORT": env.str("RINGSIDE_DB_PORT", default="5432"),
        "NAME": env.str("RINGSIDE_DB_NAME", default="ringside"),
        "USER": "ringside",
        "PASSWORD": env.str("RINGSIDE_DB_PASSWORD", default=""),
        # A pool: threads that wait for an answer to be computed hold no connection meanwhile.
        # Each is checked before it is used, so a database that was away is not noticed later.
        "CONN_HEALTH_CHECKS": True,
        "OPTIONS": {"pool": POOL} if POOL else {},
        "CONN_MAX_AGE": 0 if POOL else 60,
    }
}
# Processes for long answers beside each web process; 0 works them out in place, as tests do.
HEAVY_PROCESSES = env.int("RINGSIDE_HEAVY", default=0)

# Files that are made or taken in: a local folder, unless another of Django's storages is named.
MEDIA_ROOT = env.str("RINGSIDE_FILES", default=str(ROOT / ".ringside" / "files"))
# Or an S3-compatible storage; who reaches it is asked of the usual AWS_* variables.
S3_BUCKET = env.str("RINGSIDE_S3_BUCKET", default="")
S3 = {
    "BACKEND": "storages.backends.s3.S3Storage",
    "OPTIONS": {
        "bucket_name": S3_BUCKET,
        "endpoint_url": env.str("RINGSIDE_S3_ENDPOINT", default="") or None,
        "region_name": env.str("RINGSIDE_S3_REGION", default="") or None,
        "default_acl": "private",
        "file_overwrite": False,
        "querystring_auth": True,
    },
}
LOCAL_FILES = {"BACKEND": "django.core.files.storage.FileSystemStorage"}
STORAGES = {
    "default": S3 if S3_BUCKET else LOCAL_FILES,
    "staticfiles": {"BACKEND": "django.contrib.staticfiles.storage.StaticFilesStorage"},
}
# Bytes of recorded takes a studio may keep.
TAKES_BYTES = env.int("RINGSIDE_TAKES_BYTES", default=20_000_000_000)
FILE_UPLOAD_PERMISSIONS = 0o600
FILE_UPLOAD_DIRECTORY_PERMISSIONS = 0o700
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

AUTH_USER_MODEL = "accounts.User"
AUTHENTICATION_BACKENDS = [
    "axes.backends.AxesStandaloneBackend",
    "django.contrib.auth.backends.ModelBackend",
]
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
# Five wrong tries for one name from one address, then a quarter of an hour's rest. The
# address is the connection's own: a header that the client writes is not believed.
AXES_FAILURE_LIMIT = 5
AXES_COOLOFF_TIME = 0.25
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_RESET_ON_SUCCESS = True
AXES_VERBOSE = False
AXES_LOCKOUT_CALLABLE = "api.account.locked.locked_out"

SESSION_COOKIE_HTTPONLY = True
SESSION_COOKIE_SAMESITE = "Lax"
CSRF_COOKIE_SAMESITE = "Lax"
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = HTTPS
# Never with a certificate that was made on the spot: a browser would shut its user out for a year.
SECURE_HSTS_SECONDS = env.int("RINGSIDE_HSTS_S", default=31_536_000 if HTTPS else 0)
SECURE_CONTENT_TYPE_NOSNIFF = True
SECURE_REFERRER_POLICY = "same-origin"
X_FRAME_OPTIONS = "SAMEORIGIN"  # the set-up sheet is shown inside the application
CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [NONE],
        "script-src": [SELF],
        "style-src": [SELF, NONCE],
        "img-src": [SELF, "data:"],
        "font-src": [SELF],
        "connect-src": [SELF],
        "frame-src": [SELF],
        "frame-ancestors": [SELF],
        "base-uri": [NONE],
        "form-action": [SELF],
    }
}
DATA_UPLOAD_MAX_MEMORY_SIZE = 2_000_000

USE_TZ = True
TIME_ZONE = "UTC"
USE_I18N = False
STATIC_URL = "/static/"
STATICFILES_DIRS = [p for p in (WEB_DIST, ROOT / "server" / "static") if p.is_dir()]
WHITENOISE_USE_FINDERS = True
WHITENOISE_AUTOREFRESH = DEBUG
WHITENOISE_IMMUTABLE_FILE_TEST = r"^.+[.-][0-9A-Za-z_-]{8}\.(js|css|woff2)$"

LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
    "loggers": {"ringside": {"level": "INFO"}},
}
