"""How fast and how small a walk is. Run by ./tropo bench lesson."""

from __future__ import annotations

import gzip
import json
import tempfile
import time
from base64 import b64encode
from typing import Any
from uuid import uuid4

from django.core.handlers.wsgi import WSGIHandler
from django.core.management import call_command
from django.test import override_settings, tag

from tests.browser.base import BrowserCase
from tests.browser.recording import MICROPHONE
from tests.browser.whole_lesson import answer
from tests.server.seen import put_proposals
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

PIECE_S, TALK_S = 10, 120
BITS_A_SECOND, WAIT_MS = 1_500_000, 300
FILMED_S, LONG_S = 60, 300
SHOWING = {"cx": 360.0, "cy": 640.0, "high": 1280.0, "wide": 1150.0, "mirrored": False}
PAINTED = "performance.getEntriesByName('first-contentful-paint')[0]?.startTime"


def as_they_are(handler: WSGIHandler) -> WSGIHandler:
    """Scripts come as in a practice: collected, compressed, by WhiteNoise."""
    return handler


@tag("bench")
class LessonBench(BrowserCase):
    static_handler = staticmethod(as_they_are)  # type: ignore[assignment]

    @classmethod
    def setUpClass(cls) -> None:
        shelf = tempfile.TemporaryDirectory()
        cls.addClassCleanup(shelf.cleanup)
        settings = override_settings(STATIC_ROOT=shelf.name)
        settings.enable()
        cls.addClassCleanup(settings.disable)
        call_command("collectstatic", interactive=False, verbosity=0)
        super().setUpClass()

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
        voice, pieces = recorded(counted(seconds)), seconds // PIECE_S
        for number in range(pieces):
            first, last = (len(voice) * n // pieces for n in (number, number + 1))
            until = (number + 1) * PIECE_S * 1000
            part = {
                "number": number,
                "voice": b64encode(voice[first:last]).decode(),
                "score": [each for each in score if until - PIECE_S * 1000 <= each["at"] < until],
                "until_ms": until,
                "last": number == pieces - 1,
            }
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

    def test_how_long_an_answer_takes(self) -> None:
        """From a swing of two views that nobody has touched to sent; the hand's time by a model of it."""
        untouched = self.student_clip(DEMO_CLIPS / "tobin_first_face.mp4")
        put_proposals(untouched, "tobin_first_face")
        line = self.clip_from(DEMO_CLIPS / "tobin_first_line.mp4", untouched.swing, view="down_the_line")
        put_proposals(line, "tobin_first_line")
        self.context.add_init_script(MICROPHONE)
        self.sign_in()
        address = f"/bench/{untouched.swing_id}?station=mark"
        hand, took = answer(self.page, address, "tobin@skerrow.example", TALK_S)
        print(f"\nan answer: {hand.keys} keys and {hand.clicks} clicks; {TALK_S} s of talking,")
        waited = took - TALK_S
        print(
            f"  {waited:.0f} s of waiting for the machine, {hand.hand_s:.0f} s of the hand (keystroke model)"
        )

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
        page.wait_for_function(f"() => {PAINTED}")
        painted = page.evaluate(PAINTED)
        print(f"heading of the sheet painted after {painted / 1000:.2f} s at 1.5 Mbit/s and 300 ms")
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
