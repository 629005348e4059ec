"""The stand-in for a launch monitor: its ball against closed forms, its table against the hour."""

import gzip
import json
from dataclasses import replace
from unittest import TestCase

import numpy as np

from tests.swings import ROOT
from tropometer.standins.ball_flight import GRAVITY, Strike, flight
from tropometer.standins.launch_monitor import hour_table
from tropometer.swing.formats.launch_table import proposed, read_table, shots
from tropometer.teaching.trials.outcomes import outcomes, tried_shot

IRON = Strike(club_speed_m_s=36, club_path_deg=0, attack_deg=-4, face_deg=0, loft_deg=23, head_kg=0.265)


class BallFlightTests(TestCase):
    def test_without_air_it_flies_a_parabola(self) -> None:
        """Range v^2 sin 2a / g: Galilei 1638, Two New Sciences, fourth day."""
        for loft in (12.0, 23.0, 40.0):
            found = flight(replace(IRON, loft_deg=loft), air_kg_m3=0.0)
            range_m = found.ball_speed_m_s**2 * np.sin(2 * np.radians(found.launch_deg)) / GRAVITY
            self.assertAlmostEqual(found.carry_m, range_m, delta=0.002 * range_m)

    def test_a_central_blow_gives_the_speed_that_momentum_and_bounce_give(self) -> None:
        """Newton 1687, Principia, corollary 3 to the laws, with his law of impact."""
        straight = replace(IRON, attack_deg=0, loft_deg=0)
        found = flight(straight)
        # Penner's bounce at such speeds lies between; from memory.
        slow, fast = (36 * (1 + bounce) * 0.265 / (0.265 + 0.04593) for bounce in (0.72, 0.83))
        self.assertTrue(slow < found.ball_speed_m_s < fast, found)
        self.assertLess(found.spin_rpm, 1)

    def test_it_starts_near_the_face_and_bends_away_from_the_path(self) -> None:
        """Common practice, no source; and a driver's carry is what every range sees."""
        found = flight(replace(IRON, club_path_deg=6, face_deg=2))
        self.assertTrue(2 < found.start_deg < 4, found)
        self.assertLess(found.aside_m, found.carry_m * np.sin(np.radians(found.start_deg)) - 3)
        other = flight(replace(IRON, club_path_deg=-6, face_deg=-2))
        self.assertAlmostEqual(other.aside_m, -found.aside_m, places=3)
        driver = Strike(
            club_speed_m_s=50, club_path_deg=0, attack_deg=0, face_deg=0, loft_deg=13, head_kg=0.2
        )
        self.assertTrue(210 < flight(driver).carry_m < 250, flight(driver))

    def test_the_demo_s_table_is_what_the_stand_in_says_of_its_hour(self) -> None:
        hour = ROOT / "demo" / "hour.json.gz"
        text = (ROOT / "demo" / "lane-2.csv").read_text("utf-8")
        self.assertEqual(text, hour_table(hour))
        table = read_table(text)
        told = [tried_shot(each.launch) for each in shots(table, proposed(table), "right")]
        came = [swing["delivery"] for swing in json.loads(gzip.decompress(hour.read_bytes()))]
        for outcome in ("club_speed", "club_path", "attack"):
            true = [each[outcomes()[outcome].field] for each in came]
            off = np.array([each[outcome].value for each in told]) - true
            self.assertGreaterEqual(np.mean(np.abs(off) <= outcomes()[outcome].u95), 0.9, outcome)
