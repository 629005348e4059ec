"""The way into the video room: a process of its own, so that a crash in a decoder stays there."""

from __future__ import annotations

import contextlib
import fcntl
import json
import os
import shutil
import signal
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import timedelta
from errno import ENOSPC
from pathlib import Path
from threading import Timer
from typing import IO, TYPE_CHECKING, Any

from django.conf import settings
from django.core.files.storage import FileSystemStorage
from django.db.models.fields.files import FieldFile

if TYPE_CHECKING:
    from django.core.files.uploadedfile import UploadedFile

REFUSED = 3  # the exit code of the room's own judged answer
TOLD_CHARACTERS = 200
WAITED_FOR = ("probe", "show", "voice", "glance")  # by somebody who stands there; all others give way
GIVES_WAY = ("nice", "-n", "5")
DRAW_SECONDS = 120  # for drawing a picture or short clip anew
CLAIM = "claim"  # the file in a scratch folder that its owner holds locked


class RefusedClip(ValueError):
    """A file that is no clip; the text is for the sender."""


class RoomFailed(RuntimeError):
    """The room did not come to an answer: the machine's fault, not the file's. The text says how it ended."""


def video(command: str, *arguments: Path | str, seconds: int) -> Iterator[dict[str, Any]]:
    """Run the video room in a process of its own and yield what it says, line by line.

    Raises RefusedClip for the room's own judged answer, and RoomFailed when it ends in any other way.
    """
    with tempfile.TemporaryFile() as log:
        process = subprocess.Popen(
            [*(() if command in WAITED_FOR else GIVES_WAY), sys.executable, "-m", "tropometer.video", command]
            + [str(each) for each in arguments],
            stdout=subprocess.PIPE,
            stderr=log,
            cwd=settings.ROOT,
            text=True,
            # A signal that stops the worker and all that belongs to it must not look like a broken file: the
            # worker lets the clip in hand be finished, or another takes it over.
            start_new_session=True,
        )
        assert process.stdout is not None
        late = False

        def stop() -> None:
            nonlocal late
            late = True
            process.kill()

        # A decoder that hangs says nothing more: the clock ends it, whatever it does.
        clock = Timer(seconds, stop)
        clock.start()
        try:
            for text in process.stdout:
                line = _said(text)
                if line is None:
                    break
                if "refused" in line:
                    raise RefusedClip(line["refused"])
                yield line
            if process.wait() != 0:
                how = f"it took longer than {seconds} s" if late else _ending(process.returncode, log)
                raise RoomFailed(how)
        finally:
            clock.cancel()
            process.kill()
            process.wait()


def _said(text: str) -> dict[str, Any] | None:
    """A line of the room; None for one that was cut off."""
    try:
        line = json.loads(text)
    except ValueError:
        return None
    return line if isinstance(line, dict) else None


def _ending(code: int, log: IO[bytes]) -> str:
    """How a process ended, in words, with the last line of its log."""
    if code < 0:
        name = signal.Signals(-code).name
        words = {"SIGXCPU": "it used up its computing time", "SIGXFSZ": "its result grew too large"}
        return words.get(name, f"it was stopped by {name}")
    log.seek(0)
    lines = log.read().decode(errors="replace").strip().splitlines()
    return lines[-1][:TOLD_CHARACTERS] if lines else f"it ended with code {code}"


@contextmanager
def drawn_anew(file: UploadedFile[bytes], most_bytes: int, advice: str = "") -> Iterator[tuple[str, Path]]:
    """A picture or short clip that somebody handed in, drawn anew: "picture" or "clip", and the file of it.

    RefusedClip, with the file's name, when it is too large or neither; RoomFailed when the machine could not
    look at it.
    """
    with handed_in(file, most_bytes, advice) as sent:
        made = sent.parent / "made"
        try:
            kind = next(video("show", sent, made, seconds=DRAW_SECONDS))["kind"]
        except RefusedClip as refusal:
            raise RefusedClip(f"{file.name}: {refusal}") from None
        yield kind, made


@contextmanager
def handed_in(file: UploadedFile[bytes], most_bytes: int, advice: str = "") -> Iterator[Path]:
    """A handed-in file in a scratch folder; RefusedClip, with its name, when it is too large."""
    if (file.size or 0) > most_bytes:
        raise RefusedClip(f"{file.name}: larger than {most_bytes // 1024**2} MB{advice}.")
    with scratch() as folder:
        sent = folder / "sent"
        with room_on_disk(), sent.open("wb") as into:
            for chunk in file.chunks():
                into.write(chunk)
        yield sent


@contextmanager
def scratch() -> Iterator[Path]:
    """A folder for files on their way, gone afterwards; one that a killed process left is not locked."""
    root = Path(settings.SCRATCH_ROOT)
    root.mkdir(parents=True, exist_ok=True, mode=0o700)
    folder = Path(tempfile.mkdtemp(dir=root))
    with (folder / CLAIM).open("w") as claim:
        fcntl.flock(claim, fcntl.LOCK_EX)
        try:
            yield folder
        finally:
            shutil.rmtree(folder, ignore_errors=True)


def abandoned_scratch(grace: timedelta) -> Iterator[Path]:
    """Scratch folders whose owners are dead; one that was never claimed counts as such after a while."""
    for folder in Path(settings.SCRATCH_ROOT).glob("*/"):
        claim = folder / CLAIM
        if not claim.exists():
            if folder.stat().st_mtime < time.time() - grace.total_seconds():
                yield folder
            continue
        with contextlib.suppress(FileNotFoundError, BlockingIOError), claim.open() as held:
            fcntl.flock(held, fcntl.LOCK_EX | fcntl.LOCK_NB)
            yield folder


@contextmanager
def room_on_disk() -> Iterator[None]:
    """RoomFailed, so that it is tried again, where the disk is full."""
    try:
        yield
    except OSError as trouble:
        if trouble.errno != ENOSPC:
            raise
        raise RoomFailed("the server's disk is full") from trouble


@contextmanager
def local_copy(stored: FieldFile) -> Iterator[Path]:
    """A stored file as a file on this machine, fetched where the storage is elsewhere."""
    if isinstance(stored.storage, FileSystemStorage):
        yield Path(stored.path)
        return
    with scratch() as folder:
        copy = folder / os.path.basename(stored.name or "copy")
        with stored.open("rb") as content, copy.open("wb") as into:
            shutil.copyfileobj(content, into)
        yield copy
