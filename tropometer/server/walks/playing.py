"""What is given to whoever plays a walk: its instructor, or the student who holds the lesson's link."""

from __future__ import annotations

from collections.abc import Iterator
from typing import TYPE_CHECKING, Any

from django.http import Http404, HttpResponse

from tropometer.server.ranged import private_file
from tropometer.server.rooms import local_copy
from tropometer.server.walks.schemas import PlayedWalk
from tropometer.video.stills import still_jpeg

if TYPE_CHECKING:
    from uuid import UUID

    from django.http import HttpRequest
    from django.http.response import HttpResponseBase

    from tropometer.server.walks.models import Walk


def is_made(walk: Walk) -> bool:
    """Whether there is something to be played."""
    return bool(walk.voice) and walk.length_ms > 0


def played(walk: Walk) -> dict[str, Any]:
    """The walk as it was made last, shaped as `PlayedWalk`; Http404 before that."""
    if not is_made(walk):
        raise Http404("This walk is not made ready yet.")
    return {
        "made": walk.made,
        "length_ms": walk.length_ms,
        "silent": not walk.takes.filter(silent=False, pk__in=[s["take"] for s in walk.cut]).exists(),
        "score": walk.score,
        "chapters": walk.chapters,
        "captions": walk.captions,
        "clips": [kept.shown for kept in walk.clips.order_by("pk")],
    }


def voice_file(request: HttpRequest, walk: Walk) -> HttpResponseBase:
    """What is said, as AAC in MP4."""
    if not is_made(walk):
        raise Http404("This walk is not made ready yet.")
    return private_file(request, walk.voice, "audio/mp4", version=(walk.voice.name or "").rsplit("/", 1)[-1])


def captions_of(walk: Walk) -> str:
    """The words over each chapter, as WebVTT (W3C)."""
    said = played(walk)
    ends = [*(chapter["at"] for chapter in said["chapters"][1:]), said["length_ms"]]
    cues = [
        f"{_clock(chapter['at'])} --> {_clock(end)}\n{_cue(words)}\n"
        for chapter, end in zip(said["chapters"], ends, strict=True)
        if (words := said["captions"].get(chapter["name"], "").strip()) and end > chapter["at"]
    ]
    return "\n".join(["WEBVTT\n", *cues])


def captions_vtt(walk: Walk) -> HttpResponse:
    """The same, for a player."""
    return HttpResponse(
        captions_of(walk),
        content_type="text/vtt; charset=utf-8",
        headers={"Cache-Control": "private, no-cache", "X-Content-Type-Options": "nosniff"},
    )


def _clock(ms: int) -> str:
    seconds, thousandths = divmod(ms, 1000)
    return f"{seconds // 3600:02}:{seconds // 60 % 60:02}:{seconds % 60:02}.{thousandths:03}"


def _cue(words: str) -> str:
    """Words that are nothing but words: no tag, no arrow that would begin another cue, no empty line."""
    lines = [line.strip() for line in words.splitlines() if line.strip()]
    return "\n".join(lines).replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;")


def has_film(walk: Walk) -> bool:
    """Whether there is a film of the walk as it was made last."""
    return bool(walk.film) and walk.film_made == walk.made


def record_files(walk: Walk) -> Iterator[tuple[str, bytes]]:
    """A walk as a record that opens again elsewhere (docs/formats/walk.md); nothing while it is not made."""
    if not is_made(walk):
        return
    record = PlayedWalk.model_validate(played(walk))
    yield "walk.json", record.model_dump_json().encode()
    with walk.voice.open("rb") as voice:
        yield "voice.m4a", voice.read()
    for kept in walk.clips.all():
        with kept.file.open("rb") as film:
            yield f"clips/{kept.clip_id}.mp4", film.read()


def film_file(request: HttpRequest, walk: Walk) -> HttpResponseBase:
    """The walk as a film, to be saved."""
    if not has_film(walk):
        raise Http404("The film of this walk is not made yet.")
    version = (walk.film.name or "").rsplit("/", 1)[-1]
    return private_file(request, walk.film, "video/mp4", "walk.mp4", version)


def clip_still(walk: Walk, clip_id: UUID, frame: int, height: int | None) -> HttpResponse:
    """One frame of a clip as the walk shows it, for whoever cannot decode it."""
    kept = walk.clips.filter(clip_id=clip_id).first()
    if kept is None:
        raise Http404("This walk does not show such a clip.")
    with local_copy(kept.file) as proxy:
        try:
            picture = still_jpeg(proxy, frame, height)
        except IndexError as missing:
            raise Http404("This clip has no such frame.") from missing
    return HttpResponse(picture, content_type="image/jpeg", headers={"Cache-Control": "private, no-cache"})


def clip_file(request: HttpRequest, walk: Walk, clip_id: UUID) -> HttpResponseBase:
    """A clip as the walk shows it, frame by frame."""
    kept = walk.clips.filter(clip_id=clip_id).first()
    if kept is None:
        raise Http404("This walk does not show such a clip.")
    return private_file(request, kept.file, "video/mp4", version=str(kept.pk))
