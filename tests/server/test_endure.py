"""The run that kills, for one minute: what was acknowledged is there, once, and nothing is left over."""

import subprocess
import sys
from unittest import TestCase

from tests.swings import ROOT

MINUTES = "1"
LONGEST_S = 1800


class EndureTests(TestCase):
    def test_a_minute_of_killing_loses_doubles_and_leaves_nothing(self) -> None:
        command = [sys.executable, "-m", "ops.endure", MINUTES]
        done = subprocess.run(
            command, cwd=ROOT, capture_output=True, text=True, timeout=LONGEST_S, check=False
        )
        self.assertEqual(done.returncode, 0, f"{done.stdout}\n{done.stderr[-4000:]}")
        table = dict(line.rsplit(maxsplit=1) for line in done.stdout.splitlines())
        for what in (
            "pieces",
            "pieces of a voice",
            "marks",
            "words",
            "sends",
            "tries",
            "words of tries",
            "pegs in the browser",
            "words in the browser",
        ):
            self.assertGreater(int(table[f"acknowledged {what}"]), 0, done.stdout)
        self.assertGreater(sum(int(n) for what, n in table.items() if what.startswith("killed")), 5)
