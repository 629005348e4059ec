"""The trained networks see our golfers where they are, and nobody where nobody is."""

import tempfile
from pathlib import Path
from unittest import TestCase

import numpy as np
from django.conf import settings

from tests.swings import DEMO_CLIPS, truth
from tropometer.video.landmarks import LandmarkFinder, save_landmarks
from tropometer.video.probe import probe
from tropometer.video.proxy import make_proxy

LEGS = {25: "knee", 27: "ankle", 29: "heel", 31: "toe"}
FIRST, LAST = 20, 59
WITHIN = 0.03  # of stature, before anything is corrected


class LandmarkTests(TestCase):
    def test_legs_and_feet_are_where_they_are(self) -> None:
        for name in ("tobin_first_face", "model_lead_line"):
            known = truth(name)
            source = DEMO_CLIPS / f"{name}.mp4"
            with tempfile.TemporaryDirectory() as folder:
                proxy, target = Path(folder) / "proxy.mp4", Path(folder) / "body.npz"
                make_proxy(source, proxy, probe(source))
                said: list[float] = []
                found = save_landmarks(proxy, target, settings.LANDMARK_MODELS, FIRST, LAST, said.append)
                body = np.load(target)
                points = body["landmarks"]
                self.assertEqual(body["outline"].shape, (LAST - FIRST + 1, 8, 2))
            self.assertEqual((found, points.shape), (LAST - FIRST + 1, (LAST - FIRST + 1, 33, 3)))
            self.assertEqual(said[-1], 1.0)
            tall = known["stature_m"] * known["camera"]["focal_px"] / known["camera"]["distance_m"]
            for left, part in LEGS.items():
                for side, lead in ((0, known["hand"] == "right"), (1, known["hand"] == "left")):
                    true = np.array(known["pixels"][f"{'lead' if lead else 'trail'}_{part}"])[
                        FIRST : LAST + 1
                    ]
                    apart = np.hypot(*(points[:, left + side, :2] - true).T) / tall
                    with self.subTest(name, part=part, lead=lead):
                        self.assertLess(float(np.median(apart)), 0.055 if part in ("heel", "toe") else WITHIN)

    def test_nobody_is_found_where_nobody_is(self) -> None:
        finder = LandmarkFinder(settings.LANDMARK_MODELS)
        sky = np.full((360, 640, 3), (150, 180, 210), np.uint8)
        self.assertIsNone(finder.find(sky))
