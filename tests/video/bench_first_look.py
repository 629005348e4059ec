"""How far the first look and the hand it leads come, over the demo swings. Run by ./tropo bench first-look.

A scripted hand does what is said to be worth most next, with 1.5 px of error at 720 lines: pegs what is
proposed, takes all marks of a moment as they were proposed in both views, or places one, which is carried to
the other pegs. Decided is a reading whose interval
lies on one side of each end of its band and all of whose marks were looked at; counted are those that all
marks by hand decide.
"""

from __future__ import annotations

from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, field, replace
from typing import Any
from unittest import TestCase

import cv2
import numpy as np
from django.test import tag

from tests.swings import DEMO_CLIPS, truth
from tests.video.looking import Looked, look_at_take
from tropometer.golfer.cast import TAKES
from tropometer.swing.names import Checkpoint, ClubClass
from tropometer.swing.next_look import next_looks
from tropometer.swing.proposals.carried import SPREADS, Carried, carried_mark, nearest_frame
from tropometer.swing.proposals.provisional import PEG_SD_S, SeenClip, with_proposals
from tropometer.swing.read import Key, SwingRead, read
from tropometer.swing.readings.reading import Need
from tropometer.swing.readings.round import wanted_marks
from tropometer.swing.record.calibration import Mat
from tropometer.swing.record.clip import Clip, Mark
from tropometer.swing.record.swing import SwingRecord
from tropometer.swing.scene.usual import part_of
from tropometer.teaching.judging.asked import Swung, asked_of
from tropometer.teaching.knowledge.band import Band
from tropometer.teaching.knowledge.pages import shipped
from tropometer.video.carrying import Start, carried_from
from tropometer.video.proxy import upright_frames
from tropometer.video.tracking import Gray

MODEL = "loaded_shift"
CLUBS: dict[str, ClubClass] = {"wedge": "wedge", "mid_iron": "iron", "driver": "driver"}
CLICK_PX = 1.5
ASKED_ACTIONS, MOST_ACTIONS, ENOUGH = 12, 40, 0.8
DECIDED = ("inside", "below", "above")


def pairs() -> list[tuple[str, str]]:
    """The demo swings that were filmed face-on and down the line."""
    names = [take.name for take in TAKES]
    faces = [name for name in names if name.endswith("_face")]
    return [(face, line) for face in faces if (line := face.replace("_face", "_line")) in names]


@dataclass
class Hand:
    """A swing's true marks with a hand's error, and what that hand has done so far."""

    record: SwingRecord  # all marks by hand
    seen: dict[str, SeenClip]
    bands: dict[Key, Band]
    true: dict[Key, float]
    pictures: dict[str, list[Gray]]  # by the clips' ids
    now: SwingRecord = field(init=False)

    def __post_init__(self) -> None:
        self.now = replace(
            self.record, clips=tuple(replace(clip, marks={}, checkpoints={}) for clip in self.record.clips)
        )

    def provisional(self) -> SwingRead:
        return read(with_proposals(self.now, self.seen))

    def do(self, need: Need) -> None:
        """One action, and what a worker carries from it to the other pegs."""
        self.now = replace(self.now, clips=tuple(self._done(clip, need) for clip in self.now.clips))
        if need.kind == "mark" and part_of(need.name) in SPREADS:
            for clip in self.now.clips:
                if clip.view == need.view:
                    seen = self.seen[clip.id]
                    carried = dict(seen.carried) | {need.name: self._carried(clip, need.name)}
                    self.seen[clip.id] = replace(seen, carried=carried)

    def _carried(self, clip: Clip, name: str) -> dict[int, Mark]:
        by_hand = {frame: mark for frame, mark in clip.marks[name].items() if mark.source == "hand"}
        unit_px = min(clip.width, clip.height) / 720
        to: dict[int, list[int]] = {}
        for frame in clip.checkpoints.values():
            if frame not in clip.marks[name]:
                to.setdefault(nearest_frame(by_hand, frame), []).append(frame)
        starts = [Start(frame, by_hand[frame].x, by_hand[frame].y, (*ends,)) for frame, ends in to.items()]
        found: dict[int, Mark] = {}
        for start, rows in zip(starts, carried_from(self.pictures[clip.id], 0, starts), strict=True):
            for frame, (x, y, way_px, back_px) in zip(start.to, rows.tolist(), strict=True):
                carried = Carried(x=x, y=y, way_px=way_px, back_px=back_px)
                mark = carried_mark(name, by_hand[start.frame].sd_px, carried, unit_px)
                found |= {frame: mark} if mark else {}
        return found

    def _done(self, clip: Clip, need: Need) -> Clip:
        if need.view not in (None, clip.view):
            return clip
        seen, frame = self.seen[clip.id], clip.checkpoints.get(need.at) if need.at else None
        if need.kind == "check" and need.at:
            return self._checked(clip, need.at)
        if need.kind == "peg":
            return replace(clip, checkpoints=dict(seen.pegs), peg_sd_s={at: PEG_SD_S[at] for at in seen.pegs})
        if frame is None or need.at is None:
            return clip
        marks = {name: dict(by_frame) for name, by_frame in clip.marks.items()}
        if need.kind == "mark":
            by_hand = next(each for each in self.record.clips if each.id == clip.id)
            placed = by_hand.marks.get(need.name, {}).get(frame)
            if placed is not None:
                marks.setdefault(need.name, {})[frame] = placed
            return replace(clip, marks=marks)
        for wanted in wanted_marks():
            if wanted.view == clip.view and need.at in wanted.at and frame not in marks.get(wanted.name, {}):
                proposed = seen.mark(wanted.name, frame)
                if proposed is not None:
                    marks.setdefault(wanted.name, {})[frame] = replace(proposed, source="accepted")
        return replace(clip, marks=marks)

    def _checked(self, clip: Clip, at: Checkpoint) -> Clip:
        """A peg on its true frame; what was taken or clicked on the other lies on another moment then."""
        (by_hand,) = [each for each in self.record.clips if each.id == clip.id]
        unsure = {each: sd_s for each, sd_s in clip.peg_sd_s.items() if each != at}
        pegs = clip.checkpoints | {at: by_hand.checkpoints[at]}
        return replace(clip, checkpoints=pegs, peg_sd_s=unsure)

    def next(self, found: SwingRead) -> Need | None:
        """What is worth most next."""
        if not any(clip.checkpoints for clip in self.now.clips):
            return Need("peg", "proposed")
        ends = {key: (band.low, band.high) for key, band in self.bands.items()}
        hand_px = {clip.view: CLICK_PX * min(clip.width, clip.height) / 720 for clip in self.now.clips}
        best = next_looks(found, ends, hand_px, most=1)
        return best[0].need if best else None

    def decided(self, found: SwingRead) -> dict[Key, str]:
        """Where the readings stand that are decided and hang on nothing that nobody looked at."""
        standing: dict[Key, str] = {}
        for each in found.readings:
            band = self.bands.get((each.reading, each.at))
            if band and each.value is not None and each.u95 is not None and not each.provisional:
                stands = band.standing(each.value, each.u95)
                if stands in DECIDED:
                    standing[each.reading, each.at] = stands
        return standing

    def right(self, standing: dict[Key, str]) -> list[bool]:
        """Whether what is decided is so."""
        return [
            stands == self.bands[key].standing(self.true[key], 1e-9)
            for key, stands in standing.items()
            if key in self.true
        ]


def hand_of(names: tuple[str, str], looked: dict[str, Looked], random: np.random.Generator) -> Hand:
    """A hand before two clips of a swing."""
    first = truth(names[0])
    club = CLUBS[first["club"]]
    book = shipped()
    bands = dict(asked_of(book, book.models[MODEL], Swung(club=club)).bands)
    clips, seen = [], {}
    for name in names:
        clip = _by_hand(name, looked[name], random)
        clips.append(clip)
        seen[name] = SeenClip(pegs=looked[name].pegs, mark=looked[name].mark)
    record = SwingRecord(
        hand=first["hand"],
        stature_m=first["stature_m"],
        club=first["club"],
        club_class=club,
        swing_length="full",
        one_swing=True,
        clips=tuple(clips),
    )
    true: dict[Key, float] = {
        (row["reading"], row["at"]): row["value"]
        for name in names
        for row in truth(name)["readings"]
        if isinstance(row["value"], int | float)
    }
    return Hand(record, seen, bands, true, {name: _gray(name) for name in names})


def _gray(name: str) -> list[Gray]:
    (path,) = DEMO_CLIPS.glob(f"{name}.m*")
    pictures = (cv2.cvtColor(picture, cv2.COLOR_RGB2GRAY) for picture, _ in upright_frames(path))
    return [np.asarray(picture, np.uint8) for picture in pictures]


def _by_hand(name: str, looked: Looked, random: np.random.Generator) -> Clip:
    """A clip with all that readings want marked on true and on proposed pegs, and the mat's corners."""
    known = truth(name)
    camera, unit = known["camera"], min(known["camera"]["width"], known["camera"]["height"]) / 720
    marks: dict[str, dict[int, Mark]] = {}
    for wanted in wanted_marks():
        if wanted.view != known["view"] or wanted.name not in known["pixels"]:
            continue
        for at in wanted.at:
            for frame in {known["checkpoints"][at], looked.pegs.get(at, known["checkpoints"][at])}:
                x, y = np.array(known["pixels"][wanted.name][frame]) + random.normal(0, CLICK_PX * unit, 2)
                marks.setdefault(wanted.name, {})[frame] = Mark(float(x), float(y), CLICK_PX * unit)
    floor = np.array(known["mat_corners"]["tbu_m"])
    corners = tuple(
        (x + random.normal(0, CLICK_PX * unit), y + random.normal(0, CLICK_PX * unit))
        for x, y in known["mat_corners"]["pixels"]
    )
    times = known["times_s"]["frames"]
    return Clip(
        id=name,
        view=known["view"],
        width=camera["width"],
        height=camera["height"],
        frame_times_s=tuple(t - times[0] for t in times),
        checkpoints=dict(known["checkpoints"]),
        marks=marks,
        mat=Mat(corners, float(np.ptp(floor[:, 0])), float(np.ptp(floor[:, 1])), CLICK_PX * unit),
    )


@tag("bench")
class FirstLookBench(TestCase):
    def test_first_look(self) -> None:
        takes = {take.name: take for take in TAKES}
        names = [name for pair in pairs() for name in pair]
        with ProcessPoolExecutor() as pool:
            looked = dict(zip(names, pool.map(look_at_take, (takes[name] for name in names)), strict=True))
        random = np.random.default_rng(7)
        held: list[bool] = []
        off: dict[Checkpoint, list[float]] = {}
        rows: list[dict[str, Any]] = []
        for pair in pairs():
            hand = hand_of(pair, looked, random)
            whole = hand.decided(read(hand.record))
            found = hand.provisional()
            held += _held(found, hand.true)
            for name in pair:
                known = truth(name)
                for at, frame in looked[name].pegs.items():
                    late = (
                        known["times_s"]["frames"][frame]
                        - known["times_s"]["frames"][known["checkpoints"][at]]
                    )
                    off.setdefault(at, []).append(late)
            shares, rights = [], []
            for _ in range(MOST_ACTIONS):
                need = hand.next(found)
                if need is None:
                    break
                hand.do(need)
                found = hand.provisional()
                decided = hand.decided(found)
                shares.append(len(decided.keys() & whole.keys()) / len(whole))
                rights.append(hand.right(decided))
            rows.append({"pair": pair, "whole": len(whole), "shares": shares, "rights": rights})
        print(
            f"\nprovisional readings that hold in u95: {np.mean(held):.1%} of {len(held)}, {len(rows)} swings"
        )
        print(f"\n{'pegs':<16}{'median':>8}{'p95':>8}  within 2 sd   ms off the truth")
        for at, late in sorted(off.items()):
            far = np.abs(late) * 1000
            least_s = 1 / 60 / np.sqrt(12)
            within = np.mean(far <= 1.96e3 * np.hypot(dict(PEG_SD_S)[at], least_s))
            print(f"{at:<16}{np.median(far):8.0f}{np.percentile(far, 95):8.0f}{within:12.0%}")
        print(f"\n{'decided, led':<34}{'of':>4}{'at 12':>8}{'right':>7}{'at 40':>8}{'80 % at':>9}")
        for row in rows:
            shares, rights = row["shares"], row["rights"]
            at_12 = min(ASKED_ACTIONS, len(shares)) - 1
            enough = next((i + 1 for i, share in enumerate(shares) if share >= ENOUGH), None)
            right = np.mean(rights[at_12]) if rights[at_12] else 1.0
            print(
                f"{row['pair'][0]:<34}{row['whole']:4}{shares[at_12]:8.0%}{right:7.0%}{shares[-1]:8.0%}"
                f"{enough or 'never':>9}"
            )
        last = [row["shares"][min(ASKED_ACTIONS, len(row["shares"])) - 1] for row in rows]
        print(f"in the mean {np.mean(last):.0%} at {ASKED_ACTIONS} actions")


def _held(found: SwingRead, true: dict[Key, float]) -> list[bool]:
    return [
        abs(each.value - true[each.reading, each.at]) <= each.u95
        for each in found.readings
        if each.value is not None and each.u95 and (each.reading, each.at) in true
    ]
