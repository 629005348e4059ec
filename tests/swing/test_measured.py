"""A value that carries its error."""

import math
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from tropometer.swing.error.source import Source
from tropometer.swing.error.value import Measured, hypot

values = st.floats(0.1, 100)
sds = st.floats(0.001, 1)


class MeasuredTests(TestCase):
    @given(values, sds, values, sds)
    def test_independent_errors_add_in_squares(self, a: float, sa: float, b: float, sb: float) -> None:
        total = Measured.of(a, sa, Source("mark", "a")) + Measured.of(b, sb, Source("mark", "b"))
        self.assertAlmostEqual(total.sd, math.hypot(sa, sb))

    @given(values, sds, values)
    def test_a_shared_error_cancels_in_a_difference(self, a: float, sa: float, b: float) -> None:
        shift = Measured.of(0, sa, Source("mark", "shift"))
        self.assertAlmostEqual(((shift + a) - (shift + b)).sd, 0)

    @given(values, sds, values, sds)
    def test_a_ratio_of_a_value_to_itself_is_exact(self, a: float, sa: float, b: float, sb: float) -> None:
        value = Measured.of(a, sa, Source("mark", "a")) * Measured.of(b, sb, Source("mark", "b"))
        self.assertAlmostEqual((value / value).sd, 0)

    def test_length_of_a_vector(self) -> None:
        length = hypot(Measured.of(3, 0.1, Source("mark", "x")), Measured.of(4, 0.1, Source("mark", "y")))
        self.assertAlmostEqual(length.value, 5)
        self.assertAlmostEqual(length.sd, 0.1)
        self.assertAlmostEqual(length.u95, 0.1959964)
