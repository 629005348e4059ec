"""The lesson desk."""

from datetime import date
from typing import Any, Literal
from uuid import UUID

from django.db.models import Q, QuerySet
from django.http import HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from ninja import Field, Query, Router
from ninja.pagination import paginate

from tropometer.server.access import asking, owned
from tropometer.server.lessons import paper, prefilling, sending, services, templates, versions
from tropometer.server.lessons.checking import Remark, remarks_on
from tropometer.server.lessons.models import Lesson, Template
from tropometer.server.lessons.schemas import (
    Expiry,
    LessonChange,
    LessonFrameChange,
    LessonFrameIn,
    LessonOut,
    LessonRow,
    LessonSheet,
    RemarkOut,
    SendLater,
    TemplateIn,
    TemplateOut,
    TriesIn,
)
from tropometer.server.lists import Pages, Search, between, matching
from tropometer.server.ranged import private_file

router = Router(tags=["lessons"])


class LessonSearch(Search):
    stands: Literal["all", "draft", "unread", "read"] = "all"
    student: UUID | None = None
    since: date | None = None
    until: date | None = Field(None, description="that day too")
    order: Literal["newest", "oldest", "name"] = "newest"


STANDS = {
    "all": Q(),
    "draft": Q(sent_at__isnull=True),
    "unread": Q(sent_at__isnull=False, first_read_at__isnull=True),
    "read": Q(first_read_at__isnull=False),
}
LESSON_ORDERS = {
    "newest": ("-started_at", "id"),
    "oldest": ("started_at", "id"),
    "name": ("swing__student__name", "-started_at", "id"),
}


@router.get("/lessons", response=list[LessonRow])
@paginate(Pages)
def lessons(request: HttpRequest, wanted: Query[LessonSearch]) -> QuerySet[Lesson]:
    found = services.lessons_of(asking(request)).filter(STANDS[wanted.stands])
    if wanted.student:
        found = found.filter(swing__student=wanted.student)
    found = between(found, "started_at", wanted.since, wanted.until)
    found = matching(found, wanted.q, "title", "opening", "swing__student__name", "swing__club")
    return found.order_by(*LESSON_ORDERS[wanted.order])


@router.post("/swings/{uuid:swing_id}/lesson", response=LessonOut)
def open_lesson(request: HttpRequest, swing_id: UUID) -> Lesson:
    """The lesson of a swing; begun when there is none."""
    return _out(services.lesson_for(asking(request), swing_id))


@router.get("/lessons/{uuid:id}", response=LessonOut)
def lesson(request: HttpRequest, id: UUID) -> Lesson:
    return _out(services.lesson_of(asking(request), id))


@router.patch("/lessons/{uuid:id}", response=LessonOut)
def change_lesson(request: HttpRequest, id: UUID, change: LessonChange) -> Lesson:
    found = services.lesson_of(asking(request), id)
    services.change(found, change.dict(exclude_none=True, exclude={"id"}), change.id)
    return _out(services.lesson_of(asking(request), id))


@router.put("/lessons/{uuid:id}/tries", response=LessonOut)
def put_tries(request: HttpRequest, id: UUID, data: TriesIn) -> Lesson:
    """Tell a studio hour in a draft, as it stands now."""
    services.put_tries(services.lesson_of(asking(request), id), data.hour_id)
    return _out(services.lesson_of(asking(request), id))


@router.post("/lessons/{uuid:id}/frames", response=LessonOut)
def add_frame(request: HttpRequest, id: UUID, data: LessonFrameIn) -> Lesson:
    found = services.lesson_of(asking(request), id)
    services.add_frame(found, data.clip_id, data.frame, data.words, data.gauges, data.id, data.chalk)
    return _out(services.lesson_of(asking(request), id))


@router.patch("/lessons/{uuid:id}/frames/{uuid:frame_id}", response=LessonOut)
def change_frame(request: HttpRequest, id: UUID, frame_id: UUID, change: LessonFrameChange) -> Lesson:
    found = services.lesson_of(asking(request), id)
    services.change_frame(found, frame_id, change.words, change.left_out, change.id)
    if change.position is not None:
        services.move_frame(found, frame_id, change.position)
    return _out(services.lesson_of(asking(request), id))


@router.delete("/lessons/{uuid:id}/frames/{uuid:frame_id}", response=LessonOut)
def remove_frame(request: HttpRequest, id: UUID, frame_id: UUID) -> Lesson:
    services.take_out(services.lesson_of(asking(request), id), frame_id)
    return _out(services.lesson_of(asking(request), id))


@router.get("/lessons/{uuid:id}/frames/{uuid:frame_id}.jpg", include_in_schema=False)
def frame_still(request: HttpRequest, id: UUID, frame_id: UUID) -> HttpResponseBase:
    found = services.lesson_of(asking(request), id)
    return private_file(request, owned(found.frames.all(), frame_id).still, "image/jpeg")


@router.get("/lessons/{uuid:id}/sheet", response=LessonSheet)
def preview(request: HttpRequest, id: UUID) -> dict[str, Any]:
    return services.sheet(services.lesson_of(asking(request), id))


@router.get("/lessons/{uuid:id}/lesson.pdf", include_in_schema=False)
def on_paper(request: HttpRequest, id: UUID) -> HttpResponse:
    """The sheet on paper: as it was sent, or as a draft stands."""
    found = services.lesson_of(asking(request), id)
    shown = versions.as_it_stands(found) if found.is_draft else versions.version_of(found)
    return HttpResponse(paper.pdf(found, shown), content_type="application/pdf")


@router.post("/lessons/{uuid:id}/prefill", response=LessonOut)
def prefill(request: HttpRequest, id: UUID) -> Lesson:
    """Fill in what is still empty, from what was found and chosen; once for each first focus."""
    prefilling.prefill(services.lesson_of(asking(request), id))
    return _out(services.lesson_of(asking(request), id))


@router.get("/lessons/{uuid:id}/remarks", response=list[RemarkOut])
def remarks(request: HttpRequest, id: UUID) -> list[Remark]:
    """What to know before it goes."""
    return remarks_on(services.lesson_of(asking(request), id))


@router.get("/templates", response=list[TemplateOut])
def opening_templates(request: HttpRequest) -> QuerySet[Template]:
    return templates.templates_of(asking(request))


@router.put("/templates/{uuid:id}", response=TemplateOut)
def keep_template(request: HttpRequest, id: UUID, data: TemplateIn) -> Template:
    """Keep words to begin lessons with, under the sender's name for them."""
    return templates.keep(asking(request), id, data.dict())


@router.delete("/templates/{uuid:id}", response={204: None})
def forget_template(request: HttpRequest, id: UUID) -> tuple[int, None]:
    templates.forget(asking(request), id)
    return 204, None


@router.post("/lessons/{uuid:id}/send", response=LessonOut)
def send(request: HttpRequest, id: UUID) -> Lesson:
    found = services.lesson_of(asking(request), id)
    sending.send(found)
    return _out(found)


@router.put("/lessons/{uuid:id}/send-later", response=LessonOut)
def send_later(request: HttpRequest, id: UUID, later: SendLater) -> Lesson:
    """Have it sent by itself at a time."""
    found = services.lesson_of(asking(request), id)
    sending.plan_later(found, later.at)
    return _out(found)


@router.delete("/lessons/{uuid:id}/send-later", response=LessonOut)
def send_no_more(request: HttpRequest, id: UUID) -> Lesson:
    """Not by itself after all."""
    found = services.lesson_of(asking(request), id)
    sending.plan_no_more(found)
    return _out(found)


@router.post("/lessons/{uuid:id}/correction", response=LessonOut)
def correct(request: HttpRequest, id: UUID) -> Lesson:
    """Write a sent lesson anew; its student keeps what was sent until the next version goes."""
    found = services.lesson_of(asking(request), id)
    versions.correct(found)
    return _out(found)


@router.delete("/lessons/{uuid:id}/correction", response=LessonOut)
def leave_correction(request: HttpRequest, id: UUID) -> Lesson:
    """It stays as it was sent."""
    versions.leave(services.lesson_of(asking(request), id))
    return _out(services.lesson_of(asking(request), id))


@router.post("/lessons/{uuid:id}/take-back", response=LessonOut)
def take_back(request: HttpRequest, id: UUID) -> Lesson:
    """A draft again, while the mail has not gone."""
    found = services.lesson_of(asking(request), id)
    sending.take_back(found)
    return _out(found)


@router.post("/lessons/{uuid:id}/mail", response=LessonOut)
def mail_again(request: HttpRequest, id: UUID) -> Lesson:
    """Try once more to mail it."""
    found = services.lesson_of(asking(request), id)
    sending.mail_again(found)
    return _out(found)


@router.put("/lessons/{uuid:id}/expiry", response=LessonOut)
def set_expiry(request: HttpRequest, id: UUID, expiry: Expiry) -> Lesson:
    """Until when its link holds."""
    found = services.lesson_of(asking(request), id)
    sending.set_expiry(found, expiry.last_day)
    return _out(found)


@router.post("/lessons/{uuid:id}/revoke", response=LessonOut)
def revoke(request: HttpRequest, id: UUID) -> Lesson:
    found = services.lesson_of(asking(request), id)
    sending.revoke(found)
    return _out(found)


@router.post("/lessons/{uuid:id}/renew", response=LessonOut)
def renew(request: HttpRequest, id: UUID) -> Lesson:
    found = services.lesson_of(asking(request), id)
    sending.renew(found)
    return _out(found)


def _out(found: Lesson) -> Lesson:
    found.versions = versions.versions_of(found)  # type: ignore[attr-defined]
    found.link = sending.link(found)  # type: ignore[attr-defined]  # read by the schema
    found.seconds_to_take_back = sending.seconds_to_take_back(found)  # type: ignore[attr-defined]
    return found
