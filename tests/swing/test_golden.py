"""The readings of a few demo swings stay what they are, unless somebody means to change them."""

import json
from unittest import TestCase

from tests.swing.golden import FILE, readings

# Of a value, or of one metre, degree or second where it is smaller: processors that round a product and a sum
# once agree to 1e-9, others differ by up to 3e-8.
WITHIN = 1e-7


class GoldenTests(TestCase):
    def test_readings_of_the_demo_s_swings_are_what_they_were(self) -> None:
        kept = json.loads(FILE.read_text())
        found = readings()
        self.assertEqual(found.keys(), kept.keys())
        for title, given in found.items():
            with self.subTest(title):
                self.assertEqual(given.keys(), kept[title].keys())
                for key, now in given.items():
                    then = kept[title][key]
                    if isinstance(now, str) or isinstance(then, str):
                        self.assertEqual(now, then, key)
                        continue
                    for a, b in zip(now, then, strict=True):
                        self.assertAlmostEqual(a, b, delta=WITHIN * max(1.0, abs(b)), msg=key)
