"""What gunicorn serves."""

import gc
import os

from django.core.wsgi import get_wsgi_application
from django.urls import get_resolver

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "tropometer.server.settings")
if not os.environ.get("TROPO_SECRET_KEY"):
    raise SystemExit("TROPO_SECRET_KEY is not set: give every machine the same long random text.")
application = get_wsgi_application()

# What is loaded now stays for good: looking through it for garbage in the middle of answers took up to half
# of a slow answer's time.
_ = get_resolver().url_patterns
gc.collect()
gc.freeze()
gc.set_threshold(20_000, 20, 20)
