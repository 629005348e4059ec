"""Units of launch tables against scipy.constants, whose factors are NIST's (SP 811)."""

from unittest import TestCase

from scipy import constants

from tropometer.swing.formats.launch_columns import UNITS

TRUE: dict[str, dict[str, float]] = {
    "speed": {"m/s": 1, "km/h": constants.kmh, "mph": constants.mph, "ft/s": constants.foot},
    "length": {
        "m": 1, "yd": constants.yard, "ft": constants.foot, "cm": constants.centi, "in": constants.inch
    },
    "angle": {"deg": 1, "rad": 1 / constants.degree},
    "turns": {"rpm": 1},
}  # fmt: skip


class LaunchUnitsTests(TestCase):
    def test_every_unit_of_what_is_measured(self) -> None:
        self.assertEqual(set(UNITS), {*TRUE, "clock"})
        for kind, units in TRUE.items():
            self.assertEqual(set(UNITS[kind]), set(units))  # type: ignore[index]
            for unit, factor in units.items():
                self.assertAlmostEqual(UNITS[kind][unit], factor, places=12)  # type: ignore[index]
