"""A scripted instructor who takes in, films, marks, writes and sends, and whose students send by links."""

from __future__ import annotations

import hashlib
import random
import time
from base64 import b64encode
from functools import partial
from pathlib import Path
from threading import Event
from uuid import uuid4

from ops.endure.calls import FILE, Caller
from ops.instance import ROOT

WAYS = ("camera", "hand", "link")  # by which a swing comes in
CLIPS = sorted((ROOT / "demo" / "clips").glob("*_line.mp4"))
MARKS = ("lead_knee", "trail_knee", "lead_toe", "trail_toe", "lead_heel", "trail_heel", "ball")
MARKS_A_SWING = 12
VOICE = ROOT / "demo" / "voices" / "question_dag.webm"
VOICE_PIECES = 8
SAID_EVERY_MS = 1000  # so long a piece is said to be: what was said is measured
MARK_EVERY_S = 2.0  # a hand's pace; each mark is followed through the clip


def unlike_any(path: Path) -> bytes:
    """A film with room behind it that no other has, so that it is not known already."""
    room = uuid4().bytes
    return path.read_bytes() + (8 + len(room)).to_bytes(4, "big") + b"free" + room


class Instructor(Caller):
    """Does each thing until the server says it is done, as the screens do, and then the next."""

    def __init__(self, address: str, mail: str, seed: int, stop: Event) -> None:
        super().__init__(address, mail)
        self.stop = stop
        self.student = Caller(address)
        self.student.has = self.has  # what their students sent is theirs to find
        self.under_way = Event()  # there is something that could be lost
        self._dice, self._seed = random.Random(seed), seed
        self._tried: tuple[str, str] | None = None  # the latest hour and its try, spoken of meanwhile
        self._marked: str | None = None  # the clip before, marked on while the next is made ready

    def work(self) -> None:
        """Swing after swing, until told to stop."""
        self.sign_in()
        for number in range(10_000):
            if self.stop.is_set():
                return
            self._swing(number)

    def _swing(self, number: int) -> None:
        swing, clip = self.take_in(f"Student {number}", WAYS[(number + self._seed) % len(WAYS)])
        while not self.stop.is_set() and self.get(f"/api/clips/{clip}")["state"] != "ready":
            if self._marked:
                self._mark(self._marked)
            if self._tried:
                self._say(*self._tried)
            time.sleep(MARK_EVERY_S)
        if self.stop.is_set():
            return
        for _ in range(MARKS_A_SWING):
            self._mark(clip)
        self._write_and_send(swing)
        self._marked = clip
        self.under_way.set()

    def take_in(self, name: str, way: str = "hand") -> tuple[str, str]:
        """A new student with a swing; its id, and that of its clip."""
        mail = f"{name.replace(' ', '').lower()}.{self.mail}"
        about = {"name": name, "hand": "right", "email": mail}
        student = self.until(201, "POST", "/api/students", json=about)["id"]
        data = unlike_any(self._dice.choice(CLIPS))
        if way == "link":
            asked = self.until(201, "POST", "/api/requests", json={"student_id": student})
            self.student.send_by_link(asked["link"], student, data)
        else:
            upload = self.upload("/api/uploads", data, {**FILE, "for": student})
            clip = {"upload_id": upload, "view": "down_the_line"}
            if way == "camera":
                self._film(student, clip)
            else:
                handed: dict[str, object] = {"student_id": student, "clips": [clip]}
                self.until(201, "POST", "/api/swings", json=handed)
                self.has.told["swings"] += 1
            self.has.files[student] = hashlib.sha256(data).hexdigest()
        (row,) = [
            row for row in self.get("/api/swings?limit=500")["items"] if row["student"]["id"] == student
        ]
        return row["id"], row["clips"][0]["id"]

    def _film(self, student: str, clip: dict[str, str]) -> None:
        """A ball of a studio hour, as its page tells of it."""
        hour = self.until(201, "POST", f"/api/students/{student}/hours", json={})["id"]
        ball = {"clip": clip, "ago_s": 1.0, "struck_s": 1.0, "struck_by": "hand", "changed": "Narrower"}
        (only,) = self.until(200, "POST", f"/api/hours/{hour}/filmed", json=ball)["tries"]
        self.has.told["tries"] += 1
        self._tried = (hour, only["id"])

    def _say(self, hour: str, tried: str) -> None:
        said = {"felt": str(uuid4()), "struck": self._dice.choice(("heavy", "thin", "clean"))}
        change = said | {"id": str(uuid4())}
        self.until(200, "PATCH", f"/api/hours/{hour}/tries/{tried}", json=change)
        self.has.told["words of tries"] += 1
        self.has.tries[hour] = said

    def _mark(self, clip: str) -> None:
        name, frame = self._dice.choice(MARKS), self._dice.randrange(60)
        x = float(self._dice.randrange(100, 1100))
        place = {"x": x, "y": 300.0, "sd_px": 1.5}
        edit = {"id": str(uuid4()), "kind": "mark", "name": name, "frame": frame, "place": place}
        self.until(200, "POST", f"/api/clips/{clip}/edits", json={"edits": [edit]})
        self.has.told["marks"] += 1
        self.has.marks[clip, name, frame] = x

    def _write_and_send(self, swing: str) -> None:
        lesson = self.until(200, "POST", f"/api/swings/{swing}/lesson", json={})["id"]
        for number in range(3):
            words = f"Thing {number}: {uuid4()}"
            self.until(200, "PATCH", f"/api/lessons/{lesson}", json={"opening": words})
            self.has.told["words"] += 1
            self.has.words[lesson] = words
        self._speak(lesson)
        # Sent twice, or sent and the answer lost: the second says that it is sent.
        self._until_answer(lambda: self._call("POST", f"/api/lessons/{lesson}/send", json={}), {200, 409})
        self.has.told["sends"] += 1
        self.has.sent.add(lesson)

    def _speak(self, lesson: str) -> None:
        """A walk, piece by piece as it is said."""
        take, voice, at = str(uuid4()), VOICE.read_bytes(), f"/api/lessons/{lesson}/walk/takes"
        self.until(200, "POST", at, json={"id": take, "container": "webm", "cut": None})
        for number in range(VOICE_PIECES):
            first, last = (len(voice) * n // VOICE_PIECES for n in (number, number + 1))
            piece = {
                "number": number,
                "voice": b64encode(voice[first:last]).decode(),
                "score": [],
                "until_ms": (number + 1) * SAID_EVERY_MS,
                "last": number == VOICE_PIECES - 1,
            }
            say = partial(self._call, "POST", f"{at}/{take}/pieces", json=piece)
            self._until_answer(say, {204})
            self.has.told["pieces of a voice"] += 1
        self.has.spoken[lesson] = take
