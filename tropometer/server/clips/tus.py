"""Resumable uploads by the tus protocol, version 1.0.0 (tus.io): core, creation and termination.

What has arrived is kept piece by piece in a file of its own, so a dropped connection, a closed tab or a
killed server loses nothing: the sender asks how much is here and goes on.
"""

from __future__ import annotations

import base64
import binascii
from collections.abc import Callable
from typing import TYPE_CHECKING
from uuid import UUID

from django.conf import settings
from django.http import Http404, HttpRequest, HttpResponse
from django.http.request import UnreadablePostError
from django.views.decorators.csrf import csrf_exempt

from tropometer.server.access import asking, owned
from tropometer.server.clips import uploads
from tropometer.server.clips.models import Upload
from tropometer.server.clips.uploads import NotTaken, Sender
from tropometer.server.people.services import student_of

if TYPE_CHECKING:
    from tropometer.server.people.models import Student

VERSION = "1.0.0"
PIECE_BYTES = 256 * 1024
PIECE_TYPE = "application/offset+octet-stream"
MOST_DIGITS = 18
PATIENCE_S = 20  # with a sender that says nothing more
SHELF = "shelf"  # whom a reference's clip is for

SenderOf = Callable[[HttpRequest, str], Sender]


def instructor_sends(request: HttpRequest, token: str) -> Sender:
    """The signed-in instructor."""
    return Sender(asking(request))


def endpoint(
    sender_of: SenderOf, open_to_all: bool
) -> tuple[Callable[..., HttpResponse], Callable[..., HttpResponse]]:
    """The two addresses of one kind of sender: where uploads begin, and where each goes on."""

    def begin(request: HttpRequest, token: str = "") -> HttpResponse:
        if not open_to_all and not request.user.is_authenticated:
            return _plain(401, "Sign in first.")
        if request.method == "OPTIONS":
            return _answer(204, **{"Tus-Max-Size": str(settings.MAX_CLIP_BYTES)})
        if request.method != "POST":
            return _answer(405)
        return _begin(request, sender_of(request, token))

    def go_on(request: HttpRequest, id: UUID, token: str = "") -> HttpResponse:
        if not open_to_all and not request.user.is_authenticated:
            return _plain(401, "Sign in first.")
        upload = owned(uploads.of(sender_of(request, token)), id)
        if request.method == "HEAD":
            return _answer(200, **_progress(upload), **{"Cache-Control": "no-store"})
        if request.method == "PATCH":
            return _take(request, upload)
        if request.method == "DELETE":
            upload.delete()
            return _answer(204)
        return _answer(405)

    if open_to_all:  # no session to be ridden on: the link itself is the permission
        return csrf_exempt(begin), csrf_exempt(go_on)
    return begin, go_on


def _begin(request: HttpRequest, sender: Sender) -> HttpResponse:
    try:
        size = int(request.headers.get("Upload-Length", "")[:MOST_DIGITS])
        told = _metadata(request)
    except ValueError:
        return _plain(400, "Upload-Length and Upload-Metadata must say what is sent.")
    name = "".join(each for each in told.get("filename", "clip") if each.isprintable())
    if size <= 0:
        return _plain(422, f"{name}: the file is empty.")
    if size > settings.MAX_CLIP_BYTES:
        return _plain(413, f"{name}: larger than {settings.MAX_CLIP_BYTES // 1024**2} MB.")
    try:
        upload = uploads.begin(sender, name, size, _whom(sender, told.get("for", "")))
    except NotTaken as trouble:
        return _plain(trouble.status, str(trouble))
    except ValueError:
        return _plain(400, f"Upload-Metadata must say whom the clip is for: a student's id, or {SHELF}.")
    return _answer(201, Location=f"{request.path.rstrip('/')}/{upload.pk}")


def _whom(sender: Sender, said: str) -> Student | None:
    """Whom a file shows: a link's own student, else as the instructor says; ValueError for nothing said."""
    if sender.student is not None or said == SHELF:
        return sender.student
    return student_of(sender.instructor, UUID(said))


def _take(request: HttpRequest, upload: Upload) -> HttpResponse:
    """Append what comes; when the sender breaks off, what has come stays."""
    if request.headers.get("Content-Type") != PIECE_TYPE:
        return _plain(415, f"Pieces are sent as {PIECE_TYPE}.")
    offset = upload.offset
    if request.headers.get("Upload-Offset") != str(offset):
        return _answer(409, **_progress(upload))
    _be_patient(request)
    left = upload.size - offset
    try:
        while left and (piece := request.read(min(PIECE_BYTES, left))):
            if not uploads.append(upload, offset, piece):
                return _answer(409, **_progress(upload))
            offset, left = offset + len(piece), left - len(piece)
    except (UnreadablePostError, ConnectionError):
        pass  # the sender is gone; it asks for the offset when it is back
    except FileNotFoundError as gone:
        raise Http404("This upload was taken back.") from gone
    except NotTaken as trouble:
        return _plain(trouble.status, str(trouble))
    uploads.keep(upload)
    return _answer(204, **_progress(upload))


def _be_patient(request: HttpRequest) -> None:
    """A vanished phone holds a thread for so long and no longer."""
    socket = request.META.get("gunicorn.socket")
    if socket is not None:
        socket.settimeout(PATIENCE_S)


def _progress(upload: Upload) -> dict[str, str]:
    return {"Upload-Offset": str(upload.offset), "Upload-Length": str(upload.size)}


def _metadata(request: HttpRequest) -> dict[str, str]:
    """Names with base64 values; ValueError when they are none."""
    found = {}
    for pair in filter(None, request.headers.get("Upload-Metadata", "").split(",")):
        name, _, value = pair.strip().partition(" ")
        try:
            found[name] = base64.b64decode(value, validate=True).decode()
        except (binascii.Error, UnicodeDecodeError) as error:
            raise ValueError(name) from error
    return found


def _answer(status: int, **headers: str) -> HttpResponse:
    answer = HttpResponse(status=status, headers=headers)
    answer["Tus-Resumable"] = answer["Tus-Version"] = VERSION
    answer["Tus-Extension"] = "creation,termination"
    return answer


def _plain(status: int, text: str) -> HttpResponse:
    answer = _answer(status)
    answer["Content-Type"] = "text/plain; charset=utf-8"
    answer.content = text.encode()
    return answer
