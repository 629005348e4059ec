"""Readings of a pressure plate against the made-up golfers, whose forces share nothing with the core."""

import json
from collections import defaultdict
from collections.abc import Iterator
from dataclasses import replace
from typing import Any
from unittest import TestCase

import numpy as np
from scipy.interpolate import CubicSpline
from scipy.signal import butter, filtfilt

from tests.golfer import bodies
from tropometer.golfer.events import Timing, timing
from tropometer.golfer.forces import pressure
from tropometer.golfer.motion import Motion
from tropometer.golfer.schools import SCHOOLS
from tropometer.golfer.true_readings import true_readings
from tropometer.swing.clocks.felt_strike import felt_strike
from tropometer.swing.error.value import NORMAL_95
from tropometer.swing.formats.plate import plate_document
from tropometer.swing.formats.plate_file import read_plate
from tropometer.swing.formats.record_error import RecordError
from tropometer.swing.formats.swing_record import from_document, to_document
from tropometer.swing.names import CHECKPOINTS
from tropometer.swing.readings.from_plate import FromPlate, curves_of_plate, readings_of_plate
from tropometer.swing.readings.register import kinds_of
from tropometer.swing.record.clip import Clip
from tropometer.swing.record.plate import PressurePlate
from tropometer.swing.record.swing import SwingRecord

RATE_HZ, CAMERA_HZ = 100, 240
CLOCK_S = 3.25  # how far the plate's clock is from the swing's
FORCE_SD_N, PLACE_SD, IMPACT_SD_S = 8.0, 0.015, 0.003
MASS_KG = 80.0
PRESSURE = [kind.id for kind in kinds_of(FromPlate)]


def clip_of(when: Timing, end_s: float) -> Clip:
    times = np.arange(0, end_s, 1 / CAMERA_HZ)
    pegs = {at: int(np.abs(times - when.checkpoints[at]).argmin()) for at in CHECKPOINTS}
    return Clip(
        id="face",
        view="face_on",
        width=1280,
        height=720,
        frame_times_s=tuple(times.tolist()),
        checkpoints=pegs,
    )


def felt(motion: Motion, when: Timing, random: np.random.Generator) -> PressurePlate:
    times = np.arange(0.0, motion.end_s + 0.1, 1 / RATE_HZ)
    true = pressure(motion, times, 1.0, MASS_KG)
    count = len(times)
    return PressurePlate(
        times_s=times + CLOCK_S,
        lead_force_n=true.lead_force_n + random.normal(0, FORCE_SD_N, count),
        trail_force_n=true.trail_force_n + random.normal(0, FORCE_SD_N, count),
        impact_s=when.checkpoints["impact"] + CLOCK_S + random.normal(0, IMPACT_SD_S),
        lead_place=true.lead_place + random.normal(0, PLACE_SD, (count, 2)),
        trail_place=true.trail_place + random.normal(0, PLACE_SD, (count, 2)),
        impact_sd_s=IMPACT_SD_S,
        force_sd_n=FORCE_SD_N,
        place_sd=PLACE_SD,
    )


def swings() -> Iterator[tuple[Motion, Timing]]:
    for school in SCHOOLS.values():
        motion = Motion(bodies.body(), school())
        yield motion, timing(motion)


TABLE = """time_s,lead_force_n,trail_force_n,trail_toe,trail_outer
-0.02,400,380,0.5,0.4
-0.01,390.5,388,0.51,0.4
0.01,410,377,0.52,0.41
"""


FELT = '{"times_s": [0, 1], "lead_force_n": [1, 2.5], "trail_force_n": [1, 2], "force_sd_n": 0.03}'


class FileTests(TestCase):
    def test_tables_and_the_record_s_own_object_are_read(self) -> None:
        felt = read_plate(TABLE, impact_s=0.0)
        self.assertEqual(felt.times_s.tolist(), [-0.02, -0.01, 0.01])
        self.assertEqual(felt.lead_force_n[1], 390.5)
        self.assertIsNone(felt.lead_place)
        assert felt.trail_place is not None
        self.assertEqual(felt.trail_place[2].tolist(), [0.52, 0.41])
        with_commas = "\ufeff" + TABLE.replace(",", ";").replace(".", ",") + "\n;;;;\n"
        document = plate_document(felt)
        for text in (with_commas, json.dumps(document), json.dumps({"pressure": document})):
            self.assertEqual(plate_document(read_plate(text, 0.0)), document)
        self.assertEqual(read_plate(json.dumps(document)).impact_s, 0.0)

    def test_what_is_wrong_is_named_with_its_place(self) -> None:
        for text, impact_s, words in (
            ("", 0.0, "^line 1: there is no column time_s"),
            (TABLE.replace("trail_outer", "edge"), 0.0, "^line 1: there is no column trail_outer"),
            (TABLE.replace("390.5", "much"), 0.0, "^line 3, lead_force_n: “much” is not a number"),
            (TABLE.replace("390.5", "nan"), 0.0, "^line 3, lead_force_n: not a number"),
            (TABLE.replace("390.5,", ""), 0.0, "^line 3: 4 columns, where line 1 has 5"),
            (TABLE.replace("-0.01,", "-0.03,"), 0.0, r"^pressure.times_s\[1\]: times must rise"),
            (TABLE, None, "^impact_s: no strike is felt in the force: say when impact is"),
            (TABLE, 3.0, "^pressure.impact_s: impact is outside"),
            ('{"times_s": [', 0.0, "^line 1: not JSON"),
            ('{"times_s": [0, 1]}', 0.0, "^pressure: .*'lead_force_n' is a required"),
            (FELT.replace("2.5", "NaN"), 0.5, r"^pressure.lead_force_n\[1\]: not a number"),
            (FELT.replace("0.03", "1e999"), 0.5, "^pressure.force_sd_n: not a number"),
            ('{"pressure": []}', 0.0, "^pressure: .* is not of type 'object'"),
        ):
            with self.subTest(words), self.assertRaisesRegex(RecordError, words):
                read_plate(text, impact_s)


class FeltStrikeTests(TestCase):
    """The force is Newton's of the made-up golfers; what shakes the plate is laid on top by the test."""

    fine: Any
    bodies: list[Any]

    @classmethod
    def setUpClass(cls) -> None:
        cls.fine = np.arange(-2.0, 0.8, 0.004)
        cls.bodies = []
        for motion, when in swings():
            told = pressure(motion, cls.fine + when.checkpoints["impact"], 1.0, MASS_KG)
            # Joints that are drawn start and stop at once; nothing above 15 Hz is a body's.
            cls.bodies.append(filtfilt(*butter(2, 15, fs=250), told.lead_force_n + told.trail_force_n))

    def felt(self, body: Any, rate: float, kick_n: float, random: Any) -> tuple[Any, Any]:
        times_s = np.arange(-1.9, 0.7, 1 / rate) + random.uniform(0, 1 / rate)
        ring = kick_n * np.exp(-np.maximum(times_s, 0) / 0.006) * np.cos(2 * np.pi * 70 * times_s)
        noise = random.normal(0, FORCE_SD_N, len(times_s))
        smooth = CubicSpline(self.fine, body)(times_s)
        return times_s, smooth + noise + np.where(times_s >= 0, ring, 0.0)

    def test_the_strike_is_where_the_force_is_shaken(self) -> None:
        random = np.random.default_rng(8)
        found, held = defaultdict(list), []
        for body in self.bodies:
            for rate in (100.0, 200.0, 500.0, 1000.0):
                for _ in range(6):
                    strike = felt_strike(*self.felt(body, rate, 400.0, random))
                    assert strike is not None
                    found[rate].append(strike.by)
                    if strike.by == "spike":
                        held.append(abs(strike.at_s) <= NORMAL_95 * strike.sd_s)
        self.assertEqual(set(found[100.0]), {"course"})  # too slow for a spike
        self.assertEqual({*found[500.0], *found[1000.0]}, {"spike"})
        self.assertGreaterEqual(found[200.0].count("spike") / len(found[200.0]), 0.7)
        self.assertGreaterEqual(np.mean(held), 0.93)

    def test_without_a_spike_it_is_told_by_the_course_and_its_wider_error_holds(self) -> None:
        random = np.random.default_rng(9)
        held = []
        for body in self.bodies:
            for _ in range(8):
                found = felt_strike(*self.felt(body, 200.0, 0.0, random))
                assert found is not None
                self.assertEqual(found.by, "course")
                held.append(abs(found.at_s) <= NORMAL_95 * found.sd_s)
        self.assertGreaterEqual(np.mean(held), 0.9)

    def test_who_only_stands_or_steps_on_strikes_nothing(self) -> None:
        random = np.random.default_rng(10)
        times_s = np.arange(0, 4, 0.005)
        stands = 800 + 15 * np.sin(times_s) + random.normal(0, FORCE_SD_N, len(times_s))
        self.assertIsNone(felt_strike(times_s, stands))
        self.assertIsNone(felt_strike(times_s, np.where(times_s < 2, 0.0, stands)))
        self.assertIsNone(felt_strike(times_s[:4], stands[:4]))
        with self.assertRaisesRegex(ValueError, "do not rise"):
            felt_strike(times_s[::-1], stands)
        with self.assertRaisesRegex(ValueError, "one shape"):
            felt_strike(times_s, stands[1:])

    def test_a_table_that_does_not_say_when_impact_is_has_it_found(self) -> None:
        times_s, total = self.felt(self.bodies[0], 500.0, 400.0, np.random.default_rng(11))
        rows = [f"{t + 7:.4f},{n / 2:.1f},{n / 2:.1f}" for t, n in zip(times_s, total, strict=True)]
        felt = read_plate("\n".join(["time_s,lead_force_n,trail_force_n", *rows]))
        self.assertAlmostEqual(felt.impact_s, 7.0, delta=0.005)
        self.assertLess(felt.impact_sd_s, 0.003)


class PressureTests(TestCase):
    def test_readings_hold_the_truth(self) -> None:
        """Over schools and noise, by reading: the interval holds the truth, which is not far off."""
        random = np.random.default_rng(4)
        held: dict[str, list[bool]] = defaultdict(list)
        missed: dict[str, list[float]] = defaultdict(list)
        for motion, when in swings():
            known = true_readings(motion, when, lambda at, motion=motion: pressure(motion, at, 1.0, MASS_KG))
            true = {(each.reading, each.at): each.value for each in known if each.reading in PRESSURE}
            self.assertEqual({name for name, _ in true}, set(PRESSURE))
            for _ in range(12):
                record = SwingRecord(
                    hand="right", clips=(clip_of(when, motion.end_s + 0.1),), plate=felt(motion, when, random)
                )
                for reading in readings_of_plate(record):
                    if reading.value is None or reading.u95 is None:
                        self.assertRegex(reading.reason, "too little force|never")
                        continue
                    miss = reading.value - float(true[reading.reading, reading.at])
                    held[reading.reading].append(abs(miss) <= reading.u95)
                    missed[reading.reading].append(miss)
        self.assertEqual(set(held), set(PRESSURE))
        for name, inside in held.items():
            share = np.mean(inside)
            rms = np.sqrt(np.mean(np.square(missed[name])))
            self.assertGreater(share, 0.88, name)
            if name != "pressure_peak_trail_time":  # a flat peak has no time that could be told well
                self.assertLess(rms, 0.02, name)

    def test_what_cannot_be_told_says_why(self) -> None:
        motion, when = next(swings())
        plate = felt(motion, when, np.random.default_rng(1))
        clip = clip_of(when, motion.end_s + 0.1)
        for record, words in (
            (SwingRecord(hand="right", clips=(clip,)), "pressure plate"),
            (
                SwingRecord(
                    hand="right",
                    clips=(Clip(id="a", view="face_on", width=10, height=10, frame_times_s=(0.0, 1.0)),),
                    plate=plate,
                ),
                "impact peg",
            ),
        ):
            for reading in readings_of_plate(record):
                self.assertEqual(reading.status, "refused")
                self.assertIn(words, reading.reason)

    def test_a_curve_goes_through_the_readings_at_the_pegs(self) -> None:
        motion, when = next(swings())
        clip = clip_of(when, motion.end_s + 0.1)
        record = SwingRecord(hand="right", clips=(clip,), plate=felt(motion, when, np.random.default_rng(2)))
        told = {(each.reading, each.at): each for each in readings_of_plate(record)}
        curves = {curve.reading: curve for curve in curves_of_plate(record)}
        self.assertEqual(set(curves), {kind.id for kind in kinds_of(FromPlate) if kind.feels})
        for reading, curve in curves.items():
            for at in ("address", "arm_back", "arm_down"):
                row, there = clip.checkpoints[at] - int(curve.frames[0]), told[reading, at]
                assert there.value is not None and there.u95 is not None
                self.assertAlmostEqual(curve.values[row], there.value, places=9)
                # A frame's own time is its moment; a peg's may be half a frame beside it.
                self.assertLess(curve.u95[row], there.u95 * 1.0001)
        self.assertEqual(curves_of_plate(replace(record, plate=None)), [])

    def test_a_record_keeps_the_mat_and_bad_data_name_their_field(self) -> None:
        motion, when = next(swings())
        plate = felt(motion, when, np.random.default_rng(1))
        record = SwingRecord(hand="right", clips=(clip_of(when, motion.end_s + 0.1),), plate=plate)
        document = json.loads(json.dumps(to_document(record)))
        self.assertEqual(to_document(from_document(document)), document)
        self.assertEqual(readings_of_plate(from_document(document)), readings_of_plate(record))
        for field, value in (
            ("lead_force_n", [1.0, 2.0]),
            ("impact_s", 99.0),
            ("times_s", [2.0] * len(plate.times_s)),
        ):
            with self.assertRaisesRegex(RecordError, f"^pressure.{field}"):
                from_document({**document, "pressure": {**document["pressure"], field: value}})
