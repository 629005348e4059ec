"""What the machine alone says of a drill, over golfers drawn anew. Run by ./tropo bench drill-check.

Bodies, swings, phones and how much of a fault is left are drawn at random; neither the marks' offsets nor
anything else was measured on them. Truth is what was drawn.
"""

from __future__ import annotations

import gzip
import json
import tempfile
import time
from collections import Counter
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from unittest import TestCase

import numpy as np
from django.test import tag

from tests.video.looking import look_at_file
from tropometer.golfer import schools
from tropometer.golfer.camera import Camera
from tropometer.golfer.cast import PEOPLE, Person, Take
from tropometer.golfer.clips import write_clip
from tropometer.golfer.faults import with_faults
from tropometer.swing.names import View
from tropometer.swing.proposals.body_length import body_length
from tropometer.swing.proposals.provisional import SeenClip, with_proposals
from tropometer.swing.read import read
from tropometer.swing.record.clip import Clip
from tropometer.swing.record.swing import SwingRecord
from tropometer.teaching.judging.drill_check import drill_check
from tropometer.teaching.knowledge.pages import shipped

GOLFERS, SEED = 48, 41
SCHOOLS = (schools.loaded_shift, schools.centred, schools.lead_biased, schools.free_heel)
# What a drill is against, from none of it to all: most who practise are on the way.
FAULTS: dict[View, tuple[str, ...]] = {
    "face_on": ("sway", "slide", "hang_back", "wide_stance"),
    "down_the_line": ("early_extension", "upper_body_first"),
}


@dataclass(frozen=True)
class Try:
    """One drill checked on one golfer: what was said, and whether it is so."""

    drill: str
    said: str
    right: bool | None  # None: nothing was said


def somebody(random: np.random.Generator, view: View) -> Take:
    """A golfer, a swing and a phone that nobody has seen before."""
    man = random.random() < 0.5
    person = Person(
        stature_m=float(np.clip(random.normal(1.76 if man else 1.63, 0.07), 1.5, 1.95)),
        sex="male" if man else "female",
        build=float(random.uniform(-0.8, 0.9)),
        hand="right" if random.random() < 0.85 else "left",
        colours=PEOPLE[str(random.choice(sorted(PEOPLE)))].colours,
        hip_width=float(random.uniform(0.94, 1.06)),
        foot_length=float(random.uniform(0.95, 1.05)),
    )
    left = {fault: float(random.uniform(0, 1.1)) for fault in FAULTS[view] if random.random() < 0.6}
    swing = SCHOOLS[random.integers(len(SCHOOLS))]()
    camera = Camera(
        view,
        float(random.uniform(3.6, 5.2)),
        float(random.uniform(0.7, 1.4)),
        float(random.uniform(31, 38)),
        1280,
        720,
        float(np.clip(random.normal(0, 6), -14, 14)),
        3.0,
        float(random.normal(0, 1)),
        left_handed=person.hand == "left",
    )
    name = f"somebody_{random.integers(1_000_000)}"
    return Take(name, person, with_faults(swing, **left), camera, indoors=bool(random.random() < 0.5))


def tries(seed: int) -> list[Try]:
    """Draw a golfer, look, and check every drill that a phone alone is asked of."""
    random = np.random.default_rng([SEED, seed])
    view: View = "face_on" if seed % 3 else "down_the_line"
    take = somebody(random, view)
    with tempfile.TemporaryDirectory() as folder:
        path = write_clip(take, Path(folder))
        known = json.loads(gzip.decompress((Path(folder) / f"{take.name}.truth.json.gz").read_bytes()))
        looked = look_at_file(path, known)
    times = known["times_s"]["frames"]
    clip = Clip(
        id=take.name,
        view=view,
        width=known["camera"]["width"],
        height=known["camera"]["height"],
        frame_times_s=tuple(t - times[0] for t in times),
    )
    tall = known["stature_m"] if random.random() < 0.5 else None  # half of the cards say it
    seen = SeenClip(pegs=looked.pegs, mark=looked.mark)
    seen = SeenClip(pegs=looked.pegs, mark=looked.mark, length=body_length(seen, tall))
    record = SwingRecord(hand=known["hand"], stature_m=tall, clips=(clip,))
    found = read(with_proposals(record, {take.name: seen}))
    true = {(row["reading"], row["at"]): row["value"] for row in known["readings"]}
    told = []
    for drill in shipped().drills.values():
        asked = drill.camera.told_alone
        if asked is None or drill.camera.view != view:
            continue
        holds = asked.holds
        check = drill_check(holds, found)
        assert isinstance(holds.limit, float)
        done = (true[holds.key] - holds.limit) * holds.way > 0
        right = (check.answer == "inside") == done if check.answer in ("inside", "outside") else None
        told.append(Try(drill.id, check.answer, right))
    return told


@tag("bench")
class DrillCheckBench(TestCase):
    def test_drills_of_golfers_drawn_anew(self) -> None:
        began = time.perf_counter()
        with ProcessPoolExecutor(2) as pool:
            told = [each for golfer in pool.map(tries, range(GOLFERS)) for each in golfer]
        print(f"\n{'drill':<24}{'tries':>7}{'inside':>8}{'outside':>9}{'cannot':>8}{'right':>9}")
        for drill in [*dict.fromkeys(each.drill for each in told), ""]:
            rows = [each for each in told if not drill or each.drill == drill]
            said = Counter(each.said for each in rows)
            answered = [each.right for each in rows if each.right is not None]
            silent = said["unsure"] + said["not_read"]
            print(
                f"{drill or 'all':<24}{len(rows):>7}{said['inside']:>8}{said['outside']:>9}"
                f"{silent / len(rows):>8.0%}{sum(answered):>5} of {len(answered)}"
            )
        print(f"{GOLFERS} golfers drawn and looked at in {time.perf_counter() - began:.0f} s")
