"""Load the demo: a small practice on an invented island, with clips of made-up golfers."""

from __future__ import annotations

import json
import random
from datetime import timedelta
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.files.uploadedfile import SimpleUploadedFile
from django.core.management.base import BaseCommand
from django.db import transaction
from django.utils import timezone

from tropometer.server.bench.models import Calibration, Mark, Peg, Swing
from tropometer.server.bench.schemas import SwingIn
from tropometer.server.bench.services import receive, receive_reference
from tropometer.server.clips.models import Clip
from tropometer.server.clips.schemas import ClipIn
from tropometer.server.people.models import Student, User
from tropometer.server.shelf.models import ReferenceSwing

CLIPS: Path = settings.ROOT / "demo" / "clips"
MAIL, PASSWORD = "maren@skerrow.example", "skerrow-island"
CAMERA_M = 4.8
MARK_SD_PX = 1.5
HAND_SHAKE_PX = 0.8
HIPS = ("lead_hip", "trail_hip", "lead_hip_edge", "trail_hip_edge")

STUDENTS: list[dict[str, Any]] = [
    {"name": "Tobin Farrow", "email": "tobin@skerrow.example", "hand": "right", "stature_m": 1.81},
    {"name": "Ilse Marrin", "email": "ilse@skerrow.example", "hand": "left", "stature_m": 1.68},
    {"name": "Dag Penhale", "email": "dag@skerrow.example", "hand": "right", "stature_m": 1.75},
    {"name": "Wynn Osk", "email": "", "hand": "right", "stature_m": None},
]
SWINGS: list[dict[str, Any]] = [
    {
        "clip": "dag.mp4",
        "student": "Dag Penhale",
        "hours_ago": 50,
        "club": "7 iron",
        "words": "I have tried to stay over my back foot since our last talk. Is it better?",
        "usual_miss": "Thin, low to the right",
        "marked": True,
    },
    {
        "clip": "ilse.mov",
        "student": "Ilse Marrin",
        "hours_ago": 20,
        "club": "7 iron",
        "words": "Slow motion from the front, as you asked. It felt solid today.",
        "usual_miss": "A push now and then",
        "capture_fps": 120,
        "marked": False,
    },
    {
        "clip": "tobin.mp4",
        "student": "Tobin Farrow",
        "hours_ago": 3,
        "club": "7 iron",
        "words": "I keep hitting the ground before the ball. It feels like a turn; my friend says I slide.",
        "usual_miss": "Heavy, then a pull",
        "what_hurts": "Right knee after a long session",
        "marked": True,
    },
]


class Command(BaseCommand):
    help = __doc__

    def handle(self, *args: Any, **options: Any) -> None:
        if User.objects.filter(email=MAIL).exists():
            self.stdout.write("The demo is already loaded; its data is kept.")
            return
        with transaction.atomic():
            instructor = User.objects.create_user(MAIL, "Maren Thole", PASSWORD)
            for student in STUDENTS:
                Student.objects.create(instructor=instructor, **student)
            self._reference(instructor)
            for swing in SWINGS:
                self._swing(instructor, swing)
        self.stdout.write("The demo is loaded; the worker is making its clips ready.")

    def _reference(self, instructor: User) -> None:
        about = ClipIn(view="face_on", capture_fps=None)
        swing = receive_reference(instructor, "right", "7 iron", about, _upload("reference.mp4"))
        ReferenceSwing.objects.create(
            instructor=instructor,
            swing=swing,
            name="Range model, 7 iron",
            about="Loads a little and turns a lot; posts on the lead leg.",
        )
        put_marks(swing.clips.get(), "reference")

    def _swing(self, instructor: User, about: dict[str, Any]) -> None:
        student = Student.objects.get(instructor=instructor, name=about["student"])
        data = SwingIn(
            student_id=student.pk,
            club=about["club"],
            words=about["words"],
            usual_miss=about["usual_miss"],
            what_hurts=about.get("what_hurts", ""),
            view="face_on",
            capture_fps=about.get("capture_fps"),
        )
        swing = receive(instructor, data, _upload(about["clip"]))
        received_at = timezone.now() - timedelta(hours=about["hours_ago"])
        Swing.objects.filter(pk=swing.pk).update(received_at=received_at)
        if about["marked"]:
            put_marks(swing.clips.get(), about["clip"].split(".")[0])


def _upload(name: str) -> SimpleUploadedFile:
    return SimpleUploadedFile(name, (CLIPS / name).read_bytes())


def put_marks(clip: Clip, name: str) -> None:
    """Peg and mark a clip as a careful hand would: near the truth, never on it."""
    truth = json.loads((CLIPS / f"{name}.truth.json").read_text())
    hand = random.Random(name)
    for checkpoint, frame in truth["checkpoints"].items():
        Peg.objects.create(clip=clip, name=checkpoint, frame=frame)
        for mark in (*HIPS, "trail_foot_outer") if checkpoint == "address" else HIPS:
            x, y = (v + hand.gauss(0, HAND_SHAKE_PX) for v in truth["frames"][frame]["pixels"][mark])
            Mark.objects.create(clip=clip, name=mark, frame=frame, x=x, y=y, sd_px=MARK_SD_PX)
    (ax, ay), (bx, by) = truth["stick"]["pixels"]
    Calibration.objects.create(
        clip=clip,
        ax=ax,
        ay=ay,
        bx=bx,
        by=by,
        length_m=truth["stick"]["length_m"],
        place="toe_line",
        camera_distance_m=CAMERA_M,
        squared=True,
    )
