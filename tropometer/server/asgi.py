"""What uvicorn serves: the lines of studio hours. Everything else is WSGI's."""

import os
from typing import Any, cast

import django
from channels.auth import AuthMiddlewareStack
from channels.routing import ProtocolTypeRouter, URLRouter
from channels.security.websocket import AllowedHostsOriginValidator
from django.urls import path, re_path

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "tropometer.server.settings")
if not os.environ.get("TROPO_SECRET_KEY"):
    raise SystemExit("TROPO_SECRET_KEY is not set: give every machine the same long random text.")
django.setup()

from tropometer.server.studio.live.device import DeviceLine  # noqa: E402
from tropometer.server.studio.live.page import Nowhere, PageLine  # noqa: E402

# A page shows its session, and no other site's page may use it; a device has neither origin nor session.
page = AllowedHostsOriginValidator(AuthMiddlewareStack(PageLine.as_asgi()))
lines: list[Any] = [
    path("live/devices/<str:token>", cast(Any, DeviceLine.as_asgi())),
    path("live/hours/<uuid:id>", cast(Any, page)),
    re_path(r"", cast(Any, Nowhere.as_asgi())),
]
application = ProtocolTypeRouter({"websocket": URLRouter(lines)})
