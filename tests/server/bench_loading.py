"""How soon all marks of a long clip are there, and how short an edit is. Run by ./tropo bench marks."""

import json
import time
import uuid

import numpy as np
from django.test import TestCase, tag

from tests.server import making
from tropometer.server.bench.models import Mark, Track
from tropometer.server.clips.models import Clip
from tropometer.swing.names import MARKS, TRACKED

FRAMES, NAMES, TIMES = 720, 25, 7


@tag("bench")
class LoadingBench(TestCase):
    def test_opening_and_editing(self) -> None:
        owner = making.instructor()
        clip = making.marked_swing(owner)
        Clip.objects.filter(pk=clip.pk).update(played_times_s=[n / 240 for n in range(FRAMES)])
        Mark.objects.filter(clip=clip).delete()
        others = sorted(MARKS - set(TRACKED))[: NAMES - len(TRACKED)]
        placed = range(0, FRAMES, 80)
        rows = [(name, frame) for name in TRACKED for frame in placed]
        rows += [(name, frame) for name in others for frame in range(FRAMES)]
        Mark.objects.bulk_create(
            Mark(clip=clip, name=name, frame=frame, x=1.5, y=2.5, sd_px=1.5) for name, frame in rows
        )
        values = np.random.default_rng(0).uniform(0, 700, (FRAMES, 3)).astype(np.float32).tobytes()
        basis = {"placed": [[frame, 1.5, 2.5] for frame in placed], "hidden": [], "guided": False}
        Track.objects.bulk_create(
            Track(clip=clip, name=name, basis=basis, first_frame=0, values=values) for name in TRACKED
        )
        self.client.force_login(owner)
        place = {"x": 512.3456789, "y": 333.3456789, "sd_px": 1.5, "source": "hand"}
        print(f"\n{FRAMES} frames, {NAMES} marks on every frame, ms (median of {TIMES})")
        for words, url in (
            ("the swing, its placed marks and readings", f"/api/swings/{clip.swing_id}"),
            ("its followed marks", f"/api/clips/{clip.pk}/tracks"),
        ):
            took, size = [], 0
            for _ in range(TIMES):
                began = time.perf_counter()
                size = len(self.client.get(url).content)
                took.append(time.perf_counter() - began)
            print(f"  {words:<44}{np.median(took) * 1000:7.0f}{size / 1000:9.0f} kB")
        took, sent = [], 0
        for frame in range(TIMES):
            edit = {"id": str(uuid.uuid4()), "gesture": str(uuid.uuid4()), "way": "do", "kind": "mark"}
            body = json.dumps(
                {"edits": [{**edit, "name": "lead_toe", "frame": frame, "place": place}], "seen": 0}
            )
            began = time.perf_counter()
            self.client.post(f"/api/clips/{clip.pk}/edits", body, content_type="application/json")
            took.append(time.perf_counter() - began)
            sent = len(body)
        print(f"  {'one edit and what follows from it':<44}{np.median(took) * 1000:7.0f}{sent:9} B sent")
