"""The way into the video room: a process of its own, so that a crash in a decoder stays there."""

import json
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from threading import Timer
from typing import Any

from django.conf import settings
from django.core.files.storage import FileSystemStorage
from django.db.models.fields.files import FieldFile


class RefusedClip(ValueError):
    """A file that is no clip; the text is for the sender."""


def video(command: str, *arguments: Path | str, seconds: int) -> Iterator[dict[str, Any]]:
    """Run the video room in a process of its own and yield what it says, line by line."""
    process = subprocess.Popen(
        [sys.executable, "-m", "tropometer.video", command, *map(str, arguments)],
        stdout=subprocess.PIPE,
        stderr=subprocess.DEVNULL,
        cwd=settings.ROOT,
        text=True,
        # A signal that stops the worker and all that belongs to it must not look like a broken file: the
        # worker lets the clip in hand be finished, or another takes it over.
        start_new_session=True,
    )
    assert process.stdout is not None
    # A decoder that hangs says nothing more: the clock ends it, whatever it does.
    clock = Timer(seconds, process.kill)
    clock.start()
    try:
        for text in process.stdout:
            line: dict[str, Any] = json.loads(text)
            if "refused" in line:
                raise RefusedClip(line["refused"])
            yield line
        if process.wait() != 0:
            raise RefusedClip("This file is not a video, or it is damaged.")
    finally:
        clock.cancel()
        process.kill()
        process.wait()


@contextmanager
def local_copy(stored: FieldFile) -> Iterator[Path]:
    """A stored file as a file on this machine, fetched where the storage is elsewhere."""
    if isinstance(stored.storage, FileSystemStorage):
        yield Path(stored.path)
        return
    with tempfile.NamedTemporaryFile(suffix=".mp4", dir=settings.FILE_UPLOAD_TEMP_DIR) as copy:
        with stored.open("rb") as content:
            for chunk in content.chunks():
                copy.write(chunk)
        copy.flush()
        yield Path(copy.name)
