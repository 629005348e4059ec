"""What comes from devices during an hour: their clocks, a plate's frames, and the strikes in them.

Truth is what the tests and the plate that is not there put in; the core is told none of it.
"""

from __future__ import annotations

from typing import Any
from unittest import TestCase

import numpy as np

from tests.swings import DEMO_CLIPS
from tropometer.standins.plate import Line, PlayedSwing, swings
from tropometer.swing.clocks.tied import Exchange, TiedClock
from tropometer.swing.error.value import NORMAL_95
from tropometer.swing.live.frames import Frame, Frames
from tropometer.swing.live.strikes import StrikeWatch, Swung

HOUR = DEMO_CLIPS.parent / "hour.json.gz"


class TiedClockTests(TestCase):
    def asked(self, clock: TiedClock, at: np.ndarray, offset: float, drift: float, random: Any) -> None:
        """A line that takes 2 ms at best each way, and sometimes a hundred times as long."""
        for asked in at:
            there, back = 0.002 + random.exponential(0.004, 2) * (1 + 40 * (random.random(2) < 0.1))
            theirs = (asked + there) * (1 + drift) + offset
            clock.hear(Exchange(asked_s=asked, heard_s=asked + there + back, theirs_s=theirs))

    def test_a_device_s_time_is_told_on_our_clock_within_its_error(self) -> None:
        random = np.random.default_rng(3)
        held, wide = [], []
        for _ in range(150):
            clock, offset, drift = TiedClock(), random.uniform(-1e6, 1e6), random.normal(0, 50e-6)
            self.asked(clock, np.arange(0, 120, 2.0), offset, drift, random)
            assert clock.tie is not None
            for since in (60.0, 119.0, 180.0):
                ours, sd = clock.tie.ours(since * (1 + drift) + offset)
                held.append(abs(ours - since) <= NORMAL_95 * sd)
                wide.append(sd)
            self.assertEqual(clock.jumps, 0)
        self.assertGreaterEqual(np.mean(held), 0.95)
        self.assertLess(np.median(wide), 0.006)

    def test_a_clock_that_jumps_is_tied_anew(self) -> None:
        random, clock = np.random.default_rng(4), TiedClock()
        self.asked(clock, np.arange(0, 40, 2.0), 5.0, 0.0, random)
        self.asked(clock, np.arange(40, 60, 2.0), 3605.0, 0.0, random)
        self.assertEqual(clock.jumps, 1)
        assert clock.tie is not None
        ours, sd = clock.tie.ours(3605.0 + 61)
        self.assertLessEqual(abs(ours - 61), 3 * sd)

    def test_what_is_no_exchange_is_refused(self) -> None:
        for times in ((2.0, 1.0, 0.0), (0.0, float("nan"), 0.0), (0.0, 1.0, float("inf"))):
            with self.assertRaises(ValueError):
                Exchange(asked_s=times[0], heard_s=times[1], theirs_s=times[2])


def frame(t_s: float, left_n: float = 400.0, **more: Any) -> Frame:
    return Frame(t_s=t_s, left_n=left_n, right_n=400.0, **more)


class FramesTests(TestCase):
    def test_late_doubled_lost_and_senseless_frames_are_counted_and_the_rest_stands_in_order(self) -> None:
        frames = Frames()
        frames.take(frame(n / 100) for n in range(100) if n not in (40, 41, 50))
        self.assertEqual((frames.counts.taken, frames.counts.lost), (97, 3))
        frames.take([frame(0.5), frame(0.5), frame(0.2)])
        senseless = (
            frame(float("nan")),
            frame(1.0, float("inf")),
            frame(1.0, 5e5),
            frame(1.0, left=(9.0, 0.5)),
        )
        frames.take(senseless)
        counts = frames.counts
        self.assertEqual((counts.late, counts.doubled, counts.lost, counts.nonsense), (1, 2, 2, 4))
        times = [each.t_s for each in frames.between(0.0, 9.0)]
        self.assertEqual(times, sorted(times))
        self.assertEqual(len(times), 98)

    def test_only_the_last_seconds_are_kept_and_a_jump_of_the_clock_begins_anew(self) -> None:
        frames = Frames()
        frames.take(frame(n / 50) for n in range(3000))
        self.assertLessEqual(len(frames.between(0, 1e9)), 50 * 12 + 2)
        frames.take([frame(-500.0)])
        self.assertEqual((frames.counts.jumps, frames.last_s), (1, -500.0))

    def test_how_somebody_stands_is_told_by_the_force_and_not_where_nobody_does(self) -> None:
        frames = Frames()
        self.assertIsNone(frames.stands())
        frames.take(frame(n / 100, 600.0, left=(0.6, 0.5), right=(0.4, 0.45)) for n in range(30))
        stands = frames.stands()
        assert stands is not None and stands.left is not None
        self.assertAlmostEqual(stands.left_share, 0.6)
        self.assertAlmostEqual(stands.left[0], 0.6)
        frames.take(Frame(t_s=0.3 + n / 100, left_n=3.0, right_n=2.0) for n in range(30))
        self.assertIsNone(frames.stands())


class StrikeWatchTests(TestCase):
    def watched(self, known: dict[str, Any], line: Line, seed: int) -> tuple[list[Swung], Frames]:
        frames, watch, found = Frames(), StrikeWatch(), []
        packets = PlayedSwing(known).packets(-6.0, 6.0, line, np.random.default_rng(seed))
        for number, packet in enumerate(packets):
            frames.take(packet.frames)
            if number % 5 == 0 and (swung := watch.look(frames, known["hand"])):
                found.append(swung)
        return found, frames

    def test_each_swing_is_found_once_over_a_bad_line_and_its_strike_is_where_it_was(self) -> None:
        bad = Line(clock_s=1000.0, drift=80e-6, latest_s=0.12, lost=0.02, doubled=0.03)
        held = []
        for number, known in enumerate(swings(HOUR)):
            (swung,), frames = self.watched(known, bad, number)
            off = swung.strike.at_s - 1000.0
            held.append(abs(off) <= NORMAL_95 * swung.strike.sd_s)
            self.assertGreater(frames.counts.late + frames.counts.doubled, 50)
            self.assertGreater(frames.counts.lost, 0)
            plate = swung.plate(known["hand"])
            self.assertEqual(plate.impact_s, 0.0)
            self.assertLess(plate.times_s[0], -2.5)
            self.assertGreater(plate.times_s[-1], 1.5)
            assert plate.lead_place is not None
            # What was sent as left and right is the lead foot's again: at the finish it carries nearly all.
            late = plate.times_s > 1.0
            share = plate.lead_force_n[late] / (plate.lead_force_n + plate.trail_force_n)[late]
            self.assertGreater(np.median(share), 0.7)
        self.assertGreaterEqual(np.mean(held), 0.9)

    def test_a_left_hander_s_lead_foot_is_the_right_one(self) -> None:
        known = swings(HOUR)[0] | {"hand": "left"}
        (swung,), _ = self.watched(known, Line(), 1)
        plate = swung.plate("left")
        self.assertGreater(np.median(plate.lead_force_n[-50:]), np.median(plate.trail_force_n[-50:]))

    def test_who_stands_walks_on_or_hops_swings_nothing(self) -> None:
        random = np.random.default_rng(2)
        times = np.arange(0, 12, 0.005)
        still = np.full(len(times), 400.0) + random.normal(0, 6, len(times))
        steps_on = np.where(times < 6, 0.0, still)
        hops = still * (1 + 0.6 * np.exp(-(((times - 8) / 0.06) ** 2)))
        for left, right in ((still, still), (steps_on, np.where(times < 6.5, 0.0, still)), (hops, hops)):
            frames, watch = Frames(), StrikeWatch()
            for i, t in enumerate(times):
                frames.take([Frame(t_s=float(t), left_n=float(left[i]), right_n=float(right[i]))])
                if i % 50 == 0:
                    self.assertIsNone(watch.look(frames, "right"))
