"""Errors against closed forms, and against what happens when the marks are shaken (Monte Carlo)."""

from dataclasses import replace
from unittest import TestCase

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from tests.outside.test_scale import FEET, clip_of
from tropometer.swing.error.source import Source
from tropometer.swing.error.value import Measured
from tropometer.swing.names import CHECKPOINTS
from tropometer.swing.readings.from_marks import FromMarks
from tropometer.swing.readings.look import Look
from tropometer.swing.readings.register import KINDS
from tropometer.swing.record.clip import Clip, Mark
from tropometer.swing.record.swing import SwingRecord
from tropometer.swing.scene.eyesight import ANEW, missed_m
from tropometer.swing.scene.place import Place, angle_between
from tropometer.swing.scene.rigid import OF_HIP_WIDTH
from tropometer.swing.scene.scene import Scene

SHAKES = 1500
SD_PX = 2.0
TURN_DEG = 45.0
PELVIS_M = 0.30
PX_PER_M = 1100 / 4.0


def hip_px() -> float:
    """What a hip joint's mark is shaken by, one standard deviation, pixels."""
    return float(np.hypot(SD_PX, ANEW * missed_m(("lead_hip",))[0] * PX_PER_M))


def point(values: np.ndarray, sd: float, name: str) -> Place:
    return Place(
        *(Measured.of(value, sd, Source("mark", f"{name} {axis}")) for axis, value in enumerate(values))
    )


def turned(
    part_m: float, degrees: float, middle: tuple[float, float, float]
) -> dict[str, tuple[float, float, float]]:
    turn = np.radians(degrees)
    t, b = part_m / 2 * np.cos(turn), part_m / 2 * np.sin(turn)
    return {
        "lead_hip": (middle[0] + t, middle[1] + b, middle[2]),
        "trail_hip": (middle[0] - t, middle[1] - b, middle[2]),
    }


LEG = {"lead_knee": (0.2, 0.12, 0.5), "lead_ankle": (0.2, 0.02, 0.1)}
ADDRESS = FEET | LEG | turned(PELVIS_M, 0, (0.0, -0.1, 0.9))
TOP = LEG | turned(PELVIS_M, TURN_DEG, (0.0, -0.1, 0.9))


def view_of(view: str) -> Clip:
    first, second = clip_of(view, ADDRESS), clip_of(view, TOP)
    marks = {name: dict(by_frame) for name, by_frame in first.marks.items()}
    for name, by_frame in second.marks.items():
        marks.setdefault(name, {})[1] = by_frame[0]
    steady = {
        name: {frame: replace(mark, sd_px=SD_PX) for frame, mark in by_frame.items()}
        for name, by_frame in marks.items()
    }
    return replace(first, checkpoints={"address": 0, "top": 1}, marks=steady)


def shaken(clip: Clip, random: np.random.Generator) -> Clip:
    def moved(name: str, mark: Mark) -> Mark:
        # A hand trembles, and an eye takes a joint for another point on each frame anew.
        anew_px = ANEW * missed_m((name,))[0] * PX_PER_M
        x, y = random.normal(0, np.hypot(SD_PX, anew_px), 2)
        return replace(mark, x=mark.x + x, y=mark.y + y)

    marks = {
        name: {
            # Feet at address say where the player stands, which is another source of error.
            frame: mark if name in FEET else moved(name, mark)
            for frame, mark in by_frame.items()
        }
        for name, by_frame in clip.marks.items()
    }
    return replace(clip, marks=marks)


class ClosedFormTests(TestCase):
    @given(st.floats(0.1, 0.6), st.floats(0.1, 0.6), st.floats(5, 90))
    def test_noise_of_an_angle(self, thigh: float, shank: float, flex: float) -> None:
        """s·√(2/L1² + 2/L2² − 2cosθ/(L1·L2)), θ the inside angle, marks shaken in the leg's plane."""
        sd, bend = 1e-4, np.radians(flex)
        hip, knee = np.array([0, 0, thigh]), np.zeros(3)
        ankle = shank * np.array([0, np.sin(bend), -np.cos(bend)])
        # Only what is in the plane matters to first order.
        a, b, c = (point(p, sd, name) for p, name in ((hip, "hip"), (knee, "knee"), (ankle, "ankle")))
        found = angle_between(b.minus(a), c.minus(b))
        inside = np.pi - bend
        form = sd * np.sqrt(2 / thigh**2 + 2 / shank**2 - 2 * np.cos(inside) / (thigh * shank))
        self.assertAlmostEqual(float(found.value), flex, places=6)
        self.assertAlmostEqual(float(np.radians(found.sd)) / form, 1, places=6)

    @given(st.floats(5, 80), st.floats(0, 80))
    def test_a_bend_seen_from_aside_is_foreshortened(self, flex: float, azimuth: float) -> None:
        """2·atan(cos ψ · tan(flex/2)) for thigh and shank that lean alike; face-on sees nothing of it."""
        half, psi = np.radians(flex / 2), np.radians(azimuth)
        across = np.cos(psi)  # what a camera at ψ from the leg's plane sees of its breadth
        thigh = np.array([0, across * np.sin(half), -np.cos(half)])
        shank = np.array([0, -across * np.sin(half), -np.cos(half)])
        seen = angle_between(point(thigh, 0.0, "a"), point(shank, 0.0, "b"))
        self.assertAlmostEqual(float(seen.value), np.degrees(2 * np.arctan(across * np.tan(half))), places=6)


class ShakenTests(TestCase):
    def check(self, reading: str, views: tuple[str, ...]) -> float:
        """The share of the error that the marks bring, against what shaking them does; returns it."""
        clips = tuple(view_of(view) for view in views)
        random = np.random.default_rng(7)

        def at_top(shown: tuple[Clip, ...]) -> Measured:
            kind = KINDS[reading]
            assert isinstance(kind, FromMarks)
            return kind.formula(
                Look(
                    Scene.at_checkpoints(
                        SwingRecord(hand="right", clips=shown, hip_width_m=PELVIS_M / OF_HIP_WIDTH)
                    )
                )
            )

        column = CHECKPOINTS.index("top")
        found = at_top(clips).by_source()
        rows = zip(found.origins.sources[0], found.squares, strict=True)
        marks = [row[column] for source, row in rows if source.kind == "mark"]
        said = float(np.sqrt(np.sum(marks)))
        values = [at_top(tuple(shaken(clip, random) for clip in clips)).value[column] for _ in range(SHAKES)]
        done = float(np.std(values))
        self.assertGreater(said / done, 0.93, (reading, said, done))
        self.assertLess(said / done, 1.07, (reading, said, done))
        return said

    def test_marks_shaken_in_two_views(self) -> None:
        self.check("knee_flex_lead", ("face_on", "down_the_line"))
        said = self.check("pelvis_turn", ("face_on", "down_the_line"))
        # s/W, where s is one standard deviation of one end against the other, across the line.
        form = np.degrees(hip_px() / PX_PER_M * np.sqrt(2) / PELVIS_M)
        self.assertAlmostEqual(said / form, 1, delta=0.15)

    def test_marks_shaken_face_on_alone(self) -> None:
        """A turn from its narrowing has s√(1 + cos²φ) / (W sin φ)."""
        said = self.check("pelvis_turn", ("face_on",))
        phi = np.radians(TURN_DEG)
        sigma = hip_px() / (1100 / 4.1) * np.sqrt(2)
        form = np.degrees(sigma * np.sqrt(1 + np.cos(phi) ** 2) / (PELVIS_M * np.sin(phi)))
        self.assertAlmostEqual(said / form, 1, delta=0.15)
