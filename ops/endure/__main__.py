"""`./tropo endure [MINUTES]`: three instructors work while processes are killed; then all is counted.

Two and their students call as the screens do, the third sits at a browser, which is killed like the rest.

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
from ops.endure.screens import AtScreens
from ops.instance import Instance

Person = Instructor | AtScreens

CALM_S = (2.0, 6.0)  # between two kills
SETTLE_S = 240
VOICE_MS, NEAR_MS = 8505, 60  # demo/voices/question_dag.webm


def main(minutes: float) -> int:
    """Run it, and say what came of it."""
    with tempfile.TemporaryDirectory(prefix="endure-") as folder:
        instance = Instance(Path(folder))
        try:
            instance.start()
            mails = [f"{name}@skerrow.example" for name in ("one", "two", "screens")]
            for mail in mails:
                instance.manage("add_instructor", mail, "Somebody")
            stop, at = Event(), instance.address
            people: list[Person] = [Instructor(at, mail, seed, stop) for seed, mail in enumerate(mails[:2])]
            people.append(AtScreens(at, mails[2], stop, instance.browser))
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


def _work(people: list[Person], instance: Instance, seconds: float, stop: Event) -> list[str]:
    troubles: list[str] = []

    def work(person: Person) -> None:
        try:
            person.work()
        except Exception as trouble:  # said in the table, whatever it is
            troubles.append(f"{person.mail}: {trouble}")

    threads = [Thread(target=work, args=(person,)) for person in people]
    for thread in threads:
        thread.start()
    for person in people:  # what is made under fire is what counts
        person.under_way.wait(SETTLE_S)
    dice, end = random.Random(1), time.monotonic() + seconds
    while time.monotonic() < end:
        time.sleep(dice.uniform(*CALM_S))
        instance.kill_one(dice)
    stop.set()
    for thread in threads:
        thread.join()
    return troubles


def _settle(person: Person) -> None:
    """Wait until nothing of the person's is on its way any more."""
    end = time.monotonic() + SETTLE_S
    while time.monotonic() < end:
        rows: list[Any] = person.get("/api/swings?limit=500")["items"]
        lessons: list[Any] = person.get("/api/lessons?limit=500")["items"]
        clips = [clip for row in rows for clip in row["clips"]]
        for clip in clips:
            if clip["state"] == "failed":  # its workers were killed too often: a person is asked
                person.until(200, "POST", f"/api/clips/{clip['id']}/try-again")
        busy = [clip for clip in clips if clip["state"] != "ready"]
        sent = [each["id"] for each in lessons if each["sent_at"]]
        unmailed = [id for id in sent if not _lesson(person, id)["mailed_at"]]
        spoken = (person.get(f"/api/lessons/{lesson}/walk") for lesson in person.has.spoken)
        if not busy and not unmailed and not any(walk["making"] for walk in spoken):
            return
        time.sleep(1)
    print(f"{person.mail} still waits for {[(clip['state'], clip['trouble']) for clip in busy]}, {unmailed}")


def _lesson(person: Person, id: str) -> Any:
    return person.get(f"/api/lessons/{id}")


def _compare(person: Person, instance: Instance) -> Counter[str]:
    """What was acknowledged against what is there."""
    found = Counter[str]()
    rows: list[Any] = person.get("/api/swings?limit=500")["items"]
    clips = {clip["id"]: row for row in rows for clip in row["clips"]}
    found["doubled swings"] += len(rows) - len({row["student"]["id"] for row in rows})
    marks: dict[tuple[str, str, int], list[float]] = {}
    pegs: dict[tuple[str, str], int] = {}
    marked = {clip for clip, _, _ in person.has.marks} | {clip for clip, _ in person.has.pegs}
    for swing in {clips[clip]["id"] for clip in marked if clip in clips}:
        for on in person.get(f"/api/swings/{swing}")["measured"]["clips"]:
            for mark in on["marks"]:
                for frame, x in zip(mark["frame"], mark["x"], strict=True):
                    marks.setdefault((on["clip_id"], mark["name"], frame), []).append(x)
            pegs |= {(on["clip_id"], peg["name"]): peg["frame"] for peg in on["pegs"]}
    for place, x in person.has.marks.items():
        found["lost marks"] += marks.get(place) != [x]
    for peg, frame in person.has.pegs.items():
        if (there := pegs.get(peg)) not in {frame, *person.has.begun[peg]}:
            found["lost pegs"] += 1
            print(f"{person.mail}: {peg[1]} on frame {frame} was said to be saved, {there} is there")
    for lesson, words in person.has.words.items():
        opening = _lesson(person, lesson)["opening"]
        if opening not in {words, *person.has.begun[lesson]}:
            found["lost words"] += 1
            print(f"{person.mail}: “{words}” was said to be saved, “{opening}” is there")
    for hour, said in person.has.tries.items():
        tries = person.get(f"/api/hours/{hour}")["tries"]
        found["lost tries"] += not tries
        found["doubled tries"] += len(tries) > 1
        found["lost words of tries"] += any(each | said != each for each in tries)
    for lesson, take in person.has.spoken.items():
        walk = person.get(f"/api/lessons/{lesson}/walk")
        (length,) = [each["length_ms"] for each in walk["takes"] if each["id"] == take]
        found["lost voices"] += abs(length - VOICE_MS) > NEAR_MS or abs(walk["length_ms"] - length) > NEAR_MS
    for student, sha256 in person.has.files.items():
        (clip,) = [each for row in rows if row["student"]["id"] == student for each in row["clips"]]
        stored = instance.folder / "var/media/clips" / clip["id"] / "original"
        same = stored.exists() and hashlib.sha256(stored.read_bytes()).hexdigest() == sha256
        found["lost files"] += not same
        found["lost clips"] += clip["state"] != "ready"
    return +found


def _mails(people: list[Person], instance: Instance) -> Counter[str]:
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
    people: list[Person], instance: Instance, found: Counter[str], left_over: int, troubles: list[str]
) -> None:
    told = sum((person.has.told for person in people), Counter[str]())
    rows: list[tuple[str, object]] = [
        *((f"killed: {kind}", count) for kind, count in sorted(instance.killed.items())),
        ("calls that failed and were made again", sum(person.failed_calls for person in people)),
        *((f"acknowledged {what}", count) for what, count in sorted(told.items())),
    ]
    lost = [f"lost {what}" for what in ("marks", "pegs", "words", "voices", "tries", "words of tries")]
    lost += [f"lost {what}" for what in ("files", "clips", "mails")]
    doubled = [f"doubled {what}" for what in ("swings", "tries", "mails")]
    rows += [(name, found[name]) for name in (*lost, *doubled)]
    rows += [("mails sent again under the same name", found["mails sent again under the same name"])]
    rows += [(name, found[name]) for name in ("left by killed processes, and swept",)]
    rows += [("orphans", left_over)]
    for name, value in rows:
        print(f"{name:<40} {value}")
    for trouble in troubles:
        print(f"trouble: {trouble}")


if __name__ == "__main__":
    raise SystemExit(main(float(sys.argv[1]) if len(sys.argv) > 1 else 10.0))
