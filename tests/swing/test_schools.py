"""Where a value stands against a band, given its error."""

from unittest import TestCase

from tropometer.swing.readings.register import KINDS
from tropometer.swing.schools import SCHOOLS, Band


class BandTests(TestCase):
    def test_standing_follows_the_interval(self) -> None:
        band = Band("pelvis_sway", "top", -0.06, 0.0)
        for value, u95, standing in [
            (-0.03, 0.01, "inside"),
            (-0.055, 0.01, "edge"),
            (0.005, 0.01, "edge"),
            (-0.09, 0.01, "below"),
            (0.03, 0.01, "above"),
            (-0.03, 0.05, "undecided"),
        ]:
            with self.subTest(value=value, u95=u95):
                self.assertEqual(band.standing(value, u95), standing)

    def test_every_band_is_of_a_known_reading_and_has_room(self) -> None:
        for school in SCHOOLS.values():
            for band in school.bands:
                self.assertIn(band.at, KINDS[band.reading].at)
                self.assertLess(band.low, band.high)
