"""Calls that are made again until the server says that it is done, as the screens do."""

from __future__ import annotations

import base64
import hashlib
import time
from collections import Counter, defaultdict
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

import requests

from ops.instance import PASSWORD

PIECE_BYTES = 200_000
TIMEOUT_S = 20
FILE = {"filename": "swing.mp4"}
Answer = requests.Response


@dataclass
class Acknowledged:
    """What the server said it has, by swing, clip and lesson."""

    marks: dict[tuple[str, str, int], float] = field(default_factory=dict)  # clip, name, frame: x
    pegs: dict[tuple[str, str], int] = field(default_factory=dict)  # clip, checkpoint: frame
    words: dict[str, str] = field(default_factory=dict)  # of lessons
    spoken: dict[str, str] = field(default_factory=dict)  # of lessons: the take that was said to the end
    tries: dict[str, dict[str, str]] = field(default_factory=dict)  # of hours: what was said of the one try
    # Under way since the same thing was last acknowledged: a killed browser may have sent it, or will yet.
    begun: defaultdict[object, set[object]] = field(default_factory=lambda: defaultdict(set))
    files: dict[str, str] = field(default_factory=dict)  # of students: SHA-256 of what was sent
    sent: set[str] = field(default_factory=set)  # lessons
    told: Counter[str] = field(default_factory=Counter)  # how often it said so


class Caller:
    """Somebody at a browser of their own; without a mail address somebody who only holds a link."""

    def __init__(self, address: str, mail: str = "") -> None:
        self.address, self.mail = address, mail
        self.has = Acknowledged()
        self.failed_calls = 0
        self._web = requests.Session()

    def upload(self, at: str, data: bytes, about: dict[str, str]) -> str:
        """A file piece by piece (tus 1.0.0), and the id it got."""
        said = ",".join(
            f"{name} {base64.b64encode(value.encode()).decode()}" for name, value in about.items()
        )
        headers = {"Upload-Length": str(len(data)), "Upload-Metadata": said}
        path = self._until_answer(lambda: self._call("POST", at, headers=headers), {201}).headers["Location"]
        here = 0
        while here < len(data):
            piece = data[here : here + PIECE_BYTES]
            headers = {"Upload-Offset": str(here), "Content-Type": "application/offset+octet-stream"}
            answer = self._call("PATCH", path, data=piece, headers=headers)
            if answer is not None and answer.status_code == 204:
                here = int(answer.headers["Upload-Offset"])
                self.has.told["pieces"] += 1
                continue
            asked = self._until_answer(lambda: self._call("HEAD", path), {200})
            if int(asked.headers["Upload-Offset"]) < here:
                raise AssertionError(
                    f"Of {here} acknowledged bytes {asked.headers['Upload-Offset']} are here."
                )
            here = int(asked.headers["Upload-Offset"])
        return path.rsplit("/", 1)[1]

    def send_by_link(self, link: str, student: str, data: bytes) -> None:
        """As a student does it, who has no account."""
        token = link.rsplit("/", 1)[1]
        clip = {"upload_id": self.upload(f"/api/sent/{token}/uploads", data, FILE), "view": "down_the_line"}
        self.until(201, "POST", f"/api/sent/{token}", json={"clips": [clip]})
        self.has.told["swings by link"] += 1
        self.has.files[student] = hashlib.sha256(data).hexdigest()

    def get(self, path: str) -> Any:
        """What is there."""
        return self.until(200, "GET", path)

    def until(self, status: int, method: str, path: str, **about: Any) -> Any:
        """Ask until it is done."""
        return self._until_answer(lambda: self._call(method, path, **about), {status}).json()

    def _until_answer(self, ask: Callable[[], Answer | None], wanted: set[int]) -> Answer:
        """Ask until the answer is one of those; what is no trouble of the server's is our own error."""
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
                self._web.get(f"{self.address}/sign-in", timeout=TIMEOUT_S)
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
        headers = {**about.pop("headers", {}), "X-CSRFToken": self._web.cookies.get("csrftoken", "")}
        return self._web.request(method, f"{self.address}{path}", headers=headers, timeout=TIMEOUT_S, **about)
