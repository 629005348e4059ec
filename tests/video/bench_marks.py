"""Measures what is proposed against the golfers' truth, over all demo clips. Run by ./tropo bench marks."""

import time
from unittest import TestCase

import numpy as np
from django.conf import settings
from django.test import tag

from tests.swings import DEMO_CLIPS, truth
from tropometer.golfer.cast import TAKES
from tropometer.swing.proposals.landmarks import Landmarks
from tropometer.swing.proposals.marks import LEFT_OF_PAIR, propose_marks
from tropometer.video.landmarks import LandmarkFinder
from tropometer.video.proxy import upright_frames

SIDES = ("lead", "trail")


@tag("bench")
class MarkBench(TestCase):
    def test_proposed_marks(self) -> None:
        errors: dict[tuple[str, str], list[float]] = {}
        within: dict[tuple[str, str], list[bool]] = {}
        swapped, pairs, took, frames = 0, 0, 0.0, 0
        for take in TAKES:
            known = truth(take.name)
            finder = LandmarkFinder(settings.LANDMARK_MODELS)
            points = []
            for picture, _ in upright_frames(DEMO_CLIPS / f"{take.name}.{take.recording.container}"):
                began = time.perf_counter()
                found = finder.find(picture)
                took, frames = took + time.perf_counter() - began, frames + 1
                points.append(np.full((33, 3), np.nan) if found is None else found)
            times = np.array(known["times_s"]["frames"])
            landmarks = Landmarks(times - times[0], np.array(points))
            marks = propose_marks(landmarks, known["view"], known["hand"])
            camera = known["camera"]
            tall = known["stature_m"] * camera["focal_px"] / camera["distance_m"]
            for part in LEFT_OF_PAIR:
                true = {side: np.array(known["pixels"][f"{side}_{part}"]) for side in SIDES}
                for side in SIDES:
                    mark = marks[f"{side}_{part}"]
                    missed = mark.places - true[side]
                    key = known["view"], part
                    errors.setdefault(key, []).extend((np.hypot(*missed.T) / tall * 100).tolist())
                    held = np.abs(missed) <= 1.96 * mark.sd_px
                    within.setdefault(key, []).extend(held.ravel().tolist())
                if part in ("knee", "ankle", "heel", "toe"):
                    own = sum(np.hypot(*(marks[f"{s}_{part}"].places - true[s]).T) for s in SIDES)
                    other = sum(
                        np.hypot(*(marks[f"{s}_{part}"].places - true[o]).T) for s, o in (SIDES, SIDES[::-1])
                    )
                    apart = np.hypot(*(true["lead"] - true["trail"]).T) > 0.04 * tall
                    swapped += int(np.sum((other < own) & apart))
                    pairs += int(np.sum(apart))
        print(f"\n{'':<24}{'median':>8}{'p95':>8}  in u95   (% of stature)")
        for (view, part), each in errors.items():
            held_share = np.mean(within[view, part])
            print(f"{view:<15}{part:<9}{np.median(each):8.2f}{np.percentile(each, 95):8.1f}{held_share:8.0%}")
        print(f"lead and trail changed for each other: {swapped} of {pairs} pairs of legs")
        print(f"{took / frames * 1000:.0f} ms a frame on one core, {frames} frames")
