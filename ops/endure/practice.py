"""A scripted instructor who uploads, marks, writes and sends, and knows what the server said it has."""

from __future__ import annotations

import base64
import hashlib
import random
import time
from collections.abc import Callable
from dataclasses import dataclass, field
from pathlib import Path
from threading import Event
from typing import Any
from uuid import uuid4

import requests

from ops.instance import PASSWORD, ROOT

CLIPS = sorted((ROOT / "demo" / "clips").glob("*_line.mp4"))
PIECE_BYTES = 200_000
TIMEOUT_S = 20
MARKS = ("lead_knee", "trail_knee", "lead_toe", "trail_toe", "lead_heel", "trail_heel", "ball")
Answer = requests.Response


@dataclass
class Acknowledged:
    """What the server said it has, by swing, clip and lesson."""

    marks: dict[tuple[str, str, int], float] = field(default_factory=dict)  # clip, name, frame: x
    words: dict[str, str] = field(default_factory=dict)  # of lessons
    files: dict[str, str] = field(default_factory=dict)  # of swings: SHA-256 of what was sent
    pieces: int = 0
    sent: set[str] = field(default_factory=set)  # lessons


class Instructor:
    """Does each thing until the server says it is done, as the screens do, and then the next."""

    def __init__(self, address: str, mail: str, seed: int, stop: Event) -> None:
        self.address, self.mail, self.stop = address, mail, stop
        self.dice = random.Random(seed)
        self.has = Acknowledged()
        self.web = requests.Session()
        self.failed_calls = 0

    def work(self) -> None:
        """Swing after swing, until told to stop."""
        for number in range(10_000):
            if self.stop.is_set():
                return
            self._swing(number)

    def _swing(self, number: int) -> None:
        about = {"name": f"Student {number}", "hand": "right", "email": f"s{number}.{self.mail}"}
        student = self._until(201, "POST", "/api/students", json=about)["id"]
        data = self._unlike_any(self.dice.choice(CLIPS))
        upload = self._upload(data, student)
        clips = [{"upload_id": upload, "view": "down_the_line"}]
        handed_in = self._call("POST", "/api/swings", json={"student_id": student, "clips": clips})
        # An answer that was lost on its way: the clip is here already, or it is handed in again.
        while handed_in is None or handed_in.status_code >= 500:
            if self.stop.is_set():
                return
            found = [row for row in self._get("/api/swings") if row["student"]["id"] == student]
            if found:
                break
            time.sleep(0.5)
            handed_in = self._call("POST", "/api/swings", json={"student_id": student, "clips": clips})
        rows = [row for row in self._get("/api/swings") if row["student"]["id"] == student]
        if not rows:
            raise AssertionError(f"{handed_in.text if handed_in is not None else 'no answer'}: no swing")
        swing, clip = rows[0]["id"], rows[0]["clips"][0]["id"]
        self.has.files[swing] = hashlib.sha256(data).hexdigest()
        while not self.stop.is_set() and self._get(f"/api/clips/{clip}")["state"] != "ready":
            time.sleep(0.5)
        if self.stop.is_set():
            return
        self._mark(clip)
        self._write_and_send(swing)

    def _unlike_any(self, path: Path) -> bytes:
        """A film with room behind it that no other has, so that it is not known already."""
        room = uuid4().bytes
        return path.read_bytes() + (8 + len(room)).to_bytes(4, "big") + b"free" + room

    def _upload(self, data: bytes, student: str) -> str:
        said = ",".join(
            f"{name} {base64.b64encode(value.encode()).decode()}"
            for name, value in (("filename", "swing.mp4"), ("for", student))
        )
        headers = {"Upload-Length": str(len(data)), "Upload-Metadata": said}
        begun = self._until_answer(lambda: self._call("POST", "/api/uploads", headers=headers), {201})
        path = begun.headers["Location"]
        at = 0
        while at < len(data):
            piece = data[at : at + PIECE_BYTES]
            headers = {"Upload-Offset": str(at), "Content-Type": "application/offset+octet-stream"}
            answer = self._call("PATCH", path, data=piece, headers=headers)
            if answer is not None and answer.status_code == 204:
                at = int(answer.headers["Upload-Offset"])
                self.has.pieces += 1
                continue
            asked = self._until_answer(lambda: self._call("HEAD", path), {200})
            here = int(asked.headers["Upload-Offset"])
            if here < at:
                raise AssertionError(f"{at - here} acknowledged bytes are gone.")
            at = here
        return path.rsplit("/", 1)[1]

    def _mark(self, clip: str) -> None:
        for _ in range(12):
            name, frame = self.dice.choice(MARKS), self.dice.randrange(60)
            x = float(self.dice.randrange(100, 1100))
            place = {"x": x, "y": 300.0, "sd_px": 1.5}
            edit = {"id": str(uuid4()), "kind": "mark", "name": name, "frame": frame, "place": place}
            self._until(200, "POST", f"/api/clips/{clip}/edits", json={"edits": [edit]})
            self.has.marks[clip, name, frame] = x

    def _write_and_send(self, swing: str) -> None:
        lesson = self._until(200, "POST", f"/api/swings/{swing}/lesson", json={})["id"]
        for number in range(3):
            words = f"Thing {number}: {uuid4()}"
            self._until(200, "PATCH", f"/api/lessons/{lesson}", json={"opening": words})
            self.has.words[lesson] = words
        # Sent twice, or sent and the answer lost: the second says that it is sent.
        self._until_answer(lambda: self._call("POST", f"/api/lessons/{lesson}/send", json={}), {200, 409})
        self.has.sent.add(lesson)

    def _get(self, path: str) -> Any:
        return self._until(200, "GET", path)

    def _until(self, status: int, method: str, path: str, **about: Any) -> Any:
        return self._until_answer(lambda: self._call(method, path, **about), {status}).json()

    def _until_answer(self, ask: Callable[[], Answer | None], wanted: set[int]) -> Answer:
        """Ask until the answer is one of those; what is no trouble of the server is our own error."""
        while True:
            answer = ask()
            if answer is not None and answer.status_code in wanted:
                return answer
            self.failed_calls += 1
            if answer is not None and answer.status_code in (401, 403):
                self.sign_in()
            elif answer is not None and answer.status_code < 500:
                asked = f"{answer.request.method} {answer.url}"
                raise AssertionError(f"{asked}: {answer.status_code} {answer.text[:300]}")
            time.sleep(0.3)

    def sign_in(self) -> None:
        """Sign in, however long that takes."""
        while True:
            try:
                self.web.get(f"{self.address}/sign-in", timeout=TIMEOUT_S)
                body = {"email": self.mail, "password": PASSWORD}
                answer = self._raw("POST", "/_allauth/browser/v1/auth/login", json=body)
                if answer.status_code in (200, 409):
                    return
            except requests.RequestException:
                pass
            time.sleep(0.5)

    def _call(self, method: str, path: str, **about: Any) -> Answer | None:
        """One request; None when nobody answered."""
        try:
            return self._raw(method, path, **about)
        except requests.RequestException:
            return None

    def _raw(self, method: str, path: str, **about: Any) -> Answer:
        headers = {**about.pop("headers", {}), "X-CSRFToken": self.web.cookies.get("csrftoken", "")}
        return self.web.request(method, f"{self.address}{path}", headers=headers, timeout=TIMEOUT_S, **about)
