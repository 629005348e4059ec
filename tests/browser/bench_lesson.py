"""How fast and how small a walk is. Run by ./tropo bench lesson."""

from __future__ import annotations

import gzip
import json
import time
from base64 import b64encode
from typing import Any
from uuid import uuid4

from django.test import tag

from tests.browser.base import BrowserCase
from tests.server.voices import counted, recorded
from tests.swings import DEMO_CLIPS
from tropometer.server.demo.drawn import put_on
from tropometer.server.lessons.models import Lesson
from tropometer.server.lessons.sending import send
from tropometer.server.walks.filming import film
from tropometer.server.walks.making import make
from tropometer.server.walks.models import Walk
from tropometer.server.walks.schemas import PieceIn, TakeIn
from tropometer.server.walks.services import add_piece, begin_take

BITS_A_SECOND, WAIT_MS = 1_500_000, 300
FILMED_S, LONG_S = 60, 300
SHOWING = {"cx": 360.0, "cy": 640.0, "high": 1280.0, "wide": 1150.0, "mirrored": False}


@tag("bench")
class LessonBench(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        self.clip = self.student_clip(DEMO_CLIPS / "tobin_first_face.mp4")
        put_on(self.clip, "tobin_first_face", whole=False)
        self.lesson = Lesson.objects.create(instructor=self.owner, swing=self.clip.swing, title="Your 7 iron")

    def busy(self, seconds: int) -> list[dict[str, Any]]:
        """A walk in which the swing runs half of the time, and the pointer moves 30 times a second."""
        shown = {"clip": str(self.clip.pk), "frame": 0, "showing": SHOWING}
        score: list[dict[str, Any]] = [
            {"at": 0, "kind": "gauges", "ids": ["trail_plumb", "trail_hip_gate", "lead_hip_gate"]},
            {"at": 0, "kind": "stage", "side": "student", "shown": shown},
        ]
        for n in range(1, seconds * 30):
            at = round(n * 1000 / 30)
            place = {"side": "student", "x": 300 + (n * 7 % 200) / 1.7, "y": 400 + (n * 3 % 300) / 1.3}
            score.append({"at": at, "kind": "pointer", "pointer": place})
            if n // 60 % 2:
                score.append({"at": at, "kind": "frame", "side": "student", "frame": n % 120})
        return score

    def record(self, seconds: int) -> Walk:
        take, score = uuid4(), self.busy(seconds)
        walk = begin_take(self.lesson.pk, TakeIn(id=take, container="webm", cut=None))
        said = {"voice": b64encode(recorded(counted(seconds))).decode(), "until_ms": seconds * 1000}
        for number, first in enumerate(range(0, len(score), 15_000)):
            voice = said if number == 0 else said | {"voice": ""}
            part = voice | {"number": number, "score": score[first : first + 15_000], "last": False}
            add_piece(walk, take, PieceIn.model_validate(part))
        make(self.lesson.pk)
        return Walk.objects.get()

    def test_how_fast_and_how_small(self) -> None:
        began = time.perf_counter()
        walk = self.record(FILMED_S)
        print(f"\nvoice, score and clips of {FILMED_S} s made in {time.perf_counter() - began:.1f} s")
        began = time.perf_counter()
        film(self.lesson.pk)
        took = time.perf_counter() - began
        walk.refresh_from_db()
        print(f"its film, {took:.0f} s: {took / FILMED_S:.2f} of its length, {walk.film.size / 1e6:.1f} MB")
        self.phone()
        Lesson.objects.update(sent_at=None, token=None)
        Walk.objects.all().delete()
        score = json.dumps(self.record(LONG_S).score).encode()
        print(f"score of a busy walk of {LONG_S} s: {len(gzip.compress(score)) / 1000:.0f} kB gz")

    def phone(self) -> None:
        """A student on a slow line opens the sheet, and presses to hear the walk."""
        self.owner.students.update(email="tobin@skerrow.example")
        send(self.lesson)
        page = self.new_page()
        line = page.context.new_cdp_session(page)
        line.send("Network.enable")
        slow = {"offline": False, "latency": WAIT_MS, "uploadThroughput": BITS_A_SECOND / 8}
        line.send("Network.emulateNetworkConditions", {**slow, "downloadThroughput": BITS_A_SECOND / 8})
        began = time.perf_counter()
        page.goto(f"/l/{Lesson.objects.get().token}", wait_until="commit")
        page.get_by_role("heading", name="Your 7 iron").wait_for()
        print(f"heading of the sheet after {time.perf_counter() - began:.2f} s at 1.5 Mbit/s and 300 ms")
        press = page.get_by_role("button", name="Walk through your swing")
        press.wait_for()
        page.locator("button:enabled", has_text="Walk through your swing").wait_for()
        print(f"the walk can be pressed after {time.perf_counter() - began:.2f} s")
        began = time.perf_counter()
        press.click()
        page.wait_for_function("() => document.querySelector('audio')?.currentTime > 0", polling=20)
        print(f"first sound {time.perf_counter() - began:.2f} s after the press")
        scripts = page.evaluate(
            "() => performance.getEntriesByType('resource').filter(e => e.name.endsWith('.js'))"
            ".map(e => [e.name.split('/').at(-1), e.encodedBodySize])"
        )
        print(
            f"scripts fetched: {sum(size for _, size in scripts) / 1000:.0f} kB, as they came over the line"
        )
        for name, size in sorted(scripts, key=lambda each: -each[1])[:6]:
            print(f"  {size / 1000:6.0f} kB  {name}")
