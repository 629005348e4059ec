"""Where a player stands in a clip's picture, against the camera that drew it."""

from dataclasses import replace
from unittest import TestCase

import numpy as np

from tests.swings import record_of, truth
from tropometer.swing.read import read
from tropometer.swing.record.calibration import Mat
from tropometer.swing.record.clip import Mark
from tropometer.swing.record.swing import SwingRecord
from tropometer.swing.scene.in_picture import InPicture, in_picture

HEELS = ("lead_heel", "trail_heel")


def on_mat(name: str, heels: bool = True) -> SwingRecord:
    """A demo clip with its mat's corners and, if wanted, its heels marked without error."""
    known, record = truth(name), record_of(name)
    (clip,) = record.clips
    at = known["checkpoints"]["address"]
    floor = np.array(known["mat_corners"]["tbu_m"])
    corners = tuple((x, y) for x, y in known["mat_corners"]["pixels"])
    places = {each: known["pixels"][each][at] for each in HEELS}
    marks = clip.marks | {each: {at: Mark(x, y, 1.5)} for each, (x, y) in places.items()}
    mat = Mat(corners, float(np.ptp(floor[:, 0])), float(np.ptp(floor[:, 1])), 1.5)
    bare = {"known_length": None, "mat": mat, "marks": marks if heels else {}}
    return replace(record, clips=(replace(clip, **bare),))


def seen(record: SwingRecord) -> InPicture | None:
    scene = read(record).scene_of(record.clips[0].id)
    assert scene is not None
    return in_picture(scene.eyes["face_on"])


class InPictureTests(TestCase):
    def test_foot_size_and_angle_are_those_of_the_camera_that_drew_it(self) -> None:
        for name in ("tobin_first_face", "ilse_face", "dag_first_face", "lorne_driver_face"):
            with self.subTest(name):
                known, found = truth(name), seen(on_mat(name))
                assert found is not None
                at = known["checkpoints"]["address"]
                middle = np.mean([known["pixels"][heel][at] for heel in HEELS], axis=0)
                self.assertLess(np.hypot(*(middle - (found.foot_x, found.foot_y))), 8)
                camera = known["camera"]
                self.assertAlmostEqual(found.distance_m / camera["distance_m"], 1, delta=0.15)
                self.assertAlmostEqual(
                    found.px_per_m * camera["distance_m"] / camera["focal_px"], 1, delta=0.08
                )

    def test_one_camera_s_angles_to_two_others_are_what_was_drawn(self) -> None:
        off = {name: truth(name)["camera"]["off_square_deg"] for name in ("tobin_first_face", "wynn_face")}
        found = {name: seen(on_mat(name)) for name in off}
        one, two = found["tobin_first_face"], found["wynn_face"]
        assert one is not None and two is not None
        apart = off["wynn_face"] - off["tobin_first_face"]
        self.assertAlmostEqual(abs(two.aside_deg - one.aside_deg), abs(apart), delta=4)

    def test_nothing_is_said_by_eye(self) -> None:
        record = record_of("tobin_first_face")
        (clip,) = record.clips
        unscaled = replace(record, clips=(replace(clip, known_length=None),))
        self.assertIsNone(seen(unscaled))
        self.assertIsNone(seen(on_mat("tobin_first_face", heels=False)))
