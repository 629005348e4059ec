"""Taking a clip in, making it ready, and handing out its frames."""

import json
import subprocess
import sys
import tempfile
from collections.abc import Iterator
from pathlib import Path
from typing import Any, TypeAlias
from uuid import UUID

from django.conf import settings
from django.core.files import File
from django.core.files.uploadedfile import UploadedFile
from django.db import transaction

from tropometer.server.access import owned
from tropometer.server.clips.models import Clip, State
from tropometer.server.clips.schemas import ClipIn
from tropometer.server.people.models import User
from tropometer.video.stills import still_jpeg
from tropometer.video.timing import real_times_s

Upload: TypeAlias = "UploadedFile[bytes]"

PROBE_SECONDS = 60
PROXY_SECONDS = 1800
PROGRESS_STEP = 4


class RefusedClip(ValueError):
    """A file that is no clip; the text is for the sender."""


def check_upload(upload: Upload) -> dict[str, Any]:
    """Probe an uploaded file before anything is stored; RefusedClip with one clear line."""
    name = upload.name or "The file"
    if not upload.size:
        raise RefusedClip(f"{name}: the file is empty.")
    if upload.size > settings.MAX_CLIP_BYTES:
        raise RefusedClip(f"{name}: larger than {settings.MAX_CLIP_BYTES // 1024**2} MB.")
    with tempfile.NamedTemporaryFile(dir=settings.FILE_UPLOAD_TEMP_DIR) as copy:
        for chunk in upload.chunks():
            copy.write(chunk)
        copy.flush()
        upload.seek(0)
        try:
            return next(_video("probe", Path(copy.name), seconds=PROBE_SECONDS))
        except RefusedClip as refusal:
            raise RefusedClip(f"{name}: {refusal}") from None


def take_in(swing_id: UUID, instructor: User, upload: Upload, about: ClipIn, found: dict[str, Any]) -> Clip:
    """Keep the original and hand the clip to a worker."""
    from tropometer.server.clips.tasks import make_ready

    clip = Clip(
        swing_id=swing_id,
        instructor=instructor,
        view=about.view,
        capture_fps=about.capture_fps,
        original_name=(upload.name or "clip")[:200],
        played_fps=found["played_fps"],
        width=found["width"],
        height=found["height"],
    )
    clip.original.save("original", File(upload), save=False)
    try:
        with transaction.atomic():
            clip.save(force_insert=True)
            make_ready.defer(clip_id=str(clip.pk))
    except BaseException:
        clip.original.delete(save=False)
        raise
    return clip


def process(clip_id: UUID) -> None:
    """Make the proxy of a clip. Safe to run twice: a ready clip is left alone."""
    clip = Clip.objects.filter(pk=clip_id).first()
    if clip is None or clip.state in (State.READY, State.REFUSED):
        return
    Clip.objects.filter(pk=clip_id).update(state=State.WORKING, progress=0)
    with tempfile.TemporaryDirectory(dir=settings.FILE_UPLOAD_TEMP_DIR) as folder:
        source, target = Path(folder) / "original", Path(folder) / "proxy.mp4"
        with clip.original.open("rb") as stored, source.open("wb") as copy:
            for chunk in stored.chunks():
                copy.write(chunk)
        try:
            result = _follow(clip, _video("proxy", source, target, seconds=PROXY_SECONDS))
        except RefusedClip as refusal:
            Clip.objects.filter(pk=clip_id).update(state=State.REFUSED, refusal=str(refusal)[:300])
            clip.original.delete(save=False)
            return
        with target.open("rb") as made:
            clip.proxy.save("proxy.mp4", File(made), save=False)
    clip.width, clip.height = result["width"], result["height"]
    clip.played_times_s = result["played_times_s"]
    clip.state, clip.progress = State.READY, 100
    clip.save(update_fields=["proxy", "width", "height", "played_times_s", "state", "progress"])


def _follow(clip: Clip, lines: Iterator[dict[str, Any]]) -> dict[str, Any]:
    """Write progress down as it comes; the last line is the result."""
    said = 0
    for line in lines:
        if "progress" not in line:
            return line
        if line["progress"] >= said + PROGRESS_STEP:
            said = line["progress"]
            Clip.objects.filter(pk=clip.pk).update(progress=said)
    raise RefusedClip("This video could not be read to its end.")


def _video(command: str, *paths: Path, seconds: int) -> Iterator[dict[str, Any]]:
    """Run the video room in a process of its own and yield what it says, line by line."""
    process = subprocess.Popen(
        [sys.executable, "-m", "tropometer.video", command, *map(str, paths)],
        stdout=subprocess.PIPE,
        stderr=subprocess.DEVNULL,
        cwd=settings.ROOT,
        text=True,
    )
    assert process.stdout is not None
    try:
        for text in process.stdout:
            line: dict[str, Any] = json.loads(text)
            if "refused" in line:
                raise RefusedClip(line["refused"])
            yield line
        if process.wait(timeout=seconds) != 0:
            raise RefusedClip("This file is not a video, or it is damaged.")
    finally:
        process.kill()
        process.wait()


def times_s(clip: Clip) -> list[float]:
    """Real time of every frame from the first, seconds."""
    return real_times_s(clip.played_times_s, clip.played_fps, clip.capture_fps)


def still(clip: Clip, frame: int, height: int | None = None) -> bytes:
    """One frame of a ready clip as JPEG, at most `height` high; IndexError outside it."""
    with tempfile.NamedTemporaryFile(suffix=".mp4", dir=settings.FILE_UPLOAD_TEMP_DIR) as copy:
        with clip.proxy.open("rb") as stored:
            for chunk in stored.chunks():
                copy.write(chunk)
        copy.flush()
        return still_jpeg(Path(copy.name), frame, height)


def clip_of(instructor: User, id: UUID) -> Clip:
    """One of the instructor's clips, or Http404."""
    return owned(Clip.objects.filter(instructor=instructor), id)


def forget_files(clip: Clip) -> None:
    """Delete what is stored of a clip; its row goes with its swing."""
    for stored in (clip.original, clip.proxy):
        if stored:
            stored.delete(save=False)
