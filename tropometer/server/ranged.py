"""Private files with byte ranges (RFC 9110, 14): one range a request, as media players ask."""

import re
from typing import IO, cast

from django.db.models.fields.files import FieldFile
from django.http import FileResponse, Http404, HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from django.utils.cache import get_conditional_response
from django.utils.http import content_disposition_header
from storages.backends.s3 import S3Storage

ANYTHING = "application/octet-stream"
_RANGE = re.compile(r"bytes=(\d{0,18})-(\d{0,18})$")


class _First:
    """A file that ends after some bytes; FileResponse streams it in blocks."""

    def __init__(self, file: IO[bytes], count: int) -> None:
        self.file, self.left = file, count

    def read(self, size: int = -1) -> bytes:
        data = self.file.read(self.left if size < 0 else min(size, self.left))
        self.left -= len(data)
        return data

    def close(self) -> None:
        self.file.close()


def _opened(stored: FieldFile, start: int, end: int) -> IO[bytes]:
    """The bytes from start to end inclusive; of a bucket no others are fetched."""
    name = stored.name or ""
    if isinstance(stored.storage, S3Storage):
        found = stored.storage.bucket.Object(stored.storage._normalize_name(name))
        return cast(IO[bytes], found.get(Range=f"bytes={start}-{end}")["Body"])
    file = stored.storage.open(name, "rb")
    file.seek(start)
    return cast(IO[bytes], _First(cast(IO[bytes], file), end - start + 1))


def private_file(
    request: HttpRequest, stored: FieldFile, content_type: str, save_as: str = "", version: str = ""
) -> HttpResponseBase:
    """The stored file, whole or the range asked for; never kept by shared caches. `save_as`: to be saved.

    With a `version` a browser may keep it, and asks each time whether it is still that one and still theirs.
    """
    try:
        size = stored.size
    except (ValueError, FileNotFoundError) as missing:
        raise Http404("This file is not here.") from missing
    etag = f'"{version}-{size}"' if version else None
    unchanged = etag and get_conditional_response(request, etag=etag)
    if unchanged:
        return unchanged
    # A part of another version than the one that is held would not fit to it (RFC 9110, 13.1.5).
    fits = request.headers.get("If-Range", etag) == etag
    found = _RANGE.match(request.headers.get("Range", "")) if fits else None
    start, end, status = 0, size - 1, 200
    if found and (found[1] or found[2]):
        if found[1]:
            start, end = int(found[1]), min(int(found[2] or size), size - 1)
        else:
            start = max(0, size - int(found[2]))
        if start > end:
            return HttpResponse(status=416, headers={"Content-Range": f"bytes */{size}"})
        status = 206
    response = FileResponse(_opened(stored, start, end), content_type=content_type)
    response.status_code = status
    response["Content-Length"] = str(end - start + 1)
    response["Accept-Ranges"] = "bytes"
    response["Cache-Control"] = "private, no-cache"
    if etag:
        response["ETag"] = etag
    response["X-Content-Type-Options"] = "nosniff"
    if save_as:
        response["Content-Disposition"] = content_disposition_header(True, save_as) or "attachment"
    if status == 206:
        response["Content-Range"] = f"bytes {start}-{end}/{size}"
    return response
