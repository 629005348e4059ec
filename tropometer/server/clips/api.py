"""A clip's state and its proxy."""

from uuid import UUID

from django.http import HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from ninja import Router

from tropometer.server.access import asking
from tropometer.server.clips.models import Clip, State
from tropometer.server.clips.schemas import ClipOut, Height
from tropometer.server.clips.services import clip_of, still, try_again
from tropometer.server.ranged import ANYTHING, private_file

router = Router(tags=["clips"])


@router.get("/clips/{uuid:id}", response=ClipOut)
def clip(request: HttpRequest, id: UUID) -> Clip:
    return clip_of(asking(request), id)


@router.post("/clips/{uuid:id}/try-again", response=ClipOut)
def make_anew(request: HttpRequest, id: UUID) -> Clip:
    """Have a clip made ready again that failed or was refused."""
    found = clip_of(asking(request), id)
    try_again(found)
    return found


@router.get("/clips/{uuid:id}/proxy.mp4", include_in_schema=False)
def proxy(request: HttpRequest, id: UUID) -> HttpResponseBase:
    found = clip_of(asking(request), id)
    if found.state != State.READY:
        return HttpResponse(status=409)
    version = f"{found.pk.hex}-{found.sha256[:16]}-{found.flipped:d}"
    return private_file(request, found.proxy, "video/mp4", version=version)


@router.get("/clips/{uuid:id}/original", include_in_schema=False)
def original(request: HttpRequest, id: UUID) -> HttpResponseBase:
    """The file as it came, to be saved: also one that could not be made ready."""
    found = clip_of(asking(request), id)
    return private_file(request, found.original, ANYTHING, found.original_name)


@router.get("/clips/{uuid:id}/stills/{int:frame}.jpg", include_in_schema=False)
def clip_still(request: HttpRequest, id: UUID, frame: int, height: Height = None) -> HttpResponse:
    found = clip_of(asking(request), id)
    if found.state != State.READY or not 0 <= frame < found.frame_count:
        return HttpResponse(status=404)
    response = HttpResponse(still(found, frame, height), content_type="image/jpeg")
    response["Cache-Control"] = "private, max-age=86400"
    return response
