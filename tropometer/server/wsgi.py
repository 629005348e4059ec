"""What gunicorn serves."""

import os

from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "tropometer.server.settings")
if not os.environ.get("TROPO_SECRET_KEY"):
    raise SystemExit("TROPO_SECRET_KEY is not set: give every machine the same long random text.")
application = get_wsgi_application()
