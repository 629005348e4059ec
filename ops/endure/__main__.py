"""`./tropo endure [MINUTES]`: two instructors work while processes are killed; then all is counted.

Prints a table; ends 1 when anything was lost, doubled or left over.
"""

from __future__ import annotations

import hashlib
import random
import sys
import tempfile
import time
from collections import Counter
from email import message_from_bytes
from pathlib import Path
from threading import Event, Thread
from typing import Any

from ops.endure.practice import Instructor
from ops.instance import Instance

CALM_S = (2.0, 6.0)  # between two kills
SETTLE_S = 240


def main(minutes: float) -> int:
    """Run it, and say what came of it."""
    with tempfile.TemporaryDirectory(prefix="endure-") as folder:
        instance = Instance(Path(folder))
        try:
            instance.start()
            mails = [f"one{number}@skerrow.example" for number in range(2)]
            for mail in mails:
                instance.manage("add_instructor", mail, "Somebody")
            stop = Event()
            people = [Instructor(instance.address, mail, seed, stop) for seed, mail in enumerate(mails)]
            troubles = _work(people, instance, minutes * 60, stop)
            instance.wait_ready()
            for person in people:
                person.sign_in()
                _settle(person)
            found = Counter[str]()
            for person in people:
                found += _compare(person, instance)
            found += _mails(people, instance)
            swept = instance.manage("sweep", "--at-once")
            orphans = instance.manage("sweep", "--dry-run", "--at-once")
        except BaseException:
            print((Path(folder) / "log").read_text(errors="replace")[-6000:], file=sys.stderr)
            raise
        finally:
            instance.stop()
    found["left by killed processes, and swept"] = _count(swept)
    left_over = _count(orphans)
    _print(people, instance, found, left_over, troubles)
    if left_over:
        print(orphans)
    return int(bool(left_over or troubles or any(name.startswith(("lost", "doubled")) for name in found)))


def _work(people: list[Instructor], instance: Instance, seconds: float, stop: Event) -> list[str]:
    troubles: list[str] = []

    def work(person: Instructor) -> None:
        try:
            person.sign_in()
            person.work()
        except Exception as trouble:  # said in the table, whatever it is
            troubles.append(f"{person.mail}: {trouble}")

    threads = [Thread(target=work, args=(person,)) for person in people]
    for thread in threads:
        thread.start()
    dice, end = random.Random(1), time.monotonic() + seconds
    while time.monotonic() < end:
        time.sleep(dice.uniform(*CALM_S))
        instance.kill_one(dice)
    stop.set()
    for thread in threads:
        thread.join()
    return troubles


def _settle(person: Instructor) -> None:
    """Wait until nothing of the person's is on its way any more."""
    end = time.monotonic() + SETTLE_S
    while time.monotonic() < end:
        rows: list[Any] = person._get("/api/swings")
        lessons: list[Any] = person._get("/api/lessons")
        clips = [clip for row in rows for clip in row["clips"]]
        for clip in clips:
            if clip["state"] == "failed":  # its workers were killed too often: a person is asked
                person._until(200, "POST", f"/api/clips/{clip['id']}/try-again")
        busy = [clip for clip in clips if clip["state"] != "ready"]
        sent = [each["id"] for each in lessons if each["sent_at"]]
        unmailed = [id for id in sent if not _lesson(person, id)["mailed_at"]]
        if not busy and not unmailed:
            return
        time.sleep(1)
    print(f"{person.mail} still waits for {[(clip['state'], clip['trouble']) for clip in busy]}, {unmailed}")


def _lesson(person: Instructor, id: str) -> Any:
    return person._get(f"/api/lessons/{id}")


def _compare(person: Instructor, instance: Instance) -> Counter[str]:
    """What was acknowledged against what is there."""
    found = Counter[str]()
    rows: list[Any] = person._get("/api/swings")
    clips = {clip["id"]: row for row in rows for clip in row["clips"]}
    found["doubled swings"] += len(rows) - len({row["student"]["id"] for row in rows})
    there: dict[tuple[str, str, int], list[float]] = {}
    for swing in {clips[clip]["id"] for clip, _, _ in person.has.marks if clip in clips}:
        for on in person._get(f"/api/swings/{swing}")["measured"]["clips"]:
            for mark in on["marks"]:
                for frame, x in zip(mark["frame"], mark["x"], strict=True):
                    there.setdefault((on["clip_id"], mark["name"], frame), []).append(x)
    for place, x in person.has.marks.items():
        found["lost marks"] += there.get(place) != [x]
    for lesson, words in person.has.words.items():
        found["lost words"] += _lesson(person, lesson)["opening"] != words
    for swing, sha256 in person.has.files.items():
        (clip,) = [each for row in rows if row["id"] == swing for each in row["clips"]]
        stored = instance.folder / "var/media/clips" / clip["id"] / "original"
        same = stored.exists() and hashlib.sha256(stored.read_bytes()).hexdigest() == sha256
        found["lost files"] += not same
        found["lost clips"] += clip["state"] != "ready"
    return +found


def _mails(people: list[Instructor], instance: Instance) -> Counter[str]:
    """Each lesson that was sent against the mails that came; the same mail sent twice has one name."""
    found = Counter[str]()
    named = Counter[str]()
    for path in instance.mails.glob("*.eml"):
        mail = message_from_bytes(path.read_bytes())
        named[f"{mail['To']} {mail['Message-ID']}"] += 1
    to = Counter(name.split()[0] for name in named)
    for person in people:
        for lesson in person.has.sent:
            count = to[_lesson(person, lesson)["student"]["email"]]
            found["lost mails"] += count == 0
            found["doubled mails"] += max(0, count - 1)
    found["mails sent again under the same name"] += sum(named.values()) - len(named)
    return +found


def _count(swept: str) -> int:
    """How many orphans the sweep spoke of."""
    return int(swept.strip().splitlines()[-1].split()[0])


def _print(
    people: list[Instructor], instance: Instance, found: Counter[str], left_over: int, troubles: list[str]
) -> None:
    has = [person.has for person in people]
    rows: list[tuple[str, object]] = [
        *((f"killed: {kind}", count) for kind, count in sorted(instance.killed.items())),
        ("calls that failed and were made again", sum(person.failed_calls for person in people)),
        ("acknowledged swings", sum(len(each.files) for each in has)),
        ("acknowledged pieces", sum(each.pieces for each in has)),
        ("acknowledged marks", sum(len(each.marks) for each in has)),
        ("acknowledged words", sum(len(each.words) for each in has)),
        ("acknowledged sends", sum(len(each.sent) for each in has)),
    ]
    lost = [f"lost {what}" for what in ("marks", "words", "files", "clips", "mails")]
    rows += [(name, found[name]) for name in (*lost, "doubled swings", "doubled mails")]
    rows += [("mails sent again under the same name", found["mails sent again under the same name"])]
    rows += [(name, found[name]) for name in ("left by killed processes, and swept",)]
    rows += [("orphans", left_over)]
    for name, value in rows:
        print(f"{name:<40} {value}")
    for trouble in troubles:
        print(f"trouble: {trouble}")


if __name__ == "__main__":
    raise SystemExit(main(float(sys.argv[1]) if len(sys.argv) > 1 else 10.0))
