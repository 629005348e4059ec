"""Readings of a pressure mat against the made-up golfers, whose forces share nothing with the core."""

import json
from collections import defaultdict
from collections.abc import Iterator
from unittest import TestCase

import numpy as np

from tests.golfer import bodies
from tropometer.golfer.events import Timing, timing
from tropometer.golfer.forces import pressure
from tropometer.golfer.motion import Motion
from tropometer.golfer.schools import SCHOOLS
from tropometer.golfer.true_readings import true_readings
from tropometer.swing.names import CHECKPOINTS
from tropometer.swing.pressure import PRESSURE, pressure_readings
from tropometer.swing.record import Clip, Pressure, RecordError, SwingRecord, from_document, to_document

RATE_HZ, CAMERA_HZ = 100, 240
CLOCK_S = 3.25  # how far the mat's clock is from the swing's
FORCE_SD_N, PLACE_SD, IMPACT_SD_S = 8.0, 0.015, 0.003
MASS_KG = 80.0


def clip_of(when: Timing, end_s: float) -> Clip:
    times = np.arange(0, end_s, 1 / CAMERA_HZ)
    pegs = {at: int(np.abs(times - when.checkpoints[at]).argmin()) for at in CHECKPOINTS}
    return Clip("face", "face_on", 1280, 720, tuple(times.tolist()), pegs)


def felt(motion: Motion, when: Timing, random: np.random.Generator) -> Pressure:
    times = np.arange(0.0, motion.end_s + 0.1, 1 / RATE_HZ)
    true = pressure(motion, times, 1.0, MASS_KG)
    count = len(times)
    return Pressure(
        times + CLOCK_S,
        true.lead_force_n + random.normal(0, FORCE_SD_N, count),
        true.trail_force_n + random.normal(0, FORCE_SD_N, count),
        when.checkpoints["impact"] + CLOCK_S + random.normal(0, IMPACT_SD_S),
        true.lead_place + random.normal(0, PLACE_SD, (count, 2)),
        true.trail_place + random.normal(0, PLACE_SD, (count, 2)),
        IMPACT_SD_S,
        FORCE_SD_N,
        PLACE_SD,
    )


def swings() -> Iterator[tuple[Motion, Timing]]:
    for school in SCHOOLS.values():
        motion = Motion(bodies.body(), school())
        yield motion, timing(motion)


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
                    "right", (clip_of(when, motion.end_s + 0.1),), pressure=felt(motion, when, random)
                )
                for reading in pressure_readings(record):
                    if reading.value is None or reading.u95 is None:
                        self.assertRegex(reading.reason, "too little force|never")
                        continue
                    miss = reading.value - float(true[reading.reading, reading.at])
                    held[reading.reading].append(abs(miss) <= reading.u95)
                    missed[reading.reading].append(miss)
        self.assertEqual(set(held), set(PRESSURE))
        for reading, inside in held.items():
            share = np.mean(inside)
            rms = np.sqrt(np.mean(np.square(missed[reading])))
            self.assertGreater(share, 0.88, reading)
            if reading != "pressure_peak_trail_time":  # a flat peak has no time that could be told well
                self.assertLess(rms, 0.02, reading)

    def test_what_cannot_be_told_says_why(self) -> None:
        motion, when = next(swings())
        mat = felt(motion, when, np.random.default_rng(1))
        clip = clip_of(when, motion.end_s + 0.1)
        for record, words in (
            (SwingRecord("right", (clip,)), "pressure mat"),
            (SwingRecord("right", (Clip("a", "face_on", 10, 10, (0.0, 1.0)),), pressure=mat), "impact peg"),
        ):
            for reading in pressure_readings(record):
                self.assertEqual(reading.status, "refused")
                self.assertIn(words, reading.reason)

    def test_a_record_keeps_the_mat_and_bad_data_name_their_field(self) -> None:
        motion, when = next(swings())
        mat = felt(motion, when, np.random.default_rng(1))
        record = SwingRecord("right", (clip_of(when, motion.end_s + 0.1),), pressure=mat)
        document = json.loads(json.dumps(to_document(record)))
        self.assertEqual(to_document(from_document(document)), document)
        self.assertEqual(pressure_readings(from_document(document)), pressure_readings(record))
        for field, value in (
            ("lead_force_n", [1.0, 2.0]),
            ("impact_s", 99.0),
            ("times_s", [2.0] * len(mat.times_s)),
        ):
            with self.assertRaisesRegex(RecordError, f"^pressure.{field}"):
                from_document({**document, "pressure": {**document["pressure"], field: value}})
