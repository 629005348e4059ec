"""Makes people, swings and clips for server tests."""

import json
import tempfile
from pathlib import Path
from threading import Barrier, Thread
from typing import Any

from django.core.files.base import ContentFile
from django.db import connection
from django.test import Client, SimpleTestCase, TestCase, override_settings

from tests.swings import DEMO_CLIPS, truth
from tests.video import strip_clips
from tropometer.server.bench.models import Swing
from tropometer.server.clips import uploads
from tropometer.server.clips.models import Clip, State
from tropometer.server.clips.uploads import Sender
from tropometer.server.demo.drawn import put_on
from tropometer.server.people.models import Student, User
from tropometer.video.probe import probe
from tropometer.video.proxy import make_proxy

TOBIN = "tobin_first_face"
FRAMES = len(truth(TOBIN)["times_s"]["frames"])
PEGGED: dict[str, int] = truth(TOBIN)["checkpoints"]


def instructor(name: str = "Maren Thole") -> User:
    return User.objects.create_user(f"{name.split()[0].lower()}@skerrow.example", name, "skerrow-island")


def student(of: User, **about: Any) -> Student:
    data = {"name": "Tobin Farrow", "email": "tobin@skerrow.example", "hand": "right", **about}
    return Student.objects.create(instructor=of, **data)


def ready_clip(of: User, swing: Swing) -> Clip:
    """A ready clip of the size and length of the demo clip, without its picture."""
    return Clip.objects.create(
        instructor=of,
        swing=swing,
        view="face_on",
        original_name=f"{TOBIN}.mp4",
        played_fps=60,
        state=State.READY,
        width=1280,
        height=720,
        played_times_s=[n / 60 for n in range(FRAMES)],
    )


def marked_swing(of: User, who: Student | None = None, whole: bool = False) -> Clip:
    """A student's swing with a ready, pegged and marked clip; `whole`: with all marks, and the mat."""
    swing = Swing.objects.create(instructor=of, student=who or student(of), club="7 iron")
    clip = ready_clip(of, swing)
    put_on(clip, TOBIN, whole=whole)
    return clip


def seen_from_both(of: User, face: str, line: str) -> Swing:
    """A swing with the ready, fully marked clips of two demo swings."""
    swing = Swing.objects.create(instructor=of, student=student(of), club="7 iron")
    for name in (face, line):
        known = truth(name)
        first = known["times_s"]["frames"][0]
        clip = Clip.objects.create(
            instructor=of,
            swing=swing,
            view=known["view"],
            original_name=f"{name}.mp4",
            played_fps=60,
            state=State.READY,
            width=known["camera"]["width"],
            height=known["camera"]["height"],
            played_times_s=[time - first for time in known["times_s"]["frames"]],
        )
        put_on(clip, name, whole=True)
    return swing


def with_picture(clip: Clip, folder: Path) -> Clip:
    """Give a clip a small real proxy of ten numbered frames."""
    source = strip_clips.write(folder, "h264_b_frames.mp4", strip_clips.numbered_frames(10))
    make_proxy(source, folder / "proxy.mp4", probe(source))
    clip.proxy.save("proxy.mp4", ContentFile((folder / "proxy.mp4").read_bytes()))
    return clip


def demo_file(name: str = f"{TOBIN}.mp4") -> bytes:
    return (DEMO_CLIPS / name).read_bytes()


def arrived(
    of: User, data: bytes, name: str = "swing.mp4", view: str = "face_on", **about: Any
) -> dict[str, Any]:
    """A finished upload as the API takes it."""
    upload = uploads.begin(Sender(of), name, max(1, len(data)))
    upload.path.write_bytes(data)
    return {"upload_id": str(upload.pk), "view": view, **about}


class MediaFolders(SimpleTestCase):
    """Stores media and uploads in folders of its own."""

    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.media = Path(folder.name) / "media"
        self.uploads = Path(folder.name) / "uploads"
        self.media.mkdir()
        self.scratch = Path(folder.name) / "scratch"
        stored = override_settings(
            MEDIA_ROOT=str(self.media), UPLOAD_ROOT=str(self.uploads), SCRATCH_ROOT=str(self.scratch)
        )
        stored.enable()
        self.addCleanup(stored.disable)

    def files(self) -> list[str]:
        """What is stored."""
        return sorted(str(path.relative_to(self.media)) for path in self.media.rglob("*") if path.is_file())

    def waiting(self) -> list[str]:
        """Uploads that lie about."""
        return sorted(path.name for path in self.uploads.glob("*"))


class MediaCase(MediaFolders, TestCase):
    """The same, each test in a transaction."""


def at_once(user: User, *calls: tuple[str, str, Any]) -> list[Any]:
    """The answers to calls made at the same moment, each from a browser of its own."""
    ready, found = Barrier(len(calls)), [None] * len(calls)

    def one(number: int, method: str, path: str, body: Any) -> None:
        client = Client()
        client.force_login(user)
        ready.wait()
        found[number] = client.generic(method, path, json.dumps(body), content_type="application/json")
        connection.close()

    threads = [Thread(target=one, args=(number, *call)) for number, call in enumerate(calls)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    return found


def frames_of(name: str) -> int:
    """How many frames a demo clip has."""
    return len(truth(name)["times_s"]["frames"])


def rows(columns: list[dict[str, Any]]) -> list[dict[str, Any]]:
    """Readings out of the columns in which they come, moment by moment."""
    return [
        {
            key: entry if key == "reading" else entry[min(i, len(entry) - 1)]
            for key, entry in column.items()
            if entry
        }
        for column in columns
        for i in range(len(column["at"]))
    ]
