"""Recording, mending and playing a walk, for its instructor."""

from typing import Any
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from ninja import Router

from tropometer.server.access import asking
from tropometer.server.clips.schemas import Height
from tropometer.server.lessons.services import lesson_of
from tropometer.server.lessons.silent import make_silent_walk
from tropometer.server.ranged import private_file
from tropometer.server.walks import services
from tropometer.server.walks.playing import captions_vtt, clip_file, clip_still, film_file, played, voice_file
from tropometer.server.walks.schemas import CutIn, PieceIn, PlayedWalk, TakeIn, WalkOut
from tropometer.server.walks.tasks import BROKEN_OFF_S, film_soon, make_soon

router = Router(tags=["walks"])


@router.get("/lessons/{uuid:id}/walk", response=WalkOut, by_alias=True)
def walk(request: HttpRequest, id: UUID) -> dict[str, Any]:
    return services.told(services.walk_of(asking(request), id))


@router.post("/lessons/{uuid:id}/walk/takes", response=WalkOut, by_alias=True)
def begin_take(request: HttpRequest, id: UUID, data: TakeIn) -> dict[str, Any]:
    """A take begins; one that began already is answered as it is."""
    found = lesson_of(asking(request), id)
    return services.told(services.begin_take(found.pk, data))


@router.post("/lessons/{uuid:id}/walk/takes/{uuid:take_id}/pieces", response={204: None})
def add_piece(request: HttpRequest, id: UUID, take_id: UUID, data: PieceIn) -> tuple[int, None]:
    """The next few seconds of a take; sent twice, they are kept once."""
    found = services.walk_of(asking(request), id)
    services.add_piece(found, take_id, data)
    make_soon(found.pk, 1 if data.last else BROKEN_OFF_S)
    return 204, None


@router.patch("/lessons/{uuid:id}/walk", response=WalkOut, by_alias=True)
def change_walk(request: HttpRequest, id: UUID, data: CutIn) -> dict[str, Any]:
    """Mend the cut, or the words over the chapters."""
    found = services.walk_of(asking(request), id)
    changed = services.change(found, data)
    if data.cut is not None:
        make_soon(found.pk)
    return services.told(changed)


@router.post("/lessons/{uuid:id}/walk/silent", response={204: None})
def silent(request: HttpRequest, id: UUID) -> tuple[int, None]:
    """A walk without a voice, through the lesson's frames and their words."""
    make_silent_walk(lesson_of(asking(request), id))
    return 204, None


@router.get("/lessons/{uuid:id}/walk/played", response=PlayedWalk)
def played_walk(request: HttpRequest, id: UUID) -> dict[str, Any]:
    """The walk as the student gets it."""
    return played(services.walk_of(asking(request), id))


@router.get("/lessons/{uuid:id}/walk/voice.m4a", include_in_schema=False)
def voice(request: HttpRequest, id: UUID) -> HttpResponseBase:
    return voice_file(request, services.walk_of(asking(request), id))


@router.get("/lessons/{uuid:id}/walk/clips/{uuid:clip_id}.mp4", include_in_schema=False)
def clip(request: HttpRequest, id: UUID, clip_id: UUID) -> HttpResponseBase:
    return clip_file(request, services.walk_of(asking(request), id), clip_id)


@router.get("/lessons/{uuid:id}/walk/takes/{uuid:take_id}.m4a", include_in_schema=False)
def take_voice(request: HttpRequest, id: UUID, take_id: UUID) -> HttpResponseBase:
    found = services.walk_of(asking(request), id)
    return private_file(request, services.voice_of(found, take_id), "audio/mp4")


@router.get("/lessons/{uuid:id}/walk/clips/{uuid:clip_id}/{int:frame}.jpg", include_in_schema=False)
def clip_frame(
    request: HttpRequest,
    id: UUID,
    clip_id: UUID,
    frame: int,
    height: Height = None,
) -> HttpResponse:
    return clip_still(services.walk_of(asking(request), id), clip_id, frame, height)


@router.get("/lessons/{uuid:id}/walk/film.mp4", include_in_schema=False)
def film(request: HttpRequest, id: UUID) -> HttpResponseBase:
    return film_file(request, services.walk_of(asking(request), id))


@router.post("/lessons/{uuid:id}/walk/film", response={204: None})
def ask_for_film(request: HttpRequest, id: UUID) -> tuple[int, None]:
    """Have the film made of the walk as it is."""
    film_soon(services.walk_of(asking(request), id).pk)
    return 204, None


@router.get("/lessons/{uuid:id}/walk/captions.vtt", include_in_schema=False)
def captions(request: HttpRequest, id: UUID) -> HttpResponse:
    return captions_vtt(services.walk_of(asking(request), id))
