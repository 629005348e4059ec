"""Resumable uploads by the tus protocol, version 1.0.0 (tus.io): core, creation and termination.

What has arrived is kept piece by piece in a file of its own, so a dropped connection, a closed tab or a
killed server loses nothing: the sender asks how much is here and goes on.
"""

from __future__ import annotations

import base64
import binascii
import fcntl
from collections.abc import Callable
from uuid import UUID

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.http.request import UnreadablePostError
from django.views.decorators.csrf import csrf_exempt

from tropometer.server.access import asking, owned
from tropometer.server.clips import uploads
from tropometer.server.clips.models import Upload
from tropometer.server.clips.uploads import Sender

VERSION = "1.0.0"
PIECE_BYTES = 256 * 1024
PIECE_TYPE = "application/offset+octet-stream"

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
            upload.forget()
            return _answer(204)
        return _answer(405)

    if open_to_all:  # no session to be ridden on: the link itself is the permission
        return csrf_exempt(begin), csrf_exempt(go_on)
    return begin, go_on


def _begin(request: HttpRequest, sender: Sender) -> HttpResponse:
    try:
        size = int(request.headers.get("Upload-Length", ""))
        name = _metadata(request).get("filename", "clip")
    except ValueError:
        return _plain(400, "Upload-Length and Upload-Metadata must say what is sent.")
    if size <= 0:
        return _plain(422, f"{name}: the file is empty.")
    if size > settings.MAX_CLIP_BYTES:
        return _plain(413, f"{name}: larger than {settings.MAX_CLIP_BYTES // 1024**2} MB.")
    upload = uploads.begin(sender, name, size)
    return _answer(201, Location=f"{request.path.rstrip('/')}/{upload.pk}")


def _take(request: HttpRequest, upload: Upload) -> HttpResponse:
    """Append what comes; when the sender breaks off, what has come stays."""
    if request.headers.get("Content-Type") != PIECE_TYPE:
        return _plain(415, f"Pieces are sent as {PIECE_TYPE}.")
    with upload.path.open("ab") as file:
        try:
            fcntl.flock(file, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            return _plain(423, "Another piece of this file is still coming in.")
        if request.headers.get("Upload-Offset") != str(file.tell()):
            return _answer(409, **_progress(upload))
        left = upload.size - file.tell()
        try:
            while left and (piece := request.read(min(PIECE_BYTES, left))):
                file.write(piece)
                left -= len(piece)
        except (UnreadablePostError, ConnectionError):
            pass  # the sender is gone; it asks for the offset when it is back
    return _answer(204, **_progress(upload))


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
