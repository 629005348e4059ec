"""Our error propagation against the package `uncertainties` (PyPI, Lebigot)."""

from unittest import TestCase

from uncertainties import ufloat
from uncertainties.umath import hypot as oracle_hypot

from tropometer.swing.error.source import Source
from tropometer.swing.error.value import Measured, hypot


class PropagationTests(TestCase):
    def test_a_correlated_formula_agrees(self) -> None:
        numbers = {"a": (0.32, 0.01), "b": (0.25, 0.02), "c": (4.0, 0.8), "d": (-0.3, 0.06)}
        ours = {name: Measured.of(value, sd, Source("mark", name)) for name, (value, sd) in numbers.items()}
        theirs = {name: ufloat(value, sd) for name, (value, sd) in numbers.items()}

        def formula(v: dict, length):  # type: ignore[no-untyped-def,type-arg]  # runs on both kinds
            scale = length(v["a"], v["b"]) * (1 - v["d"] / v["c"])
            return (v["a"] / scale * (1 + v["d"] / v["c"]) - v["b"] / scale) / (v["a"] - 2 * v["d"])

        found, oracle = formula(ours, hypot), formula(theirs, oracle_hypot)
        self.assertAlmostEqual(found.value, oracle.nominal_value, places=12)
        self.assertAlmostEqual(found.sd, oracle.std_dev, places=9)

    def test_ninety_five_percent_of_a_normal(self) -> None:
        # JCGM 100:2008, table G.1: coverage factor 1.960 for 95 %
        self.assertAlmostEqual(Measured.of(0, 1, Source("mark", "x")).u95, 1.960, places=3)
