"""Addresses: the typed API, sign-in, and the screens for everything else."""

from django.urls import include, path, re_path

from tropometer.server.api import api
from tropometer.server.bench.requests import student_sends
from tropometer.server.clips import tus
from tropometer.server.lessons.sheet_page import sheet_page
from tropometer.server.operations.health import healthy, ready
from tropometer.server.pages import (
    check_page,
    film_page,
    mirror_page,
    own_page,
    screens,
    sending_page,
    student_worker,
    walk_page,
)
from tropometer.server.problems import unknown
from tropometer.server.studio.film_api import phone_films

begin, go_on = tus.endpoint(tus.instructor_sends, open_to_all=False)
begin_by_link, go_on_by_link = tus.endpoint(student_sends, open_to_all=True)
begin_by_phone, go_on_by_phone = tus.endpoint(phone_films, open_to_all=True)

urlpatterns = [
    path("api/uploads", begin),
    path("api/uploads/<uuid:id>", go_on),
    path("api/sent/<str:token>/uploads", begin_by_link),
    path("api/sent/<str:token>/uploads/<uuid:id>", go_on_by_link),
    path("api/film/<str:token>/uploads", begin_by_phone),
    path("api/film/<str:token>/uploads/<uuid:id>", go_on_by_phone),
    path("api/", api.urls),
    path("_allauth/", include("tropometer.server.people.account_urls")),
    path("healthz", healthy),
    path("readyz", ready),
    re_path(r"^(api|_allauth)/", unknown),
    path("student-worker.js", student_worker),
    path("l/<str:token>", sheet_page),
    path("s/<str:token>", sending_page),
    path("f/<str:token>", film_page),
    path("w", walk_page),
    path("p", own_page),
    path("p/<str:token>", own_page),
    path("p/<str:token>/mail", own_page),
    path("p/<str:token>/mirror", mirror_page),
    path("p/<str:token>/check/<str:drill>", check_page),
    re_path(r"^(?!static/).*$", screens),
]
handler400 = "tropometer.server.problems.bad_request"
handler500 = "tropometer.server.problems.broken"
