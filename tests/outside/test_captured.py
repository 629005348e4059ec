"""Angles, filter and shares against what other people captured and computed (tests/outside/captured.py)."""

from unittest import TestCase

import numpy as np

from tests.outside.captured import gait, jump, plate
from tests.outside.test_scale import clip_of
from tropometer.swing.error.value import Measured
from tropometer.swing.readings.curves import curves_of_marks, placed_on_frames
from tropometer.swing.readings.from_plate import readings_of_plate
from tropometer.swing.record.clip import Clip
from tropometer.swing.record.plate import PressurePlate
from tropometer.swing.record.swing import SwingRecord
from tropometer.swing.scene.place import Place, angle_between
from tropometer.swing.scene.rigid import OF_HIP_WIDTH
from tropometer.swing.scene.smoothing import low_pass

EVERY = 8
RATE_HZ = 200.0
SIDES = ("face_on", "down_the_line")
NAMES = {"RHJC": "trail_hip", "RKJC": "trail_knee", "RAJC": "trail_ankle", "LHJC": "lead_hip"}
SENSORS_APART_M = 0.210  # half of it, along x (the plate's own data sheet, stored in the same package's c3d)


def place(points: np.ndarray) -> Place:
    return Place(*(Measured(column) for column in points.T))


def flexion(hip: np.ndarray, knee: np.ndarray, ankle: np.ndarray) -> np.ndarray:
    return np.asarray(angle_between(place(knee - hip), place(ankle - knee)).value)


def standing(jumped: dict[str, np.ndarray]) -> dict[str, np.ndarray]:
    """The jump's joints in T, B, U: T to the left, B ahead, where the knee goes; each eighth frame."""
    points = {name: jumped[name][::EVERY] for name in NAMES}
    across = np.mean(points["LHJC"] - points["RHJC"], axis=0) * [1, 1, 0]
    across /= np.linalg.norm(across)
    bent = np.mean(points["RKJC"] - (points["RHJC"] + points["RAJC"]) / 2, axis=0) * [1, 1, 0]
    ahead = bent - across * (bent @ across)
    ahead /= np.linalg.norm(ahead)
    axes = np.array([across, ahead, [0, 0, 1]])
    middle = np.append(points["RAJC"][0, :2], 0)
    return {name: (place - middle) @ axes.T for name, place in points.items()}


class JumpTests(TestCase):
    def test_the_angle_of_three_points_is_the_capture_system_s_knee_angle(self) -> None:
        """Known to agree within 0.83° (root mean square) with a correlation of 0.9995."""
        jumped = jump()
        own = flexion(jumped["RHJC"], jumped["RKJC"], jumped["RAJC"])
        theirs = jumped["AngArtKnee_R"][:, 0]
        ok = np.isfinite(own) & np.isfinite(theirs)
        self.assertGreater(ok.sum(), 1000)
        self.assertLess(np.sqrt(np.mean((own - theirs)[ok] ** 2)), 0.9)
        self.assertGreater(np.corrcoef(own[ok], theirs[ok])[0, 1], 0.999)

    def test_two_cameras_read_the_same_knee_and_pelvis(self) -> None:
        """The joints seen by OpenCV's cameras four metres away, on mats, read through a record."""
        jumped = jump()
        joints = standing(jumped)
        count = len(joints["RHJC"])
        clips = []
        for view in SIDES:
            marks: dict[str, dict] = {}  # type: ignore[type-arg]
            for frame in range(count):
                seen = clip_of(view, {NAMES[joint]: tuple(joints[joint][frame]) for joint in joints})
                for name, by_frame in seen.marks.items():
                    marks.setdefault(name, {})[frame] = by_frame[0]
            pegs = {"address": 0, "top": count // 3, "impact": count // 2, "finish": count - 1}
            times = tuple(n * EVERY / RATE_HZ for n in range(count))
            clips.append(
                Clip(
                    id=view,
                    view=view,
                    width=seen.width,
                    height=seen.height,
                    frame_times_s=times,
                    checkpoints=pegs,
                    marks=marks,
                    mat=seen.mat,
                )
            )
        # What a tape would say, were the joints where they usually are.
        hips_m = float(np.nanmean(np.linalg.norm(joints["RHJC"] - joints["LHJC"], axis=1))) / OF_HIP_WIDTH
        record = SwingRecord(hand="right", clips=tuple(clips), hip_width_m=hips_m)
        found = {
            curve.reading: curve
            for curve in curves_of_marks(placed_on_frames(record), ("knee_flex_trail", "pelvis_turn"))
        }
        knee = found["knee_flex_trail"]
        theirs = jumped["AngArtKnee_R"][::EVERY, 0]
        ok = np.isfinite(knee.values) & np.isfinite(theirs)
        self.assertGreater(ok.sum(), 150)
        self.assertLess(np.sqrt(np.mean((knee.values - theirs)[ok] ** 2)), 1.2)
        # Against the same joints in space only the cameras' error is left.
        true = flexion(joints["RHJC"], joints["RKJC"], joints["RAJC"])
        self.assertLess(np.nanmax(np.abs(knee.values - true)[ok]), 1.0)
        turn = found["pelvis_turn"].values
        yaws = jumped["AngSegPELVIS_LR"][::EVERY]
        ok = np.isfinite(turn) & np.isfinite(yaws).all(axis=1)
        apart = [min(np.std((turn - way * yaw)[ok]) for way in (1, -1)) for yaw in yaws.T]
        self.assertLess(min(apart), 0.6)  # known: 0.46°


class GaitTests(TestCase):
    def test_filter_and_knee_angle_are_the_stored_ones(self) -> None:
        """From frame 60 on, at 4 Hz: the example's own filter is a two-pass second-order Butterworth too."""
        times, marks, theirs = gait()
        rate = 1 / float(np.median(np.diff(times)))
        smooth = low_pass(marks, rate, 4.0)
        flat = np.concatenate([smooth, np.zeros((*smooth.shape[:2], 1))], axis=2)
        own = flexion(flat[:, 1], flat[:, 2], flat[:, 3])
        inside = slice(60, -10)
        apart = (own - np.abs(theirs))[inside]
        self.assertLess(np.abs(apart).max(), 0.05)  # without pre-warping it would be 0.049
        raw = np.concatenate([marks, np.zeros((*marks.shape[:2], 1))], axis=2)
        unfiltered = (flexion(raw[:, 1], raw[:, 2], raw[:, 3]) - np.abs(theirs))[inside]
        self.assertGreater(np.std(unfiltered), 20 * np.std(apart))


class PlateTests(TestCase):
    def test_the_share_of_two_halves_is_the_plate_s_own_centre_of_pressure(self) -> None:
        """Forces on the sensors at +x and −x as if they were feet: x = half their distance · (2 · share − 1).

        The plate also counts what forces along the floor do at the sensors' depth; standing that is small.
        """
        felt = plate()
        ahead, behind = felt["Fz1"] + felt["Fz4"], felt["Fz2"] + felt["Fz3"]
        times = felt["abs time"]
        off = []
        for instant in range(5, len(times) - 5, 25):
            mat = PressurePlate(
                times_s=times, lead_force_n=ahead, trail_force_n=behind, impact_s=float(times[instant])
            )
            clip = Clip(
                id="a",
                view="face_on",
                width=100,
                height=100,
                frame_times_s=(0.0, 0.01),
                checkpoints={"impact": 0},
            )
            (share,) = [
                each.value
                for each in readings_of_plate(SwingRecord(hand="right", clips=(clip,), plate=mat))
                if each.reading == "pressure_lead_share"
            ]
            assert share is not None
            off.append(SENSORS_APART_M * (2 * share - 1) - felt["Ax"][instant])
        self.assertGreater(np.ptp(felt["Ax"]), 0.02)
        self.assertLess(np.sqrt(np.mean(np.square(off))), 0.002)
