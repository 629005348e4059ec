"""`./tropo bench load [SECONDS]`: fifty browsers work in the demo's practice, each asking every five seconds.

First they only read; then a third of what they ask is writing: marks moved on the bench, words on the
desk. Prints how long the answers took, by address, for either. The askers run on the same machine and share
its cores.
"""

from __future__ import annotations

import random
import re
import sys
import tempfile
import time
from collections import defaultdict
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from typing import Any
from uuid import uuid4

import numpy as np
import requests

from ops.instance import Instance
from tropometer.server.demo.practice import MAIL, PASSWORD

ASKERS = 50
EVERY_S = 5.0
READY_S = 900
WRITING = 1 / 3
STRIP_HEIGHT = 72  # of the thumbnails
Took = dict[str, list[float]]


@dataclass(frozen=True)
class Practice:
    """What there is to ask for, and to write on."""

    paths: list[str]
    clips: list[tuple[str, int]]  # with how many frames
    drafts: list[str]


class Asker:
    """One browser that opens what an instructor opens."""

    def __init__(self, address: str, seed: int) -> None:
        self.address, self.dice = address, random.Random(seed)
        self.web = requests.Session()
        self.took: Took = defaultdict(list)

    def sign_in(self) -> None:
        """Sign in to the demo's practice; AssertionError when that is refused."""
        self.web.get(f"{self.address}/sign-in", timeout=60)
        answer = self.web.post(
            f"{self.address}/_allauth/browser/v1/auth/login",
            json={"email": MAIL, "password": PASSWORD},
            headers={"X-CSRFToken": self.web.cookies["csrftoken"] or ""},
            timeout=60,
        )
        assert answer.status_code == 200, answer.text

    def get(self, path: str) -> requests.Response:
        """Ask for it; AssertionError unless it is there."""
        return self._ask("GET", path)

    def begin_lesson(self, swing: str) -> str:
        """A draft to write on."""
        return str(self._ask("POST", f"/api/swings/{swing}/lesson").json()["id"])

    def _ask(self, method: str, path: str, body: dict[str, Any] | None = None) -> requests.Response:
        headers = {"X-CSRFToken": self.web.cookies["csrftoken"] or ""}
        answer = self.web.request(method, f"{self.address}{path}", json=body, headers=headers, timeout=60)
        assert answer.status_code == 200, f"{path}: {answer.status_code} {answer.text[:300]}"
        return answer

    def work(self, practice: Practice, end: float, writing: float) -> None:
        """Ask every five seconds until then, beginning somewhere within the first five.

        A share of what is asked is writing.
        """
        at = time.monotonic() + self.dice.uniform(0, EVERY_S)
        while at < end:
            time.sleep(max(0.0, at - time.monotonic()))
            method, path, body = self._next(practice, writing)
            began = time.perf_counter()
            self._ask(method, path, body)
            self.took[f"{method} {_kind(path)}"].append(time.perf_counter() - began)
            at += EVERY_S

    def _next(self, practice: Practice, writing: float) -> tuple[str, str, dict[str, Any] | None]:
        if self.dice.random() >= writing:
            return "GET", self.dice.choice(practice.paths), None
        if self.dice.random() < 1 / 4:
            draft = self.dice.choice(practice.drafts)
            return "PATCH", f"/api/lessons/{draft}", {"opening": f"One thing: {uuid4()}"}
        clip, frames = self.dice.choice(practice.clips)
        place = {"x": self.dice.uniform(500, 700), "y": self.dice.uniform(250, 450), "sd_px": 1.5}
        frame = self.dice.randrange(frames)
        edit = {"id": str(uuid4()), "kind": "mark", "name": "lead_knee", "frame": frame, "place": place}
        return "POST", f"/api/clips/{clip}/edits", {"edits": [edit]}


def main(seconds: float) -> None:
    """Run it, and print the tables."""
    with tempfile.TemporaryDirectory(prefix="load-") as folder:
        instance = Instance(Path(folder))
        try:
            instance.start()
            instance.manage("load_demo")
            askers = [Asker(instance.address, seed) for seed in range(ASKERS)]
            askers[0].sign_in()
            for asker in askers[1:]:
                asker.web.cookies.update(askers[0].web.cookies)
            practice = _practice(askers[0])
            for path in practice.paths:
                askers[0].get(path)
            for title, writing in (("only reading", 0.0), ("a third of it writing", WRITING)):
                _work(askers, practice, time.monotonic() + seconds, writing)
                _print(title, askers)
        finally:
            instance.stop()


def _work(askers: list[Asker], practice: Practice, end: float, writing: float) -> None:
    """All of them at once, their times counted anew."""
    with ThreadPoolExecutor(ASKERS) as pool:
        for asker in askers:
            asker.took.clear()
        for asked in [pool.submit(asker.work, practice, end, writing) for asker in askers]:
            asked.result()


def _practice(asker: Asker) -> Practice:
    """What is asked for: the lists, and of each swing what bench and desk open; the clips are made ready."""
    swings = _when_ready(asker)
    paths = ["/api/me", "/api/swings", "/api/students", "/api/lessons", "/api/catalogue", "/api/shelf"] * 2
    for swing in swings:
        about = f"/api/swings/{swing['id']}"
        paths += [about] * 3 + [f"{about}/{part}" for part in ("history", "doubts", "earlier")]
        for clip in swing["clips"]:
            paths.append(f"/api/clips/{clip['id']}/tracks")
            frames = asker.dice.sample(range(clip["frame_count"]), 4)
            paths += [f"/api/clips/{clip['id']}/stills/{frame}.jpg?height={STRIP_HEIGHT}" for frame in frames]
    lessons = asker.get("/api/lessons").json()["items"]
    for lesson in lessons:
        paths += [f"/api/lessons/{lesson['id']}", f"/api/lessons/{lesson['id']}/sheet"]
    answered = {lesson["swing_id"] for lesson in lessons}
    drafts = [asker.begin_lesson(swing["id"]) for swing in swings if swing["id"] not in answered]
    clips = [(clip["id"], clip["frame_count"]) for swing in swings for clip in swing["clips"]]
    return Practice(paths, clips, drafts)


def _when_ready(asker: Asker) -> list[dict[str, Any]]:
    end = time.monotonic() + READY_S
    while time.monotonic() < end:
        swings: list[dict[str, Any]] = asker.get("/api/swings").json()["items"]
        if all(clip["state"] == "ready" for swing in swings for clip in swing["clips"]):
            return swings
        time.sleep(2)
    raise TimeoutError("The clips did not become ready.")


def _kind(path: str) -> str:
    """The address without what it is about."""
    return re.sub(r"stills/\d+", "stills/N", re.sub(r"[0-9a-f-]{36}", "ID", path)).partition("?")[0]


def _print(title: str, askers: list[Asker]) -> None:
    took: Took = defaultdict(list)
    for asker in askers:
        for kind, seconds in asker.took.items():
            took[kind] += seconds
    took["all"] = [each for seconds in list(took.values()) for each in seconds]
    print(f"\n{title}")
    print(f"{'address':36} {'asked':>6} {'p50 ms':>7} {'p95 ms':>7} {'longest':>8}")
    for kind, seconds in sorted(took.items(), key=lambda pair: (pair[0] == "all", pair[0])):
        p50, p95, longest = np.percentile(seconds, (50, 95, 100)) * 1000
        print(f"{kind:36} {len(seconds):6} {p50:7.0f} {p95:7.0f} {longest:8.0f}", flush=True)


if __name__ == "__main__":
    main(float(sys.argv[1]) if len(sys.argv) > 1 else 60)
