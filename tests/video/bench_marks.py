"""Proposed and followed marks against the golfers' truth, over all demo clips. Run by ./tropo bench marks."""

import time
from itertools import pairwise
from typing import Any
from unittest import TestCase

import cv2
import numpy as np
from django.test import tag

from tests.swings import DEMO_CLIPS, truth
from tests.video.looking import Looked, demo_clip, heard_in, look
from tests.video.spoilt import ways_for
from tropometer.golfer.cast import TAKES, Take
from tropometer.swing.names import TRACKED
from tropometer.swing.proposals.marks import ProposedMark
from tropometer.swing.record.camera_motion import CameraMotion
from tropometer.video.camera_motion import camera_motion
from tropometer.video.proxy import upright_frames
from tropometer.video.shaft import APART_FRAMES, follow_shaft
from tropometer.video.tracking import Span, hung, track

SPOILT = (
    "tobin_first_face",
    "wynn_line",
    "ilse_face",
    "lorne_driver_line",
    "anneke_snap_face",
    "jory_top_line",
)
ELSEWHERE = 0.08  # of stature, from the player's hips
SIDES = ("lead", "trail")
PAIRED = ("knee", "ankle", "heel", "toe")
FOLLOWED = [name for name in TRACKED if name not in ("ball", "grip", "club_head")]
CLUB_WITHIN_PX = 20.0
CLICK_PX = 0.7  # standard deviation of a careful click on a 720-line picture
WITHIN_PX = 3.0


@tag("bench")
class MarkBench(TestCase):
    def test_proposed_and_followed_marks(self) -> None:
        proposed: dict[tuple[str, str, str], list[tuple[float, bool]]] = {}
        swaps, followed, club, steadied = Swaps(), Followed(), Club(), Steadied()
        took: dict[str, list[float]] = {}
        for take in TAKES:
            known = truth(take.name)
            path = DEMO_CLIPS / f"{take.name}.{take.recording.container}"
            pictures = [picture for picture, _ in upright_frames(path)]
            grays = [cv2.cvtColor(picture, cv2.COLOR_RGB2GRAY) for picture in pictures]
            looked = look(pictures, known, heard_in(demo_clip(take), known))
            for network, ms in looked.ms_a_frame.items():
                took.setdefault(network, []).append(ms)
            marks = looked.marks
            camera = known["camera"]
            tall = known["stature_m"] * camera["focal_px"] / camera["distance_m"]
            for network, of_network in (("fast", looked.fast), ("close", looked.marks)):
                rows = looked.close_frames
                for name, mark in of_network.items():
                    missed = (mark.places - np.array(known["pixels"][name]))[rows]
                    given = np.isfinite(missed).all(axis=1)  # a struck ball is nowhere any more
                    missed = missed[given]
                    if name.endswith("hip_edge"):
                        missed[:, 1] = 0  # its height is the joint's, and is not read from it
                    held = np.abs(missed) <= 1.96 * mark.sd_px[rows, None][given]
                    each = zip(np.hypot(*missed.T) / tall * 100, held.all(axis=1), strict=True)
                    part = name.removeprefix("lead_").removeprefix("trail_")
                    proposed.setdefault((known["view"], part, network), []).extend(each)
            swaps.add(known, marks, tall)
            followed.add(known, marks, grays)
            if take.camera.drift_deg:
                steadied.add(take, known, grays)
            if known["view"] == "face_on":
                club.add(known, marks, grays)
        print(f"\n{'proposed':<36}{'median':>8}{'p95':>8}  in u95   (% of stature)")
        for (view, part, network), found in sorted(proposed.items()):
            missed, held = (np.array(each) for each in zip(*found, strict=True))
            median, p95 = np.percentile(missed, [50, 95])
            print(f"{view:<15}{part:<14}{network:<7}{median:8.2f}{p95:8.1f}{held.mean():8.0%}")
        swaps.print()
        for network, each_ms in took.items():
            print(f"{network}: {np.mean(each_ms):.0f} ms a frame on one core, {len(each_ms)} clips")
        followed.print()
        club.print()
        steadied.print()


@tag("bench")
class SpoiltBench(TestCase):
    def test_spoilt_clips(self) -> None:
        """Top and impact, whose body it is, and what of the proposed marks holds, on worse footage."""
        rows: dict[str, list[tuple[Any, ...]]] = {}
        for take in TAKES:
            if take.name not in SPOILT:
                continue
            path = DEMO_CLIPS / f"{take.name}.{take.recording.container}"
            pictures = [picture for picture, _ in upright_frames(path)]
            for way, spoil in ways_for(take).items():
                spoilt, known = spoil(pictures, truth(take.name))
                looked = look(spoilt, known, heard_in(demo_clip(take), known))
                rows.setdefault(way, []).append(_against(known, looked))
        head = f"{'top':>8}{'impact':>8}  in u95  elsewhere"
        print(f"\n{'spoilt':<16}{'clips':>6}{head}   (ms off at worst; share of frames)")
        for way, found in rows.items():
            top, impact, held, elsewhere = zip(*found, strict=True)
            within = f"{np.mean(np.concatenate(held)):8.0%}{np.mean(elsewhere):10.1%}"
            print(f"{way:<16}{len(found):6}{_worst(top):>8}{_worst(impact):>8}{within}")


def _worst(late_s: tuple[float | None, ...]) -> str:
    """The farthest of what was proposed, ms, and how many were not."""
    given = [abs(each) for each in late_s if each is not None]
    missing = len(late_s) - len(given)
    return (f"{max(given) * 1000:.0f}" if given else "-") + (f" -{missing}" if missing else "")


def _against(known: dict[str, Any], looked: Looked) -> tuple[Any, ...]:
    times = known["times_s"]["frames"]
    late = [
        times[looked.pegs[at]] - times[known["checkpoints"][at]] if at in looked.pegs else None
        for at in ("top", "impact")
    ]
    camera = known["camera"]
    tall = known["stature_m"] * camera["focal_px"] / camera["distance_m"]
    rows = looked.close_frames
    held = []
    for name, mark in looked.marks.items():
        if len(rows) and not name.endswith("hip_edge"):  # their height is not read
            missed = np.abs(mark.places - np.array(known["pixels"][name]))[rows]
            given = np.isfinite(missed).all(axis=1)
            held.append((missed <= 1.96 * mark.sd_px[rows, None]).all(axis=1)[given])
    hips = np.mean([known["pixels"][f"{side}_hip"] for side in SIDES], axis=0)
    apart = [
        np.linalg.norm(np.mean([looked.marks[f"{side}_hip"].places for side in SIDES], axis=0) - hips, axis=1)
        if looked.marks
        else np.zeros(1)
    ]
    return *late, np.concatenate(held or [np.zeros(0)]), float(np.mean(apart[0] > ELSEWHERE * tall))


class Swaps:
    """How often lead and trail legs lie nearer to each other's place than to their own."""

    found = pairs = said = 0

    def add(self, known: dict[str, Any], marks: dict[str, ProposedMark], tall: float) -> None:
        for part in PAIRED:
            if not {f"{side}_{part}" for side in SIDES} <= marks.keys():
                continue  # from behind, shoes hide their toes
            true = {side: np.array(known["pixels"][f"{side}_{part}"]) for side in SIDES}
            own, other = (
                sum(
                    np.hypot(*(marks[f"{side}_{part}"].places - true[at]).T)
                    for side, at in zip(SIDES, order, strict=True)
                )
                for order in (SIDES, SIDES[::-1])
            )
            apart = np.hypot(*(true["lead"] - true["trail"]).T) > 0.04 * tall
            near = np.hypot(*(marks[f"lead_{part}"].places - marks[f"trail_{part}"].places).T)
            unsure = near <= 2 * marks[f"lead_{part}"].sd_px
            changed = (other < own) & apart
            self.found += int(changed.sum())
            self.said += int((changed & unsure).sum())
            self.pairs += int(apart.sum())

    def print(self) -> None:
        print(f"lead and trail nearer to each other's place: {self.found} of {self.pairs} pairs,")
        print(
            f"  in {self.said} of them nearer together than twice their own deviation says they can be told"
        )


class Followed:
    """Marks followed between the nine checkpoints, placed there with a careful hand's error."""

    def __init__(self) -> None:
        self.rows: dict[tuple[str, str, bool], list[tuple[float, float]]] = {}
        self.took, self.steps = 0.0, 0

    def add(self, known: dict[str, Any], marks: dict[str, ProposedMark], grays: list[Any]) -> None:
        hand = np.random.default_rng(len(self.rows))
        pegs = sorted(set(known["checkpoints"].values()))
        unit = min(grays[0].shape) / 720
        for first, last in pairwise(pegs):
            true = {name: np.array(known["pixels"][name])[first : last + 1] for name in FOLLOWED}
            spans = [
                Span(
                    name,
                    first,
                    last,
                    tuple(each[0] + hand.normal(0, CLICK_PX * unit, 2)),
                    tuple(each[-1] + hand.normal(0, CLICK_PX * unit, 2)),
                    marks[name].places[first : last + 1] if name in marks else None,
                )
                for name, each in true.items()
            ]
            began = time.perf_counter()
            found = track(grays[first : last + 1], spans)
            self.took, self.steps = self.took + time.perf_counter() - began, self.steps + last - first
            for name, each in zip(FOLLOWED, found, strict=True):
                unseen = np.array([int(flag) for flag in known["hidden"][name]])[first : last + 1]
                part = name.removeprefix("lead_").removeprefix("trail_")
                for i in range(1, last - first):
                    seen = not (unseen[i] or unseen[0] or unseen[-1])
                    missed = float(np.hypot(*(each[i, :2] - true[name][i]))) / unit
                    sd = float(np.hypot(each[i, 2], CLICK_PX * unit)) / unit
                    self.rows.setdefault((known["view"], part, seen), []).append((missed, sd))

    def print(self) -> None:
        print(f"\n{'followed':<36}{'spans':>7}{'stopped':>9}{'in 3 px':>9}{'p95':>7}  in u95")
        for (view, part, seen), rows in sorted(self.rows.items()):
            self._print(f"{view:<15}{part:<12}{'seen' if seen else 'hidden':<9}", rows)
        for seen in (True, False):
            rows = [row for key, each in self.rows.items() if key[2] == seen for row in each]
            self._print(f"all that is {'seen' if seen else 'hidden'}", rows)
        print(f"{self.took / self.steps * 1000:.0f} ms a frame for {len(FOLLOWED)} marks, both ways")

    @staticmethod
    def _print(title: str, rows: list[tuple[float, float]]) -> None:
        missed, sd = np.array(rows).T
        there = np.isfinite(missed)
        within, p95 = np.mean(missed[there] < WITHIN_PX), np.percentile(missed[there], 95)
        held = np.mean(missed[there] <= 2.45 * sd[there])  # 95 % of a round normal cloud
        print(f"{title:<36}{len(rows):7}{1 - there.mean():9.1%}{within:9.1%}{p95:7.1f}{held:8.0%}")


class Steadied:
    """What is left of a hand-held camera's motion at the hips when its background has been followed."""

    def __init__(self) -> None:
        self.rows: list[tuple[str, float, float, float]] = []

    def add(self, take: Take, known: dict[str, Any], grays: list[Any]) -> None:
        seen = np.array([known["pixels"][name] for name in ("head", "lead_toe", "trail_toe")])
        (left, top), (right, bottom) = seen.min(axis=(0, 1)), seen.max(axis=(0, 1))
        began = time.perf_counter()
        motion = CameraMotion(camera_motion(grays, (left, top, right, bottom), 0))
        took = (time.perf_counter() - began) / len(grays)
        times = known["times_s"]["frames"]
        hips = np.array([*np.mean([known["pixels"][f"{side}_hip"][0] for side in SIDES], axis=0), 1.0])
        back = np.linalg.inv(take.camera.warp(times[0]))
        moved, missed = [], []
        for frame, at in enumerate(times):
            across, down, scale = take.camera.warp(at) @ back @ hips
            seen_at = np.array([across, down]) / scale
            moved.append(seen_at - hips[:2])
            missed.append(motion.still(np.array([frame]), np.array([seen_at]))[0][0] - hips[:2])
        unit = min(grays[0].shape) / 720
        rms = [float(np.sqrt(np.mean(np.sum(np.square(each), axis=1)))) / unit for each in (moved, missed)]
        self.rows.append((take.name, *rms, took * 1000))

    def print(self) -> None:
        print(f"\n{'hand-held':<24}{'moved, px':>11}{'left, px':>10}{'ms a frame':>12}")
        for name, moved, missed, took in self.rows:
            print(f"{name:<24}{moved:11.2f}{missed:10.2f}{took:12.0f}")


class Club:
    """Grip and club head face-on between the nine checkpoints, placed there with a careful hand's error."""

    def __init__(self) -> None:
        self.rows: dict[str, list[tuple[float, float]]] = {"grip": [], "club_head": []}

    def add(self, known: dict[str, Any], marks: dict[str, ProposedMark], grays: list[Any]) -> None:
        hand = np.random.default_rng(len(self.rows["grip"]))
        unit = min(grays[0].shape) / 720
        true = {name: np.array(known["pixels"][name]) for name in self.rows}
        for first, last in pairwise(sorted(set(known["checkpoints"].values()))):
            ends = {
                name: [each[at] + hand.normal(0, CLICK_PX * unit, 2) for at in (first, last)]
                for name, each in true.items()
            }
            seen = marks["grip"].places[first : last + 1]
            start, end = (tuple(each) for each in ends["grip"])
            grip = hung(Span("grip", first, last, start, end, seen), unit)
            around = np.clip(np.arange(first - APART_FRAMES, last + APART_FRAMES + 1), 0, len(grays) - 1)
            head = follow_shaft([grays[i] for i in around], grip[:, :2], *ends["club_head"])
            for name, found in (("grip", grip), ("club_head", head)):
                missed = np.hypot(*(found[1:-1, :2] - true[name][first + 1 : last]).T) / unit
                self.rows[name].extend(zip(missed.tolist(), (found[1:-1, 2] / unit).tolist(), strict=True))

    def print(self) -> None:
        print(f"\n{'face-on':<36}{'spans':>7}{'stopped':>9}{'in 20 px':>9}{'p95':>7}  in u95")
        for name, rows in self.rows.items():
            missed, sd = np.array(rows).T
            there = np.isfinite(missed)
            within, p95 = np.mean(missed[there] < CLUB_WITHIN_PX), np.percentile(missed[there], 95)
            held = np.mean(missed[there] <= 2.45 * sd[there])
            print(f"{name:<36}{len(rows):7}{1 - there.mean():9.1%}{within:9.1%}{p95:7.1f}{held:8.0%}")
