"""What shows how a drill goes: drawings of the shipped ones, a picture or clip of an instructor's own."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from functools import lru_cache
from pathlib import Path
from typing import TYPE_CHECKING, Any
from uuid import UUID

from django.core.files import File
from django.db import transaction
from django.http import Http404, HttpRequest
from django.http.response import HttpResponseBase
from django.templatetags.static import static
from django.utils import timezone

from tropometer.server.ranged import private_file
from tropometer.server.rooms import drawn_anew, room_on_disk
from tropometer.server.teaching.models import Page, Shown
from tropometer.teaching.knowledge.drill import Drill
from tropometer.teaching.knowledge.pages import DRAWINGS

if TYPE_CHECKING:
    from ninja.files import UploadedFile

    from tropometer.server.people.models import User

MOST_BYTES = 15 * 1024 * 1024
DRAWN = {"start": "picture", "end": "picture", "right": "clip", "wrong": "clip"}
CONTENT_TYPES = {"picture": "image/webp", "clip": "video/mp4"}


@lru_cache
def drawings() -> dict[str, list[dict[str, str]]]:
    """What is drawn of each shipped drill, shaped as `ShownOut`."""
    found: dict[str, list[dict[str, str]]] = {}
    for what, kind in DRAWN.items():
        for path in sorted(DRAWINGS.glob(f"*-{what}.*")):
            drill = path.stem.removesuffix(f"-{what}")
            url = static(f"drills/{path.name}")
            found.setdefault(drill, []).append({"what": what, "kind": kind, "url": url})
    return found


def drawing_file(url: str) -> Path:
    """The file of a shipped drawing by its address; Http404 where there is none."""
    for path in DRAWINGS.iterdir():
        if static(f"drills/{path.name}") == url:
            return path
    raise Http404("There is no such drawing.")


def own_of(instructor: User) -> dict[str, Shown]:
    """What an instructor shows of drills of their own, by drill."""
    return {each.drill: each for each in Shown.objects.filter(instructor=instructor, replaced_at=None)}


def shown_to_instructor(id: UUID) -> str:
    """The address of a picture or clip for whom it belongs to."""
    return f"/api/book/shown/{id}"


def shown_of_book(instructor: User, drills: Iterable[Drill]) -> dict[str, list[dict[str, str]]]:
    """What shows each drill of an instructor's book, by drill, for themselves."""
    own = own_of(instructor)
    return {
        drill.id: shown(drill.drawn_as or drill.id, own.get(drill.id), shown_to_instructor)
        for drill in drills
    }


def shown(drawn_as: str, own: Shown | None, address: Callable[[UUID], str]) -> list[dict[str, str]]:
    """One's own picture or clip at its address; where there is none, the drawings. Shaped as `ShownOut`."""
    if own is not None:
        return [{"what": "own", "kind": own.kind, "url": address(own.pk)}]
    return drawings().get(drawn_as, [])


def shown_in_plan(drill: Mapping[str, Any], address: Callable[[UUID], str]) -> list[dict[str, str]]:
    """What shows a drill of a plan that was put into words (`plan_words`)."""
    own = Shown.objects.filter(pk=drill["picture"]).first() if drill.get("picture") else None
    return shown(drill.get("drawn_as", drill["id"]), own, address)


def found_or_404(id: UUID) -> Shown:
    """A picture or clip by its id, whoever's it is; Http404 when it is gone."""
    found = Shown.objects.filter(pk=id).first()
    if found is None:
        raise Http404("There is no such thing here.")
    return found


def file_of(request: HttpRequest, found: Shown) -> HttpResponseBase:
    """The picture or clip itself, for whom may see it."""
    return private_file(request, found.file, CONTENT_TYPES[found.kind], version=str(found.pk))


def show(instructor: User, drill: str, file: UploadedFile) -> Shown:
    """Show a drill of one's own by a picture or a clip, in place of the one before.

    RefusedClip when the file is neither, RoomFailed when the machine could not look or keep it; Http404 when
    there is no such drill of theirs.
    """
    _own_drill(instructor, drill)
    with (
        drawn_anew(file, MOST_BYTES, "; cut it down to the drill") as (kind, made),
        room_on_disk(),
        made.open("rb") as content,
        transaction.atomic(),
    ):
        _own_drill(instructor, drill, locked=True)
        put_aside(instructor, drill)
        added = Shown(instructor=instructor, drill=drill, kind=kind)
        added.file.save("shown", File(content), save=False)
        added.save()
    return added


def put_aside(instructor: User, drill: str) -> None:
    """No longer show a drill by what it was shown by; lessons that were sent with it keep it."""
    now = timezone.now()
    Shown.objects.filter(instructor=instructor, drill=drill, replaced_at=None).update(replaced_at=now)


@transaction.atomic
def unshow(instructor: User, drill: str) -> None:
    """Delete what shows a drill, here and in every lesson that was sent with it."""
    theirs = list(Shown.objects.select_for_update().filter(instructor=instructor, drill=drill))
    if not theirs:  # the drill itself may be out of the book already
        _own_drill(instructor, drill)
    for each in theirs:
        each.delete()


def put_aside_before(before: Any) -> Iterable[Shown]:
    """What was replaced before a time."""
    return Shown.objects.filter(replaced_at__lt=before)


def _own_drill(instructor: User, drill: str, locked: bool = False) -> None:
    rows = Page.objects.select_for_update() if locked else Page.objects.all()
    if not rows.filter(instructor=instructor, kind="drill", piece=drill).exists():
        raise Http404("There is no such drill of yours.")
