"""Addresses: the typed API, sign-in, and the screens for everything else."""

from django.urls import include, path, re_path

from tropometer.server.api import api
from tropometer.server.pages import screens

urlpatterns = [
    path("api/", api.urls),
    path("_allauth/", include("allauth.headless.urls")),
    re_path(r"^(?!static/|api/|_allauth/).*$", screens),
]
